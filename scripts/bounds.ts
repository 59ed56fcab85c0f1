/** `npm run bounds`: works out the prices that no plan of the measured houses falls below. Takes hours; what is there is kept. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import loadHighs from 'highs';
import { annealing } from '../src/core/planner/anneal.ts';
import { lowerBound } from '../src/core/planner/bound.ts';
import { iterationsFor } from '../src/core/planner/solve.ts';
import { housePricer } from './benchPlanner.ts';

const FILE = 'scripts/bounds.json';
const highs = await loadHighs();
const bounds = (existsSync(FILE) ? JSON.parse(readFileSync(FILE, 'utf8')) : {}) as Record<string, number[]>;
for (const outlets of [20, 40, 80, 150]) {
  const known = (bounds[outlets] ??= []);
  while (known.length < 5) {
    const pricer = housePricer(outlets, known.length + 1);
    const search = annealing(pricer, 1, iterationsFor(outlets));
    search.step(iterationsFor(outlets));
    const bound = lowerBound(pricer, highs, search.best);
    known.push(Math.floor(bound));
    const above = (100 * (search.best.cents / bound - 1)).toFixed(2);
    console.log(
      `${outlets} outlets, house ${known.length}: ${search.best.cents} is ${above} % above ${bound.toFixed(0)}`,
    );
    writeFileSync(FILE, `${JSON.stringify(bounds, null, 2)}\n`);
  }
}
