/** The register of ground-fault and arc-fault devices: what each protects, its age, when to test and replace it. */
import { byTime } from '#core/units/time.ts';
import type { Run } from '#core/circuits/run.ts';
import { circuitsInOrder, rows } from '#core/job/document.ts';
import type { Box, Circuit, DeviceTest, JobDocument } from '#core/job/schema.ts';

/** Monthly, as the makers’ instructions have it. */
const TEST_MONTHS = 1;
/** A usual age to replace one at, years. */
export const REPLACE_YEARS = 10;
/** Below this an outlet counts as dead, volts. */
export const DEAD_VOLTS = 5;

export interface RegisteredDevice {
  /** `box-…`, or the circuit’s id for a breaker. */
  key: string;
  circuit: Circuit;
  /** Null: the breaker. */
  box: Box | null;
  kind: DeviceTest['kind'];
  /** Names of the outlets that go dark with it. */
  protects: { boxId: string; name: string }[];
  /** Newest first. */
  tests: DeviceTest[];
  /** Day it was put in, as far as known. */
  installed: string | null;
  /** Day of the next test; null when it was never tested. */
  nextTest: string | null;
  replaceBy: string | null;
  state: 'never tested' | 'in order' | 'test due' | 'replace' | 'defective';
}

/** Adds months to a day, staying within the month. */
export function addMonths(day: string, months: number): string {
  const [year, month, date] = day.split('-').map(Number) as [number, number, number];
  const first = new Date(Date.UTC(year, month - 1 + months, 1));
  const last = new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + 1, 0)).getUTCDate();
  first.setUTCDate(Math.min(date, last));
  return first.toISOString().slice(0, 10);
}

/** A tester sends its current to the ground: without one it trips nothing, and that says nothing of the device. */
const tellsByTester = (grounding: Box['grounding']): boolean => grounding === 'grounded';

/**
 * What is wrong with a test as it was recorded; empty when the device passed.
 * @param grounding of the box where the tester was plugged in
 */
export function failuresOf(test: DeviceTest, grounding: Box['grounding']): string[] {
  const failures: string[] = [];
  if (!test.tripped) failures.push('did not trip by its own button');
  if (test.tripped && test.voltsAfterTest !== null && test.voltsAfterTest > DEAD_VOLTS)
    failures.push(`${test.voltsAfterTest} V still there after it tripped`);
  const live = test.downstream.filter((d) => !d.dead).length;
  if (live > 0)
    failures.push(`${live} of ${test.downstream.length} downstream stayed live: line and load reversed?`);
  if (!test.reset) failures.push('does not reset');
  if (tellsByTester(grounding) && test.tester && test.tester.milliamps >= 6 && test.tester.seconds === null)
    failures.push(`did not trip at ${test.tester.milliamps} mA`);
  if (test.indicator === 'fault') failures.push('its indicator shows a fault');
  return failures;
}

/** What a test says beyond passed or failed; empty mostly. */
export function notesOf(test: DeviceTest, grounding: Box['grounding']): string[] {
  return test.tester && test.tester.seconds === null && !tellsByTester(grounding)
    ? [
        grounding === 'none'
          ? 'a tester cannot trip it where the box has no ground: only its own button counts, 406.4(D)(2)'
          : 'whether the box has a ground is not on record: a tester cannot trip it without one',
      ]
    : [];
}

/** The ground at a device, or along the cable of a breaker’s circuit. */
export const groundingAt = (circuit: Circuit, box: Box | null): Box['grounding'] =>
  box ? box.grounding : circuit.cable === 'old two-wire' ? 'none' : 'grounded';

/** Outlets that a device takes down with it. */
export function protectedBy(run: Run, box: Box | null): { boxId: string; name: string }[] {
  const at = box === null ? -1 : run.stops.findIndex((s) => s.box.id === box.id);
  if (box !== null && at < 0) return [];
  const down = new Set([at]);
  return run.stops.flatMap((s, i) => {
    if (!down.has(s.feeder)) return [];
    // What leaves from the line side stays live.
    if (s.feeder === at && at >= 0 && s.stop.side === 'line') return [];
    down.add(i);
    return [{ boxId: s.box.id, name: s.box.name }];
  });
}

const KIND = { gfci: 'gfci', 'outlet-afci': 'afci' } as const;

/** The devices of one circuit: its breaker’s, then along the run. @param today `2026-11-25` */
export function devicesOn(document: JobDocument, run: Run, today: string): RegisteredDevice[] {
  const { circuit } = run;
  const tests = rows(document.deviceTests)
    .filter((t) => t.circuitId === circuit.id || run.stops.some((s) => s.box.id === t.boxId))
    .sort((a, b) => byTime(b.at, a.at));
  const entry = (box: Box | null, kind: DeviceTest['kind']): RegisteredDevice => {
    const own = tests.filter((t) => t.kind === kind && t.boxId === (box?.id ?? null));
    const installed = own.find((t) => t.installed !== null)?.installed ?? null;
    const [last] = own;
    const nextTest = last ? addMonths(last.at.slice(0, 10), TEST_MONTHS) : null;
    const replaceBy = installed === null ? null : addMonths(installed, 12 * REPLACE_YEARS);
    return {
      key: `${box?.id ?? circuit.id} ${kind}`,
      circuit,
      box,
      kind,
      protects: protectedBy(run, box),
      tests: own,
      installed,
      nextTest,
      replaceBy,
      state: stateOf(last, groundingAt(circuit, box), nextTest, replaceBy, today),
    };
  };
  const { protection } = circuit.breaker;
  return [
    ...(protection === 'gfci' || protection === 'dual' ? [entry(null, 'gfci')] : []),
    ...(protection === 'afci' || protection === 'dual' ? [entry(null, 'afci')] : []),
    ...run.stops.flatMap(({ box }) => {
      const kind = KIND[box.device.kind as keyof typeof KIND];
      return kind ? [entry(box, kind)] : [];
    }),
  ];
}

/** Every device of the job, by panel space and then along the run. @param today `2026-11-25` */
export const registerOf = (
  document: JobDocument,
  runOf: (circuit: Circuit) => Run,
  today: string,
): RegisteredDevice[] =>
  circuitsInOrder(document).flatMap((circuit) => devicesOn(document, runOf(circuit), today));

function stateOf(
  last: DeviceTest | undefined,
  grounding: Box['grounding'],
  nextTest: string | null,
  replaceBy: string | null,
  today: string,
): RegisteredDevice['state'] {
  if (!last) return 'never tested';
  if (failuresOf(last, grounding).length > 0) return 'defective';
  if (replaceBy !== null && replaceBy <= today) return 'replace';
  return nextTest !== null && nextTest <= today ? 'test due' : 'in order';
}
