/**
 * The wiring that is planned for a box: from the nets of its circuit, its device and the school of its job. A pure function;
 * what was found or done otherwise is recorded beside it.
 */
import { unknownOnward, type Run, type RunStop } from '#core/circuits/run.ts';
import type { Box, BoxWiring, Color, ConductorFunction, Gauge } from '#core/job/schema.ts';
import { connectorFor } from './connectors.ts';
import { DEVICES, type Terminal } from './devices.ts';
import { conductorsOf, type Carried } from './cables.ts';
import { cableOf, hasGround, netsOf, type Net, type Wanted } from './nets.ts';
import {
  BOX,
  endOf,
  FEED,
  tailEnds,
  terminalAt,
  type Cable,
  type CableConductor,
  type Tail,
} from './wiring.ts';

/** The one device of a planned box. */
const DEVICE = 'device';

/** A metal box is bonded; a plastic one has nothing to bond. */
function isMetalBox(run: Run, stop: RunStop): boolean {
  const found = stop.box.found?.boxMaterial ?? 'unknown';
  return found === 'unknown' ? ['MC', 'raceway'].includes(cableOf(run, stop)) : found === 'metal';
}

/** Grounded by what holds the cable, with no ground conductor in it. */
const byItsSheath = (run: Run, stop: RunStop): boolean =>
  stop.box.grounding === 'grounded' && !hasGround(run, stop);

/** What is joined in one group: ends that come by cable, and terminals or leads of the device. */
interface Joint {
  net: Net;
  /** Its name in splices and tails. */
  key: string;
  ends: string[];
  /** For each need of the device its terminals; a lead has one. */
  needs: (readonly Terminal[])[];
  /** Tails to the metal of the box. */
  bonds: number;
  gauges: Gauge[];
}

class Builder {
  private readonly run: Run;
  private readonly stop: RunStop;
  private readonly wanted: Wanted;
  private readonly feedThrough: boolean;
  readonly wiring: BoxWiring;

  constructor(run: Run, at: number) {
    this.run = run;
    this.stop = run.stops[at]!;
    this.wanted = netsOf(run).wanted[at]!;
    this.feedThrough = this.stop.joining === 'feed-through';
    const { yoke, hotTab, neutralTab } = this.wanted;
    this.wiring = {
      cables: [],
      yokes: yoke ? [{ id: DEVICE, kind: yoke, hotTab, neutralTab }] : [],
      splices: [],
      tails: [],
      places: [],
    };
    const feed = this.cable(FEED, FEED, this.stop, conductorsOf(run, at));
    const onward = run.stops.flatMap((s, k) =>
      s.feeder === at ? [{ stop: s, ends: this.cable(s.box.id, s.box.id, s, conductorsOf(run, k)) }] : [],
    );
    // What goes on to boxes that nobody knows carries what comes in, on the load side of what protects.
    for (let k = 1; k <= unknownOnward(run, this.stop); k++) {
      const ends = this.cable(`onward-${k}`, 'onward', this.stop, conductorsOf(run, at));
      onward.push({ stop: this.stop, ends });
    }
    this.join(feed, onward);
    this.passing();
  }

  private place(end: string, at: string | null): void {
    this.wiring.places.push({ end, at });
  }

  private cable(
    id: string,
    toward: string,
    segment: RunStop,
    carried: readonly Carried[],
  ): [Net, string, Gauge][] {
    const cable: Cable = {
      id,
      toward,
      circuitId: null,
      raceway: cableOf(this.run, segment) === 'raceway',
      stands: 'ends',
      conductors: carried.map((c) => c.conductor),
    };
    this.wiring.cables.push(cable);
    return carried.map(({ net, conductor }) => [net, endOf(cable, conductor), conductor.gauge!]);
  }

  /** Every net of the box becomes a direct landing, a splice with tails, or a capped end. */
  private join(
    feed: readonly [Net, string, Gauge][],
    onward: readonly { stop: RunStop; ends: readonly [Net, string, Gauge][] }[],
  ): void {
    const joints = new Map<string, Joint>();
    const joint = (net: Net, key: string = net.key): Joint => {
      const known = joints.get(key) ?? { net, key, ends: [], needs: [], bonds: 0, gauges: [] };
      joints.set(key, known);
      return known;
    };
    const add = ([net, end, gauge]: readonly [Net, string, Gauge], key?: string) => {
      const j = joint(net, key);
      j.ends.push(end);
      j.gauges.push(gauge);
    };
    const device = this.wanted.yoke ? DEVICES[this.wanted.yoke] : null;
    const terminal = (id: string) => device!.terminals.find((t) => t.id === id)!;
    const guards = device?.bridges.some((b) => b.by === 'contact') ?? false;
    for (const one of feed) add(one);
    const guarded = new Set(guards ? this.wanted.needs.map((n) => n.net.key) : []);
    for (const { stop, ends } of onward)
      for (const one of ends) {
        const onLoad = stop.stop.side === 'load' && guarded.has(one[0].key);
        add(one, onLoad ? `load-${one[0].key}` : undefined);
      }
    for (const { net, terminals } of this.wanted.needs) joint(net).needs.push(terminals.map(terminal));
    // What is protected leaves by the LOAD terminals.
    for (const [key, id] of [
      ['load-hot', 'load-hot'],
      ['load-hot-b', 'load-hot'],
      ['load-neutral', 'load-neutral'],
    ] as const) {
      const j = joints.get(key);
      if (j) j.needs.push([terminal(id)]);
    }
    this.ground(joint, device?.terminals.find((t) => t.id === 'green') ?? null);
    for (const j of joints.values()) this.land(j);
  }

