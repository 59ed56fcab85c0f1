<script lang="ts">
  import { sizeName } from '#core/tables/conductors.ts';
  import type { Circuit, Gauge } from '#core/job/schema.ts';
  import { rows } from '#core/job/document.ts';
  import { dropAt, fullLoad, isMultiwire, type Run } from '#core/circuits/run.ts';
  import { sizingOf } from '#core/circuits/circuitLoad.ts';
  import { equipmentGround } from '#core/circuits/sizing.ts';
  import { purposeOf } from '#core/panel/purpose.ts';
  import { round } from '#core/units/quantity.ts';
  import {
    ANSWER_OPTIONS,
    ROUTE_OPTIONS,
    SEEN_GAUGE_OPTIONS,
    CABLE_OPTIONS,
    GAUGE_OPTIONS,
    HALF_OPTIONS,
    LISTED_OPTIONS,
    MATERIAL_OPTIONS,
    STATUS_OPTIONS,
    TIE_OPTIONS,
  } from '../../names.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import BreakerFields from '../BreakerFields.svelte';
  import Choice from '../Choice.svelte';
  import ChainOrder from './ChainOrder.svelte';
  import LengthField from '../LengthField.svelte';
  import NumberField from '../NumberField.svelte';
  import Check from '../Check.svelte';
  import WayFields from '../WayFields.svelte';
  import Working from '../Working.svelte';

  let { run }: { run: Run } = $props();

  const session = useSession();
  const document = $derived(session.document);
  const settings = $derived(document.job.settings);
  const circuit = $derived(run.circuit);
  const put = (values: Partial<Circuit>) =>
    session.attempt({ type: 'put', table: 'circuits', rows: [{ ...circuit, ...values }] });
  const putBreaker = (values: Partial<Circuit['breaker']>) =>
    put({ breaker: { ...circuit.breaker, ...values } });

  const sizing = $derived(sizingOf(document, run));
  const better = $derived(!sizing.asIs.ok && sizing.free.ok ? sizing.free.value : null);
  const purpose = $derived(purposeOf(document, run.stops));
  const panels = $derived(rows(document.panels).map((p) => ({ value: p.id, name: p.name })));
  const ground = $derived.by(() => {
    if (circuit.cable === 'old two-wire') return 'none in the cable';
    const needed = sizing.asIs.ok ? sizing.asIs.value.leastGauge : circuit.gauge;
    return sizeName(equipmentGround(circuit.breaker.rating, circuit.material, circuit.gauge, needed));
  });
  const two = $derived(circuit.breaker.poles === 2);
  const loads = $derived(
    run.volts > 150 ? [sizing.asIs.ok ? sizing.asIs.value.drop.amps : fullLoad(circuit)] : [12, 16],
  );
</script>

