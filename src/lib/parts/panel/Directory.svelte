<script lang="ts">
  import type { Panel } from '#core/job/schema.ts';
  import { idOf, rowOf, spacesIn, type Occupant } from '#core/panel/spaces.ts';
  import { applyFix } from '../../fixes.ts';
  import { breakerWords } from '../../names.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Field from '../Field.svelte';

  /** The directory for the door: two columns as the spaces are mounted. A name changed here is the circuit's name. */
  let { panel }: { panel: Panel } = $props();

  const session = useSession();
  const document = $derived(session.document);
  const spaces = $derived(spacesIn(document, panel));
  const rowCount = $derived(Math.ceil(panel.spaces / 2));
  const faults = $derived(
    session.findings?.filter(
      (f) => f.rule === 'directory' && f.about.id === panel.id && f.level !== 'satisfied',
    ) ?? [],
  );
  /** The space that a breaker's name is written at: its first. */
  const isFirst = (o: Occupant, space: number): boolean =>
    spaces.find((s) => s.occupants.some((x) => idOf(x) === idOf(o)))?.space === space;
  const rename = (o: Occupant, name: string) =>
    'circuit' in o
      ? session.attempt({ type: 'put', table: 'circuits', rows: [{ ...o.circuit, name: name.trim() }] })
      : null;
</script>

<div class="sheet pad stack">
  <div class="head no-print">
    <p class="quiet">
      Each line clear, specific and unlike the others, without a person’s name or a passing state.
      <span class="section">408.4(A)</span>
    </p>
    <Act kind="main" onclick={() => window.print()}>Print the directory</Act>
  </div>
  {#if faults.length > 0}
    <ul class="faults no-print">
      {#each faults as fault (fault.key)}
        <li>
          <span>✕ {fault.message}</span>
          {#each fault.fixes as fix (fix.label)}
            <Act onclick={() => applyFix(session, fix)}>{fix.label}</Act>
          {/each}
        </li>
      {/each}
    </ul>
  {/if}
  <div class="door">
    <div class="title">
      <strong>{panel.name}</strong>
      <span>{document.job.address}</span>
      <span
        >{panel.feeder
          ? `fed from ${document.panels[panel.feeder.panelId]?.name ?? ''}, ${panel.feeder.rating} A`
          : `main ${panel.mainRating} A`}</span
      >
    </div>
    <div class="lines" style:--rows={rowCount}>
      {#each spaces as s (s.space)}
        <div
          class="line"
          style:grid-row={rowOf(s.space) + 1}
          style:grid-column={s.space % 2 === 1 ? 1 : 2}
          data-line={s.space}
        >
          <span class="number">{s.space}</span>
          <div class="what">
            {#each s.occupants as o (idOf(o))}
              {#if 'feeds' in o}
                <span>{isFirst(o, s.space) ? `${o.feeds.name}, feeder` : 'same, second pole'}</span>
              {:else if !isFirst(o, s.space)}
                <span class="same">same, second pole</span>
              {:else}
                <div class="edit no-print">
                  <Field
                    label="Space {s.space}{o.circuit.half === 'whole' ? '' : o.circuit.half}"
                    value={o.circuit.name}
                    commit={(name) => rename(o, name)}
                  />
                </div>
                <span class="printed">{o.circuit.name}</span>
              {/if}
            {:else}
              <span class="same">not used</span>
            {/each}
          </div>
          <span class="rating">
            {#each s.occupants as o (idOf(o))}
              {#if isFirst(o, s.space)}
                <span
                  >{'circuit' in o
                    ? `${o.circuit.breaker.rating} A ${breakerWords(o.circuit)}`
                    : `${o.feeds.feeder?.rating} A`}</span
                >
              {/if}
            {/each}
          </span>
        </div>
      {/each}
    </div>
    {#if panel.note}<p class="note">{panel.note}</p>{/if}
  </div>
</div>

<style>
  .head {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem 1rem;
    align-items: center;
    justify-content: space-between;
  }
  .faults li {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem 1rem;
    align-items: center;
    color: var(--bad);
    font-weight: 600;
    padding: 0.3rem 0;
  }
  .door {
    border: 3px solid var(--ink);
  }
  .title {
    display: flex;
    flex-wrap: wrap;
    gap: 0 1.5rem;
    justify-content: space-between;
    padding: 0.4rem 0.75rem;
    border-bottom: 3px solid var(--ink);
  }
  .lines {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    grid-auto-rows: minmax(2.4rem, auto);
  }
  .line {
    display: grid;
    grid-template-columns: 2.2rem minmax(0, 1fr) auto;
    gap: 0.5rem;
    align-items: center;
    padding: 0.2rem 0.6rem;
    border-bottom: 1px solid var(--edge);
  }
  .line:nth-child(odd) {
    border-right: 3px solid var(--ink);
  }
  .number {
    font-family: var(--font-mono);
    font-weight: 700;
    font-size: 1.1rem;
    text-align: right;
  }
  .rating {
    display: grid;
    text-align: right;
    white-space: nowrap;
    font-size: 0.95rem;
  }
  .same {
    color: var(--quiet);
  }
  .edit :global(label) {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
  .printed {
    display: none;
  }
  .note {
    padding: 0.4rem 0.75rem;
    border-top: 2px solid var(--ink);
  }
  @media print {
    .printed {
      display: inline;
      font-size: 11pt;
      font-weight: 600;
    }
    .lines {
      grid-auto-rows: minmax(0.32in, auto);
    }
  }
  @media (max-width: 760px) {
    .lines {
      grid-template-columns: minmax(0, 1fr);
      display: flex;
      flex-direction: column;
    }
    .line:nth-child(odd) {
      border-right: 0;
    }
  }
</style>
