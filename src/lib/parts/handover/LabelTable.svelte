<script lang="ts">
  import type { Report } from '#core/handover/report.ts';
  import PaperTable from './PaperTable.svelte';

  let { outlets }: { outlets: Report['outlets'] } = $props();
  const labeled = $derived(outlets.filter((o) => o.labels.length > 0));
  const COLUMNS = [{ name: 'Outlet' }, { name: 'Circuit' }, { name: 'Labels' }];
</script>

{#if labeled.length === 0}<p>None by the plan as it stands.</p>{:else}
  <PaperTable columns={COLUMNS} rows={labeled} key={(o) => o.box.id}>
    {#snippet cells(o)}
      <td>{o.box.name}, {o.area}</td>
      <td>{o.circuit}</td>
      <td>{o.labels.map((l) => `“${l}”`).join(' and ')} <span class="section">406.4(D)(2)</span></td>
    {/snippet}
  </PaperTable>
{/if}
