import assert from 'node:assert/strict';
import { test } from 'node:test';
import { chain, house, opening, outlet, receptacle as device, room } from '../../job/testing.ts';
import type { Box, Circuit, Edition } from '../../job/schema.ts';
import { check } from '../checker.ts';
import type { Level } from '../rule.ts';
import { run } from '../../job/commands.ts';

type House = Parameters<typeof house>[0];
const one = (values: Partial<Box> = {}, circuit: Partial<Circuit> = {}): NonNullable<House> => {
  const box = outlet('A', 1, 60, values);
  return { boxes: [box], circuits: [chain([box], circuit)] };
};
const breaker = (
  rating: Circuit['breaker']['rating'],
  protection: Circuit['breaker']['protection'] = 'none',
) => ({ breaker: { rating, protection, poles: 1 as const } });
const old = { status: 'existing' } as const;

/** Rule, what, house, edition, expected level (null: silent), words in its message or section. */
const CASES: [string, string, House, Edition, Level | null, RegExp?][] = [
  ['room-outline', 'a room that closes', {}, '2020', 'satisfied'],
  ['room-outline', 'a room 4 in. short', { area: room([144, 120, 140, 120]) }, '2020', 'unknown', /4" west/],
  [
    'room-outline',
    'a room that crosses itself',
    { area: room([100, 100, 50, 200, 50, 100], [90, 90, 90, 90, 90, 90]) },
    '2020',
    'unknown',
    /cross/,
  ],
  ['room-outline', 'two walls', { area: room([100, 100]) }, '2020', 'unknown', /needs three/],

  ['wall-spacing', 'an empty bedroom', {}, '2020', 'violation', /44' of wall out of reach/],
  ['wall-spacing', 'an empty hallway', { kind: 'hallway' }, '2020', null],
  [
    'wall-spacing',
    'a room that does not close is not judged',
    { area: room([144, 120, 100, 120]) },
    '2020',
    null,
  ],
  [
    'wall-spacing',
    'a wall 23 in. wide needs none',
    { area: room([23, 100, 23, 100]), openings: [opening(2, 0, 100), opening(3, 0, 23), opening(4, 0, 100)] },
    '2020',
    'satisfied',
  ],
  [
    'wall-spacing',
    'a wall 24 in. wide needs one',
    { area: room([24, 100, 24, 100]), openings: [opening(2, 0, 100), opening(3, 0, 24), opening(4, 0, 100)] },
    '2020',
    'violation',
    /2' of wall/,
  ],

  ['receptacle-rating', '15 A duplex on 20 A', one({ device: device({ rating: 15 }) }), '2020', 'satisfied'],
  [
    'receptacle-rating',
    '20 A duplex on 15 A',
    one({}, { ...breaker(15), gauge: '14' }),
    '2020',
    'violation',
    /20 A on a 15 A circuit; allowed: 15 A/,
  ],
  [
    'receptacle-rating',
    '20 A receptacle tapped from 30 A',
    one({}, { ...breaker(30), gauge: '10' }),
    '2020',
    'violation',
    /allowed: 30 A/,
  ],
  [
    'receptacle-rating',
    'a single 15 A receptacle alone on 20 A',
    one({ device: device({ kind: 'single', rating: 15 }) }),
    '2020',
    'violation',
    /210\.21\(B\)\(1\)|single 15 A/,
  ],
  [
    'receptacle-rating',
    'a single 20 A receptacle alone on 20 A',
    one({ device: device({ kind: 'single' }) }),
    '2020',
    'satisfied',
  ],
  [
    'receptacle-rating',
    '50 A receptacle on 40 A',
    one({ device: device({ rating: 50 }) }, { ...breaker(40), gauge: '8' }),
    '2020',
    'satisfied',
  ],
  [
    'receptacle-rating',
    'any receptacle on 10 A',
    one({ device: device({ rating: 15 }) }, breaker(10)),
    '2023',
    'violation',
    /no receptacle belongs/,
  ],

  [
    'small-conductor',
    '14 AWG on 15 A',
    one({ device: device({ rating: 15 }) }, { ...breaker(15), gauge: '14' }),
    '2017',
    'satisfied',
  ],
  [
    'small-conductor',
    '14 AWG on 20 A',
    one({}, { ...breaker(20), gauge: '14' }),
    '2017',
    'violation',
    /20 A breaker on 14 AWG copper; at most 15 A/,
  ],
  [
    'small-conductor',
    '12 AWG aluminium on 20 A',
    one({}, { ...breaker(20), material: 'aluminium' }),
    '2020',
    'violation',
    /at most 15 A/,
  ],
  [
    'small-conductor',
    '10 AWG on 30 A',
    one({ device: device({ rating: 30 }) }, { ...breaker(30), gauge: '10' }),
    '2023',
    'satisfied',
  ],
  [
    'small-conductor',
    '6 AWG cable on 60 A',
    one({ device: device({ rating: 50 }) }, { ...breaker(60), gauge: '6' }),
    '2023',
    'violation',
    /at most 55 A/,
  ],

  ['voltage-drop', 'a short run', one(), '2020', 'satisfied'],
  [
    'voltage-drop',
    'a long measured run',
    (() => {
      const h = one();
      h.circuits![0]!.stops[0]!.measured = 1200;
      return h;
    })(),
    '2020',
    'recommended',
    /5\.1 % at A with 16 A/,
  ],

  ['gfci', 'a bedroom', one(), '2023', null],
  [
    'gfci',
    'a bathroom',
    { ...one(), kind: 'bathroom' },
    '2017',
    'violation',
    /every receptacle in a bathroom/,
  ],
  [
    'gfci',
    'a bathroom behind a GFCI breaker',
    { ...one({}, breaker(20, 'gfci')), kind: 'bathroom' },
    '2017',
    'satisfied',
    /provided by breaker/,
  ],
  [
    'gfci',
    'a bathroom with its own device',
    { ...one({ device: device({ kind: 'gfci' }) }), kind: 'bathroom' },
    '2020',
    'satisfied',
    /its own GFCI/,
  ],
  ['gfci', 'a finished basement in 2017', { ...one(), kind: 'basement-finished' }, '2017', null],
  [
    'gfci',
    'a finished basement in 2020',
    { ...one(), kind: 'basement-finished' },
    '2020',
    'violation',
    /210\.8|finished basement/,
  ],
  ['gfci', 'an unfinished basement in 2017', { ...one(), kind: 'basement-unfinished' }, '2017', 'violation'],
  ['gfci', 'a kitchen wall receptacle in 2020', { ...one(), kind: 'kitchen' }, '2020', null],
  ['gfci', 'a kitchen wall receptacle in 2023', { ...one(), kind: 'kitchen' }, '2023', 'violation'],
  [
    'gfci',
    'a kitchen counter receptacle in 2017',
    { ...one({ height: 44 }), kind: 'kitchen' },
    '2017',
    'violation',
    /counter/,
  ],
  [
    'gfci',
    '6 ft from a sink',
    one({ waterDistance: 72 }),
    '2017',
    'violation',
    /6' from a sink, tub or shower as measured/,
  ],
  ['gfci', '6 ft 1 in. from a sink', one({ waterDistance: 73 }), '2023', null],
  [
    'gfci',
    'a 30 A laundry receptacle in 2017',
    { ...one({ device: device({ rating: 30 }) }, { ...breaker(30), gauge: '10' }), kind: 'laundry' },
    '2017',
    null,
  ],
  [
    'gfci',
    'a 30 A laundry receptacle in 2020',
    { ...one({ device: device({ rating: 30 }) }, { ...breaker(30), gauge: '10' }), kind: 'laundry' },
    '2020',
    'violation',
  ],
  [
    'gfci',
    'a damp den in 2017',
    { ...one(), area: room([144, 120, 144, 120], undefined, { kind: 'den', location: 'damp' }) },
    '2017',
    null,
  ],
  [
    'gfci',
    'a damp den in 2020',
    { ...one(), area: room([144, 120, 144, 120], undefined, { kind: 'den', location: 'damp' }) },
    '2020',
    'violation',
    /damp/,
  ],
  [
    'gfci',
    'an existing bathroom receptacle left alone',
    { ...one(old), kind: 'bathroom' },
    '2020',
    'note',
    /existing and not altered/,
  ],
  [
    'gfci',
    'a replaced bathroom receptacle',
    { ...one({ status: 'replace' }), kind: 'bathroom' },
    '2020',
    'violation',
  ],

  [
    'afci',
    'a bedroom on a plain breaker',
    one({}, breaker(20)),
    '2020',
    'violation',
    /AFCI at the breaker: it supplies Room/,
  ],
  ['afci', 'a bedroom on an AFCI breaker', one({}, breaker(20, 'afci')), '2017', 'satisfied'],
  ['afci', 'a bedroom on a dual-function breaker', one({}, breaker(20, 'dual')), '2023', 'satisfied'],
  ['afci', 'a bathroom', { ...one({}, breaker(20)), kind: 'bathroom' }, '2023', null],
  [
    'afci',
    'a 30 A circuit in a laundry',
    { ...one({ device: device({ rating: 30 }) }, { ...breaker(30), gauge: '10' }), kind: 'laundry' },
    '2023',
    null,
  ],
  [
    'afci',
    'an existing circuit left alone',
    one(old, { ...breaker(15), status: 'existing', gauge: '14' }),
    '2020',
    'note',
  ],
  [
    'afci',
    'a replaced receptacle on an existing circuit',
    one({ status: 'replace' }, { ...breaker(15), status: 'existing', gauge: '14' }),
    '2020',
    'violation',
  ],

  [
    'tamper-resistant',
    'a plain receptacle',
    one({ device: device({ tamperResistant: false }) }),
    '2017',
    'violation',
  ],
  ['tamper-resistant', 'a tamper-resistant one', one(), '2017', 'satisfied'],
  [
    'tamper-resistant',
    'above 5 ft 6 in.',
    one({ height: 67, device: device({ tamperResistant: false }) }),
    '2020',
    null,
  ],
  [
    'tamper-resistant',
    'a two-slot replacement',
    one({ status: 'replace', device: device({ kind: 'two-slot', tamperResistant: false }) }),
    '2020',
    null,
  ],
  [
    'tamper-resistant',
    'an old one left alone',
    one({ ...old, device: device({ tamperResistant: false }) }),
    '2020',
    'note',
  ],

  ['weather-resistant', 'indoors', one(), '2020', null],
  ['weather-resistant', 'outdoors', { ...one(), kind: 'outdoors' }, '2020', 'violation', /damp location/],
  [
    'weather-resistant',
    'a wet place with the right device',
    {
      ...one({ device: device({ weatherResistant: true }) }),
      area: room([99, 99, 99, 99], undefined, { kind: 'outdoors', location: 'wet' }),
    },
    '2023',
    'satisfied',
    /while in use/,
  ],

  ['no-equipment-ground', 'a grounded box', one(), '2020', null],
  ['no-equipment-ground', 'not recorded', one({ grounding: 'unknown' }), '2020', 'unknown'],
  [
    'no-equipment-ground',
    'three slots, no ground, no GFCI',
    one({ ...old, grounding: 'none' }),
    '2020',
    'violation',
  ],
  [
    'no-equipment-ground',
    'two slots',
    one({ ...old, grounding: 'none', device: device({ kind: 'two-slot' }) }),
    '2020',
    'satisfied',
  ],
  [
    'no-equipment-ground',
    'behind a GFCI breaker',
    one({ ...old, grounding: 'none' }, breaker(20, 'gfci')),
    '2020',
    'satisfied',
    /breaker, with its labels/,
  ],

  ['on-a-circuit', 'no circuit', { boxes: [outlet('A', 1, 60)] }, '2020', 'unknown'],
  ['on-a-circuit', 'on a circuit', one(), '2020', null],
  ['shop-limit', 'one on a circuit', one(), '2020', null],
  [
    'shop-limit',
    'eleven on one circuit',
    (() => {
      const boxes = Array.from({ length: 11 }, (_, i) => outlet(`R${i}`, 1, 5 + i * 10));
      return { boxes, circuits: [chain(boxes)] };
    })(),
    '2020',
    'recommended',
    /habit is 10/,
  ],
];

for (const [id, what, parts, edition, level, words] of CASES) {
  test(`${id}, ${edition}: ${what} → ${level ?? 'silent'}`, () => {
    const found = check(house({ ...parts, edition })).filter((f) => f.rule === id);
    assert.deepEqual([...new Set(found.map((f) => f.level))], level === null ? [] : [level]);
    if (words) assert.match(`${found[0]!.message} ${found[0]!.section}`, words);
  });
}

test('every rule stands in the table, violated or advised and satisfied or silent', () => {
  const ids = new Set(CASES.map(([id]) => id));
  for (const id of ids) {
    const levels = CASES.filter(([i]) => i === id).map((c) => c[4]);
    assert.ok(
      levels.some((l) => l !== null && l !== 'satisfied'),
      id,
    );
    assert.ok(
      levels.some((l) => l === null || l === 'satisfied'),
      id,
    );
  }
});

test('every fix that is a command mends what it is offered for', () => {
  let tried = 0;
  for (const [, what, parts, edition] of CASES) {
    const document = house({ ...parts, edition });
    for (const finding of check(document)) {
      for (const fix of finding.fixes) {
        if (!('command' in fix)) continue;
        tried++;
        const after = check(run(document, fix.command).document);
        assert.ok(
          !after.some(
            (f) => f.key === finding.key && f.level === 'violation' && f.message === finding.message,
          ),
          `${what}: ${fix.label}`,
        );
      }
    }
  }
  assert.ok(tried > 15, `${tried} fixes tried`);
});

test('sections follow the edition', () => {
  const section = (edition: Edition, parts: House, id: string) =>
    check(house({ ...parts, edition })).find((f) => f.rule === id)!.section;
  assert.equal(section('2020', one({ waterDistance: 10 }), 'gfci'), '210.8(A)(7)');
  assert.equal(section('2023', one({ waterDistance: 10 }), 'gfci'), '210.8(A)(8)');
  assert.equal(section('2023', { ...one(), kind: 'laundry' }, 'gfci'), '210.8(A)(11)');
  assert.equal(section('2023', one(), 'afci'), '210.12(B)');
  assert.equal(section('2017', one(), 'afci'), '210.12(A)');
  assert.equal(
    section('2020', { ...one({ status: 'replace' }), kind: 'bathroom' }, 'gfci'),
    '406.4(D)(3), 210.8(A)(1)',
  );
});
