import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { CIRCULAR_MILS, GAUGES_BY_SIZE } from '../code/tables/conductors.ts';
import type { Gauge } from '../job/schema.ts';
import { equipmentGround, sizeCircuit, usableAmpacity, type SizingInput } from './sizing.ts';

const BASE: SizingInput = {
  edition: '2020',
  continuousAmps: 0,
  noncontinuousAmps: 0,
  volts: 120,
  material: 'copper',
  method: 'NM-B',
  insulation: 90,
  terminalRating: 75,
  ambientCelsius: 30,
  currentCarrying: 2,
  severalReceptacles: false,
  feet: 50,
  conductorCelsius: 75,
  breaker: null,
  gauge: null,
};

/** Worked by hand from the tables: load, conditions → gauge, breaker, ground. */
const WORKED: [string, Partial<SizingInput>, Gauge, number, Gauge][] = [
  ['general 15 A', { noncontinuousAmps: 12, severalReceptacles: true }, '14', 15, '14'],
  ['general 20 A', { noncontinuousAmps: 16, severalReceptacles: true }, '12', 20, '12'],
  [
    '4,500 W water heater, 18.75 A continuous: 23.4 → 25 A, 10 AWG by its cap',
    { continuousAmps: 18.75, volts: 240 },
    '10',
    25,
    '10',
  ],
  ['48 A charger on NM-B: 60 A, 4 AWG, not 6', { continuousAmps: 48, volts: 240 }, '4', 60, '10'],
  [
    '48 A charger in raceway at 75 °C: 6 AWG',
    { continuousAmps: 48, volts: 240, method: 'raceway' },
    '6',
    60,
    '10',
  ],
  ['32 A charger: 40 A, 8 AWG', { continuousAmps: 32, volts: 240 }, '8', 40, '10'],
  ['48 A kiln, three hours and more', { continuousAmps: 38, volts: 240 }, '6', 50, '10'],
  ['15 A in a 45 °C attic: 14 AWG from 25 × 0.87', { noncontinuousAmps: 15 }, '14', 15, '14'],
  [
    '15 A at 62 °C: 14 AWG falls to 16.25, still enough',
    { noncontinuousAmps: 15, ambientCelsius: 62 },
    '14',
    15,
    '14',
  ],
  [
    '20 A with nine conductors bundled: 12 AWG 30 × 0.7 = 21',
    { noncontinuousAmps: 20, currentCarrying: 9, severalReceptacles: true },
    '12',
    20,
    '12',
  ],
  [
    '20 A, ten bundled, several receptacles: 12 AWG 15 A is not enough',
    { noncontinuousAmps: 14, currentCarrying: 10, severalReceptacles: true, breaker: 20 },
    '10',
    20,
    '12',
  ],
  ['aluminium for 40 A', { noncontinuousAmps: 40, material: 'aluminium', volts: 240 }, '6', 40, '8'],
  ['aluminium 15 A', { noncontinuousAmps: 12, material: 'aluminium' }, '12', 15, '12'],
  [
    'UF starts at 60 °C: 20 × 0.71 at 42 °C',
    { noncontinuousAmps: 16, method: 'UF-B', ambientCelsius: 42, severalReceptacles: true },
    '10',
    20,
    '12',
  ],
];
for (const [what, values, gauge, breaker, ground] of WORKED) {
  test(`sizes ${what}`, () => {
    const result = sizeCircuit({ ...BASE, ...values });
    assert.ok(result.ok, JSON.stringify(result));
    assert.deepEqual(
      [result.value.gauge, result.value.breaker, result.value.ground],
      [gauge, breaker, ground],
    );
    assert.equal(result.value.steps.length, 6);
  });
}

test('the drop is two conductors of the run: 12 AWG, 100 ft, 16 A → 6.18 V', () => {
  const result = sizeCircuit({ ...BASE, noncontinuousAmps: 16, feet: 100, severalReceptacles: true });
  assert.ok(result.ok);
  assert.ok(Math.abs(result.value.drop.volts - 6.176) < 1e-9);
  assert.ok(Math.abs(result.value.drop.percent - 5.1467) < 1e-3);
});

test('an enlarged conductor enlarges the ground in proportion, 250.122(B)', () => {
  assert.equal(equipmentGround(20, 'copper', '10', '12'), '10');
  assert.equal(equipmentGround(40, 'copper', '4', '8'), '4');
  assert.equal(equipmentGround(60, 'copper', '4', '4'), '10');
});

const REFUSED: [string, Partial<SizingInput>, RegExp][] = [
  [
    'a breaker below the load',
    { continuousAmps: 16, breaker: 15 },
    /15 A breaker is too small for 20 A; expected 20 A/,
  ],
  [
    '14 AWG on 20 A',
    { noncontinuousAmps: 16, breaker: 20, gauge: '14' },
    /14 AWG copper is too small here; expected 12 AWG/,
  ],
  ['more than 200 A', { noncontinuousAmps: 300 }, /above 200 A/],
  ['heat no insulation stands', { noncontinuousAmps: 10, ambientCelsius: 88 }, /no conductor to 4\/0/],
];
for (const [what, values, message] of REFUSED) {
  test(`refuses ${what}`, () => {
    const result = sizeCircuit({ ...BASE, ...values });
    assert.ok(!result.ok);
    assert.match(result.message, message);
  });
}

const anyInput = fc.record({
  continuousAmps: fc.integer({ min: 0, max: 60 }),
  noncontinuousAmps: fc.integer({ min: 1, max: 60 }),
  method: fc.constantFrom('NM-B' as const, 'UF-B' as const, 'raceway' as const),
  terminalRating: fc.constantFrom(60 as const, 75 as const),
  ambientCelsius: fc.integer({ min: 5, max: 60 }),
  currentCarrying: fc.integer({ min: 2, max: 24 }),
  severalReceptacles: fc.boolean(),
  material: fc.constantFrom('copper' as const, 'aluminium' as const),
});

test('breaker never above what the conductor allows, drop never grows with the conductor', () => {
  fc.assert(
    fc.property(anyInput, (values) => {
      const input = { ...BASE, ...values };
      const result = sizeCircuit(input);
      if (!result.ok) return;
      const { gauge, breaker, ground, drop } = result.value;
      const usable = usableAmpacity(gauge, input)!.usable;
      const steps = [15, 20, 25, 30, 35, 40, 45, 50, 60, 70, 80, 90, 100, 110, 125, 150, 175, 200];
      const next = steps.find((s) => s >= usable - 1e-9)!;
      assert.ok(breaker <= (input.severalReceptacles ? usable + 1e-9 : next));
      assert.ok(breaker >= 1.25 * values.continuousAmps + values.noncontinuousAmps);
      assert.ok(CIRCULAR_MILS[ground] <= CIRCULAR_MILS[gauge]);
      const thicker = GAUGES_BY_SIZE[GAUGES_BY_SIZE.indexOf(gauge) + 1];
      const larger = thicker && sizeCircuit({ ...input, gauge: thicker });
      if (larger?.ok) assert.ok(larger.value.drop.volts < drop.volts);
    }),
    { numRuns: 500 },
  );
});
