/** Protecting devices as instruments see them: ground-fault, arc-fault and overcurrent. */
import { tripTime, type TripTime } from '#core/circuits/tripCurve.ts';
import { MAINS_HERTZ, type Complex, type Voltages } from '#core/network/network.ts';
import { spotKey, type Conductor, type Spot, type Wiring } from '#core/network/wiring.ts';
import { Factors } from '#core/network/solve.ts';
import { currentIn, magnitude, resistor, solved, sum, unfed } from './connect.ts';

/** Class A: does not trip at 4 mA or less, trips at 6 mA or more. */
const CLASS_A = { holds: 0.004, trips: 0.006 } as const;
/** What its own button lets past the sensor, and what a tester sends to ground, amperes at 120 V. */
const BUTTON_AMPS = 0.008;
const TESTER_AMPS = 0.008;
/** Volts between its line terminals that the electronics of a device need. */
const WORKS_AT = 85;

/** Longest time to open at a difference of so many amperes, seconds: (20/I)^1.43 with I in mA, UL 943. */
const classATime = (amps: number): number => (amps < CLASS_A.holds ? Infinity : (20 / (1000 * amps)) ** 1.43);

/** What a difference does to a class A device. */
export type Trip = 'holds' | 'may trip' | 'trips';
const tripOf = (amps: number): Trip =>
  amps <= CLASS_A.holds ? 'holds' : amps < CLASS_A.trips ? 'may trip' : 'trips';

/** Where the difference is sensed: a device’s contacts by its stop, or the breaker’s own terminals. */
export type Sensor = { at: 'breaker' } | { at: 'box'; stop: number };

/** Amperes that go out by the sensor and do not come back by it. */
export function difference(wiring: Wiring, voltages: Voltages, sensor: Sensor): number {
  return magnitude(sum(sensed(wiring, sensor).map((s) => out(wiring, voltages, s))));
}

const LIVE: readonly Conductor[] = ['black', 'red', 'neutral'];

function sensed({ spots, branches, panel }: Wiring, sensor: Sensor): Spot[] {
  if (sensor.at === 'box') return spots.filter((s) => s.stop === sensor.stop && s.part === 'contact');
  // A breaker’s own neutral lead: what returns by the circuit’s cable.
  const leaving = [panel.breaker.black, panel.breaker.red, panel.neutral];
  return spots.filter(
    (s) => s.part === 'start' && LIVE.includes(s.conductor) && leaving.includes(branches[s.branch]!.from),
  );
}

const out = (wiring: Wiring, voltages: Voltages, { branch }: Spot): Complex =>
  currentIn(wiring, voltages, branch, MAINS_HERTZ);

/** A class A device opens when neutral and ground are joined behind it by no more than this, ohms; UL 943. */
const GROUNDED_NEUTRAL_OHMS = 2;
const OPEN = 1e-12;

/** A wiring with some of its branches parted. */
const parted = (wiring: Wiring, apart: readonly Spot[]): Wiring => {
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
export function groundedNeutralTrips(wiring: Wiring, sensor: Sensor): boolean {
  const through = sensed(wiring, sensor);
  const neutral = through.find((s) => s.conductor === 'neutral');
  if (!neutral) return false;
  const { from, to } = wiring.branches[neutral.branch]!;
  const network = unfed(parted(wiring, through));
  const factors = new Factors(network, 0);
  const currents = new Float64Array(2 * network.nodes.length);
  currents[2 * from]! += 1;
  currents[2 * to]! -= 1;
  factors.solve(currents);
  return Math.abs(currents[2 * from]! - currents[2 * to]!) <= GROUNDED_NEUTRAL_OHMS;
}

export interface GroundFaultTest {
  /** Amperes of difference with the test on. */
  amps: number;
  trip: Trip;
  /** Longest time to open, seconds. */
  seconds: number;
}

const outcome = (amps: number): GroundFaultTest => ({ amps, trip: tripOf(amps), seconds: classATime(amps) });

/** A tester plugged in at a box sends its current from hot to ground: without a ground nothing flows. */
export function testerTrip(
  wiring: Wiring,
  stop: number,
  sensor: Sensor,
  amps = TESTER_AMPS,
): GroundFaultTest {
  const { hot, ground } = wiring.terminals[stop]!;
  const voltages = solved(wiring, [resistor(hot, ground, 120 / amps)]);
  return outcome(difference(wiring, voltages, sensor));
}

/** The device’s own button: from hot past the sensor to the neutral before it. It needs power, and no ground. */
export function ownButton(wiring: Wiring, stop: number): GroundFaultTest & { powered: boolean } {
  const sides = contactEnds(wiring, stop);
  if (!sides) return { ...outcome(0), powered: false };
  const { hotLoad, hotLine, neutralLine } = sides;
  const powered = solved(wiring).between(hotLine, neutralLine) >= WORKS_AT;
  const voltages = solved(wiring, [resistor(hotLoad, neutralLine, 120 / BUTTON_AMPS)]);
  return { ...outcome(powered ? difference(wiring, voltages, { at: 'box', stop }) : 0), powered };
}

function contactEnds({ spots, branches }: Wiring, stop: number) {
  const contacts = spots.filter((s) => s.stop === stop && s.part === 'contact');
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
export function isReversed(wiring: Wiring, stop: number): boolean {
  const sides = contactEnds(wiring, stop);
  if (!sides) return false;
  // With its contacts open only the side that is fed stays live.
  const contacts = wiring.spots.filter((s) => s.stop === stop && s.part === 'contact');
  const voltages = solved(parted(wiring, contacts));
  const toNeutral = (node: number) => voltages.between(node, wiring.panel.neutral);
  return toNeutral(sides.hotLoad) >= WORKS_AT && toNeutral(sides.hotLine) < WORKS_AT;
}

/** The button of an arc-fault or ground-fault breaker works while its line side is live. */
export const breakerButtonTrips = (wiring: Wiring, leg: 'black' | 'red' = 'black'): boolean =>
  solved(wiring).between(wiring.panel.bus[leg], wiring.panel.neutral) >= WORKS_AT;

/** Amperes through the breaker, and when it opens. */
export function breakerLoad(
  wiring: Wiring,
  rating: number,
  leg: 'black' | 'red' = 'black',
): { amps: number; trip: TripTime } {
  const spot = wiring.spotAt.get(spotKey({ stop: -1, conductor: leg, part: 'contact' }))!;
  const amps = magnitude(currentIn(wiring, solved(wiring), spot.branch, MAINS_HERTZ));
  return { amps, trip: tripTime(rating, amps) };
}
