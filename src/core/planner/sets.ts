/**
 * Sets of sites that one circuit could take and that are worth more than they cost: the pricing problem of column
 * generation. A set's bound is what it cannot cost less than: breaker, protection, home run and the minimum spanning
 * tree, without the limits on what leaves a box and on rooms. Sets grow from the site with the cheapest home run by
 * the nearest site at a time, taken or left out for good, so that each is met once with its tree as Prim builds it;
 * branches end where not even the best of what is left could pay.
 */
import {
  GARAGE,
  GENERAL,
  KINDS,
  LARGE,
  MARKED,
  NEAR,
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
}

/**
 * What may still join at each depth, by what a load unit of it can bring: sites, the cheapest segment to the tree, and
 * what each is worth beyond the cheapest segment from anywhere.
 */
interface Level {
  site: Int32Array;
  way: Float64Array;
  gain: Float64Array;
  count: number;
}

/** Beside the bits of a kind: a site of the set has a GFCI, which can stand first and protect the rest. */
const GUARDED = KINDS;
/** What a set may be beside what it asks for. */
const BITS = Array.from({ length: KINDS / 2 }, (_, k) => 4 * k);

/** Cents below nothing where a site is searched for the second time. */
const FIRST_FLOOR = 20;

/** Load units that must be left for it to pay to weigh sites anew. */
const ROOM_TO_WEIGH = 3;

export class SetSearch {
  private readonly pricer: Pricer;
  private readonly layers: Layer[];
  private readonly levels: Level[];
  /** Steps that are left. */
  private budget: number;

