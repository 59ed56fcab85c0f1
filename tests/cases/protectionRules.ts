/** What protects people and what may stay, sums of loads, and what is out of scope: worked from the code's sections. */
import { breakerOf, PLAIN_NAMEPLATE } from '#core/job/document.ts';
import {
  chain,
  conditions,
  FEEDER,
  fixture,
  house,
  outlet,
  PANEL,
  plate,
  receptacle as device,
  room,
} from '#core/job/testing.ts';
import type { Box, Circuit, Edition, Fixture, FixtureKind, Job, Panel } from '#core/job/schema.ts';
import { asCase, S, V, type Answer, type Answers, type RuleCase } from './ruleCase.ts';

type House = Parameters<typeof house>[0];
const on = (
  poles: 1 | 2,
  rating: Circuit['breaker']['rating'],
  gauge: Circuit['gauge'],
  more: Partial<Circuit> = {},
) => ({
  breaker: breakerOf(rating, 'none', poles),
  gauge,
  ...more,
});
/** Fixtures on one circuit, each at an outlet of its own, and plain outlets beside them. */
function together(
  fixtures: Fixture[],
  circuit: Partial<Circuit>,
  others: Partial<Box>[] = [],
  devices: Partial<Box['device']> = {},
): NonNullable<House> {
  const boxes = [
    ...fixtures.map((f, i) =>
      outlet(`F${i + 1}`, 1, 20 + 20 * i, {
        serves: f.id,
        device: device({ kind: f.connection === 'cord' ? 'single' : 'hardwired', ...devices }),
      }),
    ),
    ...others.map((values, i) => outlet(`O${i + 1}`, 3, 20 + 20 * i, values)),
  ];
  return { fixtures, boxes, circuits: [chain(boxes, circuit)] };
}
const thing = (
  kind: FixtureKind,
  volts: number,
  values: Partial<NonNullable<Fixture['nameplate']>>,
  more: Partial<Fixture> = {},
): Fixture =>
  fixture(kind, 2, 20 + (more.offset ?? 0), 20, {
    connection: 'hardwired',
    fastened: true,
    ...plate(volts, values),
    ...more,
    id: `fixture-${more.name?.toLowerCase() ?? kind}`,
  });
const cord = (kind: FixtureKind, amps: number, more: Partial<Fixture> = {}) =>
  thing(kind, 120, { amps }, { connection: 'cord', fastened: false, ...more });
