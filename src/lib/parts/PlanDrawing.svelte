<script lang="ts" module>
  import type { WallSpan } from '../../core/plan/wallSpaces.ts';

  export type Selection = { kind: 'area' | 'box'; id: string } | null;
  /** A stretch of wall in some room that a finding is about. */
  export interface Marked {
    areaId: string;
    spans: WallSpan[];
  }
</script>

<script lang="ts">
  import { rows } from '../../core/job/document.ts';
  import { outlineOf, pointOnWall, type Outline, type Point } from '../../core/job/outline.ts';
  import type { Area, Box, Opening } from '../../core/job/schema.ts';
  import type { View } from '../../core/code/view.ts';
  import { onWalls } from '../../core/plan/wallSpaces.ts';
  import { AREA_FACTS } from '../../core/code/tables/areas.ts';
  import { formatLength } from '../../core/units/length.ts';

  interface Props {
    view: View;
    levelId: string;
    selected: Selection;
    onselect: (selection: Selection) => void;
    /** Called while an outlet is dragged; without it outlets stay where they are. */
    ondrag?: (boxId: string, wallId: string, offset: number) => void;
    ondrop?: () => void;
    onkey?: (event: KeyboardEvent, box: Box) => void;
    /** Paints reach along the walls. */
    coverage?: boolean;
    marked?: Marked | null;
  }
  let {
    view,
    levelId,
    selected,
    onselect,
    ondrag,
    ondrop,
    onkey,
    coverage = true,
    marked = null,
  }: Props = $props();

  let width = $state(800);
  let height = $state(500);
  let svg = $state<SVGSVGElement>();
  let dragging = $state<string | null>(null);

  const areas = $derived(rows(view.document.areas).filter((a) => a.levelId === levelId));
  const panels = $derived(rows(view.document.panels).filter((p) => p.levelId === levelId));

  const frame = $derived.by(() => {
    const points: Point[] = areas.flatMap((a) => outlineOf(a).walls.flatMap((w) => [w.from, w.to]));
    points.push(...panels);
    if (points.length === 0) points.push({ x: 0, y: 0 }, { x: 240, y: 180 });
    const xs = points.map((p) => p.x);
    const ys = points.map((p) => p.y);
    const margin = 34;
    const x = Math.min(...xs) - margin;
    const y = Math.min(...ys) - margin;
    return { x, y, w: Math.max(...xs) - x + margin, h: Math.max(...ys) - y + margin };
  });
  /** Inches of plan for one pixel of screen: keeps lines and type the same size at any scale. */
  const px = $derived(Math.max(frame.w / Math.max(width, 1), frame.h / Math.max(height, 1)));

  const path = (points: readonly Point[]) => points.map((p, i) => `${i ? 'L' : 'M'}${p.x} ${p.y}`).join('');

  function outlinePath(area: Area): string {
    const { walls } = outlineOf(area);
    const [first] = walls;
    return first ? path([first.from, ...walls.map((w) => w.to)]) : '';
  }

  function spanPath(area: Area, span: WallSpan, out: number): string {
    const outline = outlineOf(area);
    const wall = outline.walls.find((w) => w.id === span.wallId);
    return wall
      ? path([pointOnWall(outline, wall, span.from, out), pointOnWall(outline, wall, span.to, out)])
      : '';
  }

  function coverageSpans(area: Area): { reached: WallSpan[]; open: WallSpan[] } {
    const outline = outlineOf(area);
    const spaces = (AREA_FACTS[area.kind].wallSpacing && view.coverage(area)) || [];
    const reached: WallSpan[] = [];
    const open: WallSpan[] = [];
    for (const { space, required, uncovered } of spaces) {
      if (!required) continue;
      let at = 0;
      for (const gap of [...uncovered, { from: space.length, to: space.length }]) {
        reached.push(...onWalls(outline, space, { from: at, to: gap.from }));
        open.push(...onWalls(outline, space, gap));
        at = gap.to;
      }
    }
    return { reached, open };
  }

  /** Centre of the floor, where the room's name stands. */
  function centreOf({ walls }: Outline): Point {
    let twice = 0;
    let x = 0;
    let y = 0;
    for (const { from, to } of walls) {
      const cross = from.x * to.y - to.x * from.y;
      twice += cross;
      x += (from.x + to.x) * cross;
      y += (from.y + to.y) * cross;
    }
    return Math.abs(twice) < 1 ? walls[0]!.from : { x: x / (3 * twice), y: y / (3 * twice) };
  }

  const wallOf = (outline: Outline, wallId: string) => outline.walls.find((w) => w.id === wallId);

  /** Text beside a wall, turned to read along it and never upside down. */
  function labelAt(outline: Outline, wallId: string, at: number, out: number) {
    const wall = wallOf(outline, wallId)!;
    const p = pointOnWall(outline, wall, at, out);
    let angle = ((wall.heading % 360) + 360) % 360;
    if (angle > 90 && angle <= 270) angle -= 180;
    return { ...p, angle };
  }

  function doorArc(area: Area, opening: Opening): string {
    const outline = outlineOf(area);
    const wall = wallOf(outline, opening.wallId);
    if (!wall || opening.hinge === 'none') return '';
    const hinge = opening.hinge === 'start' ? opening.offset : opening.offset + opening.width;
    const latch = opening.hinge === 'start' ? opening.offset + opening.width : opening.offset;
    const h = pointOnWall(outline, wall, hinge);
    const open = pointOnWall(outline, wall, hinge, opening.width);
    const l = pointOnWall(outline, wall, latch);
    const sweep = (opening.hinge === 'start') === (outline.side === 1) ? 0 : 1;
    return `M${h.x} ${h.y}L${open.x} ${open.y}A${opening.width} ${opening.width} 0 0 ${sweep} ${l.x} ${l.y}`;
  }

  function nearestOnWalls(area: Area, p: Point): { wallId: string; offset: number } | null {
    let best: { wallId: string; offset: number; distance: number } | null = null;
    for (const w of outlineOf(area).walls) {
      const dx = (w.to.x - w.from.x) / w.length;
      const dy = (w.to.y - w.from.y) / w.length;
      const along = Math.max(0, Math.min(w.length, (p.x - w.from.x) * dx + (p.y - w.from.y) * dy));
      const distance = Math.hypot(p.x - w.from.x - dx * along, p.y - w.from.y - dy * along);
      if (!best || distance < best.distance)
        best = { wallId: w.id, offset: Math.min(w.length, Math.round(along)), distance };
    }
    return best;
  }

  function move(event: PointerEvent, box: Box, area: Area) {
    const matrix = svg?.getScreenCTM();
    if (dragging !== box.id || !matrix) return;
    const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    const place = nearestOnWalls(area, p);
    if (place) ondrag?.(box.id, place.wallId, place.offset);
  }

  const describeBox = (box: Box, area: Area): string => {
    const wall = area.walls.findIndex((w) => w.id === box.wallId) + 1;
    return `${box.name}, ${area.name}, wall ${wall} at ${formatLength(box.offset)}`;
  };
