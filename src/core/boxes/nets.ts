/**
 * What a circuit's cables carry: each conductor of the circuit is a net between the terminals that need it, and a segment
 * carries the nets that have a terminal on either side of it. Switch loops, travelers and switched hots follow from that.
 */
import { isMultiwire, type Run, type RunStop } from '#core/circuits/run.ts';
import type { Box, ConductorFunction, YokeKind } from '#core/job/schema.ts';

/** A conductor of the circuit, by name: what it is there for, with its group of switches where there are several. */
export interface Net {
  key: string;
  function: ConductorFunction;
}

/** Terminals of one device that need a net: the first takes it; the others are the same metal, for what goes on. */
interface Need {
  net: Net;
  terminals: readonly string[];
}

export interface Wanted {
  yoke: YokeKind | null;
  hotTab: boolean;
  neutralTab: boolean;
  needs: readonly Need[];
}

export interface CircuitNets {
  /** By stop: what its device needs. */
  wanted: readonly Wanted[];
  /** By stop: nets on the segment that feeds it, the equipment ground among them where its cable has one. */
  carried: readonly (readonly Net[])[];
}

const net = (fn: ConductorFunction, group = 0, leg = 0): Net => ({
  key: group > 0 || leg > 0 ? `${fn}~${group + 1}${leg > 0 ? `.${leg + 1}` : ''}` : fn,
  function: fn,
});
const HOT = net('hot');
const HOT_B = net('hot-b');
const NEUTRAL = net('neutral');
const GROUND = net('ground');
const INTERCONNECT = net('interconnect');

/** Cable of a segment, its own or the circuit's. */
export const cableOf = (run: Run, stop: RunStop) => stop.stop.cable ?? run.circuit.cable;
export const hasGround = (run: Run, stop: RunStop): boolean => cableOf(run, stop) !== 'old two-wire';

/** Switches that act on the same loads, in the order in which the current passes them. */
interface Group {
  switches: number[];
  loads: number[];
}

/** More switches than this in one group are taken in the order of the run. */
const MOST_ORDERED = 5;
/** Insulated conductors of the largest usual cable. */
const MOST_INSULATED = 3;

/** Working out of the nets of one run. */
class Nets {
  private readonly run: Run;
  private readonly parent: number[];
  private readonly groups: Group[];
  /** Stops that a net has a terminal at; −1 is the panel. */
  private readonly at = new Map<string, { net: Net; stops: Set<number> }>();
  readonly wanted: Wanted[];

  constructor(run: Run) {
    this.run = run;
    this.parent = run.stops.map((s) => s.feeder);
    this.groups = this.groupsOf();
    this.wanted = run.stops.map((_, i) => this.want(i));
    const { breaker, neutral } = run.circuit;
    for (const n of [HOT, ...(breaker.poles === 2 ? [HOT_B] : []), ...(neutral ? [NEUTRAL] : []), GROUND])
      this.use(n, -1);
    this.wanted.forEach(({ needs }, i) => needs.forEach((need) => this.use(need.net, i)));
    run.stops.forEach((_, i) => this.use(GROUND, i));
    // A circuit of two hots and a neutral is run in its three-wire cable all the way to its receptacles.
    if (isMultiwire(run))
      run.stops.forEach(({ role }, i) => {
        if (role === 'through') for (const n of [HOT, HOT_B, NEUTRAL]) this.use(n, i);
      });
  }

  private use(n: Net, stop: number): void {
    const known = this.at.get(n.key) ?? { net: n, stops: new Set<number>() };
    known.stops.add(stop);
    this.at.set(n.key, known);
  }

  /** Segments that join some stops: those with one of them on either side. */
  private segments(stops: ReadonlySet<number>): number[] {
    const below = this.parent.map((_, i) => (stops.has(i) ? 1 : 0));
    for (let i = below.length - 1; i >= 0; i--) {
      const up = this.parent[i]!;
      if (up >= 0) below[up]! += below[i]!;
    }
    return below.flatMap((count, i) => (count > 0 && count < stops.size ? [i] : []));
  }

  private groupsOf(): Group[] {
    const { stops } = this.run;
    const index = new Map(stops.map((s, i) => [s.box.id, i]));
    const leader = stops.map((_, i) => i);
    const find = (i: number): number => (leader[i] === i ? i : (leader[i] = find(leader[i]!)));
    const switches = stops.flatMap(({ box }, i) => (box.device.kind === 'switch' ? [i] : []));
    const loads = new Set<number>();
    for (const i of switches)
      for (const id of stops[i]!.box.controls) {
        const load = index.get(id);
        if (load === undefined || stops[load]!.box.device.kind === 'switch') continue;
        loads.add(load);
        leader[find(load)] = find(i);
      }
    const groups = new Map<number, Group>();
    for (const i of [...switches, ...loads]) {
      const group = groups.get(find(i)) ?? { switches: [], loads: [] };
      groups.set(find(i), group);
      (loads.has(i) ? group.loads : group.switches).push(i);
    }
    return [...groups.values()].map((group) => ({ ...group, switches: this.inOrder(group) }));
  }

