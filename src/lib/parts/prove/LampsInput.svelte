<script lang="ts">
  import type { LampTesterSettings } from '#core/job/schema.ts';
  import { lampsOf } from '../../readings.ts';
  import Act from '../Act.svelte';

  /** The three lamps of the shop’s own tester, in its order and colors. */
  interface Props {
    tester: LampTesterSettings;
    lamps: readonly boolean[] | null;
    set: (lamps: boolean[] | null) => void;
  }
  let { tester, lamps, set }: Props = $props();
  const GLOW = { amber: '#ffb21f', red: '#e5402e', green: '#3fa34d', white: '#fffef2', blue: '#3f7fe0' };
  const toggle = (index: number) =>
    set([0, 1, 2].map((i) => (i === index ? !(lamps?.[i] ?? false) : (lamps?.[i] ?? false))));
</script>

<fieldset>
  <legend>Three lamps: tap those that light</legend>
  <div class="lamps">
    {#each lampsOf(tester) as { index, name, color } (name)}
      <button
        type="button"
        class="lamp"
        style:--glow={GLOW[color]}
        aria-pressed={lamps?.[index] ?? false}
        onclick={() => toggle(index)}
      >
        <span class="glow" aria-hidden="true"></span>{name}
        <span class="lit">{color}, {lamps ? (lamps[index] ? 'lit' : 'dark') : 'not read'}</span>
      </button>
    {/each}
  </div>
  {#if lamps}
    <Act onclick={() => set(null)}>No lamps read</Act>
  {:else}
    <Act onclick={() => set([false, false, false])}>All three dark</Act>
  {/if}
</fieldset>

<style>
  legend {
    font-weight: 600;
    font-size: 0.875rem;
  }
  .lamps {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 0.5rem;
    margin: 0.4rem 0;
  }
  .lamp {
    display: grid;
    justify-items: center;
    gap: 0.3rem;
    min-height: 96px;
    padding: 0.5rem 0.25rem;
    border: 2px solid var(--edge);
    border-radius: 4px;
    font-size: 0.95rem;
  }
  .glow {
    width: 34px;
    height: 34px;
    border-radius: 50%;
    border: 3px solid var(--ink);
    background: repeating-linear-gradient(45deg, var(--rule) 0 4px, transparent 4px 8px);
  }
  .lamp[aria-pressed='true'] .glow {
    background: var(--glow);
    box-shadow: 0 0 0 5px color-mix(in srgb, var(--glow) 45%, transparent);
  }
  .lit {
    font-weight: 700;
  }
</style>
