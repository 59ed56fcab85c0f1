import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import type { Box, Edition, Fixture } from '#core/job/schema.ts';
import { fixture, outlet, receptacle, room } from '#core/job/testing.ts';
import { counterCoverage, islandNeeds, merged, minus, notServingIsland } from './counters.ts';

const kitchen = room([168, 120, 168, 120], undefined, { kind: 'kitchen' });
const run = (offset: number, width: number, wall = 1, values: Partial<Fixture> = {}) =>
  fixture('counter', wall, offset, width, { fastened: true, ...values });
const above = (name: string, offset: number, values: Partial<Box> = {}) =>
  outlet(name, 1, offset, { height: 44, ...values });

/** What divides a counter of 14 ft, and the stretches of wall line that are left. */
const SPACES: [string, Fixture[], [number, number][]][] = [
  ['nothing', [run(84, 168)], [[0, 168]]],
  [
    'a sink',
    [run(84, 168), fixture('sink', 1, 70, 30, { depth: 20 })],
    [
      [0, 55],
      [85, 168],
    ],
  ],
  [
    'a sink with 12 in. of counter behind it',
    [run(84, 168), fixture('sink', 1, 70, 30, { fromWall: 12 })],
    [[0, 168]],
  ],
  [
    'a corner range with 17 in. behind it',
    [run(84, 168), fixture('range', 1, 70, 30, { fromWall: 17, corner: true })],
    [
      [0, 55],
      [85, 168],
    ],
  ],
  [
    'a corner range with 18 in. behind it',
    [run(84, 168), fixture('range', 1, 70, 30, { fromWall: 18, corner: true })],
    [[0, 168]],
  ],
  ['a dishwasher under it', [run(84, 168), fixture('dishwasher', 1, 70, 24)], [[0, 168]]],
  [
    'a range between two pieces',
    [run(40, 80), fixture('range', 1, 95, 30), run(139, 58)],
    [
      [0, 80],
      [110, 168],
    ],
  ],
  ['a piece away from the wall', [run(84, 168, 1, { fromWall: 7 })], []],
];
for (const [what, fixtures, spaces] of SPACES) {
  test(`counter divided by ${what}: ${JSON.stringify(spaces)}`, () => {
    const found = counterCoverage(kitchen, fixtures, [])!.map(({ space }) => [
      space.start,
      space.start + space.length,
    ]);
    assert.deepEqual(found, spaces);
  });
}

test('an L of two pieces is one counter around its corner', () => {
  const [space, ...more] = counterCoverage(kitchen, [run(84, 168), run(72, 96, 2)], [])!;
  assert.deepEqual(more, []);
  assert.equal(space!.space.length, 168 + 120);
});

test('counters are judged in kitchens, pantries and dining rooms alone', () => {
  for (const kind of ['kitchen', 'pantry', 'dining'] as const)
    assert.equal(counterCoverage({ ...kitchen, kind }, [run(84, 168)], [])!.length, 1);
  for (const kind of ['laundry', 'garage', 'bedroom'] as const)
    assert.equal(counterCoverage({ ...kitchen, kind }, [run(84, 168)], []), null);
});

test('every inch of a random counter line is in reach exactly where a painter finds it so', () => {
  const piece = fc.record({ at: fc.integer({ min: 0, max: 130 }), width: fc.integer({ min: 6, max: 38 }) });
  fc.assert(
    fc.property(
      fc.array(piece, { minLength: 1, maxLength: 4 }),
      fc.array(piece, { maxLength: 2 }),
      fc.uniqueArray(fc.integer({ min: 1, max: 167 }), { maxLength: 4 }),
      (counters, sinks, outlets) => {
        const fixtures = [
          ...counters.map((c, i) => run(c.at + c.width / 2, c.width, 1, { id: `fixture-c${i}` })),
          ...sinks.map((s, i) => fixture('sink', 1, s.at + s.width / 2, s.width, { id: `fixture-s${i}` })),
        ];
        const boxes = outlets.map((at, i) => above(`K${i}`, at));
        // A painter of inches: counter, taken away by sinks; stretches shorter than 12 in. need nothing.
        const ends = (i: number) => counters.some((c) => c.at + c.width === i);
        const joins = (i: number) => ends(i) && counters.some((c) => c.at === i + 1);
        const inch = Array.from({ length: 168 }, (_, i) => {
          const on = (list: typeof counters) => list.some((c) => i >= c.at && i < c.at + c.width);
          // Pieces an inch apart are one counter.
          return (on(counters) || joins(i)) && !on(sinks);
        });
        const open = new Set<number>();
        for (let from = 0; from < 168; from++) {
          if (!inch[from] || inch[from - 1]) continue;
          let to = from;
          while (inch[to]) to++;
          if (to - from < 12) continue;
          const here = outlets.filter((at) => at >= from && at <= to);
          for (let i = from; i < to; i++) if (!here.some((at) => Math.abs(at - (i + 0.5)) < 24)) open.add(i);
        }
        const found = new Set<number>();
        for (const { space, required, uncovered } of counterCoverage(kitchen, fixtures, boxes)!) {
          if (!required) continue;
          for (const gap of uncovered)
            for (let i = Math.round(space.start + gap.from); i < Math.round(space.start + gap.to); i++)
              found.add(i);
        }
        assert.deepEqual([...found].sort(), [...open].sort());
      },
    ),
    { numRuns: 500 },
  );
});

