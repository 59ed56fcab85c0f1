/** Cover of Table 300.5, case by case as a person reads the table. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { EDITIONS } from '#core/job/schema.ts';
import { BURIED, BURIAL_PLACES, leastCover, type BurialPlace, type Buried } from './burial.ts';

type Row = [place: BurialPlace, cable: number, metal: number, raceway: number, small: number, low: number];
const ROWS: Row[] = [
  ['open', 24, 6, 18, 12, 6],
  ['under-2-inch-concrete', 18, 6, 12, 6, 6],
  ['under-building', 0, 0, 0, 0, 0],
  ['slab', 18, 4, 4, 6, 6],
  ['street', 24, 24, 24, 24, 24],
  ['dwelling-driveway', 18, 18, 18, 12, 18],
];
const cover = (
  place: BurialPlace,
  what: Buried,
  values: { smallProtected?: boolean; lowVoltage?: boolean } = {},
) =>
  EDITIONS.map(
    (edition) =>
      leastCover({ place, what, smallProtected: false, lowVoltage: false, edition, ...values }).inches,
  );
const same = (inches: number) => EDITIONS.map(() => inches);

for (const [place, cable, metal, raceway, small, low] of ROWS)
  test(`cover, ${place}: ${cable}, ${metal}, ${raceway}, ${small}, ${low}`, () => {
    assert.deepEqual(cover(place, 'cable'), same(cable));
    assert.deepEqual(cover(place, 'metal-conduit'), same(metal));
    assert.deepEqual(cover(place, 'raceway'), same(raceway));
    assert.deepEqual(cover(place, 'emt'), same(raceway));
    assert.deepEqual(cover(place, 'cable', { smallProtected: true }), same(Math.min(cable, small)));
    assert.deepEqual(cover(place, 'cable', { lowVoltage: true }), same(Math.min(cable, low)));
  });

test('the shallower of the columns that fit: metal conduit stays at 6 in. with or without GFCI', () => {
  assert.deepEqual(cover('open', 'metal-conduit', { smallProtected: true }), same(6));
  assert.deepEqual(cover('open', 'raceway', { smallProtected: true }), same(12));
  assert.deepEqual(cover('dwelling-driveway', 'raceway', { smallProtected: true }), same(12));
  assert.deepEqual(cover('slab', 'raceway', { smallProtected: true }), same(4));
});

test('no case is without words, and tubing in earth is said to corrode', () => {
  for (const place of BURIAL_PLACES)
    for (const what of BURIED)
      for (const edition of EDITIONS) {
        const { working, section, notes } = leastCover({
          place,
          what,
          smallProtected: false,
          lowVoltage: false,
          edition,
        });
        assert.ok(working !== '');
        assert.equal(section, edition === '2023' ? 'Table 300.5(A)' : 'Table 300.5');
        if (what === 'emt') assert.ok(notes.some((n) => /corrosion/.test(n)));
        assert.equal(
          notes.some((n) => /does not name it/.test(n)),
          what === 'emt' && edition !== '2023',
        );
      }
});

test('places and what lies in them, each again; the notes of a building and of a slab stand at theirs alone', () => {
  assert.deepEqual(
    [...BURIAL_PLACES],
    ['open', 'under-2-inch-concrete', 'under-building', 'slab', 'street', 'dwelling-driveway'],
  );
  assert.deepEqual([...BURIED], ['cable', 'metal-conduit', 'raceway', 'emt']);
  for (const place of BURIAL_PLACES)
    for (const what of BURIED) {
      const { notes } = leastCover({
        place,
        what,
        smallProtected: false,
        lowVoltage: false,
        edition: '2023',
      });
      const says = (words: RegExp) => notes.some((n) => words.test(n));
      assert.equal(
        says(/below a building cable lies in raceway/),
        place === 'under-building' && what === 'cable',
      );
      assert.equal(says(/the slab reaches 6/), place === 'slab');
    }
});
