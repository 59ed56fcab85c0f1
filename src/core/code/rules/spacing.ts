/** What rules about stretches of wall or counter line share. */
import { outlineOf } from '#core/job/outline.ts';
import type { Area } from '#core/job/schema.ts';
import { onWalls, type SpaceCoverage } from '#core/plan/wallSpaces.ts';
import { formatLength } from '#core/units/length.ts';
import type { Verdict } from '../rule.ts';

/** `wall 3`, `walls 4, 5 and 6`. */
function wallNames(numbers: readonly number[]): string {
  const last = numbers.at(-1);
  return numbers.length === 1 ? `wall ${last}` : `walls ${numbers.slice(0, -1).join(', ')} and ${last}`;
}

/** One verdict for every stretch out of reach, or one that says all is reached. */
export function spacingVerdicts(
  area: Area,
  spaces: readonly SpaceCoverage[],
  { noun, reach, section }: { noun: 'wall' | 'counter'; reach: number; section?: string },
): Verdict[] {
  const outline = outlineOf(area);
  const required = spaces.filter((s) => s.required);
  const open = required.flatMap((s) => s.uncovered.map((span) => ({ space: s.space, span })));
  if (open.length === 0) {
    return [
      {
        level: 'satisfied',
        section,
        message: `every point of ${required.length} ${noun} ${required.length === 1 ? 'space' : 'spaces'} in ${area.name} is within ${formatLength(reach)} of a receptacle`,
        limit: { value: reach, unit: 'in' },
      },
    ];
  }
  return open.map(({ space, span }): Verdict => {
    const spans = onWalls(outline, space, span);
    const walls = [...new Set(spans.map((s) => outline.walls.findIndex((w) => w.id === s.wallId) + 1))];
    return {
      level: 'violation',
      section,
      message: `${formatLength(span.to - span.from)} of ${noun} out of reach in ${area.name}, on ${wallNames(walls)}`,
      measured: { value: span.to - span.from, unit: 'in' },
      limit: { value: 0, unit: 'in' },
      spans,
      fixes: [placeFix(area)],
    };
  });
}

export const placeFix = (area: Area) => ({
  label: `Place what is missing in ${area.name}`,
  placeIn: area.id,
});