const island = (width: number, depth: number, kind: 'island' | 'peninsula' = 'island') =>
  fixture(kind, 1, 84, width, { depth, fromWall: 50 });
/** Width and depth, and receptacles asked for in 2017, 2020 and 2023. */
const NEEDS: [number, number, [number, number, number]][] = [
  [23, 12, [0, 1, 0]],
  [24, 11, [0, 0, 0]],
  [24, 12, [1, 1, 0]],
  [36, 36, [1, 1, 0]],
  [60, 30, [1, 2, 0]],
  [108, 36, [1, 2, 0]],
  [109, 36, [1, 3, 0]],
  [144, 48, [1, 4, 0]],
];
for (const [width, depth, counts] of NEEDS) {
  test(`an island of ${width} × ${depth} in. needs ${counts.join(', ')} by edition`, () => {
    const editions: Edition[] = ['2017', '2020', '2023'];
    assert.deepEqual(
      editions.map((e) => islandNeeds(island(width, depth), e).required),
      counts,
    );
  });
}

/** A receptacle on an island 36 in. high, and whether it counts in 2017, 2020 and 2023. */
const ON_ISLAND: [string, Partial<Box>, Partial<Fixture>, [boolean, boolean, boolean]][] = [
  ['12 in. below the top', { height: 24 }, {}, [true, true, false]],
  ['13 in. below the top', { height: 23 }, {}, [false, false, false]],
  ['under an overhang of 6 in.', { height: 28 }, { overhang: 6 }, [true, true, false]],
  ['under an overhang of 7 in.', { height: 28 }, { overhang: 7 }, [false, false, false]],
  ['20 in. above it', { height: 56 }, {}, [true, true, true]],
  ['21 in. above it', { height: 57 }, {}, [false, false, false]],
  ['in an assembly for counters', { mount: 'counter-assembly' }, {}, [true, true, true]],
  ['face up in the top', { mount: 'face-up' }, {}, [false, false, false]],
  ['inside a cabinet', { mount: 'in-cabinet', height: 28 }, {}, [false, false, false]],
  ['of 30 A', { height: 28, device: receptacle({ rating: 30 }) }, {}, [false, false, false]],
];
for (const [what, values, shape, counts] of ON_ISLAND) {
  test(`a receptacle ${what} counts for its island: ${counts.join(', ')}`, () => {
    const on = { ...island(60, 30), ...shape };
    const box = outlet('K', 1, 84, { mount: 'cabinet-face', fixtureId: on.id, ...values });
    assert.deepEqual(
      (['2017', '2020', '2023'] as const).map((e) => notServingIsland(box, on, e) === null),
      counts,
    );
  });
}

test('what is joined and then taken out leaves the same length, whatever the order', () => {
  const span = fc
    .tuple(fc.integer({ min: 0, max: 100 }), fc.integer({ min: 1, max: 40 }))
    .map(([from, length]) => ({ from, to: from + length }));
  fc.assert(
    fc.property(fc.array(span), fc.array(span), (spans, gaps) => {
      const inches = (list: { from: number; to: number }[]) =>
        Array.from({ length: 141 }, (_, i) => list.some((s) => s.from <= i + 0.5 && i + 0.5 <= s.to));
      const rest = minus(spans, gaps);
      const without = inches(gaps);
      assert.deepEqual(
        inches(rest),
        inches(spans).map((on, i) => on && !without[i]),
      );
      assert.deepEqual(minus(spans, [...gaps].reverse()).length, rest.length);
      for (const [i, s] of merged(spans).entries())
        assert.ok(i === 0 || s.from > merged(spans)[i - 1]!.to + 1);
    }),
  );
});
