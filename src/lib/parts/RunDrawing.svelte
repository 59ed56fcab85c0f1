<script lang="ts" module>
  import type { Gauge } from '../../core/job/schema.ts';

  /** What was found at a stop, hung under it. */
  export interface StopResult {
    grade: 'good' | 'worry' | 'bad' | 'no-power' | 'none';
    text: string;
  }

  /** Line thickness by gauge, px. */
  const THICKNESS: Partial<Record<Gauge, number>> = { '14': 4, '12': 6, '10': 8, '8': 10 };
  const JACKET: Partial<Record<Gauge, string>> = {
    '14': 'var(--jacket-14)',
    '12': 'var(--jacket-12)',
    '10': 'var(--jacket-10)',
  };
</script>

<script lang="ts">
  import type { Run } from '../../core/circuits/run.ts';
  import { formatFeet } from '../../core/units/length.ts';
  import { round } from '../../core/units/quantity.ts';

  interface Props {
    run: Run;
    dropLimit: number;
    selected: string | null;
    onselect: (boxId: string) => void;
    onkey?: (event: KeyboardEvent, boxId: string) => void;
    /** A stop let go at a point of the screen. */
    ondrop?: (boxId: string, clientX: number, clientY: number) => void;
    results?: Readonly<Record<string, StopResult>>;
    /** Draws the drop growing along the run. */
    chart?: boolean;
  }
  let {
    run,
    dropLimit,
    selected,
    onselect,
    onkey,
    ondrop,
    results = {},
    chart = true,
  }: Props = $props();

  let available = $state(800);
  let drag = $state<{ boxId: string; dx: number; dy: number; x: number; y: number } | null>(null);

  /** Room for the breaker. */
  const LEFT = 128;
  const RIGHT = 70;
  const GAP = 84;
  const LANE = 62;
  const LINE = 74;

  const width = $derived(Math.max(available, LEFT + RIGHT + run.stops.length * GAP));
  /**
   * True distance where it can be read; a stop that would stand on its neighbour is pushed on, and its
   * segment drawn broken, so that the picture never claims a length it does not show.
   */
  const places = $derived.by(() => {
    const longest = Math.max(...run.stops.map((s) => s.distance), 1);
    const scale = (width - LEFT - RIGHT) / longest;
    const lanes = new Map<number, number>();
    let laneCount = 0;
    const placed: { x: number; lane: number; y: number; stretched: boolean }[] = [];
    for (const [i, s] of run.stops.entries()) {
      const before = placed[s.feeder];
      const firstChild = !run.stops.slice(0, i).some((o) => o.feeder === s.feeder);
      const lane = firstChild ? (before?.lane ?? 0) : ++laneCount;
      const truly = LEFT + s.distance * scale;
      const least = Math.max((before?.x ?? LEFT - GAP / 2) + GAP, lanes.get(lane) ?? 0);
      const x = Math.max(truly, least);
      lanes.set(lane, x + GAP);
      placed.push({ x, lane, y: LINE + lane * LANE, stretched: x > truly + 1 });
    }
    return placed;
  });
  const drawn = $derived(Math.max(width, ...places.map((p) => p.x + RIGHT)));
  const lanes = $derived(Math.max(0, ...places.map((p) => p.lane)));
  const chartTop = $derived(LINE + lanes * LANE + 98);
  const chartHeight = 56;
  const height = $derived(chart ? chartTop + chartHeight + 26 : chartTop - 6);

  const fromOf = (i: number) => places[run.stops[i]!.feeder] ?? { x: LEFT - 12, y: LINE };
  const percent = (volts: number) => (volts / run.volts) * 100;
  /** Drop with the full load of the breaker put at each stop in turn. */
  const fullLoad = $derived(run.circuit.breaker.rating * 0.8);
  const fullDrop = (i: number) => percent(2 * run.stops[i]!.pathOhms * fullLoad);
  const top = $derived(Math.max(dropLimit * 1.6, ...run.stops.map((_, i) => fullDrop(i))));
  const chartY = (p: number) => chartTop + chartHeight - (p / top) * chartHeight;

  type Band = { x: number; y: number; width: number };
  /** One stretch per lane from where protection begins to the last stop it reaches. */
  function bands(kind: 'gfci' | 'afci'): Band[] {
    return Array.from({ length: lanes + 1 }, (_, lane) => {
      const on = places.filter((p, i) => p.lane === lane && run.stops[i]![kind] !== null);
      if (on.length === 0) return null;
      const atBreaker = lane === 0 && run.stops.find((s) => s[kind])?.[kind]?.at === 'breaker';
      const from = atBreaker ? LEFT - 12 : Math.min(...on.map((p) => p.x)) - 26;
      return { x: from, width: Math.max(...on.map((p) => p.x)) + 26 - from, y: LINE + lane * LANE };
    }).filter((b) => b !== null);
  }
  const gfci = $derived(bands('gfci'));
  const afci = $derived(bands('afci'));

  const SIGN = { good: '✓', worry: '!', bad: '✕', 'no-power': '–', none: '' } as const;

  function letGo(event: PointerEvent) {
    if (drag && Math.hypot(drag.dx, drag.dy) > 12) ondrop?.(drag.boxId, event.clientX, event.clientY);
    drag = null;
  }
