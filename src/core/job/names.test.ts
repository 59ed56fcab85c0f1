import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';
import fc from 'fast-check';
import { runGuarded as run } from '#core/records/gates.ts';
import { parseFile, serialize } from './file.ts';
import { problemsIn } from './integrity.ts';
import { freeName, nameKey, namesIn, withOwnNames } from './names.ts';
import { house, outlet, room } from './testing.ts';
import { InvalidError } from './validate.ts';

const area = room([144, 120, 144, 120]);
const a = outlet('A1', 1, 20);
const b = outlet('A2', 1, 60);
const job = () => house({ area, boxes: [a, b] });

test('an outlet cannot take the name of another, whatever its case; giving it its own again is no matter', () => {
  for (const name of ['A1', 'a1'])
    assert.throws(
      () => run(job(), { type: 'put', table: 'boxes', rows: [{ ...b, name }] }),
      (e: unknown) =>
        e instanceof InvalidError &&
        /is the name of another outlet/.test(e.message + JSON.stringify(e.problems)),
      name,
    );
  const { document } = run(job(), { type: 'put', table: 'boxes', rows: [{ ...b, note: 'by the door' }] });
  assert.equal(document.boxes[b.id]!.name, 'A2');
});

test('two outlets can change names in one step', () => {
  const { document } = run(job(), {
    type: 'put',
    table: 'boxes',
    rows: [
      { ...a, name: 'A2' },
      { ...b, name: 'A1' },
    ],
  });
  assert.deepEqual([document.boxes[a.id]!.name, document.boxes[b.id]!.name], ['A2', 'A1']);
});

test('a new outlet whose name was taken meanwhile is numbered on, and not lost', () => {
  const { document } = run(job(), {
    type: 'put',
    table: 'boxes',
    rows: [
      { ...a, id: 'box-new', name: 'a2' },
      { ...a, id: 'box-next', name: 'A3' },
    ],
  });
  assert.deepEqual(
    Object.values(document.boxes).map((x) => x.name),
    ['A1', 'A2', 'a3', 'A4'],
  );
});

test('a file with two of one name is refused, one of an earlier version brought up to date', () => {
  const twins = house({ area, boxes: [a, { ...b, name: 'A1' }, outlet('A3', 1, 90)] });
  assert.throws(
    () => parseFile(serialize(twins)),
    (e: unknown) => e instanceof InvalidError && e.problems.some((p) => /boxes\[.*\]\.name/.test(p.path)),
  );
  const old = parseFile(JSON.stringify({ ...JSON.parse(serialize(twins)), version: 7 }));
  assert.deepEqual(
    Object.values(old.boxes).map((x) => x.name),
    ['A1', 'A2', 'A3'],
  );
});

test('names of the demonstration job of version 7 stay as they are', () => {
  const text = readFileSync(new URL('../../../tests/files/job-version-7.json', import.meta.url), 'utf8');
  const names = (JSON.parse(text) as { boxes: { name: string }[] }).boxes.map((x) => x.name);
  assert.deepEqual([...namesIn(parseFile(text))].sort(), names.map(nameKey).sort());
});

test('any outlets put leave names that are each there once', () => {
  const names = fc.array(fc.constantFrom('A1', 'a1', 'A2', 'B', 'b', '7', 'R1'), { maxLength: 12 });
  fc.assert(
    fc.property(names, (list) => {
      const added = withOwnNames(
        job(),
        list.map((name, i) => ({ ...a, id: `box-${i}`, name })),
      );
      const boxes = { ...job().boxes, ...Object.fromEntries(added.map((x) => [x.id, x])) };
      const document = { ...job(), boxes };
      assert.deepEqual(problemsIn(document), []);
      assert.equal(namesIn(document).size, 2 + list.length);
      assert.ok(!namesIn(document).has(nameKey(freeName('A', namesIn(document)))));
    }),
  );
});
