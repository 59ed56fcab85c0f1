<script lang="ts">
  import { onMount } from 'svelte';
  import { tinykeys } from 'tinykeys';
  import { svgOf } from '#core/boxes/svg.ts';
  import { circuitNames } from '#core/records/gates.ts';
  import { isTyping } from '$lib/keys.ts';
  import { download, fileName } from '$lib/files.ts';
  import Act from '$lib/parts/Act.svelte';
  import Page from '$lib/parts/Page.svelte';
  import Tabs from '$lib/parts/Tabs.svelte';
  import BoxSteps from '$lib/parts/boxes/BoxSteps.svelte';
  import Effects from '$lib/parts/boxes/Effects.svelte';
  import FillAndParts from '$lib/parts/boxes/FillAndParts.svelte';
  import FoundCables from '$lib/parts/boxes/FoundCables.svelte';
  import SchoolFields from '$lib/parts/boxes/SchoolFields.svelte';
  import TrimList from '$lib/parts/boxes/TrimList.svelte';
  import WiringPicture from '$lib/parts/boxes/WiringPicture.svelte';
  import WiringTable from '$lib/parts/boxes/WiringTable.svelte';
  import BoxBar from '$lib/parts/prove/BoxBar.svelte';
  import CircuitBar from '$lib/parts/prove/CircuitBar.svelte';
  import PowerBack from '$lib/parts/prove/PowerBack.svelte';
  import DoneBy from '$lib/parts/prove/DoneBy.svelte';
  import { deviceName } from '$lib/names.ts';
  import { useSession } from '$lib/store/session.svelte.ts';
  import { Trimming, type TrimTab } from './trimming.svelte.ts';

  const session = useSession();
  const trim = new Trimming(() => session);
  const { box, circuit, run, stop, wiring, planned, opened, tab } = $derived(trim);

  const TABS: { value: TrimTab; name: string }[] = [
    { value: 'steps', name: 'Steps' },
    { value: 'picture', name: 'Picture' },
    { value: 'done', name: 'Otherwise' },
    { value: 'fill', name: 'Fill' },
  ];
  const prove = (boxId: string, task: string) =>
    `/job/${session.jobId}/prove?circuit=${circuit?.id ?? ''}&box=${boxId}&tab=${task}`;
  const finished = $derived(
    opened?.open === true && opened.steps.every((s) => trim.ticks.has(s.key)) && trim.moved.size === 0,
  );

  function exportSvg() {
    if (!trim.picture || !box) return;
    download(
      fileName(session.document.job, `-${box.name.toLowerCase()}.svg`),
      'image/svg+xml',
      svgOf(trim.picture, `${box.name}${stop ? `, ${stop.area.name}` : ''}`),
    );
  }

  onMount(() => {
    const unless = (work: () => void) => (e: KeyboardEvent) => {
      if (!isTyping(e)) work();
    };
    return tinykeys(window, {
      '[': unless(() => trim.go(-1)),
      ']': unless(() => trim.go(1)),
      Escape: unless(() => trim.look(null)),
    });
  });
</script>

