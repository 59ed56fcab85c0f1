<script lang="ts">
  import { fullLoad } from '#core/circuits/run.ts';
  import { newId, PLAIN_READING } from '#core/job/document.ts';
  import type { Box, Circuit, Meter, Reading } from '#core/job/schema.ts';
  import { beforeAndAfter, pairOf, remarksOnPair } from '#core/diagnosis/besides.ts';
  import type { ReadPair } from '#core/diagnosis/conditions.ts';
  import type { Remark } from '#core/diagnosis/joints.ts';
  import { whyNotRead } from '#core/records/gates.ts';
  import { circuitState, readingsOf } from '#core/records/proof.ts';
  import { judgeIn } from '#core/diagnosis/setting.ts';
  import { facesOf } from '#core/records/faces.ts';
  import { settingOf } from '#core/diagnosis/setting.ts';
  import { expectedAt, judge } from '#core/diagnosis/verdict.ts';
  import { round } from '#core/units/quantity.ts';
  import { Clock } from '../../clock.svelte.ts';
  import { describeReading, keptMeter, lastMeter, localTime, PAIRS } from '../../readings.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Field from '../Field.svelte';
  import NumberField from '../NumberField.svelte';
  import VerdictCard from '../VerdictCard.svelte';
  import LampsInput from './LampsInput.svelte';
  import LiveInstrument from './LiveInstrument.svelte';
  import PadFields, { type PadField } from './PadFields.svelte';

  interface Props {
    box: Box;
    areaName: string;
    /** The outlet's circuit; null while it is on none. */
    circuit: Circuit | null;
    by: string;
    stage: Reading['stage'];
    half?: Reading['half'];
    /** What the reading says beside that of the box before it. */
    beside?: string | null;
    /** A joint or contact here that its neighbors show. */
    heat?: Remark | null;
    /** Stage and half are given; nothing of them is chosen here. */
    fixed?: boolean;
    onlogged?: () => void;
  }
  let {
    box,
    areaName,
    circuit,
    by,
    stage = $bindable(),
    half = $bindable('both'),
    beside = null,
    heat = null,
    fixed = false,
    onlogged,
  }: Props = $props();

  const session = useSession();
  const document = $derived(session.document);
  const settings = $derived(document.job.settings);
  const clock = new Clock();
  const now = $derived(clock.now(document));
  const setting = $derived(settingOf(session.view, box, now));
  const power = $derived(circuit ? circuitState(document, circuit, now) : 'unproved');
  const history = $derived(readingsOf(document, box.id));
  const standing = $derived(history.filter((r) => r.past === null).map((r) => r.reading));
  const pair = $derived(pairOf(standing, setting));
  const change = $derived(beforeAndAfter(standing));

  type Draft = Pick<
    Reading,
    ReadPair | 'groundReference' | 'lamps' | 'loadAmps' | 'groundOhms' | 'note' | 'corrects'
  >;
  const BLANK: Draft = PLAIN_READING;
  let draft = $state.raw<Draft>(BLANK);
  let said = $state('');
  /** Readings logged here: each begins at the first field of the pad. */
  let logged = $state(0);
  let width = $state(0);
  const NARROW = 520;
  let keyboard = $state(false);
  let groundShown = $state(false);
  const byPad = $derived(width > 0 && width <= NARROW && !keyboard);

  const verdict = $derived(judge(draft, setting));
  const expected = $derived(expectedAt(setting, draft.loadAmps));
  const pairs = $derived(PAIRS.filter(([p]) => expected[p] !== null || p === 'hotGround' || shows(p)));
  /** An ungrounded box is measured to ground all the same. */
  function shows(p: ReadPair): boolean {
    return p === 'neutralGround' && expected.hotNeutral !== null;
  }
  const TOLERANCE = { neutralGround: 0.5 } as const;
  function expectWords(p: ReadPair): string {
    const volts = expected[p];
    if (volts === null) return box.grounding === 'none' ? 'no ground on record' : '';
    if (p === 'neutralGround')
      return `expect ${volts.toFixed(2)}, up to ${round(volts + TOLERANCE.neutralGround, 1)}`;
    return `expect ${volts.toFixed(1)} ± ${((volts * settings.limits.apartPercent) / 100).toFixed(1)}`;
  }
  const padFields = $derived<PadField[]>([
    ...pairs.map(([key, label]) => ({
      key,
      label,
      unit: 'V',
      value: draft[key],
      min: 0,
      max: 300,
      expect: expectWords(key),
    })),
    {
      key: 'loadAmps',
      label: 'Load on here',
      unit: 'A',
      value: draft.loadAmps,
      min: 0,
      max: 50,
      expect: 'measured amps',
    },
  ]);

  const set = (values: Partial<Draft>) => {
    draft = { ...draft, ...values };
    return null;
  };
  const METERS = [
    { value: 'low-impedance meter', name: 'Low impedance' },
    { value: 'high-impedance meter', name: 'High impedance' },
    { value: 'two-pole tester', name: 'Two-pole tester' },
  ] as const;
  /** What is in the hand stays in the hand, from outlet to outlet. */
  let meter = $state<Meter>(lastMeter());
  const take = (picked: Meter) => (meter = keptMeter(meter === picked ? 'unknown' : picked));
  const HALVES = [
    { value: 'top', name: 'Top' },
    { value: 'bottom', name: 'Bottom' },
    { value: 'both', name: 'Both alike' },
  ] as const;
  const halves = $derived(facesOf(box).length > 1 ? HALVES : []);

  function correct({ id, place: _place, stage: found, ...reading }: Reading) {
    stage = found;
    half = reading.half;
    const { lamps, hotNeutral, hotGround, neutralGround, hotHot, groundReference } = reading;
    const { loadAmps, groundOhms, note } = reading;
    const volts = { hotNeutral, hotGround, neutralGround, hotHot, groundReference };
    if (reading.meter !== 'unknown') meter = reading.meter;
    draft = { ...volts, lamps, loadAmps, groundOhms, note, corrects: id };
  }

  /** Why the reading cannot be logged yet, or an empty text. As-left readings come after proof and power. */
  function gap(): string {
    if (by.trim() === '') return 'Who measures: expected a name';
    if (verdict.grade === 'none') return 'Expected at least the lamps or one voltage';
    const at = new Date().toISOString();
    return whyNotRead(document, { boxId: box.id, stage, openBox: power === 'measuring', at }) ?? '';
  }

  async function log() {
    said = gap();
    if (said !== '') return;
    const metered = PAIRS.some(([p]) => draft[p] !== null);
    const reading: Reading = {
      ...draft,
      from: null,
      meter: metered ? meter : 'unknown',
      stage,
      half: halves.length > 0 ? half : 'both',
      openBox: power === 'measuring',
      id: newId('reading'),
      boxId: box.id,
      place: `${box.name}, ${areaName}`,
      at: new Date().toISOString(),
      by,
      instrument: [
        draft.lamps && 'three-lamp tester',
        metered && (instrument || (meter === 'unknown' ? 'meter' : meter)),
      ]
        .filter(Boolean)
        .join(' and '),
    };
    // The form is free for the next reading at once; what is refused comes back.
    const taken = draft;
    draft = BLANK;
    logged++;
    said = (await session.attempt({ type: 'put', table: 'readings', rows: [reading] })) ?? '';
    if (said !== '') draft = taken;
    else if (draft === BLANK) onlogged?.();
  }

  /** Name of the connected instrument whose volts are in the draft. */
  let instrument = $state('');
