/** `hekto cover`: how deep something is buried at least, Table 300.5. */
import * as yup from 'yup';
import { BURIAL_PLACES, BURIED, leastCover } from '#core/tables/burial.ts';
import { EDITIONS, type Edition } from '#core/job/schema.ts';
import { CLEAN, FINDINGS, number, oneFile, parsed, print, readJson, row, word } from './input.ts';

const schema = row({
  edition: word(EDITIONS),
  place: word(BURIAL_PLACES).required(),
  what: word(BURIED).required(),
  smallProtected: yup.boolean().strict(),
  lowVoltage: yup.boolean().strict(),
  /** As measured, inches. */
  cover: number(0, 240).nullable(),
});

export function runCover(args: string[]): number {
  const { positionals } = parsed(args, { json: { type: 'boolean' } });
  const {
    edition = '2023',
    smallProtected = false,
    lowVoltage = false,
    cover = null,
    place,
    what,
  } = readJson(oneFile(positionals, 'one JSON file, or none', '-'), schema);
  const least = leastCover({ place, what, smallProtected, lowVoltage, edition: edition as Edition });
  const deep = cover === null ? null : cover >= least.inches;
  print(JSON.stringify({ ...least, cover, deepEnough: deep }, null, 2));
  return deep === false ? FINDINGS : CLEAN;
}
