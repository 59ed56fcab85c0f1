<script lang="ts">
  import type { Run } from '#core/circuits/run.ts';
  import { round } from '#core/units/quantity.ts';
  import { placesFor } from '#core/records/measuring.ts';
  import { describeShown, SHOWN_WORDS } from '../../measurements.ts';
  import { Measuring } from '../../measuring.svelte.ts';
  import { lampsOf } from '../../readings.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Check from '../Check.svelte';
  import Choice from '../Choice.svelte';
  import Field from '../Field.svelte';
  import NumberField from '../NumberField.svelte';

  interface Props {
    measure: Measuring;
    run: Run;
  }
  let { measure, run }: Props = $props();

  const session = useSession();
  const facts = $derived(measure.facts!);
  const { node, to, sender } = $derived(measure);
  const asks = (what: (typeof facts.asks)[number]) => facts.asks.includes(what);
  const named = (list: readonly { key: string; name: string }[]) =>
    list.map(({ key, name }) => ({ value: key, name }));
  const senderPlaces = $derived(
    placesFor(session.document, run, sender.stop, 'ohmmeter').filter((p) => p.kind !== 'face'),
  );
  const HELD = { pair: 'One probe on', one: 'At', face: 'Plugged into', around: 'Around' };
  const keys = $derived(facts.shows.filter((s) => s !== 'value' && s !== 'lamps'));
  const lampTester = $derived(session.document.job.settings.tester);
</script>

<p class="caution">{facts.caution}</p>
<p class="quiet">{facts.how}</p>

