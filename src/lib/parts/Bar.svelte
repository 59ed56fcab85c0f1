<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    title: string;
    /** What is said beside the title, such as a count. */
    beside?: string;
    children: Snippet;
  }
  let { title, beside = '', children }: Props = $props();
</script>

<div class="bar">
  <h1>{title}</h1>
  <span class="quiet" role="status">{beside}</span>
  {@render children()}
</div>

<style>
  .bar {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.5rem 1rem;
  }
  .bar > span:first-of-type {
    flex: 1;
  }
</style>
