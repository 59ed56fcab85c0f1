/** Rules of where things go: situations worked from the code's sections, edition by edition. */
import { breakerOf, DEFAULT_SETTINGS, PLAIN_NAMEPLATE } from '#core/job/document.ts';
import type { Area, Box, Circuit, Edition, Fixture, Job, JobDocument, Opening } from '#core/job/schema.ts';
import { chain, conditions, fixture, house, opening, outlet, receptacle, room } from '#core/job/testing.ts';
import { asCase, S, V, type Answer, type Answers, type RuleCase } from './ruleCase.ts';

export interface Parts {
  area?: Partial<Area>;
  size?: [number, number];
  openings?: Opening[];
  fixtures?: Fixture[];
  boxes?: Box[];
  circuits?: Circuit[];
  job?: Partial<Job>;
  areas?: Area[];
}

const at = (height: number, values: Partial<Box> = {}) => ({ height, ...values });
const kitchen = (parts: Parts): Parts => ({ size: [168, 120], ...parts, area: { kind: 'kitchen' } });
const counter = fixture('counter', 1, 84, 168, { fastened: true });
const island = (values: Partial<Fixture> = {}) =>
  fixture('island', 1, 84, 72, { fromWall: 60, depth: 36, id: 'fixture-island', ...values });
const onIsland = (name: string, values: Partial<Box> = {}) =>
  outlet(name, 1, 84, {
    fixtureId: 'fixture-island',
    mount: 'cabinet-face',
    height: 28,
    fromWall: 70,
    ...values,
  });
const bath = (parts: Parts): Parts => ({ size: [120, 96], ...parts, area: { kind: 'bathroom' } });
const basin = fixture('basin', 1, 40, 20, { depth: 18 });
const tub = fixture('tub', 3, 60, 60, { depth: 30, height: 20 });
const garage = (bays: number, more: Partial<Area['conditions']> = {}): Partial<Area> => ({
  kind: 'garage',
  conditions: conditions({ bays, ...more }),
});
const kindOf = (kind: Area['kind'], more: Partial<Area['conditions']> = {}): Partial<Area> => ({
  kind,
  conditions: conditions(more),
});
const yard = (faces: 'front' | 'back', id: string, values: Partial<Area> = {}): Area =>
  room([200, 60, 200, 60], undefined, {
    id,
    name: `Yard ${faces}`,
    kind: 'outdoors',
    location: 'wet',
    y: faces === 'front' ? 600 : -600,
    conditions: conditions({ faces }),
    walls: [1, 2, 3, 4].map((i) => ({ id: `wall-${id}-${i}`, length: i % 2 ? 200 : 60, turn: 90 })),
    ...values,
  });
const outside = (name: string, id: string, values: Partial<Box> = {}) =>
  outlet(name, 1, 100, { areaId: id, wallId: `wall-${id}-1`, height: 24, ...values });
const light = (name: string, values: Partial<Box> = {}) =>
  outlet(name, 1, 60, {
    mount: 'ceiling',
    height: 96,
    fromWall: 60,
    device: receptacle({ kind: 'light' }),
    ...values,
  });
const toggle = (name: string, controls: string[], values: Partial<Box> = {}) =>
  outlet(name, 1, 20, { height: 46, device: receptacle({ kind: 'switch' }), controls, ...values });
const furnace = fixture('furnace', 1, 40, 24, { name: 'furnace', height: 60 });
const hall = (length: number): Parts => ({ area: { kind: 'hallway' }, size: [length, 40] });

const television = fixture('television', 1, 60, 50);
const threeWalls = [1, 2, 3].map((w) => outlet(`R${w}`, w, 60));
const shop = (values: Partial<Job['settings']>): Partial<Job> => ({
  settings: { ...DEFAULT_SETTINGS, ...values },
});
const outdoorUnit = (rating: 30 | 60, protection: Circuit['breaker']['protection']): Parts => {
  const unit = fixture('outdoor-unit', 1, 60, 36, { name: 'outdoor unit' });
  const box = outlet('H', 1, 60, { device: receptacle({ kind: 'hardwired' }), serves: unit.id });
  return {
    area: { kind: 'outdoors', location: 'wet' },
    fixtures: [unit],
    boxes: [box],
    circuits: [
      chain([box], { breaker: breakerOf(rating, protection, 2), gauge: rating === 30 ? '10' : '4' }),
    ],
  };
};

