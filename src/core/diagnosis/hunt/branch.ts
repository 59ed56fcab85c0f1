/** A drawing with what it predicts, and findings as they are there. */
import type { CausePlace } from './causes.ts';
import { logOf } from './densities.ts';
import type { Drawing } from './drawings.ts';
import type { Evidence, Finding } from './evidence.ts';
import { Likelihood } from './likelihood.ts';
import { Outcomes } from './outcomes.ts';
import { Predictions } from './predictions.ts';
import { logPriors, type Priors } from './priors.ts';
import { besideMended } from './together.ts';

/** One hypothesis with its weight. */
export interface Hypothesis {
  branch: number;
  cause: number;
  second: number | null;
  log: number;
  ohms: number | null;
}

export class Branch {
  readonly drawing: Drawing;
  readonly predictions: Predictions;
  readonly likelihood: Likelihood;
  readonly outcomes: Outcomes;
  readonly priors: Float64Array;
  /** First cell of each cause, and the number of all. */
  readonly first: Int32Array;
  readonly cells: number;
  /** What the last diagnosis worked out of pairs. */
  private pairs: ReadonlyMap<number, Map<string, number>> = new Map();
  private readonly judged = new Map<string, Float64Array>();
  /** Causes for which a figure came out that is none: they are left out, and said so. */
  readonly unworkable = new Set<number>();

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

  /** The cause that a cell is of. */
  causeAt(cell: number): number {
    return this.predictions.causes.findIndex((_, c) => cell < this.first[c + 1]!);
  }

  /** A figure of each cause in all of its cells. */
  byCell(figure: (cause: number) => number): Float64Array {
    const list = new Float64Array(this.cells);
    this.predictions.causes.forEach((_, c) => list.fill(figure(c), this.first[c]!, this.first[c + 1]!));
    return list;
  }

  /** A finding with the stops of this drawing. */
  here = (finding: Finding): Finding => {
    const { stopOf } = this.drawing;
    const at = (stop: number) => (stop < 0 ? stop : stopOf[stop]!);
    if (finding.kind === 'tone') return { ...finding, from: at(finding.from), to: at(finding.to) };
    if (finding.kind === 'parted')
      return {
        ...finding,
        stop: at(finding.stop),
        toward: finding.toward === null ? null : at(finding.toward),
      };
    if (finding.kind === 'cleared')
      return 'stop' in finding.place
        ? { ...finding, place: { ...finding.place, stop: at(finding.place.stop) } }
        : finding;
    return 'stop' in finding && finding.stop !== null
      ? ({ ...finding, stop: at(finding.stop) } as Finding)
      : finding;
  };

  /** Logarithms by cell. */
  of({ id, finding }: Evidence): Float64Array {
    const known = this.judged.get(id);
    if (known) return known;
    const logs = new Float64Array(this.cells);
    const here = this.here(finding);
    this.predictions.causes.forEach((_, c) => {
      this.likelihood.of(here, c).forEach((p, k) => {
        if (!Number.isFinite(p)) this.unworkable.add(c);
        logs[this.first[c]! + k] = logOf(p);
      });
    });
    this.judged.set(id, logs);
    return logs;
  }

  /**
   * What is known of pairs, for one diagnosis: what this one does not ask for is forgotten with the next.
   * @returns logarithms of findings by their ids, with two causes at once as their cells have them
   */
  knownPairs(): (x: number, y: number) => Map<string, number> {
    const before = this.pairs;
    const now = new Map<number, Map<string, number>>();
    this.pairs = now;
    return (x, y) => {
      const key = x * this.cells + y;
      const logs = now.get(key) ?? before.get(key) ?? new Map<string, number>();
      now.set(key, logs);
      return logs;
    };
  }

  /** Logarithms by cell of each thing that was seen before a cause was mended, by that cause’s cell. */
  beside(seen: readonly Evidence[], mended: number): Float64Array[] {
    const keyOf = ({ id }: Evidence) => `${id} before ${mended}`;
    const fresh = seen.filter((e) => !this.judged.has(keyOf(e)));
    // All at once: the network with both causes in it is read once for all outlets.
    besideMended(this, fresh, mended).forEach((logs, k) => this.judged.set(keyOf(fresh[k]!), logs));
    return seen.map((e) => this.judged.get(keyOf(e))!);
  }

  /** A place as drawn. */
  drawn(place: CausePlace): CausePlace {
    return 'stop' in place ? { ...place, stop: this.drawing.stopOf.indexOf(place.stop) } : place;
  }
}
