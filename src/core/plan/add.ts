/** New levels, rooms and fixtures as a person would expect them to begin. */
import { CEILING_HEIGHT, newId, PLAIN_CONDITIONS, PLAIN_FIXTURE, rows } from '#core/job/document.ts';
import { boundsOf } from '#core/job/outline.ts';
import type { Area, Fixture, FixtureKind, JobDocument, Level } from '#core/job/schema.ts';
import { FIXTURES } from '#core/tables/fixtures.ts';
import type { View } from '#core/view/view.ts';

/** From one floor to the next where nothing else is known, inches. */
const BETWEEN_LEVELS = 102;
/** How far from its wall a new island stands, inches. */
const ISLAND_FROM_WALL = 48;

/** A level one story above the highest. */
export function newLevel({ levels }: JobDocument): Level {
  const top = Math.max(...rows(levels).map((l) => l.elevation));
  return { id: newId('level'), name: `Level ${rows(levels).length + 1}`, elevation: top + BETWEEN_LEVELS };
}

/** A room without walls yet, to the right of the others of its level. */
export function newRoom(view: View, levelId: string): Area {
  const { job, areas } = view.document;
  const bounds = view.areasOn(levelId).map(boundsOf);
  const right = Math.max(-job.settings.wallThickness, ...bounds.map((b) => b.right));
  return {
    id: newId('area'),
    levelId,
    name: `Room ${rows(areas).length + 1}`,
    kind: 'bedroom',
    x: right + job.settings.wallThickness,
    y: bounds.length > 0 ? Math.min(...bounds.map((b) => b.top)) : 0,
    heading: 0,
    location: 'dry',
    ceilingHeight: CEILING_HEIGHT,
    conditions: PLAIN_CONDITIONS,
    walls: [],
  };
}

/**
 * A fixture of a kind, named apart from those of its kind in the room.
 * @param offset of its center from the wall's start, inches
 * @param width inches; null for the usual one
 */
export function newFixture(
  view: View,
  area: Area,
  kind: FixtureKind,
  wallId: string,
  offset: number,
  width: number | null = null,
): Fixture {
  const { label, size, connection, fastened } = FIXTURES[kind];
  const same = view.fixturesIn(area).filter((f) => f.kind === kind).length;
  const name = label.toLowerCase();
  return {
    ...PLAIN_FIXTURE,
    id: newId('fixture'),
    areaId: area.id,
    name: same === 0 ? name : `${name} ${same + 1}`,
    kind,
    wallId,
    offset,
    width: width ?? size[0],
    depth: size[1],
    height: size[2],
    fromWall: kind === 'island' ? ISLAND_FROM_WALL : 0,
    status: 'new',
    fastened,
    connection,
  };
}
