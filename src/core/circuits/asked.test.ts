/** Loads together on one circuit, and what is marked on them, against sums as a person does them. */
import type { BranchLoadKind } from '#core/tables/loadKinds.ts';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { demandOf } from './asked.ts';
import { PLAIN_LOAD_VALUES, type BranchLoad, type PartLoad } from './demand/demand.ts';

const load = (kind: BranchLoadKind, volts: number, values: Partial<BranchLoad>): BranchLoad => ({
  ...PLAIN_LOAD_VALUES,
  kind,
  volts,
  ...values,
});
const several = (parts: [BranchLoad, PartLoad['hot']?][], values: Partial<BranchLoad> = {}): BranchLoad =>
  load('several', 240, {
    parts: parts.map(([l, hot], i) => ({
      name: `L${i + 1}`,
      load: l,
      hot: hot ?? (l.volts > 150 ? 'both' : 'black'),
    })),
    ...values,
  });
const heater = (watts: number) => load('space-heat', 240, { watts });

type Expected = { counted?: number; least?: number; most?: number | null } | RegExp;
const SUMS: [string, BranchLoad, Expected][] = [
  [
    'three 1,500 W heaters: 3 × 6.25 × 1.25 = 23.4 → 25, at most 30',
    several([[heater(1500)], [heater(1500)], [heater(1500)]]),
    { counted: 23.4375, least: 25, most: 30 },
  ],
  [
    'four 2,000 W heaters: 33.3 × 1.25 = 41.7: above the 30 A for two and more',
    several([[heater(2000)], [heater(2000)], [heater(2000)], [heater(2000)]]),
    /30 A/,
  ],
  ['one 4,000 W heater of the same sort: 20.8 A', heater(4000), { counted: 20.8333, least: 25, most: 60 }],
  [
    'charger 32 A and water heater 18.75 A: 40 + 23.4',
    several([[load('vehicle', 240, { amps: 32 })], [load('water-heater', 240, { watts: 4500 })]]),
    { counted: 63.4375, least: 70, most: null },
  ],
  [
    'dishwasher 10 A and disposal 8 A: 18 → 20',
    several([[load('appliance', 120, { amps: 10 })], [load('appliance', 120, { amps: 8 })]]),
    { counted: 18, least: 20 },
  ],
  [
    'dishwasher 12 A and disposal 9 A: 21 → 25',
    several([[load('appliance', 120, { amps: 12 })], [load('appliance', 120, { amps: 9 })]]),
    { counted: 21, least: 25 },
  ],
  [
    'on opposite hots of a multiwire circuit each stands alone',
    several([
      [load('appliance', 120, { amps: 12 }), 'black'],
      [load('appliance', 120, { amps: 9 }), 'red'],
    ]),
    { counted: 12, least: 15 },
  ],
  [
    'a 240 V load counts on both hots beside a 120 V one',
    several([[load('appliance', 240, { amps: 10 })], [load('appliance', 120, { amps: 4 }), 'red']]),
    { counted: 14, least: 15 },
  ],
  [
    'two motors: the larger a quarter more, 430.24',
    several([[load('motor', 120, { amps: 6 })], [load('motor', 120, { amps: 4 })]]),
    { counted: 11.5, least: 15 },
  ],
  [
    'beside outlets in general never less than those',
    several([[load('cord', 120, { amps: 6 })]], { amps: 16, severalReceptacles: true }),
    { counted: 16, least: 20 },
  ],
  [
    'a part without a current is named',
    several([[load('appliance', 120, {})], [heater(1000)]]),
    /L1: amps or watts/,
  ],
  [
    'the smallest mark of all binds',
    several([
      [load('appliance', 120, { amps: 5, maximumBreaker: 15 })],
      [load('appliance', 120, { amps: 5 })],
    ]),
    { counted: 10, most: 15 },
  ],
];

