<script lang="ts">
  import { currentsOf } from '#core/circuits/tripCurve.ts';
  import { onMount } from 'svelte';
  import { runOf } from '#core/circuits/run.ts';
  import { actions } from '$lib/actions.svelte.ts';
  import { applyFix } from '$lib/fixes.ts';
  import Act from '$lib/parts/Act.svelte';
  import Bar from '$lib/parts/Bar.svelte';
  import Empty from '$lib/parts/Empty.svelte';
  import FindingsList from '$lib/parts/FindingsList.svelte';
  import Lazy from '$lib/parts/Lazy.svelte';
  import DropChart from '$lib/parts/charts/DropChart.svelte';
  import TripChart from '$lib/parts/charts/TripChart.svelte';
  import CircuitForm from '$lib/parts/runs/CircuitForm.svelte';
  import Extension from '$lib/parts/runs/Extension.svelte';
  import LooseOutlets from '$lib/parts/runs/LooseOutlets.svelte';
  import Planner from '$lib/parts/runs/Planner.svelte';
  import RunSheet from '$lib/parts/runs/RunSheet.svelte';
  import ShopSettings from '$lib/parts/runs/ShopSettings.svelte';
  import StopForm from '$lib/parts/runs/StopForm.svelte';
  import { useSession } from '$lib/store/session.svelte.ts';
  import { Running } from './running.svelte.ts';

  const session = useSession();
  const runs = new Running(() => session);
  const settings = $derived(session.document.job.settings);
  const { circuit, run, stop } = $derived(runs);

  onMount(() => {
    if (runs.circuit && runs.circuit !== runs.circuits[0])
      document.querySelector(`[data-circuit="${runs.circuit.id}"]`)?.scrollIntoView({ block: 'center' });
  });
  onMount(() => actions.offer(runs.actions));
</script>

<main>
  <section class="runs">
    <div class="sheet bar">
      <Bar title="Runs">
        <span class="quiet keys"
          >Drag a box along its run, to another run, or onto a box to branch off it. Keys: Alt with arrows,
          with Shift to branch.</span
        >
        <Act
          onclick={() => runs.showOnly(runs.shows === 'planner' ? null : 'planner')}
          disabled={!runs.hasPanel}>Plan circuits</Act
        >
        <Act kind="main" onclick={runs.addCircuit} disabled={!runs.hasPanel}>Add circuit</Act>
      </Bar>
    </div>
    {#if runs.shows === 'planner'}<Planner close={() => runs.showOnly(null)} />{/if}
    {#if runs.circuits.length === 0}
      <div class="sheet">
        <Empty title="No circuits yet."
          ><p>Add one, then put outlets on it. The run draws itself from breaker to last box.</p></Empty
        >
      </div>
    {/if}
    {#each runs.circuits as c (c.id)}
      <RunSheet
        run={runOf(session.view, c)}
        {settings}
        chosen={c.id === circuit?.id}
        boxId={runs.boxId}
        choose={runs.choose}
        onkey={runs.key}
        ondrop={runs.drop}
      />
    {/each}
    {#if runs.loose.length > 0}
      <LooseOutlets loose={runs.loose} {circuit} append={runs.append} appendAll={runs.appendAll} />
    {/if}
  </section>

  {#if circuit && run}
    <section class="side">
      <CircuitForm {run} />
      {#if run.stops.length > 0}
        <div class="sheet pad stack">
          <h2>Voltage drop along the run</h2>
          <Lazy height={260}><DropChart {run} dropLimit={settings.dropLimitPercent} /></Lazy>
        </div>
      {/if}
      <details
        class="sheet pad"
        open={runs.shows === 'curve'}
        ontoggle={(e) => {
          if (e.currentTarget.open !== (runs.shows === 'curve'))
            runs.showOnly(e.currentTarget.open ? 'curve' : null);
        }}
      >
        <summary>When the breaker opens</summary>
        {#if runs.shows === 'curve'}<TripChart
            rating={run.circuit.breaker.rating}
            currents={currentsOf(run, settings.conductorTemperature)}
          />{/if}
      </details>
      <Extension {run} findings={runs.findings} />
      {#if stop}
        <StopForm
          {run}
          {stop}
          circuits={runs.circuits}
          onmove={(id, to) => (to ? runs.append(id, to) : runs.takeOff(id))}
        />
      {/if}
      <div class="sheet">
        <FindingsList
          findings={runs.findings}
          apply={(fix) => applyFix(session, fix)}
          show={(f) => f.about.table === 'boxes' && runs.choose(circuit.id, f.about.id)}
        />
      </div>
      <ShopSettings />
    </section>
  {/if}
</main>

<style>
  main {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(22rem, 27rem);
    gap: 0.75rem;
    padding: 0.75rem;
    align-items: start;
    flex: 1;
  }
  .runs,
  .side {
    display: grid;
    gap: 0.75rem;
    min-width: 0;
    grid-template-columns: minmax(0, 1fr);
  }
  .bar {
    padding: 0.5rem 1rem;
  }
  .keys {
    flex: 8 1 16rem;
  }
  @media (min-width: 901px) {
    .side {
      position: sticky;
      top: 0.75rem;
      max-height: calc(100dvh - 1.5rem);
      overflow-y: auto;
    }
  }
  @media (max-width: 900px) {
    main {
      grid-template-columns: minmax(0, 1fr);
      padding: 0.5rem;
    }
  }
</style>
