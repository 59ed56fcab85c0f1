/**
 * One circuit between the bars of its panel, from the wiring of its boxes: breaker, every conductor of every segment, every
 * joint of an end with a splice, a terminal or the metal of a box, what devices join inside, and loads.
 */
import { DEVICES } from '#core/boxes/devices.ts';
import { cableOf } from '#core/boxes/nets.ts';
import { endOf, endsOf, FEED, terminalAt } from '#core/boxes/wiring.ts';
import type { Run, RunStop } from '#core/circuits/run.ts';
import type { BoxWiring, ConductorFunction } from '#core/job/schema.ts';
import { couplingOf, STRAY_SPREAD } from './couplings.ts';
import { boxNodes, bridges, joints, landedAt, type Contacts } from './joints.ts';
import { BREAKER_OHMS, CORD_OHMS, JOINT_OHMS, OTHER_OHMS, PERSON_OHMS, type Layout } from './layout.ts';
import { EARTH, OPEN_OHMS } from './network.ts';
import {
  CONDUCTOR_OF,
  type Conductor,
  type FaceNodes,
  type Spot,
  type Terminals,
  type Use,
} from './places.ts';

/** A circuit in a network. */
export interface Study {
  run: Run;
  /** The wiring of each box by its position in the stops. */
  boxes: readonly BoxWiring[];
  use: Use;
}

/** Bars of a panel as a circuit sees them: the buses by the hot that is meant to be on them. */
export interface Bars {
  neutral: number;
  ground: number;
  bus: { black: number; red: number };
}

/** Where a circuit leaves its panel. */
export interface Leaving extends Bars {
  /** What leaves the breaker; the neutral is the bar where the breaker has no lead of its own for it. */
  breaker: { black: number; red: number | null; neutral: number };
  /** Neutral of another circuit of the house, at its bar. */
  otherNeutral: number;
}

/** What opens by itself: a breaker, or a device with the contacts that it senses. */
export interface Guard {
  /** Position of its stop; −1 − k for the breaker of the k-th circuit. */
  stop: number;
  /** Branches that it opens, and those to its own face. */
  contacts: readonly Spot[];
  faces: readonly number[];
  /** Branches whose currents it adds up for a difference; none where it does not look for one. */
  senses: readonly Spot[];
  groundFault: boolean;
  /** Amperes of a breaker; null for a device that does not see overcurrent. */
  rating: number | null;
  /** Its poles open together. */
  together: boolean;
  /** Made before 2006: works though it is fed on its load terminals. */
  old: boolean;
}

/** A load as it lies in the network. */
export interface LaidLoad {
  stop: number;
  branch: number;
  /** Volt-amperes at nominal volts, and the volts; its resistance follows from the two. */
  power: number;
  volts: number;
  constantPower: boolean;
}

export interface CircuitNodes {
  terminals: Terminals[];
  leaving: Leaving;
  inBox: ReadonlyMap<string, number>[];
  /** Branches of joints by the ends that they hold. */
  joints: ReadonlyMap<string, number>[];
  /** Nodes where cables were laid in two pieces, by stop and conductor. */
  cuts: ReadonlyMap<number, ReadonlyMap<Conductor, number>>;
  guards: Guard[];
  loads: LaidLoad[];
}

/** Volts of one leg where a circuit works. */
export const legVolts = ({ volts }: Pick<Run, 'volts'>): number => (volts > 150 ? volts / 2 : volts);

/**
 * @param layout whose `first` is the position that the first stop gets
 * @param index of the circuit among those of the network
 * @param name of its panel in the names of nodes
 */