const heater = (name: string, watts: number) => thing('baseboard-heater', 240, { watts }, { name });
const old = { status: 'existing' } as const;
const dishwasher = (amps: number) => thing('dishwasher', 120, { amps }, { name: 'Dishwasher' });
const disposal = (amps: number) => thing('disposal', 120, { amps }, { name: 'Disposal' });
const charger = (amps: number, volts = 240) => thing('vehicle-charger', volts, { amps }, { name: 'Charger' });
const appliance = (volts: '125/250', values: Partial<Box>, circuit: Partial<Circuit>): NonNullable<House> => {
  const box = outlet('A', 1, 60, {
    device: device({ kind: 'single', volts, rating: 30 }),
    ...old,
    ...values,
  });
  return { boxes: [box], circuits: [chain([box], { ...on(2, 30, '10'), ...old, ...circuit })] };
};
/** Three wires with the neutral on its terminal, and a tail from there to another place. */
const jumpered = (to: string): Box['wiring'] => ({
  stage: 'as-found',
  at: null,
  by: '',
  wiring: {
    cables: [
      {
        id: 'cable-1',
        toward: 'feed',
        circuitId: null,
        raceway: false,
        stands: 'ends',
        conductors: (['black', 'red', 'white'] as const).map((color, k) => ({
          id: color,
          color,
          function: (['hot', 'hot-b', 'neutral'] as const)[k]!,
          gauge: null,
          material: 'copper',
          mark: null,
        })),
      },
    ],
    yokes: [],
    splices: [],
    tails: [{ id: 'tail-1', color: 'white', function: 'neutral' }],
    places: [
      { end: 'cable-1.white', at: 'device.w' },
      { end: 'tail-1.a', at: 'device.w' },
      { end: 'tail-1.b', at: to },
    ],
  },
});
const one = (values: Partial<Box>, circuit: Partial<Circuit> = {}, more: House = {}): NonNullable<House> => {
  const box = outlet('A', 1, 60, values);
  return { boxes: [box], circuits: [chain([box], circuit)], ...more };
};
/** The outdoor unit of the cooling, its old outlet left alone or new. */
const condenser = (
  status: Fixture['status'],
  box: Box['status'],
  job: Partial<Job> = {},
): NonNullable<House> => ({
  ...one(
    {
      status: box,
      serves: 'fixture-unit',
      device: device({ kind: 'hardwired', volts: '250', tamperResistant: false }),
    },
    on(2, 30, '10', { neutral: false }),
    {
      fixtures: [fixture('outdoor-unit', 2, 60, 36, { id: 'fixture-unit', connection: 'hardwired', status })],
    },
  ),
  kind: 'outdoors',
  job,
});
const kitchen = (
  values: Partial<Box>,
  fixtures: Fixture[] = [fixture('counter', 1, 60, 96, { depth: 24, height: 36 })],
): NonNullable<House> => ({
  ...one({ height: 46, ...values }),
  kind: 'kitchen',
  fixtures,
});
const shed = (status: 'new' | 'existing', bonded: boolean): NonNullable<House> => ({
  panels: [
    PANEL,
    {
      ...PANEL,
      id: 'panel-shed',
      name: 'Shed',
      feeder: { ...FEEDER, status, ground: false },
      bonded,
      otherBuilding: true,
    } as Panel,
  ],
});
/** A 50 A receptacle in a wet place outdoors. */
const inRain = (values: Partial<Box>, cover: Box['device']['cover']): NonNullable<House> => ({
  ...one(
    { device: device({ rating: 50, volts: '250', kind: 'single', cover }), ...values },
    on(2, 50, '6', { neutral: false }),
  ),
  area: room([144, 120, 144, 120], undefined, { kind: 'outdoors', location: 'wet' }),
});
/** A hot tub outdoors with the outlet that feeds it. */
const HOT_TUB: NonNullable<House> = {
  ...one(
    { serves: 'fixture-hot-tub-1-60', device: device({ kind: 'hardwired' }) },
    {},
    {
      fixtures: [
        fixture('hot-tub', 1, 60, 84, {
          connection: 'hardwired',
          nameplate: { volts: 240, ...PLAIN_NAMEPLATE, amps: 40 },
        }),
      ],
    },
  ),
  kind: 'outdoors',
};
const floorHeat = (
  kind: 'bathroom' | 'kitchen' | 'bedroom',
  values: Partial<Box> = {},
): NonNullable<House> => ({
  ...one(
    {
      serves: 'fixture-mat',
      device: device({ kind: 'hardwired', volts: '250', tamperResistant: false }),
      ...values,
    },
    on(2, 15, '14', { neutral: false }),
    { fixtures: [fixture('floor-heat', 2, 60, 40, { id: 'fixture-mat', connection: 'hardwired' })] },
  ),
  kind,
});

