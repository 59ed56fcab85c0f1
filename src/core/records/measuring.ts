/**
 * Measurements with any instrument: what each is asked for, in what state of the circuit it may be made, and what was tied,
 * parted or taken off for it.
 */
import { isAfter } from '#core/units/time.ts';
import { actualBoxes } from '#core/boxes/planned.ts';
import { facesIn, isPanelPlace, probePlaces, wholeFaceKey, type ProbePlace } from '#core/boxes/probes.ts';
import type { Run } from '#core/circuits/run.ts';
import type { Guard } from '#core/job/commands.ts';
import { added, circuitOf, rows } from '#core/job/document.ts';
import type { Problem } from '#core/job/integrity.ts';
import { inOrder } from '#core/job/order.ts';
import type {
  Box,
  Circuit,
  Energizing,
  JobDocument,
  Measurement,
  Measuring,
  Temporary,
} from '#core/job/schema.ts';
import { INSTRUMENT_FACTS } from './instruments.ts';
import { circuitState, isOff, validProof, whyUnproved } from './proof.ts';

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
export const measurementGuard: Guard = (_before, after, changes, now) =>
  added<Measurement>(changes, 'measurements').flatMap((m): Problem[] => {
    const why = whyNotMeasured(after, { ...m, at: now ?? m.at });
    return why === null ? [] : [{ path: `measurements[${m.id}]`, message: why }];
  });

/** A tie or separation is made under a proof of dead, and undone once. */
export const temporaryGuard: Guard = (before, after, changes, now) =>
  added<Temporary>(changes, 'temporaries').flatMap((t): Problem[] => {
    const path = `temporaries[${t.id}]`;
    const box = after.boxes[t.boxId];
    if (!box) return [{ path, message: 'expected an outlet of this job' }];
    const at = now ?? t.at;
    if (!validProof(after, box, at)) return [{ path, message: whyUnproved(after, box, at) }];
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
    .sort(inOrder)
    .map((measurement) => ({ measurement, struck: struck.has(measurement.id) }));
}
