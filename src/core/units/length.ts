import { fail, ok, type Result } from './result.ts';

/** Finest fraction of an inch that is written out. */
const SIXTEENTHS = 16;

export interface LengthOptions {
  /** What a number without a unit means: `12.5` is feet for a wall, `32` is inches for a door. */
  bare?: 'feet' | 'inches';
  /** Smallest accepted value, inches. */
  min?: number;
  /** Largest accepted value, inches. */
  max?: number;
}

const EXPECTED = `expected a length such as 12' 6 1/2", 12-6, 150in or 12.5`;

const NUMBER = String.raw`\d+(?:\.\d*)?|\.\d+`;
const FRACTION = String.raw`\d+\s*/\s*\d+`;
/** A whole number, a decimal, a fraction, or a whole number and a fraction. */
const MIXED = String.raw`(?:\d+\s+${FRACTION}|\d+-${FRACTION}|${FRACTION}|${NUMBER})`;
const FEET_MARK = String.raw`(?:'|ft\.?|feet|foot)`;
const INCH_MARK = String.raw`(?:"|in\.?|inch(?:es)?)`;

const FEET_AND_INCHES = new RegExp(`^(${NUMBER})\\s*${FEET_MARK}\\s*-?\\s*(${MIXED})\\s*${INCH_MARK}?$`);
const FEET = new RegExp(`^(${NUMBER})\\s*${FEET_MARK}$`);
const INCHES = new RegExp(`^(${MIXED})\\s*${INCH_MARK}$`);
const DASHED = new RegExp(`^(\\d+)\\s*-\\s*(${MIXED})\\s*${INCH_MARK}?$`);
const BARE = new RegExp(`^(${MIXED})$`);

/** Writes the marks people paste from phones and word processors as plain ASCII. */
function plainMarks(text: string): string {
  return text
    .replace(/[\u2018\u2019\u2032\u00b4`]/g, "'")
    .replace(/''|[\u201c\u201d\u2033]/g, '"')
    .replace(/[\u2013\u2014\u2212]/g, '-')
    .replace(/\u00bd/g, ' 1/2')
    .replace(/\u00bc/g, ' 1/4')
    .replace(/\u00be/g, ' 3/4')
    .replace(/\s+/g, ' ')
    .trim()
    .toLowerCase();
}

/** Value of `6`, `6.5`, `1/2` or `6 1/2`; NaN when a fraction has no meaning. */
function mixedValue(text: string): number {
  const fraction = /(\d+)\s*\/\s*(\d+)$/.exec(text);
  if (!fraction) return Number(text);
  const denominator = Number(fraction[2]);
  if (denominator === 0) return NaN;
  const whole = text.slice(0, fraction.index).replace(/-$/, '').trim();
  return Number(whole || 0) + Number(fraction[1]) / denominator;
}

function inchesOf(text: string, bare: 'feet' | 'inches'): number | null {
  let match = FEET_AND_INCHES.exec(text) ?? DASHED.exec(text);
  if (match) {
    const inches = mixedValue(match[2]!);
    return inches < 12 ? Number(match[1]) * 12 + inches : NaN;
  }
  match = FEET.exec(text);
  if (match) return Number(match[1]) * 12;
  match = INCHES.exec(text);
  if (match) return mixedValue(match[1]!);
  match = BARE.exec(text);
  if (match) return mixedValue(match[1]!) * (bare === 'feet' ? 12 : 1);
  return null;
}

/**
 * Reads a length the way people say it.
 * @returns inches, or a message that says what is expected
 */
export function parseLength(text: string, options: LengthOptions = {}): Result<number> {
  const { bare = 'feet', min = 0, max = 12000 } = options;
  const plain = plainMarks(text);
  if (plain === '') return fail(EXPECTED);
  if (/^-/.test(plain)) return fail(`“${clip(text)}” is below zero; expected ${formatLength(min)} or more`);
  const inches = inchesOf(plain, bare);
  if (inches === null) return fail(`“${clip(text)}” is not a length; ${EXPECTED}`);
  if (Number.isNaN(inches)) {
    return fail(`“${clip(text)}” does not add up; expected inches below 12 after the feet`);
  }
  if (inches < min)
    return fail(`${formatLength(inches)} is too short; expected ${formatLength(min)} or more`);
  if (inches > max) return fail(`${formatLength(inches)} is too long; expected ${formatLength(max)} or less`);
  return ok(inches);
}

const clip = (text: string) => (text.length > 24 ? `${text.slice(0, 24)}…` : text);

/**
 * Writes inches as feet, inches and sixteenths: 150.5 → `12' 6 1/2"`.
 * @param inches any finite number; rounded to the nearest sixteenth
 */
export function formatLength(inches: number): string {
  const sign = inches < 0 ? '-' : '';
  const total = Math.round(Math.abs(inches) * SIXTEENTHS);
  const feet = Math.floor(total / (12 * SIXTEENTHS));
  const rest = total - feet * 12 * SIXTEENTHS;
  const inchText = formatInches(rest / SIXTEENTHS);
  if (feet === 0) return `${sign}${inchText}`;
  // 3' 1/2" would read as three and a half: a nought stands for the whole inches.
  if (rest > 0 && rest < SIXTEENTHS) return `${sign}${feet}' 0 ${inchText}`;
  return rest === 0 ? `${sign}${feet}'` : `${sign}${feet}' ${inchText}`;
}

/** Writes inches alone, with sixteenths reduced: 6.5 → `6 1/2"`. */
export function formatInches(inches: number): string {
  const sign = inches < 0 ? '-' : '';
  const total = Math.round(Math.abs(inches) * SIXTEENTHS);
  const whole = Math.floor(total / SIXTEENTHS);
  let numerator = total - whole * SIXTEENTHS;
  let denominator = SIXTEENTHS;
  while (numerator > 0 && numerator % 2 === 0) {
    numerator /= 2;
    denominator /= 2;
  }
  if (numerator === 0) return `${sign}${whole}"`;
  return whole === 0 ? `${sign}${numerator}/${denominator}"` : `${sign}${whole} ${numerator}/${denominator}"`;
}

/** Writes a cable length in whole feet, rounded up: 150 in → `13 ft`. */
export const formatFeet = (inches: number): string => `${Math.ceil(inches / 12 - 1e-9)} ft`;
