/** Rules about how circuits are wired and what they feed: situations worked from the code's sections. */
import { breakerOf } from '#core/job/document.ts';
import {
  chain,
  fixture,
  house,
  outlet,
  FEEDER,
  PANEL,
  plate,
  receptacle as device,
  room,
} from '#core/job/testing.ts';
import type { Area, Box, Circuit, Fixture, Panel, Stop } from '#core/job/schema.ts';
import { asCase, S, V, type Answer, type Answers, type RuleCase } from './ruleCase.ts';

type House = NonNullable<Parameters<typeof house>[0]>;

const two = (
  rating: Circuit['breaker']['rating'] = 20,
  tie: Circuit['breaker']['tie'] = 'common-trip',
  protection: Circuit['breaker']['protection'] = 'none',
) => ({ ...breakerOf(rating, protection, 2), tie });
const three = (values: Partial<Circuit> = {}): Partial<Circuit> => ({ breaker: two(), ...values });

/** Outlets A, B, C … along one wall on one circuit, each fed from the one before. */
function run(
  boxes: Partial<Box>[],
  circuit: Partial<Circuit> = {},
  stops: Partial<Stop>[] = [],
  rest: House = {},
): House {
  const made = boxes.map((b, i) => outlet('ABCDEFGH'[i]!, 1, 20 + 12 * i, b));
  const c = chain(made, circuit);
  return {
    boxes: made,
    circuits: [{ ...c, stops: c.stops.map((s, i) => ({ ...s, ...stops[i] })) }],
    ...rest,
  };
}
const wired = (kind: Fixture['kind'], values: Partial<Fixture> = {}) =>
  fixture(kind, 2, 60, 24, { connection: 'hardwired', ...values });
/** An appliance wired in, alone on its circuit. */
const own = (
  appliance: Fixture,
  circuit: Partial<Circuit>,
  box: Partial<Box> = {},
  rest: House = {},
): House =>
  run(
    [{ device: device({ kind: 'hardwired', tamperResistant: false }), serves: appliance.id, ...box }],
    circuit,
    [],
    { fixtures: [appliance], ...rest },
  );
const heater = wired('water-heater', plate(240, { watts: 4500 }));
const on240 = (
  rating: Circuit['breaker']['rating'],
  gauge: Circuit['gauge'],
  rest: Partial<Circuit> = {},
) => ({
  breaker: breakerOf(rating, 'none', 2),
  neutral: false,
  gauge,
  ...rest,
});
const lamp: Partial<Box> = { device: device({ kind: 'light', tamperResistant: false }), mount: 'ceiling' };
const single = (volts: '250' | '125/250', rating: 20 | 30 | 50 = 20): Partial<Box> => ({
  device: device({ kind: 'single', volts, rating, tamperResistant: rating === 20 }),
});
const old: Partial<Box> = { status: 'existing' };
const oldWire = { status: 'existing', cable: 'old two-wire', gauge: '14', breaker: breakerOf(15) } as const;

/** A kitchen and a bedroom side by side. */
const kitchen = room([144, 120, 144, 120], undefined, { kind: 'kitchen', name: 'Kitchen' });
const rooms = (kind: Area['kind'], values: Partial<Area> = {}): Area[] => [
  room([144, 120, 144, 120], undefined, { kind, name: 'First', ...values }),
  room([144, 120, 144, 120], undefined, {
    id: 'area-2',
    name: 'Second',
    x: 160,
    walls: [144, 120, 144, 120].map((length, i) => ({ id: `far-${i + 1}`, length, turn: 90 })),
  }),
];
const far: Partial<Box> = { areaId: 'area-2', wallId: 'far-1' };

const switchLoop = (whiteMarked: Stop['whiteMarked'], circuit: Partial<Circuit> = {}): House => {
  const light = outlet('L', 1, 60, lamp);
  const toggle = outlet('S', 1, 90, {
    device: device({ kind: 'switch', tamperResistant: false }),
    controls: [light.id],
  });
  const c = chain([light, toggle], circuit);
  return {
    boxes: [light, toggle],
    circuits: [{ ...c, stops: [c.stops[0]!, { ...c.stops[1]!, whiteMarked }] }],
  };
};

