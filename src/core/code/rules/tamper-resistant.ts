import { always } from '#core/tables/editions.ts';
import { changeDevice, rule } from '../rule.ts';
import { verdictFromDecision } from './fromDecision.ts';

export const tamperResistant = rule({
  id: 'tamper-resistant',
  title: 'Tamper-resistant receptacles',
  scope: 'box',
  level: 'violation',
  sections: always('406.12'),
  why: 'Shutters keep a child from pushing a hairpin or key into one slot.',
  check: (box, view) =>
    verdictFromDecision('tamper-resistant', box, view, () => [
      { label: `Make ${box.name} tamper-resistant`, command: changeDevice(box, { tamperResistant: true }) },
    ]),
});
