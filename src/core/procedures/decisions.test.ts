/** What procedures work out, on worked cases: what to fit, legs, neutrals, three-ways, elements, capacity. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { breakerOf, newId } from '#core/job/document.ts';
import { chain, house, outlet, receptacle, room } from '#core/job/testing.ts';
import type { AreaKind, Box, Call, Circuit, Edition, Entry, JobDocument } from '#core/job/schema.ts';
import { View } from '#core/view/view.ts';
import { contextOf } from './engine.ts';
import { neutralVerdict } from './list/dim-lights.ts';
import { mayStay } from './list/four-wire.ts';
import { capacityOf } from './list/panel-capacity.ts';
import { patternWords } from './list/three-way.ts';
import { elementOhms } from './list/water-heater.ts';
import { candidatesFor, panelOf, searchFor } from './parts/breaker.ts';
import { fittings } from './parts/fit.ts';
import { dropOf, legsWords } from './parts/twoHots.ts';
import type { Context } from './step.ts';

const CALL: Call = {
  id: 'call-1',
  procedure: 'replace-receptacle',
  words: '',
  opened: '2026-05-04T14:00:00Z',
  by: 'A',
  boxId: 'box-a',
  circuitId: null,
  fixtureId: null,
};
type Figures = Record<string, number>;
const entry = (step: string, values: Partial<Entry>): Entry => ({
  id: newId('entry'),
  callId: CALL.id,
  step,
  title: '',
  said: '',
  touches: [],
  at: '2026-05-04T14:01:00Z',
  by: 'A',
  picks: [],
  value: null,
  figures: [],
  note: '',
  strikes: null,
  ...values,
});
const figures = (step: string, list: Figures): Entry =>
  entry(step, { figures: Object.entries(list).map(([name, value]) => ({ name, value })) });

function contextWith(document: JobDocument, entries: Entry[] = []): Context {
  const all = {
    ...document,
    calls: { [CALL.id]: CALL },
    entries: Object.fromEntries(entries.map((e) => [e.id, e])),
  };
  return contextOf(new View(all), CALL, '2026-05-04T15:00:00Z');
}

interface Old {
  kind?: AreaKind;
  edition?: Edition;
  box?: Partial<Box>;
  circuit?: Partial<Circuit>;
}
/** An old outlet in words on a circuit known in part. */
function oldOutlet({ kind = 'bedroom', edition = '2023', box = {}, circuit = {} }: Old): Context {
  const a = outlet('A', 1, 0, {
    wallId: null,
    status: 'existing',
    waterDistance: 1200,
    device: receptacle({ tamperResistant: false }),
    ...box,
  });
  const area = room([], [], { kind });
  const on = chain([a], {
    ordered: 'unknown',
    complete: 'unknown',
    status: 'existing',
    breaker: breakerOf(20),
    ...circuit,
  });
  return contextWith(house({ edition, area, boxes: [a], circuits: [on] }));
}
const allowed = (c: Context): string[] =>
  fittings(c, c.box!).flatMap((k) => (k.not === undefined ? [k.value] : []));

const FIT: readonly [what: string, old: Old, allowed: string[]][] = [
  // Bedrooms: a replacement brings AFCI, 406.4(D)(4).
  [
    'grounded bedroom',
    { box: { grounding: 'grounded' } },
    ['afci', 'dual-breaker', 'afci-breaker', 'gfci-afci'],
  ],
  // Three slots without a ground need GFCI as well: only both together, or a new circuit.
  [
    'bare bedroom',
    { box: { grounding: 'none' }, circuit: { cable: 'old two-wire' } },
    ['dual-breaker', 'gfci-afci', 'ground-afci', 'new-cable'],
  ],
  [
    'grounded bathroom on a circuit known whole',
    { kind: 'bathroom', box: { grounding: 'grounded' }, circuit: { complete: 'yes' } },
    ['gfci', 'dual-breaker', 'gfci-breaker', 'first'],
  ],
  // Nobody knows whether the circuit supplies a listed room: AFCI is then not excused.
  [
    'grounded bathroom, circuit known in part',
    { kind: 'bathroom', box: { grounding: 'grounded' } },
    ['dual-breaker', 'gfci-afci'],
  ],
  [
    'bare garage on a circuit known whole',
    { kind: 'garage', box: { grounding: 'none' }, circuit: { complete: 'yes', cable: 'old two-wire' } },
    ['gfci', 'dual-breaker', 'gfci-breaker', 'first', 'new-cable'],
  ],
  [
    'GFCI upstream already',
    {
      kind: 'bathroom',
      box: { grounding: 'none' },
      circuit: { complete: 'yes', cable: 'old two-wire', breaker: breakerOf(20, 'gfci') },
    },
    ['gfci', 'dual-breaker', 'gfci-breaker', 'first', 'new-ground', 'new-cable'],
  ],
];
for (const [what, old, expected] of FIT)
  test(`what to fit: ${what}`, () => {
    assert.deepEqual(allowed(oldOutlet(old)).sort(), [...expected].sort());
  });

