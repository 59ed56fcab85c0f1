/**
 * Plans as DXF, in and out. Reading goes by dxf-parser, writing by @tarikjabiri/dxf; what is made of the lines
 * is ours. DXF has y to the north, a job has y to the south.
 */
import { DxfWriter, point2d, point3d, Units } from '@tarikjabiri/dxf';
import * as dxfParser from 'dxf-parser';
import type { IEntity, ILineEntity, ILwpolylineEntity, IPolylineEntity, ITextEntity } from 'dxf-parser';
import { AREA_FACTS } from '#core/tables/areas.ts';
import { CEILING_HEIGHT, newId, PLAIN_CONDITIONS, rows } from '#core/job/document.ts';
import {
  isClosed,
  outlineOf,
  placeInPlan,
  pointOnWall,
  type Point,
  boundsOfPoints,
} from '#core/job/outline.ts';
import { AREA_KINDS, MAX_WALL, MIN_WALL, type Area, type JobDocument } from '#core/job/schema.ts';
import { InvalidError } from '#core/job/validate.ts';
import { chainOf, withoutIdleCorners } from '#core/plan/chain.ts';
import { doubledArea, facesOf, type Line } from '#core/plan/faces.ts';
import { distance, footprint, insidePolygon } from '#core/plan/footprint.ts';
import { fail, ok, type Result } from '#core/units/result.ts';

/** Bundlers see its module form, Node its CommonJS form, where the class is the default export. */
const Parser = dxfParser.DxfParser ?? dxfParser.default;

/** What the parser reads from: groups of a code and a value. */
interface Scanner {
  next(): Group;
  isEOF(): boolean;
}
interface Group {
  code: number;
  value: unknown;
}

interface Polyline {
  type: unknown;
  layer: string;
  shape: boolean;
  vertices: Record<string, unknown>[];
}

/** Puts one group of a polyline where it belongs. */
function takeGroup(
  entity: Polyline,
  vertex: Record<string, unknown> | undefined,
  { code, value }: Group,
): void {
  if (code === 8 && typeof value === 'string' && entity.vertices.length === 0) entity.layer = value;
  if (code === 70 && entity.vertices.length === 0) entity.shape = (Number(value) & 1) !== 0;
  if (!vertex) return;
  if (code === 10) vertex.x = value;
  if (code === 20) vertex.y = value;
  if (code === 42) vertex.bulge = value;
}

const polylineOf = ({ value }: Group): Polyline => ({ type: value, layer: '0', shape: false, vertices: [] });

/** Polylines with vertices of their own kind, and an end that a damaged file may lack: the parser’s own waits for it for ever. */
class OldPolyline {
  readonly ForEntityName = 'POLYLINE' as const;

  parseEntity(scanner: Scanner, head: Group): IEntity {
    const entity = polylineOf(head);
    const ends = ({ code, value }: Group) => code === 0 && value !== 'VERTEX' && value !== 'SEQEND';
    let vertex: Record<string, unknown> | undefined;
    for (let group = scanner.next(); !scanner.isEOF() && !ends(group); group = scanner.next()) {
      if (group.code === 0) {
        vertex = group.value === 'VERTEX' ? {} : undefined;
        if (vertex) entity.vertices.push(vertex);
      } else takeGroup(entity, vertex, group);
    }
    return entity as unknown as IEntity;
  }
}

/** Polylines in one: each x begins a vertex. The parser’s own believes the number of vertices that is written there. */
class LightPolyline {
  readonly ForEntityName = 'LWPOLYLINE' as const;

  parseEntity(scanner: Scanner, head: Group): IEntity {
    const entity = polylineOf(head);
    for (let group = scanner.next(); !scanner.isEOF() && group.code !== 0; group = scanner.next()) {
      if (group.code === 10) entity.vertices.push({});
      takeGroup(entity, entity.vertices.at(-1), group);
    }
    return entity as unknown as IEntity;
  }
}

/** Entities that are read; the rest are counted. */
const READ = ['LINE', 'LWPOLYLINE', 'POLYLINE', 'TEXT'];
/** Parts of an entity before them. */
const PARTS_OF = ['VERTEX', 'SEQEND', 'ATTRIB'];

