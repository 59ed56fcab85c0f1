<script lang="ts">
  import { isWater } from '#core/tables/fixtures.ts';
  import { cordTo } from '#core/plan/reach.ts';
  import { decisionsFor } from '#core/code/decisions.ts';
  import type { CordPath } from '#core/plan/cord.ts';
  import { isReceptacle } from '#core/plan/wallSpaces.ts';
  import { MAX_WALL, type Area, type Box, type Fixture } from '#core/job/schema.ts';
  import { rows } from '#core/job/document.ts';
  import { formatLength } from '#core/units/length.ts';
  import {
    COVER_OPTIONS,
    MOUNT_OPTIONS,
    PURPOSE_OPTIONS,
    SWITCHED_OPTIONS,
    TAB_OPTIONS,
    VOLTS_OPTIONS,
  } from '../../names.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';
  import Decisions from '../Decisions.svelte';
  import LengthField from '../LengthField.svelte';
  import OutletFields from '../OutletFields.svelte';
  import Check from '../Check.svelte';
  import BoxFields from './BoxFields.svelte';
  import SeenFields from './SeenFields.svelte';

  interface Props {
    box: Box;
    area: Area;
    /** Draws ways of cords on the plan, or takes them away. */
    showCord: (paths: CordPath[]) => void;
  }
  let { box, area, showCord }: Props = $props();

  /** Cords are followed this far when their way is asked for, inches. */
  const FOLLOWED = 240;

  const session = useSession();
  const { document } = $derived(session);
  const put = (values: Partial<Box>) =>
    session.attempt({ type: 'put', table: 'boxes', rows: [{ ...box, ...values }] });
  const putDevice = (values: Partial<Box['device']>) => put({ device: { ...box.device, ...values } });
  const plug = $derived(isReceptacle(box));

  const NONE = '';
  const choices = (list: readonly Fixture[]) => [
    { value: NONE, name: 'Nothing in particular' },
    ...list.map((f) => ({ value: f.id, name: f.name })),
  ];
  const inRoom = $derived(session.view.fixturesIn(area));
  const served = $derived(choices(inRoom.filter((f) => f.connection !== 'none')));
  const mountedOn = $derived(
    choices(inRoom.filter((f) => ['island', 'peninsula', 'counter', 'basin'].includes(f.kind))),
  );
  const lights = $derived(
    rows(document.boxes).filter(
      (b) => b.id !== box.id && (b.device.kind === 'light' || b.device.switched !== 'none'),
    ),
  );

  let cordText = $state('');
  $effect(() => {
    void box.id;
    cordText = '';
  });
  function followCords() {
    const found = session.view
      .areasOn(area.levelId)
      .flatMap((a) => session.view.fixturesIn(a))
      .filter((f) => isWater(f) && f.status !== 'remove')
      .flatMap((f) => {
        const path = cordTo(session.view, box, f, FOLLOWED);
        return path ? [{ fixture: f, path }] : [];
      })
      .sort((a, b) => a.path.distance - b.path.distance);
    cordText =
      found.length === 0
        ? `no sink, tub or shower within ${formatLength(FOLLOWED)} of cord on this level`
        : found.map((f) => `${formatLength(f.path.distance)} to the ${f.fixture.name}`).join(', ');
    showCord(found.map((f) => f.path));
  }
</script>

