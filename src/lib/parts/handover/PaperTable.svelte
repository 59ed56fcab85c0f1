<script lang="ts" generics="Row">
  import type { Snippet } from 'svelte';

  interface Column {
    name: string;
    number?: boolean;
  }
  interface Props {
    columns: readonly Column[];
    rows: readonly Row[];
    key: (row: Row) => string;
    /** The cells of a row, `td` by `td`. */
    cells: Snippet<[Row]>;
    struck?: (row: Row) => boolean;
  }
  let { columns, rows, key, cells, struck = () => false }: Props = $props();
</script>

<table>
  <thead>
    <tr>
      {#each columns as { name, number } (name)}<th class:num={number}>{name}</th>{/each}
    </tr>
  </thead>
  <tbody>
    {#each rows as row (key(row))}
      <tr class:struck={struck(row)}>{@render cells(row)}</tr>
    {/each}
  </tbody>
</table>

<style>
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 0.95rem;
  }
  th {
    text-align: left;
    border-bottom: 2px solid var(--edge);
    padding: 0.25rem 0.5rem 0.25rem 0;
    vertical-align: bottom;
  }
  table :global(td) {
    border-bottom: 1px solid var(--rule);
    padding: 0.3rem 0.5rem 0.3rem 0;
    vertical-align: top;
  }
  .num,
  table :global(td.num) {
    text-align: right;
    white-space: nowrap;
  }
  table :global(td.section) {
    white-space: normal;
    min-width: 6rem;
  }
  .struck :global(td) {
    text-decoration: line-through;
    color: var(--quiet);
  }
  .struck :global(td:last-child) {
    text-decoration: none;
  }
  @media print {
    table {
      font-size: 9pt;
    }
    tr {
      break-inside: avoid;
    }
  }
</style>
