<script lang="ts">
  import { compareEditions, type ChangeKind, type EditionChange } from '#core/code/editionChanges.ts';
  import { EDITIONS, type Edition, type JobDocument } from '#core/job/schema.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';

  interface Props {
    document: JobDocument;
    /** Paints what changes on the plan. */
    paint: (changes: readonly EditionChange[]) => void;
    show: (change: EditionChange) => void;
  }
  let { document, paint, show }: Props = $props();

  const here = $derived(document.job.edition);
  let chosen = $state<Edition | null>(null);
  const other = $derived(chosen !== null && chosen !== here ? chosen : EDITIONS.find((e) => e !== here)!);
  const changes = $derived(compareEditions(document, here, other));
  $effect(() => paint(changes));
  $effect(() => () => paint([]));

  const SIGNS: Record<ChangeKind, string> = { worse: '▲', asked: '+', better: '▽', dropped: '−' };
  const WORDS: Record<ChangeKind, string> = {
    worse: 'Worse',
    asked: 'Newly asked',
    better: 'Better',
    dropped: 'No longer asked',
  };
  const said = (c: EditionChange) => (c.to ?? c.from)!;
  const how = (level: string | undefined) =>
    level === undefined
      ? 'nothing said'
      : level === 'satisfied'
        ? 'in order'
        : level === 'unknown'
          ? 'not judged'
          : level;
</script>

<div class="pad stack">
  <Choice
    label="Against NEC {here}"
    value={other}
    options={EDITIONS.filter((e) => e !== here).map((value) => ({ value, name: `NEC ${value}` }))}
    set={(e) => (chosen = e)}
  />
  <p role="status">
    <strong>{changes.length}</strong>
    {changes.length === 1 ? 'thing changes' : 'things change'} on this plan under NEC {other}. They are ringed
    on the plan.
  </p>
  <ul>
    {#each changes as c (c.key)}
      <li class={c.kind}>
        <p>
          <span class="kind"><span aria-hidden="true">{SIGNS[c.kind]}</span> {WORDS[c.kind]}</span>
          {said(c).message}
        </p>
        <p class="quiet">
          {here}: {how(c.from?.level)}{c.from ? ` ${c.from.section}` : ''} → {other}: {how(c.to?.level)}{c.to
            ? ` ${c.to.section}`
            : ''}
        </p>
        <Act label="Show {c.about.name}: {c.title}" onclick={() => show(c)}>Show {c.about.name}</Act>
      </li>
    {/each}
  </ul>
</div>

<style>
  li {
    padding: 0.5rem 0 0.6rem 0.75rem;
    border-bottom: 1px solid var(--rule);
    border-left: 6px solid var(--edge);
    display: grid;
    gap: 0.25rem;
    justify-items: start;
  }
  .kind {
    display: block;
    font-weight: 750;
    font-size: 0.9rem;
  }
  .worse {
    border-left-color: var(--bad);
  }
  .worse .kind {
    color: var(--bad);
  }
  .asked {
    border-left-color: var(--warn);
  }
  .asked .kind {
    color: var(--warn);
  }
  .better {
    border-left-color: var(--good);
  }
  .better .kind {
    color: var(--good);
  }
</style>
