/**
 * What instruments would show at one box under each wiring condition, worked out on the box’s own circuit: the cables from
 * the panel to it with what is joined on the way.
 */
import type { Run } from '#core/circuits/run.ts';
import { lampBranches } from '#core/instruments/lamps.ts';
import { HIGH_OHMS } from '#core/instruments/meter.ts';
import { slotPairs } from '#core/instruments/connect.ts';
import { hotOf, type Fault } from '#core/network/faults.ts';
import { EARTH, MAINS_HERTZ } from '#core/network/network.ts';
import { Predictor, type Probe } from '#core/network/predict.ts';
import {
  JOINT_OHMS,
  PERSON_OHMS,
  spotKey,
  wiringOf,
  type Conductor,
  type Use,
  type Wiring,
} from '#core/network/wiring.ts';

/** `bad`: miswired or open. `worry`: works, and should not be left so. `off`: nothing wrong need be. */
export type Gravity = 'good' | 'worry' | 'bad' | 'off';

export const CONDITIONS = {
  correct: { label: 'Correct', gravity: 'good' },
  'open-ground': { label: 'Open ground', gravity: 'bad' },
  'open-neutral': { label: 'Open neutral', gravity: 'bad' },
  'open-hot': { label: 'Open hot', gravity: 'off' },
  'energized-ground': { label: 'Ground live: a hot touches a ground that goes nowhere', gravity: 'bad' },
  'hot-neutral-reversed': { label: 'Hot and neutral reversed', gravity: 'bad' },
  'hot-ground-reversed': { label: 'Hot and ground reversed', gravity: 'bad' },
  'neutral-ground-reversed': { label: 'Neutral and ground reversed', gravity: 'bad' },
  'false-ground': { label: 'False (bootleg) ground', gravity: 'worry' },
  'false-ground-reversed': { label: 'False (bootleg) ground with hot and neutral reversed', gravity: 'bad' },
  'false-ground-open-neutral': { label: 'False (bootleg) ground with the neutral open', gravity: 'bad' },
  'neutral-ground-joined': { label: 'Neutral joined to a real ground here', gravity: 'worry' },
  'open-shared-neutral': { label: 'Shared neutral open', gravity: 'bad' },
  'open-service-neutral': { label: 'Service neutral open', gravity: 'bad' },
  'two-hots': { label: 'Two hots on one leg', gravity: 'bad' },
  'two-legs': { label: 'Two hots on both legs', gravity: 'bad' },
  'loose-neutral': { label: 'Resistance in the neutral', gravity: 'worry' },
  'loose-hot': { label: 'Resistance in the hot', gravity: 'worry' },
  'lost-leg': { label: 'One leg lost', gravity: 'bad' },
  'same-leg': { label: 'Both hots on one leg', gravity: 'bad' },
  'open-feeder-neutral': { label: 'Neutral of the feeder to this panel open', gravity: 'bad' },
  'no-main-bond': { label: 'Main bond missing: a hot on ground holds every ground live', gravity: 'bad' },
  'open-feeder-ground': {
    label: 'Ground of the feeder to this panel open: a hot on ground holds every ground behind it live',
    gravity: 'bad',
  },
  'hot-on-poor-ground': { label: 'Ground live: a hot touches a ground with a poor path', gravity: 'bad' },
  'switched-off': { label: 'Off at its switch', gravity: 'off' },
  'second-bond': { label: 'Neutral and ground joined a second time, at a subpanel', gravity: 'worry' },
  'borrowed-neutral': { label: 'Neutral borrowed from another circuit', gravity: 'worry' },
  'tied-circuits': { label: 'Two circuits tied together', gravity: 'worry' },
  'wrong-bar': { label: 'Neutral on the ground bar of the panel', gravity: 'worry' },
  leak: { label: 'A leak to ground', gravity: 'worry' },
} as const satisfies Record<string, { label: string; gravity: Gravity }>;
export type Condition = keyof typeof CONDITIONS;

/** Pairs of slots in the order of a prediction’s volts. */
export const READ_PAIRS = ['hotNeutral', 'hotGround', 'neutralGround', 'hotHot'] as const;
export type ReadPair = (typeof READ_PAIRS)[number];
/** What is predicted: the pairs of slots, and the ground slot against a proven ground elsewhere. */
export const PREDICTED = [...READ_PAIRS, 'groundReference'] as const;
export type Predicted = (typeof PREDICTED)[number];
export const PAIR_WORDS: Record<ReadPair, string> = {
  hotNeutral: 'Hot–neutral',
  hotGround: 'Hot–ground',
  neutralGround: 'Neutral–ground',
  hotHot: 'Hot–hot',
};

