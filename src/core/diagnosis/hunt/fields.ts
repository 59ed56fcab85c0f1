/** What is worked out for the slots of a stop: volts on meters and under loads, ohms between them, and where they stand in a table. */
import { HIGH_OHMS, LOW_OHMS } from '#core/instruments/meter.ts';
import { PERSON_OHMS } from '#core/network/layout.ts';
import { EARTH } from '#core/network/network.ts';
import type { Probe } from '#core/network/predict.ts';
import type { Wiring } from '#core/network/wiring.ts';
import { PAIRS, type Pair } from './evidence.ts';

export const NOMINAL = 120;
/** A load that a tester puts on: 10 A at 120 V. */
export const TEST_OHMS = 12;

/** What is worked out for each stop: a pair of slots on a meter of so many ohms, or a place to earth. */
const FIELDS = [
  ...PAIRS.map((pair) => ({ pair, ohms: HIGH_OHMS })),
  ...PAIRS.map((pair) => ({ pair, ohms: LOW_OHMS })),
  { pair: 'hotNeutral', ohms: TEST_OHMS },
  { pair: 'body', ohms: PERSON_OHMS },
  { pair: 'reference', ohms: LOW_OHMS },
] as const;
export const FIELD = {
  high: 0,
  low: PAIRS.length,
  loaded: 2 * PAIRS.length,
  body: 2 * PAIRS.length + 1,
  reference: 2 * PAIRS.length + 2,
  /** Ohms between each pair of slots as they are fed. */
  ohms: 2 * PAIRS.length + 3,
} as const;
export const WIDTH = FIELDS.length + PAIRS.length;

/** From so many ohms on nothing feeds a pair of slots: what it shows is picked up. */
export const FLOATS = 5e4;

/**
 * Volts from the third of three terminals of a network to one of two that a current flows between.
 * @param volts without that current
 * @param near ohms between the two
 * @param far ohms of the third to the one that the volts are read to, and `across` to the other
 */
export const thirdTerminal = (
  volts: number,
  amps: number,
  near: number,
  far: number,
  across: number,
): number => Math.abs(volts + (amps * (near + far - across)) / 2);

/** Volts with a joint of so many ohms, from those of none, of one ohm, and of one that is parted: a Möbius function of its ohms. */
export function joint(none: number, one: number, parted: number, ohms: number): number {
  const bend = (none - one) / (one - parted);
  if (Math.abs(none - one) < 1e-6 || !Number.isFinite(bend)) return none;
  if (bend <= 0) return none + (one - none) * Math.min(ohms, 3);
  return (none + parted * bend * ohms) / (1 + bend * ohms);
}

/**
 * Volts between a pair of slots with a load between hot and neutral there. Hot, neutral and ground are three terminals of a
 * network: what a current between two of them does to the third follows from the ohms between each pair.
 * @param row volts and ohms of the fields there, without the load
 */
export function underLoad(row: ArrayLike<number>, pair: Pair, amps: number): number {
  const hn = row[FIELD.ohms]!;
  const hg = row[FIELD.ohms + 1]!;
  const ng = row[FIELD.ohms + 2]!;
  // A ground that hangs loose is not moved by what flows between the others.
  const loose = hn < FLOATS && ng > FLOATS;
  const [hotGround, neutralGround] = [row[FIELD.high + 1]!, row[FIELD.high + 2]!];
  // Where hot and neutral changed places it flows the other way.
  const flows = ((hotGround < neutralGround ? -1 : 1) * row[FIELD.high]!) / (hn + NOMINAL / amps);
  switch (pair) {
    case 'hotNeutral':
      return Math.abs(flows) * (NOMINAL / amps);
    case 'hotGround':
      return loose ? hotGround : thirdTerminal(hotGround, -flows, hn, hg, ng);
    case 'neutralGround':
      return loose ? neutralGround : thirdTerminal(neutralGround, flows, hn, ng, hg);
    case 'hotHot':
      return row[FIELD.high + 3]!;
  }
}

/** The nodes of a field at a stop; null where it has no such slots. */
export function nodesOf(
  { terminals, panel }: Wiring,
  stop: number,
  field: Pair | 'body' | 'reference',
): [number, number] | null {
  const { hot, neutral, ground, red } = terminals[stop]!;
  switch (field) {
    case 'hotNeutral':
      return [hot, neutral];
    case 'hotGround':
      return [hot, ground];
    case 'neutralGround':
      return neutral === ground ? null : [neutral, ground];
    case 'hotHot':
      return red === null ? null : [hot, red];
    case 'body':
      return [ground, EARTH];
    case 'reference':
      return [ground, panel.ground];
  }
}

/** Probes of a stop’s fields, and where each goes in a table whose row has the stop at a position. */
export function ask(wiring: Wiring, stop: number, at: number, probes: Probe[], places: number[]): void {
  FIELDS.forEach(({ pair, ohms }, f) => {
    const nodes = nodesOf(wiring, stop, pair);
    if (!nodes) return;
    probes.push({ a: nodes[0], b: nodes[1], ohms });
    places.push(at * WIDTH + f);
  });
}

/** Puts what the probes of `ask` read into a row of a table; the first fields have their ohms beside them. */
export function put(
  table: Float32Array,
  row: number,
  places: readonly number[],
  volts: Float64Array,
  ohms: Float64Array,
): void {
  places.forEach((place, p) => {
    table[row + place] = volts[p]!;
    const field = place % WIDTH;
    if (field < PAIRS.length) table[row + place + FIELD.ohms] = ohms[p]!;
  });
}
