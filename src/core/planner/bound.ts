/**
 * A price that no plan can fall below, worked out apart from the search: the linear relaxation of choosing sets of sites,
 * once for plans of so many circuits or more and once for fewer, where it asks for a number that is not whole. What may
 * leave a box and drop make sets dearer only where their cheapest tree shows it, and guards are taken to spare every
 * circuit its GFCI, which only lowers the bound.
 */
import type { Highs } from 'highs';
import type { Plan, Pricer } from './problem.ts';
import { rangesOf, relax } from './relax.ts';
import { SetSearch } from './sets.ts';

/** How near the bound comes to what the relaxation has to give, as a share of it. */
const WITHIN = 0.003;

/**
 * @param known a plan: what costs more is not asked for
 * @returns cents
 */
export function lowerBound(pricer: Pricer, highs: Highs, known: Plan): number {
  if (pricer.problem.ids.length === 0) return 0;
  const search = new SetSearch(pricer);
  const begun = rangesOf(pricer, highs, search, known, known.cents);
  if (!begun) return known.cents;
  let bound = known.cents;
  let { columns } = begun;
  for (const range of begun.ranges) {
    const until = { within: WITHIN, enough: bound, sketch: false };
    const relaxed = relax(pricer, highs, search, range, columns, until)!;
    bound = Math.min(bound, relaxed.bound);
    columns = relaxed.columns;
  }
  return bound;
}