  private ground(joint: (net: Net) => Joint, green: Terminal | null): void {
    const { run, stop } = this;
    const net: Net = { key: 'ground', function: 'ground' };
    const metal = isMetalBox(run, stop);
    if (metal)
      for (const cable of this.wiring.cables) {
        const segment = cable.toward === FEED ? stop : run.stops.find((s) => s.box.id === cable.toward);
        if (!segment || !byItsSheath(run, segment)) continue;
        const sheath: CableConductor = {
          id: 'armor',
          color: 'armor',
          function: 'ground',
          gauge: null,
          material: 'copper',
          mark: null,
        };
        cable.conductors.push(sheath);
        this.place(endOf(cable, sheath), BOX);
      }
    const j = joint(net);
    if (green) j.needs.push([green]);
    if (metal) j.bonds = 1;
  }

  private land({ net, key, ends, needs, bonds, gauges }: Joint): void {
    const { wiring } = this;
    const isGround = net.function === 'ground';
    const taken = needs.length + bonds;
    if (ends.length === 0) {
      // A sheath grounds the box; a tail from it grounds the device.
      if (isGround && wiring.places.some((p) => p.at === BOX)) needs.forEach(([t]) => this.tailFromBox(t!));
      else needs.forEach(([t]) => this.lead(t!, null));
      return;
    }
    if (taken === 0 && ends.length === 1) return this.place(ends[0]!, null);
    const [first] = needs;
    if (taken === 1 && first && first[0]!.held !== 'lead' && this.direct(net, key, ends, first)) return;
    const id = `splice-${key}`;
    for (const end of ends) this.place(end, id);
    for (const [t] of needs)
      if (t!.held === 'lead') this.lead(t!, id);
      else
        this.tail(
          { id: `tail-${key}-${t!.id}`, color: tailColor(net), function: net.function },
          id,
          terminalAt({ id: DEVICE }, t!),
        );
    if (bonds > 0) this.bond(id);
    wiring.splices.push({
      id,
      connector: connectorFor(
        [...gauges, ...Array.from({ length: taken }, () => this.stop.segment.gauge)],
        this.run.circuit.material,
        this.stop.school.connector,
      ),
    });
  }

  /** Lands ends at the terminals of one metal, where they are enough and it may be done. @returns whether it did */
  private direct(net: Net, key: string, ends: readonly string[], terminals: readonly Terminal[]): boolean {
    const room = terminals.flatMap((t) => Array.from({ length: t.takes }, () => t.id));
    const carries = this.feedThrough || key.startsWith('load-');
    // 300.13(B): the neutral of two hots never hangs on a device; an old box may be as it was found.
    const shared = net.function === 'neutral' && this.run.circuit.breaker.poles === 2;
    const may = !shared || (this.stop.stop.splice === 'feed-through' && this.stop.box.status === 'existing');
    if (ends.length > 1 && (!carries || !may || net.function === 'ground')) return false;
    if (ends.length > room.length) return false;
    ends.forEach((end, k) => this.place(end, terminalAt({ id: DEVICE }, { id: room[k]! })));
    return true;
  }

  private lead(terminal: Terminal, splice: string | null): void {
    if (terminal.held === 'lead') this.place(terminalAt({ id: DEVICE }, terminal), splice);
  }

  /** A short conductor between two places of the box. */
  private tail(tail: Tail, from: string, to: string): void {
    this.wiring.tails.push(tail);
    const [a, b] = tailEnds(tail);
    this.place(a, from);
    this.place(b, to);
  }

  private tailFromBox(terminal: Terminal): void {
    if (terminal.held === 'lead') return this.lead(terminal, BOX);
    const tail: Tail = { id: `tail-box-${terminal.id}`, color: 'green', function: 'ground' };
    this.tail(tail, BOX, terminalAt({ id: DEVICE }, terminal));
  }

  private bond(splice: string): void {
    const tail: Tail =
      this.stop.school.bond === 'clip'
        ? { id: 'tail-ground-clip', color: 'bare', function: 'ground' }
        : { id: 'tail-ground-box', color: 'green', function: 'ground' };
    this.tail(tail, splice, BOX);
  }

