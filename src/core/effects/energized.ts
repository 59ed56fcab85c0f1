/**
 * What a box would do with power on, wired as it is recorded: the whole circuit solved with this one box changed, for every
 * position of its switches, beside what it does as planned.
 */
import { plannedBoxes } from '#core/boxes/planned.ts';
import { BOX, endsOf, placesOf, type End } from '#core/boxes/wiring.ts';
import type { Run } from '#core/circuits/run.ts';
import { currentIn, magnitude, resistor, solved } from '#core/instruments/connect.ts';
import { LOW_OHMS } from '#core/instruments/meter.ts';
import { breakerLoad, difference, groundedNeutralTrips, isReversed } from '#core/instruments/protection.ts';
import type { BoxWiring, ConductorFunction } from '#core/job/schema.ts';
import { EARTH, MAINS_HERTZ, OPEN_OHMS } from '#core/network/network.ts';
import { Predictor, type Probe } from '#core/network/predict.ts';
import {
  PERSON_OHMS,
  spotKey,
  wiringOf,
  type FaceNodes,
  type Use,
  type Wiring,
} from '#core/network/wiring.ts';
import { round } from '#core/units/quantity.ts';

interface Effect {
  /** `danger`: may kill or burn. `wrong`: does not work as meant, or is not protected. */
  level: 'danger' | 'wrong';
  text: string;
}

/** Volts at one face on a meter that loads, every switch where its load is on; null where it has no such pair. */
export interface FaceVolts {
  face: string;
  hotNeutral: number | null;
  hotGround: number | null;
  neutralGround: number | null;
  hotHot: number | null;
}

export interface Energized {
  /** The worst first; empty where nothing differs from the plan. */
  effects: Effect[];
  /** At the box itself; none where the breaker opens at once. */
  volts: FaceVolts[];
  planned: FaceVolts[];
}

/** What a face shows in one state of the switches. */
interface Shown extends FaceVolts {
  stop: number;
  /** Each contact to earth itself, whatever its ground slot is. */
  hotEarth: number | null;
  otherEarth: number | null;
  neutralEarth: number | null;
  /** Through a body from the metal that can be touched there to earth, the most of it, amperes. */
  bodyAmps: number;
}

/** More switches than this are not all combined. */
const MOST_SWITCHES = 4;
const LIVE = 60;
const DEAD = 10;
/** A shock that hurts and may not let go, amperes. */
const SHOCK = 0.005;
/** Current in a ground that is no leak, amperes, with one ampere at each outlet. */
const STRAY_AMPS = 0.05;
/** Amperes at each outlet for what shows under load alone. */
const TEST_AMPS = 1;

const subsets = (list: readonly number[]): number[][] =>
  list.reduce<number[][]>((all, one) => [...all, ...all.map((s) => [...s, one])], [[]]);

/** Readings of many pairs at once, each with its own meter. */
function readAll(wiring: Wiring, probes: readonly Probe[]): Float64Array {
  const volts = new Float64Array(probes.length);
  new Predictor(wiring, [], probes, MAINS_HERTZ, 1).readings(volts);
  return volts;
}

/** Metal that can be touched at a stop: the ground contacts, the green screw of its device, the box. */
function metalOf({ terminals, inBox }: Wiring, stop: number): number[] {
  const nodes = inBox[stop]!;
  const at = [terminals[stop]!.ground, nodes.get(BOX), nodes.get('device.green')];
  return [...new Set(at.flatMap((n) => n ?? []))];
}

