/** The circuit that `--circuit`, `--faults`, `--load` and `--touch` speak of, as a network. */
import * as yup from 'yup';
import { actualBoxes } from '#core/boxes/planned.ts';
import { buildRun, type Run } from '#core/circuits/run.ts';
import { faultsOf, faulty } from '#core/formats/faultList.ts';
import { circuitsInOrder } from '#core/job/document.ts';
import type { Circuit, JobDocument } from '#core/job/schema.ts';
import { InvalidError } from '#core/job/validate.ts';
import { houseOf, withHouseFault, type House, type HouseFault } from '#core/network/supply.ts';
import { View } from '#core/view/view.ts';
import { wiringOf, type Use, type Wiring } from '#core/network/wiring.ts';
import { number, parseJson, row, word } from './input.ts';

export const CIRCUIT_OPTIONS = {
  circuit: { type: 'string' },
  faults: { type: 'string' },
  load: { type: 'string' },
  touch: { type: 'string' },
  house: { type: 'string' },
  'house-faults': { type: 'string' },
} as const;
type CircuitOptions = { readonly [name in keyof typeof CIRCUIT_OPTIONS]?: string | undefined };

/** Reads `--load`: amperes by the name of a box. */
function loadsOf(text: string | undefined, names: readonly string[]): Map<number, number> {
  if (text === undefined) return new Map();
  const shape = Object.fromEntries(names.map((name) => [name, number(0.001, 100)]));
  const amps = parseJson(text, '--load', yup.object(shape).noUnknown().strict().required());
  return new Map(Object.entries(amps).map(([name, value]) => [names.indexOf(name), value as number]));
}

const HOUSE_LOADS = ['planned', 'off'] as const;
const ohms = () => number(0.001, 1e9).nullable();
const HOUSE_FAULTS: Record<HouseFault['kind'], yup.ObjectShape> = {
  'service-neutral': { ohms: ohms().defined() },
  'service-leg': { leg: word(['own', 'other']).required() },
  'feeder-neutral': { panel: yup.string().strict().required().max(80), ohms: ohms().defined() },
  'no-bond': {},
  'second-bond': { panel: yup.string().strict().required().max(80) },
};
const houseFaultSchema = yup
  .array(
    yup.lazy((value: { kind?: HouseFault['kind'] } | null) =>
      row({
        kind: word(Object.keys(HOUSE_FAULTS) as HouseFault['kind'][]).required(),
        ...(HOUSE_FAULTS[value?.kind ?? 'no-bond'] ?? {}),
      }),
    ),
  )
  .strict()
  .max(8)
  .required();

/** Reads `--house` and `--house-faults`: what feeds the circuit's panel, and what is wrong with it. */
function houseBefore(
  view: View,
  circuit: Circuit,
  loads: string | undefined,
  faults: string | undefined,
): House | null {
  const refuse = (path: string, message: string): never => {
    throw new InvalidError([{ path, message }]);
  };
  if (loads === undefined)
    return faults === undefined
      ? null
      : refuse('--house', `expected ${HOUSE_LOADS.join(' or ')} beside --house-faults`);
  const taken =
    HOUSE_LOADS.find((w) => w === loads) ??
    refuse('--house', `expected ${HOUSE_LOADS.join(' or ')}, found “${loads}”`);
  const list =
    faults === undefined ? [] : (parseJson(faults, '--house-faults', houseFaultSchema) as HouseFault[]);
  return list.reduce(
    (house, fault, k) => {
      try {
        return withHouseFault(house, fault);
      } catch (error) {
        return refuse(`--house-faults[${k}].panel`, (error as Error).message);
      }
    },
    houseOf(view, circuit, taken),
  );
}

/** @throws InvalidError naming the option */
export function circuitOf(
  document: JobDocument,
  { circuit: name, faults, load, touch, house, 'house-faults': houseFaults }: CircuitOptions,
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
  const supply = houseBefore(new View(document), circuit, house, houseFaults);
  return { run, wiring: faulty(wiringOf(run, use, actualBoxes(run), supply), list, '--faults'), use };
}
