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
  'pantry',
  'hallway',
  'foyer',
  'stairs',
  'closet',
  'laundry',
  'bathroom',
  'garage',
  'basement-finished',
  'basement-unfinished',
  'crawl-space',
  'attic',
  'utility',
  'accessory',
  'boathouse',
  'outdoors',
  'deck',
] as const;
export type AreaKind = (typeof AREA_KINDS)[number];

export const OPENING_KINDS = [
  'door',
  'opening',
  'sliding-panel',
  'fixed-glass',
  'window',
  'fireplace',
  'cabinet',
  'railing',
  'bar-counter',
  'blocked',
] as const;
export type OpeningKind = (typeof OPENING_KINDS)[number];

export const STATUSES = ['existing', 'new', 'replace', 'remove'] as const;
export const GAUGES = ['14', '12', '10', '8', '6', '4', '3', '2', '1', '1/0', '2/0', '3/0', '4/0'] as const;
export type Gauge = (typeof GAUGES)[number];
export const BREAKER_PROTECTIONS = ['none', 'gfci', 'afci', 'dual'] as const;
export const RECEPTACLE_KINDS = ['duplex', 'single', 'gfci', 'outlet-afci', 'two-slot'] as const;
export const DEVICE_KINDS = [...RECEPTACLE_KINDS, 'light', 'switch', 'smoke-alarm', 'hard-wired'] as const;
export type DeviceKind = (typeof DEVICE_KINDS)[number];

/** Where in the room a box sits. `face-up`: in a counter or sill without an assembly listed for it. */
export const MOUNTS = [
  'wall',
  'floor',
  'ceiling',
  'counter-assembly',
  'face-up',
  'cabinet-face',
  'in-cabinet',
  'in-luminaire',
] as const;
export type Mount = (typeof MOUNTS)[number];

/** What an outlet is there for, where the code treats it apart. */
export const PURPOSES = [
  'general',
  'deicing',
  'alarm-system',
  'ceiling-support',
  'ceiling-fan',
  'vehicle',
  'equipment-service',
] as const;

export const FIXTURE_KINDS = [
  'basin',
  'sink',
  'tub',
  'shower',
  'counter',
  'island',
  'peninsula',
  'appliance-garage',
  'range',
  'cooktop',
  'wall-oven',
  'microwave',
  'hood',
  'refrigerator',
  'dishwasher',
  'disposer',
  'washer',
  'dryer',
  'water-heater',
  'furnace',
  'air-handler',
  'outdoor-unit',
  'evaporative-cooler',
  'sump-pump',
  'kiln',
  'vehicle-charger',
  'television',
  'fixed-equipment',
] as const;
export type FixtureKind = (typeof FIXTURE_KINDS)[number];

export const COLOURS = ['black', 'red', 'blue', 'white', 'grey', 'green', 'bare', 'cloth'] as const;
export const CONDUCTOR_FUNCTIONS = [
  'feed',
  'hot onward',
  'switched',
  'traveller',
  'neutral',
  'ground',
  'spare',
  'unknown',
] as const;
/** What eyes and fingers find at an old device. */
export const SIGNS = [
  'back-stabbed',
  'heat marks',
  'worn contacts',
  'painted',
  'cracked',
  'aluminium',
  'cloth insulation',
  'loose',
] as const;
export const PANEL_SIGNS = [
  'rust',
  'heat',
  'water',
  'no directory',
  'missing cover screws',
  'not trusted to trip',
] as const;
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
const whole = (min: number, max: number) => yup.number().strict().defined().integer().min(min).max(max);
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
  wallThickness: inches(1, 24).meta({ about: 'between the faces of two rooms that share a wall' }),
  everyWall: flag().meta({ about: 'a receptacle on every wall of 2 ft or more, beyond the code' }),
  extraAtTelevision: flag().meta({ about: 'one more receptacle where a television goes' }),
});

