/**
 * Grouping outlets into circuits, as a problem of combinatorics: sites to be wired from one panel, each circuit
 * a tree of cable with one home run (a capacitated minimum spanning tree; Gavish, Networks 1983). Money is in
 * cents, lengths in inches.
 */
import { randomFrom } from './random.ts';
import { cheapestTree, FEW_BRANCHES, PlainTree, worstDrop, type Tree } from './tree.ts';

/** A breaker and cable that a circuit may be made of. */
export interface CircuitOption {
  rating: number;
  gauge: string;
  /** Breaker without protection, cents. */
  breaker: number;
  /** Cable, cents an inch. */
  perInch: number;
  /** Resistance of one conductor, ohms an inch. */
  ohmsPerInch: number;
  /** Most load units on one circuit. */
  capacity: number;
  /**
   * Its trunk: an existing circuit that may be extended is a site too, with cable that starts at its boxes. Whoever joins
   * it is on it; by itself it costs nothing. `breaker` is then nothing, as it is there.
   */
  trunk?: number;
  /** Prices of protection where they differ from the problem's: what the breaker of a trunk has to become. */
  protection?: Protection;
}

/** By the bits that any site of a circuit asks for, cents. */
type Protection = readonly [number, number, number, number];

/** Bits of `needs`: protection that a site asks for. */
export const NEEDS_AFCI = 1;
export const NEEDS_GFCI = 2;

/** A set's kind: the protection that any of its sites asks for, and these bits. */
export const KINDS = 16;
/** The option of least rating cannot hold it. */
export const LARGE = 4;
/** It holds a marked site. */
export const MARKED = 8;

/** A garage's circuit serves garage and outdoor receptacles and nothing else, 210.11(C)(4). */
export const GENERAL = 0;
export const GARAGE = 1;
export const EITHER = 2;

export interface Problem {
  /** Sites are numbered from 0; ids are the boxes'. */
  ids: readonly string[];
  /** Cable from the panel to each site, inches; of a trunk to the farthest box that may be the start of more. */
  home: Float64Array;
  /** Cable between sites, inches, row by row. */
  between: Float64Array;
  /** Money beside cable that a segment between two sites costs the shop: another room, another wall. */
  change: Float64Array;
  /** Load units of each site, at least 1, held against an option's capacity. */
  size: Int32Array;
  /** Least rating of a circuit each site may be on, amperes: 20 A receptacles want 20 A, 210.21(B). */
  least: Uint8Array;
  /** Planning current of each site, amperes. */
  amps: Float64Array;
  /** Protection each site asks for. */
  needs: Uint8Array;
  /** Sites whose own receptacle is a GFCI: first on a circuit, it protects all of it. */
  guards: Uint8Array;
  protection: Protection;
  options: readonly CircuitOption[];
  /** Cables of the run that may leave each site's box. */
  maxOut: Uint8Array;
  /** What a site may share a circuit with: `GENERAL`, `GARAGE` or `EITHER`. */
  company: Uint8Array;
  /** Most drop at the far end under the planning load, volts. */
  maxDrop: number;
  /** Room of each site that should not be all on one circuit, −1 where it may be, and what each such room costs, cents. */
  room: Int32Array;
  dark: number;
  /** At least so many circuits must hold a marked site: two for kitchen counters. */
  marked: { sites: Uint8Array; circuits: number };
}

export interface PricedCircuit {
  sites: readonly number[];
  option: CircuitOption;
  /** Feeder of each site as a position in `sites`; −1 is the panel. */
  feeders: readonly number[];
  /** Cable, inches. */
  cable: number;
  /** Drop at the worst site, volts. */
  drop: number;
  cents: number;
  /** A GFCI receptacle that is there anyway stands first and protects the rest. */
  guarded: boolean;
  /** No cheaper way was left untried. */
  exact: boolean;
}

export interface Plan {
  circuits: readonly PricedCircuit[];
  cents: number;
}

/** What comes of a proof. */
export interface Proof {
  /** The cheapest plan that was found; null where none meets what is asked. */
  best: Plan | null;
  /** None is cheaper. */
  proven: boolean;
}

/** Prices remembered at a time, a power of two. */
const MOST_KNOWN = 2 ** 19;

/** Tolerance of drops, volts, and of rooms, load units. */
export const TINY = 1e-9;

/** Prices that are so near are the same, cents. */
export const NEAR = 1e-6;

/**
 * Segments are nudged by less than this, cents, so that no two trees cost the same: a set has one cheapest tree, in
 * whatever order its sites come in, and one drop.
 */
const NUDGE = 1e-8;

/** Added where no option keeps the drop within its limit: such a circuit is a last resort. */
export const OUT_OF_DROP = 1e6;

