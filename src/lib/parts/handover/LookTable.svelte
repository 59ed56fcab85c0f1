<script lang="ts">
  import type { Report } from '#core/handover/report.ts';
  import { utc } from '$lib/readings.ts';
  import PaperTable from './PaperTable.svelte';

  let { looks }: { looks: Report['looks'] } = $props();
  const COLUMNS = [
    { name: 'What' },
    { name: 'Where' },
    { name: 'Seen' },
    { name: 'When (UTC), who' },
    { name: 'Section' },
  ];
  const WORDS = { 'in-order': 'in order', 'not-in-order': 'not in order', 'not-seen': 'not to be seen' };
</script>

<PaperTable columns={COLUMNS} rows={looks} key={(l) => l.look.id}>
  {#snippet cells({ item, look })}
    <td>{item.what}</td>
    <td>{look.place}</td>
    <td>{WORDS[look.result]}{look.note ? `. ${look.note}` : ''}</td>
    <td>{utc(look.at)}, {look.by}</td>
    <td class="section">{item.section}</td>
  {/snippet}
</PaperTable>
