<script lang="ts">
  import { liveQuery } from 'dexie';
  import { onMount } from 'svelte';
  import { actions } from '$lib/actions.svelte.ts';
  import Act from '$lib/parts/Act.svelte';
  import Refused from '$lib/parts/Refused.svelte';
  import Toast from '$lib/parts/Toast.svelte';
  import Cover from '$lib/parts/jobs/Cover.svelte';
  import OpenCalls from '$lib/parts/jobs/OpenCalls.svelte';
  import StartCall from '$lib/parts/jobs/StartCall.svelte';
  import NewJob from '$lib/parts/jobs/NewJob.svelte';
  import StoredJobs from '$lib/parts/jobs/StoredJobs.svelte';
  import { clearOut, listJobs } from '$lib/store/list.ts';
  import { JobList } from './joblist.svelte.ts';

  const list = new JobList();
  const calls = $derived((list.jobs ?? []).filter((j) => j.entry === 'call'));
  const projects = $derived((list.jobs ?? []).filter((j) => j.entry !== 'call'));
  let fileInput = $state<HTMLInputElement>();
  let dropping = $state(false);
  const pick = () => fileInput?.click();
  const take = (file: File | undefined) => file && list.openFile(file);

  onMount(() => {
    void clearOut();
    const watch = liveQuery(listJobs).subscribe({ next: (rows) => (list.jobs = rows), error: list.refuse });
    const release = actions.offer(() => [
      { id: 'demo', name: 'Open the demo job', hint: 'Jobs', words: 'example sample', run: list.openDemo },
      { id: 'open-file', name: 'Open a job file', hint: 'Jobs', words: 'import load', run: pick },
    ]);
    return () => {
      watch.unsubscribe();
      release();
    };
  });
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
    void take(e.dataTransfer?.files[0]);
  }}
/>

<Cover />

<main class:dropping>
  <h1 class="sr-only">Jobs</h1>
  <Refused title="Not done; nothing was changed" problems={list.problems} />
  {#if list.clash}
    {@const { clash } = list}
    <div class="sheet pad stack" role="alertdialog" aria-label="This job is here already">
      <h2>“{clash.job.name}” is here already</h2>
      <p>
        The file holds the same job. Bring in what was measured and done there (rooms, circuits and settings
        stay as they are here), keep both, or put the file in the place of what is here?
      </p>
      <div class="row">
        <Act kind="main" onclick={() => list.bringIn(clash)}>Bring in what was measured</Act>
        <Act onclick={() => list.keepBoth(clash)}>Keep both</Act>
        <Act kind="danger" onclick={() => list.replace(clash)}>Replace what is here</Act>
        <Act onclick={() => (list.clash = null)}>Leave it</Act>
      </div>
    </div>
  {/if}

  <StartCall start={list.startCall} />
  {#if calls.length > 0}<OpenCalls {calls} remove={list.remove} />{/if}

  {#if list.jobs === null || projects.length > 0}
    <StoredJobs jobs={list.jobs && projects} remove={list.remove} />
  {/if}

  <div class="ways">
    <NewJob start={list.start} />
    <section class="sheet">
      <h2>Look around first</h2>
      <p>
        A split-level house of 1956: a studio being wired new, an old two-wire bedroom with real faults hiding
        in its readings.
      </p>
      <Act kind="main" big onclick={list.openDemo}>Open the demo job</Act>
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
          void take(file);
        }}
      />
      <Act big onclick={pick}>Open a file</Act>
    </section>
  </div>

  {#if list.jobs?.length === 0}
    <p class="quiet">No jobs yet: begin with what is the matter, open the demo, or bring a file.</p>
  {/if}
  <p class="quiet small foot">
    Jobs stay in this browser and in files you export. The adopted local code and the authority having
    jurisdiction decide; this is a tool for licensed practice, not a substitute for it. <kbd>?</kbd> lists the
    keys.
    <a href="/license.txt" data-sveltekit-reload>License</a>,
    <a href="/third-party-notices.txt" data-sveltekit-reload>what it is built with</a>.
  </p>
</main>

<div class="toasts" aria-live="polite">
  {#if list.busy}
    <Toast>
      {list.busy}…
      {#if list.reading}<Act onclick={() => list.reading?.abort()}>Stop</Act>{/if}
    </Toast>
  {/if}
  {#if list.thrown}
    {@const { thrown } = list}
    <Toast>Deleted “{thrown.name}”. <Act onclick={() => list.restore(thrown)}>Undo</Act></Toast>
  {/if}
</div>

<style>
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
  .ways > :global(section) {
    display: grid;
    align-content: start;
    gap: 0.75rem;
    padding: 1rem 1.25rem 1.25rem;
  }
  .foot {
    max-width: 60rem;
  }
  .toasts {
    position: fixed;
    right: 1rem;
    bottom: 1rem;
    display: grid;
    gap: 0.5rem;
  }
</style>
