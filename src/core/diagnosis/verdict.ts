/**
 * Judges the readings at an outlet: which wiring conditions agree with them, by what the network of its own circuit shows
 * on the same instruments. No table of lamp patterns is kept.
 */
import { fullLoad, isMultiwire, type Run } from '#core/circuits/run.ts';
import { LAMP_TESTER } from '#core/instruments/lamps.ts';
import type { Box, Limits, Reading, Settings } from '#core/job/schema.ts';
import { PERSON_OHMS } from '#core/network/layout.ts';
import { round } from '#core/units/quantity.ts';
import {
  CONDITIONS,
  JOINT_OHMS_RANGE,
  PAIR_WORDS,
  predictAt,
  PREDICTED,
  READ_PAIRS,
  type Condition,
  type Predicted,
  type Prediction,
  type ReadPair,
} from './conditions.ts';
import { jointRemark, loopJoint, neutralJoint, type Remark } from './joints.ts';
import { beyondOutlet, frameVolts, isGhostOfOff, isHeld, silentBeyond, type BeyondFit } from './beyond.ts';

/** The place of a reading: a stop of a run, with what is on record of the box there. */
export interface Setting {
  run: Run;
  stop: number;
  grounding: Box['grounding'];
  settings: Pick<Settings, 'voltage' | 'limits' | 'tester'>;
  /** Its breaker was on record as off when it was read. */
  off?: boolean;
  /** Its panel is fed by a feeder from another. */
  behindFeeder?: boolean;
  /** What was read may be off at a wall switch: a half of it, or all. */
  switched?: boolean;
}

interface Fit {
  condition: Condition;
  label: string;
  /** Ohms of the joint that fits best; null for conditions without one. */
  ohms: number | null;
  /** Through a body on any frame or ground there, amperes, with something plugged in or not. */
  bodyAmps: number;
}

export interface Verdict {
  /** Conditions that agree with every reading and would show, best first. */
  fits: Fit[];
  /** Conditions that read as sound wiring does, with these instruments and this load. */
  silent: Condition[];
  /** Those of them that kill: whoever reads “correct” must read them too. */
  silentDanger: Condition[];
  /** What sound wiring shows here with this load. */
  expected: Record<ReadPair, number | null>;
  /** `good` only when the readings fit correct wiring and nothing is remarked upon. */
  grade: 'good' | 'worry' | 'bad' | 'no-power' | 'none';
  headline: string;
  remarks: Remark[];
}

export type Readings = Pick<Reading, 'lamps' | ReadPair | 'groundReference' | 'loadAmps' | 'groundOhms'>;

/** What three lamps cannot tell apart; shown with every verdict from lamps. */
export const LAMP_BLIND_SPOTS =
  'Three lamps cannot see a false ground, a false ground with hot and neutral reversed, ground and neutral swapped, two hots, a poor ground or a loose neutral.';

/** A source may be this far from nominal, as a share. */
const SOURCE = { least: 0.9, most: 1.09 } as const;
/** Volts and share that a reading may be off its prediction. */
const SLACK = { volts: 1.5, share: 0.015 } as const;
/** Least volts that unknown loads elsewhere on the circuit may add between neutral and ground. */
const ELSEWHERE = 3;
/** What a meter’s last digit stands for, volts. */
const LAST_DIGIT = 0.1;
/** A zero between neutral and ground, and what should stand there for it to be one: a tenth that a meter shows. */
const ZERO = { volts: 0.05, expected: 0.1 } as const;
/** Current through a body from which on something is deadly, amperes. */
const DANGER_AMPS = 0.005;
/** From here on a ground slot is live against a proven ground, whatever else was read; less may be a ghost, volts. */
const REFERENCE_VOLTS = 30;
/** Where neutral and ground are joined at the slots nothing stands between them, volts. */
const JOINED: readonly Condition[] = [
  'false-ground',
  'false-ground-reversed',
  'false-ground-open-neutral',
  'neutral-ground-joined',
];
const JOINED_VOLTS = 0.2;
/**
 * A conductor that hangs loose shows any share of what stands beside it, and never all of it. Where no other pair shows
 * what the source is, its least is taken: else a low source would be a ghost.
 */
