import { outlineOf, isClosed, crossingWalls } from '../../job/outline.ts';
import { onWalls, REACH } from '../../plan/wallSpaces.ts';
import { formatLength } from '../../units/length.ts';
import { rule, sameSection, type Verdict } from '../rule.ts';
import { AREA_FACTS } from '../tables/areas.ts';

/** `wall 3`, `walls 4, 5 and 6`. */
function wallNames(numbers: readonly number[]): string {
  const last = numbers.at(-1);
  return numbers.length === 1 ? `wall ${last}` : `walls ${numbers.slice(0, -1).join(', ')} and ${last}`;
}

export const wallSpacing = rule({
  id: 'wall-spacing',
  title: 'Receptacles along walls',
  scope: 'area',
  level: 'violation',
  sections: sameSection('210.52(A)'),
  why: 'A lamp or appliance with the usual 6 ft cord should reach an outlet without an extension cord.',
  check(area, view) {
    const outline = outlineOf(area);
    if (!AREA_FACTS[area.kind].wallSpacing || !isClosed(outline) || crossingWalls(outline)) return [];
    const spaces = (view.coverage(area) ?? []).filter((s) => s.required);
    const open = spaces.flatMap((s) => s.uncovered.map((span) => ({ space: s.space, span })));
    if (open.length === 0) {
      return [
        {
          level: 'satisfied',
          message: `every point of ${spaces.length} wall ${spaces.length === 1 ? 'space' : 'spaces'} in ${area.name} is within 6' of a receptacle`,
          limit: { value: REACH, unit: 'in' },
        },
      ];
    }
    return open.map(({ space, span }): Verdict => {
      const spans = onWalls(outline, space, span);
      const walls = [...new Set(spans.map((s) => outline.walls.findIndex((w) => w.id === s.wallId) + 1))];
      return {
        level: 'violation',
        message: `${formatLength(span.to - span.from)} of wall out of reach in ${area.name}, on ${wallNames(walls)}`,
        measured: { value: span.to - span.from, unit: 'in' },
        limit: { value: 0, unit: 'in' },
        spans,
        fixes: [{ label: `Place what is missing in ${area.name}`, placeIn: area.id }],
      };
    });
  },
});
