import assert from 'node:assert/strict';
import { test } from 'node:test';
import { house, room, run } from '#core/job/testing.ts';
import { problemsIn } from '#core/job/integrity.ts';
import { LISTS } from './lists.ts';
import {
  itemsOn,
  LOOK_ITEMS,
  looksAt,
  NOT_JUDGED,
  placesToLook,
  recordLook,
  standingLooks,
} from './looks.ts';

const job = house({ area: room([100, 100, 100, 100], undefined, { name: 'Den' }) });
const look = (result: 'in-order' | 'not-in-order' | 'not-seen', at: string, place = job.job.id) =>
  recordLook({
    item: 'torque',
    about: place === job.job.id ? { table: 'job', id: place } : { table: 'areas', id: place },
    place: 'the whole job',
    at,
    by: 'M. Alder',
    result,
    note: '',
  });

test('a later look stands, the earlier one stays on record', () => {
  const first = run(job, look('not-in-order', '2026-05-04T10:00:00Z')).document;
  const second = run(first, look('in-order', '2026-05-05T10:00:00Z')).document;
  const elsewhere = run(second, look('not-seen', '2026-05-06T10:00:00Z', 'area-1')).document;
  assert.deepEqual(problemsIn(elsewhere), []);
  assert.equal(looksAt(elsewhere, 'torque').length, 3);
  assert.deepEqual(
    standingLooks(elsewhere, 'torque').map((l) => [l.about.table, l.result]),
    [
      ['areas', 'not-seen'],
      ['job', 'in-order'],
    ],
  );
  assert.deepEqual(standingLooks(elsewhere, 'grip'), []);
});

test('every item stands on a list that there is, has a name of its own and a section', () => {
  const lists = new Set(LISTS.map((l) => l.id));
  assert.equal(new Set(LOOK_ITEMS.map((i) => i.id)).size, LOOK_ITEMS.length);
  for (const { id, section, lists: on } of LOOK_ITEMS) {
    assert.match(section, /^\d{3}\.\d+/, id);
    for (const list of on ?? []) assert.ok(lists.has(list), `${id}: ${list}`);
  }
  for (const list of LISTS) assert.ok(itemsOn(list.id).length > 0, list.id);
  assert.ok(NOT_JUDGED.every((n) => n.what !== '' && n.section !== ''));
});

test('places to look at are the job, its panels and its rooms', () => {
  assert.deepEqual(
    placesToLook(job).map((p) => p.name),
    ['the whole job', 'Panel A', 'Den'],
  );
});
