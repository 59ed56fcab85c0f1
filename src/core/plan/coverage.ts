/** What the receptacles of a room cover: its wall spaces and its counters. */
import { outlineOf } from '#core/job/outline.ts';
import type { Area, Box } from '#core/job/schema.ts';
import { lookup } from '#core/view/lookup.ts';
import type { View } from '#core/view/view.ts';
import { COUNTER_REACH, counterBreaks, counterCoverage } from './counters.ts';
import { openingsIn } from './joined.ts';
import { coverageOf, REACH, type SpaceCoverage } from './wallSpaces.ts';

/** Wall spaces of 210.52(A) with what covers them; null when the outline does not close. */
export const wallCoverage = lookup(
  ({ subjects }) => subjects.area,
  (view, area: Area): SpaceCoverage[] | null => {
    const fixtures = view.fixturesIn(area);
    const taken = counterBreaks(area, outlineOf(area), fixtures, view.edition);
    const reach = view.limit('wall-spacing', REACH);
    return coverageOf(area, openingsIn(view, area), view.boxesIn(area), taken, reach);
  },
);
/** Counter spaces of 210.52(C) with what covers them; null where that does not apply. */
export const countersCovered = lookup(
  ({ subjects }) => subjects.area,
  (view, area: Area): SpaceCoverage[] | null => {
    const reach = view.limit('counter-spacing', COUNTER_REACH);
    return counterCoverage(area, view.fixturesIn(area), view.boxesIn(area), reach);
  },
);
/** Whether an outlet serves a wall counter space of its room. */
export const countsAtCounter = (view: View, box: Box, area: Area): boolean =>
  (countersCovered(view, area) ?? []).some((s) => s.counted.some((c) => c.box.id === box.id));
