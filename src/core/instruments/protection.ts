/** Tests of protecting devices: by their own buttons, by a tester plugged in, and a breaker by its current. */
import { tripTime, type TripTime } from '#core/circuits/tripCurve.ts';
import { MAINS_HERTZ } from '#core/network/network.ts';
import { currentIn, magnitude, resistor, solved } from '#core/network/read.ts';
import { spotKey, type Wiring } from '#core/network/wiring.ts';
import {
  classATime,
  contactSides,
  difference,
  tripOf,
  WORKS_AT,
  type Sensor,
  type Trip,
} from '#core/protection/sensors.ts';

/** What its own button lets past the sensor, and what a tester sends to ground, amperes at 120 V. */
const BUTTON_AMPS = 0.008;
const TESTER_AMPS = 0.008;

interface GroundFaultTest {
  /** What the test draws past the sensor, amperes. */
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
  const sides = contactSides(wiring, wiring.guards.find((g) => g.stop === stop)?.contacts ?? []);
  if (!sides) return { ...outcome(0), powered: false };
  const { hotLoad, hotLine, neutralLine } = sides;
  const powered = solved(wiring).between(hotLine, neutralLine) >= WORKS_AT;
  const voltages = solved(wiring, [resistor(hotLoad, neutralLine, 120 / BUTTON_AMPS)]);
  return { ...outcome(powered ? difference(wiring, voltages, { at: 'box', stop }) : 0), powered };
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
