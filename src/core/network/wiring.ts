/**
 * A circuit's own network: source, breaker, every conductor of every segment, every splice and terminal, device
 * contacts and loads, laid out as the run has them.
 */
import type { Run, RunStop } from '../circuits/run.ts';
import { EARTH, OPEN_OHMS, type Branch, type Network, type Source } from './network.ts';

export const CONDUCTORS = ['black', 'red', 'neutral', 'ground'] as const;
export type Conductor = (typeof CONDUCTORS)[number];

/** What a branch is of the wiring: `start` and `end` are the joints of a cable's conductor in the two boxes. */
export const PARTS = ['start', 'cable', 'end', 'terminal', 'contact', 'load'] as const;
export type Part = (typeof PARTS)[number];

/** A place where something may be wrong. */
export interface Spot {
  /** Position in the run's stops; −1 is the panel. */
  stop: number;
  conductor: Conductor;
  part: Part;
  branch: number;
}

/** Nodes of one device: where a tester's probes go. */
export interface Terminals {
  hot: number;
  neutral: number;
  ground: number;
  /** The other hot of a 240 V device; null for one of 120 V. */
  red: number | null;
}

export interface Wiring extends Network {
  spots: readonly Spot[];
  /** By position in the run's stops. */
  terminals: readonly Terminals[];
}

/** What is on: amperes at nominal voltage by position in the run's stops, and switches that are open. */
export interface Use {
  amps: ReadonlyMap<number, number>;
  open: ReadonlySet<number>;
}
export const NOTHING_ON: Use = { amps: new Map(), open: new Set() };

/** Ohms of what is not cable; usual figures, none of which a reading depends on while the wiring is sound. */
const SOURCE_OHMS = 0.02;
const BOND_OHMS = 0.001;
const ELECTRODE_OHMS = 25;
const BREAKER_OHMS = 0.005;
const JOINT_OHMS = 0.001;
const CONTACT_OHMS = 0.005;
/** Farads an inch between two conductors of a cable, about 15 pF a foot. */
const CAPACITANCE = 15e-12 / 12;
/** Siemens from any node to earth across air and dirt, so that nothing floats. */
const LEAK = 1e-9;

export function wiringOf(run: Run, use: Use = NOTHING_ON): Wiring {
  const { circuit, stops } = run;
  const nodes: string[] = [];
  const branches: Branch[] = [];
  const sources: Source[] = [];
  const spots: Spot[] = [];
  const terminals: Terminals[] = [];
  const present = CONDUCTORS.filter(
    (c) => (c !== 'red' || circuit.breaker.poles === 2) && (c !== 'neutral' || circuit.neutral),
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

  const bars = { neutral: node('panel.neutral'), ground: node('panel.ground') };
  join(bars.neutral, bars.ground, BOND_OHMS);
  join(bars.ground, EARTH, ELECTRODE_OHMS);
  const half = run.volts > 150 ? run.volts / 2 : run.volts;
  const leg = (conductor: 'black' | 'red', volts: number): number => {
    const bus = node(`panel.bus.${conductor}`);
    sources.push({ from: bars.neutral, to: bus, volts, ohms: SOURCE_OHMS });
    const out = node(`panel.breaker.${conductor}`);
    join(bus, out, BREAKER_OHMS, { stop: -1, conductor, part: 'contact' });
    return out;
  };
  const black = leg('black', half);
  const panel: Partial<Record<Conductor, number>> = {
    black,
    neutral: bars.neutral,
    ground: bars.ground,
    ...(present.includes('red') ? { red: leg('red', -half) } : {}),
  };

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
    const through = here.stop.splice === 'feed-through' ? { ...device, ground: splice.ground! } : splice;
    const hot: Conductor = here.stop.hot === 'red' && device.red !== undefined ? 'red' : 'black';
    const hotAt = device[hot] ?? device.black!;
    // Without a neutral the return is the other hot.
    const neutralAt = device.neutral ?? device.red ?? bars.neutral;
    const both = device.red !== undefined && (run.volts > 150 || box.device.volts !== '125');
    const onward = { ...through };
    if (box.device.kind === 'gfci' || box.device.kind === 'outlet-afci') {
      const hotLoad = node(`${box.name}.load.${hot}`);
      const neutralLoad = node(`${box.name}.load.neutral`);
      join(hotAt, hotLoad, CONTACT_OHMS, { stop, conductor: hot, part: 'contact' });
      join(neutralAt, neutralLoad, CONTACT_OHMS, { stop, conductor: 'neutral', part: 'contact' });
      onward[hot] = hotLoad;
      onward.neutral = neutralLoad;
    }
    if (box.device.kind === 'switch') {
      const switched = node(`${box.name}.switched`);
      if (use.open.has(stop))
        branches.push({ from: hotAt, to: switched, conductance: 1 / OPEN_OHMS, capacitance: 0 });
      else join(hotAt, switched, CONTACT_OHMS, { stop, conductor: hot, part: 'contact' });
      if (stops.some((s) => s.feeder === stop && s.role === 'switched')) onward[hot] = switched;
    }
    leaves.push({ line: through, load: onward });
    terminals.push({
      hot: hotAt,
      neutral: neutralAt,
      ground: device.ground!,
      red: both ? device.red! : null,
    });
    const amps = use.amps.get(stop) ?? 0;
    if (amps > 0) {
      const volts = both ? 2 * half : half;
      const to = both ? device.red! : neutralAt;
      join(hotAt, to, volts / amps, { stop, conductor: hot, part: 'load' });
    }
  });
  return { nodes, branches, sources, spots, terminals };
}
