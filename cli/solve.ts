/** `hekto solve`: the voltages of a circuit, sound or with faults, or its netlist. */
import * as yup from 'yup';
import { buildRun } from '../src/core/circuits/run.ts';
import { faultsOf, faulty } from '../src/core/formats/faultList.ts';
import { spiceNetlist } from '../src/core/formats/spice.ts';
import { rows } from '../src/core/job/document.ts';
import { parseFile } from '../src/core/job/file.ts';
import { InvalidError } from '../src/core/job/validate.ts';
import { Factors } from '../src/core/network/solve.ts';
import { wiringOf } from '../src/core/network/wiring.ts';
import { CLEAN, number, oneFile, option, parseJson, print, read, without } from './input.ts';

const HERTZ = 60;

/** Reads `--load`: amperes by the name of a box. */
function loadsOf(text: string | null, names: readonly string[]): Map<number, number> {
  if (text === null) return new Map();
  const shape = Object.fromEntries(names.map((name) => [name, number(0.001, 100)]));
  const amps = parseJson(text, '--load', yup.object(shape).noUnknown().strict().required());
  return new Map(Object.entries(amps).map(([name, value]) => [names.indexOf(name), value as number]));
}

export function runSolve(args: string[]): number {
  const { found: asSpice, rest: one } = without(args, '--spice');
  const { value: name, rest: two } = option(one, '--circuit');
  const { value: faultText, rest: three } = option(two, '--faults');
  const { value: loadText, rest } = option(three, '--load');
  const document = parseFile(read(oneFile(rest, 'one job file')));
  const circuits = rows(document.circuits);
  const circuit = circuits.find((c) => c.name === name || c.id === name);
  if (!circuit)
    throw new InvalidError([
      {
        path: '--circuit',
        message: `expected the name of a circuit: ${circuits.map((c) => c.name).join(', ')}`,
      },
    ]);
  const run = buildRun(document, circuit);
  const names = run.stops.map((s) => s.box.name);
  const wiring = faulty(
    wiringOf(run, { amps: loadsOf(loadText, names), open: new Set() }),
    faultText === null ? [] : faultsOf(parseJson(faultText, '--faults', yup.mixed()), '--faults', names),
    '--faults',
  );
  if (asSpice) {
    print(spiceNetlist(wiring, HERTZ, circuit.name));
    return CLEAN;
  }
  const voltages = new Factors(wiring, HERTZ).voltages();
  const volts = (a: number, b: number) => Math.round(1000 * voltages.between(a, b)) / 1000;
  const boxes = wiring.terminals.map(({ hot, neutral, ground, red }, k) => ({
    box: run.stops[k]!.box.name,
    hotNeutral: volts(hot, neutral),
    hotGround: volts(hot, ground),
    neutralGround: volts(neutral, ground),
    ...(red === null ? {} : { hotHot: volts(hot, red) }),
  }));
  print(JSON.stringify({ circuit: circuit.name, boxes }, null, 2));
  return CLEAN;
}
