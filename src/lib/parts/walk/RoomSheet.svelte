<script lang="ts">
  import type { Area } from '#core/job/schema.ts';
  import { address } from '$lib/address.svelte.ts';
  import { AREA_OPTIONS, LOCATION_OPTIONS } from '$lib/names.ts';
  import type { Selection } from '$lib/selection.ts';
  import { useSession } from '$lib/store/session.svelte.ts';
  import Choice from '../Choice.svelte';
  import Field from '../Field.svelte';
  import Pictures from '../Pictures.svelte';
  import Tabs from '../Tabs.svelte';
  import RoomConditions from './RoomConditions.svelte';
  import RoomFixtures from './RoomFixtures.svelte';
  import RoomOpenings from './RoomOpenings.svelte';
  import RoomOutlets from './RoomOutlets.svelte';
  import RoomPlacing from './RoomPlacing.svelte';
  import RoomWalls from './RoomWalls.svelte';
  import WallElevation from './WallElevation.svelte';

  type Part = 'walls' | 'openings' | 'fixtures' | 'outlets' | 'wall-view';
  interface Props {
    area: Area;
    part: Part;
    fixtureId: string | null;
    boxId: string | null;
    choose: (next: Selection) => void;
    copy: (area: Area, mirror: boolean) => unknown;
  }
  let { area, part, fixtureId, boxId, choose, copy }: Props = $props();
  const session = useSession();

  const change = (values: Partial<Area>) =>
    session.attempt({ type: 'put', table: 'areas', rows: [{ ...area, ...values }] });
  const room = $derived<Selection>({ kind: 'area', id: area.id });
</script>

<div class="sheet pad stack">
  <h2 class="sr-only">{area.name}</h2>
  <div class="grid-form" style:--field="9rem">
    <Field label="Name" value={area.name} commit={(name) => change({ name: name.trim() })} />
    <Choice label="Kind" value={area.kind} options={AREA_OPTIONS} set={(kind) => change({ kind })} />
    <Choice
      label="Location"
      value={area.location}
      options={LOCATION_OPTIONS}
      set={(location) => change({ location })}
    />
  </div>
  <Tabs
    label="Part of {area.name}"
    value={part}
    options={[
      { value: 'walls', name: 'Walls' },
      { value: 'openings', name: 'Doors', count: session.view.ownOpeningsIn(area).length },
      { value: 'fixtures', name: 'Fixtures', count: session.view.fixturesIn(area).length },
      { value: 'outlets', name: 'Outlets', count: session.view.boxesIn(area).length },
      { value: 'wall-view', name: 'Wall view' },
    ]}
    set={(p) => address.show({ part: p })}
  />
  {#if part === 'walls'}
    <RoomWalls {area} />
    <details>
      <summary>Height, conditions, pictures</summary>
      <RoomConditions {area} />
      <Pictures about={{ table: 'areas', id: area.id }} name={area.name} />
    </details>
    <details>
      <summary>Where {area.name} stands; copy, mirror</summary>
      <RoomPlacing {area} {change} {copy} />
    </details>
  {:else if area.walls.length === 0 && part !== 'outlets'}
    <p>Type the walls first; these stand on them. Outlets may be put down in words before that.</p>
  {:else if part === 'openings'}
    <RoomOpenings {area} />
  {:else if part === 'fixtures'}
    <RoomFixtures
      {area}
      chosenId={fixtureId}
      choose={(id) => choose(id === null ? room : { kind: 'fixture', id })}
    />
  {:else if part === 'outlets'}
    <RoomOutlets
      {area}
      chosenId={boxId}
      choose={(id) => choose(id === null ? room : { kind: 'boxes', ids: [id] })}
    />
  {:else}
    {#key area.id}<WallElevation {area} />{/key}
  {/if}
</div>

<style>
  details {
    border-top: 1px solid var(--rule);
    padding-top: 0.4rem;
  }
</style>
