/**
 * Write-ups of rough-in and final inspections, and as many situations that look wrong and are fine: each worked from the
 * sections of the code, edition by edition.
 */
import { breakerOf, NOT_SEEN, PLAIN_PANEL } from '#core/job/document.ts';
import {
  chain,
  conditions,
  FEEDER,
  fixture,
  house,
  opening,
  outlet,
  PANEL,
  plate,
  receptacle as device,
  room,
} from '#core/job/testing.ts';
import type { Area, AreaKind, Box, Circuit, Fixture, Panel, Stop } from '#core/job/schema.ts';
import { asCase, S, V, type Answer, type Answers, type RuleCase } from './ruleCase.ts';

type House = NonNullable<Parameters<typeof house>[0]>;
type Row = [rule: string, what: string, situation: House, answer: Answer | Answers, words?: RegExp];

const kindOf = (kind: AreaKind, values: Partial<Area> = {}): Area =>
  room([144, 120, 144, 120], undefined, { kind, name: 'Room', ...values });
const beside = (kind: AreaKind, values: Partial<Area> = {}): Area =>
  room([144, 120, 144, 120], undefined, { kind, id: 'area-2', name: 'Beside', x: 200, ...values });
const seen = (values: Partial<Box['seen']>): Partial<Box> => ({ seen: { ...NOT_SEEN, ...values } });
const light = (name: string, values: Partial<Box> = {}): Box =>
  outlet(name, 1, 60, {
    device: device({ kind: 'light', tamperResistant: false }),
    mount: 'ceiling',
    fromWall: 50,
    height: 96,
    ...values,
  });
const toggle = (name: string, lights: string[], values: Partial<Box> = {}): Box =>
  outlet(name, 2, 20, {
    device: device({ kind: 'switch', rating: 15, tamperResistant: false }),
    height: 46,
    controls: lights.map((l) => `box-${l.toLowerCase()}`),
    ...values,
  });
const wiredBox = (name: string, serves: string, values: Partial<Box> = {}): Box =>
  outlet(name, 2, 60, {
    device: device({ kind: 'hardwired', tamperResistant: false }),
    serves,
    ...values,
  });
const inBox = (
  name: string,
  volume: number,
  clamps: Box['enclosure']['clamps'] = 'yes',
  values: Partial<Box> = {},
): Box => outlet(name, 1, 60, { enclosure: { volume, clamps }, ...values });
const on = (
  boxes: Box[],
  circuit: Partial<Circuit> = {},
  stops: Partial<Stop>[] = [],
): Pick<House, 'boxes' | 'circuits'> => {
  const c = chain(boxes, circuit);
  return { boxes, circuits: [{ ...c, stops: c.stops.map((s, i) => ({ ...s, ...stops[i] })) }] };
};
const two = (rating: number, more: Partial<Circuit> = {}): Partial<Circuit> => ({
  breaker: breakerOf(rating, 'none', 2),
  neutral: false,
  ...more,
});
const plain = (rating: number): Partial<Circuit> => ({ breaker: breakerOf(rating, 'none') });
const panel = (values: Partial<Panel>): House => ({ panels: [{ ...PANEL, ...values }] });
const service = (values: Partial<Panel['service']>, more: Partial<Panel> = {}): House =>
  panel({ service: { ...PLAIN_PANEL.service, ...values }, ...more });
const NEW = { status: 'new' } as const;
const OLD = { status: 'existing' } as const;
const REPLACED = { status: 'replace' } as const;
const wired = (kind: Fixture['kind'], values: Partial<Fixture> = {}): Fixture =>
  fixture(kind, 2, 60, 24, { connection: 'hardwired', ...values });
const corded = (kind: Fixture['kind'], values: Partial<Fixture> = {}): Fixture =>
  fixture(kind, 2, 60, 24, { connection: 'cord', ...values });

// Switched lights.
const lit = (
  area: AreaKind,
  s: Partial<Box> = {},
  circuit: Partial<Circuit> = {},
  stops: Partial<Stop>[] = [],
) => ({
  kind: area,
  ...on([toggle('Y', ['Z'], s), light('Z')], circuit, stops),
});
const loop = (area: AreaKind, s: Partial<Box> = {}, circuit: Partial<Circuit> = {}): House => ({
  kind: area,
  ...on([light('Z'), toggle('Y', ['Z'], s)], circuit),
});
// Heaters, hoods, kitchens.
const heat = wired('baseboard-heater', plate(240, { watts: 2000 }));
const hood = corded('hood', { ...NEW, ...plate(120, { amps: 3 }) });
const overRange = corded('hood-microwave', { ...NEW, ...plate(120, { amps: 13 }) });
const counterWall = (): Fixture[] => [fixture('counter', 1, 72, 144, { depth: 24 })];
const atCounter = (name: string, offset: number, values: Partial<Box> = {}) =>
  outlet(name, 1, offset, { height: 44, ...values });
const circuitOf = (id: number, boxes: Box[], values: Partial<Circuit> = {}): Circuit =>
  chain(boxes, { id: `circuit-${id}`, space: id, name: `Circuit ${id}`, ...values });
const kitchen = (parts: [Box[], Partial<Circuit>?][], fixtures: Fixture[] = counterWall()): House => ({
  kind: 'kitchen',
  fixtures,
  boxes: parts.flatMap(([boxes]) => boxes),
  circuits: parts.map(([boxes, values], i) => circuitOf(i + 1, boxes, values)),
});
const split = (stop: Partial<Stop>, other: Partial<Stop>): House => {
  const boxes = [atCounter('A', 40), atCounter('B', 100)];
  const c = chain(boxes, { breaker: { ...breakerOf(20, 'none', 2), tie: 'common-trip' } });
  return {
    kind: 'kitchen',
    fixtures: counterWall(),
    boxes,
    circuits: [
      {
        ...c,
        stops: [
          { ...c.stops[0]!, ...stop },
          { ...c.stops[1]!, ...other },
        ],
      },
    ],
  };
};
const washer = fixture('washer', 3, 60, 27, { connection: 'cord', name: 'washer' });
const basin = (wall = 1, offset = 60, id = 'basin'): Fixture =>
  fixture('basin', wall, offset, 24, { depth: 20, height: 33, id: `fixture-${id}` });
const garage = (bays: number, values: Partial<Area['conditions']> = {}): Area =>
  room([288, 264, 288, 264], undefined, {
    kind: 'garage',
    name: 'Garage',
    conditions: conditions({ bays, ...values }),
  });
