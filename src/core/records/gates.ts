/**
 * The gates: what may be seen or put on record only with something else on record. The interface, imports and the command
 * line go through them; none of them decides for itself.
 */
import type { Run, RunStop } from '#core/circuits/run.ts';
import { run, type Clerk, type Command, type Guard, type Outcome, type Rules } from '#core/job/commands.ts';
import type { Problem } from '#core/job/integrity.ts';
import type { Clock } from '#core/job/order.ts';
import { added, circuitOf } from '#core/job/document.ts';
import type { JobDocument, Proof, Reading } from '#core/job/schema.ts';
import { circuitsIn } from './points.ts';
import { alterationsOf } from './alterations.ts';
import { circuitState, gapsOf, holds, validProof, whyEnded, whyUnproved } from './proof.ts';
import { neutralGuard, neutralWords, shutNeutrals, type ShutNeutral } from './neutrals.ts';
import { countersignGuard, licenseGuard } from './people.ts';
import { panelGuard } from './panel.ts';
import { callEndGuard, flipGuard, heldGuard } from './open.ts';
import { measurementGuard, temporaryGuard, undoneGuard } from './measuring.ts';
import { asDoneGuard, dangerAsDone, insideGuard, mendedGuard, onceGuard, tickGuard } from './trim.ts';
import { stepsFor } from '#core/boxes/steps.ts';
import type { WorkStep } from '#core/boxes/steps/site.ts';

export type GatedStep = WorkStep & {
  /** Why it stays shut though the box is proved; null when it is open. */
  shut: string | null;
};

export type Opened =
  | { open: true; proof: Proof; steps: GatedStep[]; shutNeutrals: ShutNeutral[] }
  /** No step is given out. */
  | { open: false; why: string };

/** The steps inside a box: only behind a proof of dead that holds now. @param now UTC time */
export function stepsIn(document: JobDocument, line: Run, stop: RunStop, now: string): Opened {
  const proof = validProof(document, stop.box, now);
  if (!proof) return { open: false, why: whyUnproved(document, stop.box, now) };
  const shut = shutNeutrals(document, stop.box, proof);
  return {
    open: true,
    proof,
    shutNeutrals: shut,
    steps: stepsFor(line, stop)
      .filter((step) => !step.afterPower)
      .map((step) => ({
        ...step,
        shut: step.partsNeutral ? neutralWords(shut) : null,
      })),
  };
}

/** What is tested once power is back; it needs no proof, only the power on record. */
export const testsIn = (line: Run, stop: RunStop): GatedStep[] =>
  stepsFor(line, stop).flatMap((step) => (step.afterPower ? [{ ...step, shut: null }] : []));

const AS_LEFT: Record<Exclude<ReturnType<typeof circuitState>, 'energized'>, string> = {
  measuring:
    'Power is on for a measurement at an open box; close it, prove it dead and put the power back for use first',
  dead: 'The circuit is on record as dead; put the power back on record first',
  unproved: 'As-left readings need the power put back on record, after the proof of dead',
};

/** Why a reading may not be put on record, or null: as-left ones want power on record, those at an open box its own state. */
export function whyNotRead(
  document: JobDocument,
  { boxId, stage, openBox, at }: Pick<Reading, 'boxId' | 'stage' | 'openBox' | 'at'>,
): string | null {
  const circuit = circuitOf(document, boxId);
  const state = circuit ? circuitState(document, circuit, at) : 'unproved';
  if (openBox && state !== 'measuring')
    return 'A reading at an open box needs the power on record for a measurement';
  if (stage === 'as-found' || state === 'energized') return null;
  return circuit
    ? AS_LEFT[state]
    : 'As-left readings need an outlet that is on a circuit, with its power on record';
}

const readings: Guard = (_before, after, changes, now) =>
  added<Reading>(changes, 'readings').flatMap((reading): Problem[] => {
    const why = whyNotRead(after, { ...reading, at: now ?? reading.at });
    return why === null ? [] : [{ path: `readings[${reading.id}].stage`, message: why }];
  });

const proofs: Guard = (_before, after, changes, now) =>
  added<Proof>(changes, 'proofs').flatMap((proof): Problem[] => {
    const gaps = gapsOf(after, proof);
    // What ended it before it was on record, it does not outlive.
    const ended = gaps.length > 0 ? [] : [whyEnded(after, proof, now ?? proof.at) ?? []].flat();
    return [...gaps, ...ended].map((message) => ({ path: `proofs[${proof.id}]`, message }));
  });

const GUARDS: readonly Guard[] = [
  readings,
  proofs,
  tickGuard,
  insideGuard,
  onceGuard,
  countersignGuard,
  asDoneGuard,
  mendedGuard,
  measurementGuard,
  temporaryGuard,
  undoneGuard,
  heldGuard,
  flipGuard,
  callEndGuard,
  panelGuard,
  neutralGuard,
  licenseGuard,
];

/** Changes of what gates read go on record, with the proofs that they ended. */
const alterations: Clerk = (before, after, edits) =>
  // By the proof’s own day: the clock of who edits may be of another.
  alterationsOf(before, after, edits, (document, proof) => holds(document, proof, proof.at), dangerAsDone);

/** What every command has to pass, and what goes on record with it. */
export const GATES: Rules = { guards: GUARDS, clerk: alterations };

/**
 * Runs a command behind the gates.
 * @param clock of who writes; without one the rows alone say when
 * @throws InvalidError as `run` does, and where a gate stays shut
 */
export const runGuarded = (document: JobDocument, command: Command, clock: Clock | null = null): Outcome =>
  run(document, command, GATES, clock);

/**
 * What a command would make of the document, while it is dragged or waits to be stored: nothing goes on record with it yet.
 * @throws InvalidError as `runGuarded` does
 */
export const tried = (document: JobDocument, command: Command, clock: Clock): JobDocument =>
  run(document, command, { guards: GUARDS, clerk: null }, clock).document;

/** Names of the circuits that must be off before a box is opened. */
export const circuitNames = (document: JobDocument, { box }: RunStop): string =>
  circuitsIn(document, box)
    .map((c) => c.name)
    .join(', ');
