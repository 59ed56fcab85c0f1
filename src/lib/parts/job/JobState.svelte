<script lang="ts">
  import type { Snippet } from 'svelte';
  import { downloadAside, downloadJob } from '$lib/files.ts';
  import { useSession } from '$lib/store/session.svelte.ts';
  import Act from '../Act.svelte';

  /** The job's page when the job is open; else what became of the job, and what to do. */
  let { children }: { children: Snippet } = $props();
  const session = useSession();
</script>

{#if session.status === 'loading'}
  <main><p aria-live="polite">Opening the job…</p></main>
{:else if session.status === 'failed'}
  <main>
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
  <main>
    <h1>This job is not on this device</h1>
    <p>
      It may have been deleted here, or the address came from another device. Job files travel; addresses do
      not.
    </p>
    <Act kind="main" big href="/">All jobs</Act>
  </main>
{:else if session.status === 'deleted'}
  <main>
    <h1>This job was deleted in another tab</h1>
    <p>What you had here is still in memory. Put it back as it stands on this screen, or export it first.</p>
    <div class="row">
      <Act kind="main" big onclick={() => session.putBack()}>Put it back</Act>
      <Act big onclick={() => downloadJob(session.document)}>Export</Act>
      <Act big href="/">All jobs</Act>
    </div>
  </main>
{:else if session.status === 'replaced'}
  <main>
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
{:else if session.status === 'outdated'}
  <main>
    <h1>A newer Hekto has this job</h1>
    <p>
      Another tab was opened with a newer build, and brought the job to its form. This one writes nothing
      more. Reload to go on with the newer one{session.held
        ? '; what you typed last is not stored, and goes out as a file first'
        : ''}.
    </p>
    <div class="row">
      <Act kind="main" big onclick={() => location.reload()}>Reload</Act>
      {#if session.held}<Act big onclick={() => downloadJob(session.document)}>Save my copy as a file</Act
        >{/if}
      <Act big href="/">All jobs</Act>
    </div>
  </main>
{:else if session.status === 'aside'}
  <main>
    <h1>This job could not be brought up to date</h1>
    <p>
      It is kept as it was, and nothing of it was changed: {session.failure}. Save it as a file; a later Hekto
      may read it.
    </p>
    <div class="row">
      <Act kind="main" big onclick={() => downloadAside(session.jobId)}>Save it as a file</Act>
      <Act big href="/">All jobs</Act>
    </div>
  </main>
{:else}
  {@render children()}
{/if}

<style>
  main {
    margin: 4rem auto;
    max-width: 38rem;
    padding: 0 1rem;
    display: grid;
    gap: 1rem;
    justify-items: start;
  }
</style>
