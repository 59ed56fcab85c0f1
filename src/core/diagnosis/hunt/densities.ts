/** How likely an instrument shows what it showed, by what it should show: meters, lamps, ohms. */
import type { Pair } from './evidence.ts';

/** What a source is off nominal, as a share, one standard deviation. */
const SOURCE = 0.022;
/** Where the utility’s volts are the matter: low or high by about so much, as shares, give or take. */
const UTILITY = { low: 0.9, high: 1.08, sigma: 0.03 } as const;
/** Share of readings that are simply wrong: a bad contact, a slip of the pen, something nobody told. */
export const SLIPS = 0.004;
/** What volts may be anywhere between, for what is not predicted. */
const SPAN = 130;
/** Standard deviation of a meter at mains with unknown small loads on, volts. */
const METER = { volts: 1.1, share: 0.006 } as const;
/** Neutral to ground: what a meter and the length of a cable are off; and what loads elsewhere add, volts. */
const NEUTRAL = { volts: 0.06, share: 0.14, elsewhere: 1.4, often: 0.3 } as const;

const normal = (x: number, mean: number, sigma: number): number =>
  Math.exp(-0.5 * ((x - mean) / sigma) ** 2) / (sigma * 2.5066282746310002);
const sigmoid = (x: number): number => 1 / (1 + Math.exp(-x));

/** What a pair of slots should show: volts, how far the unknown joint spreads them, and whether it floats. */
export interface Told {
  volts: number;
  spread: number;
  floats: boolean;
  /** Joined at the slots: what is on elsewhere does not raise it. */
  joined: boolean;
}

/** As `voltsDensity`, of a house whose utility is off. */
export const utilityDensity: typeof voltsDensity = (read, told) =>
  [UTILITY.low, UTILITY.high].reduce((sum, share) => {
    const scaled = told.map((t) => ({ ...t, volts: share * t.volts }));
    return sum + voltsDensity(read, scaled, UTILITY.sigma) / 2;
  }, 0);

/**
 * How likely pairs of slots are read together. The source’s volts are common to all of them: a multivariate normal whose
 * covariance is diagonal plus one direction.
 * @param source standard deviation of the source, as a share
 */
export function voltsDensity(
  read: readonly { pair: Pair; volts: number }[],
  told: readonly Told[],
  source = SOURCE,
): number {
  let density = 1;
  let [quad, along, cross, det] = [0, 0, 0, 1];
  let fed = 0;
  read.forEach(({ pair, volts }, k) => {
    const { volts: mean, spread, floats, joined } = told[k]!;
    if (floats) {
      density /= SPAN;
      return;
    }
    if (pair === 'neutralGround' && mean < 20) {
      const sigma = Math.hypot(NEUTRAL.volts, NEUTRAL.share * mean, spread);
      const sharp = normal(volts, mean, sigma);
      // A rectified bell: nothing is read below zero.
      const whole = mean > 2 * sigma ? 1 : 2;
      const elsewhere =
        volts >= mean - sigma ? Math.exp(-(volts - mean) / NEUTRAL.elsewhere) / NEUTRAL.elsewhere : 0;
      density *= joined ? whole * sharp : (1 - NEUTRAL.often) * whole * sharp + NEUTRAL.often * elsewhere;
      return;
    }
    const sigma = Math.hypot(METER.volts, METER.share * mean, spread);
    const off = (volts - mean) / sigma;
    const scaled = (source * mean) / sigma;
    quad += off * off;
    cross += off * scaled;
    along += scaled * scaled;
    det *= sigma;
    fed++;
  });
  if (fed === 0) return density;
  const exponent = quad - (cross * cross) / (1 + along);
  return (density * Math.exp(-0.5 * exponent)) / (2.5066282746310002 ** fed * det * Math.sqrt(1 + along));
}

/** What readings that are simply wrong may be. */
export const slipDensity = (pairs: number): number => SPAN ** -pairs;

/** Volts at a lamp of so many ohms, from what two meters would show there. */
export function voltsAt(ohms: number, high: number, low: number): number {
  if (low <= 0 || high <= low) return high;
  // Both meters see one source behind one impedance.
  const [rh, rl] = [1e7, 3000];
  const z = (high - low) / Math.max(low / rl - high / rh, 1e-12);
  return (high * (1 + z / rh)) / (1 + z / ohms);
}

/** A lamp is lit from about this on, volts, give or take. */
const LIT = { volts: 55, sure: 8, floating: 22 } as const;
export const litShare = (volts: number, floats: boolean): number =>
  sigmoid((volts - LIT.volts) / (floats ? LIT.floating : LIT.sure));

/** Ohms that leads and a meter’s scale are off; what else hangs on the circuit shows more often than not being noticed. */
const OHMS = { leads: 0.35, sigma: 0.3, over: 1e6 } as const;
/** Ohms that a meter may show anywhere over, in natural logarithms. */
const OHMS_SPAN = 16;

/** How likely ohms are read; both may be Infinity. */
export function ohmsDensity(read: number, told: number): number {
  const over = sigmoid((Math.log(told + 1) - Math.log(OHMS.over)) / 0.5);
  if (read === Infinity) return 0.96 * over + 0.02;
  const bell = normal(Math.log(read + OHMS.leads), Math.log(told + OHMS.leads), OHMS.sigma);
  return 0.95 * (1 - over) * bell + 0.05 / OHMS_SPAN;
}

/** Works, dim or dead, by the volts that a load leaves there. */
export function worksShares(loaded: number): { works: number; dim: number; dead: number } {
  const works = sigmoid((loaded - 97) / 5);
  const dead = sigmoid((40 - loaded) / 8);
  return { works, dead, dim: Math.max(0, 1 - works - dead) };
}
