<script lang="ts">
  import { newPanel } from '#core/panel/add.ts';
  import { rows } from '#core/job/document.ts';
  import { DWELLINGS, type Level, type Panel, type Settings } from '#core/job/schema.ts';
  import { stackLevel } from '#core/plan/arrange.ts';
  import { zoneHere } from '#core/units/time.ts';
  import { parseLength } from '#core/units/length.ts';
  import { address } from '../../address.svelte.ts';
  import { SOURCE_OPTIONS } from '../../names.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';
  import Field from '../Field.svelte';
  import LengthField from '../LengthField.svelte';
  import NumberField from '../NumberField.svelte';
  import Check from '../Check.svelte';
  import Amendments from './Amendments.svelte';
  import PanelRecord from './PanelRecord.svelte';

  let { level, choose }: { level: Level | undefined; choose: (levelId: string) => void } = $props();

  const session = useSession();
  const document = $derived(session.document);
  const { job } = $derived(document);
  const panels = $derived(rows(document.panels));
  const panel = $derived(document.panels[address.get('panel') ?? ''] ?? panels[0]);
  const choosePanel = (id: string) => address.choose({ panel: id, ...(level && { level: level.id }) });

  const putLevel = (next: Level) => session.attempt({ type: 'put', table: 'levels', rows: [next] });
  const putPanel = (next: Panel) => session.attempt({ type: 'put', table: 'panels', rows: [next] });
  const setting = (values: Partial<Settings>) =>
    session.attempt({ type: 'edit-job', values: { settings: { ...job.settings, ...values } } });

  /** `Attic, 8' 6"`: its name and how far its floor is above this one's. */
  async function stack(text: string): Promise<string | null> {
    if (!level) return 'expected a level to stack on';
    const [name = '', riseText = '8.5'] = text.split(',').map((t) => t.trim());
    const rise = parseLength(riseText, { min: 12, max: 480 });
    if (!rise.ok) return `height: ${rise.message}`;
    if (name === '') return 'expected a name for the level';
    const command = stackLevel(document, level.id, name, rise.value);
    const problem = await session.attempt(command);
    if (problem === null) {
      const made = rows(session.document.levels).find((l) => l.name === name);
      if (made) choose(made.id);
    }
    return problem;
  }

  async function addPanel() {
    if (!level) return;
    const added = newPanel(document, level.id);
    if (await session.execute({ type: 'put', table: 'panels', rows: [added] })) choosePanel(added.id);
  }
</script>

