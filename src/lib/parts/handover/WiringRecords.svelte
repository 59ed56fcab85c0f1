<script lang="ts">
  import type { Report } from '#core/handover/report.ts';
  import { utc } from '$lib/readings.ts';
  import PaperTable from './PaperTable.svelte';

  let { wirings }: { wirings: Report['wirings'] } = $props();
  const COLUMNS = [{ name: 'Box' }, { name: 'On record' }, { name: 'Energized so' }];
</script>

<PaperTable columns={COLUMNS} rows={wirings} key={(w) => w.box.id}>
  {#snippet cells({ box, area, recorded, says })}
    <td>{box.name}, {area}</td>
    <td>
      {recorded.stage === 'as-done' ? 'as done' : 'as found'}{recorded.at
        ? `, ${utc(recorded.at)}`
        : ''}{recorded.by ? `, ${recorded.by}` : ''}
    </td>
    <td>{says}</td>
  {/snippet}
</PaperTable>
