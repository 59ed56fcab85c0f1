/** What may be done next: each with its cost, what has to be so before it, and how it is done. */
import { fedFrom, type Run } from '#core/circuits/run.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import type { Evidence } from './evidence.ts';

export type Measure =
  /** Meter at the slots, low impedance; amperes that are put on there. */
  | { kind: 'volts'; stop: number; amps: 0 | 10 }
  /** The handle of the breaker at −1, the button of a device, a switch: looked at, not moved. */
  | { kind: 'state'; stop: number }
  /** A light switched on and looked at. */
  | { kind: 'works'; stop: number }
  /** The ground slot to a lead from a proven ground. */
  | { kind: 'reference'; stop: number }
  /** The breaker reset once with everything unplugged. */
  | { kind: 'breaker' }
  | { kind: 'device'; stop: number }
  | { kind: 'ohms'; stop: number; pair: 'hotNeutral' | 'hotGround' | 'neutralGround' }
  | { kind: 'open'; stop: number }
  | { kind: 'part'; stop: number }
  | { kind: 'legs' }
  | { kind: 'appliance' }
  | { kind: 'elsewhere' }
  | { kind: 'amps' };
export type MeasureKind = Measure['kind'];

export const measureKey = (m: Measure): string =>
  [m.kind, 'stop' in m ? m.stop : '', 'amps' in m ? m.amps : '', 'pair' in m ? m.pair : ''].join(' ').trim();

export const TOOLS = ['meter', 'test load', 'clamp', 'ground lead'] as const;
export type Tool = (typeof TOOLS)[number];

/** What has to be so while it is done. */
type Gate = 'power on' | 'off and locked' | 'proof of dead' | 'panel open' | 'unplugged';

export interface MeasureFacts {
  /** Minutes, walking there included. */
  minutes: number;
  boxes: number;
  gates: readonly Gate[];
  tool: Tool | null;
  /** Somebody near live parts. */
  energized: boolean;
  caution: string;
}

const PLUG = 'Through the slots only: nothing is opened. Rated probes; hands off metal that is plugged in.';
const DEAD_FIRST = 'Off, locked, proved dead in this box before a hand goes in.';

export const MEASURE_FACTS: Readonly<Record<MeasureKind, MeasureFacts>> = {
  volts: { minutes: 3, boxes: 0, gates: ['power on'], tool: 'meter', energized: false, caution: PLUG },
  state: {
    minutes: 2,
    boxes: 0,
    gates: [],
    tool: null,
    energized: false,
    caution: 'It is looked at, not moved.',
  },
  works: {
    minutes: 1,
    boxes: 0,
    gates: ['power on'],
    tool: null,
    energized: false,
    caution: 'A light that glows bright or flickers: off at once.',
  },
  reference: {
    minutes: 4,
    boxes: 0,
    gates: ['power on'],
    tool: 'ground lead',
    energized: false,
    caution: PLUG,
  },
  breaker: {
    minutes: 6,
    boxes: 0,
    gates: ['unplugged'],
    tool: null,
    energized: false,
    caution: 'Once, face turned away. Open again at once is a short: it stays off.',
  },
  device: {
    minutes: 2,
    boxes: 0,
    gates: ['power on', 'unplugged'],
    tool: null,
    energized: false,
    caution: 'Press reset once, with nothing plugged in.',
  },
  ohms: {
    minutes: 6,
    boxes: 0,
    gates: ['off and locked', 'unplugged'],
    tool: 'meter',
    energized: false,
    caution: 'Dead circuits only: volts read zero at the same slots first.',
  },
  open: {
    minutes: 14,
    boxes: 1,
    gates: ['off and locked', 'proof of dead'],
    tool: 'meter',
    energized: false,
    caution: DEAD_FIRST,
  },
  part: {
    minutes: 18,
    boxes: 1,
    gates: ['off and locked', 'proof of dead', 'unplugged'],
    tool: 'meter',
    energized: false,
    caution: DEAD_FIRST,
  },
  legs: {
    minutes: 6,
    boxes: 0,
    gates: ['power on', 'panel open'],
    tool: 'meter',
    energized: true,
    caution:
      'The lugs stay live with the main off. Insulated probes, face shield and gloves; who may, by local law.',
  },
  appliance: {
    minutes: 3,
    boxes: 0,
    gates: ['power on'],
    tool: null,
    energized: false,
    caution: 'Not one that somebody felt a shock from.',
  },
  elsewhere: {
    minutes: 1,
    boxes: 0,
    gates: [],
    tool: null,
    energized: false,
    caution: 'Lights that go bright: main off.',
  },
  amps: {
    minutes: 7,
    boxes: 0,
    gates: ['power on', 'panel open'],
    tool: 'clamp',
    energized: true,
    caution: 'Around one insulated conductor; nothing is touched or moved.',
  },
};

/** Minutes that a thing in front of an outlet costs, and one outdoors or out of reach. */
const BLOCKED = 4;
const OUT_OF_REACH = 5;
/** Opened boxes and live work weigh more than their minutes. */
const PER_BOX = 6;
const NEAR_LIVE = 6;

