/**
 * A good grouping of many sites: ruin and recreate (Schrimpf et al., J. Comput. Phys. 2000) under simulated
 * annealing. Neighbouring sites are taken out and put back where they cost least by regret, with the exact tree
 * of every circuit priced again. The same seed gives the same plan.
 */
import type { Plan, Pricer } from './problem.ts';
import { randomFrom } from './random.ts';

export interface Search {
  /** Best so far. */
  best: Plan;
  iterations: number;
  /** Works on for a number of iterations, and tells whether the best got better. */
  step(iterations: number): boolean;
}

interface Group {
  sites: number[];
  cents: number;
}

/** Most sites taken out at once. */
const MOST_OUT = 14;
/** How often circuits are taken out whole. */
const WHOLE = 0.25;
/** Circuits tried for a site, those of its nearest sites first. */
const NEAR_CIRCUITS = 4;
/** Share of the price of a plan that the search may lose at its start. */
const START_HEAT = 0.004;

/**
 * @param iterations how many are planned in all: the cooling follows them
 * @param start groups that are there already: where they are sound and cheaper, the search begins with them
 */
export function annealing(
  pricer: Pricer,
  seed: number,
  iterations: number,
  start: readonly (readonly number[])[] | null = null,
): Search {
  const { problem } = pricer;
  const n = problem.ids.length;
  const random = randomFrom(seed);
  const below = (limit: number) => Math.floor(random() * limit);
  const nearest = problem.ids.map((_, i) =>
    problem.ids
      .map((_, j) => j)
      .filter((j) => j !== i)
      .sort((a, b) => problem.between[i * n + a]! - problem.between[i * n + b]!),
  );
  const group = (sites: number[]): Group => ({ sites, cents: pricer.cents(sites) });
  const total = (groups: readonly Group[]) => groups.reduce((t, g) => t + g.cents, 0);
  const spread = (groups: readonly Group[]) => pricer.spread(groups.map((g) => g.sites));

  /** Loads at which another cable will do: circuits are filled up to one of them. */
  const fills = [...new Set(problem.options.map((o) => o.capacity))];

  /** Puts sites back, the one that would lose most by waiting first, on circuits filled to a load at most. */
  function recreate(groups: Group[], out: number[], fill: number): Group[] {
    let current = groups;
    const waiting = [...out];
    // Prices of joining a circuit hold until that circuit changes.
    const known = new Map<Group, Map<number, Group>>();
    const joined = (g: Group, i: number): Group => {
      let of = known.get(g);
      if (!of) known.set(g, (of = new Map()));
      let made = of.get(i);
      if (!made) of.set(i, (made = group([...g.sites, i])));
      return made;
    };
    const alone = new Map(waiting.map((i) => [i, group([i])]));
    while (waiting.length > 0) {
      let chosen: { at: number; from: Group | null; to: Group; regret: number; extra: number } | null = null;
      const owner = new Map<number, Group>();
      for (const g of current) for (const i of g.sites) owner.set(i, g);
      for (const [at, i] of waiting.entries()) {
        let first: { from: Group | null; to: Group; extra: number } = {
          from: null,
          to: alone.get(i)!,
          extra: alone.get(i)!.cents,
        };
        let second = Infinity;
        const tried = new Set<Group>();
        for (const j of nearest[i]!) {
          const g = owner.get(j);
          if (!g || tried.has(g)) continue;
          tried.add(g);
          if (pricer.load(g.sites) + problem.size[i]! > fill) continue;
          const to = joined(g, i);
          const extra = to.cents - g.cents;
          if (extra < first.extra) {
            second = first.extra;
            first = { from: g, to, extra };
          } else second = Math.min(second, extra);
          if (tried.size >= NEAR_CIRCUITS) break;
        }
        const regret = (second === Infinity ? first.extra : second - first.extra) * (0.8 + 0.4 * random());
        if (!chosen || regret > chosen.regret) chosen = { at, ...first, regret };
      }
      const { at, from, to } = chosen!;
      waiting.splice(at, 1);
      current = [...current.filter((g) => g !== from), to];
    }
    return current;
  }

  /** Takes out neighbouring sites, or some circuits whole. */
  function ruin(groups: readonly Group[]): { left: Group[]; out: number[] } {
    const first = below(n);
    const out = new Set<number>([first]);
    if (random() < WHOLE) {
      // The circuit of a site, and those of the sites nearest to it.
      const count = 1 + below(3);
      const taken = new Set<Group>();
      for (const j of [first, ...nearest[first]!]) {
        const home = groups.find((g) => g.sites.includes(j))!;
        taken.add(home);
        if (taken.size >= count) break;
      }
      for (const g of taken) for (const i of g.sites) out.add(i);
    } else {
      const count = Math.min(n, 2 + below(MOST_OUT - 1));
      for (const j of nearest[first]!) {
        if (out.size >= count) break;
        if (random() < 0.8) out.add(j);
      }
    }
    const left: Group[] = [];
    for (const g of groups) {
      if (!g.sites.some((i) => out.has(i))) left.push(g);
      else {
        const rest = g.sites.filter((i) => !out.has(i));
        if (rest.length > 0) left.push(group(rest));
      }
    }
    return { left, out: [...out] };
  }

  const all = problem.ids.map((_, i) => i);
  const starts = fills.map((fill) => recreate([], all, fill));
  if (start) starts.push(start.map((sites) => group([...sites])));
  const sound = starts.filter((groups) => spread(groups) && total(groups) < Infinity);
  sound.push(...(sound.length === 0 ? [all.map((i) => group([i]))] : []));
  let current = sound.reduce((a, b) => (total(b) < total(a) ? b : a));
  let cost = total(current);
  let bestCost = cost;
  let done = 0;
  let best = pricer.plan(current.map((g) => g.sites));
  const search: Search = {
    get best() {
      return best;
    },
    get iterations() {
      return done;
    },
    step(count) {
      const before = best;
      for (let k = 0; k < count; k++, done++) {
        const heat = START_HEAT * cost * Math.max(0, 1 - done / iterations) ** 2;
        const { left, out } = ruin(current);
        const next = recreate(left, out, fills[below(fills.length)]!);
        const price = total(next);
        if (price >= cost - heat * Math.log(Math.max(1e-12, random())) || !spread(next)) continue;
        current = next;
        cost = price;
        if (price >= bestCost - 1e-6) continue;
        bestCost = price;
        // Priced in full: where the search's own prices are too high, what looks better may not be.
        const plan = pricer.plan(next.map((g) => g.sites));
        if (plan.cents < best.cents) best = plan;
      }
      return best !== before;
    },
  };
  return search;
}
