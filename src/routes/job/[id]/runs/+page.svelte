<script lang="ts">
  import { appendAllToCircuit, appendToCircuit, newCircuit, putOnCircuit } from '#core/panel/add.ts';
  import { runOf } from '#core/circuits/run.ts';
  import { onMount, tick } from 'svelte';
  import { circuitsInOrder, rows } from '#core/job/document.ts';
  import type { Circuit } from '#core/job/schema.ts';
  import { formatFeet } from '#core/units/length.ts';
  import { isSmallReceptacle } from '#core/plan/wallSpaces.ts';
  import { round } from '#core/units/quantity.ts';
  import { actions } from '$lib/actions.svelte.ts';
  import { address } from '$lib/address.svelte.ts';
  import { circuitAsked } from '$lib/selection.ts';
  import { applyFix } from '$lib/fixes.ts';
  import Act from '$lib/parts/Act.svelte';
  import Lazy from '$lib/parts/Lazy.svelte';
  import FindingsList from '$lib/parts/FindingsList.svelte';
  import RunDrawing from '$lib/parts/run/RunDrawing.svelte';
  import DropChart from '$lib/parts/charts/DropChart.svelte';
  import TripChart from '$lib/parts/charts/TripChart.svelte';
  import CircuitForm from '$lib/parts/runs/CircuitForm.svelte';
  import Extension from '$lib/parts/runs/Extension.svelte';
  import Planner from '$lib/parts/runs/Planner.svelte';
  import ShopSettings from '$lib/parts/runs/ShopSettings.svelte';
  import StopForm from '$lib/parts/runs/StopForm.svelte';
  import { useSession } from '$lib/store/session.svelte.ts';

  const session = useSession();
  const document = $derived(session.document);
  const settings = $derived(document.job.settings);
  const circuits = $derived(circuitsInOrder(document));

  const boxId = $derived(address.get('box'));
  const shows = $derived(address.get('open'));
  const circuit = $derived(circuitAsked(session.view, address.get) ?? circuits[0] ?? null);
  const run = $derived(circuit && runOf(session.view, circuit));
  const stop = $derived(run?.stops.find((s) => s.box.id === boxId) ?? null);
  const loose = $derived(
    rows(document.boxes).filter((b) => b.status !== 'remove' && !session.view.circuitOf(b.id)),
  );
  const findings = $derived(
    session.findings?.filter(
      (f) => f.about.id === circuit?.id || run?.stops.some((s) => s.box.id === f.about.id),
    ) ?? null,
  );

  const choose = (id: string, box?: string) => address.choose({ circuit: id, ...(box && { box }) });
  const showOnly = (open: string | null) => address.show({ open });

  async function addCircuit() {
    const panel = (circuit && document.panels[circuit.panelId]) ?? rows(document.panels)[0];
    if (!panel) return;
    const added = newCircuit(document, panel);
    if (!added.ok) session.problems = [{ path: 'space', message: added.message }];
    else if (await session.execute({ type: 'put', table: 'circuits', rows: [added.value] }))
      choose(added.value.id);
  }

  const moveTo = (id: string, circuitId: string | null, after: string | null, branch = false) =>
    session.execute(putOnCircuit(document, id, circuitId, after, branch));
  const append = (id: string, to: Circuit) => session.execute(appendToCircuit(document, id, to));
  const appendAll = (to: Circuit) =>
    session.execute(
      appendAllToCircuit(
        document,
        loose.map((b) => b.id),
        to,
      ),
    );

  async function key(event: KeyboardEvent, id: string) {
    const home = session.view.circuitOf(id);
    if (!event.altKey || !home) return;
    const i = home.stops.findIndex((s) => s.boxId === id);
    const c = circuits.indexOf(home);
    event.preventDefault();
    const feed = (from: string | null | undefined) =>
      from && session.execute({ type: 'feed-stop', boxId: id, from });
    const { from } = home.stops[i]!;
    if (event.shiftKey && event.key === 'ArrowLeft')
      await feed(home.stops.find((s) => s.boxId === from)?.from);
    else if (event.shiftKey && event.key === 'ArrowRight')
      await feed(home.stops.slice(0, i).findLast((s) => s.from === from && s.boxId !== id)?.boxId);
    else if (event.key === 'ArrowLeft' && i > 0) await moveTo(id, home.id, home.stops[i - 2]?.boxId ?? null);
    else if (event.key === 'ArrowRight' && i < home.stops.length - 1)
      await moveTo(id, home.id, home.stops[i + 1]!.boxId);
    else if (event.key === 'ArrowUp' && circuits[c - 1]) await append(id, circuits[c - 1]!);
    else if (event.key === 'ArrowDown' && circuits[c + 1]) await append(id, circuits[c + 1]!);
    else return;
    // The stop keeps the focus wherever it went.
    await tick();
    window.document.querySelector<SVGGElement>(`[data-stop="${document.boxes[id]?.name}"]`)?.focus();
  }

  onMount(() => {
    if (circuit && circuit !== circuits[0])
      window.document.querySelector(`[data-circuit="${circuit.id}"]`)?.scrollIntoView({ block: 'center' });
  });
  onMount(() =>
    actions.offer(() => [
      {
        id: 'plan-circuits',
        name: 'Plan circuits',
        hint: 'Runs',
        words: 'planner group breakers cable optimise homeruns',
        run: () => showOnly('planner'),
      },
      { id: 'add-circuit', name: 'Add a circuit', hint: 'Runs', words: 'new breaker', run: addCircuit },
      ...(stop && run && circuit
        ? [
            ...run.stops
              .filter((s) => s.box.id !== stop.box.id && stop.feeder >= 0)
              .map((s) => ({
                id: `feed-${s.box.id}`,
                name: `Feed ${stop.box.name} from ${s.box.name}`,
                hint: 'Runs',
                words: 'branch tree splice',
                run: () => session.execute({ type: 'feed-stop', boxId: stop.box.id, from: s.box.id }),
              })),
            ...circuits
              .filter((c) => c.id !== circuit.id)
              .map((c) => ({
                id: `to-${c.id}`,
                name: `Move ${stop.box.name} to ${c.name}`,
                hint: 'Runs',
                words: 'circuit',
                run: () => append(stop.box.id, c),
              })),
            {
              id: 'off-circuit',
              name: `Take ${stop.box.name} off its circuit`,
              hint: 'Runs',
              words: 'remove loose',
              run: () => moveTo(stop.box.id, null, null),
            },
          ]
        : []),
    ]),
  );

  /**
   * A stop let go over a run: on a box it becomes a branch of that box, elsewhere it goes after the last stop to the
   * left of that point.
   */
  function drop(id: string, x: number, y: number) {
    const target = window.document
      .elementsFromPoint(x, y)
      .map((e) => e.closest<HTMLElement>('[data-circuit]'))
      .find(Boolean);
    const to = target && document.circuits[target.dataset.circuit ?? ''];
    if (!target || !to) return;
    let after: string | null = null;
    for (const s of to.stops) {
      if (s.boxId === id) continue;
      const name = document.boxes[s.boxId]?.name;
      const at = target.querySelector(`[data-stop="${name}"] .body`)?.getBoundingClientRect();
      if (!at) continue;
      const [cx, cy] = [at.left + at.width / 2, at.top + at.height / 2];
      if (Math.abs(cx - x) <= at.width / 2 && Math.abs(cy - y) <= at.height / 2)
        return void moveTo(id, to.id, s.boxId, true);
      if (cx < x) after = s.boxId;
    }
    void moveTo(id, to.id, after);
  }