</script>

<div class="plan" bind:clientWidth={width} bind:clientHeight={height}>
  <svg
    bind:this={svg}
    viewBox="{frame.x} {frame.y} {frame.w} {frame.h}"
    role="group"
    aria-label="Plan to scale"
    style:--px="{px}px"
  >
    {#each areas as area (area.id)}
      {@const outline = outlineOf(area)}
      {@const spans = coverage ? coverageSpans(area) : { reached: [], open: [] }}
      <g class="area" class:chosen={selected?.kind === 'area' && selected.id === area.id}>
        <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
        <path class="floor" d={outlinePath(area)} onclick={() => onselect({ kind: 'area', id: area.id })} />
        <path class="wall" d={outlinePath(area)} stroke-width={5 * px} />
        {#if outline.walls.length > 0 && outline.closing.distance > 0.01}
          <path
            class="gap"
            d={path([outline.walls.at(-1)!.to, outline.walls[0]!.from])}
            stroke-width={2 * px}
            stroke-dasharray="{4 * px} {4 * px}"
          />
        {/if}
        {#each view.openingsIn(area) as opening (opening.id)}
          {@const wall = wallOf(outline, opening.wallId)}
          {#if wall}
            {@const from = pointOnWall(outline, wall, opening.offset)}
            {@const to = pointOnWall(outline, wall, opening.offset + opening.width)}
            {#if opening.kind === 'cabinet' || opening.kind === 'cabinet-with-counter' || opening.kind === 'fireplace'}
              {@const depth = opening.kind === 'fireplace' ? 16 : 24}
              <path
                class={opening.kind}
                d="{path([
                  from,
                  to,
                  pointOnWall(outline, wall, opening.offset + opening.width, depth),
                  pointOnWall(outline, wall, opening.offset, depth),
                ])}Z"
                stroke-width={1.5 * px}
              />
            {:else}
              <path class="hole" d={path([from, to])} stroke-width={6 * px} />
              {#if opening.kind === 'fixed-glass' || opening.kind === 'sliding-panel'}
                <path
                  class="glass"
                  d={path([from, to])}
                  stroke-width={(opening.kind === 'fixed-glass' ? 4 : 2) * px}
                />
              {/if}
              <path class="swing" d={doorArc(area, opening)} stroke-width={1.2 * px} />
            {/if}
          {/if}
        {/each}
        {#each spans.reached as span (`${span.wallId}${span.from}`)}
          <path class="reached" d={spanPath(area, span, 5 * px)} stroke-width={3 * px} />
        {/each}
        {#each spans.open as span (`${span.wallId}${span.from}`)}
          {@const label = labelAt(outline, span.wallId, (span.from + span.to) / 2, 20 * px)}
          <path
            class="open"
            d={spanPath(area, span, 6 * px)}
            stroke-width={7 * px}
            stroke-dasharray="{9 * px} {4 * px}"
          />
          {#if span.to - span.from > 44 * px}
            <text
              class="open-label"
              font-size={13 * px}
              transform="translate({label.x} {label.y}) rotate({label.angle})"
              dy={4 * px}
              >{formatLength(span.to - span.from)}{span.to - span.from > 130 * px
                ? ' out of reach'
                : ''}</text
            >
          {/if}
        {/each}
        {#if marked?.areaId === area.id}
          {#each marked.spans as span (`${span.wallId}${span.from}`)}
            <path class="marked" d={spanPath(area, span, 0)} stroke-width={12 * px} />
          {/each}
        {/if}
        {#each outline.walls as wall, i (wall.id)}
          {@const label = labelAt(outline, wall.id, wall.length / 2, -16 * px)}
          <text
            class="dimension"
            font-size={13 * px}
            transform="translate({label.x} {label.y}) rotate({label.angle})"
            dy={4 * px}><tspan class="number">{i + 1}</tspan>&#160; {formatLength(wall.length)}</text
          >
        {/each}
        {#if outline.walls.length > 2}
          {@const { x: cx, y: cy } = centreOf(outline)}
          <text class="room" x={cx} y={cy} font-size={17 * px}>{area.name}</text>
          <text class="room-kind" x={cx} y={cy + 19 * px} font-size={13 * px}
            >{AREA_FACTS[area.kind].label}{area.location === 'dry' ? '' : `, ${area.location}`}</text
          >
        {/if}
      </g>
    {/each}

    {#each panels as panel (panel.id)}
      <g transform="translate({panel.x} {panel.y})">
        <rect class="panel" x={-9 * px} y={-13 * px} width={18 * px} height={26 * px} stroke-width={2 * px} />
        <path
          class="panel-mark"
          d="M{-4 * px} {-7 * px}h{8 * px}M{-4 * px} 0h{8 * px}M{-4 * px} {7 * px}h{8 * px}"
          stroke-width={2 * px}
        />
        <text class="box-name" x={14 * px} y={24 * px} font-size={13 * px}>{panel.name}</text>
      </g>
    {/each}

    {#each areas as area (area.id)}
      {@const outline = outlineOf(area)}
      {#each view.boxesIn(area) as box (box.id)}
        {@const wall = wallOf(outline, box.wallId)}
        {#if wall}
          {@const at = pointOnWall(outline, wall, box.offset, Math.max(box.fromWall, 15 * px))}
          {@const foot = pointOnWall(outline, wall, box.offset)}
          {@const name = pointOnWall(outline, wall, box.offset, Math.max(box.fromWall, 15 * px) + 24 * px)}
          {@const chosen = selected?.kind === 'box' && selected.id === box.id}
          <g
            class="box {box.status}"
            class:chosen
            class:movable={!!ondrag}
            role="button"
            tabindex="0"
            aria-label={describeBox(box, area)}
            aria-pressed={chosen}
            data-box={box.name}
            onfocus={() => onselect({ kind: 'box', id: box.id })}
            onkeydown={(e) => onkey?.(e, box)}
            onpointerdown={(e) => {
              onselect({ kind: 'box', id: box.id });
              if (!ondrag) return;
              dragging = box.id;
              e.currentTarget.setPointerCapture(e.pointerId);
            }}
            onpointermove={(e) => move(e, box, area)}
            onpointerup={() => {
              dragging = null;
              ondrop?.();
            }}
            onpointercancel={() => (dragging = null)}
          >
            <circle class="target" cx={at.x} cy={at.y} r={22 * px} />
            <path class="stem" d={path([foot, at])} stroke-width={2 * px} />
            <circle class="body" cx={at.x} cy={at.y} r={10 * px} stroke-width={2.4 * px} />
            <g transform="translate({at.x} {at.y}) rotate({wall.heading})">
              {#if box.device.kind === 'gfci'}
                <path class="mark" d="M{-5 * px} 0h{10 * px}M0 {-5 * px}v{10 * px}" stroke-width={2.4 * px} />
              {:else if box.device.kind === 'single'}
                <path class="mark" d="M0 {-5 * px}v{10 * px}" stroke-width={2.4 * px} />
              {:else}
                <path
                  class="mark"
                  d="M{-3 * px} {-5 * px}v{10 * px}M{3 * px} {-5 * px}v{10 * px}"
                  stroke-width={2.4 * px}
                  stroke-dasharray={box.device.kind === 'two-slot' ? `${3 * px} ${2 * px}` : undefined}
                />
              {/if}
            </g>
            <text class="box-name" x={name.x} y={name.y} dy={4 * px} font-size={14 * px}>{box.name}</text>
          </g>
          {#if chosen}
            {@const label = labelAt(outline, wall.id, box.offset, 58 * px)}
            <text class="place" x={label.x} y={label.y} dy={10 * px} font-size={13 * px}
              >{formatLength(box.offset)} · {formatLength(wall.length - box.offset)} to corner</text
            >
          {/if}
        {/if}
      {/each}
    {/each}
  </svg>
</div>

<style>
  .plan {
    width: 100%;
    height: 100%;
    min-height: 16rem;
    background:
      linear-gradient(var(--rule) 1px, transparent 1px) 0 0 / 24px 24px,
      linear-gradient(90deg, var(--rule) 1px, transparent 1px) 0 0 / 24px 24px,
      var(--sheet);
  }
  svg {
    display: block;
    width: 100%;
    height: 100%;
    touch-action: none;
  }
  text {
    fill: var(--ink);
    text-anchor: middle;
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: calc(var(--px) * 4);
    stroke-linejoin: round;
    pointer-events: none;
    user-select: none;
  }
  path {
    fill: none;
  }
  .floor {
    fill: var(--panel);
    stroke: none;
    cursor: pointer;
  }
  .area.chosen .floor {
    fill: color-mix(in srgb, var(--copper) 22%, var(--sheet));
  }
  .wall {
    stroke: var(--ink);
    stroke-linejoin: miter;
    pointer-events: none;
  }
  .gap {
    stroke: var(--unknown);
  }
  .hole {
    stroke: var(--panel);
  }
  .glass {
    stroke: var(--gfci);
  }
  .swing {
    stroke: var(--quiet);
  }
  .cabinet,
  .cabinet-with-counter,
  .fireplace {
    fill: var(--rule);
    stroke: var(--quiet);
  }
  .cabinet-with-counter {
    fill: var(--sheet);
  }
  .fireplace {
    fill: var(--edge);
  }
  .reached {
    stroke: var(--covered);
  }
  .open {
    stroke: var(--uncovered);
  }
  .open-label {
    fill: var(--bad);
    font-weight: 700;
  }
  .marked {
    stroke: var(--copper);
    opacity: 0.55;
  }
  .dimension {
    fill: var(--quiet);
  }
  .number {
    font-weight: 700;
    fill: var(--ink);
  }
  .room {
    font-weight: 700;
  }
  .room-kind {
    fill: var(--quiet);
  }
  .panel {
    fill: var(--cover);
    stroke: var(--cover-ink);
  }
  .panel-mark {
    stroke: var(--cover-ink);
  }
  .target {
    fill: transparent;
  }
  .box {
    cursor: pointer;
    outline: none;
  }
  .box.movable {
    cursor: grab;
  }
  .body {
    fill: var(--sheet);
    stroke: var(--ink);
  }
  .existing .body {
    stroke: var(--quiet);
  }
  .remove {
    opacity: 0.45;
  }
  .stem,
  .mark {
    stroke: var(--ink);
  }
  .box.chosen .body {
    fill: var(--accent);
    stroke: var(--accent);
  }
  .box.chosen .mark {
    stroke: var(--accent-ink);
  }
  .box:focus-visible .target {
    stroke: var(--accent);
    stroke-width: calc(var(--px) * 3);
  }
  .box-name {
    font-weight: 700;
  }
  .place {
    fill: var(--accent);
    font-weight: 700;
  }
</style>
