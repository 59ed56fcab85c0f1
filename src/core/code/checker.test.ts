import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';
import fc from 'fast-check';
import { generatedHouse } from '../../../demo/generate.ts';
import { studioJob } from '../../../demo/studio.ts';
import { run, type Command } from '../job/commands.ts';
import { serialize } from '../job/file.ts';
import { InvalidError } from '../job/validate.ts';
import { EDITIONS } from '../job/schema.ts';
import { catalogue } from './catalogue.ts';
import { check, Checker } from './checker.ts';

const byKey = (checker: Checker) => [...checker.findings()].sort((a, b) => a.key.localeCompare(b.key));

test('after any edits, re-checking what changed equals checking everything', () => {
  const start = studioJob();
  const boxIds = Object.keys(start.boxes);
  const circuitIds = Object.keys(start.circuits);
  const edit: fc.Arbitrary<(d: typeof start) => Command> = fc.oneof(
    fc
      .record({ id: fc.constantFrom(...boxIds), offset: fc.integer({ min: 0, max: 140 }) })
      .map(({ id, offset }) => (d: typeof start): Command => ({
        type: 'move-box',
        id,
        wallId: d.boxes[id]?.wallId ?? '',
        offset,
      })),
    fc
      .record({ boxId: fc.constantFrom(...boxIds), circuitId: fc.constantFrom(...circuitIds, null) })
      .map((m) => (): Command => ({ type: 'move-stop', ...m, after: null })),
    fc.constantFrom(...boxIds).map((id) => (): Command => ({ type: 'remove', table: 'boxes', ids: [id] })),
    fc
      .constantFrom(...Object.keys(start.openings))
      .map((id) => (): Command => ({ type: 'remove', table: 'openings', ids: [id] })),
    fc
      .constantFrom('kitchen' as const, 'bathroom' as const, 'den' as const)
      .map((kind) => (d: typeof start): Command => ({
        type: 'put',
        table: 'areas',
        rows: [{ ...d.areas['area-studio']!, kind }],
      })),
    fc.constantFrom(-90, 30).map((elevation) => (d: typeof start): Command => ({
      type: 'put',
      table: 'levels',
      rows: [{ ...d.levels['level-lower']!, elevation }],
    })),
    fc.constantFrom(...EDITIONS).map((edition) => (): Command => ({ type: 'edit-job', values: { edition } })),
    fc.constant((): Command => ({ type: 'remove', table: 'areas', ids: ['area-bedroom'] })),
  );
  fc.assert(
    fc.property(fc.array(edit, { maxLength: 8 }), (edits) => {
      let document = start;
      const checker = new Checker(document);
      for (const make of edits) {
        try {
          const outcome = run(document, make(document));
          document = outcome.document;
          checker.apply(outcome.changes);
        } catch (error) {
          if (!(error instanceof InvalidError)) throw error;
        }
      }
      assert.deepEqual(byKey(checker), byKey(new Checker(document)));
    }),
    { numRuns: 300 },
  );
});

test('findings come gravest first, with distinct keys', () => {
  const findings = check(generatedHouse(60));
  assert.equal(new Set(findings.map((f) => f.key)).size, findings.length);
  assert.equal(findings[0]!.level, 'violation');
  assert.equal(findings.at(-1)!.level, 'satisfied');
});

test('the studio asks for GFCI from 2020 on, not in 2017', () => {
  const required = EDITIONS.map((edition) => {
    const job = studioJob();
    return check({ ...job, job: { ...job.job, edition } }).filter((f) => f.rule === 'gfci').length;
  });
  assert.deepEqual(required, [1, 4, 4]);
});

const GENERATED: [string, () => string][] = [
  ['docs/rules.md', catalogue],
  ['demo/tamarack-court.json', () => serialize(studioJob())],
];
for (const [file, made] of GENERATED) {
  test(`${file} is current`, () => {
    const path = new URL(`../../../${file}`, import.meta.url);
    assert.equal(readFileSync(path, 'utf8'), made(), 'run `npm run docs`');
  });
}
