<script lang="ts">
  import { newId } from '../../../core/job/document.ts';
  import type { Proof } from '../../../core/job/schema.ts';
  import type { Run, RunStop } from '../../../core/circuits/run.ts';
  import { stepsFor } from '../../../core/records/steps.ts';
  import { localTime } from '../../readings.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';

  interface Props {
    run: Run;
    stop: RunStop;
    by: string;
    /** Steps are shown only while a proof holds. */
    proof: Proof | null;
    /** Whether power came back since the last proof. */
    energized: boolean;
    onprove: () => void;
    onenergized: () => void;
  }
  let { run, stop, by, proof, energized, onprove, onenergized }: Props = $props();

  const session = useSession();
  let said = $state('');

  async function energize() {
    if (by.trim() === '') {
      said = 'Who puts the power back: expected a name';
      return;
    }
    const row = { id: newId('energizing'), circuitId: run.circuit.id, at: new Date().toISOString(), by };
    said = (await session.attempt({ type: 'put', table: 'energizings', rows: [row] })) ?? '';
    if (said === '') onenergized();
  }
</script>

{#if proof}
  <p class="good">✓ Proved dead {localTime(proof.at)} by {proof.by}.</p>
  <p class="caution">
    Treat a dead wire as live anyway. If anyone may have touched the breaker, prove it again.
  </p>
  <ol>
    {#each stepsFor(run, stop) as step (step.text)}
      <li>
        <p>{step.text}</p>
        <p class="quiet">{step.because}</p>
      </li>
    {/each}
  </ol>
  <h2>When the boxes are closed</h2>
  <p>Tools out, plates on, people told. Putting power back voids every proof on this circuit.</p>
  {#if said}<p class="wrong" role="alert">{said}</p>{/if}
  <Act kind="main" big onclick={energize}>Power is back on {run.circuit.name}</Act>
{:else}
  <p class="locked">
    <strong>Locked.</strong> The steps inside {stop.box.name} open once this box is proved dead.
  </p>
  <p class="quiet">
    {energized ? 'Power came back since the last proof.' : 'No proof of dead holds for this box.'}
  </p>
  <Act kind="main" big onclick={onprove}>Prove {stop.box.name} dead</Act>
{/if}

<style>
  ol {
    display: grid;
    gap: 0.8rem;
    list-style: decimal;
    padding-left: 1.4rem;
    font-size: 1.1rem;
  }
  .good {
    color: var(--good);
    font-weight: 700;
  }
  .wrong {
    color: var(--bad);
    font-weight: 700;
  }
  .locked {
    font-size: 1.15rem;
  }
</style>
