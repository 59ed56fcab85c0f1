<script lang="ts">
  import type { Decision, Topic } from '#core/code/decisions.ts';

  let { decisions }: { decisions: readonly Decision[] } = $props();

  const NAMES: Record<Topic, string> = {
    gfci: 'GFCI',
    afci: 'AFCI',
    'tamper-resistant': 'Tamper-resistant',
    'weather-resistant': 'Weather-resistant',
  };
  function answer(d: Decision): { sign: string; text: string; tone: string } {
    if (d.providedBy) return { sign: '✓', text: `by ${d.providedBy}`, tone: 'good' };
    if (d.asked === 'not-judged') return { sign: '?', text: 'not judged', tone: 'unknown' };
    if (d.asked === 'not-known') return { sign: '?', text: 'not known', tone: 'unknown' };
    if (d.asked === 'required') return { sign: '✕', text: 'needed, missing', tone: 'bad' };
    return { sign: '–', text: d.asked === 'existing' ? 'not asked yet' : 'not asked', tone: 'quiet' };
  }
</script>

<dl>
  {#each decisions as d (d.topic)}
    {@const a = answer(d)}
    <div>
      <dt>{NAMES[d.topic]}</dt>
      <dd>
        <span class={a.tone}><span aria-hidden="true">{a.sign}</span> {a.text}</span>
        <span class="quiet reason">{d.reason} <span class="section">{d.section}</span></span>
      </dd>
    </div>
  {/each}
</dl>

<style>
  dl > div {
    display: grid;
    grid-template-columns: 8.6rem 1fr;
    gap: 0.5rem;
    padding: 0.35rem 0;
    border-top: 1px solid var(--rule);
  }
  dt {
    font-weight: 700;
  }
  dd > span:first-child {
    font-weight: 700;
  }
  .good {
    color: var(--good);
  }
  .unknown {
    color: var(--unknown);
  }
  .bad {
    color: var(--bad);
  }
  .reason {
    display: block;
    font-size: 0.95rem;
  }
  .section {
    white-space: normal;
  }
</style>
