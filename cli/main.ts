/** The `hekto` command: the same core on files. Exit status 0 clean, 1 findings, 2 bad input. */
import * as yup from 'yup';
import { sizeCircuit, type SizingInput } from '../src/core/circuits/sizing.ts';
import { check } from '../src/core/code/checker.ts';
import { parseFile } from '../src/core/job/file.ts';
import { EDITIONS, GAUGES } from '../src/core/job/schema.ts';
import { InvalidError } from '../src/core/job/validate.ts';
import { summarise } from '../src/core/records/summary.ts';
import { BAD_INPUT, CLEAN, FINDINGS, number, oneFile, print, read, readJson, without } from './input.ts';
import { runLoad } from './load.ts';
import { runPlan } from './plan.ts';

const USAGE = `hekto: plans and checks house wiring

  hekto check FILE [--json]   check a job file; FILE may be - for standard input
  hekto size [FILE]           size a circuit: JSON in (file or standard input), JSON out
  hekto load [FILE]           a dwelling's load by Article 220: JSON in, JSON out
  hekto plan FILE [options]   plan a job's circuits: JSON out; --job writes the whole job file instead

Exit status: 0 clean, 1 findings or no answer, 2 bad input. See docs/cli.md.
`;

/** Input of `hekto size`; what is left out takes the value given here. */
const SIZE_DEFAULTS: SizingInput = {
  edition: '2023',
  continuousAmps: 0,
  noncontinuousAmps: 0,
  volts: 120,
  material: 'copper',
  method: 'NM-B',
  insulation: 90,
  terminalRating: 60,
  ambientCelsius: 30,
  currentCarrying: 2,
  severalReceptacles: false,
  feet: 0,
  conductorCelsius: 75,
  breaker: null,
  gauge: null,
};
const sizeSchema = yup
  .object({
    edition: yup.string().strict().oneOf(EDITIONS),
    continuousAmps: number(0, 200),
    noncontinuousAmps: number(0, 200),
    volts: number(100, 300),
    material: yup.string().strict().oneOf(['copper', 'aluminium']),
    method: yup.string().strict().oneOf(['NM-B', 'UF-B', 'raceway']),
    insulation: yup.number().strict().oneOf([60, 75, 90]),
    terminalRating: yup.number().strict().oneOf([60, 75]),
    ambientCelsius: number(-40, 85),
    currentCarrying: number(1, 100).integer(),
    severalReceptacles: yup.boolean().strict(),
    feet: number(0, 5000),
    conductorCelsius: number(-40, 90),
    breaker: number(10, 200).nullable(),
    gauge: yup
      .string()
      .strict()
      .nullable()
      .oneOf([...GAUGES, null]),
  })
  .noUnknown()
  .strict()
  .required();

function runCheck(args: string[]): number {
  const { found: asJson, rest } = without(args, '--json');
  const file = oneFile(rest, 'one job file');
  const summary = summarise(check(parseFile(read(file))));
  if (asJson) print(JSON.stringify(summary, null, 2));
  else {
    for (const f of summary.findings) {
      if (f.level !== 'satisfied') print(`${f.level.padEnd(11)} ${f.section.padEnd(24)} ${f.message}`);
    }
    const { violation, unknown, recommended, note, satisfied } = summary.counts;
    print(
      `${violation} violations, ${unknown} not judged, ${recommended} recommended, ${note} notes, ${satisfied} in order`,
    );
  }
  return summary.clean ? CLEAN : FINDINGS;
}

function runSize(args: string[]): number {
  const input = readJson(oneFile(without(args, '--json').rest, 'one JSON file, or none', '-'), sizeSchema);
  const sizing = { ...SIZE_DEFAULTS, ...(input as Partial<SizingInput>) };
  if (sizing.continuousAmps + sizing.noncontinuousAmps <= 0) {
    throw new InvalidError([
      { path: 'input', message: 'expected a load: continuousAmps, noncontinuousAmps or both' },
    ]);
  }
  const result = sizeCircuit(sizing);
  print(JSON.stringify(result.ok ? result.value : { problem: result.message }, null, 2));
  return result.ok ? CLEAN : FINDINGS;
}

/** Runs one command line. @returns the exit status */
export async function main(args: string[]): Promise<number> {
  const [command, ...rest] = args;
  // Whoever reads may stop early, as `head` does.
  process.stdout.on('error', (error: NodeJS.ErrnoException) => {
    if (error.code !== 'EPIPE') throw error;
  });
  try {
    if (command === 'check') return runCheck(rest);
    if (command === 'size') return runSize(rest);
    if (command === 'load') return runLoad(rest);
    if (command === 'plan') return runPlan(rest);
    if (command === undefined || command === '--help' || command === '-h' || command === 'help') {
      print(USAGE);
      return command === undefined ? BAD_INPUT : CLEAN;
    }
    throw new InvalidError([
      { path: 'command', message: `“${command}” is not one of check, size, load, plan` },
    ]);
  } catch (error) {
    if (!(error instanceof InvalidError)) throw error;
    process.stderr.write(`${error.problems.map((p) => `${p.path}: ${p.message}`).join('\n')}\n`);
    return BAD_INPUT;
  }
}
