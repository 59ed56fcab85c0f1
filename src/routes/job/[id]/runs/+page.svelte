<script lang="ts">
  import { page } from '$app/state';
  import { newId, rows } from '../../../../core/job/document.ts';
  import type { Circuit, Stop } from '../../../../core/job/schema.ts';
  import { decisionsFor } from '../../../../core/code/decisions.ts';
  import { describePlanned, dropAt } from '../../../../core/circuits/run.ts';
  import { equipmentGround, sizeCircuit, type SizingInput } from '../../../../core/circuits/sizing.ts';
  import { formatFeet, formatLength } from '../../../../core/units/length.ts';
  import { round } from '../../../../core/units/quantity.ts';
  import { applyFix } from '$lib/fixes.ts';
  import Act from '$lib/parts/Act.svelte';
  import Choice from '$lib/parts/Choice.svelte';
  import Decisions from '$lib/parts/Decisions.svelte';
  import Field from '$lib/parts/Field.svelte';
  import FindingsList from '$lib/parts/FindingsList.svelte';
  import LengthField from '$lib/parts/LengthField.svelte';
  import NumberField from '$lib/parts/NumberField.svelte';
  import RunDrawing from '$lib/parts/RunDrawing.svelte';
  import {
    BREAKER_OPTIONS,
    CABLE_OPTIONS,
    GAUGE_OPTIONS,
    MATERIAL_OPTIONS,
    PROTECTION_OPTIONS,
    STATUS_OPTIONS,
  } from '$lib/names.ts';
  import { useSession } from '$lib/store/session.svelte.ts';

  const session = useSession();
  const document = $derived(session.document);
  const settings = $derived(document.job.settings);
  const circuits = $derived(
    rows(document.circuits).sort((a, b) => a.panelId.localeCompare(b.panelId) || a.space - b.space),
  );

  let chosenId = $state<string | null>(page.url.searchParams.get('circuit'));
  let boxId = $state<string | null>(null);
  const circuit = $derived((chosenId !== null && document.circuits[chosenId]) || circuits[0] || null);
  const run = $derived(circuit && session.view.run(circuit));
  const stop = $derived(run?.stops.find((s) => s.box.id === boxId) ?? null);
  const loose = $derived(
    rows(document.boxes).filter((b) => b.status !== 'remove' && !session.view.circuitOf(b.id)),
  );
  const findings = $derived(
    session.findings?.filter(
      (f) => f.about.id === circuit?.id || run?.stops.some((s) => s.box.id === f.about.id),
    ) ?? null,
  );

  /** The sizing that the circuit's own numbers lead to, with its working. */
  const sizing = $derived.by(() => {
    if (!circuit || !run) return null;
    const input: SizingInput = {
      edition: document.job.edition,
      continuousAmps: 0,
      noncontinuousAmps: circuit.breaker.rating * 0.8,
      volts: settings.voltage,
      material: circuit.material,
      method: circuit.cable === 'UF-B' ? 'UF-B' : 'NM-B',
      insulation: 90,
      terminalRating: settings.terminalRating === 75 ? 75 : 60,
      ambientCelsius: 30,
      currentCarrying: 2,
      severalReceptacles: run.stops.length > 1,
      feet: (run.end?.distance ?? 0) / 12,
      conductorCelsius: settings.conductorTemperature,
      breaker: circuit.breaker.rating === 10 ? null : circuit.breaker.rating,
      gauge: circuit.gauge,
    };
    return { result: sizeCircuit(input), free: sizeCircuit({ ...input, gauge: null }) };
  });
  const ground = $derived.by(() => {
    if (!circuit || circuit.cable === 'old two-wire') return 'none in the cable';
    const needed = sizing?.free.ok ? sizing.free.value.gauge : circuit.gauge;
    return `${equipmentGround(circuit.breaker.rating, circuit.material, circuit.gauge, needed)} AWG`;
  });

  const put = (next: Circuit) => session.attempt({ type: 'put', table: 'circuits', rows: [next] });
  const putStop = (c: Circuit, of: Stop, values: Partial<Stop>) =>
    put({ ...c, stops: c.stops.map((s) => (s.boxId === of.boxId ? { ...s, ...values } : s)) });

  async function addCircuit() {
    const panel = rows(document.panels)[0];
    if (!panel) return;
    const taken = new Set(circuits.filter((c) => c.panelId === panel.id).map((c) => c.space));
    const space = Array.from({ length: panel.spaces }, (_, i) => i + 1).find((s) => !taken.has(s));
    if (space === undefined) {
      session.problems = [
        {
          path: 'space',
          message: `${panel.name} has no free space; expected one of its ${panel.spaces} to be empty`,
        },
      ];
      return;
    }
    const added: Circuit = {
      id: newId('circuit'),
      panelId: panel.id,
      space,
      name: `Circuit ${space}`,
      status: 'new',
      breaker: { rating: 20, protection: 'afci' },
      gauge: '12',
      material: 'copper',
      cable: 'NM-B',
      stops: [],
    };
    if (await session.execute({ type: 'put', table: 'circuits', rows: [added] })) chosenId = added.id;
  }

  const moveTo = (id: string, circuitId: string | null, after: string | null) =>
    session.execute({ type: 'move-stop', boxId: id, circuitId, after });

  /** Puts an outlet at the end of a circuit's first branch. */
  const append = (id: string, to: Circuit) =>
    moveTo(id, to.id, to.stops.filter((s) => s.boxId !== id).at(-1)?.boxId ?? null);

  /** All loose outlets onto the circuit, nearest next: a start, to be changed by hand. */
  async function appendAll(to: Circuit) {
    const rest = loose.map((b) => b.id);
    let last = to.stops.at(-1)?.boxId ?? null;
    const commands = [];
    for (const id of rest) {
      commands.push({ type: 'move-stop' as const, boxId: id, circuitId: to.id, after: last });
      last = id;
    }
    await session.execute({ type: 'batch', label: `Put ${rest.length} outlets on ${to.name}`, commands });
  }

  function key(event: KeyboardEvent, id: string) {
    const home = session.view.circuitOf(id);
    if (!event.altKey || !home) return;
    const i = home.stops.findIndex((s) => s.boxId === id);
    const c = circuits.indexOf(home);
    if (event.key === 'ArrowLeft' && i > 0) void moveTo(id, home.id, home.stops[i - 2]?.boxId ?? null);
    else if (event.key === 'ArrowRight' && i < home.stops.length - 1)
      void moveTo(id, home.id, home.stops[i + 1]!.boxId);
    else if (event.key === 'ArrowUp' && circuits[c - 1]) void append(id, circuits[c - 1]!);
    else if (event.key === 'ArrowDown' && circuits[c + 1]) void append(id, circuits[c + 1]!);
    event.preventDefault();
    // The stop keeps the focus wherever it went.
    setTimeout(
      () => window.document.querySelector<SVGGElement>(`[data-stop="${document.boxes[id]?.name}"]`)?.focus(),
      80,
    );
  }

  /** A stop let go over a run: it goes after the last stop to the left of that point. */
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
      if (at && at.left + at.width / 2 < x) after = s.boxId;
    }
    void moveTo(id, to.id, after);
  }
