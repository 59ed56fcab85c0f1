/**
 * Sets of sites that one circuit could take and that are worth more than they cost: the pricing problem of column
 * generation. A set's bound is what it cannot cost less than: breaker, protection, home run and the minimum spanning
 * tree, without the limits on what leaves a box and on rooms. Sets grow from the site with the cheapest home run by
 * the nearest site at a time, taken or left out for good, so that each is met once with its tree as Prim builds it;
 * sites that could not pay even with the best of the others are left out with them.
 */
import { nearestOf, type Candidates } from './clusters.ts';
import { kindWith, layersOf, type Layer } from './layers.ts';
import { KINDS, TINY, type Pricer } from './problem.ts';
import { penaltiesFor } from './penalties.ts';
import { GrowingTree } from './tree.ts';

/** What holding a site is worth, and what being of a kind is, cents. */
export interface Values {
  site: Float64Array;
  kind: Float64Array;
}

/**
 * A set that is worth it.
 * @param sites in room that is used again
 * @param reduced its bound less what it is worth, cents
 * @returns the limit from here on
 */
export type Visit = (sites: readonly number[], reduced: number) => number;

/** What may still join. */
interface Level extends Candidates {
  /** Place of each way's feeder, in the order of joining. */
  from: Int32Array;
  /** Current that may join beside each until the drop is too much, amperes. */
  left: Float64Array;
}

/** What a set may be beside what it asks for. */
const BITS = Array.from({ length: KINDS / 4 }, (_, k) => 4 * k);

/** A set that grows. */
interface Grown {
  /** Breaker, home run and tree less what its sites are worth and the most that its kind may be, cents. */
  cost: number;
  /** Load units that are left. */
  room: number;
  /** Protection that its sites ask for. */
  needs: number;
  kind: number;
  /** Planning current, amperes. */
  amps: number;
}

/** Sites and trees in the making, in room that is used again. */
interface Workspace {
  /** By how many sites are chosen. */
  levels: readonly Level[];
  tree: GrowingTree;
}

/** The search through the sets of one layer. */
class LayerSearch {
  /** Steps from the root, and whether there were too many from any. */
  steps = 0;
  complete = true;
  limit: number;
  private readonly pricer: Pricer;
  private readonly layer: Layer;
  private readonly work: Workspace;
  private readonly visit: Visit;
  private readonly worth: Float64Array;
  /** What a set is worth for its kind, and the most that it may yet be, by the kind that it is. */
  private readonly own = new Float64Array(KINDS);
  private readonly hoped = new Float64Array(KINDS);
  /** Places of sites, those first that may bring most by load unit. */
  private readonly ranked: Int32Array;
  /** Most that sites bring in a room, by its load units. */
  private readonly beside: Float64Array;
  private readonly chosen: number[] = [];
  /** At penalized prices a tree is not the set’s own. */
  private readonly penalized: boolean;
  private most = 0;

  constructor(pricer: Pricer, layer: Layer, work: Workspace, values: Values, limit: number, visit: Visit) {
    const { ids, size, mask, hop, reach, allowed } = layer;
    this.pricer = pricer;
    this.layer = layer;
    this.work = work;
    this.limit = limit;
    this.visit = visit;
    const worth = Float64Array.from(ids, (i, t) => values.site[i]! + allowed[t]!);
    this.worth = worth;
    for (const bits of BITS) this.own[mask | bits] = values.kind[mask | bits]!;
    for (const bits of BITS)
      this.hoped[mask | bits] = Math.max(
        ...BITS.filter((more) => (more & reach) === more).map((more) => this.own[mask | bits | more]!),
      );
    this.ranked = Int32Array.from(ids.keys()).sort(
      (a, b) => (worth[b]! - hop) / size[b]! - (worth[a]! - hop) / size[a]!,
    );
    this.beside = new Float64Array(layer.capacity + 1);
    this.penalized = allowed.some((cents) => cents > 0);
  }

