<script lang="ts">
  import { stopOf } from '#core/circuits/run.ts';
  import {
    COLORS,
    CONDUCTOR_FUNCTIONS,
    SIGNS,
    type Area,
    type Box,
    type Found,
    type Reading,
  } from '#core/job/schema.ts';
  import { lastPerson, rememberPerson } from '../../readings.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';
  import Field from '../Field.svelte';
  import NumberField from '../NumberField.svelte';
  import OutletFields from '../OutletFields.svelte';
  import Signs from '../Signs.svelte';
  import Pictures from '../Pictures.svelte';
  import ReadingForm from '../prove/ReadingForm.svelte';
  import Counter from './Counter.svelte';

  let { box, area }: { box: Box; area: Area } = $props();

  const NOTHING: Found = {
    cables: 0,
    conductors: [],
    splices: 0,
    signs: [],
    boxMaterial: 'unknown',
    boxVolume: null,
    deviceAge: null,
  };
  type Conductor = Found['conductors'][number];

  const session = useSession();
  const found = $derived(box.found ?? NOTHING);
  const put = (values: Partial<Box>) =>
    session.attempt({ type: 'put', table: 'boxes', rows: [{ ...box, ...values }] });
  const record = (values: Partial<Found>) => put({ found: { ...found, ...values } });

  const conductorsOf = (cable: number): Conductor[] => found.conductors.filter((c) => c.cable === cable);
  /** One more or one less cable; conductors of a cable taken away go with it. */
  const setCables = (cables: number) =>
    record({ cables, conductors: found.conductors.filter((c) => c.cable <= cables) });
  const setCable = (cable: number, conductors: Omit<Conductor, 'cable'>[]) =>
    record({
      conductors: [
        ...found.conductors.filter((c) => c.cable !== cable),
        ...conductors.map((c) => ({ ...c, cable })),
      ].sort((a, b) => a.cable - b.cable),
    });
  const MAKES: { name: string; conductors: Omit<Conductor, 'cable'>[] }[] = [
    {
      name: 'Two-wire',
      conductors: [
        { color: 'black', function: 'unknown' },
        { color: 'white', function: 'neutral' },
      ],
    },
    {
      name: 'Two-wire and ground',
      conductors: [
        { color: 'black', function: 'unknown' },
        { color: 'white', function: 'neutral' },
        { color: 'bare', function: 'ground' },
      ],
    },
    {
      name: 'Three-wire and ground',
      conductors: [
        { color: 'black', function: 'unknown' },
        { color: 'red', function: 'switched' },
        { color: 'white', function: 'neutral' },
        { color: 'bare', function: 'ground' },
      ],
    },
  ];
  const change = (cable: number, at: number, values: Partial<Conductor>) =>
    setCable(
      cable,
      conductorsOf(cable).map((c, i) => (i === at ? { ...c, ...values } : c)),
    );
  const on = $derived(stopOf(session.view, box));
  let stage = $state<Reading['stage']>('as-found');
  let by = $state(lastPerson());

  const COLOR_OPTIONS = COLORS.map((value) => ({ value, name: value }));
  const FUNCTION_OPTIONS = CONDUCTOR_FUNCTIONS.map((value) => ({ value, name: value }));
  const MATERIALS = [
    { value: 'unknown', name: 'Not looked at' },
    { value: 'metal', name: 'Metal' },
    { value: 'plastic', name: 'Plastic' },
  ] as const;
</script>

<div class="stack found">
  <OutletFields {box} {area} />

  <p class="caution">
    Behind the face only with the circuit proved dead at this box. A box may hold a second circuit.
  </p>
  <div class="counters">
    <Counter label="Cables in the box" value={found.cables} max={12} set={setCables} />
    <Counter label="Splices" value={found.splices} max={24} set={(splices) => record({ splices })} />
  </div>
  <p class="quiet">One cable is the end of a run, two are feed-through, three or more a branch point.</p>
  {#each Array.from({ length: found.cables }, (_, i) => i + 1) as cable (cable)}
    <fieldset>
      <legend>Cable {cable}</legend>
      {#each conductorsOf(cable) as c, i (i)}
        <div class="conductor">
          <span class="core {c.color}" aria-hidden="true"></span>
          <Choice
            label="Color"
            value={c.color}
            options={COLOR_OPTIONS}
            set={(color) => change(cable, i, { color })}
          />
          <Choice
            label="What it does"
            value={c.function}
            options={FUNCTION_OPTIONS}
            set={(role) => change(cable, i, { function: role })}
          />
          <Act
            kind="danger"
            label="Take conductor {i + 1} off cable {cable}"
            onclick={() =>
              setCable(
                cable,
                conductorsOf(cable).filter((_, j) => j !== i),
              )}>✕</Act
          >
        </div>
      {/each}
      <div class="row">
        {#if conductorsOf(cable).length === 0}
          {#each MAKES as make (make.name)}
            <Act onclick={() => setCable(cable, make.conductors)}>{make.name}</Act>
          {/each}
        {/if}
        <Act
          onclick={() => setCable(cable, [...conductorsOf(cable), { color: 'black', function: 'unknown' }])}
          >Add a conductor</Act
        >
      </div>
    </fieldset>
  {/each}

  <fieldset>
    <legend>Signs</legend>
    <Signs label="Signs" options={SIGNS} chosen={found.signs} set={(signs) => record({ signs })} />
  </fieldset>
  <div class="grid-form" style:--field="8.5rem">
    <Choice
      label="Box"
      value={found.boxMaterial}
      options={MATERIALS}
      set={(boxMaterial) => record({ boxMaterial })}
    />
    <NumberField
      label="Box size"
      unit="in³"
      optional
      value={found.boxVolume}
      min={1}
      max={400}
      set={(boxVolume) => record({ boxVolume })}
    />
    <NumberField
      label="Device age"
      unit="years"
      optional
      value={found.deviceAge}
      min={0}
      max={150}
      set={(deviceAge) => record({ deviceAge })}
    />
  </div>
  <Field label="Note" value={box.note} commit={(note) => put({ note })} />
  <Pictures about={{ table: 'boxes', id: box.id }} name={box.name} big />
  <details>
    <summary>First readings at {box.name}</summary>
    <div class="stack">
      <Field
        label="Done by"
        value={by}
        placeholder="Your name"
        commit={(name) => {
          by = name.trim();
          rememberPerson(by);
          return null;
        }}
      />
      <ReadingForm {box} areaName={area.name} circuit={on?.circuit ?? null} {by} bind:stage />
    </div>
  </details>
</div>

<style>
  .counters,
  fieldset {
    border: 1px solid var(--rule);
    padding: 0.25rem 0.75rem 0.6rem;
  }
  legend {
    font-weight: 700;
    padding: 0 0.3rem;
  }
  .conductor {
    display: grid;
    grid-template-columns: 0.8rem 1fr 1.3fr auto;
    gap: 0.5rem;
    align-items: end;
    padding-bottom: 0.4rem;
  }
  .core {
    width: 0.8rem;
    height: 2.2rem;
    border: 2px solid var(--ink);
    border-radius: 4px;
    background: #222;
  }
  .core.red {
    background: #c62020;
  }
  .core.blue {
    background: #2353a8;
  }
  .core.white {
    background: #fff;
  }
  .core.gray {
    background: #9a9a9a;
  }
  .core.green {
    background: #1f7a3d;
  }
  .core.bare {
    background: #c9793b;
  }
  .core.cloth {
    background: repeating-linear-gradient(45deg, #3a332a 0 4px, #6b5f4d 4px 8px);
  }
</style>
