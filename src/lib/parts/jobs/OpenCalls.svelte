<script lang="ts">
  import { lastPlace } from '$lib/lastPlace.ts';
  import type { JobRow } from '$lib/store/db.ts';
  import Act from '../Act.svelte';

  let { calls, remove }: { calls: JobRow[]; remove: (job: JobRow) => unknown } = $props();
  const open = $derived(calls.filter((j) => j.standing?.open !== false));
  const over = $derived(calls.filter((j) => j.standing?.open === false));
</script>

{#snippet line(job: JobRow)}
  <li>
    <a href={lastPlace(job.id, 'call').path}>
      <strong>{job.name}</strong>
      <span>{job.standing?.title ?? 'Call'}: {job.standing?.next ?? 'open it'}</span>
    </a>
    <Act kind="danger" label="Delete {job.name}" onclick={() => remove(job)}>Delete</Act>
  </li>
{/snippet}

<section class="sheet pad list">
  <h2>Open calls ({open.length})</h2>
  <ul>
    {#each open as job (job.id)}{@render line(job)}{/each}
  </ul>
  {#if over.length > 0}
    <details>
      <summary>Finished ({over.length})</summary>
      <ul>
        {#each over as job (job.id)}{@render line(job)}{/each}
      </ul>
    </details>
  {/if}
</section>

<style>
  li {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 1rem;
    align-items: center;
    border-bottom: 1px solid var(--rule);
  }
  a {
    display: grid;
    align-content: center;
    min-height: 56px;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  a span {
    color: var(--quiet);
  }
</style>