function nudgesFor(n: number, random: () => number): Float64Array {
  const nudges = Float64Array.from({ length: n * n }, () => NUDGE * random());
  for (let i = 0; i < n; i++) for (let j = 0; j < i; j++) nudges[i * n + j] = nudges[j * n + i]!;
  return nudges;
}

export class Pricer {
  readonly problem: Problem;
  /** Segment and home-run prices for each option, cents. */
  private readonly edges: Float64Array[];
  private readonly homes: Float64Array[];
  /** As `homes`, to sites that guard alone. */
  private readonly guardedHomes: Float64Array[];
  readonly largest: number;
  /** The option of least rating. */
  readonly small: CircuitOption;
  /** Option of each site that is a trunk, −1 of any other. */
  readonly trunk: Int32Array;
  /** Sites of each room of `problem.room`. */
  private readonly inRoom: number[];
  /** Prices by the exclusive or of the sites' random numbers (Zobrist): two of them each, the first tells the place. */
  private readonly known = new Float64Array(MOST_KNOWN);
  private readonly keys = new Int32Array(2 * MOST_KNOWN);
  private readonly hashes: Int32Array;
  /** Prices of sets whose minimum spanning tree will not do, by 53 bits of the same. */
  private readonly branched = new Map<number, { cents: number; exact: boolean }>();
  private readonly plain: PlainTree;
  private readonly members: Int32Array;
  /** As many cables out of every box as there may ever be. */
  private readonly unlimited: Uint8Array;
  /** Nudges of segments, row by row, and of home runs, where a row meets its column; cents. */
  readonly nudges: Float64Array;

  /** @param nudges those of the problem that this one is a part of, so that trees are the same */
  constructor(problem: Problem, nudges?: Float64Array) {
    this.problem = problem;
    const n = problem.ids.length;
    const random = randomFrom(1);
    this.nudges = nudges ?? nudgesFor(n, random);
    this.edges = problem.options.map((o) =>
      problem.between.map((inches, at) => inches * o.perInch + problem.change[at]! + this.nudges[at]!),
    );
    this.trunk = new Int32Array(n).fill(-1);
    for (const [o, { trunk }] of problem.options.entries()) if (trunk !== undefined) this.trunk[trunk] = o;
    this.homes = problem.options.map((o) =>
      problem.home.map((inches, i) => {
        if (o.trunk !== undefined) return i === o.trunk ? 0 : Infinity;
        return this.trunk[i]! >= 0 ? Infinity : inches * o.perInch + this.nudges[i * n + i]!;
      }),
    );
    this.guardedHomes = this.homes.map((home) =>
      home.map((cents, i) => (problem.guards[i] ? cents : Infinity)),
    );
    this.inRoom = [];
    for (const r of problem.room) if (r >= 0) this.inRoom[r] = (this.inRoom[r] ?? 0) + 1;
    this.hashes = Int32Array.from({ length: 2 * problem.ids.length }, () => Math.floor(random() * 2 ** 32));
    this.plain = new PlainTree(problem.ids.length);
    this.members = new Int32Array(problem.ids.length);
    this.unlimited = new Uint8Array(problem.ids.length).fill(255);
    this.largest = Math.max(...problem.options.map((o) => o.capacity));
    this.small = problem.options
      .filter((o) => o.trunk === undefined)
      .reduce((a, b) => (b.rating < a.rating ? b : a));
  }

  /** Price of a segment under an option, cents. */
  edge(option: number, i: number, j: number): number {
    return this.edges[option]![i * this.problem.ids.length + j]!;
  }
  homeRun(option: number, i: number): number {
    return this.homes[option]![i]!;
  }

  load(sites: readonly number[]): number {
    let total = 0;
    for (const i of sites) total += this.problem.size[i]!;
    return total;
  }

  /** Cents for rooms that have all their outlets here. */
  private darkness(sites: readonly number[]): number {
    const { room, dark } = this.problem;
    return this.inRoom.reduce(
      (cents, all, r) => cents + (sites.filter((i) => room[i] === r).length === all ? dark : 0),
      0,
    );
  }

  private needs(sites: readonly number[]): number {
    let needs = 0;
    for (const i of sites) needs |= this.problem.needs[i]!;
    return needs;
  }

  /** Drop at the worst site of a tree, volts. */
  private drop(sites: readonly number[], { feeders, order }: Tree, option: CircuitOption): number {
    const place = new Map(order.map((k, at) => [k, at]));
    return worstDrop(
      this.problem,
      option.ohmsPerInch,
      Int32Array.from(order, (k) => sites[k]!),
      Int32Array.from(order, (k) => place.get(feeders[k]!) ?? -1),
    );
  }

