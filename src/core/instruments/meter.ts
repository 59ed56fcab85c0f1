/** Meters: volts at high and low impedance, ohms on a dead circuit, amperes by clamp. */
import { MAINS_HERTZ } from '#core/network/network.ts';
import { Factors } from '#core/network/solve.ts';
import type { Conductor, Wiring } from '#core/network/wiring.ts';
import { cableAt } from './connect.ts';
import { currentIn, impedanceBetween, magnitude, resistor, solved, sum, unfed } from '#core/network/read.ts';

/** Input of a digital meter, and of its low-impedance setting or a tester that loads what it reads. */
export const HIGH_OHMS = 1e7;
export const LOW_OHMS = 3000;
/** A meter sees no more than this, ohms. */
const MOST_OHMS = 4e7;
/** With more than this between its probes a meter refuses to read ohms, volts. */
const LIVE_VOLTS = 1;

/** Volts between two nodes with the meter on them. */
export const readVolts = (wiring: Wiring, a: number, b: number, inputOhms = HIGH_OHMS): number =>
  solved(wiring, [resistor(a, b, inputOhms)]).between(a, b);

export type OhmsReading =
  | { shows: 'ohms'; ohms: number }
  | { shows: 'over' }
  | { shows: 'live'; volts: number };

/** Ohms between two nodes, by a small direct current; the circuit must be dead. */
export const readOhms = (wiring: Wiring, a: number, b: number): OhmsReading =>
  resistance(wiring, a, b, MOST_OHMS);

/** Most that an insulation tester shows, ohms. */
const MOST_INSULATION = 1e9;

/** Insulation between two nodes, by some hundred volts of direct current; strays and coils do not matter to it. */
export const readInsulation = (wiring: Wiring, a: number, b: number): OhmsReading =>
  resistance(wiring, a, b, MOST_INSULATION);

function resistance(wiring: Wiring, a: number, b: number, most: number): OhmsReading {
  const volts = readVolts(wiring, a, b);
  if (volts > LIVE_VOLTS) return { shows: 'live', volts };
  const factors = new Factors(unfed(wiring), 0);
  const ohms = magnitude(impedanceBetween(factors, wiring.nodes.length, a, b));
  return ohms > most ? { shows: 'over' } : { shows: 'ohms', ohms };
}

/** Amperes in one conductor of the cable that arrives at a box. */
export function clampConductor(wiring: Wiring, stop: number, conductor: Conductor): number {
  const found = cableAt(wiring, stop).find((c) => c.conductor === conductor);
  return found ? magnitude(currentIn(wiring, solved(wiring), found.branch, MAINS_HERTZ)) : 0;
}

/** Amperes that a clamp around the whole cable shows: what does not come back by it. */
export function clampCable(wiring: Wiring, stop: number): number {
  const voltages = solved(wiring);
  return magnitude(sum(cableAt(wiring, stop).map((c) => currentIn(wiring, voltages, c.branch, MAINS_HERTZ))));
}
