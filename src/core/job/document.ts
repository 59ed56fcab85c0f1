import { follows, inOrder, type Recorded } from './order.ts';
import {
  isAppendOnly,
  TABLE_NAMES,
  type Box,
  type Circuit,
  type Conditions,
  type Edition,
  type Entity,
  type Fixture,
  type Job,
  type OpeningKind,
  type JobDocument,
  type Measurement,
  type Panel,
  type Reading,
  type Settings,
  type Stop,
  type TableName,
} from './schema.ts';

/** Shop habits a new job starts with; each can be changed and is shown as a habit, not a rule. */
export const DEFAULT_SETTINGS: Settings = {
  voltage: 120,
  studSpacing: 16,
  receptacleHeight: 16,
  benchHeight: 44,
  boxRise: 24,
  panelRise: 60,
  wastePercent: 10,
  vaPerReceptacle: 180,
  maxReceptacles: 10,
  dropLimitPercent: 3,
  conductorTemperature: 75,
  terminalRating: 60,
  wallThickness: 4.5,
  everyWall: false,
  extraAtTelevision: false,
  limits: {
    lowVolts: 110,
    highVolts: 127,
    neutralGround: 5,
    hotGroundShortfall: 4,
    excessOhms: 0.2,
    groundOhms: 1,
    imbalancePercent: 30,
    apartPercent: 3,
  },
  tester: { order: 'HN HG NG', hotNeutral: 'amber', hotGround: 'amber', neutralGround: 'red', lights: 85 },
  school: {
    joining: 'pigtail',
    connector: 'twist-on',
    tape: false,
    groundSlot: 'down',
    landing: 'ground-neutral-hot',
    bond: 'tail',
  },
  hunt: {
    licensedOnly: false,
    learn: false,
    factors: { pushIn: 4, feedThrough: 1.6, aluminum: 3, heat: 5, outdoors: 2.5, old: 1.8, noGround: 4 },
  },
};

/** Fields of a reading that say nothing out of the ordinary. */
export const PLAIN_READING = {
  meter: 'unknown',
  lamps: null,
  hotNeutral: null,
  hotGround: null,
  neutralGround: null,
  hotHot: null,
  groundReference: null,
  loadAmps: 0,
  groundOhms: null,
  half: 'both',
  openBox: false,
  note: '',
  corrects: null,
  from: null,
} as const satisfies Partial<Reading>;

/** Fields of a measurement that say nothing out of the ordinary. */
export const PLAIN_MEASUREMENT = {
  stands: 'unknown',
  loadAmps: 0,
  gain: null,
  testVolts: null,
  testMilliamps: null,
  lamps: null,
  seconds: null,
  cleared: [],
  temporaries: [],
  sender: '',
  simulated: false,
  corrects: null,
} satisfies Partial<Measurement>;

/** How a new job works out its load. */
export const PLAIN_LOAD: Job['load'] = { method: 'standard', floorArea: null };

/** Nobody asked yet what else feeds the house. */
export const NOT_ASKED: Job['otherSources'] = { asked: false, kinds: [] };

/** Conditions of an area about which nothing is known yet. */
export const PLAIN_CONDITIONS: Conditions = {
  bays: 0,
  risers: 0,
  detached: false,
  powered: true,
  attachedToUnit: true,
  habitable: false,
  foodPreparation: false,
  roofed: false,
  faces: 'none',
  ownEntrance: false,
  reachedFromInside: false,
  aboveGrade: null,
  houseGap: null,
};

export const CEILING_HEIGHT = 96;

/** Nobody has looked at what is there to see. */
export const NOT_SEEN: Box['seen'] = {
  luminaire: 'unknown',
  fanBox: 'unknown',
  aluminumRated: 'unknown',
  switchNeutral: 'unknown',
  labels: 'unknown',
};

/** Somebody looked, and no sink, tub or shower is anywhere near, inches. */
export const NO_WATER_NEAR = 1200;

/** An old box of which nothing was found yet. */
export const NOTHING_FOUND: NonNullable<Box['found']> = {
  signs: [],
  boxMaterial: 'unknown',
  boxVolume: null,
  deviceAge: null,
};

/** The row that takes another back: both stay on record. @param kind of its id @param signed who takes it back, and when (UTC) */
export const struckBy = <T extends { id: string; strikes: string | null }>(
  row: T,
  kind: string,
  signed: { by: string; at: string },
): T => ({ ...row, ...signed, id: newId(kind), strikes: row.id });

/** Rows that stand, oldest first: those that strike another, and those that were struck, are left out. */
export function standingRows<T extends Recorded & { strikes: string | null }>(
  table: Readonly<Record<string, T>>,
): T[] {
  const all = rows(table).sort(inOrder);
  const struck = new Set(all.flatMap((r) => r.strikes ?? []));
  return all.filter((r) => r.strikes === null && !struck.has(r.id));
}

