import { always } from '#core/tables/editions.ts';
import { countersCovered } from '#core/plan/coverage.ts';
import { outlineOf } from '#core/job/outline.ts';
import { floorLineOf, notServingCounter } from '#core/plan/counters.ts';
import { isReceptacle, notCounted as notCountedAtWall } from '#core/plan/wallSpaces.ts';
import { rule } from '../rule.ts';
import { hasWallRule } from '#core/tables/areas.ts';

export const notCounted = rule({
  id: 'not-counted',
  title: 'Receptacle that does not count toward spacing',
  scope: 'box',
  needs: ['plan'],
  level: 'note',
  sections: always('210.52'),
  why: 'It may stay, but the wall or counter there is judged as if it were not.',
  check(box, view) {
    const area = view.document.areas[box.areaId];
    if (!area || box.status === 'remove' || !isReceptacle(box) || box.fixtureId !== null) return [];
    if (countersCovered(view, area)?.length === 0 && !hasWallRule(area)) return [];
    const outline = outlineOf(area);
    const wall = outline.walls.find((w) => w.id === box.wallId);
    const at = wall ? wall.start + box.offset : NaN;
    const atCounter = view.fixturesIn(area).some((f) => {
      const line = f.kind === 'counter' || f.kind === 'appliance-garage' ? floorLineOf(outline, f) : null;
      return line !== null && at >= line.from && at <= line.to;
    });
    if (atCounter && countersCovered(view, area) !== null) {
      const why = notServingCounter(box, outline, view.fixturesIn(area));
      return why === null
        ? []
        : [
            {
              level: 'note',
              section: '210.52(C)',
              message: `${box.name} does not count for the counter: it ${why}`,
            },
          ];
    }
    const why = hasWallRule(area) ? notCountedAtWall(box) : null;
    return why === null || box.serves !== null
      ? []
      : [
          {
            level: 'note',
            section: '210.52(A)',
            message: `${box.name} does not count for the wall: it ${why}`,
          },
        ];
  },
});