/**
 * The entities of a file that are read, as a file of their own, and how many of each other kind there are. The parser loops
 * for ever on some damaged files; what it gets here is whole.
 */
function wholeEntities(text: string): { text: string; left: Map<string, number> } {
  const lines = text.split(/\r\n|\r|\n/);
  const out = ['0', 'SECTION', '2', 'ENTITIES'];
  const left = new Map<string, number>();
  let section = '';
  let kept = false;
  for (let i = 0; i + 1 < lines.length; i += 2) {
    const code = lines[i]!.trim();
    const value = lines[i + 1]!.trim();
    if (!/^-?\d{1,5}$/.test(code)) {
      // Blank lines at the end are no group.
      if (code === '' && lines.slice(i).every((l) => l.trim() === '')) break;
      refuse(`line ${i + 1}: expected the number of a group, found “${code.slice(0, 20)}”`);
    }
    if (code === '0') {
      kept = false;
      if (value === 'EOF') break;
      if (value === 'SECTION') {
        section = lines[i + 2]?.trim() === '2' ? (lines[i + 3]?.trim() ?? '') : '';
        continue;
      }
      if (value === 'ENDSEC') section = '';
      if (section !== 'ENTITIES') continue;
      kept = READ.includes(value) || PARTS_OF.includes(value);
      if (!kept) left.set(value.slice(0, 40), (left.get(value.slice(0, 40)) ?? 0) + 1);
    }
    if (kept && section === 'ENTITIES') out.push(code, value);
  }
  return { text: [...out, '0', 'ENDSEC', '0', 'EOF'].join('\n'), left };
}

/** Largest DXF file read, characters. */
export const MAX_DXF = 32 * 1024 * 1024;
/** Most wall lines that rooms are looked for in. */
export const MAX_LINES = 20000;
/** Most walls a room may have. */
const MAX_WALLS = 200;
/** Ends this near are one corner, inches. */
const JOIN = 1;
/** A corner this near to a straight line is none, inches. */
const STRAIGHT = 0.25;
/** Smallest room kept, square inches: 4 square feet. */
const LEAST_ROOM = 576;
/** An arc is drawn as chords of this angle at most, degrees. */
const CHORD = 15;
/** Farthest from zero a plan may lie, inches. */
const FARTHEST = 24000;

/** A line longer than this is no wall: it would only be in the way of those that are, inches. */
const LONGEST_LINE = 2 * FARTHEST;

/** Layers that rooms and their names are written on. */
export const ROOM_LAYER = 'ROOMS';
const NAME_LAYER = 'ROOM-NAMES';

export interface DxfLayer {
  name: string;
  /** Loose lines, closed outlines and texts, in drawing units, y to the north. */
  lines: Line[];
  rings: Point[][];
  texts: { at: Point; text: string }[];
}

export interface DxfDrawing {
  layers: DxfLayer[];
  /** What was in the file and is not read, such as `12 × INSERT`. */
  leftOut: string[];
  /** Length of the longest line, drawing units: a help to set the scale. */
  longest: number;
}

const refuse = (message: string): never => {
  throw new InvalidError([{ path: 'file', message }]);
};

const finite = (p: { x?: number; y?: number } | undefined): p is Point =>
  p !== undefined && Number.isFinite(p.x) && Number.isFinite(p.y);

/** A polyline's points, its arcs as chords. */
function flattened(vertices: readonly { x: number; y: number; bulge?: number }[], closed: boolean): Point[] {
  const points: Point[] = [];
  for (const [i, v] of vertices.entries()) {
    if (!finite(v)) continue;
    points.push({ x: v.x, y: v.y });
    const next = vertices[i + 1] ?? (closed ? vertices[0] : undefined);
    if (!v.bulge || !finite(next)) continue;
    // The bulge is the tangent of a quarter of the arc's angle; positive runs counterclockwise.
    const angle = 4 * Math.atan(v.bulge);
    const chord = distance(v, next);
    if (chord === 0) continue;
    const radius = chord / 2 / Math.sin(angle / 2);
    const toCenter = radius * Math.cos(angle / 2);
    const center = {
      x: (v.x + next.x) / 2 - ((next.y - v.y) / chord) * toCenter,
      y: (v.y + next.y) / 2 + ((next.x - v.x) / chord) * toCenter,
    };
    const start = Math.atan2(v.y - center.y, v.x - center.x);
    const steps = Math.ceil(Math.abs((angle * 180) / Math.PI) / CHORD);
    for (let s = 1; s < steps; s++) {
      const at = start + (angle * s) / steps;
      points.push({
        x: center.x + Math.abs(radius) * Math.cos(at),
        y: center.y + Math.abs(radius) * Math.sin(at),
      });
    }
  }
  return points;
}

