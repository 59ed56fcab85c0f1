/**
 * The linear relaxation of choosing so many sets of sites that hold every site once, by column generation
 * (Desrosiers and Lübbecke 2005): the program holds the sets found worth while, and its duals tell the search for
 * sets what each site is worth. What the duals come to is a price that no plan of so many circuits falls below
 * (Lasdon, Optimization Theory for Large Systems 1970), whether or not the program has all its sets.
 */
import type { Highs } from 'highs';
import { split, type Limits } from './counts.ts';
import { KINDS, NEAR, type Pricer } from './problem.ts';
import { Pool, type Column } from './pool.ts';
import type { SetSource, Values } from './sets.ts';

/** Columns that one round adds to the linear program. */
const PER_ROUND = 150;
/** Steps from each site: some sets are found with few, all of them only without a limit. */
const STEPS = [300, 3000, 30_000, Infinity];
/** Fewer sets found are a sign that more steps are wanted. */
const FEW_FOUND = 8;
/** Price of a circuit too many or too few of some kinds, cents: keeps duals in reason and the program solvable. */
const LAST_RESORT = 1e6;

/** Values of the sites and kinds; of the latter so much is for being a circuit at all. */
export interface Duals extends Values {
  each: number;
}

export interface Bound {
  /** No plan of so many circuits costs less, cents. */
  bound: number;
  duals: Duals;
}

export interface Relaxation extends Bound {
  /** Price of the solution: the bound where every set is known that could lower it. */
  cents: number;
  /** Circuits in the solution by kind, which need not be whole numbers. */
  counts: Float64Array;
  /** Sets in the program. */
  columns: Column[];
}

/** What a set is worth: its sites and its kind. */
export const worth = (pricer: Pricer, { site, kind }: Values, sites: readonly number[]): number =>
  sites.reduce((c, i) => c + site[i]!, kind[pricer.kind(sites)]!);

export const reduced = (pricer: Pricer, duals: Duals, { sites, cents }: Column): number =>
  cents - worth(pricer, duals, sites);

/** A linear program of sets that grows: each site once, so many circuits of some kinds. */
class Master {
  private readonly model;
  private readonly pricer: Pricer;
  private readonly limits: Limits;
  private readonly infinity: number;
  /** Columns that stand for circuits too many or too few. */
  private readonly slack: number;
  readonly held = new Map<number, Column>();

  constructor(highs: Highs, pricer: Pricer, limits: Limits) {
    const n = pricer.problem.ids.length;
    this.pricer = pricer;
    this.limits = limits;
    this.infinity = highs.infinity;
    this.model = highs.createModel();
    this.model.options.set({ output_flag: false });
    const none = { indices: [], values: [] };
    for (let i = 0; i < n; i++) this.model.addRow(1, 1, none);
    for (const { least, most } of limits) this.model.addRow(least, Math.min(most, n), none);
    let slack = 0;
    limits.forEach(({ least, most }, row) => {
      for (const value of [...(least > 0 ? [1] : []), ...(most < n ? [-1] : [])]) {
        this.model.addCol(LAST_RESORT, 0, this.infinity, { indices: [n + row], values: [value] });
        slack++;
      }
    });
    this.slack = slack;
  }
  /** Adds those that it does not hold yet. */
  add(columns: readonly Column[]): void {
    const n = this.pricer.problem.ids.length;
    const cost: number[] = [];
    const starts = [0];
    const indices: number[] = [];
    for (const column of columns) {
      const key = this.pricer.key(column.sites);
      if (this.held.has(key)) continue;
      this.held.set(key, column);
      const bit = 1 << this.pricer.kind(column.sites);
      indices.push(...column.sites);
      this.limits.forEach(({ kinds }, row) => {
        if (kinds & bit) indices.push(n + row);
      });
      cost.push(column.cents);
      starts.push(indices.length);
    }
    const count = cost.length;
    if (count === 0) return;
    this.model.addCols({
      cost: Float64Array.from(cost),
      lower: new Float64Array(count),
      upper: new Float64Array(count).fill(this.infinity),
      matrix: {
        format: 'csc',
        numRows: n + this.limits.length,
        numCols: count,
        starts: Int32Array.from(starts),
        indices: Int32Array.from(indices),
        values: new Float64Array(indices.length).fill(1),
      },
    });
  }
  solve(): { cents: number; counts: Float64Array; duals: Duals; chosen: Column[] } {
    this.model.run();
    const n = this.pricer.problem.ids.length;
    const { rowDual, colValue } = this.model.getSolution();
    const counts = new Float64Array(KINDS);
    let at = this.slack;
    const chosen: Column[] = [];
    for (const column of this.held.values()) {
      const share = colValue[at++]!;
      if (share <= 0) continue;
      counts[this.pricer.kind(column.sites)]! += share;
      chosen.push(column);
    }
    const kind = new Float64Array(KINDS);
    this.limits.forEach(({ kinds }, row) => {
      for (let k = 0; k < KINDS; k++) if ((kinds >> k) & 1) kind[k]! += rowDual[n + row]!;
    });
    return {
      cents: this.model.getObjectiveValue(),
      counts,
      chosen,
      duals: { site: Float64Array.from(rowDual.slice(0, n)), kind, each: rowDual[n]! },
    };
  }
  dispose(): void {
    this.model.dispose();
  }
}

