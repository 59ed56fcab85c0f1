/** The `hekto` command: the same core on files. Exit status 0 clean, 1 findings, 2 bad input. */
import { check } from '#core/code/checker.ts';
import { parseFile } from '#core/job/file.ts';
import { InvalidError } from '#core/job/validate.ts';
import { summarize } from '#core/code/summary.ts';
import { BAD_INPUT, CLEAN, FINDINGS, oneFile, parsed, print, read } from './input.ts';
import { runBox } from './box.ts';
import { runCover } from './cover.ts';
import { runDiagnose } from './diagnose.ts';
import { runExport } from './export.ts';
import { runFill } from './fill.ts';
import { runLoad } from './load.ts';
import { runPlan } from './plan.ts';
import { runRaceway } from './raceway.ts';
import { runSize } from './size.ts';
import { runSolve } from './solve.ts';

const USAGE = `hekto: plans and checks house wiring

  hekto check FILE [--json]   check a job file; FILE may be - for standard input
  hekto size [FILE]           size a circuit: JSON in (file or standard input), JSON out
  hekto fill [FILE]           room that a box's contents take, 314.16: JSON in, JSON out
  hekto box FILE --box NAME [--move END=PLACE ...] [--jumper PLACE=PLACE ...] [--svg FILE]
                              a box's wiring, what it does when energized, its fill
  hekto raceway [FILE]        fill of a raceway, Chapter 9: JSON in, JSON out
  hekto cover [FILE]          least depth of what is buried, Table 300.5: JSON in, JSON out
  hekto load [FILE]           a dwelling's load by Article 220: JSON in, JSON out
  hekto plan FILE [options]   plan a job's circuits: JSON out; --job writes the whole job file instead
  hekto solve FILE --circuit NAME [options]
                              the voltages of a circuit's network, or its netlist
  hekto diagnose FILE --circuit NAME [--findings FILE]
                              what is the matter, and what to measure next: JSON in, JSON out
  hekto export FILE --spice --circuit NAME | --readings | --measurements | --calendar
                              a netlist, the readings as CSV, tests as iCalendar

Exit status: 0 clean, 1 findings or no answer, 2 bad input. See docs/cli.md.
`;

function runCheck(args: string[]): number {
  const { values, positionals } = parsed(args, { json: { type: 'boolean' } });
  const summary = summarize(check(parseFile(read(oneFile(positionals, 'one job file')))));
  if (values.json) print(JSON.stringify(summary, null, 2));
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

const COMMANDS = new Map<string | undefined, (args: string[]) => number | Promise<number>>(
  Object.entries({
    check: runCheck,
    size: runSize,
    fill: runFill,
    box: runBox,
    raceway: runRaceway,
    cover: runCover,
    load: runLoad,
    plan: runPlan,
    solve: runSolve,
    diagnose: runDiagnose,
    export: runExport,
  }),
);

/** Runs one command line. @returns the exit status */
export async function main(args: string[]): Promise<number> {
  const [command, ...rest] = args;
  // Whoever reads may stop early, as `head` does.
  process.stdout.on('error', (error: NodeJS.ErrnoException) => {
    if (error.code !== 'EPIPE') throw error;
  });
  try {
    const work = COMMANDS.get(command);
    if (work) return await work(rest);
    if (command === undefined || command === '--help' || command === '-h' || command === 'help') {
      print(USAGE);
      return command === undefined ? BAD_INPUT : CLEAN;
    }
    throw new InvalidError([
      { path: 'command', message: `“${command}” is not one of ${[...COMMANDS.keys()].join(', ')}` },
    ]);
  } catch (error) {
    if (!(error instanceof InvalidError)) throw error;
    process.stderr.write(`${error.problems.map((p) => `${p.path}: ${p.message}`).join('\n')}\n`);
    return BAD_INPUT;
  }
}
