/**
 * The demo job: 14 Tamarack Court, Larkmoor, an invented split-level house of 1956. The lower level becomes a
 * pottery studio with a kiln, the kitchen is refitted, there is a covered deck and a heat pump, and the bedroom
 * wing keeps its old two-wire cable for now. Planned, partly roughed, and not yet right everywhere.
 */
import { plannedBoxes } from '#core/boxes/planned.ts';
import { buildRun } from '#core/circuits/run.ts';
import {
  breakerOf as b,
  edgesOf,
  PLAIN_BOX,
  PLAIN_CIRCUIT,
  NOT_SEEN,
  PLAIN_CONDITIONS,
  PLAIN_DEVICE,
  PLAIN_FIXTURE,
  PLAIN_NAMEPLATE,
  PLAIN_PANEL,
  stopAt,
  PLAIN_MEASUREMENT,
} from '#core/job/document.ts';
import type {
  Amendment,
  Area,
  AreaKind,
  Box,
  Circuit,
  Conditions,
  Fixture,
  FixtureKind,
  JobDocument,
  Level,
  Measurement,
  Opening,
  OpeningKind,
  Panel,
  PanelFound,
} from '#core/job/schema.ts';
import { studioJob } from './studio.ts';

const byId = <T extends { id: string }>(list: readonly T[]): Record<string, T> =>
  Object.fromEntries(list.map((e) => [e.id, e]));

const LOWER = 'level-lower';
const UPPER = 'level-upper';

/** A rectangular room, walked from its north-west corner: north, east, south and west wall. */
function rectangle(
  id: string,
  levelId: string,
  name: string,
  kind: AreaKind,
  [x, y, width, depth]: [number, number, number, number],
  rest: Partial<Omit<Area, 'conditions'>> & { conditions?: Partial<Conditions> } = {},
): Area {
  return {
    id: `area-${id}`,
    levelId,
    name,
    kind,
    x,
    y,
    heading: 0,
    location: 'dry',
    ceilingHeight: 96,
    walls: [width, depth, width, depth].map((length, i) => ({
      id: `wall-${id}-w${i + 1}`,
      length,
      turn: 90,
    })),
    ...rest,
    conditions: { ...PLAIN_CONDITIONS, ...rest.conditions },
  };
}

const areas: Area[] = [
  // Lower level.
  rectangle('stair', LOWER, 'Stair', 'stairs', [0, 148.5, 103.5, 67.5], { conditions: { risers: 7 } }),
  rectangle('laundry', LOWER, 'Laundry', 'laundry', [108, 220.5, 98, 96]),
  rectangle('boiler', LOWER, 'Boiler room', 'basement-unfinished', [210.5, 220.5, 83.5, 96]),
  rectangle('shower', LOWER, 'Shower room', 'bathroom', [0, 220.5, 103.5, 96]),
  rectangle('garage', LOWER, 'Garage', 'garage', [-244.5, 0, 240, 240], {
    ceilingHeight: 108,
    conditions: { bays: 2 },
  }),
  rectangle('alcove', LOWER, 'Panel alcove', 'utility', [298.5, 172.5, 36, 48]),
  rectangle('crawl', LOWER, 'Crawl space', 'crawl-space', [339, 172.5, 160, 144], { ceilingHeight: 48 }),
  rectangle('patio', LOWER, 'Patio', 'outdoors', [300, 0, 180, 166.5], {
    location: 'wet',
    conditions: { faces: 'back', aboveGrade: 0 },
  }),
  rectangle('shed', LOWER, 'Clay shed', 'accessory', [560, 40, 120, 96], {
    conditions: { detached: true, aboveGrade: 4 },
  }),
  // Upper level.
  rectangle('kitchen', UPPER, 'Kitchen', 'kitchen', [0, 0, 221.5, 138]),
  rectangle('bath', UPPER, 'Bathroom', 'bathroom', [226, 0, 105.5, 138]),
  rectangle('dining', UPPER, 'Dining room', 'dining', [0, 142.5, 145.5, 127.5]),
  rectangle('foyer', UPPER, 'Foyer', 'foyer', [0, 274.5, 145.5, 65.5]),
  rectangle('hall', UPPER, 'Hall', 'hallway', [150, 142.5, 336.5, 40]),
  rectangle('living', UPPER, 'Living room', 'living', [150, 187, 181.5, 153]),
  rectangle('east', UPPER, 'East bedroom', 'bedroom', [336, 187, 150.5, 133]),
  rectangle('linen', UPPER, 'Linen closet', 'closet', [491, 142.5, 40, 40]),
  rectangle('deck', UPPER, 'Deck', 'deck', [0, -126, 221.5, 120], {
    location: 'damp',
    conditions: { faces: 'back', aboveGrade: 42, houseGap: 1, reachedFromInside: true, roofed: true },
  }),
  rectangle('front', UPPER, 'Front yard', 'outdoors', [-40, 346, 420, 90], {
    location: 'wet',
    conditions: { faces: 'front', aboveGrade: 0, ownEntrance: true },
  }),
];

