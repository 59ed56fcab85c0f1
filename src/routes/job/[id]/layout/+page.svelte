<script lang="ts">
  import { onMount } from 'svelte';
  import { tinykeys } from 'tinykeys';
  import { rows } from '#core/job/document.ts';
  import { outlineOf, type Point } from '#core/job/outline.ts';
  import { EDITIONS, type Area, type Box } from '#core/job/schema.ts';
  import type { EditionChange } from '#core/code/editionChanges.ts';
  import type { Finding, Fix } from '#core/code/rule.ts';
  import { slide } from '#core/layout/arrangeBoxes.ts';
  import type { HousePlan } from '#core/layout/placeMissing.ts';
  import { newBox, nextBoxName } from '#core/layout/placement.ts';
  import type { Command } from '#core/job/commands.ts';
  import { actions } from '$lib/actions.svelte.ts';
  import { address } from '$lib/address.svelte.ts';
  import { applyFix, placeIn } from '$lib/fixes.ts';
  import { levelAsked } from '$lib/levels.ts';
  import { isTyping } from '$lib/keys.ts';
  import { areaOf, selectedBoxes, selectionIn, thingsOf, type Selection } from '$lib/selection.ts';
  import Act from '$lib/parts/Act.svelte';
  import FindingsList from '$lib/parts/FindingsList.svelte';
  import LevelTabs from '$lib/parts/LevelTabs.svelte';
  import Tabs from '$lib/parts/Tabs.svelte';
  import Duplicate from '$lib/parts/layout/Duplicate.svelte';
  import EditionCompare from '$lib/parts/layout/EditionCompare.svelte';
  import ManyOutlets from '$lib/parts/layout/ManyOutlets.svelte';
  import OutletForm from '$lib/parts/layout/OutletForm.svelte';
  import PlanDrawing, { type Marked } from '$lib/parts/plan/PlanDrawing.svelte';
  import { useSession } from '$lib/store/session.svelte.ts';

  const session = useSession();
  const document = $derived(session.document);

  const selected = $derived(selectionIn(address.get));
  let plan = $state.raw<HousePlan | null>(null);
  let marked = $state.raw<Marked | null>(null);
  let cords = $state.raw<Point[][]>([]);
  let changes = $state.raw<readonly EditionChange[]>([]);
  const tab = $derived(address.oneOf('tab', ['findings', 'editions']));

  const boxes = $derived(selectedBoxes(selected).flatMap((id) => document.boxes[id] ?? []));
  const box = $derived(boxes.length === 1 ? boxes[0] : undefined);
  const area = $derived(areaOf(document, selected));
  const levelId = $derived(area?.levelId ?? levelAsked(document, address.get('level')));
  const onLevel = $derived(session.view.areasOn(levelId));
  const hasRooms = $derived(onLevel.some((a) => a.walls.length > 0));
  const tones = $derived(new Map(changes.map((c) => [c.about.id, c.kind])));
  let onlyRoom = $state(false);
  /** Whether a finding is about a room, what stands in it, or a circuit that runs through it. */
  function isAbout(finding: Finding, areaId: string): boolean {
    const { table, id } = finding.about;
    if (table === 'areas') return id === areaId;
    if (table === 'boxes' || table === 'fixtures') return document[table][id]?.areaId === areaId;
    if (table !== 'circuits') return false;
    return document.circuits[id]?.stops.some((s) => document.boxes[s.boxId]?.areaId === areaId) ?? false;
  }
  const findings = $derived(
    area && onlyRoom ? (session.findings?.filter((f) => isAbout(f, area.id)) ?? null) : session.findings,
  );

  function select(next: Selection) {
    address.choose(thingsOf(document, next, levelId));
    marked = null;
    cords = [];
  }

  /** On a phone what is not the next action comes when asked for. */
  let more = $state(false);
  let placing = $state(false);
  async function place(areas: readonly Area[]) {
    if (placing) return;
    placing = true;
    plan = await placeIn(session, areas).finally(() => (placing = false));
  }
  const placeAll = () => place(area ? [area] : onLevel);
  function placeHouse() {
    select(null);
    void place(rows(document.areas));
  }

  async function addOutlet() {
    const target = area ?? onLevel[0];
    const wall = target && outlineOf(target).walls[0];
    if (!target || !wall) return;
    const added = newBox(target, nextBoxName(document, target), {
      wallId: wall.id,
      offset: Math.round(wall.length / 2),
      height: document.job.settings.receptacleHeight,
      fromWall: 0,
    });
    if (await session.execute({ type: 'put', table: 'boxes', rows: [added] }))
      select({ kind: 'boxes', ids: [added.id] });
  }

  const moves = (list: readonly Box[], by: number): Command[] =>
    list.flatMap((b) => {
      const home = document.areas[b.areaId];
      const place = home && slide(home, b, by);
      return place ? [{ type: 'move-box', id: b.id, ...place }] : [];
    });
  const together = (commands: Command[]): Command =>
    commands.length === 1
      ? commands[0]!
      : { type: 'batch', label: `Move ${commands.length} outlets`, commands };

  /** The dragged outlet goes where the pointer is; the others chosen go along by as much. */
  function dragBox(id: string, wallId: string, offset: number) {
    const dragged = document.boxes[id];
    if (!dragged) return;
    const others = boxes.filter((b) => b.id !== id && b.wallId === dragged.wallId);
    const by = dragged.wallId === wallId ? offset - dragged.offset : 0;
    session.preview(
      together([{ type: 'move-box', id, wallId, offset }, ...moves(by === 0 ? [] : others, by)]),
    );
  }

  function key(event: KeyboardEvent, current: Box) {
    const step = event.shiftKey ? 12 : 1;
    if (event.altKey || event.ctrlKey || event.metaKey) return;
    const list = boxes.some((b) => b.id === current.id) ? boxes : [current];
    if (event.key === 'ArrowRight' || event.key === 'ArrowUp')
      session.preview(together(moves(list, step)), 500);
    else if (event.key === 'ArrowLeft' || event.key === 'ArrowDown')
      session.preview(together(moves(list, -step)), 500);
    else if (event.key === 'Delete' || event.key === 'Backspace') removeChosen(list);
    else return;
    event.preventDefault();
  }
  function removeChosen(list: readonly Box[]) {
    void session.execute({ type: 'remove', table: 'boxes', ids: list.map((b) => b.id) });
    select(null);
  }

  function selectAll() {
    const home = area ? [area] : onLevel;
    const ids = home.flatMap((a) => session.view.boxesIn(a).map((b) => b.id));
    if (ids.length > 0) select({ kind: 'boxes', ids });
  }

  async function apply(fix: Fix) {
    const done = await applyFix(session, fix);
    plan = 'placeIn' in fix ? done : null;
  }

  function showAbout({ table, id }: Finding['about'], spans: Finding['spans'] = undefined) {
    if (table === 'boxes') select({ kind: 'boxes', ids: [id] });
    else if (table === 'areas') select({ kind: 'area', id });
    else if (table === 'fixtures') select({ kind: 'fixture', id });
    else if (table === 'circuits') {
      const ids = document.circuits[id]?.stops.map((s) => s.boxId) ?? [];
      select(ids.length > 0 ? { kind: 'boxes', ids } : null);
    } else select(null);
    const areaId = table === 'areas' ? id : undefined;
    marked = spans && areaId ? { areaId, spans } : null;
  }

  onMount(() => {
    const release = actions.offer(() => [
      {
        id: 'place',
        name: 'Place all that is missing',
        hint: 'P',
        words: 'receptacles outlets plugs spacing counters islands',
        run: placeAll,
      },
      {
        id: 'place-house',
        name: 'Place what the whole house lacks',
        hint: 'Shift P',
        words: 'receptacles outlets plugs everywhere all levels',
        run: placeHouse,
      },
      { id: 'add-outlet', name: 'Add an outlet', hint: 'A', words: 'receptacle plug', run: addOutlet },
      {
        id: 'select-all',
        name: 'Choose every outlet of the room',
        hint: 'Ctrl A',
        words: 'select all many',
        run: selectAll,
      },
      {
        id: 'compare-editions',
        name: 'Compare two editions',
        hint: 'Layout',
        words: 'nec code year difference changes',
        run: () => address.show({ tab: 'editions' }),
      },
    ]);
    const unless = (work: () => unknown) => (e: KeyboardEvent) => {
      if (isTyping(e)) return;
      e.preventDefault();
      void work();
    };
    const keys = tinykeys(window, {
      p: unless(placeAll),
      'Shift+P': unless(placeHouse),
      a: unless(addOutlet),
      '$mod+a': unless(selectAll),
      Escape: (e) => {
        if (!isTyping(e)) select(null);
      },
    });
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
      <LevelTabs {document} {levelId} choose={(level) => address.choose({ level })} />
      <Act kind="main" onclick={placeAll} disabled={!hasRooms || placing}
        >{placing ? 'Placing…' : area ? `Place in ${area.name}` : 'Place missing'} <kbd>P</kbd></Act
      >
      <div class="editions extra" class:more role="group" aria-label="Code edition, NEC">
        {#each EDITIONS as edition (edition)}
          <button
            type="button"
            aria-pressed={document.job.edition === edition}
            onclick={() => session.execute({ type: 'edit-job', values: { edition } })}>{edition}</button
          >
        {/each}
      </div>
      <span class="grow"></span>
      <span class="extra" class:more><Act href="/job/{session.jobId}/layout/lists">Lists</Act></span>
      <span class="extra" class:more
        ><Act onclick={addOutlet} disabled={!hasRooms}>Add outlet <kbd>A</kbd></Act></span
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
          {marked}
          {cords}
          {tones}
          onselect={select}
          onkey={key}
          ondragbox={dragBox}
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
      <span><i class="reached"></i> in reach of a receptacle</span>
      <span><i class="open"></i> out of reach</span>
      <span>Drag, or arrow keys: an inch; with Shift, a foot. Shift-drag chooses many.</span>
    </p>
  </section>

  <section class="right">
    {#if plan}
      <div class="sheet pad" role="status">
        <h2>Placed {plan.placed.length}</h2>
        <ul class="placed">
          {#each plan.placed as p (p.box.id)}
            <li>
              <button type="button" onclick={() => select({ kind: 'boxes', ids: [p.box.id] })}
                ><strong>{p.box.name}</strong></button
              >
              {p.areaName}, {p.reason}{#if p.alternative}<span class="quiet">; {p.alternative}</span>{/if}
            </li>
          {/each}
        </ul>
        {#each plan.unplaced as why (why)}<p class="unplaced">? {why}</p>{/each}
        <Act onclick={() => (plan = null)}>Close</Act>
      </div>
    {/if}
    {#if box && area}
      {#key box.id}
        <OutletForm {box} {area} showCord={(paths) => (cords = paths.map((p) => p.points))} />
        <div class="sheet pad">
          <Duplicate {box} {area} placed={(ids) => select({ kind: 'boxes', ids: [box.id, ...ids] })} />
        </div>
      {/key}
    {:else if boxes.length > 1}
      <ManyOutlets {boxes} onremove={() => removeChosen(boxes)} />
    {:else if selected?.kind === 'fixture' && area}
      {@const fixture = document.fixtures[selected.id]}
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
          <label class="only"><input type="checkbox" bind:checked={onlyRoom} /> only {area.name}</label>
        {/if}
        <FindingsList {findings} {apply} show={(f) => showAbout(f.about, f.spans)} />
      {:else}
        <EditionCompare
          {document}
          paint={(next) => (changes = next)}
          show={(c) => showAbout(c.about, (c.to ?? c.from)?.spans)}
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
  .placed {
    max-height: 18rem;
    overflow: auto;
    margin-bottom: 0.5rem;
  }
  .placed li {
    padding: 0.2rem 0;
  }
  .placed button {
    text-decoration: underline;
    min-height: 24px;
  }
  .only {
    display: flex;
    gap: 0.4rem;
    align-items: center;
    padding: 0.4rem 0.9rem 0;
    font-weight: 600;
  }
  .unplaced {
    color: var(--unknown);
    font-weight: 600;
    padding: 0.2rem 0;
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
