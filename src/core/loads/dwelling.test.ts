import { DWELLING_LOADS } from '#core/tables/loadKinds.ts';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { rangeDemand } from '#core/tables/cooking.ts';
import { EDITIONS, type Edition } from '#core/job/schema.ts';
import { dwellingLoad, serviceConductor, type Dwelling, type LoadItem, type LoadMethod } from './dwelling.ts';

const item = (
  name: string,
  kind: LoadItem['kind'],
  va: number,
  values: Partial<LoadItem> = {},
): LoadItem => ({
  name,
  kind,
  va,
  volts: 240,
  motor: false,
  controls: 1,
  added: false,
  ...values,
});
const at120 = { volts: 120 } as const;
const motor = { motor: true } as const;
const dwelling = (floorArea: number, items: LoadItem[], values: Partial<Dwelling> = {}): Dwelling => ({
  edition: '2020',
  floorArea,
  smallApplianceCircuits: 2,
  laundryCircuits: 1,
  items,
  oneFamily: true,
  material: 'copper',
  ...values,
});

/** Two textbook checks. */
const checkA = dwelling(1500, [item('range', 'range', 12000), item('dryer', 'dryer', 5500)]);
const checkB = dwelling(1500, [
  item('range', 'range', 12000),
  item('water heater', 'appliance', 2500),
  item('dishwasher', 'appliance', 1200, at120),
  item('dryer', 'dryer', 5000),
  item('baseboards', 'space-heat', 9000, { controls: 5 }),
  item('cooler', 'cooling', 6 * 230, motor),
]);

/** Five invented houses. */
const rancher = dwelling(1800, [
  item('range', 'range', 12000),
  item('dryer', 'dryer', 5500),
  item('water heater', 'appliance', 4500),
  item('dishwasher', 'appliance', 1200, { ...at120, ...motor }),
  item('disposal', 'appliance', 900, { ...at120, ...motor }),
  item('cooler', 'cooling', 5760, motor),
  item('furnace', 'space-heat', 10000),
]);
const colonial = dwelling(2400, [
  item('range', 'range', 14000),
  item('dryer', 'dryer', 4800),
  item('water heater', 'appliance', 4500),
  item('dishwasher', 'appliance', 1200, at120),
  item('disposal', 'appliance', 800, { ...at120, ...motor }),
  item('microwave', 'appliance', 1500, at120),
  item('bath fan', 'appliance', 300, { ...at120, ...motor }),
  item('heat pump', 'heat-pump', 6000, motor),
  item('strip heat', 'supplementary-heat', 9600),
]);
const bungalow = dwelling(1200, [
  item('range', 'range', 8000),
  item('cooler', 'cooling', 4000, motor),
  item('vehicle', 'vehicle', 11520, { added: true }),
]);
const splitLevel = (added: LoadItem[], had: LoadItem[] = []) =>
  dwelling(1500, [
    item('range', 'range', 12000),
    item('water heater', 'appliance', 4500),
    item('dryer', 'dryer', 5000),
    ...had,
    ...added.map((i) => ({ ...i, added: true })),
  ]);
const cottage = dwelling(800, [
  item('oven', 'range', 4600),
  item('cooktop', 'range', 5100),
  item('water heater', 'appliance', 3800),
  item('baseboards', 'space-heat', 7500, { controls: 5 }),
]);

