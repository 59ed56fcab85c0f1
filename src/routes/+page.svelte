<script lang="ts">
  import { liveQuery } from 'dexie';
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { EDITIONS, type Edition } from '#core/job/schema/words.ts';
  import type { Problem } from '#core/job/integrity.ts';
  import type { JobDocument } from '#core/job/schema.ts';
  import type { JobRow } from '$lib/store/db.ts';
  import { clearOut, hasJob, isQuotaError, listJobs, putBack, throwAway } from '$lib/store/list.ts';
  import { actions } from '$lib/actions.svelte.ts';
  import { lastPlace } from '$lib/lastPlace.ts';
  import Act from '$lib/parts/Act.svelte';
  import Choice from '$lib/parts/Choice.svelte';
  import LightSwitch from '$lib/parts/LightSwitch.svelte';

  let jobs = $state.raw<JobRow[] | null>(null);
  let problems = $state.raw<Problem[]>([]);
  let busy = $state('');
  /** Stops the reading of a file that takes long. */
  let reading = $state.raw<AbortController | null>(null);
  let thrown = $state.raw<JobRow | null>(null);
  let name = $state('');
  let nameProblem = $state('');
  let edition = $state<Edition>('2023');
  let fileInput = $state<HTMLInputElement>();
  let dropping = $state(false);
  /** A file whose job is already here: the user decides. */
  let clash = $state.raw<JobDocument | null>(null);

  onMount(() => {
    void clearOut();
    const watch = liveQuery(listJobs).subscribe({
      next: (rows) => (jobs = rows),
      error: (e) => say(e),
    });
    const release = actions.offer(() => [
      { id: 'demo', name: 'Open the demo job', hint: 'Jobs', words: 'example sample', run: openDemo },
      {
        id: 'open-file',
        name: 'Open a job file',
        hint: 'Jobs',
        words: 'import load',
        run: () => fileInput?.click(),
      },
    ]);
    return () => {
      watch.unsubscribe();
      release();
    };
  });

  /** What the list shows needs no checks; what refuses a file comes with the file's reader. */
  const isRefusal = (error: unknown): error is { problems: Problem[] } =>
    error instanceof Error && error.name === 'InvalidError';

  function say(error: unknown) {
    if (isRefusal(error)) problems = error.problems;
    else if (isQuotaError(error)) {
      problems = [
        {
          path: 'storage',
          message: 'this device has no room left for another job; export and delete one first',
        },
      ];
    } else
      problems = [
        {
          path: 'storage',
          message: `this browser keeps nothing for Hekto (${String(error)}). A private window or blocked site data does this: allow it for this address, or use an ordinary window. Nothing was deleted`,
        },
      ];
  }

  async function store(document: JobDocument) {
    const { storeJob } = await import('$lib/store/jobs.ts');
    await storeJob(document);
    await goto(`/job/${document.job.id}/walk`);
  }

  async function attempt(what: string, work: () => Promise<unknown>) {
    problems = [];
    busy = what;
    try {
      await work();
    } catch (error) {
      say(error);
    } finally {
      busy = '';
      reading = null;
    }
  }

  const openDemo = () =>
    attempt('Opening the demo', async () => (await import('$lib/demo.ts')).openDemoJob());

  const openFile = (file: File | undefined) =>
    file &&
    attempt(`Reading ${file.name}`, async () => {
      reading = new AbortController();
      const { signal } = reading;
      const document = await import('$lib/files.ts').then(({ readJob }) => readJob(file, signal));
      if (await hasJob(document.job.id)) clash = document;
      else await store(document);
    });

  async function storeCopy(document: JobDocument) {
    const { newId } = await import('#core/job/document.ts');
    const name = `${document.job.name} (copy)`.slice(0, 80);
    await store({ ...document, job: { ...document.job, id: newId('job'), name } });
  }

  function start(event: SubmitEvent) {
    event.preventDefault();
    nameProblem = name.trim() === '' ? 'expected a name, such as the street and number' : '';
    if (nameProblem === '')
      void attempt('Starting', async () => {
        const { newJob } = await import('#core/job/document.ts');
        await store(newJob(name.trim().slice(0, 80), edition));
      });
  }

  const when = (at: number) =>
    new Date(at).toLocaleDateString(undefined, { day: 'numeric', month: 'short', year: 'numeric' });
</script>

