/**
 * The steps of a hunt: what is asked next stands in the log as it was advised, so that the steps follow from the log alone
 * and a reload, a step back or another phone goes on where it was.
 */
import { isAfter, isBefore } from '#core/units/time.ts';
import { fedFrom, type Run } from '#core/circuits/run.ts';
import type { Command } from '#core/job/commands.ts';
import { newId, PLAIN_READING, rows, struckBy } from '#core/job/document.ts';
import type { Box, Circuit, FaultRecord, Reading } from '#core/job/schema.ts';
import { isTurnedOff } from '#core/diagnosis/hunt/asking.ts';
import { KINDS } from '#core/diagnosis/hunt/kinds.ts';
import { MEASURE_FACTS, whyNotNow, type Measure } from '#core/diagnosis/hunt/measures.ts';
import { Topology } from '#core/diagnosis/hunt/topology.ts';
import { causeOfKey, findingWords, keyWords, measureWords } from '#core/diagnosis/hunt/words.ts';
import { circuitState, isOff } from '#core/records/proof.ts';
import {
  amps,
  ask,
  look,
  measure as figures,
  optional,
  volts,
  work,
  type Answer,
  type Context,
  type Signed,
  type Step,
} from '../step.ts';
import { firstOf, huntCase, justBefore, KEYS, TOWARD, type HuntCase } from './case.ts';
import { INSTRUMENT_FACTS } from '#core/records/instruments.ts';
import { orderOf, type Order } from './orders.ts';

type Steps = readonly (Step | false | null)[];

/** More than so many questions no hunt asks. */
const MOST = 60;

/** The circuit on record as energized, where it had been off; one that nobody turned off needs no word. */
const poweredOn = (c: Context, circuit: Circuit): Circuit | null =>
  circuitState(c.document, circuit, c.now) === 'unproved' ? null : circuit;

/** The hunt from here to what was found and mended. */
export function huntSteps(c: Context, circuit: Circuit): Steps {
  const hunt = huntCase(c, circuit);
  const { run } = hunt.ground;
  if (run.stops.length === 0) return [];
  const steps: (Step | false | null)[] = [];
  const first = firstOf(c, run).map((measure): Order => ({ do: 'measure', measure }));
  for (let n = 0; n < MOST; n++) {
    const key = `${KEYS.think}${n}`;
    const text = c.log.pick(key);
    if (!first[n]) {
      steps.push(think(circuit, hunt, key));
      if (text === null) return steps;
    }
    const order = first[n] ?? orderOf(text!, run);
    // It speaks of what is not on the circuit any more: the next question is asked.
    if (!order) continue;
    if (order.do === 'measure') {
      const step = measureStep(c, circuit, hunt, order.measure, `${KEYS.find}${n}`);
      steps.push(step);
      if (!c.log.has(step.key)) return steps;
    } else if (order.do === 'repair') {
      const step = repairStep(circuit, hunt, order.key, `${KEYS.repair}${n}`);
      steps.push(step);
      if (!c.log.has(step.key)) return steps;
    } else {
      const end = order.do === 'done' ? retestStep(c, circuit, n) : stopStep(n, order);
      // A finding that was struck or added since asks the question anew.
      if (order.do === 'stop' && !c.log.has(end.key) && changedSince(c, hunt, c.log.entry(key)!.at)) continue;
      steps.push(end);
      if (!c.log.has(end.key)) return steps;
      if (!c.log.picked(end.key, 'again')) break;
    }
  }
  return [...steps, faultStep(c, circuit, hunt)];
}

/** Whether something was struck, added or read on the circuit after a moment. */
function changedSince({ document, call }: Context, { ground }: HuntCase, at: string): boolean {
  const boxes = new Set(ground.run.stops.map((s) => s.box.id));
  return (
    rows(document.entries).some((e) => e.callId === call.id && isAfter(e.at, at)) ||
    rows(document.readings).some((r) => boxes.has(r.boxId) && isAfter(r.at, at))
  );
}

/** What comes next is worked out aside; it is refused where it may not be done as things stand. */
const think = (circuit: Circuit, hunt: HuntCase, key: string): Step => ({
  kind: 'think',
  key,
  title: 'What to measure next',
  why: 'Every cause that fits is weighed; the measurement that tells most for its minutes and risk comes first.',
  circuit,
  says: ({ note }) => note,
  refuses: ({ picks: [text = ''] }) => {
    const order = orderOf(text, hunt.ground.run);
    if (!order) return 'expected a measurement of this circuit';
    if (order.do !== 'measure') return null;
    const { evidence, mended, situation, ground } = hunt;
    return whyNotNow(order.measure, ground.run, situation, evidence, mended.length);
  },
});

const SKIP = ['skip', 'Not possible here'] as const;

