<script lang="ts">
  import type { Report } from '#core/handover/report.ts';
  import { utc } from '$lib/readings.ts';
  import PaperTable from './PaperTable.svelte';

  let { readings }: { readings: Report['readings'] } = $props();
  const twoHots = $derived(readings.some((r) => r.reading.hotHot !== null));
  const columns = $derived([
    { name: 'Where' },
    { name: 'When (UTC), who' },
    { name: 'Stage' },
    { name: 'Lamps' },
    { name: 'H–N', number: true },
    { name: 'H–G', number: true },
    { name: 'N–G', number: true },
    ...(twoHots ? [{ name: 'H–H', number: true }] : []),
    { name: 'Load', number: true },
    { name: 'Verdict' },
  ]);
  const volts = (v: number | null) => (v === null ? '' : `${v} V`);
</script>

{#if readings.length === 0}<p class="quiet">None on record.</p>{:else}
  <PaperTable {columns} rows={readings} key={(r) => r.reading.id} struck={(r) => r.past !== null}>
    {#snippet cells({ reading, past, verdict })}
      <td
        >{reading.place}{reading.half === 'both' ? '' : `, ${reading.half}`}{reading.openBox
          ? ', open box'
          : ''}</td
      >
      <td>{utc(reading.at)}, {reading.by}</td>
      <td>{reading.stage}</td>
      <td>{reading.lamps ? reading.lamps.map((l) => (l ? '●' : '○')).join(' ') : ''}</td>
      <td class="num">{volts(reading.hotNeutral)}</td>
      <td class="num">{volts(reading.hotGround)}</td>
      <td class="num">{volts(reading.neutralGround)}</td>
      {#if twoHots}<td class="num">{volts(reading.hotHot)}</td>{/if}
      <td class="num">{reading.loadAmps > 0 ? `${reading.loadAmps} A` : ''}</td>
      <td>{past ?? verdict.headline}{reading.note ? `. ${reading.note}` : ''}</td>
    {/snippet}
  </PaperTable>
  <p class="quiet small">
    Lamps: hot–neutral, hot–ground, neutral–ground. Verdicts are worked out from the wiring planned, not from
    fixed ranges alone.
  </p>
{/if}
