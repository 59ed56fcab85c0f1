<script lang="ts">
  import { rows } from '#core/job/document.ts';
  import type { JobDocument } from '#core/job/schema.ts';

  let {
    document,
    levelId,
    choose,
  }: { document: JobDocument; levelId: string; choose: (id: string) => void } = $props();
  const levels = $derived(rows(document.levels).sort((a, b) => b.elevation - a.elevation));
</script>

<div class="levels" role="group" aria-label="Level">
  {#each levels as level (level.id)}
    <button type="button" aria-pressed={level.id === levelId} onclick={() => choose(level.id)}
      >{level.name}</button
    >
  {/each}
</div>

<style>
  .levels {
    display: inline-flex;
    flex-wrap: wrap;
  }
  button {
    min-height: 40px;
    padding: 0 0.9rem;
    border: 1px solid var(--edge);
    background: var(--sheet);
    font-weight: 600;
    margin-right: -1px;
  }
  button[aria-pressed='true'] {
    background: var(--ink);
    color: var(--sheet);
  }
</style>
