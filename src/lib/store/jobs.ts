/** Reads and writes jobs. Every command is one transaction: its entities and its change row, or nothing. */
import { applyChanges, emptyDocument, inverse, newId, type Change } from '#core/job/document.ts';
import { editsBetween, GoneError, withEdits } from '#core/job/edits.ts';
import { VERSION } from '#core/job/migrations.ts';
import { problemsAfter } from '#core/job/integrity.ts';
import { allStamped, headsOf, type Clock } from '#core/job/order.ts';
import { missingIn } from '#core/job/unite.ts';
import { InvalidError } from '#core/job/validate.ts';
import { inPlaceOf, isOfRecord, recorded, type Outcome } from '#core/job/commands.ts';
import { TABLE_NAMES, type Job, type JobDocument, type TableName } from '#core/job/schema.ts';
import { GATES } from '#core/records/gates.ts';
import { apartFromCopies, thisDevice } from './device.ts';
import { assertOwn, changesOf, db, writing, type ChangeRow, type JobRow } from './db.ts';

/** The job is not there: never was, or thrown away in another tab. */
export class JobGoneError extends Error {
  override name = 'JobGoneError';
}

/** Its rows could not be brought up to date, and go out as a file. */
export class JobSetAsideError extends Error {
  override name = 'JobSetAsideError';
}

/** A file took the place of the job since it was opened. */
export class JobReplacedError extends Error {
  override name = 'JobReplacedError';
}

export interface Loaded {
  document: JobDocument;
  /** Of the job that this is a copy of. */
  incarnation: string;
  /** Newest change seen. */
  seq: number;
  history: History;
}

/** What undo and redo would do next. */
export interface History {
  undo: ChangeRow[];
  redo: ChangeRow[];
}

/** Edits kept for undo, and rows of the record for tabs that slept; older ones are cleared when a job is opened. */
const KEPT_CHANGES = 500;

/** Rows of the log that are cleared: of edits and of the record each the oldest, beyond what is kept. */
function tooOld(log: readonly ChangeRow[]): Set<ChangeRow> {
  const records = log.filter((r) => r.kind === 'record');
  const edits = log.filter((r) => r.kind !== 'record');
  return new Set([records, edits].flatMap((rows) => rows.slice(0, Math.max(0, rows.length - KEPT_CHANGES))));
}

/** Who writes, and when. @param job its highest number is kept: a file in its place may have fewer rows */
const clockOf = ({ n }: Pick<JobRow, 'n'>): Clock => ({
  device: thisDevice(),
  now: new Date().toISOString(),
  ...(n === undefined ? {} : { least: n }),
});

/** Works out the stacks from the log. */
function fold(history: History, row: ChangeRow): History {
  if (row.kind === 'record') return history;
  if (row.kind === 'do') return { undo: [...history.undo, row], redo: [] };
  const from = row.kind === 'undo' ? history.undo : history.redo;
  const moved = from.find((r) => r.seq === row.of);
  if (!moved) return history;
  const rest = from.filter((r) => r !== moved);
  return row.kind === 'undo'
    ? { undo: rest, redo: [...history.redo, moved] }
    : { undo: [...history.undo, moved], redo: rest };
}

const rowOf = (job: Job): Pick<JobRow, 'id' | 'name' | 'address' | 'edition' | 'entry' | 'updatedAt'> => ({
  id: job.id,
  name: job.name,
  address: job.address,
  edition: job.edition,
  entry: job.entry,
  updatedAt: Date.now(),
});

export const loadJob = (jobId: string): Promise<Loaded> =>
  writing([db.jobs, db.entities, db.changes], () => readJob(jobId));

/** The job as it is stored, within a transaction. */
async function readJob(jobId: string): Promise<Loaded> {
  const row = await db.jobs.get(jobId);
  if (!row || row.deletedAt !== null) throw new JobGoneError(jobId);
  assertOwn(row);
  if (row.setAside) throw new JobSetAsideError(row.setAside.reason);
  const entities = await db.entities.where('jobId').equals(jobId).toArray();
  const job = entities.find((e) => e.table === 'job')?.value as Job | undefined;
  if (!job) throw new JobGoneError(jobId);
  const document = emptyDocument(job) as unknown as Record<TableName, Record<string, unknown>>;
  for (const { table, id, value } of entities) if (table !== 'job') document[table][id] = value;
  const log = await changesOf(jobId).toArray();
  const old = tooOld(log);
  const trimmed = Math.max(row.trimmed ?? 0, ...[...old].map((r) => r.seq!));
  if (old.size > 0) {
    await db.changes.bulkDelete([...old].map((r) => r.seq!));
    await db.jobs.update(jobId, { trimmed });
  }
  return {
    document: document as unknown as JobDocument,
    incarnation: row.incarnation ?? '',
    seq: log.at(-1)?.seq ?? trimmed,
    history: log.filter((r) => !old.has(r)).reduce(fold, { undo: [], redo: [] }),
  };
}

/** Rows that came after `seq`, from this tab or another. */
export const changesAfter = (jobId: string, seq: number): Promise<ChangeRow[]> =>
  changesOf(jobId, seq).toArray();

export const catchUp = (state: Loaded, rows: readonly ChangeRow[]): Loaded =>
  rows.reduce(
    (s, row) => ({
      ...s,
      document: applyChanges(s.document, row.changes),
      seq: row.seq!,
      history: fold(s.history, row),
    }),
    state,
  );

