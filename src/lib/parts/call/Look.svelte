<script lang="ts">
  import type { Answer, StepOf } from '#core/procedures/step.ts';
  import Pictures from '../Pictures.svelte';
  import Exits from './Exits.svelte';

  interface Props {
    step: StepOf<'look'>;
    earlier: Answer | null;
    answer: (values: Partial<Answer>) => unknown;
  }
  let { step, earlier, answer }: Props = $props();
  // One step on screen at a time: the form is made anew for each.
  // svelte-ignore state_referenced_locally
  let picks = $state.raw<string[]>(
    (earlier?.picks ?? []).filter((p) => step.options.some((o) => o.value === p)),
  );
  const toggle = (value: string) =>
    (picks = picks.includes(value) ? picks.filter((p) => p !== value) : [...picks, value]);
  /** Where something is ticked, “none” is no answer any more. */
  const exits = $derived(
    picks.length > 0
      ? step.exits.map((e) => (e.value === 'none' ? { ...e, name: `Go on with ${picks.length}` } : e))
      : step.exits,
  );
</script>

<div class="ticks">
  {#each step.options as o (o.value)}
    <button type="button" aria-pressed={picks.includes(o.value)} onclick={() => toggle(o.value)}>
      <span class="box" aria-hidden="true">{picks.includes(o.value) ? '✕' : ''}</span>{o.name}
    </button>
  {/each}
</div>
{#if step.pictures}<Pictures
    about={{ table: 'boxes', id: step.pictures.id }}
    name={step.pictures.name}
  />{/if}
<Exits {exits} take={(value) => answer({ picks: [...picks, value] })} />

<style>
  .ticks {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(15rem, 1fr));
  }
  .ticks button {
    display: grid;
    grid-template-columns: 2rem 1fr;
    align-items: center;
    gap: 0.5rem;
    min-height: 50px;
    padding: 0.2rem 0.25rem;
    text-align: left;
    font-size: 1.05rem;
    font-weight: 600;
    border-bottom: 1px solid var(--rule);
  }
  .box {
    display: grid;
    place-items: center;
    width: 1.7rem;
    height: 1.7rem;
    border: 2px solid var(--edge);
    font-weight: 800;
  }
  .ticks button[aria-pressed='true'] {
    background: var(--panel);
  }
  .ticks button[aria-pressed='true'] .box {
    background: var(--ink);
    color: var(--sheet);
    border-color: var(--ink);
  }
</style>
