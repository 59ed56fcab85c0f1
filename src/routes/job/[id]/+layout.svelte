<script lang="ts">
  import { onMount, type Snippet } from 'svelte';
  import { RedoOutline, SearchOutline, UndoOutline } from 'flowbite-svelte-icons';
  import { tinykeys } from 'tinykeys';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { circuitsInOrder, rows } from '#core/job/document.ts';
  import { EDITIONS } from '#core/job/schema.ts';
  import { actions } from '$lib/actions.svelte.ts';
  import { address, type Things } from '$lib/address.svelte.ts';
  import { downloadJob } from '$lib/files.ts';
  import { isTyping } from '$lib/keys.ts';
  import { rememberPlace } from '$lib/lastPlace.ts';
  import { PHASES } from '$lib/phases.ts';
  import Act from '$lib/parts/Act.svelte';
  import LightSwitch from '$lib/parts/LightSwitch.svelte';
  import PhaseRun from '$lib/parts/PhaseRun.svelte';
  import { JobSession, provideSession } from '$lib/store/session.svelte.ts';

  let { children }: { children: Snippet } = $props();

  const jobId = $derived(page.params.id ?? '');
  const session = $derived(new JobSession(jobId));
  provideSession(() => session);

  $effect(() => {
    const opened = session;
    void opened.open();
    return () => opened.close();
  });

  $effect(() => rememberPlace(jobId, page.url.pathname + page.url.search));

  const phase = $derived(page.url.pathname.split('/')[3] ?? 'walk');
  const phaseName = $derived(PHASES.find((p) => p.path === phase)?.name ?? '');
  const go = (path: string) => goto(address.phase(jobId, path));
  /** Shows a thing on the page that is open, if that can; else on the first of those that can. */
  function show(things: Things, pages: readonly [string, ...string[]]) {
    const here = pages.find((p) => page.url.pathname === `/job/${jobId}/${p}`);
    if (here) address.choose(things, { view: null, part: null, breaker: null });
    else void goto(`/job/${jobId}/${pages[0]}?${new URLSearchParams(things)}`);
  }

  onMount(() => {
    const release = actions.offer(() => [
      ...PHASES.map((p) => ({
        id: `go-${p.path}`,
        name: p.name,
        hint: 'Go to',
        words: p.words,
        run: () => go(p.path),
      })),
      ...(session.undoLabel
        ? [{ id: 'undo', name: `Undo: ${session.undoLabel}`, hint: 'Ctrl Z', run: session.undo }]
        : []),
      ...(session.redoLabel
        ? [{ id: 'redo', name: `Redo: ${session.redoLabel}`, hint: 'Ctrl Shift Z', run: session.redo }]
        : []),
      ...(session.status === 'ready'
        ? [
            {
              id: 'export',
              name: 'Export the job file',
              hint: 'File',
              words: 'save json backup',
              run: () => downloadJob(session.document),
            },
            ...EDITIONS.map((e) => ({
              id: `edition-${e}`,
              name: `Judge by NEC ${e}`,
              hint: 'Edition',
              words: 'code year switch',
              run: () => session.execute({ type: 'edit-job', values: { edition: e } }),
            })),
            ...rows(session.document.areas).map((a) => ({
              id: a.id,
              name: a.name,
              hint: 'Room',
              words: a.kind,
              run: () => show({ area: a.id }, ['layout', 'walk']),
            })),
            ...rows(session.document.boxes).map((b) => ({
              id: b.id,
              name: b.name,
              hint: session.document.areas[b.areaId]?.name ?? 'Outlet',
              words: `${b.note} receptacle outlet`,
              run: () =>
                show(
                  { box: b.id },
                  session.view.circuitOf(b.id) ? ['layout', 'walk', 'runs', 'prove'] : ['layout', 'walk'],
                ),
            })),
            ...circuitsInOrder(session.document).map((c) => ({
              id: c.id,
              name: c.name,
              hint: `Circuit, space ${c.space}`,
              words: 'breaker run',
              run: () => show({ circuit: c.id }, ['runs', 'panel', 'prove']),
            })),
          ]
        : []),
    ]);
    const keys = tinykeys(window, {
      '$mod+z': (e) => {
        if (isTyping(e)) return;
        e.preventDefault();
        void session.undo();
      },
      '$mod+Shift+Z': (e) => {
        if (isTyping(e)) return;
        e.preventDefault();
        void session.redo();
      },
      ...Object.fromEntries(
        PHASES.map((p, i) => [
          `Alt+Digit${i + 1}`,
          (e: KeyboardEvent) => {
            e.preventDefault();
            void go(p.path);
          },
        ]),
      ),
    });
    return () => {
      release();
      keys();
    };
  });
