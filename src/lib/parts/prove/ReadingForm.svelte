<script lang="ts">
  import { newId } from '../../../core/job/document.ts';
  import type { Box, Circuit, Reading } from '../../../core/job/schema.ts';
  import type { RunStop } from '../../../core/circuits/run.ts';
  import { circuitState, readingsOf } from '../../../core/records/proof.ts';
  import { judgeIn } from '../../../core/records/report.ts';
  import { expectedAt } from '../../../core/records/steps.ts';
  import { judge } from '../../../core/records/verdict.ts';
  import { describeReading, LAMPS, localTime, PAIRS } from '../../readings.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Field from '../Field.svelte';
  import NumberField from '../NumberField.svelte';
  import VerdictCard from '../VerdictCard.svelte';

  interface Props {
    box: Box;
    areaName: string;
    /** The outlet's circuit and its stop on it; null while it is on none. */
    circuit: Circuit | null;
    stop: RunStop | null;
    by: string;
    stage: Reading['stage'];
  }
  let { box, areaName, circuit, stop, by, stage = $bindable() }: Props = $props();

  const session = useSession();
  const document = $derived(session.document);
  const voltage = $derived(document.job.settings.voltage);
  const power = $derived(circuit ? circuitState(document, circuit) : 'unproved');
  const history = $derived(readingsOf(document, box.id));

  type Draft = Pick<
    Reading,
    'lamps' | 'hotNeutral' | 'hotGround' | 'neutralGround' | 'loadAmps' | 'note' | 'corrects'
  >;
  const BLANK: Draft = {
    lamps: null,
    hotNeutral: null,
    hotGround: null,
    neutralGround: null,
    loadAmps: 0,
    note: '',
    corrects: null,
  };
  let draft = $state.raw<Draft>(BLANK);
  let said = $state('');

  const verdict = $derived(
    judge(draft, { sourceVolts: voltage, pathOhms: stop?.pathOhms ?? 0, grounding: box.grounding }),
  );
  const expected = $derived(stop && expectedAt(stop, voltage, draft.loadAmps));

  const set = (values: Partial<Draft>) => {
    draft = { ...draft, ...values };
    return null;
  };
  const toggleLamp = (i: number) =>
    set({ lamps: (draft.lamps ?? [false, false, false]).map((lit, j) => (i === j ? !lit : lit)) });

  function correct({ id, place: _place, stage: found, ...reading }: Reading) {
    stage = found;
    const { lamps, hotNeutral, hotGround, neutralGround, loadAmps, note } = reading;
    draft = { lamps, hotNeutral, hotGround, neutralGround, loadAmps, note, corrects: id };
  }

  /** Why the reading cannot be logged yet, or an empty text. As-left readings come after proof and power. */
  function gap(): string {
    if (by.trim() === '') return 'Who measures: expected a name';
    if (verdict.grade === 'none') return 'Expected at least the lamps or one voltage';
    if (stage === 'as-found' || power === 'energized') return '';
    return power === 'dead'
      ? 'The circuit is on record as dead; put the power back on record first'
      : 'As-left readings need a proof of dead and the power put back, on record';
  }

  async function log() {
    said = gap();
    if (said !== '') return;
    const metered = PAIRS.some(([pair]) => draft[pair] !== null);
    const reading: Reading = {
      ...draft,
      stage,
      id: newId('reading'),
      boxId: box.id,
      place: `${box.name}, ${areaName}`,
      at: new Date().toISOString(),
      by,
      instrument: [draft.lamps && 'three-lamp tester', metered && 'meter'].filter(Boolean).join(' and '),
    };
    said = (await session.attempt({ type: 'put', table: 'readings', rows: [reading] })) ?? '';
    if (said === '') draft = BLANK;
  }
</script>

<p class="caution">
  Live measurement, face on, probes only. Fingers behind the guards, one hand where possible. Nothing is
  opened in this state.
