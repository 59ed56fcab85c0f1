<script lang="ts">
  import { address } from '../address.svelte.ts';
  import { PHASES } from '../phases.ts';

  let { jobId, current }: { jobId: string; current: string } = $props();
</script>

<nav aria-label="Phases of the job" class="phases">
  <ol>
    {#each PHASES as phase, i (phase.path)}
      <li>
        <a
          href={address.phase(jobId, phase.path)}
          aria-current={current === phase.path ? 'page' : undefined}
          title="Alt {i + 1}"><span class="stop" aria-hidden="true"></span>{phase.name}</a
        >
      </li>
    {/each}
  </ol>
</nav>

<style>
  ol {
    display: flex;
    position: relative;
  }
  li {
    position: relative;
    flex: 1 0 auto;
  }
  /* The phases are stops on one run. */
  li::before {
    content: '';
    position: absolute;
    left: 0;
    right: 0;
    top: 11px;
    height: 4px;
    background: var(--copper);
  }
  li:first-child::before {
    left: 50%;
  }
  li:last-child::before {
    right: 50%;
  }
  a {
    position: relative;
    display: flex;
    flex-direction: column;
    align-items: center;
    gap: 3px;
    min-width: 3.6rem;
    min-height: 48px;
    padding: 4px 6px 0;
    color: var(--cover-quiet);
    font-size: 0.95rem;
    font-weight: 600;
    white-space: nowrap;
  }
  .stop {
    width: 18px;
    height: 18px;
    border: 4px solid var(--copper);
    border-radius: 3px;
    background: var(--cover);
  }
  a[aria-current] {
    color: var(--cover-ink);
  }
  a[aria-current] .stop {
    background: var(--cover-ink);
    border-color: var(--cover-ink);
  }
  a:focus-visible {
    outline-color: var(--copper);
    outline-offset: -2px;
  }
  @media (max-width: 520px) {
    a {
      min-width: 0;
      padding: 4px 5px 0;
      font-size: 0.9rem;
    }
  }
</style>
