/** Every row of the tables a second time, typed from another page or worked out: a slip in one of them shows here. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import {
  AREA_KINDS,
  EDITIONS,
  FIXTURE_KINDS,
  OPENING_KINDS,
  type Area,
  type AreaKind,
  type Edition,
  type Gauge,
  type Opening,
} from '#core/job/schema.ts';
import { conditions, room } from '#core/job/testing.ts';
import {
  atOrBelowGrade,
  exposureOf,
  gfciEntry,
  hasWallRule,
  isArcRoom,
  isOutside,
  NEAR_WATER,
} from './areas.ts';
import { CONDUCTOR_VOLUME, FILL_GAUGES, isFillGauge, USUAL_BOXES } from './boxes.ts';
import { DWELLING_SHARE, SEVERAL_MOST, VEHICLE_SHARED } from './circuits.ts';
import {
  ambientFactor,
  ampacity,
  CIRCULAR_MILS,
  GAUGES_BY_SIZE,
  isMade,
  isStandardRating,
  ohmsPerThousandFeet,
  sizeName,
  STANDARD_BREAKERS,
  standardAtMost,
  standardBreaker,
  tableGround,
  type Material,
} from './conductors.ts';
import { rangeDemand } from './cooking.ts';
import {
  FIXTURES,
  isCounter,
  isIsland,
  isServiced,
  isTub,
  isWater,
  outOfScope,
  type FixtureFacts,
} from './fixtures.ts';
import { motorAmps } from './motors.ts';
import { goesThrough, isPassage } from './openings.ts';
import { LARGEST_SERVICE } from './scope.ts';
import { INSIDE_DIAMETER, RACEWAYS, TRADE_SIZES, wireArea, wireDiameter, WIRES } from './raceways.ts';

/** `14: 15/20/25 · 12: 20/25/30` as figures by name. */
const rows = (text: string): [string, number[]][] =>
  text.split(' · ').map((row) => {
    const [name, figures] = row.split(': ') as [string, string];
    return [name, figures.split('/').map(Number)];
  });

const AMPERES: Record<Material, string> = {
  copper:
    '14: 15/20/25 · 12: 20/25/30 · 10: 30/35/40 · 8: 40/50/55 · 6: 55/65/75 · 4: 70/85/95 · 3: 85/100/115 · 2: 95/115/130 · 1: 110/130/145 · 1/0: 125/150/170 · 2/0: 145/175/195 · 3/0: 165/200/225 · 4/0: 195/230/260 · 250: 215/255/290 · 300: 240/285/320 · 350: 260/310/350 · 400: 280/335/380 · 500: 320/380/430 · 600: 350/420/475',
  aluminum:
    '12: 15/20/25 · 10: 25/30/35 · 8: 35/40/45 · 6: 40/50/55 · 4: 55/65/75 · 3: 65/75/85 · 2: 75/90/100 · 1: 85/100/115 · 1/0: 100/120/135 · 2/0: 115/135/150 · 3/0: 130/155/175 · 4/0: 150/180/205 · 250: 170/205/230 · 300: 195/230/260 · 350: 210/250/280 · 400: 225/270/305 · 500: 260/310/350 · 600: 285/340/385',
};
for (const material of ['copper', 'aluminum'] as const)
  test(`ampacity of ${material}, each figure again`, () => {
    const typed = new Map(rows(AMPERES[material]));
    for (const gauge of GAUGES_BY_SIZE)
      assert.deepEqual(
        ([60, 75, 90] as const).map((column) => ampacity(gauge, material, column)),
        typed.get(gauge) ?? [null, null, null],
        gauge,
      );
  });

test('ambient factors, each figure again, at both sides of each band', () => {
  const typed = rows(
    '10: 1.29/1.2/1.15 · 15: 1.22/1.15/1.12 · 20: 1.15/1.11/1.08 · 25: 1.08/1.05/1.04 · 30: 1/1/1 · 35: 0.91/0.94/0.96 · 40: 0.82/0.88/0.91 · 45: 0.71/0.82/0.87 · 50: 0.58/0.75/0.82 · 55: 0.41/0.67/0.76 · 60: NaN/0.58/0.71 · 65: NaN/0.47/0.65 · 70: NaN/0.33/0.58 · 75: NaN/NaN/0.5 · 80: NaN/NaN/0.41 · 85: NaN/NaN/0.29',
  );
  typed.forEach(([top, factors], k) =>
    factors.forEach((factor, c) => {
      const column = ([60, 75, 90] as const)[c]!;
      const expected = Number.isNaN(factor) ? null : factor;
      assert.equal(ambientFactor(Number(top), column), expected, `${column} at ${top}`);
      // Just over the band below it is this one.
      const below = typed[k - 1];
      if (below) assert.equal(ambientFactor(Number(below[0]) + 0.01, column), expected, `over ${below[0]}`);
    }),
  );
  assert.equal(ambientFactor(85.01, 90), null);
});

