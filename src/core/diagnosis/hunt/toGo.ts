/** Hypotheses with their weights, and how many minutes they leave to the end: by looking at once, or by measuring on. */
import type { Run } from '#core/circuits/run.ts';
import type { Hypothesis } from './branch.ts';
import { isTurnedOff } from './asking.ts';
import { costOf, type Situation } from './measures.ts';
import type { Shares } from './outcomes.ts';

export interface Weighed {
  h: Hypothesis;
  key: string;
  share: number;
  group: number;
}

/** Minutes to find out that a cause is it, by looking for it itself. */
const TO_END = { cable: 45, panel: 20, service: 14, plugged: 6, nowhere: 4, turned: 4 } as const;

/** What it takes to come to an end. */
interface Ends {
  /** By group: minutes to look for it where it is. */
  minutes: readonly number[];
  /** Minutes that a bit costs by the best measure that there is. */
  perBit: number;
}

/** By group: minutes to look for it where it is. */
export function endsOf(weighed: readonly Weighed[], run: Run, situation: Situation): number[] {
  const ends: number[] = [];
  for (const { group, key } of weighed) {
    if (ends[group] !== undefined) continue;
    ends[group] = key.split(' + ').reduce((sum, part) => {
      const [at, where] = part.split(' ');
      if (isTurnedOff(part)) return sum + TO_END.turned;
      if (at === 'box') return sum + costOf({ kind: 'open', stop: Number(where) }, run, situation.blocked);
      return sum + TO_END[at as keyof typeof TO_END];
    }, 0);
  }
  return ends;
}

/** The weights of each group together. */
function byGroup(p: ArrayLike<number>, weighed: readonly Weighed[], groups: number): Float64Array {
  const sums = new Float64Array(groups);
  for (let i = 0; i < p.length; i++) sums[weighed[i]!.group]! += p[i]!;
  return sums;
}

/** What is not looked for at once is measured for: minutes to the last look, and for each bit before it, within these. */
const LAST_LOOK = 18;
const PER_BIT = { least: 12, most: 30 } as const;

/**
 * Minutes to the end: looking for one cause after the other by share per minute, up to where measuring on is shorter. Weights
 * need not add up to one; what they lack has another answer.
 * @param looked groups that are looked for in any case, before anything is measured
 */
function sequence(
  p: ArrayLike<number>,
  weighed: readonly Weighed[],
  { minutes: ends, perBit }: Ends,
  looked = 0,
): number {
  const sums = byGroup(p, weighed, ends.length);
  let left = sumOf(sums);
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
  for (const [k, g] of order.entries()) {
    // The bits of what is left, by its own shares.
    const bits = Math.max(0, left * Math.log2(left) - spread);
    if (k >= looked) least = Math.min(least, minutes + LAST_LOOK * left + perBit * bits);
    minutes += left * ends[g]!;
    spread -= sums[g]! * Math.log2(sums[g]!);
    left = Math.max(1e-12, left - sums[g]!);
  }
  return Math.min(least, minutes);
}

/** Measures that are looked at two steps ahead, and those that may follow one of them. */
const AHEAD = 6;
const FOLLOW = 18;
/** Minutes two steps ahead that are as good as the least, as a share of them. */
const AS_GOOD = 1.01;
/** Least bits that a measure is asked for. */
const LEAST_BITS = 0.004;

/** What may be measured: weighed minutes, and what it would show under each hypothesis. */
export interface Option {
  cost: number;
  table: readonly Shares[];
}

export interface Chosen<O> {
  /** All that tell something, those first after which fewest minutes are left, with their bits. */
  scored: readonly (O & { bits: number })[];
  /** The best of the first few, two steps ahead; null where nothing tells anything. */
  best: (O & { bits: number }) | null;
  /** Looking where it most likely is ends sooner than any of them. */
  looks: boolean;
}

/** Which of some measures comes next. @param minutes by group, to look for it where it is */
export function choose<O extends Option>(
  options: readonly O[],
  p: ArrayLike<number>,
  weighed: readonly Weighed[],
  minutes: readonly number[],
): Chosen<O> {
  const groups = minutes.length;
  const before = entropyOf(p, weighed, groups);
  const total = sumOf(p);
  const told = options
    .map((o) => {
      const left = [...split(o.table, p).values()];
      const bits =
        before - left.reduce((sum, q) => sum + (sumOf(q) / total) * entropyOf(q, weighed, groups), 0);
      return { ...o, bits, left };
    })
    .filter((o) => o.bits >= LEAST_BITS);
  const cheapest = Math.min(PER_BIT.most, ...told.map((o) => o.cost / o.bits));
  const ends: Ends = { minutes, perBit: Math.max(PER_BIT.least, cheapest) };
  const after = (o: (typeof told)[number], of: (q: Float64Array) => number) =>
    total * o.cost + o.left.reduce((sum, q) => sum + of(q), 0);
  const scored = told
    .map((o) => ({ ...o, toGo: after(o, (q) => sequence(q, weighed, ends)) }))
    .sort((x, y) => x.toGo - y.toGo);
  const follow = scored.slice(0, FOLLOW);
  const further = scored
    .slice(0, AHEAD)
    .map((o) => ({ ...o, toGo: after(o, (q) => ahead(q, follow, weighed, ends)) }));
  const least = Math.min(...further.map((o) => o.toGo));
  // Of those that are as good two steps ahead the one that is best by itself.
  const best = further.find((o) => o.toGo <= AS_GOOD * least);
  return {
    scored,
    best: best ?? null,
    looks: best !== undefined && sequence(p, weighed, ends, 1) <= best.toGo,
  };
}

/** What an answer leaves to do: looking at once, or the best measure first. */
function ahead(q: Float64Array, follow: readonly Option[], weighed: readonly Weighed[], ends: Ends): number {
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

/** Bits between groups. */
function entropyOf(p: ArrayLike<number>, weighed: readonly Weighed[], groups: number): number {
  const sums = byGroup(p, weighed, groups);
  const total = sumOf(sums);
  if (total <= 0) return 0;
  let bits = 0;
  for (const s of sums) if (s > 0) bits -= (s / total) * Math.log2(s / total);
  return bits;
}

/** Answers of a measure: for each, the weights that remain. */
export function split(table: readonly Shares[], p: ArrayLike<number>): Map<string, Float64Array> {
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

export function sumOf(list: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < list.length; i++) sum += list[i]!;
  return sum;
}
