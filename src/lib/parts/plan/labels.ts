/**
 * Places for the names on a plan, in pixels of the screen: each stands clear of every sign and of every other name, or is
 * left out until there is room for it. First come the rooms, then the outlets in the order given.
 */
import polylabel from 'polylabel';
import RBush from 'rbush';
import { boundsOfPoints, type Bounds, type Point } from '#core/job/outline.ts';
import { insidePolygon } from '#core/plan/footprint.ts';

export interface RoomToName {
  id: string;
  name: string;
  /** Corners of the floor. */
  corners: readonly Point[];
}

/** A round sign that has a name. */
export interface SignToName {
  id: string;
  name: string;
  center: Point;
  /** Unit vector away from the wall that it is on. */
  into: Point;
}

export interface Labels {
  rooms: ReadonlyMap<string, Point & { size: number }>;
  /** From the center of the sign. */
  signs: ReadonlyMap<string, Point>;
}

interface Rect {
  minX: number;
  minY: number;
  maxX: number;
  maxY: number;
}

/** Sizes of a room's name to be tried, pixels. */
const ROOM_SIZES = [17, 13];
/** Width of a bold letter and height of a line, of the size of the type. */
const LETTER = 0.58;
const LINE = 1.1;
/** Nearer to a room's wall than this a name is not put, pixels. */
const OFF_WALL = 4;
const CLEAR = 1.5;

const rectAt = ({ x, y }: Point, width: number, height: number): Rect => ({
  minX: x - width / 2,
  minY: y - height / 2,
  maxX: x + width / 2,
  maxY: y + height / 2,
});
const around = ({ left, top, right, bottom }: Bounds): Rect => ({
  minX: left,
  minY: top,
  maxX: right,
  maxY: bottom,
});
const grown = (r: Rect, by: number): Rect => ({
  minX: r.minX - by,
  minY: r.minY - by,
  maxX: r.maxX + by,
  maxY: r.maxY + by,
});

const holds = (corners: readonly Point[], { minX, minY, maxX, maxY }: Rect): boolean =>
  [minX, (minX + maxX) / 2, maxX].every((x) => [minY, maxY].every((y) => insidePolygon({ x, y }, corners)));

const places = new WeakMap<readonly Point[], Point[]>();

/** Places for a name on a floor: its middle first, then ever farther from it; remembered per list of corners. */
function placesOn(corners: readonly Point[]): Point[] {
  const known = places.get(corners);
  if (known) return known;
  const [x, y] = polylabel([corners.map((c) => [c.x, c.y])], 2);
  const middle = { x: x!, y: y! };
  const { left, top, right, bottom } = boundsOfPoints(corners);
  const found = [middle];
  const GRID = 12;
  for (let i = 1; i < GRID; i++)
    for (let j = 1; j < GRID; j++)
      found.push({ x: left + ((right - left) * i) / GRID, y: top + ((bottom - top) * j) / GRID });
  const far = (p: Point) => Math.hypot(p.x - middle.x, p.y - middle.y);
  found.sort((a, b) => far(a) - far(b));
  places.set(corners, found);
  return found;
}

/** Places for the name of a sign, from its center: on into the room, to the sides, askew. */
function placesBeside({ into }: SignToName, radius: number, width: number, height: number): Point[] {
  const side = { x: -into.y, y: into.x };
  const back = { x: -side.x, y: -side.y };
  const askew = (a: Point, b: Point) => ({ x: (a.x + b.x) * Math.SQRT1_2, y: (a.y + b.y) * Math.SQRT1_2 });
  return [into, side, back, askew(into, side), askew(into, back)].map((to) => ({
    x: to.x * (radius + width / 2 + 2 * CLEAR),
    y: to.y * (radius + height / 2 + 2 * CLEAR),
  }));
}

/**
 * @param signs those to be named, the most important first
 * @param radius of a sign
 * @param size of the type of a sign's name; 0 names none
 * @param taken what else is drawn that no name may cover
 */
export function placeLabels(
  rooms: readonly RoomToName[],
  signs: readonly SignToName[],
  radius: number,
  size: number,
  taken: readonly Bounds[] = [],
): Labels {
  const tree = new RBush<Rect>();
  tree.load([
    ...taken.map(around),
    ...signs.map(({ center }) => grown(rectAt(center, 2 * radius, 2 * radius), CLEAR)),
  ]);
  const placed: Labels = { rooms: new Map(), signs: new Map() };
  const roomsPlaced = placed.rooms as Map<string, Point & { size: number }>;
  const signsPlaced = placed.signs as Map<string, Point>;
  for (const { id, name, corners } of rooms) {
    if (corners.length < 3) continue;
    for (const type of ROOM_SIZES) {
      const at = placesOn(corners).find((p) => {
        const rect = rectAt(p, name.length * LETTER * type, LINE * type);
        return holds(corners, grown(rect, OFF_WALL)) && !tree.collides(rect);
      });
      if (!at) continue;
      tree.insert(rectAt(at, name.length * LETTER * type, LINE * type));
      roomsPlaced.set(id, { ...at, size: type });
      break;
    }
  }
  if (size === 0) return placed;
  for (const sign of signs) {
    const [width, height] = [sign.name.length * LETTER * size, size];
    const at = placesBeside(sign, radius, width, height).find(
      ({ x, y }) => !tree.collides(rectAt({ x: sign.center.x + x, y: sign.center.y + y }, width, height)),
    );
    if (!at) continue;
    tree.insert(rectAt({ x: sign.center.x + at.x, y: sign.center.y + at.y }, width, height));
    signsPlaced.set(sign.id, at);
  }
  return placed;
}
