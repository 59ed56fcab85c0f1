<script lang="ts">
  import { onDestroy } from 'svelte';
  import { circuitFile, TROUBLES, type Trouble } from '#core/formats/instrumentSetup.ts';
  import { Instrument, watch, type LiveState } from '#core/instruments/driver.ts';
  import type { Link } from '#core/instruments/driver.ts';
  import type { Box, Circuit } from '#core/job/schema.ts';
  import { READ_PAIRS, type ReadPair } from '#core/diagnosis/conditions.ts';
  import { takesBothHots } from '#core/records/faces.ts';
  import { circuitState } from '#core/records/proof.ts';
  import { round } from '#core/units/quantity.ts';
  import { BAUD_RATES, serial, serialLink, simulatedLink } from '../../instruments.ts';
  import { PAIRS } from '../../readings.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';

  type Volts = Partial<Record<ReadPair, number>>;
  interface Props {
    box: Box;
    circuit: Circuit | null;
    /** Takes the values on show. */
    onread: (volts: Volts, name: string) => void;
    /** Takes and logs them. */
    onlog: (volts: Volts, name: string) => Promise<void>;
  }
  let { box, circuit, onread, onlog }: Props = $props();

  const session = useSession();
  let instrument = $state.raw<Instrument | null>(null);
  let name = $state('');
  let live = $state.raw<LiveState | null>(null);
  let last = $state.raw<number[] | null>(null);
  let said = $state('');
  let connecting = $state(false);
  let shown = $state(false);
  let stop: () => void = () => {};
  let hidden = $state<number>(0);
  let trouble = $state<Trouble>('none');
  let baud = $state<(typeof BAUD_RATES)[number]>(9600);
  const port = serial();
  const PAUSE = 400;

  const channels = $derived(
    !takesBothHots(box) ? [1, 2, 3] : (circuit?.neutral ?? true) ? [1, 2, 3, 4] : [2, 4],
  );
  const volts = $derived<Volts>(
    Object.fromEntries((last ?? []).map((v, i) => [READ_PAIRS[channels[i]! - 1]!, round(v, v < 10 ? 2 : 1)])),
  );
  const words = $derived(
    live === null
      ? ''
      : live.state === 'live'
        ? 'live'
        : live.state === 'slow'
          ? 'slow: the values on show are old'
          : live.state === 'garbled'
            ? 'garbled: not taken for a reading'
            : 'lost',
  );

  async function connect(make: () => Promise<Link> | Link) {
    said = '';
    connecting = true;
    let made: Instrument | null = null;
    try {
      made = new Instrument(await make());
      name = await made.identify();
      instrument = made;
      stop = watch(made, channels, PAUSE, (state) => {
        live = state;
        if (state.state === 'live') last = state.values;
        else said = state.said;
        if (state.state === 'lost')
          void disconnect(`Connection lost: ${state.said}. Nothing was logged by itself.`);
      });
    } catch (error) {
      await made?.close();
      // Someone who closes the list of ports wants no message.
      if (error instanceof DOMException && error.name === 'NotFoundError') return;
      said = `Not connected: ${error instanceof Error ? error.message : String(error)}`;
    } finally {
      connecting = false;
    }
  }

  async function disconnect(why = '') {
    stop();
    const was = instrument;
    instrument = null;
    live = null;
    last = null;
    said = why;
    await was?.close();
  }
  onDestroy(() => void disconnect());

  const simulated = () => {
    const { document } = session;
    return simulatedLink({
      job: circuitFile(document, circuit!),
      circuit: circuit!.id,
      box: box.id,
      dead: circuitState(document, circuit!, new Date().toISOString()) === 'dead',
      hidden: hidden === 0 ? null : hidden,
      trouble,
    });
  };
  const TROUBLE_WORDS = { none: 'a clean line', slow: 'slow answers', garbage: 'garbage', cut: 'a cut line' };
</script>

<details class="live" bind:open={shown}>
  <summary>Instrument{name !== '' && instrument ? `: ${name}, ${words || 'connecting'}` : ''}</summary>
  {#if instrument}
    <div class="values" class:old={live?.state !== 'live'} role="status" aria-label="Live values">
      {#each PAIRS.filter(([p]) => volts[p] !== undefined) as [p, label] (p)}
        <div>
          <span class="label">{label}</span>
          <span class="value">{volts[p]}<span class="unit">&nbsp;V</span></span>
        </div>
      {/each}
      <p class="state">{words}</p>
    </div>
    {#if live && live.state !== 'live'}<p class="wrong" role="alert">{said}</p>{/if}
    <div class="row">
      <Act kind="main" big disabled={live?.state !== 'live'} onclick={() => onlog(volts, name)}
        >Log what it shows</Act
      >
      <Act big disabled={live?.state !== 'live'} onclick={() => onread(volts, name)}>Take the values</Act>
      <Act big onclick={() => disconnect()}>Disconnect</Act>
    </div>
  {:else}
    <div class="connect">
      {#if port}
        <Choice
          label="Speed"
          value={baud}
          options={BAUD_RATES.map((b) => ({ value: b, name: `${b} baud` }))}
          set={(b) => (baud = b)}
        />
        <Act big disabled={connecting} onclick={() => connect(() => serialLink(port, baud))}
          >Connect by serial port</Act
        >
      {:else}
        <p class="quiet">This browser has no serial ports.</p>
      {/if}
      {#if circuit}
        <Choice
          label="Practice: what is wrong"
          value={hidden}
          options={[
            { value: 0, name: 'nothing' },
            ...Array.from({ length: 20 }, (_, i) => ({ value: i + 1, name: `hidden fault ${i + 1}` })),
          ]}
          set={(n) => (hidden = n)}
        />
        <Choice
          label="Practice: the line"
          value={trouble}
          options={TROUBLES.map((t) => ({ value: t, name: TROUBLE_WORDS[t] }))}
          set={(t) => (trouble = t)}
        />
        <Act big disabled={connecting} onclick={() => connect(simulated)}>Connect the practice meter</Act>
        <p class="quiet">
          It stands at {box.name} in the wiring as planned, on the server; what it shows is simulated and says so
          in the record.
        </p>
      {/if}
    </div>
    {#if connecting}<p role="status">Connecting…</p>{/if}
    {#if said}<p class="wrong" role="alert">{said}</p>{/if}
  {/if}
</details>

<style>
  .live {
    border: 1px solid var(--edge);
    padding: 0.4rem 0.75rem;
  }
  summary {
    font-weight: 650;
    min-height: 2rem;
  }
  .values {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 1.4rem;
    align-items: end;
    background: var(--cover);
    color: var(--cover-ink);
    padding: 0.5rem 0.75rem;
  }
  .values > div {
    display: grid;
  }
  .values .label {
    color: var(--cover-quiet);
    font-size: 0.9rem;
  }
  .value {
    font-family: var(--font-mono);
    font-size: 2rem;
    font-weight: 700;
    font-variant-numeric: tabular-nums;
  }
  .values .unit {
    font-size: 1.1rem;
    font-weight: 400;
  }
  .old .value {
    opacity: 0.75;
    text-decoration: line-through;
  }
  .state {
    font-weight: 700;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    margin-top: 0.5rem;
  }
  .connect {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.5rem;
    align-items: end;
    padding: 0.4rem 0;
  }
  .connect p {
    grid-column: 1 / -1;
  }
  @media (max-width: 520px) {
    .connect {
      grid-template-columns: 1fr;
    }
  }
</style>
