/**
 * A circuit's own network: source, breaker, every conductor of every segment, every splice and terminal, device
 * contacts and loads, laid out as the run has them.
 */
import type { Run, RunStop } from '#core/circuits/run.ts';
import type { Box } from '#core/job/schema.ts';
import { EARTH, OPEN_OHMS, type Branch, type Network, type Source } from './network.ts';

export const CONDUCTORS = ['black', 'red', 'neutral', 'ground'] as const;
export type Conductor = (typeof CONDUCTORS)[number];

/**
 * What a branch is of the wiring: `start` and `end` are the joints of a cable's conductor in the two boxes, `supply` is
 * the leg that feeds a bus of the panel, `cord` joins what is plugged in, its frame to the ground.
 */
export const PARTS = ['supply', 'start', 'cable', 'end', 'terminal', 'contact', 'load', 'cord'] as const;
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
}

/** What is on and who touches what. */
export interface Use {
  /** Amperes at nominal voltage by position in the run's stops. */
  amps: ReadonlyMap<number, number>;
  /** Switches that are off and protecting devices that have tripped, by position. */
  open: ReadonlySet<number>;
  /** The breaker is off. */
  dead?: boolean;
  /** Where someone on damp ground touches the frame of what is plugged in. */
  touch?: number;
}
const NOTHING_ON: Use = { amps: new Map(), open: new Set() };

/** Ohms of what is not cable; usual figures, none of which a reading depends on while the wiring is sound. */
const SOURCE_OHMS = 0.02;
const BOND_OHMS = 0.001;
const ELECTRODE_OHMS = 25;
const BREAKER_OHMS = 0.005;
export const JOINT_OHMS = 0.001;
const CONTACT_OHMS = 0.005;
const CORD_OHMS = 0.05;
/** The neutral of another circuit, from where it is within reach to its bar. */
const OTHER_OHMS = 0.1;
/** A person, hand to foot; IEC 60479-1 puts half of all people above about this at 120 V in damp surroundings. */
export const PERSON_OHMS = 1000;
/** Farads an inch between two conductors of a cable, about 15 pF a foot. */
const CAPACITANCE = 15e-12 / 12;
/** Siemens from any node to earth across air and dirt, so that nothing floats. */
const LEAK = 1e-10;

