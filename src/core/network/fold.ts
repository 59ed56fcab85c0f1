/**
 * Folds a network onto a few of its nodes: all else becomes admittances between these and to earth, for many small groups
 * of nodes at once. Two passes over the cliques of the elimination order (Lauritzen and Spiegelhalter, J. Royal
 * Statistical Society B 1988, with stars turned to meshes in place of sums over states): up, each clique takes in what
 * hangs below it; down, what lies beyond it. Admittances are only ever added: what is joined to the rest by some
 * billionths keeps its digits.
 */
import { EARTH, type Network } from './network.ts';
import type { Elimination } from './solve.ts';

/** Nodes that are looked at together, and branches between them that are left out of what is folded. */
export interface Group {
  nodes: readonly number[];
  branches: readonly number[];
}

/** Admittances between a few nodes, each with each; the last stands for earth. */
export class Mesh {
  /** Numbers to a row. */
  readonly width: number;
  readonly re: Float64Array;
  readonly im: Float64Array;
  size = 0;

  constructor(width: number) {
    this.width = width;
    [this.re, this.im] = [new Float64Array(width * width), new Float64Array(width * width)];
  }

  clear(size: number): void {
    this.size = size;
    this.re.fill(0, 0, this.width * size);
    this.im.fill(0, 0, this.width * size);
  }

  join(i: number, j: number, re: number, im: number): void {
    const a = i * this.width + j;
    const b = j * this.width + i;
    this.re[a]! += re;
    this.im[a]! += im;
    this.re[b]! += re;
    this.im[b]! += im;
  }

  /** Turns the star of a node to a mesh between the others; its own row is left as nothing. */
  eliminate(t: number): void {
    const { re, im, size, width } = this;
    const row = t * width;
    let sr = 0;
    let si = 0;
    for (let j = 0; j < size; j++) {
      sr += re[row + j]!;
      si += im[row + j]!;
    }
    const square = sr * sr + si * si;
    if (square === 0) return;
    const pr = sr / square;
    const pi = -si / square;
    for (let i = 0; i < size; i++) {
      const ar = re[row + i]!;
      const ai = im[row + i]!;
      if (ar === 0 && ai === 0) continue;
      re[i * width + t] = 0;
      im[i * width + t] = 0;
      const hr = ar * pr - ai * pi;
      const hi = ar * pi + ai * pr;
      for (let j = i + 1; j < size; j++) {
        const br = re[row + j]!;
        const bi = im[row + j]!;
        const yr = hr * br - hi * bi;
        const yi = hr * bi + hi * br;
        const a = i * width + j;
        const b = j * width + i;
        re[a]! += yr;
        im[a]! += yi;
        re[b]! += yr;
        im[b]! += yi;
      }
    }
    re.fill(0, row, row + size);
    im.fill(0, row, row + size);
  }
}

/** Messages between the cliques of an elimination order. */
export class Fold {
  private readonly network: Network;
  private readonly omega: number;
  private readonly groups: readonly Group[];
  private readonly step: Int32Array;
  private readonly starts: Int32Array;
  /** Neighbors as steps. */
  private readonly beside: Int32Array;
  /** First clique below each, and the next beside it. */
  private readonly firstChild: Int32Array;
  private readonly nextChild: Int32Array;
  /** Where each clique’s message begins. */
  private readonly messageAt: Int32Array;
  /** Branches that have their home in a clique’s star, by neighbor and to earth. */
  private readonly star: Float64Array;
  private readonly earth: Float64Array;
  /** Groups whose branches have their home in a clique. */
  private readonly homes: readonly (readonly number[])[];
  private readonly homeOf: Int32Array;
  private readonly up: Float64Array;
  private readonly down: Float64Array;
  private readonly mesh: Mesh;
  /** Where steps stand in the clique that is in the mesh. */
  private readonly local: Int32Array;
  private readonly spots: Int32Array;
  private readonly stays: Uint8Array;

