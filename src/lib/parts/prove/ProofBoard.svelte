<script lang="ts">
  import { BOX } from '#core/boxes/wiring.ts';
  import type { Act } from '#core/records/acts.ts';

  /** The box as it is proved: each group and loose end by its color and name, read or still open. */
  let { acts, now }: { acts: readonly Act[]; now: string } = $props();

  const COLORS = ['black', 'red', 'blue', 'white', 'bare', 'ground', 'yellow', 'orange'] as const;
  const PAINT: Record<(typeof COLORS)[number], string> = {
    black: '#111',
    red: '#c22a2a',
    blue: '#2a55c2',
    white: '#fff',
    bare: '#c9894f',
    ground: '#3b8a4a',
    yellow: '#e6c520',
    orange: '#e07a1f',
  };
  const METAL = '#9aa0a4';
  const groups = $derived(
    acts.flatMap((a) =>
      a.kind === 'dead' && a.reads
        ? [
            {
              key: a.key,
              name: a.reads.nodeName,
              done: a.done,
              wrong: a.problem !== null,
              paint:
                a.reads.node === BOX
                  ? METAL
                  : PAINT[COLORS.find((c) => a.reads!.nodeName.includes(c)) ?? 'black'],
            },
          ]
        : [],
    ),
  );
</script>

{#if groups.length > 0}
  <ul aria-label="Conductors of the box">
    {#each groups as g (g.key)}
      <li class:now={g.key === now} class:wrong={g.wrong && !g.done}>
        <svg viewBox="0 0 48 12" aria-hidden="true">
          <rect x="1" y="3" width="34" height="6" rx="2" fill={g.paint} stroke="var(--edge)" />
          <circle cx="41" cy="6" r="5" fill={g.done ? 'var(--good)' : 'none'} stroke="var(--edge)" />
        </svg>
        <span>{g.name}</span>
        <span class="state">{g.done ? 'dead' : g.wrong ? 'live?' : g.key === now ? 'now' : 'open'}</span>
      </li>
    {/each}
  </ul>
{/if}

<style>
  ul {
    border: 2px solid var(--edge);
    padding: 0.35rem 0.6rem;
    background: var(--panel);
  }
  li {
    display: grid;
    grid-template-columns: 3rem 1fr auto;
    gap: 0.6rem;
    align-items: center;
    padding: 0.2rem 0.25rem;
  }
  .now {
    outline: 2px solid var(--ink);
    font-weight: 700;
  }
  .wrong .state {
    color: var(--bad);
  }
  .state {
    font-weight: 700;
  }
  svg {
    width: 3rem;
  }
</style>
