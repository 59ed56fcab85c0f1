import { OUTDOOR_OUTLETS } from '../decisions.ts';
import { rule } from '../rule.ts';
import { verdicts } from './gfciVerdicts.ts';

export const outdoorOutlets = rule({
  id: 'outdoor-outlets',
  title: 'GFCI for outdoor equipment without a plug',
  scope: 'box',
  blames: ['order', 'all outlets'],
  level: 'violation',
  sections: { '2017': 'not in 2017', '2020': OUTDOOR_OUTLETS, '2023': OUTDOOR_OUTLETS },
  why: 'A fault in a heat pump outdoors makes its metal live to whoever touches it. Many places delay this by amendment.',
  check: (box, view) => verdicts(box, view, true),
});
