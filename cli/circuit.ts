/** The circuit that `--circuit`, `--faults`, `--load` and `--touch` speak of, as a network. */
import * as yup from 'yup';
import { actualBoxes } from '#core/boxes/planned.ts';
import { buildRun, type Run } from '#core/circuits/run.ts';
import { faultsOf, faulty } from '#core/formats/faultList.ts';
import { circuitsInOrder } from '#core/job/document.ts';
import type { JobDocument } from '#core/job/schema.ts';
import { InvalidError } from '#core/job/validate.ts';
import { wiringOf, type Use, type Wiring } from '#core/network/wiring.ts';
import { number, parseJson } from './input.ts';

export const CIRCUIT_OPTIONS = {
  circuit: { type: 'string' },
  faults: { type: 'string' },
  load: { type: 'string' },
  touch: { type: 'string' },
} as const;
type CircuitOptions = { readonly [name in keyof typeof CIRCUIT_OPTIONS]?: string | undefined };

/** Reads `--load`: amperes by the name of a box. */
function loadsOf(text: string | undefined, names: readonly string[]): Map<number, number> {
  if (text === undefined) return new Map();
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
  const touched = touch === undefined ? undefined : names.indexOf(touch);
  if (touched === -1)
    throw new InvalidError([{ path: '--touch', message: `“${touch}” is not one of ${names.join(', ')}` }]);
  const use: Use = {
    amps: loadsOf(load, names),
    open: new Set(),
    ...(touched === undefined ? {} : { touch: touched }),
  };
  const list =
    faults === undefined ? [] : faultsOf(parseJson(faults, '--faults', yup.mixed()), '--faults', names);
  return { run, wiring: faulty(wiringOf(run, use, actualBoxes(run)), list, '--faults'), use };
}
