<script lang="ts">
  import { lastPlace } from '$lib/lastPlace.ts';
  import type { JobRow } from '$lib/store/db.ts';
  import Act from '../Act.svelte';

  let { jobs, remove }: { jobs: JobRow[] | null; remove: (job: JobRow) => unknown } = $props();

  const saveAside = async (id: string) => (await import('$lib/files.ts')).downloadAside(id);
  const when = (at: number) =>
    new Date(at).toLocaleDateString(undefined, { day: 'numeric', month: 'short', year: 'numeric' });
</script>

<section class="sheet pad list" aria-busy={jobs === null}>
  <h2>Projects on this device</h2>
  {#if jobs === null}
    <p class="quiet">Looking…</p>
  {:else}
    <ul>
      {#each jobs as job (job.id)}
        {@const place = lastPlace(job.id)}
        <li>
          <a href={place.path}
            ><strong>{job.name}</strong><span class="quiet"
              >{[job.address, `go on in ${place.phase}`].filter(Boolean).join(' · ')}</span
            ></a
          >
          <span class="todo">
            {#if job.setAside}
              <span class="bad">Not brought up to date: kept as it was</span>
            {:else if job.todo}
              {#if job.todo.violations > 0}<span class="bad">✕ {job.todo.violations} to mend</span>{/if}
              {#if job.todo.unjudged > 0}<span class="unknown">? {job.todo.unjudged} not judged</span>{/if}
              {#if job.todo.violations + job.todo.unjudged === 0}<span class="good">✓ nothing to mend</span
                >{/if}
            {/if}
          </span>
          <span class="quiet">NEC {job.edition}, {when(job.updatedAt)}</span>
          {#if job.setAside}
            <Act label="Save {job.name} as a file" onclick={() => saveAside(job.id)}>Save as a file</Act>
          {/if}
          <Act kind="danger" label="Delete {job.name}" onclick={() => remove(job)}>Delete</Act>
        </li>
      {/each}
    </ul>
  {/if}
</section>

<style>
  li {
    display: grid;
    grid-template-columns: 1fr auto auto auto;
    gap: 1.25rem;
    align-items: center;
    padding: 0.5rem 0;
    border-bottom: 1px solid var(--rule);
  }
  a {
    display: grid;
    min-height: 44px;
    align-content: center;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  a:hover strong {
    text-decoration: underline;
  }
  .todo {
    display: grid;
    justify-items: end;
    font-weight: 650;
  }
  .bad {
    color: var(--bad);
  }
  .unknown {
    color: var(--unknown);
  }
  .good {
    color: var(--good);
  }
  @media (max-width: 600px) {
    li {
      grid-template-columns: 1fr auto;
      gap: 0.25rem 1rem;
    }
  }
</style>
