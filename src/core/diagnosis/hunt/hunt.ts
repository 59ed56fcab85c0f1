/**
 * What is the matter with a circuit, from any mix of findings: every cause at every place, two at once, and other orders than
 * the drawn one, each with its share. Each finding is judged once; more findings only add their logarithms.
 */
import { placeKey, type Cause, type CausePlace } from './causes.ts';
import { Branch, type Hypothesis } from './branch.ts';
import { drawingsOf, type Drawing } from './drawings.ts';
import { pairsOf } from './pairs.ts';
import type { Evidence, Finding } from './evidence.ts';
import { KINDS, type CauseKind, type Danger } from './kinds.ts';
import { JOINT_CELLS } from './likelihood.ts';
import type { Ground, Touched } from './predictions.ts';
import { USUAL_PRIORS, type Priors } from './priors.ts';
import { inBox, stronger } from './together.ts';

/** A cause, or two at once, with its share; places are stops as drawn. */
export interface Suspect {
  /** Place and repair. */
  key: string;
  kind: CauseKind;
  place: CausePlace;
  /** 0 to 1. */
  share: number;
  /** The likeliest of its causes. */
  cause: Cause;
  /** Ohms of a poor joint, as the readings have it; null for others. */
  ohms: number | null;
  /** The second one, where two faults are there at once. */
  second: { key: string; kind: CauseKind; place: CausePlace; cause: Cause } | null;
  /** What is other than drawn; empty as drawn. */
  differs: string;
  danger: Danger;
}

export interface Contradiction {
  id: string;
  /** It fits nothing at all, or only nothing of what else was seen. */
  alone: boolean;
}

export interface Diagnosis {
  /** Best first; together with `none` they add up to one. */
  suspects: readonly Suspect[];
  /** Share of what is in no catalogue. */
  none: number;
  contradictions: readonly Contradiction[];
  /** Bits left. */
  entropy: number;
  /** Keys of causes that could not be worked out with what was seen: they are in no share. */
  unworkable: readonly string[];
}

/** After a repair nothing more is the matter, mostly. */
const MENDED = 0.72;
/** What was mended is the matter once more so much less often than what was not; nobody replaces a cable twice. */
const AGAIN = { joint: 0.05, cable: 0.002 } as const;
/** Another fault in the catalogue is this much likelier than one that is not. */
const OUTSIDE = 0.02;
/** Share of findings that what is in no catalogue leaves as they are. */
const LIKE_SOUND = 0.8;
/** Findings that are this much likelier by a slip than by what is held are pointed out, natural logarithm. */
const SLIPPED = 1.2;

/** How likely any finding is where nothing is known. */
function blind(finding: Finding): number {
  switch (finding.kind) {
    case 'volts': {
      const pairs = [...Object.values(finding.volts), finding.free].filter((v) => v !== null).length;
      return 0.35 * 90 ** -pairs * (finding.reference === null ? 1 : 1 / 90);
    }
    case 'legs':
      return 1 / 60 ** 2 / (finding.loaded ? 15 ** 2 : 1);
    case 'ohms':
      return finding.ohms === Infinity ? 0.3 : 0.7 / 14;
    case 'insulation':
      return finding.megohms === Infinity ? 0.4 : 0.6 / 14;
    case 'lamps':
      return 1 / 8;
    case 'works':
      return 1 / 3;
    case 'breaker':
    case 'device':
      return 1 / 3;
    case 'opened':
      return finding.found.length === 0 ? 0.9 : 0.004;
    case 'live':
      return finding.live ? 0.1 : 0.9;
    case 'counted':
      return 1;
    case 'cleared':
      return 0.9;
    case 'state':
    case 'parted':
    case 'tone':
    case 'amps':
    case 'appliance':
      return 1 / 2;
    case 'shock':
      return 0.05;
    case 'sign':
    case 'rain':
      return 0.06;
    case 'work':
      return 0.15;
    case 'elsewhere':
      return finding.does === 'fine' ? 0.7 : 0.1;
  }
}

/** Which box feeds which, as text. */
const treeOf = ({ ground }: Drawing): string => ground.run.stops.map((s) => `${s.box.id}<${s.feeder}`).join();

export class Hunt {
  readonly ground: Ground;
  private readonly priors: Priors;
  branches: Branch[] = [];
  private known = '';
  /** All hypotheses with a share worth naming, best first, after `diagnose`. */
  hypotheses: Hypothesis[] = [];
  /** Share of each, in the same order. */
  shares: Float64Array = new Float64Array(0);

  /** @throws when the house has no such panel */
  constructor(ground: Ground, priors: Priors = USUAL_PRIORS) {
    this.ground = ground;
    this.priors = priors;
  }