const opening = (
  id: string,
  place: string,
  wall: number,
  kind: OpeningKind,
  offset: number,
  width: number,
  rest: Partial<Opening> = {},
): Opening => ({
  id: `opening-${id}`,
  areaId: `area-${place}`,
  wallId: `wall-${place}-w${wall}`,
  kind,
  offset,
  width,
  hinge: 'none',
  ...edgesOf(kind),
  ...rest,
});

const openings: Opening[] = [
  opening('laundry', 'laundry', 1, 'door', 12, 32, { hinge: 'start' }),
  opening('boiler', 'boiler', 1, 'door', 46, 30, { hinge: 'end' }),
  opening('shower', 'shower', 2, 'door', 60, 28, { hinge: 'end' }),
  opening('garage', 'garage', 2, 'door', 160, 32, { hinge: 'start' }),
  opening('bays', 'garage', 4, 'door', 20, 200, { top: 84 }),
  opening('alcove', 'alcove', 2, 'door', 8, 30),
  opening('shed', 'shed', 4, 'door', 30, 36),
  opening('deck', 'kitchen', 1, 'sliding-panel', 152, 60),
  opening('sink-window', 'kitchen', 1, 'window', 54, 36, { bottom: 42, top: 78 }),
  opening('kitchen-dining', 'kitchen', 3, 'opening', 100, 60),
  opening('kitchen-hall', 'kitchen', 3, 'door', 20, 32, { hinge: 'start' }),
  opening('bath', 'bath', 3, 'door', 40, 30, { hinge: 'end' }),
  opening('dining-hall', 'dining', 2, 'opening', 5, 30),
  opening('dining-window', 'dining', 4, 'window', 30, 60, { bottom: 30, top: 78 }),
  opening('dining-foyer', 'dining', 3, 'door', 20, 32, { hinge: 'end' }),
  opening('front', 'foyer', 3, 'door', 55, 36),
  opening('foyer-living', 'foyer', 2, 'opening', 12, 44),
  opening('living-hall', 'living', 1, 'opening', 60, 60),
  opening('living-window', 'living', 3, 'fixed-glass', 40, 96),
  opening('east', 'east', 1, 'door', 20, 30, { hinge: 'start' }),
  opening('linen', 'linen', 4, 'door', 6, 28),
  opening('deck-rail', 'deck', 1, 'railing', 0, 221.5),
];

const fixture = (
  id: string,
  place: string,
  kind: FixtureKind,
  name: string,
  [wall, offset, width, depth, height]: [number, number, number, number, number],
  rest: Partial<Fixture> = {},
): Fixture => ({
  ...PLAIN_FIXTURE,
  id: `fixture-${id}`,
  areaId: `area-${place}`,
  name,
  kind,
  wallId: `wall-${place}-w${wall}`,
  offset,
  width,
  depth,
  height,
  status: 'new',
  ...rest,
});
const plate = (
  volts: number,
  amps: number | null,
  watts: number | null,
  rest: Partial<NonNullable<Fixture['nameplate']>> = {},
) => ({ nameplate: { ...PLAIN_NAMEPLATE, volts, amps, watts, ...rest } });

