import assert from 'node:assert/strict';
import { test } from 'node:test';
import { describeTurn, parseWall } from './wallEntry.ts';

const TYPED: [string, number, number][] = [
  [`12' 6 1/2"`, 150.5, 90],
  ['12-6', 150, 90],
  ['12-6 L', 150, -90],
  ['12.5 r45', 150, 45],
  ['150in l 30°', 150, -30],
  [`8' s`, 96, 0],
  ['8 ft R', 96, 90],
];
for (const [text, length, turn] of TYPED) {
  test(`${text} is ${length} in. and turns ${turn}`, () =>
    assert.deepEqual(parseWall(text), { ok: true, value: { length, turn } }));
}

for (const [text, message] of [
  ['', /expected a length/],
  ['L', /is not a length/],
  ['12-6 q', /is not a length/],
  ['12-6 L200', /more than half a turn/],
  ['0', /too short/],
  ['900', /too long; expected 200'/],
] as const) {
  test(`refuses “${text}”`, () => {
    const result = parseWall(text);
    assert.ok(!result.ok);
    assert.match(result.message, message);
  });
}

test('turns read as words', () => {
  assert.deepEqual([90, -45, 0].map(describeTurn), ['Right 90°', 'Left 45°', 'Straight on']);
});
