/**
 * A good grouping of many sites: ruin and recreate (Schrimpf et al., J. Comput. Phys. 2000) under simulated
 * annealing. Neighboring sites are taken out and put back where they cost least, now and then passing over the best
 * place (Christiaens and Vanden Berghe, Transportation Science 2020), with the exact tree of every circuit priced again.
 * The same seed gives the same plan.
 */
import { setOf, sitesIn } from './bits.ts';
import { NEAR, type Plan, type Pricer } from './problem.ts';
import { randomFrom } from './random.ts';
import { MOST_RECOMBINED, recombined } from './recombine.ts';

export interface Search {
  /** Best so far. */
  best: Plan;
  iterations: number;
  /** Circuits that were met, where there are few sites. */
  met(): number[][];
  /** Works on for a number of iterations, and tells whether the best got better. */
  step(iterations: number): boolean;
}

interface Group {
  readonly sites: readonly number[];
  readonly load: number;
  readonly cents: number;
  /** The last look that met this group. */
  seen: number;
}

/** Most sites taken out at once. */
const MOST_OUT = 14;
/** How often circuits are taken out whole. */
const WHOLE = 0.25;
/** Circuits tried for a site, those of its nearest sites first, and how often one of them is passed over. */
const NEAR_CIRCUITS = 6;
const BLINK = 0.02;
/** How often circuits are filled as far as an option allows; else to any load, so that their number can change. */
const FULL = 0.7;
/** Cents that the search may lose at its start, about the price of a segment, and the share of them at its end. */
const START_HEAT = 600;
const COOLED = 0.01;
/**
 * Share of the work for a first cooling; a second one begins half as hot with the best of the first. Few sites are
 * cooled from several starts at first, as their number of circuits hardly changes later.
 */
