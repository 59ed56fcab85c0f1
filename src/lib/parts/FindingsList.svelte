<script lang="ts">
  import { groupsOf, mendAll, type FindingGroup, type GroupFix } from '#core/code/groups.ts';
  import { countsOf } from '#core/code/summary.ts';
  import type { Finding, Fix, Level } from '#core/code/rule.ts';
  import { useSession } from '../store/session.svelte.ts';
  import { SIGNS } from '../gravity.ts';
  import Act from './Act.svelte';

  interface Props {
    findings: readonly Finding[] | null;
    apply: (fix: Fix) => unknown;
    /** Points at the thing a finding is about. */
    show?: (finding: Finding) => unknown;
  }
  let { findings, apply, show }: Props = $props();

  const session = useSession();
  const document = $derived(session.document);

  const NAMES: Record<Level, string> = {
    violation: 'Violation',
    unknown: 'Not judged',
    recommended: 'Recommended',
    note: 'Note',
    satisfied: 'In order',
  };

  let satisfied = $state(false);
  /** A long list is shown in part until asked for. */
  let shown = $state(100);
  const listed = $derived(
    groupsOf(document, findings?.filter((f) => satisfied || f.level !== 'satisfied') ?? []),
  );
  /** One placement mends every gap of its room: offered once, at the first. */
  const offeredAt = $derived.by(() => {
    const first = new Map<string, FindingGroup>();
    for (const g of listed)
      for (const fix of g.fixes) if ('placeIn' in fix && !first.has(fix.placeIn)) first.set(fix.placeIn, g);
    return first;
  });
  const fixesOf = (g: FindingGroup): GroupFix[] =>
    g.fixes.filter((fix) => !('placeIn' in fix) || offeredAt.get(fix.placeIn) === g);
  const namesOf = ({ findings: list }: FindingGroup): string => {
    const names = [...new Set(list.map((f) => f.about.name))];
    return names.length > 8
      ? `${names.slice(0, 7).join(', ')} and ${names.length - 7} more`
      : names.join(', ');
  };
  const counts = $derived(countsOf(findings ?? []));
</script>

<div class="findings">
  <div class="counts" role="status">
    {#if findings === null}
      <span class="quiet">Checking…</span>
    {:else}
      <span class="violation"
        ><strong>{counts.violation}</strong> {counts.violation === 1 ? 'violation' : 'violations'}</span
      >
      {#if counts.unknown > 0}<span class="unknown"><strong>{counts.unknown}</strong> not judged</span>{/if}
      <span class="recommended"><strong>{counts.recommended}</strong> advised</span>
      <label><input type="checkbox" bind:checked={satisfied} /> show the {counts.satisfied} in order</label>
    {/if}
  </div>
  {#if findings !== null && listed.length === 0}
    <p class="clean">✓ Nothing to mend.</p>
  {/if}
  <ul>
    {#each listed.slice(0, shown) as group (group.key)}
      {@const [first] = group.findings}
      {@const fixes = fixesOf(group)}
      <li class={first.level}>
        <details>
          <summary>
            <span class="sign" aria-hidden="true">{SIGNS[first.level]}</span>
            <span class="text">
              <span class="level">{NAMES[first.level]}</span>
              {#if group.findings.length === 1}
                <span class="message">{first.message}</span>
              {:else}
                <strong>{group.findings.length} in {group.room}</strong> · {first.title}
                {#if namesOf(group) !== group.room}<span class="quiet names">{namesOf(group)}</span>{/if}
                {#if first.amendment}<span class="quiet names">{first.amendment}</span>{/if}
              {/if}
            </span>
            <span class="section">{first.section}</span>
          </summary>
          <div class="more">
            <p>{first.why}</p>
            {#each group.findings as f (f.key)}
              {#if group.findings.length > 1}<p class="one message">{f.message}</p>{/if}
              {#if f.measured && f.limit}
                <p class="quiet">
                  {Math.round(f.measured.value * 100) / 100}
                  {f.measured.unit} against {Math.round(f.limit.value * 100) / 100}
                  {f.limit.unit}
                </p>
              {/if}
              {#if f.amendment}<p><strong>{f.amendment}</strong></p>{/if}
              <div class="row">
                {#if show}<Act onclick={() => show(f)}>Show {f.about.name}</Act>{/if}
                {#if group.findings.length > 1}
                  {#each f.fixes.filter((x) => 'command' in x) as fix (fix.label)}
                    <Act onclick={() => apply(fix)}>{fix.label}</Act>
                  {/each}
                {/if}
              </div>
            {/each}
          </div>
        </details>
        {#if fixes.length > 0}
          <div class="fixes">
            {#each fixes as fix (fix.label)}<Act
                onclick={() => apply('all' in fix ? mendAll(document, group, fix.all) : fix)}>{fix.label}</Act
              >{/each}
          </div>
        {/if}
      </li>
    {/each}
  </ul>
  {#if listed.length > shown}
    <p class="rest">
      <Act onclick={() => (shown = Infinity)}>Show the other {listed.length - shown} lines</Act>
    </p>
  {/if}
</div>

<style>
  .counts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.25rem 1rem;
    align-items: baseline;
    padding: 0.6rem 0.9rem;
    border-bottom: 1px solid var(--rule);
  }
  .counts strong {
    font-size: 1.5rem;
  }
  .counts label {
    margin-left: auto;
    font-size: 0.9rem;
  }
  .names {
    display: block;
  }
  .message {
    display: block;
  }
  .message::first-letter {
    text-transform: uppercase;
  }
  .one {
    margin-top: 0.5rem;
    padding-top: 0.4rem;
    border-top: 1px solid var(--rule);
  }
  .rest {
    padding: 0.75rem;
  }
  .clean {
    padding: 1rem;
    color: var(--good);
    font-weight: 700;
  }
  li {
    border-bottom: 1px solid var(--rule);
    border-left: 6px solid var(--edge);
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
  summary {
    font-weight: 400;
    display: grid;
    grid-template-columns: 1.4rem 1fr auto;
    gap: 0.4rem;
    padding: 0.5rem 0.75rem;
    cursor: pointer;
    list-style: none;
  }
  .sign {
    font-weight: 800;
  }
  .violation .sign,
  .violation .level,
  .counts .violation {
    color: var(--bad);
  }
  .unknown .sign,
  .unknown .level,
  .counts .unknown {
    color: var(--unknown);
  }
  .recommended .sign,
  .recommended .level,
  .counts .recommended {
    color: var(--warn);
  }
  .satisfied .sign,
  .satisfied .level {
    color: var(--good);
  }
  .level {
    display: block;
    font-size: 0.8rem;
    font-weight: 700;
    color: var(--quiet);
  }
  summary .section {
    white-space: normal;
    text-align: right;
    max-width: 8rem;
  }
  .more {
    padding: 0 0.75rem 0.5rem 2.5rem;
    display: grid;
    gap: 0.4rem;
    justify-items: start;
  }
  .fixes {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem;
    padding: 0 0.75rem 0.6rem 2.5rem;
  }
</style>
