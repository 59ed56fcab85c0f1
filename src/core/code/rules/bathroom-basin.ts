import { always } from '#core/tables/editions.ts';
import { outlineOf } from '#core/job/outline.ts';
import type { Area, Fixture } from '#core/job/schema.ts';
import { BASIN_REACH, cordTo } from '#core/plan/reach.ts';
import { formatLength } from '#core/units/length.ts';
import { rule } from '../rule.ts';
import { isGeneral } from './counted.ts';
import { placeFix } from './spacing.ts';

/** Lowest on a cabinet's side or face below its top, inches. */
const BELOW_TOP = 12;

/** Walls beside a basin: its own, straight on, and around the corner at each end. */
export function wallsBeside(area: Area, { wallId }: Fixture): Set<string> {
  const { walls } = outlineOf(area);
  const own = walls.findIndex((w) => w.id === wallId);
  if (own < 0) return new Set();
  const beside = new Set(wallId === null ? [] : [wallId]);
  for (const step of [1, -1]) {
    for (let at = own, corners = 0; corners < 1 && beside.size < walls.length;) {
      const next = (at + step + walls.length) % walls.length;
      // The turn between two walls is at the end of the earlier one.
      const turn = area.walls[step === 1 ? at : next]?.turn ?? 0;
      if (Math.abs(turn) > 1) corners++;
      beside.add(walls[next]!.id);
      at = next;
    }
  }
  return beside;
}

export const bathroomBasin = rule({
  id: 'bathroom-basin',
  title: 'Receptacle at each vanity sink',
  scope: 'fixture',
  needs: ['plan'],
  level: 'violation',
  sections: always('210.52(D)'),
  why: 'Shavers and dryers are used at the sink; without an outlet there cords cross it.',
  limit: { value: BASIN_REACH, unit: 'in', tighter: 'less', of: 'distance from the vanity sink' },
  check(fixture, view) {
    const area = view.document.areas[fixture.areaId];
    if (fixture.kind !== 'basin' || area?.kind !== 'bathroom' || fixture.status === 'remove') return [];
    const limit = view.limit('bathroom-basin', BASIN_REACH);
    const beside = wallsBeside(area, fixture);
    const found = view
      .boxesIn(area)
      .filter(
        (b) =>
          isGeneral(b) &&
          ((b.mount === 'wall' && b.wallId !== null && beside.has(b.wallId)) ||
            b.mount === 'counter-assembly' ||
            (b.mount === 'cabinet-face' && fixture.height - b.height <= BELOW_TOP)),
      )
      .flatMap((box) => {
        const path = cordTo(view, box, fixture, limit);
        return path ? [{ box, distance: path.distance }] : [];
      })
      .sort((a, b) => a.distance - b.distance)[0];
    if (!found) {
      return [
        {
          level: 'violation',
          message: `no receptacle within ${formatLength(limit)} of the ${fixture.name} in ${area.name}, on a wall beside it, at its top, or on its cabinet within 12" below`,
          limit: { value: limit, unit: 'in' },
          fixes: [placeFix(area)],
        },
      ];
    }
    return [
      {
        level: 'satisfied',
        message: `${found.box.name} is ${formatLength(found.distance)} from the edge of the ${fixture.name} in ${area.name}`,
        measured: { value: found.distance, unit: 'in' },
        limit: { value: limit, unit: 'in' },
      },
    ];
  },
});
