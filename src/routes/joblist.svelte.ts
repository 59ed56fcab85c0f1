/** What the list of jobs shows, and what a person does there: start, open, keep both, delete, put back. */
import { goto } from '$app/navigation';
import type { Problem } from '#core/job/integrity.ts';
import type { JobDocument } from '#core/job/schema.ts';
import type { Tile } from '#core/procedures/tiles.ts';
import type { Edition } from '#core/job/schema/words.ts';
import { zoneHere } from '#core/units/time.ts';
import { lastPerson } from '$lib/readings.ts';
import type { JobRow } from '$lib/store/db.ts';
import { hasJob, isQuotaError, putBack, throwAway } from '$lib/store/list.ts';

const NAME_LIMIT = 80;

/** What the list shows needs no checks; what refuses a file comes with the file's reader. */
const isRefusal = (error: unknown): error is { problems: Problem[] } =>
  error instanceof Error && error.name === 'InvalidError';

function problemsOf(error: unknown): Problem[] {
  if (isRefusal(error)) return error.problems;
  const message = isQuotaError(error)
    ? 'this device has no room left for another job; export and delete one first'
    : `this browser keeps nothing for Hekto (${String(error)}). A private window or blocked site data does this: allow it for this address, or use an ordinary window. Nothing was deleted`;
  return [{ path: 'storage', message }];
}

const show = ({ id, entry }: JobDocument['job']): Promise<void> =>
  goto(`/job/${id}/${entry === 'call' ? 'call' : 'walk'}`);

async function store(document: JobDocument): Promise<void> {
  const { storeJob } = await import('$lib/store/jobs.ts');
  await storeJob(document);
  await show(document.job);
}

export class JobList {
  jobs = $state.raw<JobRow[] | null>(null);
  problems = $state.raw<Problem[]>([]);
  busy = $state('');
  /** Stops the reading of a file that takes long. */
  reading = $state.raw<AbortController | null>(null);
  thrown = $state.raw<JobRow | null>(null);
  /** A file whose job is already here: the user decides. */
  clash = $state.raw<JobDocument | null>(null);

  refuse = (error: unknown): void => {
    this.problems = problemsOf(error);
  };

  private async attempt(what: string, work: () => Promise<unknown>): Promise<void> {
    this.problems = [];
    this.busy = what;
    try {
      await work();
    } catch (error) {
      this.refuse(error);
    } finally {
      this.busy = '';
      this.reading = null;
    }
  }

  openDemo = (): Promise<void> =>
    this.attempt('Opening the demo', async () => (await import('$lib/demo.ts')).openDemoJob());

  openFile = (file: File): Promise<void> =>
    this.attempt(`Reading ${file.name}`, async () => {
      this.reading = new AbortController();
      const { signal } = this.reading;
      const document = await import('$lib/files.ts').then(({ readJob }) => readJob(file, signal));
      if (await hasJob(document.job.id)) this.clash = document;
      else await store(document);
    });

  start = (name: string, edition: Edition): Promise<void> =>
    this.attempt('Starting', async () => {
      const { newJob } = await import('#core/job/document.ts');
      await store(newJob(name.slice(0, NAME_LIMIT), edition, 'project', zoneHere()));
    });

  /** One tap: a job for the call, and its first step. The edition is that of the job before. */
  startCall = (tile: Tile, address: string): Promise<void> =>
    this.attempt('Starting', async () => {
      const [{ newJob }, { callOf }] = await Promise.all([
        import('#core/job/document.ts'),
        import('#core/procedures/tiles.ts'),
      ]);
      const place = address.trim().slice(0, 160);
      const edition = this.jobs?.[0]?.edition ?? '2023';
      const document = newJob((place || tile.name).slice(0, NAME_LIMIT), edition, 'call', zoneHere());
      const call = callOf(tile, lastPerson(), new Date().toISOString());
      await store({
        ...document,
        job: { ...document.job, address: place },
        calls: { [call.id]: call },
      });
    });

  keepBoth = (document: JobDocument): Promise<void> =>
    this.attempt('Storing', async () => {
      const { newId } = await import('#core/job/document.ts');
      const name = `${document.job.name} (copy)`.slice(0, NAME_LIMIT);
      await store({ ...document, job: { ...document.job, id: newId('job'), name } });
    });

  /** What the file has on record comes to what is here; plan and settings stay as they are here. */
  bringIn = (document: JobDocument): Promise<void> =>
    this.attempt('Storing', async () => {
      const { bringIn, loadJob } = await import('$lib/store/jobs.ts');
      await bringIn(document.job.id, await loadJob(document.job.id), document);
      await show(document.job);
    });

  replace = (document: JobDocument): Promise<void> => this.attempt('Storing', () => store(document));

  remove = (job: JobRow): Promise<void> =>
    this.attempt('Deleting', async () => {
      await throwAway(job.id);
      this.thrown = job;
    });

  restore = (job: JobRow): Promise<void> => {
    this.thrown = null;
    return this.attempt('Putting back', () => putBack(job.id));
  };
}
