<script lang="ts">
  import { sizeName } from '#core/tables/conductors.ts';
  import { loadOf } from '#core/panel/jobLoad.ts';
  import type { Panel } from '#core/job/schema.ts';
  import { dwellingLoad, LOAD_SECTION, type Dwelling, type LoadMethod } from '#core/loads/dwelling.ts';
  import { itemAt, spareFor } from '#core/panel/spare.ts';
  import { round } from '#core/units/quantity.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import NameplateFields from '../NameplateFields.svelte';
  import NumberField from '../NumberField.svelte';
  import Tabs from '../Tabs.svelte';

  /** The load of the dwelling, or of what a subpanel feeds, line by line; what is left; and what if. */
  let { panel }: { panel: Panel } = $props();

  const session = useSession();
  const job = $derived(session.document.job);
  const load = $derived(loadOf(session.view, panel));
  const method = $derived<LoadMethod>(panel.feeder ? 'standard' : job.load.method);
  const METHODS = [
    { value: 'standard', name: 'Standard' },
    { value: 'optional', name: 'Optional' },
    { value: 'existing', name: 'Existing house' },
  ] as const;
  const ABOUT: Record<LoadMethod, string> = {
    standard: 'Part III of Article 220: each kind of load with its own demand factor.',
    optional: 'For a dwelling of 100 A or more at 120/240 V: one demand factor for nearly everything.',
    existing: 'For a house that is there and gets more load: 8 kVA in full, the rest at 40 %.',
  };
  const limit = $derived(panel.feeder?.rating ?? panel.mainRating);
  const worked = $derived(dwellingLoad(load.dwelling, method));
  const plain = (value: number) => Math.round(value).toLocaleString('en-US');

  /** What if: appliances by other currents, at 240 V, and a EV charger that is not there. */
  let changed = $state<Record<string, number>>({});
  const SMALLEST = 2000;
  const sliders = $derived([
    ...load.dwelling.items.flatMap((item, i) =>
      item.va >= SMALLEST
        ? [{ id: load.fixtures[i]!.id, name: item.name, amps: round(item.va / 240, 1), most: 80 }]
        : [],
    ),
    ...(load.dwelling.items.some((i) => i.kind === 'vehicle')
      ? []
      : [{ id: 'vehicle', name: 'EV charger', amps: 0, most: 80 }]),
  ]);
  const supposed = $derived<Dwelling>({
    ...load.dwelling,
    items: [
      ...load.dwelling.items.map((item, i) => {
        const amps = changed[load.fixtures[i]!.id];
        return amps === undefined ? item : { ...item, va: 240 * amps };
      }),
      ...(changed.vehicle ? [itemAt('EV charger', 'vehicle', changed.vehicle)] : []),
    ],
  });
  const whatIf = $derived(dwellingLoad(supposed, method));
  const spare = $derived({
    kiln: spareFor(supposed, method, limit, 'appliance'),
    vehicle: spareFor(supposed, method, limit, 'vehicle'),
  });
  const isChanged = $derived(sliders.some((s) => (changed[s.id] ?? s.amps) !== s.amps));
</script>