<div class="sheet pad stack">
  <h2>{circuit.name}</h2>
  <div class="grid-form">
    <BreakerFields {circuit} hint={purpose === circuit.name ? '' : `it feeds: ${purpose}`} />
    {#if panels.length > 1}
      <Choice label="Panel" value={circuit.panelId} options={panels} set={(panelId) => put({ panelId })} />
    {/if}
    <Choice
      label="Poles"
      value={circuit.breaker.poles}
      options={[
        { value: 1, name: 'One, 120 V' },
        { value: 2, name: 'Two, 240 V' },
      ]}
      set={(poles) => putBreaker({ poles, tie: poles === 2 ? 'common-trip' : 'none' })}
    />
    <Choice label="Conductor" value={circuit.gauge} options={GAUGE_OPTIONS} set={(gauge) => put({ gauge })} />
    <Choice label="Cable" value={circuit.cable} options={CABLE_OPTIONS} set={(cable) => put({ cable })} />
    <Choice
      label="All it feeds is here"
      value={circuit.complete}
      options={ANSWER_OPTIONS}
      set={(complete) => put({ complete })}
    />
    <Choice
      label="Order of boxes seen"
      value={circuit.ordered}
      options={ANSWER_OPTIONS}
      set={(ordered) => put({ ordered })}
    />
    {#if circuit.ordered !== 'yes' && circuit.stops.length > 1}
      <ChainOrder {circuit} />
    {/if}
    <Choice
      label="Conductors seen"
      value={circuit.seen}
      options={ANSWER_OPTIONS}
      set={(seen) => put({ seen })}
    />
    {#if two}
      <Choice
        label="Poles open"
        value={circuit.breaker.tie}
        options={TIE_OPTIONS}
        set={(tie) => putBreaker({ tie })}
      />
      <Check
        label="Neutral with the hots"
        hint={circuit.neutral ? (isMultiwire(run) ? 'multiwire' : '') : 'plain 240 V'}
        checked={circuit.neutral}
        set={(neutral) => put({ neutral })}
      />
    {/if}
  </div>
  <details>
    <summary>Metal, surroundings, tandem, listing, as found</summary>
    <div class="grid-form">
      <Choice
        label="Metal"
        value={circuit.material}
        options={MATERIAL_OPTIONS}
        set={(material) => put({ material })}
      />
      <Choice
        label="Work"
        value={circuit.status}
        options={STATUS_OPTIONS}
        set={(status) => put({ status })}
      />
      <WayFields way={circuit} {put} />
      {#if !two}
        <Choice label="Takes" value={circuit.half} options={HALF_OPTIONS} set={(half) => put({ half })} />
      {:else}
        <NumberField
          label="Second pole in space"
          optional
          value={circuit.otherSpace}
          min={1}
          max={84}
          hint="empty: the one below, {circuit.space + 2}"
          set={(otherSpace) => put({ otherSpace })}
        />
      {/if}
      <Choice
        label="Listed for this panel"
        value={circuit.breaker.listed}
        options={LISTED_OPTIONS}
        set={(listed) => putBreaker({ listed })}
      />
      <NumberField
        label="Rating as found"
        unit="A"
        hint="where it is no standard one"
        value={circuit.breaker.rating}
        min={5}
        max={400}
        set={(rating) => putBreaker({ rating: rating! })}
      />
      <Choice
        label="Ground as seen"
        value={circuit.ground ?? ''}
        options={SEEN_GAUGE_OPTIONS}
        set={(g) => put({ ground: g === '' ? null : (g as Gauge) })}
      />
      <Choice
        label="Its cable passes"
        value={circuit.route}
        options={ROUTE_OPTIONS}
        set={(route) => put({ route })}
      />
      {#if circuit.route === 'buried'}
        <LengthField
          label="Least cover, measured"
          optional
          inches={circuit.cover}
          options={{ bare: 'inches', max: 120 }}
          set={(cover) => put({ cover })}
        />
      {/if}
    </div>
  </details>
  <dl class="facts">
    <div>
      <dt>Sized for</dt>
      <dd>{sizing.about}</dd>
    </div>
    <div>
      <dt>Equipment ground</dt>
      <dd>{ground} <span class="section">250.122</span></dd>
    </div>
    {#if run.end}
      {#each loads as amps (amps)}
        <div>
          <dt>Drop at {run.end.box.name}, {round(amps, 1)} A there</dt>
          <dd>
            {dropAt(run.end, amps).toFixed(1)} V · {((dropAt(run.end, amps) / run.volts) * 100).toFixed(1)} %
            <span class="quiet"
              >2 × {run.end.pathOhms.toFixed(3)} Ω × {round(amps, 1)} A ÷ {run.volts} V{isMultiwire(run)
                ? '; one side alone, the worst case'
                : ''}</span
            >
          </dd>
        </div>
      {/each}
      <div>
        <dt>Drop, planning load</dt>
        <dd>
          {round((run.end.plannedDrop / run.volts) * 100, 1)} %
          <span class="quiet">{settings.vaPerReceptacle} VA at each outlet, appliances by nameplate</span>
        </dd>
      </div>
    {/if}
  </dl>
  {#if sizing.asIs.ok}
    <details>
      <summary>Show the working: conductor and breaker</summary>
      <Working steps={sizing.asIs.value.steps} />
    </details>
  {:else}
    <p class="bad">{sizing.asIs.message}</p>
    {#if better}
      <details>
        <summary>What would do: {better.breaker} A on {sizeName(better.gauge)}</summary>
        <Working steps={better.steps} />
      </details>
    {/if}
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
  .bad {
    color: var(--bad);
    font-weight: 600;
  }
</style>
