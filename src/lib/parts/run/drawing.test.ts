import assert from 'node:assert/strict';
import { test } from 'node:test';
import { buildRun } from '#core/circuits/run.ts';
import { chain, house, outlet, room } from '#core/job/testing.ts';
import { lanesOf, placesOf } from './drawing.ts';

const ROOM = { available: 797, left: 128, right: 40 };
const runOf = (count: number) => {
  const area = room([2000, 120, 2000, 120]);
  const boxes = Array.from({ length: count }, (_, i) => outlet(`A${i + 1}`, 1, 20 + 70 * i));
  const circuit = chain(boxes);
  return buildRun(house({ area, boxes, circuits: [circuit] }), circuit);
};

test('a run of up to twelve stops is seen at once beside the form at 1280, no two stops on each other', () => {
  for (let count = 1; count <= 12; count++) {
    const run = runOf(count);
    const { stops, width, gap } = placesOf(run, lanesOf(run), ROOM);
    assert.ok(width <= ROOM.available + 1, `${count} stops: ${width}`);
    for (const [i, stop] of stops.slice(1).entries()) assert.ok(stop.x - stops[i]!.x >= gap - 1e-9);
  }
});

test('two stops stand at true distance; nothing is said to be stretched', () => {
  const run = runOf(2);
  const { stops, gap } = placesOf(run, lanesOf(run), ROOM);
  assert.equal(gap, 84);
  const ratio = (stops[0]!.x - ROOM.left) / (stops[1]!.x - ROOM.left);
  assert.ok(
    stops.every(
      (s) => s.stretched || Math.abs(ratio - run.stops[0]!.distance / run.stops[1]!.distance) < 0.01,
    ),
  );
});

test('a longer run is drawn as close as can be read, and scrolls', () => {
  const run = runOf(28);
  const { width, gap } = placesOf(run, lanesOf(run), ROOM);
  assert.equal(gap, 52);
  assert.ok(width > ROOM.available);
});