const TABLE: [string, string, House, Answer | Answers, RegExp?][] = [
  // Loads together on one circuit.
  [
    'circuit-load',
    'three 1,500 W heaters on 25 A',
    together(
      [heater('H1', 1500), heater('H2', 1500), heater('H3', 1500)],
      on(2, 25, '10', { neutral: false }),
    ),
    S,
    /H1 7\.81 A \+ H2 7\.81 A \+ H3 7\.81 A = 23\.44 A/,
  ],
  [
    'circuit-load',
    'on 20 A they are too much',
    together(
      [heater('H1', 1500), heater('H2', 1500), heater('H3', 1500)],
      on(2, 20, '12', { neutral: false }),
    ),
    V,
    /too small for 23\.44 A/,
  ],
  [
    'circuit-load',
    'on 40 A the breaker is too large for several heaters',
    together(
      [heater('H1', 1500), heater('H2', 1500), heater('H3', 1500)],
      on(2, 40, '8', { neutral: false }),
    ),
    V,
    /30 A or less/,
  ],
  [
    'circuit-load',
    'charger and water heater on 50 A',
    together(
      [charger(32), thing('water-heater', 240, { watts: 4500 }, { name: 'Heater' })],
      on(2, 50, '6', { neutral: false }),
    ),
    V,
    /63\.44 A/,
  ],
  [
    'circuit-load',
    'dishwasher 9 A and disposal 8 A on 20 A',
    together([dishwasher(9), disposal(8)], on(1, 20, '12')),
    S,
    /17 A/,
  ],
  [
    'circuit-load',
    'dishwasher 12 A and disposal 9 A on 20 A',
    together([dishwasher(12), disposal(9)], on(1, 20, '12')),
    V,
    /too small for 21 A/,
  ],
  [
    'circuit-load',
    'one of the two without a nameplate',
    together([dishwasher(9), { ...disposal(8), nameplate: null }], on(1, 20, '12')),
    'unknown',
    /without Disposal.*not judged/,
  ],
  [
    'circuit-load',
    'heat marked with 27 A and 30 A, on 25 A',
    together(
      [thing('air-handler', 240, { minimumAmpacity: 27, maximumBreaker: 30 }, { name: 'Handler' })],
      on(2, 25, '10', { neutral: false }),
    ),
    V,
    /27 A/,
  ],
  [
    'circuit-load',
    'the same on 30 A and 10 AWG',
    together(
      [thing('air-handler', 240, { minimumAmpacity: 27, maximumBreaker: 30 }, { name: 'Handler' })],
      on(2, 30, '10', { neutral: false }),
    ),
    S,
  ],
  [
    'circuit-load',
    'an appliance marked for 15 A, on 20 A',
    together(
      [thing('fixed-equipment', 120, { amps: 8, maximumBreaker: 15 }, { name: 'Fan' })],
      on(1, 20, '12'),
    ),
    V,
    /too large; expected 15 A/,
  ],

  [
    'fixed-equipment-share',
    'a 2,000 W 240 V heater beside 240 V outlets counts its own 8.3 A',
    together(
      [thing('fixed-equipment', 240, { watts: 2000 }, { name: 'Oven' })],
      on(2, 20, '12', { neutral: true }),
      [{}],
    ),
    S,
    /8\.3 A of a 20 A/,
  ],

  [
    'cord-share',
    '16 A by cord beside other outlets on 20 A',
    together([cord('microwave', 16)], on(1, 20, '12'), [{}], { rating: 20 }),
    S,
  ],
  [
    'cord-share',
    '16.1 A',
    together([cord('microwave', 16.1)], on(1, 20, '12'), [{}], { rating: 20 }),
    V,
    /at most 16 A/,
  ],
  [
    'cord-share',
    '13 A at a 15 A receptacle',
    together([cord('microwave', 13)], on(1, 20, '12'), [{}], { rating: 15 }),
    V,
    /at most 12 A/,
  ],
  [
    'cord-share',
    'at a single receptacle of its own',
    together([cord('microwave', 18)], on(1, 20, '12'), [], { rating: 20 }),
    null,
  ],
  [
    'cord-share',
    'at a duplex of its own: it is two receptacles',
    together([cord('microwave', 18)], on(1, 20, '12'), [], { rating: 20, kind: 'duplex' }),
    V,
    /210\.21\(B\)\(2\)/,
  ],
  [
    'cord-share',
    'a room cooler of 7.5 A beside others on 15 A',
    together([cord('room-cooler', 7.5)], on(1, 15, '14'), [{ device: device({ rating: 15 }) }], {
      rating: 15,
    }),
    S,
  ],
  [
    'cord-share',
    'a room cooler of 8 A beside others on 15 A',
    together([cord('room-cooler', 8)], on(1, 15, '14'), [{ device: device({ rating: 15 }) }], { rating: 15 }),
    V,
    /440\.62\(C\)/,
  ],
  [
    'cord-share',
    'alone 12 A of 15',
    together([cord('room-cooler', 12)], on(1, 15, '14'), [], { rating: 15 }),
    S,
    /440\.62\(B\)/,
  ],

  ['vehicle-circuit', 'a charger alone', together([charger(32)], on(2, 40, '8', { neutral: false })), S],
  [
    'vehicle-circuit',
    'beside a water heater',
    together(
      [charger(24), thing('water-heater', 240, { watts: 2000 }, { name: 'Heater' })],
      on(2, 50, '6', { neutral: false }),
    ),
    V,
    /625\.40|shares/,
  ],
  [
    'vehicle-circuit',
    '12 A at 120 V beside outlets',
    together([charger(12, 120)], on(1, 20, '12'), [{}]),
    [V, S, S],
  ],

  // Ground and no ground.
  [
    'no-equipment-ground',
    'a new outlet on old wire, GFCI or not',
    one({ grounding: 'none', device: device({ kind: 'gfci' }) }),
    V,
    /406\.4\(A\), 250\.130\(C\)/,
  ],
  [
    'no-equipment-ground',
    'a replacement with a GFCI may be',
    one({ grounding: 'none', status: 'replace', device: device({ kind: 'gfci' }) }),
    S,
  ],
  [
    'no-equipment-ground',
    'a two-slot replacement where a ground is',
    one({ status: 'replace', device: device({ kind: 'two-slot' }) }),
    V,
    /406\.4\(D\)\(1\)/,
  ],
  [
    'no-equipment-ground',
    'an old two-slot where a ground is',
    one({ ...old, device: device({ kind: 'two-slot' }) }),
    'note',
  ],
  ['three-wire-appliance', 'four wires', appliance('125/250', {}, { cable: 'NM-B' }), S, /four wires/],
  [
    'three-wire-appliance',
    'a new circuit on three',
    appliance('125/250', { grounding: 'none', status: 'new' }, { status: 'new' }),
    V,
    /new circuit has four wires/,
  ],
  [
    'three-wire-appliance',
    'old SE from the service panel',
    appliance('125/250', { grounding: 'none' }, { cable: 'SE' }),
    S,
    /may stay/,
  ],
  [
    'three-wire-appliance',
    'old SE from the service panel, four slots with a jumper to the frame',
    appliance('125/250', { grounding: 'none', wiring: jumpered('device.green') }, { cable: 'SE' }),
    V,
    /jumpered to the neutral/,
  ],
  [
    'three-wire-appliance',
    'called grounded, its neutral jumpered to the box',
    appliance('125/250', { wiring: jumpered('box') }, { cable: 'NM-B' }),
    V,
    /a ground that is not there/,
  ],
  [
    'three-wire-appliance',
    'old SE, its neutral on its own terminal alone',
    appliance('125/250', { grounding: 'none', wiring: jumpered('device.w') }, { cable: 'SE' }),
    S,
    /may stay/,
  ],
  [
    'three-wire-appliance',
    'old SE in aluminum, 10 AWG',
    appliance('125/250', { grounding: 'none' }, { cable: 'SE', material: 'aluminum' }),
    V,
    /thinner than 8 AWG/,
  ],
  [
    'three-wire-appliance',
    'old NM with its bare wire as neutral',
    appliance('125/250', { grounding: 'none' }, { cable: 'old NM' }),
    V,
    /never a neutral/,
  ],
  [
    'three-wire-appliance',
    'a replaced receptacle on an old circuit in raceway',
    appliance('125/250', { grounding: 'none', status: 'replace' }, { cable: 'raceway' }),
    S,
  ],
  ['three-wire-appliance', 'nobody looked', appliance('125/250', { grounding: 'unknown' }, {}), 'unknown'],
  ['feeder', 'an old three-wire feeder to an outbuilding', shed('existing', true), 'note', /250\.32\(B\)/],
  ['feeder', 'a new one', shed('new', true), V, /250\.32\(B\)/],
  ['panel-bonding', 'its neutral joined to ground there', shed('new', true), V],

  // Ground-fault protection.
  ['gfci', 'floor heat in a bathroom', floorHeat('bathroom'), V, /424\.44/],
  [
    'gfci',
    'floor heat in a kitchen, at its thermostat',
    floorHeat('kitchen', { device: device({ kind: 'switch', tamperResistant: false }) }),
    V,
    /424\.44/,
  ],
  ['gfci', 'floor heat in a bedroom', floorHeat('bedroom'), null],
  [
    'gfci',
    'face-up in the counter serves it, whatever it counts for',
    kitchen({ mount: 'face-up', fixtureId: 'fixture-counter-1-60' }),
    V,
  ],
  [
    'gfci',
    'in an appliance garage',
    kitchen({ fixtureId: 'fixture-appliance-garage-1-60' }, [
      fixture('appliance-garage', 1, 60, 24, { height: 54 }),
    ]),
    V,
  ],
  [
    'gfci',
    '250 V at the counter',
    kitchen({ device: device({ volts: '250', kind: 'single' }) }),
    [null, V, V],
  ],
  [
    'gfci',
    'behind a fastened appliance that stands on the counter',
    kitchen({ serves: 'fixture-microwave-1-60' }, [
      fixture('counter', 1, 60, 96, { height: 36 }),
      fixture('microwave', 1, 60, 30, { height: 66, fastened: true }),
    ]),
    V,
  ],
  [
    'gfci',
    '66 in. up, over the counter, for nobody knows what',
    kitchen({ height: 66 }),
    ['unknown', 'unknown', V],
    /whether it serves the counter is not on record/,
  ],
  [
    'gfci',
    '72 in. up, for the hood',
    kitchen({ height: 72, serves: 'fixture-hood-1-60' }, [
      fixture('counter', 1, 60, 96, { height: 36 }),
      fixture('hood', 1, 60, 30, { height: 70 }),
    ]),
    [null, null, V],
  ],
  [
    'gfci',
    'washer in a hallway closet',
    {
      ...one({ serves: 'fixture-washer-2-60' }, {}, { fixtures: [fixture('washer', 2, 60, 27)] }),
      kind: 'closet',
    },
    V,
    /laundry area: its washer or dryer/,
  ],
  [
    'afci',
    'washer in an unfinished basement',
    {
      ...one(
        { serves: 'fixture-washer-2-60' },
        { breaker: breakerOf(20) },
        { fixtures: [fixture('washer', 2, 60, 27)] },
      ),
      kind: 'basement-unfinished',
    },
    V,
    /laundry area/,
  ],
  [
    'gfci',
    'beside the air handler in the attic',
    { ...one({}, {}, { fixtures: [fixture('air-handler', 2, 60, 24)] }), kind: 'attic' },
    [null, V, V],
    /210\.8\(E\)/,
  ],
  [
    'gfci',
    'a place for drinks, its sink typed',
    {
      ...one({}),
      area: room([144, 120, 144, 120], undefined, {
        kind: 'family',
        conditions: conditions({ foodPreparation: true }),
      }),
    },
    [null, null, V],
  ],
  [
    'outdoor-outlets',
    'a new condenser, permit 2026-05-04',
    condenser('new', 'new', { permitDate: '2026-05-04' }),
    [null, V, null],
  ],
  [
    'outdoor-outlets',
    'a new condenser, permit 2026-09-01',
    condenser('new', 'new', { permitDate: '2026-09-01' }),
    [null, V, V],
  ],
  [
    'outdoor-outlets',
    'a new condenser without a day',
    condenser('new', 'new', { permitDate: null }),
    [null, V, 'unknown'],
  ],
  [
    'outdoor-outlets',
    'a replaced condenser on its old outlet, permit 2026-10-01',
    condenser('replace', 'existing', { permitDate: '2026-10-01' }),
    [null, 'note', V],
  ],
  [
    'outdoor-outlets',
    'an old condenser left alone',
    condenser('existing', 'existing', { permitDate: '2026-10-01' }),
    [null, 'note', 'note'],
  ],
  ['gfci-accessible', 'a GFCI at 7 ft', one({ height: 84, device: device({ kind: 'gfci' }) }), V, /too high/],
  ['gfci-accessible', 'a GFCI at 6 ft 7 in.', one({ height: 79, device: device({ kind: 'gfci' }) }), S],

  [
    'weather-cover',
    'a 50 A outlet for a vehicle in the rain, covered only while nothing is in',
    inRain({ purpose: 'vehicle' }, 'weatherproof'),
    V,
    /something stays plugged in/,
  ],
  ['weather-cover', 'with a cover for use', inRain({ purpose: 'vehicle' }, 'in-use'), S],
  [
    'weather-cover',
    'a 50 A outlet that something is plugged into now and then',
    inRain({}, 'weatherproof'),
    S,
  ],

  // Out of scope.
  [
    'equipment-out-of-scope',
    'a hot tub',
    { fixtures: [fixture('hot-tub', 1, 60, 84, { connection: 'hardwired' })] },
    'unknown',
    /not judged.*Article 680/,
  ],
  [
    'equipment-out-of-scope',
    'a generator',
    { fixtures: [fixture('generator', 1, 60, 48, { connection: 'hardwired' })] },
    'unknown',
    /702/,
  ],
  ['equipment-out-of-scope', 'a tub for bathing', { fixtures: [fixture('tub', 1, 60, 60)] }, null],
  [
    'service-out-of-scope',
    '600 A',
    { panels: [{ ...PANEL, mainRating: 600, busRating: 600 }] },
    'unknown',
    /not judged/,
  ],
  ['service-out-of-scope', '400 A', { panels: [{ ...PANEL, mainRating: 400, busRating: 400 }] }, null],
  [
    'panel-rating',
    '600 A is not called in order',
    { panels: [{ ...PANEL, mainRating: 600, busRating: 600 }] },
    null,
  ],
  ['gfci', 'the outlet of a hot tub is not judged', HOT_TUB, null],
  ['circuit-load', 'nor is its circuit', HOT_TUB, null],
];

export const PROTECTION_CASES: RuleCase[] = TABLE.map(([rule, what, parts, answers, words]) =>
  asCase(rule, what, (edition: Edition) => house({ ...parts, edition }), answers, words),
);
