<script lang="ts">
  import { newLevel, newRoom } from '#core/plan/add.ts';
  import { byName } from '#core/job/names.ts';
  import { onMount } from 'svelte';
  import { rows } from '#core/job/document.ts';
  import { type Point } from '#core/job/outline.ts';
  import type { Area } from '#core/job/schema.ts';
  import { copyRoom, moveWall, snapRoom } from '#core/plan/arrange.ts';
  import { actions } from '$lib/actions.svelte.ts';
  import { address } from '$lib/address.svelte.ts';
  import Act from '$lib/parts/Act.svelte';
  import Choice from '$lib/parts/Choice.svelte';
  import Field from '$lib/parts/Field.svelte';
  import LengthField from '$lib/parts/LengthField.svelte';
  import LevelTabs from '$lib/parts/LevelTabs.svelte';
  import NumberField from '$lib/parts/NumberField.svelte';
  import Pictures from '$lib/parts/Pictures.svelte';
  import Tabs from '$lib/parts/Tabs.svelte';
  import HouseForm from '$lib/parts/walk/HouseForm.svelte';
  import PlanFiles from '$lib/parts/walk/PlanFiles.svelte';
  import RoomConditions from '$lib/parts/walk/RoomConditions.svelte';
  import RoomFixtures from '$lib/parts/walk/RoomFixtures.svelte';
  import RoomOpenings from '$lib/parts/walk/RoomOpenings.svelte';
  import RoomOutlets from '$lib/parts/walk/RoomOutlets.svelte';
  import RoomWalls from '$lib/parts/walk/RoomWalls.svelte';
  import WallElevation from '$lib/parts/walk/WallElevation.svelte';
  import PlanDrawing from '$lib/parts/plan/PlanDrawing.svelte';
  import { AREA_OPTIONS, LOCATION_OPTIONS } from '$lib/names.ts';
  import { levelAsked } from '$lib/levels.ts';
  import { areaOf, selectionIn, thingsOf, type Selection } from '$lib/selection.ts';
  import { useSession } from '$lib/store/session.svelte.ts';

  const session = useSession();
  const document = $derived(session.document);

  const view = $derived(address.oneOf('view', ['rooms', 'house', 'files']));
  const asked = $derived(selectionIn(address.get));
  const fixtureId = $derived(asked?.kind === 'fixture' ? asked.id : null);
  const boxId = $derived(asked?.kind === 'boxes' ? (asked.ids[0] ?? null) : null);
  const chosen = $derived(areaOf(document, asked));
  /** What has been chosen in a room is shown in the part that it belongs to. */
  const part = $derived(
    address.oneOf('part', [
      fixtureId !== null ? 'fixtures' : boxId !== null ? 'outlets' : 'walls',
      'walls',
      'openings',
      'fixtures',
      'outlets',
      'wall-view',
    ]),
  );

  const levelId = $derived(chosen?.levelId ?? levelAsked(document, address.get('level')));
  const onLevel = $derived([...session.view.areasOn(levelId)].sort(byName));
  const area = $derived(chosen ?? onLevel[0] ?? null);
  /** The level below shows through, so that walls are stacked on walls. */
  const below = $derived(
    rows(document.levels)
      .filter((l) => l.elevation < (document.levels[levelId]?.elevation ?? 0))
      .sort((a, b) => b.elevation - a.elevation)[0]?.id ?? null,
  );
  let showBelow = $state(false);

  const selected = $derived.by((): Selection => {
    if (part === 'fixtures' && fixtureId !== null) return { kind: 'fixture', id: fixtureId };
    if (part === 'outlets' && boxId !== null) return { kind: 'boxes', ids: [boxId] };
    return area ? { kind: 'area', id: area.id } : null;
  });

  const choose = (next: Selection, shown: string | null = part) =>
    address.choose(thingsOf(document, next, levelId), { view: null, part: shown });
  const chooseRoom = (id: string, shown: string | null = part) => choose({ kind: 'area', id }, shown);
  const chooseLevel = (level: string) => address.choose({ level });
  function select(next: Selection) {
    if (next?.kind === 'area') {
      if (next.id !== area?.id || view !== 'rooms') chooseRoom(next.id);
    } else if (next) choose(next, next.kind === 'fixture' ? 'fixtures' : 'outlets');
  }

  const change = (values: Partial<Area>) =>
    area
      ? session.attempt({ type: 'put', table: 'areas', rows: [{ ...area, ...values }] })
      : Promise.resolve(null);

  async function addRoom() {
    const room = newRoom(session.view, levelId);
    if (await session.execute({ type: 'put', table: 'areas', rows: [room] })) chooseRoom(room.id, 'walls');
  }

  async function addLevel() {
    const level = newLevel(document);
    if (await session.execute({ type: 'put', table: 'levels', rows: [level] })) chooseLevel(level.id);
  }

  async function copy(source: Area, mirror: boolean) {
    const made = copyRoom(document, source.id, {
      name: `${source.name} ${mirror ? 'mirrored' : 'copy'}`.slice(0, 80),
      mirror,
    });
    if (await session.execute(made.command)) chooseRoom(made.area.id);
  }

  const preview = (label: string, next: Area) =>
    session.preview({ type: 'batch', label, commands: [{ type: 'put', table: 'areas', rows: [next] }] });

  /** Where a dragged room started. */
  let from: Area | null = null;
  function dragRoom(id: string, by: Point) {
    from = from?.id === id ? from : (document.areas[id] ?? null);
    if (!from) return;
    const moved = { ...from, x: from.x + by.x, y: from.y + by.y };
    const others = onLevel.filter((a) => a.id !== id && a.walls.length > 2);
    const at = snapRoom(moved, others, document.job.settings.wallThickness);
    preview(`Move ${from.name}`, { ...moved, ...at });
  }
  function dragWall(id: string, wallId: string, by: number) {
    from = from?.id === id ? from : (document.areas[id] ?? null);
    const pushed = from && moveWall(from, wallId, Math.round(by));
    if (from && pushed?.ok) preview(`Push a wall of ${from.name}`, pushed.value);
  }
  function dragFixture(id: string, wallId: string, offset: number) {
    const fixture = document.fixtures[id];
    if (!fixture) return;
    session.preview({
      type: 'batch',
      label: `Move ${fixture.name}`,
      commands: [{ type: 'put', table: 'fixtures', rows: [{ ...fixture, wallId, offset }] }],
    });
  }
  function drop() {
    from = null;
    void session.release();
  }

  onMount(() => {
    const release = actions.offer(() => [
      { id: 'add-room', name: 'Add a room', hint: 'Walk', words: 'area survey', run: addRoom },
      {
        id: 'walk-house',
        name: 'House, panel and local amendments',
        hint: 'Walk',
        words: 'settings permit dwelling fuses breakers ordinance',
        run: () => address.show({ view: 'house' }),
      },
      {
        id: 'walk-files',
        name: 'Plans and outlets from files',
        hint: 'Walk',
        words: 'dxf cad csv import export spreadsheet',
        run: () => address.show({ view: 'files' }),
      },
    ]);
    return () => {
      release();
      void session.release();
    };
  });
