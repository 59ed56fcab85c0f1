<script lang="ts">
  import { fullLoad, type Run } from '#core/circuits/run.ts';
  import { round } from '#core/units/quantity.ts';
  import { fullDrop, lanesOf } from '../run/drawing.ts';
  import Chart from './Chart.svelte';

  /** Voltage drop along a run: the full load put at each box in turn, and the planning load on all of it. */
  let { run, dropLimit }: { run: Run; dropLimit: number } = $props();

  const feet = (inches: number) => round(inches / 12, 1);
  const planned = (i: number) => (100 * run.stops[i]!.plannedDrop) / run.volts;
  /** One line for each branch, from the box that feeds it. */
  const branches = $derived.by(() => {
    const lanes = lanesOf(run);
    return [...new Set(lanes)].map((lane) => {
      const at = lanes.flatMap((l, i) => (l === lane ? [i] : []));
      const feeder = run.stops[at[0]!]!.feeder;
      return feeder < 0 ? { from: null, at } : { from: feeder, at };
    });
  });
  const lines = (of: (i: number) => number) =>
    branches.map(({ from, at }) => [
      from === null ? { value: [0, 0], name: 'breaker', label: { show: false } } : point(from, of),
      ...at.map((i) => point(i, of)),
    ]);
  const point = (i: number, of: (i: number) => number) => ({
    value: [feet(run.stops[i]!.distance), round(of(i), 2)],
    name: run.stops[i]!.box.name,
  });
  const FULL = $derived(`${fullLoad(run.circuit)} A at one box`);
  const PLANNED = 'planning load on all';
  const worst = $derived(Math.max(0, ...run.stops.map((s) => fullDrop(run, s))));
</script>

<Chart
  label="Voltage drop along {run.circuit.name}: at most {worst.toFixed(
    1,
  )} percent with the full load at one box; {dropLimit} percent is advised"
  options={(color) => {
    const line = (name: string, stroke: string, dashed: boolean, of: (i: number) => number) =>
      lines(of).map((data) => ({
        type: 'line',
        name,
        data,
        symbol: dashed ? 'rect' : 'circle',
        symbolSize: 8,
        lineStyle: { color: stroke, width: 3, type: dashed ? 'dashed' : 'solid' },
        itemStyle: { color: stroke },
        label: { show: !dashed, formatter: '{b}', position: 'top', color: color('ink'), fontSize: 14 },
      }));
    const axis = {
      axisLabel: { color: color('ink'), fontSize: 14 },
      axisLine: { lineStyle: { color: color('edge') } },
      splitLine: { lineStyle: { color: color('grid') } },
      nameTextStyle: { color: color('quiet'), fontSize: 14 },
    };
    const series = [
      ...line(FULL, color('covered'), false, (i) => fullDrop(run, run.stops[i]!)),
      ...line(PLANNED, color('gfci'), true, planned),
    ];
    return {
      grid: { left: 46, right: 22, top: 44, bottom: 46 },
      legend: { data: [FULL, PLANNED], top: 0, left: 0, textStyle: { color: color('ink'), fontSize: 14 } },
      tooltip: {
        trigger: 'item',
        formatter: (p: { name: string; value: [number, number]; seriesName: string }) =>
          `${p.name}: ${p.value[1]} % at ${p.value[0]} ft<br>${p.seriesName}`,
      },
      xAxis: { type: 'value', name: 'ft from the breaker', nameLocation: 'middle', nameGap: 28, ...axis },
      yAxis: {
        type: 'value',
        name: '% drop',
        max: Math.ceil(Math.max(worst, dropLimit) * 1.15),
        ...axis,
      },
      series: series.map((s, i) =>
        i > 0
          ? s
          : {
              ...s,
              markLine: {
                symbol: 'none',
                silent: true,
                lineStyle: { color: color('warn'), type: 'dashed', width: 2 },
                label: {
                  formatter: `${dropLimit} % advised`,
                  position: 'insideEndTop',
                  color: color('warn'),
                  fontSize: 14,
                },
                data: [{ yAxis: dropLimit }],
              },
            },
      ),
    };
  }}
/>
