import { always } from '#core/tables/editions.ts';
import { changeDevice, rule } from '../rule.ts';

export const halfSwitchedTab = rule({
  id: 'half-switched-tab',
  title: 'Tab of a half-switched receptacle',
  scope: 'box',
  level: 'violation',
  sections: always('210.70(A)(1), 110.3(B)'),
  why: 'With its hot tab left on, both halves are always hot and the switch does nothing.',
  check(box) {
    const { kind, switched, tabs } = box.device;
    if (box.status === 'remove' || switched !== 'half') return [];
    if (kind !== 'duplex')
      return [
        {
          level: 'violation',
          message: `${box.name} is half-switched on record, and only a duplex has halves`,
          fixes: [{ label: `Make ${box.name} a duplex`, command: changeDevice(box, { kind: 'duplex' }) }],
        },
      ];
    return tabs === 'whole'
      ? [
          {
            level: 'violation',
            message: `${box.name} is half-switched and its hot tab is in place: both halves stay hot`,
            fixes: [
              {
                label: `Break the hot tab off at ${box.name}`,
                command: changeDevice(box, { tabs: 'hot-broken' }),
              },
            ],
          },
        ]
      : [{ level: 'satisfied', message: `${box.name}: half-switched, its hot tab broken off` }];
  },
});
