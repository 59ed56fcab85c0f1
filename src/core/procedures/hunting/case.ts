/** A hunt as it stands: what was seen, by the answers of its call and the readings beside them, and what was mended. */
import { isBefore } from '#core/units/time.ts';
import type { Evidence, Finding } from '#core/diagnosis/hunt/evidence.ts';
import { isTurnedOff } from '#core/diagnosis/hunt/asking.ts';
import { apartInTime, nearestTo } from '#core/diagnosis/besides.ts';
import { causeOfKey } from '#core/diagnosis/hunt/words.ts';
import { groundOf } from '#core/diagnosis/hunt/ground.ts';
import { measureKey, TOOLS, type Measure, type Situation, type Tool } from '#core/diagnosis/hunt/measures.ts';
import type { Ground } from '#core/diagnosis/hunt/predictions.ts';
import { HIGH_OHMS, LOW_OHMS } from '#core/instruments/meter.ts';
import { rows } from '#core/job/document.ts';
import { inOrder } from '#core/job/order.ts';
import { measurementsOf } from '#core/records/measuring.ts';
import { pastReadings } from '#core/records/proof.ts';
import type { Box, Circuit, Entry, JobDocument, Reading } from '#core/job/schema.ts';
import { roleOf } from '#core/records/people.ts';
import { fedFrom, type Run } from '#core/circuits/run.ts';
import type { Context } from '../step.ts';
import { treesOn } from '../parts/chain.ts';
import { findingsOf } from './measurements.ts';
import { isKind, orderOf, type Order } from './orders.ts';

export interface HuntCase {
  ground: Ground;
  evidence: readonly Evidence[];
  /** Keys of what was mended, in order. */
  mended: readonly string[];
  situation: Situation;
  /** Answers that say an outlet is hard to get at, by the id of each and its stop. */
  blocked: readonly { id: string; stop: number }[];
}

/** Readings of the circuit from an hour before the call on are part of what was seen. */
const BEFORE = 3600_000;

/** Findings of what a customer says first, by the choice that was picked. */
const COMPLAINTS: Readonly<Record<string, (stop: number) => Finding[]>> = {
  dead: (stop) => [{ kind: 'works', stop, does: 'dead' }],
  dim: (stop) => [{ kind: 'works', stop, does: 'dim' }],
  'comes-goes': (stop) => [{ kind: 'works', stop, does: 'comes and goes' }],
  'trips-once': () => [breaker('trips at once', false)],
  'trips-later': () => [breaker('trips later', false)],
  gfci: (stop) => [{ kind: 'device', stop, does: 'does not reset' }],
  'gfci-trips': (stop) => [{ kind: 'device', stop, does: 'resets and trips' }],
  shock: (stop) => [{ kind: 'shock', stop }],
  uneven: () => [{ kind: 'elsewhere', does: 'some dim, some bright' }],
  low: () => [{ kind: 'elsewhere', does: 'all dim' }],
};
const breaker = (
  does: (Finding & { kind: 'breaker' })['does'],
  unplugged: boolean,
  minutes: number | null = null,
  amps: number | null = null,
): Finding => ({ kind: 'breaker', does, unplugged, minutes, amps });

const SIGNS: Readonly<Record<string, (stop: number) => Finding>> = {
  heat: (stop) => ({ kind: 'sign', stop, sign: 'heat' }),
  scorch: (stop) => ({ kind: 'sign', stop, sign: 'scorch' }),
  buzz: (stop) => ({ kind: 'sign', stop, sign: 'buzz' }),
  smell: (stop) => ({ kind: 'sign', stop, sign: 'smell' }),
  smoke: (stop) => ({ kind: 'sign', stop, sign: 'smoke' }),
  rain: () => ({ kind: 'rain' }),
  work: (stop) => ({ kind: 'work', stop }),
  'work-else': () => ({ kind: 'work', stop: null }),
};
const BREAKER_DOES = { holds: 'holds', trips: 'trips at once', later: 'trips later' } as const;
const DEVICE_DOES = { resets: 'resets', dead: 'does not reset', trips: 'resets and trips' } as const;
const WORKS_DOES = { works: 'works', dim: 'dim', dead: 'dead', bright: 'bright' } as const;
const STATE_ON = { on: true, off: false } as const;
const ELSEWHERE_DOES = {
  fine: 'fine',
  uneven: 'some dim, some bright',
  dead: 'some dead',
  dim: 'all dim',
} as const;
const pickOf = <T>(from: Readonly<Record<string, T>>, { picks }: Pick<Entry, 'picks'>): T | undefined =>
  picks.flatMap((p) => from[p] ?? [])[0];
