/**
 * Judges the readings at a receptacle by circuit laws: each wiring condition is a small network of three
 * slots, and what it predicts is compared with what was read. No table of lamp patterns is kept.
 */
import { round } from '../units/quantity.ts';
import type { Reading } from '../job/schema.ts';

/** Which conductor each slot is joined to; null is an open slot. */
interface Wiring {
  hot: Source | null;
  neutral: Source | null;
  ground: Source | null;
}
type Source = 'H' | 'N' | 'G';

export const CONDITIONS = {
  correct: { label: 'Correct', wiring: { hot: 'H', neutral: 'N', ground: 'G' } },
  'open-ground': { label: 'Open ground', wiring: { hot: 'H', neutral: 'N', ground: null } },
  'open-neutral': { label: 'Open neutral', wiring: { hot: 'H', neutral: null, ground: 'G' } },
  'open-hot': { label: 'Open hot', wiring: { hot: null, neutral: 'N', ground: 'G' } },
  'hot-neutral-reversed': {
    label: 'Hot and neutral reversed',
    wiring: { hot: 'N', neutral: 'H', ground: 'G' },
  },
  'hot-ground-reversed': {
    label: 'Hot and ground reversed',
    wiring: { hot: 'G', neutral: 'N', ground: 'H' },
  },
} as const satisfies Record<string, { label: string; wiring: Wiring }>;
export type Condition = keyof typeof CONDITIONS;

/** What the plan and the panel let us expect at a box. */
export interface Expectation {
  /** Source voltage at the panel. */
  sourceVolts: number;
  /** One conductor from the panel to the box, ohms. */
  pathOhms: number;
  /** What is on record of an equipment ground in the box. */
  grounding?: 'grounded' | 'none' | 'unknown';
}

export const LIMITS = {
  lowVolts: 110,
  highVolts: 127,
  /** Neutral–ground above this under load points to resistance in the neutral. */
  neutralGround: 5,
  /** Hot–ground below hot–neutral by more than this points to a poor ground. */
  groundShortfall: 4,
  /** Voltage at which a tester's lamp counts as lit. */
  lampLights: 85,
  /** Neutral–ground at or below this is a zero. */
  zero: 0.05,
  /** A neutral that should show at least this and shows zero is suspicious. */
  expectedNeutral: 0.3,
} as const;

/** A voltage between two slots is known to lie in a range. */
interface Range {
  low: number;
  high: number;
}

const CLOSED_OHMS = 0.05;
const OPEN_OHMS = 1e8;
const LAMP_OHMS = 1e5;
const METER_OHMS = 1e7;
/** Largest part of the source voltage that stray coupling puts on an open conductor. */
const GHOST_SHARE = 0.9;
/** Largest part of the source voltage allowed for a poor joint under load before the wiring itself is doubted. */
const SAG_SHARE = 0.25;

/** Slot potentials with three instruments of equal resistance between the slots, by nodal analysis. */
function slotVolts(
  wiring: Wiring,
  source: Record<Source, number>,
  instrumentOhms: number,
): [number, number, number] {
  const slots = [wiring.hot, wiring.neutral, wiring.ground];
  const g = 1 / instrumentOhms;
  const matrix = slots.map((slot, i) =>
    slots.map((_, j) => (i === j ? 2 * g + 1 / (slot === null ? OPEN_OHMS : CLOSED_OHMS) : -g)),
  );
  const injected = slots.map((slot) => (slot === null ? 0 : source[slot] / CLOSED_OHMS));
  return solve3(matrix, injected);
}

/** Cramer's rule for three unknowns. */
function solve3(m: number[][], b: number[]): [number, number, number] {
  const det = (a: number[][]) =>
    a[0]![0]! * (a[1]![1]! * a[2]![2]! - a[1]![2]! * a[2]![1]!) -
    a[0]![1]! * (a[1]![0]! * a[2]![2]! - a[1]![2]! * a[2]![0]!) +
    a[0]![2]! * (a[1]![0]! * a[2]![1]! - a[1]![1]! * a[2]![0]!);
  const whole = det(m);
  const column = (c: number) => det(m.map((row, r) => row.map((v, j) => (j === c ? b[r]! : v)))) / whole;
  return [column(0), column(1), column(2)];
}

/** Conductor potentials at the box with a load flowing there. */
const sourceAt = ({ sourceVolts, pathOhms }: Expectation, amps: number): Record<Source, number> => ({
  H: sourceVolts - pathOhms * amps,
  N: pathOhms * amps,
  G: 0,
});

