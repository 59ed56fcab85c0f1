<script lang="ts">
  import { sizeName } from '#core/tables/conductors.ts';
  import type { Report } from '#core/handover/report.ts';
  import { formatFeet } from '#core/units/length.ts';
  import { round } from '#core/units/quantity.ts';
  import PaperTable from './PaperTable.svelte';

  let { circuits }: { circuits: Report['circuits'] } = $props();
  const PROTECTION = { none: 'plain', afci: 'AFCI', gfci: 'GFCI', dual: 'AFCI + GFCI' };
  const STATES = {
    unproved: 'not proved dead on record',
    dead: 'proved dead',
    energized: 'energized',
    measuring: 'live to measure',
  };
  const COLUMNS = [
    { name: 'Space' },
    { name: 'Circuit' },
    { name: 'Breaker' },
    { name: 'Cable' },
    { name: 'Boxes' },
    { name: 'Length', number: true },
    { name: 'Drop at end', number: true },
    { name: 'State' },
  ];
</script>

{#if circuits.length === 0}<p class="quiet">None planned.</p>{:else}
  <PaperTable columns={COLUMNS} rows={circuits} key={(c) => c.circuit.id}>
    {#snippet cells(c)}
      <td>{c.circuit.space}</td>
      <td>{c.circuit.name}</td>
      <td>{c.circuit.breaker.rating} A {PROTECTION[c.circuit.breaker.protection]}</td>
      <td
        >{c.circuit.seen === 'yes'
          ? `${sizeName(c.circuit.gauge)} ${c.circuit.material}, ${c.circuit.cable}`
          : 'conductors not looked at'}</td
      >
      <td
        >{c.run.stops.map((s) => s.box.name).join(c.circuit.ordered === 'yes' ? ' → ' : ', ') || 'none'}{c
          .circuit.complete === 'yes'
          ? ''
          : ', more may be'}</td
      >
      <td class="num">{c.measured ? formatFeet(c.run.installed) : 'not known'}</td>
      <td class="num"
        >{c.dropPercent === null
          ? c.measured
            ? ''
            : 'not judged'
          : `${round(c.dropPercent, 1)} % at ${round(c.circuit.breaker.rating * 0.8, 1)} A`}</td
      >
      <td>{STATES[c.state]}</td>
    {/snippet}
  </PaperTable>
{/if}
