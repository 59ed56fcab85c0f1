<script lang="ts">
  import { runOf } from '#core/circuits/run.ts';
  import type { Panel } from '#core/job/schema.ts';
  import { balanceOf } from '#core/panel/balance.ts';
  import { round } from '#core/units/quantity.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';

  /** Load of the two legs, and the moves that even it out. */
  let { panel }: { panel: Panel } = $props();

  const session = useSession();
  const balance = $derived(
    balanceOf(
      session.document,
      panel,
      session.view
        .circuitsIn(panel)
        .filter((c) => c.status !== 'remove')
        .map((c) => runOf(session.view, c)),
    ),
  );
  const most = $derived(Math.max(panel.mainRating, balance.legs.A, balance.legs.B));
  const better = $derived(balance.choices.filter((c) => c.command !== null));
</script>

<section class="sheet pad stack">
  <h2>Legs, planning load</h2>
  {#each ['A', 'B'] as const as leg (leg)}
    <div class="leg">
      <span class="letter {leg}">{leg}</span>
      <span class="bar"><span class={leg} style:width="{(100 * balance.legs[leg]) / most}%"></span></span>
      <span class="amps" data-leg={leg}>{round(balance.legs[leg], 1)} <span class="unit">A</span></span>
    </div>
  {/each}
  <p class="quiet">
    {round(Math.abs(balance.legs.A - balance.legs.B), 1)} A apart, all planned at once: nobody draws that, but even
    legs keep the neutral and the main cool.
  </p>
  {#if better.length === 0}
    <p>As even as moving breakers can make it.</p>
  {:else}
    <ul>
      {#each better as c (c.moves.length)}
        <li>
          <Act onclick={() => session.execute(c.command!)}
            >{round(c.apart, 1)} A apart: move {c.moves.length}</Act
          >
          <span class="quiet">{c.moves.map((m) => `${m.circuit.name} to ${m.to}`).join('; ')}</span>
        </li>
      {/each}
    </ul>
  {/if}
</section>

<style>
  .leg {
    display: grid;
    grid-template-columns: 2rem 1fr 5.5rem;
    gap: 0.6rem;
    align-items: center;
  }
  .letter {
    display: grid;
    place-items: center;
    height: 2rem;
    font-weight: 750;
    color: #17222a;
  }
  .A {
    background: var(--copper);
  }
  .B {
    background: #cdd4d6;
    box-shadow: inset 0 0 0 1px var(--edge);
  }
  .bar {
    height: 1.1rem;
    background: var(--panel);
    border: 1px solid var(--edge);
  }
  .bar span {
    display: block;
    height: 100%;
    max-width: 100%;
  }
  .amps {
    font-size: 1.3rem;
    font-weight: 700;
    text-align: right;
  }
  li {
    display: grid;
    gap: 0.2rem;
    justify-items: start;
    padding: 0.35rem 0;
    border-top: 1px solid var(--rule);
  }
</style>
