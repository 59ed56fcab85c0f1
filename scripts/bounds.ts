/** `npm run bounds`: works out the prices that no plan of the measured houses falls below. Takes an hour and more; what is there is kept. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import loadHighs from 'highs';
import { annealing } from '#core/planner/search/anneal.ts';
import { lowerBound } from '#core/planner/search/bound.ts';
import type { Pricer } from '#core/planner/search/problem.ts';
import type { Column } from '#core/planner/search/pool.ts';
import { iterationsFor } from '#core/planner/solve.ts';
import { housePricer } from './benchPlanner.ts';

const FILE = 'scripts/bounds.json';
/** Searches whose circuits the bound begins with, and iterations between two looks at them. */
const SEARCHES = 6;
const SLICE = 25;

/** Circuits of the plans that shorter searches come by. */
function circuitsOf(pricer: Pricer, outlets: number): Column[] {
  const found: Column[] = [];
  const iterations = Math.ceil(iterationsFor(outlets) / 3);
  for (let seed = 1; seed <= SEARCHES; seed++) {
    const search = annealing(pricer, seed, iterations);
    while (search.iterations < iterations) if (search.step(SLICE)) found.push(...search.best.circuits);
  }
  return found;
}

const highs = await loadHighs();
const bounds = (existsSync(FILE) ? JSON.parse(readFileSync(FILE, 'utf8')) : {}) as Record<string, number[]>;
for (const outlets of [20, 40, 80, 150]) {
  const known = (bounds[outlets] ??= []);
  while (known.length < 5) {
    const pricer = housePricer(outlets, known.length + 1);
    const search = annealing(pricer, known.length + 1, iterationsFor(outlets));
    search.step(iterationsFor(outlets));
    const bound = lowerBound(pricer, highs, search.best, circuitsOf(pricer, outlets));
    known.push(Math.floor(bound));
    const above = (100 * (search.best.cents / bound - 1)).toFixed(2);
    console.log(
      `${outlets} outlets, house ${known.length}: ${search.best.cents} is ${above} % above ${bound.toFixed(0)}`,
    );
    writeFileSync(FILE, `${JSON.stringify(bounds, null, 2)}\n`);
  }
}
