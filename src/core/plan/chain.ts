/** From corners to a room's chain of walls. */
import { newId } from '#core/job/document.ts';
import type { Point } from '#core/job/outline.ts';
import type { Area, Wall } from '#core/job/schema.ts';
import { MIN_WALL } from '#core/job/schema.ts';
import { distance, nearestOnSegment } from './footprint.ts';

const degrees = (from: Point, to: Point) => (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI;
/** Headings within a thousandth of a degree of a right angle are right angles. */
const squared = (heading: number) =>
  Math.abs(heading - Math.round(heading / 90) * 90) < 1e-3 ? Math.round(heading / 90) * 90 : heading;
const turnBetween = (from: number, to: number) => ((((to - from + 180) % 360) + 360) % 360) - 180;

/**
 * Leaves out corners that make no corner: nearer to the one before than a wall may be short, or within
 * `tolerance` of the line between their neighbors. Three are always kept.
 */
export function withoutIdleCorners(corners: readonly Point[], tolerance: number): Point[] {
  let kept: Point[] = [];
  for (const p of corners) {
    const last = kept.at(-1);
    if (!last || distance(last, p) >= MIN_WALL) kept.push(p);
  }
  while (kept.length > 3 && distance(kept[0]!, kept.at(-1)!) < MIN_WALL) kept.pop();
  for (;;) {
    const next: Point[] = [];
    for (const [i, p] of kept.entries()) {
      const before = next.at(-1) ?? kept.at(-1)!;
      const after = kept[(i + 1) % kept.length]!;
      const left = kept.length - (i - next.length);
      if (left <= 3 || distance(p, nearestOnSegment(p, before, after)) > tolerance) next.push(p);
    }
    if (next.length === kept.length) return next;
    kept = next;
  }
}

/** The chain of walls that runs from corner to corner and back to the first. */
export function chainOf(corners: readonly Point[]): Pick<Area, 'x' | 'y' | 'heading' | 'walls'> {
  const headings = corners.map((p, i) => squared(degrees(p, corners[(i + 1) % corners.length]!)));
  const walls: Wall[] = corners.map((p, i) => ({
    id: newId('wall'),
    length: distance(p, corners[(i + 1) % corners.length]!),
    turn: turnBetween(headings[i]!, headings[(i + 1) % corners.length]!),
  }));
  return { x: corners[0]!.x, y: corners[0]!.y, heading: headings[0]!, walls };
}
