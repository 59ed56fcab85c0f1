<script lang="ts">
  import { onDestroy } from 'svelte';
  import encodeQR from 'qr';
  import { Listening } from '$lib/listening.svelte.ts';
  import Act from '$lib/parts/Act.svelte';

  const listening = new Listening();
  onDestroy(listening.stop);
  const picture = $derived(
    listening.spans.length > 0 ? encodeQR(listening.code, 'data-url', { scale: 6, border: 2 }) : '',
  );
</script>

<svelte:head><title>Listen · Hekto</title></svelte:head>

<main>
  <h1>The phone at the outlet</h1>
  {#if listening.state !== 'listening'}
    <ol>
      <li>Something loud in the outlet: a vacuum cleaner, a radio between stations. Running.</li>
      <li>This phone beside it, screen on. Its charger in the same outlet, if it is to hand.</li>
      <li>Let it hear, then press Start on both phones at the same moment.</li>
    </ol>
    {#if listening.problem}<p class="wrong" role="alert">{listening.problem}</p>{/if}
    <Act big kind="main" onclick={listening.begin}>Let it hear</Act>
  {:else if !listening.started}
    <p class="large">It hears. Now both phones in your hands:</p>
    <Act big kind="main" onclick={listening.mark}>Start</Act>
  {:else}
    <p class="large" aria-live="polite">
      {#if !listening.settled}Listening to it running: leave it alone for three seconds.
      {:else if listening.silent}It is silent now
      {:else}It is running{/if}
    </p>
    <meter min="0" max="0.5" value={listening.level} aria-label="Loudness">{listening.level}</meter>
    <p>{listening.spans.length} {listening.spans.length === 1 ? 'stop' : 'stops'} heard</p>
  {/if}
  {#if listening.spans.length > 0}
    <section>
      <h2>Code for the other phone</h2>
      <p class="code">{listening.code}</p>
      <img src={picture} alt="The same code, to be scanned" />
      <p class="quiet">Typed or scanned there; it holds what was heard, nothing else.</p>
    </section>
  {/if}
  {#if listening.state === 'listening'}<Act big onclick={listening.stop}>Stop listening</Act>{/if}
  <Act href="/">Jobs</Act>
</main>

<style>
  main {
    max-width: 32rem;
    margin: 0 auto;
    padding: 1rem;
    display: grid;
    gap: 0.9rem;
  }
  li {
    padding: 0.4rem 0;
    font-size: 1.1rem;
  }
  ol {
    list-style: decimal;
    padding-left: 1.4rem;
  }
  .large {
    font-size: 1.5rem;
    font-weight: 750;
    line-height: 1.2;
  }
  meter {
    width: 100%;
    height: 1.5rem;
  }
  section {
    display: grid;
    gap: 0.5rem;
    justify-items: start;
    border: 3px solid var(--ink);
    padding: 0.75rem;
    background: var(--sheet);
  }
  .code {
    font-family: var(--font-mono);
    font-size: 1.6rem;
    font-weight: 700;
    overflow-wrap: anywhere;
    line-height: 1.2;
  }
  main :global(button) {
    min-height: 60px;
  }
</style>
