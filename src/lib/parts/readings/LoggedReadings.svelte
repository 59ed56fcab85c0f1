<script lang="ts">
  import type { Verdict } from '#core/diagnosis/verdict.ts';
  import { describeStage, localTime } from '$lib/readings.ts';
  import { COLUMNS, type Row, type SortKey } from './readingRows.ts';

  interface Props {
    list: readonly Row[];
    /** Verdicts as far as they are worked out, by reading. */
    verdicts: ReadonlyMap<string, Verdict>;
    key: SortKey;
    down: boolean;
    sortBy: (column: SortKey) => void;
  }
  let { list, verdicts, key, down, sortBy }: Props = $props();

  // Only the rows in view are drawn.
  const ROW = 54;
  const SPARE = 8;
  let top = $state(0);
  let height = $state(600);
  // Drawn anew every few rows, not at each.
  const first = $derived(Math.max(0, Math.floor(top / ROW / SPARE) - 1) * SPARE);
  const visible = $derived(list.slice(first, first + Math.ceil(height / ROW) + 3 * SPARE));
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div
  class="scroll"
  tabindex="0"
  role="region"
  aria-label="Readings"
  bind:clientHeight={height}
  onscroll={(e) => (top = e.currentTarget.scrollTop)}
>
  <table aria-rowcount={list.length + 1}>
    <thead>
      <tr>
        {#each COLUMNS as [column, name] (column)}
          {#if column === 'instrument'}<th class="plain">Verdict</th>{/if}
          <th aria-sort={key === column ? (down ? 'descending' : 'ascending') : 'none'}>
            <button type="button" onclick={() => sortBy(column)}
              >{name}<span aria-hidden="true">{key === column ? (down ? ' ▾' : ' ▴') : ''}</span></button
            >
          </th>
        {/each}
      </tr>
    </thead>
    <tbody>
      {#if first > 0}<tr aria-hidden="true" style:height="{first * ROW}px"></tr>{/if}
      {#each visible as { reading: r, circuit, struck }, i (r.id)}
        {@const verdict = verdicts.get(r.id)}
        <tr class="row" class:struck aria-rowindex={first + i + 2} style:height="{ROW}px">
          <td>{localTime(r.at)}</td>
          <td><strong>{r.place}</strong></td>
          <td>{circuit}</td>
          <td>{describeStage(r.stage)}</td>
          <td>{r.half === 'both' ? '' : r.half}</td>
          <td class="number">{r.hotNeutral ?? ''}</td>
          <td class="number">{r.hotGround ?? ''}</td>
          <td class="number">{r.neutralGround ?? ''}</td>
          <td class="number">{r.hotHot ?? ''}</td>
          <td class="number">{r.loadAmps || ''}</td>
          <td class={verdict?.grade ?? ''} title={verdict?.headline}
            ><span class="verdict">{struck ? 'corrected' : (verdict?.headline ?? '…')}</span></td
          >
          <td>{r.instrument}</td>
          <td>{r.by}</td>
        </tr>
      {/each}
      {#if first + visible.length < list.length}
        <tr aria-hidden="true" style:height="{(list.length - first - visible.length) * ROW}px"></tr>
      {/if}
    </tbody>
  </table>
</div>

<style>
  .scroll {
    height: calc(100dvh - 21rem);
    min-height: 20rem;
    overflow: auto;
    border: 1px solid var(--edge);
    overflow-anchor: none;
  }
  table {
    border-collapse: separate;
    border-spacing: 0;
    min-width: 100%;
  }
  thead th {
    position: sticky;
    top: 0;
    background: var(--cover);
    color: var(--cover-ink);
    text-align: left;
    padding: 0;
    z-index: 1;
  }
  thead .plain {
    padding: 0 0.6rem;
  }
  thead button {
    color: inherit;
    font-weight: 700;
    min-height: 44px;
    padding: 0 0.6rem;
    white-space: nowrap;
    width: 100%;
    text-align: left;
  }
  .row td {
    padding: 0 0.6rem;
    border-bottom: 1px solid var(--rule);
    white-space: nowrap;
    max-width: 24rem;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .row .verdict {
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
    line-clamp: 2;
    overflow: hidden;
    white-space: normal;
    line-height: 1.2;
    min-width: 15rem;
  }
  .number {
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
  .struck td {
    text-decoration: line-through;
    color: var(--quiet);
  }
  .good {
    color: var(--good);
  }
  .worry {
    color: var(--warn);
    font-weight: 700;
  }
  .bad {
    color: var(--bad);
    font-weight: 700;
  }
</style>
