<script lang="ts">
  import type { Circuit } from '#core/job/schema.ts';
  import { goesDark } from '#core/procedures/goesDark.ts';
  import { useSession } from '../../store/session.svelte.ts';

  /** What loses power with some circuits: read before any breaker is turned off. */
  let { circuits }: { circuits: readonly Circuit[] } = $props();

  const session = useSession();
  const dark = $derived(goesDark(session.view, circuits));
  const rooms = (outlets: readonly { name: string; room: string }[]) =>
    [...new Set(outlets.map((o) => o.room))].map(
      (room) =>
        `${room}: ${outlets
          .filter((o) => o.room === room)
          .map((o) => o.name)
          .join(', ')}`,
    );
</script>

<div class="dark">
  <p><strong>Goes dark</strong></p>
  {#each dark as d (d.circuit.id)}
    <p>
      {d.circuit.name}{d.outlets.length > 0 ? `. ${rooms(d.outlets).join('; ')}` : ''}{d.appliances.length > 0
        ? `; with them ${d.appliances.join(', ')}`
        : ''}{d.whole ? '.' : '. Not all that it feeds is on record: more may.'}
    </p>
    {#each d.watch as w (w.name)}<p class="warn">! {w.name}: {w.why}</p>{/each}
  {/each}
  <p class="quiet">Ask before: anyone on medical equipment, an alarm, work on a computer?</p>
</div>

<style>
  .dark {
    display: grid;
    gap: 0.2rem;
    border-left: 6px solid var(--rule);
    padding-left: 0.6rem;
  }
  .warn {
    color: var(--warn);
    font-weight: 700;
  }
</style>
