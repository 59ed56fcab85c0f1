<script lang="ts">
  import { onDestroy, type Snippet } from 'svelte';
  import type { Calling } from '../../calling.svelte.ts';
  import { HandsFree } from '../../handsFree.svelte.ts';
  import { isTyping } from '../../keys.ts';
  import { nextOf } from '../../standing.ts';
  import { noteStanding } from '../../store/list.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import StepView from './StepView.svelte';

  /** The step of a call as one card, with what leads back. `children` come after its end. */
  let { calling, callId, children }: { calling: Calling; callId: string; children: Snippet } = $props();
  const session = useSession();
  const { procedure, standing, step } = $derived(calling);
  /** The list of jobs says where each call stands. */
  $effect(() => {
    if (!procedure || !standing) return;
    const next = nextOf(standing);
    noteStanding(session.jobId, { title: procedure.title, next, open: step !== null }).catch(() => {});
  });

  const freed = new HandsFree();
  onDestroy(freed.stop);

  const spoken = $derived(
    step ? [step.title, step.text, step.caution].filter(Boolean).join('. ') : 'On record. The call is over.',
  );
  $effect(() => freed.say(spoken));

  let body = $state<HTMLElement>();
  /** The next step begins at its top. */
  $effect(() => {
    if (step && body) window.scrollTo({ top: 0 });
  });
  /** A big key: the one way on, where there is one. */
  function key(event: KeyboardEvent) {
    if (!freed.on || isTyping(event)) return;
    if (event.key === 'Backspace' || event.key === 'ArrowLeft') calling.back();
    else if (event.key === 'ArrowRight') body?.querySelector<HTMLButtonElement>('.exits button')?.click();
    else return;
    event.preventDefault();
  }
</script>

<svelte:window onkeydown={key} />

{#if procedure}
  <div class="stack" bind:this={body}>
    <p class="where">
      <strong>{procedure.title}</strong>
      {#if standing}<span
          >{standing.done.length} done{standing.ahead > 0 ? `, about ${standing.ahead} to go` : ''}</span
        >{/if}
    </p>
    {#if calling.said}<p class="wrong" role="alert">{calling.said}</p>{/if}
    <div
      class="sheet card"
      data-step={step?.key ?? 'over'}
      data-kind={step?.kind ?? 'over'}
      data-answers={calling.context?.log.entries.length ?? 0}
    >
      {#if step}
        {#key `${step.key} ${calling.context?.log.entries.length}`}
          <StepView {step} {callId} by={calling.by} earlier={calling.earlier} answer={calling.answer} />
        {/key}
      {:else}
        <h1>{standing?.stopped ? 'Left off, on record' : 'Finished, on record'}</h1>
        <p>{procedure.title}, {session.document.job.address || session.document.job.name}.</p>
        <div class="row">
          <Act big kind="main" href="/job/{session.jobId}/hand-over">See the sheet</Act>
          <Act big href="/">All calls</Act>
        </div>
        {@render children()}
      {/if}
    </div>
    <div class="bar">
      <Act big disabled={!calling.canGoBack} onclick={calling.back}>Back</Act>
      <Act big pressed={freed.on} onclick={freed.toggle}>{freed.on ? 'Hands free: on' : 'Hands free'}</Act>
    </div>
    {#if freed.on && freed.lacks}<p class="quiet">Not in this browser: {freed.lacks}.</p>{/if}
    {#if freed.on}<p class="quiet">→ goes on where there is one way, ← goes back.</p>{/if}
  </div>
{/if}

<style>
  .where {
    display: flex;
    justify-content: space-between;
    gap: 1rem;
  }
  .where span {
    color: var(--quiet);
  }
  .stack {
    display: grid;
    gap: 0.6rem;
  }
  .card {
    display: grid;
    gap: 0.8rem;
    padding: 0.9rem;
  }
  .bar {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.5rem;
  }
</style>
