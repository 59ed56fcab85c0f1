import { since, always } from '#core/tables/editions.ts';
import type { Area } from '#core/job/schema.ts';
import { formatLength } from '#core/units/length.ts';
import { rule } from '../rule.ts';
import type { View } from '#core/view/view.ts';
import { countVerdict } from './counted.ts';

/** Highest above the walking surface or grade that counts outdoors, inches. */
export const HIGHEST_OUTDOORS = 78;
/** Widest gap to the house from 2020 on, inches. */
const WIDEST_GAP = 4;

/** Why a deck, porch or balcony needs none, or null when it does. A gap not measured counts as none. */
export function deckExcused(area: Area, view: View): string | null {
  const { houseGap, reachedFromInside } = area.conditions;
  if (!since(view.edition, '2020')) {
    if (!reachedFromInside) return 'it is not reached from inside (2017)';
    return houseGap === null || houseGap === 0 ? null : 'it is not attached to the house (2017)';
  }
  return houseGap === null || houseGap <= WIDEST_GAP
    ? null
    : `it is ${formatLength(houseGap)} from the house; up to 4" counts`;
}

export const deckReceptacle = rule({
  id: 'deck-receptacle',
  title: 'Receptacle at a deck, porch or balcony',
  scope: 'area',
  needs: ['plan'],
  level: 'violation',
  sections: always('210.52(E)(3)'),
  why: 'People sit, cook and hang lights there; a cord through a door is pinched and cut.',
  limit: { value: HIGHEST_OUTDOORS, unit: 'in', tighter: 'less', of: 'height above the walking surface' },
  check(area, view) {
    if (area.kind !== 'deck') return [];
    const excused = deckExcused(area, view);
    if (excused !== null) return [{ level: 'satisfied', message: `${area.name} needs none: ${excused}` }];
    const highest = view.limit('deck-receptacle', HIGHEST_OUTDOORS);
    return countVerdict(
      view,
      area,
      1,
      `one reached from it, ${formatLength(highest)} or less above its surface`,
      (b) => b.height <= highest && b.accessible,
    );
  },
});
