<script lang="ts">
  import type { Snippet } from 'svelte';

  let { title, children }: { title: string; children?: Snippet } = $props();
</script>

<div class="empty">
  <p><strong>{title}</strong></p>
  {@render children?.()}
</div>

<style>
  .empty {
    display: grid;
    gap: 0.25rem;
    place-content: center;
    height: 100%;
    justify-items: center;
    padding: 2.5rem 1rem;
    text-align: center;
  }
</style>
