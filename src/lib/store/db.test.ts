import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';
import Dexie from 'dexie';
import { parseFile } from '../../core/job/file.ts';

test('a job stored by the version before is there, brought up to date', async () => {
  const text = readFileSync(new URL('../../../tests/files/job-version-2.json', import.meta.url), 'utf8');
  const { job, ...rest } = JSON.parse(text);
  const tables = Object.entries(rest as Record<string, { id: string }[]>).filter(([, list]) =>
    Array.isArray(list),
  );
  const old = new Dexie('hekto');
  old.version(1).stores({
    jobs: 'id, updatedAt',
    entities: '[jobId+table+id], jobId',
    changes: '++seq, [jobId+seq]',
  });
  await old.open();
  const jobId = job.id as string;
  await old
    .table('jobs')
    .put({ id: jobId, name: job.name, address: '', edition: '2020', updatedAt: 1, deletedAt: null });
  await old
    .table('entities')
    .bulkPut([
      { jobId, table: 'job', id: jobId, value: job },
      ...tables.flatMap(([table, list]) => list.map((value) => ({ jobId, table, id: value.id, value }))),
    ]);
  await old.table('changes').add({ jobId, kind: 'do', label: 'Old', changes: [], of: null, at: 1 });
  old.close();
  const { loadJob } = await import('./jobs.ts');
  const { document, history } = await loadJob(jobId);
  assert.deepEqual(document, parseFile(text));
  assert.deepEqual(history, { undo: [], redo: [] });
});