test('circular mils and ohms, each figure again', () => {
  const mils = rows(
    '14: 4110 · 12: 6530 · 10: 10380 · 8: 16510 · 6: 26240 · 4: 41740 · 3: 52620 · 2: 66360 · 1: 83690 · 1/0: 105600 · 2/0: 133100 · 3/0: 167800 · 4/0: 211600 · 250: 250000 · 300: 300000 · 350: 350000 · 400: 400000 · 500: 500000 · 600: 600000',
  );
  assert.deepEqual(Object.fromEntries(mils.map(([g, [m]]) => [g, m])), { ...CIRCULAR_MILS });
  const ohms: Record<Material, string> = {
    copper:
      '14: 3.07 · 12: 1.93 · 10: 1.21 · 8: 0.778 · 6: 0.491 · 4: 0.308 · 3: 0.245 · 2: 0.194 · 1: 0.154 · 1/0: 0.122 · 2/0: 0.0967 · 3/0: 0.0766 · 4/0: 0.0608 · 250: 0.0515 · 300: 0.0429 · 350: 0.0367 · 400: 0.0321 · 500: 0.0258 · 600: 0.0214',
    aluminum:
      '12: 3.18 · 10: 2 · 8: 1.28 · 6: 0.808 · 4: 0.508 · 3: 0.403 · 2: 0.319 · 1: 0.253 · 1/0: 0.201 · 2/0: 0.159 · 3/0: 0.126 · 4/0: 0.1 · 250: 0.0847 · 300: 0.0707 · 350: 0.0605 · 400: 0.0529 · 500: 0.0424 · 600: 0.0353',
  };
  for (const material of ['copper', 'aluminum'] as const) {
    const typed = new Map(rows(ohms[material]));
    for (const g of GAUGES_BY_SIZE)
      assert.equal(ohmsPerThousandFeet(g, material, 75), typed.get(g)?.[0] ?? null, `${g} ${material}`);
  }
  // 50 degrees below the table: its coefficient by itself.
  assert.ok(Math.abs(ohmsPerThousandFeet('10', 'copper', 25)! - 1.21 * 0.8385) < 1e-9);
  assert.ok(Math.abs(ohmsPerThousandFeet('10', 'aluminum', 25)! - 2 * 0.835) < 1e-9);
});

test('standard ratings, each again, and the next of them at both sides', () => {
  const typed = '15 20 25 30 35 40 45 50 60 70 80 90 100 110 125 150 175 200 225 250 300 350 400'
    .split(' ')
    .map(Number);
  assert.deepEqual([...STANDARD_BREAKERS], typed);
  typed.forEach((rating, k) => {
    assert.equal(standardBreaker(rating), rating);
    assert.equal(standardBreaker(rating + 0.01), typed[k + 1] ?? null);
    assert.equal(standardAtMost(rating), rating);
    assert.equal(standardAtMost(rating - 0.01), typed[k - 1] ?? null);
    for (const edition of ['2017', '2020', '2023'] as const) assert.ok(isStandardRating(rating, edition));
  });
  assert.deepEqual(
    (['2017', '2020', '2023'] as const).map((edition) => isStandardRating(10, edition)),
    [false, false, true],
  );
  assert.equal(isStandardRating(11, '2023'), false);
});

test('equipment grounds at both sides of every row', () => {
  const typed: [number, Gauge, Gauge][] = [
    [15, '14', '12'],
    [20, '12', '10'],
    [60, '10', '8'],
    [100, '8', '6'],
    [200, '6', '4'],
    [300, '4', '2'],
    [400, '3', '1'],
  ];
  typed.forEach(([rating, copper, aluminum], k) => {
    for (const amps of [rating, (typed[k - 1]?.[0] ?? 0) + 1])
      assert.deepEqual([tableGround(amps, 'copper'), tableGround(amps, 'aluminum')], [copper, aluminum]);
  });
});

