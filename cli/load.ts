/** `hekto load`: the load of a dwelling, standard, optional or existing. */
import { DWELLING_LOADS } from '#core/tables/loadKinds.ts';
import * as yup from 'yup';
import { EDITIONS } from '#core/job/schema.ts';
import {
  dwellingLoad,
  LOAD_METHODS,
  type Dwelling,
  type LoadItem,
  type LoadMethod,
} from '#core/loads/dwelling.ts';
import { CLEAN, FINDINGS, number, oneFile, parsed, print, readJson } from './input.ts';

const PLAIN_ITEM: Pick<LoadItem, 'volts' | 'motor' | 'controls' | 'added'> = {
  volts: 240,
  motor: false,
  controls: 1,
  added: false,
};
/** What is left out takes the value given here. */
const PLAIN: Omit<Dwelling, 'floorArea' | 'items'> & { method: LoadMethod } = {
  method: 'standard',
  edition: '2023',
  smallApplianceCircuits: 2,
  laundryCircuits: 1,
  oneFamily: true,
  material: 'copper',
};

const itemSchema = yup
  .object({
    name: yup.string().strict().required().max(80),
    kind: yup.string().strict().required().oneOf(DWELLING_LOADS),
    va: number(0, 100000).required(),
    volts: yup
      .number()
      .strict()
      .oneOf([120, 240] as const),
    motor: yup.boolean().strict(),
    controls: number(1, 50).integer(),
    added: yup.boolean().strict(),
  })
  .noUnknown()
  .strict()
  .required();
const schema = yup
  .object({
    method: yup.string().strict().oneOf(LOAD_METHODS),
    edition: yup.string().strict().oneOf(EDITIONS),
    floorArea: number(100, 20000).required(),
    smallApplianceCircuits: number(2, 12).integer(),
    laundryCircuits: number(0, 6).integer(),
    items: yup.array(itemSchema).strict().max(200),
    oneFamily: yup.boolean().strict(),
    material: yup
      .string()
      .strict()
      .oneOf(['copper', 'aluminum'] as const),
  })
  .noUnknown()
  .strict()
  .required();

export function runLoad(args: string[]): number {
  const { positionals } = parsed(args, { json: { type: 'boolean' } });
  const {
    method = PLAIN.method,
    items = [],
    ...rest
  } = readJson(oneFile(positionals, 'one JSON file, or none', '-'), schema);
  const load = dwellingLoad(
    { ...PLAIN, ...rest, items: items.map((item) => ({ ...PLAIN_ITEM, ...item })) } as Dwelling,
    method,
  );
  print(JSON.stringify(load.ok ? load.value : { problem: load.message }, null, 2));
  return load.ok ? CLEAN : FINDINGS;
}