const GHOST_SHARE = { beside: 0.97, alone: SOURCE.least } as const;
/** Below this nothing is live, volts; from the other on it is no ghost of what is off. */
const NO_POWER = 5;
const LIVE = 60;
/** What a meter may be off, as a share. */
const METER_SHARE = 0.0125;
/** Two predictions this close are not told apart, volts. */
const ALIKE = 1;
/** A conductor hangs loose where a meter changes the volts by more than this share. */
const LOOSE = 0.02;

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

const soundVolts = ({ meter }: Prediction, { grounding }: Setting): Verdict['expected'] => {
  const { hotNeutral, hotGround, neutralGround, hotHot } = meter;
  const grounded = grounding !== 'none';
  return {
    hotNeutral,
    hotGround: grounded ? hotGround : null,
    neutralGround: grounded ? neutralGround : null,
    hotHot,
  };
};

/** A cable that was neither drawn nor measured may be so many times as long as is usual. */
const LONGER = 2.5;

/** Whether a length on the way from the panel is only assumed. */
function isAssumed({ stops }: Run, stop: number): boolean {
  for (let at = stop; at >= 0; at = stops[at]!.feeder)
    if (stops[at]!.segment.source === 'assumed') return true;
  return false;
}

/** Share of its volts that a feeder with all on may take from each of its conductors. */
const FEEDER_DROP = 0.02;

/** Volts that what else is on the circuit, and on its feeder, may take from a conductor on its way here. */
const elsewhere = ({ run, stop, behindFeeder = false, settings }: Setting): number =>
  Math.max(
    ELSEWHERE,
    fullLoad(run.circuit) * run.stops[stop]!.pathOhms * (isAssumed(run, stop) ? LONGER : 1),
  ) + (behindFeeder ? FEEDER_DROP * settings.voltage : 0);

/**
 * How far a reading is from a prediction, in parts of what is allowed; over 1 does not fit. The source may be at any voltage
 * that one of the pairs tells of: loads elsewhere lower some pairs more than others. Infinity: lamps differ.
 */
function distance(readings: Readings, prediction: Prediction, correct: Prediction, setting: Setting): number {
  const { meter } = prediction;
  const ratios: number[] = [];
  for (const pair of PREDICTED) {
    const [read, told] = [readings[pair], meter[pair]];
    if (read === null || told === null || told < 60 || isLoose(prediction, pair)) continue;
    ratios.push(Math.min(SOURCE.most, Math.max(SOURCE.least, read / told)));
  }
  if (ratios.length === 0) return distanceAt(1, GHOST_SHARE.alone, readings, prediction, correct, setting);
  const middle = ratios.reduce((sum, r) => sum + r, 0) / ratios.length;
  return Math.min(
    ...[...ratios, middle].map((scale) =>
      distanceAt(scale, GHOST_SHARE.beside, readings, prediction, correct, setting),
    ),
  );
}

/** @param scale of the source, as a share of nominal; @param ghost most that a loose conductor shows */
function distanceAt(
  scale: number,
  ghost: number,
  readings: Readings,
  prediction: Prediction,
  correct: Prediction,
  setting: Setting,
): number {
  const { condition, meter, open, lampVolts } = prediction;
  const { lights } = setting.settings.tester;
  const others = elsewhere(setting);
  let worst = 0;
  for (const pair of PREDICTED) {
    const read = readings[pair];
    if (read === null) continue;
    const told = meter[pair];
    if (told === null) return Infinity;
    const at = told * scale;
    const slack = SLACK.volts + SLACK.share * at;
    let [low, high] = [at - slack, at + slack];
    const toGround = pair === 'neutralGround' || pair === 'groundReference';
    if (isLoose(prediction, pair)) {
      // Strays differ from house to house and from cable to cable, and a meter may be one that loads.
      const most = Math.min(ghost * fullVolts(correct, pair), prediction.ghost[pair]! + SLACK.volts);
      [low, high] = [0, Math.max(slack, most * scale)];
      if (open[pair]! < NO_POWER) high = slack;
    } else if (toGround && at < 60) {
      const joined = pair === 'neutralGround' && JOINED.includes(condition);
      // A zero where a drop should stand is a sign of its own; on a shared neutral what is on the other hot may cancel it.
      const suspicious = pair === 'neutralGround' && at >= ZERO.expected && !isMultiwire(setting.run);
      low = suspicious ? Math.max(ZERO.volts, at - slack) : 0;
      high = at + (joined ? JOINED_VOLTS : others + LAST_DIGIT);
    } else if (!toGround && at > 60)
      low -= pair === 'hotGround' ? others : Math.max(ELSEWHERE, 2 * others - ELSEWHERE);
    // What stands on the hot slot then is a neutral or a ground, with its drop.
    else if (!toGround && read > high) high = at + others;
    const [middle, half] = [(low + high) / 2, (high - low) / 2];
    worst = Math.max(worst, Math.abs(read - middle) / half);
  }
  if (readings.lamps && lampVolts) {
    const lit = lampVolts.map((v) => v * scale >= lights);
    if (lit.some((on, i) => on !== readings.lamps![i])) return Infinity;
  }
  return worst;
}

