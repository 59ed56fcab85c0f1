import { always } from '#core/tables/editions.ts';
import { countersCovered } from '#core/plan/coverage.ts';
import { COUNTER_REACH } from '#core/plan/counters.ts';
import { rule } from '../rule.ts';
import { spacingVerdicts } from './spacing.ts';

export const counterSpacing = rule({
  id: 'counter-spacing',
  title: 'Receptacles along counters',
  scope: 'area',
  needs: ['plan'],
  level: 'violation',
  sections: always('210.52(C)(1)'),
  why: 'Kitchen appliances have 2 ft cords so that they do not trail over the edge or across a range or sink.',
  limit: { value: COUNTER_REACH, unit: 'in', tighter: 'less', of: 'reach along the counter' },
  check(area, view) {
    const spaces = countersCovered(view, area) ?? [];
    return spaces.length === 0
      ? []
      : spacingVerdicts(area, spaces, {
          noun: 'counter',
          reach: view.limit('counter-spacing', COUNTER_REACH),
        });
  },
});
