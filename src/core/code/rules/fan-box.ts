import { carriesFan } from '#core/boxes/seen.ts';
import { always } from '#core/tables/editions.ts';
import { changeBox, rule } from '../rule.ts';
import { byAge } from './reach.ts';

export const fanBox = rule({
  id: 'fan-box',
  title: 'Box that carries a fan',
  scope: 'box',
  level: 'violation',
  sections: always('314.27(C)'),
  why: 'A fan shakes for years; an ordinary box comes loose and the fan comes down.',
  check(box) {
    const { fanBox: listed } = box.seen;
    if (box.status === 'remove' || !carriesFan(box)) return [];
    if (listed === 'yes')
      return [{ level: 'satisfied', message: `${box.name}: a box listed to carry a fan` }];
    if (listed === 'unknown')
      return [
        {
          level: 'unknown',
          message: `${box.name} carries a fan: whether its box is listed for one is not on record`,
        },
      ];
    return [
      byAge(box, {
        level: 'violation',
        message: `${box.name} carries a fan on a box that is not listed for one`,
        fixes: [
          {
            label: `Install a fan-rated box at ${box.name}`,
            command: changeBox(box, { seen: { ...box.seen, fanBox: 'yes' } }),
          },
        ],
      }),
    ];
  },
});
