<script lang="ts">
  import type { Circuit, Stop } from '#core/job/schema.ts';
  import { decisionsFor } from '#core/code/decisions.ts';
  import { describePlanned, fedFrom, isMultiwire, type Run, type RunStop } from '#core/circuits/run.ts';
  import { formatLength } from '#core/units/length.ts';
  import {
    CABLE_OPTIONS,
    GAUGE_OPTIONS,
    HOT_OPTIONS,
    SIDE_OPTIONS,
    SPLICE_OPTIONS,
    WHITE_OPTIONS,
  } from '../../names.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import InTheBox from '../boxes/InTheBox.svelte';
  import Choice from '../Choice.svelte';
  import Decisions from '../Decisions.svelte';
  import LengthField from '../LengthField.svelte';

  interface Props {
    run: Run;
    stop: RunStop;
    circuits: readonly Circuit[];
    /** Puts the stop's outlet at the end of a circuit, or on none. */
    onmove: (boxId: string, to: Circuit | null) => unknown;
  }
  let { run, stop, circuits, onmove }: Props = $props();

  const session = useSession();
  const circuit = $derived(run.circuit);
  const feeder = $derived(run.stops[stop.feeder]);
  const putStop = (values: Partial<Stop>) =>
    session.attempt({
      type: 'put',
      table: 'circuits',
      rows: [{ ...circuit, stops: circuit.stops.map((s) => (s === stop.stop ? { ...s, ...values } : s)) }],
    });
  /** Stops that do not hang on this one: it may be fed from any of them. */
  const possible = $derived.by(() => {
    const hanging = new Set([run.stops.indexOf(stop)]);
    return run.stops.filter((s, i) => {
      if (hanging.has(s.feeder)) hanging.add(i);
      return !hanging.has(i);
    });
  });
  const feeds = $derived(fedFrom(run, stop).length > 0);
  const whiteIsHot = $derived(
    circuit.cable !== 'raceway' &&
      ((circuit.breaker.poles === 2 && !circuit.neutral) || stop.role === 'switch-loop'),
  );
  const protects = $derived(feeder?.box.device.kind === 'gfci' || feeder?.box.device.kind === 'outlet-afci');
</script>

<div class="sheet pad stack">
  <h2>{stop.box.name}, {stop.area.name}</h2>
  {#if stop.role === 'switch-loop'}
    <p class="quiet">A switch fed from what it controls: a switch loop.</p>
  {:else if stop.role === 'switched'}
    <p class="quiet">Fed from the switch that controls it.</p>
  {/if}
  <LengthField
    label="Cable from {feeder?.box.name ?? 'the panel'}, measured"
    optional
    inches={stop.stop.measured}
    options={{ min: 1, max: 24000 }}
    hint={stop.segment.source === 'assumed'
      ? `not on the plan: ${formatLength(stop.segment.length)} is taken, as is usual`
      : stop.segment.source === 'plan'
        ? `by plan ${formatLength(stop.segment.length)}: ${describePlanned(stop.segment.planned)}`
        : `plan said: ${describePlanned(stop.segment.planned)}`}
    set={(measured) => putStop({ measured })}
  />
  <div class="grid-form">
    {#if feeder}
      <Choice
        label="Fed from"
        value={feeder.box.id}
        options={possible.map((s) => ({ value: s.box.id, name: s.box.name }))}
        set={(from) => session.execute({ type: 'feed-stop', boxId: stop.box.id, from })}
      />
    {/if}
    {#if protects}
      <Choice
        label="Leaves {feeder?.box.name} from"
        value={stop.stop.side}
        options={SIDE_OPTIONS}
        set={(side) => putStop({ side })}
      />
    {/if}
    {#if isMultiwire(run)}
      <Choice label="Takes hot" value={stop.stop.hot} options={HOT_OPTIONS} set={(hot) => putStop({ hot })} />
    {/if}
    {#if feeds}
      <Choice
        label="What goes on"
        value={stop.stop.splice}
        options={SPLICE_OPTIONS}
        set={(splice) => putStop({ splice })}
      />
    {/if}
    {#if whiteIsHot}
      <Choice
        label="White used as a hot"
        value={stop.stop.whiteMarked}
        options={WHITE_OPTIONS}
        set={(whiteMarked) => putStop({ whiteMarked })}
      />
    {/if}
    <Choice
      label="Segment gauge"
      value={stop.stop.gauge ?? 'same'}
      options={[{ value: 'same', name: `As the circuit (${circuit.gauge})` }, ...GAUGE_OPTIONS]}
      set={(g) => putStop({ gauge: g === 'same' ? null : g })}
    />
    <Choice
      label="Segment cable"
      value={stop.stop.cable ?? 'same'}
      options={[{ value: 'same', name: `As the circuit (${circuit.cable})` }, ...CABLE_OPTIONS]}
      set={(c) => putStop({ cable: c === 'same' ? null : c })}
    />
    <Choice
      label="Move to"
      value={circuit.id}
      options={[
        ...circuits.map((c) => ({ value: c.id, name: c.name })),
        { value: 'none', name: 'No circuit' },
      ]}
      set={(id) => onmove(stop.box.id, circuits.find((c) => c.id === id) ?? null)}
    />
  </div>
  <InTheBox boxId={stop.box.id} />
  <Decisions decisions={decisionsFor(session.view, stop.box)} />
</div>
