import { changeBreaker, changeDevice, rule, sameSection, type Fix } from '../rule.ts';
import { verdictFromDecision } from './fromDecision.ts';

export const gfci = rule({
  id: 'gfci',
  title: 'GFCI protection',
  scope: 'box',
  level: 'violation',
  sections: sameSection('210.8(A)'),
  why: 'Near water or earth a few milliamperes through a person can kill; a GFCI opens before they do.',
  check: (box, view) =>
    verdictFromDecision('gfci', box, view, () => {
      const circuit = view.circuitOf(box.id);
      const fixes: Fix[] = [
        { label: `Fit a GFCI receptacle at ${box.name}`, command: changeDevice(box, { kind: 'gfci' }) },
      ];
      if (circuit) {
        const protection = ['afci', 'dual'].includes(circuit.breaker.protection) ? 'dual' : 'gfci';
        fixes.push({
          label: protection === 'dual' ? 'Fit a dual-function breaker' : 'Fit a GFCI breaker',
          command: changeBreaker(circuit, { protection }),
        });
      }
      return fixes;
    }),
});
