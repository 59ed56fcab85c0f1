<script lang="ts">
  import { onMount } from 'svelte';
  import { KINDS, type CauseKind } from '#core/diagnosis/hunt/kinds.ts';
  import { faultsToCsv } from '#core/formats/faultsCsv.ts';
  import { download } from '$lib/files.ts';
  import Act from '$lib/parts/Act.svelte';
  import FaultTable from '$lib/parts/hunt/FaultTable.svelte';
  import Cover from '$lib/parts/jobs/Cover.svelte';
  import { allFaults, type LoggedFault } from '$lib/store/faults.ts';

  let faults = $state.raw<LoggedFault[] | null>(null);
  onMount(async () => {
    faults = await allFaults();
  });

  /** Counts by something of a fault, most first. */
  function counted(of: (f: LoggedFault) => string): [string, number][] {
    const counts = new Map<string, number>();
    for (const f of faults ?? []) counts.set(of(f), (counts.get(of(f)) ?? 0) + 1);
    return [...counts].sort((a, b) => b[1] - a[1]);
  }
  const kind = ({ fault }: LoggedFault) =>
    fault.cause in KINDS ? KINDS[fault.cause as CauseKind].name : fault.cause;
  const age = ({ fault: { age: years } }: LoggedFault) =>
    years === null
      ? 'age not known'
      : years < 15
        ? 'under 15 years'
        : years < 30
          ? '15 to 30 years'
          : '30 years and more';
  const tables = $derived([
    { title: 'What failed', rows: counted(kind) },
    { title: 'By age of the device', rows: counted(age) },
    { title: 'By make-up', rows: counted(({ fault }) => fault.makeUp || 'not known') },
  ]);
</script>

<svelte:head><title>Faults · Hekto</title></svelte:head>
<Cover />
<main>
  <div class="sheet pad">
    <h1>Faults of all jobs on this device</h1>
    {#if faults === null}
      <p role="status">Reading…</p>
    {:else if faults.length === 0}
      <p>None yet. A hunt that ends with a repair puts one here.</p>
      <Act href="/">Jobs</Act>
    {:else}
      <div class="row">
        <Act href="/">Jobs</Act>
        <Act onclick={() => download('faults.csv', 'text/csv', faultsToCsv(faults!))}>Export CSV</Act>
      </div>
      <div class="tables">
        {#each tables as t (t.title)}
          <section>
            <h2>{t.title}</h2>
            <table>
              <tbody>
                {#each t.rows as [name, count] (name)}<tr><td>{name}</td><td class="count">{count}</td></tr
                  >{/each}
              </tbody>
            </table>
          </section>
        {/each}
      </div>
      <FaultTable {faults} />
    {/if}
  </div>
</main>

<style>
  main {
    max-width: 70rem;
    margin: 0 auto;
    padding: 0.75rem;
  }
  .tables {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(16rem, 1fr));
    gap: 1rem;
    margin: 0.75rem 0;
  }
  table {
    width: 100%;
  }
  td {
    padding: 0.25rem 0;
    border-bottom: 1px solid var(--rule);
  }
  .count {
    text-align: right;
    font-weight: 700;
  }
</style>
