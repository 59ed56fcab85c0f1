/**
 * Sets of sites that one circuit could take and that are worth more than they cost: the pricing problem of column
 * generation. A set's bound is what it cannot cost less than: breaker, protection, home run and the minimum spanning
 * tree, without the limits on what leaves a box and on rooms. Sets grow from the site with the cheapest home run by
 * the nearest site at a time, taken or left out for good, so that each is met once with its tree as Prim builds it;
 * sites that could not pay even with the best of the others are left out with them.
 */
import { GrowingTree } from './tree.ts';
import { Clusters, type Candidates } from './clusters.ts';
import {
  GARAGE,
  GENERAL,
  KINDS,
  LARGE,
  MARKED,
  NEEDS_AFCI,
  type CircuitOption,
  type Pricer,
} from './problem.ts';

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

/** Circuits of one option whose outlets ask for some protection and may keep company. Sites go by home run. */
interface Layer {
  mask: number;
  capacity: number;
  ohms: number;
  fixed: number;
  /** Added where no site of the set protects the rest. */
  unguarded: number;
  ids: Int32Array;
  home: Float64Array;
  edge: Float64Array;
  size: Int32Array;
  clusters: Clusters;
  /** Least that a stop on the way adds to the way, and that any segment costs, cents. */
  hop: number;
}

/** What may still join. */
interface Level extends Candidates {
  /** Place of each way's feeder, in the order of joining. */
  from: Int32Array;
}

/** What a set may be beside what it asks for. */
const BITS = Array.from({ length: KINDS / 4 }, (_, k) => 4 * k);

export class SetSearch {
  private readonly pricer: Pricer;
  private readonly layers: Layer[];
  /** By depth. */
  private readonly levels: Level[];
  private readonly tree: GrowingTree;
  /** Steps that are left. */
  private budget: number;

  /** @param budget steps in all, after which nothing is complete */
  constructor(pricer: Pricer, budget = Infinity) {
    this.pricer = pricer;
    this.budget = budget;
    this.layers = layersOf(pricer);
    this.tree = new GrowingTree(pricer.problem, pricer.problem.maxOut);
    const most = Math.max(0, ...this.layers.map((l) => l.ids.length));
    this.levels = Array.from({ length: most + 1 }, () => ({
      site: new Int32Array(most),
      way: new Float64Array(most),
      from: new Int32Array(most),
      count: 0,
    }));
  }

  /** Takes work that was done beside the search out of its steps. */
  spend(steps: number): void {
    this.budget -= steps;
  }

  /**
   * Visits every set whose bound less its worth is below a limit.
   * @param most steps from each site with the cheapest home run; fewer find some sets sooner
   * @returns false where steps ran out
   */
  below(values: Values, limit: number, most: number, visit: Visit): boolean {
    let complete = true;
    for (const layer of this.layers) {
      if (this.budget <= 0) return false;
      const found = this.inLayer(layer, values, limit, most, visit);
      limit = found.limit;
      complete &&= found.complete;
    }
    return complete;
  }