export interface Prediction {
  condition: Condition;
  /** Ohms of the joint, for conditions that have one. */
  ohms: number | null;
  /** Volts on a meter of high impedance, and with nothing on: apart where a conductor hangs loose. Null: no such pair. */
  meter: Record<Predicted, number | null>;
  open: Record<Predicted, number | null>;
  /** Most that stands where a conductor hangs loose, with all that the spread of the strays allows. */
  ghost: Record<Predicted, number | null>;
  /** Through a body of 1 kΩ from the ground slot, and so from any frame plugged in, to earth, amperes. */
  bodyAmps: number;
  /** Hot–neutral, hot–ground, neutral–ground. */
  lampVolts: [number, number, number] | null;
  /** The same with other ohms in the joint; null where there is none. */
  withOhms: ((ohms: number) => Prediction) | null;
}

/** Ohms that a joint may have, and what its fit begins with. */
export const JOINT_OHMS_RANGE = { least: 0.05, most: 300 } as const;
const FIRST_OHMS = 1;
/** Amperes of something small that was left plugged in. */
const LEFT_ON = 0.5;

/**
 * The run without what is not on the way to a stop; the stop is the last. A cable without a ground is taken to have one:
 * that there is none is a condition of its own.
 */
function pathTo(run: Run, stop: number): Run {
  const path: number[] = [];
  for (let i = stop; i >= 0; i = run.stops[i]!.feeder) path.unshift(i);
  const { circuit } = run;
  return {
    ...run,
    circuit: circuit.cable === 'old two-wire' ? { ...circuit, cable: 'NM-B' } : circuit,
    stops: path.map((i, k) => ({ ...run.stops[i]!, feeder: k - 1 })),
  };
}

interface Case {
  condition: Condition;
  faults: readonly Fault[];
  ohms: number | null;
}

/** Each condition by the faults that make it, at the last stop of a path. */
function casesOf(wiring: Wiring, last: number): Case[] {
  const cases: Case[] = [{ condition: 'correct', faults: [], ohms: null }];
  const has = (conductor: Conductor) =>
    wiring.spotAt.has(spotKey({ stop: last, conductor, part: 'terminal' }));
  const add = (condition: Condition, ...faults: Fault[]) => cases.push({ condition, faults, ohms: null });
  const open = (conductor: Conductor, part: 'start' | 'terminal', stop = last): Fault => ({
    kind: 'open',
    stop,
    conductor,
    part,
  });
  const hot = hotOf(wiring, last);
  const loose = (condition: Condition, conductor: Conductor, ohms: number): Case => ({
    condition,
    faults: [{ kind: 'resistance', stop: last, conductor, part: 'end', ohms }],
    ohms,
  });
  const swap = (a: Conductor, b: Conductor): Fault => ({ kind: 'swap', stop: last, conductors: [a, b] });
  const everywhere = (condition: Condition, conductor: Conductor) => {
    add(condition, open(conductor, 'terminal'));
    add(condition, open(conductor, 'start'));
    if (last > 0) add(condition, open(conductor, 'start', 0));
  };
  if (has('ground')) everywhere('open-ground', 'ground');
  everywhere('open-hot', hot);
  if (has('ground')) {
    add('hot-ground-reversed', swap(hot, 'ground'));
    const touches: Fault = { kind: 'short', stop: last, conductors: [hot, 'ground'], ohms: JOINT_OHMS };
    add('energized-ground', touches, open('ground', 'start'));
    if (last > 0) add('energized-ground', touches, open('ground', 'start', 0));
  }
  if (has('neutral')) {
    const falseGround: Fault = { kind: 'false-ground', stop: last };
    everywhere('open-neutral', 'neutral');
    add('hot-neutral-reversed', swap(hot, 'neutral'));
    if (has('ground')) {
      add('neutral-ground-reversed', swap('neutral', 'ground'));
      add('neutral-ground-joined', {
        kind: 'short',
        stop: last,
        conductors: ['neutral', 'ground'],
        ohms: JOINT_OHMS,
      });
    }
    add('false-ground', falseGround);
    add('false-ground-reversed', falseGround, swap(hot, 'neutral'));
    add('false-ground-open-neutral', falseGround, open('neutral', 'start'));
    add('two-hots', { kind: 'other-hot', stop: last, leg: 'same' });
    add('two-legs', { kind: 'other-hot', stop: last, leg: 'other' });
    cases.push(loose('loose-neutral', 'neutral', FIRST_OHMS));
  }
  const twoHots = wiring.terminals[last]!.red !== null;
  if (has('neutral') || twoHots) cases.push(loose('loose-hot', hot, FIRST_OHMS));
  if (twoHots) {
    add('lost-leg', { kind: 'open', stop: -1, conductor: 'black', part: 'contact' });
    add('lost-leg', { kind: 'open', stop: -1, conductor: 'red', part: 'contact' });
    add('same-leg', { kind: 'same-leg' });
  }
  return cases;
}

/**
 * Predictions at a stop for every condition.
 * @param amps measured at the outlet, at nominal voltage
 * @param lampOhms of each lamp of the tester, or null where none was plugged in
 */
