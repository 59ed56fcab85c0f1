/** `hekto solve`: the voltages of a circuit, sound or with faults, or its netlist. */
import * as yup from 'yup';
import { buildRun } from '../src/core/circuits/run.ts';
import { spiceNetlist } from '../src/core/formats/spice.ts';
import { rows } from '../src/core/job/document.ts';
import { parseFile } from '../src/core/job/file.ts';
import { InvalidError } from '../src/core/job/validate.ts';
import { withFaults, type Fault } from '../src/core/network/faults.ts';
import { Factors } from '../src/core/network/solve.ts';
import { CONDUCTORS, PARTS, wiringOf, type Wiring } from '../src/core/network/wiring.ts';
import { CLEAN, number, oneFile, option, parseJson, print, read, without } from './input.ts';

const HERTZ = 60;

const conductor = () => yup.string().strict().required().oneOf(CONDUCTORS);
const pair = () => yup.array(conductor()).strict().length(2).required();
const FAULT_KINDS = {
  open: { conductor: conductor(), part: yup.string().strict().required().oneOf(PARTS) },
  resistance: {
    conductor: conductor(),
    part: yup.string().strict().required().oneOf(PARTS),
    ohms: number(0.001, 1e9).required(),
  },
  short: { conductors: pair(), ohms: number(0.001, 1e9).required() },
  swap: { conductors: pair() },
};
const listSchema = yup
  .array(
    yup.lazy((value: { kind?: keyof typeof FAULT_KINDS } | null) =>
      yup
        .object({
          kind: yup.string().strict().required().oneOf(Object.keys(FAULT_KINDS)),
          at: yup.string().strict().required().max(80),
          ...FAULT_KINDS[value?.kind ?? 'open'],
        })
        .noUnknown()
        .strict()
        .required(),
    ),
  )
  .strict()
  .max(20);

/** Reads `--faults`: a JSON list, each with the box it is `at`. */
function faultsOf(text: string | null, names: readonly string[]): Fault[] {
  if (text === null) return [];
  const list = parseJson(text, '--faults', listSchema) as (Record<string, unknown> & { at: string })[];
  return list.map(({ at, ...fault }, k) => {
    const stop = names.indexOf(at);
    if (stop < 0)
      throw new InvalidError([
        { path: `--faults[${k}].at`, message: `“${at}” is not one of ${names.join(', ')}` },
      ]);
    return { ...fault, stop } as unknown as Fault;
  });
}

/** The wiring with faults; what it does not have is refused by its place in the list. */
const faulty = (sound: Wiring, faults: readonly Fault[]): Wiring =>
  faults.reduce((wiring, fault, k) => {
    try {
      return withFaults(wiring, [fault]);
    } catch (error) {
      throw new InvalidError([{ path: `--faults[${k}]`, message: (error as Error).message }]);
    }
  }, sound);

export function runSolve(args: string[]): number {
  const { found: asSpice, rest: one } = without(args, '--spice');
  const { value: name, rest: two } = option(one, '--circuit');
  const { value: faultText, rest } = option(two, '--faults');
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
  const faults = faultsOf(
    faultText,
    run.stops.map((s) => s.box.name),
  );
  const wiring = faulty(wiringOf(run), faults);
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
