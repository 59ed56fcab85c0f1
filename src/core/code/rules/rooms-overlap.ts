import { always } from '#core/tables/editions.ts';
import { neighborsOf } from '#core/plan/joined.ts';
import { isClosed, outlineOf, boundsOf, within } from '#core/job/outline.ts';
import { rule } from '../rule.ts';
import { isOutside } from '#core/tables/areas.ts';
import { SLACK, reachesInto } from './insideRoom.ts';

export const roomsOverlap = rule({
  id: 'rooms-overlap',
  title: 'Rooms apart from each other',
  scope: 'area',
  needs: ['plan'],
  level: 'unknown',
  sections: always('survey'),
  why: 'Two rooms cannot take the same floor; a length, a turn or a place is wrong.',
  check(area, view) {
    if (isOutside(area) || area.kind === 'stairs' || !isClosed(outlineOf(area))) return [];
    return neighborsOf(view, area)
      .filter((n) => !isOutside(n) && n.kind !== 'stairs' && isClosed(outlineOf(n)))
      .filter((n) => within(boundsOf(area), boundsOf(n), -SLACK))
      .filter((n) => reachesInto(area, n) || reachesInto(n, area))
      .map((n) => ({
        level: 'unknown' as const,
        message: `${area.name} and ${n.name} overlap on the plan; check their walls and where they stand`,
      }));
  },
});
