<script lang="ts">
  import { sizeName } from '#core/tables/conductors.ts';
  import type { Run } from '#core/circuits/run.ts';
  import { formatFeet } from '#core/units/length.ts';
  import { round } from '#core/units/quantity.ts';
  import { breakerWords } from '../../names.ts';
  import {
    fullDrop,
    jacketOf,
    lanesOf,
    markOf,
    placesOf,
    SIGN,
    stretchesOf,
    tagsOf,
    thicknessOf,
    wordsFor,
    type StopResult,
  } from './drawing.ts';
  import RunColumn from './RunColumn.svelte';
  import StopMark from './StopMark.svelte';

  interface Props {
    run: Run;
    dropLimit: number;
    selected: string | null;
    onselect: (boxId: string) => void;
    onkey?: (event: KeyboardEvent, boxId: string) => void;
    /** A stop let go at a point of the screen. */
    ondrop?: (boxId: string, clientX: number, clientY: number) => void;
    results?: Readonly<Record<string, StopResult>>;
    /** On a narrow screen from top to bottom. */
    upright?: boolean;
  }
  let { run, dropLimit, selected, onselect, onkey, ondrop, results = {}, upright = true }: Props = $props();

  let available = $state(800);
  let drag = $state<{ boxId: string; dx: number; dy: number; x: number; y: number } | null>(null);

  /** Narrower than this the run is drawn from top to bottom. */
  const NARROW = 560;
  /** Room for the breaker. */
  const LEFT = 128;
  const RIGHT = 40;
  const LANE = 150;
  const LINE = 74;

  const lanes = $derived(lanesOf(run));
  const room = $derived({ available, left: LEFT, right: RIGHT });
  const layout = $derived(placesOf(run, lanes, room));
  const gap = $derived(layout.gap);
  const places = $derived(layout.stops.map((p) => ({ ...p, y: LINE + p.lane * LANE })));
  const drawn = $derived(Math.max(available, layout.width));
  /** Words at a stop that are wider than it is to the next. */
  const wordy = $derived(gap >= 76);
  const tagged = $derived(wordy && run.stops.some((s) => tagsOf(run, s).length > 0));
  const read = $derived(Object.values(results).some((r) => r.volts !== ''));
  const height = $derived(LINE + Math.max(0, ...lanes) * LANE + (tagged ? 108 : 92) + (read ? 17 : 0));
  const fromOf = (i: number) => places[run.stops[i]!.feeder] ?? { x: LEFT - 12, y: LINE };

  const bands = $derived(
    (['afci', 'gfci'] as const).flatMap((kind) =>
      stretchesOf(run, lanes, kind).map(([a, b], i) => {
        const first = run.stops[a]!;
        const whole = first[kind]?.at === 'breaker' && first.feeder === -1;
        const [half, pad] = kind === 'afci' ? [40, 26] : [30, 21];
        const from = whole ? LEFT - 12 : places[a]!.x - pad;
        const y = places[a]!.y;
        return { kind, name: i === 0, x: from, width: places[b]!.x + pad - from, y, half };
      }),
    ),
  );

  function letGo(event: PointerEvent) {
    if (drag && Math.hypot(drag.dx, drag.dy) > 12) ondrop?.(drag.boxId, event.clientX, event.clientY);
    drag = null;
  }
</script>

