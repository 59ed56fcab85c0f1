<script lang="ts" module>
  import type { WallSpan } from '#core/plan/wallSpaces.ts';

  /** A stretch of wall in some room that a finding is about. */
  export interface Marked {
    areaId: string;
    spans: WallSpan[];
  }
  export interface Dragged<T> {
    what: T;
    /** The pointer was let go. */
    done: boolean;
  }
</script>

<script lang="ts">
  import { rows } from '#core/job/document.ts';
  import { byName } from '#core/job/names.ts';
  import {
    outlineOf,
    pointOnWall,
    type Point,
    boundsOf,
    within,
    type Bounds,
    boundsOfPoints,
  } from '#core/job/outline.ts';
  import type { Area, Box, Fixture } from '#core/job/schema.ts';
  import { AREA_FACTS } from '#core/tables/areas.ts';
  import type { View } from '#core/view/view.ts';
  import { alongWall } from '#core/plan/footprint.ts';
  import { standingRows } from '#core/job/document.ts';
  import { formatLength } from '#core/units/length.ts';
  import { areaOf, selectedBoxes, toggled, type Selection } from '../../selection.ts';
  import PlanBox from './PlanBox.svelte';
  import PlanFixture from './PlanFixture.svelte';
  import PlanRoom from './PlanRoom.svelte';
  import { boundsOfAll, clustersOf, extremesOf } from './clusters.ts';
  import { placeLabels } from './labels.ts';
  import { inward, nearestOnWalls, outlinePath, path, SIGN_OFF_WALL, wallOf } from './shapes.ts';
  import { Viewport } from './viewport.svelte.ts';
  import './plan.css';

  interface Props {
    view: View;
    levelId: string;
    selected: Selection;
    onselect: (selection: Selection) => void;
    /** Called while things are dragged; without it they stay where they are. */
    ondragbox?: (boxId: string, wallId: string, offset: number) => void;
    ondragfixture?: (fixtureId: string, wallId: string, offset: number) => void;
    ondragroom?: (areaId: string, by: Point) => void;
    ondragwall?: (areaId: string, wallId: string, by: number) => void;
    ondrop?: () => void;
    onkey?: (event: KeyboardEvent, box: Box) => void;
    onfixturekey?: (event: KeyboardEvent, fixture: Fixture) => void;
    /** Paints reach along walls and counters. */
    coverage?: boolean;
    marked?: Marked | null;
    /** Ways of cords, drawn over the plan. */
    cords?: readonly (readonly Point[])[];
    /** What is painted in a tone, by id: `worse`, `better`, `asked`, `dropped`. */
    tones?: ReadonlyMap<string, string>;
    /** A level whose outlines show through. */
    ghost?: string | null;
  }
  let {
    view,
    levelId,
    selected,
    onselect,
    ondragbox,
    ondragfixture,
    ondragroom,
    ondragwall,
    ondrop,
    onkey,
    onfixturekey,
    coverage = true,
    marked = null,
    cords = [],
    tones = new Map(),
    ghost = null,
  }: Props = $props();

  const viewport = new Viewport();
  let width = $state(0);
  let height = $state(0);
  let ground = $state<HTMLElement>();

  const areas = $derived(view.areasOn(levelId));
  const panels = $derived(rows(view.document.panels).filter((p) => p.levelId === levelId));
  const ghosts = $derived(ghost === null || ghost === levelId ? [] : view.areasOn(ghost));
  const far = $derived(viewport.k < 0.6);
  const near = $derived(viewport.k > 1.7);
  const tiny = $derived(viewport.k < 0.4);
  const chosenBoxes = $derived(new Set(selectedBoxes(selected)));
  const mended = $derived(new Set(standingRows(view.document.faults).map((f) => f.boxId)));

  const clusters = $derived(clustersOf(areas));
  /** The largest group of rooms that stand together. */
  const main = $derived.by((): Bounds => {
    const [largest] = clusters;
    return largest ? boundsOfAll(largest) : boundsOfPoints([{ x: 0, y: 0 }, { x: 240, y: 180 }, ...panels]);
  });
  const everything = $derived(boundsOfPoints([...extremesOf(boundsOfAll(areas)), ...panels]));
  const largestRoom = $derived(
    clusters[0]?.reduce((a, b) => (outlineOf(b).floor > outlineOf(a).floor ? b : a)),
  );
  /** What stands apart, by the first room of each group. */
  const apart = $derived(clusters.slice(1));

  /** Only what can be seen, and a little around it, is drawn: a building has thousands of outlets. */
  const STEP = 200;
  const firstColumn = $derived(Math.floor(-viewport.x / STEP) - 1);
  const firstRow = $derived(Math.floor(-viewport.y / STEP) - 1);
  const shown = $derived.by(() => {
    const { k } = viewport;
    // In steps: within one, panning leaves all that is drawn as it is.
    const seen: Bounds = {
      left: (firstColumn * STEP) / k,
      top: (firstRow * STEP) / k,
      right: ((firstColumn + 3) * STEP + width) / k,
      bottom: ((firstRow + 3) * STEP + height) / k,
    };
    return areas.filter((a) => within(boundsOf(a), seen, 0));
  });

  $effect(() => (ground ? viewport.attach(ground) : undefined));

  /** The chosen room, or the room of what is chosen, for a closer look. */
  const chosenRoom = $derived.by(() => {
    const room = areaOf(view.document, selected);
    return room?.levelId === levelId ? room : undefined;
  });
  function closer() {
    if (chosenRoom) look(boundsOf(chosenRoom));
  }

  /** Zoom in steps: within one, names stay where they are put. */
  const ZOOM_STEP = 1.12;
  const zoom = $derived(ZOOM_STEP ** Math.floor(Math.log(viewport.k) / Math.log(ZOOM_STEP)));
  const SIGN = 11;
  const signScale = $derived(far ? 0.7 : 1);
  const onScreen = ({ x, y }: Point): Point => ({ x: x * zoom, y: y * zoom });
  /** Apart from the signs, which move under a hand while the rooms stay. */
  const roomsToName = $derived(
    shown.map((area) => ({
      id: area.id,
      name: area.name,
      corners: outlineOf(area).walls.map((w) => onScreen(w.from)),
    })),
  );
  const labels = $derived.by(() => {
    const signs = tiny
      ? []
      : shown.flatMap((area) => {
          const outline = outlineOf(area);
          return view.boxesIn(area).flatMap((box) => {
            const wall = wallOf(outline, box.wallId);
            if (!wall) return [];
            const foot = onScreen(pointOnWall(outline, wall, box.offset, box.fromWall));
            const into = inward(outline, wall);
            const off = box.fromWall > 0 ? 0 : SIGN_OFF_WALL * signScale;
            const center = { x: foot.x + into.x * off, y: foot.y + into.y * off };
            return [{ id: box.id, name: box.name, center, into }];
          });
        });
    const taken = panels.map((p): Bounds => {
      const { x, y } = onScreen(p);
      return { left: x - 10, top: y - 14, right: x + 10, bottom: y + 34 };
    });
    const type = far ? 0 : near ? 14 : 12;
    return placeLabels(roomsToName, signs, SIGN * signScale, type, taken);
  });
  /** What is chosen is named whatever stands there. */
  const ONTO = 22;
  function signLabel(box: Box, area: Area): Point | null {
    const at = labels.signs.get(box.id);
    if (at || !chosenBoxes.has(box.id)) return at ?? null;
    const wall = wallOf(outlineOf(area), box.wallId);
    const into = wall ? inward(outlineOf(area), wall) : { x: 0, y: 1 };
    return { x: into.x * ONTO, y: into.y * ONTO };
  }

  type Drag =
    | { kind: 'box'; box: Box; area: Area }
    | { kind: 'fixture'; fixture: Fixture; area: Area }
    | { kind: 'room'; area: Area; from: Point }
    | { kind: 'wall'; area: Area; wallId: string; from: Point }
    | { kind: 'marquee'; from: Point; to: Point };
  let drag = $state.raw<Drag | null>(null);
  let dragged = false;

  /** On a narrow screen a level is looked at room by room. */
  const narrow = $derived(width > 0 && width < 520);
  const look = (bounds: Bounds) => {
    viewport.fit(bounds, width, height);
    viewport.moved = true;
  };
  let fitted = '';
  /** All that stands together; pressed once more, all there is. */
  let whole = false;
  const fit = () => {
    whole = !whole && !viewport.moved && apart.length > 0;
    viewport.fit(whole ? everything : main, width, height);
  };
  $effect(() => {
    if (!ground || width === 0 || height === 0) return;
    // Not under a hand that drags; else on a new level, a new size, or a room that grows while it is typed, as
    // long as nobody has zoomed.
    if (drag) return;
    const room = narrow && areas.length > 1 ? (chosenRoom ?? largestRoom) : undefined;
    const now = `${levelId} ${width} ${height} ${room?.id ?? ''}`;
    void main;
    if (now !== fitted || !viewport.moved) {
      viewport.fit(room ? boundsOf(room) : main, width, height);
      whole = false;
    }
    fitted = now;
  });

  function start(event: PointerEvent, next: Drag) {
    drag = next;
    dragged = false;
    ground?.setPointerCapture(event.pointerId);
  }

  function pressBox(event: PointerEvent, box: Box, area: Area) {
    event.stopPropagation();
    if (event.shiftKey || event.ctrlKey || event.metaKey) {
      onselect(toggled(selected, box.id));
      return;
    }
    if (!chosenBoxes.has(box.id)) onselect({ kind: 'boxes', ids: [box.id] });
    if (ondragbox) start(event, { kind: 'box', box, area });
  }

  function pressFixture(event: PointerEvent, fixture: Fixture, area: Area) {
    event.stopPropagation();
    onselect({ kind: 'fixture', id: fixture.id });
    if (ondragfixture) start(event, { kind: 'fixture', fixture, area });
  }

  function pressRoom(event: PointerEvent, area: Area) {
    if (event.shiftKey) return;
    onselect({ kind: 'area', id: area.id });
    if (ondragroom && selected?.kind === 'area' && selected.id === area.id && ground) {
      event.stopPropagation();
      start(event, { kind: 'room', area, from: viewport.toPlan(ground, event.clientX, event.clientY) });
    }
  }

  function pressGround(event: PointerEvent) {
    if (!event.shiftKey || !ground) return;
    const from = viewport.toPlan(ground, event.clientX, event.clientY);
    start(event, { kind: 'marquee', from, to: from });
  }

  function move(event: PointerEvent) {
    if (!drag || !ground) return;
    const p = viewport.toPlan(ground, event.clientX, event.clientY);
    dragged = true;
    if (drag.kind === 'box') {
      const place = nearestOnWalls(drag.area, p);
      if (place) ondragbox?.(drag.box.id, place.wallId, place.offset);
    } else if (drag.kind === 'fixture') {
      const place = nearestOnWalls(drag.area, p);
      if (place) ondragfixture?.(drag.fixture.id, place.wallId, place.offset);
    } else if (drag.kind === 'room') {
      ondragroom?.(drag.area.id, { x: p.x - drag.from.x, y: p.y - drag.from.y });
    } else if (drag.kind === 'wall') {
      const { area, wallId, from } = drag;
      const outline = outlineOf(area);
      const wall = outline.walls.find((w) => w.id === wallId);
      if (wall)
        ondragwall?.(area.id, wallId, (alongWall(wall, p).off - alongWall(wall, from).off) * outline.side);
    } else drag = { ...drag, to: p };
  }

  function drop() {
    if (!drag) return;
    if (drag.kind === 'marquee') selectWithin(drag.from, drag.to);
    else if (dragged) ondrop?.();
    drag = null;
  }

  function selectWithin(a: Point, b: Point) {
    const box = boundsOfPoints([a, b]);
    const ids = shown.flatMap((area) => {
      const outline = outlineOf(area);
      return view.boxesIn(area).flatMap((bx) => {
        const wall = outline.walls.find((w) => w.id === bx.wallId);
        if (!wall) return [];
        const p = pointOnWall(outline, wall, bx.offset, bx.fromWall);
        return p.x >= box.left && p.x <= box.right && p.y >= box.top && p.y <= box.bottom ? [bx.id] : [];
      });
    });
    onselect(ids.length > 0 ? { kind: 'boxes', ids } : null);
  }

  /** Keys of the plan itself: + − 0 and the arrows. */
  function key(event: KeyboardEvent) {
    if (event.target !== ground || event.ctrlKey || event.metaKey || event.altKey) return;
    const step = event.shiftKey ? 200 : 60;
    if (event.key === '+' || event.key === '=') viewport.zoomBy(1.3);
    else if (event.key === '-') viewport.zoomBy(1 / 1.3);
    else if (event.key === '0') fit();
    else if (event.key === 'z') closer();
    else if (event.key === 'ArrowLeft') viewport.panBy(step, 0);
    else if (event.key === 'ArrowRight') viewport.panBy(-step, 0);
    else if (event.key === 'ArrowUp') viewport.panBy(0, step);
    else if (event.key === 'ArrowDown') viewport.panBy(0, -step);
    else return;
    event.preventDefault();
  }

  const fixtureLabel = (fixture: Fixture, area: Area): string => {
    const wall = area.walls.findIndex((w) => w.id === fixture.wallId) + 1;
    return `${fixture.name}, ${area.name}, wall ${wall} at ${formatLength(fixture.offset)}`;
  };
