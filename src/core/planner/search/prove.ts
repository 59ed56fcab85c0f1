/**
 * The best grouping of few sites, proven. The linear relaxation of choosing sets of sites gives each site a value; sets
 * whose reduced price is above the gap to the best plan known cannot be in a better one. The few that are left are
 * priced in full and searched.
 */
import type { Highs } from 'highs';
import { NEAR, OUT_OF_DROP, type Plan, type Pricer, type Proof } from './problem.ts';
import { firstLimits, split, tightened, type Limits } from './counts.ts';
import { boundOver, columnOf, reduced, relaxOrPart, solverOf, worth, type Bound } from './relax.ts';
import type { Column } from './pool.ts';
import { setOf } from './bits.ts';
import { ListedSets, estimatedSets } from './listed.ts';
import { SetSearch, type SetSource, type Values, type Visit } from './sets.ts';
import { bySubsets } from './subsets.ts';

/** Most sites for which a proof is tried. */
export const MOST_PROVEN = 30;
/** What a proof may take. */
export interface Effort {
  /** Steps of the search for sets before they are listed instead. */
  few: number;
  /** Most sets for that. */
  listed: number;
  /** Further steps where there are more, before the proof is given up. */
  most: number;
}
const EFFORT: Effort = { few: 100_000, listed: 4_000_000, most: 2_000_000 };
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
 * The cheapest plan, proven where there are not too many sets or steps for it.
 * @param known a plan to begin with
 * @param met circuits of other plans: the more there are, the sooner it is done
 */
export function provePlan(
  pricer: Pricer,
  known: Plan,
  highs: Highs,
  met: readonly (readonly number[])[] = [],
  effort = EFFORT,
): Proof {
  const n = pricer.problem.ids.length;
  const best = soundOrNone(pricer, known);
  if (n <= 1) return { best, proven: true };
  // Where even a good plan cannot keep within the drop, what is least bad is not worth a proof.
  if (n > MOST_PROVEN || (best && best.cents >= OUT_OF_DROP)) return { best, proven: false };
  if (n <= FEW_SITES) return bySubsets(pricer, best);
  return byRelaxation(pricer, known, highs, new FoundOrListed(pricer, effort), met);
}

/** A plan where it holds enough circuits with a marked site. */
const soundOrNone = (pricer: Pricer, plan: Plan): Plan | null =>
  pricer.spread(plan.circuits.map((c) => c.sites)) ? plan : null;

/** Sets are searched for, and listed once that has taken long and there are few enough. */
export class FoundOrListed implements SetSource {
  private readonly pricer: Pricer;
  private readonly search: SetSearch;
  private listed: ListedSets | null = null;
  private mayList = true;
  private readonly effort: Effort;

  constructor(pricer: Pricer, effort: Effort) {
    this.pricer = pricer;
    this.effort = effort;
    this.search = new SetSearch(pricer, effort.few);
  }

  below(values: Values, limit: number, most: number, visit: Visit): boolean {
    if (this.listed) return this.listed.below(values, limit, most, visit);
    const complete = this.search.below(values, limit, most, visit);
    if (complete || this.search.budget > 0 || !this.mayList) return complete;
    this.mayList = false;
    const { listed, most: steps } = this.effort;
    this.search.budget = steps;
    if (estimatedSets(this.pricer, listed) <= listed) this.listed = ListedSets.of(this.pricer, listed);
    return this.below(values, limit, most, visit);
  }
  spend(steps: number): void {
    this.search.spend(steps);
  }
  forget(values: Values, limit: number): void {
    this.listed?.forget(values, limit);
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
): Proof {
  let best = soundOrNone(pricer, known);
  const solver = solverOf(pricer, highs, search);
  for (const sites of met) {
    const column = columnOf(pricer, search, sites, Infinity);
    if (column.cents < OUT_OF_DROP) solver.pool.add(column);
  }
  const first = tightened(pricer, highs, firstLimits(pricer, best?.cents ?? Infinity));
  const pending: Limits[] = first ? [first] : [];
  let columns: readonly Column[] = known.circuits;
  for (let next = pending.pop(); next; next = pending.pop()) {
    const limits = next === first ? first : tightened(pricer, highs, next);
    if (!limits) continue;
    const until = { within: NEAR, enough: best?.cents ?? Infinity };
    const relaxed = relaxOrPart(solver, limits, columns, until, true);
    if (!relaxed) return { best, proven: false };
    columns = relaxed.columns;
    if (until.enough <= relaxed.bound + NEAR) continue;
    // What is bounded first bounds all of its parts.
    if (limits === first) search.forget(relaxed.duals, until.enough - relaxed.bound);
    const parts = relaxed.parts ?? split(limits, relaxed.counts);
    if (parts) {
      pending.push(...parts);
      continue;
    }
    // A plan of the sets at hand lowers the ceiling before all sets are looked through.
    best = cheapest(pricer, highs, columns, null, until.enough, limits) ?? best;
    const ceiling = best?.cents ?? Infinity;
    const room = ceiling - relaxed.bound - NEAR;
    if (room <= 0) continue;
    const left = relaxed.bound > -Infinity ? within(pricer, search, relaxed, room) : undefined;
    const found = left && cheapest(pricer, highs, left, relaxed, ceiling, limits);
    if (found === undefined) return { best, proven: false };
    best = found ?? best;
  }
  return { best, proven: true };
}

/** Times that a choice is looked at again with its sets priced in full. */
const MOST_ROUNDS = 60;

/**
 * The cheapest plan of sets below a ceiling, null when there is none, undefined when it was given up.
 * @param relaxed a bound on such plans; null where there is none yet
 */
function cheapest(
  pricer: Pricer,
  highs: Highs,
  left: readonly Column[],
  relaxed: Bound | null,
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
  relaxed: Bound | null,
  ceiling: number,
  limits: Limits,
): Column[] | null | undefined {
  if (relaxed && (left.length <= MOST_SEARCHED || left.length > MOST_COLUMNS))
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