</script>

<svelte:window bind:innerWidth={width} />

<p class="caution" class:small={fixed}>
  {#if power === 'measuring'}
    Energized measurement: the box is open and live. Ends capped and spread, probes only, one hand, nobody
    else near. This is measuring, not work; lock out and prove again before a hand goes in.
  {:else}
    Live measurement, face on, probes only. Fingers behind the guards, one hand where possible. Nothing is
    opened in this state.
  {/if}
</p>
{#if !fixed}<div class="row" role="group" aria-label="Stage">
    <Act pressed={stage === 'as-found'} onclick={() => (stage = 'as-found')}>As found</Act>
    <Act pressed={stage === 'as-left'} onclick={() => (stage = 'as-left')}>As left</Act>
    {#if stage === 'as-left' && power !== 'energized'}
      <span class="warn">needs a proof of dead, then power back on</span>
    {/if}
  </div>{/if}
{#if !fixed && halves.length > 0}
  <div class="row" role="group" aria-label="Half">
    {#each halves as h (h.value)}
      <Act pressed={half === h.value} onclick={() => (half = h.value)}>{h.name}</Act>
    {/each}
  </div>
{/if}
<LiveInstrument
  {box}
  {circuit}
  onread={(volts, name) => {
    instrument = name;
    set(volts);
  }}
  onlog={(volts, name) => {
    instrument = name;
    set(volts);
    return log();
  }}
/>
{#if byPad}
  {#key logged}
    <PadFields
      fields={padFields}
      set={(key, value) => set({ [key]: key === 'loadAmps' ? (value ?? 0) : value })}
    >
      <p class="at-once {verdict.grade}">{verdict.headline}</p>
    </PadFields>
  {/key}
  <Act onclick={() => (keyboard = true)}>Use the keyboard instead</Act>
{:else}
  <div class="volts">
    {#each pairs as [p, label] (p)}
      <NumberField
        big
        optional
        {label}
        unit="V"
        min={0}
        max={300}
        value={draft[p]}
        hint={expectWords(p)}
        set={(v) => set({ [p]: v })}
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
{/if}
<div class="row" role="group" aria-label="Volts read with">
  <span class="lead">Volts read with</span>
  {#each METERS as m (m.value)}
    <Act pressed={meter === m.value} onclick={() => take(m.value)}>{m.name}</Act>
  {/each}
  {#if meter === 'unknown'}<span class="quiet">not said: a ghost may show</span>{/if}
</div>
{#if expected.hotNeutral !== null}
  <LampsInput tester={settings.tester} lamps={draft.lamps} set={(lamps) => set({ lamps })} />
{/if}
<details bind:open={groundShown}>
  <summary>Ground slot to a proven reference, and ground path</summary>
  <NumberField
    optional
    label="Ground slot to a proven reference"
    unit="V"
    min={0}
    max={300}
    value={draft.groundReference}
    hint="a lead from a proven ground elsewhere; tells a live ground from reversed polarity"
    set={(groundReference) => set({ groundReference })}
  />
  <NumberField
    optional
    label="Ground path"
    unit="Ω"
    min={0}
    max={1000000}
    value={draft.groundOhms}
    hint="by analyzer, or by meter on the dead circuit; under {settings.limits.groundOhms} Ω is good"
    set={(groundOhms) => set({ groundOhms })}
  />
</details>
<VerdictCard {verdict} />
{#if beside}<p class="beside">{beside}</p>{/if}
{#if heat}<p class="warn">{heat.text}</p>{/if}
<Field
  label="Note"
  value={draft.note}
  commit={(note) => (note.length > 400 ? 'expected at most 400 characters' : set({ note }))}
/>
{#if said}<p class="wrong" role="alert">{said}</p>{/if}
<Act kind="main" big onclick={log}>{draft.corrects ? 'Log the correction' : `Log at ${box.name}`}</Act>
{#if draft.corrects}<Act onclick={() => (draft = BLANK)}>Leave the earlier reading as it is</Act>{/if}

{#if pair && pair.loopOhms !== null}
  <div class="pair">
    <h2>Two readings make a resistance</h2>
    <p>
      {pair.unloaded.hotHot ?? pair.unloaded.hotNeutral} V, and {pair.loaded.hotHot ?? pair.loaded.hotNeutral} V
      with
      {round(pair.amps, 2)} A more: <strong>{pair.loopOhms.toFixed(2)} Ω</strong> out and back, {pair.percent?.toFixed(
        1,
      )} % sag. The plan gives {pair.plannedLoop.toFixed(2)} Ω.
      {#if pair.hotOhms !== null && pair.neutralOhms !== null}
        Hot {pair.hotOhms.toFixed(2)} Ω, neutral {pair.neutralOhms.toFixed(2)} Ω.
      {/if}
    </p>
    {#each remarksOnPair(pair, settings.limits, fullLoad(setting.run.circuit)) as remark (remark.text)}
      <p class="warn">{remark.text}</p>
    {/each}
  </div>
{/if}
{#if change}
  <div class="pair">
    <h2>Before and after</h2>
    <table>
      <thead
        ><tr
          ><th></th>{#each pairs as [p, label] (p)}<th>{label}</th>{/each}<th>Load</th></tr
        ></thead
      >
      <tbody>
        {#each [['As found', change.before], ['As left', change.after]] as const as [name, r] (name)}
          <tr>
            <th>{name}</th>
            {#each pairs as [p] (p)}<td>{r[p] ?? '–'}</td>{/each}
            <td>{r.loadAmps} A</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{/if}

{#if history.length > 0}
  <h2>On record</h2>
  <ul class="history">
    {#each history as { reading, past } (reading.id)}
      <li>
        <p><svelte:element this={past ? 's' : 'span'}>{describeReading(reading)}</svelte:element></p>
        <p class="quiet">
          {past
            ? { corrected: 'corrected below', 'mended since': 'mended since', 'taken back': 'taken back' }[
                past
              ]
            : judgeIn(session.view, reading).headline} · {localTime(reading.at)} ·
          {reading.by}{reading.note ? ` · ${reading.note}` : ''}
        </p>
        {#if !past}<Act onclick={() => correct(reading)}>Correct</Act>{/if}
      </li>
    {/each}
  </ul>
{/if}

<style>
  .lead {
    flex-basis: 100%;
    font-weight: 650;
  }
  .volts {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.6rem;
  }
  .at-once {
    font-weight: 700;
    min-height: 1.5em;
    border-left: 8px solid var(--edge);
    padding-left: 0.6rem;
  }
  .at-once.good {
    border-color: var(--good);
    color: var(--good);
  }
  .at-once.worry {
    border-color: var(--warn);
    color: var(--warn);
  }
  .at-once.bad {
    border-color: var(--bad);
    color: var(--bad);
  }
  .beside {
    font-weight: 650;
    border-left: 6px solid var(--edge);
    padding-left: 0.75rem;
  }
  .pair {
    display: grid;
    gap: 0.4rem;
    border-top: 1px solid var(--rule);
    padding-top: 0.6rem;
  }
  th,
  td {
    text-align: left;
    padding: 0.15rem 0.75rem 0.15rem 0;
    font-variant-numeric: tabular-nums;
  }
  .wrong,
  .warn {
    color: var(--bad);
    font-weight: 700;
  }
  .pair .warn {
    color: var(--warn);
  }
  .history li {
    padding: 0.5rem 0;
    border-top: 1px solid var(--rule);
  }
</style>