</script>

<main>
  <section class="runs">
    <div class="bar sheet">
      <h1>Runs</h1>
      <span class="quiet">Drag a box along its run or onto another; or Alt with the arrow keys.</span>
      <Act kind="main" onclick={addCircuit} disabled={rows(document.panels).length === 0}>Add circuit</Act>
    </div>
    {#if circuits.length === 0}
      <div class="sheet empty">
        <p><strong>No circuits yet.</strong></p>
        <p>Add one, then put outlets on it. The run draws itself from breaker to last box.</p>
      </div>
    {/if}
    {#each circuits as c (c.id)}
      {@const r = session.view.run(c)}
      <article class="sheet" class:chosen={c.id === circuit?.id}>
        <button
          type="button"
          class="title"
          aria-pressed={c.id === circuit?.id}
          onclick={() => (chosenId = c.id)}
        >
          <strong>{c.name}</strong>
          <span class="quiet">
            {formatFeet(r.installed)} installed, {formatFeet(r.toBuy)} to buy · {round(r.plannedAmps, 1)} A planned
            at {settings.vaPerReceptacle}
            VA an outlet
          </span>
        </button>
        <RunDrawing
          run={r}
          voltage={settings.voltage}
          dropLimit={settings.dropLimitPercent}
          selected={boxId}
          onselect={(id) => {
            boxId = id;
            chosenId = c.id;
          }}
          onkey={key}
          ondrop={drop}
        />
      </article>
    {/each}
    {#if loose.length > 0}
      <div class="sheet block">
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
      <div class="sheet block stack">
        <h2>{circuit.name}</h2>
        <div class="grid">
          <Field
            label="Name"
            value={circuit.name}
            commit={(name) => put({ ...circuit, name: name.trim() })}
          />
          <NumberField
            label="Panel space"
            value={circuit.space}
            min={1}
            max={84}
            set={(space) => put({ ...circuit, space: space! })}
          />
          <Choice
            label="Breaker"
            value={circuit.breaker.rating}
            options={BREAKER_OPTIONS}
            set={(rating) => put({ ...circuit, breaker: { ...circuit.breaker, rating } })}
          />
          <Choice
            label="Breaker kind"
            value={circuit.breaker.protection}
            options={PROTECTION_OPTIONS}
            set={(protection) => put({ ...circuit, breaker: { ...circuit.breaker, protection } })}
          />
          <Choice
            label="Conductor"
            value={circuit.gauge}
            options={GAUGE_OPTIONS}
            set={(gauge) => put({ ...circuit, gauge })}
          />
          <Choice
            label="Metal"
            value={circuit.material}
            options={MATERIAL_OPTIONS}
            set={(material) => put({ ...circuit, material })}
          />
          <Choice
            label="Cable"
            value={circuit.cable}
            options={CABLE_OPTIONS}
            set={(cable) => put({ ...circuit, cable })}
          />
          <Choice
            label="Work"
            value={circuit.status}
            options={STATUS_OPTIONS}
            set={(status) => put({ ...circuit, status })}
          />
        </div>
        <dl class="facts">
          <div>
            <dt>Equipment ground</dt>
            <dd>{ground} <span class="section">250.122</span></dd>
          </div>
          {#if run.end}
            {#each [12, 16] as amps (amps)}
              <div>
                <dt>Drop at {run.end.box.name}, {amps} A there</dt>
                <dd>
                  {dropAt(run.end, amps).toFixed(1)} V · {(
                    (dropAt(run.end, amps) / settings.voltage) *
                    100
                  ).toFixed(1)} %
                  <span class="quiet"
                    >2 × {run.end.pathOhms.toFixed(3)} Ω × {amps} A ÷ {settings.voltage} V</span
                  >
                </dd>
              </div>
            {/each}
            <div>
              <dt>Drop, planning load</dt>
              <dd>
                {round((run.end.plannedDrop / settings.voltage) * 100, 1)} %
                <span class="quiet">{settings.vaPerReceptacle} VA at each outlet</span>
              </dd>
            </div>
          {/if}
        </dl>
        {#if sizing}
          <details>
            <summary>Show the working: conductor and breaker</summary>
            {#if sizing.result.ok}
              <ol class="working">
                {#each sizing.result.value.steps as step (step.what)}
                  <li>
                    <strong>{step.what}</strong>
                    {step.working} <span class="section">{step.section}</span>
                  </li>
                {/each}
              </ol>
              <p class="quiet small">
                For {round(circuit.breaker.rating * 0.8, 1)} A at 30 °C, two current-carrying conductors. At {settings.terminalRating}
                °C terminals.
              </p>
            {:else}
              <p class="bad">{sizing.result.message}</p>
            {/if}
          </details>
        {/if}
        <Act
          kind="danger"
          onclick={() => session.execute({ type: 'remove', table: 'circuits', ids: [circuit.id] })}
          >Remove {circuit.name}</Act
        >
      </div>

      {#if stop}
        <div class="sheet block stack">
          <h2>{stop.box.name}, {stop.area.name}</h2>
          <LengthField
            label="Cable from {run.stops[stop.feeder]?.box.name ?? 'the panel'}, measured"
            optional
            inches={stop.stop.measured}
            options={{ min: 1, max: 24000 }}
            hint={stop.segment.source === 'plan'
              ? `by plan ${formatLength(stop.segment.length)}: ${describePlanned(stop.segment.planned)}`
              : `plan said: ${describePlanned(stop.segment.planned)}`}
            set={(measured) => putStop(circuit, stop.stop, { measured })}
          />
          <div class="grid">
            <Choice
              label="Segment gauge"
              value={stop.stop.gauge ?? 'same'}
              options={[{ value: 'same', name: `As the circuit (${circuit.gauge})` }, ...GAUGE_OPTIONS]}
              set={(g) => putStop(circuit, stop.stop, { gauge: g === 'same' ? null : g })}
            />
            <Choice
              label="Move to"
              value={circuit.id}
              options={[
                ...circuits.map((c) => ({ value: c.id, name: c.name })),
                { value: 'none', name: 'No circuit' },
              ]}
              set={(id) => {
                const to = document.circuits[id];
                if (to) void append(stop.box.id, to);
                else void moveTo(stop.box.id, null, null);
              }}
            />
          </div>
          <Decisions decisions={decisionsFor(session.view, stop.box)} />
        </div>
      {/if}
      <div class="sheet">
        <FindingsList
          {findings}
          apply={(fix) => applyFix(session, fix)}
          show={(f) => f.about.table === 'boxes' && (boxId = f.about.id)}
        />
      </div>

      <details class="sheet block">
        <summary>Shop settings</summary>
        <p class="quiet small">
          Habits, not code. They shape lengths, planned load and advice on every circuit.
        </p>
        <div class="grid">
          <LengthField
            label="Rise and free end, each box"
            inches={settings.boxRise}
            options={{ bare: 'inches', max: 240 }}
            set={(boxRise) =>
              session.attempt({ type: 'edit-job', values: { settings: { ...settings, boxRise: boxRise! } } })}
          />
          <LengthField
            label="At the panel"
            inches={settings.panelRise}
            options={{ bare: 'inches', max: 400 }}
            set={(panelRise) =>
              session.attempt({
                type: 'edit-job',
                values: { settings: { ...settings, panelRise: panelRise! } },
              })}
          />
          <NumberField
            label="Waste"
            unit="%"
            value={settings.wastePercent}
            min={0}
            max={100}
            set={(wastePercent) =>
              session.attempt({
                type: 'edit-job',
                values: { settings: { ...settings, wastePercent: wastePercent! } },
              })}
          />
          <NumberField
            label="Load per outlet"
            unit="VA"
            value={settings.vaPerReceptacle}
            min={0}
            max={1800}
            set={(vaPerReceptacle) =>
              session.attempt({
                type: 'edit-job',
                values: { settings: { ...settings, vaPerReceptacle: vaPerReceptacle! } },
              })}
          />
          <NumberField
            label="Outlets per circuit"
            value={settings.maxReceptacles}
            min={1}
            max={40}
            set={(maxReceptacles) =>
              session.attempt({
                type: 'edit-job',
                values: { settings: { ...settings, maxReceptacles: maxReceptacles! } },
              })}
          />
          <NumberField
            label="Drop advised"
            unit="%"
            value={settings.dropLimitPercent}
            min={1}
            max={10}
            set={(dropLimitPercent) =>
              session.attempt({
                type: 'edit-job',
                values: { settings: { ...settings, dropLimitPercent: dropLimitPercent! } },
              })}
          />
          <NumberField
            label="Studs at"
            unit="in"
            value={settings.studSpacing}
            min={8}
            max={48}
            set={(studSpacing) =>
              session.attempt({
                type: 'edit-job',
                values: { settings: { ...settings, studSpacing: studSpacing! } },
              })}
          />
          <LengthField
            label="Receptacle height"
            inches={settings.receptacleHeight}
            options={{ bare: 'inches', max: 66 }}
            set={(receptacleHeight) =>
              session.attempt({
                type: 'edit-job',
                values: { settings: { ...settings, receptacleHeight: receptacleHeight! } },
              })}
          />
        </div>
      </details>
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
  .block {
    padding: 0.75rem 1rem 1rem;
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
  .grid {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(9rem, 1fr));
    gap: 0.5rem;
    align-items: start;
  }
  .facts > div {
    display: grid;
    grid-template-columns: 10rem 1fr;
    gap: 0.5rem;
    padding: 0.3rem 0;
    border-top: 1px solid var(--rule);
  }
  .facts dt {
    font-weight: 600;
  }
  .facts .quiet {
    display: block;
    font-size: 0.9rem;
  }
  .working li {
    padding: 0.25rem 0;
    border-top: 1px solid var(--rule);
  }
  .working strong {
    display: block;
  }
  .working .section {
    white-space: normal;
  }
  summary {
    font-weight: 700;
    min-height: 32px;
    cursor: pointer;
  }
  .small {
    font-size: 0.92rem;
  }
  .bad {
    color: var(--bad);
    font-weight: 600;
  }
  @media (max-width: 900px) {
    main {
      grid-template-columns: minmax(0, 1fr);
      padding: 0.5rem;
    }
  }
</style>