/** Steps over the ohms of a joint before the best of them is narrowed down, and rounds of that. */
const OHM_STEPS = 24;
const OHM_ROUNDS = 5;
/** A joint that is farther off than this, in parts of what is allowed, is not made to fit by other ohms between two steps. */
const NEAR = 4;

/**
 * A prediction with the ohms of its joint that are nearest to what was read: the best of a few steps over their logarithm,
 * and the halves beside it, again and again.
 */
function fitOhms(
  prediction: Prediction,
  away: (prediction: Prediction) => number,
): { worst: number; prediction: Prediction } {
  const { withOhms } = prediction;
  if (!withOhms) return { worst: away(prediction), prediction };
  const { least, most } = JOINT_OHMS_RANGE;
  const at = (log: number) => {
    const tried = withOhms(Math.exp(log));
    return { log, prediction: tried, worst: away(tried) };
  };
  let step = Math.log(most / least) / OHM_STEPS;
  let best = at(Math.log(least));
  const take = (log: number) => {
    const tried = at(log);
    if (tried.worst < best.worst) best = tried;
  };
  for (let k = 1; k <= OHM_STEPS; k++) take(Math.log(least) + k * step);
  for (let round = 0; round < OHM_ROUNDS && best.worst < NEAR; round++) {
    step /= 2;
    const { log } = best;
    take(log - step);
    take(log + step);
  }
  return best;
}

/** The most that can stand between two slots: what sound wiring shows there, or from hot to ground. */
const fullVolts = ({ meter }: Prediction, pair: Predicted): number =>
  Math.max(meter[pair] ?? 0, meter.hotGround ?? 0);

function isLoose({ meter, open }: Prediction, pair: Predicted): boolean {
  const [loaded, untouched] = [meter[pair], open[pair]];
  return loaded !== null && untouched !== null && untouched > 2 && loaded < (1 - LOOSE) * untouched;
}

/** Whether a condition shows nothing that sound wiring does not, on a meter, by lamps or under this load. */
function readsAlike(a: Prediction, b: Prediction, lights: number, withReference: boolean): boolean {
  const pairs: readonly Predicted[] = withReference ? PREDICTED : READ_PAIRS;
  const apart = pairs.some((pair) => {
    if (isLoose(a, pair) !== isLoose(b, pair)) return true;
    const [one, other] = [a.meter[pair] ?? 0, b.meter[pair] ?? 0];
    // A ground that hangs loose between hots of opposite legs stands in their middle, within what a meter is off.
    return Math.abs(one - other) > Math.max(ALIKE, METER_SHARE * other);
  });
  if (apart) return false;
  const [x, y] = [a.lampVolts, b.lampVolts];
  return !x || !y || x.every((v, i) => v >= lights === y[i]! >= lights);
}

/** The verdict where there is nothing to judge, or nothing to judge it by. */
export const unjudged = (headline: string, expected: Verdict['expected']): Verdict => ({
  fits: [],
  silent: [],
  silentDanger: [],
  expected,
  grade: 'none',
  headline,
  remarks: [],
});

