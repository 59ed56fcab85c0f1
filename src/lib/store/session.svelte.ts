/** One open job: its document, what undo would do, its findings, and what went wrong. */
import { liveQuery, type Subscription } from 'dexie';
import { getContext, setContext } from 'svelte';
import type { Finding } from '#core/code/rule.ts';
import { countsOf } from '#core/code/summary.ts';
import { View } from '#core/view/view.ts';
import { byFields, type Command } from '#core/job/commands.ts';
import { headsOf } from '#core/job/order.ts';
import { runGuarded, tried as triedAt } from '#core/records/gates.ts';
import type { JobDocument } from '#core/job/schema.ts';
import { InvalidError } from '#core/job/validate.ts';
import type { Problem } from '#core/job/integrity.ts';
import { FindingsFeed } from '../workers/findings.ts';
import { db, OutdatedBuildError } from './db.ts';
import { thisDevice } from './device.ts';
import {
  catchUp,
  changesAfter,
  commit,
  JobGoneError,
  JobReplacedError,
  JobSetAsideError,
  loadJob,
  redo,
  storeJob,
  undo,
  type Loaded,
} from './jobs.ts';
import { isQuotaError, noteTodo } from './list.ts';

/**
 * `replaced`: a file took the place of the job; what this tab holds is a copy of the one before. `outdated`: a newer build has
 * the job. `aside`: its rows could not be brought up to date.
 */
export type SessionStatus =
  | 'loading'
  | 'ready'
  | 'missing'
  | 'deleted'
  | 'replaced'
  | 'outdated'
  | 'aside'
  | 'failed';

/** What keeps a job from being opened, by the name of its error. */
const AS: Readonly<Record<string, SessionStatus>> = {
  OutdatedBuildError: 'outdated',
  JobSetAsideError: 'aside',
};

/** Findings that stay for so long are noted, ms. */
const NOTED_AFTER = 1500;

/** What a command makes of a document as this browser, now, before it is stored. */
const tried = (document: JobDocument, command: Command): JobDocument =>
  triedAt(document, command, { device: thisDevice(), now: new Date().toISOString() });

export class JobSession {
  readonly jobId: string;
  status = $state<SessionStatus>('loading');
  /** Findings of what is shown, null until first worked out. */
  findings = $state.raw<Finding[] | null>(null);
  /** Why the last command was refused. */
  problems = $state.raw<Problem[]>([]);
  /** What a drag or a held arrow key shows before it is let go. */
  private previewed = $state.raw<{ document: JobDocument; command: Command } | null>(null);
  /**
   * The document with all commands given, those not stored yet among them: what is typed next builds on it, and loses
   * nothing of what was typed just before. Null when nothing waits.
   */
  private ahead = $state.raw<JobDocument | null>(null);
  /** Commands given and not yet stored. */
  private waiting = $state(0);
  /** Something on screen is not stored yet: leaving the page now would lose it. */
  readonly unsaved = $derived.by(() => this.waiting > 0 || this.previewed !== null);
  /** Commands that could not be stored, in their order: they wait here until there is room, or go out with a file. */
  private kept = $state.raw<readonly Command[]>([]);
  /** What is stored with them; null where there are none. */
  private unstored = $state.raw<JobDocument | null>(null);
  /** Storage is full: the job in memory is ahead of what is stored. */
  storageFull = $state(false);
  failure = $state('');

  private stored = $state.raw<Loaded | null>(null);
  private feed: FindingsFeed | null = null;
  private subscriptions: Subscription[] = [];
  /** Commands run one after another, in the order given. */
  private queue: Promise<unknown> = Promise.resolve();
  private settle: ReturnType<typeof setTimeout> | undefined;
  private noting: ReturnType<typeof setTimeout> | undefined;

  /** Something of the job is in memory here. */
  get held(): boolean {
    return this.stored !== null;
  }

