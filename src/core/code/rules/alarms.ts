import { always } from '#core/tables/editions.ts';
import { rule } from '../rule.ts';

export const alarms = rule({
  id: 'alarms',
  title: 'Smoke and carbon monoxide alarms',
  scope: 'house',
  needs: ['plan'],
  level: 'note',
  sections: always('not the electrical code: the building code in force'),
  why: 'How many and where is the building code’s; whether they are there is everybody’s.',
  check(_house, view) {
    const alarms = view.rows('boxes').filter((b) => b.device.kind === 'smoke-alarm' && b.status !== 'remove');
    const bedrooms = view.rows('areas').filter((a) => a.kind === 'bedroom');
    if (alarms.length === 0 && bedrooms.length === 0) return [];
    const without = bedrooms.filter((a) => !alarms.some((b) => b.areaId === a.id)).map((a) => a.name);
    const there = alarms.length === 0 ? 'no alarm is on record' : `${alarms.length} on record`;
    return [
      {
        level: 'note',
        message: `smoke and carbon monoxide alarms: ${there}${without.length > 0 ? `; none in ${without.join(', ')}` : ''}. How many and where the building code in force says: ask the inspector`,
      },
    ];
  },
});