<div class="columns">
  <section class="sheet pad stack">
    {#if panel.feeder}
      <h2>Load of {panel.name}, standard method</h2>
    {:else}
      <h2>Load of the dwelling</h2>
      <Tabs
        label="Method"
        value={method}
        options={METHODS}
        set={(m) => void session.execute({ type: 'edit-job', values: { load: { ...job.load, method: m } } })}
      />
      <p class="quiet">{ABOUT[method]} <span class="section">{LOAD_SECTION[method]}</span></p>
      <div class="grid-form" style:--field="14rem">
        <NumberField
          label="Floor area, outside dimensions"
          unit="ft²"
          optional
          value={job.load.floorArea}
          min={100}
          max={20000}
          hint={load.areaFrom === 'rooms'
            ? `from the rooms on record: ${plain(load.dwelling.floorArea)} ft², half a wall around each`
            : 'as entered; empty takes it from the rooms'}
          set={(floorArea) =>
            session.attempt({ type: 'edit-job', values: { load: { ...job.load, floorArea } } })}
        />
      </div>
    {/if}
    {#if worked.ok}
      <div class="scroll">
        <table>
          <thead><tr><th scope="col">Load</th><th scope="col">Working</th><th scope="col">VA</th></tr></thead>
          <tbody>
            {#each worked.value.lines as line (line.what)}
              {#each line.parts ?? [] as part (part.what)}
                <tr class="part">
                  <th scope="row">{part.what} <span class="section">{part.section}</span></th>
                  <td>{part.working}</td>
                  <td>{plain(part.va)}</td>
                </tr>
              {/each}
              <tr>
                <th scope="row">{line.what} <span class="section">{line.section}</span></th>
                <td>{line.working}</td>
                <td>{plain(line.va)}</td>
              </tr>
            {/each}
            <tr class="total">
              <th scope="row">In all, at 240 V</th>
              <td>{plain(worked.value.va)} ÷ 240 = {round(worked.value.va / 240, 1)} A</td>
              <td>{plain(worked.value.va)}</td>
            </tr>
          </tbody>
        </table>
      </div>
      {#if worked.value.neutral}
        {@const neutral = worked.value.neutral}
        <details>
          <summary>Neutral: {round(neutral.amps, 1)} A <span class="section">220.61</span></summary>
          <ul>
            {#each neutral.lines as line (line.what)}
              <li>{line.what}: {line.working} <span class="section">{line.section}</span></li>
            {/each}
          </ul>
        </details>
      {/if}
    {:else}
      <p class="bad" role="alert">{worked.message}</p>
    {/if}
    {#if load.lacking.length > 0}
      <h3>Not counted yet: no nameplate on record</h3>
      {#each load.lacking as f (f.id)}
        <div class="lacking">
          <strong>{f.name}</strong>
          <div class="grid-form" style:--field="7rem"><NameplateFields fixture={f} /></div>
        </div>
      {/each}
    {/if}
  </section>

  <section class="side">
    {#if worked.ok}
      {@const { amps, rating, conductor } = worked.value}
      <div class="sheet pad stack answer" class:over={amps > limit}>
        <p class="big">{round(amps, 1)} <span class="unit">A</span> <span class="of">of {limit} A</span></p>
        <p>
          {amps > limit ? 'Too much for it.' : `${round(limit - amps, 1)} A to spare.`}
          {#if panel.feeder === null}
            Service of {rating} A or more: {sizeName(conductor)} copper <span class="section">310.12</span>
          {/if}
        </p>
      </div>
    {/if}
    <div class="sheet pad stack">
      <div class="head">
        <h2>What if</h2>
        {#if isChanged}<Act onclick={() => (changed = {})}>As on record</Act>{/if}
      </div>
      {#each sliders as s (s.id)}
        <label>
          <span
            >{s.name}: <b>{changed[s.id] ?? s.amps} A</b>{#if (changed[s.id] ?? s.amps) !== s.amps}
              <span class="quiet">on record {s.amps} A</span>{/if}</span
          >
          <input
            type="range"
            min="0"
            max={s.most}
            step="0.5"
            value={changed[s.id] ?? s.amps}
            oninput={(e) => (changed[s.id] = e.currentTarget.valueAsNumber)}
          />
        </label>
      {/each}
      {#if whatIf.ok}
        <p class="then" class:bad={whatIf.value.amps > limit} role="status">
          {isChanged ? 'Then' : 'As on record'}: {round(whatIf.value.amps, 1)} A of {limit} A
        </p>
      {:else}
        <p class="bad" role="status">{whatIf.message}</p>
      {/if}
      <dl>
        <div>
          <dt>Room for a further kiln</dt>
          <dd>{spare.kiln} <span class="unit">A</span></dd>
        </div>
        <div>
          <dt>Room for an EV charger</dt>
          <dd>{spare.vehicle} <span class="unit">A</span></dd>
        </div>
      </dl>
      <p class="quiet">
        At 240 V, by this method, beside what is set above. A vehicle counts 7,200 VA at least from 2023.
      </p>
    </div>
  </section>
</div>

<style>
  .columns {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(20rem, 25rem);
    gap: 0.75rem;
    align-items: start;
  }
  .side {
    display: grid;
    gap: 0.75rem;
  }
  .scroll {
    overflow-x: auto;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th,
  td {
    padding: 0.35rem 0.5rem;
    border-bottom: 1px solid var(--rule);
    text-align: left;
    vertical-align: top;
  }
  tbody th {
    font-weight: 600;
    max-width: 22rem;
  }
  th .section {
    white-space: normal;
  }
  td:last-child,
  th:last-child {
    text-align: right;
    font-weight: 700;
    white-space: nowrap;
  }
  .part th,
  .part td,
  .part td:last-child {
    font-weight: 400;
    padding-block: 0.2rem;
    color: var(--quiet);
  }
  .part th {
    padding-left: 1.4rem;
  }
  .total th,
  .total td {
    border-top: 3px solid var(--ink);
    font-weight: 750;
  }
  .big {
    font-size: 2.6rem;
    font-weight: 750;
    line-height: 1;
  }
  .of {
    font-size: 1.2rem;
    font-weight: 600;
  }
  .answer {
    border-left: 8px solid var(--good);
  }
  .answer.over {
    border-left-color: var(--bad);
  }
  .head {
    display: flex;
    justify-content: space-between;
    align-items: center;
  }
  label {
    display: grid;
    gap: 0.15rem;
  }
  input[type='range'] {
    width: 100%;
    height: 2rem;
    accent-color: var(--accent);
  }
  .then {
    font-size: 1.3rem;
    font-weight: 700;
  }
  .bad {
    color: var(--bad);
    font-weight: 700;
  }
  dl div {
    display: flex;
    justify-content: space-between;
    padding: 0.3rem 0;
    border-top: 1px solid var(--rule);
  }
  dd {
    font-weight: 750;
    font-size: 1.2rem;
  }
  .lacking {
    padding: 0.5rem 0;
    border-top: 1px solid var(--rule);
  }
  @media (max-width: 900px) {
    .columns {
      grid-template-columns: minmax(0, 1fr);
    }
    .side {
      order: -1;
    }
  }
</style>