/** Fields of an outlet that say nothing out of the ordinary. */
export const PLAIN_BOX = {
  spot: '',
  mount: 'wall',
  fixtureId: null,
  serves: null,
  alsoServes: null,
  purpose: 'general',
  accessible: true,
  controls: [],
  enclosure: { volume: null, clamps: 'unknown' },
  cables: null,
  seen: NOT_SEEN,
  found: null,
  wiring: null,
  school: null,
  through: [],
} as const satisfies Partial<Box>;

/** Fields of a device that say nothing out of the ordinary. */
export const PLAIN_DEVICE = {
  volts: '125',
  cover: 'indoor',
  switched: 'none',
  automatic: false,
  markedControlled: false,
  build: 'usual',
  tabs: 'whole',
} as const satisfies Partial<Box['device']>;

/** Fields of a fixture that say nothing out of the ordinary. */
export const PLAIN_FIXTURE = {
  fromWall: 0,
  status: 'existing',
  fastened: false,
  corner: false,
  overhang: 0,
  futureProvision: false,
  connection: 'none',
  nameplate: null,
  disconnect: 'unknown',
  note: '',
} as const satisfies Partial<Fixture>;

/** Fields of a nameplate that is not marked with them. */
export const PLAIN_NAMEPLATE = {
  amps: null,
  watts: null,
  minimumAmpacity: null,
  maximumBreaker: null,
  horsepower: null,
  continuous: false,
} as const satisfies Partial<Fixture['nameplate']>;

/** Fields of a panel about which nothing is out of the ordinary: the one at the service. */
export const PLAIN_PANEL = {
  known: 'yes',
  tandemSpaces: [],
  feeder: null,
  status: 'existing',
  clear: { width: null, depth: null, height: null, highestHandle: null },
  foreignAbove: 'unknown',
  service: {
    gauge: null,
    material: 'copper',
    surge: 'unknown',
    outdoorDisconnect: 'unknown',
    electrodes: null,
    rods: 0,
    rodProved: 'unknown',
    waterBonded: 'unknown',
    gasBonded: 'unknown',
    intersystem: 'unknown',
  },
  oneMain: 'unknown',
  bonded: true,
  otherBuilding: false,
  electrode: true,
  note: '',
  found: null,
} as const satisfies Partial<Panel>;

/** Fields of a stop that say nothing out of the ordinary. */
export const PLAIN_STOP = {
  measured: null,
  gauge: null,
  side: 'load',
  splice: 'school',
  cable: null,
  hot: 'black',
  whiteMarked: 'unknown',
} as const satisfies Partial<Stop>;

/** A box fed from another, or from the panel. */
export const stopAt = (boxId: string, from: string | null, values: Partial<Stop> = {}): Stop => ({
  boxId,
  from,
  ...PLAIN_STOP,
  ...values,
});

/** Fields of a circuit that say nothing out of the ordinary. */
export const PLAIN_CIRCUIT = {
  seen: 'yes',
  half: 'whole',
  otherSpace: null,
  neutral: true,
  material: 'copper',
  cable: 'NM-B',
  ground: null,
  route: 'unknown',
  cover: null,
  ambient: 30,
  bundled: 2,
  complete: 'yes',
  ordered: 'yes',
  mayBeFirst: [],
} as const satisfies Partial<Circuit>;

/** A breaker with one pole, or with two that open together. */
export const breakerOf = (
  rating: Circuit['breaker']['rating'],
  protection: Circuit['breaker']['protection'] = 'none',
  poles: 1 | 2 = 1,
): Circuit['breaker'] => ({
  rating,
  protection,
  poles,
  tie: poles === 2 ? 'common-trip' : 'none',
  listed: 'unknown',
});

/** Lower and upper edge of an opening that is not measured, inches. */
export function edgesOf(kind: OpeningKind, ceiling = CEILING_HEIGHT): { bottom: number; top: number } {
  if (kind === 'window') return { bottom: 36, top: 80 };
  if (kind === 'fireplace') return { bottom: 0, top: 40 };
  if (kind === 'railing') return { bottom: 0, top: 36 };
  if (kind === 'bar-counter') return { bottom: 0, top: 42 };
  return { bottom: 0, top: kind === 'cabinet' || kind === 'blocked' ? ceiling : 80 };
}

/** A new id with the prefix of its kind, such as `box-1f9k3m2x`. */
export function newId(prefix: string): string {
  const bytes = crypto.getRandomValues(new Uint8Array(10));
  return `${prefix}-${Array.from(bytes, (b) => (b % 36).toString(36)).join('')}`;
}

export function emptyDocument(job: Job): JobDocument {
  const tables = Object.fromEntries(TABLE_NAMES.map((t) => [t, {}])) as unknown as Omit<JobDocument, 'job'>;
  return { job, ...tables };
}

/**
 * A fresh job with one level and one panel, so that the first room has somewhere to stand.
 * @param zone time zone of who begins it at the house
 */
