<script lang="ts">
  import NumberField from '../NumberField.svelte';

  /** A pocket calculator: some figures in, an answer with its working out. */
  interface Props {
    title: string;
    fields: readonly { name: string; label: string; unit: string; max: number; start: number }[];
    work: (values: Readonly<Record<string, number>>) => { answer: string; working: string };
  }
  let { title, fields, work }: Props = $props();
  // Fields are given once.
  // svelte-ignore state_referenced_locally
  const values = $state<Record<string, number>>(Object.fromEntries(fields.map((f) => [f.name, f.start])));
  const worked = $derived(work(values));
</script>

<section class="sheet pad">
  <h2>{title}</h2>
  <div class="grid-form">
    {#each fields as f (f.name)}
      <NumberField
        label={f.label}
        unit={f.unit}
        min={0}
        max={f.max}
        value={values[f.name] ?? null}
        set={(v) => {
          values[f.name] = v ?? 0;
          return null;
        }}
      />
    {/each}
  </div>
  <p class="answer">{worked.answer}</p>
  <p class="quiet">{worked.working}</p>
</section>

<style>
  section {
    display: grid;
    gap: 0.6rem;
  }
  .answer {
    font-size: 1.75rem;
    font-weight: 800;
    line-height: 1.15;
  }
</style>
