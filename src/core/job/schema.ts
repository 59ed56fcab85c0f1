/**
 * The job document: one Yup schema per entity, and the TypeScript types derived from them.
 * Inside: inches, volts, amperes, volt-amperes, degrees. Plan axes: x to the east, y to the south.
 */
import './messages.ts';
import * as yup from 'yup';
import type { InferType } from 'yup';

export const EDITIONS = ['2017', '2020', '2023'] as const;
export type Edition = (typeof EDITIONS)[number];

export const AREA_KINDS = [
  'bedroom',
  'living',
  'family',
  'dining',
  'den',
  'recreation',
  'sunroom',
  'kitchen',
  'hallway',
  'closet',
  'laundry',
  'bathroom',
  'garage',
  'basement-finished',
  'basement-unfinished',
  'crawl-space',
  'attic',
  'outdoors',
] as const;
export type AreaKind = (typeof AREA_KINDS)[number];

export const OPENING_KINDS = [
  'door',
  'opening',
  'sliding-panel',
  'fixed-glass',
  'fireplace',
  'cabinet',
  'cabinet-with-counter',
] as const;
export type OpeningKind = (typeof OPENING_KINDS)[number];

export const STATUSES = ['existing', 'new', 'replace', 'remove'] as const;
export const GAUGES = ['14', '12', '10', '8', '6', '4', '3', '2', '1', '1/0', '2/0', '3/0', '4/0'] as const;
export type Gauge = (typeof GAUGES)[number];
export const BREAKER_PROTECTIONS = ['none', 'gfci', 'afci', 'dual'] as const;
export const DEVICE_KINDS = ['duplex', 'single', 'gfci', 'two-slot'] as const;
export const DWELLINGS = ['one-family', 'two-family', 'multifamily'] as const;

/** Longest wall accepted, inches. */
export const MAX_WALL = 2400;
/** Shortest wall accepted, inches. */
export const MIN_WALL = 1;
export const MAX_TEXT = 400;

const id = () =>
  yup
    .string()
    .strict()
    .required()
    .matches(/^[a-z]{1,12}-[A-Za-z0-9-]{1,60}$/, {
      message: '${path}: expected an id such as box-7k2m',
      excludeEmptyString: false,
    });
const text = (max = MAX_TEXT) => yup.string().strict().defined().max(max);
const name = () => text(80).trim().min(1);
const flag = () => yup.boolean().strict().defined();
const inches = (min: number, max: number) => yup.number().strict().defined().min(min).max(max);
const volts = () => yup.number().strict().defined().nullable().min(0).max(300);
const time = () =>
  yup
    .string()
    .strict()
    .required()
    .matches(
      /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,3})?Z$/,
      '${path}: expected a UTC time such as 2026-05-04T14:30:00Z',
    );
const entity = <S extends yup.ObjectShape>(shape: S) => yup.object(shape).noUnknown().strict().defined();
const list = <S extends yup.Schema>(of: S, max: number) => yup.array(of).strict().defined().max(max);

export const settingsSchema = entity({
  voltage: yup.number().strict().defined().min(110).max(130).meta({ unit: 'V' }),
  studSpacing: inches(8, 48),
  receptacleHeight: inches(0, 66),
  benchHeight: inches(0, 66),
  boxRise: inches(0, 240).meta({ about: 'cable added at each box end for rise, drop and free conductor' }),
  panelRise: inches(0, 400).meta({ about: 'cable added at the panel end' }),
  wastePercent: yup.number().strict().defined().min(0).max(100),
  vaPerReceptacle: yup.number().strict().defined().min(0).max(1800),
  maxReceptacles: yup.number().strict().defined().integer().min(1).max(40),
  dropLimitPercent: yup.number().strict().defined().min(1).max(10),
  conductorTemperature: yup.number().strict().defined().min(-20).max(90).meta({ unit: '°C' }),
  terminalRating: yup
    .number()
    .strict()
    .defined()
    .oneOf([60, 75] as const),
});

export const jobSchema = entity({
  id: id(),
  name: name(),
  address: text(160),
  edition: yup.string().strict().defined().oneOf(EDITIONS),
  dwelling: yup.string().strict().defined().oneOf(DWELLINGS),
  settings: settingsSchema,
});

