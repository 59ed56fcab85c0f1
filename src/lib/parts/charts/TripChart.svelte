<script lang="ts">
  import { tripTime, type TripPicture } from '#core/circuits/tripCurve.ts';
  import { round } from '#core/units/quantity.ts';
  import Chart from './Chart.svelte';

  /** The band of times in which the breaker opens, with currents on it. */
  let { rating, currents }: TripPicture = $props();

  const shorts = $derived(currents.some((c) => c.name.startsWith('short')));
  const top = $derived(Math.max(20 * rating, ...currents.map((c) => c.amps * 1.3)));
  const SLOWEST = 3600;
  /** Many, since the curves rise steeply where the breaker only just holds. */
  const POINTS = 900;
  const seconds = (t: number): string =>
    t === Infinity
      ? 'never'
      : t < 1
        ? `${round(t, 2)} s`
        : t < 90
          ? `${Math.round(t)} s`
          : `${Math.round(t / 60)} min`;
  const verdict = (amps: number): string => {
    const { least, most } = tripTime(rating, amps);
    if (least === Infinity) return 'holds';
    return most === Infinity
      ? `may trip after ${seconds(least)}`
      : `trips in ${seconds(least)} to ${seconds(most)}`;
  };
  const edge = (which: 'least' | 'most') =>
    Array.from(
      { length: POINTS + 1 },
      (_, i) => rating * 1.02 * (top / (rating * 1.02)) ** (i / POINTS),
    ).flatMap((amps): [number, number][] => {
      const t = tripTime(rating, amps)[which];
      return t > 3 * SLOWEST ? [] : [[round(amps, 2), t]];
    });
</script>

<Chart
  height={300}
  label="When the {rating} ampere breaker opens. {currents
    .map((c) => `${c.name} ${round(c.amps, 0)} amperes: ${verdict(c.amps)}`)
    .join('; ')}"
  options={(color) => {
    const axis = {
      type: 'log',
      axisLabel: { color: color('ink'), fontSize: 14 },
      axisLine: { lineStyle: { color: color('edge') } },
      splitLine: { lineStyle: { color: color('grid') } },
      nameTextStyle: { color: color('quiet'), fontSize: 14 },
      nameLocation: 'middle',
    };
    const curve = (name: string, which: 'least' | 'most', type: string) => ({
      type: 'line',
      name,
      data: edge(which),
      showSymbol: false,
      lineStyle: { color: color('ink'), width: 3, type },
      itemStyle: { color: color('ink') },
    });
    return {
      grid: { left: 62, right: 18, top: 36, bottom: 46 },
      legend: { top: 0, left: 0, textStyle: { color: color('ink'), fontSize: 14 } },
      xAxis: {
        ...axis,
        name: 'amperes',
        nameGap: 28,
        min: Math.max(1, Math.floor(rating / 4)),
        max: Math.ceil(top),
      },
      yAxis: {
        ...axis,
        name: 'seconds',
        nameGap: 46,
        min: 0.005,
        max: SLOWEST,
      },
      series: [
        {
          ...curve('quickest', 'least', 'solid'),
          markLine: {
            symbol: 'none',
            silent: true,
            data: currents.map((c, i) => ({
              xAxis: Math.max(1, c.amps),
              lineStyle: {
                color: color(c.name.startsWith('short') ? 'bad' : 'covered'),
                width: 3,
                type: 'solid',
              },
              label: {
                formatter: String.fromCharCode(65 + i),
                position: 'end',
                fontSize: 15,
                fontWeight: 700,
                color: color('ink'),
                distance: 2,
              },
            })),
          },
        },
        curve('slowest', 'most', 'dashed'),
        {
          type: 'scatter',
          data: currents.flatMap(({ amps, opened }) => (opened === undefined ? [] : [[amps, opened]])),
          symbolSize: 18,
          itemStyle: { color: color('bad'), borderColor: color('ink'), borderWidth: 2 },
        },
      ],
    };
  }}
/>
<ol>
  {#each currents as c, i (c.name)}
    <li>
      <b>{String.fromCharCode(65 + i)}</b>
      {c.name}: {round(c.amps, c.amps < 100 ? 1 : 0)} <span class="unit">A</span>, {verdict(
        c.amps,
      )}{#if c.opened !== undefined}; it went after {seconds(c.opened)}{/if}
    </li>
  {/each}
</ol>
<p class="quiet">
  A usual thermal-magnetic band: its maker’s own curve goes first.{#if shorts}
    Shorts with 0.03 Ω ahead of the panel. A breaker that trips again at once reports a short: leave it off
    and look for it.{/if}
</p>

<style>
  li {
    padding: 0.15rem 0;
  }
  b {
    display: inline-block;
    width: 1.3rem;
  }
  p {
    font-size: 0.92rem;
  }
</style>
