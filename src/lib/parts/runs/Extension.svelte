<script lang="ts">
  import type { Finding } from '#core/code/rule.ts';
  import type { Run } from '#core/circuits/run.ts';

  /** What new outlets on an old circuit drag in. */
  let { run, findings }: { run: Run; findings: readonly Finding[] | null } = $props();

  const added = $derived(run.stops.filter((s) => s.box.status === 'new'));
  const isExtension = $derived(run.circuit.status === 'existing' && added.length > 0);
  /** Rules that an extension brings to an old circuit or to what is added to it. */
  const RULES = [
    'afci',
    'extension-ground',
    'gfci',
    'no-equipment-ground',
    'small-conductor',
    'designated-circuits',
    'receptacle-rating',
    'voltage-drop',
  ];
  const dragged = $derived(
    (findings ?? []).filter(
      (f) =>
        RULES.includes(f.rule) &&
        f.level !== 'satisfied' &&
        (f.about.id === run.circuit.id || added.some((s) => s.box.id === f.about.id)),
    ),
  );
</script>

{#if isExtension}
  <section class="sheet pad stack">
    <h2>What this extension drags in</h2>
    <p class="quiet">
      {added.map((s) => s.box.name).join(', ')}
      {added.length === 1 ? 'is' : 'are'} new on a circuit that exists.
    </p>
    {#if dragged.length === 0}
      <p>Nothing: what is there serves as it is.</p>
    {:else}
      <ul>
        {#each dragged as f (f.key)}
          <li><strong>{f.title}</strong> {f.message} <span class="section">{f.section}</span></li>
        {/each}
      </ul>
    {/if}
  </section>
{/if}

<style>
  li {
    padding: 0.3rem 0;
    border-top: 1px solid var(--rule);
  }
  strong {
    display: block;
  }
</style>
