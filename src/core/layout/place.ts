/**
 * Places the fewest receptacles that leave no wall space out of reach, 210.52(A).
 *
 * Each wall space is a line (or, with no break at all, a circle). Receptacles already there are free stops.
 * A shortest path over candidate positions, each step at most twice the reach, gives the least number; among
 * those, the least penalty for door swings, benches, fixed glass, distance to a stud and uneven gaps.
 * Candidates are the inches of the space from both ends and the positions a greedy cover takes from each
 * side, so the number is the least for any position, not only for whole inches.
 * Cost per space: O(n · w), n candidates, w candidates within twice the reach.
 */
import { outlineOf, type Outline } from '../job/outline.ts';
import type { Area, Box, Opening, Settings } from '../job/schema.ts';
import { coverageOf, REACH, wallAt, type WallSpace } from '../plan/wallSpaces.ts';
import type { Edition } from '../job/schema.ts';
import { formatLength } from '../units/length.ts';

/** A box cannot be mounted nearer to a corner or to the edge of an opening than this, inches. */
export const EDGE_CLEARANCE = 3;
/** From a stud's centre to the centre of a box nailed to its side: half a stud and half a box, inches. */
export const STUD_TO_BOX = 1.875;
/** Distance from the wall at which a floor outlet is set in front of fixed glass, inches. */
const FLOOR_OUTLET_OUT = 6;

const PENALTY = { glass: 400, bench: 120, swing: 60, stud: 1, uneven: 12 };

export interface Placement {
  wallId: string;
  offset: number;
  height: number;
  fromWall: number;
  /** Why it stands where it stands. */
  reason: string;
}

interface Zone {
  from: number;
  to: number;
  kind: 'glass' | 'bench' | 'swing';
}

interface Site {
  /** Position in the space, inches from its start. */
  at: number;
  /** 0 for a receptacle already there, 1 for a new one. */
  count: 0 | 1;
  penalty: number;
}

/** Places receptacles in every wall space of a room that lacks them. Empty when the outline does not close. */
export function placeMissing(
  area: Area,
  openings: readonly Opening[],
  boxes: readonly Box[],
  edition: Edition,
  settings: Settings,
): Placement[] {
  const outline = outlineOf(area);
  const zones = zonesOf(outline, openings);
  const placements: Placement[] = [];
  for (const { space, required, counted, uncovered } of coverageOf(area, openings, boxes, edition) ?? []) {
    if (!required || uncovered.length === 0) continue;
    const wallOf = siteMaker(outline, space, zones, settings);
    for (const at of fewest(
      space,
      counted.map((c) => c.at),
      wallOf,
    )) {
      placements.push(describe(outline, space, at, zones, settings));
    }
  }
  return placements;
}

/** Stretches of the floor line that are better left alone, in floor-line inches. */
function zonesOf(outline: Outline, openings: readonly Opening[]): Zone[] {
  return openings.flatMap((o): Zone[] => {
    const wall = outline.walls.find((w) => w.id === o.wallId);
    if (!wall) return [];
    const from = wall.start + o.offset;
    const to = from + o.width;
    if (o.kind === 'fixed-glass') return [{ from, to, kind: 'glass' }];
    if (o.kind === 'cabinet-with-counter') return [{ from, to, kind: 'bench' }];
    // An open leaf lies against the wall beyond its hinges.
    if (o.kind === 'door' && o.hinge === 'start') return [{ from: from - o.width, to: from, kind: 'swing' }];
    if (o.kind === 'door' && o.hinge === 'end') return [{ from: to, to: to + o.width, kind: 'swing' }];
    return [];
  });
}

const zoneAt = (zones: readonly Zone[], outline: Outline, floorLine: number): Zone | undefined => {
  const p = outline.perimeter;
  const inside = (z: Zone, at: number) => at > z.from && at < z.to;
  return zones.find((z) => inside(z, floorLine) || inside(z, floorLine - p) || inside(z, floorLine + p));
};

/** Distance along the wall from a box to where it would be nailed to the nearest stud, inches. */
export function distanceToStud(offset: number, spacing: number): number {
  const past = offset % spacing;
  return Math.min(Math.abs(past - STUD_TO_BOX), Math.abs(spacing - past - STUD_TO_BOX));
}

type SiteMaker = {
  /** A new receptacle here with its penalty, or null where no box can be mounted. */
  (at: number): Site | null;
  /** Nearest positions where a box can be mounted, at or before and at or after. */
  snap(at: number): number[];
};

