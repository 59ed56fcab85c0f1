<script lang="ts">
  import { measurementsOf } from '#core/records/measuring.ts';
  import { readText } from '$lib/files.ts';
  import Act from '$lib/parts/Act.svelte';
  import Bar from '$lib/parts/Bar.svelte';
  import Empty from '$lib/parts/Empty.svelte';
  import Page from '$lib/parts/Page.svelte';
  import PickFile from '$lib/parts/PickFile.svelte';
  import Refused from '$lib/parts/Refused.svelte';
  import LoggedReadings from '$lib/parts/readings/LoggedReadings.svelte';
  import PasteReadings from '$lib/parts/readings/PasteReadings.svelte';
  import MeasurementTable from '$lib/parts/handover/MeasurementTable.svelte';
  import ReadingFilters from '$lib/parts/readings/ReadingFilters.svelte';
  import { exportMeasurements, exportReadings, ReadingImport } from '$lib/readingFiles.svelte.ts';
  import { useSession } from '$lib/store/session.svelte.ts';
  import { ReadingLog } from './judging.svelte.ts';

  const session = useSession();
  const MOST_SHOWN = 300;
  const measured = $derived(measurementsOf(session.document));
  const log = new ReadingLog(() => session);
  const brought = new ReadingImport(() => session);

  async function paste(lines: string) {
    await brought.lines(lines);
    return brought.problems.length === 0;
  }
</script>

<Page>
  <div class="sheet pad stack">
    <Bar title="All readings" beside="{log.list.length} of {log.all.length} shown">
      <Act href="/job/{session.jobId}/prove">Back to Prove</Act>
      <Act onclick={() => exportReadings(session.document)}>Export CSV</Act>
      <PickFile
        label="Readings CSV"
        accept=".csv,text/csv"
        take={(file) => brought.table(() => readText(file))}>Import CSV</PickFile
      >
    </Bar>
    <ReadingFilters filter={log.filter} circuits={log.circuits} set={(f) => (log.filter = f)} />
    <PasteReadings take={paste} />
    <Refused title="Nothing was added" problems={brought.problems} />
    {#if brought.said}<p role="status">{brought.said}</p>{/if}
    {#if log.all.length === 0}
      <Empty title="No readings yet."><p>Take them in Prove, import a CSV, or paste them here.</p></Empty>
    {:else}
      <LoggedReadings
        list={log.list}
        verdicts={log.verdicts}
        key={log.key}
        down={log.down}
        sortBy={log.sortBy}
      />
      <p class="quiet">
        Volts and amperes. Readings are never changed: a correction stands beside what it replaces.
      </p>
    {/if}
  </div>
  <div class="sheet pad stack">
    <Bar title="All measurements" beside={String(measured.length)}>
      <Act onclick={() => exportMeasurements(session.document)}>Export CSV</Act>
      <PickFile
        label="Measurements CSV"
        accept=".csv,text/csv"
        take={(file) => brought.measurements(() => readText(file))}>Import CSV</PickFile
      >
    </Bar>
    {#if measured.length === 0}
      <Empty title="No measurements yet."
        ><p>Ohms, clamp, insulation, tone and the rest: at a box in Prove, under Measure.</p></Empty
      >
    {:else}
      <MeasurementTable measurements={measured.slice(-MOST_SHOWN).reverse()} />
      {#if measured.length > MOST_SHOWN}<p class="quiet">
          The newest {MOST_SHOWN} are shown; the CSV has all.
        </p>{/if}
    {/if}
  </div>
</Page>