/** The three lamps hot–neutral, hot–ground, neutral–ground that a condition lights. */
export function lampsFor(
  condition: Condition,
  expectation: Expectation,
  amps = 0,
): [boolean, boolean, boolean] {
  const [h, n, g] = slotVolts(CONDITIONS[condition].wiring, sourceAt(expectation, amps), LAMP_OHMS);
  const lit = (volts: number) => Math.abs(volts) >= LIMITS.lampLights;
  return [lit(h - n), lit(h - g), lit(n - g)];
}

/** What a high-impedance meter may read for hot–neutral, hot–ground, neutral–ground. */
function meterRanges(condition: Condition, expectation: Expectation, amps: number): [Range, Range, Range] {
  const { wiring } = CONDITIONS[condition];
  const [h, n, g] = slotVolts(wiring, sourceAt(expectation, amps), METER_OHMS);
  const slack = 0.08 * expectation.sourceVolts;
  // A poor joint takes volts only while current flows through it.
  const sag = amps > 0 ? SAG_SHARE * expectation.sourceVolts : 0;
  const fixed = (a: number, b: number): Range => {
    const volts = Math.abs(a - b);
    return { low: Math.max(0, volts - slack - sag), high: volts + slack + (volts < slack ? sag : 0) };
  };
  // An open conductor floats at what its neighbours in the cable couple into it: never at the full voltage.
  const floating: Range = { low: 0, high: GHOST_SHARE * expectation.sourceVolts };
  // Any load left plugged in ties an open neutral to the hot, so neutral–ground may show it all.
  const openNeutral: Range = { low: 0, high: expectation.sourceVolts + slack };
  const open = { hot: wiring.hot === null, neutral: wiring.neutral === null, ground: wiring.ground === null };
  return [
    open.hot || open.neutral ? floating : fixed(h, n),
    open.hot || open.ground ? floating : fixed(h, g),
    open.neutral ? openNeutral : open.ground ? floating : fixed(n, g),
  ];
}

export interface Remark {
  level: 'danger' | 'worry' | 'note';
  /** A worry in a few words, for the headline. */
  title?: string;
  text: string;
}

export interface Verdict {
  /** Conditions that agree with every reading. */
  fits: Condition[];
  /** `good` only when the readings fit correct wiring and nothing is remarked upon. */
  grade: 'good' | 'worry' | 'bad' | 'no-power' | 'none';
  headline: string;
  remarks: Remark[];
}

type Readings = Pick<Reading, 'lamps' | 'hotNeutral' | 'hotGround' | 'neutralGround' | 'loadAmps'>;

/** What three lamps cannot tell apart; shown with every verdict from lamps. */
export const LAMP_BLIND_SPOTS =
  'Three lamps cannot see a false ground, a false ground with hot and neutral reversed, ground and neutral swapped, two hots, a poor ground or a loose neutral.';

const sameLamps = (a: readonly boolean[], b: readonly boolean[]) => a.every((lit, i) => lit === b[i]);

/**
 * Judges one set of readings. Amperes at the outlet and the path's resistance decide what neutral–ground
 * should show; a source voltage inside ±10 % is allowed for.
 */
export function judge(readings: Readings, expectation: Expectation): Verdict {
  const volts = [readings.hotNeutral, readings.hotGround, readings.neutralGround];
  if (!readings.lamps && volts.every((v) => v === null)) {
    return { fits: [], grade: 'none', headline: 'Nothing read yet', remarks: [] };
  }
  const dark = !readings.lamps || readings.lamps.every((lit) => !lit);
  const noVolts = volts.every((v) => v === null || v < 5);
  const fits = (Object.keys(CONDITIONS) as Condition[]).filter((condition) => {
    const { hot, neutral } = CONDITIONS[condition].wiring;
    if (readings.loadAmps > 0 && (hot === null || neutral === null)) return false;
    if (readings.lamps && !sameLamps(readings.lamps, lampsFor(condition, expectation, readings.loadAmps)))
      return false;
    return meterRanges(condition, expectation, readings.loadAmps).every(({ low, high }, i) => {
      const read = volts[i];
      return read === null || read === undefined || (read >= low && read <= high);
    });
  });
  const remarks = remarksOn(readings, expectation, fits);
  if (readings.lamps && fits.includes('correct')) remarks.push({ level: 'note', text: LAMP_BLIND_SPOTS });
  if (dark && noVolts) {
    return {
      fits,
      grade: 'no-power',
      headline: 'No voltage: open hot, or the circuit is off',
      remarks: [
        {
          level: 'note',
          text: 'Check the breaker, an upstream GFCI and any wall switch before opening a box.',
        },
        ...remarks,
      ],
    };
  }
  const labels = fits.map((f) => CONDITIONS[f].label);
  if (fits.length === 0) {
    return {
      fits,
      grade: 'bad',
      headline: 'Fits no single simple fault',
      remarks: [
        {
          level: 'worry',
          text: 'Check the readings once more; two faults at once, two hots or a high-resistance joint remain.',
        },
        ...remarks,
      ],
    };
  }
  if (!fits.includes('correct')) return { fits, grade: 'bad', headline: labels.join(' or '), remarks };
  const worries = remarks.flatMap((r) => r.title ?? []);
  const others = labels.filter((l) => l !== 'Correct');
  const alsoFits =
    others.length > 0 ? `Correct, but ${others.join(' or ').toLowerCase()} would read the same` : 'Correct';
  return {
    fits,
    grade: worries.length > 0 || others.length > 0 ? 'worry' : 'good',
    headline: worries.length > 0 ? `Reads correct, but: ${worries.join(', ')}` : alsoFits,
    remarks,
  };
}

