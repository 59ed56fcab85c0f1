/**
 * Counter spaces of 210.52(C): the wall line behind counters, divided by ranges, sinks and refrigerators, and
 * the islands and peninsulas that stand away from it. Positions run along the floor line, inches.
 */
import { FIXTURES, isCounter, isIsland } from '#core/tables/fixtures.ts';
import { since } from '#core/tables/editions.ts';
import { isClosed, outlineOf, type Outline } from '#core/job/outline.ts';
import type { Area, AreaKind, Box, Edition, Fixture } from '#core/job/schema.ts';
import { coveredBy, isSmallReceptacle, type SpaceCoverage, type Span, type WallSpace } from './wallSpaces.ts';

/** No point of a counter's wall line may be farther from a receptacle, inches. */
export const COUNTER_REACH = 24;
/** Shortest wall counter space that needs a receptacle, inches. */
const LEAST_COUNTER = 12;
/** Highest a counter receptacle may be above the counter, inches. */
export const ABOVE_COUNTER = 20;
/** A counter this deep behind a range or sink needs a receptacle there too; across a corner, more. */
const BEHIND = 12;
const BEHIND_CORNER = 18;
/** A thing this near the wall stands against it, inches. */
const AGAINST_WALL = 6;

const WITH_COUNTERS: readonly AreaKind[] = ['kitchen', 'pantry', 'dining'];
/** Kitchens, pantries, breakfast and dining rooms and the like, where counters are judged. */
export const hasCounterRule = ({ kind }: Area): boolean => WITH_COUNTERS.includes(kind);

const divides = ({ kind }: Fixture) => FIXTURES[kind].counter === 'divides';

export const againstWall = (f: Fixture): boolean => f.fromWall <= AGAINST_WALL;

/** A fixture's stretch of its wall, on the room's floor line. */
export function floorLineOf(outline: Outline, { wallId, offset, width }: Fixture): Span | null {
  const wall = outline.walls.find((w) => w.id === wallId);
  return wall
    ? {
        from: wall.start + Math.max(0, offset - width / 2),
        to: wall.start + Math.min(wall.length, offset + width / 2),
      }
    : null;
}

/** Joins stretches that touch. */
export function merged(spans: readonly Span[]): Span[] {
  const out: Span[] = [];
  for (const span of [...spans].sort((a, b) => a.from - b.from)) {
    const last = out.at(-1);
    if (last && span.from <= last.to + 1) last.to = Math.max(last.to, span.to);
    else out.push({ ...span });
  }
  return out;
}

/** Stretches with others taken out of them. */
export function minus(spans: readonly Span[], gaps: readonly Span[]): Span[] {
  return gaps.reduce<Span[]>(
    (rest, gap) =>
      rest.flatMap((s) =>
        [
          { from: s.from, to: Math.min(s.to, gap.from) },
          { from: Math.max(s.from, gap.to), to: s.to },
        ].filter((piece) => piece.to > piece.from + 1e-6),
      ),
    [...spans],
  );
}

/** Where counters stand along the walls; an L drawn as two pieces is one counter around its corner. */
function counterLine(outline: Outline, counters: readonly Fixture[]): Span[] {
  const spans = counters.flatMap((c) => floorLineOf(outline, c) ?? []);
  for (const [i, wall] of outline.walls.entries()) {
    const corner = wall.start + wall.length;
    const next = outline.walls[(i + 1) % outline.walls.length]!;
    for (const counter of counters) {
      const line = floorLineOf(outline, counter);
      if (!line) continue;
      // What ends at the corner is as deep as it is along the next wall, and is met there by the other piece.
      const endsHere = counter.wallId === wall.id && corner - line.to < 1;
      const startsHere = counter.wallId === next.id && line.from - next.start < 1;
      const met = (from: number, to: number) =>
        spans.some((s) => s.from <= to + 1 && s.to >= from - 1 && s.to - s.from > 1);
      if (endsHere && met(next.start + counter.depth, next.start + counter.depth)) {
        spans.push({ from: next.start, to: next.start + counter.depth });
      }
      if (startsHere && met(corner - counter.depth, corner - counter.depth)) {
        spans.push({ from: corner - counter.depth, to: corner });
      }
    }
  }
  return merged(spans);
}

/** Stretches of wall line behind ranges, sinks and refrigerators, which divide the counter. */
function dividerSpans(outline: Outline, fixtures: readonly Fixture[]): Span[] {
  return fixtures
    .filter((f) => divides(f) && f.fromWall < (f.corner ? BEHIND_CORNER : BEHIND))
    .flatMap((f) => floorLineOf(outline, f) ?? []);
}