  /**
   * Drop of the cheapest tree whatever leaves a box, volts. It counts too, so that another outlet never helps a circuit
   * that drops too much.
   */
  private freeDrop(sites: readonly number[], option: number, homes: Float64Array): number {
    const { problem, plain, members, unlimited } = this;
    members.set(sites);
    plain.cost(members, sites.length, this.edges[option]!, homes, problem.ids.length, unlimited);
    return plain.drop(problem, problem.options[option]!.ohmsPerInch);
  }

  private cable(sites: readonly number[], { feeders }: Tree): number {
    const { problem } = this;
    return feeders.reduce(
      (t, from, k) =>
        t +
        (from < 0
          ? this.trunk[sites[k]!]! < 0
            ? problem.home[sites[k]!]!
            : 0
          : problem.between[sites[from]! * problem.ids.length + sites[k]!]!),
      0,
    );
  }

  /** The exclusive or of the sites' two random numbers each. */
  private hash(sites: readonly number[], one = -1): [high: number, low: number] {
    const { hashes } = this;
    let [high, low] = one < 0 ? [0, 0] : [hashes[2 * one]!, hashes[2 * one + 1]!];
    for (let k = 0; k < sites.length; k++) {
      high ^= hashes[2 * sites[k]!]!;
      low ^= hashes[2 * sites[k]! + 1]!;
    }
    return [high, low];
  }

  /** The same for the same sites in whatever order: 53 bits. */
  key(sites: readonly number[]): number {
    const [high, low] = this.hash(sites);
    return (high >>> 0) * 2 ** 21 + (low & (2 ** 21 - 1));
  }

  /**
   * The cheapest price of wiring these sites as one circuit; Infinity where they may not be one.
   * @param one another site that is to join them; −1 is none
   */
  cents(sites: readonly number[], one = -1): number {
    const { keys, known } = this;
    const [high, low] = this.hash(sites, one);
    const at = high & (MOST_KNOWN - 1);
    // No set of sites has two numbers of 0: an empty place never matches.
    if (keys[2 * at] === high && keys[2 * at + 1] === low) return known[at]!;
    keys[2 * at] = high;
    keys[2 * at + 1] = low;
    return (known[at] =
      this.plainCents(sites, one) ??
      this.price(one < 0 ? sites : [...sites, one], FEW_BRANCHES)?.cents ??
      Infinity);
  }

  /** As `price` with few branches, remembered; and whether it had to be worked out. */
  branchedCents(sites: readonly number[]): { cents: number; exact: boolean; fresh: boolean } {
    const key = this.key(sites);
    const known = this.branched.get(key);
    if (known) return { ...known, fresh: false };
    const priced = this.price(sites, FEW_BRANCHES);
    const found = { cents: priced?.cents ?? Infinity, exact: priced?.exact ?? true };
    if (this.branched.size >= MOST_KNOWN) this.branched.clear();
    this.branched.set(key, found);
    return { ...found, fresh: true };
  }

  /** As `price`, where no box has too many cables in a minimum spanning tree; null where one has. */
  plainCents(sites: readonly number[], one = -1, maxOut = this.problem.maxOut): number | null {
    const { problem, members, plain } = this;
    const k = one < 0 ? sites.length : sites.length + 1;
    let [load, needs, least, company, guards, trunk] = [0, 0, 0, 0, false, -1];
    for (let at = 0; at < k; at++) {
      const i = at < sites.length ? sites[at]! : one;
      members[at] = i;
      if (this.trunk[i]! >= 0) {
        if (k === 1) return 0;
        if (trunk >= 0) return Infinity;
        trunk = i;
      }
      load += problem.size[i]!;
      needs |= problem.needs[i]!;
      least = Math.max(least, problem.least[i]!);
      company |= problem.company[i] === GARAGE ? 1 : problem.company[i] === GENERAL ? 2 : 0;
      guards ||= problem.guards[i] === 1;
    }
    if (company === 3) return Infinity;
    guards &&= (needs & NEEDS_GFCI) > 0 && trunk < 0;
    const dark = this.inRoom.length > 0 ? this.darkness(Array.from(members.subarray(0, k))) : 0;
    let best = Infinity;
    let by: CircuitOption | null = null;
    for (let o = 0; o < problem.options.length; o++) {
      const option = problem.options[o]!;
      if (load > option.capacity || option.rating < least || (option.trunk ?? -1) !== trunk) continue;
      if (by && best < OUT_OF_DROP && option.perInch >= by.perInch && option.breaker >= by.breaker) continue;
      for (let guarded = guards ? 1 : 0; guarded >= 0; guarded--) {
        const asked = (guarded ? needs & ~NEEDS_GFCI : needs) as 0 | 1 | 2 | 3;
        const homes = (guarded ? this.guardedHomes : this.homes)[o]!;
        const tree = plain.cost(members, k, this.edges[o]!, homes, problem.ids.length, maxOut);
        if (tree === null) return null;
        let cents = option.breaker + this.protection(option, asked) + dark + tree;
        if (cents >= best) continue;
        if (plain.drop(problem, option.ohmsPerInch) > problem.maxDrop + TINY) cents += OUT_OF_DROP;
        if (cents >= best) continue;
        best = cents;
        by = option;
      }
    }
    return best;
  }

