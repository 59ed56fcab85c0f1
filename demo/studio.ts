/**
 * The part of the demo job that is surveyed to the last screw: the lower-level studio and one bedroom of 14 Tamarack Court, Larkmoor. An invented house of
 * 1956; the studio is new work, the bedroom keeps its old two-wire cable. Some readings hide real faults.
 */
import { EMPTY_WIRING } from '#core/boxes/wiring.ts';
import {
  DEFAULT_SETTINGS,
  PLAIN_BOX,
  PLAIN_CIRCUIT,
  PLAIN_CONDITIONS,
  PLAIN_DEVICE,
  PLAIN_FIXTURE,
  PLAIN_LOAD,
  PLAIN_PANEL,
  PLAIN_READING,
  breakerOf,
  edgesOf,
  emptyDocument,
  stopAt,
} from '#core/job/document.ts';
import type {
  Area,
  Box,
  Circuit,
  Energizing,
  Fixture,
  Found,
  JobDocument,
  Level,
  Opening,
  Panel,
  Reading,
  Stop,
  Wall,
} from '#core/job/schema.ts';
import { draftFor, recorded, walk, withProof, type Reader } from '#core/records/testing.ts';

const BY = 'M. Alder';
const byId = <T extends { id: string }>(list: T[]): Record<string, T> =>
  Object.fromEntries(list.map((e) => [e.id, e]));

const levels: Level[] = [
  { id: 'level-lower', name: 'Lower level', elevation: -54 },
  { id: 'level-upper', name: 'Upper level', elevation: 48 },
];

const walls = (prefix: string, ...chain: [number, number][]): Wall[] =>
  chain.map(([length, turn], i) => ({ id: `${prefix}-w${i + 1}`, length, turn }));

const areas: Area[] = [
  {
    id: 'area-studio',
    levelId: 'level-lower',
    name: 'Studio',
    kind: 'basement-finished',
    x: 0,
    y: 0,
    heading: 0,
    location: 'dry',
    ceilingHeight: 90,
    conditions: PLAIN_CONDITIONS,
    // An L: 24' 6" by 18' with the stair cut out of the south-west corner.
    walls: walls('wall-studio', [294, 90], [216, 90], [186, 90], [72, -90], [108, 90], [144, 90]),
  },
  {
    id: 'area-bedroom',
    levelId: 'level-upper',
    name: 'West bedroom',
    kind: 'bedroom',
    x: 336,
    y: 0,
    heading: 0,
    location: 'dry',
    ceilingHeight: 96,
    conditions: PLAIN_CONDITIONS,
    walls: walls('wall-bedroom', [150.5, 90], [138, 90], [150.5, 90], [138, 90]),
  },
];

const openings: Opening[] = [
  {
    id: 'opening-stair',
    areaId: 'area-studio',
    wallId: 'wall-studio-w4',
    kind: 'door',
    offset: 20,
    width: 32,
    hinge: 'start',
    ...edgesOf('door'),
  },
  {
    id: 'opening-yard',
    areaId: 'area-studio',
    wallId: 'wall-studio-w2',
    kind: 'sliding-panel',
    offset: 96,
    width: 36,
    hinge: 'none',
    ...edgesOf('sliding-panel'),
  },
  {
    id: 'opening-glass',
    areaId: 'area-studio',
    wallId: 'wall-studio-w2',
    kind: 'fixed-glass',
    offset: 132,
    width: 36,
    hinge: 'none',
    ...edgesOf('fixed-glass'),
  },
  {
    id: 'opening-hearth',
    areaId: 'area-studio',
    wallId: 'wall-studio-w6',
    kind: 'fireplace',
    offset: 54,
    width: 48,
    hinge: 'none',
    ...edgesOf('fireplace'),
  },
  {
    id: 'opening-bedroom',
    areaId: 'area-bedroom',
    wallId: 'wall-bedroom-w3',
    kind: 'door',
    offset: 112,
    width: 30,
    hinge: 'end',
    ...edgesOf('door'),
  },
  {
    id: 'opening-wardrobe',
    areaId: 'area-bedroom',
    wallId: 'wall-bedroom-w4',
    kind: 'cabinet',
    offset: 78,
    width: 60,
    hinge: 'none',
    ...edgesOf('cabinet'),
  },
];