function measureStep(c: Context, circuit: Circuit, hunt: HuntCase, measure: Measure, key: string): Step {
  const { run } = hunt.ground;
  const { title, how } = measureWords(measure, run);
  const { caution } = MEASURE_FACTS[measure.kind];
  const box = 'stop' in measure && measure.stop >= 0 ? run.stops[measure.stop]!.box : null;
  const why = 'Of all that may be asked now it tells most for its minutes and risk.';
  const live = poweredOn(c, circuit);
  const more = { text: how, caution, live };
  switch (measure.kind) {
    case 'volts':
      return figures(
        key,
        title,
        why,
        [
          ...(measure.amps > 0 ? [optional(volts('free', 'Hot–neutral, load off'))] : []),
          volts('hn', 'Hot to neutral'),
          optional(volts('hg', 'Hot to ground')),
          optional(volts('ng', 'Neutral to ground')),
        ],
        {
          ...more,
          // After a repair every outlet is asked for in turn.
          cannot: hunt.mended.length > 0 && measure.amps > 0 ? 'Leave this and the rest unread' : SKIP[1],
          effects: (answer, signed, entry) => readingOf(c, box!, measure.amps, answer, signed, entry),
        },
      );
    case 'reference':
      return figures(key, title, why, [volts('ref', 'Ground slot to the proven ground')], {
        ...more,
        cannot: SKIP[1],
      });
    case 'state':
      return ask(key, title, why, [['on', 'It stands on'], ['off', 'Off, out or tripped'], SKIP], {
        text: how,
        caution,
      });
    case 'works':
      return ask(
        key,
        title,
        why,
        [
          ['works', 'Full light'],
          ['dim', 'Dim or flickering'],
          ['dead', 'Dark'],
          ['bright', 'Too bright'],
          SKIP,
        ],
        more,
      );
    case 'breaker':
      return ask(
        key,
        title,
        why,
        [
          ['holds', 'It holds'],
          ['trips', 'It goes again, at once'],
          ['later', 'It goes after minutes'],
          SKIP,
        ],
        more,
      );
    case 'device':
      return ask(
        key,
        title,
        why,
        [
          ['resets', 'It resets and stays'],
          ['dead', 'It does not reset'],
          ['trips', 'It resets and trips'],
          SKIP,
        ],
        more,
      );
    case 'ohms':
      return figures(
        key,
        title,
        why,
        [
          {
            name: 'ohms',
            label: 'Ohms; empty where it shows over',
            unit: 'Ω',
            min: 0,
            max: 1e9,
            optional: true,
          },
        ],
        { text: how, caution, cannot: SKIP[1], inside: isOff(c.document, circuit, c.now) ? null : box },
      );
    case 'open':
      return look(
        key,
        title,
        why,
        foundThere(hunt, measure.stop).map((k) => [k, KINDS[k].name] as const),
        [
          ['looked', 'That is what is wrong here'],
          ['tight', 'All tight, nothing wrong'],
          ['skip', 'Not possible here'],
        ],
        {
          text: how,
          caution,
          ...(box ? { inside: box, pictures: box } : { inPanel: true }),
          refuses: ({ picks }) =>
            picks.includes('looked') && picks.length < 2 ? 'expected what is wrong here, ticked' : null,
        },
      );
    case 'part':
      return ask(
        key,
        title,
        why,
        [...waysOn(run, measure.stop), ['before', 'The fault is before, or in this box'], SKIP],
        { text: how, caution, inside: box },
      );
    case 'legs':
      return figures(
        key,
        title,
        why,
        [
          volts('a', 'Leg A to neutral'),
          volts('b', 'Leg B to neutral'),
          optional(volts('la', 'Leg A, load on one')),
          optional(volts('lb', 'Leg B, load on one')),
          optional(amps('amps', 'Amps of that load, clamped')),
          optional(amps('pipe', 'Clamp on the electrode conductor or pipe', 'near 0')),
        ],
        { ...more, cannot: SKIP[1] },
      );
    case 'appliance':
      return ask(key, title, why, [['fails', 'It fails there too'], ['works', 'It works there'], SKIP], more);
    case 'elsewhere':
      return ask(
        key,
        title,
        why,
        [
          ['fine', 'All is well elsewhere'],
          ['uneven', 'Some dim, some bright'],
          ['dead', 'Some dead'],
          ['dim', 'All dim'],
        ],
        { text: how, caution },
      );
    case 'amps':
      return figures(
        key,
        title,
        why,
        [
          {
            name: 'amps',
            label: 'Amps',
            unit: 'A',
            min: 0,
            max: 400,
            expects: `rated ${circuit.breaker.rating} A`,
          },
        ],
        { ...more, cannot: SKIP[1] },
      );
  }
}

