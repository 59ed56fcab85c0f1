/** Single places on the walls of a room where a box can be mounted, for rules that ask for one. */
import { openingsIn } from '#core/plan/joined.ts';
import { outlineOf, pointOnWall, type Point } from '#core/job/outline.ts';
import type { Area, Fixture } from '#core/job/schema.ts';
import type { View } from '#core/view/view.ts';
import { depthOf } from '#core/plan/footprint.ts';
import { distanceToStud, EDGE_CLEARANCE } from './alongSpaces.ts';

export interface Spot {
  wallId: string;
  wallNumber: number;
  offset: number;
  point: Point;
  /** Inches to where it would be nailed to a stud. */
  stud: number;
}

/** No two boxes nearer to each other than this, inches. */
const APART = 6;

/**
 * Every inch of a room's walls where a box can be mounted at a height: not in an opening or a built-in thing,
 * not behind something that stands higher, not at a corner, not on another box.
 * @param behind a fixture that the box may be behind
 */
export function spotsIn(view: View, area: Area, height: number, behind?: Fixture): Spot[] {
  const outline = outlineOf(area);
  const { studSpacing } = view.document.job.settings;
  const openings = openingsIn(view, area);
  const fixtures = view.fixturesIn(area).filter((f) => f.id !== behind?.id);
  const boxes = view.boxesIn(area);
  return outline.walls.flatMap((wall, i) => {
    const inWay = [
      ...openings
        .filter(
          (o) =>
            o.wallId === wall.id &&
            (depthOf(o) > 0 || o.kind === 'blocked' || (o.bottom < height + 3 && o.top > height - 3)),
        )
        .map((o) => ({ from: o.offset - EDGE_CLEARANCE, to: o.offset + o.width + EDGE_CLEARANCE })),
      ...fixtures
        .filter((f) => f.wallId === wall.id && f.fromWall < 6 && f.height > height)
        .map((f) => ({ from: f.offset - f.width / 2, to: f.offset + f.width / 2 })),
      ...boxes
        .filter((b) => b.wallId === wall.id && Math.abs(b.height - height) < APART)
        .map((b) => ({ from: b.offset - APART, to: b.offset + APART })),
    ];
    const spots: Spot[] = [];
    for (let offset = EDGE_CLEARANCE; offset <= wall.length - EDGE_CLEARANCE; offset++) {
      if (inWay.some((s) => offset > s.from && offset < s.to)) continue;
      spots.push({
        wallId: wall.id,
        wallNumber: i + 1,
        offset,
        point: pointOnWall(outline, wall, offset),
        stud: distanceToStud(offset, studSpacing),
      });
    }
    return spots;
  });
}

/** The spot that costs least, or null when there is none; a spot of infinite cost is none. */
export function bestSpot(spots: readonly Spot[], cost: (spot: Spot) => number): Spot | null {
  let best: { spot: Spot; cost: number } | null = null;
  for (const spot of spots) {
    const c = cost(spot) + spot.stud / 4;
    if (Number.isFinite(c) && (!best || c < best.cost)) best = { spot, cost: c };
  }
  return best?.spot ?? null;
}
