<script lang="ts">
  import {
    CABLE_BUILDS,
    recordOf,
    withCables,
    withConductors,
    withSplices,
    withToward,
    type SeenConductor,
  } from '#core/boxes/asFound.ts';
  import { fedFrom, runOf, stopOf } from '#core/circuits/run.ts';
  import { EMPTY_WIRING, functionName, type Cable } from '#core/boxes/wiring.ts';
  import { COLORS, CONDUCTOR_FUNCTIONS, type Box, type BoxWiring } from '#core/job/schema.ts';
  import { lastPerson } from '../../readings.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';
  import Counter from '../walk/Counter.svelte';
  import Core from './Core.svelte';

  /** Cables, conductors and splices of an opened box, as they are counted. */
  let { box }: { box: Box } = $props();

  const session = useSession();
  const wiring = $derived(box.wiring?.wiring ?? EMPTY_WIRING);
  const record = (next: BoxWiring) =>
    session.attempt({
      type: 'put',
      table: 'boxes',
      rows: [
        {
          ...box,
          wiring: recordOf(next, box.wiring?.stage ?? 'as-found', new Date().toISOString(), lastPerson()),
        },
      ],
    });
  const setCable = ({ id }: Cable, conductors: readonly SeenConductor[]) =>
    record(withConductors(wiring, id, conductors));
  const change = (cable: Cable, at: number, values: Partial<SeenConductor>) =>
    setCable(
      cable,
      cable.conductors.map((c, i) => (i === at ? { ...c, ...values } : c)),
    );
  /** Boxes that the plan feeds from here: a cable that was found may be the one to any of them. */
  const onward = $derived.by(() => {
    const on = stopOf(session.view, box);
    return on ? fedFrom(runOf(session.view, on.circuit), on.stop).map((s) => s.box) : [];
  });
  const towards = $derived([
    { value: 'unknown', name: 'Not known' },
    { value: 'feed', name: 'The feed' },
    { value: 'onward', name: 'On, to a box not known' },
    ...onward.map((b) => ({ value: b.id, name: `On to ${b.name}` })),
  ]);
  const COLOR_OPTIONS = COLORS.map((value) => ({ value, name: value }));
  const FUNCTION_OPTIONS = CONDUCTOR_FUNCTIONS.map((value) => ({ value, name: functionName(value) }));
</script>

<div class="counters">
  <Counter
    label="Cables in the box"
    value={wiring.cables.length}
    max={12}
    set={(n) => record(withCables(wiring, n))}
  />
  <Counter
    label="Splices"
    value={wiring.splices.length}
    max={24}
    set={(n) => record(withSplices(wiring, n))}
  />
</div>
<p class="quiet">One cable is the end of a run, two are feed-through, three or more a branch point.</p>
{#each wiring.cables as cable, n (cable.id)}
  <fieldset>
    <legend>Cable {n + 1}</legend>
    <Choice
      label="Goes to"
      value={cable.toward}
      options={towards}
      set={(toward) => record(withToward(wiring, cable.id, toward))}
    />
    {#each cable.conductors as c, i (c.id)}
      <div class="conductor">
        <Core color={c.color} />
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
          label="Take conductor {i + 1} off cable {n + 1}"
          onclick={() =>
            setCable(
              cable,
              cable.conductors.filter((_, j) => j !== i),
            )}>✕</Act
        >
      </div>
    {/each}
    <div class="row">
      {#if cable.conductors.length === 0}
        {#each CABLE_BUILDS as build (build.name)}
          <Act onclick={() => setCable(cable, build.conductors)}>{build.name}</Act>
        {/each}
      {/if}
      <Act onclick={() => setCable(cable, [...cable.conductors, { color: 'black', function: 'unknown' }])}
        >Add a conductor</Act
      >
    </div>
  </fieldset>
{/each}

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
</style>