/** Why a receptacle does not serve the counters, or null when it does. */
export function notServingCounter(box: Box, outline: Outline, fixtures: readonly Fixture[]): string | null {
  if (box.status === 'remove') return 'is to be removed';
  if (!isSmallReceptacle(box)) return 'is not a 15 or 20 A, 125 V receptacle';
  if (box.mount === 'in-cabinet') return 'is inside a cabinet';
  if (box.mount === 'in-luminaire') return 'is part of a luminaire or appliance';
  const wall = outline.walls.find((w) => w.id === box.wallId);
  const at = wall ? wall.start + box.offset : NaN;
  for (const f of fixtures) {
    const line = floorLineOf(outline, f);
    if (!line || at <= line.from + 1e-6 || at >= line.to - 1e-6 || box.fromWall > f.fromWall + f.depth)
      continue;
    if (f.kind === 'appliance-garage') return `is inside the appliance garage`;
    if (f.fastened && !isCounter(f) && !isIsland(f) && f.height > box.height)
      return `is behind the ${f.name}, which is fastened in place`;
  }
  const counter = fixtures.find((f) => {
    const line = isCounter(f) || divides(f) ? floorLineOf(outline, f) : null;
    return line && at >= line.from - 1e-6 && at <= line.to + 1e-6;
  });
  const top = counter?.height ?? 36;
  if (box.mount === 'counter-assembly') return null;
  if (box.mount === 'face-up') return 'faces up without an assembly listed for it';
  if (box.height > top + ABOVE_COUNTER) return 'is more than 20 in. above the counter';
  return box.height < top ? 'is below the counter’s top' : null;
}

/** Coverage of every wall counter space of a room; null where the rule does not apply or the outline is open. */
export function counterCoverage(
  area: Area,
  fixtures: readonly Fixture[],
  boxes: readonly Box[],
  reach = COUNTER_REACH,
): SpaceCoverage[] | null {
  const outline = outlineOf(area);
  if (!hasCounterRule(area) || !isClosed(outline)) return null;
  const counters = fixtures.filter((f) => isCounter(f) && againstWall(f));
  if (counters.length === 0) return [];
  const spaces = minus(counterLine(outline, counters), dividerSpans(outline, fixtures)).map(
    ({ from, to }): WallSpace => ({ start: from, length: to - from, loop: false }),
  );
  const serving = boxes.filter((b) => notServingCounter(b, outline, fixtures) === null);
  return coveredBy(outline, spaces, serving, LEAST_COUNTER, reach);
}

/** Appliances that stand in a line of counters. */
const stands = (f: Fixture) => divides(f) || FIXTURES[f.kind].counter === 'stands';

/** Stretches of floor line that a kitchen's counters and the appliances between them take from the wall. */
export function counterBreaks(
  area: Area,
  outline: Outline,
  fixtures: readonly Fixture[],
  edition: Edition,
): Span[] {
  const against = fixtures.filter(againstWall);
  const lines = (list: readonly Fixture[]) => list.flatMap((f) => floorLineOf(outline, f) ?? []);
  if (!hasCounterRule(area)) {
    // Elsewhere a fixed cabinet with a counter or work surface interrupts the wall in 2017 only.
    return merged(
      lines(against.filter((f) => f.kind === 'counter' && f.fastened && !since(edition, '2020'))),
    );
  }
  return merged([...counterLine(outline, against.filter(isCounter)), ...lines(against.filter(stands))]);
}

export type CounterShape = { surface: number; required: number; section: string };

/** Receptacles an island or peninsula must have, by edition, and the surface they are counted on, square feet. */
export function islandNeeds({ kind, width, depth }: Fixture, edition: Edition): CounterShape {
  const surface = (width * depth) / 144;
  const short = Math.min(width, depth);
  const long = Math.max(width, depth);
  if (!since(edition, '2020')) {
    return {
      surface,
      required: long >= 24 && short >= 12 ? 1 : 0,
      section: kind === 'island' ? '210.52(C)(2)' : '210.52(C)(3)',
    };
  }
  if (since(edition, '2020') && !since(edition, '2023')) {
    const required = short < 12 ? 0 : 1 + Math.ceil(Math.max(0, surface - 9) / 18 - 1e-9);
    return { surface, required, section: '210.52(C)(2)' };
  }
  return { surface, required: 0, section: '210.52(C)(2)' };
}

/** Why a receptacle on an island or peninsula does not count for it, or null when it does. */
export function notServingIsland(box: Box, island: Fixture, edition: Edition): string | null {
  if (box.status === 'remove') return 'is to be removed';
  if (!isSmallReceptacle(box)) return 'is not a 15 or 20 A, 125 V receptacle';
  if (box.mount === 'counter-assembly') return null;
  if (box.mount === 'face-up') return 'faces up without an assembly listed for it';
  if (box.mount === 'in-cabinet') return 'is inside a cabinet';
  if (box.height >= island.height)
    return box.height > island.height + ABOVE_COUNTER ? 'is more than 20 in. above the surface' : null;
  if (since(edition, '2023')) return 'is below the surface';
  if (island.height - box.height > 12) return 'is more than 12 in. below the surface';
  if (island.overhang > 6) return 'is under an overhang of more than 6 in.';
  return null;
}

/** Receptacles mounted on or in an island. */
export const boxesOn = (boxes: readonly Box[], fixture: Fixture): Box[] =>
  boxes.filter((b) => b.fixtureId === fixture.id);

/** How far a receptacle stands from the outer end of a peninsula, inches. */
export const fromOuterEnd = (box: Box, peninsula: Fixture): number =>
  Math.max(0, peninsula.fromWall + peninsula.depth - box.fromWall);
