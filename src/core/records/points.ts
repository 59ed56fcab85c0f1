/** What has to be touched with a tester in a box before it is dead: every splice group and loose end on record there. */
import { circuitOf, rows } from '#core/job/document.ts';
import type { Box, Circuit, JobDocument, Stop } from '#core/job/schema.ts';

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
}

/** Outlets this near each other along a wall, and in height, have one box, inches. */
const BESIDE = { along: 4, up: 3, out: 1 } as const;

const isBeside = (a: Box, b: Box): boolean =>
  a.areaId === b.areaId &&
  a.wallId === b.wallId &&
  Math.abs(a.offset - b.offset) <= BESIDE.along &&
  Math.abs(a.height - b.height) <= BESIDE.up &&
  Math.abs(a.fromWall - b.fromWall) <= BESIDE.out;

/** The outlets in one box with an outlet, itself first. */
export const enclosureOf = (document: JobDocument, box: Box): Box[] => [
  box,
  ...rows(document.boxes).filter((b) => b.id !== box.id && isBeside(b, box)),
];

interface Inside {
  circuit: Circuit;
  /** The outlet that it feeds here, and its stop; null where it only passes through. */
  at: { box: Box; stop: Stop } | null;
}

function insideOf(document: JobDocument, box: Box): Inside[] {
  const boxes = enclosureOf(document, box);
  const circuits = rows(document.circuits);
  const fed = boxes.flatMap((b) =>
    circuits.flatMap((circuit): Inside[] => {
      const stop = circuit.stops.find((s) => s.boxId === b.id);
      return stop ? [{ circuit, at: { box: b, stop } }] : [];
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

const WORDS = { hot: 'black', red: 'red', neutral: 'white', ground: 'ground' } as const;
type Conductor = keyof typeof WORDS;
const ROLE: Record<Conductor, PointRole> = { hot: 'hot', red: 'hot', neutral: 'neutral', ground: 'ground' };

/** Conductors of a circuit's cable. Without a neutral its white is a hot. */
const conductorsOf = ({ breaker, neutral, cable }: Circuit): Conductor[] => [
  'hot',
  ...(breaker.poles === 2 ? (['red'] as const) : []),
  ...(neutral ? (['neutral'] as const) : []),
  ...(cable === 'old two-wire' ? [] : (['ground'] as const)),
];

const wordOf = ({ breaker, neutral }: Circuit, conductor: Conductor): string => {
  if (breaker.poles === 2 && !neutral) {
    if (conductor === 'hot') return 'first hot (black)';
    if (conductor === 'red') return 'second hot (red, or white marked as a hot)';
  }
  return WORDS[conductor];
};

function passingPoints(circuit: Circuit): Point[] {
  return conductorsOf(circuit).map((conductor) => ({
    key: `${circuit.id}.passing.${conductor}`,
    name: `${wordOf(circuit, conductor)}, passing through`,
    role: ROLE[conductor],
    circuitId: circuit.id,
    conductor: `${circuit.id}.passing.${conductor}`,
  }));
}

function pointsAt(document: JobDocument, circuit: Circuit, { box, stop }: { box: Box; stop: Stop }): Point[] {
  const points: Point[] = [];
  const add = (conductor: string, part: string, name: string, role: PointRole) =>
    points.push({
      key: `${circuit.id}.${box.id}.${conductor}${part && `.${part}`}`,
      name,
      role,
      circuitId: circuit.id,
      conductor: `${circuit.id}.${box.id}.${conductor}`,
    });
  const fed = circuit.stops.flatMap((s) => {
    const to = document.boxes[s.boxId];
    return s.from === box.id && to ? [{ stop: s, box: to }] : [];
  });
  const switched = box.device.kind === 'switch' ? fed.filter((f) => box.controls.includes(f.box.id)) : [];
  const guards = box.device.kind === 'gfci' || box.device.kind === 'outlet-afci';
  const guarded = guards ? fed.filter((f) => f.stop.side === 'load') : [];
  const plain = fed.filter((f) => !switched.includes(f) && !guarded.includes(f));
  if (box.device.kind === 'switch' && stop.from !== null && box.controls.includes(stop.from)) {
    // A loop from what it controls: the supply comes down, often on the white, and goes back switched.
    add('hot', '', 'supply to the switch (often the white)', 'hot');
    add('switched', '', 'switched hot, back to the light', 'hot');
    if (circuit.cable !== 'old two-wire') add('ground', '', 'ground splice', 'ground');
    return points;
  }
  for (const conductor of conductorsOf(circuit)) {
    const word = wordOf(circuit, conductor);
    const role = ROLE[conductor];
    // A ground is always spliced; other conductors may end at the screws of the device, cable by cable.
    if (conductor === 'ground' || stop.splice === 'pigtail' || plain.length === 0)
      add(
        conductor,
        '',
        plain.length > 0 || conductor === 'ground' ? `${word} splice` : `${word} of the feed`,
        role,
      );
    else {
      add(conductor, 'feed', `${word} of the feed`, role);
      for (const f of plain) add(conductor, f.box.id, `${word} on to ${f.box.name}`, role);
    }
  }
  for (const f of guarded) {
    add(`load-${f.box.id}`, '', `LOAD hot to ${f.box.name}`, 'hot');
    if (circuit.neutral) add(`load-neutral-${f.box.id}`, '', `LOAD white to ${f.box.name}`, 'neutral');
  }
  for (const f of switched) add(`switched-${f.box.id}`, '', `switched hot to ${f.box.name}`, 'hot');
  if (box.device.kind === 'switch' && switched.length === 0)
    add('switched', '', 'switched hot, the other side of the switch', 'hot');
  if (box.device.switched === 'half' && circuit.breaker.poles === 1)
    add('switched-half', '', 'switched half (red)', 'hot');
  return points;
}

/** Conductors that were found in the box and that its circuits do not account for. */
function foundPoints(document: JobDocument, box: Box, planned: readonly Point[]): Point[] {
  const { found } = box;
  if (!found) return [];
  const circuit = circuitOf(document, box.id);
  const cables = circuit ? 1 + circuit.stops.filter((s) => s.from === box.id).length : 0;
  const points: Point[] = [];
  const add = (key: string, name: string) =>
    points.push({ key, name, role: 'unknown', circuitId: null, conductor: key });
  const known = new Set<string>(planned.map((p) => p.role));
  const hots = planned.filter((p) => p.role === 'hot').length;
  found.conductors.forEach((c, i) => {
    const extra =
      c.cable > cables ||
      ((c.color === 'red' || c.color === 'blue' || c.function === 'traveler' || c.function === 'switched') &&
        hots < 2) ||
      (c.function === 'ground' && !known.has('ground'));
    if (extra)
      add(`found.${i}`, `cable ${c.cable}, ${c.color}${c.function === 'unknown' ? '' : ` (${c.function})`}`);
  });
  for (let cable = cables + 1; cable <= found.cables; cable++)
    if (!found.conductors.some((c) => c.cable === cable))
      for (const word of ['black', 'white', 'bare or green'] as const)
        add(`found.cable-${cable}.${word.split(' ')[0]}`, `cable ${cable}, ${word}`);
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
