import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';
import Dexie from 'dexie';
import { parseFile, serialize } from '#core/job/file.ts';

/** Versions of the document with those of the database that kept them. */
const STORED: [version: number, database: number][] = [
  [2, 1],
  [3, 2],
  [4, 2],
  [5, 3],
  // The third database was not brought up to date for version 6, and kept both.
  [6, 3],
  [7, 4],
  [8, 5],
];
const STORES = {
  1: { jobs: 'id, updatedAt', entities: '[jobId+table+id], jobId', changes: '++seq, [jobId+seq]' },
  2: { pictures: '[jobId+id], jobId' },
  3: {},
  4: {},
  5: {},
} as const;

const fileOf = (version: number) =>
  readFileSync(new URL(`../../../tests/files/job-version-${version}.json`, import.meta.url), 'utf8');

/** Puts a file’s rows into a database as they were stored then. */
async function store(version: number, database: number): Promise<void> {
  const { job, ...rest } = JSON.parse(fileOf(version));
  const jobId = job.id as string;
  const old = new Dexie('hekto');
  for (const v of [1, 2, 3, 4, 5] as const) if (v <= database) old.version(v).stores(STORES[v]);
  await old.open();
  await old
    .table('jobs')
    .put({ id: jobId, name: job.name, address: '', edition: '2020', updatedAt: 1, deletedAt: null });
  const tables = Object.entries(rest as Record<string, { id: string }[]>).filter(([, list]) =>
    Array.isArray(list),
  );
  await old
    .table('entities')
    .bulkPut([
      { jobId, table: 'job', id: jobId, value: job },
      ...tables.flatMap(([table, list]) => list.map((value) => ({ jobId, table, id: value.id, value }))),
    ]);
  await old.table('changes').add({ jobId, kind: 'do', label: 'Old', changes: [], of: null, at: 1 });
  old.close();
}

for (const [version, database] of STORED) {
  test(`a job stored as version ${version} is there, brought up to date, and goes out as a file`, async () => {
    await Dexie.delete('hekto');
    await store(version, database);
    const { db } = await import('./db.ts');
    const { loadJob } = await import('./jobs.ts');
    db.close();
    await db.open();
    const expected = parseFile(fileOf(version));
    const { document, history } = await loadJob(expected.job.id);
    assert.deepEqual(document, expected);
    assert.deepEqual(history, { undo: [], redo: [] });
    assert.deepEqual(parseFile(serialize(document)), expected);
  });
}