function show(wiring: Wiring): Shown[] {
  const probes: Probe[] = [];
  const ask = (a: number | null, b: number | null, ohms = LOW_OHMS): number | null =>
    a === null || b === null || a === b ? null : probes.push({ a, b, ohms }) - 1;
  const earth = wiring.panel.ground;
  const asked = wiring.terminals.flatMap(({ faces, ground: slot }, stop) => {
    const metal = metalOf(wiring, stop).map((node) => ask(node, EARTH, PERSON_OHMS));
    const list: readonly Partial<FaceNodes>[] = faces.length > 0 ? faces : [{}];
    return list.map(({ name = '', hot = null, hotB = null, neutral = null, ground = null }) => ({
      stop,
      face: name,
      hotNeutral: ask(hot, neutral),
      hotGround: ask(hot, ground ?? slot),
      hotEarth: ask(hot, earth),
      otherEarth: ask(hotB, earth),
      neutralEarth: ask(neutral, earth),
      neutralGround: ask(neutral, ground ?? slot),
      hotHot: ask(hot, hotB),
      metal,
    }));
  });
  const volts = readAll(wiring, probes);
  const read = (at: number | null) => (at === null ? null : round(volts[at]!, 1));
  return asked.map(
    ({
      stop,
      face,
      hotNeutral,
      hotGround,
      hotEarth,
      otherEarth,
      neutralEarth,
      neutralGround,
      hotHot,
      metal,
    }): Shown => ({
      stop,
      face,
      hotNeutral: read(hotNeutral),
      hotGround: read(hotGround),
      hotEarth: read(hotEarth),
      otherEarth: read(otherEarth),
      neutralEarth: read(neutralEarth),
      neutralGround: read(neutralGround),
      hotHot: read(hotHot),
      bodyAmps: Math.max(0, ...metal.map((at) => (at === null ? 0 : volts[at]! / PERSON_OHMS))),
    }),
  );
}

/** Devices that do not reset as they are wired: their contacts stay open, and their faces with them. */
function withReset(run: Run, boxes: readonly BoxWiring[], use: Use): Wiring {
  const wiring = wiringOf(run, use, boxes);
  const stuck = run.stops.flatMap(({ box }, stop) =>
    ['gfci', 'outlet-afci'].includes(box.device.kind) && isReversed(wiring, stop) ? [stop] : [],
  );
  return stuck.length === 0 ? wiring : wiringOf(run, { ...use, notReset: new Set(stuck) }, boxes);
}

const remembered = new WeakMap<Run, Map<string, Shown[]>>();

/** As planned, for a position of the switches. */
function plannedShown(run: Run, open: readonly number[]): Shown[] {
  const known = remembered.get(run) ?? new Map<string, Shown[]>();
  remembered.set(run, known);
  const key = open.join(' ');
  const shown = known.get(key) ?? show(wiringOf(run, { amps: new Map(), open: new Set(open) }));
  known.set(key, shown);
  return shown;
}

/** In which position of the switches something was found, out of how many. */
interface When {
  when: string;
  of: number;
}
const ALWAYS: When = { when: '', of: 1 };

interface Finding {
  level: Effect['level'];
  /** Faces by the outlet that they are of; an outlet as such has none. */
  outlets: Map<string, Set<string>>;
  whens: Set<string>;
  /** Positions of the switches in which it could be found. */
  of: number;
  say: (who: string, many: boolean, when: string) => string;
}

/** Collects what is said of several outlets, and of several positions of the switches, in one sentence. */
class Findings {
  private readonly by = new Map<string, Finding>();

  add(
    kind: string,
    level: Effect['level'],
    [outlet, face]: readonly [outlet: string, face: string],
    say: Finding['say'],
    { when, of }: When = ALWAYS,
  ): void {
    const known = this.by.get(kind) ?? { level, outlets: new Map(), whens: new Set(), of, say };
    known.outlets.set(outlet, (known.outlets.get(outlet) ?? new Set()).add(face));
    known.whens.add(when);
    this.by.set(kind, known);
  }

  list(): Effect[] {
    return [...this.by.values()]
      .map(({ level, outlets, whens, of, say }) => {
        const names = [...outlets].map(([outlet, faces]) =>
          faces.size === 1 && !faces.has('') ? `${outlet} (${[...faces][0]})` : outlet,
        );
        const when =
          whens.size >= of ? '' : whens.size === 1 ? [...whens][0]! : ' in some positions of its switches';
        return { level, text: say(names.join(', '), names.length > 1, when) };
      })
      .sort((a, b) => Number(a.level === 'wrong') - Number(b.level === 'wrong'));
  }
}

/**
 * @param at position of the box in the run's stops
 * @param wiring of that box; the others are as planned
 */
