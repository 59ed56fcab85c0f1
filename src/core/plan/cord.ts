/**
 * The shortest path of a cord on the floor plan, around walls and fixed barriers: a visibility graph over the
 * convex corners of the barriers, searched by Dijkstra's method (Lozano-Pérez and Wesley, 1979). Heights are
 * left out, so the distance is never longer than the cord would be: the stricter reading.
 */
import { isWater } from '#core/tables/fixtures.ts';
import { isPassage } from '#core/tables/openings.ts';
import { isOutside } from '#core/tables/areas.ts';
import { outlineOf, pointOnWall, type Point, boundsOfPoints } from '#core/job/outline.ts';
import type { Area, Fixture, Opening } from '#core/job/schema.ts';
import { distance, footprint, nearestOnPolygon, nearestOnSegment, openingFootprint } from './footprint.ts';

export interface Segment {
  a: Point;
  b: Point;
}

export interface CordPath {
  /** Inches. */
  distance: number;
  points: Point[];
}

/** How far paths keep off what they pass, inches. */
const CLEAR = 0.005;
/** A fastened thing at least this high stops a cord; over a counter it can be thrown, inches. */
const BARRIER_HEIGHT = 60;
const CELL = 96;
/** A path this much over the limit is at the limit, inches. */
const SLACK = 1 / 32;

/** A room with what stands in it; `openings` include the images of the neighbors' doors. */
export interface FurnishedRoom {
  area: Area;
  openings: readonly Opening[];
  fixtures: readonly Fixture[];
}

const loop = (corners: readonly Point[]): Segment[] =>
  corners.map((a, i) => ({ a, b: corners[(i + 1) % corners.length]! }));

/**
 * What stops a cord in the rooms of one level.
 * @param doorsOpen whether a cord may run through a doorway (2020 on)
 */
export function barriersOf(rooms: readonly FurnishedRoom[], doorsOpen: boolean): Segment[] {
  const barriers: Segment[] = [];
  const jambs = new Map<string, [Point, Point]>();
  for (const { area, openings, fixtures } of rooms) {
    const outline = outlineOf(area);
    for (const wall of isOutside(area) ? [] : outline.walls) {
      const passages = doorsOpen
        ? openings.filter((o) => o.wallId === wall.id && isPassage(o)).sort((p, q) => p.offset - q.offset)
        : [];
      let at = 0;
      const solid = (to: number) => {
        if (to > at + 1e-6)
          barriers.push({ a: pointOnWall(outline, wall, at), b: pointOnWall(outline, wall, to) });
      };
      for (const { id, offset, width } of passages) {
        solid(offset);
        at = Math.max(at, offset + width);
        // The sides of a doorway close the hollow between the two faces of a wall.
        const ends: [Point, Point] = [
          pointOnWall(outline, wall, offset),
          pointOnWall(outline, wall, offset + width),
        ];
        const other = jambs.get(id);
        if (!other) jambs.set(id, ends);
        else {
          for (const end of ends) {
            const [near] = [...other].sort((p, q) => distance(p, end) - distance(q, end));
            if (distance(near!, end) > 0.01) barriers.push({ a: near!, b: end });
          }
        }
      }
      solid(wall.length);
    }
    for (const opening of openings) {
      const corners = openingFootprint(area, opening);
      if (corners) barriers.push(...loop(corners));
    }
    for (const fixture of fixtures) {
      if (!fixture.fastened || fixture.height < BARRIER_HEIGHT || isWater(fixture)) continue;
      const corners = footprint(area, fixture);
      if (corners) barriers.push(...loop(corners));
    }
  }
  return barriers;
}

const cross = (o: Point, a: Point, b: Point) => (a.x - o.x) * (b.y - o.y) - (a.y - o.y) * (b.x - o.x);

