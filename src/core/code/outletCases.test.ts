/**
 * Worked outlets: a place, a device and its surroundings, and what each edition asks for there, with sections.
 * The expectations were written from the reference before the decisions were, and are not derived from them.
 * `-` means not asked for, `?` that a fact which decides is not on record.
 */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { EDITIONS, type Area, type Box, type Circuit, type Fixture, type Job } from '#core/job/schema.ts';
import { chain, conditions, fixture, house, outlet, receptacle, room } from '#core/job/testing.ts';
import { breakerOf } from '#core/job/document.ts';
import { decisionsFor } from './decisions.ts';
import { View } from '#core/view/view.ts';

type Three = readonly [string, string, string];
interface Setup {
  area?: Partial<Area>;
  box?: Partial<Box>;
  device?: Partial<Box['device']>;
  circuit?: Partial<Circuit>;
  breaker?: Partial<Circuit['breaker']>;
  fixture?: Fixture;
  job?: Partial<Job>;
  /** A second outlet on the same circuit, in a room of this kind. */
  also?: Area['kind'];
}
type Row = [what: string, setup: Setup, gfci: Three, afci: Three, tr: Three, wr: Three];

const each = (section: string): Three => [section, section, section];
const NO = each('-');
const ARC: Three = ['210.12(A)', '210.12(A)', '210.12(B)'];
const TR = each('406.12(1)');
const DAMP = each('406.9(A)');
const WET = each('406.9(B)(1)');
const SINK: Three = ['210.8(A)(7)', '210.8(A)(7)', '210.8(A)(8)'];
const TUB: Three = ['210.8(A)(9)', '210.8(A)(9)', '210.8(A)(10)'];
const LAUNDRY: Three = ['210.8(A)(10)', '210.8(A)(10)', '210.8(A)(11)'];

const inA = (kind: Area['kind'], rest: Setup = {}): Setup => ({ ...rest, area: { kind, ...rest.area } });
const rated = (rating: 15 | 20 | 30 | 50, volts: '125' | '250' | '125/250'): Setup => ({
  device: { rating, volts, kind: 'single' },
  breaker: { rating: rating === 50 ? 50 : rating, poles: volts === '125' ? 1 : 2 },
});
const hardWired = (kind: Fixture['kind'], poles: 1 | 2 = 1, rating: 15 | 20 | 30 | 40 | 50 = 20): Setup => ({
  device: { kind: 'hardwired', tamperResistant: false },
  breaker: { poles, rating },
  fixture: fixture(kind, 3, 70, 30, { id: 'fixture-it', connection: 'hardwired' }),
  box: { serves: 'fixture-it' },
});
const cord = (kind: Fixture['kind'], rest: Setup = {}): Setup => ({
  ...rest,
  fixture: fixture(kind, 3, 70, 30, { id: 'fixture-it', connection: 'cord' }),
  box: { serves: 'fixture-it', ...rest.box },
});
/** A sink or tub whose near edge is this far from the outlet, straight across the room. */
const water = (kind: 'sink' | 'basin' | 'tub' | 'shower', distance: number): Setup => ({
  fixture: fixture(kind, 3, 84, 20, { id: 'fixture-water', fromWall: 120 - distance - 16, depth: 16 }),
});

