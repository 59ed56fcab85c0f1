import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { tamarackJob } from '../../../demo/tamarack.ts';
import { InvalidError } from '#core/job/validate.ts';
import { plainCsv } from './testing.ts';
import { outletsFromCsv, outletsToCsv } from './outletsCsv.ts';

const job = tamarackJob();
const text = outletsToCsv(job);

test('outlets written and read again are the same', () => {
  const read = outletsFromCsv(text, job);
  assert.equal(read.length, Object.keys(job.boxes).length);
  for (const box of read) assert.deepEqual(box, job.boxes[box.id]);
});

test('a second parser sees the same rows', () => {
  const [head, ...body] = plainCsv(text);
  assert.equal(body.length, Object.keys(job.boxes).length);
  const name = head!.indexOf('name');
  const offset = head!.indexOf('offset_in');
  for (const row of body) {
    const box = job.boxes[row[0]!]!;
    assert.deepEqual([row[name], Number(row[offset]), row.length], [box.name, box.offset, head!.length]);
  }
});

test('names and notes of any kind come back as they were', () => {
  fc.assert(
    fc.property(
      fc.string({ minLength: 1, maxLength: 60 }).filter((s) => s.trim() === s && s !== ''),
      fc.string({ maxLength: 200 }).map((s) => s.trim()),
      (name, note) => {
        const changed = {
          ...job,
          boxes: { 'box-s1': { ...job.boxes['box-s1']!, name, note, controls: [] } },
          circuits: {},
          readings: {},
          proofs: {},
        };
        const [read] = outletsFromCsv(outletsToCsv(changed), changed);
        assert.deepEqual([read!.name, read!.note], [name, note]);
      },
    ),
    { numRuns: 300 },
  );
});

test('a row without an id is a new outlet; feet and inches are understood', () => {
  const [head] = text.split('\r\n');
  const row = `,N1,Upper level,Dining room,1,4' 2",16,0,wall,duplex,15,125,new,grounded,yes,no,indoor,none,general,,,`;
  const [box] = outletsFromCsv(`${head}\r\n${row}\r\n`, job);
  assert.equal(box!.offset, 50);
  assert.equal(box!.areaId, 'area-dining');
  assert.ok(!(box!.id in job.boxes));
});

const [head, first] = text.split('\r\n') as [string, string];
const cells = first.split(',');
const column = (name: string) => head.split(',').indexOf(name);
const withCell = (name: string, value: string) =>
  [head, cells.map((c, i) => (i === column(name) ? value : c)).join(',')].join('\r\n');
const BAD: [string, string, RegExp][] = [
  ['an empty file', '', /column “id” is missing/],
  ['a binary file', '\u0000\u0001\u0002PK', /column “id” is missing/],
  ['a missing column', text.replace('offset_in', 'offset'), /column “offset_in” is missing/],
  ['a row cut short', [head, cells.slice(0, 9).join(',')].join('\r\n'), /line 2: expected 22 columns/],
  ['a room that is not there', withCell('room', 'Ballroom'), /line 2\.room: expected the name of a room/],
  ['a wall that is not there', withCell('wall', '9'), /line 2\.wall: expected 1 to 4/],
  ['an offset that is no length', withCell('offset_in', 'far'), /line 2\.offset_in: “far” is not a length/],
  ['an offset past the wall', withCell('offset_in', '900'), /is past the end of its wall/],
  ['a device that is none', withCell('device', 'toaster'), /line 2\.device: expected duplex/],
  ['a rating that is none', withCell('rating_a', '17'), /line 2\.device\.rating: expected one of/],
  ['the same outlet twice', [head, first, first].join('\r\n'), /line 3\.id: is there twice/],
];
for (const [what, bad, message] of BAD) {
  test(`refuses ${what}, naming line and column`, () => {
    assert.throws(
      () => outletsFromCsv(bad, job),
      (e: unknown) => e instanceof InvalidError && message.test(e.message),
    );
  });
}