  /** Looks through the sets that have a site for their root. */
  from(root: number, most: number): void {
    const { layer, worth, hoped, work } = this;
    const { problem } = this.pricer;
    const { ids, home, edge, size, mask, capacity, trunk } = layer;
    const n = ids.length;
    const i = ids[root]!;
    this.steps = 0;
    this.most = most;
    const amps = problem.amps[i]!;
    const room = capacity - size[root]!;
    const level = work.levels[1]!;
    level.count = 0;
    for (const j of this.ranked) {
      if (j <= root) continue;
      level.site[level.count] = j;
      level.from[level.count] = 0;
      level.way[level.count++] = edge[root * n + j]!;
    }
    const kind = kindWith(layer, mask, root, room);
    if (trunk >= 0 && mask === 0) {
      // By itself it costs nothing, whatever its breaker would have to become.
      const alone = layer.allowed[root]! - worth[root]! - this.own[kind]!;
      if (alone < this.limit) this.limit = this.visit([i], alone);
    }
    if (room < 0) return;
    const cost = layer.fixed + home[root]! - worth[root]! - hoped[kind]!;
    this.chosen.push(i);
    work.tree.push(i, -1);
    this.grow({ cost, room, needs: problem.needs[i]!, kind, amps });
    work.tree.pop();
    this.chosen.pop();
  }

  /** Sets `beside` for rooms up to one: at no more than `hop` for a segment each, the last cut where it must be. */
  private unreached({ site, count }: Level, room: number): void {
    const { size, hop } = this.layer;
    const { beside } = this;
    let sum = 0;
    let used = 0;
    beside[0] = 0;
    for (let t = 0; t < count && used < room; t++) {
      const by = this.worth[site[t]!]! - hop;
      if (by <= 0) continue;
      const load = size[site[t]!]!;
      for (let u = 1; u <= load && used + u <= room; u++) beside[used + u] = sum + (by * u) / load;
      sum += by;
      used += load;
    }
    for (let u = used + 1; u <= room; u++) beside[u] = sum;
  }

  /**
   * Leaves out sites that cannot pay even with the best of the others, and all where no set with them asks for what the
   * layer is about.
   */
  private thin(level: Level, { cost, room, needs }: Grown): void {
    const { worth, beside } = this;
    const { ids, size, mask, clusters, ampsPerUnit } = this.layer;
    const { site, way, left } = level;
    const unitsOf = (amps: number) =>
      ampsPerUnit > 0 ? Math.min(room, Math.max(0, Math.floor(amps / ampsPerUnit + TINY))) : room;
    let most = 0;
    for (let t = 0; t < level.count; t++)
      most = Math.max(most, Math.min(room, size[site[t]!]! + unitsOf(left[t]!)));
    const enough = cost - this.limit;
    // On the way to a site every other takes no less than a hop beyond the site's own way.
    this.unreached(level, most);
    keep(level, (t) => {
      const load = size[site[t]!]!;
      return (
        load <= most &&
        worth[site[t]!]! - way[t]! + beside[Math.min(most - load, unitsOf(left[t]!))]! > enough
      );
    });
    if (clusters.weigh(level, worth, most, enough)) keep(level, (t) => clusters.most[t]! > enough);
    else level.count = 0;
    let asked = needs;
    for (let t = 0; t < level.count; t++) asked |= this.pricer.problem.needs[ids[site[t]!]!]!;
    if (asked !== mask) level.count = 0;
  }

  /**
   * Sets what current may join beside each candidate until the set drops too much, amperes; below nothing where the
   * candidate itself makes it so. Whatever joins later, what is there keeps its way from wherever it is fed.
   * @returns whether the set itself keeps within the drop
   */
  private feed(level: Level, set: Grown): boolean {
    const { work, chosen, penalized } = this;
    const { tree } = work;
    const { ohms, ids, trunk } = this.layer;
    const { maxDrop, home, amps } = this.pricer.problem;
    const { site, left, count } = level;
    const most = maxDrop + TINY;
    if (penalized) {
      // The tree is not the set's own: wherever it is fed, all of the current goes over the shortest of the home runs.
      let least = home[chosen[0]!]!;
      if (trunk < 0) {
        for (const i of chosen) least = Math.min(least, home[i]!);
        for (let t = 0; t < count; t++) least = Math.min(least, home[ids[site[t]!]!]!);
      }
      for (let t = 0; t < count; t++) left[t] = most / (2 * ohms * least) - set.amps - amps[ids[site[t]!]!]!;
      return 2 * ohms * least * set.amps <= most;
    }
    if (tree.drop(ohms) > most) {
      level.count = 0;
      return false;
    }
    const first = 2 * ohms * home[chosen[0]!]!;
    for (let t = 0; t < count; t++) left[t] = (most - tree.dropWith(ids[site[t]!]!)) / first;
    return true;
  }

