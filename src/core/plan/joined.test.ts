import { goesThrough } from '#core/tables/openings.ts';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { outlineOf, pointOnWall } from '#core/job/outline.ts';
import type { Area, Opening } from '#core/job/schema.ts';
import { opening, room } from '#core/job/testing.ts';
import { distance } from './footprint.ts';
import { joinedOpenings, sharesWall } from './joined.ts';

/** The room to the east of one 144 in. wide, beyond a wall as thick as given. */
const east = (thickness: number, values: Partial<Area> = {}): Area =>
  room([100, 120, 100, 120], undefined, { id: 'area-east', x: 144 + thickness, ...values });
const west = room([144, 120, 144, 120]);

const wallsOf = (area: Area) => outlineOf(area).walls;

const SHARED: [string, Area, boolean][] = [
  ['face to face', east(0), true],
  ['a stud wall apart', east(4.5), true],
  ['14 in. of masonry apart', east(14), true],
  ['15 in. apart', east(15), false],
  ['side by side by 6 in. only', east(4.5, { y: 114 }), false],
  ['side by side by 7 in.', east(4.5, { y: 113 }), true],
  ['turned by a degree', east(4.5, { heading: 1 }), false],
];
for (const [what, other, shared] of SHARED) {
  test(`walls ${what} are ${shared ? 'two sides of one' : 'not one wall'}`, () => {
    const mine = wallsOf(west)[1]!;
    const theirs = wallsOf(other)[3]!;
    assert.equal(sharesWall(mine, theirs), shared);
    assert.equal(sharesWall(theirs, mine), shared);
  });
}

const ofEast = (o: Opening): Opening => ({ ...o, areaId: 'area-east' });

test('a door on record on one side stands on the other side as well, at the same place', () => {
  // Wall 4 of the east room runs north: 10 in. from its south end is 80 in. from the north for a door of 30.
  const door = ofEast(opening(4, 10, 30));
  const [image, ...more] = joinedOpenings(west, [{ area: east(4.5), openings: [door] }]);
  assert.deepEqual(more, []);
  assert.deepEqual([image!.wallId, image!.offset, image!.width, image!.hinge], ['wall-2', 80, 30, 'none']);
  assert.equal(image!.id, door.id);
});

const IMAGES: [string, Opening, number][] = [
  ['a door', opening(4, 10, 30), 1],
  ['a cased opening', opening(4, 10, 30, { kind: 'opening' }), 1],
  ['a window', opening(4, 10, 30, { kind: 'window' }), 1],
  ['a fireplace', opening(4, 10, 30, { kind: 'fireplace' }), 0],
  ['a railing', opening(4, 10, 30, { kind: 'railing' }), 0],
  ['a door in another wall', opening(1, 10, 30), 0],
];
for (const [what, made, count] of IMAGES) {
  test(`${what} has ${count === 1 ? 'an image' : 'no image'} next door`, () => {
    assert.equal(joinedOpenings(west, [{ area: east(4.5), openings: [ofEast(made)] }]).length, count);
  });
}

test('a door into two rooms at once shows in each as far as the wall is shared', () => {
  const north = room([144, 60, 144, 60]);
  const south = room([144, 60, 144, 60], undefined, { id: 'area-south', y: 60 });
  const door = ofEast(opening(4, 45, 30));
  const images = [north, south].map((area) => joinedOpenings(area, [{ area: east(0), openings: [door] }]));
  assert.deepEqual(
    images.map((list) => list.map((o) => [o.offset, o.width])),
    [[[45, 15]], [[0, 15]]],
  );
});

test('the image of an image is the door itself, wherever two rooms stand', () => {
  const place = fc.record({
    thickness: fc.integer({ min: 0, max: 14 }),
    heading: fc.integer({ min: 0, max: 359 }),
    offset: fc.integer({ min: 0, max: 80 }),
    width: fc.integer({ min: 8, max: 40 }),
  });
  fc.assert(
    fc.property(place, ({ thickness, heading, offset, width }) => {
      const turn = (heading * Math.PI) / 180;
      const far = 144 + thickness;
      const here = { ...west, heading };
      const there = east(0, { x: far * Math.cos(turn), y: far * Math.sin(turn), heading });
      const door = ofEast(opening(4, offset, width));
      const [image] = joinedOpenings(here, [{ area: there, openings: [door] }]);
      assert.ok(image && goesThrough(image));
      const [again] = joinedOpenings(there, [{ area: here, openings: [image] }]);
      assert.ok(Math.abs(again!.offset - offset) < 1e-6 && Math.abs(again!.width - width) < 1e-6);
      const ends = (area: Area, o: Opening) => {
        const outline = outlineOf(area);
        const wall = outline.walls.find((w) => w.id === o.wallId)!;
        return [o.offset, o.offset + o.width].map((at) => pointOnWall(outline, wall, at));
      };
      const [a, b] = ends(there, door);
      const [c, d] = ends(here, image);
      assert.ok(
        Math.abs(distance(a!, d!) - thickness) < 1e-6 && Math.abs(distance(b!, c!) - thickness) < 1e-6,
      );
    }),
    { numRuns: 300 },
  );
});