export function energized(run: Run, at: number, wiring: BoxWiring): Energized {
  const boxes = plannedBoxes(run).map((planned, k) => (k === at ? wiring : planned));
  const switches = run.stops.flatMap(({ box }, k) => (box.device.kind === 'switch' ? [k] : []));
  const findings = new Findings();
  const here = { volts: [] as FaceVolts[], planned: [] as FaceVolts[] };
  let shorted = false;
  const positions = subsets(switches.slice(0, MOST_SWITCHES));
  const isOn = ({ hotNeutral, hotHot }: FaceVolts) => isLive(hotNeutral) || isLive(hotHot);
  for (const open of positions) {
    const use: Use = { amps: new Map(), open: new Set(open) };
    const changed = withReset(run, boxes, use);
    const thrown = open.map((k) => run.stops[k]!.box.name);
    const when = thrown.length > 0 ? ` with ${thrown.join(' and ')} thrown` : ' as the switches stand';
    const planned = plannedShown(run, open);
    if (overcurrent(run, changed, { when, of: positions.length }, findings)) {
      shorted ||= open.length === 0;
      continue;
    }
    const shown = show(changed);
    if (open.length === 0) {
      here.volts = shown.filter((s) => s.stop === at && s.face !== '');
      here.planned = planned.filter((s) => s.stop === at && s.face !== '');
    }
    shown.forEach((now, k) => {
      const before = planned[k] ?? now;
      // Of those positions in which it was meant to be as it is meant to be now.
      const of = positions.filter((p) => isOn(plannedShown(run, p)[k] ?? now) === isOn(before)).length;
      compare(run, before, now, { when, of }, findings);
    });
  }
  meetings(run, at, wiring, findings);
  // With the breaker open there is nothing to protect and nothing to load.
  if (!shorted) {
    protection(run, boxes, findings);
    underLoad(run, boxes, findings);
  }
  return { effects: findings.list(), ...here };
}

/** A path from hot to neutral or ground that no load is in. @returns whether there is one */
function overcurrent(run: Run, wiring: Wiring, when: When, findings: Findings): boolean {
  const { breaker } = run.circuit;
  const legs = breaker.poles === 2 ? (['black', 'red'] as const) : (['black'] as const);
  const amps = Math.max(...legs.map((leg) => breakerLoad(wiring, breaker.rating, leg).amps));
  if (amps < 2 * breaker.rating) return false;
  const how = amps >= 5 * breaker.rating ? 'at once' : 'after seconds';
  findings.add(
    'short',
    'danger',
    ['', ''],
    (_who, _many, at) =>
      `A hot meets a neutral, a ground or the other hot: about ${round(amps, 0)} A, the breaker opens ${how}${at}. Never reset onto it.`,
    when,
  );
  return true;
}

const isLive = (v: number | null): boolean => v !== null && v >= LIVE;
const isDead = (v: number | null): boolean => v === null || v < DEAD;

