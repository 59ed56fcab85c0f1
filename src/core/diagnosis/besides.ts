/** Readings beside each other: loaded and unloaded, before and after, one box and the next. */
import { byTime } from '#core/units/time.ts';
import type { Run } from '#core/circuits/run.ts';
import type { Limits, Reading } from '#core/job/schema.ts';
import { round } from '#core/units/quantity.ts';
import { jointRemark, type Remark } from './joints.ts';
import { expectedAt, type Setting, type Verdict } from './verdict.ts';

/** Least amperes that a resistance is worked out from. */
const LEAST_AMPS = 1;

/** Two readings at one outlet, one with more load, make resistances. */
export interface Pair {
  unloaded: Reading;
  loaded: Reading;
  amps: number;
  /** Ohms from the source to here by each conductor; null where one of the two was not read. */
  hotOhms: number | null;
  neutralOhms: number | null;
  /** Out and back. */
  loopOhms: number | null;
  /** What sound wiring measures, out and back. */
  plannedLoop: number;
  /** Sag in percent of the unloaded voltage. */
  percent: number | null;
}

const apart = (a: number | null, b: number | null, amps: number): number | null =>
  a === null || b === null ? null : (a - b) / amps;

/** Milliseconds between two readings. */
export const apartInTime = (a: Reading, b: Reading): number => Math.abs(Date.parse(a.at) - Date.parse(b.at));

/** Of some readings the one of the same stage and half as another that is nearest to it in time. */
export const nearestTo = (reading: Reading, others: readonly Reading[]): Reading | undefined =>
  others
    .filter((r) => r.stage === reading.stage && r.half === reading.half)
    .sort((a, b) => apartInTime(reading, a) - apartInTime(reading, b))[0];

/** The newest loaded reading with the unloaded one of the same stage and half that is nearest in time. */
export function pairOf(readings: readonly Reading[], setting: Setting): Pair | null {
  const newestFirst = [...readings].sort((a, b) => byTime(b.at, a.at));
  for (const loaded of newestFirst) {
    if (loaded.loadAmps < LEAST_AMPS) continue;
    const unloaded = nearestTo(
      loaded,
      newestFirst.filter((r) => loaded.loadAmps - r.loadAmps >= LEAST_AMPS),
    );
    if (!unloaded) continue;
    const amps = loaded.loadAmps - unloaded.loadAmps;
    const [before, after] = [unloaded.hotHot ?? unloaded.hotNeutral, loaded.hotHot ?? loaded.hotNeutral];
    const loopOhms = apart(before, after, amps);
    const sound = expectedAt(setting, 0);
    const under = expectedAt(setting, loaded.loadAmps);
    const [soundVolts, underVolts] = [sound.hotHot ?? sound.hotNeutral, under.hotHot ?? under.hotNeutral];
    return {
      unloaded,
      loaded,
      amps,
      hotOhms: apart(unloaded.hotGround, loaded.hotGround, amps),
      neutralOhms: apart(loaded.neutralGround, unloaded.neutralGround, amps),
      loopOhms,
      plannedLoop: (soundVolts! - underVolts!) / ((loaded.loadAmps * underVolts!) / soundVolts!),
      percent: before === null || after === null || before === 0 ? null : (100 * (before - after)) / before,
    };
  }
  return null;
}

/**
 * What a pair tells: more resistance than the plan, one conductor worse than the other.
 * @param usable amperes that the circuit may carry
 */
export function remarksOnPair(pair: Pair, limits: Limits, usable: number): Remark[] {
  const { hotOhms, neutralOhms, loopOhms, plannedLoop } = pair;
  const remarks: Remark[] = [];
  if (loopOhms !== null && loopOhms - plannedLoop > limits.excessOhms) {
    const extra = loopOhms - plannedLoop;
    remarks.push({
      ...jointRemark(
        extra,
        usable,
        `${round(loopOhms, 2)} Ω out and back; the plan gives ${round(plannedLoop, 2)} Ω. A joint of about ${round(extra, 2)} Ω is on the way`,
      ),
      title: 'more resistance than the cable has',
    });
  }
  if (hotOhms !== null && neutralOhms !== null) {
    const [more, less] = hotOhms > neutralOhms ? [hotOhms, neutralOhms] : [neutralOhms, hotOhms];
    const name = hotOhms > neutralOhms ? 'hot' : 'neutral';
    // A difference within what a meter resolves says nothing.
    if (more - less > 0.1 && less > 0 && (100 * (more - less)) / less > limits.imbalancePercent)
      remarks.push({
        level: 'worry',
        title: `the ${name} is worse than its fellow`,
        text: `Hot ${round(hotOhms, 2)} Ω, neutral ${round(neutralOhms, 2)} Ω: conductors of one cable should be alike. Look for the joint on the ${name}.`,
      });
  }
  return remarks;
}