/**
 * Judges one set of readings.
 * @param setting where they were taken
 */
export function judge(readings: Readings, setting: Setting): Verdict {
  const { run, stop } = setting;
  const { lights } = setting.settings.tester;
  const all = predictions(setting, readings.loadAmps, readings.lamps !== null);
  const correct = all[0]!;
  const expected = soundVolts(correct, setting);
  const read = PREDICTED.filter((pair) => readings[pair] !== null);
  if (!readings.lamps && read.length === 0) return unjudged('Nothing read yet', expected);
  const body = new Map<Condition, number>();
  for (const { condition, bodyAmps } of all)
    body.set(condition, Math.max(body.get(condition) ?? 0, bodyAmps));
  const best = new Map<Condition, { worst: number; prediction: Prediction }>();
  // A ground-fault device before this outlet opens when its neutral is joined to ground behind it.
  const guarded = run.stops[stop]!.gfci !== null;
  for (const prediction of all) {
    if (guarded && prediction.condition === 'neutral-ground-joined') continue;
    const fitted = fitOhms(prediction, (p) => distance(readings, p, correct, setting));
    const known = best.get(prediction.condition);
    if (fitted.worst <= 1 + 1e-9 && (!known || fitted.worst < known.worst))
      best.set(prediction.condition, fitted);
  }
  if (setting.switched && isGhostOfOff(readings, setting.settings.voltage) && !readings.lamps?.includes(true))
    return offAtSwitch(
      readings,
      expected,
      [...best.keys()].filter((c) => body.get(c)! >= DANGER_AMPS),
    );
  const soundFits = best.has('correct');
  const silent: Condition[] = [];
  const fits: Fit[] = [];
  for (const [condition, { prediction }] of [...best].sort((a, b) => a[1].worst - b[1].worst)) {
    const alike =
      soundFits &&
      condition !== 'correct' &&
      readsAlike(prediction, correct, lights, readings.groundReference !== null);
    // A joint that a sound circuit explains as well is judged by its ohms alone.
    const joint = prediction.ohms !== null && soundFits;
    if (alike || joint) {
      silent.push(condition);
      continue;
    }
    const { ohms } = prediction;
    fits.push({ condition, label: labelOf(prediction), ohms, bodyAmps: body.get(condition)! });
  }
  if (soundFits && isMultiwire(run) && readings.hotHot === null) silent.push('same-leg');
  const { behindFeeder = false } = setting;
  const place = { nominal: setting.settings.voltage, drop: 2 * elsewhere(setting) };
  const beyond = (strict: boolean): BeyondFit[] =>
    takesBoth(setting)
      ? []
      : beyondOutlet(readings, { ...place, behindFeeder, multiwire: isMultiwire(run), strict });
  const add = ({ condition, bodyAmps }: BeyondFit): void => {
    if (!fits.some((f) => f.condition === condition))
      fits.push({ condition, label: CONDITIONS[condition].label, ohms: null, bodyAmps });
  };
  beyond(true)
    .filter((b) => isNeutral(b.condition))
    .forEach(add);
  // What is on elsewhere explains readings that no simple fault of this box does.
  const wider = soundFits ? [] : beyond(false);
  if (fits.length === 0) wider.forEach(add);
  // A ghost of an open ground is one thing, a ground that something holds near the hot another: both are named.
  else if (best.has('open-ground') && !fits.some(isDeadly) && isHeld(readings))
    wider.filter(isDeadly).forEach(add);
  const possible = wider.map((b) => b.condition).filter((c) => !fits.some((f) => f.condition === c));
  fits.sort(
    (a, b) =>
      Number(b.condition === 'correct') - Number(a.condition === 'correct') ||
      Number(isDeadly(b)) - Number(isDeadly(a)),
  );
  const quiet = soundFits
    ? silentBeyond(behindFeeder).filter((c) => !fits.some((f) => f.condition === c))
    : possible;
  const silentDanger = silent.filter((c) => soundFits && (body.get(c) ?? 0) >= DANGER_AMPS);
  const remarks = remarksOn(readings, setting, fits, expected);
  const frames = frameVolts(readings, place, lights);
  const said = remarks.some((r) => r.level === 'danger');
  // Slots of a circuit that is off show ghosts; a lamp or a proven ground does not.
  const sure = !setting.off || readings.lamps?.[2] || (readings.groundReference ?? 0) >= REFERENCE_VOLTS;
  if (!said && sure && frames !== null && !clearsFrames(fits, readings))
    remarks.unshift({
      level: 'danger',
      text: `${round(frames, 0)} V or more may stand on the ground here, and on anything metal plugged in: ${round((1000 * frames) / PERSON_OHMS, 0)} mA through whoever touches it. Turn the circuit off now; nobody touches it until the ground slot was read to a proven ground at low impedance.`,
    });
  if (readings.lamps && soundFits) remarks.push({ level: 'note', text: LAMP_BLIND_SPOTS });
  if (soundFits && silent.length > 0)
    remarks.push({
      level: 'note',
      text: `These read the same here: ${silent.map((c) => lower(CONDITIONS[c].label)).join(', ')}. A load on, or the ground slot to a proven reference, tells most of them.`,
    });
  if (possible.length > 0)
    remarks.push({
      level: possible.includes('no-main-bond') ? 'worry' : 'note',
      text: `Also possible, with what is on elsewhere: ${possible.map((c) => lower(CONDITIONS[c].label)).join('; ')}. ${possible.includes('no-main-bond') ? 'Read the ground slot again at low impedance: what stays is no ghost, and every ground of the house may be live.' : 'Other loads off, then on, tell them.'}`,
    });
  else if (quiet.length > 0)
    remarks.push({
      level: 'note',
      text: `Beyond this box these may show nothing here: ${quiet.map((c) => lower(CONDITIONS[c].label)).join('; ')}. Both legs under load, a clamp around the whole cable, and the other circuits off one by one tell them.`,
    });
  return {
    fits,
    silent: [...silent, ...quiet],
    silentDanger,
    expected,
    remarks,
    ...summary(readings, setting, fits, silentDanger, remarks),
  };
}