</script>

<svelte:head>
  <title>{phaseName} · {session.status === 'ready' ? session.document.job.name : 'Job'} · Hekto</title>
</svelte:head>

<svelte:window
  onbeforeunload={(e) => {
    if (session.unsaved || session.storageFull) e.preventDefault();
  }}
/>

<div class="shell">
  <header class="no-print">
    <a class="home" href="/" aria-label="All jobs">
      <svg viewBox="0 0 64 40" aria-hidden="true"
        ><path d="M4 28h18V12h20v16h18" fill="none" stroke="var(--copper)" stroke-width="6" /><circle
          cx="22"
          cy="12"
          r="6"
          fill="var(--cover-ink)"
        /><circle cx="42" cy="28" r="6" fill="var(--cover-ink)" /></svg
      >
    </a>
    <p class="job">
      {#if session.status === 'ready' || session.status === 'deleted'}
        <strong>{session.document.job.name}</strong>
        <span
          >NEC {session.document.job.edition}{#if session.unsaved}<span data-unsaved>&nbsp;· saving</span
            >{/if}</span
        >
      {/if}
    </p>
    <PhaseRun {jobId} current={phase} />
    <div class="tools">
      <button
        type="button"
        disabled={!session.undoLabel}
        onclick={session.undo}
        aria-label={session.undoLabel ? `Undo: ${session.undoLabel}` : 'Nothing to undo'}
      >
        <UndoOutline class="inline h-5 w-5" aria-hidden="true" /><span class="what"
          >{session.undoLabel ?? 'Undo'}</span
        >
      </button>
      <button
        type="button"
        disabled={!session.redoLabel}
        onclick={session.redo}
        aria-label={session.redoLabel ? `Redo: ${session.redoLabel}` : 'Nothing to redo'}
      >
        <RedoOutline class="inline h-5 w-5" aria-hidden="true" />
      </button>
      <button
        type="button"
        onclick={() => window.dispatchEvent(new Event('hekto-palette'))}
        aria-label="Find Ctrl K"
      >
        <SearchOutline class="inline h-5 w-5" aria-hidden="true" /> <span class="what">Find</span>
        <kbd>Ctrl K</kbd>
      </button>
      <span class="light"><LightSwitch /></span>
    </div>
  </header>

  {#if session.problems.length > 0}
    <div class="bar bad" role="alert">
      <div>
        {#each session.problems.slice(0, 4) as problem (problem.path + problem.message)}
          <p><span class="path">{problem.path}</span> {problem.message}</p>
        {/each}
      </div>
      <Act onclick={() => (session.problems = [])}>Close</Act>
    </div>
  {/if}
  {#if session.storageFull}
    <div class="bar bad" role="alert">
      <p>
        <strong>This device’s storage is full.</strong> Your last change is on the screen but not stored. Export
        the job now, then free some room.
      </p>
      <Act kind="main" onclick={() => downloadJob(session.document)}>Export the job</Act>
    </div>
  {/if}
  {#if session.failure}
    <div class="bar bad" role="alert">
      <p>{session.failure}</p>
      <Act onclick={() => (session.failure = '')}>Close</Act>
    </div>
  {/if}

  {#if session.status === 'loading'}
    <main class="state"><p aria-live="polite">Opening the job…</p></main>
  {:else if session.status === 'failed'}
    <main class="state">
      <h1>This browser keeps nothing for Hekto</h1>
      <p>
        Its storage could not be opened: {session.failure}. A private window, blocked site data or a full disk
        does this. Nothing was deleted.
      </p>
      <p>
        Allow site data for this address, or open it in an ordinary window, then reload. Until then job files
        can be checked with the command line, and what another tab has open can be exported there.
      </p>
      <Act kind="main" big onclick={() => location.reload()}>Try again</Act>
    </main>
  {:else if session.status === 'missing'}
    <main class="state">
      <h1>This job is not on this device</h1>
      <p>
        It may have been deleted here, or the address came from another device. Job files travel; addresses do
        not.
      </p>
      <Act kind="main" big href="/">All jobs</Act>
    </main>
  {:else if session.status === 'deleted'}
    <main class="state">
      <h1>This job was deleted in another tab</h1>
      <p>
        What you had here is still in memory. Put it back as it stands on this screen, or export it first.
      </p>
      <div class="row">
        <Act kind="main" big onclick={() => session.putBack()}>Put it back</Act>
        <Act big onclick={() => downloadJob(session.document)}>Export</Act>
        <Act big href="/">All jobs</Act>
      </div>
    </main>
  {:else if session.status === 'replaced'}
    <main class="state">
      <h1>A file took this job’s place</h1>
      <p>
        In another tab a job file was opened in place of this job. What this tab holds is a copy of the job
        before it; nothing typed here goes into the new one.
      </p>
      <div class="row">
        <Act kind="main" big onclick={() => session.reload()}>Show the job as it is now</Act>
        <Act big onclick={() => downloadJob(session.document)}>Save my copy as a file</Act>
        <Act big href="/">All jobs</Act>
      </div>
    </main>
  {:else}
    {@render children()}
  {/if}
</div>

<style>
  .shell {
    display: flex;
    flex-direction: column;
    min-height: 100dvh;
  }
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.25rem 1rem;
    padding: 0.4rem 1rem 0;
    background: var(--cover);
    color: var(--cover-ink);
  }
  .home svg {
    width: 3.4rem;
  }
  .home {
    display: grid;
    min-height: 44px;
    align-content: center;
  }
  .home:focus-visible,
  button:focus-visible {
    outline-color: var(--copper);
  }
  .job {
    display: grid;
    line-height: 1.2;
    flex: 0 1 auto;
    min-width: 0;
  }
  .job strong {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    max-width: 15rem;
  }
  .job span {
    color: var(--cover-quiet);
    font-size: 0.9rem;
  }
  header :global(nav.phases) {
    flex: 0 1 auto;
    margin: 0 auto;
  }
  .tools {
    display: flex;
    gap: 0.4rem;
    align-items: center;
  }
  .tools button {
    display: inline-flex;
    align-items: center;
    gap: 0.35rem;
    min-height: 36px;
    min-width: 36px;
    padding: 0 0.6rem;
    border: 1px solid var(--cover-quiet);
    border-radius: 3px;
    color: var(--cover-ink);
    font-size: 0.9rem;
  }
  .tools button:disabled {
    color: var(--cover-quiet);
    border-style: dashed;
  }
  .what {
    display: inline-block;
    max-width: 9rem;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    vertical-align: bottom;
  }
  .bar {
    display: flex;
    gap: 1rem;
    align-items: center;
    justify-content: space-between;
    padding: 0.6rem 1rem;
    background: var(--sheet);
    border-left: 8px solid var(--bad);
    border-bottom: 1px solid var(--edge);
  }
  .path {
    font-family: var(--font-mono);
    font-weight: 600;
  }
  .state {
    margin: 4rem auto;
    max-width: 38rem;
    padding: 0 1rem;
    display: grid;
    gap: 1rem;
    justify-items: start;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
  }
  @media (max-width: 760px) {
    header {
      padding: 0.25rem 0.5rem 0;
      gap: 0 0.5rem;
    }
    .job {
      flex: 1;
    }
    header :global(nav.phases) {
      order: 5;
      flex: 1 0 100%;
    }
    .tools kbd,
    .light,
    .tools .what {
      display: none;
    }
    .tools button {
      justify-content: center;
      min-width: 44px;
      min-height: 44px;
    }
    .home svg {
      width: 2.4rem;
    }
  }
</style>