test('sizes in words and the cables they are made in, at both sides', () => {
  assert.deepEqual((['4/0', '250', '600', '14'] as const).map(sizeName), [
    '4/0 AWG',
    '250 kcmil',
    '600 kcmil',
    '14 AWG',
  ]);
  for (const cable of ['NM-B', 'old NM', 'old two-wire'] as const)
    assert.deepEqual([isMade('2', cable), isMade('1', cable)], [true, false], cable);
  assert.deepEqual(
    [isMade('4/0', 'UF-B'), isMade('250', 'UF-B'), isMade('600', 'raceway')],
    [true, false, true],
  );
});

test('room of conductors and of boxes, each figure again', () => {
  assert.deepEqual(
    FILL_GAUGES.map((g) => CONDUCTOR_VOLUME[g]),
    [1.5, 1.75, 2, 2.25, 2.5, 3, 5],
  );
  assert.deepEqual([isFillGauge('6'), isFillGauge('4')], [true, false]);
  const typed = rows(
    'device 3 × 2 × 1½: 7.5/1 · device 3 × 2 × 2: 10/1 · device 3 × 2 × 2¼: 10.5/1 · device 3 × 2 × 2½: 12.5/1 · device 3 × 2 × 2¾: 14/1 · device 3 × 2 × 3½: 18/1 · device 4 × 2⅛ × 1½: 10.3/1 · device 4 × 2⅛ × 1⅞: 13/1 · device 4 × 2⅛ × 2⅛: 14.5/1 · octagon 4 × 1¼: 12.5/1 · octagon 4 × 1½: 15.5/1 · octagon 4 × 2⅛: 21.5/1 · square 4 × 1¼: 18/2 · square 4 × 1½: 21/2 · square 4 × 2⅛: 30.3/2 · square 4¹¹⁄₁₆ × 1¼: 25.5/2 · square 4¹¹⁄₁₆ × 1½: 29.5/2 · square 4¹¹⁄₁₆ × 2⅛: 42/2 · masonry 3¾ × 2 × 2½: 14/1 · masonry 3¾ × 2 × 3½: 21/1 · single gang: 18/1 · single gang, deep: 20.3/1 · single gang, deepest: 22.5/1 · two gang: 32/2 · two gang, deep: 42/2',
  );
  assert.deepEqual(
    USUAL_BOXES.map((b): [string, number[]] => [b.name, [b.volume, b.gangs]]),
    typed,
  );
});

/** Areas of Table 4 beside its diameters, square inches. */
const AREAS: Record<(typeof RACEWAYS)[number], string> = {
  EMT: '0.304 0.533 0.864 1.496 2.036 3.356',
  'PVC-40': '0.285 0.508 0.832 1.453 1.986 3.291',
  'PVC-80': '0.217 0.409 0.688 1.237 1.711 2.874',
  RMC: '0.314 0.549 0.887 1.526 2.071 3.408',
  FMC: '0.317 0.533 0.817 1.277 1.858 3.269',
  'LFNC-B': '0.314 0.541 0.873 1.528 1.981 3.246',
};
test('inside diameters give the areas that stand beside them', () => {
  for (const kind of RACEWAYS)
    AREAS[kind].split(' ').forEach((area, k) => {
      const d = INSIDE_DIAMETER[kind][TRADE_SIZES[k]!];
      assert.ok(Math.abs((Math.PI / 4) * d ** 2 - Number(area)) < 0.0012, `${kind} ${TRADE_SIZES[k]}`);
    });
});

