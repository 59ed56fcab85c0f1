/** What lies well inside a room, and not on its edge by a hair of the survey. */
import { outlineOf, pointOnWall } from '#core/job/outline.ts';
import type { Area } from '#core/job/schema.ts';
import { cornersOf, distance, insidePolygon, nearestOnSegment } from '#core/plan/footprint.ts';

/** How far things may stand over an edge before a survey is doubted, inches. */
export const SLACK = 3;

const deepInside = (p: { x: number; y: number }, corners: { x: number; y: number }[]): boolean =>
  insidePolygon(p, corners) &&
  corners.every((a, i) => distance(p, nearestOnSegment(p, a, corners[(i + 1) % corners.length]!)) > SLACK);

/** Whether a corner, or a spot just inside the middle of a wall, of one room lies well inside the other. */
export function reachesInto(a: Area, b: Area): boolean {
  const outline = outlineOf(a);
  const corners = cornersOf(b);
  return outline.walls.some(
    (w) =>
      deepInside(w.from, corners) ||
      (w.length > 4 * SLACK && deepInside(pointOnWall(outline, w, w.length / 2, SLACK), corners)),
  );
}
