<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    /** Height kept free until it is drawn, pixels. */
    height: number;
    children: Snippet;
  }
  let { height, children }: Props = $props();

  /** This far before it comes into view it is drawn. */
  const AHEAD = '250px';
  let shown = $state(false);
  function watch(place: HTMLElement) {
    const observer = new IntersectionObserver(
      ([entry]) => {
        if (!entry?.isIntersecting) return;
        shown = true;
        observer.disconnect();
      },
      { rootMargin: AHEAD },
    );
    observer.observe(place);
    return () => observer.disconnect();
  }
</script>

{#if shown}
  {@render children()}
{:else}
  <div style:height="{height}px" {@attach watch}></div>
{/if}
