/**
 * What shows at an outlet by what is on elsewhere: poor joints before other loads of the circuit; neutrals of two circuits,
 * of feeder and service; bonds and lost legs. Nobody at the outlet knows those loads, so that these are told from the
 * voltages themselves: hot, neutral and ground lie on one line, and each fault moves one of them along it.
 */
import type { Reading } from '#core/job/schema.ts';
import { PERSON_OHMS } from '#core/network/layout.ts';
import type { Condition } from './conditions.ts';

/** Volts that readings of one moment may disagree by. */
const AGREE = 3;
/** From here on the neutral is off its place by more than a joint or drop explains: raised, or pulled down, volts. */
const OFF_PLACE = { raised: 10, pulled: 18 } as const;
/** A neutral of one hot is pulled down by its own loads; from this share of nominal on another leg may do it. */
const PULLED_ALONE = 0.45;
/** The ground is off its place, with neutral and hot where they belong, volts. */
const GROUND_OFF = 8;
/** Volts above nominal that no sound source has, as a share. */
const TOO_HIGH = 1.1;
/** Below this a slot is dead or floats, not fed through a load, volts. */
const LEAST = 20;
/**
 * A ground that hangs loose in its cable stands about half way between hot and neutral, and a meter pulls it down: farther
 * from half than this share, and on one line with both to so many volts, something holds it there.
 */
const HELD = { share: 0.2, volts: 1 } as const;
/** A hot that hangs loose beside a live one shows up to this share of it, on a meter of high impedance. */
const GHOST = { share: 0.75, neutralGround: AGREE } as const;

type Volts = Pick<Reading, 'hotNeutral' | 'hotGround' | 'neutralGround'>;

export interface Beyond {
  /** Volts of one leg. */
  nominal: number;
  /** Volts that sound wiring may have between hot and neutral by what else is on. */
  drop: number;
  /** Its panel is fed by a feeder from another. */
  behindFeeder: boolean;
  /** Its neutral serves two hots by plan. */
  multiwire: boolean;
  /** Only what shows well. */
  strict: boolean;
}

/** A condition beyond the box, with what goes through a body of 1 kΩ from any frame there to earth, amperes. */
export interface BeyondFit {
  condition: Condition;
  bodyAmps: number;
}

/** Conditions that agree with the readings at a 120 V outlet, whatever is on elsewhere on the circuit or in the house. */
export function beyondOutlet(
  read: Volts,
  { nominal, drop, behindFeeder, multiwire, strict }: Beyond,
): BeyondFit[] {
  const { hotNeutral: hn, hotGround: hg, neutralGround: ng } = read;
  if (hn === null || hn > 2 * TOO_HIGH * nominal) return [];
  const found: BeyondFit[] = [];
  /** @param volts of the frames there to earth */
  const add = (condition: Condition, volts = 0) =>
    found.push({ condition, bodyAmps: Math.max(0, volts) / PERSON_OHMS });
  // The ground stays with the neutral bar: both go where the loads of the two legs put them, and so do all frames.
  const together = (hg === null || Math.abs(hg - hn) <= AGREE) && (ng === null || ng <= AGREE);
  const high = hn > (strict ? TOO_HIGH : 1) * nominal;
  const low = hn < (strict ? 0.9 * nominal - drop - AGREE : nominal);
  if (together && hn >= LEAST && (high || low)) {
    add('open-service-neutral', Math.abs(hn - nominal));
    // A feeder of three wires, its neutral joined to ground at this panel.
    if (behindFeeder) add('open-feeder-neutral', Math.abs(hn - nominal));
  }
  // Fed from the other leg through what hangs across both.
  if (together && hn >= LEAST / 4 && low) add('lost-leg');
  // Before a load elsewhere on the circuit.
  if (!strict && hn >= LEAST && low && (ng === null || ng <= AGREE + drop)) add('loose-hot');
  // The ground stays at its place, the neutral does not.
  const grounded = hg === null || Math.abs(hg - nominal) <= 0.1 * nominal + drop / 2;
  const away = hg ?? nominal;
  const raised = hn - away >= (strict ? OFF_PLACE.raised : AGREE);
  const pulled = away - hn >= (strict ? OFF_PLACE.pulled : AGREE);
  const agrees = ng === null || Math.abs(Math.abs(away - hn) - ng) <= AGREE;
  const off = grounded && agrees && (raised || pulled);
  // All of 240 V on an outlet of one hot is first of all a hot of the other leg in the place of its neutral.
  const whole = hn > 2 * nominal - LEAST && !multiwire;
  const shared = multiwire || raised || !strict || away - hn >= PULLED_ALONE * nominal;
  if (off && shared && (hn >= LEAST || raised) && !(strict && whole)) add('open-shared-neutral');
  if (off && behindFeeder && !(hg === null && together)) add('open-feeder-neutral');
  if (off && !strict && hn >= LEAST) add('loose-neutral');
  // Hot and neutral stay, the ground does not: something holds it, and what should bring it back does not.
  const fed = Math.abs(hn - nominal) <= 0.1 * nominal + drop;
  const moved = ng !== null && hg !== null && ng >= GROUND_OFF && ng < TOO_HIGH * nominal;
  if (fed && moved && Math.abs(hg - nominal) > Math.abs(hn - nominal)) {
    if (Math.abs(hn - ng - hg) <= AGREE) add('hot-on-poor-ground', ng);
    if (Math.min(Math.abs(Math.abs(hn - ng) - hg), Math.abs(hn + ng - hg)) <= AGREE) {
      if (behindFeeder) add('open-feeder-ground', ng);
      add('no-main-bond', ng);
    }
  }
  return found;
}

