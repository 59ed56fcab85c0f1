<script lang="ts">
  import type { Answer, StepOf } from '#core/procedures/step.ts';
  import Exits from './Exits.svelte';

  let { step, answer }: { step: StepOf<'flip'>; answer: (values: Partial<Answer>) => unknown } = $props();
  /** Odd spaces stand on the left of a panel, even ones on the right. */
  const columns = $derived([1, 0].map((odd) => step.off.filter((s) => Math.abs(parseInt(s) % 2) === odd)));
</script>

<p class="state">
  {step.left} still possible{step.atMost > 0 ? `, at most ${step.atMost} more looks` : ''}. All others on.
</p>
<div class="panel" role="group" aria-label="Breakers to turn off: {step.off.join(', ')}">
  {#each columns as column, i (i)}
    <div>
      {#each column as space (space)}<span class="off">{space}</span>{/each}
    </div>
  {/each}
</div>
<p>Is <strong>{step.watch.name}</strong>{step.watch.spot ? `, ${step.watch.spot},` : ''} dead now?</p>
<Exits
  exits={[
    { value: 'dead', name: 'It went dead' },
    { value: 'live', name: 'Still on' },
  ]}
  take={(value) => answer({ picks: [value] })}
/>

<style>
  .state {
    font-weight: 600;
  }
  .panel {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.75rem;
    padding: 0.6rem;
    border: 3px solid var(--edge);
  }
  .panel div {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(3rem, 1fr));
    gap: 0.35rem;
    align-content: start;
  }
  .off {
    display: grid;
    place-items: center;
    min-height: 44px;
    background: var(--ink);
    color: var(--sheet);
    font-size: 1.35rem;
    font-weight: 800;
    font-variant-numeric: tabular-nums;
  }
</style>
