<script lang="ts">
  interface Props {
    label: string;
    value: number;
    max: number;
    set: (value: number) => unknown;
  }
  let { label, value, max, set }: Props = $props();
</script>

<div class="counter" role="group" aria-label={label}>
  <span class="label">{label}</span>
  <button type="button" aria-label="{label}: one less" disabled={value <= 0} onclick={() => set(value - 1)}
    >−</button
  >
  <output>{value}</output>
  <button type="button" aria-label="{label}: one more" disabled={value >= max} onclick={() => set(value + 1)}
    >+</button
  >
</div>

<style>
  .counter {
    display: grid;
    grid-template-columns: 52px 4rem 52px;
    align-items: center;
    text-align: center;
  }
  .label {
    grid-column: 1 / -1;
    text-align: left;
    font-weight: 600;
    font-size: 0.95rem;
  }
  output {
    font-size: 1.75rem;
    font-weight: 750;
  }
  button {
    width: 52px;
    height: 52px;
    border: 2px solid var(--edge);
    border-radius: 4px;
    font-size: 1.6rem;
    font-weight: 700;
  }
  button:disabled {
    color: var(--quiet);
    border-style: dashed;
  }
</style>
