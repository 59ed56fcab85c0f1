<script lang="ts">
  import { byTime } from '#core/units/time.ts';
  import { onDestroy } from 'svelte';
  import { runOf } from '#core/circuits/run.ts';
  import { circuitsInOrder, rows, standingRows } from '#core/job/document.ts';
  import type { Call } from '#core/job/schema.ts';
  import { KEYS } from '#core/procedures/hunting/case.ts';
  import { strikeFault } from '#core/procedures/hunting/loop.ts';
  import { HUNTS } from '#core/procedures/hunting/prelude.ts';
  import { procedureOf } from '#core/procedures/index.ts';
  import { callOf } from '#core/procedures/tiles.ts';
  import { pastReadings } from '#core/records/proof.ts';
  import { address } from '$lib/address.svelte.ts';
  import { Calling } from '$lib/calling.svelte.ts';
  import { Hunting, provideHunting } from '$lib/hunting.svelte.ts';
  import Act from '$lib/parts/Act.svelte';
  import Check from '$lib/parts/Check.svelte';
  import Choice from '$lib/parts/Choice.svelte';
  import CallCard from '$lib/parts/call/CallCard.svelte';
  import FaultTable from '$lib/parts/hunt/FaultTable.svelte';
  import Dangers from '$lib/parts/hunt/Dangers.svelte';
  import HuntBoard from '$lib/parts/hunt/HuntBoard.svelte';
  import HuntSettings from '$lib/parts/hunt/HuntSettings.svelte';
  import DoneBy from '$lib/parts/prove/DoneBy.svelte';
  import RunDrawing from '$lib/parts/run/RunDrawing.svelte';
  import { marksOf } from '$lib/parts/hunt/marks.ts';
  import { localTime } from '$lib/readings.ts';
  import { standsAt } from '$lib/standing.ts';
  import { useSession } from '$lib/store/session.svelte.ts';

  const session = useSession();
  const document = $derived(session.document);
  const hunts = $derived(
    rows(document.calls)
      .filter((c) => HUNTS.has(c.procedure))
      .sort((a, b) => byTime(b.opened, a.opened)),
  );
  const asked = $derived(address.get('call'));
  const callId = $derived(asked && document.calls[asked] ? asked : '');
  const calling = new Calling(
    () => session,
    () => callId,
  );
  const hunting = provideHunting(
    new Hunting(
      () => session,
      () => callId,
    ),
  );
  onDestroy(hunting.stop);
  const circuit = $derived(calling.context?.circuit ?? null);
  const run = $derived(circuit && runOf(session.view, circuit));
  const faults = $derived(standingRows(document.faults));

  const circuits = $derived(circuitsInOrder(document).filter((c) => c.stops.length > 0));
  const chosen = $derived(circuits.find((c) => c.id === address.get('circuit')) ?? circuits[0] ?? null);
  const boxes = $derived(chosen?.stops.flatMap((s) => document.boxes[s.boxId] ?? []) ?? []);
  const box = $derived(boxes.find((b) => b.id === address.get('box')) ?? boxes[0] ?? null);

  /** Readings on record of the circuit that still hold: they may be what the hunt begins with. */
  const onRecord = $derived.by(() => {
    const on = new Set(chosen?.stops.map((s) => s.boxId));
    const past = pastReadings(document);
    return rows(document.readings)
      .filter((r) => on.has(r.boxId) && !past.has(r.id))
      .sort((a, b) => byTime(a.at, b.at));
  });
  let withReadings = $state(true);

  async function begin() {
    if (!chosen || !box) return;
    const call: Call = {
      ...callOf({ name: '', procedure: 'hunt' }, calling.by, new Date().toISOString()),
      boxId: box.id,
      circuitId: chosen.id,
    };
    if (!(await session.execute({ type: 'put', table: 'calls', rows: [call] }))) return;
    const [first] = onRecord;
    address.show({ call: call.id });
    if (first && withReadings)
      calling.add(KEYS.since, 'Begun with the readings on record', `${onRecord.length}`, [first.at]);
  }
</script>

