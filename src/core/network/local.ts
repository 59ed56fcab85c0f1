/**
 * How a network answers along the edges of one small group, the rest of it folded in: what `Responses` gives for a whole
 * network with every column, for a few nodes that are each joined to each.
 */
import type { Mesh } from './fold.ts';
import type { Answers } from './responses.ts';

/** Ends are positions in the group; earth is one past the last. */
export interface LocalBranch {
  from: number;
  to: number;
  conductance: number;
  /** Siemens. */
  susceptance: number;
}
export interface LocalEdge {
  from: number;
  to: number;
  /** Position of the group’s own branch that lies there, or −1. */
  own: number;
}

/** Room for groups of at most so many nodes, used again for each. */
export class LocalSolver {
  private readonly width: number;
  /** Own branches and what is folded in, then each neighbor’s share of the node that goes. */
  private readonly sumRe: Float64Array;
  private readonly sumIm: Float64Array;
  /** One by the sum at each node as it goes. */
  private readonly inverseRe: Float64Array;
  private readonly inverseIm: Float64Array;
  private readonly voltsRe: Float64Array;
  private readonly voltsIm: Float64Array;
  /** Currents into what hangs on each node of the strongest tree, by branches outside the tree. */
  private readonly cutRe: Float64Array;
  private readonly cutIm: Float64Array;
  /** The tree, from earth out. */
  private readonly order: Int32Array;
  private readonly parent: Int32Array;
  private readonly strength: Float64Array;

  /** @param most nodes of a group, earth included */
  constructor(most: number) {
    this.width = most;
    [this.sumRe, this.sumIm] = [new Float64Array(most * most), new Float64Array(most * most)];
    [this.inverseRe, this.inverseIm] = [new Float64Array(most), new Float64Array(most)];
    [this.voltsRe, this.voltsIm] = [new Float64Array(most), new Float64Array(most)];
    [this.cutRe, this.cutIm] = [new Float64Array(most), new Float64Array(most)];
    [this.order, this.parent] = [new Int32Array(most), new Int32Array(most)];
    this.strength = new Float64Array(most);
  }

  /**
   * @param rest what is folded onto the group’s nodes and earth; what are branches of the tree is taken out of it
   * @param own no two of them between the same two nodes
   */
  answers(rest: Mesh, own: readonly LocalBranch[], edges: readonly LocalEdge[]): Answers {
    const n = rest.size - 1;
    this.sum(rest, own);
    this.growTree(n);
    // The end away from earth of each own branch that is of the tree.
    const child = own.map(({ from, to, conductance }) => {
      const away = this.parent[from] === to ? from : this.parent[to] === from ? to : -1;
      return away >= 0 && conductance >= rest.re[from * rest.width + to]! ? away : -1;
    });
    for (let i = 0; i < n; i++) {
      const up = this.parent[i]!;
      if (child.includes(i)) continue;
      for (const at of [i * rest.width + up, up * rest.width + i]) {
        rest.re[at] = 0;
        rest.im[at] = 0;
      }
    }
    own.forEach(({ from, to, conductance, susceptance }, k) => {
      if (child[k]! < 0) rest.join(from, to, conductance, susceptance);
    });
    this.factor(n);

    const count = edges.length;
    const found: Answers = {
      count,
      re: new Float64Array(count * count),
      im: new Float64Array(count * count),
      gapRe: new Float64Array(count),
      gapIm: new Float64Array(count),
    };
    const { voltsRe, voltsIm, cutRe, cutIm } = this;
    for (let l = 0; l < count; l++) {
      const sent = edges[l]!;
      const ofTree = sent.own >= 0 && child[sent.own]! >= 0;
      this.send(n, sent.from, sent.to);
      this.cross(rest, n, ofTree ? null : sent);
      for (let k = 0; k < count; k++) {
        const { from, to, own: branch } = edges[k]!;
        const at = k + count * l;
        const away = branch < 0 ? -1 : child[branch]!;
        if (away >= 0) {
          const sign = away === to ? -1 : 1;
          found.re[at] = sign * cutRe[away]!;
          found.im[at] = sign * cutIm[away]!;
          continue;
        }
        const vr = voltsRe[from]! - voltsRe[to]!;
        const vi = voltsIm[from]! - voltsIm[to]!;
        const g = branch < 0 ? 1 : own[branch]!.conductance;
        const b = branch < 0 ? 0 : own[branch]!.susceptance;
        found.re[at] = vr * g - vi * b;
        found.im[at] = vr * b + vi * g;
      }
      const at = l + count * l;
      if (ofTree) {
        // What crosses its own cut is what did not take the branch.
        found.gapRe[l] = -found.re[at]!;
        found.gapIm[l] = -found.im[at]!;
        found.re[at] = 1 - found.gapRe[l]!;
        found.im[at] = -found.gapIm[l]!;
      } else if (sent.own >= 0) {
        found.gapRe[l] = 1 - found.re[at]!;
        found.gapIm[l] = -found.im[at]!;
      }
    }
    return found;
  }

