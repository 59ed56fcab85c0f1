import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import fc from 'fast-check';
import { studioJob } from '../../../demo/studio.ts';
import { plannedBoxes } from '#core/boxes/planned.ts';
import { moved } from '#core/boxes/wiring.ts';
import { buildRun } from '#core/circuits/run.ts';
import { byFields, type Command } from '#core/job/commands.ts';
import { runGuarded as run } from '#core/records/gates.ts';
import { allStamped, order } from '#core/job/order.ts';
import type { BoxWiring, JobDocument } from '#core/job/schema.ts';
import { InvalidError } from '#core/job/validate.ts';
import { db } from './db.ts';
import {
  bringIn,
  changesAfter,
  commit,
  JobGoneError,
  loadJob,
  redo,
  storeJob,
  undo,
  type Loaded,
} from './jobs.ts';
import { clearOut, hasJob, isQuotaError, listJobs, putBack, throwAway } from './list.ts';

const ID = 'job-tamarack';
/** As a file has it: every row of the record has its stamp. */
const job = (): JobDocument => allStamped(studioJob(), 'device-demo');
const move = (id: string, offset: number): Command => ({
  type: 'move-box',
  id,
  wallId: job().boxes[id]!.wallId!,
  offset,
});
const act = (state: Loaded, command: Command) => commit(ID, state, (d, clock) => run(d, command, clock));

/** What was edited; that it was is on record, and stays there. */
const edited = (document: JobDocument): JobDocument => ({ ...document, alterations: {}, takings: {} });

beforeEach(async () => {
  await Promise.all([db.jobs.clear(), db.entities.clear(), db.changes.clear()]);
  await storeJob(job());
});

test('a job is stored and loaded as it is', async () => {
  assert.deepEqual((await loadJob(ID)).document, job());
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
      await storeJob(job());
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
        assert.deepEqual(edited(state.document), edited(now));
        assert.equal(state.history.undo.length, past.length);
        assert.equal(state.history.redo.length, future.length);
      }
      assert.deepEqual(edited((await loadJob(ID)).document), edited(now));
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
  assert.equal(back.document.boxes['box-s3']!.offset, job().boxes['box-s3']!.offset);
  assert.equal(back.document.boxes['box-s4']!.offset, 10);
});

test('a refused command writes nothing', async () => {
  const state = await loadJob(ID);
  await assert.rejects(act(state, move('box-s4', 9999)), InvalidError);
  assert.deepEqual(await changesAfter(ID, 0), []);
  assert.deepEqual((await loadJob(ID)).document, job());
});

test('a crash in the middle of a write leaves all of it or none', async () => {
  const state = await loadJob(ID);
  const add = db.changes.add;
  db.changes.add = (() => {
    throw new Error('power cut');
  }) as typeof add;
  await assert.rejects(act(state, { type: 'remove', table: 'areas', ids: ['area-studio'] }), /power cut/);
  db.changes.add = add;
  assert.deepEqual((await loadJob(ID)).document, job());
});

test('readings are on record and outside undo', async () => {
  const reading = { ...job().readings['reading-b1a']!, id: 'reading-new' };
  let state = await act(await loadJob(ID), move('box-s4', 12));
  state = await act(state, { type: 'put', table: 'readings', rows: [reading] });
  assert.equal(state.history.undo.at(-1)!.label, 'Move S4');
  state = await undo(ID, state);
  assert.ok(state.document.readings['reading-new']);
  assert.equal((await undo(ID, state)).history.undo.length, 0);
});

test('an answer is its edits and its rows, or nothing; undo takes back its edits alone, and says so on record', async () => {
  const before = await loadJob(ID);
  const wall = before.document.boxes['box-s4']!.wallId!;
  const reading = { ...job().readings['reading-b1a']!, id: 'reading-new' };
  const answer = (offset: number): Command => ({
    type: 'batch',
    label: 'An answer',
    commands: [
      { type: 'move-box', id: 'box-s4', wallId: wall, offset },
      { type: 'put', table: 'readings', rows: [reading] },
    ],
  });
  await assert.rejects(act(before, answer(9999)), InvalidError);
  assert.deepEqual((await loadJob(ID)).document, before.document);
  let state = await act(before, answer(12));
  assert.equal(state.document.boxes['box-s4']!.offset, 12);
  const altered = Object.keys(state.document.alterations).length;
  state = await undo(ID, state);
  assert.notEqual(state.document.boxes['box-s4']!.offset, 12);
  assert.ok(state.document.readings['reading-new'], 'no step of undo takes a row of the record back');
  assert.equal(Object.keys(state.document.alterations).length, altered + 1);
  state = await redo(ID, state);
  assert.deepEqual((await loadJob(ID)).document, state.document);
  const numbers = Object.values(state.document.alterations).map((a) => a.stamp!.n);
  assert.equal(new Set(numbers).size, numbers.length);
});