const figure = ({ figures }: Pick<Entry, 'figures'>, name: string): number | null =>
  figures.find((f) => f.name === name)?.value ?? null;

/** What an answer to a measure says; null where it was not possible. */
function measured(order: Order | null, entry: Entry, stopOf: (boxId: string) => number): Finding | null {
  if (order?.do !== 'measure' || entry.picks.includes('cannot') || entry.picks.includes('skip')) return null;
  const { measure } = order;
  switch (measure.kind) {
    case 'volts':
      return {
        kind: 'volts',
        stop: measure.stop,
        volts: {
          hotNeutral: figure(entry, 'hn'),
          hotGround: figure(entry, 'hg'),
          neutralGround: figure(entry, 'ng'),
          hotHot: null,
        },
        reference: null,
        amps: measure.amps,
        free: measure.amps > 0 ? figure(entry, 'free') : null,
        meterOhms: LOW_OHMS,
      };
    case 'reference':
      return {
        kind: 'volts',
        stop: measure.stop,
        volts: { hotNeutral: null, hotGround: null, neutralGround: null, hotHot: null },
        reference: figure(entry, 'ref'),
        amps: 0,
        free: null,
        meterOhms: LOW_OHMS,
      };
    case 'state': {
      const on = pickOf(STATE_ON, entry);
      return on === undefined ? null : { kind: 'state', stop: measure.stop, on };
    }
    case 'works': {
      const does = pickOf(WORKS_DOES, entry);
      return does ? { kind: 'works', stop: measure.stop, does } : null;
    }
    case 'breaker': {
      const does = pickOf(BREAKER_DOES, entry);
      return does ? breaker(does, true) : null;
    }
    case 'device': {
      const does = pickOf(DEVICE_DOES, entry);
      return does ? { kind: 'device', stop: measure.stop, does } : null;
    }
    case 'ohms':
      return {
        kind: 'ohms',
        stop: measure.stop,
        pair: measure.pair,
        ohms: figure(entry, 'ohms') ?? Infinity,
      };
    case 'open':
      return { kind: 'opened', stop: measure.stop, found: entry.picks.filter(isKind) };
    case 'part': {
      const toward = entry.picks.flatMap((p) => after(p, TOWARD) ?? [])[0];
      return {
        kind: 'parted',
        stop: measure.stop,
        amiss: toward === undefined && !entry.picks.includes('beyond') ? 'before' : 'beyond',
        toward: toward === undefined ? null : stopOf(toward),
      };
    }
    case 'legs': {
      const [a, b] = [figure(entry, 'a'), figure(entry, 'b')];
      if (a === null || b === null) return null;
      const [la, lb] = [figure(entry, 'la'), figure(entry, 'lb')];
      return {
        kind: 'legs',
        a,
        b,
        loaded: la === null || lb === null ? null : [la, lb],
        beside: { loadAmps: figure(entry, 'amps'), pipe: figure(entry, 'pipe') },
      };
    }
    case 'appliance':
      return { kind: 'appliance', fails: entry.picks.includes('fails') };
    case 'elsewhere': {
      const does = pickOf(ELSEWHERE_DOES, entry);
      return does ? { kind: 'elsewhere', does } : null;
    }
    case 'amps': {
      const amps = figure(entry, 'amps');
      return amps === null ? null : { kind: 'amps', amps };
    }
  }
}