<svelte:head><title>Jobs · Hekto</title></svelte:head>
<svelte:window
  ondragover={(e) => {
    e.preventDefault();
    dropping = true;
  }}
  ondragleave={() => (dropping = false)}
  ondrop={(e) => {
    e.preventDefault();
    dropping = false;
    void openFile(e.dataTransfer?.files[0]);
  }}
/>

<header>
  <svg viewBox="0 0 64 40" aria-hidden="true"
    ><path d="M4 28h18V12h20v16h18" fill="none" stroke="var(--copper)" stroke-width="5" /><circle
      cx="22"
      cy="12"
      r="5"
      fill="var(--cover-ink)"
    /><circle cx="42" cy="28" r="5" fill="var(--cover-ink)" /></svg
  >
  <div>
    <p class="name">Hekto</p>
    <p class="line">Plan the circuits, prove the work, find the fault. All of it on this device.</p>
  </div>
  <LightSwitch />
</header>

<main class:dropping>
  <h1 class="sr-only">Jobs</h1>
  {#if problems.length > 0}
    <div class="sheet said" role="alert">
      <h2>Not done; nothing was changed</h2>
      <ul>
        {#each problems.slice(0, 8) as problem (problem.path + problem.message)}
          <li><span class="path">{problem.path}</span> {problem.message}</li>
        {/each}
        {#if problems.length > 8}<li>and {problems.length - 8} more</li>{/if}
      </ul>
    </div>
  {/if}
  {#if clash}
    <div class="sheet said" role="alertdialog" aria-label="This job is here already">
      <h2>“{clash.job.name}” is here already</h2>
      <p>The file holds the same job. Keep both, or put the file in the place of what is here?</p>
      <div class="row">
        <Act kind="main" onclick={() => attempt('Storing', () => storeCopy(clash!))}>Keep both</Act>
        <Act kind="danger" onclick={() => attempt('Storing', () => store(clash!))}>Replace what is here</Act>
        <Act onclick={() => (clash = null)}>Leave it</Act>
      </div>
    </div>
  {/if}

  {#if jobs === null || jobs.length > 0}
    <section class="sheet list" aria-busy={jobs === null}>
      <h2>On this device</h2>
      {#if jobs === null}
        <p class="quiet">Looking…</p>
      {:else}
        <ul>
          {#each jobs as job (job.id)}
            {@const place = lastPlace(job.id)}
            <li>
              <a href={place.path}
                ><strong>{job.name}</strong><span class="quiet"
                  >{[job.address, `go on in ${place.phase}`].filter(Boolean).join(' · ')}</span
                ></a
              >
              <span class="todo">
                {#if job.todo}
                  {#if job.todo.violations > 0}<span class="bad">✕ {job.todo.violations} to mend</span>{/if}
                  {#if job.todo.unjudged > 0}<span class="unknown">? {job.todo.unjudged} not judged</span
                    >{/if}
                  {#if job.todo.violations + job.todo.unjudged === 0}<span class="good"
                      >✓ nothing to mend</span
                    >{/if}
                {/if}
              </span>
              <span class="quiet">NEC {job.edition}, {when(job.updatedAt)}</span>
              <Act
                kind="danger"
                label="Delete {job.name}"
                onclick={() =>
                  attempt('Deleting', async () => {
                    await throwAway(job.id);
                    thrown = job;
                  })}>Delete</Act
              >
            </li>
          {/each}
        </ul>
      {/if}
    </section>
  {/if}

  <div class="ways">
    <section class="sheet">
      <h2>New job</h2>
      <form onsubmit={start} novalidate>
        <label for="new-name">What do you call it?</label>
        <input
          id="new-name"
          bind:value={name}
          maxlength="80"
          placeholder="Street and number"
          aria-invalid={nameProblem !== ''}
          aria-describedby={nameProblem ? 'new-name-say' : undefined}
        />
        {#if nameProblem}<p id="new-name-say" class="wrong">{nameProblem}</p>{/if}
        <Choice
          label="Which edition is adopted there?"
          value={edition}
          options={EDITIONS.map((e) => ({ value: e, name: `NEC ${e}` }))}
          set={(e) => (edition = e)}
        />
        <Act kind="main" type="submit" big>Start the job</Act>
      </form>
    </section>
    <section class="sheet">
      <h2>Look around first</h2>
      <p>
        A split-level house of 1956: a studio being wired new, an old two-wire bedroom with real faults hiding
        in its readings.
      </p>
      <Act kind="main" big onclick={openDemo}>Open the demo job</Act>
    </section>
    <section class="sheet">
      <h2>Bring a file</h2>
      <p>A job file (<code>.json</code>) from this or another device. Drop it anywhere here, or pick it.</p>
      <input
        bind:this={fileInput}
        type="file"
        accept=".json,application/json"
        class="sr-only"
        tabindex="-1"
        aria-label="Job file"
        onchange={(e) => {
          const [file] = e.currentTarget.files ?? [];
          e.currentTarget.value = '';
          void openFile(file);
        }}
      />
      <Act big onclick={() => fileInput?.click()}>Open a file</Act>
    </section>
  </div>

  {#if jobs?.length === 0}
    <p class="quiet">No jobs yet. Start one, open the demo, or bring a file.</p>
  {/if}
  <p class="quiet foot">
    Jobs stay in this browser and in files you export. The adopted local code and the authority having
    jurisdiction decide; this is a tool for licensed practice, not a substitute for it. <kbd>?</kbd> lists the
    keys.
    <a href="/license.txt" data-sveltekit-reload>License</a>,
    <a href="/third-party-notices.txt" data-sveltekit-reload>what it is built with</a>.
  </p>
</main>

<div class="toasts" aria-live="polite">
  {#if busy}
    <p class="toast">
      {busy}…
      {#if reading}<Act onclick={() => reading?.abort()}>Stop</Act>{/if}
    </p>
  {/if}
  {#if thrown}
    <p class="toast">
      Deleted “{thrown.name}”.
      <Act
        onclick={() => {
          const job = thrown;
          thrown = null;
          if (job) void attempt('Putting back', () => putBack(job.id));
        }}>Undo</Act
      >
    </p>
  {/if}
</div>

<style>
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.75rem 1.25rem;
    padding: 1rem clamp(1rem, 4vw, 3rem);
    background: var(--cover);
    color: var(--cover-ink);
    border-bottom: 5px solid var(--copper);
  }
  header svg {
    width: 5rem;
  }
  header > div {
    flex: 1 1 14rem;
  }
  .name {
    font-size: 2rem;
    font-weight: 800;
    line-height: 1;
  }
  .line {
    color: var(--cover-quiet);
  }
  main {
    max-width: 76rem;
    margin: 0 auto;
    padding: 1.25rem clamp(0.75rem, 3vw, 2rem);
    display: grid;
    gap: 1.25rem;
  }
  main.dropping {
    outline: 4px dashed var(--accent);
    outline-offset: -8px;
  }
  .ways {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(17rem, 1fr));
    gap: 1.25rem;
  }
  section,
  .said {
    padding: 1rem 1.25rem 1.25rem;
  }
  .ways section {
    display: grid;
    align-content: start;
    gap: 0.75rem;
  }
  form {
    display: grid;
    gap: 0.6rem;
  }
  label {
    font-weight: 600;
    font-size: 0.875rem;
  }
  form input {
    border: 1px solid var(--edge);
    background: var(--sheet);
    padding: 0.4rem 0.5rem;
  }
  .wrong {
    color: var(--bad);
    font-weight: 600;
  }
  .said {
    border-top-color: var(--bad);
  }
  .said li {
    padding: 0.15rem 0;
  }
  .path {
    font-family: var(--font-mono);
    font-weight: 600;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    margin-top: 0.75rem;
  }
  .list li {
    display: grid;
    grid-template-columns: 1fr auto auto auto;
    gap: 1.25rem;
    align-items: center;
    padding: 0.5rem 0;
    border-bottom: 1px solid var(--rule);
  }
  .todo {
    display: grid;
    justify-items: end;
    font-weight: 650;
  }
  .bad {
    color: var(--bad);
  }
  .unknown {
    color: var(--unknown);
  }
  .good {
    color: var(--good);
  }
  .list a {
    display: grid;
    min-height: 44px;
    align-content: center;
  }
  .list a:hover strong {
    text-decoration: underline;
  }
  .foot {
    font-size: 0.95rem;
    max-width: 60rem;
  }
  .toasts {
    position: fixed;
    right: 1rem;
    bottom: 1rem;
    display: grid;
    gap: 0.5rem;
  }
  .toast {
    display: flex;
    align-items: center;
    gap: 1rem;
    padding: 0.6rem 1rem;
    background: var(--cover);
    color: var(--cover-ink);
    border-left: 5px solid var(--copper);
  }
  @media (max-width: 600px) {
    .list li {
      grid-template-columns: 1fr auto;
      gap: 0.25rem 1rem;
    }
  }
</style>
