import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { studioJob } from '../../../demo/studio.ts';
import type { Reading } from '#core/job/schema.ts';
import { InvalidError } from '#core/job/validate.ts';
import { plainCsv } from './testing.ts';
import { readingsFromCsv, readingsToCsv } from './readingsCsv.ts';

const job = studioJob();
const empty = { ...job, readings: {} };
const csv = readingsToCsv(job);
const lines = csv.trimEnd().split('\r\n');

test('readings go out and come back the same', () => {
  assert.deepEqual(Object.fromEntries(readingsFromCsv(csv, empty).map((r) => [r.id, r])), job.readings);
  assert.deepEqual(readingsFromCsv(csv, job), [], 'those on record are not added twice');
});

test('a file of the earlier form, without halves and hot–hot, is read as whole outlets', () => {
  const [head, ...data] = plainCsv(csv);
  const kept = head!.flatMap((c, i) =>
    ['volts_hot_hot', 'ground_ohms', 'half', 'open_box'].includes(c) ? [] : [i],
  );
  const older = [head!, ...data].map((row) => kept.map((i) => JSON.stringify(row[i])).join(',')).join('\r\n');
  assert.deepEqual(Object.fromEntries(readingsFromCsv(older, empty).map((r) => [r.id, r])), job.readings);
});

test('a second parser reads the same cells, whatever the notes hold', () => {
  const text = fc.string({ maxLength: 30 }).filter((t) => !/[\r\n]/.test(t));
  fc.assert(
    fc.property(text, text, (note, instrument) => {
      const reading: Reading = { ...job.readings['reading-b1a']!, note, instrument };
      const out = readingsToCsv({ ...empty, readings: { [reading.id]: reading } });
      const [head, row] = plainCsv(out);
      const shown = row![head!.indexOf('note')]!;
      assert.ok(shown === note || shown === `'${note}`);
      assert.ok(!/^[=+\-@]/.test(shown));
      const [back] = readingsFromCsv(out, empty);
      assert.equal(back!.note, note);
      assert.equal(back!.instrument, instrument);
    }),
  );
});

for (const formula of ['=1+1', '+1', '-1', '@SUM(A1)', '\t=1']) {
  test(`a note that begins like a formula is neutralised: ${JSON.stringify(formula)}`, () => {
    const reading = { ...job.readings['reading-b1a']!, note: formula };
    assert.ok(readingsToCsv({ ...empty, readings: { [reading.id]: reading } }).includes(`'${formula}`));
  });
}

const BAD: [string, string, RegExp][] = [
  ['wrong columns', 'a,b,c\r\n1,2,3', /line 1: column “id” is missing/],
  ['an extra column', csv.replace('id,box_id', 'id,color,box_id'), /column “color” does not belong/],
  ['an empty file', '', /column “id” is missing/],
  [
    'volts that are text',
    [lines[0], lines[1]!.replace('118.9', 'high')].join('\n'),
    /line 2\.volts_hot_neutral: expected a number, found “high”/,
  ],
  [
    'volts above 300',
    [lines[0], lines[1]!.replace('118.9', '480')].join('\n'),
    /line 2\.hotNeutral: expected 300 or less/,
  ],
  [
    'two lamps of three',
    [lines[0], lines[1]!.replace('on,off,off', 'on,,off')].join('\n'),
    /all three lamps/,
  ],
  [
    'an outlet of another job',
    [lines[0], lines[1]!.replace('box-b1', 'box-zz')].join('\n'),
    /box_id: expected the id of an outlet/,
  ],
  ['the same id twice', [lines[0], lines[1], lines[1]].join('\n'), /line 3\.id: is there twice/],
];
for (const [what, text, message] of BAD) {
  test(`refuses ${what}, naming line and column`, () => {
    assert.throws(
      () => readingsFromCsv(text, empty),
      (e: unknown) => e instanceof InvalidError && message.test(e.message),
    );
  });
}

test('a job’s own readings read back, also when their outlets have gone', () => {
  const job = studioJob();
  const boxes = { ...job.boxes };
  delete boxes['box-b1'];
  const without = { ...job, boxes };
  assert.deepEqual(readingsFromCsv(readingsToCsv(without), without), []);
});