/** Whether what fits leaves the frames at earth: lamps do not tell which side of a lit pair is live. */
const clearsFrames = (
  fits: readonly Fit[],
  { groundReference, lamps, hotNeutral, hotGround }: Readings,
): boolean =>
  fits.length > 0 &&
  (groundReference ?? 0) < REFERENCE_VOLTS &&
  !(lamps?.[2] === true && hotNeutral === null && hotGround === null);

/** What a switch that is off leaves at the slots, with what would look the same and kills. */
function offAtSwitch(
  { hotNeutral }: Readings,
  expected: Verdict['expected'],
  silentDanger: Condition[],
): Verdict {
  const ghost = (hotNeutral ?? 0) >= NO_POWER;
  const same = silentDanger.map((c) => lower(CONDITIONS[c].label));
  return {
    ...unjudged(
      ghost
        ? `Off at its switch, or its hot open: ${hotNeutral} V is a ghost`
        : 'No voltage: off at its switch, or its hot open',
      expected,
    ),
    fits: [{ condition: 'switched-off', label: CONDITIONS['switched-off'].label, ohms: null, bodyAmps: 0 }],
    silentDanger,
    grade: 'no-power',
    remarks: [
      {
        level: 'note',
        text: `Its switch on, or a load or low impedance on it, then read again: a ghost falls to nothing.${same.length > 0 ? ` Not told apart before that: ${same.join(', ')}.` : ''}`,
      },
    ],
  };
}

const takesBoth = ({ run }: Pick<Setting, 'run'>): boolean => run.volts > 150;
/** Lies outside the circuit: its breaker alone does not end it. */
const BEYOND: ReadonlySet<Condition> = new Set([
  ...(['open-service-neutral', 'open-feeder-neutral', 'open-feeder-ground', 'no-main-bond'] as const),
]);
const isNeutral = (c: Condition): boolean =>
  c === 'open-service-neutral' || c === 'open-shared-neutral' || c === 'open-feeder-neutral';
