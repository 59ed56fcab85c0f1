import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { placeLabels, type SignToName } from './labels.ts';

const square = (side: number) => [
  { x: 0, y: 0 },
  { x: side, y: 0 },
  { x: side, y: side },
  { x: 0, y: side },
];
const sign = (id: string, x: number, y: number, name = id): SignToName => ({
  id,
  name,
  center: { x, y },
  into: { x: 0, y: 1 },
});

test('the name of a room stands in the middle of its floor, smaller in a small room, in none that is smaller still', () => {
  const named = (side: number) =>
    placeLabels([{ id: 'r', name: 'Studio', corners: square(side) }], [], 10, 12).rooms.get('r');
  assert.deepEqual(named(200), { x: 100, y: 100, size: 17 });
  assert.equal(named(60)?.size, 13);
  assert.equal(named(40), undefined);
});

test('a name goes round a sign in the middle of the floor', () => {
  const { rooms } = placeLabels(
    [{ id: 'r', name: 'Hall', corners: square(120) }],
    [sign('L1', 60, 60)],
    10,
    12,
  );
  const at = rooms.get('r')!;
  assert.ok(Math.abs(at.y - 60) > 15 || Math.abs(at.x - 60) > 25, JSON.stringify(at));
});

test('of two outlets side by side both are named, on different sides; of a crowd some', () => {
  const two = placeLabels([], [sign('S1', 0, 0), sign('S2', 24, 0)], 10, 12).signs;
  assert.equal(two.size, 2);
  const crowd = Array.from({ length: 9 }, (_, i) => sign(`S${i}`, (i % 3) * 12, Math.floor(i / 3) * 12));
  const some = placeLabels([], crowd, 10, 12).signs;
  assert.ok(some.size > 0 && some.size < 9, `${some.size}`);
  assert.equal(placeLabels([], crowd, 10, 0).signs.size, 0);
});

test('no name covers a sign or another name', () => {
  const at = fc.integer({ min: 0, max: 300 });
  fc.assert(
    fc.property(fc.array(fc.tuple(at, at), { maxLength: 40 }), (spots) => {
      const signs = spots.map(([x, y], i) => sign(`S${i + 1}`, x, y));
      const rooms = [{ id: 'r', name: 'West bedroom', corners: square(300) }];
      const placed = placeLabels(rooms, signs, 10, 12);
      const boxes = [...placed.signs].map(([id, p]) => {
        const { center, name } = signs.find((s) => s.id === id)!;
        return { x: center.x + p.x, y: center.y + p.y, w: name.length * 6.9, h: 12 };
      });
      const room = placed.rooms.get('r');
      if (room) boxes.push({ x: room.x, y: room.y, w: 12 * 0.58 * room.size, h: 1.1 * room.size });
      const apart = (a: (typeof boxes)[0], b: (typeof boxes)[0]) =>
        Math.abs(a.x - b.x) >= (a.w + b.w) / 2 - 0.5 || Math.abs(a.y - b.y) >= (a.h + b.h) / 2 - 0.5;
      for (const [i, box] of boxes.entries()) {
        for (const other of boxes.slice(i + 1)) assert.ok(apart(box, other));
        for (const s of signs) assert.ok(apart(box, { ...s.center, w: 20, h: 20 }));
      }
    }),
  );
});