</script>

<main>
  <section class="runs">
    <div class="bar sheet">
      <h1>Runs</h1>
      <span class="quiet"
        >Drag a box along its run, to another run, or onto a box to branch off it. Keys: Alt with arrows, with
        Shift to branch.</span
      >
      <Act
        onclick={() => showOnly(shows === 'planner' ? null : 'planner')}
        disabled={rows(document.panels).length === 0}>Plan circuits</Act
      >
      <Act kind="main" onclick={addCircuit} disabled={rows(document.panels).length === 0}>Add circuit</Act>
    </div>
    {#if shows === 'planner'}<Planner close={() => showOnly(null)} />{/if}
    {#if circuits.length === 0}
      <div class="sheet empty">
        <p><strong>No circuits yet.</strong></p>
        <p>Add one, then put outlets on it. The run draws itself from breaker to last box.</p>
      </div>
    {/if}
    {#each circuits as c (c.id)}
      {@const r = runOf(session.view, c)}
      <article class="sheet" class:chosen={c.id === circuit?.id}>
        <button type="button" class="title" aria-pressed={c.id === circuit?.id} onclick={() => choose(c.id)}>
          <strong>{c.name}</strong>
          <span class="quiet">
            {formatFeet(r.installed)} installed, {formatFeet(r.toBuy)} to buy · {round(r.plannedAmps, 1)} A planned{r.stops.some(
              (s) => isSmallReceptacle(s.box) && s.box.serves === null,
            )
              ? `, ${settings.vaPerReceptacle} VA an outlet`
              : ''}
          </span>
        </button>
        <Lazy height={260}>
          <RunDrawing
            run={r}
            dropLimit={settings.dropLimitPercent}
            selected={boxId}
            onselect={(id) => choose(c.id, id)}
            onkey={key}
            ondrop={drop}
          />
        </Lazy>
      </article>
    {/each}
    {#if loose.length > 0}
      <div class="sheet pad">
        <h2>On no circuit yet</h2>
        <div class="loose">
          {#each loose as b (b.id)}
            <Act
              disabled={!circuit}
              onclick={() => circuit && append(b.id, circuit)}
              label="Put {b.name} on {circuit?.name ?? 'a circuit'}"
            >
              {b.name} <span class="quiet">{document.areas[b.areaId]?.name ?? ''}</span>
            </Act>
          {/each}
          {#if circuit}<Act kind="main" onclick={() => appendAll(circuit)}
              >Put all {loose.length} on {circuit.name}</Act
            >{/if}
        </div>
        <p class="quiet small">
          A tap puts the outlet at the end of {circuit
            ? `“${circuit.name}”`
            : 'a circuit, once there is one'}.
        </p>
      </div>
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
        open={shows === 'curve'}
        ontoggle={(e) => {
          if (e.currentTarget.open !== (shows === 'curve')) showOnly(e.currentTarget.open ? 'curve' : null);
        }}
      >
        <summary>When the breaker opens</summary>
        {#if shows === 'curve'}<TripChart {run} celsius={settings.conductorTemperature} />{/if}
      </details>
      <Extension {run} {findings} />
      {#if stop}
        <StopForm
          {run}
          {stop}
          {circuits}
          onmove={(id, to) => (to ? append(id, to) : moveTo(id, null, null))}
        />
      {/if}
      <div class="sheet">
        <FindingsList
          {findings}
          apply={(fix) => applyFix(session, fix)}
          show={(f) => f.about.table === 'boxes' && choose(circuit.id, f.about.id)}
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
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.5rem 1rem;
    padding: 0.5rem 1rem;
  }
  .bar span {
    flex: 1;
  }
  .empty {
    padding: 3rem 1rem;
    text-align: center;
  }
  article.chosen {
    border-top-color: var(--accent);
  }
  .title {
    display: flex;
    flex-wrap: wrap;
    gap: 0 1rem;
    align-items: baseline;
    width: 100%;
    padding: 0.5rem 1rem 0;
    text-align: left;
    min-height: 40px;
  }
  .title strong {
    font-size: 1.15rem;
  }
  .loose {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    margin: 0.5rem 0;
  }
  .small {
    font-size: 0.92rem;
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
