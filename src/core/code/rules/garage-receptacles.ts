import { since, always } from '#core/tables/editions.ts';
import { HIGHEST_COUNTED } from '#core/plan/wallSpaces.ts';
import { rule } from '../rule.ts';
import { countVerdict } from './counted.ts';

export const garageReceptacles = rule({
  id: 'garage-receptacles',
  title: 'A receptacle in each vehicle bay',
  scope: 'area',
  level: 'violation',
  sections: always('210.52(G)(1)'),
  why: 'Cords laid across a garage floor are driven over and end in puddles.',
  limit: { value: HIGHEST_COUNTED, unit: 'in', tighter: 'less', of: 'height above the floor' },
  check(area, view) {
    if (area.kind !== 'garage') return [];
    const { detached, powered, attachedToUnit, bays } = area.conditions;
    const { dwelling } = view.document.job;
    if (detached && !powered) return [];
    if (dwelling === 'multifamily' && (!since(view.edition, '2020') || !attachedToUnit)) return [];
    const highest = view.limit('garage-receptacles', HIGHEST_COUNTED);
    const least = Math.max(1, bays);
    return countVerdict(
      view,
      area,
      least,
      `one for each of ${least} vehicle ${least === 1 ? 'bay' : 'bays'}, 5' 6" or lower`,
      (b) => b.height <= highest,
    );
  },
});