export const levelSchema = entity({
  id: id(),
  name: name(),
  elevation: inches(-600, 1200),
});

export const wallSchema = entity({
  id: id(),
  length: inches(MIN_WALL, MAX_WALL),
  /** Degrees turned to the right at this wall's end, before the next wall. */
  turn: yup.number().strict().defined().min(-180).max(180),
});

export const areaSchema = entity({
  id: id(),
  levelId: id(),
  name: name(),
  kind: yup.string().strict().defined().oneOf(AREA_KINDS),
  x: inches(-24000, 24000),
  y: inches(-24000, 24000),
  /** Direction of the first wall: 0 is east, 90 is south. */
  heading: yup.number().strict().defined().min(-360).max(360),
  walls: list(wallSchema, 200),
  location: yup
    .string()
    .strict()
    .defined()
    .oneOf(['dry', 'damp', 'wet'] as const),
});

export const openingSchema = entity({
  id: id(),
  areaId: id(),
  wallId: id(),
  kind: yup.string().strict().defined().oneOf(OPENING_KINDS),
  /** From the wall's start to the opening's near edge. */
  offset: inches(0, MAX_WALL),
  width: inches(1, MAX_WALL),
  /** Which jamb a door hangs on, or none when it does not swing into this room. */
  hinge: yup
    .string()
    .strict()
    .defined()
    .oneOf(['none', 'start', 'end'] as const),
});

export const deviceSchema = entity({
  kind: yup.string().strict().defined().oneOf(DEVICE_KINDS),
  rating: yup
    .number()
    .strict()
    .defined()
    .oneOf([15, 20, 30, 50] as const),
  tamperResistant: flag(),
  weatherResistant: flag(),
});

export const boxSchema = entity({
  id: id(),
  name: name(),
  areaId: id(),
  wallId: id(),
  /** Centre of the box from the wall's start. */
  offset: inches(0, MAX_WALL),
  /** How far out from the wall line; more than 0 is a floor outlet. */
  fromWall: inches(0, 240),
  /** Centre of the box above the floor. */
  height: inches(0, 240),
  status: yup.string().strict().defined().oneOf(STATUSES),
  grounding: yup
    .string()
    .strict()
    .defined()
    .oneOf(['grounded', 'none', 'unknown'] as const),
  /** Shortest path of a cord to a sink's edge, tub or shower; null when there is none near. */
  waterDistance: inches(0, 1200).nullable(),
  device: deviceSchema,
  note: text(),
});

export const panelSchema = entity({
  id: id(),
  levelId: id(),
  name: name(),
  x: inches(-24000, 24000),
  y: inches(-24000, 24000),
  mainRating: yup.number().strict().defined().min(30).max(400),
  spaces: yup.number().strict().defined().integer().min(2).max(84),
});

export const stopSchema = entity({
  boxId: id(),
  /** The box that feeds this one; null is the panel. */
  from: id().nullable(),
  /** Measured cable length from the feeding box, when taken on site. */
  measured: inches(1, 24000).nullable(),
  /** This segment's own gauge where it differs from the circuit's. */
  gauge: yup
    .string()
    .strict()
    .defined()
    .nullable()
    .oneOf([...GAUGES, null]),
});

export const circuitSchema = entity({
  id: id(),
  panelId: id(),
  space: yup.number().strict().defined().integer().min(1).max(84),
  name: name(),
  status: yup.string().strict().defined().oneOf(STATUSES),
  breaker: entity({
    rating: yup
      .number()
      .strict()
      .defined()
      .oneOf([10, 15, 20, 25, 30, 35, 40, 45, 50, 60] as const),
    protection: yup.string().strict().defined().oneOf(BREAKER_PROTECTIONS),
  }),
  gauge: yup.string().strict().defined().oneOf(GAUGES),
  material: yup
    .string()
    .strict()
    .defined()
    .oneOf(['copper', 'aluminium'] as const),
  cable: yup
    .string()
    .strict()
    .defined()
    .oneOf(['NM-B', 'UF-B', 'old two-wire'] as const),
  stops: list(stopSchema, 400),
});

