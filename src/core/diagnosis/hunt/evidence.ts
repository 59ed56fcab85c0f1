/** What was seen, measured or told, by stop of the circuit: the whole of what a diagnosis goes by. Missing is missing. */
import type { LegsRead } from '#core/diagnosis/legs.ts';
import type { CausePlace } from './causes.ts';
import type { CauseKind } from './kinds.ts';

/** Pairs of slots that are read. */
export const PAIRS = ['hotNeutral', 'hotGround', 'neutralGround', 'hotHot'] as const;
export type Pair = (typeof PAIRS)[number];

/** Pairs that are read on a dead circuit. */
export const DEAD_PAIRS = ['hotNeutral', 'hotGround', 'neutralGround'] as const;
export type DeadPair = (typeof DEAD_PAIRS)[number];

export const DOES_BREAKER = ['holds', 'trips at once', 'trips later'] as const;
export const DOES_RESET = ['resets', 'does not reset', 'resets and trips'] as const;
export const DOES_DEVICE = [...DOES_RESET, 'its button trips it', 'its button does nothing'] as const;
export const SIGNS_SEEN = ['heat', 'scorch', 'buzz', 'smell', 'smoke'] as const;
export const ELSEWHERE = ['fine', 'some dim, some bright', 'some dead', 'all dim'] as const;
export const WORKS = ['works', 'dead', 'dim', 'comes and goes', 'bright'] as const;

export type Finding =
  /**
   * Volts at the slots, with so many amperes put on there, on a meter of so many ohms; null where it was not read. `free` is hot
   * to neutral just before the load was put on: what it falls by does not hang on the source or on loads elsewhere.
   */
  | {
      kind: 'volts';
      stop: number;
      volts: Readonly<Record<Pair, number | null>>;
      /** Ground slot to a proven ground. */
      reference: number | null;
      amps: number;
      free: number | null;
      meterOhms: number;
    }
  /** Three lamps, hot–neutral, hot–ground, neutral–ground: lit or dark; dim counts as dark. */
  | { kind: 'lamps'; stop: number; lamps: readonly [boolean, boolean, boolean] }
  /** What is usually plugged in or wired there. */
  | { kind: 'works'; stop: number; does: (typeof WORKS)[number] }
  /** Somebody felt a shock or a tingle at what is plugged in. */
  | { kind: 'shock'; stop: number }
  /** The breaker, reset once; minutes and amperes where it opens later. */
  | {
      kind: 'breaker';
      does: (typeof DOES_BREAKER)[number];
      unplugged: boolean;
      minutes: number | null;
      amps: number | null;
    }
  /** A device that protects, reset once with what follows on it. */
  | { kind: 'device'; stop: number; does: (typeof DOES_DEVICE)[number] }
  /** Ohms between slots of the dead circuit, loads unplugged; Infinity where the meter shows over. */
  | { kind: 'ohms'; stop: number; pair: DeadPair; ohms: number }
  /** Megohms by an insulation tester, the circuit dead and all unplugged; Infinity where it shows over. */
  | { kind: 'insulation'; stop: number; pair: DeadPair; megohms: number }
  /** A handle, a button or a switch as it stands, before anybody moves it; off is also tripped. The breaker is at −1. */
  | { kind: 'state'; stop: number; on: boolean }
  /** With the breaker of the circuit off. */
  | { kind: 'live'; stop: number; live: boolean }
  /** Cables in a box, that which feeds it among them. */
  | { kind: 'counted'; stop: number; cables: number }
  /** The box was opened and every joint looked at and tugged. */
  | { kind: 'opened'; stop: number; found: readonly CauseKind[] }
  /**
   * What goes on from a box was parted there, and each cable of it read: what is amiss is before, or beyond, toward which next
   * box; null where nobody said.
   */
  | { kind: 'parted'; stop: number; amiss: 'before' | 'beyond'; toward: number | null }
  /** Volts of both legs at the panel, as loads are; and again with 10 A more on one of them, null where that was not done. */
  | {
      kind: 'legs';
      a: number;
      b: number;
      loaded: readonly [number, number] | null;
      /** What else was read with them. */
      beside?: {
        /** Between the legs, volts. */
        ab?: number | null;
        /** Of each leg at the first reading, and of the load that was put on. */
        amps?: LegsRead['amps'];
        loadAmps?: number | null;
        /** On the electrode conductor or a metal pipe. */
        pipe?: number | null;
      };
    }
  | { kind: 'sign'; stop: number; sign: (typeof SIGNS_SEEN)[number] }
  /** The rest of the house. */
  | { kind: 'elsewhere'; does: (typeof ELSEWHERE)[number] }
  /** The appliance tried on another circuit that was read good. */
  | { kind: 'appliance'; fails: boolean }
  /** It began after work there; null where nobody knows where. */
  | { kind: 'work'; stop: number | null }
  /** It began with rain. */
  | { kind: 'rain' }
  /** A tone between two boxes on one conductor of the dead circuit. */
  | { kind: 'tone'; from: number; to: number; conductor: 'hot' | 'neutral' | 'ground'; heard: boolean }
  /** A cable, a cord, the service: looked at where it would be mended, and it is not that. */
  | { kind: 'cleared'; place: CausePlace; cause: CauseKind }
  /** What the circuit takes at its breaker, all usual loads on. */
  | { kind: 'amps'; amps: number };
export type FindingKind = Finding['kind'];

/** A finding of the circuit as it was then. */
export interface Evidence {
  id: string;
  /** Causes that were mended before it was seen, by the number of repairs done. */
  after: number;
  finding: Finding;
}
