import { always } from '#core/tables/editions.ts';
import type { Area } from '#core/job/schema.ts';
import { rule } from '../rule.ts';
import type { View } from '#core/view/view.ts';
import { countVerdict } from './counted.ts';

/** A laundry, or wherever a washer or dryer is to stand. */
const isLaundryArea = (area: Area, view: View): boolean =>
  area.kind === 'laundry' || view.fixturesIn(area).some((f) => f.kind === 'washer' && f.status !== 'remove');

export const laundryReceptacle = rule({
  id: 'laundry-receptacle',
  title: 'Receptacle for the laundry',
  scope: 'area',
  blames: ['plan'],
  level: 'violation',
  sections: always('210.52(F)'),
  why: 'The washer needs an outlet of its own within reach.',
  check(area, view) {
    if (!isLaundryArea(area, view)) return [];
    const { dwelling, laundryElsewhere } = view.document.job;
    if (dwelling === 'multifamily' && laundryElsewhere) {
      return [
        {
          level: 'satisfied',
          message: `${area.name}: laundry is provided on the premises or not permitted in the unit`,
        },
      ];
    }
    return countVerdict(view, area, 1, 'at least one for the laundry', () => true);
  },
});