const FIRST = 0.3;
const FIRST_OF_FEW = 0.7;
const FEW_SITES = 100;

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
    Int32Array.from(problem.ids.map((_, j) => j).filter((j) => j !== i)).sort(
      (a, b) => problem.between[i * n + a]! - problem.between[i * n + b]!,
    ),
  );
  /** Prices of the circuits that were met, by their sites as bits. */
  const met = n <= MOST_RECOMBINED ? new Map<number, number>() : null;
  const group = (sites: readonly number[]): Group => {
    const cents = pricer.cents(sites);
    met?.set(setOf(sites), cents);
    return { sites, load: pricer.load(sites), cents, seen: 0 };
  };
  const total = (groups: Iterable<Group>) => {
    let cents = 0;
    for (const g of groups) cents += g.cents;
    return cents;
  };
  const spread = (groups: Iterable<Group>) =>
    problem.marked.circuits === 0 || pricer.spread(Array.from(groups, (g) => g.sites));

  /** Loads that circuits are filled up to, one of them at a time: fuller circuits are fewer. */
  const capacities = problem.options.map((o) => o.capacity);
  const leastFill = Math.max(1, Math.floor(0.7 * Math.min(...capacities)));
  const fills = Array.from({ length: pricer.largest - leastFill + 1 }, (_, k) => leastFill + k);
  const alone = problem.ids.map((_, i) => group([i]));
  /** The circuit of each site while one plan is being made of another. */
  const owner: (Group | null)[] = problem.ids.map(() => null);
  let looks = 0;

  const place = (g: Group) => {
    for (const i of g.sites) owner[i] = g;
  };

  /** Puts sites back one by one, each on the circuit near it that it costs least to join. */
  function recreate(groups: Set<Group>, out: number[], fill: number): void {
    owner.fill(null);
    groups.forEach(place);
    arrange(out);
    for (const site of out) {
      let join: Group | null = null;
      let least = alone[site]!.cents;
      let tried = 0;
      looks++;
      for (const j of nearest[site]!) {
        const g = owner[j];
        if (!g || g.seen === looks) continue;
        g.seen = looks;
        if (++tried > NEAR_CIRCUITS) break;
        if (g.load + problem.size[site]! > fill || random() < BLINK) continue;
        const extra = pricer.cents(g.sites, site) - g.cents;
        if (extra < least) {
          least = extra;
          join = g;
        }
      }
      if (join) groups.delete(join);
      const made = join ? group([...join.sites, site]) : alone[site]!;
      groups.add(made);
      place(made);
    }
  }

  /** Sites in the order that they are put back in: by chance, or those farthest from or nearest to the panel first. */
  function arrange(out: number[]): void {
    const by = below(7);
    if (by < 4)
      for (let k = out.length - 1; k > 0; k--) {
        const other = below(k + 1);
        [out[k], out[other]] = [out[other]!, out[k]!];
      }
    else out.sort((a, b) => (by < 6 ? -1 : 1) * (problem.home[a]! - problem.home[b]!));
  }

  /** Takes out neighboring sites, or some circuits whole. */
  function ruin(groups: Iterable<Group>): { left: Set<Group>; out: number[] } {
    const first = below(n);
    const out = new Set<number>([first]);
    owner.fill(null);
    for (const g of groups) place(g);
    if (random() < WHOLE) {
      // The circuit of a site, and those of the sites nearest to it.
      const count = 1 + below(3);
      const taken = new Set([owner[first]!]);
      for (const j of nearest[first]!) {
        if (taken.size >= count) break;
        taken.add(owner[j]!);
      }
      for (const g of taken) for (const i of g.sites) out.add(i);
    } else {
      const count = Math.min(n, 2 + below(MOST_OUT - 1));
      for (const j of nearest[first]!) {
        if (out.size >= count) break;
        if (random() < 0.8) out.add(j);
      }
    }
    const left = new Set(groups);
    for (const i of out) {
      const g = owner[i]!;
      if (!left.delete(g)) continue;
      const rest = g.sites.filter((j) => !out.has(j));
      if (rest.length > 0) left.add(group(rest));
    }
    return { left, out: [...out] };
  }

  const all = problem.ids.map((_, i) => i);
  const starts = fills.map((fill) => {
    const groups = new Set<Group>();
    recreate(groups, [...all], fill);
    return groups;
  });
  if (start) starts.push(new Set(start.map((sites) => group(sites))));
  const sound = starts.filter((groups) => spread(groups) && total(groups) < Infinity);
  sound.push(...(sound.length === 0 ? [new Set(alone)] : []));
  sound.sort((a, b) => total(a) - total(b));
  const few = n <= FEW_SITES;
  const from = few ? sound : sound.slice(0, 1);
  let current = from[0]!;
  let cost = total(current);
  let least = { groups: current, cost };

  /** Makes the best plan of all circuits that were met. */
  function recombine(): void {
    const sets = met && recombined(n, met, least.cost);
    if (!sets) return;
    const groups = new Set(sets.map((set) => group(sitesIn(set))));
    if (spread(groups)) take(groups, total(groups));
  }

  /** What is cheapest so far by the search's own prices. */
  function take(groups: Set<Group>, price: number): void {
    least = { groups, cost: price };
    if (price >= best.cents - NEAR) return;
    // Priced in full: where the search's own prices are too high, what looks better may not be.
    const plan = planOf(groups);
    if (plan.cents < best.cents) best = plan;
  }
  const planOf = (groups: Iterable<Group>) => pricer.plan(Array.from(groups, (g) => g.sites));
  let best = planOf(current);
  let done = 0;
  const each = Math.max(1, Math.floor(((few ? FIRST_OF_FEW : FIRST) * iterations) / from.length));
  const first = each * from.length;
  const heat = (): number =>
    done < first
      ? START_HEAT * COOLED ** ((done % each) / each)
      : (START_HEAT / 2) * COOLED ** ((done - first) / (iterations - first));

  return {
    met: () => Array.from(met?.keys() ?? [], sitesIn),
    get best() {
      return best;
    },
    get iterations() {
      return done;
    },
    step(count) {
      const before = best;
      for (let k = 0; k < count; k++, done++) {
        if (done === first) recombine();
        if (done <= first && done % each === 0) {
          current = from[done / each] ?? least.groups;
          cost = total(current);
        }
        const { left, out } = ruin(current);
        const filled = random() < FULL ? capacities : fills;
        recreate(left, out, filled[below(filled.length)]!);
        const price = total(left);
        if (price >= cost - heat() * Math.log(Math.max(1e-12, random())) || !spread(left)) continue;
        current = left;
        cost = price;
        if (price < least.cost - NEAR) take(left, price);
      }
      if (done === iterations) recombine();
      return best !== before;
    },
  };
}
