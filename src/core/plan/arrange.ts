/** Moving, snapping, stretching, copying and mirroring rooms. Plain data in, plain data out. */
import { isOutside } from '#core/tables/areas.ts';
import { newId, rows } from '#core/job/document.ts';
import { freeName, lettersOf, nameKey, namesIn } from '#core/job/names.ts';
import { outlineOf, type Point, type WallLine, boundsOf } from '#core/job/outline.ts';
import type { Area, Box, Fixture, JobDocument, Opening } from '#core/job/schema.ts';
import type { Command } from '#core/job/commands.ts';
import { MAX_WALL, MIN_WALL } from '#core/job/schema.ts';
import { fail, ok, type Result } from '#core/units/result.ts';
import { formatLength } from '#core/units/length.ts';
import { alongWall } from './footprint.ts';

/** A room within this distance of a neighbor snaps to it, inches. */
const SNAP_REACH = 9;

const parallel = (a: WallLine, b: WallLine): boolean => {
  const turn = (((a.heading - b.heading) % 180) + 180) % 180;
  return turn < 0.5 || turn > 179.5;
};

/** Whether two parallel walls have their rooms on opposite sides. */
const faceAway = (a: WallLine, sideA: number, b: WallLine, sideB: number): boolean => {
  const turn = (((a.heading - b.heading) % 360) + 360) % 360;
  const alike = turn < 90 || turn > 270;
  return (sideA === sideB) !== alike;
};

/** Unit vector that a wall's distance `off` in `alongWall` is measured along. */
function offAxis(wall: WallLine): Point {
  const dx = (wall.to.x - wall.from.x) / wall.length;
  const dy = (wall.to.y - wall.from.y) / wall.length;
  return { x: dy, y: -dx };
}

/**
 * Where a room comes to rest near others: its walls one wall's thickness from theirs, its corners in line with
 * theirs. Each direction is settled by itself, by the smallest move within reach.
 * @param thickness between the faces of two rooms that share a wall, inches
 */
export function snapRoom(area: Area, others: readonly Area[], thickness: number): Point {
  let { x, y } = area;
  const home = boundsOf(area);
  const near = others.filter((o) => {
    const b = boundsOf(o);
    return (
      b.left <= home.right + SNAP_REACH + thickness &&
      b.right >= home.left - SNAP_REACH - thickness &&
      b.top <= home.bottom + SNAP_REACH + thickness &&
      b.bottom >= home.top - SNAP_REACH - thickness
    );
  });
  const mine = outlineOf(area);
  // Across: face to face.
  const moves: { axis: Point; by: number }[] = [];
  for (const other of near) {
    const theirs = outlineOf(other);
    for (const w of mine.walls) {
      for (const v of theirs.walls) {
        if (!parallel(w, v) || !faceAway(w, mine.side, v, theirs.side)) continue;
        const { off, along } = alongWall(v, w.from);
        const end = alongWall(v, w.to).along;
        if (Math.max(along, end) < 1 || Math.min(along, end) > v.length - 1) continue;
        // Their room lies below 0 where its side is 1; mine must lie a wall's thickness beyond its face.
        const axis = offAxis(v);
        const by = theirs.side * thickness - off;
        if (Math.abs(by) <= SNAP_REACH) moves.push({ axis, by });
      }
    }
  }
  const best = (horizontal: boolean) =>
    moves
      .filter((m) => Math.abs(m.axis.x) > 0.99 === horizontal && (horizontal || Math.abs(m.axis.y) > 0.99))
      .sort((a, b) => Math.abs(a.by) - Math.abs(b.by))[0];
  const across = best(true);
  const down = best(false);
  if (across) x += across.axis.x * across.by;
  if (down) y += down.axis.y * down.by;
  // In line: a corner level with a corner of a neighbor, where no wall has settled that direction.
  const corners = near.flatMap((o) => outlineOf(o).walls.map((w) => w.from));
  const line = (axis: 'x' | 'y', moved: number) => {
    const gaps = mine.walls.flatMap((w) => corners.map((c) => c[axis] - (w.from[axis] + moved)));
    return (
      gaps.filter((g) => Math.abs(g) <= SNAP_REACH / 2).sort((a, b) => Math.abs(a) - Math.abs(b))[0] ?? 0
    );
  };
  if (!across) x += line('x', x - area.x);
  if (!down) y += line('y', y - area.y);
  return { x, y };
}

