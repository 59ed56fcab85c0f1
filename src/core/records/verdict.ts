/**
 * Judges the readings at an outlet: which wiring conditions agree with them, by what the network of its own circuit shows
 * on the same instruments. No table of lamp patterns is kept.
 */
import type { Run } from '../circuits/run.ts';
import { LAMP_TESTER } from '../instruments/lamps.ts';
import type { Box, Limits, Reading, Settings } from '../job/schema.ts';
import { round } from '../units/quantity.ts';
import {
  CONDITIONS,
  PAIR_WORDS,
  predictAt,
  READ_PAIRS,
  type Condition,
  type Prediction,
  type ReadPair,
} from './conditions.ts';

/** The place of a reading: a stop of a run, with what is on record of the box there. */
export interface Setting {
  run: Run;
  stop: number;
  grounding: Box['grounding'];
  settings: Pick<Settings, 'voltage' | 'limits' | 'tester'>;
}

export interface Remark {
  level: 'danger' | 'worry' | 'note';
  /** A worry in a few words, for the headline. */
  title?: string;
  text: string;
}

export interface Fit {
  condition: Condition;
  label: string;
  /** Ohms of the joint that fits best; null for conditions without one. */
  ohms: number | null;
}

export interface Verdict {
  /** Conditions that agree with every reading and would show, best first. */
  fits: Fit[];
  /** Conditions that read as sound wiring does, with these instruments and this load. */
  silent: Condition[];
  /** What sound wiring shows here with this load. */
  expected: Record<ReadPair, number | null>;
  /** `good` only when the readings fit correct wiring and nothing is remarked upon. */
  grade: 'good' | 'worry' | 'bad' | 'no-power' | 'none';
  headline: string;
  remarks: Remark[];
}

export type Readings = Pick<
  Reading,
  'lamps' | 'hotNeutral' | 'hotGround' | 'neutralGround' | 'hotHot' | 'loadAmps' | 'groundOhms'
>;

/** What three lamps cannot tell apart; shown with every verdict from lamps. */
export const LAMP_BLIND_SPOTS =
  'Three lamps cannot see a false ground, a false ground with hot and neutral reversed, ground and neutral swapped, two hots, a poor ground or a loose neutral.';

/** A source may be this far from nominal, as a share. */
const SOURCE = { least: 0.9, most: 1.09 } as const;
/** Volts and share that a reading may be off its prediction. */
const SLACK = { volts: 1.5, share: 0.015 } as const;
/** Volts that unknown loads elsewhere on the circuit may add between neutral and ground, and take from hot to neutral. */
const ELSEWHERE = 3;
/** A zero between neutral and ground, and what should stand there for it to be one. */
const ZERO = { volts: 0.05, expected: 0.3 } as const;
/** Where neutral and ground are joined at the slots nothing stands between them, volts. */
const JOINED: readonly Condition[] = ['false-ground', 'false-ground-reversed', 'false-ground-open-neutral'];
const JOINED_VOLTS = 0.2;
/** A conductor that hangs loose never shows all of what stands beside it. */
const GHOST_SHARE = 0.9;
/** Below this nothing is live, volts. */
const NO_POWER = 5;
/** Two predictions this close are not told apart, volts. */
const ALIKE = 1;
/** A conductor hangs loose where a meter changes the volts by more than this share. */
const LOOSE = 0.02;

/** Conditions in which what is plugged in has a live frame. */
const LIVE_FRAMES: readonly Condition[] = [
  'hot-ground-reversed',
  'false-ground-reversed',
  'false-ground-open-neutral',
];

/** Predictions by run, stop, load and lamps: the same outlet is judged again and again. */
const remembered = new WeakMap<Run, Map<string, Prediction[]>>();

function predictions({ run, stop }: Setting, amps: number, lamps: boolean): Prediction[] {
  const known = remembered.get(run) ?? new Map<string, Prediction[]>();
  remembered.set(run, known);
  const key = `${stop} ${amps} ${lamps}`;
  let found = known.get(key);
  if (!found) {
    found = predictAt(run, stop, amps, lamps ? LAMP_TESTER.lampOhms : null);
    known.set(key, found);
  }
  return found;
}

/** What sound wiring shows at an outlet with a load there, volts; null between slots that it does not join. */
export const expectedAt = (setting: Setting, amps: number): Verdict['expected'] =>
  soundVolts(predictions(setting, amps, false)[0]!, setting);

