<script lang="ts">
  import type { EChartsCoreOption, EChartsType } from 'echarts/core';
  import { light } from '../../light.svelte.ts';

  /** A chart that follows its options, its width and the light. The library loads when the first chart shows. */
  interface Props {
    /** Made anew with the colors of the light on screen. */
    options: (color: (name: string) => string) => EChartsCoreOption;
    height?: number;
    /** What it shows, in words. */
    label: string;
  }
  let { options, height = 240, label }: Props = $props();

  let frame = $state<HTMLDivElement | null>(null);
  let width = $state(0);
  let chart = $state.raw<EChartsType | null>(null);

  $effect(() => {
    const host = frame;
    if (!host) return;
    let gone = false;
    void import('./echarts.ts').then(({ init }) => {
      if (!gone) chart = init(host, undefined, { renderer: 'svg' });
    });
    return () => {
      gone = true;
      chart?.dispose();
      chart = null;
    };
  });
  $effect(() => {
    void light.current;
    const style = getComputedStyle(document.documentElement);
    const wanted = {
      animation: false,
      textStyle: { fontFamily: style.getPropertyValue('--font-sans'), fontSize: 14 },
      ...options((name) => style.getPropertyValue(`--${name}`).trim()),
    };
    const drawn = chart;
    // After the frame: what is moved by hand does not wait for a chart.
    const later = setTimeout(() => drawn?.setOption(wanted, true), 30);
    return () => clearTimeout(later);
  });
  $effect(() => {
    if (width > 0) chart?.resize({ width, height });
  });
</script>

<div bind:clientWidth={width}>
  <div bind:this={frame} role="img" aria-label={label} style:height="{height}px"></div>
</div>
