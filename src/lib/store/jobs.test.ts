import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import fc from 'fast-check';
import { studioJob } from '../../../demo/studio.ts';
import type { Command } from '#core/job/commands.ts';
import { runGuarded as run } from '#core/records/gates.ts';
import type { JobDocument } from '#core/job/schema.ts';
import { InvalidError } from '#core/job/validate.ts';
import { db } from './db.ts';
import { changesAfter, commit, JobGoneError, loadJob, redo, storeJob, undo, type Loaded } from './jobs.ts';
import { clearOut, hasJob, isQuotaError, listJobs, putBack, throwAway } from './list.ts';

const ID = 'job-tamarack';
const move = (id: string, offset: number): Command => ({
  type: 'move-box',
  id,
  wallId: studioJob().boxes[id]!.wallId!,
  offset,
});
const act = (state: Loaded, command: Command) => commit(ID, state, (d: JobDocument) => run(d, command));

beforeEach(async () => {
  await Promise.all([db.jobs.clear(), db.entities.clear(), db.changes.clear()]);
  await storeJob(studioJob());
});

test('a job is stored and loaded as it is', async () => {
  assert.deepEqual((await loadJob(ID)).document, studioJob());
  assert.deepEqual(
    (await listJobs()).map((j) => j.name),
    ['14 Tamarack Court'],
  );
});

test('any mix of edits, undo, redo and reloads agrees with a plain list of documents', async () => {
  const step = fc.oneof(
    {
      weight: 3,
      arbitrary: fc.record({ do: fc.constant('edit' as const), offset: fc.integer({ min: 0, max: 140 }) }),
    },
    { weight: 2, arbitrary: fc.record({ do: fc.constant('undo' as const) }) },
    { weight: 1, arbitrary: fc.record({ do: fc.constant('redo' as const) }) },
    { weight: 1, arbitrary: fc.record({ do: fc.constant('reload' as const) }) },
  );
  await fc.assert(
    fc.asyncProperty(fc.array(step, { maxLength: 14 }), async (steps) => {
      await storeJob(studioJob());
      let state = await loadJob(ID);
      const past: JobDocument[] = [];
      const future: JobDocument[] = [];
      let now = state.document;
      for (const s of steps) {
        if (s.do === 'edit') {
          const command = move('box-s4', s.offset);
          const next = run(now, command);
          state = await act(state, command);
          if (next.changes.length === 0) continue;
          past.push(now);
          future.length = 0;
          now = next.document;
        } else if (s.do === 'undo') {
          state = await undo(ID, state);
          if (past.length === 0) continue;
          future.push(now);
          now = past.pop()!;
        } else if (s.do === 'redo') {
          state = await redo(ID, state);
          if (future.length === 0) continue;
          past.push(now);
          now = future.pop()!;
        } else state = await loadJob(ID);
        assert.deepEqual(state.document, now);
        assert.equal(state.history.undo.length, past.length);
        assert.equal(state.history.redo.length, future.length);
      }
      assert.deepEqual((await loadJob(ID)).document, now);
    }),
    { numRuns: 40 },
  );
});

test('two tabs: a command takes in what the other wrote, and undo takes back the newest of both', async () => {
  const a = await loadJob(ID);
  const b = await loadJob(ID);
  await act(a, move('box-s4', 10));
  const after = await act(b, move('box-s3', 20));
  assert.equal(after.document.boxes['box-s4']!.offset, 10);
  assert.equal(after.document.boxes['box-s3']!.offset, 20);
  const back = await undo(ID, a);
  assert.equal(back.document.boxes['box-s3']!.offset, studioJob().boxes['box-s3']!.offset);
  assert.equal(back.document.boxes['box-s4']!.offset, 10);
});

test('a refused command writes nothing', async () => {
  const state = await loadJob(ID);
  await assert.rejects(act(state, move('box-s4', 9999)), InvalidError);
  assert.deepEqual(await changesAfter(ID, 0), []);
  assert.deepEqual((await loadJob(ID)).document, studioJob());
});

test('a crash in the middle of a write leaves all of it or none', async () => {
  const state = await loadJob(ID);
  const add = db.changes.add;
  db.changes.add = (() => {
    throw new Error('power cut');
  }) as typeof add;
  await assert.rejects(act(state, { type: 'remove', table: 'areas', ids: ['area-studio'] }), /power cut/);
  db.changes.add = add;
  assert.deepEqual((await loadJob(ID)).document, studioJob());
});

test('readings are on record and outside undo', async () => {
  const reading = { ...studioJob().readings['reading-b1a']!, id: 'reading-new' };
  let state = await act(await loadJob(ID), move('box-s4', 12));
  state = await act(state, { type: 'put', table: 'readings', rows: [reading] });
  assert.equal(state.history.undo.at(-1)!.label, 'Move S4');
  state = await undo(ID, state);
  assert.ok(state.document.readings['reading-new']);
  assert.equal((await undo(ID, state)).history.undo.length, 0);
});

test('a job thrown away is gone for commands, can be put back, and is cleared out after a month', async () => {
  const state = await loadJob(ID);
  await throwAway(ID);
  assert.equal(await hasJob(ID), false);
  await assert.rejects(act(state, move('box-s4', 12)), JobGoneError);
  await assert.rejects(loadJob(ID), JobGoneError);
  await clearOut();
  await putBack(ID);
  assert.deepEqual((await loadJob(ID)).document, studioJob());
  await db.jobs.update(ID, { deletedAt: Date.now() - 31 * 24 * 3600 * 1000 });
  await clearOut();
  assert.equal(await db.entities.count(), 0);
});

test('quota errors are known by name, bare or wrapped', () => {
  assert.equal(isQuotaError(new DOMException('full', 'QuotaExceededError')), true);
  assert.equal(isQuotaError({ name: 'AbortError', inner: { name: 'QuotaExceededError' } }), true);
  assert.equal(isQuotaError(new Error('else')), false);
});
