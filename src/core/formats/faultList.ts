/** Faults of a circuit as JSON, each with the name of the box it is at. Fields are documented in docs/cli.md. */
import * as yup from 'yup';
import { InvalidError, problemsOf } from '#core/job/validate.ts';
import { withFaults, type Fault, type FaultKind, type SupplyFault } from '#core/network/faults.ts';
import { CONDUCTORS, PARTS } from '#core/network/places.ts';
import type { Wiring } from '#core/network/wiring.ts';

/** What a fault is at that no box has. */
const PANEL = 'panel';
const MOST_FAULTS = 20;

const conductor = () => yup.string().strict().required().oneOf(CONDUCTORS);
const pair = () => yup.array(conductor()).strict().length(2).required();
const at = { at: yup.string().strict().required().max(80) };
const part = { conductor: conductor(), part: yup.string().strict().required().oneOf(PARTS) };
const ohms = { ohms: yup.number().strict().min(0.001).max(1e9).required() };
/** Of a device fed on the wrong side; what is not said is taken to be new enough. */
const AGES = ['since-2006', 'before-2006'] as const;
const name = () => yup.string().strict().required().max(90);
const side = { side: yup.string().strict().required().oneOf(['hot', 'neutral']) };
/** Null is lost, a number a poor joint. */
const lostOr = { ohms: yup.number().strict().min(0.001).max(1e9).nullable().defined() };
const leg = { leg: yup.string().strict().required().oneOf(['own', 'other']) };
const panel = { panel: name() };
/** One of the circuits that are laid out, by its name; the first where it is not said. */
const circuit = { circuit: yup.string().strict().max(80) };
const SUPPLY_KINDS: Record<SupplyFault['kind'], yup.ObjectShape> = {
  'service-neutral': lostOr,
  'service-leg': { ...leg, ohms: lostOr.ohms.optional() },
  'feeder-neutral': { ...panel, ...lostOr },
  'feeder-leg': { ...panel, ...leg, ...lostOr },
  'feeder-ground': panel,
  'no-bond': {},
  'second-bond': panel,
};
const FAULT_KINDS: Record<FaultKind, yup.ObjectShape> = {
  open: { ...at, ...part },
  resistance: { ...at, ...part, ...ohms },
  short: { ...at, conductors: pair(), ...ohms },
  swap: { ...at, conductors: pair() },
  crossed: { ...at, conductors: pair() },
  'false-ground': at,
  'other-hot': { ...at, leg: yup.string().strict().required().oneOf(['same', 'other']) },
  'other-neutral': at,
  'same-leg': circuit,
  reversed: { ...at, age: yup.string().strict().oneOf(AGES) },
  'switched-neutral': at,
  landing: { ...at, end: name(), place: name().nullable().defined() },
  'tab-left': { ...at, ...side },
  'tab-broken': { ...at, ...side },
  'cable-leak': { ...at, conductors: pair(), ...ohms },
  'hidden-junction': { ...at, conductor: conductor(), ...lostOr },
  tied: { ...at, conductor: conductor(), other: name(), otherConductor: conductor(), ...ohms },
  'borrowed-neutral': { ...at, other: name() },
  'lifted-neutral': circuit,
  'wrong-bar': { ...circuit, conductor: yup.string().strict().required().oneOf(['neutral', 'ground']) },
  'beside-breaker': circuit,
  'single-pole-sensor': circuit,
  'crossed-breakers': { circuits: yup.array(name()).strict().length(2).required() },
  ...SUPPLY_KINDS,
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
  .max(MOST_FAULTS);

/** What faults name, in their order in the network. */
export interface Named {
  boxes: readonly string[];
  circuits: readonly string[];
}

/**
 * Reads a list of faults.
 * @param path what names it in messages
 * @throws InvalidError
 */
export function faultsOf(value: unknown, path: string, { boxes, circuits }: Named): Fault[] {
  const problems = problemsOf(listSchema, value, path);
  if (problems.length > 0) throw new InvalidError(problems);
  const found = (text: unknown, names: readonly string[], where: string): number => {
    const index = names.indexOf(text as string);
    if (index < 0)
      throw new InvalidError([
        { path: where, message: `“${String(text)}” is not one of ${names.join(', ')}` },
      ]);
    return index;
  };
  return (value as Record<string, unknown>[]).map(({ at: place, ...fault }, k) => {
    const where = (field: string) => `${path}[${k}].${field}`;
    const stop = place === undefined ? {} : { stop: found(place, [PANEL, ...boxes], where('at')) - 1 };
    const circuit =
      fault.circuit === undefined ? {} : { circuit: found(fault.circuit, circuits, where('circuit')) };
    const other = fault.other === undefined ? {} : { other: found(fault.other, boxes, where('other')) };
    const both = Array.isArray(fault.circuits)
      ? { circuits: fault.circuits.map((c, i) => found(c, circuits, where(`circuits[${i}]`))) }
      : {};
    const age = fault.kind === 'reversed' ? { age: fault.age ?? AGES[0] } : {};
    return { ...fault, ...age, ...stop, ...circuit, ...other, ...both } as unknown as Fault;
  });
}

/**
 * The wiring with faults; what it does not have is refused by its place in the list.
 * @throws InvalidError
 */
export const faulty = (sound: Wiring, faults: readonly Fault[], path: string): Wiring =>
  faults.reduce((wiring, fault, k) => {
    try {
      return withFaults(wiring, [fault]);
    } catch (error) {
      throw new InvalidError([{ path: `${path}[${k}]`, message: (error as Error).message }]);
    }
  }, sound);