/** Ohms of what a reading was made with; where nobody said, it may show a ghost. */
const METER_OHMS: Readonly<Record<Reading['meter'], number>> = {
  unknown: HIGH_OHMS,
  'high-impedance meter': HIGH_OHMS,
  'low-impedance meter': LOW_OHMS,
  // It loads what it reads nearly as much: a ghost falls to a volt or two.
  'two-pole tester': LOW_OHMS,
};

/** @param freeBefore hot to neutral without its load, where it was read with one */
const ofReading = (reading: Reading, stop: number, freeBefore: number | null): Finding[] => {
  const { hotNeutral, hotGround, neutralGround, hotHot, groundReference, lamps, loadAmps } = reading;
  const volts = { hotNeutral, hotGround, neutralGround, hotHot };
  const read = [...Object.values(volts), groundReference].some((v) => v !== null);
  return [
    ...(read
      ? [
          {
            kind: 'volts' as const,
            stop,
            volts,
            reference: groundReference,
            amps: loadAmps,
            free: freeBefore,
            meterOhms: METER_OHMS[reading.meter],
          },
        ]
      : []),
    ...(lamps ? [{ kind: 'lamps' as const, stop, lamps: lamps as [boolean, boolean, boolean] }] : []),
  ];
};

/** Readings of one outlet within so long of each other are of one state, milliseconds. */
const BESIDE = 5 * 60_000;

/** Hot to neutral at the same slots with nothing put on, read beside one with a load. */
function freeOf(loaded: Reading, readings: readonly Reading[]): number | null {
  if (loaded.loadAmps === 0) return null;
  const unloaded = readings.filter((r) => r.boxId === loaded.boxId && r.loadAmps === 0);
  const free = nearestTo(loaded, unloaded);
  return free && apartInTime(loaded, free) <= BESIDE ? free.hotNeutral : null;
}

/** When the outlet was read free that was then read with a load. @param at UTC time */
export const justBefore = (at: string): string => new Date(Date.parse(at) - 1).toISOString();

/** A tone that falls below this share of the strongest is past the break. */
export const PAST_BREAK = 0.45;

const hasDim = ({ log }: Context): boolean =>
  log.picked('complaint', 'dim') || log.picked('complaint', 'comes-goes') || log.picked('complaint', 'low');

/** Of what goes on from a box: the pick that names the next box, before its id. */
export const TOWARD = 'toward ';

/** Prefixes of the steps of a hunt in the log, before their number or box. */
export const KEYS = {
  /** From when on readings on record count, where it is not from the call on. */
  since: 'readings-since',

  think: 'think ',
  find: 'find ',
  repair: 'repair ',
  retest: 'retest ',
  state: 'state ',
  seen: 'seen ',
} as const;
const after = (key: string, prefix: string): string | null =>
  key.startsWith(prefix) ? key.slice(prefix.length) : null;

/** What somebody adds to a hunt by themselves, at an outlet. */
const SEEN = [
  ['works', 'Works'],
  ['dead', 'Dead'],
  ['dim', 'Dim'],
  ['bright', 'Too bright'],
  ['comes-goes', 'Comes and goes'],
  ['live-off', 'Live with its breaker off'],
  ['dead-off', 'Dead with its breaker off'],
  ['shock', 'Shock or tingle'],
  ['heat', 'Warm plate'],
  ['scorch', 'Scorched'],
  ['buzz', 'Buzzes'],
  ['smell', 'Smells'],
  ['smoke', 'Smoke'],
  ['work', 'Worked on lately'],
  ['blocked', 'Behind furniture'],
] as const;
const BUTTON = [
  ['test-trips', 'TEST trips it'],
  ['test-idle', 'TEST does nothing'],
] as const;
export const seenOf = ({ device }: Box): readonly (readonly [string, string])[] =>
  device.kind === 'gfci' || device.kind === 'outlet-afci' ? [...SEEN, ...BUTTON] : SEEN;
