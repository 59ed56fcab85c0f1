/**
 * Tone tracing: a transmitter between a conductor and a reference, and a receiver that hears the field of conductors near
 * it. Conductors of one cable couple, so that neighbors answer too until they are tied to ground.
 */
import { EARTH, type Voltages } from '#core/network/network.ts';
import { CONDUCTORS, spotKey, type Conductor, type Part } from '#core/network/places.ts';
import type { Wiring } from '#core/network/wiring.ts';
import { resistor, solved, unfed } from '#core/network/read.ts';

/** The transmitter: so many volts behind so many ohms at so many hertz. */
const TRANSMITTER = { volts: 6, ohms: 1000, hertz: 1000 } as const;
/** Bars of the receiver’s scale; each is a doubling too. */
const BARS = 9;
/** Volts of tone that show one bar at the lowest gain. */
const ONE_BAR = TRANSMITTER.volts / 2 ** (BARS - 1);
/** Share of a neighbor’s field heard with the receiver at one conductor of a bare splice, and along a cable. */
const NEIGHBOR = { box: 0.02, cable: 1 } as const;

/** The network with a tone sent into one node against another, and the house’s own power off. */
export const withTone = (wiring: Wiring, to: number, reference: number = EARTH): Wiring => {
  const { volts, ohms } = TRANSMITTER;
  const silent = unfed(wiring);
  return { ...silent, sources: [...silent.sources, { from: reference, to, volts, ohms }] };
};

export interface Listening {
  stop: number;
  conductor: Conductor;
  /** At the bare conductor in the box, or along the cable that arrives there. */
  where: 'box' | 'cable';
  /** 1 to 9; each step doubles what it hears. */
  gain: number;
  /** The cable lies in steel, which lets no field out. */
  steel?: boolean;
}

/** Bars that the receiver shows, 0 to 9. */
export function receive(wiring: Wiring, voltages: Voltages, at: Listening): number {
  if (at.where === 'cable' && at.steel) return 0;
  const spotOf = (conductor: Conductor, part: Part) =>
    wiring.spotAt.get(spotKey({ stop: at.stop, conductor, part }));
  const heard = CONDUCTORS.reduce((total, conductor) => {
    // At the device where it lands there, else at its splice.
    const spot =
      at.where === 'box'
        ? (spotOf(conductor, 'terminal') ?? spotOf(conductor, 'end'))
        : spotOf(conductor, 'cable');
    if (!spot) return total;
    const { from, to } = wiring.branches[spot.branch]!;
    const { re, im } = voltages.at(at.where === 'box' ? to : from);
    return total + (conductor === at.conductor ? 1 : NEIGHBOR[at.where]) * Math.hypot(re, im);
  }, 0);
  return onScale(heard, at.gain);
}

export const TONE_HERTZ = TRANSMITTER.hertz;

/** Bars at one bare conductor beside others. @param gain 1 to 9 */
export function barsOf(voltages: Voltages, node: number, others: readonly number[], gain: number): number {
  const volts = (at: number) => Math.hypot(voltages.at(at).re, voltages.at(at).im);
  const heard = others.reduce((total, at) => total + NEIGHBOR.box * volts(at), volts(node));
  return onScale(heard, gain);
}

const onScale = (heard: number, gain: number): number =>
  Math.max(0, Math.min(BARS, Math.floor(Math.log2((heard * 2 ** (gain - 1)) / ONE_BAR) + 1)));

/** Voltages of the tone, with conductors tied to ground through a load so that they do not carry it. */
export function toneVoltages(wiring: Wiring, tied: readonly number[] = [], tieOhms = 100): Voltages {
  const ties = tied.map((node) => resistor(node, wiring.panel.ground, tieOhms));
  return solved(wiring, ties, TRANSMITTER.hertz);
}