</script>

<main>
  <section class="entry">
    <div class="sheet pad stack">
      <div class="head">
        <h1 class="sr-only">Walk</h1>
        <Tabs
          label="What is recorded"
          value={view}
          options={[
            { value: 'rooms', name: 'Rooms' },
            { value: 'house', name: 'House and panel' },
            { value: 'files', name: 'Files' },
          ]}
          set={(v) => address.show({ view: v })}
        />
      </div>
      <div class="head">
        <LevelTabs {document} {levelId} choose={chooseLevel} />
        <Act onclick={addLevel}>Add level</Act>
      </div>
      {#if view === 'rooms'}
        <div class="rooms">
          {#each onLevel as a (a.id)}
            <Act pressed={a.id === area?.id} onclick={() => chooseRoom(a.id)}>{a.name}</Act>
          {/each}
          <Act kind="main" onclick={addRoom}>Add room</Act>
        </div>
      {:else if view === 'files'}
        <PlanFiles {levelId} />
      {/if}
    </div>

    {#if view === 'house'}
      <HouseForm level={document.levels[levelId]} choose={chooseLevel} />
    {:else if view === 'rooms' && area}
      <div class="sheet pad stack">
        <h2 class="sr-only">{area.name}</h2>
        <div class="grid-form" style:--field="9rem">
          <Field label="Name" value={area.name} commit={(name) => change({ name: name.trim() })} />
          <Choice label="Kind" value={area.kind} options={AREA_OPTIONS} set={(kind) => change({ kind })} />
          <Choice
            label="Location"
            value={area.location}
            options={LOCATION_OPTIONS}
            set={(location) => change({ location })}
          />
        </div>
        <Tabs
          label="Part of {area.name}"
          value={part}
          options={[
            { value: 'walls', name: 'Walls' },
            { value: 'openings', name: 'Doors', count: session.view.ownOpeningsIn(area).length },
            { value: 'fixtures', name: 'Fixtures', count: session.view.fixturesIn(area).length },
            { value: 'outlets', name: 'Outlets', count: session.view.boxesIn(area).length },
            { value: 'wall-view', name: 'Wall view' },
          ]}
          set={(p) => address.show({ part: p })}
        />
        {#if part === 'walls'}
          <RoomWalls {area} />
          <details>
            <summary>Height, conditions, pictures</summary>
            <RoomConditions {area} />
            <Pictures about={{ table: 'areas', id: area.id }} name={area.name} />
          </details>
          <details>
            <summary>Where {area.name} stands; copy, mirror</summary>
            <div class="grid-form" style:--field="11rem">
              <LengthField
                label="First corner, east of plan zero"
                inches={area.x}
                set={(x) => change({ x: x! })}
              />
              <LengthField
                label="First corner, south of plan zero"
                inches={area.y}
                set={(y) => change({ y: y! })}
              />
              <NumberField
                label="First wall runs"
                unit="° from east, clockwise"
                value={area.heading}
                min={-360}
                max={360}
                set={(heading) => change({ heading: heading! })}
              />
            </div>
            <div class="row">
              <Act onclick={() => copy(area, false)}>Copy {area.name}</Act>
              <Act onclick={() => copy(area, true)}>Mirror {area.name}</Act>
              <Act
                kind="danger"
                onclick={() => session.execute({ type: 'remove', table: 'areas', ids: [area.id] })}
                >Remove {area.name}</Act
              >
            </div>
          </details>
        {:else if area.walls.length === 0}
          <p>Type the walls first; everything else stands on them.</p>
        {:else if part === 'openings'}
          <RoomOpenings {area} />
        {:else if part === 'fixtures'}
          <RoomFixtures
            {area}
            chosenId={fixtureId}
            choose={(id) => choose(id === null ? { kind: 'area', id: area.id } : { kind: 'fixture', id })}
          />
        {:else if part === 'outlets'}
          <RoomOutlets
            {area}
            chosenId={boxId}
            choose={(id) =>
              choose(id === null ? { kind: 'area', id: area.id } : { kind: 'boxes', ids: [id] })}
          />
        {:else}
          {#key area.id}<WallElevation {area} />{/key}
        {/if}
      </div>
    {/if}
  </section>

  <section class="plan sheet" aria-label="Plan">
    {#if onLevel.some((a) => a.walls.length > 0)}
      <PlanDrawing
        view={session.view}
        {levelId}
        coverage={false}
        {selected}
        ghost={showBelow ? below : null}
        onselect={select}
        ondragroom={dragRoom}
        ondragwall={part === 'walls' ? dragWall : undefined}
        ondragfixture={dragFixture}
        ondrop={drop}
      />
      {#if below}
        <label class="below"><input type="checkbox" bind:checked={showBelow} /> show the level below</label>
      {/if}
    {:else}
      <div class="empty">
        <p><strong>No walls on this level yet.</strong></p>
        <p>Add a room, then type its walls as you walk them. The plan draws itself here.</p>
        <div class="begin">
          <Act kind="main" big onclick={addRoom}>Add a room</Act>
          <Act big href={address.phase(session.jobId, 'runs')}>Only a circuit</Act>
          <Act big href={address.phase(session.jobId, 'panel')}>Only a panel</Act>
        </div>
      </div>
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
  .head,
  .rooms,
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    align-items: center;
  }
  .head > :global(.tabs) {
    flex: 1;
  }
  .row {
    margin-top: 0.6rem;
  }
  details {
    border-top: 1px solid var(--rule);
    padding-top: 0.4rem;
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
  .begin {
    display: flex;
    flex-wrap: wrap;
    justify-content: center;
    gap: 0.5rem;
    margin-top: 0.75rem;
  }
  .empty {
    display: grid;
    place-content: center;
    height: 100%;
    text-align: center;
    padding: 2rem;
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