  /** Switches in the order that takes the fewest conductors from box to box. */
  private inOrder({ switches, loads }: Group): number[] {
    if (switches.length < 2 || switches.length > MOST_ORDERED) return switches;
    const cost = (order: readonly number[]): number => {
      const between = order.slice(1).map((s, k) => this.segments(new Set([order[k]!, s])).length);
      return (
        this.segments(new Set([-1, order[0]!])).length +
        2 * between.reduce((sum, n) => sum + n, 0) +
        this.segments(new Set([order.at(-1)!, ...loads])).length
      );
    };
    return permutations(switches).reduce((best, order) => (cost(order) < cost(best) ? order : best));
  }

  private groupAt(stop: number): number {
    return this.groups.findIndex((g) => g.switches.includes(stop) || g.loads.includes(stop));
  }

  private want(i: number): Wanted {
    const { run } = this;
    const { box } = run.stops[i]!;
    const { device } = box;
    const nothing: Wanted = { yoke: null, hotTab: true, neutralTab: true, needs: [] };
    if (device.kind === 'junction') return nothing;
    if (device.kind === 'switch') return this.wantSwitch(i);
    const g = this.groupAt(i);
    const two = run.circuit.breaker.poles === 2;
    const hot = run.stops[i]!.stop.hot === 'red' && two ? HOT_B : HOT;
    const bySwitch = g >= 0 && device.switched !== 'half';
    const live = bySwitch ? net('switched', g) : hot;
    const second = bySwitch && this.isDoublePole(g) ? net('switched-b', g) : HOT_B;
    // Without a neutral the return is the other hot.
    const back = run.circuit.neutral ? NEUTRAL : two ? second : null;
    const yoke = yokeOf(run, i);
    const needs: Need[] = [];
    const need = (n: Net | null, ...terminals: string[]) => {
      if (n) needs.push({ net: n, terminals });
    };
    let [hotTab, neutralTab] = [true, true];
    switch (yoke) {
      case 'duplex':
      case 'two-slot': {
        const half = device.switched === 'half';
        const both = run.stops[i]!.stop.hot === 'both' && two && run.circuit.neutral;
        hotTab = !half && !both && device.tabs === 'whole';
        neutralTab = device.tabs !== 'both-broken';
        if (half) {
          need(hot, 'brass-1');
          // Of a half whose switch is not on this circuit nothing is planned.
          need(g >= 0 ? net('switched', g) : null, 'brass-2');
        } else if (both) {
          need(HOT, 'brass-1');
          need(HOT_B, 'brass-2');
        } else need(live, ...(hotTab ? ['brass-1', 'brass-2'] : ['brass-1']));
        need(back, ...(neutralTab ? ['silver-1', 'silver-2'] : ['silver-1']));
        // Both tabs off: the lower half is another circuit's, or a second pair of this one.
        if (device.tabs === 'both-broken' && !half && !both && box.through.length === 0) {
          need(live, 'brass-2');
          need(back, 'silver-2');
        }
        break;
      }
      case 'single':
        need(live, 'brass-1');
        need(back, 'silver-1');
        break;
      case 'gfci':
      case 'outlet-afci':
        need(hot, 'line-hot');
        need(back, 'line-neutral');
        break;
      case '250 V receptacle':
        need(live, 'x');
        need(second, 'y');
        break;
      case 'four-wire receptacle':
      case 'three-wire receptacle':
        need(HOT, 'x');
        need(HOT_B, 'y');
        need(back, 'w');
        break;
      case 'combination duplex':
        need(HOT, 'linked-1', 'linked-2');
        need(HOT_B, 'y');
        need(back, 'silver');
        break;
      case 'fan':
        need(live, 'black');
        need(live, 'blue');
        need(back, 'white');
        break;
      case '240 V equipment':
        need(live, 'l1');
        need(second, 'l2');
        break;
      case '125/250 V equipment':
      case '125/250 V equipment, three wires':
        need(live, 'l1');
        need(second, 'l2');
        need(back, 'n');
        break;
      default:
        need(live, 'black');
        need(back, 'white');
        if (yoke === 'smoke alarm' && this.alarms() > 1) need(INTERCONNECT, 'interconnect');
    }
    return { yoke, hotTab, neutralTab, needs };
  }

  private alarms(): number {
    return this.run.stops.filter(({ box }) => box.device.kind === 'smoke-alarm').length;
  }

  private isDoublePole(g: number): boolean {
    return this.groups[g]!.switches.some((s) => this.run.stops[s]!.box.device.volts === '250');
  }

