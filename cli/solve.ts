/** `hekto solve`: the voltages of a circuit, sound or with faults, or its netlist. */
import * as yup from 'yup';
import { buildRun } from '../src/core/circuits/run.ts';
import { spiceNetlist } from '../src/core/formats/spice.ts';
import { rows } from '../src/core/job/document.ts';
import { parseFile } from '../src/core/job/file.ts';
import { InvalidError } from '../src/core/job/validate.ts';
import { withFaults, type Fault, type FaultKind } from '../src/core/network/faults.ts';
import { Factors } from '../src/core/network/solve.ts';
import { CONDUCTORS, PARTS, wiringOf, type Wiring } from '../src/core/network/wiring.ts';
import { CLEAN, number, oneFile, option, parseJson, print, read, without } from './input.ts';

const HERTZ = 60;
/** What a fault is at that no box has. */
const PANEL = 'panel';

const conductor = () => yup.string().strict().required().oneOf(CONDUCTORS);
const pair = () => yup.array(conductor()).strict().length(2).required();
const at = { at: yup.string().strict().required().max(80) };
const part = { conductor: conductor(), part: yup.string().strict().required().oneOf(PARTS) };
const ohms = { ohms: number(0.001, 1e9).required() };
const FAULT_KINDS: Record<FaultKind, yup.ObjectShape> = {
  open: { ...at, ...part },
  resistance: { ...at, ...part, ...ohms },
  short: { ...at, conductors: pair(), ...ohms },
  swap: { ...at, conductors: pair() },
  'false-ground': at,
  'other-hot': { ...at, leg: yup.string().strict().required().oneOf(['same', 'other']) },
  'other-neutral': at,
  'same-leg': {},
  reversed: at,
  'switched-neutral': at,
};
const listSchema = yup
  .array(
    yup.lazy((value: { kind?: keyof typeof FAULT_KINDS } | null) =>
      yup
        .object({
          kind: yup.string().strict().required().oneOf(Object.keys(FAULT_KINDS)),
          ...(FAULT_KINDS[value?.kind ?? 'open'] ?? at),
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
  const list = parseJson(text, '--faults', listSchema) as (Record<string, unknown> & { at?: string })[];
  return list.map(({ at, ...fault }, k) => {
    if (at === undefined) return fault as unknown as Fault;
    const stop = at === PANEL ? -1 : names.indexOf(at);
    if (stop < 0 && at !== PANEL)
      throw new InvalidError([
        { path: `--faults[${k}].at`, message: `“${at}” is not one of ${[PANEL, ...names].join(', ')}` },
      ]);
    return { ...fault, stop } as unknown as Fault;
  });
}

/** Reads `--load`: amperes by the name of a box. */
function loadsOf(text: string | null, names: readonly string[]): Map<number, number> {
  if (text === null) return new Map();
  const shape = Object.fromEntries(names.map((name) => [name, number(0.001, 100)]));
  const amps = parseJson(text, '--load', yup.object(shape).noUnknown().strict().required());
  return new Map(Object.entries(amps).map(([name, value]) => [names.indexOf(name), value as number]));
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
    faultsOf(faultText, names),
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