/** What all weighs, in minutes. */
export function costOf(measure: Measure, run: Run, blocked: ReadonlySet<number> = new Set()): number {
  const { minutes, boxes, energized } = MEASURE_FACTS[measure.kind];
  const own =
    minutes + PER_BOX * boxes + (energized ? NEAR_LIVE : 0) + ('amps' in measure && measure.amps > 0 ? 2 : 0);
  if (!('stop' in measure)) return own;
  const stop = run.stops[measure.stop];
  return own + (blocked.has(measure.stop) ? BLOCKED : 0) + (stop && !stop.box.accessible ? OUT_OF_REACH : 0);
}

/** Who works, with what, and how things stand. */
export interface Situation {
  /** May work near live parts, and in boxes where local law wants a license. */
  qualified: boolean;
  tools: ReadonlySet<Tool>;
  /** Outlets with something heavy before them. */
  blocked: ReadonlySet<number>;
  /** What was said of no use, by its key. */
  declined: ReadonlySet<string>;
  /** After a repair somebody leaves the outlets that were not read since as they are. */
  unread: boolean;
}
export const USUAL_SITUATION: Situation = {
  qualified: true,
  tools: new Set(TOOLS),
  blocked: new Set(),
  declined: new Set(),
  unread: false,
};

/** What the breaker did when it was closed, since the last repair. */
const resets = (evidence: readonly Evidence[], repairs: number) =>
  evidence.flatMap(({ finding, after }) =>
    after >= repairs && finding.kind === 'breaker'
      ? [{ unplugged: finding.unplugged, atOnce: finding.does === 'trips at once' }]
      : [],
  );

/** Whether the breaker opens at once with nothing plugged in: it is not closed again before something was mended. */
export const keepsTripping = (evidence: readonly Evidence[], repairs = 0): boolean =>
  resets(evidence, repairs).some((r) => r.unplugged && r.atOnce);

/** Whether somebody closed or reset what stands at a stop, or at −1 the breaker, since the last repair. */
const moved = (stop: number, evidence: readonly Evidence[], repairs: number): boolean =>
  evidence.some(
    ({ finding, after }) =>
      after >= repairs &&
      (finding.kind === 'breaker' ? stop < 0 : finding.kind === 'device' && finding.stop === stop),
  );

/** Whether something is fed through a stop. */
const goesOn = (run: Run, stop: number): boolean => fedFrom(run, run.stops[stop]!).length > 0;

/** Why a measure is not for now, or null. */
export function whyNotNow(
  measure: Measure,
  run: Run,
  { qualified, tools, declined }: Situation,
  evidence: readonly Evidence[],
  repairs: number,
): string | null {
  const { tool, energized, gates } = MEASURE_FACTS[measure.kind];
  if (declined.has(measureKey(measure))) return 'said to be of no use here';
  if (tool !== null && !tools.has(tool)) return `no ${tool} at hand`;
  if ('amps' in measure && measure.amps > 0 && !tools.has('test load')) return 'no test load at hand';
  if (energized && !qualified) return 'near live parts: a qualified person';
  const holds = keepsTripping(evidence, repairs);
  if (measure.kind === 'state' && moved(measure.stop, evidence, repairs)) return 'it was moved since';
  if (measure.kind === 'breaker' && holds) return 'it opened at once with nothing plugged in: it stays off';
  if (gates.includes('power on') && holds) return 'the breaker stays off';
  const closed = resets(evidence, repairs);
  if (
    gates.includes('power on') &&
    closed.some((r) => r.atOnce) &&
    !closed.some((r) => r.unplugged && !r.atOnce)
  )
    return 'the breaker is reset first, with everything unplugged';
  if (measure.kind === 'open' || measure.kind === 'part') {
    if (!qualified) return 'inside a box: a qualified person, where local law wants one';
    if (measure.kind === 'part' && !goesOn(run, measure.stop)) return 'nothing goes on from there';
  }
  const felt = evidence.some((e) => e.finding.kind === 'shock');
  if (measure.kind === 'appliance' && felt) return 'somebody felt a shock from it: nobody plugs it in';
  return null;
}

/** Everything that can be asked of a circuit. */
export function measuresOf(run: Run): Measure[] {
  return [
    { kind: 'state', stop: -1 },
    { kind: 'breaker' },
    { kind: 'legs' },
    { kind: 'appliance' },
    { kind: 'elsewhere' },
    { kind: 'amps' },
    ...run.stops.flatMap(({ box }, stop): Measure[] => {
      const { kind } = box.device;
      return [
        ...(kind === 'light' ? [{ kind: 'works', stop } as const] : []),
        ...(isReceptacle(box)
          ? ([
              { kind: 'volts', stop, amps: 0 },
              { kind: 'volts', stop, amps: 10 },
              { kind: 'reference', stop },
              { kind: 'ohms', stop, pair: 'hotNeutral' },
              { kind: 'ohms', stop, pair: 'hotGround' },
              { kind: 'ohms', stop, pair: 'neutralGround' },
            ] as const)
          : []),
        ...(kind === 'gfci' || kind === 'outlet-afci'
          ? ([
              { kind: 'state', stop },
              { kind: 'device', stop },
            ] as const)
          : []),
        ...(kind === 'switch' ? [{ kind: 'state', stop } as const] : []),
        { kind: 'open', stop },
        ...(goesOn(run, stop) ? [{ kind: 'part', stop } as const] : []),
      ];
    }),
    { kind: 'open', stop: -1 },
  ];
}
