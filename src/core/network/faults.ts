/** Faults as changes to a network: of the wiring in boxes, of cables, of what stands at the panel, of the supply. */
import { BOND_OHMS, JOINT_OHMS } from './layout.ts';
import { EARTH, OPEN_OHMS, type Branch } from './network.ts';
import { spotKey, type Conductor, type Part, type Spot, type Terminals, type Use } from './places.ts';
import type { HousePart } from './supply.ts';
import type { Wiring } from './wiring.ts';

export type Fault =
  /** A conductor parted at a joint, in a cable, or a contact that does not close. The panel is stop −1. */
  | { kind: 'open'; stop: number; conductor: Conductor; part: Part }
  /** A joint that heats, ohms. */
  | { kind: 'resistance'; stop: number; conductor: Conductor; part: Part; ohms: number }
  /** Two conductors touch, or leak to each other, where they are joined in a box, ohms. */
  | { kind: 'short'; stop: number; conductors: readonly [Conductor, Conductor]; ohms: number }
  /** Two conductors change places at the device. */
  | { kind: 'swap'; stop: number; conductors: readonly [Conductor, Conductor] }
  /** Two conductors of the cable that arrives here change places inside it. */
  | { kind: 'crossed'; stop: number; conductors: readonly [Conductor, Conductor] }
  /** The ground screw is joined to the neutral and to no ground. */
  | { kind: 'false-ground'; stop: number }
  /** A hot of another circuit stands where the neutral belongs, on the same leg or the other. */
  | { kind: 'other-hot'; stop: number; leg: 'same' | 'other' }
  /** From this box on the neutral goes home by another circuit. */
  | { kind: 'other-neutral'; stop: number }
  /** Both hots of a multiwire circuit are on one leg. */
  | { kind: 'same-leg'; circuit?: number }
  /**
   * The feed of a protecting device is on its load terminals, and what it feeds on its line terminals. One made since 2006
   * does not reset then and keeps its own face dead, UL 943; an older one works its face, unprotected.
   */
  | { kind: 'reversed'; stop: number; age: 'since-2006' | 'before-2006' }
  /** The switch breaks the neutral of what it controls, and leaves the hot. */
  | { kind: 'switched-neutral'; stop: number }
  /** An end stands at another place of its box; null: it is capped. */
  | { kind: 'landing'; stop: number; end: string; place: string | null }
  /** A tab that should be broken off was left, between the halves of a duplex. */
  | { kind: 'tab-left'; stop: number; side: TabSide }
  /** A tab that should be kept is broken off. */
  | { kind: 'tab-broken'; stop: number; side: TabSide }
  /** Two conductors touch, or leak to each other, inside the cable that arrives here, ohms. */
  | { kind: 'cable-leak'; stop: number; conductors: readonly [Conductor, Conductor]; ohms: number }
  /** A splice nobody knows of, somewhere in the cable that arrives here: open, or a poor joint, ohms. */
  | { kind: 'hidden-junction'; stop: number; conductor: Conductor; ohms: number | null }
  /** Conductors of two circuits are joined, ohms. */
  | {
      kind: 'tied';
      stop: number;
      conductor: Conductor;
      other: number;
      otherConductor: Conductor;
      ohms: number;
    }
  /** What is plugged in here returns by the neutral of another circuit’s box. */
  | { kind: 'borrowed-neutral'; stop: number; other: number }
  /** The neutral of a circuit is off its bar. */
  | { kind: 'lifted-neutral'; circuit?: number }
  /** The neutral of a circuit is on the ground bar, or its ground on that of the neutrals. */
  | { kind: 'wrong-bar'; circuit?: number; conductor: 'neutral' | 'ground' }
  /** The neutral of a protected circuit was left on the bar, beside the lead of its breaker. */
  | { kind: 'beside-breaker'; circuit?: number }
  /** A breaker of one pole looks for a difference on a circuit whose neutral serves two hots. */
  | { kind: 'single-pole-sensor'; circuit?: number }
  /** The hots of two circuits are on each other’s breakers. */
  | { kind: 'crossed-breakers'; circuits: readonly [number, number] }
  | SupplyFault;
export type FaultKind = Fault['kind'];
type TabSide = 'hot' | 'neutral';

