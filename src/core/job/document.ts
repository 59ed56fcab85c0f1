import {
  TABLE_NAMES,
  type Edition,
  type Entity,
  type Job,
  type JobDocument,
  type Settings,
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
};

/** A new id with the prefix of its kind, such as `box-1f9k3m2x`. */
export function newId(prefix: string): string {
  const bytes = crypto.getRandomValues(new Uint8Array(10));
  return `${prefix}-${Array.from(bytes, (b) => (b % 36).toString(36)).join('')}`;
}

export function emptyDocument(job: Job): JobDocument {
  const tables = Object.fromEntries(TABLE_NAMES.map((t) => [t, {}])) as unknown as Omit<JobDocument, 'job'>;
  return { job, ...tables };
}

/** A fresh job with one level and one panel, so that the first room has somewhere to stand. */
export function newJob(name: string, edition: Edition): JobDocument {
  const document = emptyDocument({
    id: newId('job'),
    name,
    address: '',
    edition,
    dwelling: 'one-family',
    settings: DEFAULT_SETTINGS,
  });
  const level = { id: newId('level'), name: 'Main level', elevation: 0 };
  const panel = {
    id: newId('panel'),
    levelId: level.id,
    name: 'Panel A',
    x: 0,
    y: 0,
    mainRating: 100,
    spaces: 20,
  };
  return { ...document, levels: { [level.id]: level }, panels: { [panel.id]: panel } };
}

export const rows = <T>(table: Readonly<Record<string, T>>): T[] => Object.values(table);

/** One entity before and after; null where it did not exist. The job's own row has the table `job`. */
export interface Change {
  table: TableName | 'job';
  id: string;
  before: Entity | Job | null;
  after: Entity | Job | null;
}

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
  const copied = new Set<string>();
  for (const { table, id, after } of changes) {
    if (table === 'job') {
      next.job = after;
      continue;
    }
    if (!copied.has(table)) {
      next[table] = { ...document[table] };
      copied.add(table);
    }
    const target = next[table] as Record<string, unknown>;
    if (after === null) delete target[id];
    else target[id] = after;
  }
  return next as unknown as JobDocument;
}

/** The changes that take the document back. */
export const inverse = (changes: readonly Change[]): Change[] =>
  changes.map(({ table, id, before, after }) => ({ table, id, before: after, after: before }));