const fixtures: Fixture[] = [
  fixture('clay-sink', 'studio', 'sink', 'clay sink', [1, 236, 28, 22, 36], { fastened: true }),
  fixture('kiln', 'studio', 'kiln', 'kiln', [3, 150, 34, 34, 38], {
    connection: 'cord',
    ...plate(240, 40, 9600),
  }),
  fixture('shower', 'shower', 'shower', 'shower', [3, 20, 36, 36, 4], { status: 'existing', fastened: true }),
  fixture('shower-basin', 'shower', 'basin', 'lower basin', [1, 30, 22, 18, 32], { fastened: true }),
  fixture('washer', 'laundry', 'washer', 'washer', [3, 20, 27, 30, 38], { connection: 'cord' }),
  fixture('dryer', 'laundry', 'dryer', 'dryer', [3, 50, 27, 30, 38], {
    connection: 'cord',
    ...plate(240, 24, 5000),
  }),
  fixture('laundry-sink', 'laundry', 'sink', 'laundry sink', [2, 78, 24, 22, 34], { fastened: true }),
  fixture('furnace', 'boiler', 'furnace', 'furnace', [3, 20, 24, 28, 60], {
    status: 'existing',
    connection: 'hardwired',
  }),
  fixture('heater', 'boiler', 'water-heater', 'water heater', [3, 60, 22, 22, 58], {
    connection: 'hardwired',
    ...plate(240, null, 4500),
  }),
  fixture('sump', 'boiler', 'sump-pump', 'sump pump', [2, 80, 18, 18, 10], { connection: 'cord' }),
  fixture('heat-pump', 'patio', 'heat-pump', 'heat pump', [1, 120, 36, 30, 40], {
    connection: 'hardwired',
    fromWall: 12,
    ...plate(240, 18, null),
  }),
  // Kitchen: a run of counter under the window, another with the range, and an island.
  fixture('counter-sink', 'kitchen', 'counter', 'sink counter', [1, 72, 144, 24, 36], { fastened: true }),
  fixture('counter-range', 'kitchen', 'counter', 'range counter', [4, 74, 80, 24, 36], { fastened: true }),
  fixture('kitchen-sink', 'kitchen', 'sink', 'kitchen sink', [1, 72, 30, 18, 36], {
    fastened: true,
    fromWall: 4,
  }),
  fixture('dishwasher', 'kitchen', 'dishwasher', 'dishwasher', [1, 36, 24, 24, 34], {
    fastened: true,
    connection: 'cord',
  }),
  fixture('range', 'kitchen', 'range', 'range', [4, 74, 30, 26, 36], {
    connection: 'cord',
    ...plate(240, 40, 9600),
  }),
  fixture('refrigerator', 'kitchen', 'refrigerator', 'refrigerator', [4, 17, 34, 30, 70], {
    connection: 'cord',
  }),
  fixture('island', 'kitchen', 'island', 'island', [3, 110, 60, 30, 36], { fromWall: 42, fastened: true }),
  fixture('basin', 'bath', 'basin', 'basin', [2, 60, 24, 18, 33], { fastened: true }),
  fixture('tub', 'bath', 'tub', 'tub', [1, 52, 60, 30, 20], { status: 'existing', fastened: true }),
  fixture('baseboard', 'shower', 'baseboard-heater', 'baseboard heater', [3, 60, 60, 4, 8], {
    ...plate(240, null, 1500),
    connection: 'hardwired',
    disconnect: 'in-sight',
  }),
  fixture('television', 'living', 'television', 'television', [2, 80, 55, 4, 60]),
];