const isDeadly = ({ bodyAmps }: Pick<Fit, 'bodyAmps'>): boolean => bodyAmps >= DANGER_AMPS;

function labelOf({ condition, ohms }: Prediction): string {
  const { label } = CONDITIONS[condition];
  return ohms === null ? label : `${label}, about ${round(ohms, ohms < 10 ? 1 : 0)} Ω`;
}

function summary(
  readings: Readings,
  { off = false, run }: Setting,
  fits: readonly Fit[],
  silentDanger: readonly Condition[],
  remarks: Remark[],
): Pick<Verdict, 'grade' | 'headline'> {
  const volts = PREDICTED.flatMap((pair) => readings[pair] ?? []);
  const nothing = volts.every((v) => v < NO_POWER) && !(readings.lamps ?? []).includes(true);
  if (off) {
    if (nothing) return { grade: 'no-power', headline: 'No voltage, with the breaker on record as off' };
    if (Math.max(0, ...volts) >= LIVE || (readings.lamps ?? []).includes(true)) {
      remarks.unshift({
        level: 'danger',
        text: 'The breaker on record as off does not feed this, or something else does: another circuit, a second feed, a back-feed. Nobody opens it. Find what feeds it.',
      });
      return { grade: 'bad', headline: 'Live, with the breaker on record as off' };
    }
  }
  // An unread pair is unread, never zero.
  const slots: ReadPair[] = takesBoth({ run })
    ? ['hotGround', 'hotHot']
    : ['hotNeutral', 'hotGround', 'neutralGround'];
  const dark = readings.lamps?.every((lit) => !lit) ?? slots.every((pair) => readings[pair] !== null);
  if (dark && nothing) {
    const deadly = fits.filter(isDeadly).map((f) => lower(f.label));
    remarks.push({
      level: 'note',
      text: 'Check the breaker, an upstream GFCI and any wall switch before opening a box.',
    });
    return deadly.length === 0
      ? { grade: 'no-power', headline: 'No voltage: open hot, or the circuit is off' }
      : {
          grade: 'bad',
          headline: `Nothing between the slots: open hot, the breaker off, or ${deadly.join(' or ')}`,
        };
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
    const hot = remarks.some((r) => r.level === 'danger');
    return {
      grade: !hot && gravities.every((g) => g === 'worry') ? 'worry' : 'bad',
      headline: either(labels),
    };
  }
  const worries = remarks.flatMap((r) => r.title ?? []);
  const others = labels.slice(1).map(lower);
  const alike = [...others, ...silentDanger.map((c) => lower(CONDITIONS[c].label))];
  const same = alike.length > 0 ? `${alike.join(' and ')} would read the same` : '';
  if (worries.length > 0)
    return {
      grade: 'worry',
      headline: `Reads correct, but: ${worries.join(', ')}${same && `; ${same}`}`,
    };
  if (others.length > 0) return { grade: 'worry', headline: `Reads correct, but ${same}` };
  return { grade: 'good', headline: same ? `Reads correct; ${same}` : 'Correct' };
}

const lower = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
const either = ([first = '', ...others]: readonly string[]): string =>
  [first, ...others.map(lower)].join(' or ');