<div class="sheet pad stack">
  <h2>The house</h2>
  <div class="grid-form" style:--field="11rem">
    <Field
      label="Job name"
      value={job.name}
      commit={(name) => session.attempt({ type: 'edit-job', values: { name: name.trim() } })}
    />
    <Field
      label="Address"
      value={job.address}
      commit={(address) => session.attempt({ type: 'edit-job', values: { address } })}
    />
    <Choice
      label="Dwelling"
      value={job.dwelling}
      options={DWELLINGS.map((d) => ({ value: d, name: d.replace('-', ' ') }))}
      set={(dwelling) => session.execute({ type: 'edit-job', values: { dwelling } })}
    />
    <Field
      label="Day of the permit"
      value={job.permitDate ?? ''}
      placeholder="2026-05-04"
      hint="some exceptions end on a day"
      commit={(day) =>
        session.attempt({ type: 'edit-job', values: { permitDate: day.trim() === '' ? null : day.trim() } })}
    />
    <Field
      label="Time zone of the house"
      value={job.zone ?? ''}
      placeholder={zoneHere()}
      hint={job.zone === null
        ? 'not asked yet: days are told by this device'
        : 'a proof of dead ends with the day there'}
      commit={(zone) =>
        session.attempt({ type: 'edit-job', values: { zone: zone.trim() === '' ? null : zone.trim() } })}
    />
    {#if job.zone === null}
      <Act onclick={() => session.execute({ type: 'edit-job', values: { zone: zoneHere() } })}
        >As here: {zoneHere()}</Act
      >
    {/if}
  </div>
  <div class="sources">
    <p>
      <strong>What else may feed the house</strong>
      <span class="quiet">{job.otherSources.asked ? '' : 'not asked yet'}</span>
    </p>
    {#each SOURCE_OPTIONS as { value, name } (value)}
      <Check
        label={name}
        checked={job.otherSources.kinds.includes(value)}
        set={(on) =>
          session.execute({
            type: 'edit-job',
            values: {
              otherSources: {
                asked: true,
                kinds: on
                  ? [...job.otherSources.kinds, value]
                  : job.otherSources.kinds.filter((k) => k !== value),
              },
            },
          })}
      />
    {/each}
    {#if !job.otherSources.asked}
      <Act
        onclick={() =>
          session.execute({ type: 'edit-job', values: { otherSources: { asked: true, kinds: [] } } })}
        >None of these</Act
      >
    {/if}
  </div>
  {#if job.dwelling === 'multifamily'}
    <Check
      label="Laundry for all on the premises, or not permitted in the unit"
      checked={job.laundryElsewhere}
      set={(laundryElsewhere) => session.execute({ type: 'edit-job', values: { laundryElsewhere } })}
    />
  {/if}
</div>

{#if level}
  <div class="sheet pad stack">
    <h2>{level.name}</h2>
    <div class="grid-form" style:--field="11rem">
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
      <Field
        label="Stack a level on it: name, rise"
        value=""
        clears
        placeholder="Attic, 8' 6&quot;"
        hint="Same rooms, doors and fixtures, no outlets"
        commit={stack}
      />
    </div>
    {#if rows(document.levels).length > 1}
      <Act kind="danger" onclick={() => session.execute({ type: 'remove', table: 'levels', ids: [level.id] })}
        >Remove {level.name} and its rooms</Act
      >
    {/if}
  </div>
{/if}

<div class="sheet pad stack">
  <h2>Panels, as found</h2>
  <div class="row">
    {#each panels as p (p.id)}
      <Act pressed={p.id === panel?.id} onclick={() => choosePanel(p.id)}>{p.name}</Act>
    {/each}
    <Act onclick={addPanel}>Add a panel</Act>
  </div>
  {#if panel}
    <div class="grid-form" style:--field="9rem">
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
    </div>
    {#key panel.id}<PanelRecord {panel} />{/key}
  {/if}
</div>

<div class="sheet pad stack">
  <h2>Local amendments</h2>
  <Amendments />
</div>

<div class="sheet pad stack">
  <h2>How this shop places outlets</h2>
  <div class="grid-form" style:--field="10rem">
    <LengthField
      label="Receptacle height"
      inches={job.settings.receptacleHeight}
      options={{ bare: 'inches', max: 66 }}
      set={(receptacleHeight) => setting({ receptacleHeight: receptacleHeight! })}
    />
    <LengthField
      label="Above counters"
      inches={job.settings.benchHeight}
      options={{ bare: 'inches', max: 66 }}
      set={(benchHeight) => setting({ benchHeight: benchHeight! })}
    />
    <LengthField
      label="Stud centers"
      inches={job.settings.studSpacing}
      options={{ bare: 'inches', min: 8, max: 48 }}
      set={(studSpacing) => setting({ studSpacing: studSpacing! })}
    />
    <LengthField
      label="Wall between rooms"
      inches={job.settings.wallThickness}
      options={{ bare: 'inches', min: 1, max: 24 }}
      set={(wallThickness) => setting({ wallThickness: wallThickness! })}
    />
  </div>
  <div class="row">
    <Check
      label="One on every wall"
      checked={job.settings.everyWall}
      set={(everyWall) => setting({ everyWall })}
    />
    <Check
      label="One more at a television"
      checked={job.settings.extraAtTelevision}
      set={(extraAtTelevision) => setting({ extraAtTelevision })}
    />
  </div>
</div>

<style>
</style>