/** Whether two closed segments meet. */
function meet(p: Point, q: Point, { a, b }: Segment): boolean {
  if (Math.max(p.x, q.x) < Math.min(a.x, b.x) || Math.min(p.x, q.x) > Math.max(a.x, b.x)) return false;
  if (Math.max(p.y, q.y) < Math.min(a.y, b.y) || Math.min(p.y, q.y) > Math.max(a.y, b.y)) return false;
  const d1 = cross(a, b, p);
  const d2 = cross(a, b, q);
  const d3 = cross(p, q, a);
  const d4 = cross(p, q, b);
  return d1 * d2 <= 0 && d3 * d4 <= 0;
}

const towards = (from: Point, to: Point, by: number): Point => {
  const d = distance(from, to);
  return d === 0 ? from : { x: from.x + ((to.x - from.x) / d) * by, y: from.y + ((to.y - from.y) / d) * by };
};

/** Barriers by place, so that only those near a path are looked at. */
export class Barriers {
  private readonly cells = new Map<string, Segment[]>();

  constructor(segments: readonly Segment[]) {
    for (const segment of segments) {
      const { left, top, right, bottom } = boundsOfPoints([segment.a, segment.b]);
      for (let i = Math.floor(left / CELL); i <= Math.floor(right / CELL); i++) {
        for (let j = Math.floor(top / CELL); j <= Math.floor(bottom / CELL); j++) {
          const key = `${i},${j}`;
          const cell = this.cells.get(key);
          if (cell) cell.push(segment);
          else this.cells.set(key, [segment]);
        }
      }
    }
  }

  near(p: Point, reach: number): Segment[] {
    const found = new Set<Segment>();
    for (let i = Math.floor((p.x - reach) / CELL); i <= Math.floor((p.x + reach) / CELL); i++) {
      for (let j = Math.floor((p.y - reach) / CELL); j <= Math.floor((p.y + reach) / CELL); j++) {
        for (const segment of this.cells.get(`${i},${j}`) ?? [])
          if (distance(p, nearestOnSegment(p, segment.a, segment.b)) <= reach) found.add(segment);
      }
    }
    return [...found];
  }
}

/** Points just off the corners that a shortest path can bend around: where the barriers leave more than 180°. */
function bends(segments: readonly Segment[]): Point[] {
  const corners = new Map<string, { at: Point; angles: number[] }>();
  const key = (p: Point) => `${Math.round(p.x * 50)},${Math.round(p.y * 50)}`;
  for (const { a, b } of segments) for (const at of [a, b]) corners.set(key(at), { at, angles: [] });
  for (const corner of corners.values()) {
    const { at, angles } = corner;
    for (const { a, b } of segments) {
      const { left, top, right, bottom } = boundsOfPoints([a, b]);
      if (at.x < left - 0.02 || at.x > right + 0.02 || at.y < top - 0.02 || at.y > bottom + 0.02) continue;
      const length = distance(a, b);
      if (length === 0 || Math.abs(cross(a, b, at)) / length > 0.02) continue;
      for (const end of [a, b])
        if (distance(at, end) > 0.02) angles.push(Math.atan2(end.y - at.y, end.x - at.x));
    }
  }
  const points: Point[] = [];
  for (const { at, angles } of corners.values()) {
    angles.sort((p, q) => p - q);
    for (const [i, angle] of angles.entries()) {
      const next = angles[i + 1] ?? angles[0]! + 2 * Math.PI;
      if (next - angle <= Math.PI + 1e-6) continue;
      const middle = (angle + next) / 2;
      points.push({ x: at.x + Math.cos(middle) * CLEAR * 2, y: at.y + Math.sin(middle) * CLEAR * 2 });
    }
  }
  return points;
}

/**
 * The shortest path from a point to a rectangle that meets no barrier.
 * @param from a point just clear of the wall its outlet is mounted on
 * @param target corners of the rectangle, inches
 * @param longest paths longer than this are not looked for, inches
 * @returns null when there is none within the limit. O(n² m) for n corners and m barriers within the limit.
 */
