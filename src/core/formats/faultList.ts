/** Faults of a circuit as JSON, each with the name of the box it is at. Fields are documented in docs/cli.md. */
import * as yup from 'yup';
import { InvalidError, problemsOf } from '#core/job/validate.ts';
import { withFaults, type Fault, type FaultKind } from '#core/network/faults.ts';
import { CONDUCTORS, PARTS, type Wiring } from '#core/network/wiring.ts';

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
const FAULT_KINDS: Record<FaultKind, yup.ObjectShape> = {
  open: { ...at, ...part },
  resistance: { ...at, ...part, ...ohms },
  short: { ...at, conductors: pair(), ...ohms },
  swap: { ...at, conductors: pair() },
  crossed: { ...at, conductors: pair() },
  'false-ground': at,
  'other-hot': { ...at, leg: yup.string().strict().required().oneOf(['same', 'other']) },
  'other-neutral': at,
  'same-leg': {},
  reversed: { ...at, age: yup.string().strict().oneOf(AGES) },
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
  .max(MOST_FAULTS);

/**
 * Reads a list of faults.
 * @param path what names it in messages
 * @param names of the boxes in the order of the run
 * @throws InvalidError
 */
export function faultsOf(value: unknown, path: string, names: readonly string[]): Fault[] {
  const problems = problemsOf(listSchema, value, path);
  if (problems.length > 0) throw new InvalidError(problems);
  return (value as (Record<string, unknown> & { at?: string })[]).map(({ at: name, ...fault }, k) => {
    if (name === undefined) return fault as unknown as Fault;
    const stop = name === PANEL ? -1 : names.indexOf(name);
    if (stop < 0 && name !== PANEL)
      throw new InvalidError([
        { path: `${path}[${k}].at`, message: `“${name}” is not one of ${[PANEL, ...names].join(', ')}` },
      ]);
    const age = fault.kind === 'reversed' ? { age: fault.age ?? AGES[0] } : {};
    return { ...fault, ...age, stop } as unknown as Fault;
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
