/**
 * What every cause would show at every outlet, worked out once for a circuit: volts between slots at two meters and under a
 * load, volts on a body at the ground slot, ohms of the dead circuit, volts of the legs, amperes at the breaker, and what
 * opens by itself. A new reading is then looked up.
 */
import { actualBoxes } from '#core/boxes/planned.ts';
import type { Run } from '#core/circuits/run.ts';
import { HIGH_OHMS } from '#core/instruments/meter.ts';
import type { JobDocument } from '#core/job/schema.ts';
import type { Fault } from '#core/network/faults.ts';
import { withFaults } from '#core/network/faults.ts';
import { BREAKER_OHMS, PERSON_OHMS } from '#core/network/layout.ts';
import { EARTH, MAINS_HERTZ } from '#core/network/network.ts';
import type { Use } from '#core/network/places.ts';
import { Predictor, type Probe } from '#core/network/predict.ts';
import type { House } from '#core/network/supply.ts';
import { houseWiring, type HouseStudy, type Wiring } from '#core/network/wiring.ts';
import { resistor } from '#core/network/read.ts';
import { CLASS_A } from '#core/protection/sensors.ts';
import { settle } from '#core/protection/settle.ts';
import { causesOf, type Cause } from './causes.ts';
import { DEAD_PAIRS, type DeadPair } from './evidence.ts';
import { ask, joint, nodesOf, put, TEST_OHMS, thirdTerminal, WIDTH } from './fields.ts';
import { scenesOf, type Scene } from './scenes.ts';

/** A circuit in its house: where a hunt is. */
export interface Ground {
  document: JobDocument;
  run: Run;
  house: House;
  panel: string;
  leg: 'A' | 'B';
  /** Its cables were not measured as they lie here: how far they go is guessed. */
  guessed?: boolean;
  /** Orders of a circuit that nobody drew which agree with what was opened and counted, each as feeders by stop, −1 the panel. */
  orders?: readonly (readonly number[])[];
}

/** What opens by itself under a cause with nothing plugged in, and with everything. */
export interface Opens {
  /** The breaker: at once, after minutes, or not. */
  breaker: 'at once' | 'later' | 'no';
  /** A protecting device, by its stop, that opens or does not reset; −1 is a breaker that looks for a difference. */
  device: number | null;
  /** Only with something plugged in. */
  withLoad: boolean;
  /** Its device does not close at all. */
  refuses: boolean;
}
export const NOTHING_OPENS: Opens = { breaker: 'no', device: null, withLoad: false, refuses: false };

/** From this on a breaker opens at once, and in minutes, as multiples of its rating. */
const AT_ONCE = 5;
const IN_MINUTES = 1.2;
/** @param multiple amperes through a breaker, of its rating */
const breakerAt = (multiple: number): Opens['breaker'] =>
  multiple >= AT_ONCE ? 'at once' : multiple >= IN_MINUTES ? 'later' : 'no';

const studyOf = ({ run, panel, leg }: Ground, use: Use): HouseStudy => ({
  run,
  boxes: actualBoxes(run),
  use,
  panel,
  leg,
});

const wiringIn = (ground: Ground, house: House, use: Use): Wiring =>
  houseWiring(house, [studyOf(ground, use)], MAINS_HERTZ);

/** Faults of causes, each once, and where the faults of each cause are among them. */
interface FaultList {
  faults: Fault[];
  at: number[][];
}
function faultList(causes: readonly Cause[]): FaultList {
  const faults: Fault[] = [];
  const known = new Map<string, number>();
  const at = causes.map((cause) =>
    cause.faults.map((fault) => {
      const key = JSON.stringify(fault, Object.keys(fault).sort());
      const found = known.get(key) ?? faults.push(fault) - 1;
      known.set(key, found);
      return found;
    }),
  );
  return { faults, at };
}

