/**
 * Solves a network by eliminating one node at a time: its star of branches becomes a mesh between its neighbours
 * (Rosen, Journal IEE 1924), which is the LDLᵀ factorization of the nodal matrix. Each pivot is the sum of the branches
 * at its node, never a difference of large numbers (Grassmann, Taksar and Heyman, Operations Research 1985), so that what
 * hangs from the rest by a millionth of a microsiemens keeps its digits. Nodes go by least degree (Tinney and Walker,
 * Proc. IEEE 1967): wiring is nearly a tree, and hardly a branch is filled in.
 */
import { EARTH, Voltages, type Network } from './network.ts';

/** Order of elimination with the neighbours left at each step: the structure of a network, whatever its values. */
export interface Elimination {
  order: Int32Array;
  /** Where the neighbours of each step begin in `neighbours`, and one past the last. */
  starts: Int32Array;
  /** Nodes that are still there and joined to the one that goes. */
  neighbours: Int32Array;
  /** Where each branch is gathered: a place in `neighbours`, or −1 − step for a branch to earth, or none. */
  places: Int32Array;
  /** For each pair of neighbours of a step, where the mesh branch between them is gathered. */
  fill: Int32Array;
}

const NOWHERE = 0x7fffffff;

/** @throws when a branch names a node that is not there */
export function eliminationOf({ nodes, branches, sources }: Network): Elimination {
  const n = nodes.length;
  const ends = [...branches, ...sources];
  const beside = Array.from({ length: n }, () => new Set<number>());
  for (const { from, to } of ends) {
    if (from >= n || to >= n || from < EARTH || to < EARTH)
      throw new Error(`A branch joins nodes ${from} and ${to}; there are ${n}`);
    if (from === to || from === EARTH || to === EARTH) continue;
    beside[from]!.add(to);
    beside[to]!.add(from);
  }
  const order = new Int32Array(n);
  const step = new Int32Array(n).fill(-1);
  const starts = new Int32Array(n + 1);
  const neighbours: number[] = [];
  // Nodes by degree; an entry whose degree has changed since is passed over.
  const byDegree: number[][] = [];
  const enter = (node: number) => (byDegree[beside[node]!.size] ??= []).push(node);
  for (let i = n - 1; i >= 0; i--) enter(i);
  for (let k = 0; k < n; k++) {
    let node = -1;
    for (let degree = 0; node < 0; degree++) {
      const list = byDegree[degree] ?? [];
      while (node < 0 && list.length > 0) {
        const last = list.pop()!;
        if (step[last]! < 0 && beside[last]!.size === degree) node = last;
      }
    }
    order[k] = node;
    step[node] = k;
    starts[k] = neighbours.length;
    const left = [...beside[node]!];
    neighbours.push(...left);
    for (const a of left) beside[a]!.delete(node);
    for (let i = 0; i < left.length; i++) {
      for (let j = i + 1; j < left.length; j++) {
        beside[left[i]!]!.add(left[j]!);
        beside[left[j]!]!.add(left[i]!);
      }
    }
    left.forEach(enter);
  }
  starts[n] = neighbours.length;
  const placeOf = (a: number, b: number): number => {
    if (a === b) return NOWHERE;
    if (a === EARTH || b === EARTH) return -1 - step[a === EARTH ? b : a]!;
    const [first, other] = step[a]! < step[b]! ? [a, b] : [b, a];
    for (let p = starts[step[first]!]!; p < starts[step[first]! + 1]!; p++)
      if (neighbours[p] === other) return p;
    throw new Error(`No place for a branch between nodes ${a} and ${b}`);
  };
  const fill: number[] = [];
  for (let k = 0; k < n; k++)
    for (let i = starts[k]!; i < starts[k + 1]!; i++)
      for (let j = i + 1; j < starts[k + 1]!; j++) fill.push(placeOf(neighbours[i]!, neighbours[j]!));
  return {
    order,
    starts,
    neighbours: Int32Array.from(neighbours),
    places: Int32Array.from(ends, ({ from, to }) => placeOf(from, to)),
    fill: Int32Array.from(fill),
  };
}

/** A factorization that solves for any currents. Complex numbers are kept as real and imaginary parts by turns. */
export class Factors {
  private readonly structure: Elimination;
  private readonly network: Network;
  /** Each neighbour's share of what the node that goes is fed: branch by sum of branches. */
  private readonly shares: Float64Array;
  /** One by the sum of branches, by step. */
  private readonly inverse: Float64Array;

