/**
 * Every set of sites that one circuit could take, with a price it cannot fall below: breaker, protection, home run and
 * the minimum spanning tree, without the limits on what leaves a box and on rooms. Sets that no cable keeps within the
 * drop are left out. The tree of a set grows by one site in time linear in its size (Chin and Houck, Computer Journal
 * 1978).
 */
import { NEEDS_GFCI, type CircuitOption, type Pricer } from './problem.ts';

export interface Sets {
  /** Sites of each set as bits. */
  masks: Int32Array;
  /** Lower bound of its price, cents. */
  cents: Float64Array;
  count: number;
}

/** Most sets held at once. */
const MOST_SETS = 8_000_000;

interface Family extends CircuitOption {
  edge: Float64Array;
  home: Float64Array;
}

/** Room for the tree of one set at each depth of the search: members in Prim's order, each with what feeds it. */
interface Level {
  member: Int32Array;
  parent: Int32Array;
  /** Segment to the parent, cents. */
  up: Float64Array;
  built: boolean;
}

/** All sets of a problem; null when there are too many to hold. */
export function allSets(pricer: Pricer): Sets | null {
  const { problem } = pricer;
  const n = problem.ids.length;
  const families = familiesOf(pricer);
  const levels = families.map(() =>
    Array.from({ length: n + 1 }, (): Level => ({
      member: new Int32Array(n),
      parent: new Int32Array(n),
      up: new Float64Array(n),
      built: false,
    })),
  );
  const homes = families.map(() => new Float64Array(n + 1).fill(Infinity));
  let masks = new Int32Array(1 << 16);
  let cents = new Float64Array(1 << 16);
  let count = 0;
  const keep = new Float64Array(n);
  const near = new Float64Array(n);
  const by = new Int32Array(n);

  /** Cost of the tree of a level with one more site, by one pass from its leaves to its root. */
  const withOneMore = (
    edge: Float64Array,
    { member, parent, up }: Level,
    k: number,
    site: number,
  ): number => {
    const row = site * n;
    let cost = 0;
    for (let j = 0; j < k; j++) keep[j] = edge[row + member[j]!]!;
    for (let j = k - 1; j > 0; j--) {
      const through = keep[j]!;
      const segment = up[j]!;
      const p = parent[j]!;
      // The dearer of the two leaves the ring that the new site closes, unless a cheaper way is found further up.
      if (through > segment) {
        cost += segment;
        if (through < keep[p]!) keep[p] = through;
      } else {
        cost += through;
        if (segment < keep[p]!) keep[p] = segment;
      }
    }
    return cost + keep[0]!;
  };

  /** The tree of a level’s members by Prim, in the order that they are reached. */
  const build = (edge: Float64Array, level: Level, sites: Int32Array, k: number): void => {
    const { member, parent, up } = level;
    level.built = true;
    member[0] = sites[0]!;
    for (let j = 1; j < k; j++) {
      member[j] = sites[j]!;
      near[j] = edge[sites[0]! * n + sites[j]!]!;
      by[j] = 0;
    }
    for (let done = 1; done < k; done++) {
      let next = done;
      for (let j = done + 1; j < k; j++) if (near[j]! < near[next]!) next = j;
      const site = member[next]!;
      const cost = near[next]!;
      const from = by[next]!;
      member[next] = member[done]!;
      near[next] = near[done]!;
      by[next] = by[done]!;
      member[done] = site;
      parent[done] = from;
      up[done] = cost;
      const row = site * n;
      for (let j = done + 1; j < k; j++) {
        const d = edge[row + member[j]!]!;
        if (d < near[j]!) {
          near[j] = d;
          by[j] = done;
        }
      }
    }
  };

  const chosen = new Int32Array(n);
  /** Shortest home run of those chosen, at each depth, inches. */
  const shortest = new Float64Array(n + 1).fill(Infinity);
  /**
   * A drop that no tree of the first k chosen and one more can have less of: all of the current over the shortest home
   * run, and each outlet’s own over what it is farther away, volts.
   */
  const leastDrop = (family: Family, k: number, site: number, home: number, amps: number): number => {
    let farthest = problem.amps[site]! * (problem.home[site]! - home);
    for (let j = 0; j < k; j++) {
      const i = chosen[j]!;
      const own = problem.amps[i]! * (problem.home[i]! - home);
      if (own > farthest) farthest = own;
    }
    return 2 * family.ohmsPerInch * (home * amps + farthest);
  };
  const grow = (
    from: number,
    k: number,
    mask: number,
    load: number,
    needs: number,
    least: number,
    guarded: number,
    company: number,
    amps: number,
  ): boolean => {
    for (let f = 0; f < families.length; f++) levels[f]![k]!.built = false;
    for (let i = from; i < n; i++) {
      const total = load + problem.size[i]!;
      if (total > pricer.largest) continue;
      // General and garage outlets do not share a circuit: as bits 1 and 2.
      const kind = problem.company[i]!;
      const together = company | (kind === 2 ? 0 : kind + 1);
      if (together === 3) continue;
      const asked = needs | problem.needs[i]!;
      const rating = Math.max(least, problem.least[i]!);
      const guards = guarded | problem.guards[i]!;
      const current = amps + problem.amps[i]!;
      const protection = problem.protection[(guards ? asked & ~NEEDS_GFCI : asked) as 0 | 1 | 2 | 3];
      shortest[k + 1] = Math.min(shortest[k]!, problem.home[i]!);
      for (let f = 0; f < families.length; f++)
        homes[f]![k + 1] = Math.min(homes[f]![k]!, families[f]!.home[i]!);
      let price = Infinity;
      for (let f = 0; f < families.length; f++) {
        const family = families[f]!;
        if (total > family.capacity || family.rating < rating) continue;
        const fixed = family.breaker + protection + homes[f]![k + 1]!;
        if (fixed >= price) continue;
        if (leastDrop(family, k, i, shortest[k + 1]!, current) > problem.maxDrop + 1e-9) continue;
        const level = levels[f]![k]!;
        if (k > 0 && !level.built) build(family.edge, level, chosen, k);
        price = Math.min(price, fixed + (k === 0 ? 0 : withOneMore(family.edge, level, k, i)));
        // What follows costs more an inch and no less for its breaker.
        if (family.dominates) break;
      }
      const set = mask | (1 << i);
      if (price < Infinity) {
        if (count === MOST_SETS) return false;
        if (count === masks.length) {
          masks = copied(masks, new Int32Array(2 * count));
          cents = copied(cents, new Float64Array(2 * count));
        }
        masks[count] = set;
        cents[count] = price;
        count++;
      }
      if (i + 1 === n || total >= pricer.largest) continue;
      chosen[k] = i;
      if (!grow(i + 1, k + 1, set, total, asked, rating, guards, together, current)) return false;
    }
    return true;
  };
  return grow(0, 0, 0, 0, 0, 0, 0, 0, 0) ? { masks, cents, count } : null;
}

function copied<T extends Int32Array | Float64Array>(from: T, to: T): T {
  to.set(from as never);
  return to;
}

/** Options from the cheapest cable up, with whether all that follow cost at least as much wherever both will do. */
function familiesOf(pricer: Pricer): (Family & { dominates: boolean })[] {
  const { problem } = pricer;
  const n = problem.ids.length;
  const all = problem.options
    .map((o, k): Family => ({
      ...o,
      edge: Float64Array.from({ length: n * n }, (_, at) => pricer.edge(k, Math.floor(at / n), at % n)),
      home: Float64Array.from({ length: n }, (_, i) => pricer.homeRun(k, i)),
    }))
    .sort((a, b) => a.perInch - b.perInch || a.breaker - b.breaker);
  return all.map((family, f) => ({
    ...family,
    dominates: all.slice(f + 1).every((o) => o.breaker >= family.breaker),
  }));
}
