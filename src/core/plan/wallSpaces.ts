/**
 * Wall spaces of 210.52(A): stretches of floor line 2 ft or longer, measured around corners, unbroken by
 * doorways, fireplaces and the like. Positions run along the floor line from the room's first corner, inches.
 */
import type { Area, Box, Edition, Opening, OpeningKind } from '../job/schema.ts';
import { isClosed, outlineOf, type Outline, type WallLine } from '../job/outline.ts';

/** No point of the floor line may be farther from a receptacle, inches. */
export const REACH = 72;
/** Shortest wall space that needs one, inches. */
export const LEAST_WALL_SPACE = 24;
/** Highest receptacle that counts, inches above the floor. */
export const HIGHEST_COUNTED = 66;
/** Farthest floor receptacle from the wall that counts, inches. */
export const FARTHEST_FLOOR_OUTLET = 18;

export interface Span {
  from: number;
  to: number;
}

export interface WallSpan extends Span {
  wallId: string;
}

export interface WallSpace {
  /** Where the space begins on the floor line; it may run past the first corner. */
  start: number;
  length: number;
  /** The whole floor line without a break: the end meets the start. */
  loop: boolean;
}

/** Whether an opening or a fixed thing interrupts the wall space under an edition. */
export function breaksWallSpace(kind: OpeningKind, edition: Edition): boolean {
  if (kind === 'fixed-glass') return false;
  // From 2020 a cabinet interrupts only when it has no counter or work surface.
  if (kind === 'cabinet-with-counter') return edition === '2017';
  return true;
}

/** All wall spaces of a closed outline, short ones included. */
export function wallSpaces(outline: Outline, openings: readonly Opening[], edition: Edition): WallSpace[] {
  const breaks = openings
    .filter((o) => breaksWallSpace(o.kind, edition))
    .flatMap((o) => {
      const wall = outline.walls.find((w) => w.id === o.wallId);
      return wall ? [{ from: wall.start + o.offset, to: wall.start + o.offset + o.width }] : [];
    })
    .sort((a, b) => a.from - b.from);
  if (breaks.length === 0) return [{ start: 0, length: outline.perimeter, loop: true }];
  const spaces: WallSpace[] = [];
  for (const [i, gap] of breaks.entries()) {
    const next = breaks[i + 1]?.from ?? breaks[0]!.from + outline.perimeter;
    const length = next - gap.to;
    if (length > 1e-6) spaces.push({ start: gap.to, length, loop: false });
  }
  return spaces;
}

/** Whether an outlet counts toward wall spacing, and if not, why. */
export function notCounted(box: Box): string | null {
  if (box.status === 'remove') return 'is to be removed';
  if (box.device.rating > 20) return 'is not a 15 or 20 A, 125 V receptacle';
  if (box.height > HIGHEST_COUNTED) return 'is higher than 5 ft 6 in.';
  if (box.fromWall > FARTHEST_FLOOR_OUTLET) return 'is a floor outlet more than 18 in. from the wall';
  return null;
}

/** Position of a floor-line point inside a space, or null when it lies outside. */
export function positionIn(space: WallSpace, outline: Outline, floorLine: number): number | null {
  const tolerance = 1e-6;
  const round = (((floorLine - space.start) % outline.perimeter) + outline.perimeter) % outline.perimeter;
  if (space.loop) return round;
  if (round <= space.length + tolerance) return Math.min(round, space.length);
  // A point at the very start may come out as almost one whole turn.
  return outline.perimeter - round < tolerance ? 0 : null;
}

/** Parts of [0, length] that no position reaches; on a loop, reach goes around the end. */
export function uncovered(space: WallSpace, positions: readonly number[], reach = REACH): Span[] {
  const { length, loop } = space;
  const covered: Span[] = [];
  for (const p of positions) {
    for (const turn of loop ? [-length, 0, length] : [0]) {
      const from = Math.max(0, p + turn - reach);
      const to = Math.min(length, p + turn + reach);
      if (to >= from) covered.push({ from, to });
    }
  }
  covered.sort((a, b) => a.from - b.from);
  const open: Span[] = [];
  let reached = 0;
  for (const { from, to } of covered) {
    if (from > reached + 1e-6) open.push({ from: reached, to: from });
    reached = Math.max(reached, to);
  }
  if (length > reached + 1e-6) open.push({ from: reached, to: length });
  return open;
}

/** A stretch of a space, cut at the corners into pieces of wall. */
export function onWalls(outline: Outline, space: WallSpace, { from, to }: Span): WallSpan[] {
  const pieces: WallSpan[] = [];
  for (const wall of outline.walls) {
    for (const turn of [0, outline.perimeter]) {
      const start = Math.max(space.start + from, wall.start + turn);
      const end = Math.min(space.start + to, wall.start + turn + wall.length);
      if (end > start + 1e-6) {
        pieces.push({ wallId: wall.id, from: start - wall.start - turn, to: end - wall.start - turn });
      }
    }
  }
  return pieces;
}

/** The wall and the offset on it at a floor-line position. */
export function wallAt(outline: Outline, floorLine: number): { wall: WallLine; offset: number } {
  const at = ((floorLine % outline.perimeter) + outline.perimeter) % outline.perimeter;
  const wall = outline.walls.find((w) => at <= w.start + w.length + 1e-9) ?? outline.walls.at(-1)!;
  return { wall, offset: at - wall.start };
}

export interface SpaceCoverage {
  space: WallSpace;
  /** Long enough to need a receptacle. */
  required: boolean;
  /** Receptacles that count here, by position in the space. */
  counted: { box: Box; at: number }[];
  uncovered: Span[];
}

/** Coverage of every wall space of a room; null when its outline does not close. */
export function coverageOf(
  area: Area,
  openings: readonly Opening[],
  boxes: readonly Box[],
  edition: Edition,
): SpaceCoverage[] | null {
  const outline = outlineOf(area);
  if (!isClosed(outline)) return null;
  const startOf = new Map(outline.walls.map((w) => [w.id, w.start]));
  return wallSpaces(outline, openings, edition).map((space) => {
    const counted = boxes
      .filter((box) => notCounted(box) === null)
      .flatMap((box) => {
        const start = startOf.get(box.wallId);
        const at = start === undefined ? null : positionIn(space, outline, start + box.offset);
        return at === null ? [] : [{ box, at }];
      })
      .sort((a, b) => a.at - b.at);
    const required = space.length >= LEAST_WALL_SPACE - 1e-6;
    const open = required
      ? uncovered(
          space,
          counted.map((c) => c.at),
        )
      : [];
    return { space, required, counted, uncovered: open };
  });
}
