import { always } from '#core/tables/editions.ts';
import { wallCoverage } from '#core/plan/coverage.ts';
import { crossingWalls, isClosed, outlineOf } from '#core/job/outline.ts';
import { REACH } from '#core/plan/wallSpaces.ts';
import { rule } from '../rule.ts';
import { hasWallRule } from '#core/tables/areas.ts';
import { spacingVerdicts } from './spacing.ts';

export const wallSpacing = rule({
  id: 'wall-spacing',
  title: 'Receptacles along walls',
  scope: 'area',
  needs: ['plan'],
  level: 'violation',
  sections: always('210.52(A)'),
  why: 'A lamp or appliance with the usual 6 ft cord should reach an outlet without an extension cord.',
  limit: { value: REACH, unit: 'in', tighter: 'less', of: 'reach along the wall' },
  check(area, view) {
    const outline = outlineOf(area);
    if (!hasWallRule(area) || !isClosed(outline) || crossingWalls(outline)) return [];
    return spacingVerdicts(area, wallCoverage(view, area) ?? [], {
      noun: 'wall',
      reach: view.limit('wall-spacing', REACH),
    });
  },
});