export function layCircuit(
  layout: Layout,
  { run, boxes, use }: Study,
  bars: Bars,
  index: number,
  name: string,
): CircuitNodes {
  const { circuit, stops } = run;
  const { first } = layout;
  const half = legVolts(run);
  const { neutral: neutralBar, ground: groundBar, bus: buses } = bars;
  const panelStop = -1 - index;
  const breakerSpots: Spot[] = [];
  const breaker = (conductor: 'black' | 'red'): number => {
    const out = layout.node(`${name}.breaker.${conductor}`);
    const ohms = use.dead ? OPEN_OHMS : BREAKER_OHMS;
    breakerSpots.push(
      layout.join(buses[conductor], out, ohms, { stop: panelStop, conductor, part: 'contact' }),
    );
    return out;
  };
  const black = breaker('black');
  const red = circuit.breaker.poles === 2 ? breaker('red') : null;
  const senses = circuit.breaker.protection !== 'none' && circuit.neutral;
  const lead = senses ? layout.node(`${name}.breaker.neutral`) : neutralBar;
  const leadSpot = senses
    ? [layout.join(neutralBar, lead, JOINT_OHMS, { stop: panelStop, conductor: 'neutral', part: 'bar' })]
    : [];
  const otherNeutral = layout.node(`${name}.other.neutral`);
  layout.branch(otherNeutral, neutralBar, OTHER_OHMS);
  const leaving: Leaving = { ...bars, breaker: { black, red, neutral: lead }, otherNeutral };
  const atPanel: Partial<Record<ConductorFunction, number>> = {
    hot: black,
    ...(red === null ? {} : { 'hot-b': red }),
    ...(circuit.neutral ? { neutral: lead } : {}),
    ground: groundBar,
  };

  const inBox = stops.map(({ box }, i) => boxNodes(layout, box.name, boxes[i]!, use.apart?.has(i) ?? false));
  const cuts = new Map<number, ReadonlyMap<Conductor, number>>();
  const guards: Guard[] = [];
  const loads: LaidLoad[] = [];
  const made: ReadonlyMap<string, number>[] = [];
  stops.forEach((here, i) => segment(here, i));
  stops.forEach((_, i) => others(i));
  const terminals = stops.map((here, i) => device(here, i));
  const protection = circuit.breaker.protection;
  guards.push({
    stop: panelStop,
    contacts: breakerSpots,
    faces: [],
    senses: protection === 'none' ? [] : [...breakerSpots, ...leadSpot],
    groundFault: protection === 'gfci' || protection === 'dual',
    rating: circuit.breaker.rating,
    together: circuit.breaker.tie === 'common-trip' || run.volts > 150,
    old: false,
  });
  return { terminals, leaving, inBox, joints: made, cuts, guards, loads };

  /** Cables of other circuits that come into a box are live, from the same panel. */
  function others(i: number): void {
    const from: Partial<Record<ConductorFunction, number>> = {
      hot: buses.black,
      'hot-b': buses.red,
      neutral: otherNeutral,
      ground: groundBar,
    };
    for (const cable of boxes[i]!.cables) {
      if (cable.circuitId === null || !cable.id.endsWith('-in')) continue;
      for (const c of cable.conductors) {
        const [source, end] = [from[c.function], inBox[i]!.get(endOf(cable, c))];
        if (source !== undefined && end !== undefined) layout.branch(source, end, OTHER_OHMS);
      }
    }
  }

  /** The cable that feeds a stop: its conductors are paired by their names at both ends. */
  function segment(here: RunStop, i: number): void {
    const {
      box,
      feeder,
      segment: { length, ohms },
    } = here;
    const far = boxes[i]!.cables.find((c) => c.toward === FEED);
    const near = feeder < 0 ? far : boxes[feeder]?.cables.find((c) => c.toward === box.id);
    if (!far || !near) return;
    const stop = first + i;
    const at = use.cut?.get(i);
    const middles = new Map<Conductor, number>();
    const laid: { start: number; middle: number | null; end: number; hot: boolean; color: number }[] = [];
    far.conductors.forEach((conductor, color) => {
      const end = inBox[i]!.get(endOf(far, conductor));
      if (end === undefined) return;
      if (conductor.color === 'armor') {
        // A sheath is joined to whatever holds it, all the way to the panel.
        layout.branch(end, groundBar, here.pathOhms + JOINT_OHMS);
        return;
      }
      if (!near.conductors.some((c) => c.id === conductor.id)) return;
      const named = CONDUCTOR_OF[conductor.function];
      const from = feeder < 0 ? atPanel[conductor.function] : inBox[feeder]!.get(endOf(near, conductor));
      let start = from;
      if (feeder < 0) {
        start = layout.node(`${box.name}.start.${conductor.id}`);
        if (from !== undefined)
          layout.join(from, start, JOINT_OHMS, { stop, conductor: named, part: 'start' });
      }
      if (start === undefined) return;
      const along = Math.max(ohms, 1e-6);
      let middle: number | null = null;
      if (at === undefined) layout.join(start, end, along, { stop, conductor: named, part: 'cable' });
      else {
        middle = layout.node(`${box.name}.cut.${conductor.id}`);
        middles.set(named, middle);
        layout.join(start, middle, along * at, { stop, conductor: named, part: 'cable' });
        layout.join(middle, end, along * (1 - at), { stop, conductor: named, part: 'beyond' });
      }
      const hot = !['neutral', 'ground'].includes(conductor.function);
      laid.push({ start, middle, end, hot, color });
    });
    const colors = far.conductors.map((c) => c.color);
    const coupling = couplingOf(cableOf(run, here), colors);
    const spread =
      use.strays === 'toward hots' ? STRAY_SPREAD : use.strays === 'away from hots' ? 1 / STRAY_SPREAD : 1;
    /** Half of what a piece of the cable couples, at one of its ends. */
    const couple = (nodes: readonly number[], inches: number): void =>
      layout.couple(nodes, (a, b) => {
        const [x, y] = [laid[a]!, laid[b]!];
        const pulled = x.hot !== y.hot ? spread : x.hot ? 1 : 1 / spread;
        return (pulled * coupling(colors[x.color]!, colors[y.color]!) * inches) / 2;
      });
    const nearEnds = laid.map((c) => c.start);
    const farEnds = laid.map((c) => c.end);
    if (at === undefined) {
      couple(nearEnds, length);
      couple(farEnds, length);
      return;
    }
    cuts.set(stop, middles);
    const between = laid.map((c) => c.middle!);
    couple(nearEnds, length * at);
    couple(between, length);
    couple(farEnds, length * (1 - at));
  }

  /** Joints of a box, what its device joins, and where a tester's probes go. */
  function device(here: RunStop, i: number): Terminals {
    const wiring = boxes[i]!;
    const nodes = inBox[i]!;
    const stop = first + i;
    const onward = new Map(stops.flatMap((s, k) => (s.feeder === i ? [[s.box.id, first + k] as const] : [])));
    made.push(joints(layout, wiring, nodes, stop, onward));
    const [yoke] = wiring.yokes;
    const record = yoke ? DEVICES[yoke.kind] : null;
    if (yoke && record) {
      const ends = new Map(endsOf(wiring).map((end) => [end.id, end]));
      const place = (id: string) => terminalAt(yoke, { id });
      const found = bridges(
        layout,
        record,
        (id) => nodes.get(place(id))!,
        (id) => landedAt(wiring, place(id), ends),
        stop,
        use,
      );
      if (found.contacts.length > 0) guards.push(guardAt(stop, yoke.kind === 'gfci', found));
    }
    const at = (id: string | null): number | null =>
      id === null || !yoke ? null : (nodes.get(terminalAt(yoke, { id })) ?? null);
    const faces = (record?.faces ?? []).map(({ name: face, hot, hotB, neutral, ground }): FaceNodes => ({
      name: face,
      hot: at(hot),
      hotB: at(hotB),
      neutral: at(neutral),
      ground: at(ground),
    }));
    return load(here, i, faces, at);
  }

  function guardAt(stop: number, groundFault: boolean, { contacts, faces }: Contacts): Guard {
    return {
      stop,
      contacts,
      faces,
      senses: contacts,
      groundFault,
      rating: null,
      together: true,
      old: use.old?.has(stop - first) ?? false,
    };
  }

  function load(
    here: RunStop,
    i: number,
    faces: readonly FaceNodes[],
    at: (id: string | null) => number | null,
  ): Terminals {
    const { box } = here;
    const nodes = inBox[i]!;
    const stop = first + i;
    const meeting = (fn: ConductorFunction): number | null => nodes.get(`splice-${fn}`) ?? null;
    const [face] = faces;
    const split = faces.length > 1 && faces[1]!.hot !== face!.hot && faces[1]!.hotB === null;
    const takesRed = here.stop.hot === 'both' && red !== null;
    // A switch is read at what it feeds; a box without a device at its splices.
    const hot =
      face?.hot ??
      at('load') ??
      at('common') ??
      at('out-1') ??
      meeting('hot') ??
      meeting('hot-b') ??
      buses.black;
    const other = face?.hotB ?? (split && takesRed ? faces[1]!.hot : null) ?? at('load-b');
    // Without a neutral the return is the other hot.
    const neutral = face?.neutral ?? at('white') ?? meeting('neutral') ?? other ?? neutralBar;
    let ground = face?.ground ?? at('green') ?? meeting('ground');
    // By record it may be grounded by what holds its cable.
    if (ground === null) {
      ground = layout.node(`${box.name}.ground`);
      if (box.grounding === 'grounded') layout.branch(ground, groundBar, here.pathOhms + JOINT_OHMS);
    }
    const amps = use.amps.get(i) ?? 0;
    const plugged = (use.loads ?? []).filter((l) => l.stop === i && !l.off && l.amps > 0);
    let frame: number | null = null;
    if (amps > 0 || plugged.length > 0 || use.touch === i) {
      frame = layout.node(`${box.name}.frame`);
      layout.join(frame, ground, CORD_OHMS, { stop, conductor: 'ground', part: 'cord' });
      if (use.touch === i) layout.branch(frame, EARTH, PERSON_OHMS);
    }
    const hotIs = hotAt(layout, stop, hot);
    const take = (at: FaceNodes | undefined, drawn: number, constantPower: boolean): void => {
      const pair: readonly [number, number] =
        at && at.hot !== null && at.hotB !== null
          ? [at.hot, at.hotB]
          : [at?.hot ?? hot, at?.neutral ?? neutral];
      const volts = at?.hotB === null || at?.hotB === undefined ? half : 2 * half;
      const { branch } = layout.join(...pair, volts / drawn, { stop, conductor: hotIs, part: 'load' });
      loads.push({ stop, branch, power: volts * drawn, volts, constantPower });
    };
    if (amps > 0) take(face, amps, false);
    for (const l of plugged) take(faces[l.face ?? 0] ?? face, l.amps, l.constantPower ?? false);
    return { hot, neutral, ground, red: other, frame, hotIs, faces };
  }
}

/** The conductor that arrives at the hot contact of a device: through its contacts, or at its terminal. */
function hotAt({ spots, branches }: Layout, stop: number, hot: number): Conductor {
  const here = spots.filter((s) => s.stop === stop);
  const contact = here.find((s) => s.part === 'contact' && s.conductor !== 'neutral');
  const landing = here.find((s) => s.part === 'terminal' && branches[s.branch]!.to === hot);
  return (contact ?? landing)?.conductor ?? 'black';
}
