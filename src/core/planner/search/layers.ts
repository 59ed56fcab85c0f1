/** Sorts of circuits that the search for sets goes through one by one. */
import { Clusters } from './clusters.ts';
import {
  GARAGE,
  GENERAL,
  LARGE,
  MARKED,
  NEEDS_AFCI,
  NEEDS_GFCI,
  type CircuitOption,
  type Pricer,
} from './problem.ts';

/**
 * Circuits of one option whose outlets ask for some protection and may keep company, fed at the site with the cheapest
 * home run, at a GFCI that protects the rest, or at a trunk. Sites that may be fed go first, by home run.
 */
export interface Layer {
  /** Protection that is asked for. */
  mask: number;
  /** Load units. */
  capacity: number;
  /** Resistance of one conductor, ohms an inch. */
  ohms: number;
  /** The site that all of its sets hold; −1 for circuits of their own. */
  trunk: number;
  /** Breaker and its protection, cents. */
  fixed: number;
  ids: Int32Array;
  /** So many of them may be fed from the panel. */
  starts: number;
  /** What a box as full as it may be pays in penalties, cents. */
  allowed: Float64Array;
  /** Home run and segment prices with the penalties of their ends, cents. */
  home: Float64Array;
  edge: Float64Array;
  /** Load units, and the most of them. */
  size: Int32Array;
  largest: number;
  /** Least current that comes with a load unit, amperes. */
  ampsPerUnit: number;
  /** What a site makes of the kind of a set that it joins, and what sites and loads of a set may make of it. */
  brings: Uint8Array;
  reach: number;
  /** A set of more load units is large. */
  small: number;
  clusters: Clusters;
  /** Least that a stop on the way adds to the way, and that any segment costs, cents. */
  hop: number;
}

/** An option that another is never dearer than, wherever drop cannot tell them apart, makes no layer of its own. */
function isSpare({ problem }: Pricer, option: CircuitOption): boolean {
  const farthest = problem.home.reduce((m, h) => Math.max(m, h), 0);
  const amps = problem.amps.reduce((t, a) => t + a, 0);
  return problem.options.some(
    (o) =>
      o !== option &&
      o.trunk === undefined &&
      option.trunk === undefined &&
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

/** What circuits ask for, and whether a GFCI that is there feeds the rest. */
const SORTS = ([0, 1, 2, 3] as const).flatMap((mask) =>
  (mask & NEEDS_GFCI ? [false, true] : [false]).map((guarded) => ({ mask, guarded })),
);

/**
 * Kind of a set once a site has joined it.
 * @param site its place in the layer
 * @param room load units that are left then
 */
export const kindWith = (
  { brings, capacity, small }: Layer,
  kind: number,
  site: number,
  room: number,
): number => kind | brings[site]! | (capacity - room > small ? LARGE : 0);

/** @param penalty on each cable at a site, cents */
export function layersOf(pricer: Pricer, penalty: Float64Array): Layer[] {
  const { problem, small } = pricer;
  const all = problem.ids.map((_, i) => i);
  const homeOf = (option: number, i: number) => pricer.homeRun(option, i) + penalty[i]!;
  const apart = [GARAGE, GENERAL].filter((kind) => problem.company.some((c) => c === kind));
  // Those that keep no company with the garage, and those that keep none but with it.
  const companies =
    apart.length < 2 ? [all] : apart.map((kind) => all.filter((i) => problem.company[i] !== kind));
  return problem.options.flatMap((option, o) =>
    isSpare(pricer, option)
      ? []
      : companies.flatMap((company) =>
          SORTS.flatMap(({ mask, guarded }): Layer[] => {
            const { trunk = -1 } = option;
            if (trunk >= 0 && (guarded || !company.includes(trunk))) return [];
            const feeds = (i: number) => (trunk >= 0 ? i === trunk : !guarded || problem.guards[i] === 1);
            const sites = company
              .filter(
                (i) =>
                  (problem.needs[i]! | mask) === mask &&
                  problem.least[i]! <= option.rating &&
                  (pricer.trunk[i]! < 0 || i === trunk),
              )
              .sort((a, b) => +feeds(b) - +feeds(a) || homeOf(o, a) - homeOf(o, b));
            const starts = sites.filter(feeds).length;
            if (starts === 0 || sites.reduce((m, i) => m | problem.needs[i]!, 0) !== mask) return [];
            const edge = Float64Array.from(
              sites.flatMap((i) => sites.map((j) => pricer.edge(o, i, j) + penalty[i]! + penalty[j]!)),
            );
            const size = Int32Array.from(sites, (i) => problem.size[i]!);
            const brings = Uint8Array.from(
              sites,
              (i) => (problem.least[i]! > small.rating ? LARGE : 0) | (problem.marked.sites[i] ? MARKED : 0),
            );
            const asked = guarded ? ((mask & NEEDS_AFCI) as 0 | 1) : mask;
            return [
              {
                mask,
                trunk,
                capacity: option.capacity,
                ohms: option.ohmsPerInch,
                fixed: option.breaker + pricer.protection(option, asked),
                ids: Int32Array.from(sites),
                starts,
                home: Float64Array.from(sites, (i) => homeOf(o, i)),
                allowed: Float64Array.from(sites, (i) => penalty[i]! * (problem.maxOut[i]! + 1)),
                edge,
                size,
                largest: Math.max(...size),
                ampsPerUnit: Math.min(...sites.map((i) => problem.amps[i]! / problem.size[i]!)),
                brings,
                small: small.capacity,
                reach: brings.reduce((bits, b) => bits | b, option.capacity > small.capacity ? LARGE : 0),
                clusters: new Clusters(size, edge, option.capacity),
                hop: leastHop(edge, sites.length),
              },
            ];
          }),
        ),
  );
}
