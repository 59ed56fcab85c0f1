/** What is said of GFCI, and how it is mended. */
import { isSmallReceptacle } from '#core/plan/wallSpaces.ts';
import type { Box } from '#core/job/schema.ts';
import { OUTDOOR_OUTLETS, type Decision } from '../decisions.ts';
import { changeBreaker, changeDevice, type Fix, type Verdict } from '../rule.ts';
import { type View } from '#core/view/view.ts';
import { verdictFromDecision } from './fromDecision.ts';

/** A GFCI receptacle here where one fits, and a breaker that carries it. */
function fixesFor(box: Box, view: View): Fix[] {
  const circuit = view.circuitOf(box.id);
  const fixes: Fix[] = isSmallReceptacle(box)
    ? [{ label: `Install a GFCI receptacle at ${box.name}`, command: changeDevice(box, { kind: 'gfci' }) }]
    : [];
  if (circuit) {
    const protection = ['afci', 'dual'].includes(circuit.breaker.protection) ? 'dual' : 'gfci';
    fixes.push({
      label: protection === 'dual' ? 'Install a dual-function breaker' : 'Install a GFCI breaker',
      command: changeBreaker(circuit, { protection }),
    });
  }
  return fixes;
}

/** What is said of GFCI, for the outlets of 210.8(F) or for all others. */
export const verdicts = (box: Box, view: View, outdoorOutlets: boolean): Verdict[] => {
  // Only what has no plug is among the outlets of 210.8(F).
  if (outdoorOutlets && box.device.kind !== 'hardwired') return [];
  const belongs = ({ section }: Decision) => section.includes(OUTDOOR_OUTLETS) === outdoorOutlets;
  return verdictFromDecision('gfci', box, view, () => fixesFor(box, view), belongs);
};
