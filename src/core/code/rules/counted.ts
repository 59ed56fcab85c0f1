/** Receptacles that a rule asking for one, or for some, may count. */
import type { Area, Box } from '#core/job/schema.ts';
import { isSmallReceptacle } from '#core/plan/wallSpaces.ts';
import type { Verdict } from '../rule.ts';
import type { View } from '#core/view/view.ts';
import { plural } from '#core/units/words.ts';
import { placeFix } from './spacing.ts';

/** A 15 or 20 A, 125 V receptacle that is to stay and that people can reach. */
export const isGeneral = (box: Box): boolean =>
  isSmallReceptacle(box) &&
  box.status !== 'remove' &&
  box.mount !== 'in-luminaire' &&
  box.mount !== 'in-cabinet';

/** One verdict: enough receptacles in an area, or too few. */
export function countVerdict(
  view: View,
  area: Area,
  least: number,
  what: string,
  counts: (box: Box) => boolean,
  section?: string,
): Verdict[] {
  const found = view.boxesIn(area).filter((b) => isGeneral(b) && counts(b));
  const names = found.map((b) => b.name).join(', ');
  return found.length >= least
    ? [{ level: 'satisfied', section, message: `${area.name}: ${what}: ${names}` }]
    : [
        {
          level: 'violation',
          section,
          message: `${area.name} has ${found.length} of ${plural(least, 'receptacle')}: ${what}`,
          fixes: [placeFix(area)],
        },
      ];
}
