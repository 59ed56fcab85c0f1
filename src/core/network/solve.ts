/**
 * Solves a network by eliminating one node at a time: its star of branches becomes a mesh between its neighbors
 * (Rosen, Journal IEE 1924), which is the LDLᵀ factorization of the nodal matrix. Each pivot is the sum of the branches
 * at its node, never a difference of large numbers (Grassmann, Taksar and Heyman, Operations Research 1985), so that what
 * hangs from the rest by a millionth of a microsiemens keeps its digits. Nodes go by least degree (Tinney and Walker,
 * Proc. IEEE 1967): wiring is nearly a tree, and hardly a branch is filled in.
 */
import { EARTH, Voltages, type Network } from './network.ts';

/** Order of elimination with the neighbors left at each step: the structure of a network, whatever its values. */
export interface Elimination {
  order: Int32Array;
  /** Step at which each node goes. */
  step: Int32Array;
  /** Where the neighbors of each step begin in `neighbors`, and one past the last. */
  starts: Int32Array;
  /** Nodes that are still there and joined to the one that goes. */
  neighbors: Int32Array;
  /** Where each branch is gathered: a place in `neighbors`, or −1 − step for a branch to earth, or none. */
  places: Int32Array;
  /** For each pair of neighbors of a step, where the mesh branch between them is gathered. */
  fill: Int32Array;
}

const NOWHERE = 0x7fffffff;

/**
 * @param together groups of nodes each of which is joined to each from the first, whatever branches there are
 * @throws when a branch names a node that is not there
 */
export function eliminationOf(
  { nodes, branches, sources }: Network,
  together: readonly (readonly number[])[] = [],
): Elimination {
  const n = nodes.length;
  const ends = [...branches, ...sources];
  // Few neighbors each: lists are searched faster than sets.
  const beside: number[][] = Array.from({ length: n }, () => []);
  const meet = (a: number, b: number): void => {
    if (!beside[a]!.includes(b)) beside[a]!.push(b);
  };
  for (const { from, to } of ends) {
    if (from >= n || to >= n || from < EARTH || to < EARTH)
      throw new Error(`A branch joins nodes ${from} and ${to}; there are ${n}`);
    if (from === to || from === EARTH || to === EARTH) continue;
    meet(from, to);
    meet(to, from);
  }
  for (const group of together) for (const a of group) for (const b of group) if (a !== b) meet(a, b);
  const order = new Int32Array(n);
  const step = new Int32Array(n).fill(-1);
  const starts = new Int32Array(n + 1);
  const neighbors: number[] = [];
  // Nodes by degree; an entry whose degree has changed since is passed over.
  const byDegree: number[][] = [];
  const enter = (node: number) => (byDegree[beside[node]!.length] ??= []).push(node);
  for (let i = n - 1; i >= 0; i--) enter(i);
  for (let k = 0; k < n; k++) {
    let node = -1;
    for (let degree = 0; node < 0; degree++) {
      const list = byDegree[degree] ?? [];
      while (node < 0 && list.length > 0) {
        const last = list.pop()!;
        if (step[last]! < 0 && beside[last]!.length === degree) node = last;
      }
    }
    order[k] = node;
    step[node] = k;
    starts[k] = neighbors.length;
    const left = beside[node]!;
    for (const a of left) {
      neighbors.push(a);
      const list = beside[a]!;
      list[list.indexOf(node)] = list[list.length - 1]!;
      list.pop();
      for (const b of left) if (b !== a) meet(a, b);
    }
    left.forEach(enter);
  }
  starts[n] = neighbors.length;
  const placeOf = (a: number, b: number): number => {
    if (a === b) return NOWHERE;
    if (a === EARTH || b === EARTH) return -1 - step[a === EARTH ? b : a]!;
    const [first, other] = step[a]! < step[b]! ? [a, b] : [b, a];
    for (let p = starts[step[first]!]!; p < starts[step[first]! + 1]!; p++)
      if (neighbors[p] === other) return p;
    throw new Error(`No place for a branch between nodes ${a} and ${b}`);
  };
  const fill: number[] = [];
  for (let k = 0; k < n; k++)
    for (let i = starts[k]!; i < starts[k + 1]!; i++)
      for (let j = i + 1; j < starts[k + 1]!; j++) fill.push(placeOf(neighbors[i]!, neighbors[j]!));
  return {
    order,
    step,
    starts,
    neighbors: Int32Array.from(neighbors),
    places: Int32Array.from(ends, ({ from, to }) => placeOf(from, to)),
    fill: Int32Array.from(fill),
  };
}

