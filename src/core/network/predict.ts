/**
 * What meters would read under each of many faults and under every two of them, from one factorization: faults change a
 * few branches, and how the network answers along those is known.
 */
import { editsOf, withFaults, type Fault } from './faults.ts';
import { changeOf, complexes, Kernel, NOTHING, sharesBranch, type Change, type Complexes } from './kernel.ts';
import { EdgeGroups } from './groups.ts';
import { EARTH } from './network.ts';
import { Responses, type Answers, type Edge } from './responses.ts';
import { eliminationOf, Factors, type Elimination } from './solve.ts';
import type { Wiring } from './wiring.ts';

/** Two nodes with a meter between them, of so many ohms. */
export interface Probe {
  a: number;
  b: number;
  ohms: number;
}

/** Two faults that leave a smaller share of a pivot are not told from the answers. */
const LEAST_LEFT = 1e-9;

/**
 * One fault after another: the network with the first in it is again one whose answers are known.
 */
export class Predictor {
  readonly probes: readonly Probe[];
  private readonly wiring: Wiring;
  private readonly hertz: number;
  private readonly faults: Fault[];
  /** Position of the fault that is in the network, or null. */
  private firstAt: number | null = null;
  /** Of the sound network, once it is asked for. */
  private structure: Elimination | null = null;
  private readonly most: 1 | 2;
  private readonly responses: Responses;
  private readonly changes: Change[];
  /** By fault: how the edges of its change answer to each other. */
  private readonly between: readonly Answers[];
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
  ) {
    [this.wiring, this.hertz, this.faults] = [wiring, hertz, [...faults]];
    const edges: Edge[] = [];
    const byBranch = new Int32Array(wiring.branches.length).fill(-1);
    const byEnds = new Map<number, number>();
    const place = (edge: Edge): number => {
      const { from, to, branch } = edge;
      const ends = (from + 1) * (wiring.nodes.length + 1) + to + 1;
      let at = branch === null ? byEnds.get(ends) : byBranch[branch];
      if (at === undefined || at < 0) {
        at = edges.push(edge) - 1;
        if (branch === null) byEnds.set(ends, at);
        else byBranch[branch] = at;
      }
      return at;
    };
    [this.probes, this.most] = [probes, most];
    this.probeAt = Int32Array.from(probes, ({ a, b }) => place({ from: a, to: b, branch: null }));
    this.meter = Float64Array.from(probes, ({ ohms }) => 1 / ohms);
    // Stray hots and neutrals come from the panel, wherever they are found.
    const far = most === 1 ? farNodes(wiring) : [];
    const farAt = edges.length;
    for (const node of far) place({ from: node, to: EARTH, branch: null });
    const columns = edges.length;
    const changes = faults.map((fault) => changeOf(wiring, editsOf(wiring, fault), place));
    if (most === 1) {
      const groups = new EdgeGroups(wiring, hertz, edges, changes, far);
      this.responses = new Responses(wiring, hertz, edges, columns, groups.factors);
      const answers = groups.answers(this.responses, farAt);
      for (const change of changes) change.own = groups.places(change);
      // A fault that changes nothing has no group.
      this.between = changes.map(({ edges: [first] }) =>
        first === undefined ? this.responses : answers[groups.groupOf[first]!]!,
      );
    } else {
      this.responses = new Responses(wiring, hertz, edges);
      this.between = changes.map(() => this.responses);
    }
    this.changes = changes;
    const rank = Math.max(1, ...this.changes.map((c) => c.rank));
    [this.firstKernel, this.kernel] = [new Kernel(rank), new Kernel(rank)];
    const count = probes.length;
    [this.volts, this.impedance] = [complexes(count), complexes(count)];
    this.sends = complexes(count * rank);
    this.without();
  }

  /**
   * Gives a poor joint or a leak other ohms: what is read under it from now on is with these.
   * @throws when the fault is more than one branch
   */
  vary(fault: number, ohms: number): void {
    const change = this.changes[fault]!;
    if (change.rank !== 1) throw new Error('Only a fault of one branch has ohms of its own');
    const keeps = change.scale[0]! / ohms;
    this.faults[fault] = { ...this.faults[fault]!, ohms } as Fault;
    this.changes[fault] = change.alters[0]
      ? { ...change, weights: [keeps - 1], kept: [keeps] }
      : { ...change, weights: [1 / ohms] };
  }

  /** Whether a fault only joins what is apart: put in first it leaves most digits where conductors hang loose. */
  joins(fault: number): boolean {
    const { rank, alters } = this.changes[fault]!;
    return rank === 1 && !alters[0];
  }

  /** The sound network again. */
  without(): void {
    const { responses, probeAt, volts, impedance } = this;
    const { re, im, count, sourceRe, sourceIm } = responses;
    this.first = NOTHING;
    this.firstAt = null;
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
    if (this.firstAt === fault && this.first === this.changes[fault]) return;
    this.without();
    const change = this.changes[fault]!;
    const { responses, probeAt, volts, impedance, sends, firstKernel: kernel } = this;
    const { re, im, count } = responses;
    kernel.of(responses, this.between[fault]!, change, NOTHING, kernel);
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
    this.firstAt = fault;
  }

  /** Volts on each probe’s meter as the network is; `ohms` gets the impedance between its nodes without the meter. */
  readings(into: Float64Array, ohms?: Float64Array): void {
    const { volts, impedance, meter } = this;
    for (let p = 0; p < meter.length; p++) {
      into[p] = loaded(volts.re[p]!, volts.im[p]!, impedance.re[p]!, impedance.im[p]!, meter[p]!);
      if (ohms) ohms[p] = Math.hypot(impedance.re[p]!, impedance.im[p]!);
    }
  }

  /**
   * Volts on each probe’s meter with one more fault than there is. Two that lie so that too few digits would be left get a
   * factorization of their own. `ohms` gets the impedances, as in `readings`.
   * @returns false when both change one branch: one joint is not open and poor at once
   * @throws when that makes more than there may be
   */
  with(fault: number, into: Float64Array, ohms?: Float64Array): boolean {
    const { responses, probeAt, volts, impedance, sends, meter, first, kernel } = this;
    const change = this.changes[fault]!;
    if (first.rank > 0 && this.most === 1) throw new Error('This predicts one fault at a time');
    if (sharesBranch(first, change)) return false;
    // What is open already is not opened again: the breaker of a dead circuit.
    if (change.weights.every((w) => w === 0)) {
      this.readings(into, ohms);
      return true;
    }
    const left = kernel.of(responses, this.between[fault]!, change, first, this.firstKernel);
    if (left <= LEAST_LEFT) {
      this.factored(fault, into, ohms);
      return true;
    }
    if (change.rank === 1 && first.rank === 0) {
      this.withOne(change, into, ohms);
      return true;
    }
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
      if (ohms) ohms[p] = Math.hypot(zr, zi);
    }
    return true;
  }

  /** As `with`, from the network with both faults in it. */
  private factored(fault: number, into: Float64Array, impedances?: Float64Array): void {
    const { wiring, hertz, probes, faults, firstAt } = this;
    const both = firstAt === null ? [faults[fault]!] : [faults[firstAt]!, faults[fault]!];
    const network = withFaults(wiring, both);
    // Where branches only conduct otherwise the order of elimination stays.
    const same = network.branches.every(
      (branch, k) => branch.from === wiring.branches[k]?.from && branch.to === wiring.branches[k].to,
    );
    const structure = same ? (this.structure ??= eliminationOf(wiring)) : eliminationOf(network);
    const factors = new Factors(network, hertz, structure);
    const voltages = factors.voltages();
    const n = network.nodes.length;
    const [zr, zi] = [new Float64Array(4 * n), new Float64Array(4 * n)];
    const pairs = new Int32Array(8);
    for (let p = 0; p < probes.length; p += 4) {
      const here = probes.slice(p, p + 4);
      pairs.fill(EARTH);
      here.forEach(({ a, b }, r) => pairs.set([a, b], 2 * r));
      factors.units(pairs, zr, zi);
      const at = (list: Float64Array, node: number, r: number): number =>
        node === EARTH ? 0 : list[4 * factors.step[node]! + r]!;
      here.forEach(({ a, b, ohms }, r) => {
        const [x, y] = [voltages.at(a), voltages.at(b)];
        const [re, im] = [at(zr, a, r) - at(zr, b, r), at(zi, a, r) - at(zi, b, r)];
        into[p + r] = loaded(x.re - y.re, x.im - y.im, re, im, 1 / ohms);
        if (impedances) impedances[p + r] = Math.hypot(re, im);
      });
    }
  }

  /** As `with`, for one branch in the sound network. */
  private withOne({ edges, scale }: Change, into: Float64Array, ohms?: Float64Array): void {
    const { responses, probeAt, volts, impedance, meter, kernel } = this;
    const { re, im, count } = responses;
    const edge = edges[0]!;
    const s = scale[0]!;
    const sentRe = kernel.sent.re[0]! * s;
    const sentIm = kernel.sent.im[0]! * s;
    const kr = kernel.k.re[0]! * s;
    const ki = kernel.k.im[0]! * s;
    for (let p = 0; p < probeAt.length; p++) {
      const at = count * probeAt[p]! + edge;
      const ar = re[at]!;
      const ai = im[at]!;
      const sr = kr * ar - ki * ai;
      const si = kr * ai + ki * ar;
      const zr = impedance.re[p]! - (ar * sr - ai * si);
      const zi = impedance.im[p]! - (ar * si + ai * sr);
      into[p] = loaded(
        volts.re[p]! - (ar * sentRe - ai * sentIm),
        volts.im[p]! - (ar * sentIm + ai * sentRe),
        zr,
        zi,
        meter[p]!,
      );
      if (ohms) ohms[p] = Math.hypot(zr, zi);
    }
  }
}

/** Where stray hots and neutrals come from. */
const farNodes = ({ circuits }: Wiring): number[] => [
  ...new Set(circuits.flatMap(({ leaving: { bus, otherNeutral } }) => [bus.black, bus.red, otherNeutral])),
];

/** A meter takes a current of its own: the volts divide between it and what feeds it. */
function loaded(vr: number, vi: number, zr: number, zi: number, siemens: number): number {
  const lr = 1 + siemens * zr;
  const li = siemens * zi;
  return Math.sqrt((vr * vr + vi * vi) / (lr * lr + li * li));
}
