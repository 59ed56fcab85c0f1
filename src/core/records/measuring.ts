/**
 * Measurements with any instrument: what each is asked for, in what state of the circuit it may be made, and what was tied,
 * parted or taken off for it.
 */
import { byTime, isAfter } from '#core/units/time.ts';
import { actualBoxes } from '#core/boxes/planned.ts';
import { facesIn, isPanelPlace, probePlaces, wholeFaceKey, type ProbePlace } from '#core/boxes/probes.ts';
import type { Run } from '#core/circuits/run.ts';
import type { Guard } from '#core/job/commands.ts';
import { circuitOf, rows } from '#core/job/document.ts';
import type { Problem } from '#core/job/integrity.ts';
import type {
  Box,
  Circuit,
  Energizing,
  JobDocument,
  Measurement,
  Measuring,
  Temporary,
} from '#core/job/schema.ts';
import { circuitState, isOff, validProof, whyUnproved } from './proof.ts';
import { added } from './trim.ts';

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

/** Places of an outlet for an instrument, its own circuit first. */
export function placesFor(
  document: JobDocument,
  run: Run,
  stop: number,
  instrument: Measuring,
): ProbePlace[] {
  const wiring = actualBoxes(run)[stop]!;
  const nameOf = (id: string) => document.boxes[id]?.name ?? id;
  const { held } = INSTRUMENT_FACTS[instrument];
  const all = probePlaces(wiring, nameOf);
  if (held === 'face')
    return facesIn(wiring).map((name) => ({
      key: wholeFaceKey(name),
      name: name === 'face' ? 'the face' : name,
      kind: 'face',
      separated: false,
    }));
  if (held === 'around')
    return all.filter(({ kind, key }) => kind === 'end' || kind === 'cable' || key.startsWith('panel.hot'));
  if (instrument === 'tone receiver') return all.filter(({ kind }) => kind !== 'face' && kind !== 'panel');
  return all.filter(({ kind }) => kind !== 'cable');
}

/** Something that an insulation test would spoil or that would spoil it. */
export interface ToClear {
  key: string;
  name: string;
}

/** What has to be off a circuit before an insulation test, by what is on record; each is asked for by name. */
export function toClear(document: JobDocument, circuit: Circuit): ToClear[] {
  const list: ToClear[] = [{ key: 'plugged', name: 'everything plugged in' }];
  if (circuit.breaker.protection !== 'none')
    list.push({ key: 'breaker', name: 'the circuit’s conductors off its GFCI or AFCI breaker' });
  for (const box of circuit.stops.flatMap((s) => document.boxes[s.boxId] ?? [])) {
    const { device } = box;
    const add = (name: string) => list.push({ key: `device.${box.id}`, name: `${name} at ${box.name}` });
    if (device.kind === 'gfci') add('the GFCI receptacle');
    else if (device.kind === 'outlet-afci') add('the AFCI receptacle');
    else if (device.kind === 'smoke-alarm') add('the smoke alarm');
    else if (device.build === 'dimmer') add('the dimmer');
    else if (device.build === 'smart' || device.build === 'smart-no-neutral') add('the smart switch');
    else if (device.kind === 'light' || device.kind === 'hardwired') add('what is wired');
  }
  const panel = document.panels[circuit.panelId];
  if (panel && panel.service.surge !== 'no')
    list.push({ key: 'surge', name: `any surge device at ${panel.name}` });
  return list;
}

/** Ties and separated ends of a box, or of any box of a circuit, that were not undone by a moment. */
export function standingTemporaries(
  document: JobDocument,
  boxes: ReadonlySet<string>,
  at = '9999',
): Temporary[] {
  const all = rows(document.temporaries).filter((t) => !isAfter(t.at, at) && boxes.has(t.boxId));
  const undone = new Set(all.flatMap((t) => t.undoes ?? []));
  return all.filter((t) => t.undoes === null && !undone.has(t.id));
}

export const boxesOf = (circuit: Circuit): ReadonlySet<string> => new Set(circuit.stops.map((s) => s.boxId));

/** Whether a place is reached without a hand in the box. */
const isOutside = (key: string | null): boolean => key === null || key.startsWith('face.');

