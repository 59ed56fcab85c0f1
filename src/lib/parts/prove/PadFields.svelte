<script lang="ts" module>
  export interface PadField {
    key: string;
    label: string;
    unit: string;
    value: number | null;
    min: number;
    max: number;
    /** What sound wiring shows. */
    expect: string;
  }
</script>

<script lang="ts">
  import type { Snippet } from 'svelte';

  /** Numbers by thumb: the field that is lit takes what the pad types. */
  interface Props {
    fields: readonly PadField[];
    set: (key: string, value: number | null) => void;
    /** What is said of the numbers, between them and the pad. */
    children: Snippet;
  }
  let { fields, set, children }: Props = $props();

  let at = $state(0);
  /** What is typed into the field that is lit; null until the first key. */
  let typed = $state<string | null>(null);
  const field = $derived(fields[Math.min(at, fields.length - 1)]!);
  const problem = $derived.by(() => {
    if (typed === null || typed === '') return '';
    const value = Number(typed);
    return value >= field.min && value <= field.max
      ? ''
      : `${typed} is out of range; expected ${field.min} to ${field.max} ${field.unit}`;
  });
  const KEYS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0', '⌫'] as const;

  function light(index: number) {
    at = index;
    typed = null;
  }
  function press(key: (typeof KEYS)[number]) {
    const now = typed ?? '';
    if (key === '⌫') typed = (typed ?? String(field.value ?? '')).slice(0, -1);
    else if (key === '.') typed = now.includes('.') ? now : `${now || '0'}.`;
    else if (now.length < 6) typed = now === '0' ? key : now + key;
    if (typed === '' || typed === null) set(field.key, null);
    else if (problem === '') set(field.key, Number(typed));
  }
</script>

<div class="fields">
  {#each fields as f, i (f.key)}
    <button type="button" class="slot" aria-pressed={i === at} onclick={() => light(i)}>
      <span class="label">{f.label}</span>
      <span class="value"
        >{(i === at ? typed : null) ?? f.value ?? '–'}<span class="unit">&nbsp;{f.unit}</span></span
      >
      <span class="expect">{f.expect}</span>
    </button>
  {/each}
</div>
{#if problem}<p class="wrong" role="alert">{problem}</p>{:else}{@render children()}{/if}
<div class="keys" role="group" aria-label="Number pad for {field.label}">
  {#each KEYS as key (key)}
    <button type="button" aria-label={key === '⌫' ? 'Delete' : key} onclick={() => press(key)}>{key}</button>
  {/each}
  <button type="button" class="wide" onclick={() => light((at + 1) % fields.length)}>
    Next: {fields[(at + 1) % fields.length]!.label}
  </button>
</div>

<style>
  .fields {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.4rem;
  }
  .slot {
    display: grid;
    text-align: left;
    padding: 0.35rem 0.6rem;
    border: 2px solid var(--edge);
    background: var(--sheet);
  }
  .slot[aria-pressed='true'] {
    border-color: var(--accent);
    outline: 3px solid var(--accent);
  }
  .label {
    font-weight: 650;
    font-size: 0.95rem;
  }
  .value {
    font-size: 1.9rem;
    font-weight: 700;
    line-height: 1.1;
    font-variant-numeric: tabular-nums;
  }
  .unit {
    font-size: 1.1rem;
    font-weight: 400;
    color: var(--quiet);
  }
  .expect {
    font-size: 0.9rem;
    color: var(--quiet);
    min-height: 1.3em;
  }
  .keys {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 0.4rem;
  }
  .keys button {
    min-height: 56px;
    border: 1px solid var(--edge);
    background: var(--panel);
    font-size: 1.6rem;
    font-weight: 650;
  }
  .keys .wide {
    grid-column: 1 / -1;
    min-height: 48px;
    font-size: 1.1rem;
  }
</style>
