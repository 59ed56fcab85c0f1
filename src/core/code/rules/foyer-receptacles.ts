import { always } from '#core/tables/editions.ts';
import { wallCoverage } from '#core/plan/coverage.ts';
import { isClosed, outlineOf } from '#core/job/outline.ts';
import { onWalls } from '#core/plan/wallSpaces.ts';
import { round } from '#core/units/quantity.ts';
import { rule, type Verdict } from '../rule.ts';
import { placeFix } from './spacing.ts';

/** Largest foyer that needs none, square feet. */
const SMALL_FOYER = 60;
/** Shortest wall space of a foyer that needs one, inches. */
export const FOYER_WALL = 36;

export const foyerReceptacles = rule({
  id: 'foyer-receptacles',
  title: 'Receptacles in a foyer',
  scope: 'area',
  needs: ['plan'],
  level: 'violation',
  sections: always('210.52(I)'),
  why: 'A foyer that is a room gets lamps and cleaners like a room.',
  limit: { value: FOYER_WALL, unit: 'in', tighter: 'less', of: 'wall space that needs one' },
  check(area, view) {
    const outline = outlineOf(area);
    if (area.kind !== 'foyer' || !isClosed(outline)) return [];
    const floor = outline.floor / 144;
    if (floor <= SMALL_FOYER) {
      return [
        {
          level: 'satisfied',
          message: `${area.name} has ${round(floor, 1)} ft²; up to ${SMALL_FOYER} ft² a foyer needs none`,
        },
      ];
    }
    const least = view.limit('foyer-receptacles', FOYER_WALL);
    const spaces = (wallCoverage(view, area) ?? []).filter((s) => s.space.length >= least - 1e-6);
    const bare = spaces.filter((s) => s.counted.length === 0);
    if (bare.length === 0) {
      return [
        {
          level: 'satisfied',
          message: `${area.name}: a receptacle in each of ${spaces.length} wall spaces of 3' or more`,
        },
      ];
    }
    return bare.map(({ space }): Verdict => ({
      level: 'violation',
      message: `a wall space of 3' or more in ${area.name} has no receptacle`,
      measured: { value: space.length, unit: 'in' },
      limit: { value: least, unit: 'in' },
      spans: onWalls(outline, space, { from: 0, to: space.length }),
      fixes: [placeFix(area)],
    }));
  },
});
