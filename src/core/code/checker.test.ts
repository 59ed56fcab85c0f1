import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';
import fc from 'fast-check';
import { generatedHouse } from '../../../demo/generate.ts';
import { studioJob } from '../../../demo/studio.ts';
import { tamarackJob } from '../../../demo/tamarack.ts';
import type { Command } from '#core/job/commands.ts';
import { run } from '#core/job/testing.ts';
import { PLAIN_NAMEPLATE } from '#core/job/document.ts';
import { rulesPage } from '#core/handover/rulesPage.ts';
import { serialize } from '#core/job/file.ts';
import { InvalidError } from '#core/job/validate.ts';
import { ANSWERS, DWELLINGS, EDITIONS, TABLE_NAMES, type JobDocument } from '#core/job/schema.ts';
import { Board } from './board.ts';
import { check, Checker } from './checker.ts';
import { tries } from '../../../tests/support/sample.ts';

/** The same document with the rows of every table the other way round, as another tab or a file may hold them. */
const turned = (document: JobDocument): JobDocument => {
  const tables = TABLE_NAMES.map((t) => [t, Object.fromEntries(Object.entries(document[t]).reverse())]);
  return { ...document, ...Object.fromEntries(tables) };
};

test('after any edits, re-checking what changed gives the list of a check from nothing, to the letter', () => {
  const start = tamarackJob();
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
      .record({
        id: fc.constantFrom(...Object.keys(start.areas)),
        kind: fc.constantFrom('kitchen' as const, 'bathroom' as const, 'den' as const, 'outdoors' as const),
        dx: fc.constantFrom(0, 0, -30, 60),
      })
      .map(({ id, kind, dx }) => (d: typeof start): Command => {
        const area = d.areas[id] ?? d.areas['area-studio']!;
        return { type: 'put', table: 'areas', rows: [{ ...area, kind, x: area.x + dx }] };
      }),
    fc
      .record({
        id: fc.constantFrom(...Object.keys(start.fixtures)),
        offset: fc.integer({ min: 5, max: 90 }),
        gone: fc.boolean(),
      })
      .map(
        ({ id, offset, gone }) =>
          (d: typeof start): Command =>
            gone || !d.fixtures[id]
              ? { type: 'remove', table: 'fixtures', ids: [id] }
              : { type: 'put', table: 'fixtures', rows: [{ ...d.fixtures[id], offset }] },
      ),
    fc
      .record({ id: fc.constantFrom(...boxIds), kind: fc.constantFrom('switch', 'light', 'gfci', 'duplex') })
      .map(({ id, kind }) => (d: typeof start): Command => {
        const box = d.boxes[id] ?? Object.values(d.boxes)[0]!;
        return {
          type: 'put',
          table: 'boxes',
          rows: [{ ...box, device: { ...box.device, kind: kind as typeof box.device.kind } }],
        };
      }),
    fc
      .record({ id: fc.constantFrom(...boxIds), other: fc.constantFrom(...boxIds) })
      .map(({ id, other }) => (d: typeof start): Command => {
        const box = d.boxes[id] ?? Object.values(d.boxes)[0]!;
        return { type: 'put', table: 'boxes', rows: [{ ...box, controls: [other] }] };
      }),
    fc.constantFrom('off' as const, 'tighten' as const).map((action) => (): Command => ({
      type: 'put',
      table: 'amendments',
      rows: [{ id: 'amendment-x', rule: 'wall-spacing', action, limit: 50, reference: 'Local 1', note: '' }],
    })),
    fc.constantFrom(-90, 30).map((elevation) => (d: typeof start): Command => ({
      type: 'put',
      table: 'levels',
      rows: [{ ...d.levels['level-lower']!, elevation }],
    })),
    fc.constantFrom(...EDITIONS).map((edition) => (): Command => ({ type: 'edit-job', values: { edition } })),
    fc
      .constantFrom(...DWELLINGS)
      .map((dwelling) => (): Command => ({ type: 'edit-job', values: { dwelling } })),
    fc
      .record({
        id: fc.constantFrom(...Object.keys(start.fixtures)),
        kind: fc.constantFrom('evaporative-cooler' as const, 'sink' as const, 'furnace' as const),
      })
      .map(({ id, kind }) => (d: typeof start): Command => {
        const fixture = d.fixtures[id] ?? Object.values(d.fixtures)[0]!;
        return { type: 'put', table: 'fixtures', rows: [{ ...fixture, kind }] };
      }),
    fc.constant((): Command => ({ type: 'remove', table: 'areas', ids: ['area-bedroom'] })),
    // What is known changes: a room that is not drawn, an outlet without a place, a circuit known in part.
    fc.constantFrom('area-attic', ...Object.keys(start.areas)).map((id) => (d: typeof start): Command => {
      const area = d.areas[id] ?? Object.values(d.areas)[0]!;
      const boxes = Object.values(d.boxes).filter((b) => b.areaId === area.id);
      const fixtures = Object.values(d.fixtures).filter((f) => f.areaId === area.id);
      const openings = Object.values(d.openings).filter((o) => o.areaId === area.id);
      return {
        type: 'batch',
        label: 'Undraw',
        commands: [
          { type: 'remove', table: 'openings', ids: openings.map((o) => o.id) },
          { type: 'put', table: 'boxes', rows: boxes.map((b) => ({ ...b, wallId: null })) },
          { type: 'put', table: 'fixtures', rows: fixtures.map((f) => ({ ...f, wallId: null })) },
          { type: 'put', table: 'areas', rows: [{ ...area, walls: [] }] },
        ],
      };
    }),
    fc
      .record({
        id: fc.constantFrom(...circuitIds),
        complete: fc.constantFrom(...ANSWERS),
        ordered: fc.constantFrom(...ANSWERS),
      })
      .map(({ id, ...known }) => (d: typeof start): Command => ({
        type: 'put',
        table: 'circuits',
        rows: [{ ...(d.circuits[id] ?? Object.values(d.circuits)[0]!), ...known }],
      })),
    fc.constantFrom(...boxIds).map((id) => (d: typeof start): Command => ({
      type: 'put',
      table: 'boxes',
      rows: [{ ...(d.boxes[id] ?? Object.values(d.boxes)[0]!), wallId: null }],
    })),
    fc
      .record({
        id: fc.constantFrom(...Object.keys(start.circuits)),
        panelId: fc.constantFrom('panel-a', 'panel-shed'),
        space: fc.integer({ min: 1, max: 40 }),
      })
      .map(({ id, panelId, space }) => (d: typeof start): Command => ({
        type: 'put',
        table: 'circuits',
        rows: [{ ...(d.circuits[id] ?? Object.values(d.circuits)[0]!), panelId, space }],
      })),
    fc
      .record({ id: fc.constantFrom('panel-a', 'panel-shed'), fed: fc.boolean(), bonded: fc.boolean() })
      .map(({ id, fed, bonded }) => (d: typeof start): Command => {
        const feeder = fed ? { ...start.panels['panel-shed']!.feeder!, space: 3 } : null;
        return {
          type: 'put',
          table: 'panels',
          rows: [{ ...(d.panels[id] ?? d.panels['panel-a']!), feeder, bonded }],
        };
      }),
    fc.constant((): Command => ({ type: 'remove', table: 'panels', ids: ['panel-shed'] })),
    fc
      .record({
        id: fc.constantFrom(...Object.keys(start.fixtures)),
        watts: fc.integer({ max: 20000, min: 0 }),
      })
      .map(({ id, watts }) => (d: typeof start): Command => {
        const fixture = d.fixtures[id] ?? Object.values(d.fixtures)[0]!;
        const nameplate = { ...PLAIN_NAMEPLATE, volts: 240, watts };
        return { type: 'put', table: 'fixtures', rows: [{ ...fixture, nameplate }] };
      }),
  );
  fc.assert(
    fc.property(fc.array(edit, { maxLength: 8 }), (edits) => {
      let document = start;
      const checker = new Checker(document);
      const copy = new Board();
      copy.apply(checker.whole());
      for (const make of edits) {
        try {
          const outcome = run(document, make(document));
          document = outcome.document;
          copy.apply(checker.apply(outcome.changes));
        } catch (error) {
          if (!(error instanceof InvalidError)) throw error;
        }
      }
      const anew = check(document);
      assert.deepEqual(checker.findings(), anew);
      assert.deepEqual(copy.findings(), anew);
      assert.deepEqual(check(turned(document)), anew);
    }),
    { numRuns: tries(20, 60) },
  );
});

