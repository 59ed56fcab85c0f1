<script lang="ts">
  import { onMount } from 'svelte';
  import { openDemoJob } from '$lib/demo.ts';

  let failure = $state('');
  onMount(() => {
    openDemoJob().catch((error) => (failure = String(error)));
  });
</script>

<main>
  {#if failure}
    <h1>The demo did not open</h1>
    <p role="alert">{failure}</p>
    <p><a href="/">All jobs</a></p>
  {:else}
    <p role="status">Opening the demo job…</p>
  {/if}
</main>

<style>
  main {
    max-width: 38rem;
    margin: 4rem auto;
    padding: 0 1rem;
  }
  a {
    text-decoration: underline;
  }
</style>
