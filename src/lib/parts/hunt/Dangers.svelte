<script lang="ts">
  import type { Calling } from '../../calling.svelte.ts';
  import { useHunting } from '../../hunting.svelte.ts';

  /** What has to be off first: what was measured or told at once, then what is likely. */
  let { calling }: { calling: Calling } = $props();
  const hunting = useHunting();
  const likely = $derived(
    (hunting.advised?.warnings ?? []).filter(
      (w) => w.share < 1 && !calling.dangers.some((d) => d.danger === w.danger),
    ),
  );
</script>

{#if calling.dangers.length + likely.length > 0}
  <div role="alert">
    {#each [...calling.dangers, ...likely] as w (w.text)}
      <p>{w.text}</p>
    {/each}
  </div>
{/if}

<style>
  div {
    display: grid;
    gap: 0.4rem;
  }
  p {
    padding: 0.5rem 0.8rem;
    background: var(--sheet);
    border: 2px solid var(--bad);
    border-left-width: 10px;
    font-weight: 700;
  }
</style>
