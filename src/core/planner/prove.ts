/**
 * The best grouping of few sites, proven. The linear relaxation of choosing sets of sites gives each site a value; sets
 * whose reduced price is above the gap to the best plan known cannot be in a better one. The few that are left are
 * priced in full and searched.
 */
import type { Highs } from 'highs';
import { NEAR, OUT_OF_DROP, type Plan, type Pricer } from './problem.ts';
import { firstLimits, split, tightened, type Limits } from './counts.ts';
import { boundOver, columnOf, reduced, relaxOrPart, solverOf, worth, type Bound } from './relax.ts';
import type { Column } from './pool.ts';
import { setOf } from './bits.ts';
import { ListedSets, estimatedSets } from './listed.ts';
import { SetSearch, type SetSource, type Values, type Visit } from './sets.ts';
import { bySubsets } from './subsets.ts';

/** Most sites for which a proof is tried. */
export const MOST_PROVEN = 30;
/** Steps of the search for sets before they are listed instead, and before a proof is given up. */
const FEW_SET_STEPS = 100_000;
const MOST_SET_STEPS = 2_000_000;
/** Most sets for that. */
const MOST_LISTED = 4_000_000;
/** So few sites that their subsets are looked at at once. */
const FEW_SITES = 16;
/** Steps of the last search before it is given up. */
const MOST_STEPS = 25_000_000;

/** Most sets priced in full: more of them would take longer than a proof is worth. */
const MOST_PRICED = 200_000;

/** Sets that a plan within the room may hold, undefined when they are too many. */
function within(pricer: Pricer, search: SetSource, { duals }: Bound, room: number): Column[] | undefined {
  const left = new Map<number, Column>();
  let tried = 0;
  const complete = search.below(duals, room, Infinity, (sites, value) => {
    if (++tried > MOST_PRICED) return -Infinity;
    const mask = setOf(sites);
    const own = worth(pricer, duals, sites);
    const column = left.get(mask) ?? columnOf(pricer, search, sites, value + own);
    if (column.cents - own < room) left.set(mask, column);
    return room;
  });
  return complete && tried <= MOST_PRICED ? [...left.values()] : undefined;
}

/**
 * The cheapest plan, proven.
 * @param known a plan to begin with
 * @param met circuits of other plans: the more there are, the sooner it is done
 * @returns null where there are too many sets or steps for a proof, or no plan meets what is asked
 */
export function provePlan(
  pricer: Pricer,
  known: Plan,
  highs: Highs,
  met: readonly (readonly number[])[] = [],
): Plan | null {
  const n = pricer.problem.ids.length;
  if (n > MOST_PROVEN) return null;
  const best = pricer.spread(known.circuits.map((c) => c.sites)) ? known : null;
  if (n <= 1) return best;
  // Where even a good plan cannot keep within the drop, what is least bad is not worth a proof.
  if (best && best.cents >= OUT_OF_DROP) return null;
  if (n <= FEW_SITES) return bySubsets(pricer, best);
  return byRelaxation(pricer, known, highs, new FoundOrListed(pricer), met);
}

/** Sets are searched for, and listed once that has taken long and there are few enough. */
export class FoundOrListed implements SetSource {
  private readonly pricer: Pricer;
  private readonly search: SetSearch;
  private listed: ListedSets | null = null;
  private mayList = true;

  /** @param few steps of the search before sets are listed */
  constructor(pricer: Pricer, few = FEW_SET_STEPS) {
    this.pricer = pricer;
    this.search = new SetSearch(pricer, few);
  }

  below(values: Values, limit: number, most: number, visit: Visit): boolean {
    if (this.listed) return this.listed.below(values, limit, most, visit);
    const complete = this.search.below(values, limit, most, visit);
    if (complete || this.search.budget > 0 || !this.mayList) return complete;
    this.mayList = false;
    this.search.budget = MOST_SET_STEPS;
    if (estimatedSets(this.pricer) <= MOST_LISTED) this.listed = ListedSets.of(this.pricer, MOST_LISTED);
    return this.below(values, limit, most, visit);
  }
  spend(steps: number): void {
    this.search.spend(steps);
  }
  penalize(sets: readonly (readonly number[])[]): void {
    if (!this.listed) this.search.penalize(sets);
  }
}