</script>

<div class="plan" bind:clientWidth={width} bind:clientHeight={height}>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
  <div
    class="ground"
    bind:this={ground}
    role="group"
    tabindex="0"
    aria-label="Plan to scale: plus and minus zoom, 0 fits, z looks closer, arrows pan"
    onpointerdown={pressGround}
    onpointermove={move}
    onpointerup={drop}
    onpointercancel={drop}
    onkeydown={key}
    ondblclick={closer}
  >
    <svg
      {width}
      {height}
      class:far
      class:tiny
      class:near
      class:panning={viewport.panning}
      style:--u={1 / viewport.k}
      style:--sign={signScale}
      style:transform="translate({viewport.x}px, {viewport.y}px)"
    >
      <g transform="scale({viewport.k})">
        {#each ghosts as area (area.id)}<path class="ghost" d={outlinePath(area)} />{/each}
        {#each shown as area (area.id)}
          <PlanRoom
            {view}
            {area}
            {coverage}
            measured={near || chosenRoom === area}
            dimensions={chosenRoom ? chosenRoom === area && (near || selected?.kind === 'area') : near}
            chosen={selected?.kind === 'area' && selected.id === area.id}
            marked={marked?.areaId === area.id ? marked.spans : []}
            tone={tones.get(area.id)}
            onpress={(e) => pressRoom(e, area)}
          />
        {/each}
        {#each shown as area (area.id)}
          {#each view.fixturesIn(area) as fixture (fixture.id)}
            <PlanFixture
              {area}
              {fixture}
              label={fixtureLabel(fixture, area)}
              chosen={selected?.kind === 'fixture' && selected.id === fixture.id}
              movable={!!ondragfixture}
              onpress={(e) => pressFixture(e, fixture, area)}
              onfocus={() => !drag && onselect({ kind: 'fixture', id: fixture.id })}
              onkey={(e) => onfixturekey?.(e, fixture)}
            />
          {/each}
        {/each}
        {#each shown as area (area.id)}
          {@const at = labels.rooms.get(area.id)}
          {#if at}
            <g style="transform: translate({at.x / zoom}px, {at.y / zoom}px) scale(var(--u))">
              <text class="room" dy="0.35em" style:font-size="{at.size}px">{area.name}</text>
              <text class="room-kind" y="21"
                >{AREA_FACTS[area.kind].label}{area.location === 'dry' ? '' : `, ${area.location}`}</text
              >
            </g>
          {/if}
        {/each}
        {#each panels as panel (panel.id)}
          <g style="transform: translate({panel.x}px, {panel.y}px) scale(var(--u))">
            <rect class="panel" x="-9" y="-13" width="18" height="26" />
            <path class="panel-mark" d="M-4 -7h8M-4 0h8M-4 7h8" />
            <text class="box-name" y="28">{panel.name}</text>
          </g>
        {/each}
        {#each shown as area (area.id)}
          {#each view.boxesIn(area) as box (box.id)}
            <PlanBox
              {area}
              {box}
              chosen={chosenBoxes.has(box.id)}
              alone={false}
              movable={!!ondragbox}
              tone={tones.get(box.id)}
              mended={mended.has(box.id)}
              name={signLabel(box, area)}
              onpress={(e) => pressBox(e, box, area)}
              onfocus={() => !drag && !chosenBoxes.has(box.id) && onselect({ kind: 'boxes', ids: [box.id] })}
              onkey={(e) => onkey?.(e, box)}
            />
          {/each}
        {/each}
        {#each selectedBoxes(selected) as id (id)}
          {@const box = view.document.boxes[id]}
          {@const area = box && view.document.areas[box.areaId]}
          {#if box && area?.levelId === levelId}
            <PlanBox
              {area}
              {box}
              chosen
              alone={chosenBoxes.size === 1}
              movable={false}
              name={signLabel(box, area)}
              over
            />
          {/if}
        {/each}
        {#each cords as cord, i (i)}
          <path class="cord-back" d={path(cord)} /><path class="cord" d={path(cord)} />
        {/each}
        {#if ondragwall && selected?.kind === 'area'}
          {@const area = view.document.areas[selected.id]}
          {#if area && area.levelId === levelId}
            {@const outline = outlineOf(area)}
            {#each outline.walls as wall (wall.id)}
              {@const p = pointOnWall(outline, wall, wall.length / 2)}
              {@const n = inward(outline, wall)}
              <g
                class="handle"
                data-own-drag
                data-wall={wall.id}
                role="presentation"
                style="transform: translate({p.x}px, {p.y}px) scale(var(--u))"
                onpointerdown={(e) => {
                  if (!ground) return;
                  e.stopPropagation();
                  start(e, {
                    kind: 'wall',
                    area,
                    wallId: wall.id,
                    from: viewport.toPlan(ground, e.clientX, e.clientY),
                  });
                }}
              >
                <circle class="target" r="14" />
                <path d="M{n.x * 9} {n.y * 9}L{n.x * -9} {n.y * -9}" />
                <circle r="5" />
              </g>
            {/each}
          {/if}
        {/if}
        {#if drag?.kind === 'marquee'}
          {@const b = boundsOfPoints([drag.from, drag.to])}
          <rect class="marquee" x={b.left} y={b.top} width={b.right - b.left} height={b.bottom - b.top} />
        {/if}
      </g></svg
    >
  </div>
  {#if narrow && areas.length > 1}
    <select
      class="go no-print"
      aria-label="Room to look at"
      value={(chosenRoom ?? largestRoom)?.id}
      onchange={(e) => onselect({ kind: 'area', id: e.currentTarget.value })}
    >
      {#each [...areas].sort(byName) as area (area.id)}<option value={area.id}>{area.name}</option>{/each}
    </select>
  {:else if apart.length > 0}
    <div class="apart no-print" role="group" aria-label="Standing apart">
      {#each apart.slice(0, 4) as group (group[0]!.id)}
        <button type="button" onclick={() => look(boundsOfAll(group))}
          >{group[0]!.name}{group.length > 1 ? ` and ${group.length - 1} more` : ''} ↗</button
        >
      {/each}
    </div>
  {/if}
  <div class="zoom no-print" role="group" aria-label="Zoom">
    <button type="button" aria-label="Zoom in" onclick={() => viewport.zoomBy(1.3)}>+</button>
    <button type="button" aria-label="Zoom out" onclick={() => viewport.zoomBy(1 / 1.3)}>−</button>
    {#if chosenRoom}<button type="button" aria-label="Closer: {chosenRoom.name}" onclick={closer}
        ><svg viewBox="0 0 20 20" aria-hidden="true"
          ><circle cx="10" cy="10" r="5" /><path d="M10 1v6M10 13v6M1 10h6M13 10h6" /></svg
        ></button
      >{/if}
    <button type="button" aria-label="Install the level" onclick={fit}>⤢</button>
  </div>
</div>
