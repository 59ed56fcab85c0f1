<script lang="ts">
  import { rows } from '#core/job/document.ts';
  import { KEYS } from '#core/procedures/hunting/case.ts';
  import type { Calling } from '../../calling.svelte.ts';
  import { useHunting } from '../../hunting.svelte.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Seen from './Seen.svelte';
  import Suspects from './Suspects.svelte';

  /** What a hunt holds beside its next card. */
  let { calling }: { calling: Calling } = $props();
  const session = useSession();
  const hunting = useHunting();
  const { context, step } = $derived(calling);
  const { advised } = $derived(hunting);
  const begun = $derived(context?.log.entries.some((e) => e.step.startsWith(KEYS.think)) ?? false);
  const boxes = $derived.by(() => {
    const on = new Set(context?.circuit?.stops.map((s) => s.boxId));
    return rows(session.document.boxes).filter((b) => on.has(b.id));
  });
  $effect(() => {
    if (begun && context?.circuit) void hunting.ask();
  });
</script>

{#if begun && advised}
  <section class="sheet pad" aria-label="Causes" data-busy={hunting.busy}>
    <h2>
      What fits{#if hunting.busy}<span class="quiet"> · weighing…</span>{/if}
    </h2>
    <Suspects {advised} />
  </section>
  {#if step?.key.startsWith(KEYS.find) && advised.answers.length > 0}
    <section class="sheet pad" aria-label="What it may say">
      <h2>What it may say</h2>
      <ul>
        {#each advised.answers as a (a.says)}
          <li>
            <strong>{a.says}</strong> <span class="quiet">{Math.round(100 * a.share)} %</span>
            {#if a.leaves.length > 0}
              <p class="quiet">
                leaves {a.leaves
                  .slice(0, 2)
                  .map((l) => `${l.words} ${Math.round(100 * l.share)} %`)
                  .join('; ')}
              </p>
            {/if}
          </li>
        {/each}
      </ul>
    </section>
  {/if}
  {#if step?.key.startsWith(KEYS.find) && advised.others.length > 0}
    <details class="sheet pad">
      <summary>Another measurement instead</summary>
      <div class="row">
        {#each advised.others as o (o.order)}
          <Act onclick={() => calling.insteadOf(step.key, o.order, `Chosen instead: ${o.words}`)}
            >{o.words}</Act
          >
        {/each}
      </div>
    </details>
  {/if}
  <section class="sheet pad" aria-label="Seen so far">
    <h2>Seen so far</h2>
    <Seen {advised} {calling} {boxes} />
    {#if advised.mended.length > 0}<p><strong>Mended:</strong> {advised.mended.join('; ')}</p>{/if}
  </section>
{/if}

<style>
  section {
    display: grid;
    gap: 0.5rem;
  }
  li {
    padding: 0.3rem 0;
    border-bottom: 1px solid var(--rule);
  }
</style>
