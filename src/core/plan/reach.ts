/** How far a cord runs from an outlet: to appliances, and to water. */
import { isWater } from '#core/tables/fixtures.ts';
import { since } from '#core/tables/editions.ts';
import { boundsOf, outlineOf, pointOnWall, within, type Point } from '#core/job/outline.ts';
import type { Area, Box, Fixture } from '#core/job/schema.ts';
import { isOutside, NEAR_WATER } from '#core/tables/areas.ts';
import { isPassage } from '#core/tables/openings.ts';
import { lookup } from '#core/view/lookup.ts';
import type { View } from '#core/view/view.ts';
import { Barriers, barriersOf, cordStart, shortestCord, type CordPath, type Segment } from './cord.ts';
import { distance, footprint, isNearFixture, nearestOnSegment } from './footprint.ts';
import { openingsIn } from './joined.ts';

export interface NearWater {
  fixture: Fixture;
  path: CordPath;
}

/** In 2017 a door or doorway ends the path of a cord. */
const barriersOn = lookup(
  ({ rooms }) => (rooms.size > 0 ? 'all' : []),
  (view, levelId: string): Barriers => {
    const rooms = view.areasOn(levelId).map((area) => ({
      area,
      openings: openingsIn(view, area),
      fixtures: view.fixturesIn(area),
    }));
    return new Barriers(barriersOf(rooms, since(view.edition, '2020')));
  },
);

/** Doorways a cord may use to leave a room, as lines; null where nothing holds it in. */
const doorwaysOf = lookup(
  ({ rooms }) => rooms,
  (view, area: Area): Segment[] | null => {
    if (isOutside(area)) return null;
    if (!since(view.edition, '2020')) return [];
    const outline = outlineOf(area);
    return openingsIn(view, area).flatMap((o) => {
      const wall = isPassage(o) ? outline.walls.find((w) => w.id === o.wallId) : undefined;
      if (!wall) return [];
      const a = pointOnWall(outline, wall, o.offset);
      return [{ a, b: pointOnWall(outline, wall, o.offset + o.width) }];
    });
  },
);

/** Whether a cord can run from a place in one room to a fixture in another at all. */
function connected(view: View, start: Point, from: Area, to: Area, fixture: Fixture, limit: number): boolean {
  const out = doorwaysOf(view, from);
  if (out?.every(({ a, b }) => distance(start, nearestOnSegment(start, a, b)) > limit)) return false;
  const into = doorwaysOf(view, to);
  return !into?.every(
    ({ a, b }) => !isNearFixture(a, to, fixture, limit) && !isNearFixture(b, to, fixture, limit),
  );
}

/**
 * The shortest way of a cord from an outlet to a fixture on its level.
 * @param limit inches
 * @returns null when none is that short
 */
export function cordTo(view: View, box: Box, fixture: Fixture, limit: number): CordPath | null {
  const from = view.document.areas[box.areaId];
  const to = view.document.areas[fixture.areaId];
  if (!from || !to || from.levelId !== to.levelId) return null;
  const start = cordStart(from, box);
  const target = footprint(to, fixture);
  if (!start || !isNearFixture(start, to, fixture, limit + 1)) return null;
  if (from !== to && !connected(view, start, from, to, fixture, limit)) return null;
  return target ? shortestCord(start, target, barriersOn(view, from.levelId), limit) : null;
}

const waterReach = (view: View): number => view.limit('gfci', NEAR_WATER, 'more');

/** Sinks, basins, tubs and showers near a room, with those of the rooms beside it. */
const waterBy = lookup(
  ({ rooms }) => rooms,
  (view, area: Area): Fixture[] =>
    view
      .areasOn(area.levelId)
      .filter((room) => within(boundsOf(room), boundsOf(area), waterReach(view)))
      .flatMap((room) => view.fixturesIn(room).filter((f) => isWater(f) && f.status !== 'remove')),
);

/** Sinks, basins, tubs and showers that a cord of 6 ft reaches from an outlet, nearest first. */
export const waterNear = lookup(
  ({ subjects }) => subjects.box,
  (view, box: Box): NearWater[] => {
    const area = view.document.areas[box.areaId];
    if (!area) return [];
    const found: NearWater[] = [];
    for (const fixture of waterBy(view, area)) {
      const path = cordTo(view, box, fixture, waterReach(view));
      if (path) found.push({ fixture, path });
    }
    return found.sort((a, b) => a.path.distance - b.path.distance);
  },
);

/** Farthest that a receptacle of a basin may be from its edge, 210.52(D), inches. */
export const BASIN_REACH = 36;

/** Whether a receptacle is one that 210.52(D) wants, or stands at a counter; without a basin on record it may be. */
export function servesBasin(view: View, box: Box, area: Area): boolean {
  const basins = view.fixturesIn(area).filter((f) => f.kind === 'basin' && f.status !== 'remove');
  if (basins.length === 0 || box.fixtureId !== null || box.mount === 'counter-assembly') return true;
  return box.serves === null && basins.some((f) => cordTo(view, box, f, BASIN_REACH) !== null);
}