/** What may be wrong before the bars of a panel; null ohms is lost, a number a poor joint. */
export type SupplyFault =
  | { kind: 'service-neutral'; ohms: number | null }
  /** `own` is the leg of the black of the circuit under study. */
  | { kind: 'service-leg'; leg: 'own' | 'other'; ohms?: number | null }
  | { kind: 'feeder-neutral'; panel: string; ohms: number | null }
  | { kind: 'feeder-leg'; panel: string; leg: 'own' | 'other'; ohms: number | null }
  | { kind: 'feeder-ground'; panel: string }
  /** Neutral and ground are not joined at the service. */
  | { kind: 'no-bond' }
  /** They are joined at a subpanel as well. */
  | { kind: 'second-bond'; panel: string };

/** One step of a fault. */
export type Edit =
  /** A branch conducts otherwise, siemens. */
  | { kind: 'conduct'; branch: number; conductance: number }
  /** A branch that was not there. */
  | { kind: 'add'; from: number; to: number; conductance: number }
  /** Two branches change their far ends with each other. */
  | { kind: 'exchange'; a: number; b: number }
  /** The breaker of a circuit does not sense a conductor. */
  | { kind: 'blind'; stop: number; conductor: Conductor };

/** Ohms of what a hot or a neutral of another circuit is joined with. */
const STRAY_OHMS = 0.1;

/** @throws when the circuit has no such place */
function spotOf(wiring: Wiring, stop: number, conductor: Conductor, part: Part): Spot {
  const spot = wiring.spotAt.get(spotKey({ stop, conductor, part }));
  if (spot) return spot;
  const where = stop < 0 ? 'The panel' : `Stop ${stop + 1}`;
  if (part === 'tab') throw new Error(`${where} has no tab that is laid apart`);
  throw new Error(`${where} has no ${part} of the ${conductor} conductor`);
}

/**
 * The hot that a device takes.
 * @throws when the circuit has no such stop
 */
export const hotOf = (wiring: Wiring, stop: number): Conductor => terminalsOf(wiring, stop).hotIs;

function terminalsOf({ terminals }: Wiring, stop: number): Terminals {
  const found = terminals[stop];
  if (!found) throw new Error(`Stop ${stop + 1} is not on this circuit`);
  return found;
}

const opened = (branch: number): Edit => ({ kind: 'conduct', branch, conductance: 1 / OPEN_OHMS });
const removed = (branch: number): Edit => ({ kind: 'conduct', branch, conductance: 0 });
const joined = (from: number, to: number, ohms: number): Edit => ({
  kind: 'add',
  from,
  to,
  conductance: 1 / ohms,
});

/**
 * What a fault does to a circuit's network.
 * @throws when the circuit has no such place
 */
