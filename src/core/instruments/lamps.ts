/** Testers that show voltage by lamps: the plug-in one with three, and the one with two probes and steps. */
import type { LampLevel } from '#core/job/schema.ts';
import type { Branch } from '#core/network/network.ts';
import type { Terminals, Wiring } from '#core/network/wiring.ts';
import { slotPairs } from './connect.ts';
import { resistor, solved } from '#core/network/read.ts';

export interface LampTester {
  /** Volts at which a lamp counts as lit. */
  lights: number;
  /** Ohms of each lamp with its resistor. */
  lampOhms: number;
}
export const LAMP_TESTER: LampTester = { lights: 85, lampOhms: 1e5 };

/** The three lamps as what they are on the network: each loads its pair. */
export const lampBranches = (terminals: Terminals, lampOhms: number): Branch[] =>
  slotPairs(terminals).map(([a, b]) => resistor(a, b, lampOhms));

/** The three lamps hot–neutral, hot–ground, neutral–ground. */
export function readLamps(
  wiring: Wiring,
  terminals: Terminals,
  { lampOhms, lights }: LampTester = LAMP_TESTER,
): [boolean, boolean, boolean] {
  const voltages = solved(wiring, lampBranches(terminals, lampOhms));
  const lit = slotPairs(terminals).map(([a, b]) => voltages.between(a, b) >= lights);
  return lit as [boolean, boolean, boolean];
}

/** Below this a lamp shows nothing, volts; from there to where it counts as lit it is dim. */
const DIM_FROM = 25;

/** The three lamps with their brightness. @param wiring with the lamps on it already */
export function lampLevels(
  wiring: Wiring,
  terminals: Terminals,
  lights: number = LAMP_TESTER.lights,
): LampLevel[] {
  const voltages = solved(wiring);
  return slotPairs(terminals).map(([a, b]) => {
    const volts = voltages.between(a, b);
    return volts >= lights ? 'lit' : volts >= DIM_FROM ? 'dim' : 'dark';
  });
}

/** Steps of a two-pole tester, volts; each lights at so much of its figure. */
const TWO_POLE_STEPS = [12, 24, 50, 120, 240] as const;
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
