<script lang="ts">
  import { rows } from '#core/job/document.ts';
  import type { Problem } from '#core/job/integrity.ts';
  import { InvalidError } from '#core/job/validate.ts';
  import { judgeIn } from '#core/diagnosis/setting.ts';
  import type { Verdict } from '#core/diagnosis/verdict.ts';
  import { readText } from '$lib/files.ts';
  import Act from '$lib/parts/Act.svelte';
  import Choice from '$lib/parts/Choice.svelte';
  import PickFile from '$lib/parts/PickFile.svelte';
  import {
    COLUMNS,
    filtered,
    NO_FILTER,
    rowsOf,
    sorted,
    type Filter,
    type SortKey,
  } from '$lib/parts/prove/readingRows.ts';
  import { bringReadings, exportReadings } from '$lib/readingFiles.ts';
  import { describeStage, lastPerson, localTime } from '$lib/readings.ts';
  import { useSession } from '$lib/store/session.svelte.ts';

  const session = useSession();
  const document = $derived(session.document);
  let key = $state<SortKey>('at');
  let down = $state(true);
  let filter = $state.raw<Filter>(NO_FILTER);
  let problems = $state.raw<Problem[]>([]);
  let said = $state('');
  let pasted = $state('');

  const all = $derived(rowsOf(session.view));
  /** Verdicts as far as they are worked out, by reading. */
  let verdicts = $state.raw<ReadonlyMap<string, Verdict>>(new Map());
  const gradeOf = (reading: { id: string }) => verdicts.get(reading.id)?.grade ?? null;
  const list = $derived(sorted(filtered(all, filter, gradeOf), key, down));
  const circuits = $derived([...new Set(all.map((r) => r.circuit))].filter((c) => c !== '').sort());

  /** Milliseconds of judging before the page gets its turn. */
  const SLICE = 8;
  $effect(() => {
    const { view } = session;
    const pending = rows(view.document.readings);
    const found = new Map<string, Verdict>();
    let timer: ReturnType<typeof setTimeout>;
    const work = () => {
      const end = performance.now() + SLICE;
      while (pending.length > 0 && performance.now() < end) {
        const reading = pending.pop()!;
        found.set(reading.id, judgeIn(view, reading));
      }
      verdicts = new Map(found);
      if (pending.length > 0) timer = setTimeout(work, SLICE);
    };
    timer = setTimeout(work);
    return () => clearTimeout(timer);
  });

  // Only the rows in view are drawn.
  const ROW = 54;
  const SPARE = 8;
  let top = $state(0);
  let height = $state(600);
  // Drawn anew every few rows, not at each.
  const first = $derived(Math.max(0, Math.floor(top / ROW / SPARE) - 1) * SPARE);
  const visible = $derived(list.slice(first, first + Math.ceil(height / ROW) + 3 * SPARE));

  function sortBy(column: SortKey) {
    if (column === key) down = !down;
    else {
      key = column;
      down = column === 'at';
    }
  }

  async function bring(read: () => Promise<string>, short: boolean) {
    problems = [];
    said = '';
    try {
      const text = await read();
      const { readingsFromCsv, readingsFromLines } = await import('#core/formats/readingsCsv.ts');
      const readings = short
        ? readingsFromLines(text, document, { by: lastPerson(), at: new Date().toISOString() })
        : readingsFromCsv(text, document);
      said = await bringReadings(session, readings);
      if (short) pasted = '';
    } catch (error) {
      problems = error instanceof InvalidError ? error.problems : [{ path: 'file', message: String(error) }];
    }
  }
  const GRADES = {
    good: 'Correct',
    worry: 'Worry',
    bad: 'Bad',
    'no-power': 'No voltage',
    none: 'Nothing read',
  } as const;
</script>

