/**
 * Tabs over one store: whatever order they edit in, sleep, delete, put back, and have the job replaced by a file, all end
 * alike, and every field edit that was stored is in the end or was changed by one that came after it.
 */
import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { byFields, type Command } from '#core/job/commands.ts';
import type { JobDocument } from '#core/job/schema.ts';
import { house, outlet, room } from '#core/job/testing.ts';
import { runGuarded as run } from '#core/records/gates.ts';
import { db } from './db.ts';
import {
  catchUp,
  changesAfter,
  commit,
  JobGoneError,
  JobReplacedError,
  loadJob,
  storeJob,
  undo,
  type Loaded,
} from './jobs.ts';
import { putBack, throwAway } from './list.ts';
import { tries } from '../../../tests/support/sample.ts';

const ID = 'job-1';
const START: JobDocument = house({
  area: room([144, 120, 144, 120]),
  boxes: [outlet('A', 1, 20), outlet('B', 2, 30)],
});

/** One field of the job, how a page writes it (whole rows from its own copy), and how it is read. */
interface Slot {
  command(document: JobDocument, value: number): Command;
  read(document: JobDocument): number;
}
const boxSlot = (id: string, field: 'offset' | 'height'): Slot => ({
  command: (d, value) => ({ type: 'put', table: 'boxes', rows: [{ ...d.boxes[id]!, [field]: value }] }),
  read: (d) => d.boxes[id]![field],
});
const wallSlot = (at: number): Slot => ({
  command: (d, value) => {
    const area = d.areas['area-1']!;
    const walls = area.walls.map((w, i) => (i === at ? { ...w, length: 100 + value } : w));
    return { type: 'put', table: 'areas', rows: [{ ...area, walls }] };
  },
  read: (d) => d.areas['area-1']!.walls[at]!.length - 100,
});
const SLOTS: Slot[] = [
  boxSlot('box-a', 'offset'),
  boxSlot('box-a', 'height'),
  boxSlot('box-b', 'offset'),
  wallSlot(0),
  wallSlot(2),
  {
    command: (d, value) => ({
      type: 'put',
      table: 'areas',
      rows: [{ ...d.areas['area-1']!, conditions: { ...d.areas['area-1']!.conditions, bays: value % 12 } }],
    }),
    read: (d) => d.areas['area-1']!.conditions.bays,
  },
  {
    command: (d, value) => ({
      type: 'edit-job',
      values: { settings: { ...d.job.settings, studSpacing: 8 + value } },
    }),
    read: (d) => d.job.settings.studSpacing - 8,
  },
];

type Edit = { do: 'edit'; tab: number; slot: number; value: number };
type Op =
  | Edit
  | { do: 'undo'; tab: number }
  | { do: 'wake' | 'reload'; tab: number }
  | { do: 'delete' | 'put-back' | 'replace' | 'trim' };
const tab = fc.nat(2);
const OP: fc.Arbitrary<Op> = fc.oneof(
  {
    weight: 8,
    arbitrary: fc.record({
      do: fc.constant('edit' as const),
      tab,
      slot: fc.nat(SLOTS.length - 1),
      value: fc.integer({ min: 0, max: 11 }),
    }),
  },
  { weight: 2, arbitrary: fc.record({ do: fc.constantFrom('wake' as const, 'reload' as const), tab }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('undo' as const), tab }) },
  {
    weight: 1,
    arbitrary: fc.record({
      do: fc.constantFrom('delete' as const, 'put-back' as const, 'replace' as const, 'trim' as const),
    }),
  },
);

/** Clears the log as opening a job does once it is long. */
async function trim(): Promise<void> {
  const log = await changesAfter(ID, 0);
  const last = log.at(-1);
  if (!last) return;
  await db.changes.bulkDelete(log.map((r) => r.seq!));
  await db.jobs.update(ID, { trimmed: last.seq! });
}

