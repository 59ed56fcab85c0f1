/** Box fill worked by hand from 314.16(B), edition by edition, and held against a slow obvious count. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { EDITIONS, type Edition } from '#core/job/schema.ts';
import { CONDUCTOR_VOLUME, FILL_GAUGES, USUAL_BOXES, type FillGauge } from '#core/tables/boxes.ts';
import { STANDS } from '#core/job/schema.ts';
import { EMPTY_BOX, fillOf, fits, smallestBox, type BoxContents } from './fill.ts';

const ends = (count: number, gauge: FillGauge = '14') => ({ gauge, count, stands: 'ends' as const });
const passes = (count: number, gauge: FillGauge = '14') => ({ gauge, count, stands: 'passes' as const });
const loops = (count: number, gauge: FillGauge = '14') => ({ gauge, count, stands: 'loops' as const });
const g = (count: number, gauge: FillGauge = '14') => [{ gauge, count }];
const yoke = (gauge: FillGauge = '14', gangs = 1) => ({ gauge, gangs });
const box = (values: Partial<BoxContents>): BoxContents => ({ ...EMPTY_BOX, ...values });
/** Cables of two conductors and a ground, and a device on them. */
const cables = (n: number, gauge: FillGauge, more: Partial<BoxContents> = {}) =>
  box({ conductors: [ends(2 * n, gauge)], grounds: g(n, gauge), yokes: [yoke(gauge)], ...more });

