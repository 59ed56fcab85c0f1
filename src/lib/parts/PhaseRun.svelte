<script lang="ts">
  import { address } from '../address.svelte.ts';
  import { PHASES } from '../phases.ts';

  let { jobId, current }: { jobId: string; current: string } = $props();
  let nav = $state<HTMLElement>();
  /** On a phone the phases may be wider than the screen: the present one is brought into view. */
  $effect(() => {
    if (!current) return;
    const here = nav?.querySelector<HTMLElement>('[aria-current]');
    if (nav && here) nav.scrollLeft = here.offsetLeft - nav.clientWidth / 2;
  });
</script>

<nav aria-label="Phases of the job" class="phases" bind:this={nav}>
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
    .phases {
      max-width: 100%;
      overflow-x: auto;
      scrollbar-width: none;
    }
    a {
      min-width: 0;
      padding: 4px 4px 0;
      font-size: 0.82rem;
      letter-spacing: -0.01em;
    }
  }
</style>
