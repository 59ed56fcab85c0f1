/** The order of work that proves a circuit: power on, every outlet along the run, loads, devices, reset. */
import { isBefore } from '#core/units/time.ts';
import type { Run, RunStop } from '#core/circuits/run.ts';
import { rows } from '#core/job/document.ts';
import type { Box, JobDocument, Reading } from '#core/job/schema.ts';
import { isReceptacle } from '#core/plan/wallSpaces.ts';
import { protectedBy } from './deviceTests.ts';
import { facesOf, takesBothHots } from './faces.ts';
import { isEnergized, lastPower, pastReadings } from './proof.ts';

export type Task = {
  /** Position of the stop; −1 is the panel. */
  stop: number;
  title: string;
  what: string;
  done: boolean;
} & (
  | { kind: 'power' }
  | { kind: 'read'; half: Reading['half'] }
  | { kind: 'load' }
  | { kind: 'device'; device: 'gfci' | 'afci' }
);

/** Readings as left at an outlet since power came back last, without those corrected; none while it is not on record. */
function readAfterPower(document: JobDocument, run: Run): Map<string, Reading[]> {
  const found = new Map<string, Reading[]>();
  if (!isEnergized(document, run.circuit)) return found;
  const past = pastReadings(document);
  const since = lastPower(document, run.circuit.id)!.at;
  for (const reading of rows(document.readings)) {
    if (reading.stage !== 'as-left' || past.has(reading.id) || isBefore(reading.at, since)) continue;
    found.set(reading.boxId, [...(found.get(reading.boxId) ?? []), reading]);
  }
  return found;
}

/** Tasks in the order in which a person walks the run. */
export function sequenceOf(document: JobDocument, run: Run): Task[] {
  const { circuit, stops } = run;
  const readings = readAfterPower(document, run);
  const tests = rows(document.deviceTests).filter((t) => t.circuitId === circuit.id);
  const tasks: Task[] = [
    {
      kind: 'power',
      stop: -1,
      title: 'Power on',
      what: 'Boxes closed, tools out, people told. Stand to the side, breaker on, listen: if it trips, leave it off.',
      done: isEnergized(document, circuit),
    },
  ];
  const deviceTask = (stop: number, box: Box | null, device: 'gfci' | 'afci'): Task => {
    const dark = protectedBy(run, box).map((p) => p.name);
    return {
      kind: 'device',
      device,
      stop,
      title: `${device.toUpperCase()} test`,
      what: `Press its own button${dark.length > 0 ? `; ${dark.join(', ')} must go dark` : ''}. Read volts after test and after reset. Leave it reset.`,
      done: tests.some((t) => t.kind === device && t.boxId === (box?.id ?? null) && t.tripped && t.reset),
    };
  };
  stops.forEach((stop, at) => tasks.push(...tasksAt(stop, at, readings.get(stop.box.id) ?? [], deviceTask)));
  const { protection } = circuit.breaker;
  if (protection === 'gfci' || protection === 'dual') tasks.push(deviceTask(-1, null, 'gfci'));
  if (protection === 'afci' || protection === 'dual') tasks.push(deviceTask(-1, null, 'afci'));
  return tasks;
}

function tasksAt(
  { box }: RunStop,
  at: number,
  readings: readonly Reading[],
  deviceTask: (stop: number, box: Box, device: 'gfci' | 'afci') => Task,
): Task[] {
  if (box.status === 'remove') return [];
  const loadTest: Task = {
    kind: 'load',
    stop: at,
    title: 'Load test',
    what: 'Unloaded volts, then with the appliance or a known load on: volts and measured amps.',
    done: readings.some((r) => r.loadAmps > 0),
  };
  // What is wired in is read where it is fed, with it on.
  if (box.device.kind === 'hardwired') return [loadTest];
  if (!isReceptacle(box)) return [];
  const tasks: Task[] = facesOf(box).map((half) => ({
    kind: 'read',
    half,
    stop: at,
    title: half === 'both' ? 'Read' : `Read the ${half}`,
    what: takesBothHots(box)
      ? 'Hot to hot, each hot to neutral and to ground.'
      : 'Hot–neutral, hot–ground, neutral–ground.',
    done: readings.some((r) => r.half === half || r.half === 'both'),
  }));
  if (takesBothHots(box) || box.device.rating >= 30) tasks.push(loadTest);
  if (box.device.kind === 'gfci') tasks.push(deviceTask(at, box, 'gfci'));
  if (box.device.kind === 'outlet-afci') tasks.push(deviceTask(at, box, 'afci'));
  return tasks;
}
