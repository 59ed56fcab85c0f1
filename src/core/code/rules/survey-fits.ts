import { always } from '#core/tables/editions.ts';
import { neighboursOf } from '#core/plan/joined.ts';
import { isClosed, outlineOf, pointOnWall, boundsOf, within } from '#core/job/outline.ts';
import type { Area } from '#core/job/schema.ts';
import {
  cornersOf,
  distance,
  footprint,
  insidePolygon,
  nearestOnPolygon,
  nearestOnSegment,
} from '#core/plan/footprint.ts';
import { rule } from '../rule.ts';
import { isOutside } from '#core/tables/areas.ts';

/** How far things may stand over an edge before a survey is doubted, inches. */
const SLACK = 3;

const deepInside = (p: { x: number; y: number }, corners: { x: number; y: number }[]): boolean =>
  insidePolygon(p, corners) &&
  corners.every((a, i) => distance(p, nearestOnSegment(p, a, corners[(i + 1) % corners.length]!)) > SLACK);

/** Whether a corner, or a spot just inside the middle of a wall, of one room lies well inside the other. */
function reachesInto(a: Area, b: Area): boolean {
  const outline = outlineOf(a);
  const corners = cornersOf(b);
  return outline.walls.some(
    (w) =>
      deepInside(w.from, corners) ||
      (w.length > 4 * SLACK && deepInside(pointOnWall(outline, w, w.length / 2, SLACK), corners)),
  );
}

export const roomsOverlap = rule({
  id: 'rooms-overlap',
  title: 'Rooms apart from each other',
  scope: 'area',
  level: 'unknown',
  sections: always('survey'),
  why: 'Two rooms cannot take the same floor; a length, a turn or a place is wrong.',
  check(area, view) {
    if (isOutside(area) || area.kind === 'stairs' || !isClosed(outlineOf(area))) return [];
    return neighboursOf(view, area)
      .filter((n) => !isOutside(n) && n.kind !== 'stairs' && isClosed(outlineOf(n)))
      .filter((n) => within(boundsOf(area), boundsOf(n), -SLACK))
      .filter((n) => reachesInto(area, n) || reachesInto(n, area))
      .map((n) => ({
        level: 'unknown' as const,
        message: `${area.name} and ${n.name} overlap on the plan; check their walls and where they stand`,
      }));
  },
});

export const fixtureInRoom = rule({
  id: 'fixture-in-room',
  title: 'Fixtures inside their rooms',
  scope: 'fixture',
  level: 'unknown',
  sections: always('survey'),
  why: 'Distances are measured to where a thing is drawn; outside its room they mean nothing.',
  check(fixture, view) {
    const area = view.document.areas[fixture.areaId];
    const corners = area && footprint(area, fixture);
    if (!area || !corners || !isClosed(outlineOf(area))) return [];
    const room = cornersOf(area);
    return corners.every((p) => distance(p, nearestOnPolygon(p, room)) <= SLACK)
      ? []
      : [
          {
            level: 'unknown',
            message: `${fixture.name} stands outside ${area.name}; check its place and its size`,
          },
        ];
  },
});