const soundVolts = ({ meter }: Prediction, { grounding }: Setting): Verdict['expected'] =>
  grounding === 'none' ? { ...meter, hotGround: null, neutralGround: null } : meter;

/** How far a reading is from a prediction, in parts of what is allowed; over 1 does not fit. Infinity: lamps differ. */
function distance(readings: Readings, prediction: Prediction, correct: Prediction, lights: number): number {
  const { condition, meter, open, lampVolts } = prediction;
  let [own, squared] = [0, 0];
  for (const pair of READ_PAIRS) {
    const [read, told] = [readings[pair], meter[pair]];
    if (read === null || told === null || told < 60 || isLoose(prediction, pair)) continue;
    own += read * told;
    squared += told * told;
  }
  const scale = squared === 0 ? 1 : Math.min(SOURCE.most, Math.max(SOURCE.least, own / squared));
  let worst = 0;
  for (const pair of READ_PAIRS) {
    const read = readings[pair];
    if (read === null) continue;
    const told = meter[pair];
    if (told === null) return Infinity;
    const at = told * scale;
    const slack = SLACK.volts + SLACK.share * at;
    let [low, high] = [at - slack, at + slack];
    if (isLoose(prediction, pair)) {
      // Strays differ from house to house: anywhere from nothing to most of what stands there untouched.
      [low, high] = [
        0,
        Math.min(1.1 * open[pair]! * scale + slack, GHOST_SHARE * fullVolts(correct, pair) * scale),
      ];
    } else if (pair === 'neutralGround' && at < 60) {
      const sound = correct.meter.neutralGround ?? 0;
      // A zero where a drop should stand is a sign of its own.
      const joined = JOINED.includes(condition);
      low = sound * scale >= ZERO.expected && !joined ? Math.max(ZERO.volts, at - slack) : 0;
      high = at + (joined ? JOINED_VOLTS : ELSEWHERE);
    } else if (pair !== 'neutralGround' && at > 60) low -= ELSEWHERE;
    const [middle, half] = [(low + high) / 2, (high - low) / 2];
    worst = Math.max(worst, Math.abs(read - middle) / half);
  }
  if (readings.lamps && lampVolts) {
    const lit = lampVolts.map((v) => v * scale >= lights);
    if (lit.some((on, i) => on !== readings.lamps![i])) return Infinity;
  }
  return worst;
}

/** The most that can stand between two slots: what sound wiring shows there, or from hot to ground. */
const fullVolts = ({ meter }: Prediction, pair: ReadPair): number =>
  Math.max(meter[pair] ?? 0, meter.hotGround ?? 0);

function isLoose({ meter, open }: Prediction, pair: ReadPair): boolean {
  const [loaded, untouched] = [meter[pair], open[pair]];
  return loaded !== null && untouched !== null && untouched > 2 && loaded < (1 - LOOSE) * untouched;
}

/** Whether a condition shows nothing that sound wiring does not, on a meter, by lamps or under this load. */
function readsAlike(a: Prediction, b: Prediction, lights: number): boolean {
  const apart = READ_PAIRS.some((pair) => {
    if (isLoose(a, pair) !== isLoose(b, pair)) return true;
    return Math.abs((a.meter[pair] ?? 0) - (b.meter[pair] ?? 0)) > ALIKE;
  });
  if (apart) return false;
  const [x, y] = [a.lampVolts, b.lampVolts];
  return !x || !y || x.every((v, i) => v >= lights === y[i]! >= lights);
}

/**
 * Judges one set of readings.
 * @param setting where they were taken
 */
