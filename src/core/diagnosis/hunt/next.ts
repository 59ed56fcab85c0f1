/**
 * The next measurement: most bits for its cost, and of the best few the one whose answers leave least to do. It stops when
 * what remains has one repair.
 */
import type { Run } from '#core/circuits/run.ts';
import { KINDS, type Danger } from './kinds.ts';
import type { Hypothesis } from './branch.ts';
import type { Diagnosis, Hunt } from './hunt.ts';
import type { Evidence } from './evidence.ts';
import { costOf, measureKey, measuresOf, whyNotNow, type Measure, type Situation } from './measures.ts';
import type { Shares } from './outcomes.ts';
import { placeKey } from './causes.ts';

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

/** What has to be off, and who is called, before anything else. */
export interface Warning {
  danger: Danger;
  share: number;
  text: string;
}

/** From this share on a repair is begun, and a danger said first. */
const SURE = 0.9;
/** After a repair: that nothing more is the matter. */
const MENDED = 0.85;
/** Before so many findings nobody says that none fits. */
const FEW = 8;
const LIKELY = 0.25;
/** Hypotheses that are weighed, and how much of all they have to cover. */
const MOST = 320;
const COVER = 0.995;
/** Measures that are looked at two steps ahead, and those that may follow one of them. */
const AHEAD = 6;
const FOLLOW = 18;
/** Other measures that are offered beside the best. */
const OTHERS = 4;
/** Least bits that a measure is asked for. */
const LEAST_BITS = 0.004;

interface Weighed {
  h: Hypothesis;
  key: string;
  share: number;
  group: number;
}

/** A share of each repair, whatever else is the matter beside it. */
export function marginals({ suspects }: Diagnosis): Map<string, number> {
  const list = new Map<string, number>();
  for (const { key, share, second, kind, place } of suspects) {
    const keys = second ? [`${placeKey(place)} ${kind}`, second.key] : [key];
    for (const k of keys) list.set(k, (list.get(k) ?? 0) + share);
  }
  return list;
}

