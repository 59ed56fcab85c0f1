import { always } from '#core/tables/editions.ts';
import { rule } from '../rule.ts';
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
