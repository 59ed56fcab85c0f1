/** What has to be touched with a tester in a box before it is dead: every splice group and loose end on record there. */
import { actualWiring, plannedBoxes } from '#core/boxes/planned.ts';
import { endOf, endsOf, FEED, functionName, placeOf, type End } from '#core/boxes/wiring.ts';
import { buildRun, type Run } from '#core/circuits/run.ts';
import { circuitOf, rows } from '#core/job/document.ts';
import type { Box, Circuit, ConductorFunction, JobDocument } from '#core/job/schema.ts';

type PointRole = 'hot' | 'neutral' | 'ground' | 'unknown';

/** A splice group, the screws of one cable, or a loose end: one touch of a probe. */
export interface Point {
  /** Stands in observations. */
  key: string;
  name: string;
  role: PointRole;
  /** Null: a conductor of which no circuit is on record. */
  circuitId: string | null;
  /** The conductor that it is of: parts of one conductor are not read against each other. */
  conductor: string;
  /** The splice or the end of its box's wiring that is touched; null where none is on record. */
  at: string | null;
}

/** Outlets this near each other along a wall, and in height, have one box, inches. */
const BESIDE = { along: 4, up: 3, out: 1 } as const;

/** Outlets in words alone stand nowhere on the plan, and so beside none. */
const isBeside = (a: Box, b: Box): boolean =>
  a.wallId !== null &&
  a.areaId === b.areaId &&
  a.wallId === b.wallId &&
  Math.abs(a.offset - b.offset) <= BESIDE.along &&
  Math.abs(a.height - b.height) <= BESIDE.up &&
  Math.abs(a.fromWall - b.fromWall) <= BESIDE.out;

/** The outlets in one box with an outlet, itself first: those beside it, those beside them, and so on. */
export function enclosureOf(document: JobDocument, box: Box): Box[] {
  const found = [box];
  // What is found grows while it is gone through.
  for (const one of found)
    for (const b of rows(document.boxes))
      if (isBeside(b, one) && !found.some((f) => f.id === b.id)) found.push(b);
  return found;
}

interface Inside {
  circuit: Circuit;
  /** The outlet that it feeds here; null where it only passes through. */
  at: Box | null;
}

function insideOf(document: JobDocument, box: Box): Inside[] {
  const boxes = enclosureOf(document, box);
  const circuits = rows(document.circuits);
  const fed = boxes.flatMap((b) =>
    circuits.flatMap((circuit): Inside[] => {
      return circuit.stops.some((s) => s.boxId === b.id) ? [{ circuit, at: b }] : [];
    }),
  );
  const passing = [...new Set(boxes.flatMap((b) => b.through))]
    .flatMap((id) => document.circuits[id] ?? [])
    .filter((circuit) => !fed.some((f) => f.circuit.id === circuit.id));
  return [...fed, ...passing.map((circuit) => ({ circuit, at: null }))];
}

/** Circuits with conductors in a box, by what is on record. */
export const circuitsIn = (document: JobDocument, box: Box): Circuit[] => [
  ...new Set(insideOf(document, box).map((i) => i.circuit)),
];

/** Every point of a box on record, its own circuit first. */
export function pointsIn(document: JobDocument, box: Box): Point[] {
  const inside = insideOf(document, box);
  const points = inside.flatMap((i) =>
    i.at ? pointsAt(document, i.circuit, i.at) : passingPoints(i.circuit),
  );
  const several = new Set(inside.map((i) => i.circuit.id)).size > 1;
  const named = several
    ? points.map((p) => ({ ...p, name: `${document.circuits[p.circuitId!]?.name ?? ''}: ${p.name}` }))
    : points;
  return [...named, ...foundPoints(document, box, points)];
}

/** Conductors that a circuit has, whatever is done with them: a name for keys, a word, a role. @param ground its word */
const conductorsOf = (
  { breaker, neutral, cable }: Circuit,
  ground: string,
): (readonly [short: string, word: string, role: PointRole])[] => [
  ['hot', 'black', 'hot'],
  ...(breaker.poles === 2 ? ([['red', 'red', 'hot']] as const) : []),
  ...(neutral ? ([['neutral', 'white', 'neutral']] as const) : []),
  ...(cable === 'old two-wire' ? [] : ([['ground', ground, 'ground']] as const)),
];

