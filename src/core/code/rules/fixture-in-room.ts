import { always } from '#core/tables/editions.ts';
import { isClosed, outlineOf } from '#core/job/outline.ts';
import { cornersOf, distance, footprint, nearestOnPolygon } from '#core/plan/footprint.ts';
import { rule } from '../rule.ts';
import { SLACK } from './insideRoom.ts';

export const fixtureInRoom = rule({
  id: 'fixture-in-room',
  title: 'Fixtures inside their rooms',
  scope: 'fixture',
  needs: ['plan'],
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
