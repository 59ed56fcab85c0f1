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
