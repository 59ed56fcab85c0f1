/**
 * How a network answers along chosen edges: the voltage or current there for an ampere sent along any of them, and under
 * its own sources. From these every change of a few branches follows without a new factorization (Sherman, Morrison and
 * Woodbury; Hager, SIAM Review 1989).
 *
 * A broken conductor divides by the share of an ampere that does not take the branch it broke, some billionths, which
 * 1 − g·z cannot give. Currents in branches of the network's strongest tree are therefore summed from what crosses the
 * cut that the branch alone bridges: loads, strays and leaks of its far side.
 */
import { EARTH, type Network } from './network.ts';
import { Factors } from './solve.ts';

export interface Edge {
  from: number;
  to: number;
  /** The branch that lies there: currents are given, from `from` to `to`. Null between any two nodes: volts are. */
  branch: number | null;
}

/** How edges answer to an ampere along each other. */
export interface Answers {
  /** Edges that answer. */
  readonly count: number;
  /** Answer of edge k to an ampere along edge l, at `k + count · l`. */
  readonly re: Float64Array;
  readonly im: Float64Array;
  /** Share of an ampere along edge k that goes other ways than through its branch; nothing where there is none. */
  readonly gapRe: Float64Array;
  readonly gapIm: Float64Array;
}

export class Responses implements Answers {
  readonly count: number;
  readonly re: Float64Array;
  readonly im: Float64Array;
  readonly gapRe: Float64Array;
  readonly gapIm: Float64Array;
  /** Answer of each edge to the network's own sources. */
  readonly sourceRe: Float64Array;
  readonly sourceIm: Float64Array;

  /**
   * @param columns answers to an ampere along so many of the first edges are wanted
   */
  constructor(
    network: Network,
    hertz: number,
    edges: readonly Edge[],
    columns = edges.length,
    factors = new Factors(network, hertz),
  ) {
    const L = edges.length;
    this.count = L;
    [this.re, this.im] = [new Float64Array(L * columns), new Float64Array(L * columns)];
    [this.gapRe, this.gapIm] = [new Float64Array(L), new Float64Array(L)];
    [this.sourceRe, this.sourceIm] = [new Float64Array(L), new Float64Array(L)];
    const tree = strongestTree(network);
    const cut = new Cut(network, hertz, tree, factors.step);
    const n = network.nodes.length;
    const { branches } = network;
    const omega = 2 * Math.PI * hertz;
    // Nodes go by their step of elimination from here on.
    const stepOf = (node: number) => (node === EARTH ? EARTH : factors.step[node]!);
    const [child, froms, tos] = [new Int32Array(L), new Int32Array(L), new Int32Array(L)];
    const sign = new Float64Array(L);
    // What turns the volts across an edge that is no branch of the tree into its answer.
    const [weightRe, weightIm] = [new Float64Array(L), new Float64Array(L)];
    for (let k = 0; k < L; k++) {
      const { from, to, branch } = edges[k]!;
      const away = branch === null ? EARTH : tree.childOf[branch]!;
      child[k] = stepOf(away);
      sign[k] = away === to ? -1 : 1;
      froms[k] = stepOf(from);
      tos[k] = stepOf(to);
      weightRe[k] = branch === null ? 1 : branches[branch]!.conductance;
      weightIm[k] = branch === null ? 0 : omega * branches[branch]!.capacitance;
    }
    const [zr, zi] = [new Float64Array(4 * n), new Float64Array(4 * n)];
    const pairs = new Int32Array(8);

    /** Answer of an edge to column `r` of the four, whose currents across the cuts are in `cut`. */
    const { re: cutRe, im: cutIm } = cut;
    const readOne = (
      k: number,
      r: number,
      into: { re: Float64Array; im: Float64Array },
      at: number,
    ): void => {
      const c = child[k]!;
      if (c >= 0) {
        into.re[at] = sign[k]! * cutRe[4 * c + r]!;
        into.im[at] = sign[k]! * cutIm[4 * c + r]!;
        return;
      }
      const a = froms[k]!;
      const b = tos[k]!;
      const vr = (a < 0 ? 0 : zr[4 * a + r]!) - (b < 0 ? 0 : zr[4 * b + r]!);
      const vi = (a < 0 ? 0 : zi[4 * a + r]!) - (b < 0 ? 0 : zi[4 * b + r]!);
      into.re[at] = vr * weightRe[k]! - vi * weightIm[k]!;
      into.im[at] = vr * weightIm[k]! + vi * weightRe[k]!;
    };

    for (let l = 0; l < columns; l += 4) {
      const here = Math.min(4, columns - l);
      pairs.fill(EARTH);
      for (let r = 0; r < here; r++) {
        pairs[2 * r] = edges[l + r]!.from;
        pairs[2 * r + 1] = edges[l + r]!.to;
      }
      factors.units(pairs, zr, zi);
      cut.gather(zr, zi);
      // An ampere along a branch of the tree enters and leaves on the same side of every other cut.
      for (let r = 0; r < here; r++) if (child[l + r]! < 0) cut.inject(froms[l + r]!, tos[l + r]!, r);
      cut.sum();
      for (let k = 0; k < L; k++) for (let r = 0; r < here; r++) readOne(k, r, this, L * (l + r) + k);
      for (let r = 0; r < here; r++) {
        const k = l + r;
        if (edges[k]!.branch === null) continue;
        const at = L * k + k;
        if (child[k]! >= 0) {
          // What crosses its own cut is what did not take the branch.
          this.gapRe[k] = -this.re[at]!;
          this.gapIm[k] = -this.im[at]!;
          this.re[at] = 1 - this.gapRe[k]!;
          this.im[at] = -this.gapIm[k]!;
        } else {
          this.gapRe[k] = 1 - this.re[at]!;
          this.gapIm[k] = -this.im[at]!;
        }
      }
    }

    const voltages = factors.voltages();
    for (let i = 0; i < n; i++) {
      const { re, im } = voltages.at(i);
      zr[4 * factors.step[i]!] = re;
      zi[4 * factors.step[i]!] = im;
    }
    cut.gather(zr, zi);
    cut.sum();
    const sources = { re: this.sourceRe, im: this.sourceIm };
    for (let k = 0; k < L; k++) readOne(k, 0, sources, k);
  }
}