export function judge(readings: Readings, setting: Setting): Verdict {
  const { settings } = setting;
  const read = READ_PAIRS.filter((pair) => readings[pair] !== null);
  const all = predictions(setting, readings.loadAmps, readings.lamps !== null);
  const correct = all[0]!;
  const expected = soundVolts(correct, setting);
  if (!readings.lamps && read.length === 0)
    return { fits: [], silent: [], expected, grade: 'none', headline: 'Nothing read yet', remarks: [] };
  const lights = settings.tester.lights;
  const best = new Map<Condition, { worst: number; prediction: Prediction }>();
  for (const prediction of all) {
    const worst = distance(readings, prediction, correct, lights);
    const known = best.get(prediction.condition);
    if (worst <= 1 && (!known || worst < known.worst)) best.set(prediction.condition, { worst, prediction });
  }
  const soundFits = best.has('correct');
  const silent: Condition[] = [];
  const fits: Fit[] = [];
  for (const [condition, { prediction }] of [...best].sort((a, b) => a[1].worst - b[1].worst)) {
    const alike = condition !== 'correct' && readsAlike(prediction, correct, lights);
    // A joint that a sound circuit explains as well is no finding.
    const joint = prediction.ohms !== null && soundFits;
    if (alike || joint) {
      silent.push(condition);
      continue;
    }
    fits.push({ condition, label: labelOf(prediction), ohms: prediction.ohms });
  }
  fits.sort((a, b) => Number(b.condition === 'correct') - Number(a.condition === 'correct'));
  const remarks = remarksOn(readings, setting, fits, expected);
  if (readings.lamps && soundFits) remarks.push({ level: 'note', text: LAMP_BLIND_SPOTS });
  return { fits, silent, expected, remarks, ...summary(readings, fits, remarks) };
}

function labelOf({ condition, ohms }: Prediction): string {
  const { label } = CONDITIONS[condition];
  return ohms === null ? label : `${label}, about ${round(ohms, ohms < 10 ? 1 : 0)} Ω`;
}

function summary(
  readings: Readings,
  fits: readonly Fit[],
  remarks: Remark[],
): Pick<Verdict, 'grade' | 'headline'> {
  const dark = !readings.lamps || readings.lamps.every((lit) => !lit);
  const nothing = READ_PAIRS.every((pair) => (readings[pair] ?? 0) < NO_POWER);
  if (dark && nothing) {
    remarks.unshift({
      level: 'note',
      text: 'Check the breaker, an upstream GFCI and any wall switch before opening a box.',
    });
    return { grade: 'no-power', headline: 'No voltage: open hot, or the circuit is off' };
  }
  if (fits.length === 0) {
    remarks.unshift({
      level: 'worry',
      text: 'Check the readings once more; two faults at once remain, or a load elsewhere that is not on record.',
    });
    return { grade: 'bad', headline: 'Fits no single simple fault' };
  }
  const labels = fits.map((f) => f.label);
  if (fits[0]!.condition !== 'correct') {
    const gravities = fits.map((f) => CONDITIONS[f.condition].gravity);
    return { grade: gravities.every((g) => g === 'worry') ? 'worry' : 'bad', headline: either(labels) };
  }
  const worries = remarks.flatMap((r) => r.title ?? []);
  const others = labels.slice(1);
  if (worries.length > 0) return { grade: 'worry', headline: `Reads correct, but: ${worries.join(', ')}` };
  return others.length === 0
    ? { grade: 'good', headline: 'Correct' }
    : { grade: 'worry', headline: `Correct, but ${lower(either(others))} would read the same` };
}

const lower = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
const either = ([first = '', ...others]: readonly string[]): string =>
  [first, ...others.map(lower)].join(' or ');

