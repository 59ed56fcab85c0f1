<script lang="ts">
  import type { Run } from '#core/circuits/run.ts';
  import type { Settings } from '#core/job/schema.ts';
  import { isSmallReceptacle } from '#core/plan/wallSpaces.ts';
  import { formatFeet } from '#core/units/length.ts';
  import { round } from '#core/units/quantity.ts';
  import Lazy from '../Lazy.svelte';
  import RunDrawing from '../run/RunDrawing.svelte';

  interface Props {
    run: Run;
    settings: Settings;
    chosen: boolean;
    boxId: string | null;
    choose: (circuitId: string, boxId?: string) => void;
    onkey: (event: KeyboardEvent, boxId: string) => unknown;
    ondrop: (boxId: string, x: number, y: number) => void;
  }
  let { run, settings, chosen, boxId, choose, onkey, ondrop }: Props = $props();
  const { circuit } = $derived(run);
  const counted = $derived(run.stops.some((s) => isSmallReceptacle(s.box) && s.box.serves === null));
</script>

<article class="sheet" class:chosen>
  <button type="button" aria-pressed={chosen} onclick={() => choose(circuit.id)}>
    <strong>{circuit.name}</strong>
    <span class="quiet">
      {formatFeet(run.installed)} installed, {formatFeet(run.toBuy)} to buy · {round(run.plannedAmps, 1)} A planned{counted
        ? `, ${settings.vaPerReceptacle} VA an outlet`
        : ''}
    </span>
  </button>
  <Lazy height={260}>
    <RunDrawing
      {run}
      dropLimit={settings.dropLimitPercent}
      selected={boxId}
      onselect={(id) => choose(circuit.id, id)}
      {onkey}
      {ondrop}
    />
  </Lazy>
</article>

<style>
  .chosen {
    border-top-color: var(--accent);
  }
  button {
    display: flex;
    flex-wrap: wrap;
    gap: 0 1rem;
    align-items: baseline;
    width: 100%;
    padding: 0.5rem 1rem 0;
    text-align: left;
    min-height: 40px;
  }
  strong {
    font-size: 1.15rem;
    overflow-wrap: anywhere;
  }
</style>
