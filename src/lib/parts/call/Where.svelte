<script lang="ts">
  import { rows } from '#core/job/document.ts';
  import { byName } from '#core/job/names.ts';
  import type { Answer, StepOf } from '#core/procedures/step.ts';
  import { AREA_FACTS } from '#core/tables/areas.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Field from '../Field.svelte';

  let { step, answer }: { step: StepOf<'where'>; answer: (values: Partial<Answer>) => unknown } = $props();
  const session = useSession();
  let spot = $state('');
  const known = $derived(rows(session.document.areas).sort(byName));
  const outlets = $derived(rows(session.document.boxes).sort(byName));
</script>

<Field
  label="Where in the room"
  value={spot}
  placeholder="left of the bed"
  hint="if there are several; then the room"
  commit={(text) => {
    spot = text.slice(0, 80);
    return null;
  }}
/>
<div class="rooms" role="group" aria-label="Room">
  {#each known as area (area.id)}
    <button type="button" class="known" onclick={() => answer({ picks: [area.id], note: spot })}
      >{area.name}</button
    >
  {/each}
  {#each step.rooms as kind (kind)}
    <button type="button" onclick={() => answer({ picks: [kind], note: spot })}
      >{known.some((a) => a.kind === kind) ? 'Another ' : ''}{AREA_FACTS[kind].label}</button
    >
  {/each}
</div>
{#if outlets.length > 0}
  <details>
    <summary>One that is on record ({outlets.length})</summary>
    <div class="rooms">
      {#each outlets as box (box.id)}
        <button type="button" onclick={() => answer({ picks: [box.id] })}
          >{box.name}<span class="quiet"
            >{[session.document.areas[box.areaId]?.name, box.spot].filter(Boolean).join(', ')}</span
          ></button
        >
      {/each}
    </div>
  </details>
{/if}

<style>
  .rooms {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(9.5rem, 1fr));
    gap: 0.5rem;
  }
  button {
    display: grid;
    align-content: center;
    min-height: 52px;
    padding: 0.2rem 0.7rem;
    border: 2px solid var(--edge);
    text-align: left;
    font-size: 1.05rem;
    font-weight: 650;
    line-height: 1.15;
  }
  .known {
    border-left: 8px solid var(--copper);
  }
  .quiet {
    font-weight: 400;
    font-size: 0.9rem;
  }
</style>
