<script lang="ts">
  import type { Line, Picture, Row } from '#core/boxes/picture.ts';
  import { PAINT, pathOf, SCREW_PAINT } from '#core/boxes/svg.ts';

  interface Props {
    picture: Picture;
    title: string;
    /** The end that is looked at. */
    selected: string | null;
    /** Ends that stand elsewhere than planned. */
    moved: ReadonlySet<string>;
    onselect: (end: string | null) => void;
    /** Puts the selected end somewhere; without it the picture is for looking at. */
    onplace?: (end: string, place: string | null) => void;
    ontab?: (yoke: string, side: 'hot' | 'neutral') => void;
  }
  let { picture, title, selected, moved, onselect, onplace, ontab }: Props = $props();

  let svg = $state<SVGSVGElement>();
  /** An end on its way under the finger. */
  let dragged = $state<{ end: string; x: number; y: number; from: { x: number; y: number } } | null>(null);

  const rows = $derived(new Map(picture.shapes.flatMap((s) => s.rows.map((r) => [r.id, r] as const))));
  const chosen = $derived(picture.lines.find((l) => selected !== null && l.ends.includes(selected)) ?? null);

  /** The end that a row stands for; null where it is a place alone. */
  function endAt(row: Row): string | null {
    if (row.kind === 'conductor' || row.kind === 'lead') return row.id;
    if (row.kind === 'cap' || row.kind === 'unknown') return row.id.slice(row.id.indexOf(':') + 1);
    return null;
  }
  const isPlace = ({ kind }: Row): boolean => kind === 'terminal' || kind === 'splice' || kind === 'box';
  /** A tail is moved at the device, unless only its other end is there to take. */
  const endOf = (line: Line): string => line.ends.at(-1)!;
  const touches = (row: Row): boolean => chosen !== null && (chosen.from === row.id || chosen.to === row.id);

  function take(row: Row) {
    if (selected !== null && onplace && isPlace(row)) return onplace(selected, row.id);
    const end = endAt(row) ?? lineAt(row);
    onselect(end === selected ? null : end);
  }
  /** What lands at a place, to be looked at from there. */
  const lineAt = (row: Row): string | null => {
    const line = picture.lines.find((l) => l.to === row.id || l.from === row.id);
    return line ? endOf(line) : null;
  };

  const labelOf = (row: Row): string => {
    const line = picture.lines.find((l) => l.from === row.id || l.to === row.id);
    const other = line && rows.get(line.from === row.id ? line.to : line.from);
    const marked = row.mark ? `, marked ${row.mark}` : '';
    const where = row.kind === 'conductor' || row.kind === 'lead' ? `, at ${other?.label ?? 'nothing'}` : '';
    return selected !== null && onplace && isPlace(row)
      ? `Put it at ${row.label}`
      : `${row.label}${marked}${where}`;
  };

  function at(event: PointerEvent): { x: number; y: number } {
    const box = svg!.getBoundingClientRect();
    return {
      x: ((event.clientX - box.left) * picture.width) / box.width,
      y: ((event.clientY - box.top) * picture.height) / box.height,
    };
  }
  function lift(event: PointerEvent, end: string) {
    if (!onplace) return;
    const from = at(event);
    dragged = { end, ...from, from };
    svg!.setPointerCapture(event.pointerId);
  }
  const far = (d: NonNullable<typeof dragged>) => Math.hypot(d.x - d.from.x, d.y - d.from.y) > 8;
  function drop(event: PointerEvent) {
    const d = dragged;
    dragged = null;
    if (!d || !far(d)) return;
    const { x, y } = at(event);
    const under = [...rows.values()].find(
      (r) => x >= r.x && x <= r.x + r.width && y >= r.y && y <= r.y + r.height,
    );
    if (under && isPlace(under)) onplace!(d.end, under.id);
    else if (!under) onplace!(d.end, null);
  }
  const keyed = (event: KeyboardEvent, act: () => void) => {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    act();
  };
</script>

<svg
  bind:this={svg}
  class="wiring"
  class:editable={onplace !== undefined}
  class:holding={selected !== null && onplace !== undefined}
  viewBox="0 0 {picture.width} {picture.height}"
  style:max-width="{picture.width * 1.5}px"
  role="group"
  aria-label={title}
  onpointermove={(e) => dragged && (dragged = { ...dragged, ...at(e) })}
  onpointerup={drop}
  onpointercancel={() => (dragged = null)}