/** Dangers that are likely, worst first. */
export function warningsOf(diagnosis: Diagnosis): Warning[] {
  const { suspects } = diagnosis;
  const shares = new Map<Danger, number>();
  let service = 0;
  for (const { kind, second, share } of suspects) {
    const kinds = [kind, ...(second ? [second.kind] : [])];
    const dangers = new Set(kinds.map((k) => KINDS[k].danger));
    for (const d of dangers) shares.set(d, (shares.get(d) ?? 0) + share);
    if (kinds.some((k) => k === 'service-neutral' || k === 'feeder-neutral')) service += share;
  }
  const list: Warning[] = [];
  const over = Math.max(service, shares.get('overvoltage') ?? 0);
  if (over >= LIKELY)
    list.push({
      danger: 'overvoltage',
      share: over,
      text: 'Main off now, and what is plugged in unplugged: a lost neutral puts up to 240 V on one half of the house. Where it is the service’s, call the utility.',
    });
  const shock = shares.get('shock') ?? 0;
  if (shock >= LIKELY)
    list.push({
      danger: 'shock',
      share: shock,
      text: 'Metal that is plugged in here may be live: breaker off while nobody measures, and nobody touches it. Somebody who felt a shock sees a doctor.',
    });
  const fire = shares.get('fire') ?? 0;
  if (fire >= 2 * LIKELY)
    list.push({
      danger: 'fire',
      share: fire,
      text: 'It may be heating where nobody sees it: breaker off between measurements. Smoke or a hot wall: out of the house, and the fire department.',
    });
  return list;
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
  const [best] = [...marginals(diagnosis)].sort((a, b) => b[1] - a[1]);
  const held = best && !best[0].endsWith(' nothing') ? { key: best[0], share: best[1] } : null;
  const weighed = weigh(hunt, diagnosis);
  const open = openMeasures(hunt, weighed, evidence, mended, situation);
  // Before what nobody sees by looking is mended, it is asked for another way.
  const confirming =
    held && mustAsk(held.key) ? confirms(held.key, hunt.ground.run, evidence) : new Set<string>();
  const asks = open.find((o) => confirming.has(measureKey(o.measure)));
  if (held && held.share >= SURE && !asks) return { do: 'repair', ...held };
  // After a repair the outlets of the complaint and the ends of the run are loaded once: a second fault shows there.
  const again = mended.length > 0 ? retests(hunt.ground.run, evidence) : new Set<string>();
  const retest = open.find((o) => again.has(measureKey(o.measure)));
  if (mended.length > 0 && sound >= MENDED && !retest) return { do: 'done' };
  const p = weighed.map((w) => w.share);
  const minutes = endsOf(weighed, hunt.ground.run, situation);
  const groups = 1 + Math.max(-1, ...weighed.map((w) => w.group));
  const before = entropyOf(p, weighed, groups);
  const told = open
    .map((o) => {
      const left = [...split(o.table, p).values()];
      const bits = before - left.reduce((sum, q) => sum + sumOf(q) * entropyOf(q, weighed, groups), 0);
      return { ...o, bits, left };
    })
    .filter((o) => o.bits >= LEAST_BITS);
  const cheapest = Math.min(PER_BIT.most, ...told.map((o) => o.cost / o.bits));
  const ends: Ends = { minutes, perBit: Math.max(PER_BIT.least, cheapest) };
  const scored = told
    .map((o) => ({ ...o, toGo: o.cost + o.left.reduce((sum, q) => sum + sequence(q, weighed, ends), 0) }))
    .sort((x, y) => x.toGo - y.toGo);
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
  if (held && asks && held.share >= SURE) return measured(asks);
  if (retest && sound >= MENDED) return measured(retest);
  const trade = open.find((o) => tradeAsks(evidence, mended.length).has(measureKey(o.measure)));
  if (trade) return measured(scored.find((s) => s.measure === trade.measure) ?? trade);
  if (scored.length === 0) {
    if (held && held.share > none) return asks ? measured(asks) : { do: 'repair', ...held };
    if (mended.length > 0) return { do: 'done' };
    return { do: 'stop', why: none > (best?.[1] ?? 0) ? 'none fits' : 'nothing left' };
  }
  const follow = scored.slice(0, FOLLOW);
  const [chosen] = scored
    .slice(0, AHEAD)
    .map((s) => ({
      ...s,
      toGo: s.cost + s.left.reduce((sum, q) => sum + ahead(q, follow, weighed, ends), 0),
    }))
    .sort((x, y) => x.toGo - y.toGo);
  // Where looking where it most likely is ends sooner than any measure, that is what is done.
  if (held && sequence(p, weighed, ends) <= chosen!.toGo) {
    const shows = confirms(held.key, hunt.ground.run, evidence);
    const look = scored.find((s) => shows.has(measureKey(s.measure)));
    if (look) return measured(look);
    if (!asks) return { do: 'repair', ...held };
  }
  return measured(chosen!);
}

/** Measures that would show a second fault. */
function retests(run: Run, evidence: readonly Evidence[]): ReadonlySet<string> {
  const complained = evidence.flatMap(({ finding, after }) =>
    after === 0 && (finding.kind === 'works' || finding.kind === 'volts' || finding.kind === 'shock')
      ? [finding.stop]
      : [],
  );
  const leaves = run.stops.flatMap((_, i) => (run.stops.some((s) => s.feeder === i) ? [] : [i]));
  return new Set([...complained.slice(0, 2), ...leaves].map((stop) => `volts ${stop} 10`));
}

/**
 * What the trade asks first, whatever tells more: the amperes of a breaker that lets go after minutes, before anything is
 * opened; and the ground slot against a proven ground where somebody felt a shock, since a live frame may read correct.
 */
const tradeAsks = (evidence: readonly Evidence[], repairs: number): ReadonlySet<string> =>
  new Set(
    evidence
      .filter((e) => e.after >= repairs)
      .flatMap(({ finding }) => {
        if (finding.kind === 'breaker' && finding.does === 'trips later') return ['amps'];
        return finding.kind === 'shock' ? [`reference ${finding.stop}`] : [];
      }),
  );