/** Areas of Tables 5 and 8 from 14 AWG to 4/0, in ten-thousandths of a square inch. */
const WIRE_AREAS: Record<(typeof WIRES)[number], string> = {
  THHN: '97 133 211 366 507 824 973 1158 1562 1855 2223 2679 3237',
  'XHHW-2': '139 181 243 437 590 814 962 1146 1534 1825 2190 2642 3197',
  bare: '30 50 80 130 270 420 530 670 870 1090 1370 1730 2190',
  'RHW-2': '209 260 333 556 726 973 1134 1333 1901 2223 2624 3117 3718',
};
test('areas of conductors, each again, and by their diameters', () => {
  for (const wire of WIRES)
    WIRE_AREAS[wire].split(' ').forEach((area, k) => {
      const gauge = GAUGES_BY_SIZE[k]!;
      assert.equal(Math.round(1e4 * wireArea(wire, gauge)! * 100) / 100, Number(area), `${wire} ${gauge}`);
      // Bare ones are rounded to a thousandth of a square inch, the others to a ten-thousandth; diameters to a thousandth.
      const d = wireDiameter(wire, gauge)!;
      const off = Math.abs((Math.PI / 4) * d ** 2 - wireArea(wire, gauge)!);
      assert.ok(off < (wire === 'bare' ? 0.0005 : 0.00005) + (Math.PI / 2) * d * 0.0005, `${wire} ${gauge}`);
    });
});

test('diameters of conductors, each figure again', () => {
  const typed: Record<(typeof WIRES)[number], string> = {
    THHN: '111 130 164 216 254 324 352 384 446 486 532 584 642',
    'XHHW-2': '133 152 176 236 274 322 350 382 442 482 528 580 638',
    bare: '64 81 102 128 184 232 260 292 332 372 418 470 528',
    'RHW-2': '163 182 206 266 304 352 380 412 492 532 578 630 688',
  };
  for (const wire of WIRES)
    typed[wire]
      .split(' ')
      .forEach((d, k) =>
        assert.equal(Math.round(1e6 * wireDiameter(wire, GAUGES_BY_SIZE[k]!)!) / 1e3, Number(d)),
      );
});

test('demand of ranges: each of one to five, the notes above 12 kW and below 8.75 kW', () => {
  const demand = (...kilowatts: number[]) => {
    const found = rangeDemand(kilowatts.map((kw) => ({ va: 1000 * kw })));
    return found.ok ? Math.round(found.value.va) : null;
  };
  assert.deepEqual(
    [1, 2, 3, 4, 5].map((n) => demand(...new Array<number>(n).fill(12))),
    [8000, 11000, 14000, 17000, 20000],
  );
  assert.equal(demand(...new Array<number>(6).fill(12)), null);
  assert.equal(demand(), 0);
  // 14.4 kW: two steps; 14.5 kW: three.
  assert.deepEqual([demand(12.4), demand(12.5), demand(14.4), demand(14.5)], [8000, 8400, 8800, 9200]);
  assert.deepEqual([demand(27), demand(27.1)], [14000, null]);
  // The mean of 12 (for 9) and 16 is 14.
  assert.equal(demand(9, 16), 12100);
  // Shares of columns A and B where that is less; above 8.75 kW never.
  assert.deepEqual(
    [1, 2, 3, 4, 5].map((n) => demand(...new Array<number>(n).fill(3))),
    [2400, 4500, 6300, 7920, 9300],
  );
  assert.deepEqual(
    [1, 2, 3, 4, 5].map((n) => demand(...new Array<number>(n).fill(4))),
    [3200, 5200, 6600, 8000, 9000],
  );
  assert.deepEqual([demand(3.4), demand(3.5)], [2720, 2800]);
  assert.equal(demand(3, 3, 4), 4500 + 3200);
  assert.deepEqual([demand(8.75), demand(8.8)], [7000, 8000]);
  const words = rangeDemand([{ va: 4000 }]);
  assert.match(words.ok ? words.value.working : '', /^80 % × 4,000$/);
  const stepped = rangeDemand([{ va: 14000 }]);
  assert.match(stepped.ok ? stepped.value.working : '', /^8 kW × \(1 \+ 2 × 5 %\)$/);
});

test('what circuits may be shared for, each figure again', () => {
  assert.deepEqual(
    [VEHICLE_SHARED['2017'], VEHICLE_SHARED['2020'], VEHICLE_SHARED['2023']],
    [null, { amps: 16, volts: 120 }, { amps: 16, volts: 120 }],
  );
  assert.deepEqual([SEVERAL_MOST, DWELLING_SHARE], [20, 0.83]);
});

