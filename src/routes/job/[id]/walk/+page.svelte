<script lang="ts">
  import { onMount } from 'svelte';
  import { actions } from '$lib/actions.svelte.ts';
  import { address } from '$lib/address.svelte.ts';
  import Act from '$lib/parts/Act.svelte';
  import Choice from '$lib/parts/Choice.svelte';
  import Empty from '$lib/parts/Empty.svelte';
  import LevelTabs from '$lib/parts/LevelTabs.svelte';
  import Tabs from '$lib/parts/Tabs.svelte';
  import PlanDrawing from '$lib/parts/plan/PlanDrawing.svelte';
  import HouseForm from '$lib/parts/walk/HouseForm.svelte';
  import PlanFiles from '$lib/parts/walk/PlanFiles.svelte';
  import RoomSheet from '$lib/parts/walk/RoomSheet.svelte';
  import { useSession } from '$lib/store/session.svelte.ts';
  import { Walking } from './walking.svelte.ts';

  const session = useSession();
  /** More rooms than this are a list to choose from, so that the form stays near. */
  const MANY = 14;
  const walk = new Walking(() => session);

  onMount(() => {
    const release = actions.offer(walk.actions);
    return () => {
      release();
      void session.release();
    };
  });
</script>

<main>
  <section class="entry">
    <div class="sheet pad stack">
      <h1 class="sr-only">Walk</h1>
      <Tabs
        label="What is recorded"
        value={walk.view}
        options={[
          { value: 'rooms', name: 'Rooms' },
          { value: 'house', name: 'House and panel' },
          { value: 'files', name: 'Files' },
        ]}
        set={(v) => address.show({ view: v })}
      />
      <div class="row">
        <LevelTabs document={session.document} levelId={walk.levelId} choose={walk.chooseLevel} />
        <Act onclick={walk.addLevel}>Add level</Act>
      </div>
      {#if walk.view === 'rooms'}
        <div class="row">
          {#if walk.onLevel.length > MANY && walk.area}
            <Choice
              label="Room"
              value={walk.area.id}
              options={walk.onLevel.map((a) => ({ value: a.id, name: a.name }))}
              set={(id) => walk.chooseRoom(id)}
            />
          {:else}
            {#each walk.onLevel as a (a.id)}
              <Act pressed={a.id === walk.area?.id} onclick={() => walk.chooseRoom(a.id)}>{a.name}</Act>
            {/each}
          {/if}
          <Act kind="main" onclick={walk.addRoom}>Add room</Act>
        </div>
      {:else if walk.view === 'files'}
        <PlanFiles levelId={walk.levelId} />
      {/if}
    </div>
    {#if walk.view === 'house'}
      <HouseForm level={session.document.levels[walk.levelId]} choose={walk.chooseLevel} />
    {:else if walk.view === 'rooms' && walk.area}
      <RoomSheet
        area={walk.area}
        part={walk.part}
        fixtureId={walk.fixtureId}
        boxId={walk.boxId}
        choose={walk.choose}
        copy={walk.copy}
      />
    {/if}
  </section>

  <section class="plan sheet" aria-label="Plan">
    {#if walk.hasWalls}
      <PlanDrawing
        view={session.view}
        levelId={walk.levelId}
        coverage={false}
        selected={walk.selected}
        ghost={walk.showBelow ? walk.below : null}
        onselect={walk.select}
        ondragroom={walk.dragRoom}
        ondragwall={walk.part === 'walls' ? walk.dragWall : undefined}
        ondragfixture={walk.dragFixture}
        ondrop={walk.drop}
      />
      {#if walk.below}
        <label class="below"
          ><input type="checkbox" bind:checked={walk.showBelow} /> show the level below</label
        >
      {/if}
    {:else}
      <Empty title="No walls on this level yet.">
        <p>Add a room, then type its walls as you walk them. The plan draws itself here.</p>
        <div class="row">
          <Act kind="main" big onclick={walk.addRoom}>Add a room</Act>
          <Act big href={address.phase(session.jobId, 'runs')}>Only a circuit</Act>
          <Act big href={address.phase(session.jobId, 'panel')}>Only a panel</Act>
        </div>
      </Empty>
    {/if}
  </section>
</main>

<style>
  main {
    display: grid;
    grid-template-columns: minmax(24rem, 34rem) 1fr;
    gap: 0.75rem;
    padding: 0.75rem;
    flex: 1;
    align-items: start;
  }
  .entry {
    display: grid;
    gap: 0.75rem;
    min-width: 0;
  }
  .plan {
    position: sticky;
    top: 0.75rem;
    height: calc(100dvh - 6rem);
  }
  .below {
    position: absolute;
    left: 0.6rem;
    bottom: 0.6rem;
    padding: 0.2rem 0.5rem;
    background: var(--sheet);
    border: 1px solid var(--rule);
  }
  .plan .row {
    justify-content: center;
    margin-top: 0.75rem;
  }
  @media (max-width: 900px) {
    main {
      grid-template-columns: minmax(0, 1fr);
      padding: 0.5rem;
    }
    .plan {
      position: relative;
      top: 0;
      height: 42vh;
      order: -1;
    }
  }
</style>