/** A reading taken before work and one after it, at one outlet. */
export const beforeAndAfter = (readings: readonly Reading[]): { before: Reading; after: Reading } | null => {
  const last = (stage: Reading['stage']) =>
    readings.filter((r) => r.stage === stage).sort((a, b) => byTime(b.at, a.at))[0];
  const [before, after] = [last('as-found'), last('as-left')];
  return before && after ? { before, after } : null;
};

/** Under so much load, and from so many volts more than its cable takes, a joint is told from the next outlet. */
const BESIDE_FROM = { amps: 5, volts: 2 } as const;

/** Volts from hot to neutral at the panel that a reading under its own load speaks of. */
const atPanel = (run: Run, stop: number, { hotNeutral, loadAmps }: Reading): number | null =>
  hotNeutral === null || loadAmps < BESIDE_FROM.amps
    ? null
    : hotNeutral + 2 * loadAmps * run.stops[stop]!.pathOhms;

/**
 * A joint or a worn contact that shows beside the neighbors of an outlet: under like loads it falls by more than they do.
 * @param at the newest reading of each stop, or null
 * @param usable amperes that the circuit may carry
 */
export function heatBeside(
  run: Run,
  at: readonly ({ reading: Reading } | null)[],
  stop: number,
  usable: number,
): Remark | null {
  const here = at[stop];
  const own = here ? atPanel(run, stop, here.reading) : null;
  if (!here || own === null) return null;
  const { feeder } = run.stops[stop]!;
  const near = run.stops.flatMap((s, i) =>
    i !== stop && (i === feeder || s.feeder === stop || s.feeder === feeder) ? [i] : [],
  );
  const best = near
    .flatMap((i) => {
      const other = at[i];
      const volts = other ? atPanel(run, i, other.reading) : null;
      return volts === null ? [] : [{ name: run.stops[i]!.box.name, volts, amps: other!.reading.loadAmps }];
    })
    .sort((a, b) => b.volts - a.volts)[0];
  if (!best || best.volts - own < BESIDE_FROM.volts) return null;
  const { loadAmps } = here.reading;
  const ohms = (best.volts - own) / loadAmps;
  return {
    ...jointRemark(
      ohms,
      usable,
      `${round(best.volts - own, 1)} V lower under ${loadAmps} A than ${best.name} is under ${best.amps} A, cable taken off: a joint or worn contact of about ${round(ohms, 2)} Ω here`,
    ),
    title: 'a joint or contact that heats',
  };
}

export interface AtStop {
  reading: Reading;
  verdict: Verdict;
}

/**
 * What one box’s reading says beside that of the box before it.
 * @param at the newest reading of each stop, or null
 */
export function besideNeighbor(run: Run, at: readonly (AtStop | null)[], stop: number): string | null {
  const here = at[stop];
  if (!here || here.verdict.grade === 'good' || here.verdict.grade === 'none') return null;
  const { box, feeder } = run.stops[stop]!;
  const before = at[feeder];
  const name = feeder < 0 ? 'the panel' : run.stops[feeder]!.box.name;
  if (!before)
    return feeder < 0
      ? null
      : `${name}, the box before, has no reading yet: read it to tell whether this begins at ${box.name} or sooner.`;
  const same = before.verdict.fits.some((f) => here.verdict.fits.some((g) => g.condition === f.condition));
  if (before.verdict.grade === 'good')
    return `${name} reads as it should: this begins between ${name} and ${box.name}, at one of their joints or in the cable.`;
  return same ? `${name} reads the same: this begins there or sooner.` : null;
}
