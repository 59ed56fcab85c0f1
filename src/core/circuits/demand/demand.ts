/**
 * What a load asks of its branch circuit: the amperes that count for conductor and breaker, the smallest and the
 * largest breaker, and which allowances of 240.4 it has. One file for each kind of load.
 */
import type { BranchLoadKind } from '#core/tables/loadKinds.ts';
import { standardAtMost, standardBreaker } from '#core/tables/conductors.ts';
import { round } from '#core/units/quantity.ts';
import { fail, ok, type Result } from '#core/units/result.ts';

export interface BranchLoad {
  kind: BranchLoadKind;
  volts: number;
  /** Runs less than three hours at a time. */
  amps: number | null;
  watts: number | null;
  /** General load that runs three hours or more, beside `amps`. */
  continuousAmps: number;
  /** Minimum circuit ampacity as marked. */
  minimumAmpacity: number | null;
  /** Largest overcurrent device as marked. */
  maximumBreaker: number | null;
  horsepower: number | null;
  /** Motor of the blower beside electric heat, amperes. */
  blowerAmps: number | null;
  /** The circuit feeds more than one receptacle for cord-and-plug loads. */
  severalReceptacles: boolean;
  /** Of several loads on one circuit; `amps` is then what outlets in general are sized for, or null without any. */
  parts: readonly PartLoad[];
}

/** One of several loads on a circuit. */
export interface PartLoad {
  name: string;
  load: BranchLoad;
  /** Hots that it hangs on. */
  hot: 'black' | 'red' | 'both';
}

export interface Step {
  what: string;
  /** The formula with its numbers in. */
  working: string;
  section: string;
}

/** What the circuit of a load must do. Currents in amperes. */
export interface Demand {
  /** Current the load draws: what the corrected ampacity must carry, and what the drop is worked out with. */
  amps: number;
  /** Ampacity before correction and breaker must reach this. */
  counted: number;
  /** Ampacity after correction must reach this. */
  corrected: number;
  leastBreaker: number;
  /** Null where only the conductor limits it. */
  mostBreaker: number | null;
  /** The next standard size above the conductor is open to it, 240.4(B). */
  nextSizeUp: boolean;
  /** 240.4(G): neither the small-conductor caps nor the conductor limit its breaker. */
  ownProtection: boolean;
  /** The breaker usual for it where several will do. */
  usualBreaker: number | null;
  steps: Step[];
}

export const volts = (load: BranchLoad) => `${load.volts} V`;
export const shown = (amps: number) => `${round(amps, 2)} A`;

/** Kinds that only heat: their watts are their volts times their amperes. */
const RESISTIVE: readonly BranchLoadKind[] = [
  'water-heater',
  'tankless-heater',
  'space-heat',
  'range',
  'oven-or-cooktop',
  'kiln',
];
/** Marks of one nameplate differ by no more than this through rounding. */
const ROUNDING = 0.05;

/** Whether amperes and watts of one plate cannot both be right. A motor may take more amperes than its watts tell. */
const disagree = (kind: BranchLoadKind, amps: number, fromWatts: number): boolean =>
  fromWatts > amps * (1 + ROUNDING) || (RESISTIVE.includes(kind) && fromWatts < amps * (1 - ROUNDING));

/** Current from the nameplate: amperes as marked, or watts over volts; of two that disagree the larger. */
export function plateAmps(load: BranchLoad): Result<{ amps: number; working: string }> {
  const marked = load.amps !== null && load.amps > 0 ? load.amps : null;
  const fromWatts = load.watts !== null && load.watts > 0 ? load.watts / load.volts : null;
  const ofWatts = () =>
    `${round(load.watts!, 0).toLocaleString('en-US')} W ÷ ${volts(load)} = ${shown(fromWatts!)}`;
  if (marked === null && fromWatts === null)
    return fail('amps or watts: expected the current or power on the nameplate');
  if (marked === null) return ok({ amps: fromWatts!, working: ofWatts() });
  if (fromWatts === null || !disagree(load.kind, marked, fromWatts))
    return ok({ amps: marked, working: `${shown(marked)} marked` });
  return ok({
    amps: Math.max(marked, fromWatts),
    working: `${shown(marked)} marked, but ${ofWatts()}: the two disagree, the larger counts; read the nameplate again`,
  });
}

type Parts = Partial<Omit<Demand, 'amps' | 'counted'>> & {
  amps: number;
  counted: number;
  /** The smallest breaker, where it need not carry what is counted. */
  leastIs?: number | undefined;
};

/** Between the marks of cooling and motors there may be no standard size; then the one below the largest serves. */
export function betweenMarks(least: number, marked: number | null): number | undefined {
  const most = marked === null || marked < least ? null : standardAtMost(marked);
  return most !== null && (standardBreaker(least) ?? Infinity) > most ? most : undefined;
}

/** The demand with what is not out of the ordinary filled in, or why no breaker will do. */
export function demand({ leastIs, ...parts }: Parts): Result<Demand> {
  const least = leastIs ?? standardBreaker(Math.max(parts.leastBreaker ?? 0, parts.counted, 1));
  if (least === null)
    return fail(`${round(parts.counted, 1)} A is above 400 A, the largest breaker worked with here`);
  const most = parts.mostBreaker ?? null;
  if (most !== null && most < least)
    return fail(`needs a ${least} A breaker, and at most ${most} A is allowed: the two do not meet`);
  return ok({
    corrected: parts.amps,
    nextSizeUp: true,
    ownProtection: false,
    usualBreaker: null,
    steps: [],
    ...parts,
    leastBreaker: least,
    mostBreaker: most,
  });
}

export const continuousStep = (amps: number, section: string): Step => ({
  what: 'Counted at 125 %',
  working: `1.25 × ${shown(amps)} = ${shown(1.25 * amps)}`,
  section,
});

/** A load about which nothing more is known. */
export const PLAIN_LOAD_VALUES: Omit<BranchLoad, 'kind' | 'volts'> = {
  amps: null,
  watts: null,
  continuousAmps: 0,
  minimumAmpacity: null,
  maximumBreaker: null,
  horsepower: null,
  blowerAmps: null,
  severalReceptacles: false,
  parts: [],
};
