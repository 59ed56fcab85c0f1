/**
 * The best grouping by dynamic programming over all subsets (Held and Karp, SIAM J. 10, 1962): a part of the sites that
 * holds the first of them is one circuit, the rest is grouped as well as it can be. Sets whose spanning tree has a box
 * that is too full stand there at a price they cannot be below; those that may be in a better plan are priced in full.
 */
import { firstIn, sitesIn } from './bits.ts';
import { NEAR, type Plan, type Pricer, type Proof } from './problem.ts';

/** Sets priced in full, and steps of the last search, before it is given up. */
const MOST_PRICED = 50_000;
const MOST_STEPS = 50_000_000;

/** @param known a plan to begin with */
export function bySubsets(pricer: Pricer, known: Plan | null): Proof {
  const { problem } = pricer;
  const n = problem.ids.length;
  const count = 2 ** n;
  const load = new Int32Array(count);
  /** Price of each set as one circuit, and whether it is only what it cannot be below. */
  const price = new Float64Array(count).fill(Infinity);
  const atLeast = new Uint8Array(count);
  /** Price of each set's best grouping by those. */
  const best = new Float64Array(count).fill(Infinity);
  best[0] = 0;
  for (let set = 1; set < count; set++) {
    const low = set & -set;
    const rest = set ^ low;
    load[set] = load[rest]! + problem.size[firstIn(low)]!;
    if (load[set]! <= pricer.largest) {
      const sites = sitesIn(set);
      const plain = pricer.plainCents(sites);
      price[set] = plain ?? pricer.floorCents(sites);
      atLeast[set] = plain === null ? 1 : 0;
    }
    let least = price[set]!;
    for (let part = (rest - 1) & rest; rest > 0; part = (part - 1) & rest) {
      const cents = price[part | low]! + best[rest ^ part]!;
      if (cents < least) least = cents;
      if (part === 0) break;
    }
    best[set] = least;
  }

  let limit = known?.cents ?? Infinity;
  let groups: number[][] | null = null;
  let [priced, steps] = [0, 0];
  const chosen: number[] = [];
  const descend = (left: number, spent: number): void => {
    if (left === 0) {
      const found = chosen.map(sitesIn);
      if (spent >= limit - NEAR || !pricer.spread(found)) return;
      limit = spent;
      groups = found;
      return;
    }
    const low = left & -left;
    const rest = left ^ low;
    for (let part = rest; ; part = (part - 1) & rest) {
      const set = part | low;
      const others = spent + best[rest ^ part]!;
      if (++steps > MOST_STEPS) return;
      if (others + price[set]! < limit - NEAR) {
        if (atLeast[set]) {
          const full = pricer.price(sitesIn(set));
          if (++priced > MOST_PRICED || (full && !full.exact)) steps = MOST_STEPS;
          price[set] = full?.cents ?? Infinity;
          atLeast[set] = 0;
        }
        if (others + price[set]! < limit - NEAR) {
          chosen.push(set);
          descend(rest ^ part, spent + price[set]!);
          chosen.pop();
        }
      }
      if (part === 0) return;
    }
  };
  descend(count - 1, 0);
  return { best: groups ? pricer.plan(groups) : known, proven: steps <= MOST_STEPS };
}
