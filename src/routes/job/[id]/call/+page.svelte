<script lang="ts">
  import { onDestroy } from 'svelte';
  import { rows } from '#core/job/document.ts';
  import { standingOf, contextOf } from '#core/procedures/engine.ts';
  import { callOf, type Tile } from '#core/procedures/tiles.ts';
  import { procedureOf } from '#core/procedures/index.ts';
  import { address } from '$lib/address.svelte.ts';
  import { Calling } from '$lib/calling.svelte.ts';
  import { HandsFree } from '$lib/handsFree.svelte.ts';
  import { isTyping } from '$lib/keys.ts';
  import Act from '$lib/parts/Act.svelte';
  import StartCall from '$lib/parts/jobs/StartCall.svelte';
  import CallFacts from '$lib/parts/call/CallFacts.svelte';
  import StepView from '$lib/parts/call/StepView.svelte';
  import DoneBy from '$lib/parts/prove/DoneBy.svelte';
  import { localTime } from '$lib/readings.ts';
  import { noteStanding } from '$lib/store/list.ts';
  import { useSession } from '$lib/store/session.svelte.ts';

  const session = useSession();
  const calls = $derived(rows(session.document.calls).sort((a, b) => b.opened.localeCompare(a.opened)));
  const callId = $derived(address.get('call') ?? (calls.length === 1 ? calls[0]!.id : ''));
  const calling = new Calling(
    () => session,
    () => callId,
  );
  const { call, procedure, standing, step } = $derived(calling);
  const freed = new HandsFree();
  onDestroy(freed.stop);

  /** The list of jobs says where each call stands. */
  $effect(() => {
    if (!procedure || !standing) return;
    const next = step ? step.title : standing.stopped ? 'left off, for safety' : 'finished, on record';
    noteStanding(session.jobId, { title: procedure.title, next, open: step !== null }).catch(() => {});
  });

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
  /** Another matter at the same house. */
  async function begin(tile: Tile) {
    const call = callOf(tile, calling.by, new Date().toISOString());
    if (await session.execute({ type: 'put', table: 'calls', rows: [call] })) address.show({ call: call.id });
  }
  const stateOf = (id: string): string => {
    const one = session.document.calls[id]!;
    const own = procedureOf(one.procedure);
    if (!own) return 'its procedure is not in this Hekto';
    const { current, stopped } = standingOf(own, contextOf(session.view, one, new Date().toISOString()));
    return current ? `next: ${current.title}` : stopped ? 'left off, for safety' : 'finished, on record';
  };
</script>

<svelte:window onkeydown={key} />

{#if !call || !procedure}
  <main>
    <h1>Calls of this job</h1>
    {#if calls.length === 0}<p>None yet: start one from the list of jobs.</p>{/if}
    <ul class="calls">
      {#each calls as c (c.id)}
        <li>
          <a href="?call={c.id}"
            ><strong>{procedureOf(c.procedure)?.title ?? c.procedure}</strong>
            <span class="quiet">{localTime(c.opened)} · {stateOf(c.id)}</span></a
          >
        </li>
      {/each}
    </ul>
    <StartCall here start={(tile) => begin(tile)} />
  </main>
{:else}
  <main bind:this={body}>
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
        <StartCall here start={(tile) => begin(tile)} />
      {/if}
    </div>
    <div class="bar">
      <Act big disabled={!calling.canGoBack} onclick={calling.back}>Back</Act>
      <Act big pressed={freed.on} onclick={freed.toggle}>{freed.on ? 'Hands free: on' : 'Hands free'}</Act>
    </div>
    {#if freed.on && freed.lacks}<p class="quiet">Not in this browser: {freed.lacks}.</p>{/if}
    {#if freed.on}<p class="quiet">→ goes on where there is one way, ← goes back.</p>{/if}
    <DoneBy by={calling.by} sign={calling.sign} />
    <CallFacts {call} {calling} />
  </main>
{/if}

<style>
  main {
    width: 100%;
    max-width: 44rem;
    margin: 0 auto;
    padding: 0.6rem 0.75rem 2rem;
    display: grid;
    gap: 0.6rem;
    align-content: start;
  }
  .where {
    display: flex;
    justify-content: space-between;
    gap: 1rem;
  }
  .where span {
    color: var(--quiet);
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
  .calls a {
    display: grid;
    min-height: 60px;
    align-content: center;
    border-bottom: 1px solid var(--rule);
  }
</style>