const box = (
  name: string,
  place: string,
  wall: number,
  offset: number,
  { device, ...rest }: Partial<Omit<Box, 'device'>> & { device?: Partial<Box['device']> } = {},
): Box => ({
  ...PLAIN_BOX,
  id: `box-${name.toLowerCase()}`,
  name,
  areaId: `area-${place}`,
  wallId: `wall-${place}-w${wall}`,
  offset,
  fromWall: 0,
  height: 16,
  status: 'new',
  grounding: 'grounded',
  waterDistance: null,
  note: '',
  ...rest,
  device: {
    ...PLAIN_DEVICE,
    kind: 'duplex',
    rating: 20,
    tamperResistant: true,
    weatherResistant: false,
    ...device,
  },
});
const GFCI = { kind: 'gfci' } as const;
const at = (height: number, rest: Partial<Omit<Box, 'device'>> = {}) => ({ height, ...rest });
const big = (rating: 20 | 30 | 50, volts: '250' | '125/250') =>
  ({ kind: 'single', rating, volts, tamperResistant: rating === 20 }) as const;
/** Outlet for what is wired without a plug. */
const wired = (name: string, place: string, wall: number, offset: number, serves: string, height = 40): Box =>
  box(name, place, wall, offset, { height, serves, device: { kind: 'hardwired', tamperResistant: false } });
const light = (name: string, place: string, out: number, offset: number, height = 96): Box =>
  box(name, place, 1, offset, {
    height,
    mount: 'ceiling',
    fromWall: out,
    device: { kind: 'light', tamperResistant: false },
  });
const toggle = (name: string, place: string, wall: number, offset: number, ...lights: string[]): Box =>
  box(name, place, wall, offset, {
    height: 46,
    controls: lights.map((l) => `box-${l.toLowerCase()}`),
    device: { kind: 'switch', tamperResistant: false },
  });
const built = (one: Box, build: Box['device']['build']): Box => ({
  ...one,
  device: { ...one.device, build },
});
const alarm = (name: string, place: string, out: number, offset: number): Box =>
  box(name, place, 1, offset, {
    ...at(96, { mount: 'ceiling', fromWall: out }),
    device: { kind: 'smoke-alarm', tamperResistant: false },
  });
const outdoor = (cover: 'weatherproof' | 'in-use') =>
  ({ ...GFCI, rating: 15, weatherResistant: true, cover }) as const;
const oldTwoWire = {
  status: 'existing',
  grounding: 'none',
  device: { rating: 15, tamperResistant: false },
} as const;