/** What is marked binds whatever is marked with it: on both sides of the mark. */
const MARKS: [string, BranchLoad, Expected][] = [
  [
    'heat, 10 A, MCA 20',
    load('space-heat', 240, { amps: 10, minimumAmpacity: 20 }),
    { counted: 20, least: 20 },
  ],
  [
    'heat, 20 A, MCA 20: 125 % is more',
    load('space-heat', 240, { amps: 20, minimumAmpacity: 20 }),
    { counted: 25, least: 25 },
  ],
  ['heat, 20 A, at most 30', load('space-heat', 240, { amps: 20, maximumBreaker: 30 }), { most: 30 }],
  [
    'heat, 25 A, at most 30: 31.3 A does not fit',
    load('space-heat', 240, { amps: 25, maximumBreaker: 30 }),
    /do not meet/,
  ],
  ['appliance, 8 A, at most 15', load('appliance', 120, { amps: 8, maximumBreaker: 15 }), { most: 15 }],
  [
    'appliance, 8 A, MCA 16',
    load('appliance', 120, { amps: 8, minimumAmpacity: 16 }),
    { counted: 16, least: 20 },
  ],
  [
    'a mark between sizes: 28 A is 25',
    load('appliance', 240, { amps: 16, maximumBreaker: 28 }),
    { most: 25 },
  ],
  ['motor, 8 A, at most 15', load('motor', 240, { amps: 8, maximumBreaker: 15 }), { counted: 10, most: 15 }],
  ['motor, 8 A, MCA 14', load('motor', 240, { amps: 8, minimumAmpacity: 14 }), { counted: 14 }],
  [
    'room cooler, 10 A, at most 15',
    load('room-cooler', 120, { amps: 10, maximumBreaker: 15 }),
    { counted: 12.5, most: 15 },
  ],
  [
    'cooling, 12 A, only a largest breaker of 25',
    load('cooling', 240, { amps: 12, maximumBreaker: 25 }),
    { counted: 15, most: 25 },
  ],
  ['cooling, 12 A, only MCA 18', load('cooling', 240, { amps: 12, minimumAmpacity: 18 }), { counted: 18 }],
  [
    'cooling, only MCA: what may protect it is not known',
    load('cooling', 240, { minimumAmpacity: 18 }),
    /largest breaker marked/,
  ],
  [
    'air handler with heat, its two marks alone',
    load('space-heat', 240, { minimumAmpacity: 27, maximumBreaker: 30 }),
    { counted: 27, least: 30, most: 30 },
  ],
  [
    'air handler with a motor, its two marks alone',
    load('motor', 240, { minimumAmpacity: 6, maximumBreaker: 15 }),
    { counted: 6, most: 15 },
  ],
];
for (const [what, asked, expected] of [...SUMS, ...MARKS])
  test(`asked of a circuit: ${what}`, () => {
    const result = demandOf(asked, '2020');
    if (expected instanceof RegExp) {
      assert.ok(!result.ok);
      assert.match(result.message, expected);
      return;
    }
    assert.ok(result.ok, result.ok ? '' : result.message);
    const { counted, leastBreaker, mostBreaker } = result.value;
    if (expected.counted !== undefined) assert.ok(Math.abs(counted - expected.counted) < 1e-3, `${counted}`);
    if (expected.least !== undefined) assert.equal(leastBreaker, expected.least);
    if (expected.most !== undefined) assert.equal(mostBreaker, expected.most);
  });

test('summed loads equal a slow sum, leg by leg', () => {
  const kinds = ['appliance', 'cord', 'water-heater', 'space-heat', 'kiln', 'vehicle', 'motor'] as const;
  const CONTINUOUS: readonly string[] = ['water-heater', 'space-heat', 'kiln', 'vehicle'];
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          kind: fc.constantFrom(...kinds),
          amps: fc.integer({ min: 1, max: 8 }),
          hot: fc.constantFrom('black' as const, 'red' as const, 'both' as const),
        }),
        { minLength: 1, maxLength: 4 },
      ),
      (list) => {
        const result = demandOf(
          several(list.map(({ kind, amps, hot }) => [load(kind, hot === 'both' ? 240 : 120, { amps }), hot])),
          '2020',
        );
        let slow = 0;
        for (const hot of ['black', 'red']) {
          let sum = 0;
          let largest = 0;
          for (const l of list) {
            if (l.hot !== hot && l.hot !== 'both') continue;
            sum += CONTINUOUS.includes(l.kind) ? l.amps * 1.25 : l.amps;
            if (l.kind === 'motor') largest = Math.max(largest, l.amps);
          }
          slow = Math.max(slow, sum + largest * 0.25);
        }
        const tooMuch = list.filter((l) => l.kind === 'space-heat').length > 1 && slow > 30;
        assert.equal(result.ok, !tooMuch, JSON.stringify({ list, slow, result }));
        if (result.ok)
          assert.ok(Math.abs(result.value.counted - slow) < 1e-9, JSON.stringify({ list, slow, result }));
      },
    ),
    { numRuns: 500 },
  );
});
