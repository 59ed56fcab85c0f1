/** Testers that show voltage by lamps: the plug-in one with three, and the one with two probes and steps. */
import type { Terminals, Wiring } from '../network/wiring.ts';
import { resistor, solved } from './connect.ts';

/** Pairs of slots that the three lamps stand between. */
export const LAMP_PAIRS = ['hot–neutral', 'hot–ground', 'neutral–ground'] as const;
export type LampPair = (typeof LAMP_PAIRS)[number];

export interface LampTester {
  /** Volts at which a lamp counts as lit. */
  lights: number;
  /** Ohms of each lamp with its resistor. */
  lampOhms: number;
}
export const LAMP_TESTER: LampTester = { lights: 85, lampOhms: 1e5 };

/** Volts across the three lamps, each of which loads its pair. */
export function lampVolts(
  wiring: Wiring,
  { hot, neutral, ground }: Terminals,
  { lampOhms }: LampTester,
): [number, number, number] {
  const pairs = [
    [hot, neutral],
    [hot, ground],
    [neutral, ground],
  ] as const;
  const voltages = solved(
    wiring,
    pairs.map(([a, b]) => resistor(a, b, lampOhms)),
  );
  return pairs.map(([a, b]) => voltages.between(a, b)) as [number, number, number];
}

/** The three lamps hot–neutral, hot–ground, neutral–ground. */
export const readLamps = (
  wiring: Wiring,
  terminals: Terminals,
  tester: LampTester = LAMP_TESTER,
): [boolean, boolean, boolean] =>
  lampVolts(wiring, terminals, tester).map((v) => v >= tester.lights) as [boolean, boolean, boolean];

/** Steps of a two-pole tester, volts; each lights at so much of its figure. */
export const TWO_POLE_STEPS = [12, 24, 50, 120, 240] as const;
const STEP_SHARE = 0.85;
const TWO_POLE_OHMS = 2e5;
/** With its button pressed it loads what it tests. */
const TWO_POLE_PRESSED_OHMS = 7000;

/** The highest step that lights between two nodes; 0 when none does. */
export function readTwoPole(wiring: Wiring, a: number, b: number, pressed = false): number {
  const ohms = pressed ? TWO_POLE_PRESSED_OHMS : TWO_POLE_OHMS;
  const volts = solved(wiring, [resistor(a, b, ohms)]).between(a, b);
  return TWO_POLE_STEPS.findLast((step) => volts >= STEP_SHARE * step) ?? 0;
}
