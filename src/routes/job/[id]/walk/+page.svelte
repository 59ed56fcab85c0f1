<script lang="ts">
  import { newId, rows } from '../../../../core/job/document.ts';
  import { outlineOf } from '../../../../core/job/outline.ts';
  import type { Area } from '../../../../core/job/schema.ts';
  import Act from '$lib/parts/Act.svelte';
  import Choice from '$lib/parts/Choice.svelte';
  import Field from '$lib/parts/Field.svelte';
  import LengthField from '$lib/parts/LengthField.svelte';
  import LevelTabs from '$lib/parts/LevelTabs.svelte';
  import NumberField from '$lib/parts/NumberField.svelte';
  import HouseForm from '$lib/parts/walk/HouseForm.svelte';
  import RoomOpenings from '$lib/parts/walk/RoomOpenings.svelte';
  import RoomOutlets from '$lib/parts/walk/RoomOutlets.svelte';
  import RoomWalls from '$lib/parts/walk/RoomWalls.svelte';
  import PlanDrawing from '$lib/parts/PlanDrawing.svelte';
  import { AREA_OPTIONS, LOCATION_OPTIONS } from '$lib/names.ts';
  import { firstLevel } from '$lib/levels.ts';
  import { useSession } from '$lib/store/session.svelte.ts';

  const session = useSession();
  const document = $derived(session.document);
  const areas = $derived(rows(document.areas));

  let chosenId = $state<string | null>(null);
  const area = $derived(
    (chosenId !== null && document.areas[chosenId]) ||
      areas.find((a) => a.levelId === (levelChosen ?? firstLevel(document))) ||
      null,
  );
  let levelChosen = $state<string | null>(null);
  const levelId = $derived(levelChosen ?? area?.levelId ?? firstLevel(document));

  const putArea = (next: Area) => session.attempt({ type: 'put', table: 'areas', rows: [next] });
  const change = (values: Partial<Area>) => (area ? putArea({ ...area, ...values }) : Promise.resolve(null));

  async function addRoom() {
    const onLevel = areas.filter((a) => a.levelId === levelId);
    const x = Math.max(
      0,
      ...onLevel.flatMap((a) => outlineOf(a).walls.map((w) => Math.max(w.from.x, w.to.x) + 36)),
    );
    const room: Area = {
      id: newId('area'),
      levelId,
      name: `Room ${areas.length + 1}`,
      kind: 'bedroom',
      x,
      y: 0,
      heading: 0,
      location: 'dry',
      walls: [],
    };
    await session.execute({ type: 'put', table: 'areas', rows: [room] });
    chosenId = room.id;
  }

  async function addLevel() {
    const id = newId('level');
    const top = Math.max(...rows(document.levels).map((l) => l.elevation));
    await session.execute({
      type: 'put',
      table: 'levels',
      rows: [{ id, name: `Level ${rows(document.levels).length + 1}`, elevation: top + 102 }],
    });
    levelChosen = id;
  }
</script>

<main>
  <section class="entry">
    <div class="sheet pad">
      <div class="head">
        <h1>Rooms</h1>
        <LevelTabs
          {document}
          {levelId}
          choose={(id) => {
            levelChosen = id;
            chosenId = areas.find((a) => a.levelId === id)?.id ?? null;
          }}
        />
        <Act onclick={addLevel}>Add level</Act>
      </div>
      <div class="rooms">
        {#each areas.filter((a) => a.levelId === levelId) as a (a.id)}
          <Act pressed={a.id === area?.id} onclick={() => (chosenId = a.id)}>{a.name}</Act>
        {/each}
        <Act kind="main" onclick={addRoom}>Add room</Act>
      </div>
    </div>

    {#if area && area.levelId === levelId}
      <div class="sheet pad stack">
        <h2>{area.name}</h2>
        <div class="grid-form" style:--field="11rem">
          <Field label="Name" value={area.name} commit={(name) => change({ name: name.trim() })} />
          <Choice label="Kind" value={area.kind} options={AREA_OPTIONS} set={(kind) => change({ kind })} />
          <Choice
            label="Location"
            value={area.location}
            options={LOCATION_OPTIONS}
            set={(location) => change({ location })}
          />
        </div>
        <RoomWalls {area} />
      </div>

      {#if area.walls.length > 0}
        <RoomOpenings {area} />
        <RoomOutlets {area} />
      {/if}

      <details class="sheet pad">
        <summary>Where {area.name} stands in the house</summary>
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
          <Act
            kind="danger"
            onclick={() => session.execute({ type: 'remove', table: 'areas', ids: [area.id] })}
            >Remove {area.name}</Act
          >
        </div>
      </details>
    {/if}

    <HouseForm level={document.levels[levelId]} />
  </section>

  <section class="plan sheet" aria-label="Plan">
    {#if areas.some((a) => a.levelId === levelId && a.walls.length > 0)}
      <PlanDrawing
        view={session.view}
        {levelId}
        coverage={false}
        selected={area ? { kind: 'area', id: area.id } : null}
        onselect={(s) => s?.kind === 'area' && (chosenId = s.id)}
      />
    {:else}
      <div class="empty">
        <p><strong>No walls on this level yet.</strong></p>
        <p>Add a room, then type its walls as you walk them. The plan draws itself here.</p>
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
  .rooms,
  .row {
    margin-top: 0.6rem;
  }
  .plan {
    position: sticky;
    top: 0.75rem;
    height: calc(100dvh - 6rem);
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
      position: static;
      height: 60vh;
      order: -1;
    }
  }
</style>