export const jobSchema = entity({
  id: id(),
  name: name(),
  address: text(160),
  edition: yup.string().strict().defined().oneOf(EDITIONS),
  dwelling: yup.string().strict().defined().oneOf(DWELLINGS),
  /** Day of the permit, which decides exceptions that end on a date; null when not known. */
  permitDate: yup
    .string()
    .strict()
    .defined()
    .nullable()
    .matches(/^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/, {
      message: '${path}: expected a day such as 2026-05-04',
      excludeEmptyString: false,
    }),
  /** Multifamily: laundry for all on the premises, or not permitted in the unit. */
  laundryElsewhere: flag(),
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

/** What the rules ask of an area beyond its kind. */
export const conditionsSchema = entity({
  /** Vehicle bays of a garage. */
  bays: whole(0, 12),
  /** Risers of a stair. */
  risers: whole(0, 60),
  /** A garage or outbuilding apart from the house. */
  detached: flag(),
  /** A detached garage or outbuilding has electric power. */
  powered: flag(),
  /** A garage attached to its unit in a multifamily building. */
  attachedToUnit: flag(),
  /** An outbuilding intended to be lived in. */
  habitable: flag(),
  /** Permanent provision to prepare food or drink or to cook, with a sink. */
  foodPreparation: flag(),
  roofed: flag(),
  /** Side of the house that an outdoor area lies on. */
  faces: yup
    .string()
    .strict()
    .defined()
    .oneOf(['none', 'front', 'back', 'side'] as const),
  /** The dwelling has its own door here, at grade. */
  ownEntrance: flag(),
  /** A deck, porch or balcony is reached from inside. */
  reachedFromInside: flag(),
  /** Walking surface above the ground below it, inches; null follows the level. */
  aboveGrade: inches(-600, 1200).nullable(),
  /** Horizontal gap between a deck and the house, inches; null when not measured. */
  houseGap: inches(0, 1200).nullable(),
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
  ceilingHeight: inches(48, 480),
  conditions: conditionsSchema,
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
  /** Lower and upper edge above the floor. */
  bottom: inches(0, 480),
  top: inches(0, 480),
});

export const nameplateSchema = entity({
  volts: yup.number().strict().defined().min(1).max(600),
  amps: yup.number().strict().defined().nullable().min(0).max(400),
  watts: yup.number().strict().defined().nullable().min(0).max(100000),
});

/** A counter, a fixture or an appliance: a rectangle along a wall, or out in the room. */
export const fixtureSchema = entity({
  id: id(),
  areaId: id(),
  name: name(),
  kind: yup.string().strict().defined().oneOf(FIXTURE_KINDS),
  wallId: id(),
  /** Its centre from the wall's start. */
  offset: inches(0, MAX_WALL),
  /** Clear space between the wall and its back; an island stands out in the room. */
  fromWall: inches(0, MAX_WALL),
  /** Along the wall. */
  width: inches(1, MAX_WALL),
  /** Out from the wall. */
  depth: inches(1, MAX_WALL),
  /** Top above the floor. */
  height: inches(0, 480),
  status: yup.string().strict().defined().oneOf(STATUSES),
  /** Fastened in place: a cord cannot pass behind or through it. */
  fastened: flag(),
  /** A range or sink set across a corner. */
  corner: flag(),
  /** How far an island's or peninsula's top stands out past its support. */
  overhang: inches(0, 120),
  /** Provision for a later receptacle at an island or peninsula. */
  futureProvision: flag(),
  connection: yup
    .string()
    .strict()
    .defined()
    .oneOf(['none', 'cord', 'hard-wired'] as const),
  nameplate: nameplateSchema.nullable(),
  note: text(),
});

export const deviceSchema = entity({
  kind: yup.string().strict().defined().oneOf(DEVICE_KINDS),
  rating: yup
    .number()
    .strict()
    .defined()
    .oneOf([15, 20, 30, 50] as const),
  volts: yup
    .string()
    .strict()
    .defined()
    .oneOf(['125', '250', '125/250'] as const),
  tamperResistant: flag(),
  weatherResistant: flag(),
  cover: yup
    .string()
    .strict()
    .defined()
    .oneOf(['indoor', 'weatherproof', 'in-use'] as const),
  /** Which contacts are controlled rather than always hot. */
  switched: yup
    .string()
    .strict()
    .defined()
    .oneOf(['none', 'half', 'whole'] as const),
  /** Controlled by an automatic device or for energy management, not by a plain wall switch. */
  automatic: flag(),
  /** Marked “Controlled” on its face. */
  markedControlled: flag(),
});

/** What was found when an old box was opened. */
export const foundSchema = entity({
  cables: whole(0, 12),
  conductors: list(
    entity({
      cable: whole(1, 12),
      colour: yup.string().strict().defined().oneOf(COLOURS),
      function: yup.string().strict().defined().oneOf(CONDUCTOR_FUNCTIONS),
    }),
    48,
  ),
  splices: whole(0, 24),
  signs: list(yup.string().strict().defined().oneOf(SIGNS), SIGNS.length),
  boxMaterial: yup
    .string()
    .strict()
    .defined()
    .oneOf(['metal', 'plastic', 'unknown'] as const),
  /** Cubic inches. */
  boxVolume: yup.number().strict().defined().nullable().min(1).max(400),
  /** Years; null when not known. */
  deviceAge: yup.number().strict().defined().nullable().min(0).max(150),
});

export const boxSchema = entity({
  id: id(),
  name: name(),
  areaId: id(),
  wallId: id(),
  /** Centre of the box from the wall's start. */
  offset: inches(0, MAX_WALL),
  /** How far out from the wall line; more than 0 is a floor outlet. */
  fromWall: inches(0, MAX_WALL),
  /** Centre of the box above the floor. */
  height: inches(0, 480),
  status: yup.string().strict().defined().oneOf(STATUSES),
  grounding: yup
    .string()
    .strict()
    .defined()
    .oneOf(['grounded', 'none', 'unknown'] as const),
  /** Shortest path of a cord to a sink's edge, tub or shower; null when there is none near. */
  waterDistance: inches(0, 1200).nullable(),
  device: deviceSchema,
  mount: yup.string().strict().defined().oneOf(MOUNTS),
  /** The counter, island or vanity it is mounted in or on. */
  fixtureId: id().nullable(),
  /** The appliance it is dedicated to. */
  serves: id().nullable(),
  purpose: yup.string().strict().defined().oneOf(PURPOSES),
  /** Can be reached without a ladder, tools or moving what is fastened. */
  accessible: flag(),
  /** Outlets that a switch here controls. */
  controls: list(id(), 60),
  found: foundSchema.nullable(),
  note: text(),
});

/** The panel as it was found. */
export const panelFoundSchema = entity({
  protection: yup
    .string()
    .strict()
    .defined()
    .oneOf(['breakers', 'fuses', 'pull-outs'] as const),
  signs: list(yup.string().strict().defined().oneOf(PANEL_SIGNS), PANEL_SIGNS.length),
  fillersMissing: whole(0, 84),
  doubledLugs: whole(0, 84),
  /** Each breaker or fuse with what its directory says. */
  breakers: list(
    entity({
      space: whole(1, 84),
      rating: yup.number().strict().defined().min(5).max(400),
      poles: whole(1, 2),
      label: text(80),
    }),
    84,
  ),
});

export const panelSchema = entity({
  id: id(),
  levelId: id(),
  name: name(),
  x: inches(-24000, 24000),
  y: inches(-24000, 24000),
  mainRating: yup.number().strict().defined().min(30).max(400),
  spaces: whole(2, 84),
  found: panelFoundSchema.nullable(),
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
    /** 1 for a 120 V circuit, 2 for 240 V and multiwire. */
    poles: yup
      .number()
      .strict()
      .defined()
      .oneOf([1, 2] as const),
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

/** A local change to the code: a rule switched off, its limit tightened, or a note added. */
export const amendmentSchema = entity({
  id: id(),
  /** Id of a rule in the catalogue. */
  rule: text(60).min(1),
  action: yup
    .string()
    .strict()
    .defined()
    .oneOf(['off', 'tighten', 'note'] as const),
  /** The tighter limit, in the rule's own unit. */
  limit: yup.number().strict().defined().nullable().min(0).max(10000),
  /** Where the amendment stands, in the user's own words. */
  reference: text(120).trim().min(1),
  note: text(),
});

/** A picture of something in the job; the picture itself is kept beside the document. */
export const pictureSchema = entity({
  id: id(),
  about: entity({
    table: yup
      .string()
      .strict()
      .defined()
      .oneOf(['areas', 'fixtures', 'boxes', 'panels', 'circuits'] as const),
    id: id(),
  }),
  at: time(),
  caption: text(160),
  width: whole(1, 20000),
  height: whole(1, 20000),
});

export type Settings = InferType<typeof settingsSchema>;
export type Job = InferType<typeof jobSchema>;
export type Level = InferType<typeof levelSchema>;
export type Wall = InferType<typeof wallSchema>;
export type Area = InferType<typeof areaSchema>;
export type Opening = InferType<typeof openingSchema>;
export type Device = InferType<typeof deviceSchema>;
export type Box = InferType<typeof boxSchema>;
export type Found = InferType<typeof foundSchema>;
export type Fixture = InferType<typeof fixtureSchema>;
export type Conditions = InferType<typeof conditionsSchema>;
export type PanelFound = InferType<typeof panelFoundSchema>;
export type Amendment = InferType<typeof amendmentSchema>;
export type Picture = InferType<typeof pictureSchema>;
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
  fixtures: { schema: fixtureSchema, noun: 'fixture', limit: 10000 },
  panels: { schema: panelSchema, noun: 'panel', limit: 100 },
  boxes: { schema: boxSchema, noun: 'outlet', limit: 10000 },
  circuits: { schema: circuitSchema, noun: 'circuit', limit: 2000 },
  amendments: { schema: amendmentSchema, noun: 'amendment', limit: 200 },
  pictures: { schema: pictureSchema, noun: 'picture', limit: 10000 },
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
  fixtures: Fixture;
  panels: Panel;
  boxes: Box;
  circuits: Circuit;
  amendments: Amendment;
  pictures: Picture;
  readings: Reading;
  proofs: Proof;
  energizings: Energizing;
}
export type Entity = Rows[TableName];
export type Table<T> = Readonly<Record<string, T>>;

/** The normalised, immutable document: the job's own row and one map by id per table. */
export type JobDocument = { readonly job: Job } & { readonly [T in TableName]: Table<Rows[T]> };
