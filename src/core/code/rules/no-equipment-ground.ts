import { always } from '#core/tables/editions.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { decisionOn } from '../decisions.ts';
import { changeBox, changeDevice, rule } from '../rule.ts';
import { byAge } from './reach.ts';

export const noEquipmentGround = rule({
  id: 'no-equipment-ground',
  title: 'Receptacle without an equipment ground',
  scope: 'box',
  blames: ['order', 'all outlets'],
  level: 'violation',
  sections: always('406.4(D)(2)'),
  why: 'A third slot promises a ground; without one, a fault leaves the appliance’s metal live unless a GFCI is upstream.',
  check(box, view) {
    if (box.status === 'remove' || !isReceptacle(box)) return [];
    // Ranges and dryers have a rule of their own.
    if (box.device.volts === '125/250' && box.device.rating >= 30) return [];
    if (box.grounding === 'unknown') {
      return [
        { level: 'unknown', message: `${box.name}: not recorded whether the box has an equipment ground` },
      ];
    }
    if (box.grounding === 'grounded') {
      if (box.device.kind !== 'two-slot') return [];
      return [
        byAge(box, {
          level: 'violation',
          section: '406.4(D)(1)',
          message: `${box.name}: a ground is in the box, and a two-slot receptacle leaves it unused; install a grounding type`,
          fixes: [
            {
              label: `Install a grounding receptacle at ${box.name}`,
              command: changeDevice(box, { kind: 'duplex', tamperResistant: true }),
            },
          ],
        }),
      ];
    }
    if (box.status === 'new')
      return [
        {
          level: 'violation',
          section: '406.4(A), 250.130(C)',
          message: `${box.name} is a new outlet without a ground: bring one; a GFCI and labels serve replacements only`,
          fixes: [
            {
              label: `Bring a ground to ${box.name}, 250.130(C)`,
              command: changeBox(box, { grounding: 'grounded' }),
            },
          ],
        },
      ];
    const section = '406.4(D)(2)';
    if (box.device.kind === 'two-slot') {
      return [
        {
          level: 'satisfied',
          message: `${box.name}: no ground in the box, two-slot receptacle`,
          section: `${section}(a)`,
        },
      ];
    }
    const provided = decisionOn('gfci', view, box)?.providedBy;
    if (provided) {
      const part = box.device.kind === 'gfci' ? '(b)' : '(c)';
      return [
        {
          level: 'satisfied',
          message: `${box.name}: no ground in the box; protected by ${provided}, with its labels`,
          section: `${section}${part}`,
        },
      ];
    }
    return [
      {
        level: 'violation',
        message: `${box.name} has three slots and no ground in the box, and no GFCI protects it`,
        section,
        fixes: [
          { label: `Install a GFCI receptacle at ${box.name}`, command: changeDevice(box, { kind: 'gfci' }) },
          {
            label: `Install a two-slot receptacle at ${box.name}`,
            command: changeDevice(box, { kind: 'two-slot' }),
          },
        ],
      },
    ];
  },
});