/** Conductors of another circuit that pass: by its poles, neutral and ground. */
function passingPoints(circuit: Circuit): Point[] {
  const { id } = circuit;
  return conductorsOf(circuit, 'ground').map(([conductor, word, role]) => ({
    key: `${id}.passing.${conductor}`,
    name: `${word}, passing through`,
    role,
    circuitId: id,
    conductor: `${id}.passing.${conductor}`,
    at: null,
  }));
}

/** Runs by document and circuit: the boxes of one are asked again and again. */
const runs = new WeakMap<JobDocument, Map<Circuit, Run>>();
function runIn(document: JobDocument, circuit: Circuit): Run {
  const known = runs.get(document) ?? new Map<Circuit, Run>();
  runs.set(document, known);
  const run = known.get(circuit) ?? buildRun(document, circuit);
  known.set(circuit, run);
  return run;
}

/** Short names of functions in keys: those of records that were made before there were others. */
const KEYS: Partial<Record<ConductorFunction, string>> = { 'hot-b': 'red' };

/**
 * The points of one outlet's own conductors, from its wiring: each splice, and each end that lands on the device or is
 * capped; what is spliced is one touch, whatever device hangs on it.
 */
function pointsAt(document: JobDocument, circuit: Circuit, box: Box): Point[] {
  const run = runIn(document, circuit);
  const at = run.stops.findIndex((s) => s.box.id === box.id);
  if (at < 0) return [];
  if (circuit.ordered !== 'yes' && box.status !== 'new' && !box.wiring) return feedPoints(circuit, box);
  const planned = plannedBoxes(run)[at]!;
  // A box of which only the cables were counted is touched as planned; what is in it beyond that comes after.
  const wiring = (box.wiring?.wiring.places.length ?? 0) > 0 ? actualWiring(box, planned) : planned;
  const own = endsOf(wiring).filter((e) => e.cable !== null && e.cable.circuitId === null);
  const points = new Map<string, Point>();
  const both = circuit.breaker.poles === 2 && !circuit.neutral;
  for (const end of own) {
    const place = placeOf(wiring, end.id);
    const spliced = place !== undefined && place !== null && wiring.splices.some((s) => s.id === place);
    const isGround = end.function === 'ground';
    const id = `${circuit.id}.${box.id}`;
    const load = spliced ? place.startsWith('splice-load-') : (place?.includes('.load-') ?? false);
    const word = both ? bothHots(end) : wordOf(end);
    const to = end.cable!.toward;
    const goes =
      to === FEED
        ? 'of the feed'
        : to === 'unknown'
          ? 'of a cable not known'
          : `on to ${document.boxes[to]?.name ?? to}`;
    const short = KEYS[end.function] ?? end.function;
    // Ends of one function that are all of the feed, or all spliced, need no more of a name.
    const alone =
      spliced ||
      !own.some((o) => o !== end && o.function === end.function && placeOf(wiring, o.id) !== place);
    const part = load ? `load.${to}` : alone ? '' : to;
    const key =
      spliced && !load
        ? `${id}.${place.replace('splice-', '').replace(/^hot-b$/, 'red')}`
        : `${id}.${short}${part && `.${part}`}`;
    if (points.has(key)) continue;
    points.set(key, {
      key,
      name: load
        ? `LOAD ${end.function === 'neutral' ? 'white' : 'hot'} ${goes.replace('on to', 'to')}`
        : isGround || spliced
          ? `${word} splice`
          : `${word} ${end.function.startsWith('switched') ? goes.replace('on to', 'to') : goes}`,
      role: roleOf(end.function),
      circuitId: circuit.id,
      conductor: `${id}.${load ? `load-${short}-${to}` : short}`,
      at: spliced ? place : end.id,
    });
  }
  const list = [...points.values()].sort((a, b) => orderOf(a) - orderOf(b));
  // Its switch is elsewhere: the switched conductor is in the box whatever is planned.
  if (box.device.switched === 'half' && !own.some((e) => e.function === 'switched')) {
    const key = `${circuit.id}.${box.id}.switched-half`;
    list.push({
      key,
      name: 'switched half (red)',
      role: 'hot',
      circuitId: circuit.id,
      conductor: key,
      at: null,
    });
  }
  return list;
}

/** The circuit's own conductors first, as they are read; then what leaves by LOAD, switched hots, travelers. */
const ORDER = ['hot', 'red', 'neutral', 'ground'];
function orderOf({ conductor }: Point): number {
  const at = ORDER.indexOf(conductor.split('.')[2]!);
  return at < 0 ? ORDER.length : at;
}

const roleOf = (fn: ConductorFunction): PointRole =>
  fn === 'neutral' || fn === 'ground'
    ? fn
    : fn === 'interconnect' || fn === 'spare' || fn === 'unknown'
      ? 'unknown'
      : 'hot';