/** Circuits of one receptacle each in a room, spaces 1, 2, … */
const each = (kind: Area['kind'], circuits: Partial<Circuit>[], boxes: Partial<Box> = {}): House => {
  const made = circuits.map((_, i) => outlet('ABCD'[i]!, 1, 20 + 24 * i, { height: 44, ...boxes }));
  return {
    kind,
    boxes: made,
    circuits: circuits.map((c, i) =>
      chain([made[i]!], { id: `circuit-${i + 1}`, space: i + 1, name: `Counter ${'ABCD'[i]!}`, ...c }),
    ),
  };
};

const panel = (values: Partial<Panel>, parts: House = {}): House => ({
  ...run([{}], { name: 'Room receptacles' }),
  ...parts,
  panels: [{ ...PANEL, ...values }],
});
/** Two circuits of one outlet each on one panel. */
const pair = (first: Partial<Circuit>, second: Partial<Circuit>, values: Partial<Panel> = {}): House => {
  const boxes = [outlet('A', 1, 20), outlet('B', 1, 44)];
  return {
    boxes,
    circuits: [
      chain([boxes[0]!], { name: 'North receptacle', ...first }),
      chain([boxes[1]!], { id: 'circuit-2', space: 2, name: 'South receptacle', ...second }),
    ],
    panels: [{ ...PANEL, ...values }],
  };
};
const found = {
  protection: 'breakers',
  signs: [],
  doubledLugs: 0,
  breakers: [],
} as const;
/** A subpanel with one circuit, fed from the panel at the service. */
const sub = (
  values: Partial<Panel> = {},
  feeder: Partial<typeof FEEDER> = {},
  circuit: Partial<Circuit> = {},
  parts: House = {},
): House => ({
  ...run([{}], { panelId: 'panel-0', name: 'Room receptacles', ...circuit }),
  ...parts,
  panels: [
    PANEL,
    { ...PANEL, id: 'panel-0', name: 'Panel B', bonded: false, ...values, feeder: { ...FEEDER, ...feeder } },
  ],
});

