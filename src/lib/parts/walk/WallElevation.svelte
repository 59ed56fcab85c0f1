<script lang="ts">
  import { openingsIn } from '#core/plan/joined.ts';
  import { outlineOf } from '#core/job/outline.ts';
  import type { Area, Box } from '#core/job/schema.ts';
  import { againstWall } from '#core/plan/counters.ts';
  import { formatInches, formatLength } from '#core/units/length.ts';
  import { address } from '../../address.svelte.ts';
  import { OPENING_NAMES } from '../../names.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';

  let { area }: { area: Area } = $props();

  const session = useSession();
  const wall = $derived(area.walls.find((w) => w.id === address.get('wall')) ?? area.walls[0]);
  const number = $derived(area.walls.findIndex((w) => w.id === wall?.id) + 1);
  const onWall = <T extends { wallId: string | null }>(list: readonly T[]) =>
    list.filter((e) => e.wallId === wall?.id);
  const openings = $derived(onWall(openingsIn(session.view, area)));
  const fixtures = $derived(onWall(session.view.fixturesIn(area)).filter(againstWall));
  const boxes = $derived(onWall(session.view.boxesIn(area)).filter((b) => b.fromWall === 0));
  const ceiling = $derived(area.ceilingHeight);
  let chosen = $state<string | null>(null);

  /** Inches kept free around the wall for numbers. */
  const LEFT = 30;
  const BELOW = 22;
  const ABOVE = 12;
  let width = $state(480);
  let svg = $state<SVGSVGElement>();
  const span = $derived((wall?.length ?? 100) + LEFT + 8);
  const px = $derived(span / Math.max(width, 1));
  const up = (height: number) => ceiling - height;
  /** Seen from inside, a wall walked with the room on its right runs from left to right; else the other way. */
  const side = $derived(outlineOf(area).side);
  const across = (offset: number, wide = 0) => (side === 1 ? offset : (wall?.length ?? 0) - offset - wide);

  const place = (box: Box, offset: number, height: number) => ({
    ...box,
    offset: Math.max(0, Math.min(wall!.length, offset)),
    height: Math.max(0, Math.min(ceiling, height)),
  });
  const preview = (box: Box, settle: number | null) =>
    session.preview(
      { type: 'batch', label: `Move ${box.name}`, commands: [{ type: 'put', table: 'boxes', rows: [box] }] },
      settle,
    );

  function key(event: KeyboardEvent, box: Box) {
    const step = event.shiftKey ? 12 : 1;
    const moved =
      event.key === 'ArrowRight'
        ? place(box, box.offset + step * side, box.height)
        : event.key === 'ArrowLeft'
          ? place(box, box.offset - step * side, box.height)
          : event.key === 'ArrowUp'
            ? place(box, box.offset, box.height + step)
            : event.key === 'ArrowDown'
              ? place(box, box.offset, box.height - step)
              : null;
    if (!moved) return;
    event.preventDefault();
    preview(moved, 500);
  }

  let dragging = $state<string | null>(null);
  function move(event: PointerEvent) {
    const box = dragging === null ? undefined : session.document.boxes[dragging];
    const matrix = svg?.getScreenCTM();
    if (!box || !matrix) return;
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    preview(place(box, Math.round(across(p.x)), Math.round(ceiling - p.y)), null);
  }
  function drop() {
    if (dragging === null) return;
    dragging = null;
    void session.release();
  }
</script>

