/**
 * The linear relaxation of choosing so many sets of sites that hold every site once, by column generation
 * (Desrosiers and Lübbecke 2005): the program holds the sets found worth while, and its duals tell the search for
 * sets what each site is worth. What the duals come to is a price that no plan of so many circuits falls below
 * (Lasdon, Optimization Theory for Large Systems 1970), whether or not the program has all its sets.
 */
import type { Highs } from 'highs';
import { NEAR, type Plan, type Pricer } from './problem.ts';
import { SetSearch, type Values } from './sets.ts';
import { FEW_BRANCHES } from './tree.ts';

/** Columns that one round adds to the linear program. */
const PER_ROUND = 150;
/** Steps from each site: some sets are found with few, all of them only without a limit. */
const STEPS = [300, 3000, 30_000, Infinity];
/** Price of a circuit too many, or of one with a marked site too few, cents: keeps duals in reason and the program solvable. */
const LAST_RESORT = 5e4;

export interface Column {
  sites: readonly number[];
  cents: number;
  /** The price is that of its best tree, not a bound. */
  exact: boolean;
}

/** Values of the sites and of a circuit as such. */
export interface Duals extends Values {
  each: number;
}

/** Least and most circuits of a plan. */
export type Range = readonly [least: number, most: number];

export interface Bound {
  /** No plan of so many circuits costs less, cents. */
  bound: number;
  duals: Duals;
}

export interface Relaxation extends Bound {
  /** Circuits in the solution, which need not be a whole number. */
  circuits: number;
  /** Sets in the program. */
  columns: Column[];
}

/** The same for the same sites in whatever order. */
const keyOf = ({ sites }: Column): string => [...sites].sort((a, b) => a - b).join();

/** What a set is worth: its sites and whether any of them is marked. */
export const worth = (pricer: Pricer, { site, marked }: Values, sites: readonly number[]): number =>
  sites.reduce((c, i) => c + site[i]!, pricer.isMarked(sites) ? marked : 0);

export const reduced = (pricer: Pricer, duals: Duals, { sites, cents }: Column): number =>
  cents - worth(pricer, duals, sites) - duals.each;

/** A linear program of sets that grows: each site once, so many circuits, enough of them with a marked site. */
class Master {
  private readonly model;
  private readonly pricer: Pricer;
  private readonly infinity: number;
  readonly held = new Map<string, Column>();

  constructor(highs: Highs, pricer: Pricer, [least, most]: Range) {
    const { ids, marked } = pricer.problem;
    this.pricer = pricer;
    this.infinity = highs.infinity;
    this.model = highs.createModel();
    this.model.options.set({ output_flag: false });
    const none = { indices: [], values: [] };
    for (let i = 0; i < ids.length; i++) this.model.addRow(1, 1, none);
    this.model.addRow(least, Math.min(most, ids.length), none);
    this.model.addRow(marked.circuits, this.infinity, none);
    this.model.addCol(LAST_RESORT, 0, this.infinity, { indices: [ids.length], values: [-1] });
    this.model.addCol(LAST_RESORT, 0, this.infinity, { indices: [ids.length + 1], values: [1] });
  }
  add(column: Column): void {
    const key = keyOf(column);
    if (this.held.has(key)) return;
    this.held.set(key, column);
    const n = this.pricer.problem.ids.length;
    const indices = [...column.sites, n, ...(this.pricer.isMarked(column.sites) ? [n + 1] : [])];
    this.model.addCol(column.cents, 0, this.infinity, { indices, values: indices.map(() => 1) });
  }
  solve(): { cents: number; circuits: number; duals: Duals } {
    this.model.run();
    const n = this.pricer.problem.ids.length;
    const { rowDual, colValue } = this.model.getSolution();
    return {
      cents: this.model.getObjectiveValue(),
      circuits: colValue.slice(2).reduce((t, v) => t + v, 0),
      duals: {
        site: Float64Array.from(rowDual.slice(0, n)),
        each: rowDual[n]!,
        marked: Math.max(0, rowDual[n + 1]!),
      },
    };
  }
  dispose(): void {
    this.model.dispose();
  }
}

/** A set at its price where that is soon known, else at its bound. */
export function columnOf(pricer: Pricer, sites: readonly number[], bound: number): Column {
  const plain = pricer.plainCents(sites);
  if (plain !== null) return { sites: [...sites], cents: plain, exact: true };
  const priced = pricer.price(sites, FEW_BRANCHES);
  return priced?.exact === false
    ? { sites: [...sites], cents: bound, exact: false }
    : { sites: [...sites], cents: priced?.cents ?? Infinity, exact: true };
}

