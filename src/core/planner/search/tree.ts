/**
 * The cheapest tree of cable for one circuit: a spanning tree of its boxes with one home run, where no box has
 * more cables leaving it than allowed. Prim's algorithm where that is within the limits anyway.
 */
import { LimitedTree } from './limited.ts';

export interface Tree {
  cost: number;
  /** Feeder of each site as a position in the list; −1 is the panel. */
  feeders: number[];
  /** Positions with feeders before what they feed. */
  order: number[];
  /** Proven the cheapest: the search was not cut short. */
  exact: boolean;
}

/** Branches tried before the best tree found so far is taken for the best there is. */
const MOST_BRANCHES = 4000;
/** As many for a price that a search asks for thousands of times. */
export const FEW_BRANCHES = 24;

/** Minimum spanning trees in room that is used again for each: for a search that asks for thousands a second. */
export class PlainTree {
  private readonly near: Float64Array;
  /** Sites in the order that they are reached, and positions in that order of what feeds them. */
  private readonly reached: Int32Array;
  private readonly feeder: Int32Array;
  private readonly out: Int32Array;
  private readonly current: Float64Array;
  private count = 0;

  /** @param most sites that a tree may have */
  constructor(most: number) {
    this.near = new Float64Array(most);
    this.reached = new Int32Array(most);
    this.feeder = new Int32Array(most);
    this.out = new Int32Array(most);
    this.current = new Float64Array(most);
  }

  /**
   * Price of the cheapest tree of the first k members where the minimum spanning tree is one; null where a box has too
   * many cables in it. Parameters as for `cheapestTree`.
   */
  cost(
    members: Int32Array,
    k: number,
    edge: Float64Array,
    home: Float64Array,
    stride: number,
    maxOut: Uint8Array,
  ): number | null {
    const { near, reached, feeder, out } = this;
    this.count = k;
    let root = 0;
    for (let j = 1; j < k; j++) if (home[members[j]!]! < home[members[root]!]!) root = j;
    for (let j = 0; j < k; j++) {
      reached[j] = members[j]!;
      near[j] = Infinity;
      feeder[j] = -1;
      out[j] = 0;
    }
    let next = root;
    let price = home[members[root]!]!;
    for (let done = 0; ; done++) {
      const site = reached[next]!;
      const from = feeder[next]!;
      reached[next] = reached[done]!;
      near[next] = near[done]!;
      feeder[next] = feeder[done]!;
      reached[done] = site;
      feeder[done] = from;
      if (from >= 0 && ++out[from]! > maxOut[reached[from]!]!) return null;
      if (done === k - 1) return price;
      const row = site * stride;
      next = done + 1;
      for (let j = done + 1; j < k; j++) {
        const cents = edge[row + reached[j]!]!;
        if (cents < near[j]!) {
          near[j] = cents;
          feeder[j] = done;
        }
        if (near[j]! < near[next]!) next = j;
      }
      price += near[next]!;
    }
  }

  /** Drop at the worst site of the last tree, volts. */
  drop(lengths: Lengths, ohmsPerInch: number): number {
    const { reached, feeder, current, near, count } = this;
    return worstDrop(lengths, ohmsPerInch, reached, feeder, count, current, near);
  }
}

/** What the drop of a tree depends on: currents, amperes, and cable, inches. */
interface Lengths {
  ids: readonly string[];
  amps: Float64Array;
  home: Float64Array;
  between: Float64Array;
}

/**
 * Drop at the worst site of a tree, volts: currents summed toward the panel, then drops away from it.
 * @param reached sites, feeders before what they feed
 * @param feeder place of each one's feeder; −1 is the panel
 * @param current room for the currents
 * @param at room for the drops
 */
export function worstDrop(
  { ids, amps, home, between }: Lengths,
  ohmsPerInch: number,
  reached: Int32Array,
  feeder: Int32Array,
  count = reached.length,
  current: Float64Array = new Float64Array(count),
  at: Float64Array = new Float64Array(count),
): number {
  for (let j = 0; j < count; j++) current[j] = amps[reached[j]!]!;
  for (let j = count - 1; j > 0; j--) current[feeder[j]!]! += current[j]!;
  let worst = 0;
  for (let j = 0; j < count; j++) {
    const from = feeder[j]!;
    const inches = from < 0 ? home[reached[j]!]! : between[reached[from]! * ids.length + reached[j]!]!;
    at[j] = (from < 0 ? 0 : at[from]!) + 2 * ohmsPerInch * inches * current[j]!;
    if (at[j]! > worst) worst = at[j]!;
  }
  return worst;
}

