<script lang="ts">
  import type { Run } from '#core/circuits/run.ts';
  import { formatFeet } from '#core/units/length.ts';
  import { round } from '#core/units/quantity.ts';
  import { breakerWords } from '../../names.ts';
  import {
    fullDrop,
    jacketOf,
    lanesOf,
    markOf,
    SIGN,
    stretchesOf,
    tagsOf,
    thicknessOf,
    wordsFor,
    type StopResult,
  } from './drawing.ts';
  import StopMark from './StopMark.svelte';

  /** The run from top to bottom, a row for each box: for a screen held in one hand. */
  interface Props {
    run: Run;
    width: number;
    dropLimit: number;
    selected: string | null;
    onselect: (boxId: string) => void;
    onkey?: (event: KeyboardEvent, boxId: string) => void;
    results: Readonly<Record<string, StopResult>>;
  }
  let { run, width, dropLimit, selected, onselect, onkey, results }: Props = $props();

  const TOP = 64;
  const ROW = 74;
  const lanes = $derived(lanesOf(run));
  const count = $derived(Math.max(0, ...lanes) + 1);
  /** Lanes draw together where there are many, so that names keep their room. */
  const LANE = $derived(Math.min(40, 120 / count));
  const xOf = (i: number) => 34 + (lanes[i] ?? 0) * LANE;
  const yOf = (i: number) => TOP + 46 + i * ROW;
  const textX = $derived(34 + (count - 1) * LANE + 34);
  const height = $derived(TOP + run.stops.length * ROW + 14);
  const bands = $derived(
    (['afci', 'gfci'] as const).flatMap((kind) =>
      stretchesOf(run, lanes, kind).map(([a, b]) => {
        const half = kind === 'afci' ? 28 : 22;
        const from =
          run.stops[a]![kind]?.at === 'breaker' && run.stops[a]!.feeder === -1 ? TOP - 4 : yOf(a) - 28;
        return { kind, x: xOf(a) - half, width: 2 * half, y: from, height: yOf(b) + 28 - from };
      }),
    ),
  );
</script>

<svg
  viewBox="0 0 {width} {height}"
  {width}
  {height}
  role="group"
  aria-label="Run of {run.circuit.name}, {run.stops.length} boxes"
>
  {#each bands as b, i (i)}
    <rect class={b.kind} x={b.x} y={b.y} width={b.width} height={b.height} rx="6" />
  {/each}
  <g class="breaker">
    <rect x="8" y="8" width={width - 16} height={TOP - 12} rx="4" />
    <text class="rating" x="20" y="43">{run.circuit.breaker.rating} A</text>
    <text class="space" x={width - 20} y="41" text-anchor="end"
      >space {run.circuit.space}{breakerWords(run.circuit) ? ` · ${breakerWords(run.circuit)}` : ''}</text
    >
  </g>
  {#each run.stops as s, i (s.box.id)}
    {@const from = s.feeder < 0 ? { x: 34, y: TOP - 4 } : { x: xOf(s.feeder), y: yOf(s.feeder) }}
    <!-- A branch leaves beside its box, so that it never runs through those below. -->
    {@const path = `M${from.x} ${from.y}${s.feeder < 0 ? 'v12' : ''}H${xOf(i)}V${yOf(i)}`}
    <path class="cable-edge" d={path} stroke-width={thicknessOf(s.segment.gauge) + 3} />
    <path
      class="cable"
      d={path}
      stroke={jacketOf(s.segment.gauge)}
      stroke-width={thicknessOf(s.segment.gauge)}
    />
  {/each}
  {#each run.stops as s, i (s.box.id)}
    {@const result = results[s.box.id]}
    {@const percent = fullDrop(run, s)}
    <g
      class="stop {s.box.status}"
      class:chosen={selected === s.box.id}
      role="button"
      tabindex="0"
      aria-pressed={selected === s.box.id}
      aria-label={wordsFor(
        `${s.box.name} ${s.area.name} ${formatFeet(s.distance)} · ${round(s.amps, 1)} A · ${percent.toFixed(1)} %${tagsOf(
          run,
          s,
        )
          .map((t) => ` · ${t}`)
          .join('')}${result?.volts ? ` · ${result.volts}` : ''}`,
        s,
        result,
      )}
      data-stop={s.box.name}
      onclick={() => onselect(s.box.id)}
      onfocus={() => onselect(s.box.id)}
      onkeydown={(e) => onkey?.(e, s.box.id)}
    >
      <rect class="target" x="2" y={yOf(i) - ROW / 2 + 1} width={width - 4} height={ROW - 2} rx="4" />
      <g transform="translate({xOf(i)} {yOf(i)})"><StopMark mark={markOf(s)} /></g>
      <text class="name" x={textX} y={yOf(i) - 3}
        >{s.box.name} <tspan class="room">{s.area.name}</tspan>
        <tspan class="far" x={textX} dy="22"
          >{formatFeet(s.distance)} · {round(s.amps, 1)} A ·
          <tspan class:over={percent > dropLimit}>{percent.toFixed(1)} %</tspan
          >{#each tagsOf(run, s) as tag (tag)}<tspan>{` · ${tag}`}</tspan>{/each}{#if result?.volts}<tspan
              class="read">{` · ${result.volts}`}</tspan
            >{/if}</tspan
        ></text
      >
    </g>
    {#if result && result.grade !== 'none'}
      <g class="result {result.grade}" transform="translate({width - 26} {yOf(i)})" aria-hidden="true">
        <circle r="15" />
        <text y="6">{SIGN[result.grade]}</text>
      </g>
    {/if}
  {/each}
  {#if run.stops.length === 0}<text class="far" x="20" y={TOP + 26}>No boxes yet: put an outlet on it.</text
    >{/if}
</svg>

<style>
  .room {
    font-weight: 400;
    font-size: 16px;
  }
  .name {
    font-size: 20px;
    font-weight: 700;
  }
  .far {
    font-size: 16px;
    font-weight: 400;
    fill: var(--quiet);
  }
  .read {
    font-weight: 700;
  }
  .far .over {
    fill: var(--warn);
    font-weight: 700;
  }
  .rating {
    font-size: 28px;
    font-weight: 750;
  }
  .space {
    font-size: 17px;
  }
  .result text {
    font-size: 18px;
  }
</style>
