import { always } from '#core/tables/editions.ts';
import { outlineOf } from '#core/job/outline.ts';
import { floorLineOf } from '#core/plan/counters.ts';
import { notCounted } from '#core/plan/wallSpaces.ts';
import { rule } from '../rule.ts';
import { placeFix } from './spacing.ts';

/** A television's outlet is behind it or this near, inches. */
const AT_TELEVISION = 12;

export const atTelevision = rule({
  id: 'at-television',
  title: 'One more where a television goes, by shop habit',
  scope: 'fixture',
  needs: ['plan'],
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
