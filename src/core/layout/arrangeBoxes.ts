/** Sliding, duplicating, aligning and spreading outlets along walls. Plain data in, plain data out. */
import { newId } from '#core/job/document.ts';
import { outlineOf, pointOnWall } from '#core/job/outline.ts';
import type { Area, Box } from '#core/job/schema.ts';
import { alongWall } from '#core/plan/footprint.ts';

/** A place on a wall. */
export interface Place {
  wallId: string;
  offset: number;
}

/**
 * A place slid along the floor line; past a corner it goes on along the next wall. Null when its wall is gone,
 * or it is not on the plan.
 */
export function slide(
  area: Area,
  { wallId, offset }: { wallId: string | null; offset: number },
  inches: number,
): Place | null {
  const { walls, perimeter } = outlineOf(area);
  const wall = walls.find((w) => w.id === wallId);
  if (!wall || perimeter === 0) return null;
  const at = (((wall.start + offset + inches) % perimeter) + perimeter) % perimeter;
  const onto = walls.find((w) => at >= w.start && at <= w.start + w.length) ?? walls.at(-1)!;
  // A place that ends exactly at a corner stays on the wall it came along.
  if (offset + inches >= 0 && offset + inches <= wall.length)
    return { wallId: wall.id, offset: offset + inches };
  return { wallId: onto.id, offset: Math.min(at - onto.start, onto.length) };
}

/** Copies of an outlet at a spacing along its wall, as many as are asked for and fit. */
export function duplicateAlong(
  area: Area,
  box: Box,
  spacing: number,
  count: number,
  nameFor: (taken: readonly string[]) => string,
): Box[] {
  const wall = area.walls.find((w) => w.id === box.wallId);
  if (!wall || spacing === 0) return [];
  const copies: Box[] = [];
  for (let n = 1; n <= count; n++) {
    const offset = box.offset + n * spacing;
    if (offset < 0 || offset > wall.length) break;
    copies.push({
      ...box,
      id: newId('box'),
      name: nameFor(copies.map((c) => c.name)),
      offset,
      status: 'new',
      controls: [],
      found: null,
      note: '',
    });
  }
  return copies;
}

/** The outlets with the first one's height. */
export const alignHeights = (boxes: readonly Box[]): Box[] =>
  boxes.map((b) => ({ ...b, height: boxes[0]!.height }));

/**
 * The outlets in line with the first one across the room: each slides along its own wall to the foot of the
 * first one's place, where its wall reaches that far and runs alongside.
 */
export function alignAcross(areaOf: (box: Box) => Area | undefined, boxes: readonly Box[]): Box[] {
  const [first] = boxes;
  const home = first && areaOf(first);
  const wall = home && outlineOf(home).walls.find((w) => w.id === first.wallId);
  if (!first || !home || !wall) return [...boxes];
  const at = pointOnWall(outlineOf(home), wall, first.offset);
  return boxes.map((box) => {
    const area = areaOf(box);
    const own = area && outlineOf(area).walls.find((w) => w.id === box.wallId);
    if (!own || box === first) return box;
    const turn = (((own.heading - wall.heading) % 180) + 180) % 180;
    if (turn > 1 && turn < 179) return box;
    const { along } = alongWall(own, at);
    return along < 0 || along > own.length ? box : { ...box, offset: along };
  });
}

/** The outlets of each wall spread evenly between the outermost two. */
export function spreadEvenly(boxes: readonly Box[]): Box[] {
  const byWall = new Map<string, Box[]>();
  for (const box of boxes)
    if (box.wallId !== null) byWall.set(box.wallId, [...(byWall.get(box.wallId) ?? []), box]);
  return [...byWall.values()].flatMap((list) => {
    const sorted = [...list].sort((a, b) => a.offset - b.offset);
    const from = sorted[0]!.offset;
    const to = sorted.at(-1)!.offset;
    return sorted.map((b, i) => ({
      ...b,
      offset: sorted.length < 3 ? b.offset : from + ((to - from) * i) / (sorted.length - 1),
    }));
  });
}
