<script lang="ts">
  import { sizeCircuit } from '#core/circuits/sizing.ts';
  import { EDITIONS, type Edition } from '#core/job/schema/words.ts';
  import { sizeName } from '#core/tables/conductors.ts';
  import { BRANCH_LOADS, type BranchLoadKind } from '#core/tables/loadKinds.ts';
  import { round } from '#core/units/quantity.ts';
  import Choice from '../Choice.svelte';
  import NumberField from '../NumberField.svelte';

  let kind = $state<BranchLoadKind>('water-heater');
  let edition = $state<Edition>('2023');
  let volts = $state(240);
  let watts = $state(4500);
  let feet = $state(40);
  const sized = $derived(
    sizeCircuit({
      edition,
      load: {
        kind,
        volts,
        amps: null,
        watts,
        continuousAmps: 0,
        minimumAmpacity: null,
        maximumBreaker: null,
        horsepower: null,
        blowerAmps: null,
        severalReceptacles: false,
        parts: [],
      },
      feet,
      conductorCelsius: 75,
      breaker: null,
      gauge: null,
      material: 'copper',
      method: 'NM-B',
      insulation: null,
      terminalRating: 60,
      ambientCelsius: 30,
      currentCarrying: 2,
    }),
  );
  const KINDS = BRANCH_LOADS.filter((k) => k !== 'cooling' && k !== 'motor' && k !== 'room-cooler');
</script>

<section class="sheet pad">
  <h2>Breaker and conductor</h2>
  <div class="grid-form">
    <Choice
      label="Load"
      value={kind}
      options={KINDS.map((value) => ({ value, name: value.replaceAll('-', ' ') }))}
      set={(k) => (kind = k)}
    />
    <Choice
      label="Edition"
      value={edition}
      options={EDITIONS.map((value) => ({ value, name: `NEC ${value}` }))}
      set={(e) => (edition = e)}
    />
    <NumberField
      label="Watts"
      unit="W"
      min={1}
      max={100000}
      value={watts}
      set={(v) => {
        watts = v ?? watts;
        return null;
      }}
    />
    <Choice
      label="Volts"
      value={volts}
      options={[120, 208, 240].map((value) => ({ value, name: `${value} V` }))}
      set={(v) => (volts = v)}
    />
    <NumberField
      label="One way"
      unit="ft"
      min={1}
      max={1000}
      value={feet}
      set={(v) => {
        feet = v ?? feet;
        return null;
      }}
    />
  </div>
  {#if sized.ok}
    <p class="answer">
      {sized.value.breaker} A, {sizeName(sized.value.gauge)} copper
      <span>drop {round(sized.value.drop.percent, 1)} % at {round(sized.value.drop.amps, 1)} A</span>
    </p>
    <details>
      <summary>Worked out</summary>
      <ol>
        {#each sized.value.steps as s, i (i)}
          <li><strong>{s.what}</strong>: {s.working} <span class="section">{s.section}</span></li>
        {/each}
      </ol>
    </details>
  {:else}<p class="wrong">{sized.message}</p>{/if}
</section>

<style>
  section {
    display: grid;
    gap: 0.6rem;
  }
  .answer {
    font-size: 1.75rem;
    font-weight: 800;
    line-height: 1.15;
  }
  .answer span {
    display: block;
    font-size: 1rem;
    font-weight: 500;
    color: var(--quiet);
  }
</style>
