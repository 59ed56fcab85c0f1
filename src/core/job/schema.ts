/**
 * The job document: one Yup schema per entity, and the TypeScript types derived from them.
 * Inside: inches, volts, amperes, volt-amperes, degrees. Plan axes: x to the east, y to the south.
 */
import type { InferType, Schema } from 'yup';
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
import { boxWiringSchema, recordedSchema, schoolSchema } from './schema/wiring.ts';
import { panelFoundSchema, feederSchema, panelSchema, stopSchema, circuitSchema } from './schema/circuits.ts';
import {
  amendmentSchema,
  pictureSchema,
  readingSchema,
  proofSchema,
  energizingSchema,
  closingSchema,
  observationSchema,
  deviceTestSchema,
  lookSchema,
  tickSchema,
  measurementSchema,
  temporarySchema,
  alterationSchema,
  takingSchema,
} from './schema/records.ts';
import {
  callSchema,
  countersignSchema,
  entrySchema,
  faultSchema,
  flipSchema,
  partingSchema,
  personSchema,
} from './schema/calls.ts';

export * from './schema/words.ts';
export * from './schema/house.ts';
export * from './schema/outlets.ts';
export * from './schema/circuits.ts';
export * from './schema/wiring.ts';
export * from './schema/records.ts';
export * from './schema/calls.ts';
export { DAY, MAX_WALL, MIN_WALL } from './schema/fields.ts';

export type Settings = InferType<typeof settingsSchema>;
export type Job = InferType<typeof jobSchema>;
export type Level = InferType<typeof levelSchema>;
export type Wall = InferType<typeof wallSchema>;
export type Area = InferType<typeof areaSchema>;
export type Opening = InferType<typeof openingSchema>;
export type Device = InferType<typeof deviceSchema>;
export type Box = InferType<typeof boxSchema>;
export type Found = InferType<typeof foundSchema>;
export type BoxWiring = InferType<typeof boxWiringSchema>;
export type RecordedWiring = InferType<typeof recordedSchema>;
export type School = InferType<typeof schoolSchema>;
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
export type Closing = InferType<typeof closingSchema>;
export type Observation = InferType<typeof observationSchema>;
export type Tick = InferType<typeof tickSchema>;
export type Measurement = InferType<typeof measurementSchema>;
export type Temporary = InferType<typeof temporarySchema>;
export type Look = InferType<typeof lookSchema>;
export type Alteration = InferType<typeof alterationSchema>;
export type Stamp = NonNullable<Reading['stamp']>;
export type DeviceTest = InferType<typeof deviceTestSchema>;
export type Call = InferType<typeof callSchema>;
export type Entry = InferType<typeof entrySchema>;
export type Flip = InferType<typeof flipSchema>;
export type Parting = InferType<typeof partingSchema>;
export type Person = InferType<typeof personSchema>;
export type Countersign = InferType<typeof countersignSchema>;
export type FaultRecord = InferType<typeof faultSchema>;
export type Limits = Settings['limits'];
export type LampTesterSettings = Settings['tester'];

interface TableFacts {
  schema: Schema;
  /** What one row is called. */
  noun: string;
  /** Most rows. */
  limit: number;
  /** Rows are never changed or removed. */
  appendOnly: boolean;
  /** Columns with the id of a row that this one falls with. */
  standsOn: Readonly<Record<string, string>>;
}
const table = <S extends Schema, A extends boolean>(
  schema: S,
  noun: string,
  limit: number,
  { appendOnly, standsOn = {} }: { appendOnly: A; standsOn?: TableFacts['standsOn'] },
): Omit<TableFacts, 'schema' | 'appendOnly'> & { schema: S; appendOnly: A } => ({
  schema,
  noun,
  limit,
  appendOnly,
  standsOn,
});
const EDITED = { appendOnly: false } as const;
const RECORD = { appendOnly: true } as const;
const standsOn = (columns: TableFacts['standsOn']) => ({ ...EDITED, standsOn: columns });

/** Every table of the document but the job's own row: all else about tables follows from these records. */
export const TABLES = {
  levels: table(levelSchema, 'level', 40, EDITED),
  areas: table(areaSchema, 'room', 2000, standsOn({ levelId: 'levels' })),
  openings: table(openingSchema, 'opening', 10000, standsOn({ areaId: 'areas' })),
  fixtures: table(fixtureSchema, 'fixture', 10000, standsOn({ areaId: 'areas' })),
  panels: table(panelSchema, 'panel', 100, standsOn({ levelId: 'levels' })),
  boxes: table(boxSchema, 'outlet', 10000, standsOn({ areaId: 'areas' })),
  circuits: table(circuitSchema, 'circuit', 2000, standsOn({ panelId: 'panels' })),
  amendments: table(amendmentSchema, 'amendment', 200, EDITED),
  pictures: table(pictureSchema, 'picture', 10000, EDITED),
  readings: table(readingSchema, 'reading', 100000, RECORD),
  proofs: table(proofSchema, 'proof of dead', 20000, RECORD),
  closings: table(closingSchema, 'closing', 20000, RECORD),
  energizings: table(energizingSchema, 'energizing', 20000, RECORD),
  observations: table(observationSchema, 'observation', 100000, RECORD),
  deviceTests: table(deviceTestSchema, 'device test', 20000, RECORD),
  looks: table(lookSchema, 'look', 50000, RECORD),
  ticks: table(tickSchema, 'tick', 100000, RECORD),
  measurements: table(measurementSchema, 'measurement', 100000, RECORD),
  temporaries: table(temporarySchema, 'tie or separation', 20000, RECORD),
  calls: table(callSchema, 'call', 2000, EDITED),
  entries: table(entrySchema, 'answer', 100000, RECORD),
  flips: table(flipSchema, 'flip', 20000, RECORD),
  partings: table(partingSchema, 'opened box', 20000, RECORD),
  people: table(personSchema, 'person', 2000, RECORD),
  countersigns: table(countersignSchema, 'countersign', 20000, RECORD),
  faults: table(faultSchema, 'fault', 20000, RECORD),
  alterations: table(alterationSchema, 'alteration', 100000, RECORD),
  takings: table(takingSchema, 'taking-in', 20000, RECORD),
};

export type TableName = keyof typeof TABLES;
export const TABLE_NAMES = Object.keys(TABLES) as TableName[];
/** Tables whose rows are never changed or removed. */
export type AppendOnly = {
  [T in TableName]: (typeof TABLES)[T]['appendOnly'] extends true ? T : never;
}[TableName];
export const isAppendOnly = (name: TableName): name is AppendOnly => TABLES[name].appendOnly;

export type Rows = { [T in TableName]: InferType<(typeof TABLES)[T]['schema']> };
export type Entity = Rows[TableName];
type Table<T> = Readonly<Record<string, T>>;

/** The normalised, immutable document: the job's own row and one map by id per table. */
export type JobDocument = { readonly job: Job } & { readonly [T in TableName]: Table<Rows[T]> };
