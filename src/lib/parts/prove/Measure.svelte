<script lang="ts">
  import type { Run } from '#core/circuits/run.ts';
  import { MEASURING } from '#core/job/schema.ts';
  import { measurementsOf } from '#core/records/measuring.ts';
  import { INSTRUMENT_FACTS } from '#core/records/instruments.ts';
  import { Measuring } from '../../measuring.svelte.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import MeasureForm from './MeasureForm.svelte';
  import MeasureLog from './MeasureLog.svelte';
  import Temporaries from './Temporaries.svelte';

  /** Any instrument at one box: chosen, held, read, logged. */
  interface Props {
    run: Run;
    stop: number;
    by: string;
  }
  let { run, stop, by }: Props = $props();

  const session = useSession();
  const measure = new Measuring(
    () => session,
    () => ({ run, stop, by }),
  );
  const log = $derived(measurementsOf(session.document, run.stops[stop]!.box.id));
</script>

{#if measure.instrument === null}
  <p class="quiet">What is in your hand?</p>
  <div class="instruments">
    {#each MEASURING as instrument (instrument)}
      <Act big onclick={() => measure.choose(instrument)}>{INSTRUMENT_FACTS[instrument].name}</Act>
    {/each}
  </div>
{:else}
  <div class="head">
    <h2>{INSTRUMENT_FACTS[measure.instrument].name}</h2>
    <Act big onclick={() => measure.choose(null)}>Another instrument</Act>
  </div>
  <MeasureForm {measure} {run} />
{/if}
<Temporaries {measure} {run} {stop} />
<MeasureLog {log} />

<style>
  .instruments {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(10rem, 1fr));
    gap: 0.4rem;
  }
  .head {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    align-items: center;
    justify-content: space-between;
  }
</style>