test('full-load current of motors, each figure again, at both sides of each column of volts', () => {
  const typed = rows(
    '0.16666666666666666: 4.4/2.4/2.2 · 0.25: 5.8/3.2/2.9 · 0.3333333333333333: 7.2/4/3.6 · 0.5: 9.8/5.4/4.9 · 0.75: 13.8/7.6/6.9 · 1: 16/8.8/8 · 1.5: 20/11/10 · 2: 24/13.2/12 · 3: 34/18.7/17 · 5: 56/30.8/28 · 7.5: 80/44/40 · 10: 100/55/50',
  );
  for (const [power, [low, middle, high]] of typed) {
    const hp = Number(power);
    assert.deepEqual(
      [115, 150, 151, 215, 216, 240].map((volts) => motorAmps(hp, volts)),
      [low, low, middle, middle, high, high],
      power,
    );
    assert.deepEqual([motorAmps(hp - 0.009, 230), motorAmps(hp + 0.011, 230)], [high, null]);
  }
});

test('openings that go through a wall, and those that a cord can take', () => {
  const of = (test: (o: Opening) => boolean) => OPENING_KINDS.filter((kind) => test({ kind } as Opening));
  assert.deepEqual(of(goesThrough), ['door', 'opening', 'sliding-panel', 'fixed-glass', 'window']);
  assert.deepEqual(of(isPassage), ['door', 'opening', 'sliding-panel']);
  assert.equal(LARGEST_SERVICE, 400);
});

const words = (text: string): string[] => text.split(' ').sort();
/** Fixtures of which something is so. */
const fixturesThat = (is: (facts: FixtureFacts) => boolean): string[] =>
  FIXTURE_KINDS.filter((kind) => is(FIXTURES[kind])).sort();

const FIXTURE_LISTS: [string, (facts: FixtureFacts) => boolean, string][] = [
  [
    'fastened in place',
    (f) => f.fastened,
    'basin sink tub shower counter island peninsula appliance-garage cooktop wall-oven hood dishwasher water-heater bath-heater exhaust-fan tankless-heater boiler hood-microwave toilet hydromassage-tub',
  ],
  [
    'not easily moved',
    (f) => !f.easilyMoved,
    'range cooktop wall-oven microwave refrigerator dishwasher washer dryer water-heater tankless-heater boiler hood-microwave',
  ],
  [
    'with a motor',
    (f) => f.motor,
    'hood disposal furnace air-handler outdoor-unit heat-pump evaporative-cooler sump-pump exhaust-fan room-cooler motor',
  ],
  [
    'heavy before its nameplate is read',
    (f) => f.heavy,
    'range cooktop wall-oven dryer water-heater air-handler outdoor-unit heat-pump kiln vehicle-charger baseboard-heater tankless-heater boiler',
  ],
  [
    'on a circuit of its own',
    (f) => f.ownCircuit,
    'range cooktop wall-oven microwave dishwasher disposal dryer water-heater furnace air-handler outdoor-unit heat-pump sump-pump kiln vehicle-charger tankless-heater boiler hood-microwave',
  ],
  ['fixed in a kitchen', (f) => f.fixedInKitchen, 'hood dishwasher disposal hood-microwave fixed-equipment'],
  ['of a laundry', (f) => f.laundry, 'washer dryer'],
  ['for cooking', (f) => f.cooking, 'range cooktop wall-oven'],
  ['serviced', (f) => f.serviced, 'furnace air-handler outdoor-unit heat-pump evaporative-cooler boiler'],
  ['a counter at the wall', (f) => f.counter === 'wall', 'counter appliance-garage'],
  ['a counter that stands free', (f) => f.counter === 'free', 'island peninsula'],
  ['water', (f) => f.water !== null, 'basin sink tub shower'],
  ['a tub or shower', (f) => f.water === 'bathing', 'tub shower'],
  [
    'out of scope',
    (f) => f.outOfScope !== null,
    'hydromassage-tub hot-tub pool fountain sauna generator inverter',
  ],
];
for (const [what, is, kinds] of FIXTURE_LISTS)
  test(`fixtures again: ${what}`, () => assert.deepEqual(fixturesThat(is), words(kinds)));

test('what is asked of a fixture is what its record says', () => {
  for (const kind of FIXTURE_KINDS) {
    const { serviced, water, counter, outOfScope: out } = FIXTURES[kind];
    assert.deepEqual(
      [isServiced, isTub, isWater, isCounter, isIsland].map((ask) => ask({ kind })),
      [serviced, water === 'bathing', water !== null, counter === 'wall', counter === 'free'],
      kind,
    );
    assert.equal(outOfScope({ kind }), out);
  }
  assert.equal(outOfScope(undefined), null);
});