function remarksOn(
  readings: Readings,
  { settings, grounding, run, stop }: Setting,
  fits: readonly Fit[],
  expected: Verdict['expected'],
): Remark[] {
  const { limits } = settings;
  const { hotGround, neutralGround, loadAmps, lamps } = readings;
  const remarks: Remark[] = [];
  const worry = (title: string, text: string) => remarks.push({ level: 'worry', title, text });
  const has = (condition: Condition) => fits.some((f) => f.condition === condition);
  remarks.push(...supplyRemarks(readings, limits, run.volts > 150));
  if (!has('correct') && LIVE_FRAMES.some(has)) {
    const sure = fits.every((f) => LIVE_FRAMES.includes(f.condition));
    remarks.push({
      level: 'danger',
      text: `Anything metal plugged in here ${sure ? 'is' : 'may be'} live. Turn the circuit off now.`,
    });
  }
  const grounded = fits.length > 0 && !has('open-ground') && (hotGround !== null || lamps !== null);
  if (grounding === 'none' && grounded && (has('correct') || has('false-ground')))
    worry(
      'a ground where there should be none',
      'The box is on record without an equipment ground, yet it reads grounded: look for a neutral jumpered to the ground screw (false ground). Power off, prove it dead, open the box.',
    );
  if (grounding === 'none' && fits.length === 1 && has('open-ground'))
    remarks.push({
      level: 'note',
      text: 'As expected of a box on record without an equipment ground; 406.4(D)(2) says what may be fitted there.',
    });
  const path = run.stops[stop]!.pathOhms;
  const sound = expected.neutralGround ?? 0;
  const numbers = `${loadAmps} A × ${round(loadAmps > 0 ? sound / loadAmps : path, 3)} Ω = ${round(sound, 2)} V`;
  if (has('false-ground') && !has('correct') && neutralGround !== null && neutralGround <= ZERO.volts)
    worry(
      'suspicious zero',
      `Suspicious zero: neutral–ground should read about ${numbers} here. A jumper from neutral to ground close by (false ground) gives 0.0 V. Open the box, dead, and look.`,
    );
  const loose = fits.find((f) => f.condition === 'loose-neutral' || f.condition === 'loose-hot');
  if (loose && !has('correct'))
    remarks.push({
      level: 'worry',
      text: `With ${loadAmps} A on, sound wiring reads ${voltsOf(expected)}. A joint of about ${round(loose.ohms!, 2)} Ω, here or upstream, explains what was read: ${round(loadAmps ** 2 * loose.ohms!, 0)} W of heat in it at this load.`,
    });
  if (readings.groundOhms !== null && readings.groundOhms > limits.groundOhms)
    worry(
      'ground path too long',
      `Ground path ${readings.groundOhms} Ω is over ${limits.groundOhms} Ω: a fault to it draws ${round(run.volts / readings.groundOhms, 0)} A, and the breaker may take long or hold.`,
    );
  if (!has('correct')) return remarks;
  const [read, told] = [readings.hotHot ?? readings.hotNeutral, expected.hotHot ?? expected.hotNeutral];
  const off = read === null || told === null ? 0 : (100 * (read - told)) / told;
  if (Math.abs(off) > limits.apartPercent)
    remarks.push({
      level: 'note',
      text: `${round(Math.abs(off), 1)} % ${off < 0 ? 'below' : 'above'} what the plan gives with ${settings.voltage} V at the panel. Read the panel, or look for load elsewhere on the circuit.`,
    });
  if (
    readings.hotNeutral !== null &&
    hotGround !== null &&
    readings.hotNeutral - hotGround > limits.hotGroundShortfall
  )
    worry(
      'poor ground path',
      `Hot–ground is ${round(readings.hotNeutral - hotGround, 1)} V below hot–neutral: a poor ground path.`,
    );
  if (neutralGround !== null && neutralGround > limits.neutralGround)
    worry(
      'neutral–ground high',
      `Neutral–ground ${neutralGround} V is over ${limits.neutralGround} V; sound wiring gives about ${numbers}. Load elsewhere on the circuit, or resistance in the neutral.`,
    );
  if (loadAmps === 0 && neutralGround !== null && neutralGround <= ZERO.volts)
    remarks.push({
      level: 'note',
      text: 'Neutral–ground of zero with no load says nothing about a false ground: read it again with a load on.',
    });
  return remarks;
}

const voltsOf = (expected: Verdict['expected']): string =>
  READ_PAIRS.flatMap((pair) =>
    expected[pair] === null ? [] : `${PAIR_WORDS[pair].toLowerCase()} ${round(expected[pair], 1)} V`,
  ).join(', ');

/** Supply too low or too high; three-phase legs. */
function supplyRemarks(readings: Readings, limits: Limits, twoHots: boolean): Remark[] {
  const remarks: Remark[] = [];
  const check = (pair: ReadPair, factor: number) => {
    const volts = readings[pair];
    if (volts === null || volts < 60) return;
    if (volts < factor * limits.lowVolts)
      remarks.push({
        level: 'worry',
        title: 'low voltage',
        text: `${PAIR_WORDS[pair]} ${volts} V is under ${factor * limits.lowVolts} V: measure at the panel next.`,
      });
    if (volts > factor * limits.highVolts)
      remarks.push({
        level: 'worry',
        title: 'high voltage',
        text: `${PAIR_WORDS[pair]} ${volts} V is over ${factor * limits.highVolts} V: an open service neutral does this. Compare both legs at once.`,
      });
  };
  if (!twoHots) check('hotNeutral', 1);
  const both = readings.hotHot;
  if (both !== null && both > 198 && both < 216)
    remarks.push({
      level: 'note',
      text: `Hot–hot ${both} V: two legs of a three-phase service give 208 V. Heating there gives three quarters of its watts.`,
    });
  else check('hotHot', 2);
  return remarks;
}
