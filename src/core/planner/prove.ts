/**
 * The best grouping of few sites, proven. For each number of circuits the linear relaxation of choosing that many
 * sets of sites is solved over all sets by column generation (Desrosiers and Lübbecke 2005), at prices the sets cannot
 * fall below. Sets whose reduced price is above the gap to the best plan known cannot be in a better one; the few that
 * are left are priced in full and searched.
 */
import type { Highs } from 'highs';
import { OUT_OF_DROP, type Plan, type Pricer } from './problem.ts';
import { allSets, type Sets } from './sets.ts';
import { FEW_BRANCHES } from './tree.ts';

/** Most sites for which a proof is tried. */
export const MOST_PROVEN = 25;
/** Columns that one round adds to the linear program. */
const PER_ROUND = 150;
/** Sets looked at in most rounds: those that the duals of one round make the most of. */
const POOL = 150_000;
/** Steps of the last search before it is given up. */
const MOST_STEPS = 5_000_000;
/** Price of leaving a row of the program unmet, cents: a value above it means that no plan meets them all. */
const LAST_RESORT = 1e7;
const NEAR = 1e-6;

interface Priced {
  mask: number;
  cents: number;
  /** The price is that of its best tree, not a bound. */
  exact: boolean;
}

const sitesOf = (mask: number): number[] => {
  const sites: number[] = [];
  for (let m = mask; m !== 0; m &= m - 1) sites.push(31 - Math.clz32(m & -m));
  return sites;
};
const maskOf = (sites: readonly number[]): number => sites.reduce((m, i) => m | (1 << i), 0);

/** Duals of the linear program, summed over a set by two tables. */
class Duals {
  private static readonly LOW = 13;
  private readonly low: Float64Array;
  private readonly high: Float64Array;
  private readonly each: number;
  private readonly spread: number;
  private readonly marked: number;

  /** @param each dual of the number of circuits, `spread` of those that must hold a marked site */
  constructor(site: Float64Array, n: number, each: number, spread: number, marked: number) {
    const table = (from: number, bits: number) => {
      const sums = new Float64Array(1 << bits);
      for (let m = 1; m < sums.length; m++)
        sums[m] = sums[m & (m - 1)]! + site[from + 31 - Math.clz32(m & -m)]!;
      return sums;
    };
    this.low = table(0, Math.min(n, Duals.LOW));
    this.high = table(Duals.LOW, Math.max(0, n - Duals.LOW));
    this.each = each;
    this.spread = spread;
    this.marked = marked;
  }
  /** Value of the program that the duals solve, cents. */
  value({ n, spread }: Asked, circuits: number): number {
    const all = (1 << n) - 1;
    return (
      this.low[all & (this.low.length - 1)]! +
      this.high[all >>> Duals.LOW]! +
      circuits * this.each +
      spread * this.spread
    );
  }
  reduced(mask: number, cents: number): number {
    const spread = (mask & this.marked) !== 0 ? this.spread : 0;
    return (
      cents - this.low[mask & (this.low.length - 1)]! - this.high[mask >>> Duals.LOW]! - this.each - spread
    );
  }
}

/** What a plan must hold besides every site once. */
interface Asked {
  n: number;
  /** Sites of which so many circuits must hold one each. */
  marked: number;
  spread: number;
}

/** A linear program of sets that grows: each site once, so many circuits, enough of them with a marked site. */
class Master {
  private readonly model;
  private readonly asked: Asked;
  private readonly infinity: number;
  /** Sets in the program with their prices. */
  readonly held = new Map<number, number>();

  constructor(highs: Highs, asked: Asked, circuits: number) {
    this.asked = asked;
    this.infinity = highs.infinity;
    this.model = highs.createModel();
    this.model.options.set({ output_flag: false });
    const none = { indices: [], values: [] };
    for (let i = 0; i < asked.n; i++) this.model.addRow(1, 1, none);
    this.model.addRow(circuits, circuits, none);
    this.model.addRow(asked.spread, this.infinity, none);
    // A dear way out for each row keeps the program solvable whatever its columns.
    for (let row = 0; row <= asked.n + 1; row++)
      for (const value of [1, -1])
        this.model.addCol(LAST_RESORT, 0, this.infinity, { indices: [row], values: [value] });
  }
  /** Adds a set, unless it is there at no higher a price. */
  add(mask: number, cents: number): boolean {
    if (this.held.get(mask)! <= cents + NEAR) return false;
    this.held.set(mask, cents);
    const { n, marked } = this.asked;
    const indices = [...sitesOf(mask), n, ...((mask & marked) !== 0 ? [n + 1] : [])];
    this.model.addCol(cents, 0, this.infinity, { indices, values: indices.map(() => 1) });
    return true;
  }
  solve(): { cents: number; duals: Duals } {
    this.model.run();
    const { n, marked } = this.asked;
    const { rowDual } = this.model.getSolution();
    return {
      cents: this.model.getObjectiveValue(),
      duals: new Duals(rowDual, n, rowDual[n]!, rowDual[n + 1]!, marked),
    };
  }
  dispose(): void {
    this.model.dispose();
  }
}