function remarksOn(
  readings: Readings,
  { pathOhms, grounding }: Expectation,
  fits: readonly Condition[],
): Remark[] {
  const { hotNeutral, hotGround, neutralGround, loadAmps } = readings;
  const remarks: Remark[] = [];
  const worry = (title: string, text: string) => remarks.push({ level: 'worry', title, text });
  if (hotNeutral !== null && hotNeutral >= 5) {
    if (hotNeutral < LIMITS.lowVolts)
      worry(
        'low voltage',
        `Hot–neutral ${hotNeutral} V is under ${LIMITS.lowVolts} V: measure at the panel next.`,
      );
    if (hotNeutral > LIMITS.highVolts) {
      worry(
        'high voltage',
        `Hot–neutral ${hotNeutral} V is over ${LIMITS.highVolts} V: an open service neutral does this. Compare both legs at once.`,
      );
    }
  }
  const grounded =
    fits.length > 0 && !fits.includes('open-ground') && (hotGround !== null || readings.lamps !== null);
  if (grounding === 'none' && grounded && fits.includes('correct')) {
    worry(
      'a ground where there should be none',
      'The box is on record without an equipment ground, yet it reads grounded: look for a neutral jumpered to the ground screw (false ground). Power off, prove it dead, open the box.',
    );
  }
  if (!fits.includes('correct')) {
    if (grounding === 'none' && fits.length === 1 && fits[0] === 'open-ground') {
      remarks.push({
        level: 'note',
        text: 'As expected of a box on record without an equipment ground; 406.4(D)(2) says what may be fitted there.',
      });
    }
    if (fits.includes('hot-ground-reversed')) {
      remarks.push({
        level: 'danger',
        text: 'Anything metal plugged in here is live. Turn the circuit off now.',
      });
    }
    return remarks;
  }
  if (hotNeutral !== null && hotGround !== null && hotNeutral - hotGround > LIMITS.groundShortfall) {
    worry(
      'poor ground path',
      `Hot–ground is ${round(hotNeutral - hotGround, 1)} V below hot–neutral: a poor ground path.`,
    );
  }
  if (neutralGround === null) return remarks;
  const expected = pathOhms * loadAmps;
  const numbers = `${loadAmps} A × ${round(pathOhms, 3)} Ω = ${round(expected, 2)} V`;
  if (neutralGround <= LIMITS.zero && expected >= LIMITS.expectedNeutral) {
    worry(
      'suspicious zero',
      `Suspicious zero: neutral–ground should read about ${numbers} here. A jumper from neutral to ground close by (false ground) gives 0.0 V. Open the box, dead, and look.`,
    );
  } else if (neutralGround > LIMITS.neutralGround) {
    const extra = loadAmps > 0 ? ` of about ${round(neutralGround / loadAmps - pathOhms, 2)} Ω` : '';
    worry(
      'resistance in the neutral',
      `Neutral–ground ${neutralGround} V; the plan gives about ${numbers}. A joint in the neutral has resistance${extra}: loose neutral here or upstream.`,
    );
  } else if (loadAmps > 0 && neutralGround > 2 * expected + 1.5) {
    worry(
      'loose neutral likely',
      `Neutral–ground ${neutralGround} V is well above the ${numbers} the plan gives: look for a loose neutral upstream.`,
    );
  }
  if (loadAmps === 0 && neutralGround <= LIMITS.zero) {
    remarks.push({
      level: 'note',
      text: 'Neutral–ground of zero with no load says nothing about a false ground: read it again with a load on.',
    });
  }
  return remarks;
}
