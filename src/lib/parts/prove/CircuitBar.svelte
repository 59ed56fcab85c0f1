<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { circuitState } from '#core/records/proof.ts';
  import type { Circuit } from '#core/job/schema.ts';
  import Choice from '../Choice.svelte';

  interface Props {
    circuit: Circuit;
    circuits: readonly Circuit[];
    power: ReturnType<typeof circuitState>;
    choose: (circuitId: string) => void;
    /** Ways to pages beside this one. */
    links: Snippet;
  }
  let { circuit, circuits, power, choose, links }: Props = $props();

  const POWER = {
    unproved: { sign: '?', words: 'No proof of dead holds' },
    dead: { sign: '✓', words: 'Dead, proved' },
    energized: { sign: '!', words: 'Power is on; earlier proofs are void' },
    measuring: { sign: '!!', words: 'Live to measure at an open box; not for work' },
  };
</script>

<div class="pick sheet">
  <Choice
    label="Circuit"
    value={circuit.id}
    options={circuits.map((c) => ({ value: c.id, name: `${c.space} · ${c.name}` }))}
    set={choose}
  />
  <p class="state {power}" role="status">
    <span aria-hidden="true">{POWER[power].sign}</span>
    {POWER[power].words}
  </p>
  <div class="links">
    {@render links()}
  </div>
</div>

<style>
  .pick {
    display: grid;
    grid-template-columns: minmax(12rem, 20rem) 1fr;
    gap: 0.6rem 1rem;
    align-items: end;
    padding: 0.75rem 1rem;
  }
  .links {
    grid-column: 1 / -1;
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
  }
  .state {
    font-weight: 700;
    padding: 0.4rem 0.75rem;
    border-left: 6px solid var(--edge);
  }
  .state.dead {
    border-color: var(--good);
    color: var(--good);
  }
  .state.measuring {
    border-color: var(--bad);
    color: var(--bad);
  }
  .state.energized {
    border-color: var(--warn);
    color: var(--warn);
  }
  @media (max-width: 900px) {
    .pick {
      grid-template-columns: minmax(0, 1fr);
      gap: 0.4rem;
      order: -2;
      padding: 0.5rem;
    }
  }
  /* On a phone one line; the links come after the work. */
  @media (max-width: 760px) {
    .pick {
      grid-template-columns: minmax(0, 1fr) auto;
      align-items: center;
    }
    .pick :global(label) {
      position: absolute;
      width: 1px;
      height: 1px;
      overflow: hidden;
      clip-path: inset(50%);
    }
    .state {
      max-width: 9rem;
      font-size: 0.95rem;
      line-height: 1.2;
    }
    .links {
      display: none;
    }
  }
</style>
