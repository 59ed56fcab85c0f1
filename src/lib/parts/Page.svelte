<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    children: Snippet;
    /** `wide` fills the window; `sheet` is one sheet in its middle; `paper` has the width of what is printed. */
    kind?: 'wide' | 'sheet' | 'paper';
  }
  let { children, kind = 'wide' }: Props = $props();
</script>

<main class={kind}>{@render children()}</main>

<style>
  main {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    align-content: start;
    gap: 0.75rem;
    padding: 0.75rem;
    width: 100%;
    flex: 1;
  }
  .sheet {
    max-width: 76rem;
    margin: 0 auto;
  }
  .paper {
    max-width: 64rem;
    margin: 0 auto;
  }
  @media (max-width: 900px) {
    main {
      padding: 0.5rem;
    }
  }
  @media print {
    main {
      display: block;
      padding: 0;
    }
  }
</style>