/** Whether what stands on the ground is held there, and no ghost of one that hangs loose. */
export const isHeld = ({ hotNeutral: hn, hotGround: hg, neutralGround: ng }: Volts): boolean =>
  hn !== null &&
  hg !== null &&
  ng !== null &&
  Math.abs(ng - hn / 2) >= HELD.share * hn &&
  Math.abs(hg + ng - hn) <= HELD.volts;

/** Whether the readings are what a hot that is off at its switch picks up beside a live one. */
export const isGhostOfOff = (
  { hotNeutral: hn, hotGround: hg, neutralGround: ng, loadAmps }: Volts & Pick<Reading, 'loadAmps'>,
  nominal: number,
): boolean =>
  loadAmps === 0 &&
  hn !== null &&
  hn <= GHOST.share * nominal &&
  (hg === null || Math.abs(hg - hn) <= Math.max(AGREE, 0.2 * hn)) &&
  (ng === null || ng <= GHOST.neutralGround);

/**
 * Volts that frames may stand at by the readings themselves, whatever the fault; null where they say nothing of it. With the
 * hot at its place a ground that is off its own is live.
 * @param lights volts that a lamp of the tester lights from
 */
export function frameVolts(
  {
    hotNeutral: hn,
    hotGround: hg,
    neutralGround: ng,
    groundReference,
    lamps,
  }: Volts & Pick<Reading, 'groundReference' | 'lamps'>,
  { nominal, drop }: Pick<Beyond, 'nominal' | 'drop'>,
  lights: number,
): number | null {
  if (groundReference !== null && groundReference >= AGREE + 2) return groundReference;
  if (hg !== null && hg > TOO_HIGH * nominal + drop && (hn === null || hg > hn + AGREE)) return hg - nominal;
  // Between the neutral and the hot: nearer to the hot than the neutral is.
  if (hg !== null && hn !== null && hn - hg >= GROUND_OFF) return ng ?? hn - hg;
  if (hn === null && hg !== null && ng !== null && ng >= GROUND_OFF && hg < 0.9 * nominal - drop) return ng;
  const lit = lamps?.[2] === true && ng === null;
  return lit ? lights : null;
}

/** What reads as sound wiring does at an outlet, wherever in the house it is, unless more is measured than its slots. */
export const silentBeyond = (behindFeeder: boolean): Condition[] => [
  'open-service-neutral',
  ...(behindFeeder ? (['open-feeder-neutral', 'second-bond'] as const) : []),
  ...(['lost-leg', 'no-main-bond', 'borrowed-neutral', 'tied-circuits', 'wrong-bar', 'leak'] as const),
];
