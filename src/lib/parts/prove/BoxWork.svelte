<script lang="ts">
  import type { Run, RunStop } from '../../../core/circuits/run.ts';
  import { newId } from '../../../core/job/document.ts';
  import type { Energizing, Override, Proof } from '../../../core/job/schema.ts';
  import type { CircuitState } from '../../../core/records/proof.ts';
  import { stepsFor } from '../../../core/records/steps.ts';
  import { localTime } from '../../readings.ts';
  import { energize } from '../../energizing.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Check from '../Check.svelte';
  import Field from '../Field.svelte';

  interface Props {
    run: Run;
    stop: RunStop;
    by: string;
    /** Steps are shown only while a proof holds, or an override with its reason. */
    proof: Proof | null;
    override: Override | null;
    power: CircuitState;
    onprove: () => void;
    onenergized: (purpose: Energizing['purpose']) => void;
  }
  let { run, stop, by, proof, override, power, onprove, onenergized }: Props = $props();

  const session = useSession();
  let said = $state('');
  let reason = $state('');
  let measuring = $state(false);
  const CHECKS = [
    'Every bare end capped and spread, nothing touching, nothing loose',
    'Everyone in the house told; nobody else near the box',
    'Probes only, insulated to the tip; nobody’s hand in the box',
    'I am qualified for this by local law',
  ] as const;
  const ticked = $state<boolean[]>(CHECKS.map(() => false));

  async function powerOn(purpose: Energizing['purpose']) {
    said = await energize(session, run.circuit.id, by, purpose);
    if (said === '') onenergized(purpose);
  }

  async function openAnyway() {
    if (by.trim() === '') {
      said = 'Who opens it: expected a name';
      return;
    }
    if (reason.trim().length < 10) {
      said = 'Reason: expected at least 10 characters; it stands on the sheet';
      return;
    }
    const row: Override = {
      id: newId('override'),
      circuitId: run.circuit.id,
      boxId: stop.box.id,
      place: `${stop.box.name}, ${stop.area.name}`,
      at: new Date().toISOString(),
      by,
      reason: reason.trim(),
    };
    said = (await session.attempt({ type: 'put', table: 'overrides', rows: [row] })) ?? '';
  }
</script>

{#if proof || override}
  {#if proof}
    <p class="good">✓ Proved dead {localTime(proof.at)} by {proof.by}.</p>
  {:else if override}
    <p class="wrong">
      ! Opened without a proof of dead {localTime(override.at)} by {override.by}: “{override.reason}”. This
      stands on the sheet.
    </p>
  {/if}
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
  <Act kind="main" big onclick={() => powerOn('use')}>Power is back on {run.circuit.name}</Act>
  <details bind:open={measuring}>
    <summary>Energised measurement at the open box</summary>
    <p class="caution">
      Some readings need power on an open box: which cable is the feed, a baseline on bare conductors. That is
      measuring, not work. A short window, then lock out and prove dead again before a hand goes in.
    </p>
    {#each CHECKS as check, i (check)}
      <Check label={check} checked={ticked[i]!} set={(on) => (ticked[i] = on)} />
    {/each}
    <Act kind="danger" big disabled={!ticked.every(Boolean)} onclick={() => powerOn('measurement')}
      >Power on to measure</Act
    >
  </details>
{:else}
  <p class="locked">
    <strong>Locked.</strong> The steps inside {stop.box.name} open once this box is proved dead.
  </p>
  <p class="quiet">
    {power === 'measuring'
      ? 'Power is on to measure: lock out and prove it dead again.'
      : power === 'energized'
        ? 'Power came back since the last proof.'
        : 'No proof of dead holds for this box.'}
  </p>
  <Act kind="main" big onclick={onprove}>Prove {stop.box.name} dead</Act>
  <details>
    <summary>Open the steps without a proof</summary>
    <p class="caution">
      Only where a proof cannot be taken and the circuit is known dead in another way, such as a service that
      is cut. Your name and reason go on the sheet.
    </p>
    <Field
      label="Reason"
      value={reason}
      commit={(text) => {
        reason = text;
        return text.length > 400 ? 'expected at most 400 characters' : null;
      }}
    />
    {#if said}<p class="wrong" role="alert">{said}</p>{/if}
    <Act kind="danger" big onclick={openAnyway}>Open without a proof</Act>
  </details>
{/if}

<style>
  ol {
    display: grid;
    gap: 0.8rem;
    list-style: decimal;
    padding-left: 1.4rem;
    font-size: 1.1rem;
  }
  details {
    display: grid;
    gap: 0.5rem;
    border-top: 1px solid var(--rule);
    padding-top: 0.4rem;
  }
  summary {
    min-height: 2.4rem;
    font-weight: 650;
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
