<script lang="ts">
  import type { Task } from '#core/records/sequence.ts';

  interface Props {
    tasks: readonly Task[];
    nameOf: (task: Task) => string;
    take: (task: Task) => void;
  }
  let { tasks, nameOf, take }: Props = $props();
  const next = $derived(tasks.find((t) => !t.done));
  const done = $derived(tasks.filter((t) => t.done).length);
</script>

<details class="sheet sequence">
  <summary>
    {#if next}
      <span class="count">{done} of {tasks.length} done</span>
      <strong>Next: {nameOf(next)}</strong>
    {:else}
      <strong class="good">✓ Proved: all {tasks.length} steps are on record</strong>
    {/if}
  </summary>
  <ol>
    {#each tasks as task, i (i)}
      <li class:done={task.done}>
        <button type="button" onclick={() => take(task)}>
          <span aria-hidden="true">{task.done ? '✓' : i + 1}</span>
          <span>
            <strong>{nameOf(task)}</strong>{task.done ? ', done' : ''}
            <span class="quiet">{task.what}</span>
          </span>
        </button>
      </li>
    {/each}
  </ol>
  <p class="quiet">
    Test one outlet beyond the end as well: that it is on another circuit proves how far this one goes.
  </p>
</details>

<style>
  .sequence {
    padding: 0.4rem 0.9rem;
  }
  summary {
    min-height: 2.6rem;
    font-size: 1.1rem;
  }
  .count {
    color: var(--quiet);
    margin-right: 0.5rem;
  }
  li button {
    display: grid;
    grid-template-columns: 2rem 1fr;
    width: 100%;
    text-align: left;
    min-height: 48px;
    padding: 0.35rem 0;
    border-top: 1px solid var(--rule);
  }
  li .quiet {
    display: block;
    font-size: 0.95rem;
  }
  .done {
    color: var(--good);
  }
  .good {
    color: var(--good);
  }
  @media (max-width: 760px) {
    .sequence {
      order: 9;
    }
  }
</style>
