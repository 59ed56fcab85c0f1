<script lang="ts">
  import { onMount } from 'svelte';
  import { tinykeys } from 'tinykeys';
  import { page } from '$app/state';
  import { rows } from '../../../../core/job/document.ts';
  import { outlineOf } from '../../../../core/job/outline.ts';
  import { EDITIONS, MAX_WALL, type Box } from '../../../../core/job/schema.ts';
  import { decisionsFor } from '../../../../core/code/decisions.ts';
  import type { Finding, Fix } from '../../../../core/code/rule.ts';
  import { actions } from '$lib/actions.svelte.ts';
  import { applyFix, placeIn, type Placed } from '$lib/fixes.ts';
  import { firstLevel } from '$lib/levels.ts';
  import { isTyping } from '$lib/keys.ts';
  import { boxAt, nextBoxName } from '$lib/outlets.ts';
  import Act from '$lib/parts/Act.svelte';
  import Choice from '$lib/parts/Choice.svelte';
  import Decisions from '$lib/parts/Decisions.svelte';
  import Field from '$lib/parts/Field.svelte';
  import FindingsList from '$lib/parts/FindingsList.svelte';
  import LengthField from '$lib/parts/LengthField.svelte';
  import LevelTabs from '$lib/parts/LevelTabs.svelte';
  import PlanDrawing, { type Marked, type Selection } from '$lib/parts/PlanDrawing.svelte';
  import { DEVICE_OPTIONS, GROUNDING_OPTIONS, RATING_OPTIONS, STATUS_OPTIONS } from '$lib/names.ts';
  import { useSession } from '$lib/store/session.svelte.ts';

  const session = useSession();
  const document = $derived(session.document);

  const asked = page.url.searchParams;
  let selected = $state<Selection>(
    asked.get('box')
      ? { kind: 'box', id: asked.get('box')! }
      : asked.get('area')
        ? { kind: 'area', id: asked.get('area')! }
        : null,
  );
  let levelChosen = $state<string | null>(null);
  let placed = $state.raw<Placed[]>([]);
  let marked = $state.raw<Marked | null>(null);

  const box = $derived(selected?.kind === 'box' ? document.boxes[selected.id] : undefined);
  const area = $derived(document.areas[selected?.kind === 'area' ? selected.id : (box?.areaId ?? '')]);
  const levelId = $derived(levelChosen ?? area?.levelId ?? firstLevel(document));
  const onLevel = $derived(rows(document.areas).filter((a) => a.levelId === levelId));
  const hasRooms = $derived(onLevel.some((a) => a.walls.length > 0));

  function select(next: Selection) {
    selected = next;
    marked = null;
  }

  async function placeAll() {
    placed = await placeIn(session, area ? [area] : onLevel);
  }

  async function addOutlet() {
    const target = area ?? onLevel[0];
    const wall = target && outlineOf(target).walls[0];
    if (!target || !wall) return;
    const added = boxAt(target, nextBoxName(document, target), {
      wallId: wall.id,
      offset: Math.round(wall.length / 2),
      height: document.job.settings.receptacleHeight,
      fromWall: 0,
    });
    if (await session.execute({ type: 'put', table: 'boxes', rows: [added] }))
      select({ kind: 'box', id: added.id });
  }

  /** Slides along the floor line; past a corner it goes on along the next wall. */
  function slide(current: Box, inches: number) {
    const home = document.areas[current.areaId];
    const outline = home && outlineOf(home);
    const wall = outline?.walls.find((w) => w.id === current.wallId);
    if (!outline || !wall) return;
    const offset = current.offset + inches;
    const i = outline.walls.indexOf(wall);
    const next = outline.walls[(i + 1) % outline.walls.length]!;
    const before = outline.walls.at(i - 1)!;
    const place =
      offset > wall.length
        ? { wallId: next.id, offset: Math.min(offset - wall.length, next.length) }
        : offset < 0
          ? { wallId: before.id, offset: Math.max(0, before.length + offset) }
          : { wallId: wall.id, offset };
    session.preview({ type: 'move-box', id: current.id, ...place }, 500);
  }

  function key(event: KeyboardEvent, current: Box) {
    const step = event.shiftKey ? 12 : 1;
    if (event.altKey || event.ctrlKey || event.metaKey) return;
    if (event.key === 'ArrowRight' || event.key === 'ArrowUp') slide(current, step);
    else if (event.key === 'ArrowLeft' || event.key === 'ArrowDown') slide(current, -step);
    else if (event.key === 'Delete' || event.key === 'Backspace') {
      void session.execute({ type: 'remove', table: 'boxes', ids: [current.id] });
      selected = null;
    } else return;
    event.preventDefault();
  }

  async function apply(fix: Fix) {
    placed = await applyFix(session, fix);
  }

  function show(finding: Finding) {
    const { table, id } = finding.about;
    if (table === 'boxes') selected = { kind: 'box', id };
    else if (table === 'areas') selected = { kind: 'area', id };
    else if (table === 'circuits') {
      const boxId = document.circuits[id]?.stops[0]?.boxId;
      selected = boxId ? { kind: 'box', id: boxId } : null;
    }
    const areaId = table === 'areas' ? id : (document.boxes[id]?.areaId ?? null);
    levelChosen = areaId ? (document.areas[areaId]?.levelId ?? null) : levelChosen;
    marked = finding.spans && areaId ? { areaId, spans: finding.spans } : null;
  }

  onMount(() => {
    const release = actions.offer(() => [
      {
        id: 'place',
        name: 'Place all that is missing',
        hint: 'P',
        words: 'receptacles outlets plugs spacing',
        run: placeAll,
      },
      { id: 'add-outlet', name: 'Add an outlet', hint: 'A', words: 'receptacle plug', run: addOutlet },
    ]);
    const unless = (work: () => unknown) => (e: KeyboardEvent) => {
      if (isTyping(e)) return;
      e.preventDefault();
      void work();
    };
    const keys = tinykeys(window, { p: unless(placeAll), a: unless(addOutlet) });
    return () => {
      release();
      keys();
      void session.release();
    };
  });

  const putBox = (next: Box) => session.attempt({ type: 'put', table: 'boxes', rows: [next] });