<main>
  <div class="sheet pad stack">
    <div class="head">
      <h1>All readings</h1>
      <span class="quiet" role="status">{list.length} of {all.length} shown</span>
      <span class="grow"></span>
      <Act href="/job/{session.jobId}/prove">Back to Prove</Act>
      <Act onclick={() => exportReadings(document)}>Export CSV</Act>
      <PickFile
        label="Readings CSV"
        accept=".csv,text/csv"
        take={(file) => bring(() => readText(file), false)}>Import CSV</PickFile
      >
    </div>
    <div class="filters">
      <label>
        <span>Find</span>
        <input
          type="search"
          placeholder="outlet, name, note"
          value={filter.words}
          oninput={(e) => (filter = { ...filter, words: e.currentTarget.value })}
        />
      </label>
      <Choice
        label="Circuit"
        value={filter.circuit}
        options={[{ value: 'all', name: 'every circuit' }, ...circuits.map((c) => ({ value: c, name: c }))]}
        set={(circuit) => (filter = { ...filter, circuit })}
      />
      <Choice
        label="Stage"
        value={filter.stage}
        options={[
          { value: 'all', name: 'both stages' },
          { value: 'as-found', name: 'As found' },
          { value: 'as-left', name: 'As left' },
        ]}
        set={(stage) => (filter = { ...filter, stage })}
      />
      <Choice
        label="Verdict"
        value={filter.grade}
        options={[
          { value: 'all', name: 'every verdict' },
          ...(Object.keys(GRADES) as (keyof typeof GRADES)[]).map((g) => ({ value: g, name: GRADES[g] })),
        ]}
        set={(grade) => (filter = { ...filter, grade })}
      />
    </div>
    <details>
      <summary>Paste readings</summary>
      <p class="quiet">
        A line an outlet: name, hot–neutral, hot–ground, neutral–ground, and amps if a load was on. Commas,
        semicolons or tabs. They are as-found readings by {lastPerson() || 'the person named in Prove'}.
      </p>
      <textarea
        rows="4"
        aria-label="Readings to paste"
        placeholder="S1, 119.8, 119.7, 0.1"
        bind:value={pasted}></textarea>
      <Act disabled={pasted.trim() === ''} onclick={() => bring(() => Promise.resolve(pasted), true)}
        >Add these readings</Act
      >
    </details>
    {#if problems.length > 0}
      <div class="problems" role="alert">
        <strong>Nothing was added</strong>
        <ul>
          {#each problems.slice(0, 8) as problem (problem.path + problem.message)}
            <li><code>{problem.path}</code> {problem.message}</li>
          {/each}
        </ul>
      </div>
    {/if}
    {#if said}<p role="status" class="good">{said}</p>{/if}
    {#if all.length === 0}
      <p>No readings yet. Take them in Prove, import a CSV, or paste them here.</p>
    {:else}
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <div
        class="scroll"
        tabindex="0"
        role="region"
        aria-label="Readings"
        bind:clientHeight={height}
        onscroll={(e) => (top = e.currentTarget.scrollTop)}
      >
        <table aria-rowcount={list.length + 1}>
          <thead>
            <tr>
              {#each COLUMNS as [column, name] (column)}
                {#if column === 'instrument'}<th class="plain">Verdict</th>{/if}
                <th aria-sort={key === column ? (down ? 'descending' : 'ascending') : 'none'}>
                  <button type="button" onclick={() => sortBy(column)}
                    >{name}<span aria-hidden="true">{key === column ? (down ? ' ▾' : ' ▴') : ''}</span
                    ></button
                  >
                </th>
              {/each}
            </tr>
          </thead>
          <tbody>
            {#if first > 0}<tr aria-hidden="true" style:height="{first * ROW}px"></tr>{/if}
            {#each visible as { reading: r, circuit, struck }, i (r.id)}
              {@const verdict = verdicts.get(r.id)}
              <tr class="row" class:struck aria-rowindex={first + i + 2} style:height="{ROW}px">
                <td>{localTime(r.at)}</td>
                <td><strong>{r.place}</strong></td>
                <td>{circuit}</td>
                <td>{describeStage(r.stage)}</td>
                <td>{r.half === 'both' ? '' : r.half}</td>
                <td class="number">{r.hotNeutral ?? ''}</td>
                <td class="number">{r.hotGround ?? ''}</td>
                <td class="number">{r.neutralGround ?? ''}</td>
                <td class="number">{r.hotHot ?? ''}</td>
                <td class="number">{r.loadAmps || ''}</td>
                <td class={verdict?.grade ?? ''} title={verdict?.headline}
                  ><span class="verdict">{struck ? 'corrected' : (verdict?.headline ?? '…')}</span></td
                >
                <td>{r.instrument}</td>
                <td>{r.by}</td>
              </tr>
            {/each}
            {#if first + visible.length < list.length}
              <tr aria-hidden="true" style:height="{(list.length - first - visible.length) * ROW}px"></tr>
            {/if}
          </tbody>
        </table>
      </div>
      <p class="quiet">
        Volts and amperes. Readings are never changed: a correction stands beside what it replaces.
      </p>
    {/if}
  </div>
</main>

<style>
  main {
    padding: 0.75rem;
    width: 100%;
  }
  .head,
  .filters {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem 1rem;
    align-items: end;
  }
  .grow {
    flex: 1;
  }
  label span {
    display: block;
    font-size: 0.875rem;
    font-weight: 600;
    margin-bottom: 0.25rem;
  }
  input[type='search'],
  textarea {
    border: 1px solid var(--edge);
    background: var(--sheet);
    padding: 0.4rem 0.6rem;
    min-height: 38px;
  }
  textarea {
    width: 100%;
    font-family: var(--font-mono);
  }
  .scroll {
    height: calc(100dvh - 21rem);
    min-height: 20rem;
    overflow: auto;
    border: 1px solid var(--edge);
    overflow-anchor: none;
  }
  table {
    border-collapse: separate;
    border-spacing: 0;
    min-width: 100%;
  }
  thead th {
    position: sticky;
    top: 0;
    background: var(--cover);
    color: var(--cover-ink);
    text-align: left;
    padding: 0;
    z-index: 1;
  }
  thead .plain {
    padding: 0 0.6rem;
  }
  thead button {
    color: inherit;
    font-weight: 700;
    min-height: 44px;
    padding: 0 0.6rem;
    white-space: nowrap;
    width: 100%;
    text-align: left;
  }
  .row td {
    padding: 0 0.6rem;
    border-bottom: 1px solid var(--rule);
    white-space: nowrap;
    max-width: 24rem;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .row .verdict {
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
    line-clamp: 2;
    overflow: hidden;
    white-space: normal;
    line-height: 1.2;
    min-width: 15rem;
  }
  .number {
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
  .struck td {
    text-decoration: line-through;
    color: var(--quiet);
  }
  .problems {
    border-left: 6px solid var(--bad);
    padding: 0.4rem 0.75rem;
  }
  .good {
    color: var(--good);
  }
  .worry {
    color: var(--warn);
    font-weight: 700;
  }
  .bad {
    color: var(--bad);
    font-weight: 700;
  }
</style>
