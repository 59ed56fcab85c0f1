import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { rows } from '#core/job/document.ts';
import { outlineOf, boundsOf } from '#core/job/outline.ts';
import { fixture, house, opening, outlet, receptacle, room, run } from '#core/job/testing.ts';
import { copyRoom, moveWall, snapRoom, stackLevel } from './arrange.ts';
import { closedRoom } from './testing.ts';

const square = (x: number, y: number, id = 'area-2') => room([120, 100, 120, 100], undefined, { id, x, y });
const SNAPS: [string, [number, number], [number, number]][] = [
  ['to the east, 3 in. too far and 2 in. low', [147 + 3.5, 2], [148.5, 0]],
  ['to the east, overlapping by 2 in.', [142, 0], [148.5, 0]],
  ['to the west', [-127, 20], [-124.5, 20]],
  ['to the north, in line at its left', [3, -108], [0, -104.5]],
  ['to the south', [40, 121], [40, 124.5]],
  ['far away', [400, 300], [400, 300]],
];
for (const [what, [x, y], expected] of SNAPS) {
  test(`a room snaps ${what}`, () => {
    const at = snapRoom(square(x, y), [room([144, 120, 144, 120])], 4.5);
    assert.deepEqual([at.x, at.y], expected);
  });
}

test('either way of walking a room snaps alike', () => {
  const left = room([100, 120, 100, 120], [-90, -90, -90, -90], {
    id: 'area-2',
    x: 151,
    y: 100,
    heading: 90,
  });
  // Walked down, then to the left turning: its bounds start at x 151.
  const bounds = boundsOf(left);
  const at = snapRoom(left, [room([144, 120, 144, 120])], 4.5);
  assert.equal(at.x - left.x + bounds.left, 148.5);
});

test('a wall pushed out by any amount keeps the room closed, its turns and its other walls in place', () => {
  fc.assert(
    fc.property(closedRoom(60, 300), fc.nat({ max: 5 }), fc.integer({ min: -9, max: 60 }), (r, nth, by) => {
      const area = room(r.lengths, r.turns);
      const i = nth % area.walls.length;
      const before = outlineOf(area);
      const moved = moveWall(area, area.walls[i]!.id, by);
      if (!moved.ok) return;
      const after = outlineOf(moved.value);
      assert.ok(after.closing.distance < 1e-6);
      assert.deepEqual(
        moved.value.walls.map((w) => w.turn),
        area.walls.map((w) => w.turn),
      );
      // Every wall but the moved one and its neighbors stands where it stood.
      const n = area.walls.length;
      for (const [k, wall] of after.walls.entries()) {
        if ([i, (i + 1) % n, (i - 1 + n) % n].includes(k)) continue;
        assert.ok(
          Math.hypot(wall.from.x - before.walls[k]!.from.x, wall.from.y - before.walls[k]!.from.y) < 1e-6,
        );
      }
      assert.ok(
        Math.abs(after.floor - (before.floor + by * area.walls[i]!.length)) < 1e-6 || r.lengths.length > 4,
      );
    }),
  );
});

test('a wall cannot be pushed through its opposite', () => {
  const pushed = moveWall(room([144, 120, 144, 120]), 'wall-1', -130);
  assert.equal(pushed.ok, false);
  assert.match(pushed.ok ? '' : pushed.message, /expected 1" to/);
});

const furnished = () =>
  house({
    area: room([144, 72, 60, 48, 84, 120], [90, 90, -90, 90, 90, 90]),
    openings: [opening(1, 10, 32, { hinge: 'start' })],
    fixtures: [fixture('sink', 2, 30, 20)],
    boxes: [
      outlet('A1', 1, 80, { serves: 'fixture-sink-2-30' }),
      outlet('A2', 3, 20, { controls: ['box-a1'], device: receptacle({ kind: 'switch' }) }),
    ],
  });

test('a room copied has its doors, fixtures and outlets under ids and names of their own', () => {
  const document = furnished();
  const { command, area } = copyRoom(document, 'area-1', { name: 'Copy' });
  const after = run(document, command).document;
  const copy = after.areas[area.id]!;
  assert.equal(boundsOf(copy).left, 148.5);
  const boxes = rows(after.boxes).filter((b) => b.areaId === copy.id);
  assert.deepEqual(boxes.map((b) => b.name).sort(), ['A3', 'A4']);
  const sink = rows(after.fixtures).find((f) => f.areaId === copy.id)!;
  assert.equal(boxes.find((b) => b.name === 'A3')!.serves, sink.id);
  assert.deepEqual(boxes.find((b) => b.name === 'A4')!.controls, [boxes.find((b) => b.name === 'A3')!.id]);
  assert.equal(new Set(rows(after.boxes).map((b) => b.id)).size, 4);
});

test('a mirror image is the same floor with left for right, and mirroring twice gives the room back', () => {
  const document = furnished();
  const { command, area } = copyRoom(document, 'area-1', { name: 'Mirror', mirror: true });
  const after = run(document, command).document;
  const source = outlineOf(document.areas['area-1']!);
  const image = outlineOf(after.areas[area.id]!);
  assert.equal(Math.round(image.floor), Math.round(source.floor));
  assert.equal(image.side, -source.side);
  const left = boundsOf(after.areas[area.id]!).left;
  const right = boundsOf(document.areas['area-1']!).right;
  // Each corner's distance from the left edge is the original's from its right edge.
  for (const [i, wall] of image.walls.entries())
    assert.ok(Math.abs(wall.from.x - left - (right - source.walls[i]!.from.x)) < 1e-6);
  const twice = copyRoom(after, area.id, { name: 'Back', mirror: true, at: { x: 0, y: 0 } });
  const back = outlineOf(twice.area);
  for (const [i, wall] of back.walls.entries())
    assert.ok(
      Math.hypot(wall.from.x - source.walls[i]!.from.x, wall.from.y - source.walls[i]!.from.y) < 1e-6,
    );
});

test('a level stacked above has the same outlines and no outlets', () => {
  const document = furnished();
  const after = run(document, stackLevel(document, 'level-1', 'Upstairs', 102)).document;
  const level = rows(after.levels).find((l) => l.name === 'Upstairs')!;
  assert.equal(level.elevation, 102);
  const [above] = rows(after.areas).filter((a) => a.levelId === level.id);
  assert.deepEqual(
    outlineOf(above!).walls.map((w) => w.to),
    outlineOf(document.areas['area-1']!).walls.map((w) => w.to),
  );
  assert.equal(rows(after.boxes).length, 2);
});
