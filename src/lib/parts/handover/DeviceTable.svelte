<script lang="ts">
  import type { Report } from '#core/handover/report.ts';
  import { utc } from '$lib/readings.ts';
  import PaperTable from './PaperTable.svelte';

  let { devices }: { devices: Report['devices'] } = $props();
  const COLUMNS = [
    { name: 'Device' },
    { name: 'Goes dark with it' },
    { name: 'Last test' },
    { name: 'State' },
  ];
</script>

<PaperTable columns={COLUMNS} rows={devices} key={(d) => d.key}>
  {#snippet cells(d)}
    <td>{d.kind.toUpperCase()} {d.box ? d.box.name : `breaker ${d.circuit.space}, ${d.circuit.name}`}</td>
    <td>{d.protects.map((p) => p.name).join(', ') || 'nothing else'}</td>
    <td>{d.tests[0] ? `${utc(d.tests[0].at)} UTC` : 'none on record'}</td>
    <td>{d.state}{d.replaceBy ? `; replace by ${d.replaceBy}` : ''}</td>
  {/snippet}
</PaperTable>
<p class="quiet small">Test each monthly by its own button; ten years is a usual age to replace one at.</p>