/** A measure that may be asked for, with what it would show under each hypothesis. */
interface Open {
  measure: Measure;
  cost: number;
  table: readonly Shares[];
}

function openMeasures(
  hunt: Hunt,
  weighed: readonly Weighed[],
  evidence: readonly Evidence[],
  mended: readonly string[],
  situation: Situation,
): Open[] {
  const { run } = hunt.ground;
  const asked = new Set(
    evidence.filter((e) => e.after >= mended.length).map(({ finding }) => repeats(finding)),
  );
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

/** What nobody sees by looking where it is mended; a box is opened to be mended anyway. */
const mustAsk = (key: string): boolean => ['cable', 'service', 'plugged'].includes(key.split(' ')[0]!);

/** Measures that show a cause where it is, before anybody mends it. */
function confirms(key: string, run: Run, evidence: readonly Evidence[]): ReadonlySet<string> {
  const [at, where, kind] = key.split(' ');
  switch (at) {
    case 'box':
      return new Set([`open ${where}`]);
    case 'panel':
      return new Set(kind === undefined && where === 'breaker-off' ? [] : ['open -1']);
    case 'cable':
      return new Set([
        `open ${where}`,
        `open ${run.stops[Number(where)]!.feeder}`,
        'elsewhere',
        // From the panel on a home run reads as what is before the panel does.
        ...(run.stops[Number(where)]!.feeder < 0 ? ['legs'] : []),
      ]);
    case 'service':
      return new Set(['elsewhere', 'legs']);
    case 'plugged':
      return new Set([
        where === 'overload' ? 'amps' : 'appliance',
        // A breaker that went is closed once with all unplugged before a load is blamed.
        ...(evidence.some((e) => e.finding.kind === 'breaker' && e.finding.does !== 'holds')
          ? ['breaker']
          : []),
        // Before something is blamed that gave a shock, its outlet is: the slots, and their ground.
        ...evidence.flatMap(({ finding }) =>
          finding.kind === 'shock' ? [`volts ${finding.stop} 0`, `reference ${finding.stop}`] : [],
        ),
      ]);
    default:
      return new Set();
  }
}

/** Minutes to find out that a cause is it, by looking for it itself. */
const TO_END = { cable: 45, panel: 20, service: 14, plugged: 6, nowhere: 4 } as const;

/** What it takes to come to an end. */
interface Ends {
  /** By group: minutes to look for it where it is. */
  minutes: readonly number[];
  /** Minutes that a bit costs by the best measure that there is. */
  perBit: number;
}

/** By group: minutes to look for it where it is. */
function endsOf(weighed: readonly Weighed[], run: Run, situation: Situation): number[] {
  const ends: number[] = [];
  for (const { group, key } of weighed) {
    if (ends[group] !== undefined) continue;
    ends[group] = key.split(' + ').reduce((sum, part) => {
      const [at, where] = part.split(' ');
      if (at === 'box') return sum + costOf({ kind: 'open', stop: Number(where) }, run, situation.blocked);
      return sum + TO_END[at as keyof typeof TO_END];
    }, 0);
  }
  return ends;
}

/** What is not looked for at once is measured for: minutes to the last look, and for each bit before it, within these. */
const LAST_LOOK = 18;
const PER_BIT = { least: 6, most: 30 } as const;

/**
 * Minutes to the end: looking for one cause after the other by share per minute, up to where measuring on is shorter. Weights
 * need not add up to one; what they lack has another answer.
 */
function sequence(
  p: ArrayLike<number>,
  weighed: readonly Weighed[],
  { minutes: ends, perBit }: Ends,
): number {
  const sums = new Float64Array(ends.length);
  let left = 0;
  for (let i = 0; i < p.length; i++) {
    sums[weighed[i]!.group]! += p[i]!;
    left += p[i]!;
  }
  const order: number[] = [];
  let spread = 0;
  for (let g = 0; g < sums.length; g++) {
    if (sums[g]! <= 1e-7) continue;
    order.push(g);
    spread += sums[g]! * Math.log2(sums[g]!);
  }
  order.sort((a, b) => sums[b]! / ends[b]! - sums[a]! / ends[a]!);
  let minutes = 0;
  let least = Infinity;
  for (const g of order) {
    // The bits of what is left, by its own shares.
    const bits = Math.max(0, left * Math.log2(left) - spread);
    least = Math.min(least, minutes + LAST_LOOK * left + perBit * bits);
    minutes += left * ends[g]!;
    spread -= sums[g]! * Math.log2(sums[g]!);
    left = Math.max(1e-12, left - sums[g]!);
  }
  return Math.min(least, minutes);
}

/** What an answer leaves to do: looking at once, or the best measure first. */
function ahead(
  q: Float64Array,
  follow: readonly { cost: number; table: readonly Shares[] }[],
  weighed: readonly Weighed[],
  ends: Ends,
): number {
  const share = sumOf(q);
  let least = sequence(q, weighed, ends);
  if (share < 0.02 || least < 8 * share) return least;
  for (const { cost, table } of follow) {
    let minutes = share * cost;
    for (const left of split(table, q).values()) minutes += sequence(left, weighed, ends);
    least = Math.min(least, minutes);
  }
  return least;
}

/** The measure that a finding answers already. */
function repeats(finding: Evidence['finding']): string {
  switch (finding.kind) {
    case 'volts':
      if (finding.reference !== null) return measureKey({ kind: 'reference', stop: finding.stop });
      return measureKey({ kind: 'volts', stop: finding.stop, amps: finding.amps > 0 ? 10 : 0 });
    case 'ohms':
      return measureKey({ kind: 'ohms', stop: finding.stop, pair: finding.pair });
    case 'opened':
      return measureKey({ kind: 'open', stop: finding.stop });
    case 'parted':
      return measureKey({ kind: 'part', stop: finding.stop });
    case 'breaker':
      return finding.unplugged ? 'breaker' : '';
    case 'device':
    case 'works':
      return `${finding.kind} ${finding.stop}`;
    case 'legs':
    case 'appliance':
    case 'elsewhere':
    case 'amps':
      return finding.kind;
    default:
      return '';
  }
}

/** The likeliest hypotheses with their shares made whole, each with its group: what is mended alike. */
function weigh(hunt: Hunt, diagnosis: Diagnosis): Weighed[] {
  const list: Weighed[] = [];
  const groups = new Map<string, number>();
  let covered = 0;
  const total = 1 - diagnosis.none;
  for (let i = 0; i < hunt.hypotheses.length && list.length < MOST && covered < COVER * total; i++) {
    const h = hunt.hypotheses[i]!;
    const key = hunt.keyOfHypothesis(h);
    const group = groups.get(key) ?? groups.size;
    groups.set(key, group);
    list.push({ h, key, share: hunt.shares[i]!, group });
    covered += hunt.shares[i]!;
  }
  return list.map((w) => ({ ...w, share: w.share / covered }));
}

function entropyOf(p: ArrayLike<number>, weighed: readonly Weighed[], groups: number): number {
  const sums = new Float64Array(groups);
  let total = 0;
  for (let i = 0; i < p.length; i++) {
    sums[weighed[i]!.group]! += p[i]!;
    total += p[i]!;
  }
  if (total <= 0) return 0;
  let bits = 0;
  for (const s of sums) if (s > 0) bits -= (s / total) * Math.log2(s / total);
  return bits;
}

/** Answers of a measure: for each, the weights that remain. */
function split(table: readonly Shares[], p: ArrayLike<number>): Map<string, Float64Array> {
  const by = new Map<string, Float64Array>();
  table.forEach((shares, i) => {
    for (const [key, share] of shares) {
      let list = by.get(key);
      if (!list) by.set(key, (list = new Float64Array(p.length)));
      list[i] = p[i]! * share;
    }
  });
  return by;
}
const sumOf = (list: Float64Array): number => list.reduce((a, b) => a + b, 0);

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
