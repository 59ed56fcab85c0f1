/** The job itself, its levels and rooms, and what is built into them. */
import * as yup from 'yup';
import {
  MAX_WALL,
  MIN_WALL,
  id,
  text,
  name,
  flag,
  day,
  inches,
  whole,
  entity,
  list,
  number,
  word,
} from './fields.ts';
import { isZone } from '#core/units/time.ts';
import { schoolSchema } from './wiring.ts';
import {
  EDITIONS,
  ENTRIES,
  PRICE_ITEMS,
  AREA_KINDS,
  OPENING_KINDS,
  OTHER_SOURCES,
  STATUSES,
  FIXTURE_KINDS,
  DISCONNECTS,
  DWELLINGS,
  LAMP_COLORS,
  LAMP_ORDERS,
} from './words.ts';

/** From where on a reading is worth a word; a shop’s habits, not rules. */
const limitsSchema = entity({
  lowVolts: number(90, 120).meta({ unit: 'V' }),
  highVolts: number(120, 140).meta({ unit: 'V' }),
  neutralGround: number(0.5, 20).meta({ unit: 'V', about: 'neutral to ground under load' }),
  hotGroundShortfall: number(0.5, 20).meta({ unit: 'V', about: 'hot to ground below hot to neutral' }),
  /** Of a conductor above what its length and gauge give. */
  excessOhms: number(0.05, 5).meta({ unit: 'Ω' }),
  groundOhms: number(0.1, 10).meta({ unit: 'Ω' }),
  /** Hot and neutral of one cable apart, percent. */
  imbalancePercent: number(5, 100),
  /** Measured and expected hot to neutral apart, percent. */
  apartPercent: number(0.5, 10),
});

/** The shop’s plug-in tester: its lamps from left to right, their colors, and when one counts as lit. */
const testerSchema = entity({
  order: word(LAMP_ORDERS),
  hotNeutral: word(LAMP_COLORS),
  hotGround: word(LAMP_COLORS),
  neutralGround: word(LAMP_COLORS),
  lights: number(30, 115).meta({ unit: 'V' }),
});

const factor = () => number(0.1, 50);
const huntSchema = entity({
  licensedOnly: flag().meta({ about: 'local law lets only a licensed person open boxes and panels' }),
  learn: flag().meta({ about: 'faults found in all jobs here shift what is likely' }),
  factors: entity({
    pushIn: factor(),
    feedThrough: factor(),
    aluminum: factor(),
    heat: factor(),
    outdoors: factor(),
    old: factor(),
    noGround: factor(),
  }).meta({ about: 'times as often that a joint fails where this is on record' }),
});

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
  limits: limitsSchema,
  tester: testerSchema,
  school: schoolSchema,
  hunt: huntSchema,
});

/** One line of the shop’s price book. */
const priceSchema = entity({ item: word(PRICE_ITEMS), cents: number(0, 10_000_000) });

export const jobSchema = entity({
  id: id(),
  name: name(),
  address: text(160),
  entry: word(ENTRIES),
  edition: yup.string().strict().defined().oneOf(EDITIONS),
  dwelling: yup.string().strict().defined().oneOf(DWELLINGS),
  /** Day of the permit, which decides exceptions that end on a date; null when not known. */
  permitDate: day().nullable(),
  /** Time zone of the house, such as America/Denver: its days are told by it; null where nobody said. */
  zone: text(60)
    .nullable()
    .test(
      'zone',
      '${path}: expected a time zone such as America/Denver',
      (zone) => zone === null || zone === undefined || isZone(zone),
    ),
  /** Multifamily: laundry for all on the premises, or not permitted in the unit. */
  laundryElsewhere: flag(),
  /** How the dwelling's load is worked out. */
  load: entity({
    method: word(['standard', 'optional', 'existing'] as const),
    /** Outside dimensions, ft²; null is worked out from the rooms. */
    floorArea: number(100, 20000).nullable(),
  }),
  /** What may feed the house beside the utility; asked once. */
  otherSources: entity({ asked: flag(), kinds: list(word(OTHER_SOURCES), OTHER_SOURCES.length) }),
  settings: settingsSchema,
  /** The shop’s own prices; what is not among them takes the made-up one. */
  prices: list(priceSchema, PRICE_ITEMS.length),
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

const nameplateSchema = entity({
  volts: yup.number().strict().defined().min(1).max(600),
  amps: yup.number().strict().defined().nullable().min(0).max(400),
  watts: yup.number().strict().defined().nullable().min(0).max(100000),
  /** Minimum circuit ampacity and maximum overcurrent device, as marked on cooling and heat pumps. */
  minimumAmpacity: number(0, 400).nullable(),
  maximumBreaker: number(0, 400).nullable(),
  horsepower: number(0, 10).nullable(),
  /** Runs three hours or more. */
  continuous: flag(),
});

/** A counter, a fixture or an appliance: a rectangle along a wall, or out in the room. */
export const fixtureSchema = entity({
  id: id(),
  areaId: id(),
  name: name(),
  kind: yup.string().strict().defined().oneOf(FIXTURE_KINDS),
  /** Null: its place is not on the plan. */
  wallId: id().nullable(),
  /** Its center from the wall's start. */
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
    .oneOf(['none', 'cord', 'hardwired'] as const),
  nameplate: nameplateSchema.nullable(),
  disconnect: word(DISCONNECTS),
  note: text(),
});