<main>
  <h1 class="sr-only">Hunt</h1>
  {#if callId && calling.call}
    <div class="top">
      <Act onclick={() => address.show({ call: null })}>All hunts</Act>
      <p>
        <strong>{circuit?.name ?? 'No circuit yet'}</strong>{#if calling.context?.box}, shows at {calling
            .context.box.name}{/if}
      </p>
    </div>
    <div class="two">
      <section class="next">
        <Dangers {calling} />
        <CallCard {calling} {callId}
          ><p>It is on the sheet, on the run, and in the log of faults.</p></CallCard
        >
        <DoneBy by={calling.by} sign={calling.sign} />
      </section>
      <section class="beside">
        {#if run}
          <div class="sheet drawing">
            <RunDrawing
              {run}
              results={marksOf(run, hunting.advised, faults)}
              dropLimit={document.job.settings.dropLimitPercent}
              selected={null}
              onselect={() => {}}
            />
          </div>
        {/if}
        <HuntBoard {calling} />
      </section>
    </div>
  {:else}
    <section class="sheet pad begin">
      <h2>Find a fault</h2>
      {#if chosen && box}
        <div class="row">
          <Choice
            label="On circuit"
            value={chosen.id}
            options={circuits.map((c) => ({ value: c.id, name: c.name }))}
            set={(id) => address.show({ circuit: id, box: null })}
          />
          <Choice
            label="It shows at"
            value={box.id}
            options={boxes.map((b) => ({
              value: b.id,
              name: `${b.name}, ${document.areas[b.areaId]?.name ?? ''}`,
            }))}
            set={(id) => address.show({ box: id })}
          />
        </div>
        {#if onRecord.length > 0}
          <Check
            big
            label="With the {onRecord.length} reading{onRecord.length > 1 ? 's' : ''} on record of it"
            checked={withReadings}
            set={(on) => (withReadings = on)}
          />
        {/if}
        <Act kind="main" big onclick={begin}>Start the hunt at {box.name}</Act>
        <p class="quiet">
          What was seen goes in, in any order; causes come out by box, with their danger, and the measurement
          that tells most for its minutes and risk.
        </p>
      {:else}
        <p>No circuit with an outlet yet. A hunt needs to know what hangs on the breaker.</p>
        <Act kind="main" big href="/job/{session.jobId}/runs">Add a circuit in Runs</Act>
      {/if}
    </section>
    {#if hunts.length > 0}
      <section class="sheet pad">
        <h2>Hunts of this job</h2>
        <ul class="hunts">
          {#each hunts as h (h.id)}
            <li>
              <a href="?call={h.id}"
                ><strong
                  >{procedureOf(h.procedure)?.title}{#if document.boxes[h.boxId ?? '']}, {document.boxes[
                      h.boxId!
                    ]!.name}{/if}</strong
                >
                <span class="quiet">{localTime(h.opened)} · {standsAt(session.view, h)}</span></a
              >
            </li>
          {/each}
        </ul>
      </section>
    {/if}
    <section class="sheet pad">
      <h2>Faults on record here</h2>
      <FaultTable
        faults={faults.map((fault) => ({ fault, box: document.boxes[fault.boxId ?? '']?.name ?? '' }))}
        strike={(fault) =>
          session.execute(strikeFault(fault, { by: calling.by, at: new Date().toISOString() }))}
      />
      <Act href="/faults">Log over all jobs</Act>
    </section>
    <HuntSettings />
  {/if}
</main>

<style>
  main {
    width: 100%;
    max-width: 84rem;
    margin: 0 auto;
    padding: 0.6rem 0.75rem 2rem;
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 0.6rem;
    align-content: start;
  }
  .top {
    display: flex;
    align-items: center;
    gap: 1rem;
  }
  .drawing {
    padding: 0.25rem 0.5rem;
  }
  .two,
  .two > section,
  .begin {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 0.6rem;
    align-items: start;
    min-width: 0;
  }
  .hunts a {
    display: grid;
    min-height: 60px;
    align-content: center;
    border-bottom: 1px solid var(--rule);
  }
  @media (max-width: 899px) {
    /* What a phone shows first is the next step, then what fits. */
    .drawing {
      order: 1;
    }
  }
  @media (min-width: 900px) {
    .two {
      grid-template-columns: minmax(24rem, 1fr) minmax(0, 2fr);
    }
  }
</style>