const bayDoors = [opening(3, 20, 108), opening(3, 160, 108)];
const bayed = (boxes: Box[], openings = bayDoors): House => ({ area: garage(2), openings, boxes });
const low = (name: string, wall: number, offset: number) => outlet(name, wall, offset, { height: 44 });
const closet = kindOf('closet', { name: 'Coat closet' });
const tub = fixture('tub', 1, 60, 60, { depth: 30, height: 20 });
const overTub = (luminaire: Box['seen']['luminaire'], values: Partial<Box> = {}): House => ({
  kind: 'bathroom',
  fixtures: [tub],
  boxes: [light('Z', { fromWall: 20, height: 90, ...seen({ luminaire }), ...values })],
});
const tank = wired('water-heater', plate(240, { watts: 4500 }));
const bath = (boxes: Box[], more: [Box[], Partial<Circuit>?][] = []): House => ({
  areas: [
    kindOf('bathroom', { name: 'Bath' }),
    beside('bathroom', { name: 'Second bath' }),
    beside('bedroom', { id: 'area-3', name: 'Bedroom', x: 400 }),
  ],
  fixtures: [basin(1, 40), { ...basin(1, 40, 'basin-2'), areaId: 'area-2' }],
  boxes: [...boxes, ...more.flatMap(([b]) => b)],
  circuits: [circuitOf(1, boxes), ...more.map(([b, v], i) => circuitOf(i + 2, b, v))],
});
const ground = (size: Circuit['ground'], values: Partial<Circuit> = {}): House =>
  on([outlet('A', 1, 60)], { ground: size, ...plain(20), ...values });
const buriedRun = (values: Partial<Circuit>): House =>
  on([outlet('A', 1, 60)], { route: 'buried', ...values });
const shed: Panel = {
  ...PANEL,
  id: 'panel-2',
  name: 'Inside panel',
  bonded: false,
  electrode: false,
  feeder: { ...FEEDER, rating: 200, gauge: '2/0', status: 'new' },
  mainRating: 200,
  busRating: 200,
};
const wholeHouse = (feeder: Partial<Panel['feeder'] & object>, elsewhere = false): House => {
  const box = outlet('A', 1, 60);
  const sub = { ...shed, feeder: { ...FEEDER, rating: 200, ...feeder } as Panel['feeder'] };
  const own = chain([box], { panelId: 'panel-2' });
  return {
    panels: [{ ...PANEL, mainRating: 200, busRating: 200 }, sub],
    boxes: elsewhere ? [box, outlet('B', 3, 60)] : [box],
    circuits: elsewhere ? [own, circuitOf(2, [outlet('B', 3, 60)], { panelId: PANEL.id })] : [own],
  };
};
const AL = { material: 'aluminum', gauge: '10', ...plain(20) } as const;

