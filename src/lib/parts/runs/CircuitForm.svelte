<script lang="ts">
  import type { Circuit } from '../../../core/job/schema.ts';
  import { dropAt, type Run } from '../../../core/circuits/run.ts';
  import { sizingOf } from '../../../core/circuits/circuitLoad.ts';
  import { equipmentGround } from '../../../core/circuits/sizing.ts';
  import { round } from '../../../core/units/quantity.ts';
  import {
    BREAKER_OPTIONS,
    CABLE_OPTIONS,
    GAUGE_OPTIONS,
    MATERIAL_OPTIONS,
    PROTECTION_OPTIONS,
    STATUS_OPTIONS,
  } from '../../names.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';
  import Field from '../Field.svelte';
  import NumberField from '../NumberField.svelte';

  let { run }: { run: Run } = $props();

  const session = useSession();
  const document = $derived(session.document);
  const settings = $derived(document.job.settings);
  const circuit = $derived(run.circuit);
  const put = (next: Circuit) => session.attempt({ type: 'put', table: 'circuits', rows: [next] });

  const sizing = $derived(sizingOf(document, run));
  const ground = $derived.by(() => {
    if (circuit.cable === 'old two-wire') return 'none in the cable';
    const needed = sizing.asIs.ok ? sizing.asIs.value.leastGauge : circuit.gauge;
    return `${equipmentGround(circuit.breaker.rating, circuit.material, circuit.gauge, needed)} AWG`;
  });
</script>

<div class="sheet pad stack">
  <h2>{circuit.name}</h2>
  <div class="grid-form">
    <Field label="Name" value={circuit.name} commit={(name) => put({ ...circuit, name: name.trim() })} />
    <NumberField
      label="Panel space"
      value={circuit.space}
      min={1}
      max={84}
      set={(space) => put({ ...circuit, space: space! })}
    />
    <Choice
      label="Breaker"
      value={circuit.breaker.rating}
      options={BREAKER_OPTIONS}
      set={(rating) => put({ ...circuit, breaker: { ...circuit.breaker, rating } })}
    />
    <Choice
      label="Breaker kind"
      value={circuit.breaker.protection}
      options={PROTECTION_OPTIONS}
      set={(protection) => put({ ...circuit, breaker: { ...circuit.breaker, protection } })}
    />
    <Choice
      label="Conductor"
      value={circuit.gauge}
      options={GAUGE_OPTIONS}
      set={(gauge) => put({ ...circuit, gauge })}
    />
    <Choice
      label="Metal"
      value={circuit.material}
      options={MATERIAL_OPTIONS}
      set={(material) => put({ ...circuit, material })}
    />
    <Choice
      label="Cable"
      value={circuit.cable}
      options={CABLE_OPTIONS}
      set={(cable) => put({ ...circuit, cable })}
    />
    <Choice
      label="Work"
      value={circuit.status}
      options={STATUS_OPTIONS}
      set={(status) => put({ ...circuit, status })}
    />
  </div>
  <dl class="facts">
    <div>
      <dt>Equipment ground</dt>
      <dd>{ground} <span class="section">250.122</span></dd>
    </div>
    {#if run.end}
      {#each [12, 16] as amps (amps)}
        <div>
          <dt>Drop at {run.end.box.name}, {amps} A there</dt>
          <dd>
            {dropAt(run.end, amps).toFixed(1)} V · {(
              (dropAt(run.end, amps) / run.volts) *
              100
            ).toFixed(1)} %
            <span class="quiet">2 × {run.end.pathOhms.toFixed(3)} Ω × {amps} A ÷ {run.volts} V</span>
          </dd>
        </div>
      {/each}
      <div>
        <dt>Drop, planning load</dt>
        <dd>
          {round((run.end.plannedDrop / run.volts) * 100, 1)} %
          <span class="quiet">{settings.vaPerReceptacle} VA at each outlet</span>
        </dd>
      </div>
    {/if}
  </dl>
  {#if sizing}
    <details>
      <summary>Show the working: conductor and breaker</summary>
      {#if sizing.asIs.ok}
        <ol class="working">
          {#each sizing.asIs.value.steps as step (step.what)}
            <li>
              <strong>{step.what}</strong>
              {step.working} <span class="section">{step.section}</span>
            </li>
          {/each}
        </ol>
        <p class="quiet small">
          For {round(circuit.breaker.rating * 0.8, 1)} A at 30 °C, two current-carrying conductors. At {settings.terminalRating}
          °C terminals.
        </p>
      {:else}
        <p class="bad">{sizing.asIs.message}</p>
      {/if}
    </details>
  {/if}
  <Act kind="danger" onclick={() => session.execute({ type: 'remove', table: 'circuits', ids: [circuit.id] })}
    >Remove {circuit.name}</Act
  >
</div>

<style>
  .facts > div {
    display: grid;
    grid-template-columns: 10rem 1fr;
    gap: 0.5rem;
    padding: 0.3rem 0;
    border-top: 1px solid var(--rule);
  }
  .facts dt {
    font-weight: 600;
  }
  .facts .quiet {
    display: block;
    font-size: 0.9rem;
  }
  .working li {
    padding: 0.25rem 0;
    border-top: 1px solid var(--rule);
  }
  .working strong {
    display: block;
  }
  .working .section {
    white-space: normal;
  }
  .small {
    font-size: 0.92rem;
  }
  .bad {
    color: var(--bad);
    font-weight: 600;
  }
</style>
