import assert from 'node:assert/strict';
import { test } from 'node:test';
import { tamarackJob } from '../../../demo/tamarack.ts';
import { check } from '#core/code/checker.ts';
import { EDITIONS, type Edition, type JobDocument } from '#core/job/schema.ts';
import { dwellingLoad } from '#core/loads/dwelling.ts';
import { at, since, type PerEdition } from './editions.ts';

/** An edition that nobody has written: all it is so far is its name. */
const LATER = '2029' as Edition;
const LATEST = EDITIONS.at(-1)!;

test('what an edition does not change it takes from the one before', () => {
  const values: PerEdition<string> = { '2017': 'a', '2023': 'c' };
  assert.deepEqual(
    [...EDITIONS, LATER].map((e) => at(values, e)),
    ['a', 'a', 'c', 'c'],
  );
  assert.equal(at({ ...values, [LATER]: 'd' }, LATER), 'd');
  assert.equal(at({ ...values, [LATER]: 'd' }, LATEST), 'c');
  assert.equal(at({ '2017': 'a', '2020': null } as PerEdition<string | null>, '2023'), null);
});

test('an edition is since itself and all before it', () => {
  const all = [...EDITIONS, LATER];
  for (const [i, edition] of all.entries())
    for (const [j, first] of all.entries())
      assert.equal(since(edition, first), i >= j, `${edition} ${first}`);
});

test('a house judged by an edition that changes nothing gives what the one before it gives', () => {
  const as = (edition: Edition): JobDocument => {
    const job = tamarackJob();
    return { ...job, job: { ...job.job, edition } };
  };
  const named = JSON.stringify(check(as(LATER))).replaceAll(`(${LATER})`, `(${LATEST})`);
  assert.equal(named, JSON.stringify(check(as(LATEST))));
  assert.notDeepEqual(check(as(LATER)), check(as(EDITIONS[0])));
  const dwelling = {
    floorArea: 1800,
    smallApplianceCircuits: 2,
    laundryCircuits: 1,
    items: [],
    oneFamily: true,
    material: 'copper' as const,
  };
  const load = (edition: Edition) => dwellingLoad({ ...dwelling, edition }, 'standard');
  assert.deepEqual(load(LATER), load(LATEST));
});
