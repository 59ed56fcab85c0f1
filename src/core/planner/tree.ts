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
}

/** Branches tried before a tree with one box too full is given up on. */
const MOST_BRANCHES = 4000;

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
function tooFull({ edges }: Spanning, root: number, k: number, maxOut: number): number {
  const degree = new Array<number>(k).fill(1);
  for (let i = 0; i < k; i++) degree[i] = i === root ? 1 : 0;
  for (const [a, b] of edges) {
    degree[a]! += 1;
    degree[b]! += 1;
  }
  return degree.findIndex((d) => d > maxOut + 1);
}

/**
 * @param sites the circuit's sites, by number
 * @param edge prices between all sites, row by row
 * @param home prices of a home run to each site
 * @param stride sites in a row of `edge`
 * @param maxOut cables that may leave a box
 * @returns null when there is no such tree, or none was found within reason
 */
export function cheapestTree(
  sites: readonly number[],
  edge: Float64Array,
  home: Float64Array,
  stride: number,
  maxOut: number,
): Tree | null {
  const k = sites.length;
  const free = spanning(sites, edge, stride, null);
  if (!free) return null;
  const roots = sites.map((_, i) => i).sort((a, b) => home[sites[a]!]! - home[sites[b]!]!);
  let best: { cost: number; tree: Spanning; root: number } | null = null;
  let branches = 0;
  const search = (tree: Spanning, root: number, barred: ReadonlySet<number>): void => {
    const cost = tree.cost + home[sites[root]!]!;
    if ((best && cost >= best.cost - 1e-9) || ++branches > MOST_BRANCHES) return;
    const full = tooFull(tree, root, k, maxOut);
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
  for (const root of roots) search(free, root, none);
  const found = best as { cost: number; tree: Spanning; root: number } | null;
  return found && { cost: found.cost, ...hang(found.tree.edges, found.root, k) };
}
