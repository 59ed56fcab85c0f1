/**
 * Sets of sites that one circuit could take and that are worth more than they cost: the pricing problem of column
 * generation. A set's bound is what it cannot cost less than: breaker, protection, home run and the minimum spanning
 * tree, without the limits on what leaves a box and on rooms. Sets grow from the site with the cheapest home run by
 * the nearest site at a time, taken or left out for good, so that each is met once with its tree as Prim builds it;
 * sites that could not pay even with the best of the others are left out with them.
 */
import type { Candidates } from './clusters.ts';
import { layersOf, type Layer } from './layers.ts';
import { KINDS, LARGE, TINY, type Pricer } from './problem.ts';
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
  /** Largest product of a site's own current and what its home run is longer than the root's, ampere-inches. */
  farthest: number;
  /** Least that its GFCI costs: its own, or a longer home run to one that is there, cents. */
  guard: number;
  /** The site with a GFCI that the tree may come from instead of the root, in the order of joining; 0 is none. */
  guardAt: number;
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
  /** Most that other sites bring beside one, by its load units. */
  private readonly beside: Float64Array;
  private readonly chosen: number[] = [];
  /** Places of the chosen sites in the layer. */
  private readonly places: number[] = [];
  /** At penalized prices a tree is not the set’s own. */
  private readonly penalized: boolean;
  private most = 0;
  private root = 0;
  /** Most current that the root's home run allows. */
  private mostAmps = Infinity;

  constructor(pricer: Pricer, layer: Layer, work: Workspace, values: Values, limit: number, visit: Visit) {
    const { ids, size, mask, hop, reach, largest, allowed } = layer;
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
    this.beside = new Float64Array(largest + 1);
    this.penalized = allowed.some((cents) => cents > 0);
  }

  /** Looks through the sets that have a site for their root. */
  from(root: number, most: number): void {
    const { layer, worth, hoped, work } = this;
    const { problem, small } = this.pricer;
    const { ids, home, edge, size, mask, capacity, brings, trunk } = layer;
    const n = ids.length;
    const i = ids[root]!;
    if (trunk >= 0 && i !== trunk) return;
    this.steps = 0;
    this.most = most;
    this.root = root;
    this.mostAmps = problem.maxDrop / (2 * layer.ohms * problem.home[i]!);
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
    const kind = mask | brings[root]! | (size[root]! > small.capacity ? LARGE : 0);
    if (trunk >= 0 && mask === 0) {
      // By itself it costs nothing, whatever its breaker would have to become.
      const alone = layer.allowed[root]! - worth[root]! - this.own[kind]!;
      if (alone < this.limit) this.limit = this.visit([i], alone);
    }
    if (room < 0 || 2 * layer.ohms * problem.home[i]! * amps > problem.maxDrop + TINY) return;
    const cost = layer.fixed + home[root]! - worth[root]! - hoped[kind]!;
    this.chosen.push(i);
    this.places[0] = root;
    work.tree.push(i, -1);
    const guard = this.guarding(root);
    this.grow({ cost, room, needs: problem.needs[i]!, kind, amps, farthest: 0, guard, guardAt: 0 });
    work.tree.pop();
    this.chosen.pop();
  }

  /** What the set has to pay for its GFCI where this site comes first. */
  private guarding(t: number): number {
    const { unguarded, home, guards } = this.layer;
    return guards[t] ? Math.min(unguarded, home[t]! - home[this.root]!) : unguarded;
  }

  /** Most that sites can bring in a room at no more than `hop` for a segment each; the last may be cut. */
  private unreached({ site, count }: Level, room: number): number {
    const { size, hop } = this.layer;
    let sum = 0;
    let left = room;
    for (let t = 0; t < count && left > 0; t++) {
      const by = this.worth[site[t]!]! - hop;
      if (by <= 0) continue;
      const load = size[site[t]!]!;
      sum += load > left ? (by * left) / load : by;
      left -= load;
    }
    return sum;
  }

  /**
   * Leaves out sites that cannot pay even with the best of the others, and all where no set with them asks for what the
   * layer is about.
   * @param more current that may still join, amperes
   */
  private thin(level: Level, { cost, room, needs, guard }: Grown, more: number): void {
    const { worth, beside } = this;
    const { ids, size, mask, clusters, ampsPerUnit } = this.layer;
    const { site, way } = level;
    const byDrop = ampsPerUnit > 0 ? Math.floor(more / ampsPerUnit + TINY) : room;
    const most = Math.min(room, Math.max(0, byDrop));
    let least = guard;
    for (let t = 0; t < level.count; t++) least = Math.min(least, this.guarding(site[t]!));
    const enough = cost + least - this.limit;
    // On the way to a site every other takes no less than a hop beyond the site's own way.
    for (let load = 1; load < beside.length; load++) beside[load] = this.unreached(level, most - load);
    keep(level, (t) => worth[site[t]!]! - way[t]! + beside[size[site[t]!]!]! > enough);
    if (clusters.weigh(level, worth, most, enough)) keep(level, (t) => clusters.most[t]! > enough);
    else level.count = 0;
    let asked = needs;
    for (let t = 0; t < level.count; t++) asked |= this.pricer.problem.needs[ids[site[t]!]!]!;
    if (asked !== mask) level.count = 0;
  }

  /**
   * Current that may still join until the set drops too much, fed at its root or at a GFCI that stands elsewhere: all of
   * it goes over the home run, amperes. Below nothing where it does already.
   */
  private currentLeft({ guardAt }: Grown): number {
    if (this.penalized) return Infinity;
    const { tree } = this.work;
    const { ohms, ids } = this.layer;
    const { maxDrop, home } = this.pricer.problem;
    const leftAt = (at: number) =>
      (maxDrop + TINY - tree.drop(ohms, at)) / (2 * ohms * home[ids[this.places[at]!]!]!);
    const atRoot = leftAt(0);
    return guardAt === 0 ? atRoot : Math.max(atRoot, leftAt(guardAt));
  }

  /** Place in the layer of the GFCI that the tree may come from; Infinity where there is none. */
  private guardPlace({ guardAt }: Grown): number {
    return guardAt === 0 ? Infinity : this.places[guardAt]!;
  }

  /** As `currentLeft` where the tree comes from a GFCI that may yet join: one with a cheaper home run than that it has. */
  private currentOtherwise({ site, count }: Level, set: Grown): number {
    const { guards, ids, ohms } = this.layer;
    if (guards[this.root]) return -Infinity;
    const { maxDrop, home } = this.pricer.problem;
    const before = this.guardPlace(set);
    let most = -Infinity;
    for (let t = 0; t < count; t++)
      if (guards[site[t]!] && site[t]! < before)
        most = Math.max(most, (maxDrop + TINY) / (2 * ohms * home[ids[site[t]!]!]!) - set.amps);
    return most;
  }

  private grow(set: Grown): void {
    const { chosen, places, root, own, hoped } = this;
    const { levels, tree } = this.work;
    const { problem, small } = this.pricer;
    const { ids, edge, size, mask, capacity, ohms, brings, guards, trunk } = this.layer;
    const n = ids.length;
    const k = chosen.length;
    const level = levels[k]!;
    const { site, way, from } = level;
    const next = levels[k + 1]!;
    const reduced = set.cost + set.guard + hoped[set.kind]! - own[set.kind]!;
    const left = this.currentLeft(set);
    if (set.needs === mask && reduced < this.limit && left >= 0) this.limit = this.visit(chosen, reduced);
    // More sites only add to the drop, wherever it is fed.
    const more = Math.min(this.mostAmps - set.amps, Math.max(left, this.currentOtherwise(level, set)));
    if (more < 0) return;
    for (;;) {
      this.thin(level, set, more);
      if (level.count === 0) return;
      if (++this.steps > this.most) {
        this.complete = false;
        return;
      }
      let nearest = 0;
      for (let t = 1; t < level.count; t++) if (way[t]! < way[nearest]!) nearest = t;
      const at = site[nearest]!;
      const by = way[nearest]!;
      const feeder = from[nearest]!;
      keep(level, (t) => t !== nearest);
      const i = ids[at]!;
      const room = set.room - size[at]!;
      const amps = set.amps + problem.amps[i]!;
      const farther =
        trunk < 0
          ? problem.home[i]! - problem.home[ids[root]!]!
          : problem.between[trunk * problem.ids.length + i]!;
      const beyond = problem.amps[i]! * farther;
      const farthest = Math.max(set.farthest, beyond);
      // All of the current over the home run, and an outlet's own over what it is farther away.
      if (2 * ohms * (problem.home[ids[root]!]! * amps + farthest) > problem.maxDrop + TINY) continue;
      const kind = set.kind | brings[at]! | (capacity - room > small.capacity ? LARGE : 0);
      const cost = set.cost + by - this.worth[at]! + hoped[set.kind]! - hoped[kind]!;
      next.count = level.count;
      for (let t = 0; t < level.count; t++) {
        const there = edge[at * n + site[t]!]!;
        next.site[t] = site[t]!;
        next.way[t] = there < way[t]! ? there : way[t]!;
        next.from[t] = there < way[t]! ? k : from[t]!;
      }
      const needs = set.needs | problem.needs[i]!;
      const guard = Math.min(set.guard, this.guarding(at));
      const better = guards[at] === 1 && guards[root] === 0 && at < this.guardPlace(set);
      const guardAt = better ? k : set.guardAt;
      chosen.push(i);
      places[k] = at;
      tree.push(i, feeder);
      this.grow({ cost, room, needs, kind, amps, farthest, guard, guardAt });
      chosen.pop();
      tree.pop();
      if (this.steps > this.most) return;
    }
  }
}

/** Leaves out sites by their place. */
function keep(level: Level, test: (t: number) => boolean): void {
  const { site, way, from } = level;
  let count = 0;
  for (let t = 0; t < level.count; t++) {
    if (!test(t)) continue;
    site[count] = site[t]!;
    from[count] = from[t]!;
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
  /** Finds penalties that suit these sets. */
  penalize(sets: readonly (readonly number[])[]): void;
}

export class SetSearch implements SetSource {
  private readonly pricer: Pricer;
  private layers: Layer[];
  private penalty: Float64Array;
  private readonly work: Workspace;
  /** Steps that are left. */
  private budget: number;

  /** @param budget steps in all, after which nothing is complete */
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

  below(values: Values, limit: number, most: number, visit: Visit): boolean {
    let complete = true;
    for (const layer of this.layers) {
      const search = new LayerSearch(this.pricer, layer, this.work, values, limit, visit);
      for (let root = 0; root < layer.ids.length; root++) {
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
