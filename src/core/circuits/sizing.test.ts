import { BRANCH_LOADS } from '#core/tables/loadKinds.ts';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { CIRCULAR_MILS, GAUGES_BY_SIZE } from '#core/tables/conductors.ts';
import { CABLES, EDITIONS } from '#core/job/schema.ts';
import { PLAIN_LOAD_VALUES, type BranchLoad } from './demand/demand.ts';
import { equipmentGround, sizeCircuit, usableAmpacity, type SizingInput } from './sizing.ts';

const RATINGS = [15, 20, 25, 30, 35, 40, 45, 50, 60, 70, 80, 90, 100, 110, 125, 150, 175, 200];

const outlets = (amps: number, continuousAmps = 0): BranchLoad => ({
  ...PLAIN_LOAD_VALUES,
  kind: 'general',
  volts: 120,
  amps,
  continuousAmps,
  severalReceptacles: true,
});
const BASE: Omit<SizingInput, 'load'> = {
  edition: '2020',
  material: 'copper',
  method: 'NM-B',
  insulation: null,
  terminalRating: 75,
  ambientCelsius: 30,
  currentCarrying: 2,
  feet: 50,
  conductorCelsius: 75,
  breaker: null,
  gauge: null,
};

test('the drop is two conductors of the run: 12 AWG, 100 ft, 16 A → 6.18 V', () => {
  const result = sizeCircuit({ ...BASE, load: outlets(16), feet: 100 });
  assert.ok(result.ok);
  assert.ok(Math.abs(result.value.drop.volts - 6.176) < 1e-9);
  assert.ok(Math.abs(result.value.drop.percent - 5.1467) < 1e-3);
});

test('an enlarged conductor enlarges the ground in proportion, 250.122(B)', () => {
  assert.equal(equipmentGround(20, 'copper', '10', '12'), '10');
  assert.equal(equipmentGround(40, 'copper', '4', '8'), '4');
  assert.equal(equipmentGround(60, 'copper', '4', '4'), '10');
});

const REFUSED: [string, Partial<SizingInput> & Pick<SizingInput, 'load'>, RegExp][] = [
  [
    'a breaker below the load',
    { load: outlets(0, 16), breaker: 15 },
    /15 A breaker is too small for 20 A; expected 20 A/,
  ],
  [
    '14 AWG on 20 A',
    { load: outlets(16), breaker: 20, gauge: '14' },
    /14 AWG copper is too small here; expected 12 AWG/,
  ],
  ['more than 400 A', { load: { ...outlets(450), severalReceptacles: false } }, /above 400 A/],
  ['heat no insulation stands', { load: outlets(10), ambientCelsius: 88 }, /no conductor to 2 AWG carries/],
];
for (const [what, values, message] of REFUSED) {
  test(`refuses ${what}`, () => {
    const result = sizeCircuit({ ...BASE, ...values });
    assert.ok(!result.ok);
    assert.match(result.message, message);
  });
}

/** Any load of any kind, with only the numbers that its kind is marked with. */
const anyLoad: fc.Arbitrary<BranchLoad> = fc
  .record({
    kind: fc.constantFrom(...BRANCH_LOADS),
    volts: fc.constantFrom(120, 208, 240),
    tenths: fc.integer({ min: 1, max: 700 }),
    lasting: fc.integer({ min: 0, max: 40 }),
    severalReceptacles: fc.boolean(),
    marks: fc.option(fc.integer({ min: 0, max: 30 })),
  })
  .map(({ kind, volts, tenths, lasting, severalReceptacles, marks }) => ({
    ...PLAIN_LOAD_VALUES,
    kind,
    volts,
    amps: tenths / 10,
    continuousAmps: kind === 'general' ? lasting : 0,
    severalReceptacles,
    minimumAmpacity: kind === 'cooling' && marks !== null ? tenths / 10 : null,
    maximumBreaker: kind === 'cooling' && marks !== null ? tenths / 10 + marks : null,
  }));
const anyInput = fc.record({
  load: anyLoad,
  method: fc.constantFrom(...CABLES),
  terminalRating: fc.constantFrom(60 as const, 75 as const),
  ambientCelsius: fc.integer({ min: 5, max: 60 }),
  currentCarrying: fc.integer({ min: 2, max: 24 }),
  material: fc.constantFrom('copper' as const, 'aluminum' as const),
  edition: fc.constantFrom(...EDITIONS),
});
/** Loads whose breaker protects against short circuit alone: 240.4(G). */
const OWN_PROTECTION = ['cooling', 'motor'];

test('breaker never above what conductor or equipment allows, drop never grows with the conductor', () => {
  let sized = 0;
  fc.assert(
    fc.property(anyInput, (values) => {
      const input: SizingInput = { ...BASE, ...values };
      const result = sizeCircuit(input);
      if (!result.ok) return;
      sized++;
      const { gauge, breaker, ground, drop, mostBreaker } = result.value;
      const usable = usableAmpacity(gauge, input, breaker)!.usable;
      const next = RATINGS.find((s) => s >= usable - 1e-9)!;
      if (!OWN_PROTECTION.includes(input.load.kind)) assert.ok(breaker <= next);
      if (['range', 'oven-or-cooktop'].includes(input.load.kind)) assert.ok(breaker <= usable + 1e-9);
      if (input.load.severalReceptacles && ['general', 'cord'].includes(input.load.kind))
        assert.ok(breaker <= usable + 1e-9);
      if (mostBreaker !== null) assert.ok(breaker <= mostBreaker);
      assert.ok(usable >= drop.amps - 1e-9);
      assert.ok(RATINGS.includes(breaker));
      // Old two-wire cable has no ground to give.
      assert.equal(ground === null, input.method === 'old two-wire');
      if (ground !== null) assert.ok(CIRCULAR_MILS[ground] <= CIRCULAR_MILS[gauge]);
      const thicker = GAUGES_BY_SIZE[GAUGES_BY_SIZE.indexOf(gauge) + 1];
      const larger = thicker && sizeCircuit({ ...input, gauge: thicker });
      if (larger?.ok) assert.ok(larger.value.drop.volts < drop.volts);
      // What was given is accepted when it is chosen by hand.
      const again = sizeCircuit({ ...input, gauge, breaker });
      assert.deepEqual(again.ok && [again.value.gauge, again.value.breaker], [gauge, breaker]);
    }),
    { numRuns: 2500 },
  );
  assert.ok(sized > 1000, `${sized} sized`);
});

test('more heat, more company or more load never gives a thinner conductor', () => {
  fc.assert(
    fc.property(
      anyInput,
      fc.integer({ min: 0, max: 20 }),
      fc.integer({ min: 0, max: 12 }),
      (values, hotter, more) => {
        const input: SizingInput = { ...BASE, ...values };
        const before = sizeCircuit(input);
        const after = sizeCircuit({
          ...input,
          ambientCelsius: input.ambientCelsius + hotter,
          currentCarrying: input.currentCarrying + more,
        });
        if (before.ok && after.ok)
          assert.ok(CIRCULAR_MILS[after.value.gauge] >= CIRCULAR_MILS[before.value.gauge]);
      },
    ),
    { numRuns: 1000 },
  );
});