/** Positions of the sets that the duals make the most of, about so many. */
function poolOf(sets: Sets, duals: Duals): Int32Array {
  if (sets.count <= POOL) return Int32Array.from({ length: sets.count }, (_, at) => at);
  const step = Math.max(1, Math.floor(sets.count / 4000));
  const sample: number[] = [];
  for (let at = 0; at < sets.count; at += step) sample.push(duals.reduced(sets.masks[at]!, sets.cents[at]!));
  sample.sort((a, b) => a - b);
  const limit = sample[Math.floor((sample.length * POOL) / sets.count)]!;
  const pool: number[] = [];
  for (let at = 0; at < sets.count; at++)
    if (duals.reduced(sets.masks[at]!, sets.cents[at]!) <= limit) pool.push(at);
  return Int32Array.from(pool);
}

/** Adds sets with the most negative reduced prices; returns whether there were any. */
function price(master: Master, sets: Sets, duals: Duals, pool: Int32Array | null): boolean {
  const count = pool ? pool.length : sets.count;
  const found: { at: number; by: number }[] = [];
  let limit = -NEAR;
  for (let k = 0; k < count; k++) {
    const at = pool ? pool[k]! : k;
    const by = duals.reduced(sets.masks[at]!, sets.cents[at]!);
    if (by >= limit) continue;
    found.push({ at, by });
    if (found.length >= 4 * PER_ROUND) {
      found.sort((a, b) => a.by - b.by);
      found.length = PER_ROUND;
      limit = found.at(-1)!.by;
    }
  }
  found.sort((a, b) => a.by - b.by);
  let added = false;
  for (const { at } of found.slice(0, PER_ROUND))
    if (master.add(sets.masks[at]!, sets.cents[at]!)) added = true;
  return added;
}

/** Solves the relaxation over all sets; its value is a price no plan of so many circuits falls below. */
function relax(master: Master, sets: Sets): { cents: number; duals: Duals } {
  let solved = master.solve();
  for (;;) {
    const pool = poolOf(sets, solved.duals);
    while (price(master, sets, solved.duals, pool)) solved = master.solve();
    if (pool.length === sets.count || !price(master, sets, solved.duals, null)) return solved;
    solved = master.solve();
  }
}

/** Most sets priced in full: more of them would take longer than a proof is worth. */
const MOST_PRICED = 80_000;

/** Sets that a plan within the room may hold, undefined when they are too many; each at its price where that is soon known, else at its bound. */
function within(pricer: Pricer, sets: Sets, duals: Duals, room: number): Priced[] | undefined {
  const left: Priced[] = [];
  let tried = 0;
  for (let at = 0; at < sets.count; at++) {
    const mask = sets.masks[at]!;
    const bound = sets.cents[at]!;
    if (duals.reduced(mask, bound) >= room) continue;
    if (++tried > MOST_PRICED) return undefined;
    const priced = pricer.price(sitesOf(mask), FEW_BRANCHES);
    const exact = priced?.exact ?? false;
    const cents = exact ? priced!.cents : bound;
    if (duals.reduced(mask, cents) < room) left.push({ mask, cents, exact });
  }
  return left;
}

/**
 * The cheapest plan, proven.
 * @param known a plan to begin with
 * @returns null where there are too many sets or steps for a proof, or no plan meets what is asked
 */
export function provePlan(pricer: Pricer, known: Plan, highs: Highs): Plan | null {
  const { problem } = pricer;
  const n = problem.ids.length;
  if (n > MOST_PROVEN) return null;
  let best = pricer.spread(known.circuits.map((c) => c.sites)) ? known : null;
  if (n <= 1) return best;
  // Where even a good plan cannot keep within the drop, what is least bad is not worth a proof.
  if (best && best.cents >= OUT_OF_DROP) return null;
  const sets = allSets(pricer);
  if (!sets) return null;
  const asked: Asked = {
    n,
    marked: maskOf(problem.ids.flatMap((_, i) => (problem.marked.sites[i] ? [i] : []))),
    spread: problem.marked.circuits,
  };
  const load = problem.size.reduce((t, s) => t + s, 0);
  const fewest = Math.max(1, asked.spread, Math.ceil(load / pricer.largest - 1e-9));
  let columns = new Map(known.circuits.map((c) => [maskOf(c.sites), c.cents]));
  let before = Infinity;
  for (let circuits = fewest; circuits <= n; circuits++) {
    const master = new Master(highs, asked, circuits);
    try {
      for (const [mask, cents] of columns) if (cents < LAST_RESORT / 10) master.add(mask, cents);
      const { cents, duals } = relax(master, sets);
      const room = cents < LAST_RESORT ? (best?.cents ?? Infinity) - cents - NEAR : 0;
      if (room > 0) {
        const left = within(pricer, sets, duals, room);
        const found = left && cheapest(pricer, highs, left, duals, room, circuits, asked);
        if (found === undefined) return null;
        best = found ?? best;
      } else if (cents > before) return best;
      // The value is convex in the number of circuits: past its least it only rises.
      before = cents;
      columns = master.held;
    } finally {
      master.dispose();
    }
  }
  return best;
}