const TABLE: [string, string, House, Answer | Answers, RegExp?][] = [
  // Both poles of a breaker.
  ['opposite-legs', 'two poles one below the other', run([{}], three()), S, /spaces 1 and 3/],
  ['opposite-legs', 'two poles side by side', run([{}], three({ otherSpace: 2 })), V, /both on leg A/],
  ['opposite-legs', 'two poles four spaces down', run([{}], three({ otherSpace: 5 })), V, /both on leg A/],
  ['opposite-legs', 'one pole', run([{}]), null],
  ['simultaneous-disconnect', 'a common trip', run([{}], three()), S],
  [
    'simultaneous-disconnect',
    'a handle tie for 120 V outlets',
    run([{}, {}], three({ breaker: two(20, 'handle-tie') })),
    S,
  ],
  [
    'simultaneous-disconnect',
    'two breakers side by side',
    run([{}], three({ breaker: two(20, 'none') })),
    V,
    /210\.4\(B\)/,
  ],
  [
    'simultaneous-disconnect',
    'a plain 240 V circuit without a tie',
    run([single('250')], { ...on240(20, '12'), breaker: two(20, 'none') }),
    V,
    /240\.15\(B\)/,
  ],
  [
    'simultaneous-disconnect',
    'a handle tie with a 250 V outlet beside 120 V ones',
    run([{}, single('250')], three({ breaker: two(20, 'handle-tie') })),
    V,
    /210\.4\(C\)/,
  ],
  [
    'simultaneous-disconnect',
    'a handle tie for one range alone',
    run([single('125/250', 50)], { breaker: two(50, 'handle-tie'), gauge: '6' }),
    S,
  ],

  // One neutral for two hots.
  [
    'shared-neutral-protection',
    'two tied AFCI breakers',
    run([{}], three({ breaker: two(20, 'handle-tie', 'afci') })),
    V,
    /single-pole AFCI/,
  ],
  [
    'shared-neutral-protection',
    'one two-pole AFCI',
    run([{}], three({ breaker: two(20, 'common-trip', 'afci') })),
    S,
  ],
  ['shared-neutral-protection', 'no protection', run([{}], three()), null],
  [
    'shared-neutral-protection',
    'a GFCI receptacle that feeds the other hot',
    run([{ device: device({ kind: 'gfci' }) }, {}], three(), [{}, { hot: 'red' }]),
    V,
    /A feeds B on the other hot/,
  ],
  [
    'shared-neutral-protection',
    'the other hot from its line side',
    run([{ device: device({ kind: 'gfci' }) }, {}], three(), [{}, { hot: 'red', side: 'line' }]),
    null,
  ],
  [
    'shared-neutral-protection',
    'the other hot two boxes on',
    run([{ device: device({ kind: 'gfci' }) }, {}, {}], three(), [{}, {}, { hot: 'red' }]),
    V,
  ],
  ['neutral-through-device', 'pigtails', run([{}, {}], three()), S],
  [
    'neutral-through-device',
    'through the first device',
    run([{}, {}], three(), [{ splice: 'feed-through' }]),
    V,
    /at A/,
  ],
  [
    'neutral-through-device',
    'at the end of the run',
    run([{}, {}], three(), [{}, { splice: 'feed-through' }]),
    S,
  ],
  ['neutral-through-device', 'a plain circuit', run([{}, {}], {}, [{ splice: 'feed-through' }]), null],
  [
    'split-receptacle',
    'both hots with the tab in',
    run([{}], three(), [{ hot: 'both' }]),
    V,
    /hot tab in place/,
  ],
  [
    'split-receptacle',
    'both hots with the tab off',
    run([{ device: device({ tabs: 'hot-broken' }) }], three(), [{ hot: 'both' }]),
    S,
  ],
  [
    'split-receptacle',
    'both hots on a GFCI receptacle',
    run([{ device: device({ kind: 'gfci' }) }], three(), [{ hot: 'both' }]),
    V,
    /only a duplex/,
  ],
  ['split-receptacle', 'one hot', run([{}], three()), null],

  // White as a hot.
  [
    'white-as-hot',
    'a marked 240 V cable',
    run([single('250')], on240(20, '12'), [{ whiteMarked: 'yes' }]),
    S,
  ],
  [
    'white-as-hot',
    'an unmarked one',
    run([single('250')], on240(20, '12'), [{ whiteMarked: 'no' }]),
    V,
    /at A/,
  ],
  ['white-as-hot', 'a new one not yet marked', run([single('250')], on240(20, '12')), 'note'],
  [
    'white-as-hot',
    'an old one nobody looked at',
    run([{ ...single('250'), ...old }], on240(20, '12', { status: 'existing' })),
    'unknown',
  ],
  [
    'white-as-hot',
    'single conductors in raceway',
    run([single('250')], on240(20, '12', { cable: 'raceway' })),
    null,
  ],
  ['white-as-hot', 'a switch loop with its white unmarked', switchLoop('no'), V, /at S/],
  ['white-as-hot', 'a switch loop, marked', switchLoop('yes'), S],
  ['white-as-hot', 'a plain circuit', run([{}]), null],

  [
    'breaker-listed',
    'named by the label',
    run([{}], { breaker: { ...breakerOf(20, 'afci'), listed: 'yes' } }),
    S,
  ],
  ['breaker-listed', 'not named', run([{}], { breaker: { ...breakerOf(20, 'afci'), listed: 'no' } }), V],
  ['breaker-listed', 'a replacement nobody checked', run([{}], { status: 'replace' }), 'unknown'],
  ['breaker-listed', 'new and not checked yet', run([{}]), null],

  // Appliances.
  [
    'circuit-load',
    'a 4,500 W water heater on 30 A and 10 AWG',
    own(heater, on240(30, '10')),
    S,
    /422\.10|18\.75/,
  ],
  ['circuit-load', 'on 20 A', own(heater, on240(20, '12')), V, /too small for 23\.44 A/],
  ['circuit-load', 'on 40 A', own(heater, on240(40, '8')), V, /too large; expected 30 A/],
  ['circuit-load', 'on 12 AWG', own(heater, on240(25, '12')), V, /12 AWG copper is too small/],
  [
    'circuit-load',
    'a heat pump of MCA 18, MOCP 30 on 12 AWG',
    own(wired('heat-pump', plate(240, { minimumAmpacity: 18, maximumBreaker: 30 })), on240(30, '12')),
    S,
  ],
  [
    'circuit-load',
    'the same on 35 A',
    own(wired('heat-pump', plate(240, { minimumAmpacity: 18, maximumBreaker: 30 })), on240(35, '12')),
    V,
  ],
  ['circuit-load', 'outlets in general', run([{}]), null],
  [
    'small-conductor',
    'the heat pump’s breaker follows its marking',
    own(wired('heat-pump', plate(240, { minimumAmpacity: 18, maximumBreaker: 30 })), on240(30, '12')),
    null,
  ],
  [
    'small-conductor',
    '12 AWG with nine conductors bundled in an attic of 50 °C',
    run([{}], { ambient: 50, bundled: 9 }),
    V,
    /bundled \(17\.2 A\)|17\.2/,
  ],
  ['small-conductor', '12 AWG with six conductors bundled', run([{}], { bundled: 6 }), S],
  [
    'fixed-equipment-share',
    'a 900 W fan heater beside receptacles on 15 A',
    run(
      [
        {
          device: device({ kind: 'hardwired', tamperResistant: false }),
          serves: 'fixture-fixed-equipment-2-60',
        },
        { device: device({ rating: 15 }) },
      ],
      { breaker: breakerOf(15), gauge: '14' },
      [],
      { fixtures: [wired('fixed-equipment', plate(120, { watts: 900 }))] },
    ),
    S,
  ],
  [
    'fixed-equipment-share',
    '1,200 W of it',
    run(
      [
        {
          device: device({ kind: 'hardwired', tamperResistant: false }),
          serves: 'fixture-fixed-equipment-2-60',
        },
        { device: device({ rating: 15 }) },
      ],
      { breaker: breakerOf(15), gauge: '14' },
      [],
      { fixtures: [wired('fixed-equipment', plate(120, { watts: 1200 }))] },
    ),
    V,
    /10 A of a 15 A/,
  ],
  [
    'fixed-equipment-share',
    '1,200 W alone',
    own(wired('fixed-equipment', plate(120, { watts: 1200 })), { breaker: breakerOf(15), gauge: '14' }),
    null,
  ],
  [
    'small-load-on-240',
    'a 1,200 W kettle for 240 V',
    { fixtures: [fixture('kiln', 1, 60, 12, { connection: 'cord', ...plate(240, { amps: 5 }) })] },
    V,
    /1200 VA|1,200/,
  ],
  [
    'small-load-on-240',
    'a kiln',
    { fixtures: [fixture('kiln', 1, 60, 12, { connection: 'cord', ...plate(240, { amps: 40 }) })] },
    S,
  ],
  [
    'small-load-on-240',
    'a 120 V kettle',
    { fixtures: [fixture('kiln', 1, 60, 12, { connection: 'cord', ...plate(120, { amps: 10 }) })] },
    null,
  ],
  [
    'receptacle-voltage',
    '125 V on two hots without a neutral',
    run([{}], on240(20, '12')),
    V,
    /would give 240 V/,
  ],
  ['receptacle-voltage', '250 V on one pole', run([single('250')]), V],
  [
    'receptacle-voltage',
    '125/250 V without a neutral',
    run([single('125/250', 50)], on240(50, '6')),
    V,
    /no neutral/,
  ],
  ['receptacle-voltage', '250 V on two hots', run([single('250')], on240(20, '12')), S],
  ['receptacle-voltage', '125 V on one pole', run([{}]), null],

  // What designated circuits feed.
  [
    'designated-circuits',
    'kitchen receptacles alone',
    run([{}, {}], {}, [], { area: kitchen }),
    S,
    /small-appliance/,
  ],
  [
    'designated-circuits',
    'a kitchen light with them',
    run([{}, lamp], {}, [], { area: kitchen }),
    V,
    /may not feed B/,
  ],
  [
    'designated-circuits',
    'a bedroom receptacle with them',
    run([{}, far], {}, [], { areas: rooms('kitchen') }),
    V,
  ],
  [
    'designated-circuits',
    'the dishwasher’s receptacle with them',
    run([{}, { serves: 'fixture-dishwasher-2-60' }], {}, [], {
      area: kitchen,
      fixtures: [fixture('dishwasher', 2, 60, 24)],
    }),
    V,
  ],
  [
    'designated-circuits',
    'the refrigerator’s receptacle with them',
    run([{}, { serves: 'fixture-refrigerator-2-60' }], {}, [], {
      area: kitchen,
      fixtures: [fixture('refrigerator', 2, 60, 36)],
    }),
    S,
  ],
  [
    'designated-circuits',
    'kitchen receptacles on 15 A',
    run([{ device: device({ rating: 15 }) }], { breaker: breakerOf(15, 'afci'), gauge: '14' }, [], {
      area: kitchen,
    }),
    V,
    /of 20 A/,
  ],
  [
    'designated-circuits',
    'an old mixed kitchen circuit left alone',
    run([old, { ...lamp, ...old }], { status: 'existing' }, [], { area: kitchen }),
    'note',
  ],
  [
    'designated-circuits',
    'a light added to an old kitchen circuit',
    run([old, lamp], { status: 'existing' }, [], { area: kitchen }),
    V,
  ],
  [
    'designated-circuits',
    'two kitchens on one circuit',
    run([{}, far], {}, [], { areas: rooms('kitchen').map((a) => ({ ...a, kind: 'kitchen' as const })) }),
    V,
    /two kitchens: First and Second/,
  ],
  [
    'designated-circuits',
    'a laundry light',
    run([{}, lamp], {}, [], { kind: 'laundry' }),
    V,
    /210\.11\(C\)\(2\)/,
  ],
  ['designated-circuits', 'all of one bathroom', run([{}, lamp], {}, [], { kind: 'bathroom' }), S],
  [
    'designated-circuits',
    'a bathroom and a bedroom',
    run([{}, far], {}, [], { areas: rooms('bathroom') }),
    V,
    /210\.11\(C\)\(3\)/,
  ],
  [
    'designated-circuits',
    'a garage and the outdoors',
    run([{}, far], {}, [], { areas: [rooms('garage')[0]!, { ...rooms('garage')[1]!, kind: 'outdoors' }] }),
    S,
  ],
  [
    'designated-circuits',
    'a garage and a bedroom',
    run([{}, far], {}, [], { areas: rooms('garage') }),
    V,
    /210\.11\(C\)\(4\)/,
  ],
  [
    'designated-circuits',
    'the opener’s light in a garage of one bay',
    run([{}, lamp], {}, [], {
      area: room([144, 120, 144, 120], undefined, {
        kind: 'garage',
        conditions: { ...kitchen.conditions, bays: 1 },
      }),
    }),
    [V, V, S],
  ],
  ['designated-circuits', 'a furnace alone', own(wired('furnace'), {}), S, /422\.12/],
  [
    'designated-circuits',
    'a furnace with a receptacle',
    run(
      [{ device: device({ kind: 'hardwired', tamperResistant: false }), serves: 'fixture-furnace-2-60' }, {}],
      {},
      [],
      { fixtures: [wired('furnace')] },
    ),
    V,
    /central heating/,
  ],
  ['designated-circuits', 'a bedroom', run([{}]), null],
  ['required-circuits', 'a kitchen on two circuits', each('kitchen', [{}, {}]), S, /2 small-appliance/],
  ['required-circuits', 'a kitchen on one', run([{}, {}], {}, [], { area: kitchen }), V, /at least 2/],
  [
    'required-circuits',
    'an old kitchen on one',
    run([old, old], { status: 'existing' }, [], { area: kitchen }),
    'note',
  ],
  ['required-circuits', 'a laundry on its circuit', run([{}], {}, [], { kind: 'laundry' }), S],
  [
    'required-circuits',
    'a laundry receptacle on the kitchen’s circuit',
    run([{}, far], {}, [], { areas: [rooms('kitchen')[0]!, { ...rooms('kitchen')[1]!, kind: 'laundry' }] }),
    V,
  ],
  ['required-circuits', 'a bedroom', run([{}]), null],
  [
    'required-circuits',
    'a kitchen that is not planned yet',
    { ...run([{}], {}, [], { area: kitchen }), circuits: [] },
    null,
  ],

  // Extending old wiring.
  [
    'extension-ground',
    'a new box fed from one without a ground',
    run([{ ...old, grounding: 'none' }, { grounding: 'none' }], oldWire),
    V,
    /fed from A, which has no ground/,
  ],
  [
    'extension-ground',
    'a ground brought by itself',
    run([{ ...old, grounding: 'none' }, {}], oldWire),
    'note',
  ],
  ['extension-ground', 'from one with a ground', run([old, {}], { status: 'existing' }), S],
  [
    'extension-ground',
    'from one nobody opened',
    run([{ ...old, grounding: 'unknown' }, {}], { status: 'existing' }),
    'unknown',
  ],
  ['extension-ground', 'all new', run([{}, {}]), null],

  // The panel.
  ['panel-spaces', 'two breakers apart', pair({}, {}), S],
  [
    'panel-spaces',
    'a two-pole breaker over another',
    pair({ breaker: two() }, { space: 3 }),
    V,
    /space 3 is taken by North receptacle and by South receptacle/,
  ],
  [
    'panel-spaces',
    'a two-pole breaker in the last space',
    pair({ space: 20, breaker: two() }, {}),
    V,
    /would need space 22/,
  ],
  [
    'panel-spaces',
    'a tandem where the label has none',
    pair({ half: 'a' }, { space: 1, half: 'b' }),
    V,
    /a tandem in space 1/,
  ],
  [
    'panel-spaces',
    'a tandem where it allows one',
    pair({ half: 'a' }, { space: 1, half: 'b' }, { tandemSpaces: [1] }),
    S,
  ],
  ['panel-spaces', 'an empty panel', {}, null],
  ['panel-rating', '100 A on a bus of 100 A', panel({}), S],
  [
    'panel-rating',
    '150 A on a bus of 125 A',
    panel({ mainRating: 150, busRating: 125 }),
    V,
    /150 A ahead of a bus rated 125 A/,
  ],
  ['panel-bonding', 'joined at the service', panel({}), S],
  ['panel-bonding', 'not joined at the service', panel({ bonded: false }), V],
  [
    'panel-openings',
    'all closed',
    panel({ found: { ...found, signs: [], breakers: [], fillersMissing: 0 } }),
    S,
  ],
  [
    'panel-openings',
    'two open',
    panel({ found: { ...found, signs: [], breakers: [], fillersMissing: 2 } }),
    V,
    /2 openings stand open/,
  ],
  ['panel-openings', 'not looked at', panel({}), null],
  ['directory', 'named for its room', panel({}), S],
  ['directory', 'a number', panel({}, run([{}], { name: 'Circuit 7' })), V, /does not say what/],
  ['directory', 'a person', panel({}, run([{}], { name: 'Tom’s room' })), V, /names a person/],
  ['directory', 'a passing state', panel({}, run([{}], { name: 'New bedroom' })), V, /passing state/],
  ['directory', 'no place', panel({}, run([{}], { name: 'Lights' })), V, /does not say where/],
  ['directory', 'a spare that is in use', panel({}, run([{}], { name: 'Spare' })), V, /is in use/],
  ['directory', 'a spare', panel({}, { boxes: [], circuits: [chain([], { name: 'Spare' })] }), S],
  ['directory', 'twins', pair({ name: 'Bedroom' }, { name: 'Bedroom' }), V, /told apart/],
  ['service-load', 'a small house on 100 A', panel({}), S, /230\.42/],
  [
    'service-load',
    'a small house on a new 60 A service',
    panel({ mainRating: 60, status: 'new' }),
    V,
    /230\.79\(C\)|100 A or more/,
  ],
  [
    'service-load',
    'an old 60 A service that carries its load may stay',
    panel({ mainRating: 60 }),
    'note',
    /may stay until it is replaced/,
  ],
  // 3 × 132 + 4,500: 3,000 + 0.35 × 1,896 = 3,664 VA; kilns of 12 kW and 12 kW: 27,664 VA ÷ 240 V = 115 A.
  [
    'service-load',
    'two kilns of 12 kW on 100 A',
    panel(
      {},
      {
        ...own(wired('kiln', plate(240, { watts: 12000 })), on240(70, '4')),
        fixtures: [
          wired('kiln', plate(240, { watts: 12000 })),
          fixture('kiln', 3, 60, 24, { connection: 'hardwired', ...plate(240, { watts: 12000 }) }),
        ],
      },
    ),
    V,
    /115 A by the standard method/,
  ],
  [
    'service-load',
    'a range without a nameplate',
    panel({}, own(wired('range'), on240(50, '6'))),
    'unknown',
    /without range/,
  ],
  ['feeder', '60 A on 6 AWG, four wires', sub(), S, /four wires/],
  ['feeder', '60 A on 8 AWG', sub({}, { gauge: '8' }), V, /60 A on 8 AWG copper; at most 40 A/],
  ['feeder', 'three wires', sub({}, { ground: false }), V, /215\.6/],
  [
    'feeder',
    'three old wires to another building',
    sub({ otherBuilding: true, bonded: true }, { ground: false }),
    'note',
  ],
  [
    'feeder',
    'another building without an electrode',
    sub({ otherBuilding: true, electrode: false }),
    V,
    /250\.32\(A\)/,
  ],
  [
    'feeder',
    'a kiln of 20 kW on 60 A',
    sub(
      {},
      {},
      {},
      own(wired('kiln', plate(240, { watts: 20000 })), {
        ...on240(100, '1'),
        panelId: 'panel-0',
        name: 'Kiln',
      }),
    ),
    V,
    /215\.3/,
  ],
  ['feeder', 'the panel at the service', panel({}), null],
];

const SUB_CASES: [string, string, House, Answer | Answers, RegExp?][] = [
  ['panel-bonding', 'a subpanel with the screw in', sub({ bonded: true }), V, /408\.40/],
  ['panel-bonding', 'a subpanel with the bars apart', sub(), S, /408\.40/],
  [
    'panel-bonding',
    'three wires and the screw in: first the fourth wire',
    sub({ bonded: true }, { ground: false }),
    V,
    /first the fourth wire, or a metal raceway, and only then the bonding screw/,
  ],
  [
    'panel-bonding',
    'three wires and the screw out: no way home',
    sub({}, { ground: false }),
    V,
    /no way home/,
  ],
  [
    'panel-rating',
    'a 100 A feeder on a bus of 60 A',
    sub({ busRating: 60, mainRating: 100 }, { rating: 100, gauge: '1' }),
    V,
  ],
];
export const WIRING_CASES: RuleCase[] = [
  ...TABLE.map(([rule, what, parts, answers, words]) =>
    asCase(rule, what, (edition) => house({ ...parts, edition }), answers, words),
  ),
  ...SUB_CASES.map(([rule, what, parts, answers, words]) =>
    asCase(rule, what, (edition) => house({ ...parts, edition }), answers, words),
  ),
];