/** Why a measurement may not be put on record, or null. */
export function whyNotMeasured(document: JobDocument, measurement: Measurement): string | null {
  const { instrument, node, to, at, boxId, gain, testVolts, cleared, sender } = measurement;
  const facts = INSTRUMENT_FACTS[instrument];
  const box: Box | undefined = document.boxes[boxId];
  const circuit = box && circuitOf(document, box.id);
  if (!box) return 'expected an outlet of this job';
  if (facts.held === 'pair' && to === null) return `a ${instrument} takes two places`;
  if (facts.held === 'pair' && to === node) return 'expected two different places';
  if (!facts.shows.includes(measurement.shows)) return `a ${instrument} does not show “${measurement.shows}”`;
  if (measurement.shows === 'value' && measurement.value === null)
    return facts.unit === null ? `a ${instrument} shows no figure` : `expected a figure in ${facts.unit}`;
  if (measurement.shows === 'lamps' && measurement.lamps?.length !== 3) return 'expected three lamps';
  if (facts.asks.includes('gain') && gain === null)
    return 'expected the gain: without it strengths cannot be compared';
  if (facts.asks.includes('sender') && sender.trim() === '')
    return 'expected where the transmitter is and between what';
  if (facts.asks.includes('volts') && testVolts === null) return 'expected the volts of the test';
  if (measurement.simulated) return null;
  if (facts.power === 'off') {
    if (!circuit)
      return 'the outlet is on no circuit on record: put it on one first, so that what is off is known';
    if (!isOff(document, circuit, at))
      return `${circuit.name} is not on record as off: this is for dead circuits`;
    const inside = !isOutside(node) || !isOutside(to);
    if (inside && !validProof(document, box, at)) return whyUnproved(document, box, at);
  } else if (!isOutside(node) || !isOutside(to)) {
    const state = circuit ? circuitState(document, circuit, at) : 'unproved';
    const panelOnly = [node, to].every((key) => key === null || isPanelPlace(key));
    if (!panelOnly && state !== 'measuring' && !validProof(document, box, at))
      return 'inside a box: prove it dead, or put the power on record for a measurement first';
  }
  if (facts.asks.includes('clear') && circuit) {
    const missing = toClear(document, circuit).filter(({ key }) => !cleared.includes(key));
    if (missing.length > 0)
      return `before an insulation test these come off: ${missing.map((m) => m.name).join(', ')}`;
  }
  return null;
}

/** Measurements go on record only in the state that they are for. */
export const measurementGuard: Guard = (_before, after, changes) =>
  added<Measurement>(changes, 'measurements').flatMap((m): Problem[] => {
    const why = whyNotMeasured(after, m);
    return why === null ? [] : [{ path: `measurements[${m.id}]`, message: why }];
  });

/** A tie or separation is made under a proof of dead, and undone once. */
export const temporaryGuard: Guard = (before, after, changes) =>
  added<Temporary>(changes, 'temporaries').flatMap((t): Problem[] => {
    const path = `temporaries[${t.id}]`;
    const box = after.boxes[t.boxId];
    if (!box) return [{ path, message: 'expected an outlet of this job' }];
    if (!validProof(after, box, t.at)) return [{ path, message: whyUnproved(after, box, t.at) }];
    if (t.undoes === null)
      return t.ends.length < (t.kind === 'tie' ? 2 : 1)
        ? [{ path, message: t.kind === 'tie' ? 'expected two ends to tie' : 'expected an end' }]
        : [];
    const stands = standingTemporaries(before, new Set([t.boxId])).some((s) => s.id === t.undoes);
    return stands ? [] : [{ path, message: 'expected one that stands' }];
  });

/** Power stays off what is tied, and comes back to use only once everything is undone. */
export const undoneGuard: Guard = (_before, after, changes) =>
  added<Energizing>(changes, 'energizings').flatMap((e): Problem[] => {
    const circuit = after.circuits[e.circuitId];
    if (!circuit || e.purpose === 'lock-removed') return [];
    return standingTemporaries(after, boxesOf(circuit), e.at)
      .filter((t) => e.purpose === 'use' || t.kind === 'tie')
      .map((t) => ({
        path: `energizings[${e.id}]`,
        message: `${t.place}: ${t.kind === 'tie' ? 'still tied' : 'still apart'}: ${t.names}. Undo it and put that on record first`,
      }));
  });

/** Measurements of a box, or of the whole job, oldest first, each with whether a later one replaced it. */
export function measurementsOf(
  document: JobDocument,
  boxId: string | null = null,
): { measurement: Measurement; struck: boolean }[] {
  const struck = new Set(rows(document.measurements).flatMap((m) => m.corrects ?? []));
  return rows(document.measurements)
    .filter((m) => boxId === null || m.boxId === boxId)
    .sort((a, b) => byTime(a.at, b.at))
    .map((measurement) => ({ measurement, struck: struck.has(measurement.id) }));
}
