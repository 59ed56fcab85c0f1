/** Faults as changes of few branches, and what a change sends along its edges. */
import type { Edit } from './faults.ts';
import type { Edge, Responses } from './responses.ts';
import type { Wiring } from './wiring.ts';

/**
 * A fault as a change of few branches: with the weights W, what is sent along its edges is K·a for the answers a there,
 * K = (I + W·A)⁻¹·W, where A are the edges’ answers to each other. It stands for W that has no inverse.
 */
export interface Change {
  rank: number;
  /** Positions in the table of answers. */
  edges: Int32Array;
  /** Square, row by row. */
  weights: Float64Array;
  /** Share of its conductance that the branch of an edge keeps, where the edge is such a branch; else not a number. */
  kept: Float64Array;
  /** One where the edge is a branch that the change alters. */
  alters: Uint8Array;
  /** What turns an edge’s answer into volts: one by its branch’s conductance, or one. */
  scale: Float64Array;
}

export interface Complexes {
  re: Float64Array;
  im: Float64Array;
}
export const complexes = (length: number): Complexes => ({
  re: new Float64Array(length),
  im: new Float64Array(length),
});

export const NOTHING: Change = {
  rank: 0,
  edges: new Int32Array(0),
  weights: new Float64Array(0),
  kept: new Float64Array(0),
  alters: new Uint8Array(0),
  scale: new Float64Array(0),
};

/** Whether two changes alter one branch. */
export function sharesBranch(one: Change, other: Change): boolean {
  for (let i = 0; i < one.rank; i++) {
    if (!one.alters[i]) continue;
    for (let j = 0; j < other.rank; j++) if (one.edges[i] === other.edges[j]) return true;
  }
  return false;
}

/**
 * A fault’s steps as a change.
 * @param place gives an edge its position in the table of answers
 */
export function changeOf(
  { branches }: Wiring,
  edits: readonly Edit[],
  place: (edge: Edge) => number,
): Change {
  const edges: number[] = [];
  const kept: number[] = [];
  const alters: number[] = [];
  const scale: number[] = [];
  const weights: [i: number, j: number, weight: number][] = [];
  const alter = (branch: number, keeps: number): number => {
    const { from, to, conductance } = branches[branch]!;
    kept.push(keeps);
    alters.push(1);
    scale.push(1 / conductance);
    return edges.push(place({ from, to, branch })) - 1;
  };
  const between = (from: number, to: number): number => {
    kept.push(Number.NaN);
    alters.push(0);
    scale.push(1);
    return edges.push(place({ from, to, branch: null })) - 1;
  };
  for (const edit of edits) {
    if (edit.kind === 'conduct') {
      const keeps = edit.conductance / branches[edit.branch]!.conductance;
      const k = alter(edit.branch, keeps);
      weights.push([k, k, keeps - 1]);
    } else if (edit.kind === 'add') {
      const k = between(edit.from, edit.to);
      weights.push([k, k, edit.conductance]);
    } else {
      // Rank 3: the new branches lie along the old ones and the edge between their far ends.
      const [ga, gb] = [branches[edit.a]!.conductance, branches[edit.b]!.conductance];
      const a = alter(edit.a, Number.NaN);
      const b = alter(edit.b, Number.NaN);
      const c = between(branches[edit.a]!.to, branches[edit.b]!.to);
      weights.push([a, c, ga], [b, c, -gb], [c, a, 1], [c, b, -1], [c, c, ga + gb]);
    }
  }
  const rank = edges.length;
  const matrix = new Float64Array(rank * rank);
  for (const [i, j, weight] of weights) matrix[i * rank + j] = weight;
  return {
    rank,
    edges: Int32Array.from(edges),
    weights: matrix,
    kept: Float64Array.from(kept),
    alters: Uint8Array.from(alters),
    scale: Float64Array.from(scale),
  };
}

