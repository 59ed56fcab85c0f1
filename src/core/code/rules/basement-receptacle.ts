import { always } from '#core/tables/editions.ts';
import { rule } from '../rule.ts';
import { countVerdict } from './counted.ts';

export const basementReceptacle = rule({
  id: 'basement-receptacle',
  title: 'Receptacle in each unfinished part of a basement',
  scope: 'area',
  blames: ['plan'],
  level: 'violation',
  sections: always('210.52(G)(3)'),
  why: 'Besides the outlets for equipment, somebody will plug in a pump, a light or a tool.',
  check(area, view) {
    if (area.kind !== 'basement-unfinished') return [];
    return countVerdict(
      view,
      area,
      1,
      'at least one besides those for specific equipment',
      (b) => b.serves === null && b.purpose !== 'alarm-system' && b.purpose !== 'equipment-service',
    );
  },
});
