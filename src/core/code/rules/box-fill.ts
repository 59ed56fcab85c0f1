import { contentsOf, roomOf } from '#core/boxes/contents.ts';
import { fillOf, fits, smallestBox } from '#core/boxes/fill.ts';
import { always } from '#core/tables/editions.ts';
import { round } from '#core/units/quantity.ts';
import { rule } from '../rule.ts';

export const boxFill = rule({
  id: 'box-fill',
  title: 'Room in the box',
  scope: 'box',
  level: 'violation',
  sections: always('314.16'),
  why: 'Conductors that are crammed in are nicked and run hot where nobody sees them.',
  check(box, view) {
    if (box.status === 'remove') return [];
    const room = roomOf(box);
    if (room === null) return [];
    const contents = contentsOf(view, box);
    if (!contents.ok)
      return [{ level: 'unknown', message: `${box.name}: its fill is not judged: ${contents.message}` }];
    const fill = fillOf(contents.value, view.edition);
    const quantities = {
      measured: { value: round(fill.volume, 2), unit: 'in³' },
      limit: { value: room, unit: 'in³' },
    } as const;
    const sum = `${round(fill.volume, 2)} in³ of ${round(room, 2)}`;
    if (fits(fill, room))
      return [
        {
          level: 'satisfied',
          message: `${box.name}: ${sum}${box.enclosure.clamps === 'unknown' ? ', clamps inside counted' : ''}`,
          ...quantities,
        },
      ];
    const other = smallestBox(fill, 'nonmetallic');
    return [
      {
        level: box.status === 'existing' ? 'note' : 'violation',
        message: `${box.name}: ${sum}${box.status === 'existing' ? ', as found and not altered' : ''}${other ? `; a box of ${other.volume} in³ takes it` : ''}`,
        ...quantities,
      },
    ];
  },
});
