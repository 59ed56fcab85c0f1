<script lang="ts">
  import type { Snippet } from 'svelte';

  let { children }: { children: Snippet } = $props();
</script>

<p>{@render children()}</p>

<style>
  p {
    display: flex;
    align-items: center;
    gap: 1rem;
    padding: 0.6rem 1rem;
    background: var(--cover);
    color: var(--cover-ink);
    border-left: 5px solid var(--copper);
  }
</style>
