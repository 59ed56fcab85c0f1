<script lang="ts">
  import { newId } from '../../../core/job/document.ts';
  import type { Circuit, Proof } from '../../../core/job/schema.ts';
  import type { RunStop } from '../../../core/circuits/run.ts';
  import { deadPairs, proofGaps } from '../../../core/records/proof.ts';
  import { localTime, PAIRS } from '../../readings.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Check from '../Check.svelte';
  import NumberField from '../NumberField.svelte';

  interface Props {
    circuit: Circuit;
    stop: RunStop;
    by: string;
    /** The proof that holds here now. */
    proof: Proof | null;
    onproved: () => void;
  }
  let { circuit, stop, by, proof, onproved }: Props = $props();

  const session = useSession();

  type Draft = Omit<Proof, 'id' | 'circuitId' | 'boxId' | 'place' | 'at' | 'by'>;
  const NOT_READ = { hotNeutral: null, hotGround: null, neutralGround: null, hotHot: null };
  let draft = $state.raw<Draft>({
    lockedOut: false,
    liveBefore: null,
    knownLiveBefore: null,
    knownLiveAfter: null,
    face: NOT_READ,
    screws: NOT_READ,
  });
  let said = $state('');
  const pairs = $derived(deadPairs(circuit));
  const gaps = $derived(proofGaps({ ...draft, by }, pairs));

  const set = (values: Partial<Draft>) => {
    draft = { ...draft, ...values };
    return null;
  };

  async function record() {
    const row: Proof = {
      ...draft,
      id: newId('proof'),
      circuitId: circuit.id,
      boxId: stop.box.id,
      place: `${stop.box.name}, ${stop.area.name}`,
      at: new Date().toISOString(),
      by,
    };
    said = (await session.attempt({ type: 'put', table: 'proofs', rows: [row] })) ?? '';
    if (said === '') onproved();
  }

  const PLACES = [
    ['face', '4 · At the face'],
    ['screws', '5 · Device out: at the screws and every conductor'],
  ] as const;
</script>

{#snippet voltsField(label: string, key: 'liveBefore' | 'knownLiveBefore' | 'knownLiveAfter', hint = '')}
  <NumberField
    optional
    {label}
    {hint}
    unit="V"
    min={0}
    max={300}
    value={draft[key]}
    set={(v) => set({ [key]: v })}
  />
{/snippet}

<p class="caution">
  Treat it as live until this is done and after. A pen or plug-in tester alone proves nothing; rubbing a pen
  on cloth only shows that it beeps. In the panel the line lugs stay live with the main off.
</p>
{#if proof}
  <p class="good">
    ✓ Proved dead here {localTime(proof.at)} by {proof.by}. It is void as soon as power comes back.
  </p>
{/if}
<ol>
  <li>
    {@render voltsField(
      '1 · Live at this outlet before, breaker on',
      'liveBefore',
      'shows that the breaker did it',
    )}
  </li>
  <li>
    <Check
      label="2 · Breaker {circuit.space} off, locked or taped, note on the panel, people told"
      checked={draft.lockedOut}
      set={(lockedOut) => set({ lockedOut })}
    />
  </li>
  <li>{@render voltsField('3 · Tester on a known live source', 'knownLiveBefore')}</li>
  {#each PLACES as [where, title] (where)}
    <li>
      <p><strong>{title}</strong></p>
      <div class="volts">
        {#each PAIRS.filter(([p]) => pairs.includes(p)) as [pair, label] (pair)}
          <NumberField
            optional
            {label}
            unit="V"
            min={0}
            max={300}
            value={draft[where][pair]}
            set={(v) => set({ [where]: { ...draft[where], [pair]: v } })}
          />
        {/each}
      </div>
    </li>
  {/each}
  <li>{@render voltsField('6 · Tester on the known live source again', 'knownLiveAfter')}</li>
</ol>
{#if gaps.length > 0}
  <div class="gaps">
    <p><strong>Still open</strong></p>
    <ul>
      {#each gaps as gap (gap)}<li>{gap}</li>{/each}
    </ul>
  </div>
{/if}
{#if said}<p class="wrong" role="alert">{said}</p>{/if}
<Act kind="main" big disabled={gaps.length > 0} onclick={record}>Record: {stop.box.name} is dead</Act>

<style>
  ol {
    display: grid;
    gap: 0.8rem;
  }
  .volts {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 0.6rem;
  }
  .gaps {
    border-left: 6px solid var(--unknown);
    padding: 0.4rem 0.75rem;
    background: var(--panel);
  }
  .gaps li {
    list-style: square;
    margin-left: 1rem;
  }
  .good {
    color: var(--good);
    font-weight: 700;
  }
  .wrong {
    color: var(--bad);
    font-weight: 700;
  }
</style>
