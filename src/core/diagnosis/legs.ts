/**
 * Both legs beside each other. With a whole neutral a load on one leg pulls that leg down and leaves the other where it was;
 * with a poor one the other rises by what the neutral loses. What is said of it needs the load: without one both read even.
 */
import { round } from '#core/units/quantity.ts';

/** Ohms of one conductor between the place where the legs are held and the place where they are read. */
interface Path {
  hot: number;
  neutral: number;
}

export interface LegsRead {
  /** Volts of each leg to neutral, and between them; null where that was not read. */
  a: number;
  b: number;
  ab: number | null;
  /** Amperes that each leg carries meanwhile; null where nobody knows. */
  amps: { a: number; b: number } | null;
  /** Both again with more load on one of them: its amperes, or null where they were not measured. */
  loaded: { a: number; b: number; amps: number | null } | null;
  /** Amperes on the electrode conductor or a metal pipe; null where they were not measured. */
  pipe: number | null;
  /** Of an outlet: what its length and amperes take is no fault. */
  path?: Path;
}

export type LegsSay = 'neutral' | 'lost-leg' | 'low' | 'even' | 'not-shown';
export interface LegsVerdict {
  say: LegsSay;
  /** Main off now. */
  danger: boolean;
  title: string;
  /** How it was worked out, line by line. */
  lines: string[];
}

/** Volts that three readings of one moment may disagree by. */
const AGREE = 6;
/** Legs that part by so many volts do so on no sound neutral, whatever the load. */
const PART = 8;
/** Below this a leg has no volts. */
const DEAD = 20;
/** Less is a meter’s and a moment’s. */
const NOTICED = 2.5;
/** A leg out of these while the other is out on its side, volts: things burn. */
const OVER_UNDER = { under: 105, over: 127 } as const;
/** Ohms of leg and twice the neutral up to the transformer that no sound service has, and of the neutral alone. */
const SERVICE_OHMS = { both: 0.35, neutral: 0.12 } as const;
/** Amperes of a load that is put on without being measured, and the least that proves anything. */
const USUAL_AMPS = 10;
const LEAST_AMPS = 5;
/** Amperes on a pipe that a whole neutral does not leave to it. */
const PIPE_AMPS = 3;
/** Both legs together, volts. */
const LOW = 220;

const NEUTRAL = 'The service neutral is open or bad: main off now';
const volts = (v: number): string => `${round(v, 1)} V`;

