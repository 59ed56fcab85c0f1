import { isTub } from '#core/tables/fixtures.ts';
import { since, always } from '#core/tables/editions.ts';
import type { Area, Box, Fixture } from '#core/job/schema.ts';
import { outlineOf, placeInPlan } from '#core/job/outline.ts';
import { distance, footprint, nearestOnPolygon } from '#core/plan/footprint.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { formatLength } from '#core/units/length.ts';
import { rule } from '../rule.ts';
import { byAge } from './reach.ts';

/** From 2020 on: around the tub's rim or the shower's threshold, and above it, inches. */
const AROUND = 36;
const ABOVE = 96;

const hasZone = (fixture: Fixture) => isTub(fixture) && fixture.status !== 'remove';

const farFrom = (area: Area, target: ReturnType<typeof footprint>): number =>
  Math.max(...outlineOf(area).walls.map((w) => distance(w.from, nearestOnPolygon(w.from, target!))));

function zoneOf(
  area: Area,
  box: Box,
  fixture: Fixture,
  around: number,
): { off: number; bad: boolean } | null {
  const target = footprint(area, fixture);
  const at = placeInPlan(area, box.wallId, box.offset, box.fromWall);
  if (!target || !at) return null;
  const off = distance(at, nearestOnPolygon(at, target));
  if (around === 0) return { off, bad: off < 0.5 };
  // A bathroom too small for the zone may have it opposite, on the wall farthest away.
  const far = farFrom(area, target);
  if (far < around && off > far - 6) return { off, bad: false };
  return { off, bad: off < around - 1e-6 && box.height <= fixture.height + ABOVE };
}

export const tubZone = rule({
  id: 'tub-zone',
  title: 'No receptacle in the zone of a tub or shower',
  scope: 'box',
  needs: ['plan'],
  level: 'violation',
  sections: always('406.9(C)'),
  why: 'Somebody wet, standing or sitting in water, must not be able to reach an outlet.',
  limit: { value: AROUND, unit: 'in', tighter: 'more', of: 'distance around the tub or shower' },
  check(box, view) {
    const area = view.document.areas[box.areaId];
    if (!area || box.status === 'remove' || !isReceptacle(box)) return [];
    const wet = view.fixturesIn(area).filter(hasZone);
    if (wet.length === 0) return [];
    const around = !since(view.edition, '2020') ? 0 : view.limit('tub-zone', AROUND, 'more');
    return wet.flatMap((fixture) => {
      const zone = zoneOf(area, box, fixture, around);
      if (!zone) return [];
      const measured = {
        measured: { value: zone.off, unit: 'in' as const },
        limit: { value: around, unit: 'in' as const },
      };
      return zone.bad
        ? [
            byAge(box, {
              level: 'violation',
              message: `${box.name} is ${formatLength(zone.off)} from the ${fixture.name}${around > 0 ? `; the zone is ${formatLength(around)} around it` : ', inside its space'}`,
              ...measured,
            }),
          ]
        : [
            {
              level: 'satisfied' as const,
              message: `${box.name} is ${formatLength(zone.off)} from the ${fixture.name}`,
              ...measured,
            },
          ];
    });
  },
});
