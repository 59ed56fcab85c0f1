/** How likely an instrument shows what it showed, by what it should show: meters, lamps, ohms. */

/** What a source is off nominal, as a share, one standard deviation. */
export const SOURCE = 0.022;
/** Where the utility’s volts are the matter: low or high by about so much, as shares, give or take. */
export const UTILITY = { low: 0.9, high: 1.08, sigma: 0.03 } as const;
/** Share of readings that are simply wrong: a bad contact, a slip of the pen, something nobody told. */
export const SLIPS = 0.004;
/** What volts may be anywhere between, for what is not predicted. */
const SPAN = 130;
/** Standard deviation of a meter at mains with unknown small loads on, volts. */
const METER = { volts: 1.1, share: 0.006 } as const;
/** Neutral to ground: what a meter and the length of a cable are off; and what loads elsewhere add, volts. */
const NEUTRAL = { volts: 0.06, share: 0.14, elsewhere: 1.4, often: 0.3 } as const;

const ROOT_TWO_PI = Math.sqrt(2 * Math.PI);
export const normal = (x: number, mean: number, sigma: number): number =>
  Math.exp(-0.5 * ((x - mean) / sigma) ** 2) / (sigma * ROOT_TWO_PI);
/** Logarithm of a share; what cannot be is only very unlikely. */
export const logOf = (share: number): number => Math.log(Math.max(share, 1e-30));
/** Pairs of slots, and the lead of a proven ground. */
const SHEET = 6;
const sigmoid = (x: number): number => 1 / (1 + Math.exp(-x));

/** Pairs of slots that were read together, and what they should show. */
export class Sheet {
  count = 0;
  readonly neutral: boolean[] = [];
  readonly volts = new Float64Array(SHEET);
  readonly mean = new Float64Array(SHEET);
  /** How far an unknown joint and loads spread it, volts. */
  readonly spread = new Float64Array(SHEET);
  readonly floats: boolean[] = [];
  /** Joined at the slots: what is on elsewhere does not raise it. */
  readonly joined: boolean[] = [];

  clear(): void {
    this.count = 0;
  }

  /** @param neutral neutral to ground */
  add(neutral: boolean, volts: number, mean: number, spread: number, floats: boolean, joined: boolean): void {
    const k = this.count++;
    this.neutral[k] = neutral;
    this.volts[k] = volts;
    this.mean[k] = mean;
    this.spread[k] = spread;
    this.floats[k] = floats;
    this.joined[k] = joined;
  }
}

/** As `voltsDensity`, of a house whose utility is off. */
export const utilityDensity = (sheet: Sheet): number =>
  (voltsDensity(sheet, UTILITY.sigma, UTILITY.low) + voltsDensity(sheet, UTILITY.sigma, UTILITY.high)) / 2;

/**
 * How likely pairs of slots are read together. The source’s volts are common to all of them: a multivariate normal whose
 * covariance is diagonal plus one direction.
 * @param source standard deviation of the source, as a share
 * @param scale of all that should be shown
 */
export function voltsDensity(sheet: Sheet, source = SOURCE, scale = 1): number {
  let density = 1;
  let [quad, along, cross, det, fed] = [0, 0, 0, 1, 0];
  for (let k = 0; k < sheet.count; k++) {
    const volts = sheet.volts[k]!;
    const mean = scale * sheet.mean[k]!;
    const spread = sheet.spread[k]!;
    if (sheet.floats[k]) {
      density /= SPAN;
      continue;
    }
    if (sheet.neutral[k] && mean < 20) {
      const sigma = Math.sqrt(NEUTRAL.volts ** 2 + (NEUTRAL.share * mean) ** 2 + spread * spread);
      const sharp = normal(volts, mean, sigma);
      // A rectified bell: nothing is read below zero.
      const whole = mean > 2 * sigma ? 1 : 2;
      const elsewhere =
        volts >= mean - sigma ? Math.exp(-(volts - mean) / NEUTRAL.elsewhere) / NEUTRAL.elsewhere : 0;
      density *= sheet.joined[k]
        ? whole * sharp
        : (1 - NEUTRAL.often) * whole * sharp + NEUTRAL.often * elsewhere;
      continue;
    }
    const sigma = Math.sqrt(METER.volts ** 2 + (METER.share * mean) ** 2 + spread * spread);
    const off = (volts - mean) / sigma;
    const scaled = (source * mean) / sigma;
    quad += off * off;
    cross += off * scaled;
    along += scaled * scaled;
    det *= sigma;
    fed++;
  }
  if (fed === 0) return density;
  const exponent = quad - (cross * cross) / (1 + along);
  return (density * Math.exp(-0.5 * exponent)) / (ROOT_TWO_PI ** fed * det * Math.sqrt(1 + along));
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

/** Sound insulation shows this much or more, ohms; a leak may be any, and damp makes it another every hour. */
const INSULATION = { sound: 3e7, sigma: 2.5 } as const;

/** How likely an insulation tester shows so many ohms; both may be Infinity. */
export function insulationDensity(read: number, told: number): number {
  const sound = sigmoid((Math.log(told + 1) - Math.log(INSULATION.sound)) / 0.5);
  const over = read >= INSULATION.sound;
  if (over) return 0.96 * sound + 0.02;
  const bell = normal(Math.log(read + 1), Math.log(told + 1), INSULATION.sigma);
  return 0.95 * (1 - sound) * bell + 0.04 / OHMS_SPAN;
}

/** Works, dim, dead or too bright, by the volts that a load leaves there. */
export function worksShare(does: 'works' | 'dim' | 'dead' | 'bright', loaded: number): number {
  const bright = sigmoid((loaded - 133) / 3);
  const works = sigmoid((loaded - 97) / 5) * (1 - bright);
  const dead = sigmoid((40 - loaded) / 8);
  const shares = { works, dead, bright, dim: Math.max(0, 1 - works - dead - bright) };
  return shares[does];
}
