<script lang="ts">
  import type { Answer, StepOf } from '#core/procedures/step.ts';

  interface Props {
    step: StepOf<'decide'>;
    earlier: Answer | null;
    answer: (values: Partial<Answer>) => unknown;
  }
  let { step, earlier, answer }: Props = $props();
  const allowed = $derived(step.options.filter((o) => o.not === undefined));
  const not = $derived(step.options.filter((o) => o.not !== undefined));
  const WALLS = { none: 'no wall opened', one: 'a wall or floor opened', several: 'walls opened' } as const;
</script>

{#if allowed.length === 0}
  <p class="wrong">Nothing fits here by what is on record: go back, or take the call on as a project.</p>
{/if}
{#each allowed as o (o.value)}
  <article class:first={o.first} class:before={earlier?.picks.includes(o.value)}>
    <button type="button" onclick={() => answer({ picks: [o.value] })}>
      {o.name}{#if o.first}<span class="tag">first choice</span>{/if}
    </button>
    <p>{o.brings}</p>
    <p class="costs">
      <span>{WALLS[o.walls]}</span> <span>{o.hours} h</span> <span>${o.price} parts</span>
      <span class="section">{o.section}</span>
    </p>
    <p class="quiet">
      {o.parts.join(', ')}{#if o.labels.length > 0}. Labels: {o.labels.map((l) => `“${l}”`).join(', ')}{/if}
    </p>
  </article>
{/each}
{#if not.length > 0}
  <details>
    <summary>Not here, and why ({not.length})</summary>
    {#each not as o (o.value)}<p><strong>{o.name}</strong>: {o.not}</p>{/each}
  </details>
{/if}

<style>
  article {
    display: grid;
    gap: 0.3rem;
    padding-bottom: 0.7rem;
    border-bottom: 1px solid var(--rule);
  }
  button {
    min-height: 56px;
    padding: 0.4rem 0.9rem;
    border: 2px solid var(--edge);
    font-size: 1.15rem;
    font-weight: 750;
    text-align: left;
  }
  .first button {
    background: var(--accent);
    border-color: var(--accent);
    color: var(--accent-ink);
  }
  .before button {
    border-left-width: 10px;
    border-color: var(--ink);
  }
  .tag {
    margin-left: 0.75rem;
    font-size: 0.9rem;
    font-weight: 500;
  }
  .costs {
    display: flex;
    flex-wrap: wrap;
    gap: 0.25rem 1rem;
    font-weight: 700;
  }
</style>
