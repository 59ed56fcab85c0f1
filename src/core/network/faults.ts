/** Wiring faults as changes to a circuit's network. */
import { EARTH, OPEN_OHMS, type Branch } from './network.ts';
import {
  JOINT_OHMS,
  spotKey,
  type Conductor,
  type Part,
  type Spot,
  type Terminals,
  type Wiring,
} from './wiring.ts';

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
  | { kind: 'same-leg' }
  /**
   * The feed of a protecting device is on its load terminals, and what it feeds on its line terminals. One made since 2006
   * does not reset then and keeps its own face dead, UL 943; an older one works its face, unprotected.
   */
  | { kind: 'reversed'; stop: number; age: 'since-2006' | 'before-2006' }
  /** The switch breaks the neutral of what it controls, and leaves the hot. */
  | { kind: 'switched-neutral'; stop: number };
export type FaultKind = Fault['kind'];

/** One step of a fault. */
export type Edit =
  /** A branch conducts otherwise, siemens. */
  | { kind: 'conduct'; branch: number; conductance: number }
  /** A branch that was not there. */
  | { kind: 'add'; from: number; to: number; conductance: number }
  /** Two branches change their far ends with each other. */
  | { kind: 'exchange'; a: number; b: number };

/** Ohms of what a hot or a neutral of another circuit is joined with. */
const STRAY_OHMS = 0.1;

/** @throws when the circuit has no such place */
function spotOf(wiring: Wiring, stop: number, conductor: Conductor, part: Part): Spot {
  const spot = wiring.spotAt.get(spotKey({ stop, conductor, part }));
  if (spot) return spot;
  const where = stop < 0 ? 'The panel' : `Stop ${stop + 1}`;
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
  const { branches, spots, panel } = wiring;
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
      const bus = panel.bus[fault.leg === 'same' ? mine : mine === 'red' ? 'black' : 'red'];
      const terminal = at(fault.stop, 'neutral', 'terminal');
      return [opened(terminal), joined(branches[terminal]!.to, bus, STRAY_OHMS)];
    }
    case 'other-neutral': {
      const end = at(fault.stop, 'neutral', 'end');
      return [opened(end), joined(branches[end]!.to, panel.otherNeutral, STRAY_OHMS)];
    }
    case 'same-leg': {
      const contact = at(-1, 'red', 'contact');
      const { conductance, to } = branches[contact]!;
      return [opened(contact), { kind: 'add', from: panel.bus.black, to, conductance }];
    }
    case 'reversed':
      // Its contacts never close: what is fed on the wrong side goes no farther, neither to its face nor to its line side.
      if (fault.age === 'since-2006')
        return [hotOf(wiring, fault.stop), 'neutral' as const].map((conductor) => {
          // Only a device with contacts can be fed on the wrong side.
          at(fault.stop, conductor, 'contact');
          return opened(at(fault.stop, conductor, 'terminal'));
        });
      return [hotOf(wiring, fault.stop), 'neutral' as const].flatMap((conductor) => {
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
      });
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
  }
}

/** Whether a branch joins the load side of a device with its own face. */
const isFace = ({ terminals }: Wiring, stop: number, { to }: Branch): boolean =>
  terminals[stop]!.faces.some((f) => f.hot === to || f.neutral === to);

/** The network with what is wrong in it; what it was made of is left as it is. */
export function withFaults(wiring: Wiring, faults: readonly Fault[]): Wiring {
  const branches: Branch[] = [...wiring.branches];
  const change = (branch: number, values: Partial<Branch>) => {
    branches[branch] = { ...branches[branch]!, ...values };
  };
  for (const edit of faults.flatMap((fault) => editsOf(wiring, fault))) {
    if (edit.kind === 'conduct') change(edit.branch, { conductance: edit.conductance });
    else if (edit.kind === 'add')
      branches.push({ from: edit.from, to: edit.to, conductance: edit.conductance, capacitance: 0 });
    else {
      const [toA, toB] = [branches[edit.a]!.to, branches[edit.b]!.to];
      change(edit.a, { to: toB });
      change(edit.b, { to: toA });
    }
  }
  return { ...wiring, branches };
}