export function newJob(
  name: string,
  edition: Edition,
  entry: Job['entry'] = 'project',
  zone: string | null = null,
): JobDocument {
  const document = emptyDocument({
    id: newId('job'),
    name,
    address: '',
    entry,
    edition,
    dwelling: 'one-family',
    permitDate: null,
    zone,
    laundryElsewhere: false,
    load: PLAIN_LOAD,
    otherSources: NOT_ASKED,
    settings: DEFAULT_SETTINGS,
    prices: [],
  });
  const level = { id: newId('level'), name: 'Main level', elevation: 0 };
  const panel = {
    id: newId('panel'),
    levelId: level.id,
    name: 'Panel A',
    x: 0,
    y: 0,
    mainRating: 100,
    busRating: 100,
    spaces: 20,
    ...PLAIN_PANEL,
    // Nobody has read the panel of a call yet.
    ...(entry === 'call' ? { known: 'unknown' as const, spaces: 42 } : {}),
  };
  return { ...document, levels: { [level.id]: level }, panels: { [panel.id]: panel } };
}

export const rows = <T>(table: Readonly<Record<string, T>>): T[] => Object.values(table);

/** Rows by their ids, whatever order the document has them in: a file, a store and an edit each leave another. */
export const rowsById = <T>(table: Readonly<Record<string, T>>): T[] =>
  Object.keys(table)
    .sort()
    .map((id) => table[id]!);

/** Panels as they are listed: those at the service first, then by name. */
export const panelsInOrder = ({ panels }: Pick<JobDocument, 'panels'>): Panel[] =>
  rows(panels).sort(
    (a, b) => Number(a.feeder !== null) - Number(b.feeder !== null) || a.name.localeCompare(b.name),
  );

/** Circuits as they are listed everywhere: panel by panel, by their spaces. */
export function circuitsInOrder(document: JobDocument): Circuit[] {
  const order = panelsInOrder(document).map((p) => p.id);
  return rows(document.circuits).sort(
    (a, b) =>
      order.indexOf(a.panelId) - order.indexOf(b.panelId) ||
      a.space - b.space ||
      a.half.localeCompare(b.half) ||
      a.id.localeCompare(b.id),
  );
}

/** The circuit that an outlet is on. */
export const circuitOf = ({ circuits }: Pick<JobDocument, 'circuits'>, boxId: string): Circuit | undefined =>
  rows(circuits).find((c) => c.stops.some((s) => s.boxId === boxId));

/** The appliance that an outlet is there for. */
export const servedBy = ({ fixtures }: JobDocument, { serves }: Pick<Box, 'serves'>): Fixture | undefined =>
  serves === null ? undefined : fixtures[serves];

/** One entity before and after; null where it did not exist. The job's own row has the table `job`. */
export interface Change {
  table: TableName | 'job';
  id: string;
  before: Entity | Job | null;
  after: Entity | Job | null;
}

/** What a command puts on record in a table. */
export const added = <T>(changes: readonly Change[], table: Change['table']): T[] =>
  changes.filter((c) => c.table === table && c.before === null).map((c) => c.after as T);

/** What differs between two documents, entity by entity. Cost is in the tables that changed only. */
export function changesBetween(before: JobDocument, after: JobDocument): Change[] {
  const changes: Change[] = [];
  if (before.job !== after.job) {
    changes.push({ table: 'job', id: after.job.id, before: before.job, after: after.job });
  }
  for (const table of TABLE_NAMES) {
    const old: Readonly<Record<string, Entity>> = before[table];
    const now: Readonly<Record<string, Entity>> = after[table];
    if (old === now) continue;
    for (const id in now) {
      if (old[id] !== now[id]) changes.push({ table, id, before: old[id] ?? null, after: now[id]! });
    }
    for (const id in old) {
      if (!(id in now)) changes.push({ table, id, before: old[id]!, after: null });
    }
  }
  return changes;
}

/** The document with the changes made. Does not touch what it is given. */
export function applyChanges(document: JobDocument, changes: readonly Change[]): JobDocument {
  const next = { ...document } as Record<string, unknown>;
  const copied = new Map<TableName, Change[]>();
  for (const change of changes) {
    const { table, id, after } = change;
    if (table === 'job') {
      next.job = after;
      continue;
    }
    const own = copied.get(table) ?? [];
    if (own.length === 0) {
      next[table] = { ...document[table] };
      copied.set(table, own);
    }
    own.push(change);
    const target = next[table] as Record<string, unknown>;
    if (after === null) delete target[id];
    else target[id] = after;
  }
  for (const [table, own] of copied)
    if (isAppendOnly(table) && own.every((c) => c.before === null && c.after !== null))
      follows(
        next[table] as Record<string, Recorded>,
        document[table],
        own.map((c) => c.after as Recorded),
      );
  return next as unknown as JobDocument;
}

/** The changes that take the document back. */
export const inverse = (changes: readonly Change[]): Change[] =>
  changes.map(({ table, id, before, after }) => ({ table, id, before: after, after: before }));
