/** The browser's database: one row per entity, and a log of every change for undo and for other tabs. */
import Dexie, { type Table, type Transaction } from 'dexie';
import type { Change } from '#core/job/document.ts';
import { migrate, VERSION } from '#core/job/migrations.ts';
import type { Edition, Entity, Job, TableName } from '#core/job/schema.ts';

export interface JobRow {
  id: string;
  name: string;
  address: string;
  edition: Edition;
  updatedAt: number;
  /** When it was thrown away; it can be put back until it is cleared out. */
  deletedAt: number | null;
  /** Changes when a file takes the place of the job: what a tab holds of the one before is not of this one. */
  incarnation?: string;
  /** Newest change that is not in the log any more. */
  trimmed?: number;
  /** The highest number that this browser gave a row of its record. */
  n?: number;
  /** What it began as; jobs stored before version 13 are projects. */
  entry?: Job['entry'];
  /** Where its call stood when it was last looked at. */
  standing?: { title: string; next: string; open: boolean };
  /** What there was to do when it was last looked at. */
  todo?: { violations: number; unjudged: number };
  /** Version of the document that its rows are of; jobs stored before version 8 do not say. */
  version?: number;
  /** Its rows could not be brought up to date: they are as they were, and go out as a file. */
  setAside?: { version: number; reason: string };
}

/** A newer build has the store, or the job, in a form that this one does not know: it writes nothing more. */
export class OutdatedBuildError extends Error {
  override name = 'OutdatedBuildError';
}

interface EntityRow {
  jobId: string;
  table: TableName | 'job';
  id: string;
  value: Entity | Job;
}

export interface ChangeRow {
  seq?: number;
  jobId: string;
  kind: 'do' | 'undo' | 'redo' | 'record';
  label: string;
  changes: Change[];
  /** For undo and redo: the `do` row it takes back or makes again. */
  of: number | null;
  at: number;
}

interface PictureRow {
  jobId: string;
  id: string;
  blob: Blob;
}

/** Rows of a job as tables. */
export function listsOf(rows: readonly EntityRow[]): Record<string, unknown[]> {
  const lists: Record<string, unknown[]> = {};
  for (const { table, value } of rows) if (table !== 'job') (lists[table] ??= []).push(value);
  return lists;
}

/** Rows of a job as the present version has them. @throws whatever a step cannot take */
function broughtUp(job: Entity | Job, rows: readonly EntityRow[], version: number): EntityRow[] {
  const jobId = job.id;
  const file = migrate({ ...listsOf(rows), version, job });
  const made = [
    { jobId, table: 'job' as const, id: jobId, value: file.job as Job },
    ...Object.entries(file).flatMap(([table, list]) =>
      Array.isArray(list)
        ? (list as Entity[]).map((value) => ({ jobId, table: table as TableName, id: value.id, value }))
        : [],
    ),
  ];
  const nameless = made.find((row) => typeof row.id !== 'string');
  if (nameless) throw new TypeError(`${nameless.table}: a row without an id`);
  return made;
}

/**
 * Brings stored jobs from one version of the document to the present one, as files are. Their undo history
 * speaks of rows as they were, so it is let go. A job that a step cannot take stays as it is, set aside; the others go on.
 */
async function migrateStored(
  transaction: Transaction,
  versionOf: (job: Entity | Job, rows: readonly EntityRow[]) => number,
): Promise<void> {
  const jobs = transaction.table<JobRow>('jobs');
  const entities = transaction.table<EntityRow>('entities');
  for (const { id: jobId, version } of await jobs.toArray()) {
    // An earlier step of the same upgrade has brought it all the way.
    if (version === VERSION) continue;
    const rows = await entities.where('jobId').equals(jobId).toArray();
    const job = rows.find((r) => r.table === 'job')?.value;
    if (!job) continue;
    const from = version ?? versionOf(job, rows);
    let made: EntityRow[];
    try {
      made = broughtUp(job, rows, from);
    } catch (error) {
      await jobs.update(jobId, { version: from, setAside: { version: from, reason: String(error) } });
      continue;
    }
    await entities.where('jobId').equals(jobId).delete();
    await entities.bulkPut(made);
    await jobs.update(jobId, { version: VERSION, setAside: undefined });
  }
  await transaction.table('changes').clear();
}

