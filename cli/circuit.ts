/** The circuit that `--circuit`, `--faults`, `--load` and `--touch` speak of, as a network. */
import * as yup from 'yup';
import { runOf, type Run } from '#core/circuits/run.ts';
import { faultsOf, faulty } from '#core/formats/faultList.ts';
import { circuitsInOrder } from '#core/job/document.ts';
import type { Circuit, JobDocument } from '#core/job/schema.ts';
import { InvalidError } from '#core/job/validate.ts';
import type { Fault } from '#core/network/faults.ts';
import { houseOf, studyOf, type OthersTake } from '#core/network/house.ts';
import { MAINS_HERTZ } from '#core/network/network.ts';
import type { Use } from '#core/network/places.ts';
import { houseWiring, wiringOf, type HouseStudy, type Wiring } from '#core/network/wiring.ts';
import { View } from '#core/view/view.ts';
import { number, parseJson } from './input.ts';

export const CIRCUIT_OPTIONS = {
  circuit: { type: 'string' },
  with: { type: 'string', multiple: true },
  faults: { type: 'string' },
  load: { type: 'string' },
  touch: { type: 'string' },
  house: { type: 'string' },
  'house-faults': { type: 'string' },
} as const;
type CircuitOptions = {
  readonly [name in Exclude<keyof typeof CIRCUIT_OPTIONS, 'with'>]?: string | undefined;
} & { readonly with?: string[] | undefined };

/** Reads `--load`: amperes by the name of a box. */
function loadsOf(text: string | undefined, names: readonly string[]): Map<number, number> {
  if (text === undefined) return new Map();
  const shape = Object.fromEntries(names.map((name) => [name, number(0.001, 100)]));
  const amps = parseJson(text, '--load', yup.object(shape).noUnknown().strict().required());
  return new Map(Object.entries(amps).map(([name, value]) => [names.indexOf(name), value as number]));
}

const HOUSE_LOADS = ['planned', 'off'] as const;

/** Reads `--house`: what the circuits take that are not laid out; null where a source stands at the panel. */
function othersOf(loads: string | undefined, others: boolean): OthersTake | null {
  if (loads === undefined && !others) return null;
  const taken = HOUSE_LOADS.find((w) => w === (loads ?? 'planned'));
  if (taken) return taken;
  throw new InvalidError([
    { path: '--house', message: `expected ${HOUSE_LOADS.join(' or ')}, found “${loads}”` },
  ]);
}

/** @throws InvalidError naming the option */
export function circuitOf(
  document: JobDocument,
  { circuit: name, with: beside, faults, load, touch, house, 'house-faults': houseFaults }: CircuitOptions,
): { runs: Run[]; wiring: Wiring; touched: number | null } {
  const view = new View(document);
  const circuit = circuitNamed(document, name, '--circuit');
  const studied = [circuit, ...(beside ?? []).map((n) => circuitNamed(document, n, '--with'))];
  const runs = studied.map((c) => runOf(view, c));
  const boxes = runs.flatMap((r) => r.stops.map((s) => s.box.name));
  const touched = touch === undefined ? undefined : boxes.indexOf(touch);
  if (touched === -1)
    throw new InvalidError([{ path: '--touch', message: `“${touch}” is not one of ${boxes.join(', ')}` }]);
  const amps = loadsOf(load, boxes);
  const named = { boxes, circuits: studied.map((c) => c.name) };
  const listed = (text: string | undefined, path: string): Fault[] =>
    text === undefined ? [] : faultsOf(parseJson(text, path, yup.mixed()), path, named);
  const faultList = listed(faults, '--faults');
  const ofHouse = listed(houseFaults, '--house-faults');
  const others = othersOf(house, studied.length > 1);
  if (others === null && ofHouse.length > 0)
    throw new InvalidError([
      { path: '--house', message: `expected ${HOUSE_LOADS.join(' or ')} beside --house-faults` },
    ]);
  let first = 0;
  const studies = studied.map((c, k): HouseStudy => {
    const from = first;
    first += runs[k]!.stops.length;
    const here = (stop: number) => stop >= from && stop < first;
    const use: Use = {
      amps: new Map([...amps].flatMap(([stop, a]) => (here(stop) ? [[stop - from, a] as const] : []))),
      open: new Set(),
      ...(touched !== undefined && here(touched) ? { touch: touched - from } : {}),
    };
    const tabs = faultList.flatMap((f) => (f.kind === 'tab-broken' && here(f.stop) ? [f.stop - from] : []));
    return studyOf(view, c, { ...use, apart: new Set(tabs) });
  });
  const [study] = studies;
  const { run, use } = study!;
  const wiring =
    others === null
      ? wiringOf(run, use, study!.boxes)
      : houseWiring(houseOf(view, studied, others), studies, MAINS_HERTZ);
  const withHouse = faulty(wiring, ofHouse, '--house-faults');
  return { runs, wiring: faulty(withHouse, faultList, '--faults'), touched: touched ?? null };
}

export function circuitNamed(document: JobDocument, name: string | undefined, option: string): Circuit {
  const circuits = circuitsInOrder(document);
  const byId = circuits.filter((c) => c.id === name);
  const fits = byId.length > 0 ? byId : circuits.filter((c) => c.name === name);
  const refuse = (message: string): never => {
    throw new InvalidError([{ path: option, message }]);
  };
  if (fits.length > 1)
    return refuse(
      `“${name}” fits ${fits.length} circuits; expected the id of one: ${fits.map((c) => `${c.id} (space ${c.space})`).join(', ')}`,
    );
  return fits[0] ?? refuse(`expected the name of a circuit: ${circuits.map((c) => c.name).join(', ')}`);
}
