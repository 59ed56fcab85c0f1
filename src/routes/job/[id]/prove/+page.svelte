<script lang="ts">
  import { onMount } from 'svelte';
  import { LockOutline } from 'flowbite-svelte-icons';
  import { tinykeys } from 'tinykeys';
  import { page } from '$app/state';
  import { newId, rows } from '../../../../core/job/document.ts';
  import type { Proof, Reading } from '../../../../core/job/schema.ts';
  import {
    circuitState,
    lastEnergized,
    proofGaps,
    readingsOf,
    validProof,
  } from '../../../../core/records/proof.ts';
  import { judgeIn } from '../../../../core/records/report.ts';
  import { expectedAt, stepsFor } from '../../../../core/records/steps.ts';
  import { judge, LAMP_BLIND_SPOTS } from '../../../../core/records/verdict.ts';
  import { isTyping } from '$lib/keys.ts';
  import Act from '$lib/parts/Act.svelte';
  import Choice from '$lib/parts/Choice.svelte';
  import Field from '$lib/parts/Field.svelte';
  import NumberField from '$lib/parts/NumberField.svelte';
  import RunDrawing, { type StopResult } from '$lib/parts/RunDrawing.svelte';
  import VerdictCard from '$lib/parts/VerdictCard.svelte';
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
  const box = $derived(stop?.box ?? null);
  const place = $derived(stop ? `${stop.box.name}, ${stop.area.name}` : '');

  let tab = $state<'read' | 'dead' | 'work'>('read');
  const TABS = [
    { id: 'read', name: 'Readings' },
    { id: 'dead', name: 'Prove dead' },
    { id: 'work', name: 'In the box' },
  ] as const;

  const power = $derived(circuit ? circuitState(document, circuit) : 'unproved');
  const proof = $derived(circuit && box ? validProof(document, circuit.id, box.id) : null);
  const history = $derived(box ? readingsOf(document, box.id) : []);

  const recorded = $derived(
    (run?.stops ?? []).flatMap((s) =>
      readingsOf(document, s.box.id)
        .filter((r) => !r.struck)
        .map(({ reading }) => ({ reading, verdict: judgeIn(session.view, reading) })),
    ),
  );

  /** The newest reading of each box, hung under its stop. */
  const results = $derived(
    Object.fromEntries(
      recorded.map(({ reading, verdict: found }): [string, StopResult] => [
        reading.boxId,
        { grade: found.grade, text: found.headline },
      ]),
    ),
  );

  type Draft = Pick<
    Reading,
    'lamps' | 'hotNeutral' | 'hotGround' | 'neutralGround' | 'loadAmps' | 'note' | 'stage' | 'corrects'
  >;
  const blank = (): Draft => ({
    lamps: null,
    hotNeutral: null,
    hotGround: null,
    neutralGround: null,
    loadAmps: 0,
    note: '',
    stage: stage,
    corrects: null,
  });
  let by = $state(remembered());
  let stage = $state<Reading['stage']>('as-found');
  let draft = $state.raw<Draft>(blank());
  let said = $state('');

  const expectation = $derived({
    sourceVolts: document.job.settings.voltage,
    pathOhms: stop?.pathOhms ?? 0,
    grounding: box?.grounding,
  });
  const verdict = $derived(judge(draft, expectation));
  const expected = $derived(stop ? expectedAt(stop, document.job.settings.voltage, draft.loadAmps) : null);

  function remembered(): string {
    try {
      return localStorage.getItem('hekto-by') ?? '';
    } catch {
      return '';
    }
  }
  function signed(name: string): string | null {
    by = name.trim().slice(0, 80);
    try {
      localStorage.setItem('hekto-by', by);
    } catch {
      // The name holds for this visit.
    }
    return by === '' ? 'expected a name' : null;
  }

  const set = (values: Partial<Draft>) => {
    draft = { ...draft, ...values };
    return null;
  };
  const lampNames = ['hot–neutral', 'hot–ground', 'neutral–ground'];
  const toggleLamp = (i: number) =>
    set({ lamps: (draft.lamps ?? [false, false, false]).map((lit, j) => (i === j ? !lit : lit)) });

  /** As-left readings come after the work: a proof, then power put back on. */
  const asLeftReady = $derived(
    circuit !== null &&
      lastEnergized(document, circuit.id) !== null &&
      rows(document.proofs).some((p) => p.circuitId === circuit.id),
  );

  async function log() {
    if (!box) return;
    said = '';
    if (by.trim() === '') {
      said = 'Who measures: expected a name';
      return;
    }
    if (verdict.grade === 'none') {
      said = 'Expected at least the lamps or one voltage';
      return;
    }
    if (draft.stage === 'as-left' && power !== 'energized') {
      said =
        power === 'dead'
          ? 'The circuit is on record as dead; put the power back on record first'
          : 'As-left readings need a proof of dead and the power put back, on record';
      return;
    }
    const reading: Reading = {
      ...draft,
      id: newId('reading'),
      boxId: box.id,
      place,
      at: new Date().toISOString(),
      by,
      instrument: [
        draft.lamps && 'three-lamp tester',
        (draft.hotNeutral ?? draft.hotGround ?? draft.neutralGround) ? 'meter' : null,
      ]
        .filter(Boolean)
        .join(' and '),
    };
    said = (await session.attempt({ type: 'put', table: 'readings', rows: [reading] })) ?? '';
    if (said === '') draft = blank();
  }

  const emptyDead = () => ({ hotNeutral: null, hotGround: null, neutralGround: null });
  const emptyProof = () => ({
    lockedOut: false,
    liveBefore: null as number | null,
    knownLiveBefore: null as number | null,
    knownLiveAfter: null as number | null,
    face: emptyDead() as Proof['face'],
    screws: emptyDead() as Proof['screws'],
  });
  let proofDraft = $state.raw(emptyProof());
  const gaps = $derived(proofGaps({ ...proofDraft, by }));
  const setProof = (values: Partial<typeof proofDraft>) => {
    proofDraft = { ...proofDraft, ...values };
    return null;
  };

  async function recordProof() {
    if (!circuit || !box || gaps.length > 0) return;
    const row: Proof = {
      ...proofDraft,
      id: newId('proof'),
      circuitId: circuit.id,
      boxId: box.id,
      place,
      at: new Date().toISOString(),
      by,
    };
    said = (await session.attempt({ type: 'put', table: 'proofs', rows: [row] })) ?? '';
    if (said === '') {
      proofDraft = emptyProof();
      tab = 'work';
    }
  }

  async function energize() {
    if (!circuit) return;
    if (by.trim() === '') {
      said = 'Who puts the power back: expected a name';
      return;
    }
    said =
      (await session.attempt({
        type: 'put',
        table: 'energizings',
        rows: [{ id: newId('energizing'), circuitId: circuit.id, at: new Date().toISOString(), by }],
      })) ?? '';
    if (said === '') {
      stage = 'as-left';
      draft = blank();
      tab = 'read';
    }
  }

  function go(step: number) {
    const count = run?.stops.length ?? 0;
    if (count === 0) return;
    at = (index + step + count) % count;
    draft = blank();
    proofDraft = emptyProof();
    said = '';
  }

  onMount(() => {
    const unless = (work: () => void) => (e: KeyboardEvent) => {
      if (!isTyping(e)) work();
    };
    return tinykeys(window, { '[': unless(() => go(-1)), ']': unless(() => go(1)) });
  });

  const PAIRS = [
    ['hotNeutral', 'Hot–neutral'],
    ['hotGround', 'Hot–ground'],
    ['neutralGround', 'Neutral–ground'],
  ] as const;
  function describeReading(reading: Reading): string {
    const parts = [
      reading.lamps && `lamps ${reading.lamps.map((lit) => (lit ? '●' : '○')).join(' ')}`,
      ...PAIRS.map(([pair, label]) => reading[pair] !== null && `${label.toLowerCase()} ${reading[pair]} V`),
      reading.loadAmps > 0 && `with ${reading.loadAmps} A on`,
    ];
    return `${reading.stage === 'as-found' ? 'As found' : 'As left'}: ${parts.filter(Boolean).join('; ')}`;
  }
  const time = (iso: string) =>
    new Date(iso).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });
  const STATES = {
    unproved: 'No proof of dead on record',
    dead: 'Dead, proved',
    energized: 'Power is on; earlier proofs are void',
  };
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
            draft = blank();
            proofDraft = emptyProof();
          }}
        />
        <p class="state {power}" role="status">
          <span aria-hidden="true">{power === 'dead' ? '✓' : power === 'energized' ? '!' : '?'}</span>
          {STATES[power]}
        </p>
      </div>
      <div class="sheet drawing">
        <RunDrawing
          {run}
          {results}
          chart={false}
          voltage={document.job.settings.voltage}
          dropLimit={document.job.settings.dropLimitPercent}
          selected={box?.id ?? null}
          onselect={(id) => {
            const i = run.stops.findIndex((s) => s.box.id === id);
            if (i !== index) go(i - index);
          }}
        />
      </div>
      {#if recorded.length > 0}
        <div class="sheet recorded">
          <h2>On record for {circuit.name}</h2>
          <table>
            <thead>
              <tr
                ><th>Box</th><th>Stage</th><th>H–N</th><th>H–G</th><th>N–G</th><th>Load</th><th>Verdict</th
                ></tr
              >
            </thead>
            <tbody>
              {#each recorded as { reading, verdict: found } (reading.id)}
                <tr>
                  <td><strong>{document.boxes[reading.boxId]?.name ?? reading.place}</strong></td>
                  <td>{reading.stage === 'as-found' ? 'as found' : 'as left'}</td>
                  <td>{reading.hotNeutral ?? ''}</td>
                  <td>{reading.hotGround ?? ''}</td>
                  <td>{reading.neutralGround ?? ''}</td>
                  <td>{reading.loadAmps || ''}</td>
                  <td class={found.grade}>{found.headline}</td>
                </tr>
              {/each}
            </tbody>
          </table>
          <p class="quiet">Volts and amperes. Readings that were corrected are under their box.</p>
        </div>
      {/if}
    </section>

    {#if stop && box}
      <section class="work">
        <div class="which">
          <Act big onclick={() => go(-1)} label="Box before">‹</Act>
          <div>
            <p class="box-name">{box.name}</p>
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

          {#if tab === 'read'}
            <p class="caution">
              Live measurement, face on, probes only. Fingers behind the guards, one hand where possible.
              Nothing is opened in this state.
            </p>
            <div class="row" role="group" aria-label="Stage">
              <Act
                pressed={stage === 'as-found'}
                onclick={() => {
                  stage = 'as-found';
                  set({ stage: 'as-found' });
                }}>As found</Act
              >
              <Act
                pressed={stage === 'as-left'}
                onclick={() => {
                  stage = 'as-left';
                  set({ stage: 'as-left' });
                }}>As left</Act
              >
              {#if stage === 'as-left' && !asLeftReady}
                <span class="warn">needs a proof of dead, then power back on</span>
              {/if}
            </div>
            <fieldset>
              <legend>Three lamps: tap those that light</legend>
              <div class="lamps">
                {#each lampNames as lamp, i (lamp)}
                  <button
                    type="button"
                    class="lamp"
                    aria-pressed={draft.lamps?.[i] ?? false}
                    onclick={() => toggleLamp(i)}
                  >
                    <span class="glow" aria-hidden="true"></span>{lamp}
                    <span class="lit">{draft.lamps ? (draft.lamps[i] ? 'lit' : 'dark') : 'not read'}</span>
                  </button>
                {/each}
              </div>
              {#if draft.lamps}
                <Act onclick={() => set({ lamps: null })}>No lamps read</Act>
              {:else}
                <Act onclick={() => set({ lamps: [false, false, false] })}>All three dark</Act>
              {/if}
            </fieldset>
            <div class="volts">
              {#each PAIRS as [pair, label] (pair)}
                <NumberField
                  big
                  optional
                  {label}
                  unit="V"
                  min={0}
                  max={300}
                  value={draft[pair]}
                  set={(v) => set({ [pair]: v })}
                />
              {/each}
              <NumberField
                big
                label="Load on here"
                unit="A"
                min={0}
                max={50}
                value={draft.loadAmps}
                hint="measured amps"
                set={(v) => set({ loadAmps: v ?? 0 })}
              />
            </div>
            {#if expected}
              <p class="quiet">
                A healthy run reads about <strong>{expected.hotNeutral.toFixed(1)} V</strong> hot–neutral and
                <strong>{expected.neutralGround.toFixed(2)} V</strong> neutral–ground here with {draft.loadAmps}
                A (path {stop.pathOhms.toFixed(3)} Ω a conductor, {document.job.settings.voltage} V at the panel).
              </p>
            {/if}
            <VerdictCard {verdict} />
            <Field
              label="Note"
              value={draft.note}
              commit={(note) => (note.length > 400 ? 'expected at most 400 characters' : set({ note }))}
            />
            {#if said}<p class="wrong" role="alert">{said}</p>{/if}
            <Act kind="main" big onclick={log}
              >{draft.corrects ? 'Log the correction' : `Log at ${box.name}`}</Act
            >
            {#if draft.corrects}<Act onclick={() => (draft = blank())}>Leave the earlier reading as it is</Act
              >{/if}

            {#if history.length > 0}
              <h2>On record</h2>
              <ul class="history">
                {#each history as { reading, struck } (reading.id)}
                  <li class:struck>
                    <p>
                      <svelte:element this={struck ? 's' : 'span'}>{describeReading(reading)}</svelte:element>
                    </p>
                    <p class="quiet">
                      {struck ? 'corrected below · ' : `${judgeIn(session.view, reading).headline} · `}{time(
                        reading.at,
                      )} · {reading.by}{reading.note ? ` · ${reading.note}` : ''}
                    </p>
                    {#if !struck}
                      <Act
                        onclick={() => {
                          stage = reading.stage;
                          draft = {
                            lamps: reading.lamps,
                            hotNeutral: reading.hotNeutral,
                            hotGround: reading.hotGround,
                            neutralGround: reading.neutralGround,
                            loadAmps: reading.loadAmps,
                            note: reading.note,
                            stage: reading.stage,
                            corrects: reading.id,
                          };
                        }}>Correct</Act
                      >
                    {/if}
                  </li>
                {/each}
              </ul>
            {/if}
          {:else if tab === 'dead'}
            <p class="caution">
              Treat it as live until this is done and after. A pen or plug-in tester alone proves nothing;
              rubbing a pen on cloth only shows that it beeps. In the panel the line lugs stay live with the
              main off.
            </p>
            {#if proof}
              <p class="good">
                ✓ Proved dead here {time(proof.at)} by {proof.by}. It is void as soon as power comes back.
              </p>
            {/if}
            <ol class="sequence">
              <li>
                <NumberField
                  optional
                  label="1 · Live at this outlet before, breaker on"
                  unit="V"
                  hint="shows that the breaker did it"
                  min={0}
                  max={300}
                  value={proofDraft.liveBefore}
                  set={(v) => setProof({ liveBefore: v })}
                />
              </li>
              <li>
                <label class="check">
                  <input
                    type="checkbox"
                    checked={proofDraft.lockedOut}
                    onchange={(e) => setProof({ lockedOut: e.currentTarget.checked })}
                  />
                  <span>2 · Breaker {circuit.space} off, locked or taped, note on the panel, people told</span
                  >
                </label>
              </li>
              <li>
                <NumberField
                  optional
                  label="3 · Tester on a known live source"
                  unit="V"
                  min={0}
                  max={300}
                  value={proofDraft.knownLiveBefore}
                  set={(v) => setProof({ knownLiveBefore: v })}
                />
              </li>
              {#each [['face', '4 · At the face'], ['screws', '5 · Device out: at the screws and every conductor']] as const as [where, title] (where)}
                <li>
                  <p><strong>{title}</strong></p>
                  <div class="volts three">
                    {#each PAIRS as [pair, label] (pair)}
                      <NumberField
                        optional
                        {label}
                        unit="V"
                        min={0}
                        max={300}
                        value={proofDraft[where][pair]}
                        set={(v) => setProof({ [where]: { ...proofDraft[where], [pair]: v } })}
                      />
                    {/each}
                  </div>
                </li>
              {/each}
              <li>
                <NumberField
                  optional
                  label="6 · Tester on the known live source again"
                  unit="V"
                  min={0}
                  max={300}
                  value={proofDraft.knownLiveAfter}
                  set={(v) => setProof({ knownLiveAfter: v })}
                />
              </li>
            </ol>
            {#if gaps.length > 0}
              <div class="gaps">
                <p><strong>Still open</strong></p>
                <ul>
                  {#each gaps as gap (gap)}<li>{gap}</li>{/each}
                </ul>
              </div>
            {/if}
            {#if said}<p class="wrong" role="alert">{said}</p>{/if}
            <Act kind="main" big disabled={gaps.length > 0} onclick={recordProof}
              >Record: {box.name} is dead</Act
            >
          {:else if proof}
            <p class="good">✓ Proved dead {time(proof.at)} by {proof.by}.</p>
            <p class="caution">
              Treat a dead wire as live anyway. If anyone may have touched the breaker, prove it again.
            </p>
            <ol class="steps">
              {#each stepsFor(run, stop) as step (step.text)}
                <li>
                  <p>{step.text}</p>
                  <p class="quiet">{step.because}</p>
                </li>
              {/each}
            </ol>
            <h2>When the boxes are closed</h2>
            <p>Tools out, plates on, people told. Putting power back voids every proof on this circuit.</p>
            {#if said}<p class="wrong" role="alert">{said}</p>{/if}
            <Act kind="main" big onclick={energize}>Power is back on {circuit.name}</Act>
          {:else}
            <p class="locked">
              <strong>Locked.</strong> The steps inside {box.name} open once this box is proved dead.
            </p>
            <p class="quiet">
              {power === 'energized'
                ? 'Power came back since the last proof.'
                : 'No proof of dead holds for this box.'}
            </p>
            <Act kind="main" big onclick={() => (tab = 'dead')}>Prove {box.name} dead</Act>
          {/if}
        </div>
        {#if tab === 'read'}<p class="quiet small">{LAMP_BLIND_SPOTS}</p>{/if}
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
  .recorded {
    padding: 0.75rem 1rem 1rem;
    overflow-x: auto;
  }
  .recorded table {
    width: 100%;
    border-collapse: collapse;
    margin: 0.4rem 0;
  }
  .recorded th,
  .recorded td {
    text-align: left;
    padding: 0.3rem 0.75rem 0.3rem 0;
    border-bottom: 1px solid var(--rule);
  }
  td.good {
    color: var(--good);
  }
  td.worry {
    color: var(--warn);
    font-weight: 700;
  }
  td.bad {
    color: var(--bad);
    font-weight: 700;
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
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    align-items: center;
  }
  .caution {
    border-left: 6px solid var(--warn);
    background: var(--panel);
    padding: 0.5rem 0.75rem;
  }
  .lamps {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 0.5rem;
    margin: 0.4rem 0;
  }
  legend {
    font-weight: 600;
    font-size: 0.875rem;
  }
  .lamp {
    display: grid;
    justify-items: center;
    gap: 0.3rem;
    min-height: 96px;
    padding: 0.5rem 0.25rem;
    border: 2px solid var(--edge);
    border-radius: 4px;
    font-size: 0.95rem;
  }
  .glow {
    width: 34px;
    height: 34px;
    border-radius: 50%;
    border: 3px solid var(--ink);
    background: repeating-linear-gradient(45deg, var(--rule) 0 4px, transparent 4px 8px);
  }
  .lamp[aria-pressed='true'] .glow {
    background: #ffb21f;
    box-shadow: 0 0 0 5px color-mix(in srgb, #ffb21f 45%, transparent);
  }
  .lit {
    font-weight: 700;
  }
  .volts {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.6rem;
  }
  .volts.three {
    grid-template-columns: repeat(3, 1fr);
  }
  .wrong,
  .warn {
    color: var(--bad);
    font-weight: 700;
  }
  .good {
    color: var(--good);
    font-weight: 700;
  }
  .sequence,
  .steps {
    display: grid;
    gap: 0.8rem;
  }
  .steps {
    list-style: decimal;
    padding-left: 1.4rem;
    font-size: 1.1rem;
  }
  .check {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 0.75rem;
    align-items: center;
    min-height: 48px;
    font-weight: 600;
  }
  .check input {
    width: 28px;
    height: 28px;
  }
  .gaps {
    border-left: 6px solid var(--unknown);
    padding: 0.4rem 0.75rem;
    background: var(--panel);
  }
  .gaps li {
    list-style: square;
    margin-left: 1rem;
  }
  .history li {
    padding: 0.5rem 0;
    border-top: 1px solid var(--rule);
  }
  .locked {
    font-size: 1.15rem;
  }
  .small {
    font-size: 0.95rem;
  }
  .empty {
    padding: 3rem 1rem;
    text-align: center;
    display: grid;
    gap: 0.75rem;
    justify-items: center;
  }
  @media (max-width: 900px) {
    .recorded {
      display: none;
    }
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
    .work .volts :global(input:not([type='checkbox'])) {
      font-size: 1.75rem;
    }
  }
</style>
