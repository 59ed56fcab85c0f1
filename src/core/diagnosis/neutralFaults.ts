/**
 * Open neutrals that reach beyond one circuit’s own network: of two circuits that share one, and of the service. The legs
 * then divide 240 V as their loads have it, so they are told from the voltages themselves: the neutral point N lies
 * somewhere on the line between the two hots, at +120 V and −120 V of a ground that stays at 0.
 */
import type { Reading } from '#core/job/schema.ts';
import type { Condition } from './conditions.ts';

/** Volts that readings of one moment may disagree by. */
const AGREE = 3;
/** From here on the neutral is off its place by more than a joint or drop explains: raised, or pulled down, volts. */
const OFF_PLACE = { raised: 10, pulled: 18 } as const;
/** Volts above nominal that no sound source has, as a share. */
const TOO_HIGH = 1.1;
/** Below this a slot is dead or floats, not fed through a load, volts. */
const LEAST = 20;

type Volts = Pick<Reading, 'hotNeutral' | 'hotGround' | 'neutralGround'>;

/**
 * Conditions of an open neutral beyond the circuit that agree with the readings at a 120 V outlet.
 * @param nominal of one leg, volts
 * @param drop that sound wiring may have between hot and neutral, volts
 */
export function neutralFaults(read: Volts, nominal: number, drop: number): Condition[] {
  const { hotNeutral: hn, hotGround: hg, neutralGround: ng } = read;
  if (hn === null || hn < LEAST || hn > 2 * nominal - LEAST) return [];
  const high = hn > TOO_HIGH * nominal;
  const low = hn < 0.9 * nominal - drop - AGREE;
  const found: Condition[] = [];
  // The ground stays with the neutral bar: both go where the loads of the two legs put them.
  const together = (hg === null || Math.abs(hg - hn) <= AGREE) && (ng === null || ng <= AGREE);
  if ((high || low) && together) found.push('open-service-neutral');
  // The ground stays at its place, the neutral does not.
  const grounded = hg === null || Math.abs(hg - nominal) <= 0.1 * nominal + drop / 2;
  const away = hg ?? nominal;
  const raised = hn - away >= OFF_PLACE.raised;
  const pulled = away - hn >= OFF_PLACE.pulled;
  const agrees = ng === null || Math.abs(Math.abs(away - hn) - ng) <= AGREE;
  if (grounded && agrees && (raised || pulled)) found.push('open-shared-neutral');
  return found;
}
