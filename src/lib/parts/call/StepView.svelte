<script lang="ts">
  import type { Answer, Step } from '#core/procedures/step.ts';
  import Ask from './Ask.svelte';
  import Breaker from './Breaker.svelte';
  import Clamp from './Clamp.svelte';
  import Dead from './Dead.svelte';
  import Decide from './Decide.svelte';
  import DeviceTest from './DeviceTest.svelte';
  import Do from './Do.svelte';
  import Flip from './Flip.svelte';
  import Look from './Look.svelte';
  import Measure from './Measure.svelte';
  import Phones from './Phones.svelte';
  import Power from './Power.svelte';
  import Read from './Read.svelte';
  import Record from './Record.svelte';
  import Think from './Think.svelte';
  import Where from './Where.svelte';

  interface Props {
    step: Step;
    callId: string;
    by: string;
    earlier: Answer | null;
    answer: (values: Partial<Answer>) => Promise<string | null>;
  }
  let { step, callId, by, earlier, answer }: Props = $props();
</script>

<div class="head">
  <h1>{step.title}</h1>
  {#if step.text}<p>{step.text}</p>{/if}
  {#if step.caution}<p class="caution">{step.caution}</p>{/if}
</div>
{#if step.working && step.kind === 'ask'}
  <ul class="first">
    {#each step.working as line (line.text)}<li>{line.text}</li>{/each}
  </ul>
{/if}
{#if step.curve}
  {#await import('../charts/TripChart.svelte') then { default: TripChart }}<TripChart
      {...step.curve}
    />{/await}
{/if}
{#if step.kind === 'ask'}<Ask {step} {callId} {earlier} {answer} />
{:else if step.kind === 'look'}<Look {step} {earlier} {answer} />
{:else if step.kind === 'measure'}<Measure {step} {callId} {earlier} {answer} />
{:else if step.kind === 'read'}<Read {step} {by} {answer} />
{:else if step.kind === 'dead'}<Dead {step} {by} />
{:else if step.kind === 'clamp'}<Clamp {step} {by} />
{:else if step.kind === 'power'}<Power {step} {by} />
{:else if step.kind === 'do'}<Do {step} {answer} />
{:else if step.kind === 'decide'}<Decide {step} {earlier} {answer} />
{:else if step.kind === 'test'}<DeviceTest {step} {by} {answer} />
{:else if step.kind === 'where'}<Where {step} {answer} />
{:else if step.kind === 'breaker'}<Breaker {step} {earlier} {answer} />
{:else if step.kind === 'phones'}<Phones {step} {answer} />
{:else if step.kind === 'flip'}<Flip {step} {answer} />
{:else if step.kind === 'think'}<Think {step} {answer} />
{:else if step.kind === 'record'}<Record {step} {answer} />
{/if}
<details class="why">
  <summary>Why</summary>
  <p>{step.why}</p>
  {#if step.working && step.kind !== 'ask'}
    <ul>
      {#each step.working as line (line.text)}
        <li>
          <strong>{line.text}</strong>{#if line.because}: {line.because}{/if}
          {#if line.section}<span class="section">{line.section}</span>{/if}
        </li>
      {/each}
    </ul>
  {/if}
</details>

<style>
  .head {
    display: grid;
    gap: 0.4rem;
  }
  h1 {
    font-size: 1.75rem;
    line-height: 1.1;
  }
  .head p {
    font-size: 1.08rem;
    line-height: 1.3;
  }
  .first {
    display: grid;
    gap: 0.35rem;
    padding: 0.6rem 0.75rem;
    border: 3px solid var(--bad);
  }
  .first li {
    font-size: 1.15rem;
    font-weight: 700;
    line-height: 1.25;
  }
  .why ul {
    display: grid;
    gap: 0.4rem;
    margin-top: 0.4rem;
  }
</style>
