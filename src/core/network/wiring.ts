/**
 * A circuit's own network, from the wiring of its boxes: source, breaker, every conductor of every segment, every joint of
 * an end with a splice, a terminal or the metal of a box, what devices join inside, and loads.
 */
import { DEVICES, type Bridge, type DeviceRecord } from '#core/boxes/devices.ts';
import { plannedBoxes } from '#core/boxes/planned.ts';
import { BOX, endOf, endsOf, FEED, tailEnds, terminalAt, type End } from '#core/boxes/wiring.ts';
import type { Run, RunStop } from '#core/circuits/run.ts';
import type { BoxWiring, ConductorFunction } from '#core/job/schema.ts';
import {
  BREAKER_OHMS,
  CONTACT_OHMS,
  CORD_OHMS,
  JOINT_OHMS,
  Layout,
  OTHER_OHMS,
  PERSON_OHMS,
} from './layout.ts';
import { EARTH, OPEN_OHMS, type Network } from './network.ts';
import { houseBars, sourceBars, type House } from './supply.ts';

export { JOINT_OHMS, PERSON_OHMS } from './layout.ts';

/** Conductors of a circuit: black and red are its hots, whatever color they have. */
export const CONDUCTORS = [
  ...(['black', 'red', 'neutral', 'ground'] as const),
  ...(['switched', 'switched-b', 'traveler-1', 'traveler-2', 'interconnect', 'other'] as const),
] as const;
export type Conductor = (typeof CONDUCTORS)[number];

const CONDUCTOR_OF: Readonly<Record<ConductorFunction, Conductor>> = {
  hot: 'black',
  'hot-b': 'red',
  neutral: 'neutral',
  ground: 'ground',
  switched: 'switched',
  'switched-b': 'switched-b',
  'traveler-1': 'traveler-1',
  'traveler-2': 'traveler-2',
  interconnect: 'interconnect',
  spare: 'other',
  unknown: 'other',
};

/**
 * What a branch is of the wiring: `start` and `end` are the joints of a cable's conductor in the two boxes, `tail` the joint
 * of a tail with a splice, `terminal` what lands on the device, `supply` the leg that feeds a bus of the panel, `cord` joins
 * what is plugged in, its frame to the ground. A conductor that lands on the device itself is its `terminal`; it is asked
 * for as its `end` as well.
 */
export const PARTS = [
  ...(['supply', 'start', 'cable', 'end', 'tail', 'terminal', 'contact', 'load', 'cord'] as const),
] as const;
export type Part = (typeof PARTS)[number];

/** A place where something may be wrong. */
export interface Spot {
  /** Position in the run's stops; −1 is the panel. */
  stop: number;
  conductor: Conductor;
  part: Part;
  branch: number;
}

/** A number of its own for each place. */
export const spotKey = ({ stop, conductor, part }: Omit<Spot, 'branch'>): number =>
  ((stop + 1) * CONDUCTORS.length + CONDUCTORS.indexOf(conductor)) * PARTS.length + PARTS.indexOf(part);

/** Nodes at the face of one device: where a tester's probes go. */
export interface Terminals {
  hot: number;
  neutral: number;
  ground: number;
  /** The other hot of a 240 V device or of a duplex split between two hots; null where there is but one. */
  red: number | null;
  /** Metal frame of what is plugged in; null where nothing is. */
  frame: number | null;
  /** The conductor that its hot is. */
  hotIs: Conductor;
  /** Every contact of its faces, by the face's name. */
  faces: readonly FaceNodes[];
}

/** Contacts of one face; null where it has none. */
export interface FaceNodes {
  name: string;
  hot: number | null;
  hotB: number | null;
  neutral: number | null;
  ground: number | null;
}

/** Where the panel's own nodes are. */
interface PanelNodes {
  neutral: number;
  ground: number;
  /** The two buses, by the hot that is meant to be on them. */
  bus: { black: number; red: number };
  /** What leaves the breaker. */
  breaker: { black: number; red: number | null };
  /** Neutral of another circuit of the house, at its bar. */
  otherNeutral: number;
}

export interface Wiring extends Network {
  spots: readonly Spot[];
  /** The spots by `spotKey`. */
  spotAt: ReadonlyMap<number, Spot>;
  /** By position in the run's stops. */
  terminals: readonly Terminals[];
  panel: PanelNodes;
  /** Nodes of the ends and places of each box, by stop and by their names in its wiring. */
  inBox: readonly ReadonlyMap<string, number>[];
}

