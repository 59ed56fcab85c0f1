<script lang="ts">
  import { LAMP_COLORS, LAMP_ORDERS, type Limits } from '#core/job/schema.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Choice from '../Choice.svelte';
  import NumberField from '../NumberField.svelte';

  /** Limits that readings are judged by, and the shop’s own tester. */
  const session = useSession();
  const settings = $derived(session.document.job.settings);
  const change = (values: Partial<typeof settings>) =>
    session.attempt({ type: 'edit-job', values: { settings: { ...settings, ...values } } });
  const LIMITS: readonly [key: keyof Limits, label: string, unit: string, min: number, max: number][] = [
    ['lowVolts', 'Low voltage under', 'V', 90, 120],
    ['highVolts', 'High voltage over', 'V', 120, 140],
    ['neutralGround', 'Under load, neutral–ground over', 'V', 0.5, 20],
    ['hotGroundShortfall', 'Short of hot–neutral, hot–ground by', 'V', 0.5, 20],
    ['excessOhms', 'Resistance beyond the plan', 'Ω', 0.05, 5],
    ['groundOhms', 'Long ground path over', 'Ω', 0.1, 10],
    ['imbalancePercent', 'Hot and neutral apart', '%', 5, 100],
    ['apartPercent', 'Off the plan by', '%', 0.5, 10],
  ];
  const LAMPS = [
    ['hotNeutral', 'Lamp hot–neutral'],
    ['hotGround', 'Lamp hot–ground'],
    ['neutralGround', 'Lamp neutral–ground'],
  ] as const;
  const WORDS: Record<string, string> = { HN: 'hot–neutral', HG: 'hot–ground', NG: 'neutral–ground' };
  const colors = LAMP_COLORS.map((c) => ({ value: c, name: c }));
</script>

<details class="sheet pad">
  <summary>Limits and tester</summary>
  <p class="quiet small">
    Habits of the shop, not code: from where on a reading is worth a word. What a condition shows comes from
    the wiring itself.
  </p>
  <div class="grid-form">
    {#each LIMITS as [key, label, unit, min, max] (key)}
      <NumberField
        {label}
        {unit}
        {min}
        {max}
        value={settings.limits[key]}
        set={(v) => change({ limits: { ...settings.limits, [key]: v! } })}
      />
    {/each}
  </div>
  <h3>Plug-in tester</h3>
  <div class="grid-form">
    <Choice
      label="Lamps from left to right"
      value={settings.tester.order}
      options={LAMP_ORDERS.map((o) => ({
        value: o,
        name: o
          .split(' ')
          .map((k) => WORDS[k])
          .join(', '),
      }))}
      set={(order) => change({ tester: { ...settings.tester, order } })}
    />
    {#each LAMPS as [key, label] (key)}
      <Choice
        {label}
        value={settings.tester[key]}
        options={colors}
        set={(color) => change({ tester: { ...settings.tester, [key]: color } })}
      />
    {/each}
    <NumberField
      label="A lamp lights from"
      unit="V"
      min={30}
      max={115}
      value={settings.tester.lights}
      set={(lights) => change({ tester: { ...settings.tester, lights: lights! } })}
    />
  </div>
</details>

<style>
  summary {
    font-weight: 650;
    min-height: 2rem;
  }
  h3 {
    margin: 0.6rem 0 0.3rem;
    font-weight: 700;
  }
</style>
