<script lang="ts">
  import { runOf } from '#core/circuits/run.ts';
  import type { Circuit } from '#core/job/schema.ts';
  import { currentsOf, tripTime } from '#core/circuits/tripCurve.ts';
  import { round } from '#core/units/quantity.ts';
  import { HALF_OPTIONS, LISTED_OPTIONS, TIE_OPTIONS } from '../../names.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import BreakerFields from '../BreakerFields.svelte';
  import Choice from '../Choice.svelte';

  let { circuit }: { circuit: Circuit } = $props();

  const session = useSession();
  const run = $derived(runOf(session.view, circuit));
  const put = (values: Partial<Circuit>) =>
    session.attempt({ type: 'put', table: 'circuits', rows: [{ ...circuit, ...values }] });
  const putBreaker = (values: Partial<Circuit['breaker']>) =>
    put({ breaker: { ...circuit.breaker, ...values } });
  /** A short that the magnet does not catch takes long enough to do harm. */
  const slowest = $derived(
    currentsOf(run, session.document.job.settings.conductorTemperature)
      .filter((c) => c.name.startsWith('short'))
      .map((c) => ({ ...c, seconds: tripTime(circuit.breaker.rating, c.amps).most }))
      .sort((a, b) => b.seconds - a.seconds)[0],
  );
</script>

<section class="sheet pad stack">
  <h2>{circuit.name}</h2>
  <div class="grid-form">
    <BreakerFields {circuit} />
    {#if circuit.breaker.poles === 2}
      <Choice
        label="Poles open"
        value={circuit.breaker.tie}
        options={TIE_OPTIONS}
        set={(tie) => putBreaker({ tie })}
      />
    {:else}
      <Choice label="Takes" value={circuit.half} options={HALF_OPTIONS} set={(half) => put({ half })} />
    {/if}
    <Choice
      label="Listed for this panel"
      value={circuit.breaker.listed}
      options={LISTED_OPTIONS}
      set={(listed) => putBreaker({ listed })}
    />
  </div>
  {#if slowest}
    <p class="quiet">
      {slowest.name}: {round(slowest.amps, 0)} A opens it in {slowest.seconds < 1
        ? 'a blink'
        : `${round(slowest.seconds, 0)} s at the slowest`}.
    </p>
  {/if}
  <Act href="/job/{session.jobId}/runs?circuit={circuit.id}">Its run, {circuit.stops.length} boxes</Act>
</section>