/** Lengths of the shortest ways between sites, row by row (Floyd, Comm. ACM 5, 1962). */
function shortestWays(between: Float64Array, n: number): Float64Array {
  const ways = between.slice();
  for (let k = 0; k < n; k++)
    for (let i = 0; i < n; i++)
      for (let j = 0; j < n; j++)
        ways[i * n + j] = Math.min(ways[i * n + j]!, ways[i * n + k]! + ways[k * n + j]!);
  return ways;
}

/** A minimum spanning tree that grows by the nearest site at a time, as Prim builds it, and what drops in it. */
export class GrowingTree {
  private readonly reached: Int32Array;
  private readonly feeder: Int32Array;
  private readonly current: Float64Array;
  /** Drop at each site, volts, and cable from the panel to it, inches. */
  private readonly at: Float64Array;
  private readonly inches: Float64Array;
  private readonly lengths: Lengths;
  private readonly ways: Float64Array;
  private count = 0;
  private worst = 0;
  private perInch = 0;

  constructor(lengths: Lengths) {
    const n = lengths.ids.length;
    this.lengths = lengths;
    this.ways = shortestWays(lengths.between, n);
    this.reached = new Int32Array(n);
    this.feeder = new Int32Array(n);
    this.current = new Float64Array(n);
    this.at = new Float64Array(n);
    this.inches = new Float64Array(n);
  }

  /** @param from place of the feeder in the order of joining; −1 is the panel */
  push(site: number, from: number): void {
    const { reached, feeder, inches, count } = this;
    const { ids, home, between } = this.lengths;
    reached[count] = site;
    feeder[count] = from;
    inches[count] = from < 0 ? home[site]! : inches[from]! + between[reached[from]! * ids.length + site]!;
    this.count++;
  }
  pop(): void {
    this.count--;
  }

  /** Drop at the worst site, volts. */
  drop(ohmsPerInch: number): number {
    const { lengths, reached, feeder, count, current, at } = this;
    this.perInch = 2 * ohmsPerInch;
    this.worst = worstDrop(lengths, ohmsPerInch, reached, feeder, count, current, at);
    return this.worst;
  }

  /**
   * What the drop at the worst site is at least once another site joins, whatever else does, as of the last call of
   * `drop`, volts.
   */
  dropWith(site: number): number {
    const { lengths, ways, reached, count, at, inches, perInch } = this;
    const { ids, amps } = lengths;
    const own = amps[site]!;
    let there = Infinity;
    for (let f = 0; f < count; f++) {
      const way = inches[f]! + ways[reached[f]! * ids.length + site]!;
      const drop = at[f]! + own * perInch * way;
      if (drop < there) there = drop;
    }
    return Math.max(there, this.worst + own * perInch * inches[0]!);
  }
}

/**
 * @param sites the circuit's sites, by number
 * @param edge prices between all sites, row by row
 * @param home prices of a home run to each site; Infinity where there is none
 * @param stride sites in a row of `edge`
 * @param maxOut cables that may leave each site's box, one at least
 * @param mostBranches fewer give a good tree sooner, not always the cheapest
 * @returns null when there is no such tree, or none was found within reason
 */
export function cheapestTree(
  sites: readonly number[],
  edge: Float64Array,
  home: Float64Array,
  stride: number,
  maxOut: Uint8Array,
  mostBranches = MOST_BRANCHES,
): Tree | null {
  const k = sites.length;
  const between = new Float64Array(k * k);
  const homes = new Float64Array(k);
  const out = new Uint8Array(k);
  for (let a = 0; a < k; a++) {
    const i = sites[a]!;
    homes[a] = home[i]!;
    out[a] = maxOut[i]!;
    for (let b = 0; b < k; b++) between[a * k + b] = edge[i * stride + sites[b]!]!;
  }
  const { cost, feeders, branches } = new LimitedTree(between, homes, out, mostBranches);
  if (cost === Infinity) return null;
  const order = [feeders.indexOf(-1)];
  for (const at of order) for (const [next, from] of feeders.entries()) if (from === at) order.push(next);
  return { cost, feeders, order, exact: branches <= mostBranches };
}