  /** @param budget steps in all, after which nothing is complete */
  constructor(pricer: Pricer, budget = Infinity) {
    this.pricer = pricer;
    this.budget = budget;
    this.layers = layersOf(pricer);
    const most = Math.max(0, ...this.layers.map((l) => l.ids.length));
    this.levels = Array.from({ length: most + 1 }, () => ({
      site: new Int32Array(most),
      way: new Float64Array(most),
      gain: new Float64Array(most),
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

  /**
   * What no set is reduced below, by the site of it that has the cheapest home run, cents; no more than nothing. Each site
   * is searched below one limit after another until its steps are enough.
   * @param most steps from each site
   */
  floors(values: Values, most: number): Float64Array {
    const floors = new Float64Array(this.pricer.problem.ids.length);
    for (const layer of this.layers)
      layer.ids.forEach((id, root) => {
        for (let limit = floors[id]! - NEAR; ; limit = 2 * limit - FIRST_FLOOR) {
          let lowest = limit;
          const lower = (_: readonly number[], reduced: number) => (lowest = reduced);
          const { complete } = this.inLayer(layer, values, limit, most, lower, root);
          // Without steps nothing is ruled out.
          if (complete || this.budget <= 0) {
            floors[id] = complete ? Math.min(floors[id]!, lowest) : -Infinity;
            break;
          }
        }
      });
    return floors;
  }

  private inLayer(
    layer: Layer,
    values: Values,
    first: number,
    mostFromEach: number,
    visit: Visit,
    only: number | null = null,
  ): { limit: number; complete: boolean } {
    const { problem } = this.pricer;
    const { levels } = this;
    const { ids, home, edge, mask, capacity, unguarded } = layer;
    const n = ids.length;
    const worth = Float64Array.from(ids, (i) => values.site[i]!);
    const size = Int32Array.from(ids, (i) => problem.size[i]!);
    const largest = size.reduce((m, s) => Math.max(m, s), 0);
    const { small } = this.pricer;
    /** What a site makes of the kind of a set that it joins. */
    const brings = Uint8Array.from(
      ids,
      (i) =>
        (problem.least[i]! > small.rating ? LARGE : 0) |
        (problem.marked.sites[i] === 1 ? MARKED : 0) |
        (problem.guards[i] === 1 ? GUARDED : 0),
    );
    let reach = capacity > small.capacity ? LARGE : 0;
    for (const b of brings) reach |= b;
    /** What a set is worth for its kind, and the most that it may yet be, by the kind that it is and whether it guards. */
    const [own, hoped] = [new Float64Array(2 * KINDS), new Float64Array(2 * KINDS)];
    for (const bits of BITS)
      own[mask | bits] = values.kind[mask | (bits & ~GUARDED)]! - (bits & GUARDED ? 0 : unguarded);
    for (const bits of BITS) {
      const within = BITS.filter((more) => (more & reach) === more).map((more) => own[mask | bits | more]!);
      hoped[mask | bits] = Math.max(...within);
    }
    const chosen: number[] = [];
    /** Most that sites of one size can still bring, by what is left of the room after them. */
    const beside = new Float64Array(largest + 1);
    let limit = first;
    let complete = true;
    let steps = 0;
    let root = 0;
    let most = mostFromEach;

    /** Most that joining sites can bring together: a knapsack whose last piece may be cut. */
    const best = ({ site, gain, count }: Level, room: number): number => {
      let sum = 0;
      let left = room;
      for (let t = 0; t < count; t++) {
        const g = gain[t]!;
        if (g <= 0) continue;
        const s = size[site[t]!]!;
        if (s > left) return sum + (g * left) / s;
        sum += g;
        left -= s;
      }
      return sum;
    };

    /** Leaves out sites that cannot pay even beside the best of the others; returns whether there were any. */
    const thin = (level: Level, cost: number, room: number): boolean => {
      const { site, way, gain } = level;
      for (let s = 0; s <= largest; s++) beside[s] = s > room ? -Infinity : best(level, room - s);
      let count = 0;
      for (let t = 0; t < level.count; t++) {
        if (cost - beside[size[site[t]!]!]! - gain[t]! >= limit) continue;
        site[count] = site[t]!;
        way[count] = way[t]!;
        gain[count] = gain[t]!;
        count++;
      }
      if (count === level.count) return false;
      level.count = count;
      return true;
    };

    /** Reckons what sites can bring from the segments between those that are left, in falling order by load unit. */
    const weigh = ({ site, way, gain, count }: Level): void => {
      for (let t = 0; t < count; t++) {
        const row = site[t]! * n;
        let least = way[t]!;
        for (let u = 0; u < count; u++) {
          const there = edge[row + site[u]!]!;
          if (there < least && u !== t) least = there;
        }
        gain[t] = worth[site[t]!]! - least;
      }
      for (let t = 1; t < count; t++) {
        const [i, w, g] = [site[t]!, way[t]!, gain[t]!];
        let u = t - 1;
        for (; u >= 0 && gain[u]! * size[i]! < g * size[site[u]!]!; u--) {
          site[u + 1] = site[u]!;
          way[u + 1] = way[u]!;
          gain[u + 1] = gain[u]!;
        }
        site[u + 1] = i;
        way[u + 1] = w;
        gain[u + 1] = g;
      }
    };

    const grow = (
      k: number,
      cost: number,
      room: number,
      needs: number,
      kind: number,
      amps: number,
      farthest: number,
    ): void => {
      const reduced = cost + hoped[kind]! - own[kind]!;
      if (needs === mask && reduced < limit) limit = visit(chosen, reduced);
      const level = levels[k]!;
      const { site, way, gain } = level;
      const next = levels[k + 1]!;
      while (level.count > 0) {
        if (++steps > most) {
          complete = false;
          return;
        }
        let nearest = 0;
        let detour = Infinity;
        for (let t = 0; t < level.count; t++) {
          const by = way[t]!;
          if (by < way[nearest]!) nearest = t;
          const more = by + gain[t]! - worth[site[t]!]!;
          if (more < detour) detour = more;
        }
        // The first to join goes by its way to the tree; all others by no less than their cheapest segment.
        if (cost + detour - best(level, room) >= limit) return;
        const i = site[nearest]!;
        const by = way[nearest]!;
        site.copyWithin(nearest, nearest + 1, level.count);
        way.copyWithin(nearest, nearest + 1, level.count);
        gain.copyWithin(nearest, nearest + 1, level.count);
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
          next.gain[t] = gain[t]!;
        }
        while (thin(next, total, left) && left >= ROOM_TO_WEIGH) weigh(next);
        chosen.push(ids[i]!);
        grow(k + 1, total, left, needs | problem.needs[ids[i]!]!, became, current, far);
        chosen.pop();
        if (steps > most) return;
      }
    };

    for (root = only ?? 0; root < (only === null ? n : only + 1); root++) {
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
      for (let j = root + 1; j < n; j++) {
        level.site[level.count] = j;
        level.way[level.count++] = edge[root * n + j]!;
      }
      const kind = mask | brings[root]! | (size[root]! > small.capacity ? LARGE : 0);
      const cost = layer.fixed + home[root]! - worth[root]! - hoped[kind]!;
      do weigh(level);
      while (thin(level, cost, room));
      chosen.length = 0;
      chosen.push(i);
      grow(1, cost, room, problem.needs[i]!, kind, amps, 0);
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
              },
            ];
          }),
        ),
  );
}