  protection(option: CircuitOption, asked: 0 | 1 | 2 | 3): number {
    return (option.protection ?? this.problem.protection)[asked];
  }

  /** A trunk that nothing joins. */
  private alone(trunk: number): PricedCircuit {
    const option = this.problem.options[this.trunk[trunk]!]!;
    const tree: Tree = { cost: 0, feeders: [-1], order: [0], exact: true };
    const drop = this.drop([trunk], tree, option);
    return { sites: [trunk], option, feeders: [-1], cable: 0, drop, cents: 0, guarded: false, exact: true };
  }

  /** What these sites as one circuit cannot cost less than: whatever leaves a box. */
  floorCents(sites: readonly number[]): number {
    return this.plainCents(sites, -1, this.unlimited)!;
  }

  /** The cheapest way to wire these sites as one circuit; null where they may not be one. */
  price(sites: readonly number[], mostBranches?: number): PricedCircuit | null {
    const { problem } = this;
    const load = this.load(sites);
    const garage = sites.some((i) => problem.company[i] === GARAGE);
    if (garage && sites.some((i) => problem.company[i] === GENERAL)) return null;
    const trunks = sites.filter((i) => this.trunk[i]! >= 0);
    if (trunks.length > 1) return null;
    const [trunk = -1] = trunks;
    if (trunk >= 0 && sites.length === 1) return this.alone(trunk);
    const needs = this.needs(sites);
    const guards = trunk < 0 && (needs & NEEDS_GFCI) > 0 && sites.some((i) => problem.guards[i] === 1);
    const least = sites.reduce((most, i) => Math.max(most, problem.least[i]!), 0);
    const dark = this.darkness(sites);
    let best: PricedCircuit | null = null;
    let exact = true;
    for (const [o, option] of problem.options.entries()) {
      if (load > option.capacity || option.rating < least || (option.trunk ?? -1) !== trunk) continue;
      // Thicker cable is for drop alone: where thinner cable keeps within it, it cannot be cheaper.
      if (
        best &&
        best.cents < OUT_OF_DROP &&
        option.perInch >= best.option.perInch &&
        option.breaker >= best.option.breaker
      )
        continue;
      for (const guarded of guards ? [true, false] : [false]) {
        const homes = (guarded ? this.guardedHomes : this.homes)[o]!;
        const tree = cheapestTree(
          sites,
          this.edges[o]!,
          homes,
          problem.ids.length,
          problem.maxOut,
          mostBranches,
        );
        if (!tree) {
          // Without a tree it is not known whether there is none.
          exact = exact && mostBranches === undefined;
          continue;
        }
        exact = exact && tree.exact;
        const asked = (guarded ? needs & ~NEEDS_GFCI : needs) as 0 | 1 | 2 | 3;
        const without = option.breaker + this.protection(option, asked) + dark + tree.cost;
        if (without === Infinity || (best && without >= best.cents)) continue;
        const drop = this.drop(sites, tree, option);
        const out = Math.max(drop, this.freeDrop(sites, o, homes)) > problem.maxDrop + TINY;
        const cents = without + (out ? OUT_OF_DROP : 0);
        if (best && cents >= best.cents) continue;
        best = {
          sites: [...sites],
          option,
          feeders: tree.feeders,
          cable: this.cable(sites, tree),
          drop,
          cents,
          guarded,
          exact,
        };
      }
    }
    return best && { ...best, exact };
  }

  plan(groups: readonly (readonly number[])[]): Plan {
    const circuits = groups.map((sites) => {
      const priced = this.price(sites);
      if (!priced) throw new Error(`${sites.length} sites do not make one circuit`);
      return priced;
    });
    return { circuits, cents: circuits.reduce((t, c) => t + c.cents, 0) };
  }

  /** A circuit's kind by its sites. */
  kind(sites: readonly number[]): number {
    const { problem, small } = this;
    let kind = this.load(sites) > small.capacity ? LARGE : 0;
    for (const i of sites)
      kind |=
        problem.needs[i]! |
        (problem.least[i]! > small.rating ? LARGE : 0) |
        (problem.marked.sites[i] === 1 ? MARKED : 0);
    return kind;
  }

  /** Whether enough circuits hold a marked site. */
  spread(groups: readonly (readonly number[])[]): boolean {
    const { sites: marked, circuits } = this.problem.marked;
    return groups.filter((sites) => sites.some((i) => marked[i] === 1)).length >= circuits;
  }
}
