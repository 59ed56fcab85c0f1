import { always } from '#core/tables/editions.ts';
import { rule } from '../rule.ts';
import { LARGEST_SERVICE } from '#core/tables/scope.ts';

export const serviceOutOfScope = rule({
  id: 'service-out-of-scope',
  title: 'Service that is not judged here',
  scope: 'panel',
  needs: ['panel'],
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