const ROWS: Row[] = [
  // 210.6: what works at more than 120 V.
  ['luminaire-voltage', 'a light between two hots', { ...on([light('Z')], two(20)) }, V, /240 V/],
  [
    'luminaire-voltage',
    'a light on one hot of a multiwire circuit',
    { ...on([light('Z')], { breaker: breakerOf(20, 'none', 2) }, [{ hot: 'red' }]) },
    S,
  ],
  ['luminaire-voltage', 'a light at 120 V', { ...on([light('Z')], plain(15)) }, null],
  [
    'luminaire-voltage',
    'an old light between two hots stays on record',
    { ...on([light('Z', OLD)], two(20)) },
    'note',
  ],
  [
    'luminaire-voltage',
    'a heater at 240 V is no luminaire',
    { fixtures: [heat], ...on([wiredBox('H', heat.id)], two(20)) },
    null,
  ],

  // 210.12: heaters, replaced luminaires and switches.
  [
    'afci',
    'a 240 V heater with its thermostat in a bedroom',
    { fixtures: [heat], ...on([toggle('T', ['H']), wiredBox('H', heat.id)], two(20)) },
    null,
  ],
  ['afci', 'a light in the bedroom beside', { ...on([light('Z')], plain(15)) }, V],
  [
    'afci',
    'a replaced luminaire in a bedroom',
    { ...on([light('Z', REPLACED)], { ...OLD, ...plain(15) }) },
    'note',
    /comes with the next change/,
  ],
  [
    'afci',
    'a replaced switch in a bedroom',
    { ...on([toggle('Y', [], REPLACED), light('Z', OLD)], { ...OLD, ...plain(15) }) },
    'note',
  ],
  [
    'afci',
    'a replaced receptacle in a bedroom',
    { ...on([outlet('A', 1, 60, REPLACED)], { ...OLD, ...plain(15) }) },
    V,
    /406\.4\(D\)\(4\)/,
  ],
  [
    'afci',
    'a new receptacle on an old circuit',
    { ...on([outlet('A', 1, 60, OLD), outlet('B', 1, 90, NEW)], { ...OLD, ...plain(15) }) },
    V,
  ],
  [
    'afci',
    'an old bedroom left alone',
    { ...on([outlet('A', 1, 60, OLD)], { ...OLD, ...plain(15) }) },
    'note',
  ],
  [
    'afci',
    '30 A for a bedroom’s cooler',
    {
      ...on([outlet('A', 1, 60, { device: device({ rating: 30, volts: '250' }) })], two(30, { gauge: '10' })),
    },
    null,
  ],
  ['afci', 'a garage alone', { kind: 'garage', ...on([outlet('A', 1, 60)], plain(20)) }, null],
  [
    'afci',
    '10 A for the lights of a hall',
    { kind: 'hallway', ...on([light('Z')], plain(10)) },
    [null, null, V],
  ],

  // 404.2(C): a neutral with a lighting switch.
  ['switch-neutral', 'feed at the switch of a bedroom', lit('bedroom'), S, /brings the neutral/],
  ['switch-neutral', 'a loop from the light, not looked at', loop('bedroom'), 'unknown', /not on record/],
  ['switch-neutral', 'a two-wire loop', loop('hallway', seen({ switchNeutral: 'no' })), V],
  ['switch-neutral', 'a three-wire loop', loop('hallway', seen({ switchNeutral: 'yes' })), S],
  ['switch-neutral', 'a loop for a garage light', loop('garage'), null],
  ['switch-neutral', 'a loop in an attic', loop('attic'), null],
  ['switch-neutral', 'an old loop', loop('bedroom', OLD), null],
  ['switch-neutral', 'a loop replaced like for like', loop('bedroom', REPLACED), null],
  ['switch-neutral', 'a loop in raceway', loop('bedroom', {}, { cable: 'raceway' }), null],
  [
    'switch-neutral',
    'automatic control',
    loop('bedroom', { device: device({ kind: 'switch', automatic: true, tamperResistant: false }) }),
    null,
  ],
  ['switch-neutral', 'a switch of receptacles alone', on([outlet('A', 1, 60), toggle('Y', ['A'])]), null],

  // 404.14: ratings of switches.
  [
    'switch-rating',
    '2,000 W at 240 V on a 15 A switch for 120 V',
    { fixtures: [heat], ...on([toggle('T', ['H']), wiredBox('H', heat.id)], two(20)) },
    V,
    /for 120 V/,
  ],
  [
    'switch-rating',
    'the same on one for 250 V',
    {
      fixtures: [heat],
      ...on(
        [
          toggle('T', ['H'], {
            device: device({ kind: 'switch', rating: 15, volts: '250', tamperResistant: false }),
          }),
          wiredBox('H', heat.id),
        ],
        two(20),
      ),
    },
    S,
  ],
  [
    'switch-rating',
    'a 13 A motor on 15 A: 80 % is 12',
    {
      fixtures: [wired('motor', plate(120, { amps: 13 }))],
      ...on([toggle('T', ['H']), wiredBox('H', 'fixture-motor-2-60')], plain(20)),
    },
    V,
    /80 %/,
  ],
  [
    'switch-rating',
    'a 12 A motor on 15 A',
    {
      fixtures: [wired('motor', plate(120, { amps: 12 }))],
      ...on([toggle('T', ['H']), wiredBox('H', 'fixture-motor-2-60')], plain(20)),
    },
    S,
  ],
  [
    'switch-rating',
    'a fan without a nameplate',
    {
      fixtures: [wired('exhaust-fan')],
      ...on([toggle('T', ['H']), wiredBox('H', 'fixture-exhaust-fan-2-60')], plain(20)),
    },
    'unknown',
    /nameplate/,
  ],
  ['switch-rating', 'lights alone', lit('bedroom'), null],

  // Half-switched receptacles.
  [
    'half-switched-tab',
    'the hot tab left on',
    on([outlet('A', 1, 60, { device: device({ switched: 'half' }) })]),
    V,
    /tab is in place/,
  ],
  [
    'half-switched-tab',
    'the hot tab off',
    on([outlet('A', 1, 60, { device: device({ switched: 'half', tabs: 'hot-broken' }) })]),
    S,
  ],
  [
    'half-switched-tab',
    'a whole one switched keeps its tab',
    on([outlet('A', 1, 60, { device: device({ switched: 'whole' }) })]),
    null,
  ],
  [
    'half-switched-tab',
    'half of a GFCI',
    on([outlet('A', 1, 60, { device: device({ kind: 'gfci', switched: 'half' }) })]),
    V,
    /only a duplex/,
  ],

  // 314.27(C): fans.
  [
    'fan-box',
    'a fan on an ordinary box',
    { boxes: [light('F', { purpose: 'ceiling-fan', ...seen({ fanBox: 'no' }) })] },
    V,
  ],
  [
    'fan-box',
    'a fan on a fan box',
    { boxes: [light('F', { purpose: 'ceiling-fan', ...seen({ fanBox: 'yes' }) })] },
    S,
  ],
  ['fan-box', 'a fan, box not looked at', { boxes: [light('F', seen({ luminaire: 'fan' }))] }, 'unknown'],
  ['fan-box', 'a light needs none', { boxes: [light('F')] }, null],

  // 410.16 and 410.10(D).
  [
    'luminaire-place',
    'a bare lamp in a closet',
    { area: closet, boxes: [light('Z', seen({ luminaire: 'surface-open' }))] },
    V,
    /410\.16\(B\)/,
  ],
  [
    'luminaire-place',
    'a pendant in a closet',
    { area: closet, boxes: [light('Z', seen({ luminaire: 'hanging' }))] },
    V,
  ],
  [
    'luminaire-place',
    'an enclosed light in a closet',
    { area: closet, boxes: [light('Z', seen({ luminaire: 'surface-enclosed' }))] },
    'note',
    /12"/,
  ],
  [
    'luminaire-place',
    'a light in a closet, kind not known',
    { area: closet, boxes: [light('Z')] },
    'unknown',
  ],
  [
    'luminaire-place',
    'an old closet light nobody looked at',
    { area: closet, boxes: [light('Z', OLD)] },
    null,
  ],
  [
    'luminaire-place',
    'an old bare lamp in a closet',
    { area: closet, boxes: [light('Z', { ...OLD, ...seen({ luminaire: 'surface-open' }) })] },
    'note',
  ],
  ['luminaire-place', 'a fan over a tub', overTub('fan'), V, /410\.10\(D\)/],
  ['luminaire-place', 'a track 8 ft 1 in. above the rim', overTub('track', { height: 117 }), null],
  ['luminaire-place', 'a hanging light by the tub', overTub('hanging'), V],
  ['luminaire-place', 'a recessed light over the tub', overTub('recessed-enclosed'), S],
  ['luminaire-place', 'a light over the tub, kind not known', overTub('unknown'), 'unknown'],
  ['luminaire-place', 'a hanging light across the room', overTub('hanging', { fromWall: 100 }), null],
  [
    'luminaire-place',
    'a hanging light in a bedroom',
    { boxes: [light('Z', seen({ luminaire: 'hanging' }))] },
    null,
  ],

  // 406.3(C) and 404.14(C): aluminum.
  [
    'aluminum-device',
    'a receptacle not marked CO/ALR',
    on([outlet('A', 1, 60, seen({ aluminumRated: 'no' }))], AL),
    V,
    /406\.3\(C\)/,
  ],
  ['aluminum-device', 'one marked CO/ALR', on([outlet('A', 1, 60, seen({ aluminumRated: 'yes' }))], AL), S],
  [
    'aluminum-device',
    'a switch not marked',
    on([toggle('Y', [], seen({ aluminumRated: 'no' }))], AL),
    V,
    /404\.14\(C\)/,
  ],
  ['aluminum-device', 'nobody looked', on([outlet('A', 1, 60)], AL), 'unknown'],
  ['aluminum-device', 'on copper', on([outlet('A', 1, 60, seen({ aluminumRated: 'no' }))]), null],
  [
    'aluminum-device',
    'a 30 A receptacle lands what its lugs are marked for',
    on([outlet('A', 1, 60, { device: device({ rating: 30, volts: '250' }) })], { ...AL, ...two(30) }),
    null,
  ],

  // 406.4(D)(2): labels on record.
  [
    'labels-stuck',
    'a GFCI without a ground, no label',
    {
      ...on(
        [
          outlet('A', 1, 60, {
            grounding: 'none',
            ...REPLACED,
            device: device({ kind: 'gfci' }),
            ...seen({ labels: 'no' }),
          }),
        ],
        OLD,
      ),
    },
    V,
    /No Equipment Ground/,
  ],
  [
    'labels-stuck',
    'its label on',
    {
      ...on(
        [
          outlet('A', 1, 60, {
            grounding: 'none',
            ...REPLACED,
            device: device({ kind: 'gfci' }),
            ...seen({ labels: 'yes' }),
          }),
        ],
        OLD,
      ),
    },
    S,
  ],
  [
    'labels-stuck',
    'nobody looked',
    {
      ...on([outlet('A', 1, 60, { grounding: 'none', ...REPLACED, device: device({ kind: 'gfci' }) })], OLD),
    },
    'note',
  ],
  [
    'labels-stuck',
    'a two-slot needs none',
    {
      ...on(
        [
          outlet('A', 1, 60, {
            grounding: 'none',
            ...REPLACED,
            device: device({ kind: 'two-slot' }),
            ...seen({ labels: 'no' }),
          }),
        ],
        OLD,
      ),
    },
    null,
  ],
  [
    'labels-stuck',
    'a grounded one needs none',
    { ...on([outlet('A', 1, 60, seen({ labels: 'no' }))]) },
    null,
  ],

  // 240.6(A).
  [
    'standard-rating',
    '55 A as found',
    on([outlet('A', 1, 60)], { ...plain(55), gauge: '6' }),
    'recommended',
    /55 A/,
  ],
  ['standard-rating', '10 A', on([light('Z')], plain(10)), ['recommended', 'recommended', null]],
  ['standard-rating', '45 A', on([outlet('A', 1, 60)], { ...plain(45), gauge: '8' }), null],

  // 250.122: the ground on record.
  ['ground-size', '14 AWG on 20 A', ground('14'), V, /12 AWG/],
  ['ground-size', '12 AWG on 20 A', ground('12'), S],
  ['ground-size', '14 AWG on 15 A', ground('14', { ...plain(15), gauge: '14' }), S],
  [
    'ground-size',
    '10 AWG with 6 AWG on 50 A',
    {
      fixtures: [wired('kiln', plate(240, { amps: 40 }))],
      ...on([wiredBox('K', 'fixture-kiln-2-60')], two(50, { gauge: '6', ground: '10' })),
    },
    S,
  ],
  ['ground-size', '12 AWG with hots enlarged to 10', ground('12', { gauge: '10' }), V, /enlarged/],
  ['ground-size', '10 AWG with hots enlarged to 10', ground('10', { gauge: '10' }), S],
  ['ground-size', 'not looked at', ground(null), null],

  // 334.12, 300.5, 340: cable where it runs.
  [
    'cable-route',
    'NM-B outdoors in a wet place',
    on([outlet('A', 1, 60)], { route: 'wet' }),
    V,
    /334\.12\(B\)/,
  ],
  ['cable-route', 'NM-B in the earth', buriedRun({}), V],
  ['cable-route', 'NM-B in a dry place', on([outlet('A', 1, 60)], { route: 'dry' }), S],
  ['cable-route', 'UF-B in a wet place', on([outlet('A', 1, 60)], { route: 'wet', cable: 'UF-B' }), S],
  [
    'cable-route',
    'UF-B 18 in. deep',
    buriedRun({ cable: 'UF-B', cover: 18, ...plain(20) }),
    V,
    /2' is asked for/,
  ],
  ['cable-route', 'UF-B 24 in. deep', buriedRun({ cable: 'UF-B', cover: 24, ...plain(20) }), S],
  [
    'cable-route',
    'UF-B 12 in. deep, 20 A with GFCI at the breaker',
    buriedRun({ cable: 'UF-B', cover: 12, breaker: breakerOf(20, 'gfci') }),
    S,
  ],
  [
    'cable-route',
    'UF-B 12 in. deep, multiwire with GFCI',
    buriedRun({ cable: 'UF-B', cover: 12, breaker: breakerOf(20, 'gfci', 2) }),
    V,
  ],
  [
    'cable-route',
    'UF-B 12 in. deep, 30 A with GFCI',
    buriedRun({ cable: 'UF-B', cover: 12, breaker: breakerOf(30, 'gfci'), gauge: '10' }),
    V,
  ],
  ['cable-route', 'raceway 18 in. deep', buriedRun({ cable: 'raceway', cover: 18, ...plain(20) }), S],
  ['cable-route', 'UF-B, cover not measured', buriedRun({ cable: 'UF-B', ...plain(20) }), 'unknown'],
  ['cable-route', 'SE in the earth', buriedRun({ cable: 'SE', cover: 30 }), V],
  ['cable-route', 'MC in a wet place', on([outlet('A', 1, 60)], { route: 'wet', cable: 'MC' }), 'unknown'],
  ['cable-route', 'not said where it runs', on([outlet('A', 1, 60)]), null],

  // 422.16(B)(4): hoods with a cord.
  [
    'hood-circuit',
    'a hood by cord beside other outlets',
    {
      kind: 'kitchen',
      fixtures: [hood],
      ...on([outlet('A', 1, 60, { serves: hood.id, height: 80 }), outlet('B', 1, 100)]),
    },
    V,
  ],
  [
    'hood-circuit',
    'a hood by cord alone',
    { kind: 'kitchen', fixtures: [hood], ...on([outlet('A', 1, 60, { serves: hood.id, height: 80 })]) },
    S,
  ],
  [
    'hood-circuit',
    'a wired hood beside lights',
    {
      kind: 'kitchen',
      fixtures: [wired('hood', NEW)],
      ...on([wiredBox('A', 'fixture-hood-2-60'), light('Z')]),
    },
    null,
  ],
  [
    'hood-circuit',
    'a hood with microwave beside other outlets',
    {
      kind: 'kitchen',
      fixtures: [overRange],
      ...on([outlet('A', 1, 60, { serves: overRange.id, height: 80 }), outlet('B', 1, 100)]),
    },
    [null, V, V],
  ],
  [
    'hood-circuit',
    'an old hood on an old circuit',
    {
      kind: 'kitchen',
      fixtures: [{ ...hood, ...OLD }],
      ...on([outlet('A', 1, 60, { ...OLD, serves: hood.id, height: 80 }), outlet('B', 1, 100, OLD)], OLD),
    },
    'note',
  ],

  // 422.31, 424.19, 440.14: disconnects.
  [
    'equipment-disconnect',
    'a condenser with none in sight',
    { kind: 'outdoors', fixtures: [wired('outdoor-unit', { ...NEW, disconnect: 'none' })] },
    V,
    /440\.14/,
  ],
  [
    'equipment-disconnect',
    'a condenser with a breaker that locks',
    { kind: 'outdoors', fixtures: [wired('outdoor-unit', { ...NEW, disconnect: 'lockable' })] },
    V,
    /not enough/,
  ],
  [
    'equipment-disconnect',
    'a condenser with one in sight',
    { kind: 'outdoors', fixtures: [wired('outdoor-unit', { ...NEW, disconnect: 'in-sight' })] },
    S,
  ],
  [
    'equipment-disconnect',
    'a water heater with a breaker that locks',
    { fixtures: [{ ...tank, ...NEW, disconnect: 'lockable' }] },
    S,
  ],
  [
    'equipment-disconnect',
    'a water heater with neither',
    { fixtures: [{ ...tank, ...NEW, disconnect: 'none' }] },
    V,
    /422\.31/,
  ],
  ['equipment-disconnect', 'a water heater nobody looked at', { fixtures: [{ ...tank, ...NEW }] }, 'note'],
  [
    'equipment-disconnect',
    'an old water heater with neither',
    { fixtures: [{ ...tank, disconnect: 'none' }] },
    'recommended',
  ],
  [
    'equipment-disconnect',
    'a fan of 60 W',
    { fixtures: [wired('exhaust-fan', { ...NEW, disconnect: 'none', ...plate(120, { watts: 60 }) })] },
    null,
  ],
  [
    'equipment-disconnect',
    'a range with its plug',
    { fixtures: [corded('range', { ...NEW, disconnect: 'none' })] },
    null,
  ],
  [
    'equipment-disconnect',
    'a gas furnace with neither',
    { fixtures: [wired('furnace', { ...NEW, disconnect: 'none', ...plate(120, { amps: 9 }) })] },
    V,
    /430\.102/,
  ],
  [
    'equipment-disconnect',
    'an air handler with 10 kW of strips and a breaker that locks',
    { fixtures: [wired('air-handler', { ...NEW, disconnect: 'lockable', ...plate(240, { watts: 10000 }) })] },
    S,
    /424\.19/,
  ],
  [
    'equipment-disconnect',
    'baseboard heat with neither',
    { fixtures: [{ ...heat, ...NEW, disconnect: 'none' }] },
    V,
    /424\.19/,
  ],

  // 110.26 and 240.24: panels.
  [
    'panel-place',
    '30 in. deep in front',
    panel({ ...NEW, clear: { width: 30, depth: 30, height: 80, highestHandle: 70 } }),
    V,
    /110\.26\(A\)/,
  ],
  [
    'panel-place',
    '36 by 30 by 78',
    panel({ ...NEW, clear: { width: 30, depth: 36, height: 78, highestHandle: 79 }, foreignAbove: 'no' }),
    S,
  ],
  [
    'panel-place',
    'the top handle 6 ft 8 in. up',
    panel({ ...NEW, clear: { width: 30, depth: 36, height: 80, highestHandle: 80 } }),
    V,
    /240\.24\(A\)/,
  ],
  ['panel-place', 'a duct above it', panel({ ...NEW, foreignAbove: 'yes' }), V, /110\.26\(E\)/],
  [
    'panel-place',
    'an old panel with 30 in.',
    panel({ clear: { width: 30, depth: 30, height: 80, highestHandle: 70 } }),
    'recommended',
  ],
  ['panel-place', 'nobody measured', panel({}), 'note'],
  [
    'panel-place',
    'a new panel in a bathroom',
    { kind: 'bathroom', ...panel({ ...NEW, x: 60, y: 60 }) },
    V,
    /240\.24\(E\)/,
  ],
  [
    'panel-place',
    'an old panel in a bathroom',
    { kind: 'bathroom', ...panel({ x: 60, y: 60 }) },
    'recommended',
  ],
  [
    'panel-place',
    'a panel over steps',
    { kind: 'stairs', ...panel({ ...NEW, x: 60, y: 60 }) },
    V,
    /240\.24\(F\)/,
  ],
  [
    'panel-place',
    'a panel in a closet of unknown use',
    { kind: 'closet', ...panel({ ...NEW, x: 60, y: 60 }) },
    'unknown',
    /not on record/,
  ],
  ['panel-place', 'a panel in a laundry', { kind: 'laundry', ...panel({ ...NEW, x: 60, y: 60 }) }, 'note'],
  ['panel-place', 'a panel in a bedroom', { kind: 'bedroom', ...panel({ ...NEW, x: 60, y: 60 }) }, 'note'],

  // 110.14(A).
  [
    'doubled-lugs',
    'two breakers with two wires',
    panel({ found: { protection: 'breakers', signs: [], fillersMissing: 0, doubledLugs: 2, breakers: [] } }),
    V,
    /2 breakers/,
  ],
  [
    'doubled-lugs',
    'none found',
    panel({ found: { protection: 'breakers', signs: [], fillersMissing: 0, doubledLugs: 0, breakers: [] } }),
    S,
  ],
  ['doubled-lugs', 'nobody opened it', panel({}), null],

  // 230.67, 215.18, 230.85.
  ['surge', 'a new service without', service({ surge: 'no' }, NEW), [null, V, V], /230\.67/],
  ['surge', 'a new service with', service({ surge: 'yes' }, NEW), [null, S, S]],
  ['surge', 'a new service nobody looked at', service({}, NEW), [null, 'unknown', 'unknown']],
  ['surge', 'an old service without', service({ surge: 'no' }), [null, 'note', 'note']],
  ['surge', 'an old service nobody looked at', service({}), null],
  [
    'surge',
    'a new subpanel in the house without',
    { panels: [PANEL, { ...shed, ...NEW, service: { ...PLAIN_PANEL.service, surge: 'no' } }] },
    [null, null, V],
  ],
  ['outdoor-disconnect', 'a new service without', service({ outdoorDisconnect: 'none' }, NEW), [null, V, V]],
  [
    'outdoor-disconnect',
    'an old service without',
    service({ outdoorDisconnect: 'none' }),
    [null, 'note', 'note'],
  ],
  [
    'outdoor-disconnect',
    'the service disconnect outdoors, neutral bonded inside',
    service({ outdoorDisconnect: 'service-disconnect' }, NEW),
    [null, V, V],
    /250\.142\(B\)/,
  ],
  [
    'panel-bonding',
    'the service disconnect outdoors, neutral bonded inside',
    service({ outdoorDisconnect: 'service-disconnect' }, NEW),
    V,
    /first the fourth wire/,
  ],
  [
    'panel-bonding',
    'the service disconnect outdoors, neutral floats inside: what brings a ground is not on record',
    service({ outdoorDisconnect: 'service-disconnect' }, { ...NEW, bonded: false }),
    'unknown',
  ],
  [
    'panel-bonding',
    'an emergency disconnect on the supply side, bond inside',
    service({ outdoorDisconnect: 'emergency-only' }, NEW),
    S,
  ],
  [
    'outdoor-disconnect',
    'an emergency disconnect: its metal is bonded to the neutral as well',
    service({ outdoorDisconnect: 'emergency-only' }, NEW),
    [null, S, S],
    /main bonding jumper stays in .*bonded to the neutral as well/,
  ],
  [
    'outdoor-disconnect',
    'the service disconnect outdoors, neutral floats inside',
    service({ outdoorDisconnect: 'service-disconnect' }, { ...NEW, bonded: false }),
    [null, S, S],
  ],
  [
    'outdoor-disconnect',
    'an emergency disconnect, bond inside',
    service({ outdoorDisconnect: 'emergency-only' }, NEW),
    [null, S, S],
  ],
  [
    'outdoor-disconnect',
    'an emergency disconnect, no bond inside',
    service({ outdoorDisconnect: 'emergency-only' }, { ...NEW, bonded: false }),
    [null, V, V],
  ],
  ['outdoor-disconnect', 'not looked at', service({}, NEW), [null, 'unknown', 'unknown']],

  // 250.50 to 250.104.
  ['electrodes', 'none at all', service({ electrodes: [] }), V, /250\.50/],
  [
    'electrodes',
    'the water pipe alone',
    service({ electrodes: ['water-pipe'] }, NEW),
    V,
    /250\.53\(D\)\(2\)/,
  ],
  ['electrodes', 'water pipe and two rods', service({ electrodes: ['water-pipe', 'rod'], rods: 2 }), S],
  ['electrodes', 'one rod, not measured', service({ electrodes: ['rod'], rods: 1 }), 'unknown'],
  ['electrodes', 'one rod of 40 Ω', service({ electrodes: ['rod'], rods: 1, rodProved: 'no' }, NEW), V],
  ['electrodes', 'one rod proved', service({ electrodes: ['rod'], rods: 1, rodProved: 'yes' }), S],
  ['electrodes', 'a footing needs nothing more', service({ electrodes: ['footing'] }), S],
  [
    'electrodes',
    'water pipes not bonded',
    service({ electrodes: ['footing'], waterBonded: 'no' }, NEW),
    V,
    /250\.104\(A\)/,
  ],
  [
    'electrodes',
    'gas pipes not bonded, old',
    service({ electrodes: ['footing'], gasBonded: 'no' }),
    'recommended',
  ],
  [
    'electrodes',
    'no bar for communications at a new service',
    service({ intersystem: 'no' }, NEW),
    V,
    /250\.94/,
  ],
  ['electrodes', 'no such bar at an old one', service({ intersystem: 'no' }), null],
  ['electrodes', 'nobody looked', service({}), null],

  // Conductors of the service and of feeders that carry the dwelling.
  ['service-conductor', '4 copper for 100 A', service({ gauge: '4' }), S],
  ['service-conductor', '6 copper for 100 A', service({ gauge: '6' }), V],
  [
    'service-conductor',
    '2/0 copper for 200 A',
    service({ gauge: '2/0' }, { mainRating: 200, busRating: 200 }),
    S,
  ],
  [
    'service-conductor',
    '4/0 aluminum for 200 A',
    service({ gauge: '4/0', material: 'aluminum' }, { mainRating: 200, busRating: 200 }),
    S,
  ],
  [
    'service-conductor',
    '3/0 aluminum for 200 A',
    service({ gauge: '3/0', material: 'aluminum' }, { mainRating: 200, busRating: 200 }),
    V,
    /4\/0 AWG/,
  ],
  [
    'service-conductor',
    '400 kcmil copper for 400 A',
    service({ gauge: '400' }, { mainRating: 400, busRating: 400 }),
    S,
  ],
  [
    'service-conductor',
    '350 kcmil copper for 400 A',
    service({ gauge: '350' }, { mainRating: 400, busRating: 400 }),
    V,
  ],
  [
    'service-conductor',
    '6 copper for 60 A is no 83 % matter',
    service({ gauge: '6' }, { mainRating: 60 }),
    'unknown',
  ],
  [
    'feeder',
    '2/0 copper, 200 A, the whole dwelling behind it',
    wholeHouse({ gauge: '2/0', cable: 'raceway' }),
    S,
  ],
  [
    'feeder',
    '2/0 copper, 200 A, beside other circuits',
    wholeHouse({ gauge: '2/0', cable: 'raceway' }, true),
    V,
    /at most 175 A/,
  ],
  [
    'feeder',
    '4/0 aluminum, 200 A, the whole dwelling',
    wholeHouse({ gauge: '4/0', material: 'aluminum', cable: 'SE' }),
    S,
  ],
  [
    'feeder',
    '3/0 aluminum, 200 A, the whole dwelling',
    wholeHouse({ gauge: '3/0', material: 'aluminum', cable: 'SE' }),
    V,
  ],

  // Kitchens: two circuits at the counters.
  [
    'required-circuits',
    'both circuits at the counter',
    kitchen([[[atCounter('A', 40)]], [[atCounter('B', 100)]]]),
    S,
    /at the counters/,
  ],
  [
    'required-circuits',
    'the second circuit feeds only the dining wall',
    kitchen([[[atCounter('A', 40), atCounter('B', 100)]], [[outlet('C', 3, 60)]]]),
    V,
    /1 small-appliance circuit at the counters/,
  ],
  [
    'required-circuits',
    'a multiwire circuit, both hots at the counter',
    split({ hot: 'black' }, { hot: 'red' }),
    S,
    /2 small-appliance circuits/,
  ],
  [
    'required-circuits',
    'a multiwire circuit, one hot at the counter',
    split({ hot: 'black' }, { hot: 'black' }),
    V,
  ],
  [
    'required-circuits',
    'dishwasher and disposal are no second circuit',
    kitchen(
      [
        [[atCounter('A', 40), atCounter('B', 100)]],
        [
          [
            outlet('C', 2, 40, { serves: 'fixture-dishwasher-2-60' }),
            outlet('D', 2, 70, { serves: 'fixture-disposal-2-100' }),
          ],
        ],
      ],
      [
        ...counterWall(),
        corded('dishwasher', { fastened: true }),
        fixture('disposal', 2, 100, 10, { connection: 'cord', fastened: true }),
      ],
    ),
    V,
  ],
  [
    'designated-circuits',
    'dishwasher and disposal on a circuit of theirs',
    kitchen(
      [
        [
          [
            outlet('C', 2, 40, { serves: 'fixture-dishwasher-2-60' }),
            outlet('D', 2, 70, { serves: 'fixture-disposal-2-100' }),
          ],
        ],
      ],
      [
        corded('dishwasher', { fastened: true }),
        fixture('disposal', 2, 100, 10, { connection: 'cord', fastened: true }),
      ],
    ),
    null,
  ],
  [
    'designated-circuits',
    'a light on a small-appliance circuit',
    { kind: 'kitchen', ...on([atCounter('A', 40), light('Z')], plain(20)) },
    V,
  ],
  [
    'designated-circuits',
    'a refrigerator on one',
    {
      kind: 'kitchen',
      fixtures: [corded('refrigerator')],
      ...on([atCounter('A', 40), outlet('B', 2, 60, { serves: 'fixture-refrigerator-2-60' })], plain(20)),
    },
    S,
  ],

  // Laundry by its equipment.
  [
    'required-circuits',
    'a washer in a hall closet on a general circuit',
    { kind: 'closet', fixtures: [washer], ...on([outlet('W', 3, 60, { serves: washer.id })], plain(20)) },
    V,
    /laundry circuit/,
  ],
  [
    'designated-circuits',
    'a washer and a gas dryer on one circuit',
    {
      kind: 'laundry',
      fixtures: [washer, corded('dryer', plate(120, { amps: 6 }))],
      ...on(
        [outlet('W', 3, 60, { serves: washer.id }), outlet('D', 2, 60, { serves: 'fixture-dryer-2-60' })],
        plain(20),
      ),
    },
    S,
  ],
  [
    'designated-circuits',
    'a laundry circuit with a hall light',
    { kind: 'laundry', ...on([outlet('W', 3, 60), light('Z')], plain(20)) },
    V,
  ],

  // Bathrooms and garages by edition.
  [
    'designated-circuits',
    'a second bathroom circuit for a bidet seat beside a bedroom',
    bath(
      [outlet('A', 1, 40, { height: 44 })],
      [[[outlet('B', 3, 20, { serves: 'fixture-basin' }), outlet('C', 1, 60, { areaId: 'area-3' })]]],
    ),
    [V, S, S],
  ],
  [
    'designated-circuits',
    'one circuit for two bathrooms and a fan',
    bath([
      outlet('A', 1, 40, { height: 44 }),
      outlet('B', 1, 40, { areaId: 'area-2', height: 44 }),
      light('Z'),
    ]),
    V,
  ],
  [
    'designated-circuits',
    'one circuit for all of one bathroom',
    {
      kind: 'bathroom',
      fixtures: [basin()],
      ...on([outlet('A', 1, 60, { height: 44 }), light('Z')], plain(20)),
    },
    S,
  ],
  [
    'designated-circuits',
    'a second garage circuit with a door opener and lights',
    {
      area: garage(1),
      boxes: [
        low('A', 1, 60),
        outlet('B', 1, 140, { height: 90, mount: 'ceiling', fromWall: 100 }),
        light('Z'),
      ],
      circuits: [circuitOf(1, [low('A', 1, 60)]), circuitOf(2, [outlet('B', 1, 140), light('Z')])],
    },
    S,
    /feeds nothing else|further garage/,
  ],
  [
    'designated-circuits',
    'the only garage circuit with a light',
    { area: garage(2), ...on([low('A', 1, 60), light('Z')], plain(20)) },
    V,
  ],
  [
    'garage-receptacles',
    'two bays, both receptacles in one',
    bayed([low('A', 4, 40), low('B', 4, 100)]),
    V,
    /1 of 2 vehicle bays/,
  ],
  ['garage-receptacles', 'two bays, one in each', bayed([low('A', 4, 40), low('B', 2, 100)]), S],
  [
    'garage-receptacles',
    'two bays, doors not drawn, both on one side',
    bayed([low('A', 4, 40), low('B', 4, 200)], []),
    'unknown',
    /vehicle doors/,
  ],
  [
    'garage-receptacles',
    'two bays, doors not drawn, at opposite corners',
    bayed([low('A', 4, 40), low('B', 2, 40)], []),
    S,
  ],
  ['garage-receptacles', 'one bay', { area: garage(1), boxes: [low('A', 4, 40)] }, S],

  // 210.52(D): basins.
  [
    'bathroom-basin',
    'on the wall around the corner',
    { kind: 'bathroom', fixtures: [basin(1, 130)], boxes: [outlet('A', 2, 20, { height: 44 })] },
    S,
  ],
  [
    'bathroom-basin',
    'on the wall across a narrow room',
    {
      area: room([144, 44, 144, 44], undefined, { kind: 'bathroom' }),
      fixtures: [basin(1, 72)],
      boxes: [outlet('A', 3, 72, { height: 44 })],
    },
    V,
    /wall beside/,
  ],
  [
    'bathroom-basin',
    'in the top of the vanity',
    {
      kind: 'bathroom',
      fixtures: [basin()],
      boxes: [outlet('A', 1, 60, { height: 34, mount: 'counter-assembly' })],
    },
    S,
  ],
  [
    'bathroom-basin',
    'on the cabinet 11 in. below its top',
    {
      kind: 'bathroom',
      fixtures: [basin()],
      boxes: [outlet('A', 1, 60, { height: 22, mount: 'cabinet-face', fromWall: 20 })],
    },
    S,
  ],
  [
    'bathroom-basin',
    'on the cabinet 14 in. below its top',
    {
      kind: 'bathroom',
      fixtures: [basin()],
      boxes: [outlet('A', 1, 60, { height: 19, mount: 'cabinet-face', fromWall: 20 })],
    },
    V,
  ],
  [
    'bathroom-basin',
    'one between two basins',
    {
      kind: 'bathroom',
      fixtures: [basin(1, 40, 'a'), basin(1, 100, 'b')],
      boxes: [outlet('A', 1, 70, { height: 44 })],
    },
    S,
  ],

  // 210.70: automatic control.
  [
    'lighting-outlet',
    'a stair with automatic control',
    {
      area: kindOf('stairs', { conditions: conditions({ risers: 14 }) }),
      boxes: [light('Z', { device: device({ kind: 'light', automatic: true, tamperResistant: false }) })],
    },
    S,
    /automatic/,
  ],
  [
    'lighting-outlet',
    'a stair switched at one end',
    {
      area: kindOf('stairs', { conditions: conditions({ risers: 14 }) }),
      boxes: [light('Z'), toggle('Y', ['Z'])],
    },
    V,
  ],
  [
    'lighting-outlet',
    'automatic control alone in a bedroom',
    { boxes: [light('Z', { device: device({ kind: 'light', automatic: true, tamperResistant: false }) })] },
    V,
  ],

  // Directory: what is left of a circuit.
  [
    'directory',
    'a spare whose only outlet is to be removed',
    { ...on([outlet('A', 1, 60, { status: 'remove' })], { ...OLD, name: 'Spare' }) },
    S,
  ],
  [
    'directory',
    'a circuit whose only outlet is to be removed',
    { ...on([outlet('A', 1, 60, { status: 'remove' })], { ...OLD, name: 'Bedroom' }) },
    V,
    /name it Spare/,
  ],

  // Old services.
  [
    'service-load',
    'an old 60 A service that carries its load',
    { ...panel({ mainRating: 60 }), ...on([outlet('A', 1, 60, OLD)], OLD) },
    'note',
  ],
  [
    'service-load',
    'a new 60 A service',
    { ...panel({ mainRating: 60, ...NEW }), ...on([outlet('A', 1, 60)]) },
    V,
  ],

  // Drop for what is wired in.
  [
    'voltage-drop',
    'a water heater 200 ft away on 10 AWG',
    { fixtures: [tank], ...on([wiredBox('H', tank.id)], two(30, { gauge: '10' }), [{ measured: 2400 }]) },
    'recommended',
    /18\.75 A|18\.8 A/,
  ],
  [
    'voltage-drop',
    'a water heater 60 ft away',
    { fixtures: [tank], ...on([wiredBox('H', tank.id)], two(30, { gauge: '10' }), [{ measured: 720 }]) },
    S,
  ],

  // 406.12: a dedicated space.
  [
    'tamper-resistant',
    'a duplex for washer and gas dryer, neither easily moved',
    {
      kind: 'laundry',
      fixtures: [washer, corded('dryer', plate(120, { amps: 6 }))],
      boxes: [
        outlet('W', 3, 60, {
          serves: washer.id,
          alsoServes: 'fixture-dryer-2-60',
          device: device({ tamperResistant: false }),
        }),
      ],
    },
    null,
  ],
  [
    'tamper-resistant',
    'a duplex for a washer alone',
    {
      kind: 'laundry',
      fixtures: [washer],
      boxes: [outlet('W', 3, 60, { serves: washer.id, device: device({ tamperResistant: false }) })],
    },
    V,
  ],
  [
    'tamper-resistant',
    'a single receptacle for a refrigerator',
    {
      kind: 'kitchen',
      fixtures: [corded('refrigerator')],
      boxes: [
        outlet('R', 2, 60, {
          serves: 'fixture-refrigerator-2-60',
          device: device({ kind: 'single', tamperResistant: false }),
        }),
      ],
    },
    null,
  ],

  // 314.16: room in the box.
  [
    'box-fill',
    'two 12/2 and a device in 18 in³, clamps inside: 18',
    on([inBox('A', 18), outlet('B', 1, 90)]),
    S,
    /18 in³ of 18/,
  ],
  ['box-fill', 'the same in 16 in³', on([inBox('A', 16), outlet('B', 1, 90)]), V, /a box of 18 in³ takes it/],
  ['box-fill', 'without clamps inside: 15.75', on([inBox('A', 16, 'no'), outlet('B', 1, 90)]), S],
  ['box-fill', 'an old box, full', on([inBox('A', 14, 'yes', OLD), outlet('B', 1, 90, OLD)], OLD), 'note'],
  ['box-fill', 'its room not read', on([outlet('A', 1, 60)]), null],
  [
    'box-fill',
    'conductors of another circuit in it',
    on([inBox('A', 30, 'no', { through: ['circuit-1'] })]),
    'unknown',
  ],
  [
    'box-fill',
    'five cables in 2020: five grounds count 2.81',
    on([inBox('A', 32, 'no'), ...['B', 'C', 'D', 'E'].map((n, i) => outlet(n, 1, 80 + 12 * i))], {}, [
      {},
      ...['B', 'C', 'D', 'E'].map(() => ({ from: 'box-a' })),
    ]),
    S,
  ],
  [
    'box-fill',
    'an old light with two switches: travelers not on record',
    on([
      inBox('Z', 15, 'no', { status: 'existing', device: device({ kind: 'light' }) }),
      toggle('Y', ['Z']),
      { ...toggle('X', ['Z']), offset: 80 },
    ]),
    'unknown',
  ],
  // Feed at the light: 2 + 1, and to the switches hot, switched hot, neutral + 1: 5 × 2.25 + 2.25.
  [
    'box-fill',
    'a new light with two switches, 13.5 of 13.5 in³',
    on([
      inBox('Z', 13.5, 'no', { device: device({ kind: 'light' }) }),
      toggle('Y', ['Z']),
      { ...toggle('X', ['Z']), offset: 80 },
    ]),
    S,
  ],
  [
    'box-fill',
    'a new three-way between its light and the other switch, 20.25 in³ with its yoke in a box of 20',
    on([
      outlet('Z', 1, 60, { device: device({ kind: 'light' }) }),
      toggle('Y', ['Z'], { enclosure: { volume: 20, clamps: 'no' } }),
      { ...toggle('X', ['Z']), offset: 80 },
    ]),
    V,
  ],

  // Alarms: a note, never an approval.
  ['alarms', 'a bedroom without', {}, 'note', /building code/],
  ['alarms', 'a garage alone', { kind: 'garage' }, null],
];

export const INSPECTION_CASES: readonly RuleCase[] = ROWS.map(([rule, what, situation, answer, words]) =>
  asCase(rule, what, (edition) => house({ ...situation, edition }), answer, words),
);
/** How many situations look wrong and are fine, or are not to be judged. */
export const TRAPS = ROWS.filter(([, , , answer]) => answer !== V).length;