/**
 * Reads the lines, outlines and texts of a DXF file by layer.
 * @throws InvalidError saying what is wrong with the file
 */
export function readDxf(text: string): DxfDrawing {
  if (text.length > MAX_DXF) refuse(`is larger than ${MAX_DXF / 1024 / 1024} MB; expected a DXF plan`);
  if (!/^\s*0\s*\r?\n\s*SECTION/m.test(text.slice(0, 20000)))
    refuse('has no SECTION; expected a DXF plan in text form (not DWG, not binary)');
  if (!/(^|\n)\s*0\s*\r?\n\s*EOF\s*$/.test(text.slice(-200)))
    refuse('does not end with EOF; is it cut short?');
  const whole = wholeEntities(text);
  let entities: IEntity[];
  try {
    const parser = new Parser();
    for (const handler of [OldPolyline, LightPolyline])
      parser.registerEntityHandler(handler as unknown as Parameters<typeof parser.registerEntityHandler>[0]);
    const parsed = parser.parseSync(whole.text);
    if (!parsed) return refuse('holds nothing; expected a DXF plan');
    entities = parsed.entities ?? [];
  } catch (error) {
    return refuse(
      `cannot be read as DXF (${String(error)
        .replace(/^Error: /, '')
        .slice(0, 120)}); is it cut short?`,
    );
  }
  const layers = new Map<string, DxfLayer>();
  const layerOf = ({ layer }: IEntity): DxfLayer => {
    const name = typeof layer === 'string' && layer !== '' ? layer.slice(0, 80) : '0';
    let found = layers.get(name);
    if (!found) layers.set(name, (found = { name, lines: [], rings: [], texts: [] }));
    return found;
  };
  const { left } = whole;
  let longest = 0;
  const line = (layer: DxfLayer, a: Point, b: Point) => {
    layer.lines.push([a, b]);
    longest = Math.max(longest, distance(a, b));
  };
  for (const entity of entities) {
    if (entity.type === 'LINE') {
      const [a, b] = (entity as ILineEntity).vertices ?? [];
      if (finite(a) && finite(b)) line(layerOf(entity), { x: a.x, y: a.y }, { x: b.x, y: b.y });
    } else if (entity.type === 'LWPOLYLINE' || entity.type === 'POLYLINE') {
      const { vertices, shape } = entity as ILwpolylineEntity | IPolylineEntity;
      const points = flattened(vertices ?? [], shape);
      const layer = layerOf(entity);
      const [first] = points;
      const last = points.at(-1);
      if (!first || !last) continue;
      const closed = shape || (points.length > 3 && distance(first, last) < 1e-6);
      for (let i = 1; i < points.length; i++)
        longest = Math.max(longest, distance(points[i - 1]!, points[i]!));
      if (closed) layer.rings.push(points);
      else for (let i = 1; i < points.length; i++) line(layer, points[i - 1]!, points[i]!);
    } else if (entity.type === 'TEXT') {
      const { startPoint, text: words } = entity as ITextEntity;
      if (finite(startPoint) && typeof words === 'string')
        layerOf(entity).texts.push({ at: { x: startPoint.x, y: startPoint.y }, text: words });
    } else left.set(entity.type, (left.get(entity.type) ?? 0) + 1);
  }
  return {
    layers: [...layers.values()].sort((a, b) => (a.name < b.name ? -1 : 1)),
    leftOut: [...left].map(([type, n]) => `${n} × ${type}`),
    longest,
  };
}

export interface RoomsFromDxf {
  rooms: Area[];
  /** What was left out and why. */
  problems: string[];
}

