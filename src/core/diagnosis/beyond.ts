/**
 * What shows at an outlet by what is on elsewhere: poor joints before other loads of the circuit; neutrals of two circuits,
 * of feeder and service; bonds and lost legs. Nobody at the outlet knows those loads, so that these are told from the
 * voltages themselves: hot, neutral and ground lie on one line, and each fault moves one of them along it.
 */
import type { Reading } from '#core/job/schema.ts';
import type { Condition } from './conditions.ts';

/** Volts that readings of one moment may disagree by. */
const AGREE = 3;
/** From here on the neutral is off its place by more than a joint or drop explains: raised, or pulled down, volts. */
const OFF_PLACE = { raised: 10, pulled: 18 } as const;
/** The ground is off its place, with neutral and hot where they belong, volts. */
const GROUND_OFF = 8;
/** Volts above nominal that no sound source has, as a share. */
const TOO_HIGH = 1.1;
/** Below this a slot is dead or floats, not fed through a load, volts. */
const LEAST = 20;

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

/** Conditions that agree with the readings at a 120 V outlet, whatever is on elsewhere on the circuit or in the house. */
export function beyondOutlet(
  read: Volts,
  { nominal, drop, behindFeeder, multiwire, strict }: Beyond,
): Condition[] {
  const { hotNeutral: hn, hotGround: hg, neutralGround: ng } = read;
  if (hn === null || hn > 2 * TOO_HIGH * nominal) return [];
  const found: Condition[] = [];
  // The ground stays with the neutral bar: both go where the loads of the two legs put them.
  const together = (hg === null || Math.abs(hg - hn) <= AGREE) && (ng === null || ng <= AGREE);
  const high = hn > (strict ? TOO_HIGH : 1) * nominal;
  const low = hn < (strict ? 0.9 * nominal - drop - AGREE : nominal);
  if (together && hn >= LEAST && (high || low)) found.push('open-service-neutral');
  // Fed from the other leg through what hangs across both.
  if (together && hn >= LEAST / 4 && low) found.push('lost-leg');
  // Before a load elsewhere on the circuit.
  if (!strict && hn >= LEAST && low && (ng === null || ng <= AGREE + drop)) found.push('loose-hot');
  // The ground stays at its place, the neutral does not.
  const grounded = hg === null || Math.abs(hg - nominal) <= 0.1 * nominal + drop / 2;
  const away = hg ?? nominal;
  const raised = hn - away >= (strict ? OFF_PLACE.raised : AGREE);
  const pulled = away - hn >= (strict ? OFF_PLACE.pulled : AGREE);
  const agrees = ng === null || Math.abs(Math.abs(away - hn) - ng) <= AGREE;
  const off = grounded && agrees && (raised || pulled);
  // All of 240 V on an outlet of one hot is first of all a hot of the other leg in the place of its neutral.
  const whole = hn > 2 * nominal - LEAST && !multiwire;
  if (off && (hn >= LEAST || raised) && !(strict && whole)) found.push('open-shared-neutral');
  if (off && behindFeeder) found.push('open-feeder-neutral');
  if (off && !strict && hn >= LEAST) found.push('loose-neutral');
  // Hot and neutral stay, the ground does not: something holds it, and no bond brings it back.
  const fed = Math.abs(hn - nominal) <= 0.1 * nominal + drop;
  const moved = ng !== null && hg !== null && ng >= GROUND_OFF && ng < TOO_HIGH * nominal;
  if (
    fed &&
    moved &&
    Math.abs(hg - nominal) > Math.abs(hn - nominal) &&
    Math.min(Math.abs(Math.abs(hn - ng) - hg), Math.abs(hn + ng - hg)) <= AGREE
  )
    found.push('no-main-bond');
  return found;
}

/** What reads as sound wiring does at an outlet, wherever in the house it is, unless more is measured than its slots. */
export const silentBeyond = (behindFeeder: boolean): Condition[] => [
  'open-service-neutral',
  ...(behindFeeder ? (['open-feeder-neutral', 'second-bond'] as const) : []),
  ...(['lost-leg', 'no-main-bond', 'borrowed-neutral', 'tied-circuits', 'wrong-bar', 'leak'] as const),
];
