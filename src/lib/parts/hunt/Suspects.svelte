<script lang="ts">
  import type { Advised } from '#core/procedures/hunting/advise.ts';
  import { round } from '#core/units/quantity.ts';

  /** Causes by their share, each with what it does to a hand and how it is mended. */
  let { advised }: { advised: Advised } = $props();
  const percent = (share: number) => (share >= 0.995 ? '99+' : share < 0.01 ? '<1' : Math.round(100 * share));
  const DANGER = { none: '', fire: 'Heats', overvoltage: 'Up to 240 V', shock: 'Shock' } as const;
</script>

{#if advised.unworkable.length > 0}
  <p class="caution" role="alert">
    Not worked out, and in no share below: {advised.unworkable.join('; ')}. Treat each as possible.
  </p>
{/if}
<ol>
  {#each advised.suspects as s (s.key)}
    <li>
      <span class="bar" style:--share={s.share}></span>
      <strong class="share">{percent(s.share)}&nbsp;%</strong>
      <details>
        <summary
          >{s.words}{#if DANGER[s.danger]}<em>{DANGER[s.danger]}</em>{/if}</summary
        >
        <p>{s.repair}</p>
        {#if s.beside}<p class="quiet">While hands are there: {s.beside}</p>{/if}
        {#if s.because.length > 0}<p class="quiet">Likelier here: {s.because.join(', ')}.</p>{/if}
        {#if s.touch}
          <p class:deadly={s.touch.milliamps >= 5}>
            Whoever touches what is plugged in {s.stop === null ? '' : 'there '}carries {round(
              s.touch.milliamps,
              s.touch.milliamps < 10 ? 1 : 0,
            )} mA;
            {s.touch.opens === null
              ? 'nothing opens.'
              : `the ${s.touch.opens} opens${s.touch.seconds === null ? '' : ` within ${s.touch.seconds < 1 ? `${round(1000 * s.touch.seconds, 0)} ms` : `${round(s.touch.seconds, 0)} s`}`}.`}
          </p>
        {/if}
      </details>
    </li>
  {/each}
  {#if advised.none >= 0.01}
    <li>
      <span class="bar" style:--share={advised.none}></span>
      <strong class="share">{percent(advised.none)}&nbsp;%</strong>
      <span class="last">None of these</span>
    </li>
  {/if}
</ol>

<style>
  ol {
    display: grid;
  }
  li {
    position: relative;
    display: grid;
    grid-template-columns: 4.2rem 1fr;
    align-items: baseline;
    padding: 0.45rem 0;
    border-bottom: 1px solid var(--rule);
  }
  .bar {
    position: absolute;
    left: 0;
    bottom: -1px;
    width: calc(100% * var(--share));
    height: 4px;
    background: var(--copper);
  }
  .share {
    font-size: 1.2rem;
    font-variant-numeric: tabular-nums;
  }
  summary {
    min-height: 32px;
    font-weight: 600;
    line-height: 1.25;
  }
  .last {
    font-weight: 600;
  }
  em {
    margin-left: 0.5rem;
    padding: 0 0.4rem;
    background: var(--bad);
    color: var(--sheet);
    font-style: normal;
    font-size: 0.85rem;
    font-weight: 700;
    white-space: nowrap;
  }
  .deadly {
    color: var(--bad);
    font-weight: 700;
  }
</style>
