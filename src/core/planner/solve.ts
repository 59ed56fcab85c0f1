/** Plans a house part by part: proven where a part is small, searched where it is large; may be stopped at any time. */
import type { Highs } from 'highs';
import { annealing, type Search } from './search/anneal.ts';
import type { HouseProblem, Part } from './houseProblem.ts';
import type { Plan } from './search/problem.ts';
import { MOST_PROVEN, provePlan } from './search/prove.ts';
import { Windows } from './search/windows.ts';

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
  /** Every part was searched: what is left is to plan neighboring circuits anew. */
  searched: boolean;
}

interface Task {
  part: Part;
  plan: Plan;
  sites: number;
  /** Null once it is done. */
  search: Search | null;
  iterations: number;
  /** A proof was tried, or there are too many sites for one. */
  tried: boolean;
  proven: boolean;
  /** Where there is no proof, neighboring circuits are planned anew together once the search is done. */
  windows: Windows | null;
}

/** Share of a part's work that the search is, where there is no proof. */
const SEARCH_SHARE = 0.4;

export class HouseSearch {
  private readonly tasks: Task[];

  private readonly highs: Highs;

  /** The same seed gives the same plan. */
  constructor(house: HouseProblem, seed: number, highs: Highs) {
    this.highs = highs;
    this.tasks = house.parts.map((part): Task => {
      const sites = part.sites.length + part.trunks.length;
      const iterations = sites <= MOST_PROVEN ? BEFORE_PROOF * sites : iterationsFor(sites);
      const search = annealing(part.pricer, seed, iterations, part.present);
      const tried = sites > MOST_PROVEN;
      return { part, plan: search.best, sites, search, iterations, tried, proven: false, windows: null };
    });
  }

  get plans(): Plan[] {
    return this.tasks.map((t) => t.plan);
  }

  get progress(): Progress {
    const done = ({ search, iterations, tried, proven, windows }: Task): number => {
      if (proven) return 1;
      const searched = search ? search.iterations / Math.max(1, iterations) : 1;
      return (tried ? SEARCH_SHARE : 1) * searched + (1 - SEARCH_SHARE) * (windows?.done ?? 0);
    };
    const sites = this.tasks.reduce((s, t) => s + t.sites, 0);
    return {
      done: sites === 0 ? 1 : this.tasks.reduce((s, t) => s + t.sites * done(t), 0) / sites,
      cents: this.tasks.reduce((s, t) => s + t.plan.cents, 0),
      proven: this.tasks.filter((t) => t.proven).length,
      parts: this.tasks.length,
      searched: this.tasks.every((t) => t.search === null),
    };
  }

  /** Works a little; false when all is done. */
  step(): boolean {
    const searched = this.tasks.find((t) => t.search !== null);
    if (searched) {
      this.search(searched);
      return true;
    }
    for (const task of this.tasks) {
      if (!task.windows?.step()) continue;
      task.plan = task.windows.best;
      return true;
    }
    return false;
  }

  private search(task: Task): void {
    const search = task.search!;
    if (search.step(Math.min(SLICE, task.iterations - search.iterations))) task.plan = search.best;
    if (search.iterations < task.iterations) return;
    if (task.tried) {
      task.search = null;
      task.windows = new Windows(task.part.pricer, task.plan, this.highs);
      return;
    }
    const { best, proven } = provePlan(task.part.pricer, task.plan, this.highs, search.met());
    task.plan = best ?? task.plan;
    task.proven = proven && best !== null;
    task.tried = true;
    if (task.proven) task.search = null;
    else task.iterations = iterationsFor(task.sites);
  }
}