  /** @param structure in which the nodes of each group are together; no branch is in two groups */
  constructor(network: Network, hertz: number, groups: readonly Group[], structure: Elimination) {
    const { nodes, branches, sources } = network;
    const { step, starts, neighbors, places } = structure;
    const n = nodes.length;
    this.network = network;
    this.omega = 2 * Math.PI * hertz;
    this.groups = groups;
    this.starts = starts;
    this.step = step;
    const beside = Int32Array.from(neighbors, (node) => step[node]!);
    this.beside = beside;
    this.firstChild = new Int32Array(n).fill(-1);
    this.nextChild = new Int32Array(n).fill(-1);
    this.messageAt = new Int32Array(n + 1);
    let most = 0;
    for (let k = 0; k < n; k++) {
      const d = starts[k + 1]! - starts[k]!;
      this.messageAt[k + 1] = this.messageAt[k]! + d * (d + 1);
      most = Math.max(most, d + 2);
      let parent = n;
      for (let p = starts[k]!; p < starts[k + 1]!; p++) parent = Math.min(parent, beside[p]!);
      if (parent === n) continue;
      this.nextChild[k] = this.firstChild[parent]!;
      this.firstChild[parent] = k;
    }
    // Every branch has its home in one clique that holds both of its ends; one of a group in the group’s.
    this.star = new Float64Array(2 * beside.length);
    this.earth = new Float64Array(2 * n);
    const homes: number[][] = Array.from({ length: n }, () => []);
    const apart = new Uint8Array(branches.length);
    this.homeOf = Int32Array.from(groups, ({ nodes: members, branches: own }, at) => {
      let home = n;
      for (const node of members) home = Math.min(home, step[node]!);
      for (const branch of own) apart[branch] = 1;
      if (own.length > 0) homes[home]!.push(at);
      return home;
    });
    this.homes = homes;
    const gather = (place: number, re: number, im: number): void => {
      if (place >= beside.length) return;
      const to = place < 0 ? this.earth : this.star;
      const at = 2 * (place < 0 ? -1 - place : place);
      to[at]! += re;
      to[at + 1]! += im;
    };
    for (let k = 0; k < branches.length; k++)
      if (!apart[k]) gather(places[k]!, branches[k]!.conductance, this.omega * branches[k]!.capacitance);
    sources.forEach(({ ohms }, k) => gather(places[branches.length + k]!, 1 / ohms, 0));

    this.mesh = new Mesh(most);
    this.local = new Int32Array(n);
    this.spots = new Int32Array(most);
    this.stays = new Uint8Array(most);
    [this.up, this.down] = [new Float64Array(this.messageAt[n]!), new Float64Array(this.messageAt[n]!)];
    for (let k = 0; k < n; k++) {
      this.fill(k, -1, -1);
      this.mesh.eliminate(0);
      this.give(this.up, k);
    }
    for (let k = n - 1; k >= 0; k--) {
      for (let child = this.firstChild[k]!; child >= 0; child = this.nextChild[child]!) {
        this.fill(k, child, -1);
        this.take(this.down, k);
        this.stays.fill(0);
        for (let p = starts[child]!; p < starts[child + 1]!; p++) this.stays[this.local[beside[p]!]!] = 1;
        this.eliminateRest();
        this.give(this.down, child);
      }
    }
  }

  /**
   * Puts a group’s nodes into a mesh, in their order and earth after them, without the group’s own branches.
   * @param into wide enough
   */
  onto(group: number, into: Mesh): void {
    const { nodes } = this.groups[group]!;
    const { mesh, local, step, stays } = this;
    const k = this.homeOf[group]!;
    this.fill(k, -1, group);
    this.take(this.down, k);
    stays.fill(0);
    for (const node of nodes) stays[local[step[node]!]!] = 1;
    this.eliminateRest();
    const earthAt = mesh.size - 1;
    into.clear(nodes.length + 1);
    for (let a = 0; a < nodes.length; a++) {
      const row = local[step[nodes[a]!]!]! * mesh.width;
      for (let b = a + 1; b <= nodes.length; b++) {
        const at = row + (b < nodes.length ? local[step[nodes[b]!]!]! : earthAt);
        into.join(a, b, mesh.re[at]!, mesh.im[at]!);
      }
    }
  }

  /** Puts a clique into the mesh with what hangs below it, but one child and one group’s own branches. */
  private fill(k: number, child: number, group: number): void {
    const { starts, beside, star, earth, local, mesh, step } = this;
    const first = starts[k]!;
    const earthAt = starts[k + 1]! - first + 1;
    mesh.clear(earthAt + 1);
    local[k] = 0;
    for (let p = first, at = 1; at < earthAt; p++, at++) {
      local[beside[p]!] = at;
      mesh.join(0, at, star[2 * p]!, star[2 * p + 1]!);
    }
    mesh.join(0, earthAt, earth[2 * k]!, earth[2 * k + 1]!);
    for (const home of this.homes[k]!) {
      if (home === group) continue;
      for (const branch of this.groups[home]!.branches) {
        const { from, to, conductance, capacitance } = this.network.branches[branch]!;
        const a = from === EARTH ? earthAt : local[step[from]!]!;
        const b = to === EARTH ? earthAt : local[step[to]!]!;
        mesh.join(a, b, conductance, this.omega * capacitance);
      }
    }
    for (let c = this.firstChild[k]!; c >= 0; c = this.nextChild[c]!) if (c !== child) this.take(this.up, c);
  }

  /** Where a clique’s neighbors and earth stand in the mesh. */
  private locate(k: number): number {
    const { starts, beside, local, spots, mesh } = this;
    let count = 0;
    for (let p = starts[k]!; p < starts[k + 1]!; p++) spots[count++] = local[beside[p]!]!;
    spots[count++] = mesh.size - 1;
    return count;
  }

  private take(messages: Float64Array, k: number): void {
    const { spots, mesh } = this;
    const count = this.locate(k);
    let at = this.messageAt[k]!;
    for (let i = 0; i < count; i++)
      for (let j = i + 1; j < count; j++, at += 2)
        mesh.join(spots[i]!, spots[j]!, messages[at]!, messages[at + 1]!);
  }

  private give(messages: Float64Array, k: number): void {
    const { spots, mesh } = this;
    const count = this.locate(k);
    let at = this.messageAt[k]!;
    for (let i = 0; i < count; i++) {
      const row = spots[i]! * mesh.width;
      for (let j = i + 1; j < count; j++, at += 2) {
        messages[at] = mesh.re[row + spots[j]!]!;
        messages[at + 1] = mesh.im[row + spots[j]!]!;
      }
    }
  }

  private eliminateRest(): void {
    for (let i = 0; i < this.mesh.size - 1; i++) if (!this.stays[i]) this.mesh.eliminate(i);
  }
}
