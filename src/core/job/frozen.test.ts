/** Files as older builds wrote them, with twenty rows and more in every table: every one of them is there afterwards. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { frozen, FROZEN_VERSIONS, tablesOf } from '../../../tests/support/frozen.ts';
import {
  MAX_FILE_BYTES,
  parseFile,
  parseFileValue,
  serialize,
  textOf,
  toFile,
  type JobFile,
} from './file.ts';
import { migrate, VERSION } from './migrations.ts';
import { rows } from './document.ts';
import { isAppendOnly, TABLE_NAMES, TABLES, type TableName } from './schema.ts';

type Counts = Partial<Record<TableName, number>>;
const OF_9: Counts = {
  levels: 40,
  areas: 40,
  openings: 120,
  fixtures: 20,
  panels: 20,
  boxes: 140,
  circuits: 40,
  amendments: 20,
  pictures: 20,
  readings: 100,
  proofs: 20,
  energizings: 30,
  observations: 240,
  deviceTests: 20,
  looks: 20,
};
const OF_10: Counts = { ...OF_9, ticks: 40 };
const OF_11: Counts = { ...OF_10, measurements: 20, temporaries: 33 };
const OF_13: Counts = {
  ...OF_11,
  areas: 54,
  fixtures: 21,
  panels: 49,
  boxes: 156,
  circuits: 51,
  proofs: 31,
  energizings: 39,
  observations: 360,
  calls: 29,
  entries: 217,
  flips: 24,
  partings: 21,
  people: 20,
  countersigns: 20,
};
const OF_14: Counts = {
  ...OF_13,
  areas: 64,
  panels: 56,
  boxes: 166,
  circuits: 58,
  readings: 101,
  proofs: 33,
  energizings: 40,
  observations: 384,
  calls: 36,
  entries: 347,
  flips: 27,
  faults: 22,
};
const OF_15: Counts = { ...OF_14, readings: 100, entries: 346, faults: 20, alterations: 104, takings: 20 };
/** Rows of every table that each version had: what stands of the one before, and what is its own. */
const COUNTS: Record<(typeof FROZEN_VERSIONS)[number], Counts> = {
  '9': OF_9,
  '10': OF_10,
  '11': OF_11,
  '12': OF_11,
  '13': OF_13,
  '14': OF_14,
  '15': OF_15,
};

for (const version of FROZEN_VERSIONS)
  test(`version ${version}: every row of every table is there in version ${VERSION}, and goes out and in again`, () => {
    const raw = JSON.parse(frozen(`version-${version}-file`)) as Record<string, unknown>;
    assert.equal(raw.version, version);
    const before = tablesOf(raw);
    assert.deepEqual(
      Object.fromEntries(Object.entries(before).map(([t, l]) => [t, l.length])),
      COUNTS[version],
    );
    assert.ok(Object.values(before).every((list) => list.length >= 20));
    const document = parseFileValue(structuredClone(raw));
    for (const table of TABLE_NAMES) {
      const [was, is] = [(before[table] ?? []).map((r) => r.id).sort(), Object.keys(document[table]).sort()];
      assert.deepEqual(is, was, table);
    }
    // What was measured and done says the same of what its version knew.
    for (const table of TABLE_NAMES.filter(isAppendOnly))
      for (const row of before[table] ?? [])
        for (const [field, value] of Object.entries(row))
          if (field === 'inside')
            // One box that hands were in is one of several now.
            assert.deepEqual(
              (document.entries[row.id]!.touches as { id: string }[]).map((t) => t.id),
              value === null ? [] : [value],
            );
          else
            assert.deepEqual(
              (document[table][row.id] as unknown as Record<string, unknown>)[field],
              // Only notes have lines.
              typeof value === 'string' && field !== 'note' && field !== 'evidence'
                ? value.replaceAll('\n', ' ')
                : value,
              `${table}.${field}`,
            );
    assert.deepEqual(parseFile(serialize(document)), document);
    // A migration is a function of the file alone.
    assert.deepEqual(toFile(parseFileValue(structuredClone(raw))), toFile(document));
  });

test('what is frozen of today holds what is half done: proofs that hold and that ended, calls begun, parted ends', () => {
  const document = parseFile(frozen('version-15-file'));
  const ended = (circuits: readonly string[], at: string) =>
    rows(document.energizings).some((e) => circuits.includes(e.circuitId) && e.at > at);
  const proofs = rows(document.proofs).map((p) => ended(p.lockedOut, p.at));
  assert.ok(proofs.filter(Boolean).length >= 10 && proofs.filter((is) => !is).length >= 5, `${proofs}`);
  const undone = new Set(rows(document.temporaries).flatMap((t) => t.undoes ?? []));
  assert.ok(
    rows(document.temporaries).some((t) => t.undoes === null && !undone.has(t.id)) && undone.size > 5,
  );
  const closed = new Set(rows(document.entries).flatMap((e) => (e.step === 'record' ? [e.callId] : [])));
  assert.ok(
    rows(document.calls).some((c) => closed.has(c.id)) && rows(document.calls).some((c) => !closed.has(c.id)),
  );
  assert.ok(
    rows(document.entries).some((e) => e.step.startsWith('think ')),
    'a hunt',
  );
});

test('a job with as many readings as it may have is within what a file may have, then and now', () => {
  const text = frozen('version-14-large');
  assert.ok(text.length < MAX_FILE_BYTES);
  const file = JSON.parse(text) as Record<string, unknown>;
  assert.equal(tablesOf(file).readings!.length, TABLES.readings.limit);
  assert.ok(textOf(migrate(file) as unknown as JobFile).length < MAX_FILE_BYTES);
});
