import { always } from '#core/tables/editions.ts';
import { openingsIn } from '#core/plan/joined.ts';
import { isClosed, outlineOf } from '#core/job/outline.ts';
import { notCounted } from '#core/plan/wallSpaces.ts';
import { rule, type Verdict } from '../rule.ts';
import { hasWallRule } from '#core/tables/areas.ts';
import { placeFix } from './spacing.ts';

/** A wall shorter than this is left alone, inches. */
const LEAST_WALL = 24;

export const everyWall = rule({
  id: 'every-wall',
  title: 'A receptacle on every wall, by shop habit',
  scope: 'area',
  needs: ['plan'],
  level: 'recommended',
  sections: always('shop habit'),
  why: 'The code measures along corners; furniture does not reach around them.',
  check(area, view) {
    if (!view.document.job.settings.everyWall || !hasWallRule(area) || !isClosed(outlineOf(area))) return [];
    const counted = view.boxesIn(area).filter((b) => notCounted(b) === null);
    const openings = openingsIn(view, area);
    const taken = (wallId: string) =>
      openings.filter((o) => o.wallId === wallId).reduce((sum, o) => sum + o.width, 0) +
      view
        .fixturesIn(area)
        .filter((f) => f.wallId === wallId && f.fastened)
        .reduce((sum, f) => sum + f.width, 0);
    return area.walls.flatMap((wall, i): Verdict[] =>
      wall.length - taken(wall.id) < LEAST_WALL || counted.some((b) => b.wallId === wall.id)
        ? []
        : [
            {
              level: 'recommended',
              message: `wall ${i + 1} of ${area.name} has no receptacle`,
              spans: [{ wallId: wall.id, from: 0, to: wall.length }],
              fixes: [placeFix(area)],
            },
          ],
    );
  },
});
