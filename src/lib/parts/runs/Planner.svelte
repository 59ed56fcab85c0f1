<script lang="ts">
  import { sizeName } from '#core/tables/conductors.ts';
  import { onDestroy } from 'svelte';
  import { circuitsInOrder, rows } from '#core/job/document.ts';
  import type { JobDocument } from '#core/job/schema.ts';
  import { houseProblem, soundCircuits } from '#core/planner/houseProblem.ts';
  import { figuresNow, type Extended, type PlanFigures } from '#core/planner/proposal.ts';
  import { PLAIN_PLANNING, type PlannerSettings } from '#core/planner/settings.ts';
  import { priceBookOf } from '#core/panel/prices.ts';
  import { formatFeet } from '#core/units/length.ts';
  import { round } from '#core/units/quantity.ts';
  import { breakerWords } from '../../names.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import { startPlanning } from '../../workers/planner.ts';
  import type { Draft } from '../../workers/planner.worker.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';
  import Check from '../Check.svelte';

  /** Plans circuits beside those there are, shows both, and puts the plan in place as one step. */
  let { close }: { close: () => void } = $props();

  const session = useSession();
  const wishes = $state<Omit<PlannerSettings, 'prices'>>({ ...PLAIN_PLANNING, locked: [] });
  const settings = $derived<PlannerSettings>({
    ...$state.snapshot(wishes),
    prices: priceBookOf(session.document.job),
  });
  const { locked } = $derived(wishes);
  const panels = $derived(rows(session.document.panels).map((p) => ({ value: p.id, name: p.name })));
  const house = $derived(houseProblem(session.view, settings));
  const now = $derived(house && figuresNow(session.view, house, settings));

  let draft = $state.raw<Draft | null>(null);
  /** The plan made before, to set beside the new one. */
  let earlier = $state.raw<{ draft: Draft; name: string } | null>(null);
  /** What the draft was asked for, in words. */
  let asked = $state('');
  /** The document the draft is for: an edit since then makes it stale. */
  let plannedFor = $state.raw<JobDocument | null>(null);
  let running = $state(false);
  let failure = $state('');
  let halt = () => {};
  onDestroy(() => halt());

  function start() {
    halt();
    earlier = draft && plannedFor === session.document ? { draft, name: asked } : null;
    draft = null;
    asked = inWords(settings);
    failure = '';
    running = true;
    plannedFor = session.document;
    halt = startPlanning(
      session.document,
      settings,
      (next) => {
        draft = next;
        if (next.finished) running = false;
      },
      (error) => {
        failure = error instanceof Error ? error.message : String(error);
        running = false;
      },
    );
  }
  function stop() {
    halt();
    running = false;
  }
  async function putInPlace(chosen: Draft) {
    stop();
    if (await session.execute(chosen.proposal.command)) close();
  }
  const inWords = ({ gfciAt, maxOut, spare, lightsApart, extend }: PlannerSettings): string =>
    [
      gfciAt === 'breaker' ? 'GFCI at the breaker' : 'GFCI at the first box',
      `${maxOut} out of a box`,
      ...(spare > 0 ? [`${spare} % spare`] : []),
      ...(lightsApart ? ['lights apart'] : []),
      ...(extend ? ['existing circuits extended'] : []),
    ].join(', ');

  const stale = $derived(draft !== null && plannedFor !== session.document);
  const openIds = $derived(
    new Set([...(house?.open ?? []), ...(house?.trunks ?? []).map((t) => t.circuit)].map((c) => c.id)),
  );
  const lockable = $derived(
    circuitsInOrder(session.document).filter((c) => openIds.has(c.id) || locked.includes(c.id)),
  );
  const whyNot = $derived(new Map(house?.notExtended.map(({ circuit, why }) => [circuit.id, why])));
  const fixed = $derived(house?.kept.filter((c) => !locked.includes(c.id)) ?? []);
  const outlets = $derived(
    house?.parts.reduce((n, p) => n + p.sites.reduce((k, s) => k + 1 + s.hung.length, 0), 0) ?? 0,
  );
  /** What joins an existing circuit, in words. */
  function addedTo({ circuit, added, from }: Extended): string {
    const boxes = `${added.length} ${added.length === 1 ? 'box' : 'boxes'}`;
    const names = from.map((id) => session.document.boxes[id]?.name).join(', ');
    const before = session.document.circuits[circuit.id]?.breaker.protection;
    return `exists; ${boxes} added from ${names}${circuit.breaker.protection === before ? '' : '; its breaker is changed'}`;
  }
  /** Where the work stands, as the end of a sentence. */
  function standing({ finished, progress }: Draft): string {
    if (!running) return finished ? ', done' : ', stopped';
    return progress.searched ? '; neighboring circuits planned anew together' : '';
  }
  const dollars = (cents: number) => `$${Math.round(cents / 100).toLocaleString('en-US')}`;
  /** What the plan costs or saves beside what is there, and what that money mends or breaks. */
  function worth(before: PlanFigures, { figures, violations: { changes } }: Draft): string {
    const cents = figures.cents - before.cents;
    const money =
      Math.abs(cents) < 100
        ? 'It costs about what is there'
        : `It costs ${dollars(Math.abs(cents))} ${cents > 0 ? 'more' : 'less'} than what is there`;
    const named = (list: typeof changes) =>
      list.map((c) => `${c.title} (${Math.abs(c.by)})`).join(', ') || 'no violation';
    const brings = changes.filter((c) => c.by > 0);
    return `${money} and mends: ${named(changes.filter((c) => c.by < 0))}.${brings.length > 0 ? ` It brings: ${named(brings)}.` : ''}`;
  }
  const lines = (f: PlanFigures): [string, string][] => [
    ['Circuits', String(f.circuits)],
    ...(wishes.extend ? ([['Existing circuits extended', String(f.extended)]] as [string, string][]) : []),
    ['Cable', formatFeet(f.cable)],
    ['Cable, breakers and GFCIs', dollars(f.cents)],
    ['Largest drop, planning load', `${round(f.drop, 1)} %`],
  ];
