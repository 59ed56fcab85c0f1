<script lang="ts">
  import type { Circuit } from '#core/job/schema.ts';
  import { chainOn, firstCommand, orderedCommand } from '#core/procedures/parts/chain.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Check from '../Check.svelte';

  /** Which box may be fed first: as somebody says, and as it follows from what was opened and counted. */
  let { circuit }: { circuit: Circuit } = $props();
  const session = useSession();
  const chain = $derived(chainOn(session.document, circuit));
  const nameOf = (id: string) => session.document.boxes[id]?.name ?? id;
  const set = (mayBeFirst: string[]) =>
    session.attempt({ type: 'put', table: 'circuits', rows: [{ ...circuit, mayBeFirst }] });
</script>

<fieldset>
  <legend>May be fed first</legend>
  {#each circuit.stops as { boxId } (boxId)}
    <Check
      label={nameOf(boxId)}
      checked={circuit.mayBeFirst.length === 0 || circuit.mayBeFirst.includes(boxId)}
      set={(on) => {
        const all = circuit.stops.map((s) => s.boxId);
        const now = circuit.mayBeFirst.length === 0 ? all : circuit.mayBeFirst;
        const next = on ? [...now, boxId] : now.filter((id) => id !== boxId);
        void set(next.length === all.length ? [] : next);
      }}
    />
  {/each}
  <p class="quiet">
    {#if chain.contradicted}No order agrees with what was opened and counted: look again.
    {:else if chain.first !== null}{nameOf(chain.first)} is fed first{chain.order
        ? ', and the order is certain'
        : ''}.
    {:else}{chain.mayBeFirst.map(nameOf).join(', ')} may be{chain.left === null
        ? ''
        : `; ${chain.left} orders left`}. Open {nameOf(chain.next ?? '')} next.
    {/if}
  </p>
  {#if chain.order}
    {@const { order } = chain}
    <Act onclick={() => session.execute(orderedCommand(circuit, order))}>Take this order</Act>
  {:else if chain.first !== null && circuit.stops[0]?.boxId !== chain.first}
    {@const { first } = chain}
    <Act onclick={() => session.execute(firstCommand(circuit, first))}>Put {nameOf(chain.first)} first</Act>
  {/if}
</fieldset>

<style>
  fieldset {
    grid-column: 1 / -1;
    border: 1px solid var(--rule);
    padding: 0.4rem 0.75rem;
  }
  legend {
    font-weight: 600;
    font-size: 0.875rem;
  }
</style>
