<script lang="ts">
  import { byGravity, type Finding, type Fix, type Level } from '#core/code/rule.ts';
  import { SIGNS } from '../gravity.ts';
  import Act from './Act.svelte';

  interface Props {
    findings: readonly Finding[] | null;
    apply: (fix: Fix) => unknown;
    /** Points at the thing a finding is about. */
    show?: (finding: Finding) => unknown;
  }
  let { findings, apply, show }: Props = $props();

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
    findings?.filter((f) => satisfied || f.level !== 'satisfied').sort(byGravity) ?? [],
  );
  /** One placement mends every gap of its room: offered once, at the first. */
  const offeredAt = $derived.by(() => {
    const first = new Map<string, Finding>();
    for (const f of listed)
      for (const fix of f.fixes) if ('placeIn' in fix && !first.has(fix.placeIn)) first.set(fix.placeIn, f);
    return first;
  });
  const fixesOf = (f: Finding): Fix[] =>
    f.fixes.filter((fix) => !('placeIn' in fix) || offeredAt.get(fix.placeIn) === f);
  const count = (level: Level) => findings?.filter((f) => f.level === level).length ?? 0;
</script>

<div class="findings">
  <div class="counts" role="status">
    {#if findings === null}
      <span class="quiet">Checking…</span>
    {:else}
      <span class="violation"
        ><strong>{count('violation')}</strong> {count('violation') === 1 ? 'violation' : 'violations'}</span
      >
      {#if count('unknown') > 0}<span class="unknown"><strong>{count('unknown')}</strong> not judged</span
        >{/if}
      <span class="recommended"><strong>{count('recommended')}</strong> advised</span>
      <label><input type="checkbox" bind:checked={satisfied} /> show the {count('satisfied')} in order</label>
    {/if}
  </div>
  {#if findings !== null && listed.length === 0}
    <p class="clean">✓ Nothing to mend.</p>
  {/if}
  <ul>
    {#each listed.slice(0, shown) as f (f.key)}
      {@const fixes = fixesOf(f)}
      <li class={f.level}>
        <details>
          <summary>
            <span class="sign" aria-hidden="true">{SIGNS[f.level]}</span>
            <span class="text">
              <span class="level">{NAMES[f.level]}</span>
              {f.message}
            </span>
            <span class="section">{f.section}</span>
          </summary>
          <div class="more">
            <p>{f.why}</p>
            {#if f.measured && f.limit}
              <p class="quiet">
                {Math.round(f.measured.value * 100) / 100}
                {f.measured.unit} against {Math.round(f.limit.value * 100) / 100}
                {f.limit.unit}
              </p>
            {/if}
            {#if f.amendment}<p><strong>{f.amendment}</strong></p>{/if}
            {#if show}<Act onclick={() => show(f)}>Show {f.about.name}</Act>{/if}
          </div>
        </details>
        {#if fixes.length > 0}
          <div class="fixes">
            {#each fixes as fix (fix.label)}<Act onclick={() => apply(fix)}>{fix.label}</Act>{/each}
          </div>
        {/if}
      </li>
    {/each}
  </ul>
  {#if listed.length > shown}
    <p class="rest">
      <Act onclick={() => (shown = Infinity)}>Show the other {listed.length - shown} findings</Act>
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