/** What is on and who touches what. */
export interface Use {
  /** Amperes at nominal voltage by position in the run's stops. */
  amps: ReadonlyMap<number, number>;
  /** Switches that are thrown from the position in which the load is on, and protecting devices that have tripped, by stop. */
  open: ReadonlySet<number>;
  /** Protecting devices that have not reset: their faces are parted as well. */
  notReset?: ReadonlySet<number>;
  /** The breaker is off. */
  dead?: boolean;
  /** Where someone on damp ground touches the frame of what is plugged in. */
  touch?: number;
}
const NOTHING_ON: Use = { amps: new Map(), open: new Set() };

/**
 * @param boxes the wiring of each box by its position in the stops; as planned where it is not given
 * @param house what feeds the circuit's panel; without it a source stands at the panel itself
 */
export function wiringOf(
  run: Run,
  use: Use = NOTHING_ON,
  boxes: readonly BoxWiring[] = plannedBoxes(run),
  house: House | null = null,
): Wiring {
  const { circuit, stops } = run;
  const layout = new Layout();
  const { node, join } = { node: layout.node.bind(layout), join: layout.join.bind(layout) };

  const half = run.volts > 150 ? run.volts / 2 : run.volts;
  const bars = house ? houseBars(layout, house, half) : sourceBars(layout, half);
  const { neutral: neutralBar, ground: groundBar, bus: buses } = bars;
  const breaker = (conductor: 'black' | 'red'): number => {
    const out = node(`panel.breaker.${conductor}`);
    const ohms = use.dead ? OPEN_OHMS : BREAKER_OHMS;
    join(buses[conductor], out, ohms, { stop: -1, conductor, part: 'contact' });
    return out;
  };
  const out = { black: breaker('black'), red: circuit.breaker.poles === 2 ? breaker('red') : null };
  const otherNeutral = node('panel.other.neutral');
  join(otherNeutral, neutralBar, OTHER_OHMS);
  const atPanel: Partial<Record<ConductorFunction, number>> = {
    hot: out.black,
    ...(out.red === null ? {} : { 'hot-b': out.red }),
    ...(circuit.neutral ? { neutral: neutralBar } : {}),
    ground: groundBar,
  };

  const inBox = stops.map(({ box }, stop) => boxNodes(layout, box.name, boxes[stop]!));
  stops.forEach((here, stop) => segment(here, stop));
  stops.forEach((_, stop) => others(stop));
  const terminals = stops.map((here, stop) => device(here, stop));

  /** Cables of other circuits that come into a box are live, from the same panel. */
  function others(stop: number): void {
    const from: Partial<Record<ConductorFunction, number>> = {
      hot: buses.black,
      'hot-b': buses.red,
      neutral: otherNeutral,
      ground: groundBar,
    };
    for (const cable of boxes[stop]!.cables) {
      if (cable.circuitId === null || !cable.id.endsWith('-in')) continue;
      for (const c of cable.conductors) {
        const [source, end] = [from[c.function], inBox[stop]!.get(endOf(cable, c))];
        if (source !== undefined && end !== undefined) join(source, end, OTHER_OHMS);
      }
    }
  }

  /** The cable that feeds a stop: its conductors are paired by their names at both ends. */
  function segment(here: RunStop, stop: number): void {
    const {
      box,
      feeder,
      segment: { length, ohms },
    } = here;
    const far = boxes[stop]!.cables.find((c) => c.toward === FEED);
    const near = feeder < 0 ? far : boxes[feeder]?.cables.find((c) => c.toward === box.id);
    if (!far || !near) return;
    const [starts, ends]: [number[], number[]] = [[], []];
    for (const conductor of far.conductors) {
      const end = inBox[stop]!.get(endOf(far, conductor));
      if (end === undefined) continue;
      if (conductor.color === 'armor') {
        // A sheath is joined to whatever holds it, all the way to the panel.
        join(end, groundBar, here.pathOhms + JOINT_OHMS);
        continue;
      }
      if (!near.conductors.some((c) => c.id === conductor.id)) continue;
      const name = CONDUCTOR_OF[conductor.function];
      const from = feeder < 0 ? atPanel[conductor.function] : inBox[feeder]!.get(endOf(near, conductor));
      let start = from;
      if (feeder < 0) {
        start = node(`${box.name}.start.${conductor.id}`);
        if (from !== undefined) join(from, start, JOINT_OHMS, { stop, conductor: name, part: 'start' });
      }
      if (start === undefined) continue;
      join(start, end, Math.max(ohms, 1e-6), { stop, conductor: name, part: 'cable' });
      starts.push(start);
      ends.push(end);
    }
    layout.couple(starts, length);
    layout.couple(ends, length);
  }

  /** Joints of a box, what its device joins, and where a tester's probes go. */
  function device(here: RunStop, stop: number): Terminals {
    const wiring = boxes[stop]!;
    const nodes = inBox[stop]!;
    const onward = new Map(stops.flatMap((s, i) => (s.feeder === stop ? [[s.box.id, i] as const] : [])));
    joints(layout, wiring, nodes, stop, onward);
    const [yoke] = wiring.yokes;
    const record = yoke ? DEVICES[yoke.kind] : null;
    if (yoke && record) {
      const ends = new Map(endsOf(wiring).map((end) => [end.id, end]));
      const place = (id: string) => terminalAt(yoke, { id });
      bridges(
        layout,
        record,
        (id) => nodes.get(place(id))!,
        (id) => landedAt(wiring, place(id), ends),
        stop,
        use,
      );
    }
    const at = (id: string | null): number | null =>
      id === null || !yoke ? null : (nodes.get(terminalAt(yoke, { id })) ?? null);
    const faces = (record?.faces ?? []).map(({ name, hot, hotB, neutral, ground }): FaceNodes => ({
      name,
      hot: at(hot),
      hotB: at(hotB),
      neutral: at(neutral),
      ground: at(ground),
    }));
    return load(here, stop, record, faces, at);
  }

  function load(
    here: RunStop,
    stop: number,
    record: DeviceRecord | null,
    faces: readonly FaceNodes[],
    at: (id: string | null) => number | null,
  ): Terminals {
    const { box } = here;
    const nodes = inBox[stop]!;
    const meeting = (fn: ConductorFunction): number | null => nodes.get(`splice-${fn}`) ?? null;
    const [face] = faces;
    const split = faces.length > 1 && faces[1]!.hot !== face!.hot && faces[1]!.hotB === null;
    const takesRed = here.stop.hot === 'both' && out.red !== null;
    // A switch is read at what it feeds; a box without a device at its splices.
    const hot =
      face?.hot ??
      at('load') ??
      at('common') ??
      at('out-1') ??
      meeting('hot') ??
      meeting('hot-b') ??
      buses.black;
    const red = face?.hotB ?? (split && takesRed ? faces[1]!.hot : null) ?? at('load-b');
    // Without a neutral the return is the other hot.
    const neutral = face?.neutral ?? at('white') ?? meeting('neutral') ?? red ?? neutralBar;
    let ground = face?.ground ?? at('green') ?? meeting('ground');
    // By record it may be grounded by what holds its cable.
    if (ground === null) {
      ground = node(`${box.name}.ground`);
      if (box.grounding === 'grounded') join(ground, groundBar, here.pathOhms + JOINT_OHMS);
    }
    const amps = use.amps.get(stop) ?? 0;
    let frame: number | null = null;
    if (amps > 0 || use.touch === stop) {
      frame = node(`${box.name}.frame`);
      join(frame, ground, CORD_OHMS, { stop, conductor: 'ground', part: 'cord' });
      if (use.touch === stop) join(frame, EARTH, PERSON_OHMS);
    }
    const hotIs = hotAt(layout, stop, hot);
    if (amps > 0) {
      const across = red !== null && face?.hotB !== undefined && face.hotB !== null;
      const ohms = (across ? 2 * half : half) / amps;
      join(hot, across ? red : neutral, ohms, { stop, conductor: hotIs, part: 'load' });
    }
    return { hot, neutral, ground, red, frame, hotIs, faces };
  }

  const spotAt = new Map(layout.aliases);
  for (const spot of layout.spots) if (!spotAt.has(spotKey(spot))) spotAt.set(spotKey(spot), spot);
  return {
    nodes: layout.nodes,
    branches: layout.branches,
    sources: layout.sources,
    spots: layout.spots,
    spotAt,
    terminals,
    panel: { neutral: neutralBar, ground: groundBar, bus: buses, breaker: out, otherNeutral },
    inBox,
  };
}

