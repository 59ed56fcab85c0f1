/** The circuit that `--circuit`, `--faults`, `--load` and `--touch` speak of, as a network. */
import * as yup from 'yup';
import { buildRun, type Run } from '#core/circuits/run.ts';
import { faultsOf, faulty } from '#core/formats/faultList.ts';
import { circuitsInOrder } from '#core/job/document.ts';
import type { JobDocument } from '#core/job/schema.ts';
import { InvalidError } from '#core/job/validate.ts';
import { wiringOf, type Use, type Wiring } from '#core/network/wiring.ts';
import { number, option, parseJson } from './input.ts';

export interface CircuitOptions {
  circuit: string | null;
  faults: string | null;
  load: string | null;
  touch: string | null;
}

/** Takes the options out of the arguments. */
export function circuitOptions(args: readonly string[]): { options: CircuitOptions; rest: string[] } {
  const { value: circuit, rest: one } = option(args, '--circuit');
  const { value: faults, rest: two } = option(one, '--faults');
  const { value: load, rest: three } = option(two, '--load');
  const { value: touch, rest } = option(three, '--touch');
  return { options: { circuit, faults, load, touch }, rest };
}

/** Reads `--load`: amperes by the name of a box. */
function loadsOf(text: string | null, names: readonly string[]): Map<number, number> {
  if (text === null) return new Map();
  const shape = Object.fromEntries(names.map((name) => [name, number(0.001, 100)]));
  const amps = parseJson(text, '--load', yup.object(shape).noUnknown().strict().required());
  return new Map(Object.entries(amps).map(([name, value]) => [names.indexOf(name), value as number]));
}

/** @throws InvalidError naming the option */
export function circuitOf(
  document: JobDocument,
  { circuit: name, faults, load, touch }: CircuitOptions,
): { run: Run; wiring: Wiring; use: Use } {
  const circuits = circuitsInOrder(document);
  const named = circuits.filter((c) => c.id === name);
  const fits = named.length > 0 ? named : circuits.filter((c) => c.name === name);
  if (fits.length > 1)
    throw new InvalidError([
      {
        path: '--circuit',
        message: `“${name}” fits ${fits.length} circuits; expected the id of one: ${fits.map((c) => `${c.id} (space ${c.space})`).join(', ')}`,
      },
    ]);
  const [circuit] = fits;
  if (!circuit)
    throw new InvalidError([
      {
        path: '--circuit',
        message: `expected the name of a circuit: ${circuits.map((c) => c.name).join(', ')}`,
      },
    ]);
  const run = buildRun(document, circuit);
  const names = run.stops.map((s) => s.box.name);
  const touched = touch === null ? undefined : names.indexOf(touch);
  if (touched === -1)
    throw new InvalidError([{ path: '--touch', message: `“${touch}” is not one of ${names.join(', ')}` }]);
  const use: Use = {
    amps: loadsOf(load, names),
    open: new Set(),
    ...(touched === undefined ? {} : { touch: touched }),
  };
  const list = faults === null ? [] : faultsOf(parseJson(faults, '--faults', yup.mixed()), '--faults', names);
  return { run, wiring: faulty(wiringOf(run, use), list, '--faults'), use };
}
