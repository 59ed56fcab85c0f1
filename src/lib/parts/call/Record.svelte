<script lang="ts">
  import type { Answer, StepOf } from '#core/procedures/step.ts';
  import Exits from './Exits.svelte';

  let { step, answer }: { step: StepOf<'record'>; answer: (values: Partial<Answer>) => unknown } = $props();
</script>

<ul>
  {#each step.lines as line, i (i)}
    <li>
      {line.text}{#if line.because}<span class="quiet"> {line.because}</span>{/if}
      {#if line.section}<span class="section">{line.section}</span>{/if}
    </li>
  {/each}
</ul>
<Exits exits={[{ value: 'done', name: 'Finish the call' }]} take={() => answer({ picks: ['done'] })} />

<style>
  li {
    padding: 0.4rem 0;
    border-bottom: 1px solid var(--rule);
  }
</style>
