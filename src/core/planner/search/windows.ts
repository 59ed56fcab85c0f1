/**
 * A good plan made better where it is too large to be proven: neighboring circuits are planned anew together, proven
 * best, until no window of them is left that was not (Taillard and Voss, in Essays and Surveys in Metaheuristics 2002).
 * It finds what a search that moves a few sites at a time does not: three circuits instead of four.
 */
import type { Highs } from 'highs';
import { annealing } from './anneal.ts';
import { NEAR, Pricer, type Plan, type PricedCircuit, type Problem } from './problem.ts';
import { provePlan, type Effort } from './prove.ts';

type Sites = readonly number[];

/** Most sites of a window. */
const MOST_IN_WINDOW = 25;
/** Times that all circuits are looked at, each time with other neighbors. */
const ROUNDS = 3;
/** Iterations of the search for each of its sites before its proof. */
const BEFORE_PROOF = 40;
/** What a proof may take: what it found till then is as welcome. */
const EFFORT: Effort = { few: 60_000, listed: 2_000_000, most: 300_000 };

/** The problem of some sites, where all others stay on circuits of their own. */
export function restricted({ problem, nudges }: Pricer, sites: Sites, others: readonly Sites[]): Pricer {
  const n = problem.ids.length;
  const at = new Map(sites.map((i, k) => [i, k]));
  const bytes = (values: Uint8Array) => Uint8Array.from(sites, (i) => values[i]!);
  const numbers = (values: Float64Array) => Float64Array.from(sites, (i) => values[i]!);
  const pairs = (values: Float64Array) =>
    Float64Array.from(sites.flatMap((i) => sites.map((j) => values[i * n + j]!)));
  const elsewhere = new Set(others.flatMap((group) => group.map((i) => problem.room[i]!)));
  const { sites: marked, circuits } = problem.marked;
  const spread = others.filter((group) => group.some((i) => marked[i] === 1)).length;
  const part: Problem = {
    ...problem,
    ids: sites.map((i) => problem.ids[i]!),
    home: numbers(problem.home),
    between: pairs(problem.between),
    change: pairs(problem.change),
    size: Int32Array.from(sites, (i) => problem.size[i]!),
    least: bytes(problem.least),
    amps: numbers(problem.amps),
    needs: bytes(problem.needs),
    guards: bytes(problem.guards),
    maxOut: bytes(problem.maxOut),
    company: bytes(problem.company),
    // A room with outlets on other circuits too is never all on one.
    room: Int32Array.from(sites, (i) => (elsewhere.has(problem.room[i]!) ? -1 : problem.room[i]!)),
    marked: { sites: bytes(marked), circuits: Math.max(0, circuits - spread) },
    options: problem.options.flatMap((option) => {
      if (option.trunk === undefined) return [option];
      const trunk = at.get(option.trunk);
      return trunk === undefined ? [] : [{ ...option, trunk }];
    }),
  };
  return new Pricer(part, pairs(nudges));
}

export class Windows {
  private readonly pricer: Pricer;
  private readonly highs: Highs;
  private readonly mostSites: number;
  /** Circuits whose windows are still to be looked at. */
  private pending: PricedCircuit[];
  /** Windows that were, by their sites. */
  private readonly settled = new Set<string>();
  private round = 0;
  best: Plan;
  /** Share of the work done, 0 to 1. */
  done = 0;

  constructor(pricer: Pricer, plan: Plan, highs: Highs, mostSites = MOST_IN_WINDOW) {
    this.pricer = pricer;
    this.highs = highs;
    this.mostSites = mostSites;
    this.best = plan;
    this.pending = [...plan.circuits];
  }

  /** Looks at one window; false when none is left. */
  step(): boolean {
    if (this.pending.length === 0) {
      if (this.round === ROUNDS - 1) return false;
      this.round++;
      this.pending = [...this.best.circuits];
    }
    const first = this.pending.pop()!;
    const window = this.around(first);
    const sites = window.flatMap((c) => c.sites).sort((a, b) => a - b);
    const key = sites.join();
    if (window.length > 1 && !this.settled.has(key)) {
      this.settled.add(key);
      this.improve(window, sites);
    }
    const settled = this.round + 1 - this.pending.length / this.best.circuits.length;
    this.done = Math.max(this.done, settled / ROUNDS);
    return true;
  }

  /** A circuit and those nearest to it, while there is room, but for one of the nearest in later rounds. */
  private around(first: PricedCircuit): PricedCircuit[] {
    const { ids, between } = this.pricer.problem;
    const apart = ({ sites }: PricedCircuit) =>
      first.sites.reduce((sum, i) => sum + Math.min(...sites.map((j) => between[i * ids.length + j]!)), 0);
    const others = this.best.circuits
      .filter((circuit) => circuit !== first)
      .map((circuit) => ({ circuit, apart: apart(circuit) }))
      .sort((a, b) => a.apart - b.apart);
    if (this.round > 0) others.splice(this.round - 1, 1);
    const window = [first];
    let count = first.sites.length;
    for (const { circuit } of others) {
      count += circuit.sites.length;
      if (count > this.mostSites) break;
      window.push(circuit);
    }
    return window;
  }

  private improve(window: readonly PricedCircuit[], sites: Sites): void {
    const others = this.best.circuits.filter((circuit) => !window.includes(circuit));
    const part = restricted(
      this.pricer,
      sites,
      others.map((c) => c.sites),
    );
    const place = new Map(sites.map((i, k) => [i, k]));
    const known = window.map((c) => c.sites.map((i) => place.get(i)!));
    const search = annealing(part, 1, BEFORE_PROOF * sites.length, known);
    search.step(BEFORE_PROOF * sites.length);
    const found = provePlan(part, search.best, this.highs, search.met(), EFFORT).best;
    if (!found) return;
    const made = this.pricer.plan(found.circuits.map((c) => c.sites.map((k) => sites[k]!)));
    const saved = window.reduce((cents, c) => cents + c.cents, -made.cents);
    if (saved <= NEAR) return;
    this.best = { circuits: [...others, ...made.circuits], cents: this.best.cents - saved };
    this.pending = [...made.circuits, ...this.pending.filter((circuit) => !window.includes(circuit))];
  }
}
