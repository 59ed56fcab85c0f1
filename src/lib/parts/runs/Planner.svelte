<script lang="ts">
  import { onDestroy } from 'svelte';
  import { rows } from '../../../core/job/document.ts';
  import type { JobDocument } from '../../../core/job/schema.ts';
  import { houseProblem, type PlannerSettings } from '../../../core/planner/house.ts';
  import { figuresOf, type PlanFigures } from '../../../core/planner/proposal.ts';
  import { priceBookOf } from '../../../core/panel/prices.ts';
  import { formatFeet } from '../../../core/units/length.ts';
  import { round } from '../../../core/units/quantity.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import { startPlanning } from '../../workers/planner.ts';
  import type { Draft } from '../../workers/planner.worker.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';
  import Toggle from '../Toggle.svelte';

  /** Plans circuits beside those there are, shows both, and puts the plan in place as one step. */
  let { close }: { close: () => void } = $props();

  const session = useSession();
  let gfciAt = $state<PlannerSettings['gfciAt']>('breaker');
  let maxOut = $state(2);
  let locked = $state<string[]>([]);
  const settings = $derived<PlannerSettings>({
    prices: priceBookOf(session.document.job),
    gfciAt,
    maxOut,
    locked: $state.snapshot(locked),
  });
  const house = $derived(houseProblem(session.view, settings));
  const now = $derived(house && figuresOf(session.view, house.open, settings));

  let draft = $state.raw<Draft | null>(null);
  /** The document the draft is for: an edit since then makes it stale. */
  let plannedFor = $state.raw<JobDocument | null>(null);
  let running = $state(false);
  let failure = $state('');
  let halt = () => {};
  onDestroy(() => halt());

  function start() {
    halt();
    draft = null;
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
  async function putInPlace() {
    if (!draft) return;
    stop();
    if (await session.execute(draft.proposal.command)) close();
  }

  const stale = $derived(draft !== null && plannedFor !== session.document);
  const openIds = $derived(new Set(house?.open.map((c) => c.id)));
  const lockable = $derived(
    rows(session.document.circuits)
      .filter((c) => openIds.has(c.id) || locked.includes(c.id))
      .sort((a, b) => a.space - b.space),
  );
  const fixed = $derived(house?.kept.filter((c) => !locked.includes(c.id)) ?? []);
  const outlets = $derived(
    house?.parts.reduce((n, p) => n + p.sites.reduce((k, s) => k + 1 + s.hung.length, 0), 0) ?? 0,
  );
  const dollars = (cents: number) => `$${Math.round(cents / 100).toLocaleString('en-US')}`;
  const PROTECTION = { none: '', afci: 'AFCI', gfci: 'GFCI', dual: 'AFCI + GFCI' } as const;
  const lines = (f: PlanFigures): [string, string][] => [
    ['Circuits', String(f.circuits)],
    ['Cable', formatFeet(f.cable)],
    ['Cable and breakers', dollars(f.cents)],
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
      {outlets} outlets into circuits from {house.panel.name}: kitchen, laundry, bathrooms and single
      appliances on circuits of their own, all else where cable, breakers and rooms cost least, by the price
      book in Panel.
    </p>
    <div class="grid-form" style:--field="13rem">
      <Choice
        label="GFCI, where asked for"
        value={gfciAt}
        options={[
          { value: 'breaker', name: 'At the breaker' },
          { value: 'first-box', name: 'Receptacle at the first box' },
        ]}
        set={(value) => {
          gfciAt = value;
          return null;
        }}
      />
      <Choice
        label="Cables leaving a box"
        value={maxOut}
        options={[1, 2, 3].map((value) => ({ value, name: `${value} at most` }))}
        set={(value) => {
          maxOut = value;
          return null;
        }}
      />
    </div>
    <details>
      <summary>Keep circuits as they are ({locked.length + fixed.length})</summary>
      {#each fixed as c (c.id)}
        <p class="quiet">
          {c.name}: {c.status === 'existing' ? 'exists' : 'on record as proved or energized'}
        </p>
      {/each}
      {#each lockable as c (c.id)}
        <Toggle
          label={c.name}
          value={locked.includes(c.id)}
          set={(on) => (locked = on ? [...locked, c.id] : locked.filter((id) => id !== c.id))}
        />
      {/each}
    </details>
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
            best{running ? '' : draft.finished ? ', done' : ', stopped'}
          {:else}Starting…{/if}
        </span>
      {/if}
    </div>
    {#if failure}<p role="alert" class="bad">{failure}</p>{/if}
    {#if draft && now}
      {@const before = lines(now)}
      <table>
        <thead
          ><tr><th scope="col">Circuits not kept</th><th scope="col">Now</th><th scope="col">Plan</th></tr
          ></thead
        >
        <tbody>
          {#each lines(draft.figures) as [what, value], i (what)}
            <tr><th scope="row">{what}</th><td>{before[i]![1]}</td><td>{value}</td></tr>
          {/each}
          <tr>
            <th scope="row">Violations in the job</th>
            <td>{draft.violations.now}</td><td>{draft.violations.plan}</td>
          </tr>
        </tbody>
      </table>
      {#if draft.proposal.withoutSpace.length > 0}
        <p role="alert" class="bad">
          {house.panel.name} has no space for {draft.proposal.withoutSpace.join(', ')}: their outlets would
          stay on no circuit.
        </p>
      {/if}
      <ul>
        {#each draft.proposal.circuits as c (c.id)}
          <li>
            <span class="space">{c.space}</span>
            <strong>{c.name}</strong>
            <span>{c.breaker.rating} A, {c.gauge} AWG {PROTECTION[c.breaker.protection]}</span>
            <span class="quiet">{c.stops.length} {c.stops.length === 1 ? 'box' : 'boxes'}</span>
          </li>
        {/each}
      </ul>
      {#if stale}<p role="alert">The job has changed since this was planned. Work it out again.</p>{/if}
      <div class="row">
        <Act kind="main" big onclick={putInPlace} disabled={stale}>Put this plan in place</Act>
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
  table {
    width: 100%;
    max-width: 36rem;
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