const boxes: Box[] = [
  // Studio: the kiln on its own circuit.
  box('S5', 'studio', 3, 150, { ...at(24), serves: 'fixture-kiln', device: big(50, '250') }),
  // Kitchen: counters, appliances, island.
  box('K1', 'kitchen', 1, 14, { ...at(44), device: GFCI }),
  box('K2', 'kitchen', 1, 50, at(44)),
  box('K3', 'kitchen', 1, 94, at(44)),
  box('K4', 'kitchen', 1, 130, at(44)),
  box('K5', 'kitchen', 4, 17, { ...at(48), serves: 'fixture-refrigerator', device: { kind: 'single' } }),
  box('K6', 'kitchen', 1, 52, {
    ...at(20, { mount: 'in-cabinet' }),
    serves: 'fixture-dishwasher',
    device: { kind: 'single' },
  }),
  box('K7', 'kitchen', 4, 74, { ...at(6), serves: 'fixture-range', device: big(50, '125/250') }),
  box('K8', 'kitchen', 3, 110, at(28, { mount: 'cabinet-face', fromWall: 57, fixtureId: 'fixture-island' })),
  box('K9', 'kitchen', 4, 46, { ...at(44), device: GFCI }),
  box('K10', 'kitchen', 4, 98, at(44)),
  box('K11', 'kitchen', 2, 18),
  box('K12', 'kitchen', 2, 126, { device: { build: 'lead-wired' } }),
  box('K13', 'kitchen', 3, 190),
  // Dining, living, foyer, hall.
  box('D1', 'dining', 1, 129.5),
  box('D2', 'dining', 2, 94),
  box('D3', 'dining', 3, 124),
  box('D4', 'dining', 4, 122.5),
  box('F1', 'foyer', 1, 49.875, { device: { rating: 15 } }),
  box('F2', 'foyer', 3, 23, { device: { rating: 15 } }),
  box('H1', 'hall', 3, 190, { device: { rating: 15 } }),
  box('L1', 'living', 1, 34, { device: { rating: 15 } }),
  box('L2', 'living', 2, 6, { device: { rating: 15, switched: 'half', tabs: 'hot-broken' } }),
  box('L3', 'living', 2, 146, { device: { rating: 15 } }),
  box('L4', 'living', 3, 138, { device: { rating: 15 } }),
  box('L5', 'living', 4, 82, { device: { rating: 15 } }),
  // Bathrooms.
  box('T1', 'bath', 2, 81.875, { ...at(44), device: GFCI }),
  box('T2', 'bath', 2, 20, { ...oldTwoWire, height: 50, note: 'Over the end of the tub' }),
  box('R1', 'shower', 1, 65.875, { ...at(44), device: GFCI }),
  // East bedroom: old two-wire, one replaced behind a GFCI.
  box('E1', 'east', 1, 66, { ...oldTwoWire, status: 'replace', device: { ...GFCI, rating: 15 } }),
  box('E2', 'east', 3, 70, { ...oldTwoWire, status: 'replace', device: { rating: 15 } }),
  box('E3', 'east', 4, 66, oldTwoWire),
  // Laundry and boiler room.
  box('W1', 'laundry', 3, 20, {
    ...at(44),
    serves: 'fixture-washer',
    device: { ...GFCI, tamperResistant: true },
  }),
  box('W2', 'laundry', 3, 50, { ...at(36), serves: 'fixture-dryer', device: big(30, '125/250') }),
  box('M1', 'boiler', 2, 60, { ...at(44), device: GFCI, through: ['circuit-furnace'] }),
  box('M2', 'boiler', 2, 80, { ...at(30), serves: 'fixture-sump', device: { kind: 'single' } }),
  box('M3', 'boiler', 4, 60, { ...at(60), purpose: 'alarm-system', device: { kind: 'single' } }),
  wired('M4', 'boiler', 3, 36, 'fixture-furnace', 48),
  wired('M5', 'boiler', 3, 74, 'fixture-heater', 66),
  // Garage, crawl space, shed.
  box('G1', 'garage', 1, 81.875, { ...at(44), device: GFCI }),
  box('G2', 'garage', 3, 120, { ...at(100), note: 'Door opener' }),
  box('C1', 'shed', 1, 49.875, { ...at(44), device: GFCI }),
  // Outdoors.
  wired('P1', 'patio', 1, 144, 'fixture-heat-pump', 48),
  box('P2', 'patio', 4, 140, { ...at(24), device: outdoor('weatherproof') }),
  box('X1', 'deck', 3, 110, { ...at(24), device: outdoor('weatherproof') }),
  // Lights and their switches.
  light('Z1', 'kitchen', 70, 110),
  built(toggle('Y1', 'kitchen', 3, 12, 'Z1'), 'dimmer'),
  light('Z2', 'dining', 64, 72),
  toggle('Y2', 'dining', 2, 45, 'Z2'),
  light('Z3', 'hall', 20, 168),
  toggle('Y3', 'hall', 1, 200, 'Z3', 'Z4'),
  light('Z4', 'bath', 69, 52),
  light('Z5', 'foyer', 32, 72),
  built(toggle('Y5', 'foyer', 3, 47, 'Z5', 'Z6'), 'smart'),
  light('Z6', 'front', 4, 120, 84),
  toggle('Y6', 'living', 1, 126, 'L2'),
  { ...light('Z7', 'east', 66, 75), status: 'existing', grounding: 'none' },
  { ...toggle('Y7', 'east', 1, 55, 'Z7'), status: 'existing', grounding: 'none' },
  light('Z8', 'studio', 100, 150, 90),
  toggle('Y8', 'studio', 3, 60, 'Z8'),
  light('Z9', 'stair', 33, 52),
  toggle('Y9', 'stair', 2, 20, 'Z9'),
  light('Z10', 'laundry', 48, 50, 88),
  toggle('Y10', 'laundry', 1, 50, 'Z10'),
  light('Z11', 'boiler', 48, 40, 88),
  light('Z12', 'garage', 120, 120, 108),
  toggle('Y12', 'garage', 2, 150, 'Z12'),
  light('Z13', 'crawl', 72, 80, 46),
  { ...light('Z14', 'shower', 48, 50, 88), seen: { ...NOT_SEEN, luminaire: 'recessed-enclosed' } },
  built(toggle('Y14', 'shower', 2, 52, 'Z14'), 'smart-no-neutral'),
  { ...light('Z15', 'deck', 60, 110, 92), purpose: 'ceiling-fan', seen: { ...NOT_SEEN, fanBox: 'yes' } },
  toggle('Y15', 'kitchen', 1, 146, 'Z15'),
  light('Z16', 'shed', 48, 60, 84),
  toggle('Y16', 'shed', 4, 76, 'Z16'),
  alarm('A1', 'east', 40, 90),
  alarm('A2', 'hall', 20, 100),
  alarm('A3', 'foyer', 32, 110),
  // From the foot of the stair and from its head; three places at the table.
  { ...toggle('Y17', 'stair', 4, 50, 'Z9'), seen: { ...NOT_SEEN, switchNeutral: 'yes' } },
  toggle('Y18', 'dining', 3, 60, 'Z2'),
  toggle('Y19', 'dining', 4, 110, 'Z2'),
  box('J1', 'crawl', 1, 20, {
    ...at(40, { mount: 'ceiling', fromWall: 10 }),
    device: { kind: 'junction', tamperResistant: false },
  }),
  // Two wheels on the two hots of one circuit.
  box('S6', 'studio', 5, 30, { device: { tabs: 'hot-broken' } }),
  box('S7', 'studio', 6, 100),
  box('G3', 'garage', 3, 40, { ...at(44), device: { volts: '125/250', tamperResistant: true } }),
  wired('R2', 'shower', 3, 40, 'fixture-baseboard', 6),
  {
    ...toggle('R3', 'shower', 2, 40, 'R2'),
    device: {
      ...PLAIN_DEVICE,
      kind: 'switch',
      rating: 20,
      volts: '250',
      tamperResistant: false,
      weatherResistant: false,
    },
  },
];

