/**
 * What is the matter with a circuit, from any mix of findings: every cause at every place, two at once, and other orders than
 * the drawn one, each with its share. Each finding is judged once; more findings only add their logarithms.
 */
import { placeKey, type Cause, type CausePlace } from './causes.ts';
import { drawingsOf, type Drawing } from './drawings.ts';
import type { Evidence, Finding } from './evidence.ts';
import { KINDS, type CauseKind, type Danger } from './kinds.ts';
import { ELECTRICAL, JOINT_CELLS, Likelihood, withLoad } from './likelihood.ts';
import { Outcomes } from './outcomes.ts';
import { Predictions, WIDTH, type Ground, type Touched } from './predictions.ts';
import { logPriors, USUAL_PRIORS, type Priors } from './priors.ts';

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
}

/** How often a house has a second fault on the circuit, and how much oftener beside the first. */
const TWO_FAULTS = 0.05;
const BESIDE = 6;
/** After a repair nothing more is the matter, mostly. */
const MENDED = 0.72;
/** Pairs are made of so many that explain something, with so many beside. */
const FIRSTS = 26;
const SECONDS = 160;
/** Another fault in the catalogue is this much likelier than one that is not. */
const OUTSIDE = 0.02;
/** Share of findings that what is in no catalogue leaves as they are. */
const LIKE_SOUND = 0.8;
/** Findings that are this much likelier by a slip than by what is held are pointed out, natural logarithm. */
const SLIPPED = 3.2;
/** How likely any finding is where nothing is known. */
function blind(finding: Finding): number {
  switch (finding.kind) {
    case 'volts': {
      const pairs = Object.values(finding.volts).filter((v) => v !== null).length;
      return 0.35 * 90 ** -pairs * (finding.reference === null ? 1 : 1 / 90);
    }
    case 'legs':
      return 1 / 60 ** 2;
    case 'ohms':
      return finding.ohms === Infinity ? 0.3 : 0.7 / 14;
    case 'lamps':
      return 1 / 8;
    case 'works':
      return 1 / 3;
    case 'breaker':
    case 'device':
      return 1 / 3;
    case 'opened':
      return finding.found.length === 0 ? 0.9 : 0.03;
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

/** A drawing with what it predicts, and findings as they are there. */
class Branch {
  readonly drawing: Drawing;
  readonly predictions: Predictions;
  readonly likelihood: Likelihood;
  readonly outcomes: Outcomes;
  readonly priors: Float64Array;
  /** First cell of each cause, and the number of all. */
  readonly first: Int32Array;
  readonly cells: number;
  private readonly judged = new Map<string, Float64Array>();

  constructor(drawing: Drawing, priors: Priors) {
    this.drawing = drawing;
    this.predictions = new Predictions(drawing.ground);
    this.likelihood = new Likelihood(this.predictions);
    this.outcomes = new Outcomes(this.predictions, this.likelihood);
    const { causes } = this.predictions;
    this.priors = logPriors(causes, drawing.ground.run, priors);
    this.first = new Int32Array(causes.length + 1);
    causes.forEach((c, i) => (this.first[i + 1] = this.first[i]! + this.likelihood.cells(c)));
    this.cells = this.first[causes.length]!;
  }

  /** A finding with the stops of this drawing. */
  here(finding: Finding): Finding {
    const { stopOf } = this.drawing;
    const at = (stop: number) => (stop < 0 ? stop : stopOf[stop]!);
    if (finding.kind === 'tone') return { ...finding, from: at(finding.from), to: at(finding.to) };
    return 'stop' in finding && finding.stop !== null
      ? ({ ...finding, stop: at(finding.stop) } as Finding)
      : finding;
  }

  /** Logarithms by cell. */
  of({ id, finding }: Evidence): Float64Array {
    const known = this.judged.get(id);
    if (known) return known;
    const logs = new Float64Array(this.cells);
    const here = this.here(finding);
    this.predictions.causes.forEach((_, c) => {
      this.likelihood
        .of(here, c)
        .forEach((p, k) => (logs[this.first[c]! + k] = Math.log(Math.max(p, 1e-30))));
    });
    this.judged.set(id, logs);
    return logs;
  }

  /** A place as drawn. */
  drawn(place: CausePlace): CausePlace {
    return 'stop' in place ? { ...place, stop: this.drawing.stopOf.indexOf(place.stop) } : place;
  }
}

/** One hypothesis with its weight. */
export interface Hypothesis {
  branch: number;
  cause: number;
  second: number | null;
  log: number;
  ohms: number | null;
}

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
    const key = drawings
      .map((d) => d.ground.run.stops.map((s) => `${s.box.id}<${s.feeder}`).join())
      .join(' | ');
    if (key === this.known) return;
    const old = this.branches;
    const same = (d: Drawing) =>
      old.find(
        (b) =>
          b.drawing.ground.run.stops.map((s) => `${s.box.id}<${s.feeder}`).join() ===
          d.ground.run.stops.map((s) => `${s.box.id}<${s.feeder}`).join(),
      );
    this.branches = drawings.map((d) => {
      const branch = same(d);
      return branch ? Object.assign(branch, { drawing: d }) : new Branch(d, this.priors);
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
        found.push(...this.pairs(branch, b, singles, evidence));
    });
    // What is in no catalogue shows as sound wiring does, and now and then as nothing else.
    const [drawn] = this.branches;
    const outside = evidence.reduce(
      (sum, e) =>
        sum + Math.log(LIKE_SOUND * Math.exp(drawn!.of(e)[0]!) + (1 - LIKE_SOUND) * blind(e.finding)),
      Math.log(OUTSIDE),
    );
    const top = Math.max(outside, ...found.map((h) => h.log));
    const total = found.reduce((sum, h) => sum + Math.exp(h.log - top), Math.exp(outside - top));
    found.sort((a, b) => b.log - a.log);
    this.hypotheses = found.filter((h) => h.log > top - 14);
    this.shares = Float64Array.from(this.hypotheses, (h) => Math.exp(h.log - top) / total);
    const none = Math.exp(outside - top) / total;
    const suspects = this.suspects();
    const entropy = -[...suspects.map((s) => s.share), none].reduce(
      (sum, p) => sum + (p > 0 ? p * Math.log2(p) : 0),
      0,
    );
    return { suspects, none, entropy, contradictions: this.contradictions(evidence, mended) };
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
    const healthy = 0;
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
              (mended.includes(this.keyOf(branch, cause)) ? Math.log(0.3) : 0);
      for (let k = 0; k < count; k++) logs[first[c]! + k] = before + prior - Math.log(count);
    });
    for (const e of evidence) {
      const told = branch.of(e);
      const repairs = fixed.slice(e.after);
      if (repairs.length === 0) {
        for (let i = 0; i < cells; i++) logs[i]! += told[i]!;
        continue;
      }
      // It was seen with what was mended since: whichever of the two changes more of what sound wiring shows.
      const sound = told[first[healthy]!]!;
      const then = repairs.map((r) => Math.max(...told.subarray(first[r]!, first[r + 1]!)));
      const most = then.reduce((m, x) => (Math.abs(x - sound) > Math.abs(m - sound) ? x : m), sound);
      for (let i = 0; i < cells; i++) {
        const own = told[i]!;
        logs[i]! += Math.abs(own - sound) > Math.abs(most - sound) ? own : most;
      }
    }
    return causes.map((_, c) => {
      const own = logs.subarray(first[c]!, first[c + 1]!);
      const top = Math.max(...own);
      let sum = 0;
      let ohms = 0;
      own.forEach((x, k) => {
        const w = Math.exp(x - top);
        sum += w;
        ohms += w * Math.log(JOINT_CELLS[k] ?? 1);
      });
      return {
        branch: b,
        cause: c,
        second: null,
        log: top + Math.log(sum),
        ohms: own.length > 1 ? Math.exp(ohms / sum) : null,
      };
    });
  }

  /** The likeliest cause of a repair by what was seen before it. */
  private bestOf(branch: Branch, key: string, evidence: readonly Evidence[]): number {
    let [best, most] = [0, -Infinity];
    branch.predictions.causes.forEach((cause, c) => {
      if (this.keyOf(branch, cause) !== key) return;
      const log = evidence
        .filter((e) => e.after === 0)
        .reduce(
          (sum, e) => sum + Math.max(...branch.of(e).subarray(branch.first[c]!, branch.first[c + 1]!)),
          branch.priors[c]!,
        );
      if (log > most) [best, most] = [c, log];
    });
    return best;
  }

  private keyOf(branch: Branch, cause: Cause): string {
    return `${placeKey(branch.drawn(cause.place))} ${cause.kind}`;
  }

  /** Two at once: those that explain something, with each that explains something else. */
  private pairs(
    branch: Branch,
    b: number,
    singles: readonly Hypothesis[],
    evidence: readonly Evidence[],
  ): Hypothesis[] {
    const { causes } = branch.predictions;
    const { first, priors } = branch;
    const told = evidence.map((e) => branch.of(e));
    const sound = told.map((of) => of[0]!);
    // A poor joint has one figure for all findings: the one that explains most of them.
    const cell = causes.map((_, c) => {
      let [at, most] = [first[c]!, -Infinity];
      for (let i = first[c]!; i < first[c + 1]!; i++) {
        const gain = told.reduce((sum, of, k) => sum + Math.max(0, of[i]! - sound[k]!), 0);
        if (gain > most) [at, most] = [i, gain];
      }
      return at;
    });
    const best = (c: number, k: number) => told[k]![cell[c]!]!;
    const ohmsOf = (c: number) => JOINT_CELLS[cell[c]! - first[c]!]!;
    // A finding that sound wiring would not show, and this explains, is its gain.
    const gains = causes.map((cause, c) => ({
      c,
      gain:
        cause.faults.length === 0
          ? -Infinity
          : priors[c]! + told.reduce((sum, _, k) => sum + Math.max(0, best(c, k) - sound[k]!), 0),
    }));
    gains.sort((x, y) => y.gain - x.gain);
    const leading = Math.max(...singles.map((s) => s.log));
    const tops = gains.slice(0, FIRSTS);
    const seconds = gains.slice(0, SECONDS).filter((g) => g.gain > -Infinity);
    const electrical = evidence.flatMap((e, k) => {
      const finding = branch.here(e.finding);
      return ELECTRICAL.has(finding.kind) ? [{ k, finding: finding as Finding & { stop: number } }] : [];
    });
    const stops = [...new Set(electrical.map((e) => e.finding.stop))];
    const reader =
      stops.length === 0
        ? null
        : branch.predictions.pairsAt(stops, [...new Set([...tops, ...seconds].map((g) => g.c))], ohmsOf);
    const out = new Float32Array(branch.predictions.scenes.length * stops.length * WIDTH);
    const before = Math.log(branch.drawing.share);
    const done = new Set<string>();
    const list: Hypothesis[] = [];
    const combined = (k: number, x: number, y: number) => {
      const [p, q] = [best(x, k), best(y, k)];
      return Math.abs(p - sound[k]!) >= Math.abs(q - sound[k]!) ? p : q;
    };
    for (const { c: x } of tops)
      for (const { c: y } of seconds) {
        const key = x < y ? `${x} ${y}` : `${y} ${x}`;
        if (x === y || done.has(key) || causes[x]!.key === causes[y]!.key) continue;
        done.add(key);
        const near = 'stop' in causes[x]!.place && placeKey(causes[x]!.place) === placeKey(causes[y]!.place);
        const prior = before + Math.log(TWO_FAULTS * (near ? BESIDE : 1)) + priors[x]! + priors[y]!;
        const rough = evidence.reduce((sum, _, k) => sum + combined(k, x, y), prior);
        if (rough < leading - 18) continue;
        let log = rough;
        if (reader && reader.read(x, y, out)) {
          const opens = branch.predictions.opens;
          const trips = (c: number) => opens[c]!.breaker !== 'no' || opens[c]!.device !== null;
          const opener = trips(x) ? x : y;
          for (const { k, finding } of electrical) {
            const at = stops.indexOf(finding.stop);
            const share = branch.likelihood.electrical(
              finding,
              [causes[x]!, causes[y]!],
              withLoad(
                (scene, field) => out[(scene * stops.length + at) * WIDTH + field]!,
                finding.kind === 'volts' ? finding.amps : 0,
              ),
              opener,
            );
            log += Math.log(Math.max(share, 1e-30)) - combined(k, x, y);
          }
        }
        list.push({ branch: b, cause: x, second: y, log, ohms: null });
      }
    return list;
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
      if (held > slip - SLIPPED + 2) return [];
      const most = told.reduce((m, x) => Math.max(m, x), -Infinity);
      return [{ id: e.id, alone: most < slip - 1 }];
    });
  }
}

const ORDER: readonly Danger[] = ['none', 'fire', 'overvoltage', 'shock'];
const worse = (a: Danger, b: Danger): Danger => (ORDER.indexOf(a) >= ORDER.indexOf(b) ? a : b);