export function editsOf(wiring: Wiring, fault: Fault): Edit[] {
  const { branches, spots } = wiring;
  const at = (stop: number, conductor: Conductor, part: Part) => spotOf(wiring, stop, conductor, part).branch;
  switch (fault.kind) {
    case 'open':
      return [opened(at(fault.stop, fault.conductor, fault.part))];
    case 'resistance': {
      const branch = at(fault.stop, fault.conductor, fault.part);
      return [{ kind: 'conduct', branch, conductance: 1 / fault.ohms }];
    }
    case 'short': {
      const [a, b] = fault.conductors.map((c) => branches[at(fault.stop, c, 'terminal')]!.from);
      return [joined(a!, b!, fault.ohms)];
    }
    case 'swap': {
      const [a, b] = fault.conductors.map((c) => at(fault.stop, c, 'terminal'));
      return [{ kind: 'exchange', a: a!, b: b! }];
    }
    case 'crossed': {
      const [a, b] = fault.conductors.map((c) => at(fault.stop, c, 'cable'));
      return [{ kind: 'exchange', a: a!, b: b! }];
    }
    case 'false-ground': {
      const { neutral, ground } = terminalsOf(wiring, fault.stop);
      const own = wiring.spotAt.get(spotKey({ stop: fault.stop, conductor: 'ground', part: 'terminal' }));
      return [...(own ? [opened(own.branch)] : []), joined(neutral, ground, JOINT_OHMS)];
    }
    case 'other-hot': {
      const mine = hotOf(wiring, fault.stop) === 'red' ? 'red' : 'black';
      const bus = leavingOf(wiring, fault.stop).bus[
        fault.leg === 'same' ? mine : mine === 'red' ? 'black' : 'red'
      ];
      const terminal = at(fault.stop, 'neutral', 'terminal');
      return [opened(terminal), joined(branches[terminal]!.to, bus, STRAY_OHMS)];
    }
    case 'other-neutral': {
      const end = at(fault.stop, 'neutral', 'end');
      return [opened(end), joined(branches[end]!.to, leavingOf(wiring, fault.stop).otherNeutral, STRAY_OHMS)];
    }
    case 'same-leg': {
      const circuit = fault.circuit ?? 0;
      const contact = at(-1 - circuit, 'red', 'contact');
      const { conductance, to } = branches[contact]!;
      const from = circuitAt(wiring, circuit).leaving.bus.black;
      return [opened(contact), { kind: 'add', from, to, conductance }];
    }
    case 'reversed':
      // Its contacts never close: what is fed on the wrong side goes no farther, neither to its face nor to its line side.
      if (fault.age === 'since-2006')
        return [hotOf(wiring, fault.stop), 'neutral' as const].map((conductor) => {
          // Only a device with contacts can be fed on the wrong side.
          at(fault.stop, conductor, 'contact');
          return opened(at(fault.stop, conductor, 'terminal'));
        });
      return [
        ...facesKept(wiring, fault.stop),
        ...[hotOf(wiring, fault.stop), 'neutral' as const].flatMap((conductor) => {
          const terminal = at(fault.stop, conductor, 'terminal');
          const { from: feed, to: line, conductance } = branches[terminal]!;
          const load = branches[at(fault.stop, conductor, 'contact')]!.to;
          const contact = at(fault.stop, conductor, 'contact');
          // What is fed from the load terminal, or lands there by a tail; the contacts and the face stay.
          const there = branches.flatMap((branch, k) =>
            k !== contact &&
            (branch.from === load || branch.to === load) &&
            branch.to !== EARTH &&
            !isFace(wiring, fault.stop, branch)
              ? [{ k, branch }]
              : [],
          );
          const atLine = (node: number) => (node === load ? line : node);
          return [
            removed(terminal),
            { kind: 'add' as const, from: feed, to: load, conductance },
            ...there.flatMap(({ k, branch }) => [
              removed(k),
              {
                kind: 'add' as const,
                from: atLine(branch.from),
                to: atLine(branch.to),
                conductance: branch.conductance,
              },
            ]),
          ];
        }),
      ];
    case 'switched-neutral': {
      const contact = at(fault.stop, hotOf(wiring, fault.stop), 'contact');
      const { conductance } = branches[contact]!;
      const here = new Set(wiring.inBox[fault.stop]!.values());
      const controlled = spots.filter(
        (s) => s.part === 'start' && s.conductor === 'switched' && here.has(branches[s.branch]!.from),
      );
      if (controlled.length === 0) throw new Error(`Stop ${fault.stop + 1} switches nothing`);
      // While the switch is on, nothing shows.
      if (conductance > 1) return [];
      return [
        { kind: 'conduct', branch: contact, conductance: 1 / JOINT_OHMS },
        ...controlled.map(({ stop }) => opened(at(stop, 'neutral', 'start'))),
      ];
    }
    case 'landing': {
      const nodes = wiring.inBox[fault.stop];
      const end = nodes?.get(fault.end);
      const place = fault.place === null ? null : nodes?.get(fault.place);
      if (end === undefined || place === undefined)
        throw new Error(
          `Stop ${fault.stop + 1} has no ${end === undefined ? `end “${fault.end}”` : `place “${fault.place}”`}`,
        );
      const joint = wiring.joints[fault.stop]!.get(fault.end);
      return [
        ...(joint === undefined ? [] : [opened(joint)]),
        ...(place === null ? [] : [joined(end, place, JOINT_OHMS)]),
      ];
    }
    case 'tab-left': {
      const [a, b] = fault.side === 'hot' ? ['brass-1', 'brass-2'] : ['silver-1', 'silver-2'];
      const nodes = wiring.inBox[fault.stop];
      const [one, other] = [nodes?.get(`device.${a}`), nodes?.get(`device.${b}`)];
      if (one === undefined || other === undefined || one === other)
        throw new Error(`Stop ${fault.stop + 1} has no ${fault.side} tab that should be broken off`);
      return [joined(one, other, JOINT_OHMS)];
    }
    case 'tab-broken':
      return [opened(at(fault.stop, fault.side === 'hot' ? 'black' : 'neutral', 'tab'))];
    case 'cable-leak': {
      const cut = wiring.cuts.get(fault.stop);
      const [a, b] = fault.conductors.map((c) => cut?.get(c) ?? branches[at(fault.stop, c, 'cable')]!.to);
      return [joined(a!, b!, fault.ohms)];
    }
    case 'hidden-junction': {
      const branch = at(fault.stop, fault.conductor, 'cable');
      if (fault.ohms === null) return [opened(branch)];
      const conductance = 1 / (1 / branches[branch]!.conductance + fault.ohms);
      return [{ kind: 'conduct', branch, conductance }];
    }
    case 'tied': {
      const a = spliceOf(wiring, fault.stop, fault.conductor);
      return [joined(a, spliceOf(wiring, fault.other, fault.otherConductor), fault.ohms)];
    }
    case 'borrowed-neutral': {
      const terminal = at(fault.stop, 'neutral', 'terminal');
      return [
        opened(terminal),
        joined(branches[terminal]!.to, spliceOf(wiring, fault.other, 'neutral'), JOINT_OHMS),
      ];
    }
    case 'lifted-neutral':
      return startsOf(wiring, fault.circuit ?? 0, 'neutral').map(({ branch }) => opened(branch));
    case 'wrong-bar': {
      const { leaving } = circuitAt(wiring, fault.circuit ?? 0);
      const bar = fault.conductor === 'neutral' ? leaving.ground : leaving.neutral;
      return startsOf(wiring, fault.circuit ?? 0, fault.conductor).flatMap(({ branch }) => [
        opened(branch),
        joined(branches[branch]!.to, bar, JOINT_OHMS),
      ]);
    }
    case 'beside-breaker': {
      const circuit = fault.circuit ?? 0;
      const { leaving } = circuitAt(wiring, circuit);
      if (leaving.breaker.neutral === leaving.neutral)
        throw new Error('Its breaker has no lead of its own for the neutral');
      return startsOf(wiring, circuit, 'neutral').flatMap(({ branch }) => [
        opened(branch),
        joined(branches[branch]!.to, leaving.neutral, JOINT_OHMS),
      ]);
    }
    case 'single-pole-sensor':
      return [{ kind: 'blind', stop: -1 - (fault.circuit ?? 0), conductor: 'red' }];
    case 'crossed-breakers': {
      const [a, b] = fault.circuits.map((k) => {
        const [start] = startsOf(wiring, k, 'black');
        if (!start) throw new Error(`Circuit ${k + 1} has no hot at the panel`);
        return start.branch;
      });
      return [{ kind: 'exchange', a: a!, b: b! }];
    }
    case 'service-neutral':
      return [lost(wiring, 'service neutral', fault.ohms)];
    case 'service-leg':
      return [lost(wiring, `service ${legName(wiring, fault.leg)}`, fault.ohms ?? null)];
    case 'feeder-neutral':
      return [lost(wiring, `feeder neutral, ${fault.panel}`, fault.ohms)];
    case 'feeder-leg':
      return [lost(wiring, `feeder ${legName(wiring, fault.leg)}, ${fault.panel}`, fault.ohms)];
    case 'feeder-ground':
      return [lost(wiring, `feeder ground, ${fault.panel}`, null)];
    case 'no-bond': {
      const [bond] = [...wiring.supply].find(([part]) => part.startsWith('bond, ')) ?? [];
      if (!bond) throw new Error('There is no bond to leave out');
      return [lost(wiring, bond, null)];
    }
    case 'second-bond':
      return [
        { kind: 'conduct', branch: partOf(wiring, `bond, ${fault.panel}`), conductance: 1 / BOND_OHMS },
      ];
  }
}

