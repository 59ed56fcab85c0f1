<script lang="ts">
  import { light, LIGHTS } from '../light.svelte.ts';

  const NAMES = { day: 'Day', attic: 'Attic', sun: 'Sun' };
</script>

<div class="lights" role="group" aria-label="Light">
  {#each LIGHTS as choice (choice)}
    <button type="button" aria-pressed={light.current === choice} onclick={() => light.choose(choice)}>
      {NAMES[choice]}
    </button>
  {/each}
</div>

<style>
  .lights {
    display: inline-flex;
    border: 1px solid var(--cover-quiet);
    border-radius: 3px;
    overflow: hidden;
  }
  button {
    min-height: 34px;
    padding: 0 0.6rem;
    color: var(--cover-ink);
    font-size: 0.9rem;
  }
  button[aria-pressed='true'] {
    background: var(--cover-ink);
    color: var(--cover);
    font-weight: 700;
  }
  button:focus-visible {
    outline-color: var(--copper);
    outline-offset: -3px;
  }
</style>