const fixtures: Fixture[] = [
  {
    ...PLAIN_FIXTURE,
    id: 'fixture-bench',
    areaId: 'area-studio',
    name: 'wedging bench',
    kind: 'counter',
    wallId: 'wall-studio-w1',
    offset: 144,
    width: 120,
    depth: 24,
    height: 36,
    status: 'new',
    fastened: true,
  },
];

const panels: Panel[] = [
  {
    id: 'panel-a',
    levelId: 'level-lower',
    name: 'Panel A',
    x: 312,
    y: 196,
    mainRating: 100,
    busRating: 100,
    spaces: 20,
    ...PLAIN_PANEL,
  },
];

const duplex = {
  kind: 'duplex',
  rating: 20,
  tamperResistant: true,
  weatherResistant: false,
  ...PLAIN_DEVICE,
} as const;
const old = {
  kind: 'duplex',
  rating: 15,
  tamperResistant: false,
  weatherResistant: false,
  ...PLAIN_DEVICE,
} as const;
const box = (
  id: string,
  name: string,
  place: string,
  wall: number,
  offset: number,
  rest: Partial<Box> = {},
): Box => ({
  id: `box-${id}`,
  name,
  areaId: `area-${place}`,
  wallId: `wall-${place}-w${wall}`,
  offset,
  fromWall: 0,
  height: 16,
  status: 'new',
  grounding: 'grounded',
  waterDistance: null,
  ...PLAIN_BOX,
  device: duplex,
  note: '',
  ...rest,
});

/** A box as it was opened: a cable that feeds it and those that go on, in cloth; what is joined was not looked at. */
const found = (cables: number, values: Partial<Found> = {}): Pick<Box, 'found' | 'wiring'> => ({
  found: {
    signs: ['cloth insulation'],
    boxMaterial: 'metal',
    boxVolume: 12.5,
    deviceAge: 40,
    ...values,
  },
  wiring: {
    stage: 'as-found',
    at: null,
    by: '',
    wiring: {
      ...EMPTY_WIRING,
      cables: Array.from({ length: cables }, (_, i) => ({
        id: `cable-${i + 1}`,
        toward: i === 0 ? 'feed' : 'onward',
        circuitId: null,
        raceway: false,
        stands: 'ends' as const,
        conductors: [
          { id: 'cloth', color: 'cloth' as const, function: 'hot' as const },
          { id: 'white', color: 'white' as const, function: 'neutral' as const },
        ].map((c) => ({ ...c, gauge: null, material: 'copper' as const, mark: null })),
      })),
    },
  },
});

const asFound: Partial<Box> = { status: 'existing', grounding: 'none', device: old, height: 14 };
const boxes: Box[] = [
  box('s1', 'S1', 'studio', 2, 49.875, { device: { ...duplex, kind: 'gfci' } }),
  box('s2', 'S2', 'studio', 1, 225.875, { height: 44, waterDistance: 30, note: 'Beside the clay sink' }),
  box('s3', 'S3', 'studio', 1, 46.125),
  box('s4', 'S4', 'studio', 3, 97.875),
  box('b1', 'B1', 'bedroom', 3, 62, { ...asFound, note: 'Fed first; two cables', ...found(2) }),
  box('b2', 'B2', 'bedroom', 2, 70, {
    ...asFound,
    note: 'Three slots on a two-wire box',
    ...found(2, { signs: ['cloth insulation', 'back-stabbed'], deviceAge: 12 }),
  }),
  box('b3', 'B3', 'bedroom', 1, 40, {
    ...asFound,
    note: 'One cable: end of run',
    ...found(1, { signs: ['worn contacts'] }),
  }),
];

/** A chain of stops, each fed from the one before. */
const chain = (...names: [string, number | null][]): Stop[] =>
  names.map(([name, measured], i) =>
    stopAt(`box-${name}`, i === 0 ? null : `box-${names[i - 1]![0]}`, { measured }),
  );

