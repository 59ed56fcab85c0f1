<script lang="ts">
  import type { Reading } from '#core/job/schema.ts';
  import type { Verdict } from '#core/diagnosis/verdict.ts';
  import { describeStage } from '../../readings.ts';

  interface Props {
    title: string;
    recorded: readonly { name: string; reading: Reading; verdict: Verdict }[];
  }
  let { title, recorded }: Props = $props();
</script>

<div class="sheet recorded">
  <h2>{title}</h2>
  <table>
    <thead>
      <tr>
        {#each ['Box', 'Stage', 'H–N', 'H–G', 'N–G', 'Load', 'Verdict'] as head (head)}<th>{head}</th>{/each}
      </tr>
    </thead>
    <tbody>
      {#each recorded as { name, reading, verdict } (reading.id)}
        <tr>
          <td><strong>{name}</strong></td>
          <td class="stage">{describeStage(reading.stage)}</td>
          <td>{reading.hotNeutral ?? ''}</td>
          <td>{reading.hotGround ?? ''}</td>
          <td>{reading.neutralGround ?? ''}</td>
          <td>{reading.loadAmps || ''}</td>
          <td class={verdict.grade}>{verdict.headline}</td>
        </tr>
      {/each}
    </tbody>
  </table>
  <p class="quiet">Volts and amperes. Readings that were corrected are under their box.</p>
</div>

<style>
  .recorded {
    padding: 0.75rem 1rem 1rem;
    overflow-x: auto;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    margin: 0.4rem 0;
  }
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: 0.3rem 0.75rem 0.3rem 0;
    border-bottom: 1px solid var(--rule);
  }
  th {
    white-space: nowrap;
  }
  .stage {
    white-space: nowrap;
  }
  .good {
    color: var(--good);
  }
  .worry {
    color: var(--warn);
    font-weight: 700;
  }
  .bad {
    color: var(--bad);
    font-weight: 700;
  }
  /* In the house the readings are read under their box. */
  @media (max-width: 900px) {
    .recorded {
      display: none;
    }
  }
</style>
