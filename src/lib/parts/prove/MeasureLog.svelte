<script lang="ts">
  import type { Measurement } from '#core/job/schema.ts';
  import { INSTRUMENT_FACTS } from '#core/records/instruments.ts';
  import { describeMeasurement, describeShown } from '../../measurements.ts';
  import { localTime } from '../../readings.ts';

  /** Measurements of one box, the newest first. */
  interface Props {
    log: readonly { measurement: Measurement; struck: boolean }[];
  }
  let { log }: Props = $props();
</script>

{#if log.length > 0}
  <h2>Measured here</h2>
  <ul>
    {#each [...log].reverse() as { measurement: m, struck } (m.id)}
      <li class:struck>
        <strong>{describeShown(m)}</strong>
        <span>{INSTRUMENT_FACTS[m.instrument].name}: {describeMeasurement(m)}</span>
        <span class="quiet">{localTime(m.at)}, {m.by}{m.note && ` · ${m.note}`}</span>
      </li>
    {/each}
  </ul>
{/if}

<style>
  ul {
    display: grid;
    gap: 0.4rem;
  }
  li {
    display: grid;
    border-left: 4px solid var(--rule);
    padding-left: 0.6rem;
  }
  li strong {
    font-size: 1.15rem;
    font-variant-numeric: tabular-nums;
  }
  .struck {
    text-decoration: line-through;
  }
</style>
