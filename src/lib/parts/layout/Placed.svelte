<script lang="ts">
  import type { HousePlan } from '#core/layout/placeMissing.ts';
  import type { Selection } from '$lib/selection.ts';
  import Act from '../Act.svelte';

  /** What was placed last, each with its reason, and what could not be. */
  let { plan, select, close }: { plan: HousePlan; select: (next: Selection) => void; close: () => void } =
    $props();
</script>

<div class="sheet pad" role="status">
  <h2>Placed {plan.placed.length}</h2>
  <ul>
    {#each plan.placed as p (p.box.id)}
      <li>
        <button type="button" onclick={() => select({ kind: 'boxes', ids: [p.box.id] })}
          ><strong>{p.box.name}</strong></button
        >
        {p.areaName}, {p.reason}{#if p.alternative}<span class="quiet">; {p.alternative}</span>{/if}
      </li>
    {/each}
  </ul>
  {#each plan.unplaced as why (why)}<p class="unplaced">? {why}</p>{/each}
  <Act onclick={close}>Close</Act>
</div>

<style>
  ul {
    max-height: 18rem;
    overflow: auto;
    margin-bottom: 0.5rem;
  }
  li {
    padding: 0.2rem 0;
  }
  button {
    text-decoration: underline;
    min-height: 24px;
  }
  .unplaced {
    color: var(--unknown);
    font-weight: 600;
    padding: 0.2rem 0;
  }
</style>
