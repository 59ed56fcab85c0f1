<script lang="ts">
  import type { Snippet } from 'svelte';

  let { title, children }: { title: string; children: Snippet } = $props();
</script>

<!-- A wide table scrolls by keys too. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<section tabindex="0" aria-label={title}>
  <h2>{title}</h2>
  {@render children()}
</section>

<style>
  section {
    overflow-x: auto;
  }
  h2 {
    margin-bottom: 0.4rem;
    break-after: avoid;
  }
  section :global(li) {
    break-inside: avoid;
  }
  @media print {
    section {
      overflow: visible;
      margin-bottom: 1rem;
    }
  }
</style>
