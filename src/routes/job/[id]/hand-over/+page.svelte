<script lang="ts">
  import { byTime } from '#core/units/time.ts';
  import { rows } from '#core/job/document.ts';
  import { proofLine, reportOf } from '#core/handover/report.ts';
  import { downloadJob, readText } from '$lib/files.ts';
  import Act from '$lib/parts/Act.svelte';
  import Bar from '$lib/parts/Bar.svelte';
  import Page from '$lib/parts/Page.svelte';
  import PickFile from '$lib/parts/PickFile.svelte';
  import Refused from '$lib/parts/Refused.svelte';
  import CallRecords from '$lib/parts/handover/CallRecords.svelte';
  import CircuitTable from '$lib/parts/handover/CircuitTable.svelte';
  import DeviceTable from '$lib/parts/handover/DeviceTable.svelte';
  import FindingTable from '$lib/parts/handover/FindingTable.svelte';
  import JobHead from '$lib/parts/handover/JobHead.svelte';
  import LabelTable from '$lib/parts/handover/LabelTable.svelte';
  import LookTable from '$lib/parts/handover/LookTable.svelte';
  import MeasurementTable from '$lib/parts/handover/MeasurementTable.svelte';
  import ReadingTable from '$lib/parts/handover/ReadingTable.svelte';
  import WiringRecords from '$lib/parts/handover/WiringRecords.svelte';
  import FaultTable from '$lib/parts/hunt/FaultTable.svelte';
  import SheetSection from '$lib/parts/handover/SheetSection.svelte';
  import NotJudged from '$lib/parts/NotJudged.svelte';
  import { exportReadings, ReadingImport } from '$lib/readingFiles.svelte.ts';
  import { today, utc } from '$lib/readings.ts';
  import { useSession } from '$lib/store/session.svelte.ts';

  const session = useSession();
  const document = $derived(session.document);
  const report = $derived(reportOf(session.view, session.findings ?? [], today(), new Date().toISOString()));
  const countersigns = $derived(rows(document.countersigns).sort((a, b) => byTime(a.at, b.at)));
  const brought = new ReadingImport(() => session);
</script>

<Page kind="paper">
  <div class="sheet pad no-print">
    <Bar title="Hand over">
      <Act kind="main" disabled={session.findings === null} onclick={() => window.print()}
        >Print the sheet</Act
      >
      <Act onclick={() => downloadJob(document)}>Export job file</Act>
      <Act onclick={() => exportReadings(document)}>Export readings CSV</Act>
      <PickFile
        label="Readings CSV"
        accept=".csv,text/csv"
        take={(file) => brought.table(() => readText(file))}>Import readings CSV</PickFile
      >
    </Bar>
  </div>
  <Refused title="Not imported; nothing was changed" problems={brought.problems} />
  {#if brought.said}<p class="sheet pad no-print" role="status">{brought.said}</p>{/if}

  <article class="sheet">
    <JobHead {report} view={session.view} />
    {#if report.calls.length > 0}
      <SheetSection title="Calls"><CallRecords calls={report.calls} /></SheetSection>
    {/if}
    {#if report.faults.length > 0}
      <SheetSection title="Faults found"><FaultTable faults={report.faults} /></SheetSection>
    {/if}
    {#if report.people.length > 0}
      <SheetSection title="People">
        <ul>
          {#each report.people as p (p.name)}<li>{p.name}: {p.as}</li>{/each}
        </ul>
        {#each countersigns as c (c.id)}
          <p>{utc(c.at)} UTC: {c.by} countersigned what {c.of} did through {utc(c.through)}.</p>
        {/each}
      </SheetSection>
    {/if}
    <SheetSection title="Circuits"><CircuitTable circuits={report.circuits} /></SheetSection>
    <SheetSection title="Open findings">
      {#if session.findings === null}<p class="quiet">Checking…</p>{:else}
        <FindingTable findings={report.findings} />
      {/if}
    </SheetSection>
    <SheetSection title="Readings"><ReadingTable readings={report.readings} /></SheetSection>
    {#if report.measurements.length > 0}
      <SheetSection title="Measurements"><MeasurementTable measurements={report.measurements} /></SheetSection
      >
    {/if}
    <SheetSection title="Proofs of dead">
      {#if report.proofs.length === 0}<p class="quiet">None on record.</p>{:else}
        <ul>
          {#each report.proofs as p (p.id)}
            <li>{utc(p.at)} UTC, {p.place}, by {p.by}: {proofLine(document, p)}</li>
          {/each}
        </ul>
      {/if}
    </SheetSection>
    {#if report.overrides.length > 0}
      <SheetSection title="Opened by override">
        <ul>
          {#each report.overrides as o (o.id)}
            <li>{utc(o.at)} UTC, {o.place}, by {o.by}: {proofLine(document, o)}</li>
          {/each}
        </ul>
      </SheetSection>
    {/if}
    {#if report.devices.length > 0}
      <SheetSection title="Protecting devices"><DeviceTable devices={report.devices} /></SheetSection>
    {/if}
    <SheetSection title="Labels needed"><LabelTable outlets={report.outlets} /></SheetSection>
    {#if report.wirings.length > 0}
      <SheetSection title="Wiring on record, otherwise than planned"
        ><WiringRecords wirings={report.wirings} /></SheetSection
      >
    {/if}
    {#if report.looks.length > 0}
      <SheetSection title="Looked at"><LookTable looks={report.looks} /></SheetSection>
    {/if}
    <SheetSection title="Not judged here"><NotJudged /></SheetSection>
    <SheetSection title="Cautions">
      <ul class="cautions">
        {#each report.cautions as caution (caution)}<li>{caution}</li>{/each}
      </ul>
    </SheetSection>
  </article>
</Page>

<style>
  article {
    padding: clamp(1rem, 3vw, 2.5rem);
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 1.5rem;
  }
  .cautions li {
    list-style: square;
    margin-left: 1.1rem;
    padding: 0.2rem 0;
  }
  @media print {
    @page {
      margin: 14mm;
    }
    article {
      padding: 0;
    }
  }
</style>
