/** Shapes of a plan as SVG paths, in plan inches. */
import { outlineOf, pointOnWall, type Outline, type Point, type WallLine } from '#core/job/outline.ts';
import type { Area, Opening } from '#core/job/schema.ts';
import type { WallSpan } from '#core/plan/wallSpaces.ts';
import { alongWall } from '#core/plan/footprint.ts';

export const path = (points: readonly Point[]): string =>
  points.map((p, i) => `${i ? 'L' : 'M'}${p.x.toFixed(3)} ${p.y.toFixed(3)}`).join('');

export function outlinePath(area: Area): string {
  const { walls } = outlineOf(area);
  const [first] = walls;
  return first ? path([first.from, ...walls.map((w) => w.to)]) : '';
}

/** How far off its wall a box is drawn, pixels. */
export const SIGN_OFF_WALL = 15;

export const wallOf = (outline: Outline, wallId: string | null): WallLine | undefined =>
  outline.walls.find((w) => w.id === wallId);

export function spanPath(area: Area, span: WallSpan, out: number): string {
  const outline = outlineOf(area);
  const wall = wallOf(outline, span.wallId);
  return wall
    ? path([pointOnWall(outline, wall, span.from, out), pointOnWall(outline, wall, span.to, out)])
    : '';
}

/** Direction into the room from a wall, as a unit vector on the plan. */
export function inward(outline: Outline, wall: WallLine): Point {
  const from = pointOnWall(outline, wall, 0, 0);
  const to = pointOnWall(outline, wall, 0, 1);
  return { x: to.x - from.x, y: to.y - from.y };
}

/** Angle of a wall for text beside it that is never upside down, degrees. */
export function readingAngle(wall: WallLine): number {
  const angle = ((wall.heading % 360) + 360) % 360;
  return angle > 90 && angle <= 270 ? angle - 180 : angle;
}

export function doorArc(area: Area, opening: Opening): string {
  const outline = outlineOf(area);
  const wall = wallOf(outline, opening.wallId);
  if (!wall || opening.hinge === 'none') return '';
  const hinge = opening.hinge === 'start' ? opening.offset : opening.offset + opening.width;
  const latch = opening.hinge === 'start' ? opening.offset + opening.width : opening.offset;
  const h = pointOnWall(outline, wall, hinge);
  const open = pointOnWall(outline, wall, hinge, opening.width);
  const l = pointOnWall(outline, wall, latch);
  const sweep = (opening.hinge === 'start') === (outline.side === 1) ? 0 : 1;
  return `M${h.x} ${h.y}L${open.x} ${open.y}A${opening.width} ${opening.width} 0 0 ${sweep} ${l.x} ${l.y}`;
}

/** The nearest place on a room's walls, to the inch. */
export function nearestOnWalls(area: Area, p: Point): { wallId: string; offset: number } | null {
  let best: { wallId: string; offset: number; distance: number } | null = null;
  for (const w of outlineOf(area).walls) {
    const { along: at } = alongWall(w, p);
    const along = Math.max(0, Math.min(w.length, at));
    const foot = {
      x: w.from.x + ((w.to.x - w.from.x) / w.length) * along,
      y: w.from.y + ((w.to.y - w.from.y) / w.length) * along,
    };
    const distance = Math.hypot(p.x - foot.x, p.y - foot.y);
    if (!best || distance < best.distance)
      best = { wallId: w.id, offset: Math.min(w.length, Math.round(along)), distance };
  }
  return best;
}