function siteMaker(
  outline: Outline,
  space: WallSpace,
  zones: readonly Zone[],
  settings: Settings,
): SiteMaker {
  const mountable = (at: number) => {
    if (!space.loop && (at < EDGE_CLEARANCE - 1e-9 || at > space.length - EDGE_CLEARANCE + 1e-9))
      return false;
    const { wall, offset } = wallAt(outline, space.start + at);
    return offset >= EDGE_CLEARANCE - 1e-9 && wall.length - offset >= EDGE_CLEARANCE - 1e-9;
  };
  const make = (at: number): Site | null => {
    if (!mountable(at)) return null;
    const { offset } = wallAt(outline, space.start + at);
    const zone = zoneAt(zones, outline, space.start + at);
    const penalty =
      (zone ? PENALTY[zone.kind] : 0) + PENALTY.stud * distanceToStud(offset, settings.studSpacing);
    return { at, count: 1, penalty };
  };
  const snap = (at: number): number[] => {
    if (mountable(at)) return [at];
    const { wall, offset } = wallAt(outline, space.start + at);
    const start = at - offset;
    // Back to the last place before the corner or end, and on to the first after it.
    return [
      start - EDGE_CLEARANCE,
      start + EDGE_CLEARANCE,
      start + wall.length - EDGE_CLEARANCE,
      start + wall.length + EDGE_CLEARANCE,
    ].filter((p) => Math.abs(p - at) <= 2 * EDGE_CLEARANCE + 1e-9 && mountable(p));
  };
  return Object.assign(make, { snap });
}

/** Positions of the fewest new receptacles that cover the space together with those in `existing`. */
function fewest(space: WallSpace, existing: readonly number[], make: SiteMaker): number[] {
  const given: Site[] = existing.map((at) => ({ at, count: 0, penalty: 0 }));
  if (!space.loop) {
    return cover(sitesAlong(space.length, given, make, [0, space.length]), 0, space.length)?.path ?? [];
  }
  const around = (first: Site): Solution | null => {
    // Cut the circle at `first`: from it, around, and back to it.
    const shift = (s: Site): Site => ({ ...s, at: (s.at - first.at + space.length) % space.length });
    const remake = (at: number): Site | null => {
      const site = make((at + first.at) % space.length);
      return site && { ...site, at };
    };
    const shifted = Object.assign(remake, {
      snap: (at: number) =>
        make.snap((at + first.at) % space.length).map((p) => (p - first.at + space.length) % space.length),
    });
    const rest = given.filter((g) => g !== first).map(shift);
    const found = cover(sitesAlong(space.length, rest, shifted, [0]), REACH, space.length - REACH, {
      at: 0,
      last: space.length,
    });
    if (!found) return null;
    const path = found.path.map((at) => (at + first.at) % space.length);
    return {
      path: first.count === 1 ? [first.at, ...path] : path,
      count: found.count + first.count,
      penalty: found.penalty + first.penalty,
    };
  };
  const firsts = given[0] ? [given[0]] : circleStarts(space.length, make);
  return (
    firsts.map(around).reduce((best, s) => (s && (!best || better(s, best)) ? s : best), null)?.path ?? []
  );
}

/** How many starting places around a circle are worked through in full. */
const STARTS_TRIED = 8;

/**
 * Where to begin on a circle with nothing there yet. Any least set can be turned until one of its receptacles
 * meets the edge of a corner, so those edges and the first window of inches hold a start of a least set; a
 * greedy walk from each tells its number, and the best-placed starts of that number are kept.
 */
function circleStarts(length: number, make: SiteMaker): Site[] {
  const inches = Array.from({ length: Math.ceil(length) }, (_, i) => i);
  const edges = new Set(inches.flatMap((i) => make.snap(i).filter((p) => p !== i)));
  const starts = [
    ...candidates(Math.min(2 * REACH, length), make, [0]),
    ...[...edges].flatMap((p) => make(p) ?? []),
  ];
  const rated = starts.map((site) => ({ site, count: greedyAround(site.at, length, make) }));
  const least = Math.min(...rated.map((r) => r.count));
  return rated
    .filter((r) => r.count === least)
    .sort((a, b) => a.site.penalty - b.site.penalty)
    .slice(0, STARTS_TRIED)
    .map((r) => r.site);
}

/** Receptacles a greedy walk around a circle sets from one start: each as far on as reach and corners allow. */
function greedyAround(start: number, length: number, make: SiteMaker): number {
  let count = 1;
  let at = start;
  while (start + length - at > 2 * REACH + 1e-9) {
    const farthest = at + 2 * REACH;
    const next = Math.max(...make.snap(farthest).filter((p) => p <= farthest + 1e-9));
    if (!(next > at)) return Infinity;
    at = next;
    count++;
  }
  return count;
}

interface Solution {
  path: number[];
  count: number;
  penalty: number;
}

