/** The best grouping of few sites, proven: dynamic programming over subsets (Held and Karp 1962 in spirit). */
import type { Plan, Pricer } from './problem.ts';

/** Most sites for which every subset is worked out. */
export const MOST_EXACT = 18;

/**
 * @returns the cheapest plan, or null when no grouping satisfies the limits
 * @throws RangeError for more than `MOST_EXACT` sites
 */
export function exactPlan(pricer: Pricer): Plan | null {
  const { problem } = pricer;
  const n = problem.ids.length;
  if (n > MOST_EXACT) throw new RangeError(`${n} sites are more than ${MOST_EXACT}`);
  if (n === 0) return { circuits: [], cents: 0 };
  const all = 2 ** n - 1;
  const price = new Float64Array(all + 1).fill(Infinity);
  const marks = new Uint8Array(all + 1);
  const members: number[] = [];
  for (let set = 1; set <= all; set++) {
    members.length = 0;
    let load = 0;
    for (let i = 0; i < n; i++) {
      if (!((set >> i) & 1)) continue;
      members.push(i);
      load += problem.size[i]!;
      marks[set]! |= problem.marked.sites[i]!;
    }
    if (load <= pricer.largest) price[set] = pricer.price(members)?.cents ?? Infinity;
  }
  // One layer for each number of circuits that must hold a marked site: so many or more.
  const layers = problem.marked.circuits + 1;
  const best = Array.from({ length: layers }, () => new Float64Array(all + 1).fill(Infinity));
  const last = Array.from({ length: layers }, () => new Int32Array(all + 1));
  /** The layer that is left to be met by the rest once a circuit is taken. */
  const below = (layer: number, circuit: number) => (marks[circuit] ? Math.max(0, layer - 1) : layer);
  best[0]![0] = 0;
  for (let set = 1; set <= all; set++) {
    const low = set & -set;
    const rest = set ^ low;
    // Every subset that holds the lowest site: which circuit is that site on?
    for (let part = rest; ; part = (part - 1) & rest) {
      const circuit = part | low;
      const cents = price[circuit]!;
      if (cents < Infinity) {
        for (let layer = 0; layer < layers; layer++) {
          const total = cents + best[below(layer, circuit)]![set ^ circuit]!;
          if (total < best[layer]![set]!) {
            best[layer]![set] = total;
            last[layer]![set] = circuit;
          }
        }
      }
      if (part === 0) break;
    }
  }
  if (best[layers - 1]![all] === Infinity) return null;
  const groups: number[][] = [];
  for (let set = all, layer = layers - 1; set !== 0;) {
    const circuit = last[layer]![set]!;
    groups.push(problem.ids.flatMap((_, i) => ((circuit >> i) & 1 ? [i] : [])));
    layer = below(layer, circuit);
    set ^= circuit;
  }
  return pricer.plan(groups);
}