/** What both legs say, at the panel or at an outlet. */
export function judgeLegs(read: LegsRead): LegsVerdict {
  const { a, b, ab, loaded, pipe } = read;
  const lines: string[] = [];
  const says = (say: LegsSay, danger: boolean, title: string): LegsVerdict => ({ say, danger, title, lines });
  const sum = a + b;
  lines.push(
    ab === null
      ? `${a} V and ${b} V, together ${volts(sum)}.`
      : `${a} V + ${b} V = ${volts(sum)}, leg to leg ${ab} V.`,
  );
  if (Math.max(a, b) < DEAD)
    return says('not-shown', false, 'No volts on either leg: main off, or nothing comes');
  const kept = ab === null || Math.abs(sum - ab) < AGREE;
  const dead = Math.min(a, b) < DEAD && Math.max(a, b) > 90;
  if ((ab !== null && !kept && Math.abs(Math.abs(a - b) - ab) < AGREE && Math.abs(a - b) > PART) || dead) {
    lines.push(
      'The volts between the legs are their difference: one is fed back from the other, through what hangs across both.',
    );
    return says('lost-leg', true, 'One leg is lost before the panel: main off now, call the utility');
  }
  if (!kept) {
    lines.push('The three do not belong to one moment: a third pair has to be the sum of the other two.');
    return says('not-shown', false, 'The three readings disagree: read them again');
  }
  const crossed = (x: number, y: number) =>
    Math.min(x, y) < OVER_UNDER.under && Math.max(x, y) > OVER_UNDER.over;
  if (crossed(a, b) || (loaded && crossed(loaded.a, loaded.b))) {
    lines.push(
      `One leg under ${OVER_UNDER.under} V while the other is over ${OVER_UNDER.over} V: a floating neutral.`,
    );
    return says('neutral', true, NEUTRAL);
  }
  const apart = apartOf(read, lines);
  const unbalance = read.amps === null ? pipe : Math.max(Math.abs(read.amps.a - read.amps.b), pipe ?? 0);
  if (apart > PART) {
    lines.push(
      `Legs apart by ${volts(apart)}; more than ${PART} V with their sum kept is a floating neutral.`,
    );
    return says('neutral', true, NEUTRAL);
  }
  if (unbalance !== null && apart > NOTICED) {
    const ohms = apart / Math.max(unbalance, 0.1);
    lines.push(
      `Apart by ${volts(apart)} with ${round(unbalance, 1)} A more on one: ${round(ohms, 2)} Ω in leg and neutral; a sound service has less than ${SERVICE_OHMS.both} Ω.`,
    );
    if (ohms > SERVICE_OHMS.both) return says('neutral', true, NEUTRAL);
  }
  if (pipe !== null && pipe >= PIPE_AMPS && apart > NOTICED) {
    lines.push(`${round(pipe, 1)} A go home over the pipe or electrode: the neutral leaves them to it.`);
    return says('neutral', true, NEUTRAL);
  }
  const shift = loaded ? risenBy(read, lines) : null;
  if (shift && shift.rise > NOTICED / 2 && shift.ohms > SERVICE_OHMS.neutral)
    return says('neutral', true, NEUTRAL);
  if (ab !== null && ab < LOW)
    return says('low', false, 'Both legs are low: ahead of the panel, or a 208 V service');
  if (pipe !== null && pipe >= PIPE_AMPS) {
    lines.push(
      `${round(pipe, 1)} A on the pipe or electrode are more than a sound neutral leaves to it: the neighbor’s, or ours.`,
    );
    return says(
      'not-shown',
      false,
      'Amps go home over the pipe: load one leg and read both before anything is called even',
    );
  }
  const proved = shift !== null || (read.amps !== null && unbalance !== null && unbalance >= LEAST_AMPS);
  if (proved)
    return says('even', false, 'The neutral holds under load: it is one circuit, or one leg’s joint');
  lines.push('Without a load on one of them a bad neutral reads even as well.');
  return says('not-shown', false, 'Not shown yet: load one leg, read both');
}

/** How far the legs are apart, with what the way to an outlet takes given back. */
function apartOf({ a, b, amps, path }: LegsRead, lines: string[]): number {
  if (!path || !amps) return Math.abs(a - b);
  const home = amps.a - amps.b;
  const held = [
    a + amps.a * path.hot + home * path.neutral,
    b + amps.b * path.hot - home * path.neutral,
  ] as const;
  lines.push(
    `Length and ${round(amps.a, 1)} A and ${round(amps.b, 1)} A taken off: ${volts(held[0])} and ${volts(held[1])} where the cable begins.`,
  );
  return Math.abs(held[0] - held[1]);
}

/** What the other leg rises by as one is loaded, and the ohms of the neutral that do it. */
function risenBy({ a, b, loaded, path }: LegsRead, lines: string[]): { rise: number; ohms: number } {
  const { a: la, b: lb, amps: measured } = loaded!;
  const amps = measured ?? USUAL_AMPS;
  const onA = a - la >= b - lb;
  const rise = (onA ? lb - b : la - a) - amps * (path?.neutral ?? 0);
  const ohms = rise / amps;
  lines.push(
    `With ${measured === null ? `about ${USUAL_AMPS}` : round(amps, 1)} A on ${onA ? 'A' : 'B'} the other leg ${rise > 0.1 ? `rises by ${volts(rise)}: ${round(ohms, 2)} Ω in the neutral` : 'does not rise'}.`,
  );
  return { rise, ohms };
}