function seenAt(stop: number, picks: readonly string[]): Finding[] {
  if (stop < 0) return [];
  return picks.flatMap((p): Finding[] => {
    if (p === 'works' || p === 'bright') return [{ kind: 'works', stop, does: p }];
    if (p === 'live-off' || p === 'dead-off') return [{ kind: 'live', stop, live: p === 'live-off' }];
    if (p === 'test-trips') return [{ kind: 'device', stop, does: 'its button trips it' }];
    if (p === 'test-idle') return [{ kind: 'device', stop, does: 'its button does nothing' }];
    const sign = SIGNS[p];
    return sign ? [sign(stop)] : (COMPLAINTS[p]?.(stop) ?? []);
  });
}

/** What a procedure is called for, where nobody is asked what it does. */
const CALLED_FOR: Readonly<Record<string, string>> = {
  'dead-outlet': 'dead',
  'trips-at-once': 'trips-once',
  'gfci-reset': 'gfci',
  shock: 'shock',
  intermittent: 'comes-goes',
};

/** Measurements that a procedure begins with, whatever else would tell more: its own way in. */
const FIRST: Readonly<Record<string, (stop: number) => Measure[]>> = {
  'false-ground': (stop) => [
    { kind: 'volts', stop, amps: 10 },
    { kind: 'reference', stop },
  ],
  'low-volts': (stop) => [{ kind: 'volts', stop, amps: 0 }, { kind: 'legs' }],
  shock: (stop) => [{ kind: 'volts', stop, amps: 0 }],
};
export const firstOf = (c: Context, run: Run): Measure[] => FIRST[c.call.procedure]?.(ownStop(c, run)) ?? [];

/** The stop that the call is about; the first where it is about none of the circuit. */
export const ownStop = ({ box }: Context, run: Run): number =>
  Math.max(
    0,
    run.stops.findIndex((s) => s.box.id === box?.id),
  );

/** More orders than so many say nothing yet. */
const FEW = 8;

/** Orders of a circuit that nobody drew, by what was opened and counted on it; none where nothing was. */
function ordersOf(document: JobDocument, circuit: Circuit, stopOf: (boxId: string) => number): number[][] {
  const trees = treesOn(document, circuit);
  if (trees.length > FEW) return [];
  return trees.map((tree) => {
    const feeders: number[] = [];
    for (const [box, from] of tree) feeders[stopOf(box)] = from === null ? -1 : stopOf(from);
    return feeders;
  });
}