  private sum(rest: Mesh, own: readonly LocalBranch[]): void {
    const { width, sumRe, sumIm } = this;
    for (let i = 0; i < rest.size; i++)
      for (let j = 0; j < rest.size; j++) {
        sumRe[i * width + j] = rest.re[i * rest.width + j]!;
        sumIm[i * width + j] = rest.im[i * rest.width + j]!;
      }
    for (const { from, to, conductance, susceptance } of own)
      for (const at of [from * width + to, to * width + from]) {
        sumRe[at]! += conductance;
        sumIm[at]! += susceptance;
      }
  }

  /** The spanning tree of greatest conductance (Prim), from earth. */
  private growTree(n: number): void {
    const { width, sumRe, strength, parent, order } = this;
    for (let i = 0; i < n; i++) {
      strength[i] = sumRe[n * width + i]!;
      parent[i] = n;
    }
    parent[n] = -1;
    for (let count = 0; count < n; count++) {
      let next = -1;
      for (let i = 0; i < n; i++)
        if (strength[i]! >= 0 && (next < 0 || strength[i]! > strength[next]!)) next = i;
      order[count] = next;
      strength[next] = -1;
      for (let i = 0; i < n; i++) {
        const g = sumRe[next * width + i]!;
        if (strength[i]! < 0 || g <= strength[i]!) continue;
        strength[i] = g;
        parent[i] = next;
      }
    }
  }

  /** Stars to meshes, node by node, in place. */
  private factor(n: number): void {
    const { width, sumRe, sumIm, inverseRe, inverseIm } = this;
    for (let k = 0; k < n; k++) {
      let re = 0;
      let im = 0;
      for (let j = k + 1; j <= n; j++) {
        re += sumRe[k * width + j]!;
        im += sumIm[k * width + j]!;
      }
      const square = re * re + im * im;
      const pr = square > 0 ? re / square : 0;
      const pi = square > 0 ? -im / square : 0;
      inverseRe[k] = pr;
      inverseIm[k] = pi;
      for (let i = k + 1; i <= n; i++) {
        const br = sumRe[k * width + i]!;
        const bi = sumIm[k * width + i]!;
        const sr = br * pr - bi * pi;
        const si = br * pi + bi * pr;
        for (let j = i + 1; j <= n; j++) {
          const qr = sumRe[k * width + j]!;
          const qi = sumIm[k * width + j]!;
          sumRe[i * width + j]! += sr * qr - si * qi;
          sumIm[i * width + j]! += sr * qi + si * qr;
        }
      }
      for (let i = k + 1; i <= n; i++) {
        const br = sumRe[k * width + i]!;
        const bi = sumIm[k * width + i]!;
        sumRe[k * width + i] = br * pr - bi * pi;
        sumIm[k * width + i] = br * pi + bi * pr;
      }
    }
  }

