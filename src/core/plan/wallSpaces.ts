/**
 * Wall spaces of 210.52(A): stretches of floor line 2 ft or longer, measured around corners, unbroken by
 * doorways, fireplaces and the like. Positions run along the floor line from the room's first corner, inches.
 */
import {
  RECEPTACLE_KINDS,
  type Area,
  type Box,
  type DeviceKind,
  type Opening,
  type OpeningKind,
} from '#core/job/schema.ts';
import { isClosed, outlineOf, type Outline, type WallLine } from '#core/job/outline.ts';

/** No point of the floor line may be farther from a receptacle, inches. */
export const REACH = 72;
/** Shortest wall space that needs one, inches. */
const LEAST_WALL_SPACE = 24;
/** Highest receptacle that counts, inches above the floor. */
export const HIGHEST_COUNTED = 66;
/** Farthest floor receptacle from the wall that counts, inches. */
const FARTHEST_FLOOR_OUTLET = 18;

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

const UNBROKEN: readonly OpeningKind[] = ['fixed-glass', 'window', 'railing', 'bar-counter', 'blocked'];

/**
 * Whether a thing in the wall interrupts the wall space. Glass fixed in an outer wall, railings and bar-type
 * counters are wall space; a stretch where no box can go is wall space all the same.
 */
const breaksWallSpace = (kind: OpeningKind): boolean => !UNBROKEN.includes(kind);

/**
 * All wall spaces of a closed outline, short ones included.
 * @param taken stretches of floor line that counters and the like take from the wall
 */
export function wallSpaces(
  outline: Outline,
  openings: readonly Opening[],
  taken: readonly Span[] = [],
): WallSpace[] {
  const breaks = openings
    .filter((o) => breaksWallSpace(o.kind))
    .flatMap((o) => {
      const wall = outline.walls.find((w) => w.id === o.wallId);
      return wall ? [{ from: wall.start + o.offset, to: wall.start + o.offset + o.width }] : [];
    })
    .concat(taken)
    .sort((a, b) => a.from - b.from);
  if (breaks.length === 0) return [{ start: 0, length: outline.perimeter, loop: true }];
  const spaces: WallSpace[] = [];
  let end = breaks[0]!.to;
  for (const gap of breaks.slice(1)) {
    if (gap.from > end + 1e-6) spaces.push({ start: end, length: gap.from - end, loop: false });
    end = Math.max(end, gap.to);
  }
  const last = breaks[0]!.from + outline.perimeter;
  if (last > end + 1e-6) spaces.push({ start: end, length: last - end, loop: false });
  return spaces;
}

const RECEPTACLES: readonly DeviceKind[] = RECEPTACLE_KINDS;
/** Whether something can be plugged in here. */
/** Current is taken there: a switch and a plain junction box are no outlets. */
export const isOutlet = ({ device }: Box): boolean => device.kind !== 'switch' && device.kind !== 'junction';
export const isReceptacle = (box: Box): boolean => RECEPTACLES.includes(box.device.kind);

/** A 15 or 20 A, 125 V receptacle: the kind that spacing rules speak of. */
export const isSmallReceptacle = (box: Box): boolean =>
  isReceptacle(box) && box.device.rating <= 20 && box.device.volts === '125';

/** Whether an outlet counts toward wall spacing, and if not, why. */
export function notCounted(box: Box): string | null {
  if (box.status === 'remove') return 'is to be removed';
  if (!isSmallReceptacle(box)) return 'is not a 15 or 20 A, 125 V receptacle';
  if (box.mount === 'in-cabinet') return 'is inside a cabinet';
  if (box.mount === 'in-luminaire') return 'is part of a luminaire or appliance';
  if (box.mount === 'counter-assembly' || box.mount === 'face-up') return 'serves a counter';
  // Of a duplex with one half switched the other half counts.
  if (box.device.switched === 'whole') return 'is switched in place of a lighting outlet';
  if (box.height > HIGHEST_COUNTED) return 'is higher than 5 ft 6 in.';
  if (box.fromWall > FARTHEST_FLOOR_OUTLET) return 'is a floor outlet more than 18 in. from the wall';
  return null;
}

/** Position of a floor-line point inside a space, or null when it lies outside. */
function positionIn(space: WallSpace, outline: Outline, floorLine: number): number | null {
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

/**
 * What covers each of a room's spaces.
 * @param boxes those that count
 * @param least shortest space that needs a receptacle, inches
 */
export function coveredBy(
  outline: Outline,
  spaces: readonly WallSpace[],
  boxes: readonly Box[],
  least: number,
  reach: number,
): SpaceCoverage[] {
  const startOf = new Map(outline.walls.map((w) => [w.id, w.start]));
  return spaces.map((space) => {
    const counted: SpaceCoverage['counted'] = [];
    for (const box of boxes) {
      const start = startOf.get(box.wallId ?? '');
      const at = start === undefined ? null : positionIn(space, outline, start + box.offset);
      if (at !== null) counted.push({ box, at });
    }
    counted.sort((a, b) => a.at - b.at);
    const required = space.length >= least - 1e-6;
    const positions = counted.map((c) => c.at);
    return { space, required, counted, uncovered: required ? uncovered(space, positions, reach) : [] };
  });
}

/** Coverage of every wall space of a room; null when its outline does not close. */
export function coverageOf(
  area: Area,
  openings: readonly Opening[],
  boxes: readonly Box[],
  taken: readonly Span[] = [],
  reach = REACH,
): SpaceCoverage[] | null {
  const outline = outlineOf(area);
  if (!isClosed(outline)) return null;
  const counting = boxes.filter((box) => notCounted(box) === null);
  return coveredBy(outline, wallSpaces(outline, openings, taken), counting, LEAST_WALL_SPACE, reach);
}