/** What was seen so far, oldest first. */
export function huntCase(c: Context, circuit: Circuit): HuntCase {
  const drawn = groundOf(c.view, circuit);
  const { run } = drawn;
  const stopOf = (boxId: string) => run.stops.findIndex((s) => s.box.id === boxId);
  const orders = circuit.ordered === 'yes' ? [] : ordersOf(c.document, circuit, stopOf);
  const ground = orders.length > 0 ? { ...drawn, orders } : drawn;
  const own = ownStop(c, run);
  const declined = new Set<string>();
  const blocked: { id: string; stop: number }[] = [];
  let unread = false;
  const mended: string[] = [];
  const evidence: Evidence[] = [];
  const since = c.log.pick(KEYS.since) ?? new Date(Date.parse(c.call.opened) - BEFORE).toISOString();
  const called = CALLED_FOR[c.call.procedure];
  if (called !== undefined && !c.log.has('complaint'))
    COMPLAINTS[called]!(own).forEach((finding, k) =>
      evidence.push({ id: `${c.call.id} ${k}`, after: 0, finding }),
    );
  const first = firstOf(c, run);
  const past = pastReadings(c.document);
  // What an answer put on record counts as that answer, corrected or not, and not where it was struck.
  const given = new Set(rows(c.document.entries).flatMap((e) => (e.callId === c.call.id ? [e.id] : [])));
  const corrections = new Map(
    rows(c.document.readings)
      .sort(inOrder)
      .flatMap((r) => (r.corrects === null ? [] : [[r.corrects, r] as const])),
  );
  const standing = (r: Reading): Reading => {
    const next = corrections.get(r.id);
    return next && next !== r ? standing(next) : r;
  };
  const answered = new Set(
    rows(c.document.readings).flatMap((r) =>
      r.from !== null && given.has(r.from) ? [standing(r).id, r.id] : [],
    ),
  );
  const onRecord = rows(c.document.readings).filter(
    (r) => !isBefore(r.at, since) && !answered.has(r.id) && !past.has(r.id) && stopOf(r.boxId) >= 0,
  );
  const readings = onRecord.map((r) => ({
    row: r,
    id: r.id,
    findings: ofReading(r, stopOf(r.boxId), freeOf(r, onRecord)),
    entry: null,
  }));
  const measurements = measurementsOf(c.document)
    .filter(({ measurement: m, struck }) => !struck && !isBefore(m.at, since) && stopOf(m.boxId) >= 0)
    .map(({ measurement: m }) => ({
      row: m,
      id: m.id,
      findings: findingsOf(m, stopOf(m.boxId)),
      entry: null,
    }));
  // Cables of other circuits and spares are counted as well: on a drawn circuit only too few say something.
  run.stops.forEach((at, stop) => {
    const { id, cables } = at.box;
    const drawnSo = 1 + fedFrom(run, at).length;
    if (cables !== null && (circuit.ordered !== 'yes' || cables < drawnSo))
      evidence.push({ id: `cables ${id}`, after: 0, finding: { kind: 'counted', stop, cables } });
  });
  const answers = c.log.entries.map((entry) => ({
    row: entry,
    id: entry.id,
    findings: foundBy(entry),
    entry,
  }));
  const all = [...readings, ...measurements, ...answers].sort((x, y) => inOrder(x.row, y.row));
  for (const { id, findings, entry } of all) {
    findings.forEach((finding, k) =>
      evidence.push({ id: k === 0 ? id : `${id} ${k}`, after: mended.length, finding }),
    );
    const found = entry && after(entry.step, KEYS.find);
    if (found !== null && entry!.picks.includes('cannot') && mended.length > 0) {
      const order = orderAt(found);
      unread ||= order?.do === 'measure' && order.measure.kind === 'volts' && order.measure.amps > 0;
    }
    const n = entry && after(entry.step, KEYS.repair);
    if (n !== null && entry!.picks.includes('mended')) {
      const order = orderAt(n);
      if (order?.do === 'repair') mended.push(order.key);
    }
  }
  const role = roleOf(c.document, c.log.entries.at(-1)?.by ?? c.call.by, c.now)?.role ?? null;
  const lacks = new Set(c.log.picks('tools'));
  const tools = new Set<Tool>(TOOLS.filter((t) => !lacks.has(`no ${t}`)));
  const licensedOnly = c.document.job.settings.hunt.licensedOnly;
  return {
    ground,
    evidence,
    mended,
    situation: {
      qualified: licensedOnly ? role === 'licensed' : role !== 'owner',
      tools,
      blocked: new Set(blocked.map((b) => b.stop)),
      declined,
      unread,
    },
    blocked,
  };

  function orderAt(n: string): Order | null {
    const preset = first[Number(n)];
    if (preset) return { do: 'measure', measure: preset };
    return orderOf(c.log.pick(`${KEYS.think}${n}`) ?? '', run);
  }
  /** What was read with an answer as it was put right since, in Prove or anywhere. */
  function corrected(finding: Finding | null, { id }: Entry): Finding | null {
    if (finding?.kind !== 'volts') return finding;
    const own = rows(c.document.readings).filter((r) => r.from === id);
    const read = own.find((r) => r.loadAmps === finding.amps);
    const free = own.find((r) => r !== read);
    if (!read || (standing(read) === read && (!free || standing(free) === free))) return finding;
    const [as] = ofReading(standing(read), finding.stop, free ? standing(free).hotNeutral : null);
    return as?.kind === 'volts' ? as : finding;
  }
  function toneOf(boxId: string, entry: Entry): Finding[] {
    const [bars, to] = [figure(entry, 'bars'), stopOf(boxId)];
    const conductor = (['hot', 'neutral', 'ground'] as const).find((w) => c.log.picked('open-which', w));
    if (bars === null || to < 0 || !conductor) return [];
    const most = Math.max(...run.stops.map((s) => c.log.figure(`tone ${s.box.id}`, 'bars') ?? 0));
    return [{ kind: 'tone', from: own, to, conductor, heard: bars >= PAST_BREAK * most }];
  }
  function foundBy(entry: Entry): Finding[] {
    const { step, picks } = entry;
    if (step === 'complaint') return picks.flatMap((p) => COMPLAINTS[p]?.(own) ?? []);
    if (step === 'once') {
      const does = pickOf(BREAKER_DOES, entry);
      return does ? [breaker(does, true)] : [];
    }
    if (step === 'how-long')
      return [breaker('trips later', false, figure(entry, 'minutes'), c.log.figure('amps', 'amps'))];
    if (step === 'breaker-reset')
      return [breaker(picks.includes('trips') ? 'trips at once' : 'holds', false)];
    if (step === 'which' && c.call.procedure === 'dim-lights')
      return picks.includes('both')
        ? COMPLAINTS.uneven!(own)
        : picks.includes('house')
          ? COMPLAINTS.low!(own)
          : [];
    if (step === 'neighbors')
      return run.stops.flatMap(({ box }, stop): Finding[] => {
        if (stop === own) return [];
        if (picks.includes(box.id)) return [{ kind: 'works', stop, does: hasDim(c) ? 'dim' : 'dead' }];
        return picks.includes('rest') ? [{ kind: 'works', stop, does: 'works' }] : [];
      });
    const added = after(step, KEYS.seen)?.split(' ')[0];
    if (added !== undefined) {
      if (picks.includes('blocked') && stopOf(added) >= 0)
        blocked.push({ id: entry.id, stop: stopOf(added) });
      return seenAt(stopOf(added), picks);
    }
    const tone = after(step, 'tone ');
    if (tone !== null) return toneOf(tone, entry);
    if (step === 'h-signs') return picks.flatMap((p) => SIGNS[p]?.(own) ?? []);
    const box = after(step, KEYS.state);
    if (box !== null && stopOf(box) >= 0) {
      const does = pickOf(WORKS_DOES, entry);
      return does ? [{ kind: 'works', stop: stopOf(box), does }] : [];
    }
    const opened = after(step, KEYS.repair);
    if (opened !== null && picks.includes('not')) {
      const order = orderAt(opened);
      const key = order?.do === 'repair' ? order.key : '';
      const [at, where] = key.split(' ');
      if (at !== 'box' && at !== 'panel') {
        const { place, kind } = causeOfKey(key);
        return key === '' ? [] : [{ kind: 'cleared', place, cause: kind }];
      }
      const stop = at === 'panel' ? -1 : Number(where);
      return [isTurnedOff(key) ? { kind: 'state', stop, on: true } : { kind: 'opened', stop, found: [] }];
    }
    const again = after(step, KEYS.retest);
    if (again !== null && picks.includes('again'))
      return [{ kind: 'works', stop: own, does: 'comes and goes' }];
    const n = after(step, KEYS.find);
    if (n === null) return [];
    const order = orderAt(n);
    const finding = corrected(measured(order, entry, stopOf), entry);
    if (!finding && order?.do === 'measure') declined.add(measureKey(order.measure));
    return finding ? [finding] : [];
  }
}