/** House, method, edition, the sum as worked by hand, amperes, service rating, copper conductor. */
const CASES: [string, Dwelling, LoadMethod, Edition, number, number, number, string][] = [
  ['check A', checkA, 'standard', '2020', 5100 + 8000 + 5500, 77.5, 100, '4'],
  ['check A', checkA, 'standard', '2017', 18600, 77.5, 100, '4'],
  ['check B', checkB, 'optional', '2020', 10000 + 0.4 * 19700 + 0.4 * 9000, 89.5, 100, '4'],
  ['check B', checkB, 'optional', '2023', 21480, 89.5, 100, '4'],
  // 3 × 1800 + 4500 = 9900: 3000 + 0.35 × 6900; three appliances in full; heat above cooling; 25 % of 1200.
  ['rancher', rancher, 'standard', '2020', 5415 + 6600 + 5500 + 8000 + 10000 + 300, 149, 150, '1'],
  // 9900 + 24100 of nameplates: 10000 + 0.4 × 24000; 65 % of the heat is above the cooler.
  ['rancher', rancher, 'optional', '2020', 19600 + 6500, 108.75, 110, '3'],
  // 11700: 3000 + 0.35 × 8700; five appliances at 75 %; dryer 5000; 14 kW: 8 × 1.1; pump and strips; 25 % of 6000.
  ['colonial', colonial, 'standard', '2017', 6045 + 6225 + 5000 + 8800 + 15600 + 1500, 179.88, 200, '2/0'],
  // From 2020 the fan of 300 VA stands outside the 75 %.
  ['colonial', colonial, 'standard', '2020', 6045 + 6000 + 300 + 5000 + 8800 + 15600 + 1500, 180, 200, '2/0'],
  ['colonial', colonial, 'optional', '2020', 10000 + 0.4 * 28800 + 6000 + 0.65 * 9600, 140.67, 150, '1'],
  // 8100: 3000 + 0.35 × 5100; a range of 8 kW at 80 %; the vehicle at 125 %; cooler and a quarter of it.
  ['bungalow', bungalow, 'standard', '2017', 4785 + 6400 + 14400 + 4000 + 1000, 127, 150, '1'],
  ['bungalow', bungalow, 'standard', '2023', 4785 + 6400 + 11520 + 4000 + 1000, 115, 125, '2'],
  ['bungalow', bungalow, 'optional', '2023', 10000 + 0.4 * 17620 + 4000, 87.7, 100, '4'],
  // 9000 + 21500: 8000 + 0.4 × 22500, and what is added in full.
  [
    'split-level with a heat pump added',
    splitLevel([item('heat pump', 'heat-pump', 5000, motor), item('strip heat', 'supplementary-heat', 5000)]),
    'existing',
    '2020',
    17000 + 10000,
    112.5,
    125,
    '2',
  ],
  // 9000 + 21500 + kiln 8000 + the cooler it had 4000 = 42500.
  [
    'split-level with a kiln added',
    splitLevel([item('kiln', 'appliance', 8000)], [item('cooler', 'cooling', 4000, motor)]),
    'existing',
    '2023',
    8000 + 0.4 * 34500,
    90.83,
    100,
    '4',
  ],
  // Six added baseboards stay with the other load: 9000 + 21500 + 9000 = 39500.
  [
    'split-level with baseboards added',
    splitLevel([item('baseboards', 'space-heat', 9000, { controls: 6 })]),
    'existing',
    '2020',
    8000 + 0.4 * 31500,
    85.83,
    100,
    '4',
  ],
  // Oven and cooktop on their own circuits: 65 % of 9700 is less than 11 kW.
  ['cottage', cottage, 'standard', '2020', 4365 + 3800 + 6305 + 7500, 91.54, 100, '4'],
  ['cottage', cottage, 'optional', '2020', 14160 + 3000, 71.5, 100, '4'],
];
for (const [what, house, method, edition, va, amps, rating, conductor] of CASES) {
  test(`${what}, ${method}, ${edition}: ${va} VA, ${amps} A, ${rating} A service`, () => {
    const load = dwellingLoad({ ...house, edition }, method);
    assert.ok(load.ok);
    assert.ok(
      Math.abs(load.value.va - va) < 1e-6,
      `${load.value.va}: ${load.value.lines.map((l) => l.working).join('; ')}`,
    );
    assert.ok(Math.abs(load.value.amps - amps) < 0.01, `${load.value.amps}`);
    assert.deepEqual([load.value.rating, load.value.conductor], [rating, conductor]);
    for (const l of load.value.lines) assert.match(l.section, /\d{3}\.\d/);
  });
}

