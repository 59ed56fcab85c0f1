/**
 * The job document: one Yup schema per entity, and the TypeScript types derived from them.
 * Inside: inches, volts, amperes, volt-amperes, degrees. Plan axes: x to the east, y to the south.
 */
import type { InferType } from 'yup';
import {
  settingsSchema,
  jobSchema,
  levelSchema,
  wallSchema,
  areaSchema,
  openingSchema,
  fixtureSchema,
  conditionsSchema,
} from './schema/house.ts';
import { deviceSchema, boxSchema, foundSchema } from './schema/outlets.ts';
import { panelFoundSchema, feederSchema, panelSchema, stopSchema, circuitSchema } from './schema/circuits.ts';
import {
  amendmentSchema,
  pictureSchema,
  readingSchema,
  proofSchema,
  energizingSchema,
  observationSchema,
  deviceTestSchema,
} from './schema/records.ts';

export * from './schema/words.ts';
export * from './schema/house.ts';
export * from './schema/outlets.ts';
export * from './schema/circuits.ts';
export * from './schema/records.ts';
export { DAY, MAX_TEXT, MAX_WALL, MIN_WALL } from './schema/fields.ts';

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
export type Feeder = InferType<typeof feederSchema>;
export type Panel = InferType<typeof panelSchema>;
export type Stop = InferType<typeof stopSchema>;
export type Circuit = InferType<typeof circuitSchema>;
export type Reading = InferType<typeof readingSchema>;
export type Proof = InferType<typeof proofSchema>;
export type Energizing = InferType<typeof energizingSchema>;
export type Observation = InferType<typeof observationSchema>;
export type DeviceTest = InferType<typeof deviceTestSchema>;
export type Limits = Settings['limits'];
export type LampTesterSettings = Settings['tester'];

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
  observations: { schema: observationSchema, noun: 'observation', limit: 100000 },
  deviceTests: { schema: deviceTestSchema, noun: 'device test', limit: 20000 },
} as const;

export type TableName = keyof typeof TABLES;
export const TABLE_NAMES = Object.keys(TABLES) as TableName[];
/** Tables whose rows are never changed or removed. */
const APPEND_ONLY = ['readings', 'observations', 'proofs', 'energizings', 'deviceTests'] as const;
export type AppendOnly = (typeof APPEND_ONLY)[number];
export const isAppendOnly = (table: TableName): table is AppendOnly =>
  (APPEND_ONLY as readonly TableName[]).includes(table);

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
  observations: Observation;
  deviceTests: DeviceTest;
}
export type Entity = Rows[TableName];
export type Table<T> = Readonly<Record<string, T>>;

/** The normalised, immutable document: the job's own row and one map by id per table. */
export type JobDocument = { readonly job: Job } & { readonly [T in TableName]: Table<Rows[T]> };