/** The conductor that arrives at the hot contact of a device: through its contacts, or at its terminal. */
function hotAt({ spots, branches }: Layout, stop: number, hot: number): Conductor {
  const here = spots.filter((s) => s.stop === stop);
  const contact = here.find((s) => s.part === 'contact' && s.conductor !== 'neutral');
  const landing = here.find((s) => s.part === 'terminal' && branches[s.branch]!.to === hot);
  return (contact ?? landing)?.conductor ?? 'black';
}

/** A node for every end and every place of a box; terminals that a kept tab joins are one metal. */
function boxNodes(layout: Layout, name: string, wiring: BoxWiring): Map<string, number> {
  const nodes = new Map<string, number>();
  const add = (id: string) => nodes.set(id, layout.node(`${name}.${id}`));
  for (const end of endsOf(wiring)) if (end.kind !== 'tail') add(end.id);
  // The two ends of a tail are a few inches of one conductor.
  for (const tail of wiring.tails) {
    const [a, b] = tailEnds(tail);
    add(a);
    nodes.set(b, nodes.get(a)!);
  }
  for (const { id } of wiring.splices) add(id);
  if (wiring.places.some((p) => p.at === BOX)) add(BOX);
  for (const yoke of wiring.yokes) {
    const { terminals, bridges } = DEVICES[yoke.kind];
    const kept = (by: Bridge['by']) =>
      (by === 'hot tab' && yoke.hotTab) || (by === 'neutral tab' && yoke.neutralTab);
    const sameAs = new Map(bridges.flatMap(({ from, to, by }) => (kept(by) ? [[to, from] as const] : [])));
    const inside = [...terminals.map((t) => t.id), ...bridges.flatMap((b) => [b.from, b.to])];
    for (const id of inside)
      if (!sameAs.has(id) && !nodes.has(terminalAt(yoke, { id }))) add(terminalAt(yoke, { id }));
    for (const [id, as] of sameAs)
      nodes.set(terminalAt(yoke, { id }), nodes.get(terminalAt(yoke, { id: as }))!);
  }
  return nodes;
}

