/**
 * What a box would do with power on, wired as it is recorded: the whole circuit solved with this one box changed, for every
 * position of its switches, beside what it does as planned.
 */
import { plannedBoxes } from '#core/boxes/planned.ts';
import { endsOf, placesOf, type End } from '#core/boxes/wiring.ts';
import type { Run } from '#core/circuits/run.ts';
import { currentIn, magnitude, resistor, solved } from '#core/network/read.ts';
import { breakerLoad } from '#core/instruments/protection.ts';
import type { BoxWiring, ConductorFunction } from '#core/job/schema.ts';
import { EARTH, MAINS_HERTZ, OPEN_OHMS } from '#core/network/network.ts';
import type { Probe } from '#core/network/predict.ts';
import { PERSON_OHMS, spotKey, wiringOf, type Use, type Wiring } from '#core/network/wiring.ts';
import { round } from '#core/units/quantity.ts';
import { Findings, type Effect, type Finding, type When } from './findings.ts';
import { breakerHolds, loadsOf, protection, TEST_AMPS } from './guarding.ts';
import {
  isDead,
  isLive,
  plannedShown,
  readAll,
  show,
  withReset,
  type FaceVolts,
  type Shown,
} from './shown.ts';

export interface Energized {
  /** The worst first; empty where nothing differs from the plan. */
  effects: Effect[];
  /** At the box itself; none where the breaker opens at once. */
  volts: FaceVolts[];
  planned: FaceVolts[];
}

/** More switches than this are not all combined. */
const MOST_SWITCHES = 4;
/** A shock that hurts and may not let go, amperes. */
const SHOCK = 0.005;
/** Current in a ground that is no leak, amperes, with one ampere at each outlet. */
const STRAY_AMPS = 0.05;

const isOn = ({ hotNeutral, hotHot }: FaceVolts): boolean => isLive(hotNeutral) || isLive(hotHot);

const subsets = (list: readonly number[]): number[][] =>
  list.reduce<number[][]>((all, one) => [...all, ...all.map((s) => [...s, one])], [[]]);

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
  meetings(run, at, boxes, findings);
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

function compare(run: Run, planned: Shown, now: Shown, when: When, findings: Findings): void {
  const { box } = run.stops[now.stop]!;
  const light = box.device.kind === 'light';
  const add = (kind: string, level: Effect['level'], say: Finding['say']) =>
    findings.add(kind, level, [box.name, ['top', 'bottom'].includes(now.face) ? now.face : ''], say, when);
  const wasOn = isOn(planned);
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
  else if (!wasOn && isOn(now))
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
function meetings(run: Run, at: number, boxes: readonly BoxWiring[], findings: Findings): void {
  const wiring = boxes[at]!;
  const nodes = wiringOf(run, undefined, boxes).inBox[at]!;
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
