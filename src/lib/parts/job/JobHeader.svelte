<script lang="ts">
  import RedoOutline from 'flowbite-svelte-icons/RedoOutline.svelte';
  import SearchOutline from 'flowbite-svelte-icons/SearchOutline.svelte';
  import UndoOutline from 'flowbite-svelte-icons/UndoOutline.svelte';
  import { useSession } from '$lib/store/session.svelte.ts';
  import LightSwitch from '../LightSwitch.svelte';
  import Mark from '../Mark.svelte';
  import CallNav from '../call/CallNav.svelte';
  import PhaseRun from '../PhaseRun.svelte';

  let { phase }: { phase: string } = $props();
  const session = useSession();
  const ready = $derived(session.status === 'ready');
  const isCall = $derived(ready && session.document.job.entry === 'call');
  const hasCalls = $derived(ready && Object.keys(session.document.calls).length > 0);
</script>

<header class="no-print">
  <a class="home" href="/" aria-label="All jobs"><Mark width="clamp(2.4rem, 4.5vw, 3.4rem)" /></a>
  <p class="job">
    {#if session.status === 'ready' || session.status === 'deleted'}
      <strong>{session.document.job.name}</strong>
      <span
        >NEC {session.document.job.edition}{#if session.unsaved}<span data-unsaved>&nbsp;· saving</span
          >{/if}</span
      >
    {/if}
  </p>
  {#if session.status === 'ready' && (phase === 'call' || (isCall && phase === 'hand-over'))}
    <CallNav jobId={session.jobId} />
  {:else}
    <PhaseRun jobId={session.jobId} current={phase} />
  {/if}
  <div class="tools">
    {#if hasCalls && phase !== 'call'}<a href="/job/{session.jobId}/call">Call</a>{/if}
    <button
      type="button"
      disabled={!session.undoLabel}
      onclick={session.undo}
      aria-label={session.undoLabel ? `Undo: ${session.undoLabel}` : 'Nothing to undo'}
    >
      <UndoOutline class="inline h-5 w-5" aria-hidden="true" /><span class="what"
        >{session.undoLabel ?? 'Undo'}</span
      >
    </button>
    <button
      type="button"
      disabled={!session.redoLabel}
      onclick={session.redo}
      aria-label={session.redoLabel ? `Redo: ${session.redoLabel}` : 'Nothing to redo'}
    >
      <RedoOutline class="inline h-5 w-5" aria-hidden="true" />
    </button>
    <button
      type="button"
      onclick={() => window.dispatchEvent(new Event('hekto-palette'))}
      aria-label="Find Ctrl K"
    >
      <SearchOutline class="inline h-5 w-5" aria-hidden="true" /> <span class="what">Find</span>
      <kbd>Ctrl K</kbd>
    </button>
    <span class="light"><LightSwitch /></span>
  </div>
</header>

<style>
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.25rem 1rem;
    padding: 0.4rem 1rem 0;
    background: var(--cover);
    color: var(--cover-ink);
  }
  .home {
    display: grid;
    min-height: 44px;
    align-content: center;
  }
  .home:focus-visible,
  button:focus-visible {
    outline-color: var(--copper);
  }
  .job {
    display: grid;
    line-height: 1.2;
    flex: 0 1 auto;
    min-width: 0;
  }
  .job strong {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    max-width: 15rem;
  }
  .job span {
    color: var(--cover-quiet);
    font-size: 0.9rem;
  }
  header :global(nav) {
    flex: 0 1 auto;
    margin: 0 auto;
  }
  .tools {
    display: flex;
    gap: 0.4rem;
    align-items: center;
  }
  .tools a {
    display: grid;
    place-items: center;
    min-height: 44px;
    padding: 0 0.75rem;
    border: 1px solid var(--copper);
    font-weight: 700;
  }
  .tools button {
    display: inline-flex;
    align-items: center;
    gap: 0.35rem;
    min-height: 36px;
    min-width: 36px;
    padding: 0 0.6rem;
    border: 1px solid var(--cover-quiet);
    border-radius: 3px;
    color: var(--cover-ink);
    font-size: 0.9rem;
  }
  .tools button:disabled {
    color: var(--cover-quiet);
    border-style: dashed;
  }
  .what {
    display: inline-block;
    max-width: 9rem;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    vertical-align: bottom;
  }
  @media (max-width: 760px) {
    header {
      padding: 0.25rem 0.5rem 0;
      gap: 0 0.5rem;
    }
    .job {
      flex: 1;
    }
    header :global(nav) {
      order: 5;
      flex: 1 0 100%;
    }
    .tools kbd,
    .light,
    .tools .what {
      display: none;
    }
    .tools button {
      justify-content: center;
      min-width: 44px;
      min-height: 44px;
    }
  }
</style>