  private branchesFor(evidence: readonly Evidence[]): void {
    const drawings = drawingsOf(this.ground, evidence);
    const key = drawings.map(treeOf).join(' | ');
    if (key === this.known) return;
    const old = new Map(this.branches.map((b) => [treeOf(b.drawing), b]));
    this.branches = drawings.map((drawing) => {
      const branch = old.get(treeOf(drawing));
      return branch ? Object.assign(branch, { drawing }) : new Branch(drawing, this.priors);
    });
    this.known = key;
  }

  /**
   * @param mended keys of suspects that were mended, in order
   * @param pairs whether two faults at once are looked at as well
   */
  diagnose(evidence: readonly Evidence[], mended: readonly string[] = [], pairs = true): Diagnosis {
    this.branchesFor(evidence);
    const found: Hypothesis[] = [];
    this.branches.forEach((branch, b) => {
      const singles = this.singles(branch, b, evidence, mended);
      found.push(...singles);
      if (pairs && mended.length === 0 && evidence.length > 0)
        found.push(...pairsOf(branch, b, singles, evidence));
    });
    // What is in no catalogue shows as sound wiring does, and now and then as nothing else.
    const [drawn] = this.branches;
    const figures = found.filter((h) => {
      if (Number.isFinite(h.log)) return true;
      this.branches[h.branch]!.unworkable.add(h.cause);
      return false;
    });
    const outside = evidence.reduce((sum, e) => {
      const sound = drawn!.of(e)[0]!;
      const like = Number.isFinite(sound) ? LIKE_SOUND * Math.exp(sound) : 0;
      return sum + Math.log(like + (1 - LIKE_SOUND) * blind(e.finding));
    }, Math.log(OUTSIDE));
    const top = figures.reduce((most, h) => Math.max(most, h.log), outside);
    const total = figures.reduce((sum, h) => sum + Math.exp(h.log - top), Math.exp(outside - top));
    figures.sort((a, b) => b.log - a.log);
    this.hypotheses = figures.filter((h) => h.log > top - 14);
    this.shares = Float64Array.from(this.hypotheses, (h) => Math.exp(h.log - top) / total);
    const none = Math.exp(outside - top) / total;
    const suspects = this.suspects();
    const entropy = -[...suspects.map((s) => s.share), none].reduce(
      (sum, p) => sum + (p > 0 ? p * Math.log2(p) : 0),
      0,
    );
    return {
      suspects,
      none,
      entropy,
      contradictions: this.contradictions(evidence, mended),
      unworkable: this.branches.flatMap((branch) =>
        [...branch.unworkable].map((c) => this.keyOf(branch, branch.predictions.causes[c]!)),
      ),
    };
  }

  private singles(
    branch: Branch,
    b: number,
    evidence: readonly Evidence[],
    mended: readonly string[],
  ): Hypothesis[] {
    const { causes } = branch.predictions;
    const { first, priors, cells } = branch;
    const logs = new Float64Array(cells);
    const before = Math.log(branch.drawing.share);
    const fixed = mended.map((key) => this.bestOf(branch, key, evidence));
    causes.forEach((cause, c) => {
      const count = first[c + 1]! - first[c]!;
      const prior =
        mended.length === 0
          ? priors[c]!
          : cause.kind === 'nothing'
            ? Math.log(MENDED)
            : Math.log(1 - MENDED) +
              priors[c]! +
              (mended.includes(this.keyOf(branch, cause))
                ? Math.log(cause.place.at === 'cable' ? AGAIN.cable : AGAIN.joint)
                : 0);
      for (let k = 0; k < count; k++) logs[first[c]! + k] = before + prior - Math.log(count);
    });
    const add = (told: Float64Array) => {
      for (let i = 0; i < cells; i++) logs[i]! += told[i]!;
    };
    const last = fixed.at(-1);
    if (last !== undefined) {
      const seen = evidence.filter((e) => e.after === mended.length - 1);
      branch.beside(seen, last).forEach(add);
    }
    for (const e of evidence) {
      const told = branch.of(e);
      const repairs = fixed.slice(e.after);
      if (repairs.length === 0) add(told);
      if (repairs.length < 2) continue;
      const found = inBox(branch, e);
      if (found) {
        const there = repairs.map((r) => branch.causeAt(r));
        add(branch.byCell((c) => found([...there, c])));
        continue;
      }
      // It was seen with what was mended since: whichever of the two changes more of what sound wiring shows.
      const sound = told[0]!;
      const most = repairs.reduce((m, r) => stronger(m, told[r]!, sound), sound);
      add(told.map((own) => stronger(most, own, sound)));
    }
    return causes.flatMap((_, c): Hypothesis[] => {
      if (branch.unworkable.has(c)) return [];
      const own = logs.subarray(first[c]!, first[c + 1]!);
      const top = Math.max(...own);
      let sum = 0;
      let ohms = 0;
      own.forEach((x, k) => {
        const w = Math.exp(x - top);
        sum += w;
        ohms += w * Math.log(JOINT_CELLS[k] ?? 1);
      });
      return [
        {
          branch: b,
          cause: c,
          second: null,
          log: top + Math.log(sum),
          ohms: own.length > 1 ? Math.exp(ohms / sum) : null,
        },
      ];
    });
  }

