/** Nodes and branches of a network as they are put down, and the usual ohms of what is not cable. */
import { EARTH, type Branch, type Source } from './network.ts';
import type { Spot } from './places.ts';

/** Ohms of what is not cable; usual figures, none of which a reading depends on while the wiring is sound. */
export const SOURCE_OHMS = 0.02;
export const BOND_OHMS = 0.001;
export const ELECTRODE_OHMS = 25;
export const BREAKER_OHMS = 0.005;
export const JOINT_OHMS = 0.001;
export const CONTACT_OHMS = 0.005;
export const CORD_OHMS = 0.05;
/** The neutral of another circuit, from where it is within reach to its bar. */
export const OTHER_OHMS = 0.1;
/** A person, hand to foot; IEC 60479-1 puts half of all people above about this at 120 V in damp surroundings. */
export const PERSON_OHMS = 1000;
/** Siemens from any node to earth across air and dirt, so that nothing floats. */
const LEAK = 1e-10;

/** Lays out a network. */
export class Layout {
  readonly nodes: string[] = [];
  readonly branches: Branch[] = [];
  readonly sources: Source[] = [];
  readonly spots: Spot[] = [];
  /** Ends that land on a device themselves are found under both names. */
  readonly aliases: [number, Spot][] = [];
  /** Position of the first stop of the circuit that is laid out now. */
  first = 0;

  node(name: string): number {
    const at = this.nodes.push(name) - 1;
    this.branches.push({ from: at, to: EARTH, conductance: LEAK, capacitance: 0 });
    return at;
  }

  /** @returns the branch */
  branch(from: number, to: number, ohms: number): number {
    return this.branches.push({ from, to, conductance: 1 / ohms, capacitance: 0 }) - 1;
  }

  join(from: number, to: number, ohms: number, spot: Omit<Spot, 'branch'>): Spot {
    const placed = { ...spot, branch: this.branch(from, to, ohms) };
    this.spots.push(placed);
    return placed;
  }

  /** @param farads between each two of the nodes, by their positions */
  couple(side: readonly number[], farads: (a: number, b: number) => number): void {
    for (let a = 0; a < side.length; a++)
      for (let b = a + 1; b < side.length; b++)
        this.branches.push({ from: side[a]!, to: side[b]!, conductance: 0, capacitance: farads(a, b) });
  }
}
