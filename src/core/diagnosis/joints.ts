/** Poor joints, judged by the heat in them at what their circuit may carry. */
import type { Reading } from '#core/job/schema.ts';
import { round } from '#core/units/quantity.ts';

export interface Remark {
  level: 'danger' | 'worry' | 'note';
  /** A worry in a few words, for the headline. */
  title?: string;
  text: string;
}

type Read = Pick<Reading, 'hotNeutral' | 'hotGround' | 'neutralGround' | 'loadAmps'>;

/** A joint shows from this load and this many volts on. */
const JOINT_FROM_AMPS = 0.5;
const JOINT_FROM_VOLTS = 0.3;
/** Volts that readings of one moment may disagree by. */
const DISAGREE = 1.5;
/** Heat in a joint at the amperes its circuit may carry, from which on it must not be left on, watts. */
const HOT_JOINT = 25;

/** A joint judged by its heat with all that its circuit may carry: half a watt at 1 A is 72 W at 12 A. */
export function jointRemark(ohms: number, usable: number, said: string, sure = true): Remark {
  const watts = usable ** 2 * ohms;
  const hot = sure && watts >= HOT_JOINT;
  return {
    level: hot ? 'danger' : 'worry',
    title: 'resistance in a joint',
    text: `${said}: ${round(watts, 0)} W of heat in it at the ${round(usable, 1)} A that this circuit may carry.${hot ? ' Leave the circuit off until it is found.' : ''}`,
  };
}

/** A joint is read hot to neutral alone from this load on, and from so many volts missing. */
const LOOP_FROM = { amps: 5, volts: 2.5 } as const;
/** The least that a utility keeps to, as a share of nominal: what is below it under a load was lost on the way. */
const LEAST_SOURCE = 0.95;

/**
 * Resistance out and back, where hot to neutral alone was read under a load and nothing was read free.
 * @param sound hot to neutral that the plan gives with this load, volts
 * @param nominal volts at the panel
 * @param usable amperes of the circuit
 */
export function loopJoint(
  { hotNeutral: volts, hotGround, neutralGround, loadAmps }: Read,
  sound: number | null,
  nominal: number,
  usable: number,
): Remark[] {
  if (volts === null || sound === null || hotGround !== null || neutralGround !== null) return [];
  if (loadAmps < LOOP_FROM.amps || volts < 60) return [];
  const ohmsBelow = (source: number) => (source * (sound / nominal) - volts) / loadAmps;
  const [least, most] = [ohmsBelow(LEAST_SOURCE * nominal), ohmsBelow(nominal)];
  if (most * loadAmps < LOOP_FROM.volts) return [];
  const sure = least * loadAmps >= LOOP_FROM.volts / 2;
  const ohms = sure ? least : most;
  const said = sure
    ? `Hot–neutral ${volts} V with ${loadAmps} A on: even from a panel at ${round(LEAST_SOURCE * nominal, 0)} V at least ${round(least, 2)} Ω more than the cable is on the way`
    : `Hot–neutral ${volts} V with ${loadAmps} A on is ${round(most * loadAmps, 1)} V below what the cable leaves of ${nominal} V. Read it again with the load off: if it stands near ${nominal} V then, a joint of about ${round(most, 2)} Ω is on the way`;
  return [jointRemark(ohms, usable, said, sure)];
}

/**
 * Resistance that shows between neutral and ground, with its load here or elsewhere on the circuit.
 * @param path of one conductor from the panel, ohms
 * @param excess of a conductor that is worth a word, ohms
 * @param usable amperes of the circuit
 */
export function neutralJoint(
  { neutralGround: volts, hotGround, hotNeutral, loadAmps }: Read,
  path: number,
  excess: number,
  usable: number,
): Remark[] {
  // With the neutral at 60 V and more it is no joint that carries a load.
  if (volts === null || volts >= 60 || hotGround === null || hotGround < 60 || (hotNeutral ?? 60) < 60)
    return [];
  // Where hot to neutral is whole it is the ground that is off its place.
  if (hotNeutral !== null && hotGround - hotNeutral < volts / 2 - DISAGREE) return [];
  const most = usable * path;
  // More than all that the circuit may carry would give, wherever it is drawn.
  const sure = volts > 1.25 * most + JOINT_FROM_VOLTS;
  if (loadAmps >= JOINT_FROM_AMPS) {
    const extra = volts / loadAmps - path;
    if (extra <= excess || volts - path * loadAmps < JOINT_FROM_VOLTS) return [];
    const said = `Neutral–ground ${volts} V with ${loadAmps} A on is ${round(volts / loadAmps, 2)} Ω where the cable has ${round(path, 2)} Ω: a joint of about ${round(extra, 2)} Ω, unless something else draws on this circuit`;
    return [jointRemark(extra, usable, said, sure)];
  }
  if (!sure) return [];
  const extra = (volts - most) / usable;
  const said = `Neutral–ground ${volts} V with nothing on here: all ${round(usable, 1)} A of the circuit elsewhere would give ${round(most, 1)} V in sound wiring, so at least ${round(extra, 2)} Ω more is in the neutral on the way`;
  return [jointRemark(extra, usable, said)];
}