/**
 * The room with one wall pushed out (positive) or in; the walls beside it grow or shrink, turns stay.
 * @returns the room, or what stands in the way
 */
export function moveWall(area: Area, wallId: string, by: number): Result<Area> {
  const i = area.walls.findIndex((w) => w.id === wallId);
  if (i === -1) return fail('expected the id of a wall of this room');
  const { walls, side } = outlineOf(area);
  const n = walls.length;
  if (n < 3) return fail('expected a room of three walls or more');
  const wall = walls[i]!;
  const before = walls[(i - 1 + n) % n]!;
  const after = walls[(i + 1) % n]!;
  const sine = (turn: number) => Math.sin((turn * Math.PI) / 180);
  const cosine = (turn: number) => Math.cos((turn * Math.PI) / 180);
  const turnIn = wall.heading - before.heading;
  const turnOut = after.heading - wall.heading;
  if (Math.abs(sine(turnIn)) < 0.05 || Math.abs(sine(turnOut)) < 0.05)
    return fail('the wall runs straight on into the next; take the corner out first');
  // Moving a wall out by d lengthens the wall before by d / sin of its turn, and the wall after likewise.
  const outward = by * side;
  const grownBefore = before.length + outward / sine(turnIn);
  const grownAfter = after.length + outward / sine(turnOut);
  const length =
    wall.length - (outward * cosine(turnIn)) / sine(turnIn) - (outward * cosine(turnOut)) / sine(turnOut);
  for (const l of [grownBefore, grownAfter, length]) {
    if (l < MIN_WALL || l > MAX_WALL)
      return fail(
        `a wall would be ${formatLength(l)}; expected ${formatLength(MIN_WALL)} to ${formatLength(MAX_WALL)}`,
      );
  }
  // Ends keep their distance to what they do not move away from.
  const lengths = new Map([
    [before.id, grownBefore],
    [after.id, grownAfter],
    [wall.id, length],
  ]);
  const next = area.walls.map((w) => ({ ...w, length: lengths.get(w.id) ?? w.length }));
  // The chain starts at the first wall's start: where that corner moves, the room's first corner moves.
  const first = walls[0]!;
  const along = {
    x: (first.to.x - first.from.x) / first.length,
    y: (first.to.y - first.from.y) / first.length,
  };
  let { x, y } = area;
  if (i === 0) {
    const back = grownBefore - before.length;
    x += ((before.to.x - before.from.x) / before.length) * back;
    y += ((before.to.y - before.from.y) / before.length) * back;
  } else if (i === n - 1) {
    const shift = after.length - grownAfter;
    x += along.x * shift;
    y += along.y * shift;
  }
  return ok({ ...area, x, y, walls: next });
}

interface RoomParts {
  area: Area;
  openings: Opening[];
  fixtures: Fixture[];
  boxes: Box[];
}

const partsOf = (document: JobDocument, area: Area): RoomParts => ({
  area,
  openings: rows(document.openings).filter((o) => o.areaId === area.id),
  fixtures: rows(document.fixtures).filter((f) => f.areaId === area.id),
  boxes: rows(document.boxes).filter((b) => b.areaId === area.id),
});