/** A room from its corners, or why it is none. */
function roomFrom(corners: readonly Point[], name: string, levelId: string): Result<Area> {
  const kept = withoutIdleCorners(corners, STRAIGHT);
  if (kept.length < 3) return fail(`${name}: fewer than three corners`);
  if (kept.length > MAX_WALLS)
    return fail(
      `${name}: ${kept.length.toLocaleString('en')} corners; a room has at most ${MAX_WALLS} walls`,
    );
  // Rooms are walked clockwise.
  const clockwise = doubledArea(kept) >= 0 ? kept : [...kept].reverse();
  const chain = chainOf(clockwise);
  const short = chain.walls.find((w) => w.length < MIN_WALL);
  if (short)
    return fail(`${name}: a wall of ${short.length.toFixed(2)} in.; the shortest is ${MIN_WALL} in.`);
  const long = chain.walls.find((w) => w.length > MAX_WALL);
  if (long)
    return fail(
      `${name}: a wall of ${Math.round(long.length / 12)} ft; the longest is ${MAX_WALL / 12} ft. Is the scale right?`,
    );
  if (Math.abs(chain.x) > FARTHEST || Math.abs(chain.y) > FARTHEST)
    return fail(`${name}: lies more than ${FARTHEST / 12} ft from the plan's corner`);
  return ok({
    id: newId('area'),
    levelId,
    name,
    kind: 'bedroom',
    location: 'dry',
    ceilingHeight: CEILING_HEIGHT,
    conditions: PLAIN_CONDITIONS,
    ...chain,
  });
}

/**
 * Rooms from the lines of the picked layers.
 * @param scale inches for one drawing unit
 * @param names the layers picked
 */
export function roomsFromDxf(
  drawing: DxfDrawing,
  names: readonly string[],
  scale: number,
  levelId: string,
): RoomsFromDxf {
  const picked = drawing.layers.filter((l) => names.includes(l.name));
  const problems: string[] = [];
  if (!(scale > 0) || !Number.isFinite(scale))
    return { rooms: [], problems: ['scale: expected more than 0'] };
  const isWall = ([a, b]: Line) => distance(a, b) * scale <= LONGEST_LINE;
  const isOutline = (ring: readonly Point[]) => ring.every((p, i) => i === 0 || isWall([ring[i - 1]!, p]));
  const layers = picked.map((l) => ({
    ...l,
    lines: l.lines.filter(isWall),
    rings: l.rings.filter(isOutline),
  }));
  const kept = layers.reduce((n, l) => n + l.lines.length + l.rings.length, 0);
  const tooLong = picked.reduce((n, l) => n + l.lines.length + l.rings.length, 0) - kept;
  if (tooLong > 0)
    problems.push(
      `${tooLong} ${tooLong === 1 ? 'line is' : 'lines are'} longer than ${LONGEST_LINE / 12} ft, left out. Is the scale right?`,
    );
  const all = layers.flatMap((l) => [...l.lines.flat(), ...l.rings.flat()]);
  if (all.length === 0) return { rooms: [], problems: [...problems, 'the picked layers hold no lines'] };
  // The plan's upper left corner goes to zero, so that a drawing far from its origin is no trouble.
  const { left, bottom } = boundsOfPoints(all);
  const plan = (p: Point): Point => ({ x: (p.x - left) * scale, y: (bottom - p.y) * scale });
  const lines = layers.flatMap((l) => l.lines.map(([a, b]): Line => [plan(a), plan(b)]));
  const zero = lines.filter(([a, b]) => distance(a, b) < 0.01).length;
  if (zero > 0) problems.push(`${zero} ${zero === 1 ? 'line' : 'lines'} of no length left out`);
  const solid = lines.filter(([a, b]) => distance(a, b) >= 0.01);
  const outlines = layers.flatMap((l) => l.rings.map((ring) => ring.map(plan)));
  if (solid.length > MAX_LINES)
    problems.push(
      `${solid.length.toLocaleString('en')} loose lines; rooms are looked for in at most ${MAX_LINES.toLocaleString('en')}: pick fewer layers`,
    );
  else outlines.push(...facesOf(solid, JOIN, LEAST_ROOM));
  // Names of rooms stand on a layer of their own, where there is one.
  const named = drawing.layers.filter((l) => l.texts.length > 0 && /room/i.test(l.name));
  const texts = (named.length > 0 ? named : drawing.layers).flatMap((l) =>
    l.texts.map((t) => ({ ...t, at: plan(t.at) })),
  );
  const rooms: Area[] = [];
  for (const corners of outlines) {
    const label = texts.find((t) => t.text.trim() !== '' && insidePolygon(t.at, corners))?.text.trim();
    const name = (label ?? `Room ${rooms.length + 1}`).slice(0, 80);
    if (Math.abs(doubledArea(corners)) / 2 < LEAST_ROOM) {
      problems.push(`${name}: less than 4 ft², left out`);
      continue;
    }
    const room = roomFrom(corners, name, levelId);
    if (room.ok) rooms.push({ ...room.value, kind: kindFor(name) });
    else problems.push(room.message);
  }
  if (outlines.length === 0)
    problems.push('no closed outline found; walls must meet at their ends, or be drawn as closed polylines');
  return { rooms, problems };
}

