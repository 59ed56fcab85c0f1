/** Hypotheses with their weights, and how many minutes they leave to the end: by looking at once, or by measuring on. */
import type { Run } from '#core/circuits/run.ts';
import type { Hypothesis } from './branch.ts';
import { costOf, type Situation } from './measures.ts';
import type { Shares } from './outcomes.ts';

export interface Weighed {
  h: Hypothesis;
  key: string;
  share: number;
  group: number;
}

/** Minutes to find out that a cause is it, by looking for it itself. */
const TO_END = { cable: 45, panel: 20, service: 14, plugged: 6, nowhere: 4 } as const;

/** What it takes to come to an end. */
export interface Ends {
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
export const PER_BIT = { least: 6, most: 30 } as const;

/**
 * Minutes to the end: looking for one cause after the other by share per minute, up to where measuring on is shorter. Weights
 * need not add up to one; what they lack has another answer.
 */
export function sequence(
  p: ArrayLike<number>,
  weighed: readonly Weighed[],
  { minutes: ends, perBit }: Ends,
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
export function ahead(
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

/** Bits between groups. */
export function entropyOf(p: ArrayLike<number>, weighed: readonly Weighed[], groups: number): number {
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

export const sumOf = (list: Float64Array): number => list.reduce((a, b) => a + b, 0);
