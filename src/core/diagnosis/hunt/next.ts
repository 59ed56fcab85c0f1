/**
 * The next measurement: the one after which fewest minutes are left to the end, of the best few two steps ahead. It stops when
 * what remains has one repair.
 */
import type { Diagnosis, Hunt } from './hunt.ts';
import type { Evidence } from './evidence.ts';
import {
  costOf,
  MEASURE_FACTS,
  measureKey,
  measuresOf,
  whyNotNow,
  type Measure,
  type Situation,
} from './measures.ts';
import type { Shares } from './outcomes.ts';
import {
  closesAgain,
  confirms,
  isDenied,
  isShort,
  isTurnedOff,
  mustAsk,
  repeats,
  retests,
  seenUnmended,
  tradeAsks,
} from './asking.ts';
import { choose, endsOf, split, sumOf, type Option, type Weighed } from './toGo.ts';

/** An answer that a measure may give, and what it would leave. */
interface Answer {
  says: string;
  share: number;
  /** Keys of what would remain, best first. */
  leaves: readonly { key: string; share: number }[];
}

export interface Advice {
  measure: Measure;
  /** Minutes that it weighs. */
  cost: number;
  /** Bits that it is expected to bring. */
  bits: number;
  answers: readonly Answer[];
}

/** What is to be done now. */
export type Next =
  /** What remains has one repair. */
  | { do: 'repair'; key: string; share: number }
  /** All that was asked about is mended, and nothing shows any more. */
  | { do: 'done' }
  | { do: 'measure'; advice: Advice; others: readonly Advice[] }
  /** What was seen fits nothing that is known here, or nothing allowed is left to ask. */
  | { do: 'stop'; why: 'none fits' | 'nothing left' };

/** From this share on a repair is begun. */
const SURE = 0.9;
/** After a repair: that nothing more is the matter. */
const MENDED = 0.85;
/** Before so many findings nobody says that none fits. */
const FEW = 8;
/** Hypotheses that are weighed, and how much of all they have to cover. */
const MOST = 320;
const COVER = 0.995;
/** From this share on a short is still likely: no breaker is closed onto it after a repair. */
const SHORT_LEFT = 0.1;
/** Other measures that are offered beside the best. */
const OTHERS = 4;

/** A share of each repair, whatever else is the matter beside it. */
export function marginals({ suspects }: Diagnosis): Map<string, number> {
  const list = new Map<string, number>();
  for (const { key, share } of suspects)
    for (const k of key.split(' + ')) list.set(k, (list.get(k) ?? 0) + share);
  return list;
}

/** What touches is parted by the same hands at the same place, whichever two of the conductors they are. */
const sameHands = (key: string): string => key.replaceAll(/ (?:short|ground-fault)\b/g, ' touch');

/** How likely a short is there, whatever else is. */
const shortShare = ({ suspects }: Diagnosis): number =>
  suspects.reduce((sum, s) => sum + (s.key.split(' + ').some(isShort) ? s.share : 0), 0);

/** Whether its breaker is closed for it. */
const needsPower = ({ kind }: Measure): boolean =>
  kind === 'breaker' || MEASURE_FACTS[kind].gates.includes('power on');

/** The likeliest repair that may be offered, with the share of all that the same hands mend. */
function likeliest(
  diagnosis: Diagnosis,
  offered: (key: string) => boolean,
): { key: string; share: number } | null {
  const shares = [...marginals(diagnosis)].filter(([key]) => offered(key)).sort((a, b) => b[1] - a[1]);
  const by = new Map<string, { key: string; share: number }>();
  for (const [key, share] of shares) {
    const known = by.get(sameHands(key));
    if (known) known.share += share;
    else by.set(sameHands(key), { key, share });
  }
  return [...by.values()].sort((a, b) => b.share - a.share)[0] ?? null;
}

/**
 * @param diagnosis of the same evidence, just made by the hunt
 */
