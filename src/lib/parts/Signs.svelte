<script lang="ts" generics="T extends string">
  interface Props {
    label: string;
    options: readonly T[];
    chosen: readonly T[];
    set: (chosen: T[]) => unknown;
  }
  let { label, options, chosen, set }: Props = $props();
</script>

<div class="signs" role="group" aria-label={label}>
  {#each options as sign (sign)}
    <button
      type="button"
      aria-pressed={chosen.includes(sign)}
      onclick={() => set(chosen.includes(sign) ? chosen.filter((s) => s !== sign) : [...chosen, sign])}
      >{sign}</button
    >
  {/each}
</div>

<style>
  .signs {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
  }
  button {
    min-height: 44px;
    padding: 0 0.9rem;
    border: 2px solid var(--edge);
    border-radius: 22px;
    font-weight: 600;
  }
  button[aria-pressed='true'] {
    background: var(--warn);
    border-color: var(--warn);
    color: var(--sheet);
  }
</style>
