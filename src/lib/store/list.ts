/** The jobs on this device as a list: nothing here needs what is in them. */
import { SCHEMA } from '#core/job/migrations.ts';
import { assertOwn, changesOf, isOwn, db, listsOf, writing, type JobRow } from './db.ts';

const THROWN_AWAY_KEPT_MS = 30 * 24 * 3600 * 1000;

export const listJobs = async (): Promise<JobRow[]> =>
  (await db.jobs.orderBy('updatedAt').reverse().toArray()).filter((j) => j.deletedAt === null);

export const hasJob = async (jobId: string): Promise<boolean> => {
  const row = await db.jobs.get(jobId);
  return row !== undefined && row.deletedAt === null;
};

/** Keeps what there is to do in a job for the list of jobs. */
export const noteTodo = (jobId: string, todo: NonNullable<JobRow['todo']>) => update(jobId, { todo });

/** Changes a job’s row, where it is of this build. @throws OutdatedBuildError */
const update = (jobId: string, values: Partial<JobRow>): Promise<unknown> =>
  writing([db.jobs], async () => {
    const job = await db.jobs.get(jobId);
    if (!job) return;
    assertOwn(job);
    await db.jobs.put({ ...job, ...values });
  });

/** Keeps where a call stands for the list of jobs. */
export const noteStanding = (jobId: string, standing: NonNullable<JobRow['standing']>) =>
  update(jobId, { standing });

export const throwAway = (jobId: string) => update(jobId, { deletedAt: Date.now() });
export const putBack = (jobId: string) => update(jobId, { deletedAt: null });

/** The file of a job that could not be brought up to date, as its version wrote it. */
export async function asideFile(jobId: string): Promise<string> {
  const row = await db.jobs.get(jobId);
  const rows = await db.entities.where('jobId').equals(jobId).toArray();
  const job = rows.find((r) => r.table === 'job')?.value;
  return JSON.stringify(
    { schema: SCHEMA, version: row?.setAside?.version ?? row?.version, job, ...listsOf(rows) },
    null,
    2,
  );
}

/** Clears out jobs thrown away a month ago or more. */
export async function clearOut(): Promise<void> {
  await writing([db.jobs, db.entities, db.changes, db.pictures], async () => {
    const limit = Date.now() - THROWN_AWAY_KEPT_MS;
    for (const job of await db.jobs.toArray()) {
      if (job.deletedAt === null || job.deletedAt > limit || !isOwn(job)) continue;
      await db.entities.where('jobId').equals(job.id).delete();
      await changesOf(job.id).delete();
      await db.pictures.where('jobId').equals(job.id).delete();
      await db.jobs.delete(job.id);
    }
  });
}

export const isQuotaError = (error: unknown): boolean => {
  const names = [error, (error as { inner?: unknown })?.inner].map((e) => (e as Error | undefined)?.name);
  return names.includes('QuotaExceededError');
};