</script>

<section class="sheet pad stack" aria-label="Plan circuits">
  <div class="head">
    <h2>Plan circuits</h2>
    <Act onclick={close}>Close</Act>
  </div>
  {#if !house}
    <p>The job has no panel yet. Place one in Walk, under House and panel.</p>
  {:else}
    <p class="quiet">
      {outlets}
      {outlets === 1 ? 'outlet' : 'outlets'} into circuits from {house.panel.name}: kitchen, laundry,
      bathrooms and single appliances on circuits of their own, all else where cable, breakers and rooms cost
      least, by the price book in Panel.
    </p>
    <div class="grid-form" style:--field="13rem">
      {#if panels.length > 1}
        <Choice
          label="From"
          value={house.panel.id}
          options={panels}
          set={(panelId) => {
            wishes.panelId = panelId;
          }}
        />
      {/if}
      <Choice
        label="GFCI, where asked for"
        value={wishes.gfciAt}
        options={[
          { value: 'breaker', name: 'At the breaker' },
          { value: 'first-box', name: 'Receptacle at the first box' },
        ]}
        set={(value) => {
          wishes.gfciAt = value;
        }}
      />
      <Choice
        label="Cables leaving a box"
        value={wishes.maxOut}
        options={[1, 2, 3].map((value) => ({ value, name: `${value} at most` }))}
        set={(value) => {
          wishes.maxOut = value;
        }}
      />
      <Choice
        label="Left on each circuit for later"
        value={wishes.spare}
        options={[0, 10, 20, 30].map((value) => ({ value, name: value === 0 ? 'Nothing' : `${value} %` }))}
        set={(value) => {
          wishes.spare = value;
        }}
      />
    </div>
    <Check
      label="Leave no room all dark"
      hint="lights and receptacles of a room on two breakers, where it costs little"
      checked={wishes.lightsApart}
      set={(on) => (wishes.lightsApart = on)}
    />
    <Check
      label="Extend existing circuits"
      hint="saves home runs, but what is added brings AFCI to the old circuit, and what its walls hide is yours to judge"
      checked={wishes.extend}
      set={(on) => (wishes.extend = on)}
    />
    <details>
      <summary>Keep circuits as they are ({locked.length + fixed.length})</summary>
      {#each fixed as c (c.id)}
        <p class="quiet">
          {c.name}: {c.status === 'existing'
            ? `exists${whyNot.has(c.id) ? `; not extended, ${whyNot.get(c.id)}` : ''}`
            : 'on record as proved or energized'}
        </p>
      {/each}
      {#each lockable as c (c.id)}
        <Check
          label={c.name}
          checked={locked.includes(c.id)}
          set={(on) => (wishes.locked = on ? [...locked, c.id] : locked.filter((id) => id !== c.id))}
        />
      {/each}
    </details>
    {#if lockable.length > 0}
      <Act
        disabled={session.findings === null}
        onclick={() => {
          wishes.locked = soundCircuits(session.view, house, session.findings ?? []).map((c) => c.id);
        }}>Keep all but what changed</Act
      >
    {/if}
    {#if house.leftOut.length > 0}
      <p>
        Left out: {house.leftOut.map((l) => `${l.box.name} (${l.why})`).join('; ')}.
      </p>
    {/if}
    <div class="row">
      {#if running}
        <Act kind="main" big onclick={stop}>Stop and keep the best</Act>
      {:else}
        <Act kind="main" big onclick={start} disabled={outlets === 0}
          >{draft ? 'Work it out again' : 'Work out a plan'}</Act
        >
      {/if}
      {#if running || draft}
        <progress max="1" value={draft?.progress.done ?? 0} aria-label="Planned so far"></progress>
        <span role="status">
          {#if draft}
            {dollars(draft.figures.cents)} so far; {draft.progress.proven} of {draft.progress.parts} groups proven
            best{standing(draft)}
          {:else}Starting…{/if}
        </span>
      {/if}
    </div>
    {#if failure}<p role="alert" class="bad">{failure}</p>{/if}
    {#if draft && now}
      {@const columns = [
        { name: 'Now', figures: now, violations: draft.violations.now },
        ...(earlier
          ? [
              {
                name: earlier.name,
                figures: earlier.draft.figures,
                violations: earlier.draft.violations.plan,
              },
            ]
          : []),
        { name: earlier ? asked : 'Plan', figures: draft.figures, violations: draft.violations.plan },
      ]}
      <div class="scroll">
        <table>
          <thead>
            <tr>
              <th scope="col">Circuits not kept</th>
              {#each columns as c, i (i)}<th scope="col">{c.name}</th>{/each}
            </tr>
          </thead>
          <tbody>
            {#each lines(now) as [what], row (what)}
              <tr>
                <th scope="row">{what}</th>
                {#each columns as c, i (i)}<td>{lines(c.figures)[row]![1]}</td>{/each}
              </tr>
            {/each}
            <tr>
              <th scope="row">Violations in the job</th>
              {#each columns as c, i (i)}<td>{c.violations}</td>{/each}
            </tr>
          </tbody>
        </table>
      </div>
      <p class="quiet">{worth(now, draft)}</p>
      {#if draft.proposal.withoutSpace.length > 0}
        <p role="alert" class="bad">
          {house.panel.name} has no space for {draft.proposal.withoutSpace.join(', ')}: their outlets would
          stay on no circuit.
        </p>
      {/if}
      <ul>
        {#each draft.proposal.extended as e (e.circuit.id)}
          <li>
            <span class="space">{e.circuit.space}</span>
            <strong>{e.circuit.name}</strong>
            <span>{e.circuit.breaker.rating} A, {sizeName(e.circuit.gauge)} {breakerWords(e.circuit)}</span>
            <span class="quiet">{addedTo(e)}</span>
          </li>
        {/each}
        {#each draft.proposal.circuits as c (c.id)}
          <li>
            <span class="space">{c.space}</span>
            <strong>{c.name}</strong>
            <span>{c.breaker.rating} A, {sizeName(c.gauge)} {breakerWords(c)}</span>
            <span class="quiet">{c.stops.length} {c.stops.length === 1 ? 'box' : 'boxes'}</span>
          </li>
        {/each}
      </ul>
      {#if stale}<p role="alert">The job has changed since this was planned. Work it out again.</p>{/if}
      <div class="row">
        <Act kind="main" big onclick={() => putInPlace(draft!)} disabled={stale}>Put this plan in place</Act>
        {#if earlier && !stale}
          <Act big onclick={() => putInPlace(earlier!.draft)}>Put the one before in place</Act>
        {/if}
        <span class="quiet">One step: Undo takes all of it back.</span>
      </div>
    {/if}
  {/if}
</section>

<style>
  .head,
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem 1rem;
    align-items: center;
  }
  .head h2 {
    flex: 1;
  }
  progress {
    width: 10rem;
    height: 0.9rem;
    appearance: none;
    background: var(--rule);
    border: 0;
  }
  progress::-webkit-progress-bar {
    background: var(--rule);
  }
  progress::-webkit-progress-value {
    background: var(--accent);
  }
  progress::-moz-progress-bar {
    background: var(--accent);
  }
  .scroll {
    overflow-x: auto;
  }
  table {
    width: 100%;
    max-width: 46rem;
    border-collapse: collapse;
  }
  th,
  td {
    text-align: right;
    padding: 0.3rem 0.6rem;
    border-bottom: 1px solid var(--rule);
  }
  th:first-child {
    text-align: left;
    font-weight: 600;
  }
  tbody td {
    font-size: 1.15rem;
    font-weight: 700;
  }
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 0.8rem;
    align-items: baseline;
    padding: 0.35rem 0;
    border-bottom: 1px solid var(--rule);
  }
  .space {
    font-family: var(--font-mono);
    min-width: 1.6rem;
    text-align: right;
  }
  .bad {
    color: var(--bad);
    font-weight: 600;
  }
</style>