/** Times that a choice is looked at again with its sets priced in full. */
const MOST_ROUNDS = 60;

/** The cheapest plan of sets within the room, null when there is none, undefined when it was given up. */
function cheapest(
  pricer: Pricer,
  highs: Highs,
  left: readonly Priced[],
  duals: Duals,
  room: number,
  circuits: number,
  asked: Asked,
): Plan | null | undefined {
  let sets = left;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const found = choose(highs, sets, duals, room, circuits, asked);
    if (!found) return found;
    // A choice at bounds is looked at again once what it holds is priced in full.
    const bounded = new Set(found.filter((m) => !sets.find((s) => s.mask === m)!.exact));
    if (bounded.size === 0) return pricer.plan(found.map(sitesOf));
    sets = sets.map((s) =>
      bounded.has(s.mask)
        ? { mask: s.mask, cents: pricer.price(sitesOf(s.mask))?.cents ?? Infinity, exact: true }
        : s,
    );
  }
  return undefined;
}

/** More sets than this are thinned out by a linear program at their full prices before the search. */
const MOST_SEARCHED = 300;
/** More than this are too many for that program. */
const MOST_COLUMNS = 40_000;

/** The cheapest choice of sets within the room, null when there is none, undefined when it was given up. */
function choose(
  highs: Highs,
  left: readonly Priced[],
  duals: Duals,
  room: number,
  circuits: number,
  asked: Asked,
): number[] | null | undefined {
  if (left.length <= MOST_SEARCHED) return search(left, duals, room, circuits, asked);
  if (left.length > MOST_COLUMNS) return undefined;
  const master = new Master(highs, asked, circuits);
  try {
    for (const { mask, cents } of left) if (cents < LAST_RESORT) master.add(mask, cents);
    const full = master.solve();
    // What the plan known costs, seen from the program before: its value and the room above it.
    const limit = duals.value(asked, circuits) + room - full.cents;
    if (limit <= 0) return null;
    const few = left.filter(({ mask, cents }) => full.duals.reduced(mask, cents) < limit);
    return search(few, full.duals, limit, circuits, asked);
  } finally {
    master.dispose();
  }
}

/**
 * The cheapest choice of sets that holds every site once: depth first over the site with the fewest sets, cut off
 * where the reduced prices add up to the room there is.
 * @returns null when no choice is within the room, undefined when the search was given up
 */
function search(
  sets: readonly Priced[],
  duals: Duals,
  room: number,
  circuits: number,
  { n, marked, spread }: Asked,
): number[] | null | undefined {
  const priced = sets
    .map(({ mask, cents }) => ({ mask, price: Math.max(0, duals.reduced(mask, cents)) }))
    .sort((a, b) => a.price - b.price);
  const holding = Array.from({ length: n }, (_, i) => priced.filter(({ mask }) => (mask >> i) & 1));
  const order = holding.map((_, i) => i).sort((a, b) => holding[a]!.length - holding[b]!.length);
  const all = (1 << n) - 1;
  let best: number[] | null = null;
  let limit = room;
  let steps = 0;
  const chosen: number[] = [];
  const descend = (covered: number, spent: number): void => {
    if (covered === all) {
      if (chosen.length !== circuits || chosen.filter((m) => (m & marked) !== 0).length < spread) return;
      best = [...chosen];
      limit = spent;
      return;
    }
    if (chosen.length === circuits) return;
    const site = order.find((i) => ((covered >> i) & 1) === 0)!;
    for (const { mask, price } of holding[site]!) {
      if (spent + price >= limit - NEAR || steps > MOST_STEPS) return;
      steps++;
      if ((mask & covered) !== 0) continue;
      chosen.push(mask);
      descend(covered | mask, spent + price);
      chosen.pop();
    }
  };
  descend(0, 0);
  return steps > MOST_STEPS ? undefined : best;
}