const better = (a: { count: number; penalty: number }, b: { count: number; penalty: number }) =>
  a.count < b.count || (a.count === b.count && a.penalty < b.penalty - 1e-9);

/** New sites at every inch counted from both ends, and where greedy covers from `anchors` would set them. */
function candidates(length: number, make: SiteMaker, anchors: readonly number[]): Site[] {
  const at = new Set<number>();
  for (let i = 0; i <= length; i++) {
    at.add(i);
    at.add(length - i);
  }
  for (const anchor of anchors) {
    for (const sign of [1, -1]) {
      for (let p = anchor + sign * REACH; p >= 0 && p <= length; p += sign * 2 * REACH) {
        for (const snapped of make.snap(p)) at.add(snapped);
      }
    }
  }
  return [...at].filter((p) => p >= 0 && p <= length).flatMap((p) => make(p) ?? []);
}

function sitesAlong(
  length: number,
  given: readonly Site[],
  make: SiteMaker,
  ends: readonly number[],
): Site[] {
  const anchors = [...ends, ...given.flatMap((g) => [g.at - REACH, g.at + REACH])];
  return [...candidates(length, make, anchors), ...given].sort((a, b) => a.at - b.at || a.count - b.count);
}

/**
 * Shortest path: the first stop within reach of `from`, each next within twice the reach, the last within
 * reach of `to`. With `circle`, the path starts at a stop at 0 and must come back to it at `last`.
 */
function cover(
  sites: readonly Site[],
  from: number,
  to: number,
  circle: { at: number; last: number } | null = null,
): Solution | null {
  const step = 2 * REACH;
  const gap = (inches: number) => PENALTY.uneven * (inches / step) ** 2;
  if (circle && circle.last <= step) return { path: [], count: 0, penalty: gap(circle.last) };
  const cost: ({ count: number; penalty: number; back: number } | null)[] = [];
  let window = 0;
  for (const [i, site] of sites.entries()) {
    let best: (typeof cost)[number] = null;
    const reachFirst = circle ? site.at - circle.at <= step + 1e-9 : site.at - from <= REACH + 1e-9;
    if (reachFirst) {
      const distance = circle ? site.at : 2 * (site.at - from);
      best = { count: site.count, penalty: site.penalty + gap(distance), back: -1 };
    }
    while (site.at - sites[window]!.at > step + 1e-9) window++;
    for (let j = window; j < i; j++) {
      const before = cost[j];
      if (!before) continue;
      const here = {
        count: before.count + site.count,
        penalty: before.penalty + site.penalty + gap(site.at - sites[j]!.at),
        back: j,
      };
      if (!best || better(here, best)) best = here;
    }
    cost.push(best);
  }
  let end: Solution | null = null;
  let endAt = -1;
  for (const [i, site] of sites.entries()) {
    const here = cost[i];
    const left = circle ? circle.last - site.at : to - site.at;
    if (!here || left > (circle ? step : REACH) + 1e-9) continue;
    const total = { count: here.count, penalty: here.penalty + gap(circle ? left : 2 * left) };
    if (!end || better(total, end)) {
      end = { ...total, path: [] };
      endAt = i;
    }
  }
  if (!end) return null;
  for (let i = endAt; i >= 0; i = cost[i]!.back) if (sites[i]!.count === 1) end.path.unshift(sites[i]!.at);
  return end;
}

function describe(
  outline: Outline,
  space: WallSpace,
  at: number,
  zones: readonly Zone[],
  settings: Settings,
): Placement {
  const { wall, offset } = wallAt(outline, space.start + at);
  const zone = zoneAt(zones, outline, space.start + at);
  const wallNumber = outline.walls.indexOf(wall) + 1;
  const stud = distanceToStud(offset, settings.studSpacing);
  const nail =
    stud < 0.5
      ? 'on the side of a stud'
      : `${formatLength(stud)} from a stud at ${settings.studSpacing}" centres`;
  const where = `wall ${wallNumber} at ${formatLength(offset)}`;
  const base = { wallId: wall.id, offset };
  if (zone?.kind === 'glass') {
    return {
      ...base,
      height: 0,
      fromWall: FLOOR_OUTLET_OUT,
      reason: `${where}: floor outlet, as the wall is fixed glass`,
    };
  }
  if (zone?.kind === 'bench') {
    return {
      ...base,
      height: settings.benchHeight,
      fromWall: 0,
      reason: `${where}: above the counter that stands there`,
    };
  }
  const swing = zone?.kind === 'swing' ? '; behind an open door, no better place covers the wall' : '';
  return { ...base, height: settings.receptacleHeight, fromWall: 0, reason: `${where}: ${nail}${swing}` };
}