>
  {#each picture.lines as line (line.id)}
    {@const d = pathOf(line)}
    <g class="line" class:on={line === chosen} class:dim={chosen !== null && line !== chosen}>
      <path
        class="reach"
        {d}
        role="button"
        tabindex="-1"
        aria-label={line.id}
        onclick={() => onselect(endOf(line) === selected ? null : endOf(line))}
        onkeydown={(e) => keyed(e, () => onselect(endOf(line)))}
        onpointerdown={(e) => lift(e, endOf(line))}
      />
      <path class="edge" class:moved={line.ends.some((e) => moved.has(e))} {d} />
      <path class="core" {d} stroke={PAINT[line.color]} />
    </g>
  {/each}

  {#each picture.shapes as shape (shape.id)}
    <g class="shape {shape.kind}">
      <rect
        x={shape.x}
        y={shape.y}
        width={shape.width}
        height={shape.height}
        rx={shape.kind === 'splice' || shape.kind === 'cap' ? 9 : 3}
      />
      {#if shape.title}<text class="title" x={shape.x + 7} y={shape.y + 17}>{shape.title}</text>{/if}
      {#each shape.rows as row (row.id)}
        {@const middle = row.y + row.height / 2}
        <g
          class="row {row.kind}"
          class:on={touches(row) || (selected !== null && endAt(row) === selected)}
          role="button"
          tabindex="0"
          aria-label={labelOf(row)}
          aria-pressed={endAt(row) !== null && endAt(row) === selected}
          data-row={row.id}
          onclick={() => take(row)}
          onkeydown={(e) => keyed(e, () => take(row))}
          onpointerdown={(e) => {
            const end = endAt(row);
            if (end !== null) lift(e, end);
          }}
        >
          <rect
            class="field"
            x={row.x + 1}
            y={row.y + 1}
            width={row.width - 2}
            height={row.height - 2}
            rx="3"
          />
          {#if row.kind === 'terminal'}
            <circle cx={row.x + 12} cy={middle} r="7" fill={SCREW_PAINT[row.finish ?? 'brass']} />
            <path class="slot" d="M{row.x + 8} {middle}h8" />
            <text x={row.x + 25} y={middle + 4.5}>{row.label}</text>
          {:else if row.kind === 'lead'}
            <rect
              class="lead-end"
              x={row.x + 4}
              y={middle - 4}
              width="16"
              height="8"
              rx="4"
              fill={SCREW_PAINT[row.finish ?? 'black']}
            />
            <text x={row.x + 25} y={middle + 4.5}>{row.label}</text>
          {:else if row.kind === 'conductor'}
            <rect
              class="jacket"
              x={row.x + row.width - 16}
              y={middle - 5}
              width="16"
              height="10"
              fill={PAINT[row.color ?? 'black']}
            />
            {#if row.mark}
              <rect
                class="jacket"
                x={row.x + row.width - 7}
                y={middle - 5}
                width="7"
                height="10"
                fill={PAINT[row.mark]}
              />
            {/if}
            <text x={row.x + 7} y={middle + 4.5}>{row.label}</text>
          {:else}
            <text x={row.x + row.width / 2} y={middle + 4.5} text-anchor="middle">{row.label}</text>
          {/if}
        </g>
      {/each}
    </g>
  {/each}

  {#each picture.tabs as tab (`${tab.yoke} ${tab.side}`)}
    {@const [a, b] = [rows.get(tab.from), rows.get(tab.to)]}
    {#if a && b}
      {@const x = a.x + a.width - 8}
      <g
        class="tab"
        class:off={!tab.kept}
        role="button"
        tabindex={ontab ? 0 : -1}
        aria-label="Tab on the {tab.side} side, {tab.kept ? 'left on' : 'broken off'}"
        onclick={() => ontab?.(tab.yoke, tab.side)}
        onkeydown={(e) => keyed(e, () => ontab?.(tab.yoke, tab.side))}
      >
        <path class="reach" d="M{x} {a.y + a.height / 2}V{b.y + b.height / 2}" />
        <path
          d="M{x} {a.y + a.height / 2}V{b.y + b.height / 2}"
          stroke={SCREW_PAINT[tab.side === 'hot' ? 'brass' : 'silver']}
        />
      </g>
    {/if}
  {/each}

  {#if dragged && far(dragged)}
    <path class="carried" d="M{dragged.from.x} {dragged.from.y}L{dragged.x} {dragged.y}" />
  {/if}
</svg>

<style>
  .wiring {
    display: block;
    width: 100%;
    margin: 0 auto;
    font-size: 13.5px;
    color: #17202a;
    touch-action: manipulation;
    user-select: none;
  }
  .editable {
    touch-action: none;
  }
  text {
    fill: #17202a;
    pointer-events: none;
  }
  .title {
    font-weight: 750;
  }
  .shape > rect {
    fill: #eef1ee;
    stroke: #17202a;
    stroke-width: 1.5;
  }
  .device > rect {
    fill: #f6f1e2;
  }
  .splice > rect,
  .cap > rect {
    fill: #ffe9c2;
  }
  .box > rect {
    fill: #dfe4e8;
  }
  .unknown > rect {
    fill: #fff;
    stroke-dasharray: 4 3;
  }
  .row {
    cursor: pointer;
  }
  .row .field {
    fill: transparent;
  }
  .row.on .field {
    fill: #17202a22;
    stroke: #17202a;
    stroke-width: 2;
  }
  .row:focus-visible {
    outline: none;
  }
  .row:focus-visible .field {
    stroke: var(--accent);
    stroke-width: 3;
  }
  .holding .terminal .field,
  .holding .row.splice .field {
    fill: #2f9e5722;
    stroke: #1f7a3d;
    stroke-dasharray: 4 3;
  }
  circle,
  .jacket,
  .lead-end {
    stroke: #17202a;
    stroke-width: 1.5;
  }
  .slot {
    stroke: #17202a;
    stroke-width: 1.5;
  }
  .line path {
    fill: none;
    stroke-linejoin: round;
  }
  .reach {
    stroke: transparent;
    stroke-width: 16;
    cursor: pointer;
  }
  .edge {
    stroke: var(--ink);
    stroke-width: 6;
    pointer-events: none;
  }
  .edge.moved {
    stroke: var(--bad);
    stroke-width: 9;
  }
  .core {
    stroke-width: 3.5;
    pointer-events: none;
  }
  .on .edge {
    stroke-width: 9;
  }
  .on .core {
    stroke-width: 5;
  }
  .dim {
    opacity: 0.35;
  }
  .tab path {
    stroke-width: 5;
    fill: none;
  }
  .tab.off path:last-child {
    stroke: #17202a;
    stroke-width: 1.5;
    stroke-dasharray: 2 4;
  }
  .tab .reach {
    stroke: transparent;
    stroke-width: 16;
  }
  .carried {
    stroke: var(--bad);
    stroke-width: 3;
    stroke-dasharray: 6 4;
    pointer-events: none;
  }
</style>
