/**
 * A price that no plan can fall below, worked out apart from the search: the linear relaxation of choosing sets of sites,
 * in parts by how many circuits of a kind a plan has, where it asks for a number that is not whole. Sets whose best tree
 * is not soon found stand there at what they cannot be below.
 */
import type { Highs } from 'highs';
import type { Plan, Pricer } from './problem.ts';
import { firstLimits, tightened, type Limits } from './counts.ts';
import { relaxOrPart, solverOf } from './relax.ts';
import type { Column } from './pool.ts';
import { SetSearch } from './sets.ts';

/** How near the bound comes to what the relaxation has to give, as a share of it. */
const WITHIN = 0.002;

/**
 * Times that plans are parted by how many circuits of a kind they have, and most sites for it: each part takes as long as
 * the whole.
 */
const MOST_PARTED = 8;
const MOST_TO_PART = 100;

/**
 * @param known a plan: what costs more is not asked for
 * @param others circuits of other good plans: the more there are, the sooner it is done
 * @returns cents
 */
export function lowerBound(
  pricer: Pricer,
  highs: Highs,
  known: Plan,
  others: readonly Column[] = [],
): number {
  if (pricer.problem.ids.length === 0) return 0;
  const solver = solverOf(pricer, highs, new SetSearch(pricer));
  let columns: readonly Column[] = [...known.circuits, ...others];
  let bound = known.cents;
  let parted = 0;
  const pending: Limits[] = [firstLimits(pricer, known.cents)];
  for (let next = pending.pop(); next; next = pending.pop()) {
    const limits = tightened(pricer, highs, next);
    if (!limits) continue;
    const until = { within: WITHIN, enough: bound };
    const mayPart = pricer.problem.ids.length <= MOST_TO_PART && parted < MOST_PARTED;
    const relaxed = relaxOrPart(solver, limits, columns, until, mayPart);
    if (!relaxed) return known.cents;
    columns = relaxed.columns;
    if (relaxed.parts) {
      parted++;
      pending.push(...relaxed.parts);
    } else bound = Math.min(bound, relaxed.bound);
  }
  return bound;
}
