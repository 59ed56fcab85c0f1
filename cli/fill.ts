/** `hekto fill`: room that a box's contents take, line by line, 314.16. */
import * as yup from 'yup';
import { EMPTY_BOX, fillOf, fits, smallestBox, type BoxContents } from '#core/boxes/fill.ts';
import { STANDS } from '#core/job/schema.ts';
import { EDITIONS, type Edition } from '#core/job/schema.ts';
import { FILL_GAUGES } from '#core/tables/boxes.ts';
import { CLEAN, FINDINGS, number, oneFile, parsed, print, readJson, row, word } from './input.ts';

const count = () => number(0, 100).integer().required();
const gauge = () => word(FILL_GAUGES).required();
const grounds = () => yup.array(row({ gauge: gauge(), count: count() })).strict();
const schema = row({
  edition: word(EDITIONS),
  /** As marked, or by Table 314.16(A), with what rings and extensions are marked with. */
  room: number(1, 1000).nullable(),
  gangs: number(1, 6).integer(),
  conductors: yup.array(row({ gauge: gauge(), count: count(), stands: word(STANDS).required() })).strict(),
  grounds: grounds(),
  isolatedGrounds: grounds(),
  clamps: yup.boolean().strict(),
  fittings: number(0, 10).integer(),
  yokes: yup.array(row({ gauge: gauge(), gangs: number(1, 6).integer().required() })).strict(),
  terminals: yup
    .string()
    .strict()
    .nullable()
    .oneOf([...FILL_GAUGES, null]),
});

export function runFill(args: string[]): number {
  const { positionals } = parsed(args, { json: { type: 'boolean' } });
  const given = readJson(oneFile(positionals, 'one JSON file, or none', '-'), schema);
  const { edition = '2023', room = null, gangs = 1, ...contents } = given;
  const fill = fillOf({ ...EMPTY_BOX, ...contents } as BoxContents, edition as Edition);
  const enough = room === null ? null : fits(fill, room);
  const answer = {
    ...fill,
    room,
    fits: enough,
    spare: room === null ? null : Math.round((room - fill.volume) * 100) / 100,
    smallest: {
      metal: smallestBox(fill, 'metal', gangs),
      nonmetallic: smallestBox(fill, 'nonmetallic', gangs),
    },
  };
  print(JSON.stringify(answer, null, 2));
  return enough === false ? FINDINGS : CLEAN;
}