/** As `provePlan`, by the linear relaxation. */
export function byRelaxation(
  pricer: Pricer,
  known: Plan,
  highs: Highs,
  search: SetSource,
  met: readonly (readonly number[])[] = [],
): Plan | null {
  let best = pricer.spread(known.circuits.map((c) => c.sites)) ? known : null;
  const solver = solverOf(pricer, highs, search);
  for (const sites of met) {
    const column = columnOf(pricer, search, sites, Infinity);
    if (column.cents < OUT_OF_DROP) solver.pool.add(column);
  }
  const pending: Limits[] = [firstLimits(pricer, best?.cents ?? Infinity)];
  let columns: readonly Column[] = known.circuits;
  for (let next = pending.pop(); next; next = pending.pop()) {
    const limits = tightened(pricer, highs, next);
    if (!limits) continue;
    let ceiling = best?.cents ?? Infinity;
    const until = { within: NEAR, enough: ceiling };
    const relaxed = relaxOrPart(solver, limits, columns, until, true);
    if (!relaxed) return null;
    columns = relaxed.columns;
    let room = ceiling - relaxed.bound - NEAR;
    if (room <= 0) continue;
    const parts = relaxed.parts ?? split(limits, relaxed.counts);
    if (parts) {
      pending.push(...parts);
      continue;
    }
    if (relaxed.bound === -Infinity) return null;
    const { duals } = relaxed;
    // A plan of the sets at hand lowers the ceiling before all sets are looked through.
    const near = relaxed.columns.filter((column) => reduced(pricer, duals, column) < room);
    const sketch = cheapest(pricer, highs, near, relaxed, ceiling, limits);
    if (sketch) {
      best = sketch;
      ceiling = sketch.cents;
      room = ceiling - relaxed.bound - NEAR;
      if (room <= 0) continue;
    }
    const left = within(pricer, search, relaxed, room);
    const found = left && cheapest(pricer, highs, left, relaxed, ceiling, limits);
    if (found === undefined) return null;
    best = found ?? best;
  }
  return best;
}

/** Times that a choice is looked at again with its sets priced in full. */
const MOST_ROUNDS = 60;

/** The cheapest plan of sets below a ceiling, null when there is none, undefined when it was given up. */
function cheapest(
  pricer: Pricer,
  highs: Highs,
  left: readonly Column[],
  relaxed: Bound,
  ceiling: number,
  limits: Limits,
): Plan | null | undefined {
  const sets = [...left];
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const found = choose(pricer, highs, sets, relaxed, ceiling, limits);
    if (!found) return found;
    if (found.every((c) => c.exact)) return pricer.plan(found.map((c) => c.sites));
    // A choice at bounds is looked at again once what it holds is priced in full.
    for (const column of found) {
      if (column.exact) continue;
      const priced = pricer.price(column.sites);
      if (priced && !priced.exact) return undefined;
      sets[sets.indexOf(column)] = { sites: column.sites, cents: priced?.cents ?? Infinity, exact: true };
    }
  }
  return undefined;
}

/** More sets than this are thinned out by a linear program at their full prices before the search. */
const MOST_SEARCHED = 300;
/** More than this are too many for that program. */
const MOST_COLUMNS = 40_000;

/** The cheapest choice of sets below a ceiling, null when there is none, undefined when it was given up. */
function choose(
  pricer: Pricer,
  highs: Highs,
  left: readonly Column[],
  relaxed: Bound,
  ceiling: number,
  limits: Limits,
): Column[] | null | undefined {
  if (left.length <= MOST_SEARCHED || left.length > MOST_COLUMNS)
    return search(pricer, left, relaxed, ceiling, limits);
  const full = boundOver(pricer, highs, left, limits);
  const room = ceiling - full.bound;
  if (room <= 0) return null;
  const few = left.filter((column) => reduced(pricer, full.duals, column) < room);
  return search(pricer, few, full, ceiling, limits);
}

/**
 * The cheapest choice of sets that holds every site once: depth first over the site with the fewest sets, cut off
 * where the bound and the reduced prices add up to the ceiling.
 * @returns null when no choice is below the ceiling, undefined when the search was given up
 */
function search(
  pricer: Pricer,
  sets: readonly Column[],
  { bound, duals }: Bound,
  ceiling: number,
  limits: Limits,
): Column[] | null | undefined {
  const { ids } = pricer.problem;
  const { most } = limits[0]!;
  const priced = sets
    .map((column) => ({
      column,
      mask: setOf(column.sites),
      price: Math.max(0, reduced(pricer, duals, column)),
    }))
    .sort((a, b) => a.price - b.price);
  const holding = ids.map((_, i) => priced.filter(({ mask }) => (mask >> i) & 1));
  const order = holding.map((_, i) => i).sort((a, b) => holding[a]!.length - holding[b]!.length);
  const all = (1 << ids.length) - 1;
  let best: Column[] | null = null;
  let limit = ceiling;
  let steps = 0;
  const chosen: Column[] = [];
  const descend = (covered: number, spent: number): void => {
    if (covered === all) {
      const cents = chosen.reduce((t, c) => t + c.cents, 0);
      if (cents >= limit - NEAR || !pricer.spread(chosen.map((c) => c.sites))) return;
      best = [...chosen];
      limit = cents;
      return;
    }
    if (chosen.length === most) return;
    const site = order.find((i) => ((covered >> i) & 1) === 0)!;
    for (const { column, mask, price } of holding[site]!) {
      if (spent + price >= limit - NEAR || steps > MOST_STEPS) return;
      steps++;
      if ((mask & covered) !== 0) continue;
      chosen.push(column);
      descend(covered | mask, spent + price);
      chosen.pop();
    }
  };
  descend(0, bound);
  return steps > MOST_STEPS ? undefined : best;
}
