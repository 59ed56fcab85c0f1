<script lang="ts">
  import { byTime } from '#core/units/time.ts';
  import { onDestroy } from 'svelte';
  import { rows } from '#core/job/document.ts';
  import { callOf, type Tile } from '#core/procedures/tiles.ts';
  import { procedureOf } from '#core/procedures/index.ts';
  import { address } from '$lib/address.svelte.ts';
  import { Calling } from '$lib/calling.svelte.ts';
  import { Hunting, provideHunting } from '$lib/hunting.svelte.ts';
  import StartCall from '$lib/parts/jobs/StartCall.svelte';
  import CallCard from '$lib/parts/call/CallCard.svelte';
  import CallFacts from '$lib/parts/call/CallFacts.svelte';
  import Dangers from '$lib/parts/hunt/Dangers.svelte';
  import HuntBoard from '$lib/parts/hunt/HuntBoard.svelte';
  import DoneBy from '$lib/parts/prove/DoneBy.svelte';
  import { localTime } from '$lib/readings.ts';
  import { standsAt } from '$lib/standing.ts';
  import { useSession } from '$lib/store/session.svelte.ts';

  const session = useSession();
  const calls = $derived(rows(session.document.calls).sort((a, b) => byTime(b.opened, a.opened)));
  const callId = $derived(address.get('call') ?? (calls.length === 1 ? calls[0]!.id : ''));
  const calling = new Calling(
    () => session,
    () => callId,
  );
  const { call, procedure } = $derived(calling);
  const hunting = provideHunting(
    new Hunting(
      () => session,
      () => callId,
    ),
  );
  onDestroy(hunting.stop);

  /** Another matter at the same house. */
  async function begin(tile: Tile) {
    const call = callOf(tile, calling.by, new Date().toISOString());
    if (await session.execute({ type: 'put', table: 'calls', rows: [call] })) address.show({ call: call.id });
  }
</script>

{#if !call || !procedure}
  <main>
    <h1>Calls of this job</h1>
    {#if calls.length === 0}<p>None yet: start one from the list of jobs.</p>{/if}
    <ul class="calls">
      {#each calls as c (c.id)}
        <li>
          <a href="?call={c.id}"
            ><strong>{procedureOf(c.procedure)?.title ?? c.procedure}</strong>
            <span class="quiet">{localTime(c.opened)} · {standsAt(session.view, c)}</span></a
          >
        </li>
      {/each}
    </ul>
    <StartCall here start={(tile) => begin(tile)} />
  </main>
{:else}
  <main>
    <Dangers {calling} />
    <CallCard {calling} {callId}>
      <StartCall here start={(tile) => begin(tile)} />
    </CallCard>
    <HuntBoard {calling} />
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
  .calls a {
    display: grid;
    min-height: 60px;
    align-content: center;
    border-bottom: 1px solid var(--rule);
  }
</style>