/** One scene’s predictor over some places, that answers cause by cause. */
class Asked {
  readonly predictor: Predictor;
  private readonly at: readonly (readonly number[])[];
  /** The hot of a dead circuit hangs loose: what ties it comes first. */
  private readonly dead: boolean;
  /** @param hertz 0 for what a meter sends by itself */
  constructor(wiring: Wiring, { faults, at }: FaultList, probes: readonly Probe[], hertz: number) {
    this.at = at;
    this.dead = hertz === 0;
    this.predictor = new Predictor(wiring, faults, probes, hertz, 2);
  }
  /** Gives a poor joint other ohms. */
  vary(cause: number, ohms: number): void {
    this.predictor.vary(this.at[cause]![0]!, ohms);
  }
  /** Volts of a cause, with another one beside it; false where the two cannot be at once. */
  read(cause: number, beside: number | null, into: Float64Array, ohms?: Float64Array): boolean {
    const { predictor } = this;
    const faults = [...this.at[cause]!, ...(beside === null ? [] : this.at[beside]!)];
    if (faults.length > 2) return false;
    if (this.dead && faults.length === 2 && predictor.joins(faults[1]!)) faults.reverse();
    if (faults.length === 2) predictor.given(faults[0]!);
    else predictor.without();
    const last = faults.at(-1);
    if (last !== undefined) return predictor.with(last, into, ohms);
    predictor.readings(into, ohms);
    return true;
  }
}

interface Table {
  volts: Float32Array;
  legs: Float32Array;
  amps: Float32Array;
  /** Amperes that each guard sees as a difference, by cause. */
  differences: Float32Array;
}

/** Ohms of the taps that add up the currents of a guard. */
const TAP_OHMS = 1e8;

/**
 * Two nodes for each guard, whose volts between them are the difference current that it sees: the mean of its contacts’ line
 * sides and of their load sides, each weighed by what its contact conducts.
 */
function withSums(wiring: Wiring): { wiring: Wiring; sums: { a: number; b: number; siemens: number }[] } {
  const nodes = [...wiring.nodes];
  const branches = [...wiring.branches];
  const sums = wiring.guards.map(({ senses }, g) => {
    const [a, b] = [nodes.push(`line of guard ${g}`) - 1, nodes.push(`load of guard ${g}`) - 1];
    const conducts = senses.map(({ branch }) => wiring.branches[branch]!.conductance);
    const siemens = conducts.reduce((sum, s) => sum + s, 0);
    senses.forEach(({ branch }, k) => {
      const { from, to } = wiring.branches[branch]!;
      const ohms = (TAP_OHMS * siemens) / conducts[k]!;
      branches.push(resistor(from, a, ohms), resistor(to, b, ohms));
    });
    // One that senses nothing hangs on earth, so that it has volts at all.
    if (senses.length === 0) branches.push(resistor(a, EARTH, TAP_OHMS), resistor(b, EARTH, TAP_OHMS));
    return { a, b, siemens };
  });
  return { wiring: { ...wiring, nodes, branches }, sums };
}

/** Probes over the contacts of the breaker. */
const contactProbes = ({ spots, branches }: Wiring): Probe[] =>
  spots
    .filter((s) => s.stop === -1 && s.part === 'contact')
    .map(({ branch }) => ({ a: branches[branch]!.from, b: branches[branch]!.to, ohms: 1e9 }));

/** Amperes through the breaker, from the volts over its contacts; an open one has its volts over no current. */
function contactAmps(volts: Float64Array, from: number, to = volts.length): number {
  let most = 0;
  for (let k = from; k < to; k++) {
    const amps = volts[k]! / BREAKER_OHMS;
    if (amps <= 2e4) most = Math.max(most, amps);
  }
  return most;
}

/** Ohms of a poor joint that nothing is known of. */
export const USUAL_OHMS = 2;

/** Figures of the legs of each cause. */
export const LEGS = 4;

/**
 * What a test load on a leg does to both legs: neutral and both hots are three terminals of a network.
 * @param volts of the leg with the load, and of the other
 * @param ohms of each to neutral, and between the two
 * @returns volts by which the loaded leg falls and the other rises
 */
function shifted(
  [own, other]: readonly [number, number],
  [near, far, across]: readonly [number, number, number],
): [number, number] {
  const amps = own / (near + TEST_OHMS);
  return [own - amps * TEST_OHMS, thirdTerminal(other, amps, near, far, across) - other];
}

export class Predictions {
  readonly causes: readonly Cause[];
  private readonly listed: FaultList;
  readonly scenes: readonly Scene[];
  /** The circuit with nothing on. */
  readonly wiring: Wiring;
  /** By scene: volts by cause, stop and field; not a number where there are no such slots. */
  readonly volts: readonly Float32Array[];
  /**
   * By scene, four to each cause: volts of leg A and B at the panel; by how much the circuit’s leg falls and the other rises
   * with a load put on it.
   */
  readonly legs: readonly Float32Array[];
  /** Amperes through the breaker with nothing plugged in, by cause. */
  readonly amps: Float32Array;
  readonly opens: readonly Opens[];
  /** Stops that hang on a protecting device or on the breaker, the device among them. */
  readonly behind: ReadonlyMap<number, ReadonlySet<number>>;
  private deadOhms: Float32Array | null = null;
  readonly ground: Ground;