  private inLayer(
    layer: Layer,
    values: Values,
    first: number,
    mostFromEach: number,
    visit: Visit,
  ): { limit: number; complete: boolean } {
    const { problem } = this.pricer;
    const { levels, tree } = this;
    const { ids, home, edge, size, mask, capacity, unguarded, clusters, hop } = layer;
    const n = ids.length;
    const worth = Float64Array.from(ids, (i) => values.site[i]!);
    const { small } = this.pricer;
    /** What a site makes of the kind of a set that it joins. */
    const brings = Uint8Array.from(
      ids,
      (i) => (problem.least[i]! > small.rating ? LARGE : 0) | (problem.marked.sites[i] === 1 ? MARKED : 0),
    );
    const guards = Uint8Array.from(ids, (i) => problem.guards[i]!);
    const ampsPerUnit = ids.reduce(
      (least, i) => Math.min(least, problem.amps[i]! / problem.size[i]!),
      Infinity,
    );
    let reach = capacity > small.capacity ? LARGE : 0;
    for (const b of brings) reach |= b;
    /** What a set is worth for its kind, and the most that it may yet be, by the kind that it is. */
    const [own, hoped] = [new Float64Array(KINDS), new Float64Array(KINDS)];
    for (const bits of BITS) own[mask | bits] = values.kind[mask | bits]!;
    for (const bits of BITS) {
      const within = BITS.filter((more) => (more & reach) === more).map((more) => own[mask | bits | more]!);
      hoped[mask | bits] = Math.max(...within);
    }
    const ranked = Int32Array.from(ids.keys()).sort(
      (a, b) => (worth[b]! - hop) / size[b]! - (worth[a]! - hop) / size[a]!,
    );
    const largest = size.reduce((m, s) => Math.max(m, s), 0);
    const smallest = size.reduce((m, s) => Math.min(m, s), Infinity);
    const beside = new Float64Array(largest + 1);
    const chosen: number[] = [];
    let limit = first;
    let complete = true;
    let steps = 0;
    let root = 0;
    let most = mostFromEach;
    /** Most current that the root's home run allows. */
    let mostAmps = Infinity;

    /** What the set has to pay for its GFCI if this site comes first: its own, or a longer home run to one that is there. */
    const guarding = (t: number): number =>
      guards[t] ? Math.min(unguarded, home[t]! - home[root]!) : unguarded;

    /** Most that sites can bring in a room at no more than `hop` for a segment each; the last may be cut. */
    const unreached = ({ site, count }: Candidates, room: number): number => {
      let sum = 0;
      let left = room;
      for (let t = 0; t < count && left > 0; t++) {
        const by = worth[site[t]!]! - hop;
        const load = size[site[t]!]!;
        if (by > 0) sum += load > left ? (by * left) / load : by;
        if (by > 0) left -= load;
      }
      return sum;
    };

    /** Leaves out sites that bring too little, by their place. */
    const keep = (level: Level, brings: (t: number) => number, enough: number): void => {
      const { site, way, from } = level;
      let count = 0;
      for (let t = 0; t < level.count; t++) {
        if (brings(t) <= enough) continue;
        site[count] = site[t]!;
        from[count] = from[t]!;
        way[count++] = way[t]!;
      }
      level.count = count;
    };

    /**
     * Leaves out sites that cannot pay even with the best of the others, and all where no set with them asks for what the
     * layer is about.
     */
    const thin = (level: Level, cost: number, room: number, needs: number, amps: number, guard: number) => {
      const byDrop = ampsPerUnit > 0 ? Math.floor((mostAmps - amps) / ampsPerUnit + 1e-9) : room;
      const most = Math.min(room, Math.max(0, byDrop));
      const { site, way } = level;
      let least = guard;
      for (let t = 0; t < level.count; t++) least = Math.min(least, guarding(site[t]!));
      const enough = cost + least - limit;
      for (let load = 1; load <= largest; load++) beside[load] = unreached(level, most - load);
      keep(level, (t) => worth[site[t]!]! - way[t]! + beside[size[site[t]!]!]!, enough);
      if (clusters.weigh(level, worth, most, enough)) keep(level, (t) => clusters.most[t]!, enough);
      else level.count = 0;
      let asked = needs;
      for (let t = 0; t < level.count; t++) asked |= problem.needs[ids[site[t]!]!]!;
      if (asked !== mask) level.count = 0;
    };

    const grow = (
      k: number,
      cost: number,
      room: number,
      needs: number,
      kind: number,
      amps: number,
      farthest: number,
      guard: number,
    ): void => {
      const reduced = cost + guard + hoped[kind]! - own[kind]!;
      const level = levels[k]!;
      const { site, way, from } = level;
      // Where no box has too many cables this is the set's tree, or one from a GFCI that stands elsewhere.
      const elsewhere = guard < unguarded && guards[root] === 0;
      const out = !elsewhere && tree.drop(layer.ohms) > problem.maxDrop + 1e-9;
      if (needs === mask && reduced < limit && !(out && tree.untilOverfull > 0))
        limit = visit(chosen, reduced);
      const next = levels[k + 1]!;
      // More sites only add to the drop.
      if (
        out &&
        room < tree.untilOverfull * smallest &&
        !site.subarray(0, level.count).some((t) => guards[t] === 1)
      )
        return;
      for (;;) {
        thin(level, cost, room, needs, amps, guard);
        if (level.count === 0) return;
        if (++steps > most) {
          complete = false;
          return;
        }
        let nearest = 0;
        for (let t = 1; t < level.count; t++) if (way[t]! < way[nearest]!) nearest = t;
        const i = site[nearest]!;
        const by = way[nearest]!;
        const feeder = from[nearest]!;
        site.copyWithin(nearest, nearest + 1, level.count);
        way.copyWithin(nearest, nearest + 1, level.count);
        from.copyWithin(nearest, nearest + 1, level.count);
        level.count--;
        const left = room - size[i]!;
        const current = amps + problem.amps[ids[i]!]!;
        const far = Math.max(
          farthest,
          problem.amps[ids[i]!]! * (problem.home[ids[i]!]! - problem.home[ids[root]!]!),
        );
        // All of the current over the home run, and an outlet's own over what it is farther away.
        const drop = 2 * layer.ohms * (problem.home[ids[root]!]! * current + far);
        if (drop > problem.maxDrop + 1e-9) continue;
        const became = kind | brings[i]! | (capacity - left > small.capacity ? LARGE : 0);
        const total = cost + by - worth[i]! + hoped[kind]! - hoped[became]!;
        next.count = level.count;
        for (let t = 0; t < level.count; t++) {
          const there = edge[i * n + site[t]!]!;
          next.site[t] = site[t]!;
          next.way[t] = there < way[t]! ? there : way[t]!;
          next.from[t] = there < way[t]! ? k : from[t]!;
        }
        chosen.push(ids[i]!);
        tree.push(ids[i]!, feeder);
        grow(
          k + 1,
          total,
          left,
          needs | problem.needs[ids[i]!]!,
          became,
          current,
          far,
          Math.min(guard, guarding(i)),
        );
        chosen.pop();
        tree.pop();
        if (steps > most) return;
      }
    };

    for (root = 0; root < n; root++) {
      const i = ids[root]!;
      this.budget -= steps;
      if (this.budget <= 0) return { limit, complete: false };
      steps = 0;
      most = Math.min(mostFromEach, this.budget);
      const amps = problem.amps[i]!;
      const room = capacity - size[root]!;
      if (room < 0 || 2 * layer.ohms * problem.home[i]! * amps > problem.maxDrop + 1e-9) continue;
      const level = levels[1]!;
      level.count = 0;
      for (const j of ranked) {
        if (j <= root) continue;
        level.site[level.count] = j;
        level.from[level.count] = 0;
        level.way[level.count++] = edge[root * n + j]!;
      }
      const kind = mask | brings[root]! | (size[root]! > small.capacity ? LARGE : 0);
      const cost = layer.fixed + home[root]! - worth[root]! - hoped[kind]!;
      chosen.length = 0;
      chosen.push(i);
      mostAmps = problem.maxDrop / (2 * layer.ohms * problem.home[i]!);
      tree.push(i, -1);
      grow(1, cost, room, problem.needs[i]!, kind, amps, 0, guarding(root));
      tree.pop();
    }
    return { limit, complete };
  }
}

