<script lang="ts">
  import { rows } from '../../../core/job/document.ts';
  import { DWELLINGS, type Level, type Panel } from '../../../core/job/schema.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Choice from '../Choice.svelte';
  import Field from '../Field.svelte';
  import LengthField from '../LengthField.svelte';
  import NumberField from '../NumberField.svelte';

  let { level }: { level: Level | undefined } = $props();

  const session = useSession();
  const document = $derived(session.document);
  const panel = $derived(rows(document.panels)[0]);

  const putLevel = (next: Level) => session.attempt({ type: 'put', table: 'levels', rows: [next] });
  const putPanel = (next: Panel) => session.attempt({ type: 'put', table: 'panels', rows: [next] });
</script>

<details class="sheet pad">
  <summary>House, level and panel</summary>
  <div class="grid-form" style:--field="11rem">
    <Field
      label="Job name"
      value={document.job.name}
      commit={(name) => session.attempt({ type: 'edit-job', values: { name: name.trim() } })}
    />
    <Field
      label="Address"
      value={document.job.address}
      commit={(address) => session.attempt({ type: 'edit-job', values: { address } })}
    />
    <Choice
      label="Dwelling"
      value={document.job.dwelling}
      options={DWELLINGS.map((d) => ({ value: d, name: d.replace('-', ' ') }))}
      set={(dwelling) => session.execute({ type: 'edit-job', values: { dwelling } })}
    />
    {#if level}
      <Field
        label="Level name"
        value={level.name}
        commit={(name) => putLevel({ ...level, name: name.trim() })}
      />
      <NumberField
        label="Floor height"
        unit="in, from grade"
        value={level.elevation}
        min={-600}
        max={1200}
        set={(elevation) => putLevel({ ...level, elevation: elevation! })}
      />
    {/if}
    {#if panel}
      <Field
        label="Panel name"
        value={panel.name}
        commit={(name) => putPanel({ ...panel, name: name.trim() })}
      />
      <Choice
        label="Panel on"
        value={panel.levelId}
        options={rows(document.levels).map((l) => ({ value: l.id, name: l.name }))}
        set={(id) => putPanel({ ...panel, levelId: id })}
      />
      <LengthField
        label="Panel, east"
        inches={panel.x}
        options={{ max: 24000 }}
        set={(x) => putPanel({ ...panel, x: x! })}
      />
      <LengthField
        label="Panel, south"
        inches={panel.y}
        options={{ max: 24000 }}
        set={(y) => putPanel({ ...panel, y: y! })}
      />
      <NumberField
        label="Main"
        unit="A"
        value={panel.mainRating}
        min={30}
        max={400}
        set={(mainRating) => putPanel({ ...panel, mainRating: mainRating! })}
      />
      <NumberField
        label="Spaces"
        value={panel.spaces}
        min={2}
        max={84}
        set={(spaces) => putPanel({ ...panel, spaces: spaces! })}
      />
    {/if}
  </div>
</details>
