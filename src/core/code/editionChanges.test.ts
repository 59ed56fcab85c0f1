import assert from 'node:assert/strict';
import { test } from 'node:test';
import { tamarackJob } from '../../../demo/tamarack.ts';
import { EDITIONS } from '#core/job/schema.ts';
import { check } from './checker.ts';
import { compareEditions } from './editionChanges.ts';

const job = tamarackJob();
const said = (from: '2017' | '2020' | '2023', to: '2017' | '2020' | '2023') =>
  compareEditions(job, from, to).map((c) => `${c.kind} ${c.key}`);

test('from 2017 to 2020: the island of 12.5 ft² wants a second, the dryer GFCI, the clay sink’s outlet is in the list', () => {
  const changes = said('2017', '2020');
  for (const expected of [
    'worse island-receptacles/fixture-island',
    'asked gfci/box-w2',
    'asked gfci/box-s5',
    'asked outdoor-outlets/box-p1',
  ])
    assert.ok(changes.includes(expected), `${expected} not in ${changes.join(', ')}`);
});

test('from 2020 to 2023: kitchen walls, the refrigerator, the range', () => {
  const changes = said('2020', '2023');
  for (const expected of ['asked gfci/box-k5', 'asked gfci/box-k11'])
    assert.ok(changes.includes(expected), `${expected} not in ${changes.join(', ')}`);
});

test('there and back again is the same list the other way about', () => {
  const turned = { asked: 'dropped', dropped: 'asked', worse: 'better', better: 'worse' } as const;
  for (const from of EDITIONS) {
    for (const to of EDITIONS) {
      const back = compareEditions(job, to, from).map((c) => `${turned[c.kind]} ${c.key}`);
      assert.deepEqual(said(from, to).sort(), back.sort());
    }
  }
  assert.deepEqual(said('2020', '2020'), []);
});

test('each change is a difference between the two checks', () => {
  const worst = (edition: (typeof EDITIONS)[number], key: string) =>
    check({ ...job, job: { ...job.job, edition } }).find((f) => `${f.rule}/${f.about.id}` === key)?.level ??
    null;
  for (const c of compareEditions(job, '2017', '2023').slice(0, 12)) {
    assert.equal(c.from?.level ?? null, worst('2017', c.key));
    assert.equal(c.to?.level ?? null, worst('2023', c.key));
    assert.notEqual(c.from?.level ?? null, c.to?.level ?? null);
  }
});
