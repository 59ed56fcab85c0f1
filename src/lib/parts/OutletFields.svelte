<script lang="ts">
  import { isReceptacle } from '#core/plan/wallSpaces.ts';
  import { MAX_WALL, type Area, type Box } from '#core/job/schema.ts';
  import { buildsOf, DEVICE_OPTIONS, GROUNDING_OPTIONS, RATING_OPTIONS, STATUS_OPTIONS } from '../names.ts';
  import { useSession } from '../store/session.svelte.ts';
  import InTheBox from './boxes/InTheBox.svelte';
  import Choice from './Choice.svelte';
  import Field from './Field.svelte';
  import LengthField from './LengthField.svelte';

  /** What is asked of every outlet, whether found or planned: its name, place, device and ground. */
  let { box, area }: { box: Box; area: Area } = $props();

  const session = useSession();
  const wall = $derived(area.walls.find((w) => w.id === box.wallId));
  const put = (values: Partial<Box>) =>
    session.attempt({ type: 'put', table: 'boxes', rows: [{ ...box, ...values }] });
  const putDevice = (values: Partial<Box['device']>) => put({ device: { ...box.device, ...values } });
  const move = async (offset: number): Promise<string | null> =>
    box.wallId === null
      ? 'expected an outlet that is on the plan'
      : session.attempt({ type: 'move-box', id: box.id, wallId: box.wallId, offset });
</script>

<div class="grid-form" style:--field="7.5rem">
  <Field label="Name" value={box.name} commit={(name) => put({ name: name.trim() })} />
  <LengthField
    label="From wall start"
    inches={box.offset}
    options={{ max: MAX_WALL }}
    set={(offset) => move(offset!)}
  />
  {#if wall}
    <LengthField
      label="From wall end"
      inches={wall.length - box.offset}
      options={{ max: wall.length }}
      set={(rest) => move(wall.length - rest!)}
    />
  {/if}
  <LengthField
    label="Height"
    inches={box.height}
    options={{ bare: 'inches', max: 480 }}
    set={(height) => put({ height: height! })}
  />
  <Choice
    label="Device"
    value={box.device.kind}
    options={DEVICE_OPTIONS}
    set={(kind) => putDevice({ kind, build: 'usual' })}
  />
  {#if buildsOf(box.device.kind).length > 1}
    <Choice
      label="Built"
      value={box.device.build}
      options={buildsOf(box.device.kind)}
      set={(build) => putDevice({ build })}
    />
  {/if}
  {#if isReceptacle(box)}
    <Choice
      label="Rating"
      value={box.device.rating}
      options={RATING_OPTIONS}
      set={(rating) => putDevice({ rating })}
    />
  {/if}
  <Choice label="Work" value={box.status} options={STATUS_OPTIONS} set={(status) => put({ status })} />
  <Choice
    label="Ground"
    value={box.grounding}
    options={GROUNDING_OPTIONS}
    set={(grounding) => put({ grounding })}
  />
</div>
<InTheBox boxId={box.id} />