/** Every end with the place where it stands. */
function joints(
  layout: Layout,
  wiring: BoxWiring,
  nodes: ReadonlyMap<string, number>,
  stop: number,
  onward: ReadonlyMap<string, number>,
): void {
  const ends = new Map(endsOf(wiring).map((end) => [end.id, end]));
  const terminals = new Set(
    wiring.yokes.flatMap((yoke) => DEVICES[yoke.kind].terminals.map((t) => terminalAt(yoke, t))),
  );
  for (const { end: id, at } of wiring.places) {
    const end = ends.get(id);
    const [from, to] = [nodes.get(id), at === null ? undefined : nodes.get(at)];
    if (!end || at === null || from === undefined || to === undefined) continue;
    const conductor = CONDUCTOR_OF[end.function];
    const onDevice = terminals.has(at);
    const next = end.cable && onward.get(end.cable.toward);
    if (next !== undefined && next !== null)
      layout.join(to, from, JOINT_OHMS, { stop: next, conductor, part: 'start' });
    else if (end.cable?.toward === FEED) {
      const spot = layout.join(from, to, JOINT_OHMS, {
        stop,
        conductor,
        part: onDevice ? 'terminal' : 'end',
      });
      if (onDevice) layout.aliases.push([spotKey({ stop, conductor, part: 'end' }), spot!]);
    } else if (end.kind === 'lead') {
      const landed = conductor === 'other' ? conductorAt(wiring, at, ends) : conductor;
      layout.join(to, from, JOINT_OHMS, { stop, conductor: landed, part: 'terminal' });
    } else if (end.kind === 'tail' && onDevice)
      layout.join(from, to, JOINT_OHMS, { stop, conductor, part: 'terminal' });
    // What bonds the box carries nothing while all is well, and has no name of its own.
    else if (end.kind === 'tail' && at !== BOX && !id.endsWith('.b'))
      layout.join(to, from, JOINT_OHMS, { stop, conductor, part: 'tail' });
    else layout.join(from, to, JOINT_OHMS);
  }
}

/** What the conductors that meet at a place are there for. */
function conductorAt(wiring: BoxWiring, place: string, ends: ReadonlyMap<string, End>): Conductor {
  for (const { end, at } of wiring.places) {
    const one = at === place ? ends.get(end) : undefined;
    if (one && one.kind !== 'lead' && CONDUCTOR_OF[one.function] !== 'other')
      return CONDUCTOR_OF[one.function];
  }
  return 'other';
}

/** The conductor that lands on a terminal, or that its lead is joined with. */
function landedAt(wiring: BoxWiring, terminal: string, ends: ReadonlyMap<string, End>): Conductor {
  const splice = wiring.places.find((p) => p.end === terminal)?.at;
  return conductorAt(wiring, splice ?? terminal, ends);
}

/** What a device joins: its contacts as they stand. */
function bridges(
  layout: Layout,
  record: DeviceRecord,
  nodeOf: (id: string) => number,
  named: (id: string) => Conductor,
  stop: number,
  use: Use,
): void {
  const thrown = use.open.has(stop);
  const reset = !use.notReset?.has(stop);
  for (const { from, to, by, leaks } of record.bridges) {
    if (by === 'hot tab' || by === 'neutral tab') continue;
    const [a, b] = [nodeOf(from), nodeOf(to)];
    if (by === 'face') {
      layout.join(a, b, reset ? JOINT_OHMS : OPEN_OHMS);
      continue;
    }
    const closed = by === 'contact' ? !thrown && reset : by.includes(thrown ? 1 : 0);
    // Of two ways the common screw says nothing: each is named by where it goes.
    const conductor =
      record.positions.length > 0 && from !== 'line' && from !== 'line-b' ? named(to) : named(from);
    layout.join(a, b, closed ? CONTACT_OHMS : (leaks ?? OPEN_OHMS), { stop, conductor, part: 'contact' });
  }
}
