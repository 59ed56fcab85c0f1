<script lang="ts">
  import { looksAt, placesToLook, recordLook, standingLooks, type LookItem } from '#core/handover/looks.ts';
  import type { Look } from '#core/job/schema.ts';
  import { localTime } from '$lib/readings.ts';
  import { useSession } from '$lib/store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';
  import Pictures from '../Pictures.svelte';

  let { item, by }: { item: LookItem; by: string } = $props();
  const session = useSession();

  const WORDS: Record<Look['result'], string> = {
    'in-order': 'in order',
    'not-in-order': 'not in order',
    'not-seen': 'not to be seen',
  };
  const SIGN: Record<Look['result'], string> = { 'in-order': '✓', 'not-in-order': '✕', 'not-seen': '?' };
  const KEYS: [Look['result'], string][] = [
    ['in-order', 'In order'],
    ['not-in-order', 'Not'],
    ['not-seen', 'Not seen'],
  ];
  const places = $derived(placesToLook(session.document));
  let at = $state(0);
  let note = $state('');
  let said = $state('');
  const standing = $derived(standingLooks(session.document, item.id));
  const earlier = $derived(looksAt(session.document, item.id).filter((l) => !standing.includes(l)));
  /** The gravest of what stands, for the sign of the row. */
  const gravest = $derived(
    (['not-in-order', 'not-seen', 'in-order'] as const).find((r) => standing.some((l) => l.result === r)),
  );

  async function record(result: Look['result']) {
    const place = places[at] ?? places[0]!;
    if (by === '') {
      said = 'by: expected the name of who looked, above';
      return;
    }
    const command = recordLook({
      item: item.id,
      about: place.about,
      place: place.name,
      at: new Date().toISOString(),
      by: by.slice(0, 80),
      result,
      note: note.trim().slice(0, 400),
    });
    said = (await session.attempt(command)) ?? '';
    if (said === '') note = '';
  }
</script>

<li class={gravest ?? 'open'}>
  <span class="sign" aria-hidden="true">{gravest ? SIGN[gravest] : '·'}</span>
  <div>
    <p>{item.what} <span class="section">{item.section}</span></p>
    {#each standing as look (look.id)}
      <p class="quiet small">
        <strong>{WORDS[look.result]}</strong>, {look.place}: {look.by}, {localTime(look.at)}{look.note
          ? `. ${look.note}`
          : ''}
      </p>
      <Pictures about={{ table: 'looks', id: look.id }} name={item.what} />
    {/each}
    {#if standing.length === 0}<p class="quiet small">nobody has looked yet</p>{/if}
    {#if earlier.length > 0}
      <details>
        <summary>{earlier.length} earlier</summary>
        {#each earlier as look (look.id)}
          <p class="quiet small">{WORDS[look.result]}, {look.place}: {look.by}, {localTime(look.at)}</p>
        {/each}
      </details>
    {/if}
    {#if said}<p class="wrong" role="alert">{said}</p>{/if}
  </div>
  <div class="keys no-print">
    <div class="row" role="group" aria-label={item.what}>
      {#each KEYS as [result, name] (result)}
        <Act label="{name}: {item.what}" onclick={() => record(result)}>{name}</Act>
      {/each}
    </div>
    <details>
      <summary>Where, note</summary>
      <Choice
        label="Where"
        value={at}
        options={places.map((p, i) => ({ value: i, name: p.name }))}
        set={(i) => (at = i)}
      />
      <input aria-label="Note on {item.what}" placeholder="note" maxlength="400" bind:value={note} />
    </details>
  </div>
</li>

<style>
  li {
    display: grid;
    grid-template-columns: 2rem 1fr minmax(15rem, auto);
    gap: 0.6rem;
    padding: 0.5rem;
    border-bottom: 1px solid var(--rule);
    border-left: 6px solid var(--edge);
    break-inside: avoid;
  }
  .sign {
    font-size: 1.3rem;
    font-weight: 800;
    text-align: center;
  }
  .keys {
    display: grid;
    gap: 0.3rem;
    justify-items: end;
    align-content: start;
  }
  input {
    border: 1px solid var(--edge);
    background: var(--sheet);
    padding: 0.35rem 0.5rem;
    width: 100%;
    margin-top: 0.4rem;
  }
  .in-order {
    border-left-color: var(--good);
  }
  .in-order .sign {
    color: var(--good);
  }
  .not-in-order {
    border-left-color: var(--bad);
  }
  .not-in-order .sign {
    color: var(--bad);
  }
  .not-seen {
    border-left-color: var(--unknown);
  }
  .not-seen .sign {
    color: var(--unknown);
  }
  @media (max-width: 760px) {
    li {
      grid-template-columns: 2rem 1fr;
    }
    .keys {
      grid-column: 2;
      justify-items: start;
    }
  }
</style>