/** Sets whose reduced price is below a limit, the lowest first, about PER_ROUND of them. */
function worthWhile(
  pricer: Pricer,
  search: SetSearch,
  duals: Duals,
  most: number,
): { columns: { column: Column; by: number }[]; complete: boolean } {
  let found: { column: Column; by: number }[] = [];
  let limit = -NEAR;
  const lowest = () => {
    const known = new Set<string>();
    found.sort((a, b) => a.by - b.by);
    // The same set turns up once for each option that will do.
    found = found.filter(({ column }) => {
      const key = keyOf(column);
      return !known.has(key) && known.add(key);
    });
    if (found.length <= PER_ROUND) return;
    found.length = PER_ROUND;
    limit = found.at(-1)!.by;
  };
  const complete = search.below(duals, duals.each + limit, most, (sites, value) => {
    const column = columnOf(pricer, sites, value + worth(pricer, duals, sites));
    const by = reduced(pricer, duals, column);
    if (by < limit) found.push({ column, by });
    if (found.length >= 8 * PER_ROUND) lowest();
    return duals.each + limit;
  });
  lowest();
  return { columns: found, complete };
}

/** The relaxation where only some sets may be chosen. */
export function boundOver(pricer: Pricer, highs: Highs, columns: readonly Column[], range: Range): Bound {
  const master = new Master(highs, pricer, range);
  try {
    for (const column of columns) if (column.cents < Infinity) master.add(column);
    const { cents, duals } = master.solve();
    return { bound: cents, duals };
  } finally {
    master.dispose();
  }
}

/** When a relaxation is good enough. */
export interface Until {
  /** The bound is so near to the program's value, as a share of it. */
  within: number;
  /** The bound is so high, cents. */
  enough: number;
  /** Only sets that are soon found are looked for: there is no bound then, but a notion of what it will be. */
  sketch: boolean;
}

/**
 * @param range of circuits
 * @param columns sets to begin with
 * @returns null where some site may be on no circuit at all
 */
export function relax(
  pricer: Pricer,
  highs: Highs,
  search: SetSearch,
  range: Range,
  columns: readonly Column[],
  { within, enough, sketch }: Until,
): Relaxation | null {
  const alone = pricer.problem.ids.map((_, i) => columnOf(pricer, [i], Infinity));
  if (alone.some((c) => c.cents === Infinity)) return null;
  const steps = sketch ? STEPS.slice(0, 1) : STEPS;
  const master = new Master(highs, pricer, range);
  try {
    for (const column of [...alone, ...columns]) master.add(column);
    let best: { bound: number; duals: Duals } | null = null;
    for (;;) {
      const { cents, circuits, duals } = master.solve();
      let found: ReturnType<typeof worthWhile> = { columns: [], complete: false };
      for (const most of steps) {
        found = worthWhile(pricer, search, duals, most);
        if (found.columns.length > 0 || found.complete) break;
      }
      if (found.complete) {
        // Every circuit costs no less than the cheapest is reduced to, and one beyond the least what each is worth.
        const by = Math.min(0, found.columns[0]?.by ?? 0);
        const [least, most] = range;
        const bound = cents + Math.min(least * by, most * by + (most - least) * Math.max(0, duals.each));
        if (!best || bound > best.bound) best = { bound, duals };
      }
      const near = best !== null && best.bound >= Math.min(enough, cents * (1 - within));
      if (found.columns.length === 0 || near)
        return {
          bound: best?.bound ?? -Infinity,
          duals: best?.duals ?? duals,
          circuits,
          columns: [...master.held.values()],
        };
      for (const { column } of found.columns) master.add(column);
    }
  } finally {
    master.dispose();
  }
}

/** The most circuits that a plan no dearer than one known can have. */
function mostCircuits({ problem }: Pricer, cents: number): number {
  const cheapest = Math.min(...problem.options.map((o) => o.breaker + o.perInch * Math.min(...problem.home)));
  return Math.min(problem.ids.length, Math.floor(cents / Math.max(1, cheapest)));
}

/**
 * Ranges of circuits that hold every plan no dearer than a limit, on either side of the number that the relaxation asks
 * for, and sets to begin with there.
 * @returns null where some site may be on no circuit at all
 */
export function rangesOf(
  pricer: Pricer,
  highs: Highs,
  search: SetSearch,
  known: Plan,
  limit: number,
): { ranges: Range[]; columns: Column[] } | null {
  const most = mostCircuits(pricer, limit);
  const start = known.circuits.map(({ sites, cents, exact }) => ({ sites, cents, exact }));
  const until = { within: 0, enough: Infinity, sketch: true };
  const sketch = relax(pricer, highs, search, [0, most], start, until);
  if (!sketch) return null;
  const whole = Math.ceil(sketch.circuits - NEAR);
  const sides: Range[] = [
    [whole, most],
    [0, whole - 1],
  ];
  return { ranges: sides.filter(([least, most]) => least <= most), columns: sketch.columns };
}
