<script lang="ts">
  import type { Settings } from '#core/job/schema.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import LengthField from '../LengthField.svelte';
  import NumberField from '../NumberField.svelte';

  const session = useSession();
  const settings = $derived(session.document.job.settings);
  const change = (values: Partial<Settings>) =>
    session.attempt({ type: 'edit-job', values: { settings: { ...settings, ...values } } });
</script>

<details class="sheet pad">
  <summary>Shop settings</summary>
  <p class="quiet small">Habits, not code. They shape lengths, planned load and advice on every circuit.</p>
  <div class="grid-form">
    <LengthField
      label="Rise and free end, each box"
      inches={settings.boxRise}
      options={{ bare: 'inches', max: 240 }}
      set={(boxRise) => change({ boxRise: boxRise! })}
    />
    <LengthField
      label="At the panel"
      inches={settings.panelRise}
      options={{ bare: 'inches', max: 400 }}
      set={(panelRise) => change({ panelRise: panelRise! })}
    />
    <NumberField
      label="Waste"
      unit="%"
      value={settings.wastePercent}
      min={0}
      max={100}
      set={(wastePercent) => change({ wastePercent: wastePercent! })}
    />
    <NumberField
      label="Load per outlet"
      unit="VA"
      value={settings.vaPerReceptacle}
      min={0}
      max={1800}
      set={(vaPerReceptacle) => change({ vaPerReceptacle: vaPerReceptacle! })}
    />
    <NumberField
      label="Outlets per circuit"
      value={settings.maxReceptacles}
      min={1}
      max={40}
      set={(maxReceptacles) => change({ maxReceptacles: maxReceptacles! })}
    />
    <NumberField
      label="Drop advised"
      unit="%"
      value={settings.dropLimitPercent}
      min={1}
      max={10}
      set={(dropLimitPercent) => change({ dropLimitPercent: dropLimitPercent! })}
    />
    <NumberField
      label="Studs at"
      unit="in"
      value={settings.studSpacing}
      min={8}
      max={48}
      set={(studSpacing) => change({ studSpacing: studSpacing! })}
    />
    <LengthField
      label="Receptacle height"
      inches={settings.receptacleHeight}
      options={{ bare: 'inches', max: 66 }}
      set={(receptacleHeight) => change({ receptacleHeight: receptacleHeight! })}
    />
  </div>
</details>
