/** What is placed for one thing serves another where it can: the fewest, and each where its rule counts it. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { check } from '#core/code/checker.ts';
import { rows } from '#core/job/document.ts';
import { conditions, fixture, house, opening, room } from '#core/job/testing.ts';
import { View } from '#core/view/view.ts';
import { placeMissing } from './placeMissing.ts';

const placedIn = (document: ReturnType<typeof house>) => {
  const plan = placeMissing(new View(document), rows(document.areas));
  const boxes = Object.fromEntries(plan.placed.map((p) => [p.box.id, p.box]));
  return { plan, after: { ...document, boxes: { ...document.boxes, ...boxes } } };
};
const sink = (offset: number, id: string) =>
  fixture('basin', 1, offset, 22, { depth: 20, height: 33, id: `fixture-${id}`, name: id });

test('two vanity sinks near each other get one receptacle between them', () => {
  const { plan, after } = placedIn(
    house({ kind: 'bathroom', fixtures: [sink(50, 'left'), sink(96, 'right')] }),
  );
  assert.equal(plan.placed.length, 1);
  const said = check(after).filter((f) => f.rule === 'bathroom-basin');
  assert.deepEqual(
    said.map((f) => f.level),
    ['satisfied', 'satisfied'],
  );
  assert.match(plan.placed[0]!.reason, /and within 3' of right/);
});

test('two far apart get one each', () => {
  const wide = room([300, 120, 300, 120], undefined, { kind: 'bathroom' });
  const { plan, after } = placedIn(house({ area: wide, fixtures: [sink(30, 'left'), sink(270, 'right')] }));
  assert.equal(plan.placed.length, 2);
  assert.ok(check(after).every((f) => f.rule !== 'bathroom-basin' || f.level === 'satisfied'));
});

test('each bay of a garage gets its own', () => {
  const garage = room([288, 264, 288, 264], undefined, {
    kind: 'garage',
    conditions: conditions({ bays: 2 }),
  });
  const doors = [opening(3, 20, 108), opening(3, 160, 108)];
  const { plan, after } = placedIn(house({ area: garage, openings: doors }));
  assert.equal(plan.placed.length, 2);
  assert.equal(check(after).find((f) => f.rule === 'garage-receptacles')!.level, 'satisfied');
});