export function wiringOf(run: Run, use: Use = NOTHING_ON): Wiring {
  const { circuit, stops } = run;
  const nodes: string[] = [];
  const branches: Branch[] = [];
  const sources: Source[] = [];
  const spots: Spot[] = [];
  const terminals: Terminals[] = [];
  const present = CONDUCTORS.filter(
    (c) =>
      (c !== 'red' || circuit.breaker.poles === 2) &&
      (c !== 'neutral' || circuit.neutral) &&
      (c !== 'ground' || circuit.cable !== 'old two-wire'),
  );

  const node = (name: string): number => {
    const at = nodes.push(name) - 1;
    branches.push({ from: at, to: EARTH, conductance: LEAK, capacitance: 0 });
    return at;
  };
  const join = (from: number, to: number, ohms: number, spot?: Omit<Spot, 'branch'>): void => {
    const branch = branches.push({ from, to, conductance: 1 / ohms, capacitance: 0 }) - 1;
    if (spot) spots.push({ ...spot, branch });
  };

  const neutralBar = node('panel.neutral');
  const groundBar = node('panel.ground');
  join(neutralBar, groundBar, BOND_OHMS);
  join(groundBar, EARTH, ELECTRODE_OHMS);
  const half = run.volts > 150 ? run.volts / 2 : run.volts;
  const bus = (conductor: 'black' | 'red', volts: number): number => {
    const leg = node(`service.${conductor}`);
    const at = node(`panel.bus.${conductor}`);
    sources.push({ from: neutralBar, to: leg, volts, ohms: SOURCE_OHMS });
    join(leg, at, JOINT_OHMS, { stop: -1, conductor, part: 'supply' });
    return at;
  };
  const buses = { black: bus('black', half), red: bus('red', -half) };
  const breaker = (conductor: 'black' | 'red'): number => {
    const out = node(`panel.breaker.${conductor}`);
    const ohms = use.dead ? OPEN_OHMS : BREAKER_OHMS;
    join(buses[conductor], out, ohms, { stop: -1, conductor, part: 'contact' });
    return out;
  };
  const out = { black: breaker('black'), red: present.includes('red') ? breaker('red') : null };
  const panel: Partial<Record<Conductor, number>> = {
    black: out.black,
    neutral: neutralBar,
    ground: groundBar,
    ...(out.red === null ? {} : { red: out.red }),
  };
  const otherNeutral = node('panel.other.neutral');
  join(otherNeutral, neutralBar, OTHER_OHMS);

  /** Where cables that go on from a box begin, by the side of its device that they leave from. */
  const leaves: Record<'line' | 'load', Partial<Record<Conductor, number>>>[] = [];

  /** A cable's conductors from where they begin to where they end in the next box. */
  function cable(
    stop: number,
    { box, segment }: RunStop,
    from: Partial<Record<Conductor, number>>,
  ): Partial<Record<Conductor, number>> {
    const near: number[] = [];
    const far: number[] = [];
    const ends: Partial<Record<Conductor, number>> = {};
    for (const conductor of present) {
      const begin = from[conductor];
      if (begin === undefined) continue;
      const start = node(`${box.name}.start.${conductor}`);
      const end = node(`${box.name}.end.${conductor}`);
      join(begin, start, JOINT_OHMS, { stop, conductor, part: 'start' });
      join(start, end, Math.max(segment.ohms, 1e-6), { stop, conductor, part: 'cable' });
      near.push(start);
      far.push(end);
      ends[conductor] = end;
    }
    // Half of a segment's stray capacitance at each of its ends.
    for (const side of [near, far])
      for (let a = 0; a < side.length; a++)
        for (let b = a + 1; b < side.length; b++)
          branches.push({
            from: side[a]!,
            to: side[b]!,
            conductance: 0,
            capacitance: (CAPACITANCE * segment.length) / 2,
          });
    return ends;
  }

  /** The ground slot of a device that no ground conductor reaches: by record it may be grounded by its box. */
  function strayGround(box: Box, pathOhms: number): number {
    const at = node(`${box.name}.terminal.ground`);
    if (box.grounding === 'grounded') join(at, groundBar, pathOhms + JOINT_OHMS);
    return at;
  }

  stops.forEach((here, stop) => {
    const { box, feeder } = here;
    const before = leaves[feeder];
    const ends = cable(stop, here, before ? before[here.stop.side] : panel);
    /** Conductors as they are joined in the box, and as they end at the device. */
    const splice: Partial<Record<Conductor, number>> = {};
    const device: Partial<Record<Conductor, number>> = {};
    for (const conductor of present) {
      const end = ends[conductor];
      if (end === undefined) continue;
      splice[conductor] = node(`${box.name}.splice.${conductor}`);
      join(end, splice[conductor], JOINT_OHMS, { stop, conductor, part: 'end' });
      device[conductor] = node(`${box.name}.terminal.${conductor}`);
      join(splice[conductor], device[conductor], JOINT_OHMS, { stop, conductor, part: 'terminal' });
    }
    const ground = device.ground ?? strayGround(box, here.pathOhms);
    const { ground: throughGround } = splice;
    const through: Partial<Record<Conductor, number>> =
      here.stop.splice === 'feed-through' ? { ...device } : { ...splice };
    if (throughGround !== undefined) through.ground = throughGround;
    const hot: Conductor = here.stop.hot === 'red' && device.red !== undefined ? 'red' : 'black';
    let hotAt = device[hot] ?? device.black!;
    // Without a neutral the return is the other hot.
    let neutralAt = device.neutral ?? device.red ?? neutralBar;
    const takesBoth = run.volts > 150 || box.device.volts !== '125';
    const both = device.red !== undefined && (takesBoth || here.stop.hot === 'both');
    const onward = { ...through };
    /** A contact of the device; one that is open keeps its place for what may be found there. */
    const contact = (from: number, name: string, conductor: Conductor): number => {
      const to = node(`${box.name}.${name}.${conductor}`);
      join(from, to, use.open.has(stop) ? OPEN_OHMS : CONTACT_OHMS, { stop, conductor, part: 'contact' });
      return to;
    };
    if (box.device.kind === 'gfci' || box.device.kind === 'outlet-afci') {
      // The face is on the load side: it goes dead with what is fed from there.
      hotAt = contact(hotAt, 'load', hot);
      neutralAt = contact(neutralAt, 'load', 'neutral');
      onward[hot] = hotAt;
      onward.neutral = neutralAt;
    }
    if (box.device.kind === 'switch') {
      const switched = contact(hotAt, 'switched', hot);
      if (stops.some((s) => s.feeder === stop && s.role === 'switched')) onward[hot] = switched;
    }
    leaves.push({ line: through, load: onward });
    const amps = use.amps.get(stop) ?? 0;
    let frame: number | null = null;
    if (amps > 0 || use.touch === stop) {
      frame = node(`${box.name}.frame`);
      join(frame, ground, CORD_OHMS, { stop, conductor: 'ground', part: 'cord' });
      if (use.touch === stop) join(frame, EARTH, PERSON_OHMS);
    }
    terminals.push({ hot: hotAt, neutral: neutralAt, ground, red: both ? device.red! : null, frame });
    if (amps > 0) {
      const across = both && takesBoth;
      const ohms = (across ? 2 * half : half) / amps;
      join(hotAt, across ? device.red! : neutralAt, ohms, { stop, conductor: hot, part: 'load' });
    }
  });
  return {
    nodes,
    branches,
    sources,
    spots,
    spotAt: new Map(spots.map((spot) => [spotKey(spot), spot])),
    terminals,
    panel: { neutral: neutralBar, ground: groundBar, bus: buses, breaker: out, otherNeutral },
  };
}