function compare(run: Run, planned: Shown, now: Shown, when: When, findings: Findings): void {
  const { box } = run.stops[now.stop]!;
  const light = box.device.kind === 'light';
  const add = (kind: string, level: Effect['level'], say: Finding['say']) =>
    findings.add(kind, level, [box.name, ['top', 'bottom'].includes(now.face) ? now.face : ''], say, when);
  const wasOn = isLive(planned.hotNeutral) || isLive(planned.hotHot);
  const { hotNeutral, hotGround, neutralGround, hotEarth, neutralEarth, hotHot } = now;
  if (now.bodyAmps >= SHOCK && planned.bodyAmps < SHOCK)
    add(
      'frame',
      'danger',
      (who, _many, at) =>
        `The ground slot and every metal frame at ${who} are live${at}: ${round(1000 * now.bodyAmps, 0)} mA through whoever touches one.`,
    );
  if (!wasOn && planned.hotHot !== null && isDead(hotHot) && (isLive(hotEarth) || isLive(now.otherEarth)))
    add(
      'one-live',
      'danger',
      (who, many, at) =>
        `${who} ${many ? 'are' : 'is'} off${at} and live all the same: one of its hots does not pass the switch, 120 V to ground.`,
    );
  if (isLive(planned.hotGround) && isLive(hotNeutral) && isDead(hotGround) && isDead(neutralGround))
    add(
      'no-ground',
      'danger',
      (who) => `The ground slot at ${who} goes nowhere: a frame that a hot touches stays live.`,
    );
  if ((hotNeutral ?? 0) > 1.5 * 120)
    add(
      '240',
      'danger',
      (who, _many, at) =>
        `${who}: ${round(hotNeutral!, 0)} V where 120 V is meant${at}. What is plugged in burns.`,
    );
  else if (isLive(hotNeutral) && isLive(neutralEarth) && isDead(hotEarth))
    add('reversed', 'danger', (who, _many, at) =>
      light
        ? `${who}: hot and neutral are reversed${at}: the shell of the lampholder is 120 V to ground.`
        : `${who}: hot and neutral are reversed${at}. What is switched off at the plugged-in lamp stays live.`,
    );
  else if (isDead(hotNeutral) && isLive(hotEarth) && (isLive(neutralEarth) || !wasOn))
    add('live-off', 'danger', (who, many, at) =>
      wasOn
        ? `${who} ${many ? 'do' : 'does'} not work${at}, and both of its sides are 120 V to ground.`
        : `${who} ${many ? 'are' : 'is'} off${at} and live all the same: the switch opens the neutral, not the hot. ${light ? 'Its shell is 120 V to ground through the lamp.' : ''}`.trim(),
    );
  else if (wasOn && isDead(hotNeutral) && hotNeutral !== null && isLive(hotEarth))
    add(
      'open-neutral',
      'danger',
      (who, many, at) =>
        `${who} ${many ? 'do' : 'does'} not work${at}, and the hot is there: the neutral does not reach it. With something plugged in, the neutral slot is live too.`,
    );
  else if (wasOn && isDead(hotNeutral) && isDead(hotHot))
    add('dead', 'wrong', (who, many, at) => `${who} ${many ? 'are' : 'is'} dead${at}.`);
  else if (!wasOn && (isLive(hotNeutral) || isLive(hotHot)))
    add(
      'always',
      'wrong',
      (who, many, at) =>
        `${who} ${many ? 'are' : 'is'} live${at}, where the plan has ${many ? 'them' : 'it'} off.`,
    );
  else if (wasOn && planned.hotHot !== null && isDead(hotHot))
    add(
      'one-leg',
      'wrong',
      (who, _many, at) =>
        `${who}: no 240 V between its hots${at}: both are on one leg, or one does not arrive.`,
    );
  else if (wasOn && planned.hotHot !== null && hotHot !== null && hotHot < 1.5 * 120)
    add(
      'half',
      'wrong',
      (who, _many, at) =>
        `${who}: ${round(hotHot, 0)} V where 240 V is meant${at}: a neutral stands where a hot belongs.`,
    );
  else if (planned.hotNeutral === null && isLive(planned.hotEarth) && isDead(hotEarth))
    add('leg', 'wrong', (who, _many, at) => `${who}: one of its hots does not arrive${at}.`);
}

/** What no reading of one moment shows: grounds on neutrals, and two circuits that meet. */
function meetings(run: Run, at: number, wiring: BoxWiring, findings: Findings): void {
  const nodes = wiringOf(
    run,
    undefined,
    plannedBoxes(run).map((p, k) => (k === at ? wiring : p)),
  ).inBox[at]!;
  const ends = new Map(endsOf(wiring).map((e) => [e.id, e]));
  const meeting = new Map<number, End[]>();
  for (const { end, at: place } of wiring.places) {
    const [node, one] = [place === null ? undefined : nodes.get(place), ends.get(end)];
    if (node !== undefined && one) meeting.set(node, [...(meeting.get(node) ?? []), one]);
  }
  const name = [run.stops[at]!.box.name, ''] as const;
  for (const { id, takes, kind, name: screw } of placesOf(wiring)) {
    const held = wiring.places.filter((p) => p.at === id).length;
    if (kind === 'terminal' && held > takes)
      findings.add(
        `crowded ${id}`,
        'wrong',
        name,
        (who) =>
          `${who}: ${held} conductors under the ${screw}, which takes ${takes}, 110.14(A). One of them works loose.`,
      );
  }
  for (const list of meeting.values()) {
    const of = (fn: ConductorFunction) => list.filter((e) => e.function === fn);
    if (of('neutral').length > 0 && of('ground').length > 0)
      findings.add(
        'white-ground',
        'danger',
        name,
        (who) =>
          `White and ground meet at ${who}: what returns by the ground puts volts on metal that is touched. They are joined at the service alone, 250.142(B).`,
      );
    for (const [fn, what] of [
      ['neutral', 'neutrals'],
      ['hot', 'hots'],
    ] as const)
      if (new Set(of(fn).flatMap((e) => (e.cable ? [e.cable.circuitId] : []))).size > 1)
        findings.add(
          `circuits ${fn}`,
          'danger',
          name,
          (who) =>
            `The ${what} of two circuits are joined at ${who}: with one breaker off the other still feeds it, and ground-fault and arc-fault breakers trip.`,
        );
  }
}