interface Tree {
  /** Nodes from the root out, and the node each hangs on. */
  order: Int32Array;
  parent: Int32Array;
  /** By branch: the end away from the root when it is of the tree, or −1. */
  childOf: Int32Array;
}

/** The spanning tree of greatest conductance (Kruskal), rooted at earth. Sources are always of it. */
function strongestTree({ nodes, branches, sources }: Network): Tree {
  const n = nodes.length;
  const leader = Int32Array.from({ length: n + 1 }, (_, i) => i);
  const find = (i: number): number => {
    while (leader[i] !== i) i = leader[i] = leader[leader[i]!]!;
    return i;
  };
  const beside: { to: number; branch: number }[][] = Array.from({ length: n + 1 }, () => []);
  const byStrength = branches
    .map((_, branch) => branch)
    .filter((branch) => branches[branch]!.conductance > 0)
    .sort((a, b) => branches[b]!.conductance - branches[a]!.conductance);
  const take = (from: number, to: number, branch: number): void => {
    const [a, b] = [from === EARTH ? n : from, to === EARTH ? n : to];
    const [x, y] = [find(a), find(b)];
    if (x === y) return;
    leader[x] = y;
    beside[a]!.push({ to: b, branch });
    beside[b]!.push({ to: a, branch });
  };
  sources.forEach(({ from, to }) => take(from, to, -1));
  for (const branch of byStrength) take(branches[branch]!.from, branches[branch]!.to, branch);
  const parent = new Int32Array(n).fill(-1);
  const childOf = new Int32Array(branches.length).fill(-1);
  const order: number[] = [];
  const seen = new Uint8Array(n + 1);
  const pending = [n];
  seen[n] = 1;
  for (let at = pending.pop(); at !== undefined; at = pending.pop()) {
    if (at < n) order.push(at);
    for (const { to, branch } of beside[at]!) {
      if (seen[to]) continue;
      seen[to] = 1;
      parent[to] = at === n ? EARTH : at;
      if (branch >= 0) childOf[branch] = to;
      pending.push(to);
    }
  }
  if (order.length < n) throw new Error('A part of the network is joined to nothing');
  return { order: Int32Array.from(order), parent, childOf };
}

