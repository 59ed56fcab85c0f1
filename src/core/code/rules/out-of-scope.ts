import { always } from '#core/tables/editions.ts';
import { rule } from '../rule.ts';
import { LARGEST_SERVICE } from '#core/tables/scope.ts';
import { outOfScope } from '#core/tables/fixtures.ts';

export const equipmentOutOfScope = rule({
  id: 'equipment-out-of-scope',
  title: 'Equipment that is not judged here',
  scope: 'fixture',
  level: 'unknown',
  sections: always('Articles 680, 690, 702 and others'),
  why: 'Pools, tubs, saunas, generators and inverters have articles of their own, and silence is no approval.',
  check(fixture) {
    const scope = outOfScope(fixture);
    return scope === null || fixture.status === 'remove'
      ? []
      : [
          {
            level: 'unknown',
            section: scope.article,
            message: `${fixture.name} is not judged: ${scope.article}; ${scope.also}. Have it designed and inspected by that article`,
          },
        ];
  },
});

export const serviceOutOfScope = rule({
  id: 'service-out-of-scope',
  title: 'Service that is not judged here',
  scope: 'panel',
  level: 'unknown',
  sections: always('230, 250.66'),
  why: 'Above 400 A a service is engineered work.',
  check: (panel) =>
    panel.feeder === null && panel.mainRating > LARGEST_SERVICE
      ? [
          {
            level: 'unknown',
            message: `a service of ${panel.mainRating} A is not judged: more than ${LARGEST_SERVICE} A is engineered work`,
            measured: { value: panel.mainRating, unit: 'A' },
            limit: { value: LARGEST_SERVICE, unit: 'A' },
          },
        ]
      : [],
});
