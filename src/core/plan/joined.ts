/**
 * Rooms that share a wall. A door stands on record once, in one of the two rooms it joins; the other room's
 * side of the wall gets its image, so that it interrupts both wall spaces and lets a cord through.
 */
import { boundsOf, outlineOf, pointOnWall, within, type WallLine } from '#core/job/outline.ts';
import type { Area, Opening } from '#core/job/schema.ts';
import { goesThrough } from '#core/tables/openings.ts';
import { lookup } from '#core/view/lookup.ts';
import { changes } from '#core/view/touched.ts';
import type { View } from '#core/view/view.ts';
import { alongWall } from './footprint.ts';

/** Thickest wall two rooms may share, inches. */
const THICKEST_WALL = 14;
/** Narrowest image of an opening worth having, inches. */
const LEAST_IMAGE = 6;

/** Whether two walls are the two sides of one: parallel and no farther apart than a wall is thick. */
export function sharesWall(a: WallLine, b: WallLine): boolean {
  const turn = Math.abs(((((a.heading - b.heading) % 180) + 180) % 180) - 90);
  if (turn < 89.5) return false;
  const from = alongWall(a, b.from);
  const to = alongWall(a, b.to);
  // Turned rooms lie a hair off their figures.
  if (Math.max(Math.abs(from.off), Math.abs(to.off)) > THICKEST_WALL + 1e-6) return false;
  const least = Math.min(from.along, to.along);
  const most = Math.max(from.along, to.along);
  return least < a.length - LEAST_IMAGE && most > LEAST_IMAGE;
}

/** Images on an area's walls of the openings of its neighbors, with the id of the original. */
export function joinedOpenings(
  area: Area,
  neighbors: readonly { area: Area; openings: readonly Opening[] }[],
): Opening[] {
  const images: Opening[] = [];
  const { walls } = outlineOf(area);
  for (const neighbor of neighbors) {
    const outline = outlineOf(neighbor.area);
    for (const opening of neighbor.openings) {
      if (!goesThrough(opening)) continue;
      const theirs = outline.walls.find((w) => w.id === opening.wallId);
      if (!theirs) continue;
      for (const wall of walls) {
        if (!sharesWall(wall, theirs)) continue;
        const a = alongWall(wall, pointOnWall(outline, theirs, opening.offset)).along;
        const b = alongWall(wall, pointOnWall(outline, theirs, opening.offset + opening.width)).along;
        const from = Math.max(0, Math.min(a, b));
        const to = Math.min(wall.length, Math.max(a, b));
        if (to - from < LEAST_IMAGE) continue;
        images.push({
          ...opening,
          areaId: area.id,
          wallId: wall.id,
          offset: from,
          width: to - from,
          // The leaf swings into the room that has the door on record.
          hinge: 'none',
        });
      }
    }
  }
  return images;
}

/** Rooms of the same level that a wall may be shared with. */
export const neighborsOf = lookup(
  (touched) => (changes(touched, 'areas') ? 'all' : []),
  (view, area: Area): Area[] =>
    view
      .areasOn(area.levelId)
      .filter((a) => a.id !== area.id && within(boundsOf(a), boundsOf(area), THICKEST_WALL)),
);

/** The room's own openings and its side of those on record in its neighbors. */
export const openingsIn = lookup(
  ({ rooms }) => rooms,
  (view, area: Area): Opening[] => {
    const theirs = neighborsOf(view, area).map((n) => ({ area: n, openings: view.ownOpeningsIn(n) }));
    return [...view.ownOpeningsIn(area), ...joinedOpenings(area, theirs)];
  },
);
/** Rooms that a door on record in this one leads to. */
export const roomsBeyond = (view: View, area: Area, opening: Opening): Area[] =>
  neighborsOf(view, area).filter((n) => joinedOpenings(n, [{ area, openings: [opening] }]).length > 0);
