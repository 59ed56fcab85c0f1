import { always } from '#core/tables/editions.ts';
import { isClosed, outlineOf } from '#core/job/outline.ts';
import { formatLength } from '#core/units/length.ts';
import { rule } from '../rule.ts';
import { countVerdict } from './counted.ts';

/** Shortest hallway that needs a receptacle, inches along its center line. */
const LEAST_HALL = 120;

/**
 * Length along the center line of a hallway of one width, inches: with half the perimeter h and the floor A,
 * length + width = h and length × width = A, around corners too.
 */
export function centerLine(perimeter: number, floor: number): number {
  const half = perimeter / 2;
  return (half + Math.sqrt(Math.max(0, half * half - 4 * floor))) / 2;
}

export const hallwayReceptacle = rule({
  id: 'hallway-receptacle',
  title: 'Receptacle in a long hallway',
  scope: 'area',
  needs: ['plan'],
  level: 'violation',
  sections: always('210.52(H)'),
  why: 'A vacuum cleaner or night light in a long hall needs an outlet there.',
  limit: { value: LEAST_HALL, unit: 'in', tighter: 'less', of: 'length that needs a receptacle' },
  check(area, view) {
    const outline = outlineOf(area);
    if (area.kind !== 'hallway' || !isClosed(outline)) return [];
    const limit = view.limit('hallway-receptacle', LEAST_HALL);
    const length = centerLine(outline.perimeter, outline.floor);
    if (length < limit - 1e-6) {
      return [
        {
          level: 'satisfied',
          message: `${area.name} is ${formatLength(length)} along its center line; from ${formatLength(limit)} on it needs one`,
          measured: { value: length, unit: 'in' },
          limit: { value: limit, unit: 'in' },
        },
      ];
    }
    return countVerdict(view, area, 1, `at least one in ${formatLength(length)} of hall`, () => true);
  },
});
