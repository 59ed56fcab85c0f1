<script lang="ts">
  import { elementOhms } from '#core/procedures/list/water-heater.ts';
  import { round } from '#core/units/quantity.ts';
  import Act from '$lib/parts/Act.svelte';
  import Figures from '$lib/parts/bench/Figures.svelte';
  import SizeIt from '$lib/parts/bench/SizeIt.svelte';
  import Cover from '$lib/parts/jobs/Cover.svelte';
</script>

<svelte:head><title>Bench · Hekto</title></svelte:head>

<Cover />
<main>
  <div class="head">
    <h1>Bench</h1>
    <Act href="/">Calls and projects</Act>
  </div>
  <Figures
    title="Two readings make a resistance"
    fields={[
      { name: 'without', label: 'Without load', unit: 'V', max: 300, start: 121 },
      { name: 'with', label: 'Under load', unit: 'V', max: 300, start: 117 },
      { name: 'amps', label: 'Measured amps', unit: 'A', max: 200, start: 12 },
    ]}
    work={(v) => {
      const drop = (v.without ?? 0) - (v.with ?? 0);
      const amps = v.amps ?? 0;
      if (amps <= 0 || (v.without ?? 0) <= 0)
        return { answer: '–', working: 'Volts and measured amps are needed.' };
      const percent = (100 * drop) / v.without!;
      return {
        answer: `${round(drop / amps, 3)} Ω, ${round(percent, 1)} % at ${round(amps, 1)} A`,
        working: `(${v.without} − ${v.with}) V ÷ ${amps} A, there and back. At 16 A it would be ${round((percent * 16) / amps, 1)} %.`,
      };
    }}
  />
  <Figures
    title="Element: amps and ohms"
    fields={[
      { name: 'volts', label: 'Volts', unit: 'V', max: 600, start: 240 },
      { name: 'watts', label: 'Watts', unit: 'W', max: 50000, start: 4500 },
    ]}
    work={({ volts = 0, watts = 0 }) =>
      volts > 0 && watts > 0
        ? {
            answer: `${round(elementOhms(volts, watts), 1)} Ω, ${round(watts / volts, 1)} A`,
            working: `${volts}² ÷ ${watts}; ${watts} ÷ ${volts}. For hours, × 1.25: ${round((1.25 * watts) / volts, 1)} A.`,
          }
        : { answer: '–', working: 'Volts and watts as marked are needed.' }}
  />
  <SizeIt />
</main>

<style>
  main {
    max-width: 76rem;
    margin: 0 auto;
    padding: 1rem clamp(0.75rem, 3vw, 2rem);
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(20rem, 100%), 1fr));
    gap: 1rem;
    align-items: start;
  }
  .head {
    grid-column: 1 / -1;
    display: flex;
    justify-content: space-between;
    align-items: center;
  }
</style>
