/** What a hunt says now, worked out from its call: kept between two questions, so that one more finding is quick. */
import { Hunt, type Diagnosis } from '#core/diagnosis/hunt/hunt.ts';
import { KINDS, type CauseKind } from '#core/diagnosis/hunt/kinds.ts';
import { nextOf, type Next } from '#core/diagnosis/hunt/next.ts';
import type { Touched } from '#core/diagnosis/hunt/predictions.ts';
import { whyLikely, type Priors } from '#core/diagnosis/hunt/priors.ts';
import { warningsOf, type Warning } from '#core/diagnosis/hunt/warnings.ts';
import { findingWords, keyWords, measureWords, suspectWords } from '#core/diagnosis/hunt/words.ts';
import type { Circuit } from '#core/job/schema.ts';
import type { Context } from '../step.ts';
import { huntCase, ownStop, type HuntCase } from './case.ts';
import { orderText } from './orders.ts';

/** A suspect as it is shown. */
interface ShownSuspect {
  key: string;
  kind: CauseKind;
  words: string;
  share: number;
  danger: Diagnosis['suspects'][number]['danger'];
  /** Box and cable of it, by stop; null elsewhere. */
  stop: number | null;
  at: 'box' | 'cable' | 'panel' | 'service' | 'plugged' | 'nowhere';
  repair: string;
  beside: string;
  /** What makes its place a likelier one, by what is on record. */
  because: readonly string[];
  /** What it does to whoever touches what is plugged in; of the first few. */
  touch: Touched | null;
}

export interface Advised {
  /** What comes next, for the log, and in words. */
  order: string;
  note: string;
  suspects: readonly ShownSuspect[];
  none: number;
  warnings: readonly Warning[];
  /** Causes that could not be worked out with what was seen, in words. */
  unworkable: readonly string[];
  /** Outlets that are hard to get at, by the id of the answer that says so. */
  blocked: readonly { id: string; words: string }[];
  findings: readonly { id: string; words: string; contradicts: 'no' | 'alone' | 'rest'; after: number }[];
  answers: readonly { says: string; share: number; leaves: readonly { words: string; share: number }[] }[];
  others: readonly { order: string; words: string }[];
  mended: readonly string[];
  milliseconds: number;
}

/** Suspects that are shown, and the least share of one. */
const MOST = 8;
const LEAST = 0.01;
/** Of so many it is worked out what they do to a hand. */
const TOUCHED = 3;

/** One hunt, kept for the circuit as it is drawn. */
export class Adviser {
  private hunt: Hunt | null = null;
  private key = '';

  advise(c: Context, circuit: Circuit, found: ReadonlyMap<CauseKind, number> = new Map()): Advised {
    const started = performance.now();
    const held = huntCase(c, circuit);
    const hunt = this.huntFor(held, c, found);
    const { run } = held.ground;
    const { evidence, mended, situation } = held;
    const diagnosis = hunt.diagnose(evidence, mended);
    const next = nextOf(hunt, diagnosis, evidence, mended, situation);
    const contradicts = new Map(
      diagnosis.contradictions.map((k) => [k.id, k.alone ? ('alone' as const) : ('rest' as const)]),
    );
    const own = ownStop(c, run);
    const [best] = diagnosis.suspects;
    return {
      order: orderText(next, run),
      note: noteOf(next, best ? `${suspectWords(best, run)} ${Math.round(100 * best.share)} %` : '', held),
      suspects: diagnosis.suspects
        .filter((s) => s.share >= LEAST)
        .slice(0, MOST)
        .map((s, k) => ({
          key: s.key,
          kind: s.kind,
          words: suspectWords(s, run),
          share: s.share,
          danger: s.danger,
          stop: 'stop' in s.place ? s.place.stop : null,
          at: s.place.at,
          repair: KINDS[s.kind].repair,
          beside: KINDS[s.kind].beside,
          because: whyLikely(s, run),
          touch:
            k < TOUCHED && s.cause.faults.length > 0
              ? hunt.touched(s, 'stop' in s.place ? s.place.stop : own)
              : null,
        })),
      none: diagnosis.none,
      warnings: warningsOf(diagnosis, evidence, run),
      unworkable: diagnosis.unworkable.map((k) => keyWords(k, run)),
      blocked: held.blocked.map(({ id, stop }) => ({
        id,
        words: `${run.stops[stop]?.box.name ?? '?'}: behind furniture, asked for later`,
      })),
      findings: evidence.map(({ id, finding, after }) => ({
        id,
        words: findingWords(finding, run),
        contradicts: contradicts.get(id) ?? 'no',
        after,
      })),
      answers:
        next.do === 'measure'
          ? next.advice.answers.map((a) => ({
              says: a.says,
              share: a.share,
              leaves: a.leaves.map((l) => ({ words: keyWords(l.key, run), share: l.share })),
            }))
          : [],
      others:
        next.do === 'measure'
          ? next.others.map((o) => ({
              order: orderText({ do: 'measure', advice: o, others: [] }, run),
              words: measureWords(o.measure, run).title,
            }))
          : [],
      mended: mended.map((k) => keyWords(k, run)),
      milliseconds: performance.now() - started,
    };
  }

  private huntFor({ ground }: HuntCase, { document }: Context, found: ReadonlyMap<CauseKind, number>): Hunt {
    const { factors } = document.job.settings.hunt;
    const key = JSON.stringify([
      ground.run.circuit,
      ground.run.stops.map((s) => [s.box.id, s.box.device, s.box.found, s.box.grounding, s.box.wiring]),
      ground.house.panels.map((p) => [p.name, p.feeder]),
      ground.orders,
      factors,
      [...found],
    ]);
    if (key !== this.key || !this.hunt) {
      const priors: Priors = { factors, found };
      this.hunt = new Hunt(ground, priors);
      this.key = key;
    }
    return this.hunt;
  }
}

function noteOf(next: Next, best: string, { ground }: HuntCase): string {
  const first = best === '' ? '' : `Likeliest: ${best}. `;
  switch (next.do) {
    case 'measure':
      return `${first}Next: ${measureWords(next.advice.measure, ground.run).title}`.slice(0, 390);
    case 'repair':
      return `${Math.round(100 * next.share)} %: ${keyWords(next.key, ground.run)}`.slice(0, 390);
    case 'done':
      return 'Nothing more shows';
    case 'stop':
      return next.why === 'none fits' ? 'None of the causes fits what was seen' : 'Nothing left to ask';
  }
}
