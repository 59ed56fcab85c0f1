/** Measures the planner on generated houses: its price against a bound worked out apart, and its time. */
import { annealing } from '../src/core/planner/anneal.ts';
import { lowerBound } from '../src/core/planner/bound.ts';
import loadHighs from 'highs';
import { Pricer } from '../src/core/planner/problem.ts';
import { provePlan } from '../src/core/planner/prove.ts';
import { randomProblem, subsetPlan } from '../src/core/planner/testing.ts';

export interface PlannerFigures {
  /** Price above the bound, percent. */
  gapMean: number;
  gapWorst: number;
  /** Mean time of a search, ms. */
  time: number;
}

const ITERATIONS_PER_SITE = 40;
const BOUND_SECONDS = 20;

const pricerOf = (outlets: number, seed: number): Pricer =>
  // Drop and guards are left out of the bound, so they are left out of what is held against it.
  new Pricer(randomProblem(outlets, seed, { maxDrop: Infinity, guards: new Uint8Array(outlets) }));

/** The search against the bound on several houses of one size. */
export async function measurePlanner(outlets: number, houses: number): Promise<PlannerFigures> {
  const highs = await loadHighs();
  const gaps: number[] = [];
  let time = 0;
  for (let seed = 1; seed <= houses; seed++) {
    const pricer = pricerOf(outlets, seed);
    const start = performance.now();
    const iterations = ITERATIONS_PER_SITE * outlets;
    const search = annealing(pricer, seed, iterations);
    search.step(iterations);
    time += performance.now() - start;
    const bound = lowerBound(pricer, highs, BOUND_SECONDS);
    gaps.push(100 * (search.best.cents / bound - 1));
  }
  return {
    gapMean: gaps.reduce((t, g) => t + g, 0) / houses,
    gapWorst: Math.max(...gaps),
    time: time / houses,
  };
}

/** Most outlets whose subsets are all worked out to hold the proof against. */
const MOST_SUBSETS = 16;

export interface ProofFigures {
  /** Mean time of the search and of the proof, ms. */
  find: number;
  prove: number;
  /** Houses whose best plan the search found by itself, whose best was proven, and whose proof another one bears out. */
  found: number;
  proven: number;
  agreed: number;
}

/** The search and the proof on houses small enough for one. */
export async function measureProof(outlets: number, houses: number): Promise<ProofFigures> {
  const highs = await loadHighs();
  const figures: ProofFigures = { find: 0, prove: 0, found: 0, proven: 0, agreed: 0 };
  for (let seed = 1; seed <= houses; seed++) {
    const pricer = pricerOf(outlets, seed);
    let start = performance.now();
    const iterations = 10 * outlets;
    const search = annealing(pricer, seed, iterations);
    search.step(iterations);
    figures.find += (performance.now() - start) / houses;
    start = performance.now();
    const best = provePlan(pricer, search.best, highs);
    figures.prove += (performance.now() - start) / houses;
    if (!best) continue;
    figures.proven++;
    if (search.best.cents <= best.cents + 1e-6) figures.found++;
    if (outlets <= MOST_SUBSETS && Math.abs(subsetPlan(pricer)!.cents - best.cents) < 1e-6) figures.agreed++;
  }
  return figures;
}
