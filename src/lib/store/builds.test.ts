/** Builds of other versions over one store: an older one writes nothing and hides nothing; a job no step can take is set aside. */
import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import Dexie from 'dexie';
import { studioJob } from '../../../demo/studio.ts';
import { serialize } from '#core/job/file.ts';
import { VERSION } from '#core/job/migrations.ts';
import { runGuarded as run } from '#core/records/gates.ts';
import { clearOut, asideFile, listJobs, noteTodo, putBack, throwAway } from './list.ts';
import { db, OutdatedBuildError, whenOutdated, writing } from './db.ts';
import { commit, JobSetAsideError, loadJob, storeJob, undo } from './jobs.ts';

const ID = 'job-tamarack';
const STORE = VERSION - 3;
const STORES = {
  jobs: 'id, updatedAt',
  entities: '[jobId+table+id], jobId',
  changes: '++seq, [jobId+seq]',
  pictures: '[jobId+id], jobId',
};
const all = async () => Promise.all([db.jobs.toArray(), db.entities.toArray(), db.changes.toArray()]);
const edit = { type: 'edit-job', values: { name: 'Another name' } } as const;

test('a job that a step cannot take is set aside as it was; the others open, and it goes out as a file', async () => {
  await Dexie.delete('hekto');
  const old = new Dexie('hekto');
  old.version(STORE - 1).stores(STORES);
  await old.open();
  const { job, ...document } = studioJob();
  const store = async (id: string, broken: boolean) => {
    await old.table('jobs').put({
      id,
      name: id,
      address: '',
      edition: '2020',
      updatedAt: 1,
      deletedAt: null,
      version: VERSION - 1,
    });
    const rows = Object.entries(document.areas).map(([key, value]) => ({
      jobId: id,
      table: 'areas',
      id: key,
      value,
    }));
    await old.table('entities').bulkPut([
      { jobId: id, table: 'job', id, value: { ...job, id } },
      ...rows,
      {
        jobId: id,
        table: 'levels',
        id: 'level-1',
        value: broken ? null : { id: 'level-1', name: 'Main', elevation: 0 },
      },
    ]);
  };
  await store('job-good', false);
  await store('job-broken', true);
  await store('job-last', false);
  const before = await old.table('entities').where('jobId').equals('job-broken').toArray();
  old.close();
  await db.open();
  for (const id of ['job-good', 'job-last']) assert.equal((await loadJob(id)).document.job.id, id);
  assert.deepEqual(await db.entities.where('jobId').equals('job-broken').toArray(), before);
  await assert.rejects(loadJob('job-broken'), JobSetAsideError);
  const row = (await listJobs()).find((j) => j.id === 'job-broken')!;
  assert.equal(row.setAside!.version, VERSION - 1);
  const file = JSON.parse(await asideFile('job-broken'));
  assert.deepEqual([file.schema, file.version, file.job.id], ['hekto-job', VERSION - 1, 'job-broken']);
  assert.equal(file.areas.length, Object.keys(document.areas).length);
  // A file in its place makes it a job again.
  await storeJob({ ...studioJob(), job: { ...studioJob().job, id: 'job-broken' } });
  assert.equal((await loadJob('job-broken')).document.job.id, 'job-broken');
});

test('rows of a newer version are neither changed, nor deleted, nor replaced, nor hidden', async () => {
  await storeJob(studioJob());
  const state = await loadJob(ID);
  await db.jobs.update(ID, { version: VERSION + 1 });
  const before = await all();
  const writes: [string, () => Promise<unknown>][] = [
    ['a command', () => commit(ID, state, (d) => run(d, edit))],
    ['undo', () => undo(ID, state)],
    ['opening', () => loadJob(ID)],
    ['a file in its place', () => storeJob(studioJob())],
    ['what there is to do', () => noteTodo(ID, { violations: 0, unjudged: 0 })],
    ['deleting', () => throwAway(ID)],
    ['putting back', () => putBack(ID)],
  ];
  for (const [what, write] of writes) await assert.rejects(write(), OutdatedBuildError, what);
  await clearOut();
  assert.deepEqual(await all(), before);
  assert.ok((await listJobs()).some((j) => j.id === ID));
  await db.jobs.update(ID, { version: VERSION });
  await commit(ID, state, (d) => run(d, edit));
});

test('a newer build takes the store: this one lets go for good, writes nothing more, and says so', async () => {
  await storeJob(studioJob());
  const state = await loadJob(ID);
  let told = 0;
  whenOutdated(() => told++);
  const newer = new Dexie('hekto');
  newer
    .version(STORE + 1)
    .stores({ ...STORES, facts: '[jobId+n]' })
    .upgrade((t) =>
      t
        .table('jobs')
        .toCollection()
        .modify({ version: VERSION + 1 }),
    );
  await newer.open();
  assert.ok(told > 0);
  const before = await newer.table('entities').toArray();
  for (const write of [
    () => commit(ID, state, (d) => run(d, edit)),
    () => storeJob({ ...studioJob(), job: { ...studioJob().job, id: 'job-new' } }),
    () => throwAway(ID),
    () => clearOut(),
  ])
    await assert.rejects(write(), OutdatedBuildError);
  assert.equal(db.isOpen(), false);
  assert.deepEqual(await newer.table('entities').toArray(), before);
  assert.equal((await newer.table('jobs').get(ID)).deletedAt, null);

  // The same build, opened afresh beside it.
  const again = './db.ts?afresh';
  const fresh = (await import(again)) as typeof import('./db.ts');
  let known = 0;
  fresh.whenOutdated(() => known++);
  await fresh.db.open();
  assert.ok(known > 0, 'it says so as it opens');
  assert.ok(
    (await fresh.db.jobs.toArray()).some((j) => j.id === ID),
    'and hides nothing',
  );
  await assert.rejects(
    fresh.writing([fresh.db.jobs], () => fresh.db.jobs.update(ID, { name: 'Old build' })),
    (error: Error) => error.name === 'OutdatedBuildError',
  );
  assert.notEqual((await newer.table('jobs').get(ID)).name, 'Old build');
  fresh.db.close();
  newer.close();
  await assert.rejects(
    writing([db.jobs], () => db.jobs.count()),
    OutdatedBuildError,
  );
  assert.ok(serialize(state.document).length > 1000, 'what is in memory still goes out as a file');
});
