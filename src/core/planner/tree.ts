/**
 * The cheapest tree of cable for one circuit: a spanning tree of its boxes with one home run, where no box has
 * more cables leaving it than allowed. Prim's algorithm; where a box has too many, branch and bound leaves out
 * one of its cables at a time, which is exact: any tree that is allowed lacks one of them.
 */
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

interface Spanning {
  cost: number;
  /** Pairs of positions. */
  edges: [number, number][];
}

/** Minimum spanning tree by Prim without the barred edges; null when they part it. */
function spanning(
  sites: readonly number[],
  edge: Float64Array,
  stride: number,
  barred: ReadonlySet<number> | null,
): Spanning | null {
  const k = sites.length;
  const near = new Array<number>(k).fill(Infinity);
  const by = new Array<number>(k).fill(0);
  const inside = new Array<boolean>(k).fill(false);
  const edges: [number, number][] = [];
  let cost = 0;
  let at = 0;
  inside[0] = true;
  for (let step = 1; step < k; step++) {
    const row = sites[at]! * stride;
    let next = -1;
    let least = Infinity;
    for (let j = 0; j < k; j++) {
      if (inside[j]) continue;
      const price = edge[row + sites[j]!]!;
      if (price < near[j]! && !barred?.has(at < j ? at * k + j : j * k + at)) {
        near[j] = price;
        by[j] = at;
      }
      if (near[j]! < least) {
        least = near[j]!;
        next = j;
      }
    }
    if (next < 0) return null;
    inside[next] = true;
    cost += least;
    edges.push([by[next]!, next]);
    at = next;
  }
  return { cost, edges };
}

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

/** A minimum spanning tree that grows by the nearest site at a time, as Prim builds it. */
export class GrowingTree {
  private readonly reached: Int32Array;
  private readonly feeder: Int32Array;
  private readonly out: Int32Array;
  private readonly current: Float64Array;
  private readonly at: Float64Array;
  private readonly problem: Lengths & { maxOut: Uint8Array };
  private count = 0;
  /** Boxes that send on more cables than allowed. */
  private overfull = 0;

  /** @param problem with the most cables that may leave each site */
  constructor(problem: Lengths & { maxOut: Uint8Array }) {
    const n = problem.ids.length;
    this.problem = problem;
    this.reached = new Int32Array(n);
    this.feeder = new Int32Array(n);
    this.out = new Int32Array(n);
    this.current = new Float64Array(n);
    this.at = new Float64Array(n);
  }

  /** @param from place of the feeder in the order of joining; −1 is the panel */
  push(site: number, from: number): void {
    this.reached[this.count] = site;
    this.feeder[this.count] = from;
    this.out[this.count++] = 0;
    if (from >= 0 && this.out[from]!++ === this.problem.maxOut[this.reached[from]!]!) this.overfull++;
  }
  pop(): void {
    const from = this.feeder[--this.count]!;
    if (from >= 0 && --this.out[from]! === this.problem.maxOut[this.reached[from]!]!) this.overfull--;
  }

  /** Sites that must join at least before some box sends on too many cables; 0 where one does. */
  get untilOverfull(): number {
    if (this.overfull > 0) return 0;
    let least = Infinity;
    for (let j = 0; j < this.count; j++)
      least = Math.min(least, this.problem.maxOut[this.reached[j]!]! + 1 - this.out[j]!);
    return least;
  }

  /** Drop at the worst site, volts. */
  drop(ohmsPerInch: number): number {
    const { problem, reached, feeder, count, current, at } = this;
    return worstDrop(problem, ohmsPerInch, reached, feeder, count, current, at);
  }
}

/** Feeders of a tree of edges hung from one box. */
function hang(
  edges: readonly [number, number][],
  root: number,
  k: number,
): { feeders: number[]; order: number[] } {
  const beside: number[][] = Array.from({ length: k }, () => []);
  for (const [a, b] of edges) {
    beside[a]!.push(b);
    beside[b]!.push(a);
  }
  const feeders = new Array<number>(k).fill(-1);
  const order = [root];
  for (const at of order) {
    for (const next of beside[at]!) {
      if (next === feeders[at]) continue;
      feeders[next] = at;
      order.push(next);
    }
  }
  return { feeders, order };
}

/** A box with more cables than it may have, counting the one that feeds it; −1 when there is none. */
function tooFull({ edges }: Spanning, root: number, sites: readonly number[], maxOut: Uint8Array): number {
  const k = sites.length;
  const degree = new Array<number>(k).fill(0);
  degree[root] = 1;
  for (const [a, b] of edges) {
    degree[a]! += 1;
    degree[b]! += 1;
  }
  return degree.findIndex((d, i) => d > maxOut[sites[i]!]! + 1);
}

/** A tree grown from one box, always by the cheapest segment from a box that may have one more cable. */
function grown(
  sites: readonly number[],
  edge: Float64Array,
  stride: number,
  root: number,
  maxOut: Uint8Array,
): Spanning | null {
  const k = sites.length;
  const spare = sites.map((i) => maxOut[i]!);
  const inside = [root];
  const outside = new Set(sites.map((_, i) => i).filter((i) => i !== root));
  const edges: [number, number][] = [];
  let cost = 0;
  for (let step = 1; step < k; step++) {
    let least = Infinity;
    let from = -1;
    let to = -1;
    for (const a of inside) {
      if (spare[a] === 0) continue;
      const row = sites[a]! * stride;
      for (const b of outside) {
        const price = edge[row + sites[b]!]!;
        if (price < least) [least, from, to] = [price, a, b];
      }
    }
    if (to < 0) return null;
    spare[from]! -= 1;
    inside.push(to);
    outside.delete(to);
    edges.push([from, to]);
    cost += least;
  }
  return { cost, edges };
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
  const free = spanning(sites, edge, stride, null);
  if (!free) return null;
  const roots = sites
    .map((_, i) => i)
    .filter((i) => home[sites[i]!]! < Infinity)
    .sort((a, b) => home[sites[a]!]! - home[sites[b]!]!);
  if (roots.length === 0) return null;
  let best: { cost: number; tree: Spanning; root: number } | null = null;
  let branches = 0;
  const search = (tree: Spanning, root: number, barred: ReadonlySet<number>): void => {
    const cost = tree.cost + home[sites[root]!]!;
    if ((best && cost >= best.cost - 1e-9) || ++branches > mostBranches) return;
    const full = tooFull(tree, root, sites, maxOut);
    if (full < 0) {
      best = { cost, tree, root };
      return;
    }
    for (const [a, b] of tree.edges) {
      if (a !== full && b !== full) continue;
      const without = new Set(barred).add(a < b ? a * k + b : b * k + a);
      const next = spanning(sites, edge, stride, without);
      if (next) search(next, root, without);
    }
  };
  const none: ReadonlySet<number> = new Set();
  if (tooFull(free, roots[0]!, sites, maxOut) >= 0) {
    // A good tree to begin with cuts most branches off.
    for (const root of roots.slice(0, 3)) {
      const tree = grown(sites, edge, stride, root, maxOut);
      const cost = tree ? tree.cost + home[sites[root]!]! : Infinity;
      if (tree && (!best || cost < (best as { cost: number }).cost)) best = { cost, tree, root };
    }
  }
  for (const root of roots) search(free, root, none);
  const found = best as { cost: number; tree: Spanning; root: number } | null;
  return (
    found && {
      cost: found.cost,
      exact: branches <= mostBranches,
      ...hang(found.tree.edges, found.root, k),
    }
  );
}