/** What a change sends along its edges. */
export class Kernel {
  /** In amperes for the answers at the edges; square, row by row. */
  readonly k: Complexes;
  /** Under the network’s own sources. */
  readonly sent: Complexes;
  /** Answers of the edges to amperes along those of the change that is there before. */
  readonly cross: Complexes;
  /** Room for the answers of the edges to one probe. */
  readonly answers: Complexes;
  private readonly m: Complexes;
  private readonly a: Complexes;

  constructor(rank: number) {
    const square = () => complexes(rank * rank);
    [this.k, this.cross, this.m, this.a] = [square(), square(), square(), square()];
    [this.sent, this.answers] = [complexes(rank), complexes(rank)];
  }

  /**
   * @param before the change that is in the network already, and its kernel
   * @returns the least share of its size that a pivot has kept
   */
  of(responses: Responses, change: Change, before: Change, kernel: Kernel): number {
    const { cross, answers, sent, k } = this;
    const { re, im, count, sourceRe, sourceIm } = responses;
    const { rank, edges } = change;
    const given = before.rank;
    for (let i = 0; i < rank; i++) {
      let sr = sourceRe[edges[i]!]!;
      let si = sourceIm[edges[i]!]!;
      for (let j = 0; j < given; j++) {
        const at = count * before.edges[j]! + edges[i]!;
        const tr = re[at]!;
        const ti = im[at]!;
        cross.re[i * given + j] = tr;
        cross.im[i * given + j] = ti;
        sr -= tr * kernel.sent.re[j]! - ti * kernel.sent.im[j]!;
        si -= tr * kernel.sent.im[j]! + ti * kernel.sent.re[j]!;
      }
      answers.re[i] = sr;
      answers.im[i] = si;
    }
    const left =
      rank === 1 && given <= 1
        ? this.one(responses, change, before, kernel)
        : this.many(responses, change, before, kernel);
    for (let i = 0; i < rank; i++) {
      let sr = 0;
      let si = 0;
      for (let j = 0; j < rank; j++) {
        const kr = k.re[i * rank + j]!;
        const ki = k.im[i * rank + j]!;
        sr += kr * answers.re[j]! - ki * answers.im[j]!;
        si += kr * answers.im[j]! + ki * answers.re[j]!;
      }
      sent.re[i] = sr;
      sent.im[i] = si;
    }
    return left;
  }

  /** A change of one branch, after none or one such. */
  private one(responses: Responses, change: Change, before: Change, kernel: Kernel): number {
    const { re, im, count, gapRe, gapIm } = responses;
    const e = change.edges[0]!;
    const weight = change.weights[0]!;
    const keeps = change.kept[0]!;
    const own = count * e + e;
    const alters = keeps === keeps;
    let mr = alters ? keeps - weight * gapRe[e]! : 1 + weight * re[own]!;
    let mi = weight * (alters ? -gapIm[e]! : im[own]!);
    const size = Math.abs(mr) + Math.abs(mi);
    if (before.rank === 1) {
      const back = count * e + before.edges[0]!;
      const kr = kernel.k.re[0]!;
      const ki = kernel.k.im[0]!;
      const tr = this.cross.re[0]!;
      const ti = this.cross.im[0]!;
      const sr = kr * re[back]! - ki * im[back]!;
      const si = kr * im[back]! + ki * re[back]!;
      mr -= weight * (tr * sr - ti * si);
      mi -= weight * (tr * si + ti * sr);
    }
    const square = mr * mr + mi * mi;
    this.k.re[0] = (weight * mr) / square;
    this.k.im[0] = (-weight * mi) / square;
    return (Math.abs(mr) + Math.abs(mi)) / size;
  }

