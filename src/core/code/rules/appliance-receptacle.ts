import { always } from '#core/tables/editions.ts';
import { cordTo } from '#core/plan/reach.ts';
import type { Box, Fixture } from '#core/job/schema.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { formatLength } from '#core/units/length.ts';
import { rule } from '../rule.ts';
import type { View } from '#core/view/view.ts';
import { isGeneral } from './counted.ts';
import { placeFix } from './spacing.ts';

/** Farthest from the place of the appliance, inches. */
export const APPLIANCE_REACH = 72;

/** Whether an appliance's plug fits a general 125 V receptacle. */
const isSmall = ({ nameplate }: Fixture) => nameplate === null || nameplate.volts <= 130;

/** Receptacles an appliance may be plugged into: its own, or for a small one any. */
const candidates = (view: View, fixture: Fixture): Box[] => {
  const own = view.boxesServing(fixture.id).filter(isReceptacle);
  if (own.length > 0 || !isSmall(fixture)) return own;
  const home = view.document.areas[fixture.areaId];
  return home ? view.boxesIn(home).filter((b) => isGeneral(b) && b.serves === null) : [];
};

export const applianceReceptacle = rule({
  id: 'appliance-receptacle',
  title: 'Receptacle at the place of an appliance',
  scope: 'fixture',
  needs: ['plan'],
  level: 'violation',
  sections: always('210.50(C)'),
  why: 'An appliance cord is 6 ft or shorter, and an extension cord is not a repair for a missing outlet.',
  limit: { value: APPLIANCE_REACH, unit: 'in', tighter: 'less', of: 'distance from the appliance' },
  check(fixture, view) {
    const area = view.document.areas[fixture.areaId];
    if (fixture.connection !== 'cord' || !area || fixture.status === 'remove') return [];
    const limit = view.limit('appliance-receptacle', APPLIANCE_REACH);
    const reached = candidates(view, fixture)
      .flatMap((box) => {
        const path = cordTo(view, box, fixture, limit);
        return path ? [{ box, distance: path.distance }] : [];
      })
      .sort((a, b) => a.distance - b.distance)[0];
    return reached
      ? [
          {
            level: 'satisfied',
            message: `${reached.box.name} is ${formatLength(reached.distance)} by cord from the ${fixture.name}`,
            measured: { value: reached.distance, unit: 'in' },
            limit: { value: limit, unit: 'in' },
          },
        ]
      : [
          {
            level: 'violation',
            message: `no receptacle for the ${fixture.name} in ${area.name} within ${formatLength(limit)} by cord`,
            limit: { value: limit, unit: 'in' },
            fixes: [placeFix(area)],
          },
        ];
  },
});
