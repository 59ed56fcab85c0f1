/** The work in a box on record: which of its steps are ticked, and whether it may be energized as it was done. */
import { plannedBoxes } from '#core/boxes/planned.ts';
import { stepsFor } from '#core/boxes/steps.ts';
import type { WorkStep } from '#core/boxes/steps/site.ts';
import type { Run, RunStop } from '#core/circuits/run.ts';
import { buildRun } from '#core/circuits/run.ts';
import { energized } from '#core/effects/energized.ts';
import type { Guard } from '#core/job/commands.ts';
import { added, circuitOf, rows } from '#core/job/document.ts';
import type { Problem } from '#core/job/integrity.ts';
import { inOrder } from '#core/job/order.ts';
import type { Energizing, Entry, JobDocument, Tick } from '#core/job/schema.ts';
import { standingDanger } from './alterations.ts';
import { whyNeutralsShut } from './neutrals.ts';
import { circuitState, validProof, whyUnproved } from './proof.ts';

/** The newest tick of each step of a box that stands, by the step. */
export function ticksOf({ ticks }: JobDocument, boxId: string): ReadonlyMap<string, Tick> {
  const newest = new Map<string, Tick>();
  const own = rows(ticks).filter((t) => t.boxId === boxId);
  for (const tick of own.sort(inOrder)) newest.set(tick.step, tick);
  for (const [step, tick] of newest) if (!tick.done) newest.delete(step);
  return newest;
}

export interface Progress {
  done: number;
  of: number;
  /** The first that is not ticked. */
  next: WorkStep | null;
}

/** How far the work in a box is. */
export function progressOf(document: JobDocument, run: Run, stop: RunStop): Progress {
  const ticks = ticksOf(document, stop.box.id);
  const steps = stepsFor(run, stop);
  return {
    done: steps.filter((s) => ticks.has(s.key)).length,
    of: steps.length,
    next: steps.find((s) => !ticks.has(s.key)) ?? null,
  };
}

/**
 * An answer of a procedure that took hands into a box stands on a proof of dead that held until then: what it says of the box
 * may well end it.
 */
export const insideGuard: Guard = (before, _after, changes, now) =>
  added<Entry>(changes, 'entries').flatMap(({ id, touches, strikes, at }): Problem[] =>
    touches.flatMap((of): Problem[] => {
      if (of.in !== 'box' || strikes !== null) return [];
      const box = before.boxes[of.id];
      if (!box) return [{ path: `entries[${id}].touches`, message: 'expected a box of this job' }];
      return validProof(before, box, now ?? at)
        ? []
        : [{ path: `entries[${id}]`, message: whyUnproved(before, box, now ?? at) }];
    }),
  );

/** Steps of a call that are said as often as somebody says them. */
const SAID_AGAIN = /^(readings-since$|seen )/;

/** One step has one answer: of two people who answer it at once, the second hears what the first said. */
export const onceGuard: Guard = (before, after, changes) =>
  added<Entry>(changes, 'entries').flatMap(({ id, callId, step, strikes }): Problem[] => {
    if (strikes !== null || SAID_AGAIN.test(step)) return [];
    const struck = new Set(rows(after.entries).flatMap((e) => e.strikes ?? []));
    const first = rows(before.entries).find(
      (e) => e.callId === callId && e.step === step && e.strikes === null && !struck.has(e.id),
    );
    return first
      ? [
          {
            path: `entries[${id}]`,
            message: `${first.by} answered this meanwhile: “${first.said || first.picks.join(', ')}”. Take that back first where it is wrong`,
          },
        ]
      : [];
  });

/** A step inside a box is ticked under a proof of dead that holds; a test after it with the power on record. */
export const tickGuard: Guard = (_before, after, changes, now) =>
  added<Tick>(changes, 'ticks').flatMap((tick): Problem[] => {
    const path = `ticks[${tick.id}]`;
    const box = after.boxes[tick.boxId];
    const circuit = circuitOf(after, tick.boxId);
    if (!box || !circuit) return [{ path, message: 'expected a box that is on a circuit' }];
    if (!tick.done) return [];
    const run = buildRun(after, circuit);
    const stop = run.stops.find((s) => s.box.id === box.id);
    const step = stop && stepsFor(run, stop).find((s) => s.key === tick.step);
    if (!step) return [{ path, message: `${box.name} has no such step in its plan: “${tick.step}”` }];
    if (step.afterPower)
      return circuitState(after, circuit, tick.at) === 'energized'
        ? []
        : [{ path, message: 'This test is made with the power back on; put it back on record first' }];
    const at = now ?? tick.at;
    if (!validProof(after, box, at)) return [{ path, message: whyUnproved(after, box, at) }];
    const why = step.partsNeutral ? whyNeutralsShut(after, box, at) : null;
    return why === null ? [] : [{ path, message: why }];
  });

/** What was dangerous as it was done is mended by hands in the box: under a proof of dead. */
export const mendedGuard: Guard = (before, after, changes, now) =>
  changes.flatMap(({ table, id }): Problem[] => {
    const box = table === 'boxes' ? before.boxes[id] : undefined;
    if (!box || !now || box.wiring === after.boxes[id]?.wiring) return [];
    const danger = dangerAsDone(before, id) ?? standingDanger(before, id);
    if (!danger || dangerAsDone(after, id) !== '' || validProof(before, box, now)) return [];
    return [
      {
        path: `boxes[${id}].wiring`,
        message: `${box.name} was dangerous as it was done, and is mended under a proof of dead. ${whyUnproved(before, box, now)}`,
      },
    ];
  });

/** Power does not come back to use onto a box that is on record as done in a way that is dangerous. */
export const asDoneGuard: Guard = (_before, after, changes) =>
  added<Energizing>(changes, 'energizings').flatMap((energizing): Problem[] => {
    const circuit = after.circuits[energizing.circuitId];
    if (energizing.purpose !== 'use' || !circuit) return [];
    return dangersAsDone(after, energizing.circuitId).map(({ name, text }) => ({
      path: `energizings[${energizing.id}]`,
      message: `${name} is on record as done so that it is dangerous: ${text} Mend it first`,
    }));
  });

/** What is dangerous in a box as it was done; empty where nothing is, null where it is not on record as done. */
export function dangerAsDone(document: JobDocument, boxId: string): string | null {
  const wiring = document.boxes[boxId]?.wiring;
  if (wiring?.stage !== 'as-done') return null;
  const circuit = circuitOf(document, boxId);
  if (!circuit) return '';
  const run = buildRun(document, circuit);
  const at = run.stops.findIndex((s) => s.box.id === boxId);
  if (!plannedBoxes(run)[at]) return '';
  return energized(run, at, wiring.wiring).effects.find((e) => e.level === 'danger')?.text ?? '';
}

/**
 * Boxes of a circuit whose wiring, as it was done, is a danger once energized. Calling it found, or planned again, makes it no
 * safer: it stands until something else is done.
 */
const dangersAsDone = (document: JobDocument, circuitId: string): { name: string; text: string }[] =>
  (document.circuits[circuitId]?.stops ?? []).flatMap(({ boxId }) => {
    const text = dangerAsDone(document, boxId) ?? standingDanger(document, boxId);
    return text ? [{ name: document.boxes[boxId]?.name ?? 'A box', text }] : [];
  });
