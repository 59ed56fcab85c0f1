/** The voltage pen: a few picofarads from a conductor through whoever holds it to earth. */
import { EARTH } from '#core/network/network.ts';
import type { Wiring } from '#core/network/wiring.ts';
import { capacitor, solved } from '#core/network/read.ts';

const PEN_FARADS = 3e-12;
/** Volts to earth at which it sounds. */
const PEN_VOLTS = 50;

/**
 * Whether it sounds at a conductor. It answers to any field: a conductor that hangs loose beside a live one makes it
 * sound, and inside grounded metal it hears nothing.
 */
export function penSounds(wiring: Wiring, node: number, shielded = false): boolean {
  if (shielded) return false;
  const { re, im } = solved(wiring, [capacitor(node, EARTH, PEN_FARADS)]).at(node);
  return Math.hypot(re, im) >= PEN_VOLTS;
}
