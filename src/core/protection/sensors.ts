/** What protecting devices sense: currents that do not come back, a neutral joined to ground, a feed on the wrong side. */
import { MAINS_HERTZ, type Voltages } from '#core/network/network.ts';
import { currentIn, impedanceBetween, magnitude, sum, unfed } from '#core/network/read.ts';
import { eliminationOf, Factors, type Elimination } from '#core/network/solve.ts';
import type { Conductor, Spot, Wiring } from '#core/network/wiring.ts';

/** Class A: does not trip at 4 mA or less, trips at 6 mA or more; UL 943. */
export const CLASS_A = { holds: 0.004, trips: 0.006 } as const;
/** A class A device opens when neutral and ground are joined behind it by no more than this, ohms; UL 943. */
const GROUNDED_NEUTRAL_OHMS = 2;
/** Volts between its line terminals that the electronics of a device need. */
export const WORKS_AT = 85;
const OPEN = 1e-12;

/** Longest time to open at a difference of so many amperes, seconds: (20/I)^1.43 with I in mA, UL 943. */
export const classATime = (amps: number): number =>
  amps < CLASS_A.holds ? Infinity : (20 / (1000 * amps)) ** 1.43;

/** What a difference does to a class A device. */
export type Trip = 'holds' | 'may trip' | 'trips';
export const tripOf = (amps: number): Trip =>
  amps <= CLASS_A.holds ? 'holds' : amps < CLASS_A.trips ? 'may trip' : 'trips';

/** Where the difference is sensed: a device’s contacts by its stop, or a breaker’s own terminals. */
export type Sensor = { at: 'breaker'; circuit?: number } | { at: 'box'; stop: number };

/** Amperes that go out by the sensor and do not come back by it. */
export const difference = (wiring: Wiring, voltages: Voltages, sensor: Sensor): number =>
  differenceIn(wiring, voltages, sensed(wiring, sensor));

/** As `difference`, by what is sensed. */
export const differenceIn = (wiring: Wiring, voltages: Voltages, through: readonly Spot[]): number =>
  magnitude(sum(through.map(({ branch }) => currentIn(wiring, voltages, branch, MAINS_HERTZ))));

const LIVE: readonly Conductor[] = ['black', 'red', 'neutral'];

function sensed(wiring: Wiring, sensor: Sensor): readonly Spot[] {
  const stop = sensor.at === 'box' ? sensor.stop : -1 - (sensor.circuit ?? 0);
  const guard = wiring.guards.find((g) => g.stop === stop);
  if (guard && guard.senses.length > 0) return guard.senses;
  if (sensor.at === 'box') return [];
  // A plain breaker has no lead for a neutral: what one in its place would sense is what leaves by the circuit’s cable.
  const { leaving, first, stops } = wiring.circuits[sensor.circuit ?? 0]!;
  const { black, red, neutral } = leaving.breaker;
  return wiring.spots.filter(
    (s) =>
      s.part === 'start' &&
      s.stop >= first &&
      s.stop < first + stops &&
      LIVE.includes(s.conductor) &&
      [black, red, neutral].includes(wiring.branches[s.branch]!.from),
  );
}

/** A wiring with some of its branches parted. */
const parted = (wiring: Wiring, apart: readonly Pick<Spot, 'branch'>[]): Wiring => {
  const at = new Set(apart.map((s) => s.branch));
  return {
    ...wiring,
    branches: wiring.branches.map((b, k) => (at.has(k) ? { ...b, conductance: OPEN } : b)),
  };
};

/**
 * Whether a class A device finds its neutral joined to ground behind it: it looks for a way from its neutral on the load
 * side through the ground to its neutral on the line side, with or without a load. Without a ground there is none.
 */
export const groundedNeutralTrips = (wiring: Wiring, sensor: Sensor): boolean =>
  findsGroundedNeutral(wiring, sensed(wiring, sensor));

/** As `groundedNeutralTrips`, by what is sensed. @param structure of the wiring, to be used again */
export function findsGroundedNeutral(
  wiring: Wiring,
  through: readonly Spot[],
  structure: Elimination = eliminationOf(wiring),
): boolean {
  const neutral = through.find((s) => s.conductor === 'neutral');
  if (!neutral) return false;
  const { from, to } = wiring.branches[neutral.branch]!;
  const network = unfed(parted(wiring, through));
  const factors = new Factors(network, 0, structure);
  return magnitude(impedanceBetween(factors, network.nodes.length, from, to)) <= GROUNDED_NEUTRAL_OHMS;
}

/** The two sides of a device’s contacts. */
export interface Sides {
  hotLine: number;
  hotLoad: number;
  neutralLine: number;
}
export function contactSides({ branches }: Wiring, contacts: readonly Spot[]): Sides | null {
  const neutral = contacts.find((s) => s.conductor === 'neutral');
  const hot = contacts.find((s) => s !== neutral);
  if (!hot || !neutral) return null;
  return {
    hotLine: branches[hot.branch]!.from,
    hotLoad: branches[hot.branch]!.to,
    neutralLine: branches[neutral.branch]!.from,
  };
}

/** Whether a device’s feed is on its load terminals: one made since 2006 will not reset then. */
export const isReversed = (wiring: Wiring, stop: number): boolean =>
  isFedOnLoad(wiring, wiring.guards.find((g) => g.stop === stop)?.contacts ?? []);

/** As `isReversed`, by its contacts. @param structure of the wiring, to be used again */
export function isFedOnLoad(
  wiring: Wiring,
  contacts: readonly Spot[],
  structure: Elimination = eliminationOf(wiring),
): boolean {
  const sides = contactSides(wiring, contacts);
  if (!sides) return false;
  // With its contacts open only the side that is fed stays live.
  const voltages = new Factors(parted(wiring, contacts), MAINS_HERTZ, structure).voltages();
  const toNeutral = (node: number) => voltages.between(node, wiring.panel.neutral);
  return toNeutral(sides.hotLoad) >= WORKS_AT && toNeutral(sides.hotLine) < WORKS_AT;
}
