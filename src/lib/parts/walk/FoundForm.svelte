<script lang="ts">
  import { NOTHING_FOUND } from '#core/job/document.ts';
  import { stopOf } from '#core/circuits/run.ts';
  import { SIGNS, type Area, type Box, type Found, type Reading } from '#core/job/schema.ts';
  import { lastPerson, rememberPerson } from '../../readings.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Choice from '../Choice.svelte';
  import Field from '../Field.svelte';
  import NumberField from '../NumberField.svelte';
  import OutletFields from '../OutletFields.svelte';
  import Signs from '../Signs.svelte';
  import Pictures from '../Pictures.svelte';
  import ReadingForm from '../prove/ReadingForm.svelte';
  import FoundCables from '../boxes/FoundCables.svelte';

  let { box, area }: { box: Box; area: Area } = $props();

  const session = useSession();
  const found = $derived(box.found ?? NOTHING_FOUND);
  const put = (values: Partial<Box>) =>
    session.attempt({ type: 'put', table: 'boxes', rows: [{ ...box, ...values }] });
  const record = (values: Partial<Found>) => put({ found: { ...found, ...values } });

  const on = $derived(stopOf(session.view, box));
  let stage = $state<Reading['stage']>('as-found');
  let by = $state(lastPerson());

  const MATERIALS = [
    { value: 'unknown', name: 'Not looked at' },
    { value: 'metal', name: 'Metal' },
    { value: 'plastic', name: 'Plastic' },
  ] as const;
</script>

<div class="stack found">
  <OutletFields {box} {area} />

  <p class="caution">
    Behind the face only with the circuit proved dead at this box. A box may hold a second circuit.
  </p>
  <FoundCables {box} />

  <fieldset>
    <legend>Signs</legend>
    <Signs label="Signs" options={SIGNS} chosen={found.signs} set={(signs) => record({ signs })} />
  </fieldset>
  <div class="grid-form" style:--field="8.5rem">
    <Choice
      label="Box"
      value={found.boxMaterial}
      options={MATERIALS}
      set={(boxMaterial) => record({ boxMaterial })}
    />
    <NumberField
      label="Box size"
      unit="in³"
      optional
      value={found.boxVolume}
      min={1}
      max={400}
      set={(boxVolume) => record({ boxVolume })}
    />
    <NumberField
      label="Device age"
      unit="years"
      optional
      value={found.deviceAge}
      min={0}
      max={150}
      set={(deviceAge) => record({ deviceAge })}
    />
  </div>
  <Field label="Note" value={box.note} commit={(note) => put({ note })} />
  <Pictures about={{ table: 'boxes', id: box.id }} name={box.name} big />
  <details>
    <summary>First readings at {box.name}</summary>
    <div class="stack">
      <Field
        label="Done by"
        value={by}
        placeholder="Your name"
        commit={(name) => {
          by = name.trim();
          rememberPerson(by);
          return null;
        }}
      />
      <ReadingForm {box} areaName={area.name} circuit={on?.circuit ?? null} {by} bind:stage />
    </div>
  </details>
</div>

<style>
  fieldset {
    border: 1px solid var(--rule);
    padding: 0.25rem 0.75rem 0.6rem;
  }
  legend {
    font-weight: 700;
    padding: 0 0.3rem;
  }
</style>
