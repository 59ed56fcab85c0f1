import { always } from '#core/tables/editions.ts';
import { crossingWalls, isClosed, outlineOf, CLOSING_TOLERANCE } from '#core/job/outline.ts';
import { formatInches, formatLength } from '#core/units/length.ts';
import { rule } from '../rule.ts';

export const roomOutline = rule({
  id: 'room-outline',
  title: 'Room outline',
  scope: 'area',
  level: 'unknown',
  sections: always('survey'),
  why: 'Spacing is judged along the floor line, so a room that does not close cannot be judged.',
  check(area) {
    const outline = outlineOf(area);
    if (outline.walls.length === 0)
      return [{ level: 'unknown', message: `${area.name} is not drawn: what needs its walls is not judged` }];
    if (outline.walls.length < 3) {
      return [
        {
          level: 'unknown',
          message: `${area.name} has ${outline.walls.length} walls; a room needs three or more`,
        },
      ];
    }
    const crossing = crossingWalls(outline);
    if (crossing) {
      const [a, b] = crossing;
      return [
        {
          level: 'unknown',
          message: `walls ${a + 1} and ${b + 1} of ${area.name} cross; check their lengths and turns`,
          spans: [outline.walls[a]!, outline.walls[b]!].map((w) => ({ wallId: w.id, from: 0, to: w.length })),
        },
      ];
    }
    const { distance, east, south } = outline.closing;
    if (isClosed(outline)) {
      return [
        {
          level: 'satisfied',
          message: `${area.name} closes within ${formatInches(distance)}`,
          measured: { value: distance, unit: 'in' },
          limit: { value: CLOSING_TOLERANCE, unit: 'in' },
        },
      ];
    }
    const parts = [
      Math.abs(east) >= 1 / 32 && `${formatLength(Math.abs(east))} ${east > 0 ? 'east' : 'west'}`,
      Math.abs(south) >= 1 / 32 && `${formatLength(Math.abs(south))} ${south > 0 ? 'south' : 'north'}`,
    ].filter(Boolean);
    return [
      {
        level: 'unknown',
        message: `${area.name} does not close: the first corner is ${parts.join(' and ')} of the end of the last wall`,
        measured: { value: distance, unit: 'in' },
        limit: { value: CLOSING_TOLERANCE, unit: 'in' },
      },
    ];
  },
});
