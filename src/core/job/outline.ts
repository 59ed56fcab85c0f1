/**
 * The outline of a room from its chain of walls. Pure geometry in plan axes: x east, y south, inches.
 */
import type { Area } from './schema.ts';

export interface Point {
  x: number;
  y: number;
}

export interface WallLine {
  id: string;
  from: Point;
  to: Point;
  length: number;
  /** Direction walked, degrees; 0 is east, 90 south. */
  heading: number;
  /** Floor-line distance of the wall's start from the room's first corner, inches. */
  start: number;
}

export interface Outline {
  walls: WallLine[];
  /** Length of the whole floor line, inches. */
  perimeter: number;
  /** From the end of the last wall back to the first corner: inches, and its parts to the east and south. */
  closing: { distance: number; east: number; south: number };
  /** +1 when the room lies to the right of the direction walked, −1 to the left. */
  side: 1 | -1;
  /** Floor area, square inches. */
  floor: number;
}

/** A gap the tape is allowed before a room counts as not closed, inches. */
export const CLOSING_TOLERANCE = 2;

const radians = (degrees: number) => (degrees * Math.PI) / 180;

/** Exact along the axes, so that square rooms close to the last digit. */
function direction(heading: number): Point {
  const turn = ((heading % 360) + 360) % 360;
  if (turn === 0) return { x: 1, y: 0 };
  if (turn === 90) return { x: 0, y: 1 };
  if (turn === 180) return { x: -1, y: 0 };
  if (turn === 270) return { x: 0, y: -1 };
  return { x: Math.cos(radians(turn)), y: Math.sin(radians(turn)) };
}

const cache = new WeakMap<Area, Outline>();

/** Outline of an area; remembered per area object, which is never changed in place. */
export function outlineOf(area: Area): Outline {
  let outline = cache.get(area);
  if (!outline) {
    outline = computeOutline(area);
    cache.set(area, outline);
  }
  return outline;
}

function computeOutline(area: Area): Outline {
  const walls: WallLine[] = [];
  let at: Point = { x: area.x, y: area.y };
  let heading = area.heading;
  let start = 0;
  for (const wall of area.walls) {
    const { x, y } = direction(heading);
    const to = { x: at.x + x * wall.length, y: at.y + y * wall.length };
    walls.push({ id: wall.id, from: at, to, length: wall.length, heading, start });
    at = to;
    start += wall.length;
    heading += wall.turn;
  }
  const east = area.x - at.x;
  const south = area.y - at.y;
  const doubled = walls.reduce(
    (sum, w) => sum + w.from.x * w.to.y - w.to.x * w.from.y,
    at.x * area.y - area.x * at.y,
  );
  return {
    walls,
    perimeter: start,
    closing: { distance: Math.hypot(east, south), east, south },
    side: doubled >= 0 ? 1 : -1,
    floor: Math.abs(doubled) / 2,
  };
}

export const isClosed = (outline: Outline): boolean =>
  outline.walls.length >= 3 && outline.closing.distance <= CLOSING_TOLERANCE;

const cross = (o: Point, a: Point, b: Point) => (a.x - o.x) * (b.y - o.y) - (a.y - o.y) * (b.x - o.x);

/** Segments cross or touch anywhere, ends included. */
function touch(a: WallLine, b: WallLine): boolean {
  const d1 = cross(a.from, a.to, b.from);
  const d2 = cross(a.from, a.to, b.to);
  const d3 = cross(b.from, b.to, a.from);
  const d4 = cross(b.from, b.to, a.to);
  if (((d1 > 0 && d2 < 0) || (d1 < 0 && d2 > 0)) && ((d3 > 0 && d4 < 0) || (d3 < 0 && d4 > 0))) return true;
  const on = (w: WallLine, p: Point, d: number) =>
    Math.abs(d) < 1e-6 &&
    p.x >= Math.min(w.from.x, w.to.x) - 1e-9 &&
    p.x <= Math.max(w.from.x, w.to.x) + 1e-9 &&
    p.y >= Math.min(w.from.y, w.to.y) - 1e-9 &&
    p.y <= Math.max(w.from.y, w.to.y) + 1e-9;
  return on(a, b.from, d1) || on(a, b.to, d2) || on(b, a.from, d3) || on(b, a.to, d4);
}

/** The first two walls that cross each other, as positions in the chain, or null. */
export function crossingWalls(outline: Outline): [number, number] | null {
  const { walls } = outline;
  for (let i = 0; i < walls.length; i++) {
    for (let j = i + 1; j < walls.length; j++) {
      const next = j === i + 1;
      const last = i === 0 && j === walls.length - 1;
      // The first and the last wall meet; how far they miss each other is the closing error's business.
      if (last && !isClosed(outline)) continue;
      if (next || last) {
        if (folded(walls[next ? i : j]!, walls[next ? j : i]!)) return [i, j];
      } else if (touch(walls[i]!, walls[j]!)) return [i, j];
    }
  }
  return null;
}

/** A wall that runs straight back along the one before it. */
function folded(wall: WallLine, next: WallLine): boolean {
  const turn = (((next.heading - wall.heading) % 360) + 360) % 360;
  return Math.abs(turn - 180) < 1e-9;
}

/** The point at `offset` along a wall and `out` inches into the room. */
export function pointOnWall(outline: Outline, wall: WallLine, offset: number, out = 0): Point {
  const along = direction(wall.heading);
  return {
    x: wall.from.x + along.x * offset - along.y * out * outline.side,
    y: wall.from.y + along.y * offset + along.x * out * outline.side,
  };
}

/** Where a box or an opening stands in plan, or null when its wall is gone or its place is not on the plan. */
export function placeInPlan(area: Area, wallId: string | null, offset: number, out = 0): Point | null {
  const outline = outlineOf(area);
  const wall = outline.walls.find((w) => w.id === wallId);
  return wall ? pointOnWall(outline, wall, offset, out) : null;
}

export interface Bounds {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

export const boundsOfPoints = (points: readonly Point[]): Bounds => {
  const bounds = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity };
  for (const { x, y } of points) {
    bounds.left = Math.min(bounds.left, x);
    bounds.top = Math.min(bounds.top, y);
    bounds.right = Math.max(bounds.right, x);
    bounds.bottom = Math.max(bounds.bottom, y);
  }
  return bounds;
};

const known = new WeakMap<Area, Bounds>();

/** Bounds of a room's outline; remembered per area object. */
export function boundsOf(area: Area): Bounds {
  let bounds = known.get(area);
  if (!bounds) {
    bounds = boundsOfPoints([{ x: area.x, y: area.y }, ...outlineOf(area).walls.map((w) => w.to)]);
    known.set(area, bounds);
  }
  return bounds;
}

export const within = (a: Bounds, b: Bounds, reach: number): boolean =>
  a.left <= b.right + reach &&
  b.left <= a.right + reach &&
  a.top <= b.bottom + reach &&
  b.top <= a.bottom + reach;