test('like for like stays where no GFCI and no AFCI is asked for, and a plain one wants a ground', () => {
  const hall: Old = {
    kind: 'foyer',
    circuit: { complete: 'yes', cable: 'old two-wire' },
    box: { grounding: 'none', device: receptacle({ kind: 'two-slot', tamperResistant: false }) },
  };
  const choices = fittings(oldOutlet(hall), oldOutlet(hall).box!);
  assert.match(choices.find((k) => k.value === 'plain')!.not!, /no ground/);
  assert.ok(
    choices.every((k) => k.not === undefined || /406\.4|breaker|ground/.test(k.not)),
    'each refusal says why',
  );
  const [first] = choices;
  assert.equal(first!.first, true);
});

test('labels go with what has no ground: the GFCI its own, what it feeds both', () => {
  const c = oldOutlet({
    kind: 'garage',
    box: { grounding: 'none' },
    circuit: { complete: 'yes', cable: 'old two-wire' },
  });
  const labels = Object.fromEntries(fittings(c, c.box!).map((k) => [k.value, k.labels]));
  assert.deepEqual(labels['gfci'], ['No Equipment Ground']);
  assert.deepEqual(labels['gfci-breaker'], ['GFCI Protected', 'No Equipment Ground']);
});

const legs = (values: Figures) => contextWith(house({}), [figures('legs', values)]);
const LEGS: readonly [Figures, RegExp][] = [
  [{ xy: 240, xg: 120, yg: 120, xn: 120, yn: 120, ng: 0.2 }, /^In order$/],
  [{ xy: 2, xg: 120, yg: 120, xn: 120, yn: 120, ng: 0 }, /one leg/],
  [{ xy: 240, xg: 120, yg: 120, xn: 150, yn: 90, ng: 30 }, /neutral is open/],
  [{ xy: 208, xg: 120, yg: 120, xn: 120, yn: 120, ng: 0 }, /208 V/],
  [{ xy: 120, xg: 120, yg: 0, xn: 120, yn: 0, ng: 0 }, /One hot is missing/],
  [{ xy: 0, xg: 0, yg: 0, xn: 0, yn: 0, ng: 0 }, /No hot arrives/],
  [{ xy: 240, xg: 120, yg: 120, xn: 118, yn: 118, ng: 8 }, /bad joint/],
];
for (const [values, says] of LEGS)
  test(`two hots: ${JSON.stringify(values)}`, () => assert.match(legsWords(legs(values)), says));

test('a drop is printed with its amps, and makes a resistance: 4 V at 16 A are 0.25 Ω', () => {
  const found = dropOf(contextWith(house({}), [figures('load', { unloaded: 120, loaded: 116, amps: 16 })]))!;
  assert.deepEqual([found.drop, Math.round(found.percent * 100) / 100, found.ohms], [4, 3.33, 0.25]);
});

test('legs that part and keep their sum float on an open neutral', () => {
  const verdict = (values: Figures) => neutralVerdict(contextWith(house({}), [figures('legs', values)]));
  assert.equal(verdict({ a: 140, b: 100, ab: 240 }).open, true);
  assert.equal(verdict({ a: 121, b: 120, ab: 241, 'a-load': 112, 'b-load': 129 }).open, true);
  assert.equal(verdict({ a: 121, b: 120, ab: 241, 'a-load': 119, 'b-load': 121 }).open, false);
  assert.match(verdict({ a: 105, b: 106, ab: 211 }).says, /low/);
});

