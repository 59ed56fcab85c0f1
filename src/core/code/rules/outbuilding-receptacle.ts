import { always } from '#core/tables/editions.ts';
import { rule } from '../rule.ts';
import { countVerdict } from './counted.ts';

export const outbuildingReceptacle = rule({
  id: 'outbuilding-receptacle',
  title: 'Receptacle in an outbuilding with power',
  scope: 'area',
  blames: ['plan'],
  level: 'violation',
  sections: always('210.52(G)(2)'),
  why: 'Where there is power there will be tools, and tools on a cord from the house.',
  check(area, view) {
    const outbuilding = area.kind === 'accessory' || area.kind === 'boathouse';
    if (!outbuilding || !area.conditions.powered || view.document.job.dwelling === 'multifamily') return [];
    return countVerdict(view, area, 1, 'at least one, as it has power', () => true);
  },
});
