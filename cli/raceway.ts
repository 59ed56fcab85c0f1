/** `hekto raceway`: fill of a raceway, Chapter 9. */
import * as yup from 'yup';
import { racewayFill, type RacewayFillInput } from '#core/circuits/raceway.ts';
import { GAUGES } from '#core/job/schema.ts';
import { RACEWAYS, TRADE_SIZES, WIRES } from '#core/tables/raceways.ts';
import { CLEAN, FINDINGS, number, oneFile, parsed, print, readJson, row, word } from './input.ts';

const count = () => number(1, 200).integer().required();
const schema = row({
  kind: word(RACEWAYS).required(),
  size: yup
    .string()
    .strict()
    .nullable()
    .oneOf([...TRADE_SIZES, null]),
  nipple: yup.boolean().strict(),
  conductors: yup
    .array(row({ wire: word(WIRES).required(), gauge: word(GAUGES).required(), count: count() }))
    .strict(),
  cables: yup.array(row({ diameter: number(0.05, 4).required(), count: count() })).strict(),
});

export function runRaceway(args: string[]): number {
  const { positionals } = parsed(args, { json: { type: 'boolean' } });
  const given = readJson(oneFile(positionals, 'one JSON file, or none', '-'), schema);
  const plain = { size: null, nipple: false, conductors: [], cables: [] };
  const result = racewayFill({ ...plain, ...given } as RacewayFillInput);
  print(JSON.stringify(result.ok ? result.value : { problem: result.message }, null, 2));
  return result.ok && result.value.fits ? CLEAN : FINDINGS;
}