  /** The likeliest cell of a repair by what was seen before it. */
  private bestOf(branch: Branch, key: string, evidence: readonly Evidence[]): number {
    const { first, priors } = branch;
    const before = evidence.filter((e) => e.after === 0).map((e) => branch.of(e));
    let [best, most] = [0, -Infinity];
    branch.predictions.causes.forEach((cause, c) => {
      if (this.keyOf(branch, cause) !== key) return;
      for (let at = first[c]!; at < first[c + 1]!; at++) {
        const log = before.reduce((sum, told) => sum + told[at]!, priors[c]!);
        if (log > most) [best, most] = [at, log];
      }
    });
    return best;
  }

  private keyOf(branch: Branch, cause: Cause): string {
    return `${placeKey(branch.drawn(cause.place))} ${cause.kind}`;
  }

  /** What a suspect does to whoever touches what is plugged in at a stop as drawn. */
  touched({ cause, second, differs }: Suspect, stop: number): Touched {
    const branch = this.branches.find((b) => b.drawing.differs === differs) ?? this.branches[0]!;
    const faults = [...cause.faults, ...(second?.cause.faults ?? [])];
    return branch.predictions.touched(faults, branch.drawing.stopOf[stop]!);
  }

  /** Its causes in the order of their keys. */
  private causesOf({ branch: b, cause, second }: Hypothesis): { cause: Cause; key: string }[] {
    const branch = this.branches[b]!;
    return [cause, ...(second === null ? [] : [second])]
      .map((c) => branch.predictions.causes[c]!)
      .map((of) => ({ cause: of, key: this.keyOf(branch, of) }))
      .sort((x, y) => (x.key < y.key ? -1 : 1));
  }

  /** Places and repairs of a hypothesis. */
  keyOfHypothesis = (h: Hypothesis): string =>
    this.causesOf(h)
      .map((c) => c.key)
      .join(' + ');

  private suspects(): Suspect[] {
    const groups = new Map<string, Suspect>();
    this.hypotheses.forEach((h, i) => {
      const branch = this.branches[h.branch]!;
      const [{ cause: x }, other] = this.causesOf(h) as [
        { cause: Cause; key: string },
        { cause: Cause; key: string }?,
      ];
      const key = this.keyOfHypothesis(h);
      const share = this.shares[i]!;
      const known = groups.get(key);
      if (known) {
        known.share += share;
        return;
      }
      const danger = [x, ...(other ? [other.cause] : [])].reduce<Danger>(
        (worst, c) => worse(worst, KINDS[c.kind].danger),
        'none',
      );
      groups.set(key, {
        key,
        kind: x.kind,
        place: branch.drawn(x.place),
        share,
        cause: x,
        ohms: h.ohms,
        second: other
          ? {
              key: other.key,
              kind: other.cause.kind,
              place: branch.drawn(other.cause.place),
              cause: other.cause,
            }
          : null,
        differs: branch.drawing.differs,
        danger,
      });
    });
    return [...groups.values()].sort((a, b) => b.share - a.share);
  }

  /** Findings that what is held does not explain, and a slip does. */
  private contradictions(evidence: readonly Evidence[], mended: readonly string[]): Contradiction[] {
    const [best] = this.hypotheses;
    if (!best || evidence.length < 2) return [];
    const branch = this.branches[best.branch]!;
    const { first } = branch;
    return evidence.flatMap((e): Contradiction[] => {
      if (e.after < mended.length) return [];
      const told = branch.of(e);
      const of = (c: number) => Math.max(...told.subarray(first[c]!, first[c + 1]!));
      const held = Math.max(of(best.cause), best.second === null ? -Infinity : of(best.second));
      const slip = Math.log(blind(e.finding));
      if (held > slip - SLIPPED) return [];
      const most = told.reduce((m, x) => Math.max(m, x), -Infinity);
      return [{ id: e.id, alone: most < slip - 1 }];
    });
  }
}

const ORDER: readonly Danger[] = ['none', 'fire', 'overvoltage', 'shock'];
const worse = (a: Danger, b: Danger): Danger => (ORDER.indexOf(a) >= ORDER.indexOf(b) ? a : b);