const ROWS: Row[] = [
  // Rooms, dry, with no water near: 20 A duplex at 16 in.
  ['bedroom', inA('bedroom'), NO, ARC, TR, NO],
  ['living room', inA('living'), NO, ARC, TR, NO],
  ['family room', inA('family'), NO, ARC, TR, NO],
  ['dining room', inA('dining'), NO, ARC, TR, NO],
  ['den', inA('den'), NO, ARC, TR, NO],
  ['recreation room', inA('recreation'), NO, ARC, TR, NO],
  ['sunroom', inA('sunroom'), NO, ARC, TR, NO],
  ['hallway', inA('hallway'), NO, ARC, TR, NO],
  ['closet', inA('closet'), NO, ARC, TR, NO],
  ['foyer, similar to a hallway', inA('foyer'), NO, ARC, TR, NO],
  ['stairs, similar to a hallway', inA('stairs'), NO, ARC, TR, NO],
  ['pantry, similar to a kitchen', inA('pantry'), NO, ARC, TR, NO],
  ['storage or equipment room', inA('utility'), NO, NO, TR, NO],
  ['attic', inA('attic'), NO, NO, TR, NO],
  ['bathroom', inA('bathroom'), each('210.8(A)(1)'), NO, TR, NO],
  ['laundry', inA('laundry'), LAUNDRY, ARC, TR, NO],
  ['garage', inA('garage'), each('210.8(A)(2)'), NO, TR, NO],
  ['unfinished basement', inA('basement-unfinished'), each('210.8(A)(5)'), NO, TR, NO],
  ['finished basement room', inA('basement-finished'), ['-', '210.8(A)(5)', '210.8(A)(5)'], ARC, TR, NO],
  ['crawl space', inA('crawl-space'), each('210.8(A)(4)'), NO, TR, NO],
  ['boathouse', inA('boathouse'), ['210.8(A)(8)', '210.8(A)(8)', '210.8(A)(9)'], NO, TR, NO],
  ['workshop outbuilding at grade', inA('accessory'), each('210.8(A)(2)'), NO, TR, NO],
  [
    'outbuilding lived in',
    inA('accessory', { area: { conditions: conditions({ habitable: true }) } }),
    NO,
    ARC,
    TR,
    NO,
  ],
  [
    'loft of an outbuilding, 9 ft above grade',
    inA('accessory', { area: { conditions: conditions({ aboveGrade: 108 }) } }),
    NO,
    NO,
    TR,
    NO,
  ],
  // Kitchen.
  ['kitchen wall at 16 in.', inA('kitchen'), ['-', '-', '210.8(A)(6)'], ARC, TR, NO],
  [
    'kitchen counter at 44 in.',
    inA('kitchen', { box: { height: 44 }, fixture: fixture('counter', 1, 84, 100) }),
    each('210.8(A)(6)'),
    ARC,
    TR,
    NO,
  ],
  [
    'kitchen wall at 16 in., 4 ft from the sink',
    inA('kitchen', water('sink', 48)),
    ['210.8(A)(7)', '210.8(A)(7)', '210.8(A)(6)'],
    ARC,
    TR,
    NO,
  ],
  [
    'refrigerator in the kitchen, single receptacle, 8 ft from the sink',
    inA('kitchen', cord('refrigerator', { device: { kind: 'single' } })),
    ['-', '-', '210.8(A)(6)'],
    ARC,
    NO,
    NO,
  ],
  [
    'dishwasher on a cord',
    inA('kitchen', cord('dishwasher')),
    ['210.8(D)', '422.5(A)', '210.8(A)(6)'],
    ARC,
    TR,
    NO,
  ],
  [
    'dishwasher, hardwired',
    inA('kitchen', hardWired('dishwasher')),
    ['210.8(D)', '422.5(A)', '210.8(D)'],
    ARC,
    NO,
    NO,
  ],
  [
    'microwave on a cord',
    inA('kitchen', cord('microwave', { box: { height: 72 } })),
    ['-', '-', '210.8(A)(6)'],
    ARC,
    NO,
    NO,
  ],
  ['range, hardwired', inA('kitchen', hardWired('range', 2, 50)), ['-', '-', '210.8(D)'], NO, NO, NO],
  ['wall oven, hardwired', inA('kitchen', hardWired('wall-oven', 2, 40)), ['-', '-', '210.8(D)'], NO, NO, NO],
  ['cooktop, hardwired', inA('kitchen', hardWired('cooktop', 2, 40)), ['-', '-', '210.8(D)'], NO, NO, NO],
  [
    '50 A range receptacle 3 ft from the sink',
    inA('kitchen', { ...rated(50, '125/250'), ...water('sink', 36) }),
    ['-', '210.8(A)(7)', '210.8(A)(6)'],
    NO,
    NO,
    NO,
  ],
  [
    '50 A range receptacle 8 ft from the sink',
    inA('kitchen', { ...rated(50, '125/250'), ...water('sink', 96) }),
    ['-', '-', '210.8(A)(6)'],
    NO,
    NO,
    NO,
  ],
  // Distance to water.
  ['bedroom 6 ft from a basin', inA('bedroom', water('basin', 72)), SINK, ARC, TR, NO],
  ['bedroom 6 ft 1 in. from a basin', inA('bedroom', water('basin', 73)), NO, ARC, TR, NO],
  ['bedroom 5 ft from a tub in the room', inA('bedroom', water('tub', 60)), TUB, ARC, TR, NO],
  ['bedroom 6 ft from a shower', inA('bedroom', water('shower', 72)), TUB, ARC, TR, NO],
  ['hallway 2 ft from a sink', inA('hallway', water('sink', 24)), SINK, ARC, TR, NO],
  ['utility room 3 ft from a sink', inA('utility', water('sink', 36)), SINK, NO, TR, NO],
  [
    'finished basement 3 ft from a sink',
    inA('basement-finished', water('sink', 36)),
    ['210.8(A)(7)', '210.8(A)(5)', '210.8(A)(5)'],
    ARC,
    TR,
    NO,
  ],
  [
    '30 A receptacle 3 ft from a sink',
    inA('utility', { ...rated(30, '250'), ...water('sink', 36) }),
    ['-', '210.8(A)(7)', '210.8(A)(8)'],
    NO,
    NO,
    NO,
  ],
  [
    '20 A, 250 V receptacle 3 ft from a sink',
    inA('utility', { ...rated(20, '250'), ...water('sink', 36) }),
    ['-', '210.8(A)(7)', '210.8(A)(8)'],
    NO,
    TR,
    NO,
  ],
  [
    'wet bar with food preparation, 9 ft from its sink',
    inA('recreation', { ...water('sink', 104), area: { conditions: conditions({ foodPreparation: true }) } }),
    ['-', '-', '210.8(A)(7)'],
    ARC,
    TR,
    NO,
  ],
  [
    'wet bar with food preparation, 4 ft from its sink',
    inA('recreation', { ...water('sink', 48), area: { conditions: conditions({ foodPreparation: true }) } }),
    ['210.8(A)(7)', '210.8(A)(7)', '210.8(A)(7)'],
    ARC,
    TR,
    NO,
  ],
  [
    'damp den',
    inA('den', { area: { location: 'damp' } }),
    ['-', '210.8(A)(11)', '210.8(A)(12)'],
    ARC,
    TR,
    DAMP,
  ],
  [
    'wet sunroom',
    inA('sunroom', { area: { location: 'wet' } }),
    ['-', '210.8(A)(11)', '210.8(A)(12)'],
    ARC,
    TR,
    WET,
  ],
  // Outdoors.
  ['outdoors, no roof', inA('outdoors', { area: { location: 'wet' } }), each('210.8(A)(3)'), NO, TR, WET],
  [
    'outdoors, under a roof',
    inA('outdoors', { area: { location: 'damp', conditions: conditions({ roofed: true }) } }),
    each('210.8(A)(3)'),
    NO,
    TR,
    DAMP,
  ],
  [
    'covered deck',
    inA('deck', { area: { location: 'damp', conditions: conditions({ roofed: true }) } }),
    each('210.8(A)(3)'),
    NO,
    TR,
    DAMP,
  ],
  ['open deck', inA('deck', { area: { location: 'wet' } }), each('210.8(A)(3)'), NO, TR, WET],
  [
    'de-icing receptacle out of reach, on its own circuit',
    inA('outdoors', {
      area: { location: 'wet' },
      box: { purpose: 'deicing', accessible: false, height: 110 },
    }),
    NO,
    NO,
    NO,
    WET,
  ],
  [
    'de-icing receptacle within reach',
    inA('outdoors', { area: { location: 'wet' }, box: { purpose: 'deicing' } }),
    each('210.8(A)(3)'),
    NO,
    TR,
    WET,
  ],
  [
    'heat pump, hardwired, permit day not known',
    inA('outdoors', { ...hardWired('outdoor-unit', 2, 30), area: { location: 'wet' } }),
    // The 2023 edition excepts it until a day in 2026.
    ['-', '210.8(F)', '?'],
    NO,
    NO,
    NO,
  ],
  [
    'heat pump, permit of 4 May 2026',
    inA('outdoors', {
      ...hardWired('outdoor-unit', 2, 30),
      area: { location: 'wet' },
      job: { permitDate: '2026-05-04' },
    }),
    ['-', '210.8(F)', '-'],
    NO,
    NO,
    NO,
  ],
  [
    'heat pump, permit of 1 October 2026',
    inA('outdoors', {
      ...hardWired('outdoor-unit', 2, 30),
      area: { location: 'wet' },
      job: { permitDate: '2026-10-01' },
    }),
    ['-', '210.8(F)', '210.8(F)'],
    NO,
    NO,
    NO,
  ],
  [
    'outdoor luminaire',
    inA('outdoors', { area: { location: 'wet' }, device: { kind: 'light' } }),
    NO,
    NO,
    NO,
    NO,
  ],
  // Garages, outbuildings, basements, crawl spaces.
  [
    '50 A vehicle receptacle in a garage',
    inA('garage', { ...rated(50, '250'), box: { purpose: 'vehicle' } }),
    ['625.54', '210.8(A)(2)', '210.8(A)(2)'],
    NO,
    NO,
    NO,
  ],
  [
    '50 A vehicle receptacle outdoors',
    inA('outdoors', { ...rated(50, '250'), area: { location: 'wet' }, box: { purpose: 'vehicle' } }),
    ['625.54', '210.8(A)(3)', '210.8(A)(3)'],
    NO,
    NO,
    NO,
  ],
  ['garage ceiling, door opener', inA('garage', { box: { height: 96 } }), each('210.8(A)(2)'), NO, NO, NO],
  ['freezer in a garage', inA('garage', { device: { kind: 'single' } }), each('210.8(A)(2)'), NO, TR, NO],
  [
    '30 A, 250 V receptacle in a garage',
    inA('garage', rated(30, '250')),
    ['-', '210.8(A)(2)', '210.8(A)(2)'],
    NO,
    NO,
    NO,
  ],
  [
    'kiln hardwired in an outbuilding',
    inA('accessory', hardWired('kiln', 2, 50)),
    ['-', '-', '210.8(F)'],
    NO,
    NO,
    NO,
  ],
  [
    'heater hardwired in a garage',
    inA('garage', hardWired('fixed-equipment', 2, 30)),
    ['-', '-', '210.8(F)'],
    NO,
    NO,
    NO,
  ],
  [
    '50 A kiln receptacle in a finished basement',
    inA('basement-finished', rated(50, '250')),
    ['-', '210.8(A)(5)', '210.8(A)(5)'],
    NO,
    NO,
    NO,
  ],
  [
    'alarm system in an unfinished basement',
    inA('basement-unfinished', { box: { purpose: 'alarm-system' } }),
    NO,
    NO,
    TR,
    NO,
  ],
  [
    'sump pump on a cord in an unfinished basement',
    inA('basement-unfinished', cord('sump-pump', { device: { kind: 'single' } })),
    each('210.8(A)(5)'),
    NO,
    TR,
    NO,
  ],
  [
    'sump pump, hardwired, in a storage room',
    inA('utility', hardWired('sump-pump')),
    ['-', '422.5(A)', '210.8(D)'],
    NO,
    NO,
    NO,
  ],
  [
    'light in a crawl space',
    inA('crawl-space', { device: { kind: 'light' } }),
    ['210.8(E)', '210.8(C)', '210.8(C)'],
    NO,
    NO,
    NO,
  ],
  [
    'service receptacle in an attic',
    inA('attic', { box: { purpose: 'equipment-service' } }),
    ['-', '210.8(E)', '210.8(E)'],
    NO,
    TR,
    NO,
  ],
  [
    'service receptacle in an equipment room',
    inA('utility', { box: { purpose: 'equipment-service' } }),
    ['-', '210.8(E)', '210.8(E)'],
    NO,
    TR,
    NO,
  ],
  // Laundry.
  [
    '30 A dryer receptacle in a laundry',
    inA('laundry', rated(30, '125/250')),
    ['-', '210.8(A)(10)', '210.8(A)(11)'],
    NO,
    NO,
    NO,
  ],
  [
    '30 A dryer receptacle in a closet off the hall',
    inA('closet', { ...rated(30, '125/250'), ...cord('dryer', rated(30, '125/250')) }),
    // The dryer makes the closet a laundry.
    ['-', '210.8(A)(10)', '210.8(A)(11)'],
    NO,
    NO,
    NO,
  ],
  ['dryer, hardwired', inA('laundry', hardWired('dryer', 2, 30)), ['-', '-', '210.8(D)'], NO, NO, NO],
  [
    'receptacle that carries a ceiling fan or luminaire, in a laundry',
    inA('laundry', { box: { purpose: 'ceiling-support', height: 96, mount: 'ceiling' } }),
    ['210.8(A)(10)', '-', '-'],
    ARC,
    NO,
    NO,
  ],
  [
    'receptacle of a bathroom fan, factory made',
    inA('bathroom', { box: { purpose: 'ceiling-fan', height: 96, mount: 'ceiling' } }),
    ['210.8(A)(1)', '210.8(A)(1)', '-'],
    NO,
    NO,
    NO,
  ],
  // AFCI by device and by circuit.
  ['smoke alarm in a bedroom', inA('bedroom', { device: { kind: 'smoke-alarm' } }), NO, ARC, NO, NO],
  ['switch in a hallway', inA('hallway', { device: { kind: 'switch' } }), NO, ARC, NO, NO],
  ['light in a bathroom alone', inA('bathroom', { device: { kind: 'light' } }), NO, NO, NO, NO],
  [
    'light in a bathroom with its switch in the hall',
    inA('bathroom', { device: { kind: 'light' }, also: 'hallway' }),
    NO,
    ARC,
    NO,
    NO,
  ],
  [
    'garage receptacle on a circuit that also feeds a bedroom',
    inA('garage', { also: 'bedroom' }),
    each('210.8(A)(2)'),
    ARC,
    TR,
    NO,
  ],
  [
    'outdoor receptacle on a circuit that also feeds a den',
    inA('outdoors', { also: 'den', area: { location: 'wet' } }),
    each('210.8(A)(3)'),
    ARC,
    TR,
    WET,
  ],
  ['heater at 240 V in a bedroom', inA('bedroom', hardWired('fixed-equipment', 2, 20)), NO, NO, NO, NO],
  [
    'bedroom light on a 10 A circuit',
    inA('bedroom', { device: { kind: 'light' }, breaker: { rating: 10 } }),
    NO,
    ['-', '-', '210.12(B)'],
    NO,
    NO,
  ],
  ['bedroom on 30 A', inA('bedroom', rated(30, '125')), NO, NO, NO, NO],
  // Receptacle kind.
  ['bedroom at 5 ft 6 in.', inA('bedroom', { box: { height: 66 } }), NO, ARC, TR, NO],
  ['bedroom at 5 ft 7 in.', inA('bedroom', { box: { height: 67 } }), NO, ARC, NO, NO],
  ['part of a luminaire', inA('bedroom', { box: { mount: 'in-luminaire' } }), NO, ARC, NO, NO],
  ['15 A duplex in a den', inA('den', { device: { rating: 15 } }), NO, ARC, TR, NO],
  ['20 A, 250 V single in a bedroom', inA('bedroom', rated(20, '250')), NO, NO, TR, NO],
  [
    'two-slot replacement',
    inA('bedroom', { box: { status: 'replace', grounding: 'none' }, device: { kind: 'two-slot' } }),
    NO,
    ['406.4(D)(4), 210.12(A)', '406.4(D)(4), 210.12(A)', '406.4(D)(4), 210.12(B)'],
    NO,
    NO,
  ],
  [
    'replacement in a bathroom',
    inA('bathroom', { box: { status: 'replace' } }),
    each('406.4(D)(3), 210.8(A)(1)'),
    NO,
    each('406.4(D)(5), 406.12(1)'),
    NO,
  ],
  [
    'replacement outdoors',
    inA('outdoors', { box: { status: 'replace' }, area: { location: 'wet' } }),
    each('406.4(D)(3), 210.8(A)(3)'),
    NO,
    each('406.4(D)(5), 406.12(1)'),
    each('406.4(D)(6), 406.9(B)(1)'),
  ],
];

