/**
 * A price that no plan can fall below, worked out apart from the search: Lagrangean relaxation of “every site is
 * on one circuit”, priced by trees that may visit a site more than once (q-arborescences; Uchoa et al.,
 * Mathematical Programming 2008), with the multipliers moved along the subgradient. Limits on what leaves a box,
 * on drop and on marked sites are left out, which only lowers the bound.
 */
import { NEEDS_AFCI, type Pricer } from './problem.ts';

/** Cheapest reduced price of a circuit, and how often each site stands on it. */
interface Cheapest {
  cents: number;
  visits: Float64Array;
}

/**
 * The cheapest q-arborescence by dynamic programming: a tree hung from site i that holds load q is site i alone,
 * or a smaller one at i with one more branch hung under it.
 */
function cheapestCircuit(pricer: Pricer, { option, allowed, fixed }: Family, prize: Float64Array): Cheapest {
  const { problem } = pricer;
  const n = problem.ids.length;
  const { capacity } = problem.options[option]!;
  // tree[q][i]: cheapest tree of load q hung from i, without what feeds i.
  const tree = Array.from({ length: capacity + 1 }, () => new Float64Array(n).fill(Infinity));
  // branch[q][i]: cheapest branch of load q under i, with its segment from i.
  const branch = Array.from({ length: capacity + 1 }, () => new Float64Array(n).fill(Infinity));
  const branchTo = Array.from({ length: capacity + 1 }, () => new Int32Array(n).fill(-1));
  const split = Array.from({ length: capacity + 1 }, () => new Int32Array(n).fill(0));
  const least: { cents: number; q: number; i: number } = { cents: Infinity, q: 0, i: -1 };
  for (let q = 1; q <= capacity; q++) {
    for (const i of allowed) {
      if (problem.size[i] === q) tree[q]![i] = -prize[i]!;
      for (let b = 1; b < q; b++) {
        const cost = tree[q - b]![i]! + branch[b]![i]!;
        if (cost < tree[q]![i]!) {
          tree[q]![i] = cost;
          split[q]![i] = b;
        }
      }
      const cents = fixed + tree[q]![i]! + pricer.homeRun(option, i);
      if (cents < least.cents) Object.assign(least, { cents, q, i });
    }
    for (const i of allowed) {
      for (const j of allowed) {
        if (i === j) continue;
        const cost = tree[q]![j]! + pricer.edge(option, i, j);
        if (cost < branch[q]![i]!) {
          branch[q]![i] = cost;
          branchTo[q]![i] = j;
        }
      }
    }
  }
  const visits = new Float64Array(n);
  const stack = least.i < 0 ? [] : [[least.q, least.i] as const];
  for (let at = stack.pop(); at; at = stack.pop()) {
    const [q, i] = at;
    const b = split[q]![i]!;
    if (b === 0) visits[i]! += 1;
    else {
      stack.push([q - b, i]);
      stack.push([b, branchTo[b]![i]!]);
    }
  }
  return { cents: least.cents, visits };
}

/** Circuits of sites whose needs lie within some, at the price of the breaker that answers these. */
interface Family {
  option: number;
  allowed: number[];
  fixed: number;
}

function familiesOf({ problem }: Pricer): Family[] {
  const all = problem.ids.map((_, i) => i);
  // A guard may spare any circuit its GFCI: then GFCI is left out of the price.
  const spared = problem.guards.some((g) => g === 1);
  return problem.options.flatMap((o, option) => {
    const seen = new Set<number>();
    return ([0, 1, 2, 3] as const).flatMap((mask) => {
      const allowed = all.filter((i) => (problem.needs[i]! | mask) === mask && problem.least[i]! <= o.rating);
      if (allowed.length === 0 || seen.has(allowed.length)) return [];
      // Sets grow with the mask: as many sites are the same sites, which a smaller mask serves no dearer.
      seen.add(allowed.length);
      return [
        {
          option,
          allowed,
          fixed: o.breaker + problem.protection[spared ? ((mask & NEEDS_AFCI) as 0 | 1) : mask],
        },
      ];
    });
  });
}

/** The best Lagrangean bound for plans of at least `least` and at most `most` circuits. */
function boundBetween(
  pricer: Pricer,
  least: number,
  most: number,
  iterations: number,
  known: number,
): number {
  const n = pricer.problem.ids.length;
  const families = familiesOf(pricer);
  const prize = new Float64Array(n).fill(known / n);
  let centre = Float64Array.from(prize);
  // How often each site is visited, averaged over the circuits so far: the volume algorithm's primal estimate.
  const visited = new Float64Array(n);
  let best = -Infinity;
  let pace = 0.1;
  let share = 0.1;
  let poor = 0;
  for (let k = 0; k < iterations; k++) {
    let cheapest: Cheapest | null = null;
    for (const family of families) {
      const found = cheapestCircuit(pricer, family, prize);
      if (!cheapest || found.cents < cheapest.cents) cheapest = found;
    }
    const { cents, visits } = cheapest!;
    // A circuit that is worth less than its prizes is built as often as may be, another as seldom.
    const circuits = cents < 0 ? most : least;
    const bound = prize.reduce((t, u) => t + u, 0) + circuits * cents;
    const weight = k === 0 ? 1 : share;
    for (let i = 0; i < n; i++) visited[i] = (1 - weight) * visited[i]! + weight * circuits * visits[i]!;
    if (bound > best + 1e-6 * known) {
      best = bound;
      centre = Float64Array.from(prize);
      pace = Math.min(2, pace * 1.1);
      poor = 0;
    } else if (++poor >= 20) {
      pace *= 0.66;
      poor = 0;
    }
    if (best >= known) break;
    if (k % 100 === 99) share = Math.max(0.01, share * 0.8);
    const off = visited.map((v) => 1 - v);
    const norm = off.reduce((t, d) => t + d * d, 0);
    if (norm < 1e-12) break;
    const length = (pace * (1.02 * known - best)) / norm;
    for (let i = 0; i < n; i++) prize[i] = centre[i]! + length * off[i]!;
  }
  return Math.max(0, best);
}

/**
 * @param iterations steps of the subgradient
 * @param known the price of some plan, toward which the steps are scaled
 * @returns cents
 */
export function lowerBound(pricer: Pricer, iterations: number, known: number): number {
  const { problem } = pricer;
  const n = problem.ids.length;
  if (n === 0) return 0;
  const all = problem.ids.map((_, i) => i);
  const fewest = Math.max(1, Math.ceil(pricer.load(all) / pricer.largest - 1e-9));
  // No plan as good as the known one has more circuits than its price buys of the cheapest.
  const cheapest = Math.min(...all.map((i) => pricer.cents([i])));
  const most = Math.min(n, Math.max(fewest, Math.floor(known / cheapest)));
  const exactly = boundBetween(pricer, fewest, fewest, iterations, known);
  return most > fewest
    ? Math.min(exactly, boundBetween(pricer, fewest + 1, most, iterations, known))
    : exactly;
}