test('the neutral of the colonial: lighting, 120 V appliances at 75 %, range and dryer at 70 %', () => {
  const load = dwellingLoad({ ...colonial, edition: '2017' }, 'standard');
  assert.ok(load.ok && load.value.neutral);
  // 6045 + 0.75 × (1200 + 800 + 1500 + 300) + 3500 + 6160 + 25 % of the disposal.
  assert.equal(Math.round(load.value.neutral.va), 6045 + 2850 + 3500 + 6160 + 200);
  assert.equal(load.value.neutral.amps, 78);
});

/** Nameplates of ranges in kW, and their demand in VA. */
const RANGES: [number[], number | null][] = [
  [[], 0],
  [[3], 2400],
  [[8.75], 7000],
  [[9], 8000],
  [[12], 8000],
  [[12.4], 8000],
  [[12.5], 8400],
  [[13], 8400],
  [[16.6], 10000],
  [[27], 14000],
  [[27.1], null],
  [[12, 12], 11000],
  // Averaged, the smaller one as 12: (12 + 16) ÷ 2 = 14.
  [[8, 16], 12100],
  [[4, 5], 5850],
  [[3, 4], 0.8 * 3000 + 0.8 * 4000],
  [[4, 4, 4, 4, 4], 9000],
  [[4, 4, 4, 4, 4, 4], null],
];
for (const [kilowatts, va] of RANGES) {
  test(`ranges of ${kilowatts.join(' + ') || 'nothing'} kW: ${va ?? 'not worked here'}`, () => {
    const found = rangeDemand(kilowatts.map((kw) => ({ va: kw * 1000 })));
    if (va === null) assert.ok(!found.ok);
    else assert.ok(found.ok && Math.abs(found.value.va - va) < 1e-6, JSON.stringify(found));
  });
}

test('service conductors by the 83 % rule', () => {
  const found = [100, 110, 125, 150, 175, 200].map((r) => [
    serviceConductor(r, 'copper'),
    serviceConductor(r, 'aluminum'),
  ]);
  assert.deepEqual(found, [
    ['4', '2'],
    ['3', '1'],
    ['2', '1/0'],
    ['1', '2/0'],
    ['1/0', '3/0'],
    ['2/0', '4/0'],
  ]);
});

const anyItem: fc.Arbitrary<LoadItem> = fc
  .record({
    kind: fc.constantFrom(...DWELLING_LOADS),
    va: fc.integer({ min: 100, max: 6000 }),
    motor: fc.boolean(),
    controls: fc.integer({ min: 1, max: 3 }),
    added: fc.boolean(),
  })
  .map(({ kind, va, ...values }) => item(kind, kind, va, values));

test('lines add up; more load never asks for less by the standard method; refusals say why', () => {
  fc.assert(
    fc.property(
      fc.array(anyItem, { maxLength: 6 }),
      anyItem,
      fc.integer({ min: 300, max: 4000 }),
      fc.constantFrom(...EDITIONS),
      (items, extra, floorArea, edition) => {
        for (const method of ['standard', 'optional', 'existing'] as const) {
          const load = dwellingLoad(dwelling(floorArea, items, { edition }), method);
          if (!load.ok) {
            assert.match(load.message, /\d/);
            continue;
          }
          assert.ok(Math.abs(load.value.lines.reduce((t, l) => t + l.va, 0) - load.value.va) < 1e-6);
          assert.ok(load.value.rating >= load.value.amps && load.value.rating >= 100);
          // The fourth fastened appliance may bring the sum down: the 75 % reaches back to the other three.
          if (method === 'standard' && extra.kind !== 'appliance' && extra.kind !== 'range') {
            const more = dwellingLoad(dwelling(floorArea, [...items, extra], { edition }), method);
            if (more.ok) assert.ok(more.value.va >= load.value.va - 1e-6);
          }
        }
      },
    ),
    { numRuns: 300 },
  );
});