/** What pricing a set takes, in steps of the search for sets: by its spanning tree, and by trees within all limits. */
const PLAIN_STEPS = 5;
const FULL_STEPS = 20;

/** A set at its price where that is soon known, else at its bound. */
export function columnOf(pricer: Pricer, search: SetSource, sites: readonly number[], bound: number): Column {
  search.spend(PLAIN_STEPS);
  const plain = pricer.plainCents(sites);
  if (plain !== null) return { sites: [...sites], cents: plain, exact: true };
  const { cents, exact, fresh } = pricer.branchedCents(sites);
  if (fresh) search.spend(FULL_STEPS);
  return { sites: [...sites], cents: exact ? cents : bound, exact };
}

/** Sets with reduced prices below a limit that a program does not hold yet, of which the lowest are kept. */
class Lowest {
  found: { column: Column; by: number }[] = [];
  limit: number;
  private readonly pricer: Pricer;
  private readonly held: ReadonlyMap<number, Column>;

  constructor(pricer: Pricer, held: ReadonlyMap<number, Column>, limit: number) {
    this.pricer = pricer;
    this.held = held;
    this.limit = limit;
  }
  add(column: Column, by: number): void {
    // What the program holds it does not miss, though its bound may have been found lower this time.
    if (by >= this.limit || this.held.has(this.pricer.key(column.sites))) return;
    this.found.push({ column, by });
    if (this.found.length >= 8 * PER_ROUND) this.sort();
  }
  /** The lowest first, about PER_ROUND of them; the limit falls to what is left. */
  sort(): void {
    const known = new Set<number>();
    this.found.sort((a, b) => a.by - b.by);
    // The same set turns up once for each option that will do.
    this.found = this.found.filter(({ column }) => {
      const key = this.pricer.key(column.sites);
      return !known.has(key) && known.add(key);
    });
    if (this.found.length <= PER_ROUND) return;
    this.found.length = PER_ROUND;
    this.limit = this.found.at(-1)!.by;
  }
}

interface Found {
  columns: { column: Column; by: number }[];
  /** There are no others below the limit. */
  complete: boolean;
}

/** Sets worth adding to a program, of those in the pool. */
function fromPool({ pricer, pool }: Solver, duals: Duals, below: number, { held }: Master): Found {
  const lowest = new Lowest(pricer, held, below);
  for (const column of pool) {
    const by = reduced(pricer, duals, column);
    if (by < lowest.limit) lowest.add(column, by);
  }
  lowest.sort();
  return { columns: lowest.found, complete: false };
}

/** As many from a search, which the pool keeps too. */
function fromSearch(
  { pricer, search, pool }: Solver,
  duals: Duals,
  below: number,
  most: number,
  { held }: Master,
): Found {
  const lowest = new Lowest(pricer, held, below);
  const complete = search.below(duals, below, most, (sites, value) => {
    const own = worth(pricer, duals, sites);
    const column = columnOf(pricer, search, sites, value + own);
    pool.add(column);
    lowest.add(column, column.cents - own);
    return lowest.limit;
  });
  lowest.sort();
  return { columns: lowest.found, complete };
}

