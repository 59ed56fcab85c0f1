/** `hekto export`: parts of a job in formats that other programs read. */
import { buildRun } from '#core/circuits/run.ts';
import { calendarOf } from '#core/formats/calendar.ts';
import { measurementsToCsv } from '#core/formats/measurementsCsv.ts';
import { readingsToCsv } from '#core/formats/readingsCsv.ts';
import { spiceNetlist } from '#core/formats/spice.ts';
import { parseFile } from '#core/job/file.ts';
import { DAY } from '#core/job/schema.ts';
import { InvalidError } from '#core/job/validate.ts';
import { MAINS_HERTZ } from '#core/network/network.ts';
import { registerOf } from '#core/records/deviceTests.ts';
import { CIRCUIT_OPTIONS, circuitOf } from './circuit.ts';
import { CLEAN, oneFile, parsed, print, read } from './input.ts';

const WHAT = ['spice', 'readings', 'measurements', 'calendar'] as const;

export function runExport(args: string[]): number {
  const { values, positionals } = parsed(args, {
    spice: { type: 'boolean' },
    readings: { type: 'boolean' },
    measurements: { type: 'boolean' },
    calendar: { type: 'boolean' },
    day: { type: 'string' },
    ...CIRCUIT_OPTIONS,
  });
  const asked = WHAT.filter((w) => values[w]);
  if (asked.length !== 1)
    throw new InvalidError([
      { path: 'arguments', message: `expected one of ${WHAT.map((w) => `--${w}`).join(', ')}` },
    ]);
  const [what] = asked;
  const { day = null } = values;
  if (day !== null && !DAY.test(day))
    throw new InvalidError([{ path: '--day', message: 'expected a day such as 2026-05-04' }]);
  const document = parseFile(read(oneFile(positionals, 'one job file')));
  if (what === 'readings') process.stdout.write(readingsToCsv(document));
  else if (what === 'measurements') process.stdout.write(measurementsToCsv(document));
  else if (what === 'calendar') {
    const now = day === null ? new Date().toISOString() : `${day}T00:00:00Z`;
    const register = registerOf(document, (circuit) => buildRun(document, circuit), now.slice(0, 10));
    process.stdout.write(calendarOf(document, register, now));
  } else {
    const { runs, wiring } = circuitOf(document, values);
    print(spiceNetlist(wiring, MAINS_HERTZ, runs.map((r) => r.circuit.name).join(', ')));
  }
  return CLEAN;
}