/** The panel’s spaces in use: those of the studio and the old bedroom, and what is given out below. */
const taken = new Set([5, 8]);
function freeSpace(poles: number): number {
  for (let space = 1; ; space++) {
    const wanted = poles === 2 ? [space, space + 2] : [space];
    if (wanted.some((s) => taken.has(s))) continue;
    for (const s of wanted) taken.add(s);
    return space;
  }
}
const circuit = (
  id: string,
  name: string,
  breaker: Circuit['breaker'],
  gauge: Circuit['gauge'],
  stops: string[],
  rest: Partial<Circuit> = {},
): Circuit => ({
  id: `circuit-${id}`,
  panelId: 'panel-a',
  space: rest.panelId ? 0 : freeSpace(breaker.poles),
  name,
  status: 'new',
  ...PLAIN_CIRCUIT,
  breaker,
  gauge,
  // `A<B` is A, fed from B and not from the one before.
  stops: stops.map((stop, i) => {
    const [name, from = stops[i - 1]?.split('<')[0]] = stop.split('<');
    return stopAt(`box-${name!.toLowerCase()}`, from === undefined ? null : `box-${from.toLowerCase()}`);
  }),
  ...rest,
});

/** The circuit with what its stops say otherwise, by box. */
const withStops = (of: Circuit, change: (boxId: string) => Partial<Circuit['stops'][number]>): Circuit => ({
  ...of,
  stops: of.stops.map((s) => ({ ...s, ...change(s.boxId) })),
});

