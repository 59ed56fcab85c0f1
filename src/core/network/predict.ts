/**
 * What meters would read under each of many faults and under every two of them, from one factorization: faults change a
 * few branches, and how the network answers along those is known.
 */
import { editsOf, type Edit, type Fault } from './faults.ts';
import { Responses, type Edge } from './responses.ts';
import type { Factors } from './solve.ts';
import type { Wiring } from './wiring.ts';

/** Two nodes with a meter between them, of so many ohms. */
export interface Probe {
  a: number;
  b: number;
  ohms: number;
}

/**
 * A fault as a change of few branches: with the weights W, what is sent along its edges is K·a for the answers a there,
 * K = (I + W·A)⁻¹·W, where A are the edges’ answers to each other. It stands for W that has no inverse.
 */
interface Change {
  rank: number;
  /** Positions in the table of answers. */
  edges: Int32Array;
  /** Square, row by row. */
  weights: Float64Array;
  /** Share of its conductance that the branch of an edge keeps, where the edge is such a branch; else not a number. */
  kept: Float64Array;
  /** What turns an edge’s answer into volts: one by its branch’s conductance, or one. */
  scale: Float64Array;
}

/** Two faults that leave a smaller share of a pivot are not told from the answers. */
const LEAST_LEFT = 1e-9;

/**
 * One fault after another: the network with the first in it is again one whose answers are known.
 */
export class Predictor {
  readonly probes: readonly Probe[];
  private readonly responses: Responses;
  private readonly changes: readonly Change[];
  private readonly probeAt: Int32Array;
  private readonly meter: Float64Array;
  /** The fault that is in the network, and what it sends. */
  private first: Change = NOTHING;
  private readonly firstKernel: Kernel;
  private readonly kernel: Kernel;
  /** Volts at the probes with the first fault, volts for an ampere there, and what that sends along its edges. */
  private readonly volts: Complexes;
  private readonly impedance: Complexes;
  private readonly sends: Complexes;

  /**
   * @param hertz of the sources
   * @param most faults at once: 1 or 2
   * @throws when the circuit has no place for one of the faults
   */
  constructor(
    wiring: Wiring,
    faults: readonly Fault[],
    probes: readonly Probe[],
    hertz: number,
    most: 1 | 2,
    factors?: Factors,
  ) {
    const edges: Edge[] = [];
    const known = new Map<string, number>();
    const place = (edge: Edge): number => {
      const key = `${edge.from} ${edge.to} ${edge.branch}`;
      let at = known.get(key);
      if (at === undefined) {
        at = edges.push(edge) - 1;
        known.set(key, at);
      }
      return at;
    };
    this.probes = probes;
    this.probeAt = Int32Array.from(probes, ({ a, b }) => place({ from: a, to: b, branch: null }));
    this.meter = Float64Array.from(probes, ({ ohms }) => 1 / ohms);
    this.changes = faults.map((fault) => changeOf(wiring, editsOf(wiring, fault), place));
    const rank = Math.max(1, ...this.changes.map((c) => c.rank));
    [this.firstKernel, this.kernel] = [new Kernel(rank), new Kernel(rank)];
    const count = probes.length;
    [this.volts, this.impedance] = [complexes(count), complexes(count)];
    this.sends = complexes(count * rank);
    this.responses = new Responses(wiring, hertz, edges, most === 1 ? this.mates() : undefined, factors);
    this.without();
  }

  /** The sound network again. */
  without(): void {
    const { responses, probeAt, volts, impedance } = this;
    const { re, im, count, sourceRe, sourceIm } = responses;
    this.first = NOTHING;
    for (let p = 0; p < probeAt.length; p++) {
      const at = probeAt[p]!;
      volts.re[p] = sourceRe[at]!;
      volts.im[p] = sourceIm[at]!;
      impedance.re[p] = re[count * at + at]!;
      impedance.im[p] = im[count * at + at]!;
    }
  }

  /** Puts a fault, by its position, into the sound network: what is read from now on is with it. */
  given(fault: number): void {
    this.without();
    const change = this.changes[fault]!;
    const { responses, probeAt, volts, impedance, sends, firstKernel: kernel } = this;
    const { re, im, count } = responses;
    kernel.of(responses, change, NOTHING, kernel);
    const { rank, edges, scale } = change;
    const { k, sent } = kernel;
    for (let p = 0; p < probeAt.length; p++) {
      const column = count * probeAt[p]!;
      for (let i = 0; i < rank; i++) {
        let sr = 0;
        let si = 0;
        for (let j = 0; j < rank; j++) {
          const br = re[column + edges[j]!]!;
          const bi = im[column + edges[j]!]!;
          sr += k.re[i * rank + j]! * br - k.im[i * rank + j]! * bi;
          si += k.re[i * rank + j]! * bi + k.im[i * rank + j]! * br;
        }
        sends.re[p * rank + i] = sr;
        sends.im[p * rank + i] = si;
        const ar = re[column + edges[i]!]! * scale[i]!;
        const ai = im[column + edges[i]!]! * scale[i]!;
        volts.re[p]! -= ar * sent.re[i]! - ai * sent.im[i]!;
        volts.im[p]! -= ar * sent.im[i]! + ai * sent.re[i]!;
        impedance.re[p]! -= ar * sr - ai * si;
        impedance.im[p]! -= ar * si + ai * sr;
      }
    }
    this.first = change;
  }