  /** @throws when the house has no such panel */
  constructor(ground: Ground) {
    this.ground = ground;
    const { run, house } = ground;
    this.scenes = scenesOf(run, house);
    const wirings = this.scenes.map((s) => wiringIn(ground, s.house, { amps: s.amps, open: new Set() }));
    this.wiring = wirings[0]!;
    this.causes = causesOf(this.wiring, run);
    this.listed = faultList(this.causes);
    const tables = wirings.map((wiring) => this.table(wiring));
    this.volts = tables.map((t) => t.volts);
    this.legs = tables.map((t) => t.legs);
    this.amps = tables[0]!.amps;
    this.behind = behindOf(ground);
    this.opens = this.openings(tables);
    // What opened the breaker is not on while the legs are read.
    for (const legs of this.legs)
      this.opens.forEach(({ breaker }, c) => {
        if (breaker === 'at once') legs.set(legs.subarray(0, LEGS), LEGS * c);
      });
  }

  private table(plain: Wiring): Table {
    const { causes } = this;
    const { wiring, sums } = withSums(plain);
    const stops = wiring.terminals.length;
    const probes: Probe[] = [];
    const places: number[] = [];
    for (let stop = 0; stop < stops; stop++) ask(wiring, stop, stop, probes, places);
    const { bus, neutral } = wiring.panel;
    const legsAt = probes.length;
    probes.push(
      { a: bus.black, b: neutral, ohms: HIGH_OHMS },
      { a: bus.red, b: neutral, ohms: HIGH_OHMS },
      { a: bus.black, b: bus.red, ohms: HIGH_OHMS },
    );
    const contactsAt = probes.length;
    const own = this.ground.leg === 'A' ? 0 : 1;
    probes.push(...contactProbes(wiring));
    const sumsAt = probes.length;
    for (const { a, b } of sums) probes.push({ a, b, ohms: 1e12 });
    const asked = new Asked(wiring, this.listed, probes, MAINS_HERTZ);
    const differences = new Float32Array(causes.length * sums.length);
    const volts = new Float32Array(causes.length * stops * WIDTH).fill(NaN);
    const legs = new Float32Array(causes.length * LEGS);
    const amps = new Float32Array(causes.length);
    const [into, ohms] = [new Float64Array(probes.length), new Float64Array(probes.length)];
    causes.forEach((_, c) => {
      asked.read(c, null, into, ohms);
      put(volts, c * stops * WIDTH, places, into, ohms);
      const [here, there] = [legsAt + own, legsAt + 1 - own];
      const volts120 = [into[here]!, into[there]!] as const;
      const [falls, rises] = shifted(volts120, [ohms[here]!, ohms[there]!, ohms[legsAt + 2]!]);
      legs.set([into[legsAt]!, into[legsAt + 1]!, falls, rises], LEGS * c);
      amps[c] = contactAmps(into, contactsAt, sumsAt);
      sums.forEach(({ siemens }, g) => (differences[c * sums.length + g] = into[sumsAt + g]! * siemens));
    });
    return { volts, legs, amps, differences };
  }

  /** What opens under each cause: by the currents that its devices see; what is fed on LOAD is tried out. */
  private openings(tables: readonly Table[]): Opens[] {
    const { causes, behind, ground, wiring } = this;
    const rating = ground.run.circuit.breaker.rating;
    const [bare, busy] = [tables[0]!, tables[1]!];
    // The device nearest to the fault is quickest.
    const nearest = wiring.guards
      .map((guard, g) => ({ guard, g, stop: Math.max(-1, guard.stop) }))
      .filter(({ guard }) => guard.senses.length > 0)
      .sort((a, b) => behind.get(a.stop)!.size - behind.get(b.stop)!.size);
    return causes.map((cause, c): Opens => {
      const [fault] = cause.faults;
      if (!fault || cause.faults.length > 1) return NOTHING_OPENS;
      const breaker = breakerAt(bare.amps[c]! / rating);
      if (nearest.length === 0 || (fault.kind === 'open' && fault.part === 'contact'))
        return { ...NOTHING_OPENS, breaker };
      if (cause.kind === 'line-load') {
        const { openings } = settle(withFaults(wiring, [fault]), { seconds: 5, edge: 'slow' });
        const stuck = openings.find((o) => o.why === 'fed on LOAD' && o.stop !== null);
        if (stuck) return { breaker, device: stuck.stop, withLoad: false, refuses: true };
      }
      const stop = 'stop' in fault ? fault.stop : -1;
      const finds = (table: Table) =>
        nearest.find(({ guard, g, stop: at }) => {
          const grounded = cause.kind === 'neutral-ground' && behind.get(at)!.has(stop) && at !== stop;
          const missing = table.differences[c * wiring.guards.length + g]!;
          return guard.groundFault && (grounded || missing >= CLASS_A.trips);
        });
      const first = finds(bare);
      const device = first ?? finds(busy);
      return {
        breaker,
        device: device?.stop ?? null,
        withLoad: first === undefined && device !== undefined,
        refuses: false,
      };
    });
  }

