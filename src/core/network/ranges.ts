/** What may be read while loads elsewhere are not known: each somewhere from off to its most. */
import type { Probe } from './predict.ts';
import { resistor, solved } from './read.ts';
import type { Wiring } from './wiring.ts';

export interface Range {
  least: number;
  most: number;
}

/**
 * Least and most volts at a probe over loads that may be on or off.
 *
 * A voltage is a quotient of two linear functions of each load’s conductance, so that it goes one way between off and on:
 * which way, is asked of each load alone, and those that raise it, and those that lower it, are put on together. Loads of two
 * legs lower it through nothing: it is taken with its sign, in phase with the legs.
 * @param loads branches of loads, laid out with their most
 */
export function rangeOf(wiring: Wiring, { a, b, ohms }: Probe, loads: readonly number[]): Range {
  const set = new Set(loads);
  const read = (on: ReadonlySet<number>): number => {
    const branches = wiring.branches.map((branch, k) =>
      set.has(k) && !on.has(k) ? { ...branch, conductance: 0 } : branch,
    );
    const voltages = solved({ ...wiring, branches }, [resistor(a, b, ohms)]);
    return voltages.at(a).re - voltages.at(b).re;
  };
  const off = read(new Set());
  const moves = loads.map((branch) => ({ branch, by: read(new Set([branch])) - off }));
  const raised = read(new Set(moves.flatMap(({ branch, by }) => (by > 0 ? [branch] : []))));
  const lowered = read(new Set(moves.flatMap(({ branch, by }) => (by < 0 ? [branch] : []))));
  const [low, high] = [Math.min(off, lowered), Math.max(off, raised)];
  const ends = [Math.abs(low), Math.abs(high)];
  return { least: low < 0 && high > 0 ? 0 : Math.min(...ends), most: Math.max(...ends) };
}
