/** Measures the planner on generated houses: its price against a bound worked out apart, and its time. */
import { annealing } from '../src/core/planner/anneal.ts';
import { lowerBound } from '../src/core/planner/bound.ts';
import { exactPlan } from '../src/core/planner/exact.ts';
import { Pricer } from '../src/core/planner/problem.ts';
import { randomProblem } from '../src/core/planner/testing.ts';

export interface PlannerFigures {
  /** Price above the bound, percent. */
  gapMean: number;
  gapWorst: number;
  /** Mean time of a search, ms. */
  time: number;
}

const ITERATIONS_PER_SITE = 40;
const BOUND_STEPS = 400;

const pricerOf = (outlets: number, seed: number): Pricer =>
  // Drop and guards are left out of the bound, so they are left out of what is held against it.
  new Pricer(randomProblem(outlets, seed, { maxDrop: Infinity, guards: new Uint8Array(outlets) }));

/** The search against the bound on several houses of one size. */
export function measurePlanner(outlets: number, houses: number): PlannerFigures {
  const gaps: number[] = [];
  let time = 0;
  for (let seed = 1; seed <= houses; seed++) {
    const pricer = pricerOf(outlets, seed);
    const start = performance.now();
    const iterations = ITERATIONS_PER_SITE * outlets;
    const search = annealing(pricer, seed, iterations);
    search.step(iterations);
    time += performance.now() - start;
    const bound = lowerBound(pricer, BOUND_STEPS, search.best.cents);
    gaps.push(100 * (search.best.cents / bound - 1));
  }
  return {
    gapMean: gaps.reduce((t, g) => t + g, 0) / houses,
    gapWorst: Math.max(...gaps),
    time: time / houses,
  };
}

/** Time to find and to prove the best plan, and whether the search found it, on houses small enough. */
export function measureProof(
  outlets: number,
  houses: number,
): { find: number; prove: number; found: number } {
  let [find, prove, found] = [0, 0, 0];
  for (let seed = 1; seed <= houses; seed++) {
    const pricer = pricerOf(outlets, seed);
    let start = performance.now();
    const iterations = 10 * outlets;
    const search = annealing(pricer, seed, iterations);
    search.step(iterations);
    find += performance.now() - start;
    start = performance.now();
    const best = exactPlan(pricer)!;
    prove += performance.now() - start;
    if (search.best.cents <= best.cents + 1e-6) found++;
  }
  return { find: find / houses, prove: prove / houses, found };
}
