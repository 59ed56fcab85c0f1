import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { outlineOf, pointOnWall } from '#core/job/outline.ts';
import { outlet, room } from '#core/job/testing.ts';
import { alignAcross, alignHeights, duplicateAlong, slide, spreadEvenly } from './arrangeBoxes.ts';

const area = room([144, 120, 144, 120]);
const SLIDES: [string, [number, number], number, [string, number]][] = [
  ['an inch on', [1, 60], 1, ['wall-1', 61]],
  ['a foot back', [1, 60], -12, ['wall-1', 48]],
  ['to the very corner', [1, 140], 4, ['wall-1', 144]],
  ['around the corner', [1, 140], 10, ['wall-2', 6]],
  ['back around the first corner', [1, 4], -10, ['wall-4', 114]],
  ['around two corners', [1, 140], 130, ['wall-3', 6]],
];
for (const [what, [wall, offset], by, [wallId, to]] of SLIDES) {
  test(`slides ${what}`, () =>
    assert.deepEqual(slide(area, { wallId: `wall-${wall}`, offset }, by), { wallId, offset: to }));
}

test('sliding on and back comes to the same point of the floor line', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 144 }), fc.integer({ min: -600, max: 600 }), (offset, by) => {
      const there = slide(area, { wallId: 'wall-1', offset }, by)!;
      const back = slide(area, there, -by)!;
      const p = (place: typeof back) => {
        const o = outlineOf(area);
        return pointOnWall(
          o,
          o.walls.find((w) => w.id === place.wallId)!,
          place.offset,
        );
      };
      const a = p(back);
      const b = p({ wallId: 'wall-1', offset });
      assert.ok(Math.hypot(a.x - b.x, a.y - b.y) < 1e-6);
    }),
  );
});

test('duplicates stop at the wall’s end and are new outlets', () => {
  const names = ['N2', 'N3', 'N4'];
  const copies = duplicateAlong(
    area,
    outlet('N1', 1, 20, { status: 'existing', note: 'old' }),
    48,
    5,
    (t) => names[t.length]!,
  );
  assert.deepEqual(
    copies.map((c) => [c.name, c.offset, c.status, c.note]),
    [
      ['N2', 68, 'new', ''],
      ['N3', 116, 'new', ''],
    ],
  );
  assert.deepEqual(
    duplicateAlong(area, outlet('N1', 1, 20), 0, 3, () => 'X'),
    [],
  );
});

test('aligns heights, lines up across the room, spreads evenly', () => {
  const boxes = [outlet('A', 1, 30, { height: 18 }), outlet('B', 3, 20), outlet('C', 2, 50)];
  assert.deepEqual(
    alignHeights(boxes).map((b) => b.height),
    [18, 18, 18],
  );
  // Wall 3 runs back: 30 in. from the west is 114 in. from its start. Wall 2 runs across and stays.
  assert.deepEqual(
    alignAcross(() => area, boxes).map((b) => b.offset),
    [30, 114, 50],
  );
  const row = [outlet('A', 1, 10), outlet('B', 1, 12), outlet('C', 1, 100), outlet('D', 2, 7)];
  assert.deepEqual(
    spreadEvenly(row).map((b) => b.offset),
    [10, 55, 100, 7],
  );
});