const circuits: Circuit[] = [
  {
    id: 'circuit-studio',
    panelId: 'panel-a',
    space: 5,
    name: 'Studio receptacles',
    status: 'new',
    ...PLAIN_CIRCUIT,
    breaker: breakerOf(20, 'afci'),
    gauge: '12',
    stops: chain(['s1', null], ['s2', null], ['s3', null], ['s4', 438]),
  },
  {
    id: 'circuit-bedroom',
    panelId: 'panel-a',
    space: 8,
    name: 'West bedroom',
    status: 'existing',
    ...PLAIN_CIRCUIT,
    breaker: breakerOf(15),
    gauge: '14',
    cable: 'old two-wire',
    stops: chain(['b1', null], ['b2', null], ['b3', null]),
  },
];

const reading = (
  id: string,
  boxName: string,
  place: string,
  minute: number,
  values: Partial<Reading>,
): Reading => ({
  id: `reading-${id}`,
  boxId: `box-${boxName}`,
  place,
  at: `2026-05-04T14:${String(minute).padStart(2, '0')}:00Z`,
  by: BY,
  stage: 'as-found',
  instrument: 'three-lamp tester and meter',
  ...PLAIN_READING,
  lamps: [true, true, false],
  ...values,
});

const readings: Reading[] = [
  // Open ground, as expected of two-wire cable.
  reading('b1a', 'b1', 'B1, West bedroom', 5, {
    lamps: [true, false, false],
    hotNeutral: 118.9,
    hotGround: 61,
    neutralGround: 57,
  }),
  // Reads correct on two-wire cable: a neutral jumpered to the ground screw.
  reading('b2a', 'b2', 'B2, West bedroom', 11, {
    hotNeutral: 115.2,
    hotGround: 115.2,
    neutralGround: 0,
    loadAmps: 10,
    note: 'With the 1,200 W heater on',
  }),
  // The same false ground seen downstream of a loose neutral; first entry mistyped.
  reading('b3a', 'b3', 'B3, West bedroom', 17, {
    lamps: null,
    hotNeutral: 10.49,
    hotGround: 115.6,
    neutralGround: 10.6,
    loadAmps: 10,
  }),
  reading('b3b', 'b3', 'B3, West bedroom', 18, {
    lamps: null,
    hotNeutral: 104.9,
    hotGround: 115.6,
    neutralGround: 10.6,
    loadAmps: 10,
    note: 'To a ground lead from the panel; heater on',
    corrects: 'reading-b3a',
  }),
];

const energizings: Energizing[] = [
  { id: 'energizing-s1', circuitId: 'circuit-studio', at: '2026-05-06T15:02:00Z', by: BY, purpose: 'use' },
];

readings.push(
  reading('s1a', 's1', 'S1, Studio', 0, {
    at: '2026-05-06T15:10:00Z',
    stage: 'as-left',
    hotNeutral: 119.8,
    hotGround: 119.7,
    neutralGround: 0.1,
  }),
);

export function studioJob(): JobDocument {
  const job: JobDocument = {
    ...emptyDocument({
      id: 'job-tamarack',
      name: '14 Tamarack Court',
      address: '14 Tamarack Court, Larkmoor',
      entry: 'project',
      edition: '2020',
      dwelling: 'one-family',
      permitDate: '2026-03-02',
      zone: 'America/Denver',
      laundryElsewhere: false,
      load: PLAIN_LOAD,
      otherSources: { asked: true, kinds: [] },
      settings: DEFAULT_SETTINGS,
      prices: [],
    }),
    levels: byId(levels),
    areas: byId(areas),
    openings: byId(openings),
    fixtures: byId(fixtures),
    panels: byId(panels),
    boxes: byId(boxes),
    circuits: byId(circuits),
    readings: byId(readings),
    energizings: byId(energizings),
  };
  // The first box was proved dead before its device was put in; power came back since.
  const s1 = job.boxes['box-s1']!;
  const draft = draftFor(job, s1, { by: BY });
  const read: Reader = ({ reads }) => ({ value: reads.live ? 120.4 : 0 });
  const seen = walk(job, s1, draft, read);
  return withProof(job, recorded(job, s1, draft, seen, { id: 'proof-s1', at: '2026-05-06T13:10:00Z' }));
}
