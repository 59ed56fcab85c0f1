<script lang="ts">
  import type { Answer, StepOf } from '#core/procedures/step.ts';
  import Act from '../Act.svelte';
  import NumberField from '../NumberField.svelte';
  import Pictures from '../Pictures.svelte';
  import Exits from './Exits.svelte';
  import Note from './Note.svelte';

  interface Props {
    step: StepOf<'measure'>;
    callId: string;
    earlier: Answer | null;
    answer: (values: Partial<Answer>) => unknown;
  }
  let { step, callId, earlier, answer }: Props = $props();
  // One step on screen at a time: the form is made anew for each.
  // svelte-ignore state_referenced_locally
  const values = $state<Record<string, number | null>>(
    Object.fromEntries((earlier?.figures ?? []).map((f) => [f.name, f.value])),
  );
  // svelte-ignore state_referenced_locally
  let note = $state(earlier?.note ?? '');
  const about = $derived(
    step.pictures && step.pictures !== true
      ? { table: 'boxes' as const, id: step.pictures.id }
      : { table: 'calls' as const, id: callId },
  );
  const figures = $derived(
    step.figures.flatMap(({ name }) => {
      const value = values[name];
      return value === null || value === undefined ? [] : [{ name, value }];
    }),
  );
</script>

<div class="figures">
  {#each step.figures as f (f.name)}
    <NumberField
      big
      optional
      label={f.label}
      unit={f.unit}
      min={f.min}
      max={f.max}
      hint={f.expects ? `expect ${f.expects}` : f.optional ? 'if you have it' : undefined}
      value={values[f.name] ?? null}
      set={(v) => {
        values[f.name] = v;
        return null;
      }}
    />
  {/each}
</div>
{#if step.noteLabel}
  <Note label={step.noteLabel} bind:note />
{/if}
{#if step.pictures}<Pictures {about} name={step.title} />{/if}
{#if step.cannot}<Act onclick={() => answer({ picks: ['cannot'] })}>{step.cannot}</Act>{/if}
<Exits exits={[{ value: '', name: 'Go on' }]} take={() => answer({ figures, note })} />

<style>
  .figures {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(9rem, 1fr));
    gap: 0.75rem;
  }
</style>
