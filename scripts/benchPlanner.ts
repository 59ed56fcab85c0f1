/** Measures the planner on generated houses: its price against a bound worked out apart, and its time. */
import { readFileSync } from 'node:fs';
import { annealing } from '#core/planner/search/anneal.ts';
import loadHighs from 'highs';
import { Pricer } from '#core/planner/search/problem.ts';
import { provePlan } from '#core/planner/search/prove.ts';
import { BEFORE_PROOF, iterationsFor } from '#core/planner/solve.ts';
import { randomHouse, randomProblem, subsetPlan } from '#core/planner/search/testing.ts';
import { Windows } from '#core/planner/search/windows.ts';

export interface PlannerFigures {
  houses: number;
  /** Price above the bound, percent. */
  gapMean: number;
  gapWorst: number;
  /** How far the price after 2.5 s is above the last one, percent, mean. */
  behind: number;
  /** Mean time of a search, ms. */
  time: number;
  /** Price above the bound, percent, mean, once neighboring circuits were planned anew, and what that took, ms. */
  gapAfter: number;
  timeAfter: number;
}

// Drop and guards are left out of the bound, so they are left out of what is held against it.
const unlimited = (outlets: number) => ({ maxDrop: Infinity, guards: new Uint8Array(outlets) });

export const housePricer = (outlets: number, seed: number): Pricer =>
  new Pricer({ ...randomHouse(outlets, seed), ...unlimited(outlets) });

/** The search against the bounds on several houses of one size; null where no bound is worked out. */
export async function measurePlanner(outlets: number): Promise<PlannerFigures | null> {
  const bounds = (JSON.parse(readFileSync('scripts/bounds.json', 'utf8')) as Record<string, number[]>)[
    outlets
  ];
  if (!bounds || bounds.length === 0) return null;
  const highs = await loadHighs();
  const gaps: number[] = [];
  const gapsAfter: number[] = [];
  const behind: number[] = [];
  let time = 0;
  let timeAfter = 0;
  for (const [k, bound] of bounds.entries()) {
    const pricer = housePricer(outlets, k + 1);
    const start = performance.now();
    const iterations = iterationsFor(outlets);
    const search = annealing(pricer, k + 1, iterations);
    let soon = Infinity;
    while (search.iterations < iterations) {
      search.step(100);
      if (performance.now() - start < SOON) soon = search.best.cents;
    }
    time += performance.now() - start;
    gaps.push(100 * (search.best.cents / bound - 1));
    behind.push(100 * (soon / search.best.cents - 1));
    const again = performance.now();
    const windows = new Windows(pricer, search.best, highs);
    while (windows.step());
    timeAfter += performance.now() - again;
    gapsAfter.push(100 * (windows.best.cents / bound - 1));
  }
  const mean = (values: number[]) => values.reduce((t, v) => t + v, 0) / values.length;
  return {
    houses: bounds.length,
    gapMean: mean(gaps),
    gapWorst: Math.max(...gaps),
    behind: mean(behind),
    time: time / bounds.length,
    gapAfter: mean(gapsAfter),
    timeAfter: timeAfter / bounds.length,
  };
}

/** Time after which the price is looked at, ms. */
const SOON = 2500;

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

/**
 * The search and the proof on houses small enough for one.
 * @param maxDrop with guards too; without it neither counts
 */
export async function measureProof(
  make: typeof randomHouse | typeof randomProblem,
  outlets: number,
  houses: number,
  maxDrop?: number,
): Promise<ProofFigures> {
  const highs = await loadHighs();
  const figures: ProofFigures = { find: 0, prove: 0, found: 0, proven: 0, agreed: 0 };
  for (let seed = 1; seed <= houses; seed++) {
    const problem = make(outlets, seed);
    const pricer = new Pricer({ ...problem, ...(maxDrop ? { maxDrop } : unlimited(outlets)) });
    let start = performance.now();
    const iterations = BEFORE_PROOF * outlets;
    const search = annealing(pricer, seed, iterations);
    search.step(iterations);
    figures.find += (performance.now() - start) / houses;
    start = performance.now();
    const { best, proven } = provePlan(pricer, search.best, highs, search.met());
    figures.prove += (performance.now() - start) / houses;
    if (!best || !proven) continue;
    figures.proven++;
    if (search.best.cents <= best.cents + 1e-6) figures.found++;
    if (outlets <= MOST_SUBSETS && Math.abs(subsetPlan(pricer)!.cents - best.cents) < 1e-6) figures.agreed++;
  }
  return figures;
}