<div class="stack">
  <div class="row" role="group" aria-label="Wall seen from inside">
    {#each area.walls as w, i (w.id)}
      <Act pressed={w.id === wall?.id} onclick={() => address.show({ wall: w.id })}>Wall {i + 1}</Act>
    {/each}
  </div>
  {#if wall}
    <div class="elevation" bind:clientWidth={width}>
      <svg
        bind:this={svg}
        viewBox="{-LEFT} {-ABOVE} {span} {ceiling + ABOVE + BELOW}"
        role="group"
        aria-label="Wall {number} of {area.name}, seen from inside"
        style:--px="{px}px"
        onpointermove={move}
        onpointerup={drop}
        onpointercancel={drop}
      >
        <rect class="face" x="0" y="0" width={wall.length} height={ceiling} />
        {#each [0, 24, 48, 72, 96].filter((h) => h < ceiling) as h (h)}
          <path class="line" d="M0 {up(h)}H{wall.length}" />
          <text class="number" x={-4 * px} y={up(h)} dy={4 * px} font-size={12 * px}>{formatInches(h)}</text>
        {/each}
        {#each openings as o (o.id)}
          <rect
            class="opening {o.kind}"
            x={across(o.offset, o.width)}
            y={up(Math.min(o.top, ceiling))}
            width={o.width}
            height={Math.min(o.top, ceiling) - o.bottom}
          />
          {#if o.width > 60 * px}
            <text
              class="name"
              x={across(o.offset + o.width / 2)}
              y={up((o.top + o.bottom) / 2)}
              font-size={12 * px}>{OPENING_NAMES[o.kind].split(',')[0]}</text
            >
          {/if}
        {/each}
        {#each fixtures as f (f.id)}
          <rect
            class="fixture {f.kind}"
            x={across(f.offset - f.width / 2, f.width)}
            y={up(Math.min(f.height, ceiling))}
            width={f.width}
            height={Math.min(f.height, ceiling)}
          />
          {#if f.kind !== 'counter' && f.width > 40 * px}
            <text class="name" x={across(f.offset)} y={up(f.height / 2)} font-size={12 * px}>{f.name}</text>
          {/if}
          <text class="name" x={across(f.offset)} y={up(f.height)} dy={-4 * px} font-size={11 * px}
            >{formatInches(f.height)}</text
          >
        {/each}
        {#each boxes as b (b.id)}
          <g
            class="box"
            class:chosen={b.id === chosen}
            role="button"
            tabindex="0"
            aria-label="{b.name}, {formatLength(b.offset)} along, {formatInches(b.height)} high"
            data-box={b.name}
            transform="translate({across(b.offset)} {up(b.height)})"
            onfocus={() => (chosen = b.id)}
            onkeydown={(e) => key(e, b)}
            onpointerdown={(e) => {
              chosen = b.id;
              dragging = b.id;
              svg?.setPointerCapture(e.pointerId);
            }}
          >
            <rect x={-7 * px} y={-10 * px} width={14 * px} height={20 * px} />
            <text class="name strong" x={12 * px} y={4 * px} font-size={13 * px}>{b.name}</text>
            {#if b.id === chosen}
              <text class="place" y={26 * px} font-size={13 * px}
                >{formatLength(b.offset)} along · {formatInches(b.height)} high</text
              >
            {/if}
          </g>
        {/each}
        <text class="name" x={wall.length / 2} y={ceiling + 16 * px} font-size={13 * px}
          >Wall {number}, {formatLength(wall.length)}; ceiling {formatLength(ceiling)}</text
        >
      </svg>
    </div>
    <p class="quiet">Arrow keys move a chosen box: an inch along or up; with Shift, a foot. Or drag it.</p>
  {/if}
</div>

<style>
  .elevation {
    background: var(--panel);
    padding: 0.25rem;
  }
  svg {
    display: block;
    width: 100%;
    max-height: 24rem;
    touch-action: none;
  }
  .face {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: calc(var(--px) * 3);
  }
  .line {
    stroke: var(--rule);
    stroke-width: calc(var(--px) * 1);
  }
  text {
    fill: var(--quiet);
    text-anchor: middle;
    user-select: none;
    pointer-events: none;
  }
  .number {
    text-anchor: end;
  }
  .opening {
    fill: var(--panel);
    stroke: var(--quiet);
    stroke-width: calc(var(--px) * 2);
  }
  .window,
  .fixed-glass,
  .sliding-panel {
    fill: var(--gfci-wash);
    stroke: var(--gfci);
  }
  .fixture {
    fill: color-mix(in srgb, var(--copper) 16%, var(--sheet));
    stroke: var(--quiet);
    stroke-width: calc(var(--px) * 1.5);
    fill-opacity: 0.75;
  }
  .box {
    cursor: grab;
    outline: none;
  }
  .box rect {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: calc(var(--px) * 2.4);
  }
  .box.chosen rect {
    fill: var(--accent);
    stroke: var(--accent);
  }
  .box:focus-visible rect {
    stroke: var(--copper);
    stroke-width: calc(var(--px) * 4);
  }
  .strong {
    fill: var(--ink);
    font-weight: 700;
    text-anchor: start;
  }
  .place {
    fill: var(--accent);
    font-weight: 700;
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: calc(var(--px) * 4);
  }
</style>