export function nextOf(
  hunt: Hunt,
  diagnosis: Diagnosis,
  evidence: readonly Evidence[],
  mended: readonly string[],
  situation: Situation,
): Next {
  const { suspects, none } = diagnosis;
  const sound = suspects.find((s) => s.kind === 'nothing' && s.second === null)?.share ?? 0;
  if (none >= 0.5 && evidence.length >= FEW) return { do: 'stop', why: 'none fits' };
  // What was seen in an opened box is mended there, whatever else may be the matter.
  const [seen] = seenUnmended(evidence, mended);
  if (seen !== undefined) return { do: 'repair', key: seen, share: 1 };
  const shorted = mended.length > 0 && shortShare(diagnosis) >= SHORT_LEFT;
  const offered = (key: string) => !isDenied(key, evidence, mended.length) && !(shorted && isTurnedOff(key));
  const best = likeliest(diagnosis, offered);
  const held = best && !best.key.endsWith(' nothing') ? best : null;
  const weighed = weigh(hunt, diagnosis);
  const open = openMeasures(hunt, weighed, evidence, mended, situation).filter(
    ({ measure }) => !shorted || !needsPower(measure),
  );
  const closing = closesAgain(mended, evidence);
  const closes = open.find((o) => closing.has(measureKey(o.measure)));
  // Before what nobody sees by looking is mended, it is asked for another way.
  const confirming =
    held && mustAsk(held.key) ? confirms(held.key, hunt.ground.run, evidence) : new Set<string>();
  const asks = open.find((o) => confirming.has(measureKey(o.measure)));
  if (held && held.share >= SURE && !asks && !closes) return { do: 'repair', ...held };
  // After a repair every outlet is loaded once: a second fault shows there.
  const again = mended.length > 0 && !situation.unread ? retests(hunt.ground.run) : new Set<string>();
  const retest = open.find((o) => again.has(measureKey(o.measure)));
  if (mended.length > 0 && sound >= MENDED && !retest && !shorted) return { do: 'done' };
  const p = weighed.map((w) => w.share);
  const {
    scored,
    best: chosen,
    looks,
  } = choose(open, p, weighed, endsOf(weighed, hunt.ground.run, situation));
  const measured = (chosen: Open & { bits?: number }): Next => {
    const advice = ({ measure, cost, table, bits = 0 }: Open & { bits?: number }): Advice => ({
      measure,
      cost,
      bits,
      answers: answersOf(table, weighed, p),
    });
    const others = scored.filter((s) => s.measure !== chosen.measure).slice(0, OTHERS);
    return { do: 'measure', advice: advice(chosen), others: others.map(advice) };
  };
  if (closes) return measured(closes);
  if (held && asks && held.share >= SURE) return measured(asks);
  if (retest && sound >= MENDED)
    return measured(scored.find((s) => again.has(measureKey(s.measure))) ?? retest);
  const trade = open.find((o) => tradeAsks(evidence, mended.length).has(measureKey(o.measure)));
  if (trade) return measured(scored.find((s) => s.measure === trade.measure) ?? trade);
  if (scored.length === 0) {
    if (held && held.share > none) return asks ? measured(asks) : { do: 'repair', ...held };
    if (mended.length > 0 && !shorted) return { do: 'done' };
    return { do: 'stop', why: none > (best?.share ?? 0) ? 'none fits' : 'nothing left' };
  }
  // Where looking where it most likely is ends sooner than any measure, that is what is done.
  if (held && looks && held.share > none) {
    const shows = confirms(held.key, hunt.ground.run, evidence);
    const look = scored.find((s) => shows.has(measureKey(s.measure)));
    if (look) return measured(look);
    return asks ? measured(asks) : { do: 'repair', ...held };
  }
  return measured(chosen!);
}

/** A measure that may be asked for, with what it would show under each hypothesis. */
interface Open extends Option {
  measure: Measure;
}

export function openMeasures(
  hunt: Hunt,
  weighed: readonly Weighed[],
  evidence: readonly Evidence[],
  mended: readonly string[],
  situation: Situation,
): Open[] {
  const { run } = hunt.ground;
  // A box that was looked into and found tight is so after the repair of another one as well.
  const holds = ({ after, finding }: Evidence) =>
    after >= mended.length || (finding.kind === 'opened' && finding.found.length === 0);
  const asked = new Set(evidence.filter(holds).map(({ finding }) => repeats(finding)));
  return measuresOf(run)
    .filter(
      (m) => !asked.has(measureKey(m)) && whyNotNow(m, run, situation, evidence, mended.length) === null,
    )
    .map((measure) => {
      const key = measureKey(measure);
      const table = weighed.map(({ h }) => {
        const { outcomes, drawing } = hunt.branches[h.branch]!;
        return outcomes.of(measure, key, h, drawing.stopOf);
      });
      return { measure, cost: costOf(measure, run, situation.blocked), table };
    });
}

/** The likeliest hypotheses with their shares made whole, each with its group: what is mended alike. */
export function weigh(hunt: Hunt, diagnosis: Diagnosis): Weighed[] {
  const list: Weighed[] = [];
  const groups = new Map<string, number>();
  let covered = 0;
  const total = 1 - diagnosis.none;
  for (let i = 0; i < hunt.hypotheses.length && list.length < MOST && covered < COVER * total; i++) {
    const h = hunt.hypotheses[i]!;
    const key = hunt.keyOfHypothesis(h);
    const group = groups.get(sameHands(key)) ?? groups.size;
    groups.set(sameHands(key), group);
    list.push({ h, key, share: hunt.shares[i]!, group });
    covered += hunt.shares[i]!;
  }
  return list.map((w) => ({ ...w, share: w.share / covered }));
}

function answersOf(table: readonly Shares[], weighed: readonly Weighed[], p: readonly number[]): Answer[] {
  return [...split(table, p)]
    .map(([says, left]): Answer => {
      const share = sumOf(left);
      const sums = new Map<string, number>();
      left.forEach((x, i) => sums.set(weighed[i]!.key, (sums.get(weighed[i]!.key) ?? 0) + x));
      const leaves = [...sums]
        .map(([key, x]) => ({ key, share: x / share }))
        .sort((a, b) => b.share - a.share)
        .slice(0, 4);
      return { says, share, leaves };
    })
    .filter((a) => a.share >= 0.02)
    .sort((a, b) => b.share - a.share)
    .slice(0, 4);
}
