/**
 * How often each cause is met before anything is seen: by its kind, and at which places, by what is on record of them. All
 * weights are ours and can be changed; what was found in earlier jobs shifts them.
 */
import type { Run, RunStop } from '#core/circuits/run.ts';
import { DEFAULT_SETTINGS } from '#core/job/document.ts';
import type { Settings } from '#core/job/schema.ts';
import type { Cause } from './causes.ts';
import { KINDS, type CauseKind } from './kinds.ts';

/** Times as often at a place of which this is on record. */
type Factors = Settings['hunt']['factors'];
export type Factor = keyof Factors;
export const FACTOR_WORDS: Readonly<Record<Factor, string>> = {
  pushIn: 'Push-in terminals',
  feedThrough: 'Carried through the device',
  aluminum: 'Aluminum conductors',
  heat: 'Heat marks, loose or cracked',
  outdoors: 'Outdoors or wet',
  old: 'Device of 30 years and more',
  noGround: 'False ground where no ground runs',
};

export interface Priors {
  factors: Factors;
  /** Faults found before, by kind; each counts as one more of `KINDS`’ weights. */
  found: ReadonlyMap<CauseKind, number>;
}
export const USUAL_PRIORS: Priors = { factors: DEFAULT_SETTINGS.hunt.factors, found: new Map() };

const JOINTS: ReadonlySet<CauseKind> = new Set([
  ...(['open-hot', 'open-neutral', 'open-ground', 'poor-hot', 'poor-neutral', 'poor-ground'] as const),
  'dead-device',
]);
const DAMP: ReadonlySet<CauseKind> = new Set(['leak', 'ground-fault', 'open-ground', 'poor-ground']);
/** Inside a cable less happens than in its boxes. */
const IN_CABLE = 0.08;
const OLD_YEARS = 30;

/** What on record of a box makes its joints fail oftener. */
function marksOf({ box, area, joining }: RunStop, run: Run): Factor[] {
  const signs = box.found?.signs ?? [];
  const marks: [Factor, boolean][] = [
    ['pushIn', signs.includes('back-stabbed')],
    ['feedThrough', joining === 'feed-through'],
    ['aluminum', signs.includes('aluminum') || run.circuit.material === 'aluminum'],
    [
      'heat',
      ['heat marks', 'loose', 'cracked', 'worn contacts'].some((s) => (signs as string[]).includes(s)),
    ],
    ['outdoors', area.kind === 'outdoors' || area.kind === 'deck' || area.location !== 'dry'],
    ['old', (box.found?.deviceAge ?? 0) >= OLD_YEARS],
  ];
  return marks.flatMap(([factor, has]) => (has ? [factor] : []));
}

function placeFactor({ kind, place }: Cause, run: Run, factors: Factors): number {
  if (!('stop' in place)) return 1;
  const stop = run.stops[place.stop]!;
  let factor = place.at === 'cable' ? IN_CABLE : 1;
  for (const mark of marksOf(stop, run)) {
    const counts = mark === 'outdoors' ? DAMP.has(kind) || JOINTS.has(kind) : JOINTS.has(kind);
    if (counts) factor *= factors[mark];
  }
  if (kind === 'false-ground' && stop.box.grounding === 'none') factor *= factors.noGround;
  return factor;
}

/** Logarithms of the shares of causes, which add up to one. */
export function logPriors(causes: readonly Cause[], run: Run, { factors, found }: Priors): Float64Array {
  const places = causes.map((c) => placeFactor(c, run, factors));
  // Causes of one repair at one place share what it has.
  const alike = new Map<string, number>();
  for (const { key } of causes) alike.set(key, (alike.get(key) ?? 0) + 1);
  const own = places.map((p, i) => p / alike.get(causes[i]!.key)!);
  const byKind = new Map<CauseKind, number>();
  causes.forEach(({ kind }, i) => byKind.set(kind, (byKind.get(kind) ?? 0) + own[i]!));
  // A kind is met oftener where its places are worse than usual, by half of it.
  const keys = new Map<CauseKind, Set<string>>();
  for (const { kind, key } of causes) keys.set(kind, (keys.get(kind) ?? new Set()).add(key));
  const weights = causes.map(({ kind }, i) => {
    const total = byKind.get(kind)!;
    const worse = Math.sqrt(total / keys.get(kind)!.size);
    return (
      ((KINDS[kind].weight + (found.get(kind) ?? 0)) * Math.min(3, Math.max(1, worse)) * own[i]!) / total
    );
  });
  const sum = weights.reduce((a, b) => a + b, 0);
  return Float64Array.from(weights, (w) => Math.log(w / sum));
}

/** Why a place is a likelier one, in words. */
export const whyLikely = (cause: Pick<Cause, 'place'>, run: Run): string[] =>
  'stop' in cause.place
    ? marksOf(run.stops[cause.place.stop]!, run).map((m) => FACTOR_WORDS[m].toLowerCase())
    : [];
