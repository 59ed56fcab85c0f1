<script lang="ts">
  import { onMount } from 'svelte';
  import LockOutline from 'flowbite-svelte-icons/LockOutline.svelte';
  import { tinykeys } from 'tinykeys';
  import { fullLoad } from '#core/circuits/run.ts';
  import { besideNeighbor, heatBeside } from '#core/diagnosis/besides.ts';
  import { settingOf } from '#core/diagnosis/setting.ts';
  import { LAMP_BLIND_SPOTS } from '#core/diagnosis/verdict.ts';
  import { isTyping } from '$lib/keys.ts';
  import Act from '$lib/parts/Act.svelte';
  import ReadingsChart from '$lib/parts/charts/ReadingsChart.svelte';
  import InTheBox from '$lib/parts/boxes/InTheBox.svelte';
  import BoxBar from '$lib/parts/prove/BoxBar.svelte';
  import BoxWork from '$lib/parts/prove/BoxWork.svelte';
  import CircuitBar from '$lib/parts/prove/CircuitBar.svelte';
  import DeviceForm from '$lib/parts/prove/DeviceForm.svelte';
  import DoneBy from '$lib/parts/prove/DoneBy.svelte';
  import Measure from '$lib/parts/prove/Measure.svelte';
  import PowerBack from '$lib/parts/prove/PowerBack.svelte';
  import ProofForm from '$lib/parts/prove/ProofForm.svelte';
  import ReadingForm from '$lib/parts/prove/ReadingForm.svelte';
  import ReadingSettings from '$lib/parts/prove/ReadingSettings.svelte';
  import RecordTable from '$lib/parts/prove/RecordTable.svelte';
  import Sequence from '$lib/parts/prove/Sequence.svelte';
  import RunDrawing from '$lib/parts/run/RunDrawing.svelte';
  import { useSession } from '$lib/store/session.svelte.ts';
  import { Proving } from './proving.svelte.ts';

  const session = useSession();
  const prove = new Proving(() => session);
  const { circuit, run, stop, next, power, opened, device, tab } = $derived(prove);

  /** What comes before the readings, by how the circuit stands. */
  const POWER_STEP = {
    unproved: 'Prove it dead first',
    dead: 'Boxes closed: power is back on',
    measuring: 'Lock out, prove it dead again',
    energized: '',
  };

  onMount(() => {
    const unless = (work: () => void) => (e: KeyboardEvent) => {
      if (!isTyping(e)) work();
    };
    return tinykeys(window, { '[': unless(() => prove.go(-1)), ']': unless(() => prove.go(1)) });
  });
</script>

