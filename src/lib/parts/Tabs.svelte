<script lang="ts" generics="T extends string">
  interface Props {
    label: string;
    value: T;
    options: readonly { value: T; name: string; count?: number }[];
    set: (value: T) => void;
  }
  let { label, value, options, set }: Props = $props();
</script>

<div class="tabs" role="group" aria-label={label}>
  {#each options as o (o.value)}
    <button type="button" aria-pressed={o.value === value} onclick={() => set(o.value)}
      >{o.name}{#if o.count}<span class="count">{o.count}</span>{/if}</button
    >
  {/each}
</div>

<style>
  .tabs {
    display: flex;
    flex-wrap: wrap;
    gap: 0.15rem;
    border-bottom: 3px solid var(--ink);
  }
  button {
    min-height: 40px;
    padding: 0 0.8rem;
    font-weight: 650;
    border: 1px solid var(--edge);
    border-bottom: 0;
    background: var(--panel);
  }
  button[aria-pressed='true'] {
    background: var(--ink);
    color: var(--sheet);
    border-color: var(--ink);
  }
  .count {
    margin-left: 0.4rem;
    font-weight: 400;
  }
  @media (max-width: 760px) {
    button {
      min-height: 48px;
      flex: 1 1 auto;
    }
  }
</style>
