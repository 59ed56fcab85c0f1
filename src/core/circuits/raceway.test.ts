/** Raceway fill against the published counts and cases worked by hand. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Gauge } from '#core/job/schema.ts';
import type { RacewayKind, TradeSize, Wire } from '#core/tables/raceways.ts';
import { racewayFill, type RacewayFillInput } from './raceway.ts';

const input = (
  kind: RacewayKind,
  size: TradeSize | null,
  conductors: readonly (readonly [count: number, gauge: Gauge, wire?: Wire])[],
  more: Partial<RacewayFillInput> = {},
): RacewayFillInput => ({
  kind,
  size,
  nipple: false,
  conductors: conductors.map(([count, gauge, wire = 'THHN']) => ({ count, gauge, wire })),
  cables: [],
  ...more,
});
const filled = (i: RacewayFillInput) => {
  const result = racewayFill(i);
  assert.ok(result.ok, result.ok ? '' : result.message);
  return result.value;
};
/** Most conductors of one size that go in, by trying. */
const most = (kind: RacewayKind, size: TradeSize, gauge: Gauge, wire: Wire = 'THHN'): number => {
  let n = 2;
  while (filled(input(kind, size, [[n + 1, gauge, wire]])).fits) n++;
  return n;
};

const COUNTS: [RacewayKind, TradeSize, Gauge, number][] = [
  ['EMT', '1/2', '14', 12],
  ['EMT', '1/2', '12', 9],
  ['EMT', '1/2', '10', 5],
  ['EMT', '1/2', '8', 3],
  ['EMT', '3/4', '14', 22],
  ['EMT', '3/4', '12', 16],
  ['EMT', '3/4', '10', 10],
  ['EMT', '3/4', '8', 6],
];
for (const [kind, size, gauge, expected] of COUNTS)
  test(`${size} ${kind} takes ${expected} THHN of ${gauge} AWG`, () =>
    assert.equal(most(kind, size, gauge), expected));

test('three 2 AWG and one 8 AWG: 0.384 in²; 1 in. schedule 40 takes 0.333, 1¼ does', () => {
  const small = filled(
    input('PVC-40', '1', [
      [3, '2'],
      [1, '8'],
    ]),
  );
  assert.ok(Math.abs(small.used - 0.384) < 1e-9);
  assert.equal(small.fits, false);
  assert.equal(
    filled(
      input('PVC-40', null, [
        [3, '2'],
        [1, '8'],
      ]),
    ).size,
    '1-1/4',
  );
});

test('one conductor 53 %, two 31 %, three 40 %, a nipple 60 %', () => {
  const limit = (count: number, nipple = false) =>
    filled(input('EMT', '1', [[count, '10']], { nipple })).limitPercent;
  assert.deepEqual([limit(1), limit(2), limit(3), limit(3, true)], [53, 31, 40, 60]);
});

test('a cable counts as one conductor of its greater diameter', () => {
  const fill = filled(input('EMT', '3/4', [], { cables: [{ diameter: 0.5, count: 1 }] }));
  assert.equal(fill.limitPercent, 53);
  assert.ok(Math.abs(fill.used - 0.19635) < 1e-4);
  assert.equal(fill.fits, true);
});

test('three alike that may wedge in bends are said', () => {
  const ratio = (kind: RacewayKind, size: TradeSize, gauge: Gauge) =>
    filled(input(kind, size, [[3, gauge]])).jamRatio;
  const near = (value: number | null, to: number) =>
    assert.ok(value !== null && Math.abs(value - to) < 0.006, String(value));
  near(ratio('EMT', '1', '3'), 2.98);
  near(ratio('EMT', '1-1/4', '1'), 3.09);
  near(ratio('EMT', '1-1/4', '1/0'), 2.84);
  near(ratio('PVC-40', '1', '4'), 3.18);
  near(ratio('PVC-80', '3/4', '6'), 2.84);
  assert.equal(ratio('EMT', '1', '10'), null);
  assert.equal(filled(input('EMT', '1', [[4, '3']])).jamRatio, null);
});

test('what is not in the table is refused by its field', () => {
  const said = (i: RacewayFillInput) => {
    const result = racewayFill(i);
    return result.ok ? '' : result.message;
  };
  assert.match(said(input('EMT', '2', [[3, '500']])), /conductors: there is no 500 THHN/);
  assert.match(said(input('EMT', '2', [])), /expected one at least/);
  assert.match(said(input('EMT', null, [[9, '4/0']])), /no EMT to 2 in\./);
});