  private wantSwitch(i: number): Wanted {
    const { run } = this;
    const g = this.groupAt(i);
    const { switches, loads } = this.groups[g]!;
    const at = switches.indexOf(i);
    const two = run.circuit.breaker.poles === 2;
    const load = run.stops[loads[0] ?? i]!;
    const hot = load.stop.hot === 'red' && two ? HOT_B : HOT;
    const { device } = run.stops[i]!.box;
    const needs: Need[] = [];
    const need = (n: Net, terminal: string) => needs.push({ net: n, terminals: [terminal] });
    const travelers = (leg: number, ...terminals: [string, string]) => {
      need(net('traveler-1', g, leg), terminals[0]);
      need(net('traveler-2', g, leg), terminals[1]);
    };
    const switched = net('switched', g);
    const first = at === 0;
    const last = at === switches.length - 1;
    let yoke: YokeKind;
    if (switches.length === 1 && device.volts === '250') {
      yoke = 'double-pole';
      need(HOT, 'line');
      need(HOT_B, 'line-b');
      need(switched, 'load');
      need(net('switched-b', g), 'load-b');
    } else if (switches.length === 1) {
      yoke = SINGLE_POLE[device.build];
      need(hot, 'line');
      need(switched, 'load');
      if (yoke === 'smart switch' && run.circuit.neutral) need(NEUTRAL, 'white');
    } else if (first || last) {
      yoke = device.build === 'dimmer' ? 'three-way dimmer' : 'three-way';
      need(first ? hot : switched, 'common');
      travelers(first ? 0 : at - 1, 'traveler-1', 'traveler-2');
    } else {
      yoke = 'four-way';
      travelers(at - 1, 'in-1', 'in-2');
      travelers(at, 'out-1', 'out-2');
    }
    return { yoke, hotTab: true, neutralTab: true, needs };
  }

  /** A neutral for each switch box that may want one, 404.2(C), where its cable needs no fourth insulated conductor. */
  private bringNeutrals(): void {
    const { run } = this;
    if (!run.circuit.neutral) return;
    run.stops.forEach((stop, i) => {
      const { box } = stop;
      const { switchNeutral } = box.seen;
      if (box.device.kind !== 'switch' || switchNeutral === 'no') return;
      if (switchNeutral !== 'yes' && (box.status === 'existing' || cableOf(run, stop) === 'old two-wire'))
        return;
      const stops = new Set(this.at.get(NEUTRAL.key)!.stops).add(i);
      const now = this.segments(this.at.get(NEUTRAL.key)!.stops);
      const more = this.segments(stops).filter((s) => !now.includes(s));
      if (switchNeutral === 'yes' || more.every((s) => this.insulatedOn(s) < MOST_INSULATED))
        this.use(NEUTRAL, i);
    });
  }

  private insulatedOn(segment: number): number {
    return [...this.at.values()].filter(
      ({ net: n, stops }) => n.function !== 'ground' && this.segments(stops).includes(segment),
    ).length;
  }

  carried(): Net[][] {
    this.bringNeutrals();
    const { stops } = this.run;
    const carried = stops.map((): Net[] => []);
    for (const { net: n, stops: at } of this.at.values())
      for (const segment of this.segments(at))
        if (n.function !== 'ground' || hasGround(this.run, stops[segment]!)) carried[segment]!.push(n);
    return carried;
  }
}

const SINGLE_POLE: Record<Box['device']['build'], YokeKind> = {
  usual: 'single-pole',
  'lead-wired': 'single-pole',
  dimmer: 'dimmer',
  smart: 'smart switch',
  'smart-no-neutral': 'smart switch, no neutral',
};

/** Three wires of old: no ground conductor comes to it, and its neutral is the frame's way home, 250.140. */
const isThreeWire = (run: Run, stop: RunStop): boolean =>
  run.circuit.neutral &&
  run.circuit.breaker.poles === 2 &&
  (stop.box.grounding === 'none' || !hasGround(run, stop));

/** The device of a stop, as it is wired. */
function yokeOf(run: Run, i: number): YokeKind {
  const stop = run.stops[i]!;
  const { box } = stop;
  const { device } = box;
  switch (device.kind) {
    case 'light':
      return box.purpose === 'ceiling-fan' || box.seen.luminaire === 'fan' ? 'fan' : 'light';
    case 'smoke-alarm':
      return 'smoke alarm';
    case 'hardwired':
      if (run.circuit.breaker.poles === 1) return 'equipment';
      if (!run.circuit.neutral) return '240 V equipment';
      if (device.volts === '125') return 'equipment';
      return isThreeWire(run, stop) ? '125/250 V equipment, three wires' : '125/250 V equipment';
    case 'gfci':
    case 'outlet-afci':
    case 'two-slot':
      return device.kind;
    default:
      if (device.volts === '250') return '250 V receptacle';
      if (device.volts === '125/250' && device.rating < 30) return 'combination duplex';
      if (device.volts === '125/250')
        return isThreeWire(run, stop) ? 'three-wire receptacle' : 'four-wire receptacle';
      if (device.build === 'lead-wired') return 'lead-wired duplex';
      return device.kind === 'single' ? 'single' : 'duplex';
  }
}

function permutations(list: readonly number[]): number[][] {
  if (list.length < 2) return [[...list]];
  return list.flatMap((first, i) =>
    permutations(list.filter((_, k) => k !== i)).map((rest) => [first, ...rest]),
  );
}

const remembered = new WeakMap<Run, CircuitNets>();

/** The nets of a run. */
export function netsOf(run: Run): CircuitNets {
  let found = remembered.get(run);
  if (!found) {
    const nets = new Nets(run);
    found = { wanted: nets.wanted, carried: nets.carried() };
    remembered.set(run, found);
  }
  return found;
}