const circuits: Circuit[] = [
  circuit('kitchen-1', 'Kitchen counter, sink side', b(20, 'afci'), '12', [
    'K1',
    'K2',
    'K3',
    'K4',
    'K11',
    'K12',
  ]),
  circuit('kitchen-2', 'Kitchen counter, range side', b(20, 'afci'), '12', [
    'K9',
    'K10',
    'K5',
    'K8',
    'K13',
    'D1',
    'D2',
    'D3',
    'D4',
  ]),
  circuit('dishwasher', 'Dishwasher', b(20, 'afci'), '12', ['K6']),
  circuit('range', 'Range', b(50, 'none', 2), '6', ['K7']),
  circuit('bath', 'Bathroom receptacles', b(20), '12', ['T1', 'R1']),
  circuit('laundry', 'Laundry', b(20, 'afci'), '12', ['W1']),
  circuit('dryer', 'Dryer', b(30, 'none', 2), '10', ['W2']),
  circuit('garage', 'Garage and outdoors', b(20), '12', ['G1', 'G2', 'P2']),
  circuit('boiler', 'Boiler room', b(20), '12', ['M1', 'M2', 'M3'], { cable: 'raceway' }),
  circuit('furnace', 'Furnace', b(15), '14', ['M4']),
  circuit('heater', 'Water heater', b(30, 'none', 2), '10', ['M5'], { neutral: false }),
  circuit('heat-pump', 'Heat pump', b(30, 'none', 2), '10', ['P1'], {
    cable: 'UF-B',
    neutral: false,
  }),
  circuit('kiln', 'Kiln', b(50, 'none', 2), '6', ['S5'], { neutral: false }),
  circuit('shed', 'Clay shed receptacle', b(20), '12', ['C1'], { panelId: 'panel-shed', space: 1 }),
  circuit('shed-lights', 'Clay shed lights', b(15), '14', ['Y16', 'Z16'], {
    panelId: 'panel-shed',
    space: 2,
  }),
  circuit('living', 'Living, hall and foyer', b(15, 'afci'), '14', [
    'H1',
    'L1',
    'Y6',
    'L2',
    'L3',
    'L4',
    'L5',
    'F1',
    'F2',
  ]),
  circuit('lights', 'Lights, upper level', b(15, 'afci'), '14', [
    'Y3',
    'Z3',
    'Z4',
    'Y1',
    'Z1',
    'Y15',
    'Z15',
    'X1',
    'Y2',
    'Y18',
    'Y19',
    'Z2',
    'Y5',
    'Z5',
    'Z6',
    'A2<Z3',
    'A3',
  ]),
  circuit('lights-lower', 'Lights, lower level', b(15, 'afci'), '14', [
    'Y8',
    'Z8',
    'Y9',
    'Z9',
    'Y17',
    'Y10',
    'Z10',
    'Z11',
    'Y14',
    'Z14',
    'Y12',
    'Z12',
    'J1',
    'Z13',
  ]),
  // The loop’s white was taped long ago.
  withStops(
    circuit('east', 'East bedroom', b(15), '14', ['E1', 'E2', 'E3', 'Z7', 'Y7', 'A1<Z7', 'T2'], {
      status: 'existing',
      cable: 'old two-wire',
    }),
    (box) => (box === 'box-y7' ? { whiteMarked: 'yes' } : {}),
  ),
  withStops(circuit('wheels', 'Pottery wheels', b(20, 'dual', 2), '12', ['S6', 'S7']), (box) => ({
    hot: box === 'box-s6' ? 'both' : 'red',
  })),
  circuit('compressor', 'Compressor', b(20, 'gfci', 2), '12', ['G3']),
  circuit('shower-heat', 'Shower room heater', b(20, 'none', 2), '12', ['R3', 'R2'], { neutral: false }),
];

const panelFound: PanelFound = {
  protection: 'breakers',
  signs: ['rust', 'no directory'],
  fillersMissing: 1,
  doubledLugs: 1,
  breakers: [
    { space: 1, rating: 40, poles: 2, label: 'range' },
    { space: 5, rating: 20, poles: 1, label: 'downstairs' },
    { space: 8, rating: 15, poles: 1, label: 'bedrooms' },
  ],
};