  /** Where the fields of a cause at a stop begin, in every scene’s volts. */
  rowAt(cause: number, stop: number): number {
    return (cause * this.wiring.terminals.length + stop) * WIDTH;
  }

  /**
   * A figure under a cause; of a poor joint with so many ohms, from sound, one ohm, and parted.
   * @param ohms not asked for of any other cause
   * @param figure under a cause as it was worked out
   */
  fitted(cause: number, ohms: number | null, figure: (cause: number) => number): number {
    const { parted } = this.causes[cause]!;
    const own = figure(cause);
    return parted === null ? own : joint(figure(0), own, figure(parted), ohms ?? USUAL_OHMS);
  }

  /** Volts of a cause at a stop in a scene. */
  at(scene: number, cause: number, stop: number, field: number): number {
    return this.volts[scene]![this.rowAt(cause, stop) + field]!;
  }

  /**
   * Whether an outlet is dead because something before it opened, with what is plugged in or without. What lets go after
   * minutes is read before.
   * @param open whether the breaker is, where that is known of all that is the matter together
   */
  isOff(
    cause: number,
    stop: number,
    loaded: boolean,
    open = this.opens[cause]!.breaker === 'at once',
  ): boolean {
    const { device, withLoad } = this.opens[cause]!;
    if (open) return true;
    if (device === null || (withLoad && !loaded)) return false;
    return device < 0 || (this.behind.get(device)?.has(stop) ?? false);
  }

  /** Ohms of the dead circuit by cause, stop and pair, loads unplugged. */
  get ohms(): Float32Array {
    this.deadOhms ??= this.dead();
    return this.deadOhms;
  }

  /** Position in `ohms`. */
  ohmsAt(cause: number, stop: number, pair: DeadPair): number {
    return (cause * this.wiring.terminals.length + stop) * DEAD_PAIRS.length + DEAD_PAIRS.indexOf(pair);
  }

  private dead(): Float32Array {
    const { causes, wiring } = this;
    const stops = wiring.terminals.map((_, stop) => stop);
    const width = stops.length * DEAD_PAIRS.length;
    const read = this.deadAt(stops, this.listed);
    const table = new Float32Array(causes.length * width);
    causes.forEach((_, c) => read.of(c, null, table.subarray(c * width, (c + 1) * width)));
    return table;
  }

  /** Reads ohms of the dead circuit at some stops, loads unplugged, by stop and pair. */
  private deadAt(
    stops: readonly number[],
    listed: FaultList,
  ): { asked: Asked; of: (cause: number, beside: number | null, out: Float32Array) => boolean } {
    const { house } = this.scenes[0]!;
    const wiring = wiringIn(this.ground, house, { amps: new Map(), open: new Set(), dead: true });
    const probes: Probe[] = [];
    const places: number[] = [];
    stops.forEach((stop, row) =>
      DEAD_PAIRS.forEach((pair, k) => {
        const nodes = nodesOf(wiring, stop, pair);
        if (!nodes) return;
        probes.push({ a: nodes[0], b: nodes[1], ohms: HIGH_OHMS });
        places.push(row * DEAD_PAIRS.length + k);
      }),
    );
    const asked = new Asked(wiring, listed, probes, 0);
    const [into, ohms] = [new Float64Array(probes.length), new Float64Array(probes.length)];
    return {
      asked,
      of: (cause, beside, out) => {
        if (!asked.read(cause, beside, into, ohms)) return false;
        out.fill(0);
        // Two updates may leave a rounding below zero.
        places.forEach((place, p) => (out[place] = Math.max(0, ohms[p]!)));
        return true;
      },
    };
  }