/** An option that another is never dearer than, wherever drop cannot tell them apart, makes no layer of its own. */
function isSpare({ problem }: Pricer, option: CircuitOption): boolean {
  const farthest = problem.home.reduce((m, h) => Math.max(m, h), 0);
  const amps = problem.amps.reduce((t, a) => t + a, 0);
  return problem.options.some(
    (o) =>
      o !== option &&
      o.perInch <= option.perInch &&
      o.breaker <= option.breaker &&
      o.capacity >= option.capacity &&
      o.rating >= option.rating &&
      (o.perInch < option.perInch || problem.options.indexOf(o) < problem.options.indexOf(option)) &&
      2 * o.ohmsPerInch * farthest * 2 * amps <= problem.maxDrop,
  );
}

/** Least that going by way of another site adds to a segment, and that any segment costs, cents. */
function leastHop(edge: Float64Array, n: number): number {
  let least = Infinity;
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) {
      if (j === i) continue;
      const there = edge[i * n + j]!;
      least = Math.min(least, there);
      for (let k = i + 1; k < n; k++)
        if (k !== j) least = Math.min(least, there + edge[j * n + k]! - edge[i * n + k]!);
    }
  return least;
}

function layersOf(pricer: Pricer): Layer[] {
  const { problem } = pricer;
  const all = problem.ids.map((_, i) => i);
  const apart = [GARAGE, GENERAL].filter((kind) => problem.company.some((c) => c === kind));
  // Those that keep no company with the garage, and those that keep none but with it.
  const companies =
    apart.length < 2 ? [all] : apart.map((kind) => all.filter((i) => problem.company[i] !== kind));
  return problem.options.flatMap((option, o) =>
    isSpare(pricer, option)
      ? []
      : companies.flatMap((company) =>
          ([0, 1, 2, 3] as const).flatMap((mask): Layer[] => {
            const sites = company
              .filter((i) => (problem.needs[i]! | mask) === mask && problem.least[i]! <= option.rating)
              .sort((a, b) => pricer.homeRun(o, a) - pricer.homeRun(o, b));
            if (sites.length === 0 || sites.reduce((m, i) => m | problem.needs[i]!, 0) !== mask) return [];
            const edge = Float64Array.from(sites.flatMap((i) => sites.map((j) => pricer.edge(o, i, j))));
            const size = Int32Array.from(sites, (i) => problem.size[i]!);
            const guarded = problem.protection[(mask & NEEDS_AFCI) as 0 | 1];
            return [
              {
                mask,
                capacity: option.capacity,
                ohms: option.ohmsPerInch,
                fixed: option.breaker + guarded,
                unguarded: problem.protection[mask] - guarded,
                ids: Int32Array.from(sites),
                home: Float64Array.from(sites, (i) => pricer.homeRun(o, i)),
                edge,
                size,
                clusters: new Clusters(size, edge, option.capacity),
                hop: leastHop(edge, sites.length),
              },
            ];
          }),
        ),
  );
}
