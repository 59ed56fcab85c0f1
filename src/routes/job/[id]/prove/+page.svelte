<script lang="ts">
  import { onMount } from 'svelte';
  import { LockOutline } from 'flowbite-svelte-icons';
  import { tinykeys } from 'tinykeys';
  import { page } from '$app/state';
  import { rows } from '../../../../core/job/document.ts';
  import type { Reading } from '../../../../core/job/schema.ts';
  import { circuitState, readingsOf, validProof } from '../../../../core/records/proof.ts';
  import { judgeIn } from '../../../../core/records/report.ts';
  import { LAMP_BLIND_SPOTS } from '../../../../core/records/verdict.ts';
  import { isTyping } from '$lib/keys.ts';
  import Act from '$lib/parts/Act.svelte';
  import Choice from '$lib/parts/Choice.svelte';
  import Field from '$lib/parts/Field.svelte';
  import BoxWork from '$lib/parts/prove/BoxWork.svelte';
  import ProofForm from '$lib/parts/prove/ProofForm.svelte';
  import ReadingForm from '$lib/parts/prove/ReadingForm.svelte';
  import RecordTable from '$lib/parts/prove/RecordTable.svelte';
  import type { StopResult } from '$lib/parts/run/drawing.ts';
  import RunDrawing from '$lib/parts/run/RunDrawing.svelte';
  import { lastPerson, rememberPerson } from '$lib/readings.ts';
  import { useSession } from '$lib/store/session.svelte.ts';

  const session = useSession();
  const document = $derived(session.document);
  const circuits = $derived(rows(document.circuits).sort((a, b) => a.space - b.space));

  let chosenId = $state<string | null>(page.url.searchParams.get('circuit'));
  const circuit = $derived((chosenId !== null && document.circuits[chosenId]) || circuits[0] || null);
  const run = $derived(circuit && session.view.run(circuit));
  let at = $state(0);
  const index = $derived(Math.min(at, Math.max(0, (run?.stops.length ?? 1) - 1)));
  const stop = $derived(run?.stops[index] ?? null);

  const TABS = [
    { id: 'read', name: 'Readings' },
    { id: 'dead', name: 'Prove dead' },
    { id: 'work', name: 'In the box' },
  ] as const;
  let tab = $state<(typeof TABS)[number]['id']>('read');
  let by = $state(lastPerson());
  let stage = $state<Reading['stage']>('as-found');

  const power = $derived(circuit ? circuitState(document, circuit) : 'unproved');
  const POWER = {
    unproved: { sign: '?', words: 'No proof of dead on record' },
    dead: { sign: '✓', words: 'Dead, proved' },
    energized: { sign: '!', words: 'Power is on; earlier proofs are void' },
  };
  const proof = $derived(circuit && stop ? validProof(document, circuit.id, stop.box.id) : null);

  const recorded = $derived(
    (run?.stops ?? []).flatMap(({ box }) =>
      readingsOf(document, box.id)
        .filter((r) => !r.struck)
        .map(({ reading }) => ({ name: box.name, reading, verdict: judgeIn(session.view, reading) })),
    ),
  );
  /** The newest reading of each box, hung under its stop. */
  const results = $derived(
    Object.fromEntries(
      recorded.map(({ reading, verdict }): [string, StopResult] => [
        reading.boxId,
        { grade: verdict.grade, text: verdict.headline },
      ]),
    ),
  );

  function signed(name: string): string | null {
    by = name.trim().slice(0, 80);
    rememberPerson(by);
    return by === '' ? 'expected a name' : null;
  }

  function go(step: number) {
    const count = run?.stops.length ?? 0;
    if (count > 0) at = (index + step + count) % count;
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
            chosenId = id;
            at = 0;
          }}
        />
        <p class="state {power}" role="status">
          <span aria-hidden="true">{POWER[power].sign}</span>
          {POWER[power].words}
        </p>
      </div>
      <div class="sheet drawing">
        <RunDrawing
          {run}
          {results}
          upright={false}
          dropLimit={document.job.settings.dropLimitPercent}
          selected={stop?.box.id ?? null}
          onselect={(id) => (at = run.stops.findIndex((s) => s.box.id === id))}
        />
      </div>
      {#if recorded.length > 0}<RecordTable title="On record for {circuit.name}" {recorded} />{/if}
    </section>

    {#if stop}
      <section class="work">
        <div class="which">
          <Act big onclick={() => go(-1)} label="Box before">‹</Act>
          <div>
            <p class="box-name">{stop.box.name}</p>
            <p class="quiet">{stop.area.name} · box {index + 1} of {run.stops.length}</p>
          </div>
          <Act big kind="main" onclick={() => go(1)} label="Next box">Next ›</Act>
        </div>

        <div class="tabs" role="group" aria-label="Task">
          {#each TABS as t (t.id)}
            <button type="button" aria-pressed={tab === t.id} onclick={() => (tab = t.id)}>
              {t.name}{#if t.id === 'work' && !proof}<LockOutline
                  class="ml-1 inline h-5 w-5"
                  ariaLabel="locked"
                />{/if}
            </button>
          {/each}
        </div>

        <div class="sheet card">
          <Field label="Done by" value={by} commit={signed} placeholder="Your name" />
          {#key stop.box.id}
            {#if tab === 'read'}
              <ReadingForm box={stop.box} areaName={stop.area.name} {circuit} {stop} {by} bind:stage />
            {:else if tab === 'dead'}
              <ProofForm {circuit} {stop} {by} {proof} onproved={() => (tab = 'work')} />
            {:else}
              <BoxWork
                {run}
                {stop}
                {by}
                {proof}
                energized={power === 'energized'}
                onprove={() => (tab = 'dead')}
                onenergized={() => {
                  stage = 'as-left';
                  tab = 'read';
                }}
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
  .pick {
    display: grid;
    grid-template-columns: minmax(12rem, 20rem) 1fr;
    gap: 1rem;
    align-items: end;
    padding: 0.75rem 1rem;
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
    grid-template-columns: repeat(3, 1fr);
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
    .pick {
      grid-template-columns: minmax(0, 1fr);
      gap: 0.4rem;
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