/** In the clay shed, fed by buried cable from the house. */
const shedPanel: Panel = {
  ...PLAIN_PANEL,
  id: 'panel-shed',
  levelId: 'level-lower',
  name: 'Shed panel',
  x: 572,
  y: 52,
  mainRating: 60,
  busRating: 100,
  spaces: 6,
  feeder: {
    panelId: 'panel-a',
    space: freeSpace(2),
    rating: 30,
    gauge: '10',
    material: 'copper',
    cable: 'UF-B',
    status: 'new',
    ground: true,
    ambient: 30,
    bundled: 2,
    measured: null,
  },
  bonded: false,
  otherBuilding: true,
  electrode: false,
  note: 'Cable leaves the house beside the patio door, 24 in. down.',
};

const amendments: Amendment[] = [
  {
    id: 'amendment-outdoor',
    rule: 'outdoor-outlets',
    action: 'off',
    limit: null,
    reference: 'Larkmoor ordinance 14-3',
    note: 'Outdoor heating and cooling equipment without a plug is left out here.',
  },
];

/** Behind E3 black and white are on each other’s screws: as it was found, and left for now. */
function asFoundAtE3(document: JobDocument): JobDocument {
  const run = buildRun(document, document.circuits['circuit-east']!);
  const at = run.stops.findIndex((s) => s.box.name === 'E3');
  const planned = plannedBoxes(run)[at]!;
  const change: Record<string, string> = {
    'tail-hot-brass-1.b': 'device.silver-1',
    'tail-neutral-silver-1.b': 'device.brass-1',
  };
  const wiring = {
    ...planned,
    places: planned.places.map((p) => ({ ...p, at: change[p.end] ?? p.at })),
  };
  const box = document.boxes['box-e3']!;
  return {
    ...document,
    boxes: {
      ...document.boxes,
      'box-e3': { ...box, wiring: { stage: 'as-found', at: '2026-05-04T15:10:00Z', by: 'M. Alder', wiring } },
    },
  };
}

/** The ghost at B1 falls to nothing on a meter that loads; B3 sags where its neutral is loose. */
const measurements: Measurement[] = [
  {
    ...PLAIN_MEASUREMENT,
    id: 'measurement-b1',
    boxId: 'box-b1',
    circuitId: 'circuit-bedroom',
    place: 'B1, West bedroom',
    at: '2026-05-04T14:07:00Z',
    by: 'M. Alder',
    instrument: 'low-impedance meter',
    node: 'face.top.hot',
    nodeName: 'hot slot, top',
    to: 'face.top.ground',
    toName: 'ground slot, top',
    inputOhms: 3000,
    shows: 'value',
    value: 0.2,
    note: 'The 61 V on the other meter was a ghost',
  },
  {
    ...PLAIN_MEASUREMENT,
    id: 'measurement-b3',
    boxId: 'box-b3',
    circuitId: 'circuit-bedroom',
    place: 'B3, West bedroom',
    at: '2026-05-04T14:24:00Z',
    by: 'M. Alder',
    instrument: 'loading analyzer',
    node: 'face.top',
    nodeName: 'top',
    to: null,
    toName: '',
    inputOhms: 1e5,
    shows: 'value',
    value: 18.4,
    note: '',
  },
];

export function tamarackJob(): JobDocument {
  const studio = studioJob();
  const panel = studio.panels['panel-a']!;
  const levels: Record<string, Level> = studio.levels;
  return asFoundAtE3({
    ...studio,
    job: { ...studio.job, load: { method: 'existing', floorArea: null } },
    levels,
    areas: { ...studio.areas, ...byId(areas) },
    openings: { ...studio.openings, ...byId(openings) },
    fixtures: { ...studio.fixtures, ...byId(fixtures) },
    panels: { 'panel-a': { ...panel, spaces: 40, found: panelFound }, 'panel-shed': shedPanel },
    boxes: { ...studio.boxes, ...byId(boxes) },
    circuits: { ...studio.circuits, ...byId(circuits) },
    amendments: byId(amendments),
    measurements: byId(measurements),
  });
}