test('a three-way is told by its four positions', () => {
  const table: [string[], RegExp][] = [
    [['up-up', 'down-down'], /right/],
    [['up-down', 'down-up'], /right/],
    [['up-up'], /open/],
    [['up-up', 'up-down'], /does nothing/],
    [['up-up', 'up-down', 'down-up'], /touch/],
    [[], /Dead in all/],
    [['up-up', 'up-down', 'down-up', 'down-down'], /bridged/],
  ];
  for (const [lit, says] of table) assert.match(patternWords(lit), says);
});

test('an element of 4,500 W at 240 V reads 12.8 Ω', () => {
  assert.equal(elementOhms(240, 4500), 12.8);
});

test('an old three-wire circuit stays only on a neutral that 250.140 allows', () => {
  assert.equal(mayStay(['insulated']), true);
  assert.equal(mayStay(['se']), true);
  assert.equal(mayStay(['se', 'subpanel']), false);
  assert.equal(mayStay(['bare-nm']), false);
  assert.equal(mayStay(['insulated', 'new']), false);
});

test('measured demand: 1.25 × 62 A and a charger of 40 A are 117.5 A, too much for 100 A; held to 20 A it fits', () => {
  const base = [
    entry('what', { picks: ['charger'] }),
    figures('draw', { amps: 40 }),
    figures('service', { main: 100, free: 2 }),
    entry('method', { picks: ['measured'] }),
    figures('demand', { amps: 62 }),
  ];
  const plain = capacityOf(contextWith(house({}), base))!;
  assert.deepEqual([plain.amps, plain.fits, plain.spare], [117.5, false, 22.5]);
  const held = capacityOf(
    contextWith(house({}), [
      ...base,
      entry('managed', { picks: ['yes'] }),
      figures('managed-to', { amps: 20 }),
    ]),
  )!;
  assert.deepEqual([held.amps, held.fits], [97.5, true]);
});

test('nameplates by 220.83: first 8 kVA whole, the rest at 40 %', () => {
  // 1,500 ft² × 3 + 2 × 1,500 + 1,500 + 4,500 heater + 5,000 dryer + 9,600 charger = 28,100; 8,000 + 0.4 × 20,100 = 16,040.
  const c = contextWith(house({}), [
    entry('what', { picks: ['charger'] }),
    figures('draw', { amps: 40 }),
    figures('service', { main: 100, free: 2 }),
    entry('method', { picks: ['plates'] }),
    figures('house', { area: 1500 }),
    figures('appliances', { 'water-heater': 4500, dryer: 5000 }),
  ]);
  const found = capacityOf(c)!;
  assert.equal(found.amps, Math.round(16040 / 2.4) / 100);
  assert.equal(found.fits, true);
});

test('a breaker that the directory names for the room comes first; a two-pole one is turned off once', () => {
  const a = outlet('A', 1, 0, { wallId: null, status: 'existing' });
  const named: Circuit = { ...chain([], {}), id: 'circuit-7', name: 'Bedroom outlets', space: 7, stops: [] };
  const range: Circuit = {
    ...chain([], {}),
    id: 'circuit-9',
    name: 'Range',
    space: 9,
    breaker: breakerOf(50, 'none', 2),
    stops: [],
  };
  const document = house({
    area: room([], [], { kind: 'bedroom', name: 'Bedroom' }),
    boxes: [a],
    circuits: [named, range],
  });
  const candidates = candidatesFor(document, panelOf(document), a);
  assert.equal(candidates.length, 19, 'twenty spaces, one of them a second pole');
  assert.ok(!candidates.some((k) => k.space === '11'));
  const [likeliest] = [...candidates].sort((x, y) => y.weight - x.weight);
  assert.equal(likeliest!.space, '7');
  const { next } = searchFor(document, panelOf(document), a);
  assert.ok(next !== null && next.length > 0);
});