/** Currents into what hangs on each node of the tree, by branches outside the tree; four columns at once. */
class Cut {
  /** Into the subtree of each node, by its step; four to each. */
  readonly re: Float64Array;
  readonly im: Float64Array;
  /** From the root out, four times each step, and that of the node it hangs on. */
  private readonly order: Int32Array;
  private readonly parent: Int32Array;
  private readonly from: Int32Array;
  private readonly to: Int32Array;
  private readonly admitRe: Float64Array;
  private readonly admitIm: Float64Array;
  private readonly earthRe: Float64Array;
  private readonly earthIm: Float64Array;

  constructor({ nodes, branches }: Network, hertz: number, tree: Tree, step: Int32Array) {
    const n = nodes.length;
    const omega = 2 * Math.PI * hertz;
    const at = (node: number) => (node === EARTH ? EARTH : 4 * step[node]!);
    this.order = Int32Array.from(tree.order, at);
    this.parent = Int32Array.from(tree.order, (node) => at(tree.parent[node]!));
    [this.re, this.im] = [new Float64Array(4 * n), new Float64Array(4 * n)];
    [this.earthRe, this.earthIm] = [new Float64Array(4 * n), new Float64Array(4 * n)];
    const loops: number[] = [];
    branches.forEach(({ from, to, conductance, capacitance }, branch) => {
      if (tree.childOf[branch]! >= 0 || from === to) return;
      if (from !== EARTH && to !== EARTH) {
        loops.push(branch);
        return;
      }
      const node = at(from === EARTH ? to : from);
      for (let r = 0; r < 4; r++) {
        this.earthRe[node + r]! += conductance;
        this.earthIm[node + r]! += omega * capacitance;
      }
    });
    this.from = Int32Array.from(loops, (branch) => at(branches[branch]!.from));
    this.to = Int32Array.from(loops, (branch) => at(branches[branch]!.to));
    this.admitRe = Float64Array.from(loops, (branch) => branches[branch]!.conductance);
    this.admitIm = Float64Array.from(loops, (branch) => omega * branches[branch]!.capacitance);
  }

  /** Currents into each node for its voltages. */
  gather(zr: Float64Array, zi: Float64Array): void {
    const { re, im, from, to, admitRe, admitIm, earthRe, earthIm } = this;
    for (let at = 0; at < re.length; at++) {
      const g = earthRe[at]!;
      const b = earthIm[at]!;
      re[at] = b * zi[at]! - g * zr[at]!;
      im[at] = -b * zr[at]! - g * zi[at]!;
    }
    for (let j = 0; j < from.length; j++) {
      const g = admitRe[j]!;
      const b = admitIm[j]!;
      const s = from[j]!;
      const t = to[j]!;
      for (let r = 0; r < 4; r++) {
        const vr = zr[t + r]! - zr[s + r]!;
        const vi = zi[t + r]! - zi[s + r]!;
        const cr = g * vr - b * vi;
        const ci = g * vi + b * vr;
        re[s + r]! += cr;
        im[s + r]! += ci;
        re[t + r]! -= cr;
        im[t + r]! -= ci;
      }
    }
  }

  /** An ampere sent from one node to another in one of the four columns. */
  inject(from: number, to: number, column: number): void {
    if (from !== EARTH) this.re[4 * from + column]! += 1;
    if (to !== EARTH) this.re[4 * to + column]! -= 1;
  }

  /** From the leaves to the root. */
  sum(): void {
    const { re, im, order, parent } = this;
    for (let k = order.length - 1; k >= 0; k--) {
      const at = order[k]!;
      const to = parent[k]!;
      if (to < 0) continue;
      for (let r = 0; r < 4; r++) {
        re[to + r]! += re[at + r]!;
        im[to + r]! += im[at + r]!;
      }
    }
  }
}