</script>

<main>
  <section class="left">
    <div class="bar sheet">
      <h1 class="sr-only">Layout</h1>
      <LevelTabs
        {document}
        {levelId}
        choose={(id) => {
          levelChosen = id;
          selected = null;
        }}
      />
      <div class="editions" role="group" aria-label="Code edition, NEC">
        <span aria-hidden="true">NEC</span>
        {#each EDITIONS as edition (edition)}
          <button
            type="button"
            aria-pressed={document.job.edition === edition}
            onclick={() => session.execute({ type: 'edit-job', values: { edition } })}>{edition}</button
          >
        {/each}
      </div>
      <span class="grow"></span>
      <Act onclick={addOutlet} disabled={!hasRooms}>Add outlet <kbd>A</kbd></Act>
      <Act kind="main" onclick={placeAll} disabled={!hasRooms}>Place missing <kbd>P</kbd></Act>
    </div>
    <div class="plan sheet">
      {#if hasRooms}
        <PlanDrawing
          view={session.view}
          {levelId}
          {selected}
          {marked}
          onselect={select}
          onkey={key}
          ondrag={(id, wallId, offset) => session.preview({ type: 'move-box', id, wallId, offset })}
          ondrop={() => void session.release()}
        />
      {:else}
        <div class="empty">
          <p><strong>No rooms on this level yet.</strong></p>
          <p>Walk the rooms first; their walls are what outlets are placed on.</p>
          <Act kind="main" href="/job/{session.jobId}/walk">Go to Walk</Act>
        </div>
      {/if}
    </div>
    <p class="legend quiet">
      <span><i class="reached"></i> within 6' of a receptacle</span>
      <span><i class="open"></i> out of reach</span>
      <span>Drag an outlet, or select it and use the arrow keys: an inch; with Shift, a foot.</span>
    </p>
  </section>

  <section class="right">
    {#if placed.length > 0}
      <div class="sheet pad" role="status">
        <h2>Placed {placed.length}</h2>
        <ul class="placed">
          {#each placed as p (p.name)}<li><strong>{p.name}</strong> {p.areaName}, {p.reason}</li>{/each}
        </ul>
        <Act onclick={() => (placed = [])}>Close</Act>
      </div>
    {/if}
    {#if box && area}
      <div class="sheet pad stack">
        <h2>{box.name}, {area.name}</h2>
        <div class="grid-form" style:--field="7.5rem">
          <Field label="Name" value={box.name} commit={(name) => putBox({ ...box, name: name.trim() })} />
          <LengthField
            label="From wall start"
            inches={box.offset}
            options={{ max: MAX_WALL }}
            set={(offset) =>
              session.attempt({ type: 'move-box', id: box.id, wallId: box.wallId, offset: offset! })}
          />
          <LengthField
            label="Height"
            inches={box.height}
            options={{ bare: 'inches', max: 240 }}
            set={(height) => putBox({ ...box, height: height! })}
          />
          <Choice
            label="Device"
            value={box.device.kind}
            options={DEVICE_OPTIONS}
            set={(kind) => putBox({ ...box, device: { ...box.device, kind } })}
          />
          <Choice
            label="Rating"
            value={box.device.rating}
            options={RATING_OPTIONS}
            set={(rating) => putBox({ ...box, device: { ...box.device, rating } })}
          />
          <Choice
            label="Work"
            value={box.status}
            options={STATUS_OPTIONS}
            set={(status) => putBox({ ...box, status })}
          />
          <Choice
            label="Ground"
            value={box.grounding}
            options={GROUNDING_OPTIONS}
            set={(grounding) => putBox({ ...box, grounding })}
          />
          <LengthField
            label="Cord to water"
            optional
            inches={box.waterDistance}
            options={{ max: 1200 }}
            set={(waterDistance) => putBox({ ...box, waterDistance })}
          />
          <LengthField
            label="Out from wall"
            inches={box.fromWall}
            options={{ bare: 'inches', max: 240 }}
            set={(fromWall) => putBox({ ...box, fromWall: fromWall! })}
          />
        </div>
        <Decisions decisions={decisionsFor(session.view, box)} />
      </div>
    {/if}
    <div class="sheet">
      <FindingsList findings={session.findings} {apply} {show} />
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
  .editions {
    display: inline-flex;
    align-items: center;
    gap: 0;
  }
  .editions span {
    margin-right: 0.5rem;
    font-weight: 700;
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
  .plan {
    height: calc(100dvh - 11.5rem);
    min-height: 22rem;
  }
  .empty {
    display: grid;
    place-content: center;
    justify-items: center;
    gap: 0.5rem;
    height: 100%;
    padding: 2rem;
    text-align: center;
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
  .placed li {
    padding: 0.15rem 0;
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
    .plan {
      height: 56vh;
    }
  }
</style>