{#if node === null}
  <p>This box has no place for it on record. Put down what is in the box first.</p>
{:else}
  <div class="where">
    <Choice
      label={HELD[facts.held]}
      value={node.key}
      options={named(measure.places)}
      set={(key) => measure.hold(key, to?.key ?? null)}
    />
    {#if to}
      <Choice
        label="The other on"
        value={to.key}
        options={named(measure.places.filter((p) => p.key !== node.key))}
        set={(key) => measure.hold(node.key, key)}
      />
    {/if}
    {#if asks('sender')}
      <Choice
        label="Transmitter at"
        value={sender.stop}
        options={run.stops.map(({ box }, k) => ({ value: k, name: box.name }))}
        set={(stop) => measure.put({ sentFrom: { stop, node: 'panel.hot', to: 'panel.ground' } })}
      />
      <Choice
        label="It sends on"
        value={sender.node}
        options={named(senderPlaces)}
        set={(key) => measure.put({ sentFrom: { ...sender, node: key } })}
      />
      <Choice
        label="against"
        value={sender.to}
        options={named(senderPlaces.filter((p) => p.key !== sender.node))}
        set={(key) => measure.put({ sentFrom: { ...sender, to: key } })}
      />
    {/if}
    {#if asks('load')}
      <NumberField
        label="Load on here"
        unit="A"
        min={0}
        max={50}
        value={measure.load}
        set={(v) => measure.put({ load: v ?? 0 })}
      />
    {/if}
    {#if asks('gain')}
      <Choice
        label="Gain"
        value={measure.gain}
        options={Array.from({ length: 9 }, (_, k) => ({ value: k + 1, name: String(k + 1) }))}
        set={(gain) => measure.put({ gain })}
      />
    {/if}
    {#if asks('volts')}
      <Choice
        label="Test volts"
        value={measure.testVolts}
        options={[50, 100, 250, 500].map((v) => ({ value: v, name: `${v} V` }))}
        set={(testVolts) => measure.put({ testVolts })}
      />
    {/if}
    {#if asks('milliamps')}
      <NumberField
        label="It sends"
        unit="mA"
        min={1}
        max={100}
        value={measure.milliamps}
        set={(v) => measure.put({ milliamps: v ?? 8 })}
      />
    {/if}
  </div>

  {#if measure.toClear.length > 0}
    <fieldset>
      <legend>Off the circuit first: an insulation test destroys electronics and reads through them</legend>
      {#each measure.toClear as { key, name } (key)}
        <Check
          big
          label={name}
          checked={measure.cleared.includes(key)}
          set={(is) => measure.clear(key, is)}
        />
      {/each}
    </fieldset>
  {/if}

  {#if measure.expected}
    <p class="expected">
      Wiring as on record would show <strong
        >{#if measure.expectedRange}{round(measure.expectedRange.least, 1)} to {round(
            measure.expectedRange.most,
            1,
          )} V{:else}{describeShown({ ...measure.expected, instrument: measure.instrument! })}{/if}</strong
      >{#if measure.expectedRange}, by what else is on{/if}
    </p>
  {/if}

  {#if facts.shows.includes('lamps')}
    <div class="lamps" role="group" aria-label="Lamps">
      {#each lampsOf(lampTester) as { index, name, color } (name)}
        <button type="button" onclick={() => measure.light(index)}>
          <span>{name}</span><span class="quiet">{color}</span>
          <strong>{measure.shows === 'lamps' ? measure.lamps[index] : 'not read'}</strong>
        </button>
      {/each}
    </div>
    {#if measure.shows !== 'lamps'}
      <Act big onclick={() => measure.show('lamps')}>All three dark</Act>
    {/if}
  {/if}
  {#if facts.unit !== null}
    <div class="volts">
      <NumberField
        optional
        big
        label="It shows"
        unit={facts.unit}
        min={0}
        max={facts.most}
        value={measure.value}
        set={(v) => (v === null ? null : measure.show('value', v))}
      />
    </div>
  {/if}
  {#if keys.length > 0}
    <div class="row" role="group" aria-label="It shows">
      {#each keys as key (key)}
        <Act big pressed={measure.shows === key} onclick={() => measure.show(key)}>{SHOWN_WORDS[key]}</Act>
      {/each}
    </div>
  {/if}
  {#if asks('seconds') && measure.shows === 'trips'}
    <NumberField
      optional
      label="It took"
      unit="s"
      min={0}
      max={60}
      value={measure.seconds}
      set={(v) => {
        measure.seconds = v;
        return null;
      }}
    />
  {/if}
  {#if measure.agrees === false}
    <p class="warn">! Not what sound wiring shows here.</p>
  {:else if measure.agrees}
    <p class="good">✓ As sound wiring shows here.</p>
  {/if}
  {#each measure.opened as text (text)}<p class="warn">{text}</p>{/each}
  {#if measure.refused}<p class="wrong">Not yet: {measure.refused}.</p>{/if}
  {#if measure.said}<p class="wrong" role="alert">{measure.said}</p>{/if}
  <Act kind="main" big disabled={measure.shows === null || measure.refused !== ''} onclick={measure.log}>
    Log {measure.shows === null
      ? 'what it shows'
      : describeShown({
          instrument: measure.instrument!,
          shows: measure.shows,
          value: measure.value,
          lamps: measure.lamps,
          seconds: measure.seconds,
        })}
  </Act>
  <Field
    label="Note"
    value={measure.note}
    commit={(text) => {
      measure.note = text;
      return null;
    }}
  />
  <details open={measure.hidden !== null}>
    <summary>Practice{measure.hidden === null ? '' : ': on'}</summary>
    <p class="quiet">
      A simulated circuit, wired as on record, with a fault nobody tells you. It trips what would trip. What
      you log is marked as practice.
    </p>
    <div class="row">
      <Choice
        label="What is wrong"
        value={measure.hidden ?? -1}
        options={[
          { value: -1, name: 'practice off' },
          { value: 0, name: 'nothing' },
          ...Array.from({ length: 20 }, (_, i) => ({ value: i + 1, name: `hidden fault ${i + 1}` })),
        ]}
        set={(n) => {
          measure.hidden = n < 0 ? null : n;
          measure.answer = '';
        }}
      />
      <Act big disabled={measure.hidden === null} onclick={measure.read}>Read the practice circuit</Act>
      <Act big disabled={measure.hidden === null} onclick={measure.reveal}>Say what is wrong</Act>
    </div>
    {#if measure.answer}<p role="status"><strong>{measure.answer}.</strong></p>{/if}
  </details>
{/if}

<style>
  .where {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.5rem;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    align-items: end;
  }
  .expected {
    border-left: 6px solid var(--rule);
    padding-left: 0.6rem;
    font-size: 1.05rem;
  }
  .lamps {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 0.4rem;
  }
  .lamps button {
    display: grid;
    justify-items: center;
    min-height: 72px;
    border: 2px solid var(--edge);
    padding: 0.3rem;
  }
  .warn {
    color: var(--warn);
    font-weight: 700;
  }
  .good {
    color: var(--good);
    font-weight: 700;
  }
  legend {
    font-weight: 650;
  }
  summary {
    min-height: 2.4rem;
    font-weight: 650;
  }
</style>