{#snippet picture(editable: boolean)}
  {#if trim.failed}
    <p class="wrong" role="alert">
      The picture could not be laid out: {trim.failed}. The table says the same.
    </p>
  {:else if trim.picture && wiring}
    <WiringPicture
      picture={trim.picture}
      title="Wiring of {box!.name}"
      selected={trim.end}
      moved={trim.moved}
      onselect={trim.look}
      onplace={editable ? trim.place : undefined}
      ontab={editable ? trim.toggleTab : undefined}
    />
  {:else}
    <p class="quiet" role="status">Laying out…</p>
  {/if}
{/snippet}

{#snippet table(editable: boolean)}
  {#if wiring}
    <WiringTable
      {wiring}
      nameOf={trim.nameOf}
      selected={trim.end}
      moved={trim.moved}
      onselect={trim.look}
      onplace={editable ? trim.place : undefined}
    />
  {/if}
{/snippet}

<Page>
  <h1 class="sr-only">Trim{box ? `: ${box.name}` : ''}</h1>
  {#if !box}
    {#if !circuit || !run}
      <div class="sheet empty">
        <p><strong>No circuits to trim yet.</strong></p>
        <p>The wiring of a box follows from its circuit: what feeds it, and what it feeds.</p>
        <Act kind="main" big href="/job/{session.jobId}/runs">Add a circuit in Runs</Act>
      </div>
    {:else}
      <CircuitBar {circuit} circuits={trim.circuits} power={trim.power} choose={trim.chooseCircuit}>
        {#snippet links()}
          <Act href="/job/{session.jobId}/prove?circuit={circuit.id}">Prove this circuit</Act>
        {/snippet}
      </CircuitBar>
      <TrimList {run} progress={trim.progress} choose={trim.chooseBox} />
      <details class="sheet school">
        <summary>How this job is wired</summary>
        <SchoolFields
          school={session.document.job.settings.school}
          set={(school) =>
            session.attempt({
              type: 'edit-job',
              values: { settings: { ...session.document.job.settings, school } },
            })}
        />
      </details>
    {/if}
  {:else}
    <div class="box">
      <header class="sheet head">
        <p class="back"><a href="/job/{session.jobId}/trim?circuit={circuit?.id ?? ''}">‹ All boxes</a></p>
        <BoxBar
          name={box.name}
          where="{stop?.area.name ?? 'on no circuit'}{stop
            ? ` · ${deviceName(box)} · box ${trim.index + 1} of ${run!.stops.length}`
            : ''}"
          go={trim.go}
        />
        {#if circuit}
          <p class="power {trim.power}" role="status">
            {circuit.name}:
            {trim.power === 'dead' && opened?.open
              ? 'proved dead at this box'
              : trim.power === 'energized'
                ? 'power is on'
                : trim.power === 'measuring'
                  ? 'live to measure'
                  : 'not proved dead here'}
          </p>
        {/if}
        <DoneBy by={trim.by} sign={trim.sign} />
      </header>

      {#if !stop || !planned}
        <div class="sheet pad">
          <p><strong>{box.name} is on no circuit, so nothing is planned in it.</strong></p>
          <p>Put it on a run, or record what is in it.</p>
          <Act kind="main" big href="/job/{session.jobId}/runs?box={box.id}">Put it on a circuit</Act>
          <FoundCables {box} />
          {#if wiring}{@render picture(true)}{@render table(true)}{/if}
        </div>
      {:else}
        <div class="tabs">
          <Tabs label="In the box" value={tab as TrimTab} options={TABS} set={trim.show} />
        </div>
        {#if trim.said}<p class="wrong" role="alert">{trim.said}</p>{/if}
        {#if box.wiring && tab !== 'done'}
          <p class="recorded">
            Recorded {box.wiring.stage === 'as-done' ? 'as done' : 'as found'}, {trim.moved.size > 0
              ? 'otherwise than planned'
              : 'as planned'}.
            <button type="button" onclick={() => trim.show('done')}>See what it does</button>
          </p>
        {/if}
        <div class="cols" class:one={tab === 'fill'}>
          {#if tab !== 'fill'}
            <section class="sheet pad see" class:late={tab === 'steps'} aria-label="Picture">
              {@render picture(tab === 'done')}
              {#if trim.end}
                <p class="quiet">
                  {tab === 'done'
                    ? 'Now tap where it goes, or drag it there; off everything caps it.'
                    : 'Lit: the conductor and what it lands on. Tap it again to let go.'}
                </p>
              {/if}
              {#if tab === 'picture'}
                <div class="acts no-print">
                  <Act onclick={exportSvg}>Export SVG</Act>
                  <Act onclick={() => window.print()}>Print</Act>
                </div>
              {/if}
            </section>
          {/if}
          <section class="sheet pad">
            {#if tab === 'steps'}
              {#if opened?.open}
                <p class="caution">
                  Treat a dead wire as live anyway. If anyone may have touched a breaker, prove it again.
                </p>
                <BoxSteps
                  {box}
                  place="{box.name}, {stop.area.name}"
                  by={trim.by}
                  steps={opened.steps}
                  ticks={trim.ticks}
                  onlook={(ends) => trim.look(ends[0] ?? null)}
                />
                {#if finished}
                  <p class="good">✓ Every step is ticked.</p>
                  <PowerBack
                    circuit={circuit!}
                    by={trim.by}
                    purpose="use"
                    kind="main"
                    label="Boxes closed, power is back on"
                  />
                {:else if opened.steps.some((s) => s.shut !== null)}
                  <Act big href={prove(box.id, 'work')}>Clamp the neutral first</Act>
                {/if}
              {:else if trim.power === 'energized'}
                <h2>Tests, with the power on</h2>
                <BoxSteps
                  {box}
                  place="{box.name}, {stop.area.name}"
                  by={trim.by}
                  steps={trim.tests}
                  ticks={trim.ticks}
                />
                <Act kind="main" big href={prove(box.id, 'read')}>Log the readings at {box.name}</Act>
                <p class="quiet">To work inside again, prove it dead.</p>
                <Act href={prove(box.id, 'dead')}>Prove {box.name} dead</Act>
              {:else}
                <p class="locked">
                  <strong>Locked.</strong> The steps inside {box.name} open once this box is proved dead, with
                  {circuitNames(session.document, stop)} off.
                </p>
                <p class="quiet">{opened && !opened.open ? `${opened.why}.` : ''}</p>
                <Act kind="main" big href={prove(box.id, 'dead')}>Prove {box.name} dead</Act>
              {/if}
            {:else if tab === 'picture'}
              {@render table(false)}
              <details>
                <summary>How this box is wired</summary>
                <SchoolFields
                  school={stop.school}
                  set={(school) =>
                    session.attempt({ type: 'put', table: 'boxes', rows: [{ ...box, school }] })}
                />
                {#if box.school}
                  <Act
                    onclick={() =>
                      session.attempt({ type: 'put', table: 'boxes', rows: [{ ...box, school: null }] })}
                    >As the rest of the job</Act
                  >
                {/if}
              </details>
            {:else if tab === 'done'}
              <p class="quiet">
                Take a conductor, then its new place. Hekto works out what that does before power finds out.
              </p>
              {#if trim.energized}<Effects energized={trim.energized} />
              {:else}
                <p class="unknown">
                  ? Not simulated: the cables that were recorded are not matched to the plan. Name the feed,
                  or go back to the plan.
                </p>
              {/if}
              <div class="acts">
                <Act pressed={trim.stage === 'as-found'} onclick={() => trim.setStage('as-found')}
                  >As found</Act
                >
                <Act pressed={trim.stage === 'as-done'} onclick={() => trim.setStage('as-done')}>As done</Act>
                <Act onclick={trim.addSplice}>Add a splice</Act>
                <Act onclick={trim.addJumper}>Add a jumper</Act>
                {#each trim.jumpers as id (id)}
                  <Act kind="danger" onclick={() => trim.takeJumper(id)}>Take {id.replace('-', ' ')} out</Act>
                {/each}
                {#if box.wiring && (trim.moved.size > 0 || !trim.followed)}<Act
                    kind="main"
                    onclick={trim.mend}>Mended: as planned again</Act
                  >{/if}
              </div>
              {#if box.wiring}
                <p class="quiet">
                  Kept on record {box.wiring.stage === 'as-done' ? 'as done' : 'as found'}{box.wiring.by
                    ? ` by ${box.wiring.by}`
                    : ''}. {box.wiring.stage === 'as-done'
                    ? 'While it is a danger, power does not go back on in this job.'
                    : ''}
                </p>
              {/if}
              {@render table(true)}
              <details>
                <summary>Cables and splices that were found</summary>
                <FoundCables {box} />
              </details>
            {:else if wiring}
              <FillAndParts {box} {wiring} />
            {/if}
          </section>
        </div>
      {/if}
    </div>
  {/if}
</Page>

<style>
  .empty {
    padding: 3rem 1rem;
    text-align: center;
    display: grid;
    gap: 0.75rem;
    justify-items: center;
  }
  .box,
  .pad {
    display: grid;
    gap: 0.75rem;
    align-content: start;
    min-width: 0;
  }
  .pad {
    padding: 1rem;
  }
  .school {
    padding: 0.75rem 1rem;
  }
  .head {
    display: grid;
    grid-template-columns: auto 1fr auto auto;
    align-items: center;
    gap: 0.5rem 1.25rem;
    padding: 0.5rem 1rem;
  }
  .back a {
    display: inline-grid;
    align-content: center;
    min-height: 44px;
    font-weight: 650;
  }
  .power {
    font-weight: 700;
    padding: 0.3rem 0.7rem;
    border-left: 6px solid var(--edge);
  }
  .power.dead {
    border-color: var(--good);
  }
  .power.energized {
    border-color: var(--warn);
  }
  .power.measuring {
    border-color: var(--bad);
  }
  .cols {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 0.75rem;
    align-items: start;
  }
  .one {
    grid-template-columns: minmax(0, 1fr);
  }
  .see {
    position: sticky;
    top: 0.5rem;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
  }
  .recorded {
    padding: 0.5rem 0.75rem;
    border-left: 6px solid var(--bad);
    background: var(--panel);
    font-weight: 650;
  }
  .recorded button {
    text-decoration: underline;
    min-height: 44px;
  }
  .caution {
    border-left: 6px solid var(--warn);
    background: var(--panel);
    padding: 0.5rem 0.75rem;
  }
  .locked {
    font-size: 1.15rem;
  }
  h2 {
    font-weight: 750;
    font-size: 1.2rem;
  }
  @media (max-width: 900px) {
    .head {
      grid-template-columns: auto minmax(0, 1fr);
      gap: 0.1rem 1rem;
      padding: 0.25rem 0.75rem;
    }
    .head .power {
      grid-column: 1 / -1;
      order: 1;
    }
    .tabs :global(button) {
      padding: 0 0.4rem;
    }
    .cols {
      grid-template-columns: minmax(0, 1fr);
    }
    .see {
      position: static;
      padding: 0.5rem;
    }
    /* The next action comes first; the picture below it. */
    .late {
      order: 1;
    }
    .box {
      padding-bottom: 6rem;
      gap: 0.5rem;
    }
  }
  @media print {
    .cols {
      display: block;
    }
    .tabs,
    .head :global(button) {
      display: none;
    }
  }
</style>
