/** Where rooms and the things in them lie on the plan: bounds, rectangles and distances, inches. */
import {
  boundsOfPoints,
  outlineOf,
  pointOnWall,
  type Bounds,
  type Point,
  type WallLine,
} from '#core/job/outline.ts';
import type { Area, Fixture, Opening } from '#core/job/schema.ts';

/** The rectangle on the plan of something along a wall: from, to, and out from the wall. */
function rectangle(
  area: Area,
  wallId: string,
  from: number,
  to: number,
  near: number,
  far: number,
): Point[] | null {
  const outline = outlineOf(area);
  const wall = outline.walls.find((w) => w.id === wallId);
  if (!wall) return null;
  return [
    pointOnWall(outline, wall, from, near),
    pointOnWall(outline, wall, to, near),
    pointOnWall(outline, wall, to, far),
    pointOnWall(outline, wall, from, far),
  ];
}

const footprints = new WeakMap<Fixture, { area: Area; corners: Point[] | null; bounds: Bounds }>();

function footprintIn(area: Area, fixture: Fixture) {
  let known = footprints.get(fixture);
  if (known?.area !== area) {
    const { wallId, offset, width, fromWall, depth } = fixture;
    const [from, to] = [offset - width / 2, offset + width / 2];
    const corners = wallId === null ? null : rectangle(area, wallId, from, to, fromWall, fromWall + depth);
    known = { area, corners, bounds: boundsOfPoints(corners ?? []) };
    footprints.set(fixture, known);
  }
  return known;
}

/** Corners of a fixture's rectangle, or null when its wall is gone; remembered per fixture and room. */
export const footprint = (area: Area, fixture: Fixture): readonly Point[] | null =>
  footprintIn(area, fixture).corners;

/** Whether a point lies within a distance of the bounds of a fixture. */
export function isNearFixture(p: Point, area: Area, fixture: Fixture, reach: number): boolean {
  const { left, top, right, bottom } = footprintIn(area, fixture).bounds;
  const x = Math.max(left - p.x, 0, p.x - right);
  const y = Math.max(top - p.y, 0, p.y - bottom);
  return x * x + y * y <= reach * reach;
}

/** How far a built-in thing stands out into the room, inches; 0 for what stays in the wall. */
export const depthOf = ({ kind }: Opening): number =>
  kind === 'cabinet' ? 24 : kind === 'fireplace' ? 16 : 0;

/** Corners of a built-in thing's rectangle, or null when it stays in the wall. */
export const openingFootprint = (area: Area, opening: Opening): Point[] | null =>
  depthOf(opening) === 0
    ? null
    : rectangle(area, opening.wallId, opening.offset, opening.offset + opening.width, 0, depthOf(opening));

/** The nearest point of segment a–b. */
export function nearestOnSegment(p: Point, a: Point, b: Point): Point {
  const dx = b.x - a.x;
  const dy = b.y - a.y;
  const squared = dx * dx + dy * dy;
  const t = squared === 0 ? 0 : Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / squared));
  return { x: a.x + dx * t, y: a.y + dy * t };
}

export const distance = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

/** Whether a point lies inside a polygon, its edge included within a hundredth of an inch. */
export function insidePolygon(p: Point, corners: readonly Point[]): boolean {
  let inside = false;
  for (let i = 0, j = corners.length - 1; i < corners.length; j = i++) {
    const a = corners[i]!;
    const b = corners[j]!;
    if (distance(p, nearestOnSegment(p, a, b)) < 0.01) return true;
    if (a.y > p.y !== b.y > p.y && p.x < ((b.x - a.x) * (p.y - a.y)) / (b.y - a.y) + a.x) inside = !inside;
  }
  return inside;
}

/** The nearest point of a polygon to `p`; `p` itself when it lies inside. */
export function nearestOnPolygon(p: Point, corners: readonly Point[]): Point {
  let best: Point | null = null;
  let least = Infinity;
  for (let i = 0; i < corners.length; i++) {
    const q = nearestOnSegment(p, corners[i]!, corners[(i + 1) % corners.length]!);
    const d = distance(p, q);
    if (d < least) {
      best = q;
      least = d;
    }
  }
  return best === null || least < 0.01 || insidePolygon(p, corners) ? p : best;
}

export const cornersOf = (area: Area): Point[] => outlineOf(area).walls.map((w) => w.from);

/** Distance along a wall of the foot of a point, and how far the point stands off the wall's line. */
export function alongWall(wall: WallLine, p: Point): { along: number; off: number } {
  const dx = (wall.to.x - wall.from.x) / wall.length;
  const dy = (wall.to.y - wall.from.y) / wall.length;
  const x = p.x - wall.from.x;
  const y = p.y - wall.from.y;
  return { along: x * dx + y * dy, off: x * dy - y * dx };
}
