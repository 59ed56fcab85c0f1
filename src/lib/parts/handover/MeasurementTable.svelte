<script lang="ts">
  import type { Measurement } from '#core/job/schema.ts';
  import { INSTRUMENT_FACTS } from '#core/records/instruments.ts';
  import { describeMeasurement, describeShown } from '../../measurements.ts';
  import { utc } from '../../readings.ts';
  import PaperTable from './PaperTable.svelte';

  let { measurements }: { measurements: readonly { measurement: Measurement; struck: boolean }[] } = $props();
  const COLUMNS = [
    { name: 'Place' },
    { name: 'When (UTC), who' },
    { name: 'With' },
    { name: 'Between, and in what state' },
    { name: 'It showed' },
  ];
</script>

<PaperTable columns={COLUMNS} rows={measurements} key={(m) => m.measurement.id} struck={(m) => m.struck}>
  {#snippet cells({ measurement: m, struck })}
    <td>{m.place}</td>
    <td>{utc(m.at)}, {m.by}</td>
    <td>{INSTRUMENT_FACTS[m.instrument].name}</td>
    <td>{describeMeasurement(m)}</td>
    <td>{struck ? 'corrected' : describeShown(m)}{m.note ? `. ${m.note}` : ''}</td>
  {/snippet}
</PaperTable>
