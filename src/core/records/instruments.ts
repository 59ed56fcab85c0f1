/** What each instrument is asked for, how it is held, what it may show, and what it cannot tell. */
import type { Measurement, Measuring } from '#core/job/schema.ts';

/** Where an instrument goes: two probes, one conductor, a plug in a face, around a conductor or cable. */
type Held = 'pair' | 'one' | 'face' | 'around';

export interface InstrumentFacts {
  name: string;
  held: Held;
  /** Unit of its figure; null where it shows none. */
  unit: 'V' | 'A' | 'Ω' | 'MΩ' | 'bars' | '%' | null;
  /** Largest figure that it may be said to show. */
  most: number;
  /** How the circuit has to be for it. */
  power: 'any' | 'off';
  /** Ohms between its probes; null where they do not matter. */
  inputOhms: number | null;
  /** What else its figure depends on. */
  asks: readonly ('load' | 'gain' | 'volts' | 'milliamps' | 'sender' | 'clear' | 'seconds')[];
  /** What it may show besides a figure. */
  shows: readonly Measurement['shows'][];
  /** How to hold it, and what it cannot tell. */
  how: string;
  caution: string;
}

const LIVE_HANDS = 'Live: rated probes, insulated to the tip, one hand where you can.';
const NOT_PROOF = 'It does not prove anything dead.';

export const INSTRUMENT_FACTS: Readonly<Record<Measuring, InstrumentFacts>> = {
  'low-impedance meter': {
    name: 'Meter, low impedance',
    held: 'pair',
    unit: 'V',
    most: 1000,
    power: 'any',
    inputOhms: 3000,
    asks: ['load'],
    shows: ['value'],
    how: 'It loads what it reads: a ghost falls to nothing.',
    caution: LIVE_HANDS,
  },
  'high-impedance meter': {
    name: 'Meter, high impedance',
    held: 'pair',
    unit: 'V',
    most: 1000,
    power: 'any',
    inputOhms: 1e7,
    asks: ['load'],
    shows: ['value'],
    how: 'A conductor that hangs loose shows what it picks up beside the others: any figure from a few volts to nearly all.',
    caution: LIVE_HANDS,
  },
  'two-pole tester': {
    name: 'Two-pole tester',
    held: 'pair',
    unit: 'V',
    most: 1000,
    power: 'any',
    inputOhms: 2e5,
    asks: [],
    shows: ['value', 'nothing'],
    how: 'Put down the highest step that lights; with the button pressed it loads.',
    caution: LIVE_HANDS,
  },
  'three-lamp tester': {
    name: 'Three-lamp tester',
    held: 'face',
    unit: null,
    most: 0,
    power: 'any',
    inputOhms: 1e5,
    asks: ['load'],
    shows: ['lamps'],
    how: 'Dim is a sign of its own: a poor joint or a conductor that hangs loose.',
    caution: 'Three lamps cannot see a false ground, ground and neutral swapped or a poor ground.',
  },
  'voltage pen': {
    name: 'Voltage pen',
    held: 'one',
    unit: null,
    most: 0,
    power: 'any',
    inputOhms: null,
    asks: [],
    shows: ['sounds', 'nothing'],
    how: 'It sounds at what hangs loose beside a live conductor, and is deaf inside grounded metal and shielded cable.',
    caution: NOT_PROOF,
  },
  'clamp meter': {
    name: 'Clamp',
    held: 'around',
    unit: 'A',
    most: 400,
    power: 'any',
    inputOhms: null,
    asks: ['load'],
    shows: ['value'],
    how: 'One conductor shows its current; the whole cable shows what does not come back by it.',
    caution: 'Nothing is opened or parted with current in it.',
  },
  ohmmeter: {
    name: 'Ohms',
    held: 'pair',
    unit: 'Ω',
    most: 1e8,
    power: 'off',
    inputOhms: null,
    asks: [],
    shows: ['value', 'over', 'live'],
    how: 'Loads unplugged, switches on. For a loop, tie two conductors at the far end and put the tie on record.',
    caution: 'Dead circuits only: off, proved dead.',
  },
  'insulation tester': {
    name: 'Insulation',
    held: 'pair',
    unit: 'MΩ',
    most: 1e5,
    power: 'off',
    inputOhms: null,
    asks: ['volts', 'clear'],
    shows: ['value', 'over', 'live'],
    how: 'The neutral off its bar, loads unplugged, switches on; conductor to conductor and each to ground.',
    caution: 'It puts hundreds of volts on the wires: nobody touches them, and they are discharged after it.',
  },
  'loading analyzer': {
    name: 'Loading analyzer',
    held: 'face',
    unit: '%',
    most: 100,
    power: 'any',
    inputOhms: 1e5,
    asks: [],
    shows: ['value', 'nothing', 'trips'],
    how: 'Put down the drop at 15 A. It trips a GFCI when it tests the ground.',
    caution: 'Tell people: what is on this circuit may go off.',
  },
  'tone receiver': {
    name: 'Tone',
    held: 'one',
    unit: 'bars',
    most: 20,
    power: 'off',
    inputOhms: null,
    asks: ['gain', 'sender'],
    shows: ['value', 'nothing'],
    how: 'The lowest gain that still answers at the conductor. Strengths at other gains cannot be compared.',
    caution: 'Breaker off. To ground only after a hot-to-ground short is ruled out.',
  },
  'plug-in GFCI tester': {
    name: 'GFCI by tester',
    held: 'face',
    unit: null,
    most: 0,
    power: 'any',
    inputOhms: null,
    asks: ['milliamps', 'seconds'],
    shows: ['trips', 'holds'],
    how: 'It sends its current to ground: without a ground it does nothing, and that is no failure of the device.',
    caution: 'Reset the device at the end.',
  },
  'own button': {
    name: 'GFCI or AFCI by its button',
    held: 'face',
    unit: null,
    most: 0,
    power: 'any',
    inputOhms: null,
    asks: [],
    shows: ['trips', 'holds'],
    how: 'It needs power and no ground. What it protects must be dead after it.',
    caution: 'Reset the device at the end.',
  },
  'breaker finder': {
    name: 'Breaker finder',
    held: 'face',
    unit: 'bars',
    most: 20,
    power: 'any',
    inputOhms: null,
    asks: ['gain'],
    shows: ['value', 'nothing'],
    how: 'Go over all breakers at one gain; the strongest is it. Read each twice, the second time with less gain.',
    caution: `The panel cover stays on. ${NOT_PROOF}`,
  },
};