/** @throws when the network has no such circuit */
function circuitAt({ circuits }: Wiring, circuit: number): Wiring['circuits'][number] {
  const found = circuits[circuit];
  if (!found) throw new Error(`There is no circuit ${circuit + 1}`);
  return found;
}

const leavingOf = ({ circuits, panel }: Wiring, stop: number): Wiring['panel'] =>
  circuits.find((c) => stop >= c.first && stop < c.first + c.stops)?.leaving ?? panel;

/** Joints at the panel of a conductor of a circuit: one for each of its home runs. @throws when it has none */
function startsOf(wiring: Wiring, circuit: number, conductor: Conductor): Spot[] {
  const { first, stops, leaving } = circuitAt(wiring, circuit);
  const { breaker, ground, neutral } = leaving;
  const at = [breaker.black, breaker.red, breaker.neutral, ground, neutral];
  const found = wiring.spots.filter(
    (s) =>
      s.part === 'start' &&
      s.conductor === conductor &&
      s.stop >= first &&
      s.stop < first + stops &&
      at.includes(wiring.branches[s.branch]!.from),
  );
  if (found.length === 0) throw new Error(`The panel has no start of the ${conductor} conductor`);
  return found;
}

/** Where a conductor meets its fellows in a box. @throws when the box has no such conductor */
function spliceOf(wiring: Wiring, stop: number, conductor: Conductor): number {
  const terminal = wiring.spotAt.get(spotKey({ stop, conductor, part: 'terminal' }));
  if (terminal) return wiring.branches[terminal.branch]!.from;
  return wiring.branches[spotOf(wiring, stop, conductor, 'end').branch]!.to;
}

