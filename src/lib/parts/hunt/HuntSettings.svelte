<script lang="ts">
  import { FACTOR_WORDS, type Factor } from '#core/diagnosis/hunt/priors.ts';
  import type { Settings } from '#core/job/schema.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Check from '../Check.svelte';
  import NumberField from '../NumberField.svelte';

  /** How likely what is, who may do what. */
  const session = useSession();
  const hunt = $derived(session.document.job.settings.hunt);
  const change = (values: Partial<Settings['hunt']>) =>
    session.attempt({
      type: 'edit-job',
      values: { settings: { ...session.document.job.settings, hunt: { ...hunt, ...values } } },
    });
  const FACTORS = Object.keys(FACTOR_WORDS) as Factor[];
</script>

<details class="sheet pad">
  <summary>What is likely, and who may do what</summary>
  <p class="quiet">
    A joint fails so many times as often where this is on record. The figures are ours, from no count: set
    your own.
  </p>
  <div class="factors">
    {#each FACTORS as f (f)}
      <NumberField
        label={FACTOR_WORDS[f]}
        unit="times"
        value={hunt.factors[f]}
        min={0.1}
        max={50}
        set={(value) => change({ factors: { ...hunt.factors, [f]: value! } })}
      />
    {/each}
  </div>
  <Check
    label="Faults found in all jobs on this device make their kind likelier"
    checked={hunt.learn}
    set={(learn) => change({ learn })}
  />
  <Check
    label="Local law lets only licensed persons open boxes and panels"
    checked={hunt.licensedOnly}
    set={(licensedOnly) => change({ licensedOnly })}
  />
</details>

<style>
  .factors {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(12rem, 1fr));
    gap: 0.6rem;
    margin: 0.6rem 0;
  }
</style>