  private grow(set: Grown): void {
    const { chosen, own, hoped } = this;
    const { levels, tree } = this.work;
    const { problem } = this.pricer;
    const { ids, edge, size, mask } = this.layer;
    const n = ids.length;
    const k = chosen.length;
    const level = levels[k]!;
    const { site, way, from } = level;
    const next = levels[k + 1]!;
    const reduced = set.cost + hoped[set.kind]! - own[set.kind]!;
    const within = this.feed(level, set);
    if (set.needs === mask && reduced < this.limit && within) this.limit = this.visit(chosen, reduced);
    // More sites only add to the drop, wherever it is fed.
    keep(level, (t) => level.left[t]! >= 0);
    for (;;) {
      this.thin(level, set);
      if (level.count === 0) return;
      if (++this.steps > this.most) {
        this.complete = false;
        return;
      }
      const nearest = nearestOf(level);
      const at = site[nearest]!;
      const by = way[nearest]!;
      const feeder = from[nearest]!;
      keep(level, (t) => t !== nearest);
      const i = ids[at]!;
      const room = set.room - size[at]!;
      const amps = set.amps + problem.amps[i]!;
      const kind = kindWith(this.layer, set.kind, at, room);
      const cost = set.cost + by - this.worth[at]! + hoped[set.kind]! - hoped[kind]!;
      next.count = level.count;
      for (let t = 0; t < level.count; t++) {
        const there = edge[at * n + site[t]!]!;
        next.site[t] = site[t]!;
        next.way[t] = there < way[t]! ? there : way[t]!;
        next.from[t] = there < way[t]! ? k : from[t]!;
      }
      const needs = set.needs | problem.needs[i]!;
      chosen.push(i);
      tree.push(i, feeder);
      this.grow({ cost, room, needs, kind, amps });
      chosen.pop();
      tree.pop();
      if (this.steps > this.most) return;
    }
  }
}

/** Leaves out sites by their place. */
function keep(level: Level, test: (t: number) => boolean): void {
  const { site, way, from, left } = level;
  let count = 0;
  for (let t = 0; t < level.count; t++) {
    if (!test(t)) continue;
    site[count] = site[t]!;
    from[count] = from[t]!;
    left[count] = left[t]!;
    way[count++] = way[t]!;
  }
  level.count = count;
}

/** Where sets are had from. */
export interface SetSource {
  /**
   * Visits every set whose bound less its worth is below a limit.
   * @param most steps from each site with the cheapest home run; fewer find some sets sooner
   * @returns false where steps ran out
   */
  below(values: Values, limit: number, most: number, visit: Visit): boolean;
  /** Takes work that was done beside the search out of its steps. */
  spend(steps: number): void;
  /** Sets that are not below a limit at these values are not asked for any more. */
  forget(values: Values, limit: number): void;
  /** Finds penalties that suit these sets. */
  penalize(sets: readonly (readonly number[])[]): void;
}

export class SetSearch implements SetSource {
  private readonly pricer: Pricer;
  private layers: Layer[];
  private penalty: Float64Array;
  private readonly work: Workspace;
  /** Steps that are left: without any nothing is complete. */
  budget: number;

  constructor(pricer: Pricer, budget = Infinity) {
    const { problem } = pricer;
    this.pricer = pricer;
    this.budget = budget;
    const n = problem.ids.length;
    this.penalty = new Float64Array(n);
    this.layers = layersOf(pricer, this.penalty);
    const level = (): Level => ({
      site: new Int32Array(n),
      way: new Float64Array(n),
      from: new Int32Array(n),
      left: new Float64Array(n),
      count: 0,
    });
    this.work = {
      levels: Array.from({ length: n + 1 }, level),
      tree: new GrowingTree(problem),
    };
  }

  penalize(sets: readonly (readonly number[])[]): void {
    const penalty = penaltiesFor(this.pricer, sets, this.penalty);
    if (penalty.every((cents, i) => cents === this.penalty[i])) return;
    this.penalty = penalty;
    this.layers = layersOf(this.pricer, this.penalty);
  }

  spend(steps: number): void {
    this.budget -= steps;
  }
  /** What is searched for anew each time is not remembered. */
  forget(): void {}

  below(values: Values, limit: number, most: number, visit: Visit): boolean {
    let complete = true;
    for (const layer of this.layers) {
      const search = new LayerSearch(this.pricer, layer, this.work, values, limit, visit);
      for (let root = 0; root < layer.starts; root++) {
        if (this.budget <= 0) return false;
        search.from(root, Math.min(most, this.budget));
        this.budget -= search.steps;
      }
      ({ limit } = search);
      complete &&= search.complete;
    }
    return complete;
  }
}