test('equipment moved to the circuit of its service receptacle is looked at again', () => {
  const document = tamarackJob();
  const checker = new Checker(document);
  const { changes, document: after } = run(document, {
    type: 'move-stop',
    boxId: 'box-m4',
    circuitId: 'circuit-boiler',
    after: null,
  });
  checker.apply(changes);
  assert.deepEqual(checker.findings(), check(after));
});

test('an edit alters only what it touches: all else stays the same object', () => {
  const document = tamarackJob();
  const checker = new Checker(document);
  const before = new Set(checker.findings());
  const box = document.boxes['box-d1']!;
  const { changes } = run(document, { type: 'move-box', id: box.id, wallId: box.wallId!, offset: 90 });
  const { whole, subjects } = checker.apply(changes);
  assert.equal(whole, false);
  assert.ok(subjects.length > 0 && subjects.length < 20, `${subjects.length} subjects altered`);
  assert.ok(checker.findings().filter((f) => !before.has(f)).length <= 20);
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
  ['docs/rules.md', rulesPage],
  ['demo/tamarack-court.json', () => serialize(tamarackJob())],
];
for (const [file, made] of GENERATED) {
  test(`${file} is current`, () => {
    const path = new URL(`../../../${file}`, import.meta.url);
    assert.equal(readFileSync(path, 'utf8'), made(), 'run `npm run docs`');
  });
}