</script>

<div class="run" bind:clientWidth={available} data-circuit={run.circuit.id}>
  <svg
    viewBox="0 0 {drawn} {height}"
    width={drawn}
    {height}
    role="group"
    aria-label="Run of {run.circuit.name}, {run.stops.length} boxes"
  >
    {#each afci as band, i (i)}
      <rect class="afci" x={band.x} y={band.y - 40} width={band.width} height="80" rx="6" />
      {#if i === 0}<text class="band-name afci-name" x={band.x + 8} y={band.y - 46}>AFCI</text>{/if}
    {/each}
    {#each gfci as band, i (i)}
      <rect class="gfci" x={band.x + 5} y={band.y - 30} width={band.width - 10} height="64" rx="6" />
      {#if i === 0}<text class="band-name gfci-name" x={band.x + 12} y={band.y - 46}>GFCI</text>{/if}
    {/each}

    <g class="breaker">
      <rect x="8" y={LINE - 40} width="108" height="80" rx="4" />
      <text class="rating" x="62" y={LINE - 2}>{run.circuit.breaker.rating} A</text>
      <text class="space" x="62" y={LINE + 22}>space {run.circuit.space}</text>
    </g>

    {#each run.stops as s, i (s.box.id)}
      {@const to = places[i]!}
      {@const from = fromOf(i)}
      {@const mid = (from.x + to.x) / 2}
      {@const room = to.x - from.x}
      <path
        class="cable-edge"
        d="M{from.x} {from.y}{from.y === to.y ? '' : `V${to.y}`}H{to.x}"
        stroke-width={(THICKNESS[s.segment.gauge] ?? 11) + 3}
      />
      <path
        class="cable"
        d="M{from.x} {from.y}{from.y === to.y ? '' : `V${to.y}`}H{to.x}"
        stroke={JACKET[s.segment.gauge] ?? 'var(--jacket-8)'}
        stroke-width={THICKNESS[s.segment.gauge] ?? 11}
      />
      {#if to.stretched}
        <path class="break" d="M{mid - 5} {to.y + 9}l5 -18M{mid + 1} {to.y + 9}l5 -18" />
      {/if}
      {#if room > 58}
        <text class="segment" x={mid} y={to.y - 14}>{formatFeet(s.segment.length)}</text>
      {/if}
      {#if room > 96}
        <text class="segment" x={mid} y={to.y + 24}>{s.segment.gauge} AWG · {round(s.amps, 1)} A</text>
      {/if}
    {/each}

    {#each run.stops as s, i (s.box.id)}
      {@const p = places[i]!}
      {@const moved = drag?.boxId === s.box.id ? drag : null}
      {@const result = results[s.box.id]}
      <g
        class="stop {s.box.status}"
        class:chosen={selected === s.box.id}
        class:held={moved}
        transform="translate({p.x + (moved?.dx ?? 0)} {p.y + (moved?.dy ?? 0)})"
        role="button"
        tabindex="0"
        aria-pressed={selected === s.box.id}
        aria-label="{s.box.name} {formatFeet(s.distance)} from the breaker, {s.area.name}, drop {fullDrop(
          i,
        ).toFixed(1)} percent{result ? `, ${result.text}` : ''}"
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
        <rect class="target" x="-32" y="-32" width="64" height="114" />
        <rect class="body" x="-18" y="-18" width="36" height="36" rx="4" />
        {#if s.box.device.kind === 'gfci'}
          <path class="mark" d="M-9 0h18M0 -9v18" />
        {:else}
          <path class="mark" d="M-5 -8v16M5 -8v16" />
        {/if}
        <!-- The space keeps the two words apart for a screen reader; the 2 px put the name back in the middle. -->
        <text class="name" x="2" y="58"
          >{s.box.name} <tspan class="far" x="0" dy="17">{formatFeet(s.distance)}</tspan></text
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

    {#if run.stops.length > 0 && chart}
      <g class="chart">
        <line class="limit" x1={LEFT - 12} x2={drawn - 16} y1={chartY(dropLimit)} y2={chartY(dropLimit)} />
        <text class="limit-name" x="8" y={chartY(dropLimit) + 5}>{dropLimit} % advised</text>
        <line
          class="base"
          x1={LEFT - 12}
          x2={drawn - 16}
          y1={chartTop + chartHeight}
          y2={chartTop + chartHeight}
        />
        {#each run.stops as s, i (s.box.id)}
          {@const from = fromOf(i)}
          {@const y0 = s.feeder === -1 ? chartY(0) : chartY(fullDrop(s.feeder))}
          <line
            class="drop"
            class:over={fullDrop(i) > dropLimit}
            x1={from.x}
            y1={y0}
            x2={places[i]!.x}
            y2={chartY(fullDrop(i))}
          />
          <circle
            class="dot"
            class:over={fullDrop(i) > dropLimit}
            cx={places[i]!.x}
            cy={chartY(fullDrop(i))}
            r="4"
          />
          <text class="drop-value" x={places[i]!.x} y={chartTop + chartHeight + 18}
            >{fullDrop(i).toFixed(1)} %</text
          >
        {/each}
        <text class="limit-name" x="8" y={chartTop + chartHeight + 18}>drop, {fullLoad} A</text>
      </g>
    {:else if run.stops.length === 0}
      <text class="empty" x={LEFT} y={LINE + 6}>No boxes yet: put an outlet on this circuit.</text>
    {/if}
  </svg>
</div>

<style>
  .run {
    overflow-x: auto;
    overflow-y: hidden;
  }
  svg {
    display: block;
    touch-action: pan-x pan-y;
  }
  text {
    fill: var(--ink);
    font-size: 14px;
    user-select: none;
    pointer-events: none;
  }
  .afci {
    fill: var(--afci-wash);
  }
  .gfci {
    fill: var(--gfci-wash);
  }
  .band-name {
    font-weight: 700;
  }
  .afci-name {
    fill: var(--afci);
  }
  .gfci-name {
    fill: var(--gfci);
  }
  .breaker rect {
    fill: var(--cover);
  }
  .breaker text {
    text-anchor: middle;
    fill: var(--cover-ink);
  }
  .breaker .rating {
    font-size: 26px;
    font-weight: 750;
  }
  .cable-edge {
    fill: none;
    stroke: var(--ink);
  }
  .cable {
    fill: none;
  }
  .break {
    fill: none;
    stroke: var(--sheet);
    stroke-width: 3;
  }
  .segment {
    text-anchor: middle;
    font-size: 13px;
    fill: var(--ink);
  }
  .stop {
    cursor: grab;
    outline: none;
  }
  .stop.held {
    cursor: grabbing;
  }
  .target {
    fill: transparent;
  }
  .body {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 3;
  }
  .existing .body {
    stroke: var(--quiet);
    stroke-dasharray: 6 3;
  }
  .mark {
    fill: none;
    stroke: var(--ink);
    stroke-width: 3;
  }
  .chosen .body {
    fill: var(--accent);
    stroke: var(--accent);
  }
  .chosen .mark {
    stroke: var(--accent-ink);
  }
  .stop:focus-visible .target {
    stroke: var(--accent);
    stroke-width: 3;
  }
  .name,
  .far {
    text-anchor: middle;
  }
  .name {
    font-weight: 700;
    font-size: 16px;
  }
  .far {
    fill: var(--quiet);
    font-size: 14px;
    font-weight: 400;
  }
  .result circle {
    fill: var(--quiet);
  }
  .result text {
    fill: var(--sheet);
    text-anchor: middle;
    font-weight: 800;
  }
  .result.good circle {
    fill: var(--good);
  }
  .result.worry circle {
    fill: var(--warn);
  }
  .result.bad circle {
    fill: var(--bad);
  }
  .limit {
    stroke: var(--warn);
    stroke-dasharray: 6 4;
  }
  .base {
    stroke: var(--edge);
  }
  .limit-name {
    font-size: 13px;
    fill: var(--quiet);
  }
  .drop {
    stroke: var(--covered);
    stroke-width: 3;
  }
  .dot {
    fill: var(--covered);
  }
  .drop.over {
    stroke: var(--warn);
  }
  .dot.over {
    fill: var(--warn);
  }
  .drop-value {
    text-anchor: middle;
    font-size: 13px;
  }
  .empty {
    fill: var(--quiet);
  }
</style>
