/**
 * The best plan made of circuits that a search has met: set partitioning, bounded by prices of sites that no met circuit
 * is cheaper than (dual ascent; Fisher and Kedia, Management Science 36, 1990).
 */
import { firstIn, sitesIn } from './bits.ts';
import { NEAR } from './problem.ts';

/** Most sites: sets are bits of a number. */
export const MOST_RECOMBINED = 30;
/** Rounds of the ascent, what each gives up before the next, and steps of the search. */
const ROUNDS = 12;
const GIVEN_UP = 0.04;
const MOST_STEPS = 400_000;

/** A set of sites as bits, with its price, cents. */
interface Met {
  set: number;
  cents: number;
  /** Its price less what its sites are worth. */
  reduced: number;
}

/** Values of sites, so that no set is worth more than it costs, of a sum as high as soon found. */
function valuesOf(count: number, sets: readonly Met[]): Float64Array {
  const holding: Met[][] = Array.from({ length: count }, () => []);
  const value = new Float64Array(count).fill(Infinity);
  for (const met of sets) {
    const sites = sitesIn(met.set);
    for (const i of sites) {
      holding[i]!.push(met);
      value[i] = Math.min(value[i]!, met.cents / sites.length);
    }
  }
  const sum = () => value.reduce((t, v) => t + v, 0);
  let best = new Float64Array(count);
  let most = -Infinity;
  const order = Array.from({ length: count }, (_, i) => i);
  for (let round = 0; round < ROUNDS; round++) {
    for (const met of sets) met.reduced = met.cents;
    for (let i = 0; i < count; i++) for (const met of holding[i]!) met.reduced -= value[i]!;
    // By turns from either end, and by how much is left to each.
    if (round % 2 === 0) order.reverse();
    else order.sort((a, b) => value[b]! - value[a]!);
    for (const i of order) {
      let room = Infinity;
      for (const met of holding[i]!) if (met.reduced < room) room = met.reduced;
      value[i]! += room;
      for (const met of holding[i]!) met.reduced -= room;
    }
    if (sum() > most) {
      most = sum();
      best = value.slice();
    }
    for (let i = 0; i < count; i++) value[i]! *= 1 - GIVEN_UP;
  }
  return best;
}

/**
 * @param count sites
 * @param met prices of sets, as bits, cents
 * @param below what a plan has to cost less than
 * @returns the sets of the cheapest plan, as bits; null where none is below
 */
export function recombined(count: number, met: ReadonlyMap<number, number>, below: number): number[] | null {
  const sets = Array.from(met, ([set, cents]): Met => ({ set, cents, reduced: 0 }));
  const value = valuesOf(count, sets);
  const bound = value.reduce((t, v) => t + v, 0);
  const first: Met[][] = Array.from({ length: count }, () => []);
  for (const m of sets) {
    m.reduced = sitesIn(m.set).reduce((rest, i) => rest - value[i]!, m.cents);
    if (bound + m.reduced < below) first[firstIn(m.set)]!.push(m);
  }
  for (const list of first) list.sort((a, b) => a.reduced - b.reduced);
  let best: number[] | null = null;
  let limit = below - NEAR;
  let steps = 0;
  const chosen: number[] = [];
  const descend = (left: number, spent: number): void => {
    if (left === 0) {
      limit = spent - NEAR;
      best = [...chosen];
      return;
    }
    for (const { set, reduced } of first[firstIn(left)]!) {
      if (spent + reduced >= limit || ++steps > MOST_STEPS) return;
      if ((set & left) !== set) continue;
      chosen.push(set);
      descend(left ^ set, spent + reduced);
      chosen.pop();
    }
  };
  descend(2 ** count - 1, bound);
  return best;
}