</p>
<div class="row" role="group" aria-label="Stage">
  <Act pressed={stage === 'as-found'} onclick={() => (stage = 'as-found')}>As found</Act>
  <Act pressed={stage === 'as-left'} onclick={() => (stage = 'as-left')}>As left</Act>
  {#if stage === 'as-left' && power !== 'energized'}
    <span class="warn">needs a proof of dead, then power back on</span>
  {/if}
</div>
<fieldset>
  <legend>Three lamps: tap those that light</legend>
  <div class="lamps">
    {#each LAMPS as lamp, i (lamp)}
      <button
        type="button"
        class="lamp"
        aria-pressed={draft.lamps?.[i] ?? false}
        onclick={() => toggleLamp(i)}
      >
        <span class="glow" aria-hidden="true"></span>{lamp}
        <span class="lit">{draft.lamps ? (draft.lamps[i] ? 'lit' : 'dark') : 'not read'}</span>
      </button>
    {/each}
  </div>
  {#if draft.lamps}
    <Act onclick={() => set({ lamps: null })}>No lamps read</Act>
  {:else}
    <Act onclick={() => set({ lamps: [false, false, false] })}>All three dark</Act>
  {/if}
</fieldset>
<div class="volts">
  {#each PAIRS as [pair, label] (pair)}
    <NumberField
      big
      optional
      {label}
      unit="V"
      min={0}
      max={300}
      value={draft[pair]}
      set={(v) => set({ [pair]: v })}
    />
  {/each}
  <NumberField
    big
    label="Load on here"
    unit="A"
    min={0}
    max={50}
    value={draft.loadAmps}
    hint="measured amps"
    set={(v) => set({ loadAmps: v ?? 0 })}
  />
</div>
{#if expected && stop}<p class="quiet">
    A healthy run reads about <strong>{expected.hotNeutral.toFixed(1)} V</strong> hot–neutral and
    <strong>{expected.neutralGround.toFixed(2)} V</strong> neutral–ground here with {draft.loadAmps} A (path
    {stop.pathOhms.toFixed(3)} Ω a conductor, {voltage} V at the panel).
  </p>{/if}
<VerdictCard {verdict} />
<Field
  label="Note"
  value={draft.note}
  commit={(note) => (note.length > 400 ? 'expected at most 400 characters' : set({ note }))}
/>
{#if said}<p class="wrong" role="alert">{said}</p>{/if}
<Act kind="main" big onclick={log}>{draft.corrects ? 'Log the correction' : `Log at ${box.name}`}</Act>
{#if draft.corrects}<Act onclick={() => (draft = BLANK)}>Leave the earlier reading as it is</Act>{/if}

{#if history.length > 0}
  <h2>On record</h2>
  <ul class="history">
    {#each history as { reading, struck } (reading.id)}
      <li>
        <p><svelte:element this={struck ? 's' : 'span'}>{describeReading(reading)}</svelte:element></p>
        <p class="quiet">
          {struck ? 'corrected below' : judgeIn(session.view, reading).headline} · {localTime(reading.at)} ·
          {reading.by}{reading.note ? ` · ${reading.note}` : ''}
        </p>
        {#if !struck}<Act onclick={() => correct(reading)}>Correct</Act>{/if}
      </li>
    {/each}
  </ul>
{/if}

<style>
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    align-items: center;
  }
  legend {
    font-weight: 600;
    font-size: 0.875rem;
  }
  .lamps {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 0.5rem;
    margin: 0.4rem 0;
  }
  .lamp {
    display: grid;
    justify-items: center;
    gap: 0.3rem;
    min-height: 96px;
    padding: 0.5rem 0.25rem;
    border: 2px solid var(--edge);
    border-radius: 4px;
    font-size: 0.95rem;
  }
  .glow {
    width: 34px;
    height: 34px;
    border-radius: 50%;
    border: 3px solid var(--ink);
    background: repeating-linear-gradient(45deg, var(--rule) 0 4px, transparent 4px 8px);
  }
  .lamp[aria-pressed='true'] .glow {
    background: #ffb21f;
    box-shadow: 0 0 0 5px color-mix(in srgb, #ffb21f 45%, transparent);
  }
  .lit {
    font-weight: 700;
  }
  .volts {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.6rem;
  }
  .wrong,
  .warn {
    color: var(--bad);
    font-weight: 700;
  }
  .history li {
    padding: 0.5rem 0;
    border-top: 1px solid var(--rule);
  }
</style>
