<script lang="ts">
  import type { Finding } from '#core/code/rule.ts';
  import PaperTable from './PaperTable.svelte';

  let { findings }: { findings: readonly Finding[] } = $props();
  const LEVELS = {
    violation: 'Violation',
    unknown: 'Not judged',
    recommended: 'Recommended',
    note: 'Note',
    satisfied: 'In order',
  };
  const COLUMNS = [{ name: 'Level' }, { name: 'About' }, { name: 'Finding' }, { name: 'Section' }];
</script>

{#if findings.length === 0}<p>None.</p>{:else}
  <PaperTable columns={COLUMNS} rows={findings} key={(f) => f.key}>
    {#snippet cells(f)}
      <td>{LEVELS[f.level]}</td>
      <td>{f.about.name}</td>
      <td>{f.message}</td>
      <td class="section">{f.section}</td>
    {/snippet}
  </PaperTable>
{/if}
