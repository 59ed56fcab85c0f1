/** Stores as older builds left them, with edits undone and made again, readings and pictures in them. */
import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import Dexie from 'dexie';
import { parseFileValue } from '#core/job/file.ts';
import { VERSION, SCHEMA } from '#core/job/migrations.ts';
import { frozen, FROZEN_VERSIONS } from '../../../tests/support/frozen.ts';
import { db } from './db.ts';
import { loadJob } from './jobs.ts';

interface Frozen {
  database: { name: string; version: number };
  stores: Record<string, string>;
  tables: {
    jobs: { id: string }[];
    entities: { jobId: string; table: string; id: string; value: { id: string } }[];
    changes: object[];
    pictures: { jobId: string; id: string; blob: string }[];
  };
}

/** Puts a store back as it was. */
async function restore({ database, stores, tables }: Frozen): Promise<void> {
  db.close();
  await Dexie.delete(database.name);
  const old = new Dexie(database.name);
  old.version(database.version).stores(stores);
  await old.open();
  for (const [name, list] of Object.entries(tables))
    await old
      .table(name)
      .bulkPut(list.map((row) => ('blob' in row ? { ...row, blob: new Blob([row.blob]) } : row)));
  old.close();
}

for (const version of FROZEN_VERSIONS)
  test(`the store of version ${version} opens as a file of its rows does, with every picture`, async () => {
    const store = JSON.parse(frozen(`version-${version}-store`)) as Frozen;
    await restore(structuredClone(store));
    await db.open();
    const { tables } = store;
    const id = tables.jobs[0]!.id;
    const lists: Record<string, unknown[]> = {};
    for (const { table, value } of tables.entities) if (table !== 'job') (lists[table] ??= []).push(value);
    const job = tables.entities.find((e) => e.table === 'job')!.value;
    const expected = parseFileValue({ ...lists, schema: SCHEMA, version, job });
    const { document, history } = await loadJob(id);
    assert.deepEqual(document, expected);
    assert.equal((await db.jobs.get(id))!.version, VERSION);
    assert.deepEqual(
      (await db.pictures.toArray()).map((p) => p.id).sort(),
      tables.pictures.map((p) => p.id).sort(),
    );
    // Rows of another version than the log speaks of have no undo.
    if ((version as number) === VERSION) assert.ok(history.undo.length > 0);
    else assert.deepEqual(history, { undo: [], redo: [] });
  });