  /**
   * What somebody on damp ground carries who touches the frame of what is plugged in at a stop, and whether anything opens
   * for it: with the little that is usually on.
   */
  touched(faults: readonly Fault[], stop: number): Touched {
    const { amps, house } = this.scenes[1]!;
    const use: Use = { amps: new Map([...amps, [stop, 1]]), open: new Set(), touch: stop };
    const wiring = wiringIn(this.ground, house, use);
    const { openings, voltages } = settle(withFaults(wiring, faults), { seconds: 3, edge: 'slow' });
    const [first] = openings.filter((o) => o.stop !== null);
    const frame = wiring.terminals[stop]!.frame!;
    return {
      milliamps: (1000 * voltages.between(frame, EARTH)) / PERSON_OHMS,
      opens: first ? (first.stop! < 0 ? 'breaker' : 'device') : null,
      seconds: first?.at ?? null,
    };
  }

  /**
   * Volts of pairs of some causes at some stops, scene by scene; the fields in turn.
   * @param deadToo ohms of the dead circuit as well
   */
  pairsAt(stops: readonly number[], of: readonly number[], deadToo: boolean): PairsAt {
    const listed = faultList(of.map((c) => this.causes[c]!));
    const position = new Map(of.map((c, k) => [c, k]));
    const list = this.scenes.map(({ amps, house }) => {
      const wiring = wiringIn(this.ground, house, { amps, open: new Set() });
      const probes: Probe[] = [];
      const places: number[] = [];
      stops.forEach((stop, k) => ask(wiring, stop, k, probes, places));
      probes.push(...contactProbes(wiring));
      return {
        asked: new Asked(wiring, listed, probes, MAINS_HERTZ),
        places,
        into: new Float64Array(probes.length),
        ohms: new Float64Array(probes.length),
      };
    });
    const dead = deadToo ? this.deadAt(stops, listed) : null;
    const { rating } = this.ground.run.circuit.breaker;
    const read = {
      breaker: 'no' as Opens['breaker'],
      amps: 0,
      dead: new Float32Array(stops.length * DEAD_PAIRS.length),
    };
    return {
      last: read,
      vary: (cause, ohms) => {
        if (this.causes[cause]!.parted === null) return;
        for (const { asked } of list) asked.vary(position.get(cause)!, ohms);
        dead?.asked.vary(position.get(cause)!, ohms);
      },
      read: (one, other, out) => {
        const [x, y] = [position.get(one)!, position.get(other)!];
        const can = list.every(({ asked, places, into, ohms }, s) => {
          if (!asked.read(x, y, into, ohms)) return false;
          out[s]!.fill(NaN);
          put(out[s]!, 0, places, into, ohms);
          if (s === 0) read.amps = contactAmps(into, places.length);
          return true;
        });
        read.breaker = breakerAt(read.amps / rating);
        return can && (dead === null || dead.of(x, y, read.dead));
      },
    };
  }
}

/** Through a body, milliamperes, after what opens has opened. */
export interface Touched {
  milliamps: number;
  opens: 'breaker' | 'device' | null;
  /** When it opens, seconds. */
  seconds: number | null;
}

/** Reads two causes at once into a table for each scene, by stop and field; false where the two cannot be at once. */
export interface PairsAt {
  /** Gives the joint of a cause so many ohms from now on. */
  vary(cause: number, ohms: number): void;
  read(one: number, other: number, out: readonly Float32Array[]): boolean;
  /** Of the two that were read last. */
  readonly last: {
    readonly breaker: Opens['breaker'];
    /** Through the breaker, nothing plugged in. */
    readonly amps: number;
    /** Ohms of the dead circuit by stop and pair, where they were asked for. */
    readonly dead: Float32Array;
  };
}

/** Which stops hang on which protecting device; on −1, the breaker, all. */
function behindOf({ run }: Ground): ReadonlyMap<number, ReadonlySet<number>> {
  const list = new Map<number, ReadonlySet<number>>([[-1, new Set(run.stops.map((_, i) => i))]]);
  run.stops.forEach(({ box }, guard) => {
    if (box.device.kind !== 'gfci' && box.device.kind !== 'outlet-afci') return;
    const behind = new Set([guard]);
    run.stops.forEach((stop, i) => {
      if (behind.has(stop.feeder) && !(stop.feeder === guard && stop.stop.side === 'line')) behind.add(i);
    });
    list.set(guard, behind);
  });
  return list;
}
