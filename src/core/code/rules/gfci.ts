import { NEAR_WATER } from '#core/tables/areas.ts';
import { rule } from '../rule.ts';
import { verdicts } from './gfciVerdicts.ts';

export const gfci = rule({
  id: 'gfci',
  title: 'GFCI protection',
  scope: 'box',
  blames: ['order', 'all outlets'],
  level: 'violation',
  sections: {
    '2017': '210.8(A), (D), (E)',
    '2020': '210.8(A), (C), (D), (E)',
    '2023': '210.8(A), (C), (D), (E)',
  },
  why: 'Near water or earth a few milliamperes through a person can kill; a GFCI opens before they do.',
  limit: { value: NEAR_WATER, unit: 'in', tighter: 'more', of: 'distance to a sink, tub or shower' },
  check: (box, view) => verdicts(box, view, false),
});