  /** Volts on each probe’s meter as the network is. */
  readings(into: Float64Array): void {
    const { volts, impedance, meter } = this;
    for (let p = 0; p < meter.length; p++)
      into[p] = loaded(volts.re[p]!, volts.im[p]!, impedance.re[p]!, impedance.im[p]!, meter[p]!);
  }

  /**
   * Volts on each probe’s meter with one more fault than there is.
   * @returns false when both change one branch, or lie so that too few digits are left
   */
  with(fault: number, into: Float64Array): boolean {
    const { responses, probeAt, volts, impedance, sends, meter, first, kernel } = this;
    const change = this.changes[fault]!;
    if (sharesBranch(first, change)) return false;
    const left = kernel.of(responses, change, first, this.firstKernel);
    const { re, im, count } = responses;
    const { rank, edges, scale } = change;
    const { k, sent, cross, answers } = kernel;
    const before = first.rank;
    for (let p = 0; p < probeAt.length; p++) {
      const column = count * probeAt[p]!;
      let vr = volts.re[p]!;
      let vi = volts.im[p]!;
      let zr = impedance.re[p]!;
      let zi = impedance.im[p]!;
      for (let i = 0; i < rank; i++) {
        let ar = re[column + edges[i]!]!;
        let ai = im[column + edges[i]!]!;
        for (let j = 0; j < before; j++) {
          const tr = cross.re[i * before + j]!;
          const ti = cross.im[i * before + j]!;
          const sr = sends.re[p * before + j]!;
          const si = sends.im[p * before + j]!;
          ar -= tr * sr - ti * si;
          ai -= tr * si + ti * sr;
        }
        ar *= scale[i]!;
        ai *= scale[i]!;
        answers.re[i] = ar;
        answers.im[i] = ai;
        vr -= ar * sent.re[i]! - ai * sent.im[i]!;
        vi -= ar * sent.im[i]! + ai * sent.re[i]!;
        // K between volts is symmetric: half of it, twice.
        let sr = 0;
        let si = 0;
        for (let j = 0; j < i; j++) {
          const kr = k.re[i * rank + j]! / scale[j]!;
          const ki = k.im[i * rank + j]! / scale[j]!;
          sr += kr * answers.re[j]! - ki * answers.im[j]!;
          si += kr * answers.im[j]! + ki * answers.re[j]!;
        }
        const kr = k.re[i * rank + i]! / scale[i]!;
        const ki = k.im[i * rank + i]! / scale[i]!;
        sr = 2 * sr + kr * ar - ki * ai;
        si = 2 * si + kr * ai + ki * ar;
        zr -= ar * sr - ai * si;
        zi -= ar * si + ai * sr;
      }
      into[p] = loaded(vr, vi, zr, zi, meter[p]!);
    }
    return left > LEAST_LEFT;
  }

  /** One fault at a time asks only for the answers of its own edges to each other. */
  private mates(): (edge: number) => Int32Array | null {
    const probed = new Set(this.probeAt);
    const mates = new Map<number, Set<number>>();
    for (const { edges } of this.changes) {
      for (const e of edges) {
        if (probed.has(e)) continue;
        const found = mates.get(e) ?? new Set<number>();
        edges.forEach((f) => found.add(f));
        mates.set(e, found);
      }
    }
    return (edge) => {
      const own = mates.get(edge);
      return own ? Int32Array.from(own) : null;
    };
  }
}

/** A meter takes a current of its own: the volts divide between it and what feeds it. */
function loaded(vr: number, vi: number, zr: number, zi: number, siemens: number): number {
  const lr = 1 + siemens * zr;
  const li = siemens * zi;
  return Math.sqrt((vr * vr + vi * vi) / (lr * lr + li * li));
}

interface Complexes {
  re: Float64Array;
  im: Float64Array;
}
const complexes = (length: number): Complexes => ({
  re: new Float64Array(length),
  im: new Float64Array(length),
});

const NOTHING: Change = {
  rank: 0,
  edges: new Int32Array(0),
  weights: new Float64Array(0),
  kept: new Float64Array(0),
  scale: new Float64Array(0),
};

function sharesBranch(one: Change, other: Change): boolean {
  for (let i = 0; i < one.rank; i++) {
    if (one.scale[i] === 1) continue;
    for (let j = 0; j < other.rank; j++) if (one.edges[i] === other.edges[j]) return true;
  }
  return false;
}

function changeOf({ branches }: Wiring, edits: readonly Edit[], place: (edge: Edge) => number): Change {
  const edges: number[] = [];
  const kept: number[] = [];
  const scale: number[] = [];
  const weights: [i: number, j: number, weight: number][] = [];
  const alter = (branch: number, keeps: number): number => {
    const { from, to, conductance } = branches[branch]!;
    kept.push(keeps);
    scale.push(1 / conductance);
    return edges.push(place({ from, to, branch })) - 1;
  };
  const between = (from: number, to: number): number => {
    kept.push(Number.NaN);
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
    scale: Float64Array.from(scale),
  };
}

/** What a change sends along its edges. */
class Kernel {
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