/** A factorization that solves for any currents. Complex numbers are kept as real and imaginary parts by turns. */
export class Factors {
  private readonly structure: Elimination;
  private readonly network: Network;
  /** Each neighbor's share of what the node that goes is fed: branch by sum of branches. */
  private readonly shares: Float64Array;
  /** One by the sum of branches, by step. */
  private readonly inverse: Float64Array;
  /** Neighbors as steps, twice over: where their real parts stand in a vector by step. */
  private readonly targets: Int32Array;
  /** Step at which each node goes. */
  readonly step: Int32Array;

  /**
   * @param hertz of the sources
   * @param structure of this network or one with the same branches, to be used again
   */
  constructor(network: Network, hertz: number, structure: Elimination = eliminationOf(network)) {
    this.network = network;
    this.structure = structure;
    const { step, starts, neighbors, places, fill } = structure;
    const n = step.length;
    const mesh = new Float64Array(2 * neighbors.length);
    const earth = new Float64Array(2 * n);
    const add = (place: number, re: number, im: number): void => {
      if (place === NOWHERE) return;
      const to = place < 0 ? earth : mesh;
      const at = 2 * (place < 0 ? -1 - place : place);
      to[at]! += re;
      to[at + 1]! += im;
    };
    const omega = 2 * Math.PI * hertz;
    let place = 0;
    for (const { conductance, capacitance } of network.branches)
      add(places[place++]!, conductance, omega * capacitance);
    for (const { ohms } of network.sources) add(places[place++]!, 1 / ohms, 0);
    const shares = new Float64Array(2 * neighbors.length);
    const inverse = new Float64Array(2 * n);
    let filled = 0;
    const targets = Int32Array.from(neighbors, (node) => 2 * step[node]!);
    for (let k = 0; k < n; k++) {
      const first = starts[k]!;
      const end = starts[k + 1]!;
      const er = earth[2 * k]!;
      const ei = earth[2 * k + 1]!;
      let re = er;
      let im = ei;
      for (let p = 2 * first; p < 2 * end; p += 2) {
        re += mesh[p]!;
        im += mesh[p + 1]!;
      }
      const square = re * re + im * im;
      const pr = square > 0 ? re / square : 0;
      const pi = square > 0 ? -im / square : 0;
      inverse[2 * k] = pr;
      inverse[2 * k + 1] = pi;
      for (let p = first; p < end; p++) {
        const br = mesh[2 * p]!;
        const bi = mesh[2 * p + 1]!;
        const sr = br * pr - bi * pi;
        const si = br * pi + bi * pr;
        shares[2 * p] = sr;
        shares[2 * p + 1] = si;
        const to = targets[p]!;
        earth[to]! += sr * er - si * ei;
        earth[to + 1]! += sr * ei + si * er;
        for (let q = p + 1; q < end; q++) {
          const qr = mesh[2 * q]!;
          const qi = mesh[2 * q + 1]!;
          const at = 2 * fill[filled++]!;
          mesh[at]! += sr * qr - si * qi;
          mesh[at + 1]! += sr * qi + si * qr;
        }
      }
    }
    this.shares = shares;
    this.inverse = inverse;
    this.targets = targets;
    this.step = step;
  }

  /** @param currents fed into each node, amperes, real and imaginary parts by turns; becomes the voltages */
  solve(currents: Float64Array): void {
    const { step } = this;
    const n = step.length;
    // One column of the four.
    const [wr, wi] = [new Float64Array(4 * n), new Float64Array(4 * n)];
    for (let i = 0; i < n; i++) {
      wr[4 * step[i]!] = currents[2 * i]!;
      wi[4 * step[i]!] = currents[2 * i + 1]!;
    }
    this.substitute(0, wr, wi);
    for (let i = 0; i < n; i++) {
      currents[2 * i] = wr[4 * step[i]!]!;
      currents[2 * i + 1] = wi[4 * step[i]!]!;
    }
  }