  /** Any change after any, by Gauss’s elimination with the largest pivot of each column. */
  private many(responses: Responses, change: Change, before: Change, kernel: Kernel): number {
    const { m, k, a, cross } = this;
    const { re, im, count, gapRe, gapIm } = responses;
    const { rank: n, edges, weights, kept } = change;
    const given = before.rank;
    // What the change before takes from the edges’ answers to each other.
    for (let j = 0; j < n; j++) {
      for (let i = 0; i < n; i++) {
        a.re[i * n + j] = 0;
        a.im[i * n + j] = 0;
      }
      for (let u = 0; u < given; u++) {
        let sr = 0;
        let si = 0;
        for (let v = 0; v < given; v++) {
          const at = count * edges[j]! + before.edges[v]!;
          const kr = kernel.k.re[u * given + v]!;
          const ki = kernel.k.im[u * given + v]!;
          sr += kr * re[at]! - ki * im[at]!;
          si += kr * im[at]! + ki * re[at]!;
        }
        for (let i = 0; i < n; i++) {
          const tr = cross.re[i * given + u]!;
          const ti = cross.im[i * given + u]!;
          a.re[i * n + j]! -= tr * sr - ti * si;
          a.im[i * n + j]! -= tr * si + ti * sr;
        }
      }
    }
    for (let i = 0; i < n; i++) {
      for (let j = 0; j < n; j++) {
        let sr = 0;
        let si = 0;
        const column = count * edges[j]!;
        const gap = i === j && kept[i]! === kept[i]!;
        for (let h = 0; h < n; h++) {
          const weight = weights[i * n + h]!;
          if (weight === 0) continue;
          sr += weight * a.re[h * n + j]!;
          si += weight * a.im[h * n + j]!;
          if (gap && h === i) {
            sr += kept[i]! - weight * gapRe[edges[i]!]!;
            si -= weight * gapIm[edges[i]!]!;
          } else {
            sr += weight * re[column + edges[h]!]!;
            si += weight * im[column + edges[h]!]!;
          }
        }
        m.re[i * n + j] = i === j && !gap ? 1 + sr : sr;
        m.im[i * n + j] = si;
        k.re[i * n + j] = weights[i * n + j]!;
        k.im[i * n + j] = 0;
      }
    }
    return solveInPlace(m, k, n);
  }
}

/**
 * Solves M·X = B for small dense complex matrices; M is used up and B becomes X.
 * @returns the least share of its size that a pivot has kept
 */
function solveInPlace(m: Complexes, b: Complexes, n: number): number {
  let left = 1;
  const size = (at: number) => Math.abs(m.re[at]!) + Math.abs(m.im[at]!);
  for (let c = 0; c < n; c++) {
    let pivot = c;
    for (let i = c + 1; i < n; i++) if (size(i * n + c) > size(pivot * n + c)) pivot = i;
    if (pivot !== c)
      for (const list of [m.re, m.im, b.re, b.im])
        for (let j = 0; j < n; j++) {
          const kept = list[c * n + j]!;
          list[c * n + j] = list[pivot * n + j]!;
          list[pivot * n + j] = kept;
        }
    const pr = m.re[c * n + c]!;
    const pi = m.im[c * n + c]!;
    const square = pr * pr + pi * pi;
    for (let j = c; j < 2 * n; j++) {
      const of = j < n ? m : b;
      const at = c * n + (j < n ? j : j - n);
      const hr = of.re[at]!;
      const hi = of.im[at]!;
      of.re[at] = (hr * pr + hi * pi) / square;
      of.im[at] = (hi * pr - hr * pi) / square;
    }
    for (let i = 0; i < n; i++) {
      const fr = m.re[i * n + c]!;
      const fi = m.im[i * n + c]!;
      if (i === c || (fr === 0 && fi === 0)) continue;
      for (let j = c + 1; j < 2 * n; j++) {
        const of = j < n ? m : b;
        const at = i * n + (j < n ? j : j - n);
        const from = c * n + (j < n ? j : j - n);
        const was = j === i ? size(at) : 0;
        of.re[at]! -= fr * of.re[from]! - fi * of.im[from]!;
        of.im[at]! -= fr * of.im[from]! + fi * of.re[from]!;
        if (was > 0) left = Math.min(left, size(at) / was);
      }
    }
  }
  return left;
}
