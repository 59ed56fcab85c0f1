<script lang="ts">
  import { linesOfCsv } from '#core/formats/csv.ts';
  import PickFile from '../PickFile.svelte';

  /** Text of several lines, typed, pasted or from a CSV: a line of it for each row. */
  interface Props {
    label: string;
    rows: number;
    note: string;
    take: (text: string) => void;
  }
  let { label, rows, note, take }: Props = $props();
  const id = $props.id();
</script>

<label for={id}>{label}</label>
<textarea {id} {rows} maxlength="8000" value={note} oninput={(e) => take(e.currentTarget.value)}></textarea>
{#if rows > 4}
  <PickFile
    label="List as CSV"
    accept=".csv,text/csv"
    take={async (file) =>
      take(
        linesOfCsv(await file.text())
          .join('\n')
          .slice(0, 8000),
      )}>Open a CSV</PickFile
  >
{/if}

<style>
  label {
    font-weight: 600;
  }
  textarea {
    width: 100%;
    border: 1px solid var(--edge);
    background: var(--sheet);
    padding: 0.5rem;
    font-size: 1.05rem;
  }
</style>