<div class="sheet pad stack">
  <h2>{box.name}, {area.name}</h2>
  <OutletFields {box} {area} />
  <details>
    <summary>Mounting, purpose, what it serves</summary>
    <div class="grid-form" style:--field="9.5rem">
      <Choice label="Mounted" value={box.mount} options={MOUNT_OPTIONS} set={(mount) => put({ mount })} />
      <LengthField
        label="Out from wall"
        inches={box.fromWall}
        options={{ bare: 'inches', max: MAX_WALL }}
        set={(fromWall) => put({ fromWall: fromWall! })}
      />
      {#if plug}
        <Choice
          label="Voltage"
          value={box.device.volts}
          options={VOLTS_OPTIONS}
          set={(volts) => putDevice({ volts })}
        />
        <Choice
          label="Cover"
          value={box.device.cover}
          options={COVER_OPTIONS}
          set={(cover) => putDevice({ cover })}
        />
        {#if box.device.kind === 'duplex'}
          <Choice
            label="Tabs between halves"
            value={box.device.tabs}
            options={TAB_OPTIONS}
            set={(tabs) => putDevice({ tabs })}
          />
        {/if}
        <Choice
          label="Contacts"
          value={box.device.switched}
          options={SWITCHED_OPTIONS}
          set={(switched) => putDevice({ switched })}
        />
        <Choice
          label="Purpose"
          value={box.purpose}
          options={PURPOSE_OPTIONS}
          set={(purpose) => put({ purpose })}
        />
        <Choice
          label="In or on"
          value={box.fixtureId ?? NONE}
          options={mountedOn}
          set={(id) => put({ fixtureId: id === NONE ? null : id })}
        />
      {/if}
      {#if plug || box.device.kind === 'hardwired'}
        <Choice
          label="Serves"
          value={box.serves ?? NONE}
          options={served}
          set={(id) => put({ serves: id === NONE ? null : id })}
        />
        {#if box.device.kind === 'duplex' && box.serves !== null}
          <Choice
            label="Its other half serves"
            value={box.alsoServes ?? NONE}
            options={served}
            set={(id) => put({ alsoServes: id === NONE ? null : id })}
          />
        {/if}
      {/if}
      <LengthField
        label="Cord to water, measured"
        optional
        inches={box.waterDistance}
        options={{ max: 1200 }}
        hint="empty: by plan"
        set={(waterDistance) => put({ waterDistance })}
      />
    </div>
    <div class="flags">
      {#if plug}
        <Check
          label="Tamper-resistant"
          checked={box.device.tamperResistant}
          set={(tamperResistant) => putDevice({ tamperResistant })}
        />
        <Check
          label="Weather-resistant"
          checked={box.device.weatherResistant}
          set={(weatherResistant) => putDevice({ weatherResistant })}
        />
        {#if box.device.switched !== 'none'}
          <Check
            label="By an automatic device"
            checked={box.device.automatic}
            set={(automatic) => putDevice({ automatic })}
          />
          <Check
            label="Marked “Controlled”"
            checked={box.device.markedControlled}
            set={(markedControlled) => putDevice({ markedControlled })}
          />
        {/if}
      {/if}
      <Check label="Within reach" checked={box.accessible} set={(accessible) => put({ accessible })} />
    </div>
    {#if box.device.kind === 'switch'}
      <fieldset>
        <legend>Controls</legend>
        {#each lights as light (light.id)}
          <Check
            label="{light.name}, {document.areas[light.areaId]?.name ?? ''}"
            checked={box.controls.includes(light.id)}
            set={(on) =>
              put({
                controls: on ? [...box.controls, light.id] : box.controls.filter((c) => c !== light.id),
              })}
          />
        {:else}
          <p class="quiet">No light and no switched receptacle on record yet.</p>
        {/each}
      </fieldset>
    {/if}
  </details>
  <BoxFields {box} />
  <SeenFields {box} />
  <Decisions decisions={decisionsFor(session.view, box)} />
  {#if plug}
    <div class="cord">
      <Act onclick={followCords}>Follow a cord to water</Act>
      {#if cordText}<p role="status">{cordText}</p>{/if}
    </div>
  {/if}
</div>

<style>
  details {
    border-top: 1px solid var(--rule);
    padding-top: 0.4rem;
  }
  .flags {
    display: flex;
    flex-wrap: wrap;
    gap: 0 1.25rem;
    margin-top: 0.4rem;
  }
  fieldset {
    border: 1px solid var(--rule);
    padding: 0.25rem 0.75rem 0.5rem;
    max-height: 14rem;
    overflow: auto;
  }
  legend {
    font-weight: 700;
    padding: 0 0.3rem;
  }
  .cord {
    display: flex;
    flex-wrap: wrap;
    gap: 0.6rem;
    align-items: center;
  }
</style>
