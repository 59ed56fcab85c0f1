import { always } from '#core/tables/editions.ts';
import { outOfReach } from '../outOfReach.ts';
import { changeBox, rule } from '../rule.ts';

export const gfciAccessible = rule({
  id: 'gfci-accessible',
  title: 'GFCI device within reach',
  scope: 'box',
  clears: ['plan'],
  level: 'violation',
  sections: always('210.8'),
  why: 'A device that trips behind the refrigerator is neither tested nor reset.',
  check(box, view) {
    if (box.status === 'remove' || box.device.kind !== 'gfci') return [];
    const why = outOfReach(view, box);
    return why === null
      ? [{ level: 'satisfied', message: `${box.name}: the GFCI device is within reach` }]
      : [
          {
            level: 'violation',
            message: `${box.name}: the GFCI device is ${why}`,
            fixes: [
              {
                label: `Install a plain receptacle at ${box.name}, with GFCI upstream`,
                command: changeBox(box, { device: { ...box.device, kind: 'duplex' } }),
              },
            ],
          },
        ];
  },
});