  /** The document on screen. Only read when `status` is not `loading`, `missing` or `failed`. */
  readonly document = $derived.by(() => (this.previewed?.document ?? this.base) as JobDocument);
  /** What the next command builds on. */
  private get base(): JobDocument | undefined {
    return this.ahead ?? this.unstored ?? this.stored?.document;
  }
  private lookups: View | null = null;
  /** Look-ups over the document; each takes over what the one before had worked out. */
  readonly view = $derived.by(
    () => (this.lookups = this.lookups?.follow(this.document) ?? new View(this.document)),
  );
  /** How far each device has written, by what is stored. */
  readonly heads = $derived.by(() =>
    this.stored ? headsOf(this.stored.document) : new Map<string, number>(),
  );
  readonly undoLabel = $derived.by(() => this.stored?.history.undo.at(-1)?.label ?? null);
  readonly redoLabel = $derived.by(() => this.stored?.history.redo.at(-1)?.label ?? null);

  constructor(jobId: string) {
    this.jobId = jobId;
  }

  async open(): Promise<void> {
    try {
      this.stored = await loadJob(this.jobId);
    } catch (error) {
      this.status = error instanceof JobGoneError ? 'missing' : (AS[(error as Error).name] ?? 'failed');
      this.failure = error instanceof JobSetAsideError ? error.message : String(error);
      return;
    }
    this.status = 'ready';
    this.feed = new FindingsFeed(
      (findings) => {
        this.findings = findings;
        this.note(findings);
      },
      (error) => (this.failure = `Findings stopped: ${String(error)}`),
    );
    this.feed.show(this.document);
    this.subscriptions = [
      liveQuery(() => changesAfter(this.jobId, this.stored?.seq ?? 0)).subscribe((rows) => {
        const news = rows.filter((r) => r.seq! > (this.stored?.seq ?? 0));
        if (news.length > 0 && this.stored) this.take(catchUp(this.stored, news));
      }),
      liveQuery(() => db.jobs.get(this.jobId)).subscribe((row) => {
        if (!this.stored) return;
        if (!row || row.deletedAt !== null) this.status = 'deleted';
        else if ((row.incarnation ?? '') !== this.stored.incarnation) this.status = 'replaced';
        else {
          if (this.status === 'deleted') this.status = 'ready';
          // The log went past what this tab has seen, while it slept.
          if ((row.trimmed ?? 0) > this.stored.seq) void this.takeStored();
        }
      }),
    ];
    void navigator.storage?.persist?.();
  }

  /** Keeps what there is to do for the list of jobs, once it stays so for a while. */
  private note(findings: readonly Finding[]): void {
    clearTimeout(this.noting);
    this.noting = setTimeout(() => {
      const { violation, unknown } = countsOf(findings);
      // A job that cannot be written to has its own words for it.
      noteTodo(this.jobId, { violations: violation, unjudged: unknown }).catch(() => {});
    }, NOTED_AFTER);
  }

  close(): void {
    clearTimeout(this.noting);
    void this.release();
    for (const s of this.subscriptions) s.unsubscribe();
    this.feed?.stop();
  }

  /** Takes the job as it is stored now in place of what this tab holds. */
  async reload(): Promise<void> {
    this.kept = [];
    await this.takeStored();
  }

  /** As it is stored now, with what waits to be stored on top of it. */
  private async takeStored(): Promise<void> {
    this.previewed = null;
    this.ahead = null;
    this.take(await loadJob(this.jobId));
    this.status = 'ready';
  }

  /** Stores what this tab holds, in place of a job that was deleted or of none. */
  async putBack(): Promise<void> {
    await storeJob(this.document);
    await this.reload();
  }

  /** Runs a command. Resolves to whether it was carried out; refusals land in `problems`. */
  execute(asked: Command): Promise<boolean> {
    let command = asked;
    if (this.stored) {
      const base = this.base!;
      try {
        command = this.previewed?.command === asked ? asked : byFields(base, asked);
        this.ahead = tried(base, command);
      } catch {
        // Refused when its turn comes, with the reason.
      }
    }
    return this.enqueue((state) => this.committed(state, command), command);
  }
  /** As `execute`, for a field: answers with what is wrong, or null. */
  async attempt(command: Command): Promise<string | null> {
    if (await this.execute(command)) return null;
    const said = this.problems.map((p) => p.message).join('; ');
    this.problems = [];
    return this.storageFull ? null : said || this.failure || 'not stored';
  }
  undo = (): Promise<boolean> => this.enqueue((state) => undo(this.jobId, state));
  redo = (): Promise<boolean> => this.enqueue((state) => redo(this.jobId, state));

