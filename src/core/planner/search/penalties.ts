/**
 * Prices on the cables at a box, as multipliers for the limit on what may leave it (Held and Karp, Operations Research
 * 18, 1970): a spanning tree at prices that have a box’s penalty on each of its cables costs no more, less what a full
 * box would pay, than the cheapest tree within the limits. Penalties that suit many sets lift the bounds of them all.
 */
import type { Pricer } from './problem.ts';

/** Steps of the ascent, and the first one's length as a share of the prices of segments. */
const ASCENT = 40;
const FIRST_STEP = 0.5;

/** Penalties that lift bounds by a smaller share are not worth it: with them a tree says nothing of drop. */
const WORTH_WHILE = 0.003;

interface Spanning {
  /** What no tree within the limits costs less than, cents. */
  bound: number;
  /** Cables at each site. */
  degrees: Int32Array;
}

/** A spanning tree with its home run at penalized prices. */
function spanning(pricer: Pricer, option: number, sites: readonly number[], penalty: Float64Array): Spanning {
  const { maxOut } = pricer.problem;
  const k = sites.length;
  const degrees = new Int32Array(k);
  const near = new Float64Array(k).fill(Infinity);
  const by = new Int32Array(k);
  const left = new Set(sites.keys());
  const homeOf = (a: number) => pricer.homeRun(option, sites[a]!) + penalty[sites[a]!]!;
  let at = 0;
  for (const a of left) if (homeOf(a) < homeOf(at)) at = a;
  degrees[at] = 1;
  left.delete(at);
  let bound = homeOf(at);
  while (left.size > 0) {
    let next = -1;
    for (const a of left) {
      const price = pricer.edge(option, sites[at]!, sites[a]!) + penalty[sites[at]!]! + penalty[sites[a]!]!;
      if (price < near[a]!) {
        near[a] = price;
        by[a] = at;
      }
      if (next < 0 || near[a]! < near[next]!) next = a;
    }
    degrees[next]!++;
    degrees[by[next]!]!++;
    bound += near[next]!;
    left.delete(next);
    at = next;
  }
  for (const i of sites) bound -= penalty[i]! * (maxOut[i]! + 1);
  return { bound, degrees };
}

/** The option that a set would have by its load and ratings; −1 where there is none. */
function optionFor(pricer: Pricer, sites: readonly number[]): number {
  const { problem, trunk } = pricer;
  const load = pricer.load(sites);
  const least = sites.reduce((m, i) => Math.max(m, problem.least[i]!), 0);
  const own = sites.find((i) => trunk[i]! >= 0) ?? -1;
  return problem.options.findIndex((o) => o.capacity >= load && o.rating >= least && (o.trunk ?? -1) === own);
}

/**
 * Penalties that lift the bounds of sets by and large, in cents by site; none where they hardly do.
 * @param from penalties to begin with
 */
export function penaltiesFor(
  pricer: Pricer,
  sets: readonly (readonly number[])[],
  from: Float64Array,
): Float64Array {
  const { maxOut } = pricer.problem;
  const none = new Float64Array(from.length);
  const known = sets
    .map((sites) => ({ sites, option: optionFor(pricer, sites) }))
    .filter(({ sites, option }) => option >= 0 && sites.length > 2);
  if (known.length === 0) return from;
  const boundAt = (penalty: Float64Array) =>
    known.reduce((t, { sites, option }) => t + spanning(pricer, option, sites, penalty).bound, 0);
  const scale =
    known.reduce((t, { sites, option }) => t + pricer.edge(option, sites[0]!, sites[1]!), 0) / known.length;
  const penalty = from.slice();
  const excess = new Float64Array(penalty.length);
  const held = new Float64Array(penalty.length);
  for (let step = 0; step < ASCENT; step++) {
    excess.fill(0);
    held.fill(0);
    for (const { sites, option } of known) {
      const { degrees } = spanning(pricer, option, sites, penalty);
      for (const [a, i] of sites.entries()) {
        excess[i]! += degrees[a]! - maxOut[i]! - 1;
        held[i]!++;
      }
    }
    let changed = false;
    for (const i of penalty.keys()) {
      if (held[i] === 0) continue;
      const by = ((FIRST_STEP * scale) / (1 + step / 5)) * (excess[i]! / held[i]!);
      const next = Math.max(0, penalty[i]! + by);
      changed ||= next !== penalty[i];
      penalty[i] = next;
    }
    // The trees would stay as they are.
    if (!changed) break;
  }
  const plain = boundAt(none);
  return boundAt(penalty) > plain + WORTH_WHILE * Math.abs(plain) ? penalty : none;
}
