<script lang="ts">
  import { endName, functionName, handsOf, placeOf, placesOf } from '#core/boxes/wiring.ts';
  import type { BoxWiring } from '#core/job/schema.ts';
  import Core from './Core.svelte';

  interface Props {
    wiring: BoxWiring;
    nameOf: (box: string) => string;
    selected: string | null;
    moved: ReadonlySet<string>;
    onselect: (end: string | null) => void;
    /** Puts an end somewhere; without it the table is for reading. */
    onplace?: (end: string, place: string | null) => void;
  }
  let { wiring, nameOf, selected, moved, onselect, onplace }: Props = $props();

  const NOWHERE = 'capped';
  const NOT_SEEN = 'not looked at';
  const places = $derived(placesOf(wiring));
  const placeName = (end: string): string => {
    const at = placeOf(wiring, end);
    if (at === undefined) return NOT_SEEN;
    return at === null ? NOWHERE : (places.find((p) => p.id === at)?.name ?? at);
  };
  const ends = $derived(handsOf(wiring));
</script>

<table>
  <thead>
    <tr><th scope="col">Conductor</th><th scope="col">Is</th><th scope="col">Goes to</th></tr>
  </thead>
  <tbody>
    {#each ends as end (end.id)}
      <tr class:on={end.id === selected} class:moved={moved.has(end.id)} data-end={end.id}>
        <th scope="row">
          <button
            type="button"
            aria-pressed={end.id === selected}
            onclick={() => onselect(end.id === selected ? null : end.id)}
          >
            <Core color={end.color} />
            {endName(wiring, end.id, nameOf)}
          </button>
        </th>
        <td>{end.kind === 'lead' && end.function === 'unknown' ? 'lead' : functionName(end.function)}</td>
        <td>
          {#if onplace}
            <select
              aria-label="Where the {endName(wiring, end.id, nameOf)} goes"
              value={placeOf(wiring, end.id) ?? (placeOf(wiring, end.id) === null ? NOWHERE : NOT_SEEN)}
              onchange={(e) => {
                const { value } = e.currentTarget;
                if (value !== NOT_SEEN) onplace(end.id, value === NOWHERE ? null : value);
              }}
            >
              {#if placeOf(wiring, end.id) === undefined}<option value={NOT_SEEN}>{NOT_SEEN}</option>{/if}
              {#each places as p (p.id)}<option value={p.id}>{p.name}</option>{/each}
              <option value={NOWHERE}>{NOWHERE}</option>
            </select>
          {:else}
            {placeName(end.id)}
          {/if}
        </td>
      </tr>
    {/each}
  </tbody>
</table>

<style>
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th,
  td {
    text-align: left;
    padding: 0.2rem 0.4rem;
    border-bottom: 1px solid var(--rule);
    vertical-align: middle;
  }
  thead th {
    font-size: 0.9rem;
  }
  tbody th {
    font-weight: 500;
    padding-left: 0;
  }
  button {
    display: flex;
    gap: 0.5rem;
    align-items: center;
    min-height: 44px;
    text-align: left;
    width: 100%;
  }
  button :global(.core) {
    height: 1.5rem;
    flex: none;
  }
  .on {
    background: var(--panel);
  }
  .on button {
    font-weight: 750;
  }
  .moved td:last-child {
    color: var(--bad);
    font-weight: 700;
  }
  select {
    width: 100%;
    max-width: 14rem;
    min-height: 40px;
    border: 1px solid var(--edge);
    background: var(--sheet);
    color: var(--ink);
    border-radius: 4px;
    font-size: 1rem;
  }
</style>
