/** Faults as changes of few branches, and what a change sends along its edges. */
import type { Edit } from './faults.ts';
import type { Answers, Edge, Responses } from './responses.ts';
import type { Wiring } from './wiring.ts';

/**
 * A fault as a change of few branches: with the weights W, what is sent along its edges is K·a for the answers a there,
 * K = (I + W·A)⁻¹·W, where A are the edges’ answers to each other. It stands for W that has no inverse.
 */
export interface Change {
  rank: number;
  /** Positions in the table of responses. */
  edges: readonly number[];
  /** The same edges’ positions where their answers to each other stand. */
  own: readonly number[];
  /** Square, row by row. */
  weights: readonly number[];
  /** Share of its conductance that the branch of an edge keeps, where the edge is such a branch; else not a number. */
  kept: readonly number[];
  /** Whether the edge is a branch that the change alters. */
  alters: readonly boolean[];
  /** What turns an edge’s answer into volts: one by its branch’s conductance, or one. */
  scale: readonly number[];
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
  edges: [],
  own: [],
  weights: [],
  kept: [],
  alters: [],
  scale: [],
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
  let rank = 0;
  for (const { kind } of edits) rank += kind === 'exchange' ? 3 : kind === 'blind' ? 0 : 1;
  const edges: number[] = [];
  const weights = new Array<number>(rank * rank).fill(0);
  const kept: number[] = [];
  const alters: boolean[] = [];
  const scale: number[] = [];
  const alter = (branch: number, keeps: number): number => {
    const { from, to, conductance } = branches[branch]!;
    kept.push(keeps);
    alters.push(true);
    scale.push(1 / conductance);
    return edges.push(place({ from, to, branch })) - 1;
  };
  const between = (from: number, to: number): number => {
    kept.push(Number.NaN);
    alters.push(false);
    scale.push(1);
    return edges.push(place({ from, to, branch: null })) - 1;
  };
  for (const edit of edits) {
    if (edit.kind === 'conduct') {
      const keeps = edit.conductance / branches[edit.branch]!.conductance;
      const k = alter(edit.branch, keeps);
      weights[k * rank + k] = keeps - 1;
    } else if (edit.kind === 'add') {
      const k = between(edit.from, edit.to);
      weights[k * rank + k] = edit.conductance;
    } else if (edit.kind === 'exchange') {
      // Rank 3: the new branches lie along the old ones and the edge between their far ends.
      const ga = branches[edit.a]!.conductance;
      const gb = branches[edit.b]!.conductance;
      const a = alter(edit.a, Number.NaN);
      const b = alter(edit.b, Number.NaN);
      const c = between(branches[edit.a]!.to, branches[edit.b]!.to);
      weights[a * rank + c] = ga;
      weights[b * rank + c] = -gb;
      weights[c * rank + a] = 1;
      weights[c * rank + b] = -1;
      weights[c * rank + c] = ga + gb;
    }
  }
  return { rank, edges, own: edges, weights, kept, alters, scale };
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
   * @param between the edges’ answers to each other, and to those of the change before
   * @param before the change that is in the network already, and its kernel
   * @returns the least share of its size that a pivot has kept
   */
  of(
    { sourceRe, sourceIm }: Responses,
    between: Answers,
    change: Change,
    before: Change,
    kernel: Kernel,
  ): number {
    const { cross, answers, sent, k } = this;
    const { re, im, count } = between;
    const { rank, edges, own } = change;
    const given = before.rank;
    for (let i = 0; i < rank; i++) {
      let sr = sourceRe[edges[i]!]!;
      let si = sourceIm[edges[i]!]!;
      for (let j = 0; j < given; j++) {
        const at = count * before.own[j]! + own[i]!;
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
        ? this.one(between, change, before, kernel)
        : this.many(between, change, before, kernel);
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
  private one(between: Answers, change: Change, before: Change, kernel: Kernel): number {
    const { re, im, count, gapRe, gapIm } = between;
    const e = change.own[0]!;
    const weight = change.weights[0]!;
    const keeps = change.kept[0]!;
    const own = count * e + e;
    const alters = keeps === keeps;
    let mr = alters ? keeps - weight * gapRe[e]! : 1 + weight * re[own]!;
    let mi = weight * (alters ? -gapIm[e]! : im[own]!);
    const size = Math.abs(mr) + Math.abs(mi);
    if (before.rank === 1) {
      const back = count * e + before.own[0]!;
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
  private many(between: Answers, change: Change, before: Change, kernel: Kernel): number {
    const { m, k, a, cross } = this;
    const { re, im, count, gapRe, gapIm } = between;
    const { rank: n, own, weights, kept } = change;
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
          const at = count * own[j]! + before.own[v]!;
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
        const column = count * own[j]!;
        const gap = i === j && kept[i]! === kept[i]!;
        // Also where the branch stays as it is: the breaker of a dead circuit is not opened again.
        let sr = gap ? kept[i]! : 0;
        let si = 0;
        for (let h = 0; h < n; h++) {
          const weight = weights[i * n + h]!;
          if (weight === 0) continue;
          sr += weight * a.re[h * n + j]!;
          si += weight * a.im[h * n + j]!;
          if (gap && h === i) {
            sr -= weight * gapRe[own[i]!]!;
            si -= weight * gapIm[own[i]!]!;
          } else {
            sr += weight * re[column + own[h]!]!;
            si += weight * im[column + own[h]!]!;
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
