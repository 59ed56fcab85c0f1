<script lang="ts">
  /** Arithmetic line by line: what, the formula with its numbers, the section. */
  let { steps }: { steps: readonly { what: string; working: string; section: string }[] } = $props();
</script>

<ol>
  {#each steps as step, i (i)}
    <li>
      <strong>{step.what}</strong>
      {step.working} <span class="section">{step.section}</span>
    </li>
  {/each}
</ol>

<style>
  li {
    padding: 0.25rem 0;
    border-top: 1px solid var(--rule);
  }
  strong {
    display: block;
  }
  .section {
    white-space: normal;
  }
</style>