function remarksOn(
  readings: Readings,
  setting: Setting,
  fits: readonly Fit[],
  expected: Verdict['expected'],
): Remark[] {
  const { run, stop, off = false, settings, grounding } = setting;
  const { limits } = settings;
  const { hotGround, neutralGround, loadAmps, lamps } = readings;
  const usable = fullLoad(run.circuit);
  const remarks: Remark[] = [];
  const worry = (title: string, text: string) => remarks.push({ level: 'worry', title, text });
  const has = (condition: Condition) => fits.some((f) => f.condition === condition);
  remarks.push(...supplyRemarks(readings, limits, takesBoth(setting)));
  const deadly = fits.filter(isDeadly);
  if (!off && deadly.length > 0 && !has('correct')) {
    const sure = deadly.length === fits.length;
    const milliamps = round(1000 * Math.max(...deadly.map((f) => f.bodyAmps)), 0);
    remarks.push({
      level: 'danger',
      text: `Anything metal plugged in here ${sure ? 'is' : 'may be'} live: ${milliamps} mA through whoever touches it. ${deadly.some((f) => BEYOND.has(f.condition)) ? 'The main off now: it may come from another circuit, or from before the panel.' : 'Turn the circuit off now.'}`,
    });
    if (has('energized-ground'))
      remarks.push({
        level: 'worry',
        text: 'What tells them apart: the ground slot to a proven reference, such as a lead from a proven ground. About 120 V there is a live ground; 0 V is hot and neutral reversed.',
      });
  }
  if (has('open-service-neutral') || has('open-shared-neutral')) {
    const first = has('open-service-neutral')
      ? 'Main off now. Read both legs at the panel; where the neutral of the service is open, call the utility.'
      : isMultiwire(run)
        ? 'Both poles of this circuit off now, or the main.'
        : 'The main off now: another circuit shares its neutral, whatever the drawing says.';
    remarks.push({
      level: 'danger',
      text: `${first} One side gets too much voltage and burns what is plugged in; the neutral is live where it is parted.`,
    });
  } else if (has('open-feeder-neutral') && !has('correct'))
    remarks.push({
      level: 'danger',
      text: 'The feeder of this panel off now, at both poles. One side gets too much voltage and burns what is plugged in; the neutral is live where it is parted. Its lugs at both ends are looked at dead.',
    });
  else if ((has('open-neutral') || has('loose-neutral')) && !has('correct'))
    remarks.push({
      level: 'worry',
      text: 'A fault to mend: a neutral joint in this box, or in one before it. Circuit off, prove it dead, look at the neutral there; where it is parted it is live to ground while anything is on.',
    });
  const grounded = fits.length > 0 && !has('open-ground') && (hotGround !== null || lamps !== null);
  if (grounding === 'none' && grounded && (has('correct') || has('false-ground'))) {
    // With hot and neutral reversed as well it reads the same, and every frame is live.
    if (readings.groundReference === null)
      remarks.push({
        level: 'danger',
        text: `There is no ground that could read so: until the ground slot was read to a proven ground, anything metal plugged in here may be live with ${settings.voltage} V, ${round((1000 * settings.voltage) / PERSON_OHMS, 0)} mA through whoever touches it. Nobody plugs in anything with a metal frame.`,
      });
    worry(
      'a ground where there should be none',
      'The box is on record without an equipment ground, yet it reads grounded: look for a neutral jumpered to the ground screw (false ground). Power off, prove it dead, open the box.',
    );
  }
  if (grounding === 'none' && fits.length === 1 && has('open-ground'))
    remarks.push({
      level: 'note',
      text: 'As expected of a box on record without an equipment ground; 406.4(D)(2) says what may be installed there.',
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
  if (loose && loose.ohms !== null && !has('correct'))
    remarks.push(
      jointRemark(
        loose.ohms,
        usable,
        `With ${loadAmps} A on, sound wiring reads ${voltsOf(expected)}. A joint of about ${round(loose.ohms, 2)} Ω, here or upstream, explains what was read`,
      ),
    );
  remarks.push(...neutralJoint(readings, path, limits.excessOhms, usable));
  if (has('correct')) remarks.push(...loopJoint(readings, expected.hotNeutral, settings.voltage, usable));
  if (readings.groundOhms !== null && readings.groundOhms > limits.groundOhms)
    worry(
      'ground path too long',
      `Ground path ${readings.groundOhms} Ω is over ${limits.groundOhms} Ω: a fault to it draws ${round(run.volts / readings.groundOhms, 0)} A, and the breaker may take long or hold.`,
    );
  if (!has('correct')) return remarks;
  const [read, told] = [readings.hotHot ?? readings.hotNeutral, expected.hotHot ?? expected.hotNeutral];
  const percent = read === null || told === null ? 0 : (100 * (read - told)) / told;
  if (Math.abs(percent) > limits.apartPercent)
    remarks.push({
      level: 'note',
      text: `${round(Math.abs(percent), 1)} % ${percent < 0 ? 'below' : 'above'} what the plan gives with ${settings.voltage} V at the panel. Read the panel, or look for load elsewhere on the circuit.`,
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