const TABLE: [string, string, Parts, Answer | Answers, RegExp?][] = [
  // 210.52(A)
  ['wall-spacing', 'an empty den', { area: kindOf('den') }, V],
  ['wall-spacing', 'a hallway', { area: kindOf('hallway') }, null],
  [
    'wall-spacing',
    'a wall of 12 ft with one in its middle',
    {
      size: [144, 100],
      openings: [opening(2, 0, 100), opening(3, 0, 144), opening(4, 0, 100)],
      boxes: [outlet('A', 1, 72)],
    },
    S,
  ],
  [
    'wall-spacing',
    'one switched in place of a light does not count',
    {
      size: [144, 100],
      openings: [opening(2, 0, 100), opening(3, 0, 144), opening(4, 0, 100)],
      boxes: [outlet('A', 1, 72, { device: receptacle({ switched: 'whole' }) })],
    },
    V,
  ],
  [
    'wall-spacing',
    'of a duplex with one half switched the other half counts',
    {
      size: [144, 100],
      openings: [opening(2, 0, 100), opening(3, 0, 144), opening(4, 0, 100)],
      boxes: [outlet('A', 1, 72, { device: receptacle({ switched: 'half' }) })],
    },
    S,
  ],
  [
    'wall-spacing',
    'a fixed workbench interrupts the wall in 2017 only',
    {
      size: [144, 100],
      fixtures: [fixture('counter', 1, 72, 144, { fastened: true })],
      openings: [opening(2, 0, 100), opening(3, 0, 144), opening(4, 0, 100)],
    },
    [S, V, V],
  ],
  [
    'wall-spacing',
    'a railing is wall space',
    {
      size: [144, 100],
      openings: [
        opening(1, 0, 144, { kind: 'railing' }),
        opening(2, 0, 100),
        opening(3, 0, 144),
        opening(4, 0, 100),
      ],
    },
    V,
  ],
  [
    'wall-spacing',
    'a kitchen whose walls are all counter',
    kitchen({ fixtures: [counter], openings: [opening(2, 0, 120), opening(3, 0, 168), opening(4, 0, 120)] }),
    S,
  ],
  // 210.52(C)(1)
  ['counter-spacing', 'a bare counter of 14 ft', kitchen({ fixtures: [counter] }), V, /14' of counter/],
  [
    'counter-spacing',
    'four outlets 48 in. apart and 12 from the ends',
    kitchen({ fixtures: [counter], boxes: [12, 60, 108, 156].map((x, i) => outlet(`K${i}`, 1, x, at(44))) }),
    S,
  ],
  [
    'counter-spacing',
    'an inch too far apart',
    kitchen({ fixtures: [counter], boxes: [12, 61, 108, 156].map((x, i) => outlet(`K${i}`, 1, x, at(44))) }),
    V,
    /1" of counter/,
  ],
  [
    'counter-spacing',
    'a counter 11 in. wide needs none',
    kitchen({ fixtures: [fixture('counter', 1, 40, 11)] }),
    S,
  ],
  [
    'counter-spacing',
    'a counter 12 in. wide needs one',
    kitchen({ fixtures: [fixture('counter', 1, 40, 12)] }),
    V,
  ],
  [
    'counter-spacing',
    'a range divides the counter',
    kitchen({
      fixtures: [fixture('counter', 1, 60, 80), fixture('range', 1, 60, 30)],
      boxes: [outlet('K1', 1, 30, at(44))],
    }),
    V,
  ],
  [
    'counter-spacing',
    'a sink with 12 in. of counter behind it does not',
    kitchen({
      fixtures: [fixture('counter', 1, 60, 48), fixture('sink', 1, 60, 30, { fromWall: 12, depth: 16 })],
      boxes: [outlet('K1', 1, 60, at(44))],
    }),
    S,
  ],
  [
    'counter-spacing',
    'a sink with 11 in. behind it does',
    kitchen({
      fixtures: [fixture('counter', 1, 60, 60), fixture('sink', 1, 60, 30, { fromWall: 11, depth: 16 })],
      boxes: [outlet('K1', 1, 60, at(44))],
    }),
    V,
  ],
  [
    'counter-spacing',
    'a corner sink needs 18 in. behind it',
    kitchen({
      fixtures: [fixture('counter', 1, 60, 60), fixture('sink', 1, 60, 30, { fromWall: 12, corner: true })],
      boxes: [outlet('K1', 1, 60, at(44))],
    }),
    V,
  ],
  [
    'counter-spacing',
    '21 in. above the counter is too high',
    kitchen({ fixtures: [fixture('counter', 1, 40, 40)], boxes: [outlet('K1', 1, 40, at(57))] }),
    V,
  ],
  [
    'counter-spacing',
    'inside an appliance garage',
    kitchen({
      fixtures: [fixture('counter', 1, 40, 40), fixture('appliance-garage', 1, 40, 24, { height: 54 })],
      boxes: [outlet('K1', 1, 40, at(44))],
    }),
    V,
  ],
  [
    'counter-spacing',
    'an L of two counters reaches around its corner',
    kitchen({
      fixtures: [fixture('counter', 1, 144, 48), fixture('counter', 2, 36, 24)],
      boxes: [outlet('K1', 1, 144, at(44)), outlet('K2', 2, 24, at(44))],
    }),
    S,
  ],
  [
    'counter-spacing',
    'a bench in a den is not a kitchen counter',
    { area: kindOf('den'), fixtures: [counter] },
    null,
  ],
  // 210.52(C)(2), (3)
  ['island-receptacles', 'an island of 18 ft² with none', kitchen({ fixtures: [island()] }), V],
  [
    'island-receptacles',
    'one on its face 8 in. below the top',
    kitchen({ fixtures: [island()], boxes: [onIsland('I1')] }),
    [S, V, V],
  ],
  [
    'island-receptacles',
    '18 ft² asks for two in 2020',
    kitchen({ fixtures: [island()], boxes: [onIsland('I1'), onIsland('I2', { offset: 60 })] }),
    [S, S, V],
  ],
  [
    'island-receptacles',
    '9 ft² asks for one',
    kitchen({ fixtures: [island({ width: 36, depth: 36 })], boxes: [onIsland('I1')] }),
    [S, S, V],
  ],
  [
    'island-receptacles',
    'in the top, in a listed assembly',
    kitchen({
      fixtures: [island({ width: 36 })],
      boxes: [onIsland('I1', { mount: 'counter-assembly', height: 36 })],
    }),
    S,
  ],
  [
    'island-receptacles',
    'none, with provision for a later one',
    kitchen({ fixtures: [island({ futureProvision: true })] }),
    [V, V, S],
  ],
  [
    'island-receptacles',
    '23 by 20 in.: too small in 2017',
    kitchen({ fixtures: [island({ width: 23, depth: 20 })] }),
    [S, V, V],
  ],
  [
    'island-receptacles',
    '11 in. deep: too small',
    kitchen({ fixtures: [island({ width: 60, depth: 11 })] }),
    [S, S, V],
  ],
  [
    'island-receptacles',
    '13 in. below the top',
    kitchen({ fixtures: [island({ width: 36 })], boxes: [onIsland('I1', { height: 23 })] }),
    V,
    /12 in\. below|below the surface/,
  ],
  [
    'island-receptacles',
    'under an overhang of 8 in.',
    kitchen({ fixtures: [island({ width: 36, overhang: 8 })], boxes: [onIsland('I1')] }),
    V,
  ],
  [
    'island-receptacles',
    'a peninsula with its outlet at the wall end',
    kitchen({
      fixtures: [island({ kind: 'peninsula', fromWall: 0, width: 24, depth: 48 })],
      boxes: [onIsland('P1', { fromWall: 6 })],
    }),
    [S, V, V],
    /outer end|below/,
  ],
  [
    'island-receptacles',
    'a peninsula with its outlet near the outer end',
    kitchen({
      fixtures: [island({ kind: 'peninsula', fromWall: 0, width: 24, depth: 48 })],
      boxes: [onIsland('P1', { fromWall: 30 })],
    }),
    [S, S, V],
  ],
  // 210.52(D)
  ['bathroom-basin', 'none', bath({ fixtures: [basin] }), V],
  [
    'bathroom-basin',
    '36 in. from its edge',
    bath({ fixtures: [basin], boxes: [outlet('B', 1, 86, at(44))] }),
    S,
  ],
  [
    'bathroom-basin',
    '37 in. from its edge',
    bath({ fixtures: [basin], boxes: [outlet('B', 1, 87, at(44))] }),
    V,
  ],
  [
    'bathroom-basin',
    'on the cabinet 10 in. below its top',
    bath({ fixtures: [basin], boxes: [outlet('B', 1, 55, at(26, { mount: 'cabinet-face' }))] }),
    S,
  ],
  [
    'bathroom-basin',
    'on the cabinet 13 in. below its top',
    bath({ fixtures: [basin], boxes: [outlet('B', 1, 55, at(23, { mount: 'cabinet-face' }))] }),
    V,
  ],
  [
    'bathroom-basin',
    'a basin in a bedroom is no bathroom',
    { area: kindOf('bedroom'), fixtures: [basin] },
    null,
  ],
  // 210.52(E)
  ['outdoor-receptacles', 'no outdoor area on record', {}, 'note'],
  [
    'outdoor-receptacles',
    'front and back',
    {
      areas: [yard('front', 'area-f'), yard('back', 'area-b')],
      boxes: [outside('F1', 'area-f'), outside('K1', 'area-b')],
    },
    S,
  ],
  [
    'outdoor-receptacles',
    'none at the back',
    { areas: [yard('front', 'area-f'), yard('back', 'area-b')], boxes: [outside('F1', 'area-f')] },
    V,
    /Back of the house/,
  ],
  [
    'outdoor-receptacles',
    '6 ft 7 in. above grade',
    {
      areas: [yard('front', 'area-f'), yard('back', 'area-b')],
      boxes: [outside('F1', 'area-f', at(79)), outside('K1', 'area-b')],
    },
    V,
    /Front/,
  ],
  [
    'outdoor-receptacles',
    'a porch 30 in. up serves the back from grade',
    {
      areas: [
        yard('front', 'area-f'),
        yard('back', 'area-b', { kind: 'deck', conditions: conditions({ faces: 'back', aboveGrade: 30 }) }),
      ],
      boxes: [outside('F1', 'area-f'), outside('K1', 'area-b')],
    },
    S,
  ],
  [
    'outdoor-receptacles',
    'a deck 6 ft up does not',
    {
      areas: [
        yard('front', 'area-f'),
        yard('back', 'area-b', { kind: 'deck', conditions: conditions({ faces: 'back', aboveGrade: 72 }) }),
      ],
      boxes: [outside('F1', 'area-f'), outside('K1', 'area-b')],
    },
    V,
  ],
  [
    'outdoor-receptacles',
    'a multifamily unit with its own door at grade',
    {
      job: { dwelling: 'multifamily' },
      areas: [yard('front', 'area-f', { conditions: conditions({ ownEntrance: true, faces: 'side' }) })],
    },
    V,
    /210\.52\(E\)\(2\)/,
  ],
  [
    'deck-receptacle',
    'attached, reached from inside, none',
    { area: kindOf('deck', { reachedFromInside: true, houseGap: 0 }) },
    V,
  ],
  [
    'deck-receptacle',
    'attached, one 24 in. up',
    { area: kindOf('deck', { reachedFromInside: true }), boxes: [outlet('D', 1, 60, at(24))] },
    S,
  ],
  [
    'deck-receptacle',
    'one 6 ft 7 in. up',
    { area: kindOf('deck', { reachedFromInside: true }), boxes: [outlet('D', 1, 60, at(79))] },
    V,
  ],
  [
    'deck-receptacle',
    '3 in. from the house',
    { area: kindOf('deck', { reachedFromInside: true, houseGap: 3 }) },
    [S, V, V],
  ],
  [
    'deck-receptacle',
    '5 in. from the house',
    { area: kindOf('deck', { reachedFromInside: true, houseGap: 5 }) },
    S,
  ],
  ['deck-receptacle', 'reached from the yard only', { area: kindOf('deck', { houseGap: 0 }) }, [S, V, V]],
  // 210.52(F) to (I)
  ['laundry-receptacle', 'none', { area: kindOf('laundry') }, V],
  ['laundry-receptacle', 'one', { area: kindOf('laundry'), boxes: [outlet('L', 1, 60)] }, S],
  [
    'laundry-receptacle',
    'laundry for all on the premises',
    { area: kindOf('laundry'), job: { dwelling: 'multifamily', laundryElsewhere: true } },
    S,
  ],
  [
    'laundry-receptacle',
    'a washer in a hall',
    { area: kindOf('hallway'), fixtures: [fixture('washer', 1, 60, 27)] },
    V,
  ],
  ['garage-receptacles', 'two bays, one outlet', { area: garage(2), boxes: [outlet('G', 1, 60, at(44))] }, V],
  [
    'garage-receptacles',
    'two bays, two outlets',
    { area: garage(2), boxes: [outlet('G', 1, 60, at(44)), outlet('H', 3, 60, at(44))] },
    S,
  ],
  ['garage-receptacles', 'at the ceiling only', { area: garage(1), boxes: [outlet('G', 1, 60, at(90))] }, V],
  [
    'garage-receptacles',
    'detached without power',
    { area: garage(1, { detached: true, powered: false }) },
    null,
  ],
  [
    'garage-receptacles',
    'multifamily, attached to the unit',
    { area: garage(1), job: { dwelling: 'multifamily' } },
    [null, V, V],
  ],
  [
    'garage-receptacles',
    'multifamily, common garage',
    { area: garage(1, { attachedToUnit: false }), job: { dwelling: 'multifamily' } },
    null,
  ],
  ['outbuilding-receptacle', 'with power, none', { area: kindOf('accessory') }, V],
  [
    'outbuilding-receptacle',
    'with power, one',
    { area: kindOf('accessory'), boxes: [outlet('O', 1, 60)] },
    S,
  ],
  ['outbuilding-receptacle', 'without power', { area: kindOf('accessory', { powered: false }) }, null],
  ['basement-receptacle', 'none', { area: kindOf('basement-unfinished') }, V],
  [
    'basement-receptacle',
    'the one for the pump does not count',
    {
      area: kindOf('basement-unfinished'),
      fixtures: [fixture('sump-pump', 1, 60, 18, { id: 'fixture-pump' })],
      boxes: [outlet('P', 1, 60, { serves: 'fixture-pump' })],
    },
    V,
  ],
  [
    'basement-receptacle',
    'one more',
    { area: kindOf('basement-unfinished'), boxes: [outlet('P', 1, 60)] },
    S,
  ],
  ['hallway-receptacle', '9 ft 11 in.', hall(119), S, /needs one/],
  ['hallway-receptacle', '10 ft, none', hall(120), V],
  ['hallway-receptacle', '10 ft, one', { ...hall(120), boxes: [outlet('H', 1, 60)] }, S],
  ['foyer-receptacles', '60 ft²', { area: kindOf('foyer'), size: [120, 72] }, S],
  ['foyer-receptacles', '70 ft², none', { area: kindOf('foyer'), size: [120, 84] }, V],
  [
    'foyer-receptacles',
    '70 ft², one in each of two wall spaces',
    {
      area: kindOf('foyer'),
      size: [120, 84],
      openings: [opening(2, 0, 84), opening(4, 0, 84)],
      boxes: [outlet('F', 1, 60), outlet('E', 3, 60)],
    },
    S,
  ],
  // 210.63, 210.50(C), 210.70
  ['equipment-receptacle', 'a furnace with none near', { area: kindOf('utility'), fixtures: [furnace] }, V],
  [
    'equipment-receptacle',
    'one 25 ft away',
    { area: kindOf('utility'), size: [400, 60], fixtures: [furnace], boxes: [outlet('U', 1, 352)] },
    S,
  ],
  [
    'equipment-receptacle',
    'one 25 ft 1 in. away',
    { area: kindOf('utility'), size: [400, 60], fixtures: [furnace], boxes: [outlet('U', 1, 353)] },
    V,
  ],
  [
    'equipment-receptacle',
    'on the load side of the equipment’s own outlet',
    (() => {
      const own = outlet('W', 1, 60, {
        serves: furnace.id,
        device: receptacle({ kind: 'hardwired' }),
      });
      const service = outlet('U', 1, 90);
      return {
        area: kindOf('utility'),
        fixtures: [furnace],
        boxes: [own, service],
        circuits: [chain([own, service])],
      };
    })(),
    V,
  ],
  [
    'equipment-receptacle',
    'an evaporative cooler at a house',
    { area: kindOf('outdoors'), fixtures: [fixture('evaporative-cooler', 1, 40, 30)] },
    S,
  ],
  [
    'appliance-receptacle',
    'a washer with none near',
    { area: kindOf('laundry'), fixtures: [fixture('washer', 1, 40, 27, { connection: 'cord' })] },
    V,
  ],
  [
    'appliance-receptacle',
    '6 ft from the washer',
    {
      area: kindOf('laundry'),
      fixtures: [fixture('washer', 1, 20, 20, { connection: 'cord' })],
      boxes: [outlet('L', 1, 102)],
    },
    S,
  ],
  [
    'appliance-receptacle',
    'a 240 V range takes its own receptacle only',
    kitchen({
      fixtures: [
        fixture('range', 1, 60, 30, {
          connection: 'cord',
          nameplate: { ...PLAIN_NAMEPLATE, volts: 240, watts: 12000 },
        }),
      ],
      boxes: [outlet('K', 1, 60)],
    }),
    V,
  ],
  ['lighting-outlet', 'no lights on record anywhere', { area: kindOf('bedroom') }, null],
  ['lighting-outlet', 'a light and its switch', { boxes: [light('L'), toggle('T', ['box-l'])] }, S],
  ['lighting-outlet', 'a light no switch controls', { boxes: [light('L')] }, V, /no wall switch/],
  [
    'lighting-outlet',
    'a switched receptacle in a bedroom',
    {
      areas: [room([144, 120, 144, 120]), yard('front', 'area-f')],
      boxes: [
        outlet('R', 1, 60, { device: receptacle({ switched: 'half' }) }),
        toggle('T', ['box-r']),
        light('L', { areaId: 'area-f', wallId: 'wall-area-f-1' }),
      ],
    },
    S,
    /Ex\. 1/,
  ],
  [
    'lighting-outlet',
    'a switched receptacle in a kitchen',
    {
      areas: [room([144, 120, 144, 120], undefined, { kind: 'kitchen' }), yard('front', 'area-f')],
      boxes: [
        outlet('R', 1, 60, { device: receptacle({ switched: 'half' }) }),
        toggle('T', ['box-r']),
        light('L', { areaId: 'area-f', wallId: 'wall-area-f-1' }),
      ],
    },
    V,
  ],
  [
    'lighting-outlet',
    'stairs of six risers switched at one level',
    { area: kindOf('stairs', { risers: 6 }), boxes: [light('L'), toggle('T', ['box-l'])] },
    V,
    /each level/,
  ],
  [
    'lighting-outlet',
    'stairs of five risers switched at one level',
    { area: kindOf('stairs', { risers: 5 }), boxes: [light('L'), toggle('T', ['box-l'])] },
    S,
  ],
  [
    'lighting-outlet',
    'a light with its own switch in an attic',
    { area: kindOf('attic'), boxes: [light('L')] },
    S,
  ],
  // Article 406
  [
    'tub-zone',
    '5 ft 6 in. from the tub',
    bath({ fixtures: [tub], boxes: [outlet('B', 1, 60, at(44))] }),
    [S, S, S],
  ],
  [
    'tub-zone',
    '31 in. from the tub',
    bath({ fixtures: [tub], boxes: [outlet('B', 2, 60, at(44))] }),
    [S, V, V],
  ],
  ['tub-zone', 'above it', bath({ fixtures: [tub], boxes: [outlet('B', 3, 60, at(60))] }), V],
  [
    'tub-zone',
    '8 ft 1 in. above its rim',
    { ...bath({ fixtures: [tub], boxes: [outlet('B', 2, 60, at(118))] }) },
    S,
  ],
  ['face-up', 'face up in a counter', kitchen({ boxes: [outlet('K', 1, 60, { mount: 'face-up' })] }), V],
  [
    'face-up',
    'in a listed assembly',
    kitchen({ boxes: [outlet('K', 1, 60, { mount: 'counter-assembly' })] }),
    S,
  ],
  ['face-up', 'on a wall', { boxes: [outlet('K', 1, 60)] }, null],
  [
    'weather-cover',
    'wet, a cover for when nothing is plugged in',
    {
      area: { kind: 'outdoors', location: 'wet' },
      boxes: [outlet('O', 1, 60, { device: receptacle({ cover: 'weatherproof' }) })],
    },
    V,
    /406\.9\(B\)\(1\)/,
  ],
  [
    'weather-cover',
    'wet, a cover for while in use',
    {
      area: { kind: 'outdoors', location: 'wet' },
      boxes: [outlet('O', 1, 60, { device: receptacle({ cover: 'in-use' }) })],
    },
    S,
  ],
  [
    'weather-cover',
    'damp, a cover for when nothing is plugged in',
    {
      area: { kind: 'deck', location: 'damp' },
      boxes: [outlet('O', 1, 60, { device: receptacle({ cover: 'weatherproof' }) })],
    },
    S,
  ],
  [
    'weather-cover',
    'damp, an indoor plate',
    { area: { kind: 'deck', location: 'damp' }, boxes: [outlet('O', 1, 60)] },
    V,
  ],
  ['weather-cover', 'dry', { boxes: [outlet('O', 1, 60)] }, null],
  [
    'controlled-marking',
    'automatic, not marked',
    { boxes: [outlet('C', 1, 60, { device: receptacle({ switched: 'half', automatic: true }) })] },
    V,
  ],
  [
    'controlled-marking',
    'automatic, marked',
    {
      boxes: [
        outlet('C', 1, 60, {
          device: receptacle({ switched: 'half', automatic: true, markedControlled: true }),
        }),
      ],
    },
    S,
  ],
  [
    'controlled-marking',
    'a plain wall switch',
    { boxes: [outlet('C', 1, 60, { device: receptacle({ switched: 'half' }) })] },
    S,
  ],
  [
    'gfci-accessible',
    'behind a fastened refrigerator',
    kitchen({
      fixtures: [fixture('refrigerator', 1, 60, 36, { fastened: true, height: 70 })],
      boxes: [outlet('K', 1, 60, { device: receptacle({ kind: 'gfci' }) })],
    }),
    V,
  ],
  [
    'gfci-accessible',
    'out of reach',
    { boxes: [outlet('K', 1, 60, { accessible: false, device: receptacle({ kind: 'gfci' }) })] },
    V,
  ],
  [
    'gfci-accessible',
    'on an open wall',
    { boxes: [outlet('K', 1, 60, { device: receptacle({ kind: 'gfci' }) })] },
    S,
  ],
  ['not-counted', 'too high', { boxes: [outlet('A', 1, 60, at(67))] }, 'note', /higher than 5 ft 6 in/],
  ['not-counted', 'inside a cabinet', { boxes: [outlet('A', 1, 60, { mount: 'in-cabinet' })] }, 'note'],
  ['not-counted', 'a floor outlet 19 in. out', { boxes: [outlet('A', 1, 60, { fromWall: 19 })] }, 'note'],
  [
    'not-counted',
    'behind a fastened appliance',
    kitchen({
      fixtures: [counter, fixture('microwave', 1, 60, 30, { fastened: true, height: 70, name: 'microwave' })],
      boxes: [outlet('A', 1, 60, at(44))],
    }),
    'note',
    /behind the microwave/,
  ],
  ['not-counted', 'a plain one', { boxes: [outlet('A', 1, 60)] }, null],
  // 210.8(F)
  [
    'outdoor-outlets',
    'an outdoor unit on 30 A',
    outdoorUnit(30, 'none'),
    [null, V, 'unknown'],
    /outdoor|fixed equipment/,
  ],
  ['outdoor-outlets', 'behind a GFCI breaker', outdoorUnit(30, 'gfci'), [null, S, S]],
  ['outdoor-outlets', 'on 60 A', outdoorUnit(60, 'none'), null],
  [
    'outdoor-outlets',
    'a unit permitted before September 2026',
    { ...outdoorUnit(30, 'none'), job: { permitDate: '2026-08-31' } },
    [null, V, null],
  ],
  [
    'outdoor-outlets',
    'a unit permitted in September 2026',
    { ...outdoorUnit(30, 'none'), job: { permitDate: '2026-09-01' } },
    [null, V, V],
  ],
  [
    'outdoor-outlets',
    'fixed equipment in a garage',
    { ...outdoorUnit(30, 'none'), area: garage(1), fixtures: [] },
    [null, null, V],
  ],
  // Survey and shop habits
  [
    'rooms-overlap',
    'two rooms on the same floor',
    {
      areas: [
        room([144, 120, 144, 120]),
        room([144, 120, 144, 120], undefined, { id: 'area-2', x: 100, name: 'Other' }),
      ],
    },
    'unknown',
  ],
  [
    'rooms-overlap',
    'two rooms that share a wall',
    { areas: [room([144, 120, 144, 120]), room([144, 120, 144, 120], undefined, { id: 'area-2', x: 144 })] },
    null,
  ],
  [
    'every-wall',
    'three walls of four, where the shop asks',
    { boxes: threeWalls, job: shop({ everyWall: true }) },
    'recommended',
  ],
  [
    'every-wall',
    'four walls',
    { boxes: [...threeWalls, outlet('R4', 4, 60)], job: shop({ everyWall: true }) },
    null,
  ],
  ['every-wall', 'where the shop does not ask', { boxes: threeWalls }, null],
  [
    'at-television',
    'one receptacle at a television',
    { boxes: [outlet('T', 1, 60)], fixtures: [television], job: shop({ extraAtTelevision: true }) },
    'recommended',
  ],
  [
    'at-television',
    'two',
    {
      boxes: [outlet('T', 1, 60), outlet('U', 1, 66)],
      fixtures: [television],
      job: shop({ extraAtTelevision: true }),
    },
    S,
  ],
  ['at-television', 'where the shop does not ask', { fixtures: [television] }, null],
  ['fixture-in-room', 'an island half outside', kitchen({ fixtures: [island({ offset: 160 })] }), 'unknown'],
  ['fixture-in-room', 'an island inside', kitchen({ fixtures: [island()] }), null],
];

/** A house of one room, or of those given. */
export const situation = (parts: Parts, edition: Edition): JobDocument => {
  const [width, depth] = parts.size ?? [144, 120];
  return house({
    ...parts,
    area: room([width, depth, width, depth], undefined, parts.area),
    areas: parts.areas,
    edition,
    job: { edition, ...parts.job },
  });
};

export const LAYOUT_CASES: RuleCase[] = TABLE.map(([rule, what, parts, answers, words]) =>
  asCase(rule, what, (edition) => situation(parts, edition), answers, words),
);
