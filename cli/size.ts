/** `hekto size`: breaker, conductor and equipment ground for a load, with the working. */
import { BRANCH_LOADS } from '#core/tables/loadKinds.ts';
import * as yup from 'yup';
import { PLAIN_LOAD_VALUES, type BranchLoad } from '#core/circuits/demand/demand.ts';
import { sizeCircuit, type SizingInput } from '#core/circuits/sizing.ts';
import { CABLES, EDITIONS, GAUGES, MATERIALS } from '#core/job/schema.ts';
import { CLEAN, FINDINGS, number, oneFile, parsed, print, readJson, row, word } from './input.ts';

/** What is left out takes the value given here. */
const PLAIN_LOAD: BranchLoad = { ...PLAIN_LOAD_VALUES, kind: 'general', volts: 120 };
const PLAIN: Omit<SizingInput, 'load'> = {
  edition: '2023',
  material: 'copper',
  method: 'NM-B',
  insulation: null,
  terminalRating: 60,
  ambientCelsius: 30,
  currentCarrying: 2,
  feet: 0,
  conductorCelsius: 75,
  breaker: null,
  gauge: null,
  aboveRoof: null,
  dropLimitPercent: null,
  receptacleRating: null,
};

const loadSchema = row({
  kind: word(BRANCH_LOADS).required(),
  volts: number(100, 300),
  amps: number(0, 400).nullable(),
  watts: number(0, 100000).nullable(),
  continuousAmps: number(0, 400),
  minimumAmpacity: number(0, 400).nullable(),
  maximumBreaker: number(0, 400).nullable(),
  horsepower: number(0, 10).nullable(),
  blowerAmps: number(0, 60).nullable(),
  severalReceptacles: yup.boolean().strict(),
});
const schema = row({
  edition: word(EDITIONS),
  load: loadSchema,
  material: word(MATERIALS),
  method: word(CABLES),
  insulation: yup.number().strict().nullable().oneOf([60, 75, 90, null]),
  terminalRating: yup.number().strict().oneOf([60, 75]),
  ambientCelsius: number(-40, 85),
  currentCarrying: number(1, 100).integer(),
  feet: number(0, 5000),
  conductorCelsius: number(-40, 90),
  breaker: number(5, 400).nullable(),
  aboveRoof: number(0, 600).nullable(),
  dropLimitPercent: number(0.5, 20).nullable(),
  receptacleRating: number(10, 100).nullable(),
  gauge: yup
    .string()
    .strict()
    .nullable()
    .oneOf([...GAUGES, null]),
});

export function runSize(args: string[]): number {
  const { positionals } = parsed(args, { json: { type: 'boolean' } });
  const { load, ...rest } = readJson(oneFile(positionals, 'one JSON file, or none', '-'), schema);
  const input = { ...PLAIN, ...rest, load: { ...PLAIN_LOAD, ...load } } as SizingInput;
  const result = sizeCircuit(input);
  print(JSON.stringify(result.ok ? result.value : { problem: result.message }, null, 2));
  return result.ok ? CLEAN : FINDINGS;
}