/** A conductor by what it looks like; by what it is there for where that is another thing. */
function wordOf({ color, function: fn, mark }: End): string {
  if (fn === 'ground') return 'ground';
  if (fn === 'hot' || fn === 'hot-b' || fn === 'neutral')
    return mark === null ? color : `${color} (marked as a hot)`;
  return functionName(fn);
}
const bothHots = (end: End): string =>
  end.function === 'hot' || end.function === 'hot-b'
    ? `${end.function === 'hot' ? 'first' : 'second'} hot (${wordOf(end).replace(/[()]/g, '')})`
    : wordOf(end);

/**
 * The conductors of the first cable of a box where nobody knows how they are joined: each is read by itself, whatever device
 * hangs on them.
 */
function feedPoints(circuit: Circuit, box: Box): Point[] {
  const { id } = circuit;
  return conductorsOf(circuit, 'bare or green').map(([short, name, role]) => ({
    key: `${id}.${box.id}.${short}`,
    name: `${(box.cables ?? 1) > 1 ? 'cable 1, ' : ''}${name}`,
    role,
    circuitId: id,
    conductor: `${id}.${box.id}.${short}`,
    at: null,
  }));
}

/** Cables that were counted and of which nobody knows where they go: each may be of another circuit. */
function countedPoints(circuit: Circuit, box: Box): Point[] {
  if (circuit.ordered === 'yes' || box.status === 'new') return [];
  const colors = ['black', 'white', ...(circuit.cable === 'old two-wire' ? [] : ['bare'])];
  return Array.from({ length: Math.max(0, (box.cables ?? 1) - 1) }, (_, k) => k + 2).flatMap((n) =>
    colors.map((color): Point => ({
      key: `found.cable-${n}.${color}`,
      name: `cable ${n}, ${color === 'bare' ? 'bare or green' : color}`,
      role: 'unknown',
      circuitId: null,
      conductor: `found.cable-${n}.${color}`,
      at: null,
    })),
  );
}

/** Conductors that were found in the box and that its circuits do not account for. */
function foundPoints(document: JobDocument, box: Box, planned: readonly Point[]): Point[] {
  const circuit = circuitOf(document, box.id);
  if (!box.wiring) return circuit ? countedPoints(circuit, box) : [];
  if (box.wiring.stage !== 'as-found') return [];
  const expected = circuit ? 1 + circuit.stops.filter((s) => s.from === box.id).length : 0;
  const points: Point[] = [];
  const add = (key: string, name: string) =>
    points.push({ key, name, role: 'unknown', circuitId: null, conductor: key, at: null });
  const known = new Set<string>(planned.map((p) => p.role));
  const hots = planned.filter((p) => p.role === 'hot').length;
  box.wiring.wiring.cables.forEach((cable, i) => {
    const extra = i >= expected;
    cable.conductors.forEach((c) => {
      const another =
        (c.color === 'red' ||
          c.color === 'blue' ||
          c.function.startsWith('traveler') ||
          c.function === 'switched') &&
        hots < 2;
      if (extra || another || (c.function === 'ground' && !known.has('ground')))
        add(
          `found.${endOf(cable, c)}`,
          `cable ${i + 1}, ${c.color}${c.function === 'unknown' ? '' : ` (${functionName(c.function)})`}`,
        );
    });
    if (extra && cable.conductors.length === 0)
      for (const word of ['black', 'white', 'bare or green'] as const)
        add(`found.${cable.id}.${word.split(' ')[0]}`, `cable ${i + 1}, ${word}`);
  });
  return points;
}

/** Hots to be read against each other: one point of each conductor. */
export function hotPairs(points: readonly Point[]): [Point, Point][] {
  const hots = oneEach(points.filter((p) => p.role === 'hot'));
  return hots.flatMap((a, i) => hots.slice(i + 1).map((b): [Point, Point] => [a, b]));
}

/** Each hot with a neutral of its circuit. */
export function hotNeutralPairs(points: readonly Point[]): [Point, Point][] {
  return oneEach(points.filter((p) => p.role === 'hot')).flatMap((hot): [Point, Point][] => {
    const neutral = points.find((p) => p.role === 'neutral' && p.circuitId === hot.circuitId);
    return neutral ? [[hot, neutral]] : [];
  });
}

const oneEach = (points: readonly Point[]): Point[] =>
  points.filter((p, i) => points.findIndex((q) => q.conductor === p.conductor) === i);
