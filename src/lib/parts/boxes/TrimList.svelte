<script lang="ts">
  import { plannedBoxes } from '#core/boxes/planned.ts';
  import { differences } from '#core/boxes/wiring.ts';
  import type { Run } from '#core/circuits/run.ts';
  import type { Progress } from '#core/records/trim.ts';
  import { deviceName } from '../../names.ts';

  interface Props {
    run: Run;
    /** By position in the run's stops. */
    progress: readonly Progress[];
    choose: (boxId: string) => void;
  }
  let { run, progress, choose }: Props = $props();

  const isDone = ({ done, of }: Progress): boolean => done >= of;
  const planned = $derived(plannedBoxes(run));
  const next = $derived(progress.findIndex((p) => !isDone(p)));
</script>

<section class="sheet list" aria-label="Boxes of {run.circuit.name}">
  {#if run.stops.length === 0}
    <p class="quiet">No boxes on this circuit yet. Put outlets on it in Runs.</p>
  {:else}
    <p>
      {progress.filter(isDone).length} of {run.stops.length} boxes trimmed, from the panel out.
    </p>
    <ol>
      {#each run.stops as { box, area }, i (box.id)}
        {@const p = progress[i]!}
        <li>
          <button type="button" class:next={i === next} onclick={() => choose(box.id)}>
            <span class="name">{box.name}</span>
            <span class="what">
              {deviceName(box)}, {area.name}
              <span class="quiet">
                {#if isDone(p)}every step ticked{:else if p.done > 0}next: {p.next
                    ?.text}{:else if i === next}begin here{/if}
              </span>
            </span>
            {#if box.wiring && !(planned[i] && differences(planned[i], box.wiring.wiring).length === 0)}
              <span class="mark">! {box.wiring.stage === 'as-done' ? 'done otherwise' : 'as found'}</span>
            {/if}
            <span class="count" class:good={isDone(p)}>{isDone(p) ? '✓' : `${p.done} / ${p.of}`}</span>
          </button>
        </li>
      {/each}
    </ol>
  {/if}
</section>

<style>
  .list {
    display: grid;
    gap: 0.5rem;
    padding: 0.75rem 1rem;
  }
  button {
    display: grid;
    grid-template-columns: 4.5rem minmax(0, 1fr) auto auto;
    gap: 0.75rem;
    align-items: center;
    width: 100%;
    min-height: 56px;
    text-align: left;
    border-bottom: 1px solid var(--rule);
    padding: 0.3rem 0.25rem;
  }
  .next {
    background: var(--panel);
    border-left: 6px solid var(--accent);
    padding-left: 0.5rem;
  }
  .name {
    font-size: 1.35rem;
    font-weight: 800;
  }
  .what .quiet {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .mark {
    color: var(--bad);
    font-weight: 700;
  }
  .count {
    font-weight: 700;
    min-width: 3.2rem;
    text-align: right;
  }
  @media (max-width: 760px) {
    button {
      grid-template-columns: 3.5rem minmax(0, 1fr) auto;
    }
    .mark {
      grid-column: 2;
    }
  }
</style>