for (const [what, setup, ...expected] of ROWS) {
  for (const [e, edition] of EDITIONS.entries()) {
    test(`${what}, ${edition}`, () => {
      const device = { kind: 'duplex', rating: 20, ...setup.device } as Partial<Box['device']>;
      const box = outlet('A', 1, 84, { ...setup.box, device: receptacle(device) });
      const also = outlet('B', 1, 40, { areaId: 'area-2', device: receptacle({ kind: 'switch' }) });
      const boxes = setup.also ? [box, also] : [box];
      const circuit = chain(boxes, {
        ...setup.circuit,
        breaker: { ...breakerOf(20), ...setup.breaker },
      });
      const areas = [room([168, 120, 168, 120], undefined, { kind: 'bedroom', ...setup.area })];
      if (setup.also)
        areas.push(room([99, 99, 99, 99], undefined, { id: 'area-2', kind: setup.also, x: 900 }));
      const document = house({
        areas,
        boxes,
        circuits: [circuit],
        fixtures: setup.fixture ? [setup.fixture] : [],
        edition,
        job: { edition, ...setup.job },
      });
      const decisions = decisionsFor(new View(document), box);
      const found = (['gfci', 'afci', 'tamper-resistant', 'weather-resistant'] as const).map((topic) => {
        const d = decisions.find((x) => x.topic === topic);
        if (d?.asked === 'not-known') return '?';
        return d?.asked === 'required' ? d.section : '-';
      });
      assert.deepEqual(
        found,
        expected.map((three) => three[e]),
      );
    });
  }
}

test('at least 150 worked outlets', () => assert.ok(ROWS.length * EDITIONS.length >= 150));
