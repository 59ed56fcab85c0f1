<script lang="ts">
  import type { Option } from '#core/procedures/step.ts';
  import Act from '../Act.svelte';

  /** The keys at the thumb that end a step; the first is the main one. */
  let { exits, take }: { exits: readonly Option[]; take: (value: string) => unknown } = $props();
</script>

<div class="exits">
  {#each exits as exit, i (exit.value)}
    <Act big kind={i === 0 ? 'main' : 'plain'} onclick={() => take(exit.value)}>{exit.name}</Act>
  {/each}
</div>

<style>
  .exits {
    position: sticky;
    bottom: 0;
    display: grid;
    gap: 0.5rem;
    padding: 0.6rem 0;
    background: var(--sheet);
  }
  .exits :global(button) {
    min-height: 60px;
    font-size: 1.2rem;
  }
</style>