test('the size that a fixture starts with, each figure again, inches', () => {
  const typed = rows(
    'basin: 22/18/33 · sink: 30/20/36 · tub: 60/30/20 · shower: 36/36/4 · counter: 72/24/36 · island: 60/30/36 · peninsula: 30/60/36 · appliance-garage: 24/16/54 · range: 30/26/36 · cooktop: 30/21/36 · wall-oven: 30/24/84 · microwave: 30/16/66 · hood: 30/20/66 · refrigerator: 36/30/70 · dishwasher: 24/24/34 · disposal: 10/10/20 · washer: 27/30/38 · dryer: 27/30/38 · water-heater: 22/22/58 · furnace: 24/28/60 · air-handler: 24/22/50 · outdoor-unit: 36/32/40 · heat-pump: 36/32/40 · evaporative-cooler: 36/36/40 · sump-pump: 18/18/10 · kiln: 34/34/38 · vehicle-charger: 10/6/54 · television: 55/4/60 · baseboard-heater: 72/3/8 · floor-heat: 60/36/1 · bath-heater: 16/8/84 · exhaust-fan: 12/12/96 · tankless-heater: 18/6/60 · boiler: 20/14/60 · hood-microwave: 30/16/66 · toilet: 20/28/30 · bidet-seat: 16/20/18 · room-cooler: 24/20/60 · motor: 20/16/20 · fixed-equipment: 24/24/36 · hydromassage-tub: 72/42/24 · hot-tub: 84/84/36 · pool: 192/384/0 · fountain: 48/48/30 · sauna: 72/60/84 · generator: 48/26/29 · inverter: 30/10/60',
  );
  assert.deepEqual(
    Object.fromEntries(typed),
    Object.fromEntries(FIXTURE_KINDS.map((k) => [k, [...FIXTURES[k].size]])),
  );
});

test('rooms again: wall spacing, arcs, and ground faults by edition', () => {
  const area = (kind: AreaKind, more: Partial<Area['conditions']> = {}): Area => ({
    ...room([144, 120, 144, 120]),
    kind,
    conditions: conditions(more),
  });
  const spaced = 'bedroom living family dining den recreation sunroom kitchen pantry basement-finished';
  const kinds = (is: (a: Area) => boolean) => AREA_KINDS.filter((k) => is(area(k))).sort();
  assert.deepEqual(kinds(hasWallRule), words(spaced));
  assert.deepEqual(kinds(isArcRoom), words(`${spaced} hallway foyer stairs closet laundry`));
  assert.deepEqual(kinds(isOutside), words('outdoors deck'));
  const protectedIn = (edition: Edition, which: 'all' | 'counter') =>
    kinds((a) => gfciEntry(a, undefined, edition).which === which);
  const always = 'laundry bathroom garage basement-unfinished crawl-space accessory boathouse outdoors deck';
  assert.deepEqual(protectedIn('2017', 'all'), words(always));
  assert.deepEqual(protectedIn('2020', 'all'), words(`${always} basement-finished`));
  assert.deepEqual(protectedIn('2023', 'all'), words(`${always} basement-finished kitchen`));
  assert.deepEqual(
    EDITIONS.map((e) => protectedIn(e, 'counter')),
    [['kitchen'], ['kitchen'], []],
  );
  // An outbuilding lived in, or above grade: at both sides of 12 in.
  const which = (more: Partial<Area['conditions']>) =>
    gfciEntry(area('accessory', more), undefined, '2020').which;
  assert.deepEqual([{}, { aboveGrade: 12 }, { aboveGrade: 12.1 }, { habitable: true }].map(which), [
    'all',
    'all',
    'none',
    'none',
  ]);
  assert.deepEqual(
    [hasWallRule, isArcRoom].map((is) => is(area('accessory', { habitable: true }))),
    [true, true],
  );
  assert.deepEqual(
    [12, 12.1].map((elevation) => atOrBelowGrade(area('den'), { id: 'l', name: 'L', elevation })),
    [true, false],
  );
  assert.equal(NEAR_WATER, 72);
  const exposure = (kind: AreaKind, location: Area['location']) => exposureOf({ ...area(kind), location });
  assert.deepEqual(
    [exposure('deck', 'dry'), exposure('deck', 'wet'), exposure('den', 'dry'), exposure('den', 'damp')],
    ['damp', 'wet', 'dry', 'damp'],
  );
});
