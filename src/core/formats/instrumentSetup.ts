/** What the simulated meter is told before it is spoken to: a job, the outlet it is plugged in at, and what is wrong. */
import * as yup from 'yup';
import { buildRun } from '#core/circuits/run.ts';
import { RESET, type MeterState, type Outlet } from '#core/instruments/simulated.ts';
import { emptyDocument, rows } from '#core/job/document.ts';
import { parseFileValue, toFile } from '#core/job/file.ts';
import type { Circuit, JobDocument } from '#core/job/schema.ts';
import { entity, flag, id, list, number, text, whole, word } from '#core/job/schema/fields.ts';
import { InvalidError, problemsOf } from '#core/job/validate.ts';
import { hiddenFault } from '#core/diagnosis/hypotheses.ts';
import { wiringOf } from '#core/network/wiring.ts';
import { faultsOf, faulty } from './faultList.ts';

/** How the line misbehaves, for practice and for tests. */
export const TROUBLES = ['none', 'slow', 'garbage', 'cut'] as const;
export type Trouble = (typeof TROUBLES)[number];

const stateSchema = entity({
  function: word(['volts', 'amps', 'ohms'] as const),
  lowImpedance: flag(),
  load: number(0, 20),
  eventStatus: whole(0, 255),
  eventEnable: whole(0, 255),
  serviceEnable: whole(0, 255),
  errors: list(text(80), 16),
});

const setupSchema = yup
  .object({
    job: yup.mixed().required(),
    circuit: id(),
    box: id(),
    dead: yup.boolean().strict(),
    /** A fault that is not said; `faults` names those that are. */
    hidden: yup.number().strict().integer().min(0).max(1e6).nullable(),
    faults: yup.array().strict(),
    trouble: yup.string().strict().oneOf(TROUBLES),
    /** What it remembers from the last time; it is told again at the end. */
    state: stateSchema.nullable().optional().default(undefined),
  })
  .noUnknown()
  .strict()
  .required();

export interface Setup {
  outlet: Outlet;
  trouble: Trouble;
  /** Undefined: nothing is handed back. */
  state: MeterState | null | undefined;
}

/** @throws InvalidError naming each field */
export function readSetup(value: unknown): Setup {
  const problems = problemsOf(setupSchema, value, 'setup');
  if (problems.length > 0) throw new InvalidError(problems);
  const setup = value as yup.InferType<typeof setupSchema>;
  const document = parseFileValue(setup.job);
  const circuit = rows(document.circuits).find((c) => c.id === setup.circuit);
  if (!circuit)
    throw new InvalidError([{ path: 'setup.circuit', message: 'expected the id of a circuit of the job' }]);
  const run = buildRun(document, circuit);
  const stop = run.stops.findIndex((s) => s.box.id === setup.box);
  if (stop < 0)
    throw new InvalidError([
      { path: 'setup.box', message: `expected the id of an outlet on “${circuit.name}”` },
    ]);
  const names = run.stops.map((s) => s.box.name);
  const said = faultsOf(setup.faults ?? [], 'setup.faults', { boxes: names, circuits: [circuit.name] });
  const wiring = wiringOf(run);
  faulty(wiring, said, 'setup.faults');
  const hidden =
    setup.hidden === null || setup.hidden === undefined ? [] : [hiddenFault(wiring, setup.hidden)];
  return {
    outlet: { run, stop, faults: [...said, ...hidden], dead: setup.dead ?? false },
    trouble: setup.trouble ?? 'none',
    state: setup.state === null ? RESET : setup.state,
  };
}

/** The part of a job that one circuit needs, as a job file. */
export function circuitFile(document: JobDocument, circuit: Circuit): ReturnType<typeof toFile> {
  const ids = new Set(circuit.stops.map((s) => s.boxId));
  const boxes = rows(document.boxes)
    .filter((b) => ids.has(b.id))
    .map((b) => ({
      ...b,
      fixtureId: null,
      serves: null,
      controls: b.controls.filter((c) => ids.has(c)),
      note: '',
    }));
  const areas = rows(document.areas).filter((a) => boxes.some((b) => b.areaId === a.id));
  const panel = document.panels[circuit.panelId];
  const byId = <T extends { id: string }>(kept: readonly T[]) =>
    Object.fromEntries(kept.map((r) => [r.id, r]));
  return toFile({
    ...emptyDocument(document.job),
    levels: document.levels,
    areas: byId(areas),
    panels: panel ? { [panel.id]: { ...panel, feeder: null } } : {},
    boxes: byId(boxes),
    circuits: { [circuit.id]: circuit },
  });
}
