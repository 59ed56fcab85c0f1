<script lang="ts">
  import { CONDITIONS } from '#core/diagnosis/conditions.ts';
  import type { Verdict } from '#core/diagnosis/verdict.ts';

  let { verdict }: { verdict: Verdict } = $props();
  const SIGNS = { good: '✓', worry: '!', bad: '✕', 'no-power': '–', none: '·' } as const;
</script>

<div class="verdict {verdict.grade}" role="status">
  <p class="headline"><span aria-hidden="true">{SIGNS[verdict.grade]}</span> {verdict.headline}</p>
  {#each verdict.remarks as remark (remark.text)}
    <p class={remark.level}>{remark.text}</p>
  {/each}
  {#if verdict.silent.length > 0}
    <p class="note">
      These readings cannot rule out: {verdict.silent
        .map((c) => CONDITIONS[c].label.toLowerCase())
        .join(', ')}. A load on here tells more.
    </p>
  {/if}
</div>

<style>
  .verdict {
    border: 2px solid var(--edge);
    border-left-width: 10px;
    padding: 0.6rem 0.9rem;
    display: grid;
    gap: 0.4rem;
  }
  .headline {
    font-size: 1.4rem;
    font-weight: 750;
    line-height: 1.2;
  }
  .good {
    border-color: var(--good);
  }
  .good .headline {
    color: var(--good);
  }
  .worry {
    border-color: var(--warn);
  }
  .worry .headline {
    color: var(--warn);
  }
  .bad {
    border-color: var(--bad);
  }
  .bad .headline {
    color: var(--bad);
  }
  .danger {
    color: var(--bad);
    font-weight: 700;
  }
  p.note {
    color: var(--quiet);
    font-size: 0.95rem;
  }
  p.worry {
    font-weight: 600;
  }
</style>