  /**
   * Voltages when one ampere is sent from one node to another, for four such pairs at once: the sums of one do not wait
   * for those of the next.
   * @param pairs nodes by turns, eight; a pair of earth and earth is left out
   * @param wr real parts by `step`, four to each
   */
  units(pairs: Int32Array, wr: Float64Array, wi: Float64Array): void {
    const { step } = this;
    const n = step.length;
    wr.fill(0);
    wi.fill(0);
    let first = n;
    for (let r = 0; r < 4; r++) {
      for (const [node, amps] of [
        [pairs[2 * r]!, 1],
        [pairs[2 * r + 1]!, -1],
      ] as const) {
        if (node === EARTH) continue;
        wr[4 * step[node]! + r]! += amps;
        first = Math.min(first, step[node]!);
      }
    }
    this.substitute(first, wr, wi);
  }

  /** Forward and back over four columns by step; nothing is fed in before the step `first`. */
  private substitute(first: number, wr: Float64Array, wi: Float64Array): void {
    const { shares, inverse, targets } = this;
    const { starts } = this.structure;
    const n = this.step.length;
    for (let k = first; k < n; k++) {
      const at = 4 * k;
      const a0 = wr[at]!;
      const a1 = wr[at + 1]!;
      const a2 = wr[at + 2]!;
      const a3 = wr[at + 3]!;
      const b0 = wi[at]!;
      const b1 = wi[at + 1]!;
      const b2 = wi[at + 2]!;
      const b3 = wi[at + 3]!;
      const none = a0 === 0 && a1 === 0 && a2 === 0 && a3 === 0;
      if (none && b0 === 0 && b1 === 0 && b2 === 0 && b3 === 0) continue;
      const end = starts[k + 1]!;
      for (let p = starts[k]!; p < end; p++) {
        const sr = shares[2 * p]!;
        const si = shares[2 * p + 1]!;
        const to = 2 * targets[p]!;
        wr[to]! += sr * a0 - si * b0;
        wr[to + 1]! += sr * a1 - si * b1;
        wr[to + 2]! += sr * a2 - si * b2;
        wr[to + 3]! += sr * a3 - si * b3;
        wi[to]! += sr * b0 + si * a0;
        wi[to + 1]! += sr * b1 + si * a1;
        wi[to + 2]! += sr * b2 + si * a2;
        wi[to + 3]! += sr * b3 + si * a3;
      }
    }
    for (let k = n - 1; k >= 0; k--) {
      const at = 4 * k;
      const ir = inverse[2 * k]!;
      const ii = inverse[2 * k + 1]!;
      let a0 = wr[at]! * ir - wi[at]! * ii;
      let a1 = wr[at + 1]! * ir - wi[at + 1]! * ii;
      let a2 = wr[at + 2]! * ir - wi[at + 2]! * ii;
      let a3 = wr[at + 3]! * ir - wi[at + 3]! * ii;
      let b0 = wr[at]! * ii + wi[at]! * ir;
      let b1 = wr[at + 1]! * ii + wi[at + 1]! * ir;
      let b2 = wr[at + 2]! * ii + wi[at + 2]! * ir;
      let b3 = wr[at + 3]! * ii + wi[at + 3]! * ir;
      const end = starts[k + 1]!;
      for (let p = starts[k]!; p < end; p++) {
        const sr = shares[2 * p]!;
        const si = shares[2 * p + 1]!;
        const of = 2 * targets[p]!;
        a0 += sr * wr[of]! - si * wi[of]!;
        a1 += sr * wr[of + 1]! - si * wi[of + 1]!;
        a2 += sr * wr[of + 2]! - si * wi[of + 2]!;
        a3 += sr * wr[of + 3]! - si * wi[of + 3]!;
        b0 += sr * wi[of]! + si * wr[of]!;
        b1 += sr * wi[of + 1]! + si * wr[of + 1]!;
        b2 += sr * wi[of + 2]! + si * wr[of + 2]!;
        b3 += sr * wi[of + 3]! + si * wr[of + 3]!;
      }
      wr[at] = a0;
      wr[at + 1] = a1;
      wr[at + 2] = a2;
      wr[at + 3] = a3;
      wi[at] = b0;
      wi[at + 1] = b1;
      wi[at + 2] = b2;
      wi[at + 3] = b3;
    }
  }

  /** Voltages under the network's own sources. */
  voltages(): Voltages {
    const currents = new Float64Array(2 * this.structure.order.length);
    for (const { from, to, volts, ohms } of this.network.sources) {
      if (to !== EARTH) currents[2 * to]! += volts / ohms;
      if (from !== EARTH) currents[2 * from]! -= volts / ohms;
    }
    this.solve(currents);
    return new Voltages(currents);
  }
}