<div class="run" bind:clientWidth={available} data-circuit={run.circuit.id}>
  {#if upright && available < NARROW}
    <RunColumn {run} width={available} {dropLimit} {selected} {onselect} {onkey} {results} />
  {:else}
    <svg
      viewBox="0 0 {drawn} {height}"
      width={drawn}
      {height}
      role="group"
      aria-label="Run of {run.circuit.name}, {run.stops.length} boxes"
    >
      {#each bands as b, i (i)}
        <rect class={b.kind} x={b.x} y={b.y - b.half} width={b.width} height={2 * b.half} rx="6" />
        {#if b.name}
          <text class="band-name {b.kind}-name" x={b.x + (b.kind === 'afci' ? 8 : 62)} y={b.y - 46}
            >{b.kind.toUpperCase()}</text
          >
        {/if}
      {/each}

      <g class="breaker">
        <rect x="8" y={LINE - 40} width="108" height="80" rx="4" />
        <text class="rating" x="62" y={LINE - 6}>{run.circuit.breaker.rating} A</text>
        <text class="space" x="62" y={LINE + 14}>space {run.circuit.space}</text>
        <text class="space" x="62" y={LINE + 31}>{breakerWords(run.circuit)}</text>
      </g>

      {#each run.stops as s, i (s.box.id)}
        {@const to = places[i]!}
        {@const from = fromOf(i)}
        <!-- A branch leaves below its box and goes down beside what is written there. -->
        {@const aside = from.y === to.y ? 0 : gap / 2}
        {@const space = to.x - from.x - aside}
        {@const mid = (from.x + aside + to.x) / 2}
        {@const path = `M${from.x} ${from.y}${aside === 0 ? '' : `v30h${aside}V${to.y}`}H${to.x}`}
        <path class="cable-edge" d={path} stroke-width={thicknessOf(s.segment.gauge) + 3} />
        <path
          class="cable"
          d={path}
          stroke={jacketOf(s.segment.gauge)}
          stroke-width={thicknessOf(s.segment.gauge)}
        />
        {#if to.stretched && space > 46}
          <path class="break" d="M{mid - 5} {to.y + 9}l5 -18M{mid + 1} {to.y + 9}l5 -18" />
        {/if}
        {#if space > 40 || aside > 0}
          <text class="segment" x={space > 40 ? mid : from.x + aside - 26} y={to.y - 14}
            >{formatFeet(s.segment.length)}</text
          >
        {/if}
        {#if space > 110}
          <text class="segment" x={mid} y={to.y + 24}>{sizeName(s.segment.gauge)} · {round(s.amps, 1)} A</text
          >
        {/if}
      {/each}

      {#each run.stops as s, i (s.box.id)}
        {@const p = places[i]!}
        {@const moved = drag?.boxId === s.box.id ? drag : null}
        {@const result = results[s.box.id]}
        {@const percent = fullDrop(run, s)}
        {@const [tag] = tagsOf(run, s)}
        <g
          class="stop {s.box.status}"
          class:chosen={selected === s.box.id}
          class:held={moved}
          transform="translate({p.x + (moved?.dx ?? 0)} {p.y + (moved?.dy ?? 0)})"
          role="button"
          tabindex="0"
          aria-pressed={selected === s.box.id}
          aria-label={wordsFor(
            `${s.box.name} ${formatFeet(s.distance)} ${percent.toFixed(1)} %${tag ? ` ${tag}` : ''}${result?.volts ? ` ${result.volts}` : ''}`,
            s,
            result,
          )}
          data-stop={s.box.name}
          onfocus={() => onselect(s.box.id)}
          onkeydown={(e) => onkey?.(e, s.box.id)}
          onpointerdown={(e) => {
            onselect(s.box.id);
            if (!ondrop) return;
            drag = { boxId: s.box.id, dx: 0, dy: 0, x: e.clientX, y: e.clientY };
            e.currentTarget.setPointerCapture(e.pointerId);
          }}
          onpointermove={(e) => {
            if (drag?.boxId === s.box.id) drag = { ...drag, dx: e.clientX - drag.x, dy: e.clientY - drag.y };
          }}
          onpointerup={letGo}
          onpointercancel={() => (drag = null)}
        >
          <rect class="target" x={-gap / 2} y="-32" width={gap} height="124" />
          <StopMark mark={markOf(s)} />
          <!-- The space keeps the two words apart for a screen reader; the 2 px put the name back in the middle. -->
          <text class="name" x="2" y="50"
            >{s.box.name} <tspan class="far" x="0" dy="16">{formatFeet(s.distance)}</tspan>
            <tspan class="far" class:over={percent > dropLimit} x="0" dy="16">{percent.toFixed(1)} %</tspan>
            {#if tag && wordy}<tspan class="tag" x="0" dy="17">{tag}</tspan>{/if}{#if result?.volts}<tspan
                class="read"
                x="0"
                dy="17">{result.volts}</tspan
              >{/if}</text
          >
        </g>
        {#if result && result.grade !== 'none'}
          <g
            class="result {result.grade}"
            transform="translate({p.x + (moved?.dx ?? 0) + 24} {p.y + (moved?.dy ?? 0) - 24})"
            aria-hidden="true"
          >
            <circle r="11" />
            <text y="5">{SIGN[result.grade]}</text>
          </g>
        {/if}
      {/each}

      {#if run.stops.length === 0}
        <text class="empty" x={LEFT} y={LINE + 6}>No boxes yet: put an outlet on this circuit.</text>
      {/if}
    </svg>
  {/if}
</div>

<style>
  .run {
    overflow-x: auto;
    overflow-y: hidden;
  }
  .run :global(svg) {
    display: block;
    touch-action: pan-x pan-y;
  }
  .run :global(text) {
    fill: var(--ink);
    user-select: none;
    pointer-events: none;
  }
  .run :global(.afci) {
    fill: var(--afci-wash);
  }
  .run :global(.gfci) {
    fill: var(--gfci-wash);
  }
  .band-name {
    font-weight: 700;
    font-size: 14px;
  }
  .run .afci-name {
    fill: var(--afci);
  }
  .run .gfci-name {
    fill: var(--gfci);
  }
  .run :global(.breaker rect) {
    fill: var(--cover);
  }
  .run :global(.breaker text) {
    fill: var(--cover-ink);
  }
  .breaker text {
    text-anchor: middle;
    font-size: 14px;
  }
  .breaker .rating {
    font-size: 26px;
    font-weight: 750;
  }
  .run :global(.cable-edge) {
    fill: none;
    stroke: var(--ink);
  }
  .run :global(.cable) {
    fill: none;
  }
  .break {
    fill: none;
    stroke: var(--sheet);
    stroke-width: 3;
  }
  .segment {
    text-anchor: middle;
    font-size: 14px;
  }
  .run :global(.stop) {
    cursor: grab;
    outline: none;
  }
  .stop.held {
    cursor: grabbing;
  }
  .run :global(.target) {
    fill: transparent;
  }
  .run :global(.body) {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 3;
  }
  .run :global(.existing .body) {
    stroke: var(--quiet);
    stroke-dasharray: 6 3;
  }
  .run :global(.mark) {
    fill: none;
    stroke: var(--ink);
    stroke-width: 3;
  }
  .run :global(.chosen .body) {
    fill: var(--accent);
    stroke: var(--accent);
  }
  .run :global(.chosen .mark) {
    stroke: var(--accent-ink);
  }
  .run :global(.stop:focus-visible .target) {
    stroke: var(--accent);
    stroke-width: 3;
  }
  .name,
  .far,
  .tag {
    text-anchor: middle;
  }
  .name {
    font-weight: 700;
    font-size: 17px;
  }
  .run .far {
    fill: var(--quiet);
    font-size: 14px;
    font-weight: 400;
  }
  .run .far.over {
    fill: var(--warn);
    font-weight: 700;
  }
  .read {
    font-size: 14px;
    font-weight: 700;
  }
  .tag {
    font-size: 13px;
    font-weight: 600;
  }
  .run :global(.result circle) {
    fill: var(--quiet);
  }
  .run :global(.result text) {
    fill: var(--sheet);
    text-anchor: middle;
    font-weight: 800;
  }
  .run :global(.result.good circle) {
    fill: var(--good);
  }
  .run :global(.result.worry circle) {
    fill: var(--warn);
  }
  .run :global(.result.bad circle) {
    fill: var(--bad);
  }
  .run .empty {
    fill: var(--quiet);
    font-size: 15px;
  }
</style>
