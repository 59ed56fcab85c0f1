<script lang="ts">
  import type { Problem } from '#core/job/integrity.ts';

  /** Field by field what was refused and what is expected there. */
  let { title, problems }: { title: string; problems: readonly Problem[] } = $props();
  const SHOWN = 8;
</script>

{#if problems.length > 0}
  <div class="refused sheet no-print" role="alert">
    <h2>{title}</h2>
    <ul>
      {#each problems.slice(0, SHOWN) as problem (problem.path + problem.message)}
        <li><code>{problem.path}</code> {problem.message}</li>
      {/each}
      {#if problems.length > SHOWN}<li>and {problems.length - SHOWN} more</li>{/if}
    </ul>
  </div>
{/if}

<style>
  .refused {
    padding: 0.6rem 1rem;
    border-left: 6px solid var(--bad);
  }
  li {
    padding: 0.15rem 0;
  }
  code {
    font-weight: 600;
  }
</style>
