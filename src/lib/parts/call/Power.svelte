<script lang="ts">
  import type { StepOf } from '#core/procedures/step.ts';
  import PowerBack from '../prove/PowerBack.svelte';

  let { step, by }: { step: StepOf<'power'>; by: string } = $props();
</script>

<div class="power">
  <PowerBack
    circuit={step.circuit}
    {by}
    purpose={step.purpose}
    kind="main"
    label={step.purpose === 'use' ? 'Power is on' : 'Power is on, nobody at the box'}
  />
</div>

<style>
  .power {
    display: grid;
    gap: 0.5rem;
    padding: 0.6rem 0;
  }
  .power :global(button) {
    min-height: 60px;
    font-size: 1.2rem;
  }
</style>
