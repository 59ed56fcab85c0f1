<script lang="ts">
  import { AREA_FACTS } from '#core/tables/areas.ts';
  import { rows } from '#core/job/document.ts';
  import { byName } from '#core/job/names.ts';
  import type { Problem } from '#core/job/integrity.ts';
  import { InvalidError } from '#core/job/validate.ts';
  import { proofLine, reportOf } from '#core/handover/report.ts';
  import { formatFeet } from '#core/units/length.ts';
  import { round } from '#core/units/quantity.ts';
  import { downloadJob, readText } from '$lib/files.ts';
  import Act from '$lib/parts/Act.svelte';
  import PickFile from '$lib/parts/PickFile.svelte';
  import { bringReadings, exportReadings } from '$lib/readingFiles.ts';
  import { today } from '$lib/readings.ts';
  import { useSession } from '$lib/store/session.svelte.ts';

  const session = useSession();
  const document = $derived(session.document);
  const report = $derived(reportOf(session.view, session.findings ?? [], today(), new Date().toISOString()));
  const twoHots = $derived(report.readings.some((r) => r.reading.hotHot !== null));
  const labelled = $derived(report.outlets.filter((o) => o.labels.length > 0));

  /** Rooms by level, with their kind where the name does not say it. */
  const floors = $derived(
    rows(document.levels)
      .sort((a, b) => b.elevation - a.elevation)
      .map((level) => ({
        level,
        names: [...session.view.areasOn(level.id)].sort(byName).map((a) => {
          const kind = AREA_FACTS[a.kind].label.toLowerCase();
          const said = kind.split(/[ ,]+/).some((w) => w.length > 3 && a.name.toLowerCase().includes(w));
          return said ? a.name : `${a.name} (${kind})`;
        }),
      }))
      .filter((f) => f.names.length > 0),
  );

  let problems = $state.raw<Problem[]>([]);
  let said = $state('');

  async function importReadings(file: File) {
    problems = [];
    said = '';
    try {
      const { readingsFromCsv } = await import('#core/formats/readingsCsv.ts');
      const readings = readingsFromCsv(await readText(file), document);
      said = await bringReadings(session, readings);
    } catch (error) {
      problems = error instanceof InvalidError ? error.problems : [{ path: 'file', message: String(error) }];
    }
  }

  const day = (iso: string) => iso.slice(0, 16).replace('T', ' ');
  const LEVELS = {
    violation: 'Violation',
    unknown: 'Not judged',
    recommended: 'Recommended',
    note: 'Note',
    satisfied: 'In order',
  };
  const PROTECTION = { none: 'plain', afci: 'AFCI', gfci: 'GFCI', dual: 'AFCI + GFCI' };
  const STATES = {
    unproved: 'not proved dead on record',
    dead: 'proved dead',
    energized: 'energized',
    measuring: 'live to measure',
  };
  const volts = (v: number | null) => (v === null ? '' : `${v} V`);
</script>

