<script lang="ts">
  import type { Circuit, Stop } from '../../../core/job/schema.ts';
  import { decisionsFor } from '../../../core/code/decisions.ts';
  import { describePlanned, type Run, type RunStop } from '../../../core/circuits/run.ts';
  import { formatLength } from '../../../core/units/length.ts';
  import { GAUGE_OPTIONS } from '../../names.ts';
  import { useSession } from '../../store/session.svelte.ts';
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
  const putStop = (values: Partial<Stop>) =>
    session.attempt({
      type: 'put',
      table: 'circuits',
      rows: [{ ...circuit, stops: circuit.stops.map((s) => (s === stop.stop ? { ...s, ...values } : s)) }],
    });
</script>

<div class="sheet pad stack">
  <h2>{stop.box.name}, {stop.area.name}</h2>
  <LengthField
    label="Cable from {run.stops[stop.feeder]?.box.name ?? 'the panel'}, measured"
    optional
    inches={stop.stop.measured}
    options={{ min: 1, max: 24000 }}
    hint={stop.segment.source === 'plan'
      ? `by plan ${formatLength(stop.segment.length)}: ${describePlanned(stop.segment.planned)}`
      : `plan said: ${describePlanned(stop.segment.planned)}`}
    set={(measured) => putStop({ measured })}
  />
  <div class="grid-form">
    <Choice
      label="Segment gauge"
      value={stop.stop.gauge ?? 'same'}
      options={[{ value: 'same', name: `As the circuit (${circuit.gauge})` }, ...GAUGE_OPTIONS]}
      set={(g) => putStop({ gauge: g === 'same' ? null : g })}
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
  <Decisions decisions={decisionsFor(session.view, stop.box)} />
</div>
