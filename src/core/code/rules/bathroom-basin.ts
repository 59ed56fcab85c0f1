import { always } from '#core/tables/editions.ts';
import { cordTo } from '#core/plan/reach.ts';
import { formatLength } from '#core/units/length.ts';
import { rule } from '../rule.ts';
import { isGeneral } from './counted.ts';
import { placeFix } from './spacing.ts';

/** Farthest from the basin's outside edge, inches. */
export const BASIN_REACH = 36;
/** Lowest on a cabinet's side or face below its top, inches. */
const BELOW_TOP = 12;

export const bathroomBasin = rule({
  id: 'bathroom-basin',
  title: 'Receptacle at each bathroom basin',
  scope: 'fixture',
  level: 'violation',
  sections: always('210.52(D)'),
  why: 'Shavers and dryers are used at the basin; without an outlet there cords cross it.',
  limit: { value: BASIN_REACH, unit: 'in', tighter: 'less', of: 'distance from the basin' },
  check(fixture, view) {
    const area = view.document.areas[fixture.areaId];
    if (fixture.kind !== 'basin' || area?.kind !== 'bathroom' || fixture.status === 'remove') return [];
    const limit = view.limit('bathroom-basin', BASIN_REACH);
    const found = view
      .boxesIn(area)
      .filter(
        (b) =>
          isGeneral(b) &&
          (b.mount === 'wall' ||
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
          message: `no receptacle within ${formatLength(limit)} of the ${fixture.name} in ${area.name}`,
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