type Volumes = number | readonly [in2017: number, later: number];
const ROWS: [what: string, contents: BoxContents, volume: Volumes][] = [
  ['nothing', EMPTY_BOX, 0],
  ['one 14/2 and a device: 2×2 + 2 + 4', cables(1, '14'), 10],
  ['two 14/2 and a device: 4×2 + 2 + 4', cables(2, '14'), 14],
  ['three 14/2: 6×2 + 2 + 4', cables(3, '14'), 18],
  ['four 14/2: 8×2 + 2 + 4', cables(4, '14'), 22],
  ['five 14/2, five grounds: 10×2 + 2 (2.5) + 4', cables(5, '14'), [26, 26.5]],
  ['six 14/2: 12×2 + 2 (3) + 4', cables(6, '14'), [30, 31]],
  ['one 12/2: 2×2.25 + 2.25 + 4.5', cables(1, '12'), 11.25],
  ['two 12/2: 4×2.25 + 2.25 + 4.5', cables(2, '12'), 15.75],
  ['three 12/2: 6×2.25 + 2.25 + 4.5', cables(3, '12'), 20.25],
  ['four 12/2: 8×2.25 + 2.25 + 4.5', cables(4, '12'), 24.75],
  ['five 12/2: grounds 2.25 or 2.8125', cables(5, '12'), [29.25, 29.8125]],
  ['two 10/2: 4×2.5 + 2.5 + 5', cables(2, '10'), 17.5],
  ['two 14/2 with clamps inside: + 2', cables(2, '14', { clamps: true }), 16],
  ['two 12/2 with clamps inside: + 2.25', cables(2, '12', { clamps: true }), 18],
  ['three 12/2 with clamps: 22.5', cables(3, '12', { clamps: true }), 22.5],
  ['a stud: + 2', cables(2, '14', { fittings: 1 }), 16],
  ['a stud and a hickey: + 4', cables(2, '14', { fittings: 2 }), 18],
  ['two devices on 14: + 4', cables(2, '14', { yokes: [yoke(), yoke()] }), 18],
  ['two devices on 12: 4×2.25 + 2.25 + 9', cables(2, '12', { yokes: [yoke('12'), yoke('12')] }), 20.25],
  ['a junction box of two 14/2: 4×2 + 2', cables(2, '14', { yokes: [] }), 10],
  [
    'a junction box of three 12/2 with clamps: 13.5 + 2.25 + 2.25',
    cables(3, '12', { yokes: [], clamps: true }),
    18,
  ],
  ['14/3 in, device: 3×2 + 2 + 4', box({ conductors: [ends(3)], grounds: g(1), yokes: [yoke()] }), 12],
  [
    '14/3 and 14/2, three-way switch: 5×2 + 2 + 4',
    box({ conductors: [ends(5)], grounds: g(2), yokes: [yoke()] }),
    16,
  ],
  ['two 14/3, four-way: 6×2 + 2 + 4', box({ conductors: [ends(6)], grounds: g(2), yokes: [yoke()] }), 18],
  [
    '12/3 and 12/2: 5×2.25 + 2.25 + 4.5',
    box({ conductors: [ends(5, '12')], grounds: g(2, '12'), yokes: [yoke('12')] }),
    18,
  ],
  [
    'two-gang, 14/3 and two 14/2, two switches: 7×2 + 2 + 8',
    box({ conductors: [ends(7)], grounds: g(3), yokes: [yoke(), yoke()] }),
    24,
  ],
  [
    '12 and 14 mixed, device on 14: 4.5 + 4 + 2.25 + 4',
    box({ conductors: [ends(2, '12'), ends(2)], grounds: [...g(1, '12'), ...g(1)], yokes: [yoke('14')] }),
    14.75,
  ],
  [
    '12 and 14 mixed with clamps: the largest, + 2.25',
    box({
      conductors: [ends(2, '12'), ends(2)],
      grounds: [...g(1, '12'), ...g(1)],
      yokes: [yoke('14')],
      clamps: true,
    }),
    17,
  ],
  [
    'a 50 A range receptacle two gangs wide on 6 AWG: 3×5 + 2.5 + 4×5',
    box({ conductors: [ends(3, '6')], grounds: g(1, '10'), yokes: [yoke('6', 2)] }),
    37.5,
  ],
  [
    'a dryer receptacle two gangs wide on 10: 3×2.5 + 2.5 + 4×2.5',
    box({ conductors: [ends(3, '10')], grounds: g(1, '10'), yokes: [yoke('10', 2)] }),
    20,
  ],
  [
    'the same one gang wide: 3×2.5 + 2.5 + 5',
    box({ conductors: [ends(3, '10')], grounds: g(1, '10'), yokes: [yoke('10')] }),
    15,
  ],
  ['8 AWG for a charger: 2×3 + 2.5', box({ conductors: [ends(2, '8')], grounds: g(1, '10') }), 8.5],
  ['6 AWG hardwired: 2×5 + 2.5', box({ conductors: [ends(2, '6')], grounds: g(1, '10') }), 12.5],
  ['four conductors that pass: 4×2', box({ conductors: [passes(4)] }), 8],
  ['two that loop with length to spare: 4×2.25', box({ conductors: [loops(2, '12')] }), 9],
  [
    'raceway, six 12 passing and two ending, device: 8×2.25 + 4.5',
    box({ conductors: [passes(6, '12'), ends(2, '12')], yokes: [yoke('12')] }),
    22.5,
  ],
  [
    'raceway of metal, no ground: 4×2.25 + 4.5',
    box({ conductors: [ends(4, '12')], yokes: [yoke('12')] }),
    13.5,
  ],
  ['old two-wire, two cables, device: 4×2 + 4', box({ conductors: [ends(4)], yokes: [yoke()] }), 12],
  ['old two-wire with clamps: + 2', box({ conductors: [ends(4)], yokes: [yoke()], clamps: true }), 14],
  ['four grounds count one', box({ grounds: g(4, '12') }), 2.25],
  ['five grounds', box({ grounds: g(5, '12') }), [2.25, 2.8125]],
  ['eight grounds', box({ grounds: g(8, '12') }), [2.25, 4.5]],
  ['twelve grounds of 14', box({ grounds: g(12) }), [2, 6]],
  ['mixed grounds count by the largest', box({ grounds: [...g(3), ...g(2, '10')] }), [2.5, 3.125]],
  [
    'isolated grounds: one more in 2017, a quarter rule later',
    box({ grounds: g(2, '12'), isolatedGrounds: g(2, '12') }),
    [4.5, 2.25],
  ],
  ['isolated grounds above four', box({ grounds: g(3, '12'), isolatedGrounds: g(2, '12') }), [4.5, 2.8125]],
  ['isolated ones alone', box({ isolatedGrounds: g(1, '12') }), 2.25],
  ['a terminal block on 10', box({ conductors: [ends(4, '10')], terminals: '10' }), 12.5],
  ['a light: one 14/2, a stud: 4 + 2 + 2', box({ conductors: [ends(2)], grounds: g(1), fittings: 1 }), 8],
  [
    'a light with three 14/2 and clamps: 12 + 2 + 2',
    box({ conductors: [ends(6)], grounds: g(3), clamps: true }),
    16,
  ],
  ['fixture wires of 18 from a deep canopy: 4×1.5', box({ conductors: [ends(4, '18')] }), 6],
  [
    '16 AWG fixture wires beside a 14/2: 3.5 + 4 + 2',
    box({ conductors: [ends(2, '16'), ends(2)], grounds: g(1) }),
    9.5,
  ],
  ['clamps of a box with nothing in it count nothing', box({ clamps: true }), 0],
  ['a GFCI on 12 with two 12/2: as any device', cables(2, '12'), 15.75],
  ['tails count nothing: the same with pigtails', cables(2, '14'), 14],
  [
    'three switches on three 14/2 and a 14/3: 9×2 + 2 + 12',
    box({ conductors: [ends(9)], grounds: g(4), yokes: [yoke(), yoke(), yoke()] }),
    32,
  ],
  [
    'the same with a fifth cable: 11×2 + 2 (2.5) + 12',
    box({ conductors: [ends(11)], grounds: g(5), yokes: [yoke(), yoke(), yoke()] }),
    [36, 36.5],
  ],
  [
    'a multiwire 12/3 passing with a split duplex: 6×2.25 + 2.25 + 4.5',
    box({ conductors: [ends(6, '12')], grounds: g(2, '12'), yokes: [yoke('12')] }),
    20.25,
  ],
  [
    'two circuits in one box, 14/2 and 12/2, a device each: 4 + 4.5 + 2.25 + 4 + 4.5',
    box({
      conductors: [ends(2), ends(2, '12')],
      grounds: [...g(1), ...g(1, '12')],
      yokes: [yoke(), yoke('12')],
    }),
    19.25,
  ],
  [
    'six 10/2 spliced: 12×2.5 + 2.5 (3.75)',
    box({ conductors: [ends(12, '10')], grounds: g(6, '10') }),
    [32.5, 33.75],
  ],
];