<main>
  <div class="bar sheet no-print">
    <h1>Hand over</h1>
    <span class="grow"></span>
    <Act kind="main" disabled={session.findings === null} onclick={() => window.print()}>Print the sheet</Act>
    <Act onclick={() => downloadJob(document)}>Export job file</Act>
    <Act onclick={() => exportReadings(document)}>Export readings CSV</Act>
    <PickFile label="Readings CSV" accept=".csv,text/csv" take={importReadings}>Import readings CSV</PickFile>
  </div>
  {#if problems.length > 0}
    <div class="sheet said no-print" role="alert">
      <h2>Not imported; nothing was changed</h2>
      <ul>
        {#each problems.slice(0, 8) as problem (problem.path + problem.message)}
          <li><code>{problem.path}</code> {problem.message}</li>
        {/each}
      </ul>
    </div>
  {/if}
  {#if said}<p class="sheet said ok no-print" role="status">{said}</p>{/if}

  <article class="sheet paper">
    <header>
      <div>
        <p class="kicker">Record of wiring</p>
        <p class="title">{report.job.name}</p>
        <p>{report.job.address}</p>
      </div>
      <dl>
        <div>
          <dt>Judged by</dt>
          <dd>
            NEC {report.job.edition}; {report.amendments.length === 0
              ? 'no local amendments entered'
              : `local amendments: ${report.amendments.join('; ')}`}
          </dd>
        </div>
        <div>
          <dt>Dwelling</dt>
          <dd>{report.job.dwelling.replace('-', ' ')}</dd>
        </div>
      </dl>
    </header>
    <dl class="rooms">
      {#each floors as { level, names } (level.id)}
        <div>
          <dt>{level.name}</dt>
          <dd>{names.join(', ')}</dd>
        </div>
      {/each}
    </dl>

    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <section tabindex="0" aria-label="Circuits">
      <h2>Circuits</h2>
      {#if report.circuits.length === 0}<p class="quiet">None planned.</p>{:else}
        <table>
          <thead>
            <tr
              ><th>Space</th><th>Circuit</th><th>Breaker</th><th>Cable</th><th>Boxes, in order</th><th
                class="num">Cable</th
              ><th class="num">Drop at end</th><th>State</th></tr
            >
          </thead>
          <tbody>
            {#each report.circuits as c (c.circuit.id)}
              <tr>
                <td>{c.circuit.space}</td>
                <td>{c.circuit.name}</td>
                <td>{c.circuit.breaker.rating} A {PROTECTION[c.circuit.breaker.protection]}</td>
                <td>{c.circuit.gauge} AWG {c.circuit.material}, {c.circuit.cable}</td>
                <td>{c.run.stops.map((s) => s.box.name).join(' → ') || 'none'}</td>
                <td class="num">{formatFeet(c.run.installed)}</td>
                <td class="num"
                  >{c.dropPercent === null
                    ? ''
                    : `${round(c.dropPercent, 1)} % at ${round(c.circuit.breaker.rating * 0.8, 1)} A`}</td
                >
                <td>{STATES[c.state]}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      {/if}
    </section>

    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <section tabindex="0" aria-label="Open findings">
      <h2>Open findings</h2>
      {#if session.findings === null}
        <p class="quiet">Checking…</p>
      {:else if report.findings.length === 0}
        <p>None.</p>
      {:else}
        <table>
          <thead><tr><th>Level</th><th>About</th><th>Finding</th><th>Section</th></tr></thead>
          <tbody>
            {#each report.findings as f (f.key)}
              <tr
                ><td>{LEVELS[f.level]}</td><td>{f.about.name}</td><td>{f.message}</td><td class="section"
                  >{f.section}</td
                ></tr
              >
            {/each}
          </tbody>
        </table>
      {/if}
    </section>

    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <section tabindex="0" aria-label="Readings">
      <h2>Readings</h2>
      {#if report.readings.length === 0}<p class="quiet">None on record.</p>{:else}
        <table>
          <thead>
            <tr
              ><th>Where</th><th>When (UTC), who</th><th>Stage</th><th>Lamps</th><th class="num">H–N</th><th
                class="num">H–G</th
              ><th class="num">N–G</th>{#if twoHots}<th class="num">H–H</th>{/if}<th class="num">Load</th><th
                >Verdict</th
              ></tr
            >
          </thead>
          <tbody>
            {#each report.readings as { reading, struck, verdict } (reading.id)}
              <tr class:struck>
                <td
                  >{reading.place}{reading.half === 'both' ? '' : `, ${reading.half}`}{reading.openBox
                    ? ', open box'
                    : ''}</td
                >
                <td>{day(reading.at)}, {reading.by}</td>
                <td>{reading.stage}</td>
                <td>{reading.lamps ? reading.lamps.map((l) => (l ? '●' : '○')).join(' ') : ''}</td>
                <td class="num">{volts(reading.hotNeutral)}</td>
                <td class="num">{volts(reading.hotGround)}</td>
                <td class="num">{volts(reading.neutralGround)}</td>
                {#if twoHots}<td class="num">{volts(reading.hotHot)}</td>{/if}
                <td class="num">{reading.loadAmps > 0 ? `${reading.loadAmps} A` : ''}</td>
                <td>{struck ? 'corrected' : verdict.headline}{reading.note ? `. ${reading.note}` : ''}</td>
              </tr>
            {/each}
          </tbody>
        </table>
        <p class="quiet small">
          Lamps: hot–neutral, hot–ground, neutral–ground. Verdicts are worked out from the wiring planned, not
          from fixed ranges alone.
        </p>
      {/if}
    </section>

    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <section tabindex="0" aria-label="Proofs of dead">
      <h2>Proofs of dead</h2>
      {#if report.proofs.length === 0}<p class="quiet">None on record.</p>{:else}
        <ul>
          {#each report.proofs as p (p.id)}
            <li>
              {day(p.at)} UTC, {p.place}, by {p.by}: {proofLine(document, p)}
            </li>
          {/each}
        </ul>
      {/if}
    </section>

    {#if report.overrides.length > 0}
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <section tabindex="0" aria-label="Opened by override">
        <h2>Opened by override</h2>
        <ul>
          {#each report.overrides as o (o.id)}
            <li>{day(o.at)} UTC, {o.place}, by {o.by}: {proofLine(document, o)}</li>
          {/each}
        </ul>
      </section>
    {/if}

    {#if report.devices.length > 0}
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <section tabindex="0" aria-label="Protecting devices">
        <h2>Protecting devices</h2>
        <table>
          <thead>
            <tr><th>Device</th><th>Goes dark with it</th><th>Last test</th><th>State</th></tr>
          </thead>
          <tbody>
            {#each report.devices as d (d.key)}
              <tr>
                <td
                  >{d.kind.toUpperCase()}
                  {d.box ? d.box.name : `breaker ${d.circuit.space}, ${d.circuit.name}`}</td
                >
                <td>{d.protects.map((p) => p.name).join(', ') || 'nothing else'}</td>
                <td>{d.tests[0] ? `${day(d.tests[0].at)} UTC` : 'none on record'}</td>
                <td>{d.state}{d.replaceBy ? `; replace by ${d.replaceBy}` : ''}</td>
              </tr>
            {/each}
          </tbody>
        </table>
        <p class="quiet small">
          Test each monthly by its own button; ten years is a usual age to replace one at.
        </p>
      </section>
    {/if}

    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <section tabindex="0" aria-label="Labels needed">
      <h2>Labels needed</h2>
      {#if labelled.length === 0}<p>None by the plan as it stands.</p>{:else}
        <table>
          <thead><tr><th>Outlet</th><th>Circuit</th><th>Labels</th></tr></thead>
          <tbody>
            {#each labelled as o (o.box.id)}
              <tr
                ><td>{o.box.name}, {o.area}</td><td>{o.circuit}</td><td
                  >{o.labels.map((l) => `“${l}”`).join(' and ')} <span class="section">406.4(D)(2)</span></td
                ></tr
              >
            {/each}
          </tbody>
        </table>
      {/if}
    </section>

    <section>
      <h2>Cautions</h2>
      <ul class="cautions">
        {#each report.cautions as caution (caution)}<li>{caution}</li>{/each}
      </ul>
    </section>
  </article>
</main>

<style>
  main {
    padding: 0.75rem;
    display: grid;
    gap: 0.75rem;
    justify-content: center;
    grid-template-columns: minmax(0, 64rem);
  }
  .bar {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.5rem;
    padding: 0.5rem 1rem;
  }
  .grow {
    flex: 1;
  }
  .said {
    padding: 0.75rem 1rem;
    border-left: 6px solid var(--bad);
  }
  .said.ok {
    border-left-color: var(--good);
  }
  .paper {
    padding: clamp(1rem, 3vw, 2.5rem);
    display: grid;
    gap: 1.5rem;
  }
  header {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 1rem 2rem;
    border-bottom: 4px solid var(--copper);
    padding-bottom: 1rem;
  }
  .kicker {
    color: var(--quiet);
    font-weight: 600;
  }
  .title {
    font-size: 1.9rem;
    font-weight: 800;
    line-height: 1.1;
  }
  header dl > div {
    display: grid;
    grid-template-columns: 6rem minmax(0, 20rem);
  }
  .rooms > div {
    display: grid;
    grid-template-columns: 8rem minmax(0, 1fr);
    padding: 0.3rem 0;
  }
  dt {
    color: var(--quiet);
  }
  section {
    overflow-x: auto;
  }
  h2 {
    margin-bottom: 0.4rem;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 0.95rem;
  }
  th {
    text-align: left;
    border-bottom: 2px solid var(--edge);
    padding: 0.25rem 0.5rem 0.25rem 0;
    vertical-align: bottom;
  }
  td {
    border-bottom: 1px solid var(--rule);
    padding: 0.3rem 0.5rem 0.3rem 0;
    vertical-align: top;
  }
  .num {
    text-align: right;
    white-space: nowrap;
  }
  td.section {
    white-space: normal;
    min-width: 6rem;
  }
  .struck td {
    text-decoration: line-through;
    color: var(--quiet);
  }
  .struck td:last-child {
    text-decoration: none;
  }
  .cautions li {
    list-style: square;
    margin-left: 1.1rem;
    padding: 0.2rem 0;
  }
  .small {
    font-size: 0.9rem;
    margin-top: 0.4rem;
  }
  @media print {
    @page {
      margin: 14mm;
    }
    main {
      padding: 0;
      display: block;
    }
    .paper {
      padding: 0;
    }
    h2 {
      break-after: avoid;
    }
    tr,
    li {
      break-inside: avoid;
    }
    section {
      overflow: visible;
      margin-bottom: 1rem;
    }
    table {
      font-size: 9pt;
    }
  }
</style>