  /**
   * @param hertz of the sources
   * @param structure of this network or one with the same branches, to be used again
   */
  constructor(network: Network, hertz: number, structure: Elimination = eliminationOf(network)) {
    this.network = network;
    this.structure = structure;
    const { order, starts, neighbours, places, fill } = structure;
    const n = order.length;
    const mesh = new Float64Array(2 * neighbours.length);
    const earth = new Float64Array(2 * n);
    const add = (place: number, re: number, im: number): void => {
      if (place === NOWHERE) return;
      const [to, at] = place < 0 ? [earth, 2 * (-1 - place)] : [mesh, 2 * place];
      to[at]! += re;
      to[at + 1]! += im;
    };
    const omega = 2 * Math.PI * hertz;
    let place = 0;
    for (const { conductance, capacitance } of network.branches)
      add(places[place++]!, conductance, omega * capacitance);
    for (const { ohms } of network.sources) add(places[place++]!, 1 / ohms, 0);
    this.shares = new Float64Array(2 * neighbours.length);
    this.inverse = new Float64Array(2 * n);
    let filled = 0;
    const step = new Int32Array(n);
    for (let k = 0; k < n; k++) step[order[k]!] = k;
    for (let k = 0; k < n; k++) {
      let re = earth[2 * k]!;
      let im = earth[2 * k + 1]!;
      for (let p = starts[k]!; p < starts[k + 1]!; p++) {
        re += mesh[2 * p]!;
        im += mesh[2 * p + 1]!;
      }
      const square = re * re + im * im;
      const [pr, pi] = square > 0 ? [re / square, -im / square] : [0, 0];
      this.inverse[2 * k] = pr;
      this.inverse[2 * k + 1] = pi;
      for (let p = starts[k]!; p < starts[k + 1]!; p++) {
        const [br, bi] = [mesh[2 * p]!, mesh[2 * p + 1]!];
        this.shares[2 * p] = br * pr - bi * pi;
        this.shares[2 * p + 1] = br * pi + bi * pr;
      }
      for (let p = starts[k]!; p < starts[k + 1]!; p++) {
        const [sr, si] = [this.shares[2 * p]!, this.shares[2 * p + 1]!];
        const [er, ei] = [earth[2 * k]!, earth[2 * k + 1]!];
        const to = 2 * step[neighbours[p]!]!;
        earth[to]! += sr * er - si * ei;
        earth[to + 1]! += sr * ei + si * er;
        for (let q = p + 1; q < starts[k + 1]!; q++) {
          const [br, bi] = [mesh[2 * q]!, mesh[2 * q + 1]!];
          const at = 2 * fill[filled++]!;
          mesh[at]! += sr * br - si * bi;
          mesh[at + 1]! += sr * bi + si * br;
        }
      }
    }
  }

  /** @param currents fed into each node, amperes, real and imaginary parts by turns; becomes the voltages */
  solve(currents: Float64Array): void {
    const { order, starts, neighbours } = this.structure;
    const { shares, inverse } = this;
    const n = order.length;
    for (let k = 0; k < n; k++) {
      const at = 2 * order[k]!;
      const [re, im] = [currents[at]!, currents[at + 1]!];
      for (let p = starts[k]!; p < starts[k + 1]!; p++) {
        const [sr, si] = [shares[2 * p]!, shares[2 * p + 1]!];
        const to = 2 * neighbours[p]!;
        currents[to]! += sr * re - si * im;
        currents[to + 1]! += sr * im + si * re;
      }
    }
    for (let k = n - 1; k >= 0; k--) {
      const at = 2 * order[k]!;
      const [ir, ii] = [currents[at]!, currents[at + 1]!];
      let re = ir * inverse[2 * k]! - ii * inverse[2 * k + 1]!;
      let im = ir * inverse[2 * k + 1]! + ii * inverse[2 * k]!;
      for (let p = starts[k]!; p < starts[k + 1]!; p++) {
        const [sr, si] = [shares[2 * p]!, shares[2 * p + 1]!];
        const from = 2 * neighbours[p]!;
        re += sr * currents[from]! - si * currents[from + 1]!;
        im += sr * currents[from + 1]! + si * currents[from]!;
      }
      currents[at] = re;
      currents[at + 1] = im;
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
