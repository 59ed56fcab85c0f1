<script lang="ts">
  import { downloadJob } from '$lib/files.ts';
  import { useSession } from '$lib/store/session.svelte.ts';
  import Act from '../Act.svelte';

  const session = useSession();
</script>

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
      <strong>This device’s storage is full.</strong> Your last change is on the screen but not stored. Export the
      job now, then free some room.
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

<style>
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
</style>
