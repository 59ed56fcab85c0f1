<script lang="ts">
  import type { Report } from '#core/handover/report.ts';
  import { utc } from '$lib/readings.ts';

  let { calls }: { calls: Report['calls'] } = $props();
  const STATE = { open: 'open', finished: 'finished', 'left off': 'left off, for safety' } as const;
</script>

{#each calls as { call, title, state, lines, findings } (call.id)}
  <section>
    <h3>{title} <span class="quiet">{utc(call.opened)} UTC, {STATE[state]}</span></h3>
    {#if call.words}<p>“{call.words}”</p>{/if}
    {#if findings.length > 0}
      <ul class="found">
        {#each findings as line, i (i)}
          <li>
            {line.text}{#if line.because}: {line.because}{/if}
            {#if line.section}<span class="section">{line.section}</span>{/if}
          </li>
        {/each}
      </ul>
    {/if}
    <ol>
      {#each lines as line, i (i)}
        <li>
          <span>{line.title}</span> <strong>{line.said}</strong>
          <span class="quiet">{utc(line.at)}, {line.by}</span>
        </li>
      {/each}
    </ol>
  </section>
{/each}

<style>
  section {
    padding-bottom: 0.75rem;
  }
  .found {
    border-left: 4px solid var(--edge);
    padding-left: 0.75rem;
    margin: 0.4rem 0;
    font-weight: 600;
  }
  ol li {
    padding: 0.15rem 0;
    border-bottom: 1px solid var(--rule);
  }
</style>
