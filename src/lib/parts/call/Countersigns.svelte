<script lang="ts">
  import { newId } from '#core/job/document.ts';
  import { uncountersigned } from '#core/records/people.ts';
  import { localTime } from '../../readings.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';

  /** An apprentice’s work that somebody licensed has still to look over. */
  let { by }: { by: string } = $props();
  const session = useSession();
  const open = $derived(uncountersigned(session.document));
  let said = $state('');
</script>

{#if open.length > 0}
  <section class="caution">
    {#each open as u (u.of)}
      <p>
        {u.count} records by {u.of}, apprentice, through {localTime(u.through)}: not countersigned.
      </p>
      <Act
        onclick={async () =>
          (said =
            (await session.attempt({
              type: 'put',
              table: 'countersigns',
              rows: [
                {
                  id: newId('countersign'),
                  of: u.of,
                  through: u.through,
                  at: new Date().toISOString(),
                  by,
                  note: '',
                },
              ],
            })) ?? '')}>Countersign as {by || 'somebody licensed'}</Act
      >
    {/each}
    {#if said}<p class="wrong" role="alert">{said}</p>{/if}
  </section>
{/if}