  /** Other circuits with conductors here: taken to come in and go on, joined through, until somebody has looked. */
  private passing(): void {
    const { box } = this.stop;
    box.through.forEach((circuitId, k) => {
      const { gauge } = this.stop.segment;
      const { material } = this.run.circuit;
      const raceway = this.run.circuit.cable === 'raceway';
      const bothTabs = this.wanted.yoke === 'duplex' && box.device.tabs === 'both-broken' && k === 0;
      const conductor = (id: Color, fn: ConductorFunction): CableConductor => ({
        id,
        color: id,
        function: fn,
        gauge,
        material,
        mark: null,
      });
      const conductors = [
        conductor('black', 'hot'),
        conductor('white', 'neutral'),
        ...(hasGround(this.run, this.stop) && !raceway ? [conductor('bare', 'ground')] : []),
      ];
      const cable = (part: string, stands: Cable['stands']): Cable => ({
        id: `${circuitId}-${part}`,
        toward: 'unknown',
        circuitId,
        raceway,
        stands,
        conductors: conductors.map((c) => ({ ...c })),
      });
      if (bothTabs) return this.lowerHalf(cable('in', 'ends'));
      if (raceway) {
        this.wiring.cables.push(cable('through', 'passes'));
        return;
      }
      const sides = [cable('in', 'ends'), cable('out', 'ends')];
      this.wiring.cables.push(...sides);
      for (const c of conductors) {
        const ground = c.function === 'ground';
        const id = ground ? 'splice-ground' : `splice-${circuitId}-${c.id}`;
        if (!this.wiring.splices.some((s) => s.id === id))
          this.wiring.splices.push({
            id,
            connector: connectorFor([gauge, gauge], material, this.stop.school.connector),
          });
        for (const side of sides) this.place(endOf(side, c), id);
        if (ground) this.joinLoneGround(id);
      }
    });
  }

  /** The other circuit of a duplex with both tabs off takes its lower half. */
  private lowerHalf(cable: Cable): void {
    this.wiring.cables.push(cable);
    for (const c of cable.conductors) {
      const end = endOf(cable, c);
      if (c.function === 'hot') this.place(end, `${DEVICE}.brass-2`);
      else if (c.function === 'neutral') this.place(end, `${DEVICE}.silver-2`);
      else {
        const id = 'splice-ground';
        if (!this.wiring.splices.some((s) => s.id === id))
          this.wiring.splices.push({ id, connector: 'unknown' });
        this.place(end, id);
        this.joinLoneGround(id);
      }
    }
  }

  /** All grounds of a box are joined, 250.148: one that was landed directly moves into the splice with a tail. */
  private joinLoneGround(splice: string): void {
    const green = `${DEVICE}.green`;
    const direct = this.wiring.places.find((p) => p.at === green && !p.end.endsWith('.b'));
    if (!direct) return;
    direct.at = splice;
    this.tail({ id: 'tail-ground-green', color: 'bare', function: 'ground' }, splice, green);
    const connector = connectorFor(
      this.wiring.places.filter((p) => p.at === splice).map(() => this.stop.segment.gauge),
      this.run.circuit.material,
      this.stop.school.connector,
    );
    this.wiring.splices = this.wiring.splices.map((s) => (s.id === splice ? { ...s, connector } : s));
  }
}

const TAIL_COLORS: Partial<Record<ConductorFunction, Color>> = {
  neutral: 'white',
  ground: 'bare',
  'hot-b': 'red',
  switched: 'red',
};
const tailColor = ({ function: fn }: Net): Color => TAIL_COLORS[fn] ?? 'black';

const remembered = new WeakMap<Run, BoxWiring[]>();

/** The planned wiring of each box of a run, by its position in the stops. */
export function plannedBoxes(run: Run): readonly BoxWiring[] {
  let found = remembered.get(run);
  if (!found) {
    found = run.stops.map((_, at) => new Builder(run, at).wiring);
    remembered.set(run, found);
  }
  return found;
}

/** The wiring of each box as it is: recorded where the network can follow that, else as planned. */
export const actualBoxes = (run: Run): BoxWiring[] =>
  plannedBoxes(run).map((planned, at) => {
    const actual = actualWiring(run.stops[at]!.box, planned);
    return isFollowed(planned, actual) ? actual : planned;
  });

/** Whether the cables of a recorded wiring are those of the plan, so that the network can follow them. */
export const isFollowed = (planned: BoxWiring, recorded: BoxWiring): boolean =>
  planned.cables.every((cable) => {
    const same = recorded.cables.find((c) => c.toward === cable.toward);
    return same !== undefined && cable.conductors.every((c) => same.conductors.some((o) => o.id === c.id));
  });

/** What is recorded of a box, with its device where nobody recorded one; else what is planned. */
export function actualWiring(box: Box, planned: BoxWiring): BoxWiring {
  if (!box.wiring) return planned;
  const { wiring } = box.wiring;
  return wiring.yokes.length > 0 ? wiring : { ...wiring, yokes: planned.yokes };
}