test('three tabs end alike, and no field edit that was stored is lost', async () => {
  let edits = 0;
  let refused = 0;
  await fc.assert(
    fc.asyncProperty(fc.array(OP, { minLength: 2, maxLength: 10 }), async (ops) => {
      await Promise.all([db.jobs.clear(), db.entities.clear(), db.changes.clear()]);
      await storeJob(START);
      const first = await loadJob(ID);
      const tabs: Loaded[] = [first, first, first];
      let there = true;
      /** What each field must hold in the end. */
      let expected = SLOTS.map((s) => s.read(START));
      for (const op of ops) {
        if (op.do === 'delete') {
          await throwAway(ID);
          there = false;
        } else if (op.do === 'put-back') {
          await putBack(ID);
          there = true;
        } else if (op.do === 'replace') {
          await storeJob(START);
          there = true;
          expected = SLOTS.map((s) => s.read(START));
        } else if (op.do === 'trim') await trim();
        else if (op.do === 'wake' || op.do === 'reload') {
          if (!there) continue;
          const state = tabs[op.tab]!;
          const row = (await db.jobs.get(ID))!;
          const behind = row.incarnation !== state.incarnation || (row.trimmed ?? 0) > state.seq;
          tabs[op.tab] =
            op.do === 'reload' || behind
              ? await loadJob(ID)
              : catchUp(state, await changesAfter(ID, state.seq));
        } else if (op.do === 'edit' || op.do === 'undo') {
          const state = tabs[op.tab]!;
          const row = (await db.jobs.get(ID))!;
          const other = row.incarnation !== state.incarnation;
          try {
            if (op.do === 'undo') {
              tabs[op.tab] = await undo(ID, state);
              // What undo takes back is that of the newest edit: read it off what is stored.
              expected = SLOTS.map((s) => s.read(tabs[op.tab]!.document));
            } else {
              const slot = SLOTS[op.slot]!;
              const command = byFields(state.document, slot.command(state.document, op.value));
              const wanted = slot.read(run(state.document, command).document);
              const seen = slot.read(state.document);
              tabs[op.tab] = await commit(ID, state, (d) => run(d, command));
              edits++;
              // Typing what is there already changes nothing.
              if (wanted !== seen) expected[op.slot] = wanted;
            }
            assert.ok(there && !other, 'stored for another job than the tab holds');
          } catch (error) {
            if (error instanceof JobGoneError) assert.equal(there, false);
            else if (error instanceof JobReplacedError) assert.ok(other);
            else throw error;
            refused++;
          }
        }
      }
      if (!there) await putBack(ID);
      const stored = await loadJob(ID);
      assert.deepEqual(
        SLOTS.map((s) => s.read(stored.document)),
        expected,
      );
      for (const state of tabs) {
        if (state.incarnation !== stored.incarnation) continue;
        const row = (await db.jobs.get(ID))!;
        const now =
          (row.trimmed ?? 0) > state.seq
            ? await loadJob(ID)
            : catchUp(state, await changesAfter(ID, state.seq));
        assert.deepEqual(now.document, stored.document);
      }
    }),
    { numRuns: tries(200, 700), seed: 5 },
  );
  assert.ok(edits > tries(280, 1000) && refused > tries(28, 100), `${edits} edits, ${refused} refused`);
});

test('two tabs on one room: sixty edits each, none lost', async () => {
  await storeJob(START);
  const first = await loadJob(ID);
  let [a, b] = [first, first];
  for (let i = 0; i < 60; i++) {
    const [one, other] = [SLOTS[3]!, SLOTS[4]!];
    const mine = byFields(a.document, one.command(a.document, i));
    const theirs = byFields(b.document, other.command(b.document, i));
    a = await commit(ID, a, (d) => run(d, mine));
    b = await commit(ID, b, (d) => run(d, theirs));
  }
  const { document } = await loadJob(ID);
  assert.deepEqual([SLOTS[3]!.read(document), SLOTS[4]!.read(document)], [59, 59]);
});
