<script lang="ts">
  import type { Level } from '#core/code/rule.ts';
  import type { Picture } from '#core/job/schema.ts';
  import { listItems, LISTS } from '#core/handover/lists.ts';
  import { itemsOn } from '#core/handover/looks.ts';
  import { address } from '$lib/address.svelte.ts';
  import { SIGNS } from '$lib/gravity.ts';
  import Act from '$lib/parts/Act.svelte';
  import Field from '$lib/parts/Field.svelte';
  import LookRow from '$lib/parts/layout/LookRow.svelte';
  import NotJudged from '$lib/parts/NotJudged.svelte';
  import { lastPerson, signed } from '$lib/readings.ts';
  import Bar from '$lib/parts/Bar.svelte';
  import Page from '$lib/parts/Page.svelte';
  import Pictures from '$lib/parts/Pictures.svelte';
  import Tabs from '$lib/parts/Tabs.svelte';
  import { useSession } from '$lib/store/session.svelte.ts';

  const session = useSession();
  let by = $state(lastPerson());
  const list = $derived(LISTS.find((l) => l.id === (address.get('list') ?? 'outdoors')) ?? LISTS[0]!);
  const items = $derived(session.findings ? listItems(session.view, session.findings, list) : null);
  const open = $derived(
    items?.filter((i) => i.finding.level !== 'satisfied' && i.finding.level !== 'note') ?? [],
  );

  const WORDS: Record<Level, string> = {
    violation: 'Not in order',
    unknown: 'Not judged',
    recommended: 'Advised',
    note: 'Note',
    satisfied: 'In order',
  };
  const TABLES: readonly string[] = ['areas', 'fixtures', 'boxes', 'panels', 'circuits'];
  const hasPictures = (table: string): table is Picture['about']['table'] => TABLES.includes(table);
  const pathTo = (table: string, id: string): string | null =>
    table === 'boxes'
      ? `layout?box=${id}`
      : table === 'areas'
        ? `layout?area=${id}`
        : table === 'fixtures'
          ? `layout?fixture=${id}`
          : table === 'circuits'
            ? `runs?circuit=${id}`
            : null;
</script>

<Page kind="sheet">
  <div class="sheet pad stack">
    <Bar
      title="Inspection lists"
      beside="NEC {session.document.job.edition}, {session.document.job.address || session.document.job.name}"
    >
      <span class="no-print"><Act href="/job/{session.jobId}/layout">Back to the plan</Act></span>
      <span class="no-print"><Act onclick={() => window.print()}>Print</Act></span>
    </Bar>
    <div class="no-print">
      <Tabs
        label="List"
        value={list.id}
        options={LISTS.map((l) => ({ value: l.id, name: l.name }))}
        set={(id) => address.show({ list: id })}
      />
    </div>
    <h2>{list.name}</h2>
    <p class="quiet">{list.about}.</p>
    {#if items === null}
      <p aria-live="polite">Checking…</p>
    {:else if items.length === 0}
      <p>Nothing on record that this list looks at.</p>
    {:else}
      <p role="status">
        <strong class:bad={open.length > 0}>{open.length}</strong> to mend,
        <strong>{items.length - open.length}</strong> in order or noted.
      </p>
      <ol>
        {#each items as { finding: f, where } (f.key)}
          {@const path = pathTo(f.about.table, f.about.id)}
          <li class={f.level}>
            <span class="sign" aria-hidden="true">{SIGNS[f.level]}</span>
            <div class="what">
              <p class="level">{WORDS[f.level]} · {f.title}</p>
              <p>{f.message}</p>
              <p class="quiet">
                {#if f.measured && f.limit}
                  {Math.round(f.measured.value * 100) / 100}
                  {f.measured.unit} against {Math.round(f.limit.value * 100) / 100}
                  {f.limit.unit}.
                {/if}
                {where}{f.amendment ? ` · ${f.amendment}` : ''}
                <span class="section">{f.section}</span>
              </p>
            </div>
            <div class="side">
              {#if hasPictures(f.about.table)}
                <Pictures about={{ table: f.about.table, id: f.about.id }} name={f.about.name} />
              {/if}
              {#if path}
                <span class="no-print"
                  ><Act label="Show {f.about.name}: {f.title}" href="/job/{session.jobId}/{path}"
                    >Show {f.about.name}</Act
                  ></span
                >
              {/if}
            </div>
          </li>
        {/each}
      </ol>
    {/if}
    <h2>Looked at</h2>
    <div class="by no-print">
      <Field
        label="Who looks"
        value={by}
        placeholder="Your name"
        commit={(name) => {
          by = signed(name);
          return by === '' ? 'expected a name' : null;
        }}
      />
    </div>
    <ul>
      {#each itemsOn(list.id) as item (item.id)}<LookRow {item} {by} />{/each}
    </ul>
    <h2>Not judged here</h2>
    <NotJudged />
    <p class="quiet">
      The adopted local code, its amendments and the authority having jurisdiction decide. Sections are those
      of NEC
      {session.document.job.edition}.
    </p>
  </div>
</Page>

<style>
  li {
    display: grid;
    grid-template-columns: 2rem 1fr minmax(9rem, auto);
    gap: 0.6rem;
    padding: 0.6rem 0.5rem;
    border-bottom: 1px solid var(--rule);
    border-left: 6px solid var(--edge);
    break-inside: avoid;
  }
  .by {
    max-width: 22rem;
  }
  .sign {
    font-size: 1.4rem;
    font-weight: 800;
    text-align: center;
  }
  .level {
    font-weight: 700;
    font-size: 0.9rem;
  }
  .side {
    display: grid;
    gap: 0.4rem;
    justify-items: end;
    align-content: start;
  }
  li.violation {
    border-left-color: var(--bad);
  }
  li.unknown {
    border-left-color: var(--unknown);
  }
  li.recommended {
    border-left-color: var(--warn);
  }
  li.satisfied {
    border-left-color: var(--good);
  }
  .violation .sign,
  .violation .level,
  .bad {
    color: var(--bad);
  }
  .unknown .sign,
  .unknown .level {
    color: var(--unknown);
  }
  .recommended .sign,
  .recommended .level {
    color: var(--warn);
  }
  .satisfied .sign,
  .satisfied .level {
    color: var(--good);
  }
  @media (max-width: 760px) {
    li {
      grid-template-columns: 2rem 1fr;
    }
    .side {
      grid-column: 2;
      justify-items: start;
    }
  }
</style>