/** A kind that a room's name speaks of; else a bedroom, which asks for the most. */
function kindFor(name: string): Area['kind'] {
  const plain = name.toLowerCase();
  return (
    AREA_KINDS.find((k) => plain.includes(AREA_FACTS[k].label.toLowerCase())) ??
    AREA_KINDS.find((k) => plain.includes(k.split('-')[0]!)) ??
    'bedroom'
  );
}

/** The plan of one level: rooms, openings, fixtures, outlets, each on its layer; inches. */
export function levelToDxf(document: JobDocument, levelId: string): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Inches);
  const layers: [string, number][] = [
    [ROOM_LAYER, 7],
    [NAME_LAYER, 8],
    ['OPENINGS', 5],
    ['FIXTURES', 9],
    ['OUTLETS', 1],
    ['OUTLET-NAMES', 1],
  ];
  for (const [name, color] of layers) dxf.addLayer(name, color, 'CONTINUOUS');
  const on = (layer: string) => dxf.setCurrentLayerName(layer);
  const north = ({ x, y }: Point) => point3d(x, -y, 0);
  const flat = ({ x, y }: Point) => ({ point: point2d(x, -y) });
  const areas = rows(document.areas).filter((a) => a.levelId === levelId && a.walls.length > 0);
  const inRoom = <T extends { areaId: string }>(list: readonly T[], area: Area) =>
    list.filter((e) => e.areaId === area.id);
  for (const area of areas) {
    const outline = outlineOf(area);
    on(ROOM_LAYER);
    const corners = outline.walls.map((w) => w.from);
    if (isClosed(outline)) dxf.addLWPolyline(corners.map(flat), { flags: 1 });
    else dxf.addLWPolyline([...corners, outline.walls.at(-1)!.to].map(flat));
    on(NAME_LAYER);
    const { left, right, top, bottom } = boundsOfPoints(corners);
    const middle = { x: (left + right) / 2, y: (top + bottom) / 2 };
    const inside = insidePolygon(middle, corners) ? middle : pointOnWall(outline, outline.walls[0]!, 12, 12);
    dxf.addText(north(inside), 6, area.name);
    on('OPENINGS');
    for (const o of inRoom(rows(document.openings), area)) {
      const wall = outline.walls.find((w) => w.id === o.wallId);
      if (!wall) continue;
      dxf.addLine(
        north(pointOnWall(outline, wall, o.offset)),
        north(pointOnWall(outline, wall, o.offset + o.width)),
      );
    }
    on('FIXTURES');
    for (const f of inRoom(rows(document.fixtures), area)) {
      const shape = footprint(area, f);
      if (shape) dxf.addLWPolyline(shape.map(flat), { flags: 1 });
    }
    for (const box of inRoom(rows(document.boxes), area)) {
      const at = placeInPlan(area, box.wallId, box.offset, box.fromWall);
      if (!at) continue;
      on('OUTLETS');
      dxf.addCircle(north(at), 3);
      on('OUTLET-NAMES');
      dxf.addText(point3d(at.x + 4, -at.y + 4, 0), 5, box.name);
    }
  }
  return dxf.stringify();
}
