<script lang="ts">
  import { onMount } from 'svelte';
  import { EDITIONS } from '#core/job/schema.ts';
  import { actions } from '$lib/actions.svelte.ts';
  import { address } from '$lib/address.svelte.ts';
  import Act from '$lib/parts/Act.svelte';
  import Empty from '$lib/parts/Empty.svelte';
  import FindingsList from '$lib/parts/FindingsList.svelte';
  import LevelTabs from '$lib/parts/LevelTabs.svelte';
  import Tabs from '$lib/parts/Tabs.svelte';
  import Duplicate from '$lib/parts/layout/Duplicate.svelte';
  import EditionCompare from '$lib/parts/layout/EditionCompare.svelte';
  import ManyOutlets from '$lib/parts/layout/ManyOutlets.svelte';
  import OutletForm from '$lib/parts/layout/OutletForm.svelte';
  import Placed from '$lib/parts/layout/Placed.svelte';
  import PlanDrawing from '$lib/parts/plan/PlanDrawing.svelte';
  import { useSession } from '$lib/store/session.svelte.ts';
  import { Laying } from './laying.svelte.ts';

  const session = useSession();
  const laying = new Laying(() => session);
  const { area, box, boxes, selected, levelId, hasRooms, tab, plan } = $derived(laying);
  /** On a phone what is not the next action comes when asked for. */
  let more = $state(false);

  onMount(() => {
    const release = actions.offer(laying.actions);
    const keys = laying.listenForKeys();
    return () => {
      release();
      keys();
      void session.release();
    };
  });
</script>

<main>
  <section class="left">
    <div class="bar sheet">
      <h1 class="sr-only">Layout</h1>
      <LevelTabs document={session.document} {levelId} choose={(level) => address.choose({ level })} />
      <Act kind="main" onclick={laying.placeHere} disabled={!hasRooms || laying.placing}
        >{laying.placing ? 'Placing…' : area ? `Place in ${area.name}` : 'Place missing'} <kbd>P</kbd></Act
      >
      <div class="editions extra" class:more role="group" aria-label="Code edition, NEC">
        {#each EDITIONS as edition (edition)}
          <button
            type="button"
            aria-pressed={session.document.job.edition === edition}
            onclick={() => session.execute({ type: 'edit-job', values: { edition } })}>{edition}</button
          >
        {/each}
      </div>
      <span class="grow"></span>
      <span class="extra" class:more><Act href="/job/{session.jobId}/layout/lists">Lists</Act></span>
      <span class="extra" class:more
        ><Act onclick={laying.addOutlet} disabled={!hasRooms}>Add outlet <kbd>A</kbd></Act></span
      >
      <span class="less"
        ><Act onclick={() => (more = !more)} pressed={more} label="Edition, lists, add an outlet">⋯</Act
        ></span
      >
    </div>
    <div class="plan-sheet sheet">
      {#if hasRooms}
        <PlanDrawing
          view={session.view}
          {levelId}
          {selected}
          marked={laying.marked}
          cords={laying.cords}
          tones={laying.tones}
          onselect={laying.select}
          onkey={laying.key}
          ondragbox={laying.dragBox}
          ondrop={() => void session.release()}
        />
      {:else}
        <Empty title="No room on this level is drawn yet.">
          <p>Walk the rooms first; their walls are what outlets are placed on.</p>
          <Act kind="main" href="/job/{session.jobId}/walk">Go to Walk</Act>
        </Empty>
      {/if}
    </div>
    <p class="legend quiet">
      <span><i class="reached"></i> in reach of a receptacle</span>
      <span><i class="open"></i> out of reach</span>
      <span>Drag, or arrow keys: an inch; with Shift, a foot. Shift-drag chooses many.</span>
    </p>
  </section>

  <section class="right">
    {#if plan}<Placed {plan} select={laying.select} close={() => (laying.plan = null)} />{/if}
    {#if box && area}
      {#key box.id}
        <OutletForm {box} {area} showCord={(paths) => (laying.cords = paths.map((p) => p.points))} />
        <div class="sheet pad">
          <Duplicate {box} {area} placed={(ids) => laying.select({ kind: 'boxes', ids: [box.id, ...ids] })} />
        </div>
      {/key}
    {:else if boxes.length > 1}
      <ManyOutlets {boxes} onremove={() => laying.remove(boxes)} />
    {:else if selected?.kind === 'fixture' && area}
      {@const fixture = session.document.fixtures[selected.id]}
      {#if fixture}
        <div class="sheet pad stack">
          <h2>{fixture.name}, {area.name}</h2>
          <p class="quiet">Its place and size are recorded in Walk.</p>
          <Act href="/job/{session.jobId}/walk?fixture={fixture.id}">Open in Walk</Act>
        </div>
      {/if}
    {/if}
    <div class="sheet">
      <Tabs
        label="What is shown"
        value={tab}
        options={[
          { value: 'findings', name: 'Findings' },
          { value: 'editions', name: 'Compare editions' },
        ]}
        set={(tab) => address.show({ tab })}
      />
      {#if tab === 'findings'}
        {#if area}
          <label class="only"><input type="checkbox" bind:checked={laying.onlyRoom} /> only {area.name}</label
          >
        {/if}
        <FindingsList
          findings={laying.findings}
          apply={laying.apply}
          show={(f) => laying.showAbout(f.about, f.spans)}
        />
      {:else}
        <EditionCompare
          document={session.document}
          paint={(next) => (laying.changes = next)}
          show={(c) => laying.showAbout(c.about, (c.to ?? c.from)?.spans)}
        />
      {/if}
    </div>
  </section>
</main>

<style>
  main {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(22rem, 27rem);
    gap: 0.75rem;
    padding: 0.75rem;
    flex: 1;
    align-items: start;
  }
  .left {
    display: grid;
    gap: 0.5rem;
    position: sticky;
    top: 0.75rem;
  }
  .right {
    display: grid;
    gap: 0.75rem;
  }
  .bar {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    align-items: center;
    padding: 0.5rem 0.75rem;
  }
  .grow {
    flex: 1;
  }
  .less {
    display: none;
  }
  @media (max-width: 760px) {
    .grow,
    .extra:not(.more) {
      display: none;
    }
    .less {
      display: inline;
    }
  }
  .editions {
    display: inline-flex;
    align-items: center;
    gap: 0;
  }
  .editions button {
    min-height: 40px;
    padding: 0 0.7rem;
    border: 1px solid var(--edge);
    margin-right: -1px;
    font-weight: 600;
    background: var(--sheet);
  }
  .editions button[aria-pressed='true'] {
    background: var(--ink);
    color: var(--sheet);
  }
  .plan-sheet {
    height: calc(100dvh - 11.5rem);
    min-height: 22rem;
  }
  .legend {
    display: flex;
    flex-wrap: wrap;
    gap: 0.25rem 1.25rem;
    font-size: 0.95rem;
  }
  .legend i {
    display: inline-block;
    width: 1.8rem;
    vertical-align: middle;
    border-top: 4px solid var(--covered);
  }
  .legend i.open {
    border-top: 7px dashed var(--uncovered);
  }
  .only {
    display: flex;
    gap: 0.4rem;
    align-items: center;
    padding: 0.4rem 0.9rem 0;
    font-weight: 600;
  }
  @media (max-width: 900px) {
    main {
      grid-template-columns: minmax(0, 1fr);
      padding: 0.5rem;
    }
    .bar :global(kbd) {
      display: none;
    }
    .left {
      position: static;
    }
    .plan-sheet {
      height: 56vh;
    }
  }
</style>