/** What goes on from a box, each cable by the box that it feeds where there are several. */
function waysOn(run: Run, from: number): (readonly [string, string])[] {
  const fed = fedFrom(run, run.stops[from]!);
  if (fed.length < 2) return [['beyond', 'The fault is in what goes on']];
  return fed.map(({ box }) => [`${TOWARD}${box.id}`, `The fault is in what goes on to ${box.name}`]);
}

/** Kinds that a look into a box may find, the usual first. */
function foundThere({ ground }: HuntCase, stop: number) {
  const inBox = [
    ...(['open-hot', 'open-neutral', 'open-ground', 'poor-hot', 'poor-neutral', 'poor-ground'] as const),
    ...([
      'false-ground',
      'false-ground-reversed',
      'reversed',
      'short',
      'ground-fault',
      'neutral-ground',
      'leak',
    ] as const),
    ...(['line-load', 'wrong-landing', 'borrowed-neutral', 'other-hot', 'tab', 'dead-device'] as const),
  ];
  const atPanel = [
    ...(['poor-breaker', 'dead-breaker', 'lifted-neutral', 'open-hot', 'open-neutral', 'poor-hot'] as const),
    ...([
      'poor-neutral',
      'open-ground',
      'wrong-bar',
      'beside-breaker',
      'single-pole-sensor',
      'same-leg',
    ] as const),
  ];
  const sensed = ground.run.circuit.breaker.protection !== 'none';
  if (stop < 0)
    return atPanel.filter((k) => sensed || (k !== 'beside-breaker' && k !== 'single-pole-sensor'));
  const { kind } = ground.run.stops[stop]!.box.device;
  const device = kind === 'gfci' || kind === 'outlet-afci' || kind === 'switch';
  return inBox.filter((k) => device || (k !== 'line-load' && k !== 'dead-device'));
}

/** A reading that was asked for goes on record as any other. */
function readingOf(
  c: Context,
  box: Box,
  amps: number,
  { picks, figures: read }: Answer,
  { by, at }: Signed,
  entry: string,
): Command[] {
  if (picks.includes('cannot')) return [];
  const value = (name: string) => read.find((f) => f.name === name)?.value ?? null;
  const reading = (of: Pick<Reading, 'at' | 'loadAmps'> & Partial<Reading>): Reading => ({
    ...PLAIN_READING,
    id: newId('reading'),
    boxId: box.id,
    place: `${box.name}, ${c.document.areas[box.areaId]?.name ?? ''}`,
    by,
    stage: 'as-found',
    instrument: INSTRUMENT_FACTS['low-impedance meter'].name,
    meter: 'low-impedance meter',
    from: entry,
    ...of,
  });
  const free = value('free');
  const rows = [
    ...(free === null ? [] : [reading({ at: justBefore(at), hotNeutral: free, loadAmps: 0 })]),
    reading({
      at,
      hotNeutral: value('hn'),
      hotGround: value('hg'),
      neutralGround: value('ng'),
      loadAmps: amps,
    }),
  ];
  return [{ type: 'put', table: 'readings', rows }];
}

function repairStep(circuit: Circuit, { ground }: HuntCase, key: string, step: string): Step {
  const { kind, place } = causeOfKey(key);
  const { repair, beside } = KINDS[kind];
  const box = 'stop' in place ? ground.run.stops[place.stop]!.box : null;
  const turned = isTurnedOff(key);
  const mended = turned
    ? (['mended', 'It was off: on again'] as const)
    : place.at === 'service'
      ? (['mended', 'Mended, both legs even again'] as const)
      : (['mended', place.at === 'plugged' ? 'Taken out or moved' : 'Found and mended'] as const);
  return ask(
    step,
    keyWords(key, ground.run),
    'What remains has this one repair.',
    [
      mended,
      ['not', turned ? 'It stands on' : place.at === 'box' ? 'Not here: all tight' : 'It is not that'],
    ],
    {
      text: repair,
      working: beside === '' ? [] : [{ text: `While hands are there: ${beside}` }],
      ...(turned ? {} : box ? { inside: box } : place.at === 'panel' ? { inPanel: true } : {}),
      ...(place.at === 'service'
        ? { caution: 'The line side is the utility’s: it stays live with the main off.' }
        : {}),
      ...(circuit.breaker.poles === 2 && place.at === 'box'
        ? { caution: 'Two hots here: both poles off, a parted neutral is live.' }
        : {}),
    },
  );
}

const retestStep = (c: Context, circuit: Circuit, n: number): Step =>
  ask(
    `${KEYS.retest}${n}`,
    'With the load that used to do it',
    'A cure is proved by the full load for as long as the fault used to take, not by seconds.',
    [
      ['held', 'It held that long'],
      ['again', 'It did it again'],
      ['later', 'Not tested: somebody watches it'],
    ],
    {
      text: 'Everything back, the load of the complaint on, for the minutes that it took before.',
      live: poweredOn(c, circuit),
    },
  );