  /** Shows what a command would do without storing it; stored on `release`, or after a moment of quiet. */
  preview(asked: Command, settleAfter: number | null = null): void {
    const { base } = this;
    if (!base) return;
    clearTimeout(this.settle);
    try {
      const command = byFields(base, asked);
      this.previewed = { document: tried(base, command), command };
      this.problems = [];
      this.feed?.show(this.document);
    } catch (error) {
      this.refuse(error);
    }
    if (settleAfter !== null) this.settle = setTimeout(() => void this.release(), settleAfter);
  }

  /** Stores what is previewed. */
  async release(): Promise<void> {
    clearTimeout(this.settle);
    const command = this.previewed?.command;
    if (!command) return;
    await this.execute(command);
  }

  /** Drops what is previewed. */
  cancel(): void {
    clearTimeout(this.settle);
    this.previewed = null;
    if (this.stored) this.feed?.show(this.document);
  }

  /** Stores what is kept, on what others stored meanwhile. @throws where there is no room for it yet */
  private async storedWith(state: Loaded): Promise<Loaded> {
    let now = state;
    while (this.kept.length > 0) {
      const [first] = this.kept as [Command];
      try {
        now = await this.committed(now, first);
      } catch (error) {
        if (!(error instanceof InvalidError)) throw error;
        // The job no longer allows it: said, and not tried for ever.
        this.problems = error.problems;
      }
      this.kept = this.kept.slice(1);
      this.take(now);
    }
    this.storageFull = false;
    return now;
  }

  private committed = (state: Loaded, command: Command): Promise<Loaded> =>
    commit(this.jobId, state, (document, clock) => runGuarded(document, command, clock));

  private take(state: Loaded): void {
    this.stored = state;
    this.unstored = this.kept.length === 0 ? null : this.withKept(state.document);
    this.feed?.show(this.document);
  }

  private withKept = (document: JobDocument): JobDocument =>
    this.kept.reduce((now, command) => {
      try {
        return tried(now, command);
      } catch {
        return now;
      }
    }, document);

  private enqueue(
    make: (state: Loaded) => Promise<Loaded>,
    command: Command | null = null,
  ): Promise<boolean> {
    const attempt = async (): Promise<boolean> => {
      if (!this.stored) return false;
      try {
        this.problems = [];
        const next = await make(await this.storedWith(this.stored));
        if (this.previewed?.command === command || command === null) this.previewed = null;
        this.take(next);
        return true;
      } catch (error) {
        this.previewed = null;
        this.ahead = null;
        const full = isQuotaError(error);
        const elsewhere =
          error instanceof JobGoneError ||
          error instanceof JobReplacedError ||
          error instanceof OutdatedBuildError;
        // Keep the work in memory, so that it can be exported or put back with the rest.
        if ((full || elsewhere) && command) {
          this.kept = [...this.kept, command];
          this.take(this.stored);
        }
        if (full && command) this.storageFull = true;
        else this.refuse(error);
        return false;
      }
    };
    this.waiting += 1;
    const done = this.queue.then(attempt).finally(() => {
      this.waiting -= 1;
      if (this.waiting === 0) this.ahead = null;
    });
    // What goes wrong with one is none of the next one's matter.
    this.queue = done.catch(() => false);
    return done;
  }

  private refuse(error: unknown): void {
    if (error instanceof InvalidError) this.problems = error.problems;
    else if (error instanceof JobGoneError) this.status = 'deleted';
    else if (error instanceof JobReplacedError) this.status = 'replaced';
    else if (error instanceof OutdatedBuildError) this.status = 'outdated';
    else this.failure = String(error);
  }
}

const KEY = Symbol('job');
export const provideSession = (session: () => JobSession) => setContext(KEY, session);
/** The open job's session, for any part below the job's layout. */
export const useSession = (): JobSession => getContext<() => JobSession>(KEY)();
