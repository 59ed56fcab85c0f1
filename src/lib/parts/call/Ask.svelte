<script lang="ts">
  import type { Answer, StepOf } from '#core/procedures/step.ts';
  import Pictures from '../Pictures.svelte';
  import Note from './Note.svelte';
  import Paste from './Paste.svelte';

  interface Props {
    step: StepOf<'ask'>;
    callId: string;
    earlier: Answer | null;
    answer: (values: Partial<Answer>) => unknown;
  }
  let { step, callId, earlier, answer }: Props = $props();
  // One step on screen at a time: the form is made anew for each.
  // svelte-ignore state_referenced_locally
  let note = $state(earlier?.note ?? '');
</script>

{#if step.noteRows}
  <Paste label={step.noteLabel ?? 'Note'} rows={step.noteRows} {note} take={(text) => (note = text)} />
{:else if step.noteLabel}
  <Note label={step.noteLabel} bind:note />
{/if}
{#if step.pictures}<Pictures about={{ table: 'calls', id: callId }} name={step.title} />{/if}
<div class="choices">
  {#each step.options as o (o.value)}
    <button
      type="button"
      aria-pressed={earlier?.picks.includes(o.value)}
      disabled={o.not !== undefined}
      onclick={() => answer({ picks: [o.value], note })}
    >
      <strong>{o.name}</strong>
      {#if o.hint}<span>{o.hint}</span>{/if}
      {#if o.not}<span>Not here: {o.not}</span>{/if}
    </button>
  {/each}
</div>

<style>
  .choices {
    display: grid;
    gap: 0.5rem;
  }
  button {
    display: grid;
    gap: 0.15rem;
    min-height: 60px;
    align-content: center;
    padding: 0.5rem 0.9rem;
    border: 2px solid var(--edge);
    background: var(--sheet);
    text-align: left;
    font-size: 1.15rem;
    line-height: 1.2;
  }
  button[aria-pressed='true'] {
    border-color: var(--ink);
    border-left-width: 10px;
  }
  span {
    color: var(--quiet);
    font-size: 0.95rem;
  }
</style>
