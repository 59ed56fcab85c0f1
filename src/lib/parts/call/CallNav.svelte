<script lang="ts">
  /** A call shows no phases: the list of calls, the job as a project, and the bench. */
  let { jobId }: { jobId: string } = $props();
  const ways = $derived([
    { href: '/', name: 'Calls' },
    { href: `/job/${jobId}/walk`, name: 'Project' },
    { href: '/bench', name: 'Bench' },
  ]);
</script>

<nav aria-label="Call">
  {#each ways as way (way.name)}<a href={way.href}>{way.name}</a>{/each}
</nav>

<style>
  nav {
    display: flex;
  }
  a {
    flex: 1 0 auto;
    display: grid;
    place-items: center;
    min-height: 46px;
    padding: 0 1.1rem;
    border-bottom: 4px solid var(--copper);
    color: var(--cover-ink);
    font-weight: 650;
  }
  a:focus-visible {
    outline-color: var(--copper);
    outline-offset: -2px;
  }
</style>
