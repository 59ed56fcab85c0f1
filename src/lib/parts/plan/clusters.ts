/** Rooms that stand together, as against a shed at the end of the yard. */
import { boundsOf, boundsOfPoints, within, type Bounds, type Point } from '#core/job/outline.ts';
import type { Area } from '#core/job/schema.ts';

/** Rooms this near each other belong together, inches. */
const TOGETHER = 60;

/** The corners that bounds are made from again. */
export const extremesOf = ({ left, top, right, bottom }: Bounds): [Point, Point] => [
  { x: left, y: top },
  { x: right, y: bottom },
];

export const boundsOfAll = (areas: readonly Area[]): Bounds =>
  boundsOfPoints(areas.flatMap((a) => extremesOf(boundsOf(a))));

const size = (areas: readonly Area[]): number => {
  const { left, top, right, bottom } = boundsOfAll(areas);
  return (right - left) * (bottom - top);
};

/** Groups of rooms that stand together, the largest first. */
export function clustersOf(areas: readonly Area[]): Area[][] {
  const left = new Set(areas);
  const clusters: Area[][] = [];
  for (const start of areas) {
    if (!left.delete(start)) continue;
    const cluster = [start];
    for (const room of cluster)
      for (const other of left)
        if (within(boundsOf(room), boundsOf(other), TOGETHER)) {
          left.delete(other);
          cluster.push(other);
        }
    clusters.push(cluster);
  }
  return clusters.sort((a, b) => size(b) - size(a));
}