{#snippet links()}
  <Act href="/job/{session.jobId}/prove/readings">All readings</Act>
  <Act href="/job/{session.jobId}/prove/register">Device register</Act>
  {#if circuit && stop && prove.results[stop.box.id]?.grade === 'bad'}
    <Act kind="main" href="/job/{session.jobId}/hunt?circuit={circuit.id}&box={stop.box.id}"
      >Hunt the fault at {stop.box.name}</Act
    >
  {/if}
{/snippet}

<main>
  <h1 class="sr-only">Prove</h1>
  {#if !circuit || !run}
    <div class="sheet empty">
      <p><strong>No circuits to prove yet.</strong></p>
      <p>Every step here belongs to a circuit: its boxes, its breaker, its readings.</p>
      <Act kind="main" big href="/job/{session.jobId}/runs">Add a circuit in Runs</Act>
    </div>
  {:else}
    <section class="top">
      <CircuitBar {circuit} circuits={prove.circuits} {power} choose={prove.chooseCircuit} {links} />
      <div class="sheet drawing">
        <RunDrawing
          {run}
          results={prove.results}
          upright={false}
          dropLimit={session.document.job.settings.dropLimitPercent}
          selected={stop?.box.id ?? null}
          onselect={prove.chooseBox}
        />
      </div>
      {#if run.stops.length > 0}
        <div class="sheet chart">
          <ReadingsChart
            {run}
            readings={prove.standing}
            settingOf={(i) => settingOf(session.view, run.stops[i]!.box)}
          />
        </div>
      {/if}
      {#if prove.recorded.length > 0}
        <RecordTable title="On record for {circuit.name}" recorded={prove.recorded} />
      {/if}
      <ReadingSettings />
      <div class="late">{@render links()}</div>
    </section>

    {#if stop}
      <section class="work">
        <Sequence tasks={prove.tasks} nameOf={prove.nameOf} take={prove.take} />
        {#if next}
          <div class="row">
            {#if next.kind === 'power' && power === 'dead'}
              <PowerBack {circuit} by={prove.by} purpose="use" kind="main" label={POWER_STEP[power]} />
            {:else}
              <Act kind="main" big onclick={() => prove.take(next)}
                >{next.kind === 'power' ? POWER_STEP[power] : prove.nameOf(next)}</Act
              >
            {/if}
            {#if next.kind === 'power' && power === 'unproved'}
              <PowerBack {circuit} by={prove.by} purpose="use" label="Power was never off" />
            {/if}
          </div>
        {/if}
        <BoxBar
          name={prove.breakerDevice ? 'Breaker' : stop.box.name}
          where={prove.breakerDevice
            ? `space ${circuit.space}`
            : `${stop.area.name} · box ${prove.index + 1} of ${run.stops.length}`}
          go={prove.go}
        />
        {#if !prove.breakerDevice}<InTheBox boxId={stop.box.id} />{/if}
        <div class="tabs" role="group" aria-label="Task" style:--tabs={prove.tabs.length}>
          {#each prove.tabs as t (t.id)}
            <button type="button" aria-pressed={tab === t.id} onclick={() => prove.show(t.id)}>
              {t.name}{#if t.id === 'work' && !prove.proof}<LockOutline
                  class="ml-1 inline h-5 w-5"
                  ariaLabel="locked"
                />{/if}
            </button>
          {/each}
        </div>
        <div class="sheet card">
          <DoneBy by={prove.by} sign={prove.sign} />
          {#key `${stop.box.id} ${prove.breakerDevice}`}
            {#if tab === 'device' && device}
              <DeviceForm {device} by={prove.by} onrecorded={prove.logged} />
            {:else if tab === 'read'}
              <ReadingForm
                box={stop.box}
                areaName={stop.area.name}
                {circuit}
                by={prove.by}
                bind:stage={prove.stage}
                bind:half={prove.half}
                beside={besideNeighbor(run, prove.newest, prove.index)}
                heat={heatBeside(run, prove.newest, prove.index, fullLoad(run.circuit))}
                onlogged={prove.logged}
              />
            {:else if tab === 'measure'}
              <Measure {run} stop={prove.index} by={prove.by} />
            {:else if tab === 'dead'}
              <ProofForm {stop} by={prove.by} proof={prove.proof} onproved={() => prove.show('work')} />
            {:else if opened}
              <BoxWork
                {run}
                {stop}
                by={prove.by}
                {opened}
                {power}
                onprove={() => prove.show('dead')}
                onenergized={prove.energized}
              />
            {/if}
          {/key}
        </div>
        {#if tab === 'read'}<p class="quiet">{LAMP_BLIND_SPOTS}</p>{/if}
      </section>
    {:else}
      <div class="sheet empty"><p>No boxes on this circuit yet. Put outlets on it in Runs.</p></div>
    {/if}
  {/if}
</main>

<style>
  main {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(24rem, 32rem);
    gap: 0.75rem;
    padding: 0.75rem;
    align-items: start;
    flex: 1;
  }
  .top,
  .work {
    display: grid;
    gap: 0.75rem;
    min-width: 0;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
  }
  .late {
    display: none;
    gap: 0.5rem;
  }
  .chart {
    padding: 0.6rem 1rem 0.8rem;
  }
  .drawing {
    padding: 0.5rem;
    overflow: hidden;
  }
  .tabs {
    display: grid;
    grid-template-columns: repeat(var(--tabs), 1fr);
  }
  .tabs button {
    min-height: 48px;
    border: 1px solid var(--edge);
    margin-right: -1px;
    background: var(--sheet);
    font-weight: 700;
  }
  .tabs button[aria-pressed='true'] {
    background: var(--ink);
    color: var(--sheet);
  }
  .card {
    display: grid;
    gap: 0.9rem;
    padding: 1rem;
  }
  .card :global(.caution) {
    border-left: 6px solid var(--warn);
    background: var(--panel);
    padding: 0.5rem 0.75rem;
  }
  .empty {
    padding: 3rem 1rem;
    text-align: center;
    display: grid;
    gap: 0.75rem;
    justify-items: center;
  }
  @media (max-width: 900px) {
    main {
      grid-template-columns: minmax(0, 1fr);
      padding: 0.5rem;
    }
    .top {
      display: contents;
    }
    .work {
      order: -1;
    }
  }
  /* The hands come first: circuit and state in a line, then what to do; back and next at the thumb. */
  @media (max-width: 760px) {
    main {
      padding-bottom: 6rem;
    }
    .work {
      gap: 0.5rem;
    }
    .row > :global(*) {
      flex: 1 1 auto;
    }
    .late {
      display: flex;
    }
  }
  @media (max-width: 520px) {
    .tabs button {
      font-size: 0.95rem;
    }
    .work :global(button) {
      min-height: 48px;
    }
    .work :global(input:not([type='checkbox'])) {
      min-height: 48px;
      font-size: 1.25rem;
    }
    .work :global(.volts input:not([type='checkbox'])) {
      font-size: 1.75rem;
    }
  }
</style>
