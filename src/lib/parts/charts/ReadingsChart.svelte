<script lang="ts">
  import type { Run } from '#core/circuits/run.ts';
  import type { Reading } from '#core/job/schema.ts';
  import { pairOf } from '#core/diagnosis/besides.ts';
  import type { ReadPair } from '#core/diagnosis/conditions.ts';
  import { expectedAt, type Setting } from '#core/diagnosis/verdict.ts';
  import { round } from '#core/units/quantity.ts';
  import Choice from '../Choice.svelte';
  import Chart from './Chart.svelte';

  /** Readings of a circuit against what its wiring should show: along the run, or over time. */
  interface Props {
    run: Run;
    settingOf: (stop: number) => Setting;
    /** Standing readings by position of the stop. */
    readings: readonly (readonly Reading[])[];
  }
  let { run, settingOf, readings }: Props = $props();

  const SHOWN = {
    hotNeutral: { name: 'Hot–neutral along the run', unit: 'V' },
    neutralGround: { name: 'Neutral–ground along the run', unit: 'V' },
    drop: { name: 'Drop along the run', unit: '%' },
    ohms: { name: 'Resistance along the run', unit: 'Ω' },
    time: { name: 'Hot–neutral over time', unit: 'V' },
  } as const;
  type Shown = keyof typeof SHOWN;
  const LEAST_SPAN: Record<Shown, number> = { hotNeutral: 6, neutralGround: 2, drop: 2, ohms: 0.5, time: 6 };
  let shown = $state<Shown>('hotNeutral');

  const feet = (inches: number) => round(inches / 12, 1);
  const main = $derived<ReadPair>(run.volts > 150 ? 'hotHot' : 'hotNeutral');

  interface Point {
    x: number;
    measured: number;
    expected: number | null;
    name: string;
    stage: Reading['stage'];
  }
  function valueOf(of: Shown, stop: number, reading: Reading): [number, number | null] | null {
    const expected = expectedAt(settingOf(stop), reading.loadAmps);
    const pair = of === 'neutralGround' ? 'neutralGround' : main;
    const read = reading[pair];
    if (read === null) return null;
    if (of !== 'drop') return [read, expected[pair]];
    if (reading.loadAmps === 0) return null;
    const sound = expectedAt(settingOf(stop), 0)[pair]!;
    return [(100 * (sound - read)) / sound, (100 * (sound - expected[pair]!)) / sound];
  }
  const points = $derived.by<Point[]>(() =>
    run.stops.flatMap((s, stop) => {
      const x = feet(s.distance);
      const own = readings[stop] ?? [];
      if (shown === 'ohms') {
        const pair = pairOf(own, settingOf(stop));
        return pair?.loopOhms === null || pair === null
          ? []
          : [
              {
                x,
                measured: pair.loopOhms,
                expected: pair.plannedLoop,
                name: s.box.name,
                stage: pair.loaded.stage,
              },
            ];
      }
      return own.flatMap((reading) => {
        const value = valueOf(shown, stop, reading);
        return value
          ? [
              {
                x: shown === 'time' ? Date.parse(reading.at) : x,
                measured: value[0],
                expected: value[1],
                name: s.box.name,
                stage: reading.stage,
              },
            ]
          : [];
      });
    }),
  );
  const timed = $derived(shown === 'time');
</script>

<div class="head">
  <Choice
    label="Chart"
    value={shown}
    options={(Object.keys(SHOWN) as Shown[]).map((value) => ({ value, name: SHOWN[value].name }))}
    set={(s) => (shown = s)}
  />
</div>
{#if points.length === 0}
  <p class="quiet">
    {shown === 'ohms'
      ? 'Two readings of one outlet, without and with a known load, make a resistance. None are on record here.'
      : shown === 'drop'
        ? 'A drop shows once an outlet is read with a load on.'
        : 'No reading to draw yet.'}
  </p>
{:else}
  <Chart
    label="{SHOWN[shown].name}: {points
      .map(
        (p) =>
          `${p.name} ${round(p.measured, 2)} ${SHOWN[shown].unit}${p.expected === null ? '' : `, expected ${round(p.expected, 2)}`}`,
      )
      .join('; ')}"
    options={(color) => {
      const axis = {
        axisLabel: { color: color('ink'), fontSize: 14, hideOverlap: true },
        axisLine: { lineStyle: { color: color('edge') } },
        splitLine: { lineStyle: { color: color('grid') } },
        nameTextStyle: { color: color('quiet'), fontSize: 14 },
        scale: true,
      };
      const scatter = (
        name: string,
        symbol: string,
        fill: string,
        of: (p: Point) => number | null,
        on: (p: Point) => boolean,
      ) => ({
        type: 'scatter',
        name,
        symbol,
        symbolSize: 14,
        itemStyle: { color: fill, borderColor: color('ink'), borderWidth: 1 },
        label: {
          show: symbol !== 'rect',
          formatter: '{b}',
          position: 'right',
          color: color('ink'),
          fontSize: 14,
        },
        labelLayout: { hideOverlap: true },
        data: points
          .filter((p) => on(p) && of(p) !== null)
          .map((p) => ({ name: p.name, value: [p.x, round(of(p)!, 2)] })),
      });
      return {
        grid: { left: 56, right: 28, top: 44, bottom: 46 },
        legend: { top: 0, left: 0, textStyle: { color: color('ink'), fontSize: 14 } },
        tooltip: {
          trigger: 'item',
          formatter: (p: { name: string; value: [number, number]; seriesName: string }) =>
            `${p.name}, ${p.seriesName}: ${p.value[1]} ${SHOWN[shown].unit}`,
        },
        xAxis: timed
          ? { type: 'time', ...axis }
          : {
              type: 'value',
              name: 'ft from the breaker',
              nameLocation: 'middle',
              nameGap: 28,
              min: 0,
              ...axis,
            },
        yAxis: {
          type: 'value',
          name: SHOWN[shown].unit,
          ...axis,
          // A chart of tenths of a volt would make a mountain of what a meter rounds.
          min: (v: { min: number; max: number }) => Math.max(0, Math.floor(v.min - LEAST_SPAN[shown] / 2)),
          max: (v: { min: number; max: number }) => Math.ceil(v.max + LEAST_SPAN[shown] / 2),
        },
        series: [
          scatter(
            'expected',
            'rect',
            color('gfci-wash'),
            (p) => p.expected,
            () => true,
          ),
          scatter(
            'as found',
            'diamond',
            color('warn'),
            (p) => p.measured,
            (p) => p.stage === 'as-found',
          ),
          scatter(
            'as left',
            'circle',
            color('covered'),
            (p) => p.measured,
            (p) => p.stage === 'as-left',
          ),
        ],
      };
    }}
  />
{/if}

<style>
  .head {
    max-width: 20rem;
  }
</style>