/** Outlets that a device of the circuit is meant to protect, and does not. */
function protection(run: Run, boxes: readonly BoxWiring[], findings: Findings): void {
  const none = new Set<number>();
  run.stops.forEach(({ box }, device) => {
    if (box.device.kind !== 'gfci' && box.device.kind !== 'outlet-afci') return;
    const what = box.device.kind === 'gfci' ? 'GFCI' : 'AFCI device';
    const closed = wiringOf(run, { amps: new Map(), open: none }, boxes);
    if (isReversed(closed, device)) {
      findings.add(
        'reset',
        'wrong',
        [box.name, ''],
        (who) =>
          `${who}: its feed is on LOAD. One made since 2006 does not reset and its face is dead; an older one feeds its face unprotected.`,
      );
      return;
    }
    const behind = guardedBy(run, boxes, device);
    const meant = guardedBy(run, plannedBoxes(run), device);
    const at = (stop: number) => [run.stops[stop]!.box.name, ''] as const;
    for (const stop of meant)
      if (!behind.has(stop))
        findings.add(
          `unguarded ${device}`,
          'danger',
          at(stop),
          (who, many) =>
            `${who} ${many ? 'are' : 'is'} no longer protected by the ${what} at ${box.name}: fed from its LINE side, or past it.`,
        );
    for (const stop of behind)
      if (!meant.has(stop))
        findings.add(
          `guarded ${device}`,
          'wrong',
          at(stop),
          (who, many) =>
            `${who} ${many ? 'go' : 'goes'} dead with the ${what} at ${box.name}, which the plan does not have.`,
        );
    if (box.device.kind !== 'gfci') return;
    const sensor = { at: 'box', stop: device } as const;
    if (groundedNeutralTrips(closed, sensor))
      findings.add(
        `joined ${device}`,
        'wrong',
        [box.name, ''],
        (who) => `The GFCI at ${who} trips and does not hold: neutral and ground are joined behind it.`,
      );
    else {
      const loaded = wiringOf(run, { amps: loadsOf(run), open: none }, boxes);
      if (breakerHolds(run, loaded) && difference(loaded, solved(loaded), sensor) >= CLASS_A_TRIPS)
        findings.add(
          `unequal ${device}`,
          'wrong',
          [box.name, ''],
          (who) =>
            `The GFCI at ${who} trips as soon as something behind it draws current: what goes out by it does not come back by it.`,
        );
    }
  });
}

/** Class A devices open from here on, amperes; UL 943. */
const CLASS_A_TRIPS = 0.006;

/** One ampere at every outlet. */
const loadsOf = (run: Run): Map<number, number> =>
  new Map(
    run.stops.flatMap(({ box }, k) =>
      ['switch', 'junction'].includes(box.device.kind) ? [] : [[k, TEST_AMPS] as const],
    ),
  );

const breakerHolds = (run: Run, wiring: Wiring): boolean =>
  breakerLoad(wiring, run.circuit.breaker.rating).amps < 2 * run.circuit.breaker.rating;

/**
 * Stops whose outlets go dead when a protecting device opens: what is fed through its contacts.
 * @param device position of its box in the run's stops
 */
