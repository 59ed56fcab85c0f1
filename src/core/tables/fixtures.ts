/** What each kind of fixture and appliance is: size, connection, load, and how the rules treat it. */
import type { Edition, Fixture, FixtureKind } from '#core/job/schema.ts';
import { at, always, type PerEdition } from './editions.ts';
import type { BranchLoadKind, DwellingLoadKind } from './loadKinds.ts';

/** What is not judged here: said so wherever it stands, and never called satisfied or not asked for. */
export interface OutOfScope {
  article: string;
  /** What else its article reaches. */
  also: string;
}

export interface FixtureFacts {
  label: string;
  /** Width, depth and height a new one starts with, inches. */
  size: readonly [width: number, depth: number, height: number];
  /** How it is usually connected. */
  connection: Fixture['connection'];
  /** Usually fastened in place. */
  fastened: boolean;
  /** False: one single receptacle behind it need not be tamper-resistant, 406.12. */
  easilyMoved: boolean;
  /** What its branch circuit is sized as; null: by how it is connected. */
  branch: BranchLoadKind | null;
  /** What it counts as in the load of the dwelling, Article 220. */
  dwelling: DwellingLoadKind;
  /** Driven by a motor or compressor: one of them may be the largest, 220.14(C). */
  motor: boolean;
  /** Counts in the load even before its nameplate is on record. */
  heavy: boolean;
  /** Gets a circuit of its own. */
  ownCircuit: boolean;
  /** Cooling and motors are marked with more than current and power. */
  plate: 'plain' | 'cooling-or-motor';
  /** Water that brings GFCI near it: a sink’s or basin’s bowl, or a tub or shower. */
  water: 'bowl' | 'bathing' | null;
  /** In a line of counters: a counter at the wall or free of it; what divides one; what only stands in it. */
  counter: 'wall' | 'free' | 'divides' | 'stands' | null;
  /** Belongs on the circuit of the central heating, 422.12: its source, or what may share it. */
  heating: 'source' | 'auxiliary' | null;
  /** Its receptacle in a kitchen is none of those for wall, floor and counter, 210.52(B). */
  fixedInKitchen: boolean;
  /** Makes a laundry of where it stands. */
  laundry: boolean;
  cooking: boolean;
  /** Heating and cooling equipment, which somebody comes to service, 210.63. */
  serviced: boolean;
  /** Section by which its outlet needs GFCI wherever it is, cord-connected or wired; null where none does. */
  gfci: PerEdition<string | null>;
  outOfScope: OutOfScope | null;
}

const PLAIN: Omit<FixtureFacts, 'label' | 'size'> = {
  connection: 'none',
  fastened: false,
  easilyMoved: true,
  branch: null,
  dwelling: 'appliance',
  motor: false,
  heavy: false,
  ownCircuit: false,
  plate: 'plain',
  water: null,
  counter: null,
  heating: null,
  fixedInKitchen: false,
  laundry: false,
  cooking: false,
  serviced: false,
  gfci: always(null),
  outOfScope: null,
};
const fact = (
  label: string,
  size: FixtureFacts['size'],
  values: Partial<FixtureFacts> = {},
): FixtureFacts => ({ ...PLAIN, label, size, ...values });

const WATER = 'its outlets, pumps, bonding, and the outlets and lights near it are its article’s too';
const POWER = 'its transfer equipment, its own disconnect and where it is connected are its article’s too';