/** The version that stored rows are of, by what they have. */
function versionStored(job: Entity | Job, rows: readonly EntityRow[]): number {
  if (!('load' in job)) return 3;
  if (!('limits' in job.settings)) return 4;
  if ('otherSources' in job) return 7;
  const feeders = rows.flatMap(({ table, value }) =>
    table === 'panels' && 'feeder' in value && value.feeder !== null ? [value.feeder] : [],
  );
  return feeders.some((feeder) => !('ambient' in feeder)) ? 5 : 6;
}

class HektoDatabase extends Dexie {
  jobs!: Table<JobRow, string>;
  entities!: Table<EntityRow, [string, string, string]>;
  changes!: Table<ChangeRow, number>;
  pictures!: Table<PictureRow, [string, string]>;

  constructor() {
    // A change that is shown as saved is on the disk, not on its way there.
    super('hekto', { chromeTransactionDurability: 'strict' });
    this.version(1).stores({
      jobs: 'id, updatedAt',
      entities: '[jobId+table+id], jobId',
      changes: '++seq, [jobId+seq]',
    });
    this.version(2)
      .stores({ pictures: '[jobId+id], jobId' })
      .upgrade((transaction) => migrateStored(transaction, () => 2));
    // What the second kept may be of version 3 or 4; jobs have had a load method since the latter.
    this.version(3).upgrade((transaction) => migrateStored(transaction, versionStored));
    // Rows as of version 6 and earlier may be there still: the store was not brought up to date for 6.
    this.version(4).upgrade((transaction) => migrateStored(transaction, versionStored));
    // From here on one version of the store for each of the document, beginning with 5 for 8.
    this.version(STORE).upgrade((transaction) => migrateStored(transaction, versionStored));
    this.on('versionchange', ({ newVersion }) => {
      // Opened again by itself it would write rows of this build into a store of the next.
      if ((newVersion ?? 0) > STORE * TENTHS) letGo();
    });
    this.on('ready', () => this.backendDB().version > STORE * TENTHS && tellOutdated(), true);
  }
}
/** Version of the store, and how the browser counts it. */
const STORE = VERSION - 3;
const TENTHS = 10;

export const db = new HektoDatabase();

let outdated = false as boolean;
const watchers = new Set<() => void>();
function tellOutdated(): void {
  outdated = true;
  for (const tell of watchers) tell();
}
function letGo(): void {
  db.close({ disableAutoOpen: true });
  tellOutdated();
}

/** Calls once a newer build has the store; at once where it has. @returns what ends it */
export function whenOutdated(tell: () => void): () => void {
  if (outdated) tell();
  watchers.add(tell);
  return () => watchers.delete(tell);
}

/**
 * Runs in one transaction that first looks whether the store is still of this build.
 * @throws OutdatedBuildError when a newer build has it, or has the job; nothing is written then
 */
export async function writing<T>(tables: readonly Table[], work: () => PromiseLike<T>): Promise<T> {
  if (outdated) throw new OutdatedBuildError();
  try {
    return await db.transaction('rw', tables, async () => {
      const { idbtrans } = Dexie.currentTransaction as Transaction & { idbtrans: IDBTransaction };
      if (idbtrans.db.version > STORE * TENTHS) tellOutdated();
      if (outdated) throw new OutdatedBuildError();
      return work();
    });
  } catch (error) {
    // It was taken while this waited for it.
    throw outdated ? new OutdatedBuildError() : error;
  }
}

/** Whether this build knows the form of a job’s rows. */
export const isOwn = (job: JobRow): boolean => (job.version ?? VERSION) <= VERSION;
/** @throws OutdatedBuildError when a newer build wrote the job’s rows */
export function assertOwn(job: JobRow): void {
  if (!isOwn(job)) throw new OutdatedBuildError();
}

/** The log of a job after a change. */
export const changesOf = (jobId: string, after = 0) =>
  db.changes.where('[jobId+seq]').between([jobId, after + 1], [jobId, Dexie.maxKey]);