for (const [what, contents, expected] of ROWS)
  for (const edition of EDITIONS)
    test(`fill, ${edition}: ${what}`, () => {
      const later = edition === '2017' ? 0 : 1;
      const volume = typeof expected === 'number' ? expected : expected[later]!;
      const fill = fillOf(contents, edition);
      assert.ok(Math.abs(fill.volume - volume) < 1e-9, `${fill.volume} for ${volume}`);
    });

const gauge = fc.constantFrom(...FILL_GAUGES);
const few = fc.nat(9);
const anything: fc.Arbitrary<BoxContents> = fc.record({
  conductors: fc.array(fc.record({ gauge, count: few, stands: fc.constantFrom(...STANDS) }), {
    maxLength: 4,
  }),
  grounds: fc.array(fc.record({ gauge, count: few }), { maxLength: 3 }),
  isolatedGrounds: fc.array(fc.record({ gauge, count: fc.nat(2) }), { maxLength: 1 }),
  clamps: fc.boolean(),
  fittings: fc.nat(2),
  yokes: fc.array(fc.record({ gauge, gangs: fc.constantFrom(1, 2) }), { maxLength: 3 }),
  terminals: fc.option(gauge),
});

/** Every allowance as a conductor of its own, one by one. */
function slowCount(c: BoxContents, edition: Edition): number {
  const v: number[] = [];
  const sizes: number[] = [];
  for (const { gauge, count, stands } of c.conductors)
    for (let i = 0; i < count; i++) {
      sizes.push(CONDUCTOR_VOLUME[gauge]);
      v.push(CONDUCTOR_VOLUME[gauge]);
      if (stands === 'loops') v.push(CONDUCTOR_VOLUME[gauge]);
    }
  const each = (list: BoxContents['grounds']) =>
    list.flatMap(({ gauge, count }) => Array.from({ length: count }, () => CONDUCTOR_VOLUME[gauge]));
  const [plain, isolated] = [each(c.grounds), each(c.isolatedGrounds)];
  if (edition === '2017')
    for (const set of [plain, isolated]) v.push(...(set.length > 0 ? [Math.max(...set)] : []));
  else {
    const all = [...plain, ...isolated];
    all.forEach((_, i) => v.push(i === 0 ? Math.max(...all) : i < 4 ? 0 : Math.max(...all) / 4));
  }
  sizes.push(...plain, ...isolated);
  const most = Math.max(0, ...sizes);
  if (c.clamps) v.push(most);
  for (let i = 0; i < c.fittings; i++) v.push(most);
  for (const { gauge, gangs } of c.yokes) for (let i = 0; i < 2 * gangs; i++) v.push(CONDUCTOR_VOLUME[gauge]);
  if (c.terminals !== null) v.push(CONDUCTOR_VOLUME[c.terminals]);
  return v.reduce((a, b) => a + b, 0);
}

test('the fill equals a slow count, one conductor at a time, and its lines add up to it', () => {
  fc.assert(
    fc.property(anything, fc.constantFrom(...EDITIONS), (contents, edition) => {
      const { volume, lines } = fillOf(contents, edition);
      assert.ok(Math.abs(volume - slowCount(contents, edition)) < 1e-9);
      assert.ok(Math.abs(lines.reduce((sum, l) => sum + l.volume, 0) - volume) < 1e-9);
    }),
    { numRuns: 1000 },
  );
});

test('exactly full passes, a hundredth more does not; the smallest usual box is the smallest', () => {
  const fill = fillOf(cables(3, '14'), '2020');
  assert.equal(fill.volume, 18);
  assert.ok(fits(fill, 18));
  assert.ok(!fits(fill, 17.99));
  assert.deepEqual([smallestBox(fill, 'metal')?.volume, smallestBox(fill, 'nonmetallic')?.volume], [18, 18]);
  assert.equal(smallestBox(fill, 'metal', 2)?.name, 'square 4 × 1¼');
  assert.equal(smallestBox({ lines: [], volume: 43 }, 'metal'), null);
  fc.assert(
    fc.property(fc.float({ min: 1, max: 45, noNaN: true }), (volume) => {
      const found = smallestBox({ lines: [], volume }, 'metal');
      const all = USUAL_BOXES.filter((b) => b.material === 'metal' && b.volume >= volume).map(
        (b) => b.volume,
      );
      assert.equal(found?.volume ?? null, all.length > 0 ? Math.min(...all) : null);
    }),
  );
});
