/** Kinds of causes: how often each is met, what it does to people and houses, and how it is mended. */

/** What a cause may do before it is mended. */
export type Danger = 'none' | 'fire' | 'overvoltage' | 'shock';

export interface KindFacts {
  name: string;
  /** How often it is the one that is met, against the others, at one place of its sort. */
  weight: number;
  danger: Danger;
  repair: string;
  /** What else is looked at while hands are there. */
  beside: string;
}

const facts = (weight: number, danger: Danger, name: string, repair: string, beside = ''): KindFacts => ({
  name,
  weight,
  danger,
  repair,
  beside,
});

const REMAKE = 'Remake the joint: cut back to bright copper, pigtail off the device, tug each conductor.';
const NEXT_JOINTS = 'The other joints of this box, and the same make of joint in the boxes beside it.';
const HEAT = 'Scorched insulation and a device that was hot: both are replaced.';

/** Weights are of what is met in houses, ours; they change with what is on record of a place and what was found before. */
export const KINDS = {
  nothing: facts(2, 'none', 'Nothing wrong that shows', 'Nothing to mend: say what was tested.'),
  appliance: facts(
    8,
    'none',
    'What is plugged in',
    'Repair or replace the appliance or its cord.',
    'Its plug, and the slots it sat in.',
  ),
  overload: facts(
    8,
    'none',
    'More plugged in than the breaker carries',
    'Move loads to another circuit, or plan one for them.',
    'The breaker’s lug: heat loosens it.',
  ),
  utility: facts(1.5, 'none', 'The utility’s volts', 'Log volts for a day and call the utility.'),
  'weak-breaker': facts(
    1.5,
    'none',
    'Worn or heated breaker',
    'Replace it by one listed for this panel; look at its stab.',
    'The bus stab and the lug’s torque.',
  ),
  'breaker-off': facts(
    4,
    'none',
    'Breaker off or tripped',
    'Reset it once, loads unplugged. Find out why it opened.',
  ),
  tripped: facts(10, 'none', 'Tripped device upstream', 'Reset it, loads unplugged. Find out why it opened.'),
  'switched-off': facts(4, 'none', 'Switched off', 'Turn the switch on; label what it controls.'),
  'dead-breaker': facts(
    1,
    'none',
    'Breaker that does not pass',
    'Replace it by one listed for this panel; look at its stab.',
  ),
  'poor-breaker': facts(
    1.5,
    'fire',
    'Poor contact at the breaker',
    'Look at lug and stab; replace the breaker.',
    HEAT,
  ),
  'dead-device': facts(2, 'none', 'Contacts of a device that do not close', 'Replace the device.'),
  'open-hot': facts(4, 'fire', 'Open hot', REMAKE, NEXT_JOINTS),
  'open-neutral': facts(4, 'shock', 'Open neutral', REMAKE, NEXT_JOINTS),
  'open-ground': facts(2, 'none', 'Open ground', REMAKE, 'Grounds of the boxes after it.'),
  'poor-hot': facts(3, 'fire', 'Loose hot', REMAKE, HEAT),
  'poor-neutral': facts(3, 'fire', 'Loose neutral', REMAKE, HEAT),
  'poor-ground': facts(0.6, 'none', 'Poor ground', REMAKE, 'Grounds of the boxes after it.'),
  short: facts(
    1.5,
    'fire',
    'Hot touches neutral',
    'Part, re-insulate or replace what touches; a nicked cable is replaced.',
    HEAT,
  ),
  'ground-fault': facts(
    2,
    'shock',
    'Hot touches ground',
    'Part, re-insulate or replace what touches; a nicked cable is replaced.',
    HEAT,
  ),
  leak: facts(
    1.5,
    'shock',
    'Leak from a hot',
    'Dry out and seal, or replace the cable; insulation test after it.',
    'Covers, gaskets and cable ends outdoors.',
  ),
  'neutral-ground': facts(
    1,
    'none',
    'Neutral touches ground',
    'Part them; insulation test neutral to ground.',
    'Bare grounds folded against neutral screws.',
  ),
  reversed: facts(
    1.5,
    'shock',
    'Hot and neutral reversed',
    'Land hot on brass, neutral on silver.',
    'The box before it: colors may change there.',
  ),
  'hot-on-ground': facts(0.06, 'shock', 'Hot and ground reversed', 'Land each on its own terminal.'),
  'neutral-on-ground': facts(0.4, 'shock', 'Neutral and ground reversed', 'Land each on its own terminal.'),
  'false-ground': facts(
    1.2,
    'shock',
    'False ground: neutral jumpered to ground',
    'Take the jumper out; GFCI with “No Equipment Ground”, or a real ground.',
    'Every other box that the same hands changed.',
  ),
  'false-ground-reversed': facts(
    0.5,
    'shock',
    'False ground with hot and neutral reversed: reads correct, frames live',
    'Take the jumper out, land hot on brass and neutral on silver; GFCI with “No Equipment Ground”, or a real ground.',
    'Every other box that the same hands changed.',
  ),
  'other-hot': facts(
    0.08,
    'overvoltage',
    'Hot of another circuit on the neutral',
    'Land the neutral of its own circuit.',
  ),
  'borrowed-neutral': facts(
    0.5,
    'shock',
    'Neutral borrowed from another circuit',
    'Give each circuit its own neutral.',
    'Both circuits off: a parted neutral is live.',
  ),
  'same-leg': facts(
    0.5,
    'fire',
    'Both hots on one leg',
    'Move one hot to the other leg: handle-tied or two-pole.',
  ),
  'line-load': facts(
    1.2,
    'none',
    'LINE and LOAD mixed up',
    'Line on LINE, what goes on on LOAD; test by its button.',
  ),
  'switched-neutral': facts(0.3, 'shock', 'Switch in the neutral', 'Switch the hot.'),
  'wrong-landing': facts(0.5, 'none', 'A conductor on the wrong terminal', 'Land it where it belongs.'),
  tab: facts(0.4, 'none', 'Tab left or broken', 'Replace the device, tab as planned.'),
  tied: facts(0.15, 'shock', 'Two circuits tied together', 'Part them; both breakers off.'),
  'lifted-neutral': facts(
    0.7,
    'shock',
    'Neutral off its bar',
    'Land it on its bar, one to a screw, to torque.',
  ),
  'wrong-bar': facts(0.3, 'none', 'Conductor on the wrong bar', 'Move it to its own bar.'),
  'beside-breaker': facts(
    0.7,
    'none',
    'Neutral beside its GFCI or AFCI breaker',
    'Land the circuit’s neutral on the breaker.',
  ),
  'single-pole-sensor': facts(
    0.3,
    'none',
    'Single-pole sensor on a shared neutral',
    'Replace it by a two-pole one.',
  ),
  'crossed-breakers': facts(0.2, 'none', 'Hots on each other’s breakers', 'Swap them.'),
  'lost-leg': facts(
    1.5,
    'none',
    'A leg lost before the panel',
    'Main off; call the utility. After the main it is ours.',
  ),
  'service-neutral': facts(
    2.5,
    'overvoltage',
    'Service neutral open or poor',
    'Main off now; call the utility.',
  ),
  'feeder-neutral': facts(
    0.7,
    'overvoltage',
    'Feeder neutral open or poor',
    'Feeder off; remake its neutral at both ends.',
  ),
  'feeder-ground': facts(0.3, 'shock', 'Feeder ground lost', 'Feeder off; remake its ground.'),
  'no-bond': facts(
    0.4,
    'shock',
    'Main bonding jumper missing',
    'Main off; put the bond in at the service, 250.24.',
  ),
  'second-bond': facts(
    0.4,
    'shock',
    'Second bond at a subpanel',
    'First a ground of its own on record, a fourth wire or a metal raceway; then the bond, neutral and ground apart there, 250.24(A)(5), 408.40.',
  ),
} as const satisfies Readonly<Record<string, KindFacts>>;
export type CauseKind = keyof typeof KINDS;
