import assert from 'node:assert/strict';
import { test } from 'node:test';
import { AREA_KINDS, EDITIONS, type AreaKind, type Edition } from '#core/job/schema.ts';
import { chain, house, outlet, room } from '#core/job/testing.ts';
import { breakerOf } from '#core/job/document.ts';
import { decisionOn, labelsFor, type Topic } from './decisions.ts';
import { AREA_FACTS } from '#core/tables/areas.ts';
import { View } from '#core/view/view.ts';

type Parts = NonNullable<Parameters<typeof house>[0]>;
const decide = (topic: Topic, edition: Edition, parts: Parts, name = 'box-a') => {
  const document = house({ ...parts, edition });
  return decisionOn(topic, new View(document), document.boxes[name]!)!;
};
const A = outlet('A', 1, 60);
const plain = { breaker: breakerOf(20) };

/** A 16 in. high 20 A receptacle with no water near: GFCI in 2017, 2020, 2023 and AFCI, by kind of area. */
const MATRIX: Record<AreaKind, [boolean, boolean, boolean, boolean]> = {
  bedroom: [false, false, false, true],
  living: [false, false, false, true],
  family: [false, false, false, true],
  dining: [false, false, false, true],
  den: [false, false, false, true],
  recreation: [false, false, false, true],
  sunroom: [false, false, false, true],
  kitchen: [false, false, true, true],
  pantry: [false, false, false, true],
  hallway: [false, false, false, true],
  foyer: [false, false, false, true],
  stairs: [false, false, false, true],
  closet: [false, false, false, true],
  laundry: [true, true, true, true],
  bathroom: [true, true, true, false],
  garage: [true, true, true, false],
  'basement-finished': [false, true, true, true],
  'basement-unfinished': [true, true, true, false],
  'crawl-space': [true, true, true, false],
  attic: [false, false, false, false],
  utility: [false, false, false, false],
  accessory: [true, true, true, false],
  boathouse: [true, true, true, false],
  outdoors: [true, true, true, false],
  deck: [true, true, true, false],
};
for (const kind of AREA_KINDS) {
  test(`${kind}: GFCI by edition and AFCI`, () => {
    const parts = { kind, boxes: [A], circuits: [chain([A], plain)] };
    const [e17, e20, e23, afci] = MATRIX[kind];
    assert.deepEqual(
      EDITIONS.map((e) => decide('gfci', e, parts).asked === 'required'),
      [e17, e20, e23],
    );
    for (const e of EDITIONS) assert.equal(decide('afci', e, parts).asked === 'required', afci);
  });
}

test('wall spacing applies in habitable rooms and nowhere else', () => {
  const applies = AREA_KINDS.filter((k) => AREA_FACTS[k].wallSpacing);
  assert.deepEqual(applies, [
    'bedroom',
    'living',
    'family',
    'dining',
    'den',
    'recreation',
    'sunroom',
    'kitchen',
    'pantry',
    'basement-finished',
  ]);
});

test('one outlet in a listed room pulls its whole circuit under AFCI', () => {
  const bath = { ...room([99, 99, 99, 99], undefined, { id: 'area-2', kind: 'bathroom', x: 300 }) };
  const B = outlet('B', 1, 40, { areaId: 'area-2' });
  const document = house({ boxes: [A, B], circuits: [chain([B, A], plain)] });
  const both = { ...document, areas: { ...document.areas, 'area-2': bath } };
  const decision = decisionOn('afci', new View(both), both.boxes['box-b']!)!;
  assert.equal(decision.asked, 'required');
  assert.match(decision.reason, /supplies Room \(bedroom\)/);
  const alone = house({ boxes: [A], circuits: [chain([A], plain)], kind: 'bathroom' });
  assert.equal(decisionOn('afci', new View(alone), alone.boxes['box-a']!)!.asked, 'not-required');
});

test('a GFCI device counts for its own outlet even before it is on a circuit', () => {
  const gfci = { ...A, device: { ...A.device, kind: 'gfci' as const } };
  assert.equal(decide('gfci', '2020', { kind: 'bathroom', boxes: [gfci] }).providedBy, 'its own GFCI device');
});

const LABELS: [string, Partial<typeof A>, 'none' | 'gfci', string[]][] = [
  ['grounded', {}, 'gfci', []],
  ['no ground, plain', { grounding: 'none' }, 'none', []],
  [
    'no ground, behind a GFCI breaker',
    { grounding: 'none' },
    'gfci',
    ['GFCI Protected', 'No Equipment Ground'],
  ],
  [
    'no ground, GFCI device',
    { grounding: 'none', device: { ...A.device, kind: 'gfci' } },
    'none',
    ['No Equipment Ground'],
  ],
  ['no ground, two slots', { grounding: 'none', device: { ...A.device, kind: 'two-slot' } }, 'gfci', []],
  ['to be removed', { grounding: 'none', status: 'remove' }, 'gfci', []],
];
for (const [what, values, protection, labels] of LABELS) {
  test(`labels: ${what}`, () => {
    const box = { ...A, ...values };
    const document = house({
      boxes: [box],
      circuits: [chain([box], { breaker: breakerOf(20, protection) })],
    });
    assert.deepEqual(labelsFor(new View(document), box), labels);
  });
}
