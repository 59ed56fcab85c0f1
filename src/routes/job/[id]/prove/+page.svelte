<script lang="ts">
  import { runOf } from '#core/circuits/run.ts';
  import { onMount } from 'svelte';
  import { LockOutline } from 'flowbite-svelte-icons';
  import { tinykeys } from 'tinykeys';
  import { circuitsInOrder } from '#core/job/document.ts';
  import type { Reading } from '#core/job/schema.ts';
  import { besideNeighbour, type AtStop } from '#core/diagnosis/besides.ts';
  import { devicesOn } from '#core/records/deviceTests.ts';
  import { stepsIn } from '#core/records/gates.ts';
  import { circuitState, readingsOf } from '#core/records/proof.ts';
  import { judgeIn } from '#core/handover/report.ts';
  import { sequenceOf, type Task } from '#core/records/sequence.ts';
  import { settingOf } from '#core/diagnosis/setting.ts';
  import { LAMP_BLIND_SPOTS } from '#core/diagnosis/verdict.ts';
  import { address } from '$lib/address.svelte.ts';
  import { isTyping } from '$lib/keys.ts';
  import Act from '$lib/parts/Act.svelte';
  import Choice from '$lib/parts/Choice.svelte';
  import ReadingsChart from '$lib/parts/charts/ReadingsChart.svelte';
  import Field from '$lib/parts/Field.svelte';
  import BoxWork from '$lib/parts/prove/BoxWork.svelte';
  import DeviceForm from '$lib/parts/prove/DeviceForm.svelte';
  import ProofForm from '$lib/parts/prove/ProofForm.svelte';
  import ReadingForm from '$lib/parts/prove/ReadingForm.svelte';
  import ReadingSettings from '$lib/parts/prove/ReadingSettings.svelte';
  import RecordTable from '$lib/parts/prove/RecordTable.svelte';
  import type { StopResult } from '$lib/parts/run/drawing.ts';
  import RunDrawing from '$lib/parts/run/RunDrawing.svelte';
  import { lastPerson, rememberPerson, today } from '$lib/readings.ts';
  import { Clock } from '$lib/clock.svelte.ts';
  import { energize } from '$lib/energizing.ts';
  import { circuitAsked } from '$lib/selection.ts';
  import { useSession } from '$lib/store/session.svelte.ts';

  const session = useSession();
  const document = $derived(session.document);
  const circuits = $derived(circuitsInOrder(document));

  const circuit = $derived(circuitAsked(session.view, address.get) ?? circuits[0] ?? null);
  const run = $derived(circuit && runOf(session.view, circuit));
  const index = $derived(Math.max(0, run?.stops.findIndex((s) => s.box.id === address.get('box')) ?? 0));
  const stop = $derived(run?.stops[index] ?? null);

  type Tab = 'read' | 'dead' | 'work' | 'device';
  let by = $state(lastPerson());
  let signing = $state(false);
  let stage = $state<Reading['stage']>('as-found');
  let half = $state<Reading['half']>('both');
  /** The breaker’s own device is tested with no box chosen. */
  const breakerDevice = $derived(address.oneOf('breaker', ['', 'gfci', 'afci']));

  const clock = new Clock();
  const now = $derived(clock.now(document));
  const power = $derived(circuit ? circuitState(document, circuit, now) : 'unproved');
  const POWER = {
    unproved: { sign: '?', words: 'No proof of dead holds' },
    dead: { sign: '✓', words: 'Dead, proved' },
    energized: { sign: '!', words: 'Power is on; earlier proofs are void' },
    measuring: { sign: '!!', words: 'Live to measure at an open box; not for work' },
  };
  /** What comes before the readings, by how the circuit stands. */
  const POWER_STEP = {
    unproved: 'Prove it dead first',
    dead: 'Boxes closed: power is back on',
    measuring: 'Lock out, prove it dead again',
    energized: '',
  };
  const opened = $derived(run && stop ? stepsIn(document, run, stop, now) : null);
  const proof = $derived(opened?.open ? opened.proof : null);

  const standing = $derived(
    (run?.stops ?? []).map(({ box }) =>
      readingsOf(document, box.id)
        .filter((r) => !r.struck)
        .map((r) => r.reading),
    ),
  );
  const judged = $derived<AtStop[][]>(
    standing.map((list) => list.map((reading) => ({ reading, verdict: judgeIn(session.view, reading) }))),
  );
  const recorded = $derived(
    judged.flatMap((list, i) => list.map((one) => ({ name: run!.stops[i]!.box.name, ...one }))),
  );
  const newest = $derived(judged.map((list) => list.at(-1) ?? null));
  /** The newest reading of each box, hung under its stop. */
  const results = $derived(
    Object.fromEntries(
      newest.flatMap((n, i): [string, StopResult][] =>
        n
          ? [
              [
                run!.stops[i]!.box.id,
                { grade: n.verdict.grade, text: n.verdict.headline, volts: voltsOf(n.reading) },
              ],
            ]
          : [],
      ),
    ),
  );
  const voltsOf = (r: Reading) => {
    const volts = r.hotHot ?? r.hotNeutral ?? r.hotGround;
    return volts === null ? '' : `${volts} V`;
  };

  const tasks = $derived(run ? sequenceOf(document, run) : []);
  const open = $derived(tasks.filter((t) => !t.done));
  const next = $derived(open[0] ?? null);
  const devices = $derived(run ? devicesOn(document, run, today()) : []);
  const device = $derived(
    devices.find((d) =>
      breakerDevice ? d.box === null && d.kind === breakerDevice : stop && d.box?.id === stop.box.id,
    ) ?? null,
  );
  const tabs = $derived<{ id: Tab; name: string }[]>([
    { id: 'read', name: 'Readings' },
    ...(device ? [{ id: 'device' as const, name: `${device.kind.toUpperCase()} test` }] : []),
    { id: 'dead', name: 'Prove dead' },
    { id: 'work', name: 'In the box' },
  ]);
  const shownTab = $derived(tabs.find((t) => t.id === address.get('tab'))?.id ?? 'read');
  let said = $state('');

  function signed(name: string): string | null {
    by = name.trim().slice(0, 80);
    signing = by === '';
    rememberPerson(by);
    return by === '' ? 'expected a name' : null;
  }

  /** A box of the circuit by its place on the run, or the device in its breaker. */
  function choose(at: number, tab: Tab = shownTab, breaker: 'gfci' | 'afci' | null = null) {
    const box = run?.stops[at]?.box.id;
    address.choose({ circuit: circuit!.id, ...(box && { box }) }, { tab, breaker });
    said = '';
  }
  const showTab = (tab: Tab) => address.show({ tab });
  function go(step: number) {
    const count = run?.stops.length ?? 0;
    if (count > 0) choose((index + step + count) % count);
  }

  /** Puts a task of the sequence before the hands. */
  function take(task: Task) {
    said = '';
    if (task.kind === 'power') {
      if (power === 'dead') void powerIsOn();
      else showTab('dead');
      return;
    }
    const at = Math.max(0, task.stop);
    if (task.kind === 'device') return choose(at, 'device', task.stop < 0 ? task.device : null);
    choose(at, 'read');
    stage = 'as-left';
    half = task.kind === 'read' ? task.half : 'both';
  }
  const nameOf = (task: Task) =>
    task.stop < 0
      ? task.kind === 'power'
        ? task.title
        : `${task.title}, breaker`
      : `${run!.stops[task.stop]!.box.name}: ${task.title.replace(/^[A-Z](?=[a-z])/, (c) => c.toLowerCase())}`;
  /** After a step is logged the next one is put forward, while the sequence is being walked. */
  function logged() {
    if (stage === 'as-left' && next && next.kind !== 'power') take(next);
  }

  /** Puts on record that power is on: after a proof of dead, or because it was never off. */
  async function powerIsOn() {
    said = await energize(session, circuit!.id, by, 'use');
  }

  onMount(() => {
    const unless = (work: () => void) => (e: KeyboardEvent) => {
      if (!isTyping(e)) work();
    };
    return tinykeys(window, { '[': unless(() => go(-1)), ']': unless(() => go(1)) });
  });
