import { NEAR_WATER } from '#core/tables/areas.ts';
import { isSmallReceptacle } from '#core/plan/wallSpaces.ts';
import type { Box } from '#core/job/schema.ts';
import { OUTDOOR_OUTLETS, type Decision } from '../decisions.ts';
import { changeBreaker, changeDevice, rule, type Fix, type Verdict } from '../rule.ts';
import { type View } from '#core/view/view.ts';
import { verdictFromDecision } from './fromDecision.ts';

/** A GFCI receptacle here where one fits, and a breaker that carries it. */
function fixesFor(box: Box, view: View): Fix[] {
  const circuit = view.circuitOf(box.id);
  const fixes: Fix[] = isSmallReceptacle(box)
    ? [{ label: `Fit a GFCI receptacle at ${box.name}`, command: changeDevice(box, { kind: 'gfci' }) }]
    : [];
  if (circuit) {
    const protection = ['afci', 'dual'].includes(circuit.breaker.protection) ? 'dual' : 'gfci';
    fixes.push({
      label: protection === 'dual' ? 'Fit a dual-function breaker' : 'Fit a GFCI breaker',
      command: changeBreaker(circuit, { protection }),
    });
  }
  return fixes;
}

/** What is said of GFCI, for the outlets of 210.8(F) or for all others. */
const verdicts = (box: Box, view: View, outdoorOutlets: boolean): Verdict[] => {
  // Only what has no plug is among the outlets of 210.8(F).
  if (outdoorOutlets && box.device.kind !== 'hard-wired') return [];
  const belongs = ({ section }: Decision) => section.includes(OUTDOOR_OUTLETS) === outdoorOutlets;
  return verdictFromDecision('gfci', box, view, () => fixesFor(box, view), belongs);
};

export const gfci = rule({
  id: 'gfci',
  title: 'GFCI protection',
  scope: 'box',
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

export const outdoorOutlets = rule({
  id: 'outdoor-outlets',
  title: 'GFCI for outdoor equipment without a plug',
  scope: 'box',
  level: 'violation',
  sections: { '2017': 'not in 2017', '2020': OUTDOOR_OUTLETS, '2023': OUTDOOR_OUTLETS },
  why: 'A fault in a heat pump outdoors makes its metal live to whoever touches it. Many places delay this by amendment.',
  check: (box, view) => verdicts(box, view, true),
});