const legName = ({ bars, panel }: Wiring, leg: 'own' | 'other'): 'A' | 'B' => {
  const isA = [...bars.values()].some((bar) => bar.A === panel.bus.black);
  return (leg === 'own') === isA ? 'A' : 'B';
};

/** @throws when the supply has no such part */
function partOf({ supply }: Wiring, part: HousePart): number {
  const branch = supply.get(part);
  if (branch !== undefined) return branch;
  const [what, panel] = part.split(', ');
  throw new Error(
    panel === undefined
      ? `The ${what} is not in this network: a source stands at the panel`
      : `“${panel}” has no ${what} on the way to this circuit`,
  );
}

const lost = (wiring: Wiring, part: HousePart, ohms: number | null): Edit =>
  ohms === null
    ? opened(partOf(wiring, part))
    : { kind: 'conduct', branch: partOf(wiring, part), conductance: 1 / ohms };

/** What a use has to lay apart so that faults have their places: cables in two pieces, tabs as branches. */
export function useFor(use: Use, faults: readonly Fault[]): Use {
  const broken = faults.flatMap((f) => (f.kind === 'tab-broken' ? [f.stop] : []));
  return broken.length === 0 ? use : { ...use, apart: new Set([...(use.apart ?? []), ...broken]) };
}

/** Whether a branch joins the load side of a device with its own face. */
const isFace = ({ terminals }: Wiring, stop: number, { to }: Branch): boolean =>
  terminals[stop]!.faces.some((f) => f.hot === to || f.neutral === to);

/** The face of an old device stays joined to its load side, tripped or not. */
const facesKept = (wiring: Wiring, stop: number): Edit[] =>
  (wiring.guards.find((g) => g.stop === stop)?.faces ?? [])
    .filter((branch) => wiring.branches[branch]!.conductance * JOINT_OHMS < 1)
    .map((branch) => ({ kind: 'conduct', branch, conductance: 1 / JOINT_OHMS }));

/** The network with what is wrong in it; what it was made of is left as it is. */
export function withFaults(wiring: Wiring, faults: readonly Fault[]): Wiring {
  const branches: Branch[] = [...wiring.branches];
  const change = (branch: number, values: Partial<Branch>) => {
    branches[branch] = { ...branches[branch]!, ...values };
  };
  const blind: { stop: number; conductor: Conductor }[] = [];
  for (const edit of faults.flatMap((fault) => editsOf(wiring, fault))) {
    if (edit.kind === 'conduct') change(edit.branch, { conductance: edit.conductance });
    else if (edit.kind === 'blind') blind.push(edit);
    else if (edit.kind === 'add')
      branches.push({ from: edit.from, to: edit.to, conductance: edit.conductance, capacitance: 0 });
    else {
      const [toA, toB] = [branches[edit.a]!.to, branches[edit.b]!.to];
      change(edit.a, { to: toB });
      change(edit.b, { to: toA });
    }
  }
  if (blind.length === 0) return { ...wiring, branches };
  const guards = wiring.guards.map((guard) => ({
    ...guard,
    senses: guard.senses.filter(
      (s) => !blind.some((b) => b.stop === guard.stop && b.conductor === s.conductor),
    ),
  }));
  return { ...wiring, branches, guards };
}
