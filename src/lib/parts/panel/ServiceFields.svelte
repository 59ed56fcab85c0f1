<script lang="ts">
  import type { Gauge, Panel } from '#core/job/schema.ts';
  import {
    ELECTRODE_NAMES,
    MATERIAL_OPTIONS,
    OUTDOOR_DISCONNECT_OPTIONS,
    SEEN_GAUGE_OPTIONS,
    SEEN_OPTIONS,
    STATUS_OPTIONS,
  } from '../../names.ts';
  import Check from '../Check.svelte';
  import Choice from '../Choice.svelte';
  import LengthField from '../LengthField.svelte';
  import NumberField from '../NumberField.svelte';

  /** What an inspector looks at around a panel, and at the service. */
  let { panel, put }: { panel: Panel; put: (values: Partial<Panel>) => Promise<string | null> } = $props();
  const { clear, service } = $derived(panel);
  const putClear = (values: Partial<Panel['clear']>) => put({ clear: { ...clear, ...values } });
  const putService = (values: Partial<Panel['service']>) => put({ service: { ...service, ...values } });

  type Electrode = keyof typeof ELECTRODE_NAMES;
  const kinds = Object.keys(ELECTRODE_NAMES) as Electrode[];
  const toggle = (kind: Electrode, on: boolean) =>
    putService({
      electrodes: on
        ? [...(service.electrodes ?? []), kind]
        : (service.electrodes ?? []).filter((k) => k !== kind),
    });
  const CLEAR = [
    ['depth', 'Clear in front'],
    ['width', 'Clear width'],
    ['height', 'Clear height'],
    ['highestHandle', 'Highest handle'],
  ] as const;
  const BONDS = [
    ['waterBonded', 'Water pipes bonded'],
    ['gasBonded', 'Gas pipes bonded'],
    ['intersystem', 'Bar for communications'],
  ] as const;
</script>

<details>
  <summary>Place{panel.feeder ? '' : ', service, grounding'}: looked at</summary>
  <div class="grid-form" style:--field="9rem">
    <Choice
      label="Panel is"
      value={panel.status}
      options={STATUS_OPTIONS}
      set={(status) => put({ status })}
    />
    {#each CLEAR as [field, label] (field)}
      <LengthField
        {label}
        optional
        inches={clear[field]}
        options={{ bare: 'inches', max: field === 'highestHandle' ? 240 : 600 }}
        hint="empty: not measured"
        set={(value) => putClear({ [field]: value })}
      />
    {/each}
    <Choice
      label="Pipes or ducts above it"
      value={panel.foreignAbove}
      options={SEEN_OPTIONS}
      set={(foreignAbove) => put({ foreignAbove })}
    />
    <Choice
      label="Surge protection"
      value={service.surge}
      options={SEEN_OPTIONS}
      set={(surge) => putService({ surge })}
    />
    {#if !panel.feeder}
      <Choice
        label="Disconnect outdoors"
        value={service.outdoorDisconnect}
        options={OUTDOOR_DISCONNECT_OPTIONS}
        set={(outdoorDisconnect) => putService({ outdoorDisconnect })}
      />
      <Choice
        label="Service conductors"
        value={service.gauge ?? ''}
        options={SEEN_GAUGE_OPTIONS}
        set={(g) => putService({ gauge: g === '' ? null : (g as Gauge) })}
      />
      <Choice
        label="Of"
        value={service.material}
        options={MATERIAL_OPTIONS}
        set={(material) => putService({ material })}
      />
      {#each BONDS as [field, label] (field)}
        <Choice
          {label}
          value={service[field]}
          options={SEEN_OPTIONS}
          set={(value) => putService({ [field]: value })}
        />
      {/each}
    {/if}
  </div>
  {#if !panel.feeder}
    <fieldset>
      <legend>Electrodes {service.electrodes === null ? '(nobody looked)' : ''}</legend>
      {#each kinds as kind (kind)}
        <Check
          label={ELECTRODE_NAMES[kind]}
          checked={service.electrodes?.includes(kind) ?? false}
          set={(on) => toggle(kind, on)}
        />
      {/each}
      {#if service.electrodes?.includes('rod')}
        <div class="grid-form" style:--field="9rem">
          <NumberField
            label="Rods"
            value={service.rods}
            min={0}
            max={8}
            set={(rods) => putService({ rods: rods! })}
          />
          <Choice
            label="One proved 25 Ω or less"
            value={service.rodProved}
            options={SEEN_OPTIONS}
            set={(rodProved) => putService({ rodProved })}
          />
        </div>
      {/if}
    </fieldset>
  {/if}
</details>

<style>
  fieldset {
    border: 1px solid var(--rule);
    padding: 0.25rem 0.75rem 0.5rem;
    margin-top: 0.5rem;
    display: flex;
    flex-wrap: wrap;
    gap: 0 1.25rem;
  }
  legend {
    font-weight: 700;
    padding: 0 0.3rem;
  }
</style>