export const FIXTURES: Readonly<Record<FixtureKind, FixtureFacts>> = {
  basin: fact('Vanity sink', [22, 18, 33], { fastened: true, water: 'bowl' }),
  sink: fact('Sink', [30, 20, 36], { fastened: true, water: 'bowl', counter: 'divides' }),
  tub: fact('Tub', [60, 30, 20], { fastened: true, water: 'bathing' }),
  shower: fact('Shower', [36, 36, 4], { fastened: true, water: 'bathing' }),
  counter: fact('Counter', [72, 24, 36], { fastened: true, counter: 'wall' }),
  island: fact('Island', [60, 30, 36], { fastened: true, counter: 'free' }),
  peninsula: fact('Peninsula', [30, 60, 36], { fastened: true, counter: 'free' }),
  'appliance-garage': fact('Appliance garage', [24, 16, 54], { fastened: true, counter: 'wall' }),
  range: fact('Range', [30, 26, 36], {
    connection: 'cord',
    easilyMoved: false,
    branch: 'range',
    dwelling: 'range',
    heavy: true,
    ownCircuit: true,
    counter: 'divides',
    cooking: true,
    gfci: { '2017': null, '2020': null, '2023': '210.8(D)' },
  }),
  cooktop: fact('Cooktop', [30, 21, 36], {
    connection: 'hardwired',
    fastened: true,
    easilyMoved: false,
    branch: 'oven-or-cooktop',
    dwelling: 'range',
    heavy: true,
    ownCircuit: true,
    counter: 'divides',
    cooking: true,
    gfci: { '2017': null, '2020': null, '2023': '210.8(D)' },
  }),
  'wall-oven': fact('Wall oven', [30, 24, 84], {
    connection: 'hardwired',
    fastened: true,
    easilyMoved: false,
    branch: 'oven-or-cooktop',
    dwelling: 'range',
    heavy: true,
    ownCircuit: true,
    counter: 'stands',
    cooking: true,
    gfci: { '2017': null, '2020': null, '2023': '210.8(D)' },
  }),
  microwave: fact('Microwave', [30, 16, 66], {
    connection: 'cord',
    easilyMoved: false,
    ownCircuit: true,
    gfci: { '2017': null, '2020': null, '2023': '210.8(D)' },
  }),
  hood: fact('Range hood', [30, 20, 66], {
    connection: 'hardwired',
    fastened: true,
    motor: true,
    fixedInKitchen: true,
  }),
  refrigerator: fact('Refrigerator', [36, 30, 70], {
    connection: 'cord',
    easilyMoved: false,
    counter: 'divides',
  }),
  dishwasher: fact('Dishwasher', [24, 24, 34], {
    connection: 'cord',
    fastened: true,
    easilyMoved: false,
    ownCircuit: true,
    counter: 'stands',
    fixedInKitchen: true,
    gfci: { '2017': '210.8(D)', '2020': '422.5(A)', '2023': '210.8(D)' },
  }),
  disposal: fact('Disposal', [10, 10, 20], {
    connection: 'hardwired',
    motor: true,
    ownCircuit: true,
    fixedInKitchen: true,
  }),
  washer: fact('Washer', [27, 30, 38], { connection: 'cord', easilyMoved: false, laundry: true }),
  dryer: fact('Dryer', [27, 30, 38], {
    connection: 'cord',
    easilyMoved: false,
    branch: 'dryer',
    dwelling: 'dryer',
    heavy: true,
    ownCircuit: true,
    laundry: true,
    gfci: { '2017': null, '2020': null, '2023': '210.8(D)' },
  }),
  'water-heater': fact('Water heater', [22, 22, 58], {
    connection: 'hardwired',
    fastened: true,
    easilyMoved: false,
    branch: 'water-heater',
    heavy: true,
    ownCircuit: true,
  }),
  furnace: fact('Furnace', [24, 28, 60], {
    connection: 'hardwired',
    branch: 'motor',
    motor: true,
    ownCircuit: true,
    plate: 'cooling-or-motor',
    heating: 'source',
    serviced: true,
  }),
  'air-handler': fact('Air handler', [24, 22, 50], {
    connection: 'hardwired',
    branch: 'motor',
    motor: true,
    heavy: true,
    ownCircuit: true,
    plate: 'cooling-or-motor',
    heating: 'source',
    serviced: true,
  }),
  'outdoor-unit': fact('Air conditioner, outdoor unit', [36, 32, 40], {
    connection: 'hardwired',
    branch: 'cooling',
    dwelling: 'cooling',
    motor: true,
    heavy: true,
    ownCircuit: true,
    plate: 'cooling-or-motor',
    heating: 'auxiliary',
    serviced: true,
  }),
  'heat-pump': fact('Heat pump, outdoor unit', [36, 32, 40], {
    connection: 'hardwired',
    branch: 'cooling',
    dwelling: 'heat-pump',
    motor: true,
    heavy: true,
    ownCircuit: true,
    plate: 'cooling-or-motor',
    heating: 'source',
    serviced: true,
  }),
  'evaporative-cooler': fact('Evaporative cooler', [36, 36, 40], {
    dwelling: 'cooling',
    motor: true,
    plate: 'cooling-or-motor',
    serviced: true,
  }),
  'sump-pump': fact('Sump pump', [18, 18, 10], {
    connection: 'cord',
    branch: 'motor',
    motor: true,
    ownCircuit: true,
    plate: 'cooling-or-motor',
    gfci: { '2017': null, '2020': '422.5(A)', '2023': '210.8(D)' },
  }),
  kiln: fact('Kiln', [34, 34, 38], { connection: 'cord', branch: 'kiln', heavy: true, ownCircuit: true }),
  'vehicle-charger': fact('EV charger', [10, 6, 54], {
    connection: 'hardwired',
    branch: 'vehicle',
    dwelling: 'vehicle',
    heavy: true,
    ownCircuit: true,
  }),
  television: fact('Television', [55, 4, 60], { connection: 'cord' }),
  'baseboard-heater': fact('Baseboard heater', [72, 3, 8], {
    connection: 'hardwired',
    branch: 'space-heat',
    dwelling: 'space-heat',
    heavy: true,
  }),
  'floor-heat': fact('Floor heat', [60, 36, 1], {
    connection: 'hardwired',
    branch: 'space-heat',
    dwelling: 'space-heat',
  }),
  'bath-heater': fact('Bath heater', [16, 8, 84], {
    connection: 'hardwired',
    fastened: true,
    branch: 'space-heat',
    dwelling: 'space-heat',
  }),
  'exhaust-fan': fact('Exhaust fan', [12, 12, 96], { connection: 'hardwired', fastened: true, motor: true }),
  'tankless-heater': fact('Tankless water heater', [18, 6, 60], {
    connection: 'hardwired',
    fastened: true,
    easilyMoved: false,
    branch: 'tankless-heater',
    heavy: true,
    ownCircuit: true,
  }),
  boiler: fact('Electric boiler', [20, 14, 60], {
    connection: 'hardwired',
    fastened: true,
    easilyMoved: false,
    branch: 'space-heat',
    dwelling: 'space-heat',
    heavy: true,
    ownCircuit: true,
    heating: 'source',
    serviced: true,
  }),
  'hood-microwave': fact('Hood with microwave', [30, 16, 66], {
    connection: 'cord',
    fastened: true,
    easilyMoved: false,
    ownCircuit: true,
    fixedInKitchen: true,
    gfci: { '2017': null, '2020': null, '2023': '210.8(D)' },
  }),
  toilet: fact('Toilet', [20, 28, 30], { fastened: true }),
  'bidet-seat': fact('Bidet seat', [16, 20, 18], { connection: 'cord' }),
  'room-cooler': fact('Room air conditioner', [24, 20, 60], {
    connection: 'cord',
    branch: 'room-cooler',
    dwelling: 'cooling',
    motor: true,
    plate: 'cooling-or-motor',
  }),
  motor: fact('Motor', [20, 16, 20], {
    connection: 'hardwired',
    branch: 'motor',
    motor: true,
    plate: 'cooling-or-motor',
    heating: 'auxiliary',
  }),
  'fixed-equipment': fact('Other fixed equipment', [24, 24, 36], {
    connection: 'hardwired',
    plate: 'cooling-or-motor',
    heating: 'auxiliary',
    fixedInKitchen: true,
  }),
  'hydromassage-tub': fact('Hydromassage tub', [72, 42, 24], {
    connection: 'hardwired',
    fastened: true,
    outOfScope: { article: 'Article 680 Part VII', also: WATER },
  }),
  'hot-tub': fact('Hot tub', [84, 84, 36], {
    connection: 'hardwired',
    outOfScope: { article: 'Article 680 Part IV', also: WATER },
  }),
  pool: fact('Pool', [192, 384, 0], {
    connection: 'hardwired',
    outOfScope: { article: 'Article 680', also: WATER },
  }),
  fountain: fact('Fountain', [48, 48, 30], {
    connection: 'hardwired',
    outOfScope: { article: 'Article 680 Part V', also: WATER },
  }),
  sauna: fact('Sauna', [72, 60, 84], {
    connection: 'hardwired',
    outOfScope: {
      article: 'Article 424 and its instructions',
      also: 'its heater’s clearances and controls are too',
    },
  }),
  generator: fact('Generator', [48, 26, 29], {
    connection: 'hardwired',
    outOfScope: { article: 'Articles 445 and 702', also: POWER },
  }),
  inverter: fact('Inverter or battery', [30, 10, 60], {
    connection: 'hardwired',
    outOfScope: { article: 'Articles 690, 705 and 706', also: POWER },
  }),
};

type OfKind = Pick<Fixture, 'kind'>;
export const isServiced = ({ kind }: OfKind): boolean => FIXTURES[kind].serviced;
/** A tub or a shower. */
export const isTub = ({ kind }: OfKind): boolean => FIXTURES[kind].water === 'bathing';
export const isWater = ({ kind }: OfKind): boolean => FIXTURES[kind].water !== null;
/** A counter at a wall, or an appliance garage on one. */
export const isCounter = ({ kind }: OfKind): boolean => FIXTURES[kind].counter === 'wall';
export const isIsland = ({ kind }: OfKind): boolean => FIXTURES[kind].counter === 'free';
export const outOfScope = (fixture: OfKind | undefined): OutOfScope | null =>
  (fixture && FIXTURES[fixture.kind].outOfScope) ?? null;
/** Section that asks for GFCI at the outlet of an appliance, or null. */
export const applianceGfci = ({ kind }: OfKind, edition: Edition): string | null =>
  at(FIXTURES[kind].gfci, edition);