  /** Volts for an ampere sent from one node to another. */
  private send(n: number, from: number, to: number): void {
    const { width, sumRe, sumIm, inverseRe, inverseIm, voltsRe: vr, voltsIm: vi } = this;
    vr.fill(0, 0, n + 1);
    vi.fill(0, 0, n + 1);
    vr[from]! += 1;
    vr[to]! -= 1;
    for (let k = Math.min(from, to); k < n; k++) {
      const a = vr[k]!;
      const b = vi[k]!;
      for (let j = k + 1; j < n; j++) {
        const sr = sumRe[k * width + j]!;
        const si = sumIm[k * width + j]!;
        vr[j]! += sr * a - si * b;
        vi[j]! += sr * b + si * a;
      }
    }
    vr[n] = 0;
    vi[n] = 0;
    for (let k = n - 1; k >= 0; k--) {
      let a = vr[k]! * inverseRe[k]! - vi[k]! * inverseIm[k]!;
      let b = vr[k]! * inverseIm[k]! + vi[k]! * inverseRe[k]!;
      for (let j = k + 1; j < n; j++) {
        const sr = sumRe[k * width + j]!;
        const si = sumIm[k * width + j]!;
        a += sr * vr[j]! - si * vi[j]!;
        b += sr * vi[j]! + si * vr[j]!;
      }
      vr[k] = a;
      vi[k] = b;
    }
  }

  /** Currents across the cuts of the tree, with what is sent along an edge that is not of it. */
  private cross(rest: Mesh, n: number, sent: LocalEdge | null): void {
    const { voltsRe, voltsIm, cutRe, cutIm, order, parent } = this;
    cutRe.fill(0, 0, n + 1);
    cutIm.fill(0, 0, n + 1);
    if (sent) {
      cutRe[sent.from]! += 1;
      cutRe[sent.to]! -= 1;
    }
    for (let i = 0; i < n; i++) {
      for (let j = i + 1; j <= n; j++) {
        const g = rest.re[i * rest.width + j]!;
        const b = rest.im[i * rest.width + j]!;
        const vr = voltsRe[j]! - voltsRe[i]!;
        const vi = voltsIm[j]! - voltsIm[i]!;
        const cr = g * vr - b * vi;
        const ci = g * vi + b * vr;
        cutRe[i]! += cr;
        cutIm[i]! += ci;
        cutRe[j]! -= cr;
        cutIm[j]! -= ci;
      }
    }
    for (let k = n - 1; k >= 0; k--) {
      const at = order[k]!;
      cutRe[parent[at]!]! += cutRe[at]!;
      cutIm[parent[at]!]! += cutIm[at]!;
    }
  }
}

/** The only edge between two nodes, with a branch there or none. */
export function oneEdge({ re, im, width }: Mesh, own: LocalBranch | null): Answers {
  const ar = re[2]!;
  const ai = im[2]!;
  const br = re[width + 2]!;
  const bi = im[width + 2]!;
  const sr = ar + br;
  const si = ai + bi;
  const square = sr * sr + si * si;
  const pr = ar * br - ai * bi;
  const pi = ar * bi + ai * br;
  // Straight across, and by earth.
  const otherRe = re[1]! + (square > 0 ? (pr * sr + pi * si) / square : 0);
  const otherIm = im[1]! + (square > 0 ? (pi * sr - pr * si) / square : 0);
  const wholeRe = otherRe + (own ? own.conductance : 0);
  const wholeIm = otherIm + (own ? own.susceptance : 0);
  const whole = wholeRe * wholeRe + wholeIm * wholeIm;
  const found: Answers = {
    count: 1,
    re: new Float64Array(1),
    im: new Float64Array(1),
    gapRe: new Float64Array(1),
    gapIm: new Float64Array(1),
  };
  if (own) {
    found.gapRe[0] = (otherRe * wholeRe + otherIm * wholeIm) / whole;
    found.gapIm[0] = (otherIm * wholeRe - otherRe * wholeIm) / whole;
    found.re[0] = 1 - found.gapRe[0];
    found.im[0] = -found.gapIm[0];
  } else {
    found.re[0] = wholeRe / whole;
    found.im[0] = -wholeIm / whole;
  }
  return found;
}