export function shortestCord(
  from: Point,
  target: readonly Point[],
  barriers: Barriers,
  longest: number,
): CordPath | null {
  const limit = longest + SLACK;
  const center = {
    x: target.reduce((sum, p) => sum + p.x, 0) / target.length,
    y: target.reduce((sum, p) => sum + p.y, 0) / target.length,
  };
  // Drawn in by a hair, so that an edge against a wall can be reached from the room.
  const goal = target.map((p) => towards(p, center, CLEAR * 1.5));
  const straight = nearestOnPolygon(from, goal);
  if (distance(from, straight) > limit) return null;
  const near = barriers.near(from, distance(from, straight) + SLACK);
  if (near.every((s) => !meet(from, straight, s))) return pathOf([from, straight]);
  return bentCord(from, goal, barriers.near(from, limit), limit);
}

/** The shortest path around corners, where the straight one is blocked. */
function bentCord(
  from: Point,
  goal: readonly Point[],
  near: readonly Segment[],
  limit: number,
): CordPath | null {
  const free = (p: Point, q: Point) => near.every((s) => !meet(p, q, s));
  let edge: Point[] | null = null;
  const finish = (p: Point): Point | null => {
    const nearest = nearestOnPolygon(p, goal);
    if (free(p, nearest)) return nearest;
    let best: Point | null = null;
    for (const q of (edge ??= samples(goal))) {
      if ((!best || distance(p, q) < distance(p, best)) && free(p, q)) best = q;
    }
    return best;
  };

  // A bend is of use only where the way by it is short enough even with nothing in between.
  const nodes = [
    from,
    ...bends(near).filter((p) => distance(from, p) + distance(p, nearestOnPolygon(p, goal)) <= limit),
  ];
  const cost = nodes.map((_, i) => (i === 0 ? 0 : Infinity));
  const back = nodes.map(() => -1);
  const open = new Set(nodes.keys());
  let best: { total: number; node: number; end: Point } | null = null;
  while (open.size > 0) {
    let node = -1;
    for (const i of open) if (node === -1 || cost[i]! < cost[node]!) node = i;
    const here = cost[node]!;
    if (here > limit || (best && here >= best.total)) break;
    open.delete(node);
    const at = nodes[node]!;
    const lowest = here + distance(at, nearestOnPolygon(at, goal));
    if (lowest <= limit && (!best || lowest < best.total)) {
      const end = finish(at);
      const total = end ? here + distance(at, end) : Infinity;
      if (end && total <= limit && (!best || total < best.total)) best = { total, node, end };
    }
    for (const i of open) {
      const total = here + distance(at, nodes[i]!);
      if (total < cost[i]! && total <= limit && free(at, nodes[i]!)) {
        cost[i] = total;
        back[i] = node;
      }
    }
  }
  if (!best) return null;
  const points = [best.end];
  for (let i = best.node; i !== -1; i = back[i]!) points.unshift(nodes[i]!);
  return pathOf(points);
}

/** Points along the edge of a rectangle, about every two inches. */
function samples(corners: readonly Point[]): Point[] {
  return loop(corners).flatMap(({ a, b }) => {
    const steps = Math.max(1, Math.ceil(distance(a, b) / 2));
    return Array.from({ length: steps }, (_, i) => ({
      x: a.x + ((b.x - a.x) * i) / steps,
      y: a.y + ((b.y - a.y) * i) / steps,
    }));
  });
}

function pathOf(points: Point[]): CordPath {
  const length = points.reduce((sum, p, i) => sum + (i === 0 ? 0 : distance(points[i - 1]!, p)), 0);
  // To the nearest 1/32 in.: the hair kept off corners and edges is not part of the measure.
  return { distance: Math.round(length * 32) / 32, points };
}

/** Where a cord leaves an outlet: its place on the plan, a hair into the room. */
export function cordStart(
  area: Area,
  { wallId, offset, fromWall }: { wallId: string | null; offset: number; fromWall: number },
): Point | null {
  const outline = outlineOf(area);
  const wall = outline.walls.find((w) => w.id === wallId);
  if (!wall) return null;
  // Off the corner too, so that an outlet at the very end of a wall stands in its own room.
  const along = Math.max(CLEAR, Math.min(wall.length - CLEAR, offset));
  return pointOnWall(outline, wall, along, Math.max(CLEAR, fromWall));
}
