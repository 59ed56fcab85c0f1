<script lang="ts">
  import { FIXTURES } from '#core/tables/fixtures.ts';
  import { PLAIN_NAMEPLATE } from '#core/job/document.ts';
  import type { Fixture } from '#core/job/schema.ts';
  import { useSession } from '../store/session.svelte.ts';
  import NumberField from './NumberField.svelte';
  import Check from './Check.svelte';

  /** What the nameplate of an appliance says: fields of a grid. */
  let { fixture }: { fixture: Fixture } = $props();

  type Plate = NonNullable<Fixture['nameplate']>;
  const session = useSession();
  const plate = $derived(fixture.nameplate);
  const put = (nameplate: Plate | null) =>
    session.attempt({ type: 'put', table: 'fixtures', rows: [{ ...fixture, nameplate }] });

  const FIELDS = [
    { key: 'amps', label: 'Current', unit: 'A', max: 400 },
    { key: 'watts', label: 'Power', unit: 'W', max: 100000 },
    { key: 'minimumAmpacity', label: 'Min. circuit ampacity', unit: 'A', max: 400 },
    { key: 'maximumBreaker', label: 'Max. breaker or fuse', unit: 'A', max: 400 },
    { key: 'horsepower', label: 'Motor', unit: 'hp', max: 10 },
  ] as const;
  const shown = $derived(
    FIELDS.filter(
      ({ key }) =>
        FIXTURES[fixture.kind].plate === 'cooling-or-motor' ||
        key === 'amps' ||
        key === 'watts' ||
        key === 'maximumBreaker',
    ),
  );
</script>

<NumberField
  label="Nameplate"
  unit="V"
  optional
  value={plate?.volts ?? null}
  min={1}
  max={600}
  set={(volts) => put(volts === null ? null : { ...PLAIN_NAMEPLATE, ...plate, volts })}
/>
{#if plate}
  {#each shown as { key, label, unit, max } (key)}
    <NumberField
      {label}
      {unit}
      optional
      value={plate[key]}
      min={0}
      {max}
      set={(value) => put({ ...plate, [key]: value })}
    />
  {/each}
  <Check
    label="On for 3 h or more"
    checked={plate.continuous}
    set={(continuous) => put({ ...plate, continuous })}
  />
{/if}