test('two tabs that move different ends of one box keep both, from its plan on', async () => {
  const [a, b] = [await loadJob(ID), await loadJob(ID)];
  const box = a.document.boxes['box-s2']!;
  const run = buildRun(a.document, a.document.circuits['circuit-studio']!);
  const planned = plannedBoxes(run)[run.stops.findIndex((s) => s.box.id === box.id)]!;
  const record = (wiring: BoxWiring) => ({ stage: 'as-done' as const, at: null, by: 'M. Alder', wiring });
  const move = (end: string, at: string): Command => ({
    type: 'batch',
    label: 'Edit S2',
    commands: [
      { type: 'edit', table: 'boxes', id: box.id, edits: [{ path: ['wiring'], first: record(planned) }] },
      { type: 'put', table: 'boxes', rows: [{ ...box, wiring: record(moved(planned, end, at)) }] },
    ],
  });
  const [hot, neutral] = ['tail-hot-brass-1.b', 'tail-neutral-silver-1.b'] as const;
  await act(a, byFields(a.document, move(hot, 'device.brass-2')));
  const { document } = await act(b, byFields(b.document, move(neutral, 'device.silver-2')));
  const { places } = document.boxes[box.id]!.wiring!.wiring;
  const at = (end: string) => places.find((p) => p.end === end)?.at;
  assert.deepEqual([at(hot), at(neutral)], ['device.brass-2', 'device.silver-2']);
});

test('a file in the place of the job says on record what it altered', async () => {
  const before = (await loadJob(ID)).document;
  const circuit = before.circuits['circuit-studio']!;
  const moved = { ...before.circuits, [circuit.id]: { ...circuit, space: circuit.space + 20 } };
  await storeJob({ ...before, circuits: moved });
  const { document } = await loadJob(ID);
  assert.deepEqual(
    Object.values(document.alterations).map((a) => [a.table, a.row, a.fields]),
    [['circuits', circuit.id, ['space']]],
  );
});

test('what another copy has on record comes in once, with the stamps it had', async () => {
  const reading = { ...job().readings['reading-b1a']!, id: 'reading-new' };
  const theirs = run(
    job(),
    { type: 'put', table: 'readings', rows: [reading] },
    {
      device: 'device-theirs',
      now: '2026-05-08T10:00:00Z',
    },
  ).document;
  let state = await act(await loadJob(ID), move('box-s4', 12));
  state = await bringIn(ID, state, theirs);
  assert.deepEqual(state.document.readings['reading-new'], theirs.readings['reading-new']);
  assert.equal(state.document.boxes['box-s4']!.offset, 12, 'what was edited here stays');
  assert.equal(await bringIn(ID, state, theirs), state);
  // What is written next had it.
  state = await act(state, { type: 'put', table: 'readings', rows: [{ ...reading, id: 'reading-own' }] });
  const { readings } = state.document;
  assert.equal(order(state.document, readings['reading-new']!, readings['reading-own']!), 'before');
});

test('a job thrown away is gone for commands, can be put back, and is cleared out after a month', async () => {
  const state = await loadJob(ID);
  await throwAway(ID);
  assert.equal(await hasJob(ID), false);
  await assert.rejects(act(state, move('box-s4', 12)), JobGoneError);
  await assert.rejects(loadJob(ID), JobGoneError);
  await clearOut();
  await putBack(ID);
  assert.deepEqual((await loadJob(ID)).document, job());
  await db.jobs.update(ID, { deletedAt: Date.now() - 31 * 24 * 3600 * 1000 });
  await clearOut();
  assert.equal(await db.entities.count(), 0);
});

test('quota errors are known by name, bare or wrapped', () => {
  assert.equal(isQuotaError(new DOMException('full', 'QuotaExceededError')), true);
  assert.equal(isQuotaError({ name: 'AbortError', inner: { name: 'QuotaExceededError' } }), true);
  assert.equal(isQuotaError(new Error('else')), false);
});