async function write(jobId: string, document: JobDocument, row: ChangeRow): Promise<ChangeRow> {
  const put = row.changes.filter((c) => c.after !== null);
  const gone = row.changes.filter((c) => c.after === null);
  await db.entities.bulkPut(put.map((c) => ({ jobId, table: c.table, id: c.id, value: c.after! })));
  await db.entities.bulkDelete(gone.map((c) => [jobId, c.table, c.id] as [string, string, string]));
  const seq = await db.changes.add(row);
  await db.jobs.update(jobId, { ...rowOf(document.job), n: headsOf(document).get(thisDevice()) ?? 0 });
  return { ...row, seq };
}

/**
 * Makes one change against the newest state: whatever other tabs did meanwhile is taken in first.
 * @throws JobGoneError when the job was thrown away, JobReplacedError when a file took its place, OutdatedBuildError when a
 *   newer build has it; whatever `make` throws; nothing is written then
 */
async function transact(
  jobId: string,
  state: Loaded,
  make: (state: Loaded, clock: Clock) => Omit<ChangeRow, 'jobId' | 'at'> | null,
): Promise<Loaded> {
  return writing([db.jobs, db.entities, db.changes], async () => {
    const job = await db.jobs.get(jobId);
    if (!job || job.deletedAt !== null) throw new JobGoneError(jobId);
    assertOwn(job);
    if ((job.incarnation ?? '') !== state.incarnation) throw new JobReplacedError(jobId);
    // A tab that slept while the log went past what it had seen begins again from what is stored.
    const current =
      (job.trimmed ?? 0) > state.seq
        ? await readJob(jobId)
        : catchUp(state, await changesAfter(jobId, state.seq));
    const made = make(current, clockOf(job));
    // What an undo would take back may be gone; it is off the stack all the same.
    if (!made || (made.changes.length === 0 && made.of === null)) return current;
    const document = applyChanges(current.document, made.changes);
    const row = await write(jobId, document, { ...made, jobId, at: Date.now() });
    return { ...current, document, seq: row.seq!, history: fold(current.history, row) };
  });
}

/** Runs a command and stores what it changed: its edits and what it puts on record, or neither. */
export const commit = (
  jobId: string,
  state: Loaded,
  run: (document: JobDocument, clock: Clock) => Outcome,
): Promise<Loaded> =>
  transact(jobId, state, ({ document }, clock) => {
    const { changes, label } = run(document, clock);
    return { kind: changes.every(isOfRecord) ? 'record' : 'do', label, changes, of: null };
  });

/** Puts on record what another copy of the job has on record and this one has not. */
export async function bringIn(jobId: string, state: Loaded, other: JobDocument): Promise<Loaded> {
  const after = await transact(jobId, state, ({ document }) => ({
    kind: 'record',
    label: 'What another copy has on record',
    changes: missingIn(document, other),
    of: null,
  }));
  apartFromCopies(after.document);
  return after;
}

/**
 * Changes made again, or taken back, on rows that others may have changed since: only the fields that they changed.
 * @throws InvalidError when the job no longer allows them
 */
function again(document: JobDocument, changes: readonly Change[]): Change[] {
  const made = changes.flatMap(({ table, id, before, after }): Change[] => {
    const now = (table === 'job' ? document.job : document[table][id]) ?? null;
    if (before === null || after === null) return now === after ? [] : [{ table, id, before: now, after }];
    // What was changed is not there any more: there is nothing to take back.
    if (now === null) return [];
    try {
      return [{ table, id, before: now, after: withEdits(now, editsBetween(before, after)) }];
    } catch (error) {
      if (error instanceof GoneError) return [];
      throw error;
    }
  });
  const problems = problemsAfter(applyChanges(document, made), made);
  if (problems.length > 0) throw new InvalidError(problems);
  return made;
}

/** Only edits are taken back or made again; what that alters goes on record. */
const step =
  (kind: keyof History, changesOf: (made: Change[]) => Change[]) =>
  (jobId: string, state: Loaded): Promise<Loaded> =>
    transact(jobId, state, ({ document, history }, clock) => {
      const row = history[kind].at(-1);
      if (!row) return null;
      const edits = again(document, changesOf(row.changes.filter((c) => !isOfRecord(c))));
      const { changes } = recorded(document, edits, [], GATES.clerk, clock);
      return { kind, label: row.label, changes, of: row.seq! };
    });

export const undo = step('undo', inverse);
export const redo = step('redo', (changes) => changes);

/**
 * Stores a whole document as a job, in place of one with the same id.
 * @param incarnation of the job that it is the same as; without one it is another
 */
export async function storeJob(made: JobDocument, incarnation = newId('incarnation')): Promise<void> {
  const jobId = made.job.id;
  await writing([db.jobs, db.entities, db.changes], async () => {
    const there = await db.jobs.get(jobId);
    if (there) assertOwn(there);
    const own = allStamped(made, thisDevice());
    const document = there && there.incarnation !== incarnation ? await over(there, own) : own;
    await db.entities.where('jobId').equals(jobId).delete();
    const trimmed = (await changesOf(jobId).last())?.seq ?? there?.trimmed ?? 0;
    await changesOf(jobId).delete();
    const entities = TABLE_NAMES.flatMap((table) =>
      Object.entries(document[table]).map(([id, value]) => ({ jobId, table, id, value })),
    );
    await db.entities.bulkPut([
      { jobId, table: 'job' as const, id: jobId, value: document.job },
      ...entities,
    ]);
    apartFromCopies(document);
    const n = Math.max(there?.n ?? 0, headsOf(document).get(thisDevice()) ?? 0);
    await db.jobs.put({ ...rowOf(document.job), deletedAt: null, incarnation, trimmed, version: VERSION, n });
  });
}

/** A document over a job that is there: what that alters goes on record with it. */
async function over(there: JobRow, document: JobDocument): Promise<JobDocument> {
  if (there.deletedAt !== null || there.setAside) return document;
  return inPlaceOf((await readJob(there.id)).document, document, GATES.clerk!, clockOf(there));
}
