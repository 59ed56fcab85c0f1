/** Wiring faults as changes to a circuit's network. */
import { OPEN_OHMS, type Branch } from './network.ts';
import type { Conductor, Part, Spot, Wiring } from './wiring.ts';

export type Fault =
  /** A conductor parted at a joint, in a cable, or a contact that does not close. */
  | { kind: 'open'; stop: number; conductor: Conductor; part: Part }
  /** A joint that heats, ohms. */
  | { kind: 'resistance'; stop: number; conductor: Conductor; part: Part; ohms: number }
  /** Two conductors of the cable to a box touch at its end, ohms. */
  | { kind: 'short'; stop: number; conductors: readonly [Conductor, Conductor]; ohms: number }
  /** Two conductors change places at the device. */
  | { kind: 'swap'; stop: number; conductors: readonly [Conductor, Conductor] };

/** @throws when the circuit has no such place */
export function spotOf(wiring: Wiring, stop: number, conductor: Conductor, part: Part): Spot {
  const spot = wiring.spots.find((s) => s.stop === stop && s.conductor === conductor && s.part === part);
  if (!spot) throw new Error(`Stop ${stop + 1} has no ${part} of the ${conductor} conductor`);
  return spot;
}

/** The network with what is wrong in it; what it was made of is left as it is. */
export function withFaults(wiring: Wiring, faults: readonly Fault[]): Wiring {
  const branches: Branch[] = [...wiring.branches];
  const change = (branch: number, values: Partial<Branch>) => {
    branches[branch] = { ...branches[branch]!, ...values };
  };
  for (const fault of faults) {
    if (fault.kind === 'open' || fault.kind === 'resistance') {
      const { branch } = spotOf(wiring, fault.stop, fault.conductor, fault.part);
      change(branch, { conductance: 1 / (fault.kind === 'open' ? OPEN_OHMS : fault.ohms) });
      continue;
    }
    const [a, b] = fault.conductors.map((c) => spotOf(wiring, fault.stop, c, 'terminal').branch) as [
      number,
      number,
    ];
    if (fault.kind === 'short')
      branches.push({
        from: branches[a]!.from,
        to: branches[b]!.from,
        conductance: 1 / fault.ohms,
        capacitance: 0,
      });
    else {
      const [toA, toB] = [branches[a]!.to, branches[b]!.to];
      change(a, { to: toB });
      change(b, { to: toA });
    }
  }
  return { ...wiring, branches };
}
