import { always } from '#core/tables/editions.ts';
import { openingsIn } from '#core/plan/joined.ts';
import { isClosed, outlineOf } from '#core/job/outline.ts';
import { floorLineOf } from '#core/plan/counters.ts';
import { notCounted } from '#core/plan/wallSpaces.ts';
import { rule, type Verdict } from '../rule.ts';
import { hasWallRule } from '#core/tables/areas.ts';
import { placeFix } from './spacing.ts';

/** A wall shorter than this is left alone, inches. */
const LEAST_WALL = 24;
/** A television's outlet is behind it or this near, inches. */
const AT_TELEVISION = 12;

export const everyWall = rule({
  id: 'every-wall',
  title: 'A receptacle on every wall, by shop habit',
  scope: 'area',
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

export const atTelevision = rule({
  id: 'at-television',
  title: 'One more where a television goes, by shop habit',
  scope: 'fixture',
  level: 'recommended',
  sections: always('shop habit'),
  why: 'Two halves are gone with the set and its box.',
  check(fixture, view) {
    const area = view.document.areas[fixture.areaId];
    if (fixture.kind !== 'television' || !area || !view.document.job.settings.extraAtTelevision) return [];
    const line = floorLineOf(outlineOf(area), fixture);
    const near = view.boxesIn(area).filter((b) => {
      const wall = outlineOf(area).walls.find((w) => w.id === b.wallId);
      const at = wall ? wall.start + b.offset : NaN;
      return (
        notCounted(b) === null &&
        line !== null &&
        at >= line.from - AT_TELEVISION &&
        at <= line.to + AT_TELEVISION
      );
    });
    return near.length >= 2
      ? [{ level: 'satisfied', message: `${near.map((b) => b.name).join(', ')} at the ${fixture.name}` }]
      : [
          {
            level: 'recommended',
            message: `${near.length} of 2 receptacles at the ${fixture.name} in ${area.name}`,
            fixes: [placeFix(area)],
          },
        ];
  },
});