/** The parts of a room under new ids; what points outside the room is let go. */
function renewed(
  { area, openings, fixtures, boxes }: RoomParts,
  rename: (name: string) => string,
): RoomParts {
  const ids = new Map<string, string>();
  const renew = (id: string) => {
    const fresh = newId(id.split('-')[0]!);
    ids.set(id, fresh);
    return fresh;
  };
  const areaId = renew(area.id);
  const walls = area.walls.map((w) => ({ ...w, id: renew(w.id) }));
  const wall = (id: string) => ids.get(id) ?? id;
  const placed = (id: string | null) => (id === null ? null : wall(id));
  const newFixtures = fixtures.map((f) => ({ ...f, id: renew(f.id), areaId, wallId: placed(f.wallId) }));
  for (const b of boxes) renew(b.id);
  return {
    area: { ...area, id: areaId, walls },
    openings: openings.map((o) => ({ ...o, id: renew(o.id), areaId, wallId: wall(o.wallId) })),
    fixtures: newFixtures,
    boxes: boxes.map((b) => ({
      ...b,
      id: ids.get(b.id)!,
      name: rename(b.name),
      areaId,
      wallId: placed(b.wallId),
      fixtureId: b.fixtureId === null ? null : (ids.get(b.fixtureId) ?? null),
      serves: b.serves === null ? null : (ids.get(b.serves) ?? null),
      alsoServes: b.alsoServes === null ? null : (ids.get(b.alsoServes) ?? null),
      controls: b.controls.flatMap((id) => ids.get(id) ?? []),
    })),
  };
}

/**
 * A room's mirror image, left for right: the same chain of walls, every turn the other way, so that whatever
 * stands along a wall keeps its distance from the wall's start.
 */
const mirrored = (area: Area): Area => ({
  ...area,
  heading: ((180 - area.heading + 540) % 360) - 180,
  walls: area.walls.map((w) => ({ ...w, turn: -w.turn })),
});

export interface CopyOptions {
  name: string;
  mirror?: boolean;
  /** Where its bounds' left upper corner goes; next to the original when left out. */
  at?: Point;
}

/** Numbers an outlet's name on until it is free. */
function namer(document: JobDocument): (name: string) => string {
  const taken = namesIn(document);
  return (name) => {
    const free = freeName(lettersOf(name), taken);
    taken.add(nameKey(free));
    return free;
  };
}

function put(parts: readonly RoomParts[]): Command[] {
  return [
    { type: 'put', table: 'areas', rows: parts.map((p) => p.area) },
    { type: 'put', table: 'openings', rows: parts.flatMap((p) => p.openings) },
    { type: 'put', table: 'fixtures', rows: parts.flatMap((p) => p.fixtures) },
    { type: 'put', table: 'boxes', rows: parts.flatMap((p) => p.boxes) },
  ];
}

/** A copy of a room with its doors, fixtures and outlets, as one step of undo. */
export function copyRoom(
  document: JobDocument,
  areaId: string,
  options: CopyOptions,
): { command: Command; area: Area } {
  const source = partsOf(document, document.areas[areaId]!);
  const shape = options.mirror ? mirrored(source.area) : source.area;
  const copy = renewed({ ...source, area: shape }, namer(document));
  const bounds = boundsOf(copy.area);
  const home = boundsOf(source.area);
  const at = options.at ?? { x: home.right + document.job.settings.wallThickness, y: home.top };
  const area = {
    ...copy.area,
    name: options.name,
    x: copy.area.x + at.x - bounds.left,
    y: copy.area.y + at.y - bounds.top,
  };
  return {
    area,
    command: {
      type: 'batch',
      label: `${options.mirror ? 'Mirror' : 'Copy'} ${source.area.name}`,
      commands: put([{ ...copy, area }]),
    },
  };
}

/** A level with the same indoor rooms one story up, outlets left out: outlines, doors and fixtures in place. */
export function stackLevel(document: JobDocument, levelId: string, name: string, rise: number): Command {
  const below = document.levels[levelId]!;
  const level = { id: newId('level'), name, elevation: below.elevation + rise };
  const parts = rows(document.areas)
    // What lies outdoors has no story above it.
    .filter((a) => a.levelId === levelId && !isOutside(a))
    .map((a) => renewed({ ...partsOf(document, a), boxes: [] }, (n) => n))
    .map((p) => ({ ...p, area: { ...p.area, levelId: level.id } }));
  return {
    type: 'batch',
    label: `Stack ${name} on ${below.name}`,
    commands: [{ type: 'put', table: 'levels', rows: [level] }, ...put(parts)],
  };
}