export function guardedBy(run: Run, boxes: readonly BoxWiring[], device: number): Set<number> {
  const read = (open: ReadonlySet<number>) => {
    const wiring = wiringOf(run, { amps: new Map(), open }, boxes);
    // Reversed, it is the other contact that is live.
    const hots = wiring.terminals.map(({ hot, faces }) => [
      ...faces.flatMap((f) => [
        ...(f.hot === null ? [] : [f.hot]),
        ...(f.neutral === null ? [] : [f.neutral]),
      ]),
      hot,
    ]);
    const probes = hots.flat().map((a): Probe => ({ a, b: wiring.panel.neutral, ohms: LOW_OHMS }));
    const volts = readAll(wiring, probes);
    let next = 0;
    return hots.map((list) => {
      const at = list.map(() => volts[next++]!);
      return { live: at.some((v) => v >= LIVE), allDead: at.every((v) => v < DEAD) };
    });
  };
  const closed = read(new Set());
  const open = read(new Set([device]));
  return new Set(run.stops.flatMap((_, k) => (closed[k]!.live && open[k]!.allDead ? [k] : [])));
}

/** What shows with loads on alone: current in the grounds, devices that trip, frames that hang on the neutral. */
function underLoad(run: Run, boxes: readonly BoxWiring[], findings: Findings): void {
  const use: Use = { amps: loadsOf(run), open: new Set() };
  const loaded = (list: readonly BoxWiring[]) => withHalves(withReset(run, list, use));
  const [now, planned] = [loaded(boxes), loaded(plannedBoxes(run))];
  const { breaker } = run.circuit;
  if (!breakerHolds(run, now)) return;
  const stray = groundAmps(now);
  if (stray >= STRAY_AMPS && groundAmps(planned) < STRAY_AMPS) {
    findings.add(
      'stray',
      'danger',
      ['', ''],
      () =>
        'Neutral current flows in the grounds: neutral and ground are joined beyond the service. Metal that is grounded carries volts, and arcs where it is parted.',
    );
    if (breaker.protection === 'gfci' || breaker.protection === 'dual')
      findings.add('breaker', 'wrong', ['', ''], () => 'The GFCI breaker trips with the first load.');
  }
  const cut = (wiring: Wiring) => {
    const home = run.stops.flatMap(({ feeder }, stop) =>
      feeder < 0 ? (wiring.spotAt.get(spotKey({ stop, conductor: 'neutral', part: 'start' })) ?? []) : [],
    );
    const at = new Set(home.map((s) => s.branch));
    const branches = wiring.branches.map((b, k) => (at.has(k) ? { ...b, conductance: 1 / OPEN_OHMS } : b));
    return home.length === 0 ? null : { ...wiring, branches };
  };
  const [nowCut, plannedCut] = [cut(now), cut(planned)];
  if (!nowCut || !plannedCut) return;
  const shocks = (wiring: Wiring) => {
    const grounds = wiring.terminals.map(({ ground }): Probe => ({ a: ground, b: EARTH, ohms: PERSON_OHMS }));
    return [...readAll(wiring, grounds)].map((v) => v / PERSON_OHMS >= SHOCK);
  };
  const [a, b] = [shocks(nowCut), shocks(plannedCut)];
  run.stops.forEach(({ box }, stop) => {
    if (a[stop] && !b[stop])
      findings.add(
        'false-ground',
        'danger',
        [box.name, ''],
        (who) =>
          `False ground at ${who}: its ground hangs on the neutral. It reads correct, and every frame there is live when that neutral opens.`,
      );
  });
}

/** A load from hot to neutral as well where a face takes both hots. */
const withHalves = (wiring: Wiring): Wiring => ({
  ...wiring,
  branches: [
    ...wiring.branches,
    ...wiring.terminals.flatMap(({ faces }) =>
      faces.flatMap(({ hot, hotB, neutral }) =>
        hot !== null && hotB !== null && neutral !== null ? [resistor(hot, neutral, 120 / TEST_AMPS)] : [],
      ),
    ),
  ],
});

/** The most that flows in an equipment ground of the circuit, amperes. */
function groundAmps(wiring: Wiring): number {
  const voltages = solved(wiring);
  return wiring.spots
    .filter((s) => s.part === 'cable' && s.conductor === 'ground')
    .reduce((most, s) => Math.max(most, magnitude(currentIn(wiring, voltages, s.branch, MAINS_HERTZ))), 0);
}
