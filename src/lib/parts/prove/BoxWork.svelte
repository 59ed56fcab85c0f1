<script lang="ts">
  import type { Run, RunStop } from '#core/circuits/run.ts';
  import type { Energizing } from '#core/job/schema.ts';
  import { circuitNames, type Opened } from '#core/records/gates.ts';
  import { nameKey } from '#core/job/names.ts';
  import { closingCommand, heldOpen } from '#core/records/open.ts';
  import type { CircuitState } from '#core/records/proof.ts';
  import { localTime } from '../../readings.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import { ticksOf } from '#core/records/trim.ts';
  import Act from '../Act.svelte';
  import BoxSteps from '../boxes/BoxSteps.svelte';
  import Check from '../Check.svelte';
  import Neutrals from './Neutrals.svelte';
  import PowerBack from './PowerBack.svelte';

  interface Props {
    run: Run;
    stop: RunStop;
    by: string;
    /** The steps, while a proof holds; else why there are none. */
    opened: Opened;
    power: CircuitState;
    onprove: () => void;
    onenergized: (purpose: Energizing['purpose']) => void;
  }
  let { run, stop, by, opened, power, onprove, onenergized }: Props = $props();

  const session = useSession();
  let said = $state('');
  let measuring = $state(false);
  const CHECKS = [
    'Every bare end capped and spread, nothing touching, nothing loose',
    'Everyone in the house told; nobody else near the box',
    'Probes only, insulated to the tip; nobody’s hand in the box',
    'I am qualified for this by local law',
  ] as const;
  const ticked = $state<boolean[]>(CHECKS.map(() => false));

  /** What this person holds open here. */
  const own = $derived(
    heldOpen(session.document, run.circuit).find(
      (h) => h.of.in === 'box' && h.of.id === stop.box.id && nameKey(h.by) === nameKey(by),
    ),
  );
  async function closed() {
    const at = new Date().toISOString();
    if (own)
      said = (await session.attempt(closingCommand(session.document, own.of, 'closed', { by, at }))) ?? '';
  }
</script>

{#if opened.open}
  {#if opened.proof.basis === 'not-landed'}
    <p class="warn">
      ! Opened because the home run is not landed, seen by {opened.proof.seenBy}; every conductor was read.
      {localTime(opened.proof.at)}, {opened.proof.by}. This stands on the sheet.
    </p>
  {:else}
    <p class="good">✓ Proved dead {localTime(opened.proof.at)} by {opened.proof.by}.</p>
  {/if}
  <p class="caution">
    Treat a dead wire as live anyway. If anyone may have touched a breaker, prove it again.
  </p>
  <Neutrals
    box={stop.box}
    place="{stop.box.name}, {stop.area.name}"
    proved={opened.proof.boxId}
    shut={opened.shutNeutrals}
    {by}
  />
  <BoxSteps
    box={stop.box}
    place="{stop.box.name}, {stop.area.name}"
    {by}
    steps={opened.steps}
    ticks={ticksOf(session.document, stop.box.id)}
  />
  <h2>When the boxes are closed</h2>
  <p>
    Tools out, plates on, people told. Putting power back voids every proof of every box that this circuit is
    in.
  </p>
  {#if said}<p class="wrong" role="alert">{said}</p>{/if}
  <PowerBack
    circuit={run.circuit}
    {by}
    purpose="use"
    kind="main"
    label="Power is back on {run.circuit.name}"
    done={onenergized}
  />
  {#if own && by.trim() !== ''}
    <Act big onclick={closed}>{stop.box.name} is closed: my hands are out of it</Act>
  {/if}
  <PowerBack
    circuit={run.circuit}
    {by}
    purpose="lock-removed"
    named={false}
    label="The lock is off, breaker still off"
    done={onenergized}
  />
  <details bind:open={measuring}>
    <summary>Energized measurement at the open box</summary>
    <p class="caution">
      Some readings need power on an open box: which cable is the feed, a baseline on bare conductors. That is
      measuring, not work. A short window, then lock out and prove dead again before a hand goes in.
    </p>
    {#each CHECKS as check, i (check)}
      <Check big label={check} checked={ticked[i]!} set={(on) => (ticked[i] = on)} />
    {/each}
    <PowerBack
      circuit={run.circuit}
      {by}
      purpose="measurement"
      kind="danger"
      label="Power on to measure"
      disabled={!ticked.every(Boolean)}
      done={onenergized}
    />
  </details>
{:else}
  <p class="locked">
    <strong>Locked.</strong> The steps inside {stop.box.name} open once this box is proved dead, with {circuitNames(
      session.document,
      stop,
    )} off.
  </p>
  <p class="quiet">
    {power === 'measuring' ? 'Power is on to measure: lock out and prove it dead again.' : `${opened.why}.`}
  </p>
  <Act kind="main" big onclick={onprove}>Prove {stop.box.name} dead</Act>
{/if}

<style>
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
  .warn {
    color: var(--warn);
    font-weight: 700;
  }
  .locked {
    font-size: 1.15rem;
  }
</style>