export function predictAt(run: Run, stop: number, amps: number, lampOhms: number | null): Prediction[] {
  const path = pathTo(run, stop);
  // What is plugged in elsewhere is not known; something small left plugged in here shows an open neutral as it is.
  const loads = amps > 0 ? [amps] : [0, LEFT_ON];
  return loads.flatMap((load) => predictWith(path, load, lampOhms, amps === 0 && load > 0));
}

/** Conditions that something left plugged in makes read otherwise. */
const CHANGED_BY_LOAD: readonly Condition[] = [
  'open-neutral',
  'false-ground-open-neutral',
  'hot-ground-reversed',
  'energized-ground',
];

function predictWith(path: Run, amps: number, lampOhms: number | null, leftOn: boolean): Prediction[] {
  const last = path.stops.length - 1;
  const use: Use = { amps: new Map(amps > 0 ? [[last, amps]] : []), open: new Set() };
  const wiring = wiringOf(path, use);
  const terminals = wiring.terminals[last]!;
  const { hot, red } = terminals;
  const slots = slotPairs(terminals);
  const [hotNeutral, hotGround, neutralGround] = slots;
  const withNeutral = path.circuit.neutral;
  const pairs = [
    withNeutral ? hotNeutral : null,
    hotGround,
    withNeutral ? neutralGround : null,
    red === null ? null : ([hot, red] as const),
    [terminals.ground, wiring.panel.ground] as const,
  ];
  const probes = (ohms: number) =>
    pairs.flatMap((pair): Probe[] => (pair ? [{ a: pair[0], b: pair[1], ohms }] : []));
  const cases = casesOf(wiring, last).filter((c) => !leftOn || CHANGED_BY_LOAD.includes(c.condition));
  const body: Probe = { a: terminals.ground, b: EARTH, ohms: PERSON_OHMS };
  const meter = new CaseReader(wiring, cases, [...probes(HIGH_OHMS), ...probes(Infinity), body]);
  const ghosts = (['toward hots', 'away from hots'] as const).map(
    (strays) => new CaseReader(wiringOf(path, { ...use, strays }), cases, probes(Infinity)),
  );
  const lit =
    lampOhms === null
      ? null
      : new CaseReader(
          { ...wiring, branches: [...wiring.branches, ...lampBranches(terminals, lampOhms)] },
          cases,
          slots.map(([a, b]) => ({ a, b, ohms: Infinity })),
        );
  const count = pairs.filter((p) => p !== null).length;
  const byPair = (volts: Float64Array, from: number): Prediction['meter'] => {
    let at = from;
    const values = pairs.map((pair) => (pair ? volts[at++]! : null));
    return Object.fromEntries(PREDICTED.map((pair, k) => [pair, values[k]!])) as Prediction['meter'];
  };
  const most = (lists: readonly Float64Array[]): Float64Array =>
    Float64Array.from(lists[0]!, (_, k) => Math.max(...lists.map((l) => l[k]!)));
  const remembered = new Map<string, Prediction>();
  const predicted = (k: number, ohms: number | null): Prediction => {
    const key = `${k} ${ohms}`;
    const known = remembered.get(key);
    if (known) return known;
    const { condition } = cases[k]!;
    const volts = meter.read(k, ohms);
    const made: Prediction = {
      condition,
      ohms,
      meter: byPair(volts, 0),
      open: byPair(volts, count),
      // A joint holds its conductor: nothing hangs loose there.
      ghost: byPair(ohms === null ? most(ghosts.map((g) => g.read(k, null))) : volts, 0),
      bodyAmps: volts[2 * count]! / PERSON_OHMS,
      lampVolts: lit ? ([...lit.read(k, ohms)] as [number, number, number]) : null,
      withOhms: ohms === null ? null : (other) => predicted(k, other),
    };
    remembered.set(key, made);
    return made;
  };
  return cases.map(({ ohms }, k) => predicted(k, ohms));
}

/** Volts at the probes under each of some cases, of one or two faults. */
class CaseReader {
  private readonly predictor: Predictor;
  private readonly cases: readonly Case[];
  private readonly faults: readonly Fault[];
  private readonly count: number;

  constructor(wiring: Wiring, cases: readonly Case[], probes: readonly Probe[]) {
    this.cases = cases;
    this.faults = [...new Set(cases.flatMap((c) => c.faults))];
    this.count = probes.length;
    this.predictor = new Predictor(wiring, this.faults, probes, MAINS_HERTZ, 2);
  }

  /** @param ohms of the joint; null for cases without one */
  read(k: number, ohms: number | null): Float64Array {
    const { predictor, faults } = this;
    const [first, second] = this.cases[k]!.faults;
    const volts = new Float64Array(this.count);
    predictor.without();
    if (!first) predictor.readings(volts);
    else if (!second) {
      if (ohms !== null) predictor.vary(faults.indexOf(first), ohms);
      predictor.with(faults.indexOf(first), volts);
    } else {
      predictor.given(faults.indexOf(first));
      predictor.with(faults.indexOf(second), volts);
    }
    return volts;
  }
}