</script>

<main>
  <h1 class="sr-only">Prove</h1>
  {#if !circuit || !run}
    <div class="sheet empty">
      <p><strong>No circuits to prove yet.</strong></p>
      <Act kind="main" href="/job/{session.jobId}/runs">Go to Runs</Act>
    </div>
  {:else}
    <section class="top">
      <div class="pick sheet">
        <Choice
          label="Circuit"
          value={circuit.id}
          options={circuits.map((c) => ({ value: c.id, name: `${c.space} · ${c.name}` }))}
          set={(id) => {
            address.choose({ circuit: id }, { breaker: null });
            said = '';
          }}
        />
        <p class="state {power}" role="status">
          <span aria-hidden="true">{POWER[power].sign}</span>
          {POWER[power].words}
        </p>
        <div class="links">
          <Act href="/job/{session.jobId}/prove/readings">All readings</Act>
          <Act href="/job/{session.jobId}/prove/register">Device register</Act>
        </div>
      </div>
      <div class="sheet drawing">
        <RunDrawing
          {run}
          {results}
          upright={false}
          dropLimit={document.job.settings.dropLimitPercent}
          selected={stop?.box.id ?? null}
          onselect={(id) => choose(run.stops.findIndex((s) => s.box.id === id))}
        />
      </div>
      {#if run.stops.length > 0}
        <div class="sheet chart">
          <ReadingsChart
            {run}
            readings={standing}
            settingOf={(i) => settingOf(session.view, run.stops[i]!.box)}
          />
        </div>
      {/if}
      {#if recorded.length > 0}<RecordTable title="On record for {circuit.name}" {recorded} />{/if}
      <ReadingSettings />
      <div class="late">
        <Act href="/job/{session.jobId}/prove/readings">All readings</Act>
        <Act href="/job/{session.jobId}/prove/register">Device register</Act>
      </div>
    </section>

    {#if stop}
      <section class="work">
        <details class="sheet sequence">
          <summary>
            {#if next}
              <span class="count">{tasks.length - open.length} of {tasks.length} done</span>
              <strong>Next: {nameOf(next)}</strong>
            {:else}
              <strong class="good">✓ Proved: all {tasks.length} steps are on record</strong>
            {/if}
          </summary>
          <ol>
            {#each tasks as task, i (i)}
              <li class:done={task.done}>
                <button type="button" onclick={() => take(task)}>
                  <span aria-hidden="true">{task.done ? '✓' : i + 1}</span>
                  <span>
                    <strong>{nameOf(task)}</strong>{task.done ? ', done' : ''}
                    <span class="quiet">{task.what}</span>
                  </span>
                </button>
              </li>
            {/each}
          </ol>
          <p class="quiet">
            Test one outlet beyond the end as well: that it is on another circuit proves how far this one
            goes.
          </p>
        </details>
        {#if next}
          <div class="row">
            <Act kind="main" big onclick={() => take(next)}
              >{next.kind === 'power' ? POWER_STEP[power] : nameOf(next)}</Act
            >
            {#if next.kind === 'power' && power === 'unproved'}
              <Act big onclick={powerIsOn}>Power was never off</Act>
            {/if}
          </div>
          {#if said}<p class="wrong" role="alert">{said}</p>{/if}
        {/if}
        <div class="which">
          <Act big onclick={() => go(-1)} label="Box before">‹</Act>
          <div>
            <p class="box-name">{breakerDevice ? 'Breaker' : stop.box.name}</p>
            <p class="quiet">
              {breakerDevice
                ? `space ${circuit.space}`
                : `${stop.area.name} · box ${index + 1} of ${run.stops.length}`}
            </p>
          </div>
          <Act big kind="main" onclick={() => go(1)} label="Next box">Next ›</Act>
        </div>

        <div class="tabs" role="group" aria-label="Task" style:--tabs={tabs.length}>
          {#each tabs as t (t.id)}
            <button type="button" aria-pressed={shownTab === t.id} onclick={() => showTab(t.id)}>
              {t.name}{#if t.id === 'work' && !proof}<LockOutline
                  class="ml-1 inline h-5 w-5"
                  ariaLabel="locked"
                />{/if}
            </button>
          {/each}
        </div>

        <div class="sheet card">
          {#if by === '' || signing}
            <Field label="Done by" value={by} commit={signed} placeholder="Your name" />
          {:else}
            <p class="by">
              Done by <strong>{by}</strong>
              <button type="button" class="link" onclick={() => (signing = true)}>change</button>
            </p>
          {/if}
          {#key `${stop.box.id} ${breakerDevice}`}
            {#if shownTab === 'device' && device}
              <DeviceForm {device} {by} onrecorded={logged} />
            {:else if shownTab === 'read'}
              <ReadingForm
                box={stop.box}
                areaName={stop.area.name}
                {circuit}
                {by}
                bind:stage
                bind:half
                beside={besideNeighbour(run, newest, index)}
                onlogged={logged}
              />
            {:else if shownTab === 'dead'}
              <ProofForm {stop} {by} {proof} onproved={() => showTab('work')} />
            {:else if opened}
              <BoxWork
                {run}
                {stop}
                {by}
                {opened}
                {power}
                onprove={() => showTab('dead')}
                onenergized={(purpose) => {
                  stage = purpose === 'use' ? 'as-left' : 'as-found';
                  showTab('read');
                }}
              />
            {/if}
          {/key}
        </div>
        {#if shownTab === 'read'}<p class="quiet">{LAMP_BLIND_SPOTS}</p>{/if}
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
  .pick {
    display: grid;
    grid-template-columns: minmax(12rem, 20rem) 1fr;
    gap: 0.6rem 1rem;
    align-items: end;
    padding: 0.75rem 1rem;
  }
  .links {
    grid-column: 1 / -1;
  }
  .links,
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
  }
  .late {
    display: none;
    gap: 0.5rem;
  }
  .by {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.4rem;
  }
  .link {
    min-height: 44px;
    padding: 0 0.5rem;
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  .chart {
    padding: 0.6rem 1rem 0.8rem;
  }
  .sequence {
    padding: 0.4rem 0.9rem;
  }
  .sequence summary {
    min-height: 2.6rem;
    font-size: 1.1rem;
  }
  .sequence .count {
    color: var(--quiet);
    margin-right: 0.5rem;
  }
  .sequence li button {
    display: grid;
    grid-template-columns: 2rem 1fr;
    width: 100%;
    text-align: left;
    min-height: 48px;
    padding: 0.35rem 0;
    border-top: 1px solid var(--rule);
  }
  .sequence li .quiet {
    display: block;
    font-size: 0.95rem;
  }
  .sequence .done {
    color: var(--good);
  }
  .good {
    color: var(--good);
  }
  .wrong {
    color: var(--bad);
    font-weight: 700;
  }
  .drawing {
    padding: 0.5rem;
    overflow: hidden;
  }
  .state {
    font-weight: 700;
    padding: 0.4rem 0.75rem;
    border-left: 6px solid var(--edge);
  }
  .state.dead {
    border-color: var(--good);
    color: var(--good);
  }
  .state.measuring {
    border-color: var(--bad);
    color: var(--bad);
  }
  .state.energized {
    border-color: var(--warn);
    color: var(--warn);
  }
  .which {
    display: grid;
    grid-template-columns: auto 1fr auto;
    gap: 0.75rem;
    align-items: center;
    text-align: center;
  }
  .box-name {
    font-size: 2rem;
    font-weight: 800;
    line-height: 1;
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
    .pick {
      grid-template-columns: minmax(0, 1fr);
      gap: 0.4rem;
      order: -2;
      padding: 0.5rem;
    }
    .work {
      order: -1;
    }
  }
  /* The hands come first: circuit and state in a line, then what to do; back and next at the thumb. */
  @media (max-width: 760px) {
    .pick {
      grid-template-columns: minmax(0, 1fr) auto;
      align-items: center;
    }
    .pick :global(label) {
      position: absolute;
      width: 1px;
      height: 1px;
      overflow: hidden;
      clip-path: inset(50%);
    }
    .state {
      max-width: 9rem;
      font-size: 0.95rem;
      line-height: 1.2;
    }
    .links {
      display: none;
    }
    .work {
      gap: 0.5rem;
    }
    .row > :global(*) {
      flex: 1 1 auto;
    }
    .sequence {
      order: 9;
    }
    .which {
      position: fixed;
      z-index: 5;
      inset: auto 0 0 0;
      padding: 0.4rem 0.5rem calc(0.4rem + env(safe-area-inset-bottom));
      background: var(--sheet);
      border-top: 2px solid var(--edge);
    }
    main {
      padding-bottom: 6rem;
    }
    .late {
      display: flex;
    }
  }
  @media (max-width: 520px) {
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
