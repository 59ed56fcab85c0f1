import assert from 'node:assert/strict';
import { test } from 'node:test';
import {
  ambientFactor,
  ampacity,
  bundlingFactor,
  CIRCULAR_MILS,
  GAUGES_BY_SIZE,
  ohmsPerThousandFeet,
  smallConductorCap,
  tableGround,
  type Material,
} from './conductors.ts';

test('ampacity grows with the conductor and with the column; aluminum carries less', () => {
  for (const material of ['copper', 'aluminum'] as const) {
    for (const column of [60, 75, 90] as const) {
      const row = GAUGES_BY_SIZE.map((g) => ampacity(g, material, column)).filter((a) => a !== null);
      assert.deepEqual(
        row,
        [...row].sort((a, b) => a - b),
      );
      assert.equal(new Set(row).size, row.length);
    }
    for (const g of GAUGES_BY_SIZE) {
      const [a, b, c] = ([60, 75, 90] as const).map((col) => ampacity(g, material, col));
      if (a !== null) assert.ok(a! < b! && b! < c!, g);
      const cu = ampacity(g, 'copper', 60)!;
      const al = ampacity(g, 'aluminum', 60);
      if (al !== null) assert.ok(al < cu);
    }
  }
  assert.equal(ampacity('14', 'aluminum', 60), null);
});

/** Correction is the square root of the temperature rise left over; the table rounds it. */
test('ambient factors follow √((Tc − Ta) / (Tc − 30)) at the top of each band, to rounding', () => {
  for (const column of [60, 75, 90] as const) {
    for (let top = 10; top <= 85; top += 5) {
      const factor = ambientFactor(top, column);
      const law = Math.sqrt((column - top) / (column - 30));
      if (top >= column) assert.equal(factor, null, `${column} at ${top}`);
      else
        assert.ok(
          Math.abs(factor! - law) < 0.006,
          `${column} °C at ${top} °C: ${factor} against ${law.toFixed(3)}`,
        );
    }
  }
  assert.equal(ambientFactor(30, 60), 1);
  assert.equal(ambientFactor(30.5, 60), 0.91);
  assert.equal(ambientFactor(-10, 90), 1.15);
  assert.equal(ambientFactor(86, 90), null);
});

test('resistance follows cross-section, and temperature by its coefficient', () => {
  for (const [material, perMil] of [
    ['copper', 12.9],
    ['aluminum', 21.2],
  ] as [Material, number][]) {
    for (const g of GAUGES_BY_SIZE) {
      const ohms = ohmsPerThousandFeet(g, material, 75);
      if (ohms !== null)
        assert.ok(Math.abs((ohms * CIRCULAR_MILS[g]) / 1000 / perMil - 1) < 0.03, `${g} ${material}`);
    }
  }
  assert.ok(Math.abs(ohmsPerThousandFeet('12', 'copper', 20)! - 1.93 * (1 - 0.00323 * 55)) < 1e-12);
});

const BUNDLES: [number, number][] = [
  [3, 1],
  [4, 0.8],
  [6, 0.8],
  [7, 0.7],
  [9, 0.7],
  [10, 0.5],
  [20, 0.5],
  [21, 0.45],
  [30, 0.45],
  [31, 0.4],
  [40, 0.4],
  [41, 0.35],
];
for (const [count, factor] of BUNDLES) {
  test(`${count} current-carrying conductors: ${factor}`, () => assert.equal(bundlingFactor(count), factor));
}

const GROUNDS: [number, string, string][] = [
  [15, '14', '12'],
  [20, '12', '10'],
  [25, '10', '8'],
  [60, '10', '8'],
  [70, '8', '6'],
  [100, '8', '6'],
  [200, '6', '4'],
];
for (const [breaker, copper, aluminum] of GROUNDS) {
  test(`ground for ${breaker} A: ${copper} copper, ${aluminum} aluminum`, () => {
    assert.deepEqual([tableGround(breaker, 'copper'), tableGround(breaker, 'aluminum')], [copper, aluminum]);
  });
}

test('small conductor caps', () => {
  const caps = (['14', '12', '10', '8'] as const).map((g) => [
    smallConductorCap(g, 'copper'),
    smallConductorCap(g, 'aluminum'),
  ]);
  assert.deepEqual(caps, [
    [15, null],
    [20, 15],
    [30, 25],
    [null, null],
  ]);
});