export const readingSchema = entity({
  id: id(),
  boxId: id(),
  /** Box and room as they were called when the reading was taken. */
  place: text(160),
  at: time(),
  by: name(),
  stage: yup
    .string()
    .strict()
    .defined()
    .oneOf(['as-found', 'as-left'] as const),
  instrument: text(80),
  /** Lamps hot–neutral, hot–ground, neutral–ground; null when no lamp tester was used. */
  lamps: yup
    .array(flag())
    .strict()
    .defined()
    .nullable()
    .test(
      'three',
      '${path}: expected three lamps: hot–neutral, hot–ground, neutral–ground',
      (v) => !v || v.length === 3,
    ),
  hotNeutral: volts(),
  hotGround: volts(),
  neutralGround: volts(),
  /** Amperes flowing at this outlet while measured. */
  loadAmps: yup.number().strict().defined().min(0).max(50),
  note: text(),
  /** The reading this one replaces; that one is kept and struck through. */
  corrects: id().nullable(),
});

const deadReadings = entity({
  hotNeutral: volts(),
  hotGround: volts(),
  neutralGround: volts(),
});

export const proofSchema = entity({
  id: id(),
  circuitId: id(),
  boxId: id(),
  place: text(160),
  at: time(),
  by: name(),
  /** Breaker found, opened, and locked or taped with a note. */
  lockedOut: flag(),
  /** Volts read at this outlet before the breaker was opened: shows that the breaker did it. */
  liveBefore: volts(),
  /** Volts on the known live source, before and after. */
  knownLiveBefore: volts(),
  knownLiveAfter: volts(),
  face: deadReadings,
  screws: deadReadings,
});

/** Power put back on a circuit: voids every earlier proof on it. */
export const energizingSchema = entity({
  id: id(),
  circuitId: id(),
  at: time(),
  by: name(),
});

export type Settings = InferType<typeof settingsSchema>;
export type Job = InferType<typeof jobSchema>;
export type Level = InferType<typeof levelSchema>;
export type Wall = InferType<typeof wallSchema>;
export type Area = InferType<typeof areaSchema>;
export type Opening = InferType<typeof openingSchema>;
export type Device = InferType<typeof deviceSchema>;
export type Box = InferType<typeof boxSchema>;
export type Panel = InferType<typeof panelSchema>;
export type Stop = InferType<typeof stopSchema>;
export type Circuit = InferType<typeof circuitSchema>;
export type Reading = InferType<typeof readingSchema>;
export type Proof = InferType<typeof proofSchema>;
export type Energizing = InferType<typeof energizingSchema>;

/** Every table of the document but the job's own row, with its schema and what one row is called. */
export const TABLES = {
  levels: { schema: levelSchema, noun: 'level', limit: 40 },
  areas: { schema: areaSchema, noun: 'room', limit: 2000 },
  openings: { schema: openingSchema, noun: 'opening', limit: 10000 },
  panels: { schema: panelSchema, noun: 'panel', limit: 100 },
  boxes: { schema: boxSchema, noun: 'outlet', limit: 10000 },
  circuits: { schema: circuitSchema, noun: 'circuit', limit: 2000 },
  readings: { schema: readingSchema, noun: 'reading', limit: 100000 },
  proofs: { schema: proofSchema, noun: 'proof of dead', limit: 20000 },
  energizings: { schema: energizingSchema, noun: 'energizing', limit: 20000 },
} as const;

export type TableName = keyof typeof TABLES;
export const TABLE_NAMES = Object.keys(TABLES) as TableName[];
/** Tables whose rows are never changed or removed. */
export const APPEND_ONLY: readonly TableName[] = ['readings', 'proofs', 'energizings'];

export interface Rows {
  levels: Level;
  areas: Area;
  openings: Opening;
  panels: Panel;
  boxes: Box;
  circuits: Circuit;
  readings: Reading;
  proofs: Proof;
  energizings: Energizing;
}
export type Entity = Rows[TableName];
export type Table<T> = Readonly<Record<string, T>>;

/** The normalised, immutable document: the job's own row and one map by id per table. */
export type JobDocument = { readonly job: Job } & { readonly [T in TableName]: Table<Rows[T]> };