const stopStep = (n: number, { why }: Order & { do: 'stop' }): Step =>
  ask(
    `${KEYS.retest}${n}`,
    why === 'none fits' ? 'None of these fits' : 'Nothing left to ask from here',
    why === 'none fits'
      ? 'What was seen fits no cause, and no two of them, that is worked out here.'
      : 'Everything allowed was asked, and more than one cause is left.',
    [['left', 'Left off, written down']],
    {
      text: 'Read again what fits least, or add what else you saw, below: it goes on by itself. Else a second pair of eyes.',
      caution: 'It is not in order because nothing was found: it stays off, or somebody watches it.',
    },
  );

/** A fault record taken back: it stays, struck, and what it voided holds again. */
export const strikeFault = (fault: FaultRecord, signed: Signed): Command => ({
  type: 'put',
  table: 'faults',
  rows: [struckBy(fault, 'fault', signed)],
});

/** What failed, where, how it was seen and mended: on record for this house and for the next one, one for each repair. */
function faultStep(c: Context, circuit: Circuit, hunt: HuntCase): Step {
  const { mended, evidence, ground } = hunt;
  const { run } = ground;
  if (mended.length === 0)
    return work('fault', 'On record', 'What was not found is written down too.', [['Nothing was mended.']]);
  const lines = [...new Set(evidence.map(({ finding }) => findingWords(finding, run)))];
  const { place } = causeOfKey(mended.at(-1)!);
  return figures(
    'fault',
    mended.length > 1 ? `The ${mended.length} faults, on record` : 'The fault, on record',
    'The next one here reads what failed, how it showed, and how long it was tested.',
    [{ name: 'minutes', label: 'Tested with the load for', unit: 'min', min: 0, max: 1e4, optional: true }],
    {
      text: mended.map((k) => keyWords(k, run)).join('; '),
      working: lines.map((text) => ({ text })),
      noteLabel: 'Parts used',
      pictures: 'stop' in place ? run.stops[place.stop]!.box : true,
      effects: ({ figures: given, note }, signed) => {
        const repairs = c.log.entries.filter(
          (e) => e.step.startsWith(KEYS.repair) && e.picks.includes('mended'),
        );
        const list = mended.map((key, k) => ({
          ...recordOf(c, circuit, run, key, repairs[k]?.at ?? signed.at),
          ...signed,
          evidence: lines.join('\n').slice(0, 4000),
          parts: note.trim().slice(0, 400),
          minutes: given.find((f) => f.name === 'minutes')?.value ?? null,
        }));
        return [{ type: 'put', table: 'faults', rows: list }];
      },
    },
  );
}

/** What is known of a repair without being asked. @param mendedAt UTC time */
function recordOf(
  c: Context,
  circuit: Circuit,
  run: Run,
  key: string,
  mendedAt: string,
): Omit<FaultRecord, 'at' | 'by' | 'evidence' | 'parts' | 'minutes'> {
  const { kind, place } = causeOfKey(key);
  const stop = 'stop' in place ? run.stops[place.stop]! : null;
  const held = c.log.entries.findLast((e) => e.step.startsWith(KEYS.retest));
  const own = rows(c.document.readings).filter((r) => run.stops.some((s) => s.box.id === r.boxId));
  const [earlier, later] = [
    own.filter((r) => !isAfter(r.at, mendedAt)),
    own.filter((r) => isAfter(r.at, mendedAt)),
  ];
  const ids = (list: readonly Reading[], most: number) => list.map((r) => r.id).slice(-most);
  const topology = new Topology(run);
  // What was read of the mended part before is no longer so; an appliance changes nothing of the wiring.
  const altered = new Set(
    run.stops.flatMap(({ box }, i) =>
      place.at === 'plugged' || place.at === 'nowhere' || ('stop' in place && !topology.feeds(place.stop, i))
        ? []
        : [box.id],
    ),
  );
  return {
    id: newId('fault'),
    callId: c.call.id,
    circuitId: circuit.id,
    boxId: stop?.box.id ?? null,
    place: place.at === 'nowhere' ? 'plugged' : place.at,
    cause: kind,
    found: keyWords(key, run).slice(0, 400),
    fix: KINDS[kind].repair.slice(0, 400),
    before: ids(
      earlier.filter((r) => !isBefore(r.at, c.call.opened)),
      50,
    ),
    after: ids(later, 50),
    voids: ids(
      earlier.filter((r) => altered.has(r.boxId)),
      200,
    ),
    retest: held?.picks.includes('held') ? 'held' : 'not yet',
    age: stop?.box.found?.deviceAge ?? null,
    makeUp: stop
      ? [stop.box.device.kind, stop.joining, circuit.material, ...(stop.box.found?.signs ?? [])]
          .join(', ')
          .slice(0, 160)
      : circuit.material,
    strikes: null,
  };
}
