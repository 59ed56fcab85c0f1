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
  /** What it began as; jobs stored before version 13 are projects. */
  entry?: Job['entry'];
  /** Where its call stood when it was last looked at. */
  standing?: { title: string; next: string; open: boolean };
  /** What there was to do when it was last looked at. */
  todo?: { violations: number; unjudged: number };
  /** Version of the document that its rows are of; jobs stored before version 8 do not say. */
  version?: number;
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

/**
 * Brings stored jobs from one version of the document to the present one, as files are. Their undo history
 * speaks of rows as they were, so it is let go.
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
    const lists: Record<string, unknown[]> = {};
    for (const { table, value } of rows) if (table !== 'job') (lists[table] ??= []).push(value);
    const file = migrate({ ...lists, version: version ?? versionOf(job, rows), job });
    await entities.where('jobId').equals(jobId).delete();
    await entities.bulkPut([
      { jobId, table: 'job', id: jobId, value: file.job as Job },
      ...Object.entries(file).flatMap(([table, rows]) =>
        Array.isArray(rows)
          ? (rows as Entity[]).map((value) => ({ jobId, table: table as TableName, id: value.id, value }))
          : [],
      ),
    ]);
    await jobs.update(jobId, { version: VERSION });
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
    this.version(VERSION - 3).upgrade((transaction) => migrateStored(transaction, versionStored));
  }
}

export const db = new HektoDatabase();

/** The log of a job after a change. */
export const changesOf = (jobId: string, after = 0) =>
  db.changes.where('[jobId+seq]').between([jobId, after + 1], [jobId, Dexie.maxKey]);