/** The relaxation where only some sets may be chosen. */
export function boundOver(pricer: Pricer, highs: Highs, columns: readonly Column[], limits: Limits): Bound {
  const master = new Master(highs, pricer, limits);
  try {
    master.add(columns.filter((column) => column.cents < Infinity));
    const { cents, duals } = master.solve();
    return { bound: cents, duals };
  } finally {
    master.dispose();
  }
}

/** What relaxations of one problem work with. */
export interface Solver {
  pricer: Pricer;
  highs: Highs;
  search: SetSource;
  pool: Pool;
}
export const solverOf = (pricer: Pricer, highs: Highs, search: SetSource): Solver => ({
  pricer,
  highs,
  search,
  pool: new Pool(pricer),
});

/** When a relaxation is good enough. */
export interface Until {
  /** The bound is so near to the program's value, as a share of it. */
  within: number;
  /** The bound is so high, cents. */
  enough: number;
}

/**
 * Plans within limits, relaxed to a bound, or parted where a sketch of the relaxation is not whole and no dearer than
 * what is enough.
 * @param columns sets to begin with
 * @param mayPart else they are relaxed in any case
 * @returns null where some site may be on no circuit at all
 */
export function relaxOrPart(
  solver: Solver,
  limits: Limits,
  columns: readonly Column[],
  until: Until,
  mayPart: boolean,
): (Relaxation & { parts: Limits[] | null }) | null {
  const sketch = relax(solver, limits, columns, until, true);
  if (!sketch) return null;
  const parts = mayPart && sketch.cents < until.enough ? split(limits, sketch.counts) : null;
  if (parts || sketch.bound >= until.enough - NEAR) return { ...sketch, parts };
  const relaxed = relax(solver, limits, sketch.columns, until, false);
  return relaxed && { ...relaxed, parts: null };
}

/**
 * @param columns sets to begin with
 * @param sketch only sets that are soon found are looked for: there may be no bound then, but a notion of what it will be
 * @returns null where some site may be on no circuit at all
 */
function relax(
  solver: Solver,
  limits: Limits,
  columns: readonly Column[],
  { within, enough }: Until,
  sketch: boolean,
): Relaxation | null {
  const { pricer, search } = solver;
  const alone = pricer.problem.ids.map((_, i) => columnOf(pricer, search, [i], Infinity));
  if (alone.some((c) => c.cents === Infinity)) return null;
  const steps = sketch ? STEPS.slice(0, 1) : STEPS;
  const master = new Master(solver.highs, pricer, limits);
  try {
    master.add([...alone, ...columns]);
    let best: { bound: number; duals: Duals } | null = null;
    let stage = 0;
    for (;;) {
      const { cents, counts, duals, chosen } = master.solve();
      search.penalize(chosen.map((c) => c.sites));
      const { least, most } = limits[0]!;
      // Only sets are of account that could bring the program down to what is enough, or by more than may be lacking.
      const below = -Math.max(NEAR, (cents - enough) / most, (within * cents) / most);
      let found = fromPool(solver, duals, below, master);
      while (found.columns.length === 0 && !found.complete) {
        found = fromSearch(solver, duals, below, steps[stage]!, master);
        if (found.columns.length >= FEW_FOUND || stage === steps.length - 1) break;
        stage++;
      }
      if (found.complete) {
        // Every circuit costs no less than the cheapest is reduced to, and one beyond the least what each is worth.
        const by = Math.min(below, found.columns[0]?.by ?? below);
        const bound = cents + Math.min(least * by, most * by + (most - least) * Math.max(0, duals.each));
        if (!best || bound > best.bound) best = { bound, duals };
      }
      const near = best !== null && best.bound >= Math.min(enough, cents * (1 - within));
      if (found.columns.length === 0 || near)
        return {
          bound: best?.bound ?? -Infinity,
          duals: best?.duals ?? duals,
          cents,
          counts,
          columns: [...master.held.values()],
        };
      master.add(found.columns.map(({ column }) => column));
    }
  } finally {
    master.dispose();
  }
}
