/** Plans a house part by part: proven where a part is small, searched where it is large; may be stopped at any time. */
import type { Highs } from 'highs';
import { annealing, type Search } from './anneal.ts';
import type { HouseProblem, Part } from './house.ts';
import type { Plan } from './problem.ts';
import { MOST_PROVEN, provePlan } from './prove.ts';

/** Iterations of the search for a number of sites. */
export const iterationsFor = (sites: number): number => Math.max(2500, 5 * sites ** 2);
/** As many for each site before a proof is tried. */
export const BEFORE_PROOF = 100;
/** Iterations between two looks at whether to go on. */
const SLICE = 50;

export interface Progress {
  /** Share of the work done, 0 to 1. */
  done: number;
  /** Price of the best plan so far, cents. */
  cents: number;
  /** Parts whose plan is proven to be the best. */
  proven: number;
  parts: number;
}

interface Task {
  part: Part;
  plan: Plan;
  search: Search | null;
  iterations: number;
  /** A proof was tried, or there are too many sites for one. */
  tried: boolean;
  proven: boolean;
}

export class HouseSearch {
  private readonly tasks: Task[];

  private readonly highs: Highs;

  /** The same seed gives the same plan. */
  constructor(house: HouseProblem, seed: number, highs: Highs) {
    this.highs = highs;
    this.tasks = house.parts.map((part): Task => {
      const n = part.sites.length + part.trunks.length;
      const iterations = n <= MOST_PROVEN ? BEFORE_PROOF * n : iterationsFor(n);
      const search = annealing(part.pricer, seed, iterations, part.present);
      return { part, plan: search.best, search, iterations, tried: n > MOST_PROVEN, proven: false };
    });
  }

  get plans(): Plan[] {
    return this.tasks.map((t) => t.plan);
  }

  get progress(): Progress {
    const work = (t: Task) => Math.max(SLICE, t.iterations);
    const done = (t: Task) => (t.search === null ? work(t) : t.search.iterations);
    const all = this.tasks.reduce((s, t) => s + work(t), 0);
    return {
      done: all === 0 ? 1 : this.tasks.reduce((s, t) => s + done(t), 0) / all,
      cents: this.tasks.reduce((s, t) => s + t.plan.cents, 0),
      proven: this.tasks.filter((t) => t.proven).length,
      parts: this.tasks.length,
    };
  }

  /** Works a little; false when all is done. */
  step(): boolean {
    const task = this.tasks.find((t) => t.search !== null);
    if (!task?.search) return false;
    if (task.search.step(Math.min(SLICE, task.iterations - task.search.iterations)))
      task.plan = task.search.best;
    if (task.search.iterations < task.iterations) return true;
    const best = task.tried ? null : provePlan(task.part.pricer, task.plan, this.highs, task.search.met());
    if (best) {
      task.plan = best;
      task.proven = true;
    }
    if (best || task.tried) task.search = null;
    else task.iterations = iterationsFor(task.part.sites.length + task.part.trunks.length);
    task.tried = true;
    return true;
  }
}
