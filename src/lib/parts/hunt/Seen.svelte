<script lang="ts">
  import { seenOf, KEYS } from '#core/procedures/hunting/case.ts';
  import { newId } from '#core/job/document.ts';
  import type { Box } from '#core/job/schema.ts';
  import type { Advised } from '#core/procedures/hunting/advise.ts';
  import type { Calling } from '../../calling.svelte.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';

  /** What was seen, each to be struck, and more to be added. */
  let { advised, calling, boxes }: { advised: Advised; calling: Calling; boxes: readonly Box[] } = $props();
  let where = $state('');
  const at = $derived(boxes.find((b) => b.id === where) ?? boxes[0]);
  const strikable = (id: string) => calling.context?.log.entries.some((e) => e.id === id) ?? false;
  const SAYS = {
    no: '',
    alone: 'Fits nothing: read it again',
    rest: 'Fits nothing of the rest: read it again',
  };
</script>

<ol>
  {#each advised.findings as f (f.id)}
    <li class:odd={f.contradicts !== 'no'}>
      <span>
        {f.words}
        {#if SAYS[f.contradicts]}<strong>{SAYS[f.contradicts]}</strong>{/if}
        {#if f.after < advised.mended.length}<span class="quiet">before the repair</span>{/if}
      </span>
      {#if strikable(f.id)}
        <Act label="Strike: {f.words}" onclick={() => calling.strike(f.id)}
          >{f.contradicts === 'no' ? 'Strike' : 'Read again'}</Act
        >
      {/if}
    </li>
  {:else}
    <li>Nothing yet.</li>
  {/each}
  {#each advised.blocked as b (b.id)}
    <li>
      {b.words}
      <Act label="Strike: {b.words}" onclick={() => calling.strike(b.id)}>Strike</Act>
    </li>
  {/each}
</ol>
{#if at}
  <details>
    <summary>Add what else you saw</summary>
    <Choice
      label="Outlet"
      value={at.id}
      options={boxes.map((b) => ({ value: b.id, name: b.name }))}
      set={(id) => (where = id)}
    />
    <div class="row">
      {#each seenOf(at) as [value, name] (value)}
        <Act
          onclick={() =>
            calling.add(`${KEYS.seen}${at.id} ${newId('seen')}`, `Seen at ${at.name}:`, name, [value])}
          >{name}</Act
        >
      {/each}
    </div>
    <p class="quiet">Readings of Prove count as well.</p>
  </details>
{/if}

<style>
  li {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 0.75rem;
    padding: 0.3rem 0;
    border-bottom: 1px solid var(--rule);
  }
  .row,
  .row + p {
    margin-top: 0.5rem;
  }
  .odd {
    border-left: 6px solid var(--warn);
    padding-left: 0.6rem;
  }
  .odd strong {
    display: block;
    color: var(--warn);
  }
</style>
