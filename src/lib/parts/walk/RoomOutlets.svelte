<script lang="ts">
  import { newId } from '../../../core/job/document.ts';
  import { MAX_WALL, type Area, type Box } from '../../../core/job/schema.ts';
  import { formatLength, parseLength } from '../../../core/units/length.ts';
  import { DEVICE_OPTIONS, GROUNDING_OPTIONS, RATING_OPTIONS, STATUS_OPTIONS } from '../../names.ts';
  import { nextBoxName } from '../../outlets.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';
  import Field from '../Field.svelte';
  import LengthField from '../LengthField.svelte';

  let { area }: { area: Area } = $props();

  const session = useSession();
  const document = $derived(session.document);
  const boxes = $derived(session.view.boxesIn(area));
  const wallOptions = $derived(
    area.walls.map((w, i) => ({ value: w.id, name: `Wall ${i + 1} (${formatLength(w.length)})` })),
  );
  const wallNumber = (wallId: string) => area.walls.findIndex((w) => w.id === wallId) + 1;
  const putBox = (next: Box) => session.attempt({ type: 'put', table: 'boxes', rows: [next] });

  let foundWall = $state('');
  const foundWallId = $derived(
    wallOptions.some((w) => w.value === foundWall) ? foundWall : (wallOptions[0]?.value ?? ''),
  );

  async function addFound(text: string): Promise<string | null> {
    const offset = parseLength(text, { max: MAX_WALL });
    if (!offset.ok) return offset.message;
    return putBox({
      id: newId('box'),
      name: nextBoxName(document, area),
      areaId: area.id,
      wallId: foundWallId,
      offset: offset.value,
      fromWall: 0,
      height: document.job.settings.receptacleHeight,
      status: 'existing',
      grounding: 'unknown',
      waterDistance: null,
      device: { kind: 'duplex', rating: 15, tamperResistant: false, weatherResistant: false },
      note: '',
    });
  }
</script>

<div class="sheet pad stack">
  <h2>Outlets found here</h2>
  <ul class="things">
    {#each boxes as b (b.id)}
      <li>
        <Field label="Name" value={b.name} commit={(name) => putBox({ ...b, name: name.trim() })} />
        <LengthField
          label="Wall {wallNumber(b.wallId)}, at"
          inches={b.offset}
          options={{ max: MAX_WALL }}
          set={(offset) => putBox({ ...b, offset: offset! })}
        />
        <LengthField
          label="Height"
          inches={b.height}
          options={{ bare: 'inches', max: 240 }}
          set={(height) => putBox({ ...b, height: height! })}
        />
        <Choice
          label="Device"
          value={b.device.kind}
          options={DEVICE_OPTIONS}
          set={(kind) => putBox({ ...b, device: { ...b.device, kind } })}
        />
        <Choice
          label="Rating"
          value={b.device.rating}
          options={RATING_OPTIONS}
          set={(rating) => putBox({ ...b, device: { ...b.device, rating } })}
        />
        <Choice
          label="Ground"
          value={b.grounding}
          options={GROUNDING_OPTIONS}
          set={(grounding) => putBox({ ...b, grounding })}
        />
        <Choice
          label="Work"
          value={b.status}
          options={STATUS_OPTIONS}
          set={(status) => putBox({ ...b, status })}
        />
        <LengthField
          label="Cord to water"
          optional
          inches={b.waterDistance}
          options={{ max: 1200 }}
          hint="sink, tub, shower"
          set={(waterDistance) => putBox({ ...b, waterDistance })}
        />
        <Act
          kind="danger"
          label="Remove {b.name}"
          onclick={() => session.execute({ type: 'remove', table: 'boxes', ids: [b.id] })}>✕</Act
        >
      </li>
    {/each}
  </ul>
  <div class="grid-form" style:--field="11rem">
    <Choice label="On" value={foundWallId} options={wallOptions} set={(w) => (foundWall = w)} />
    {#key area.id}
      <Field
        label="Existing outlet, from wall start"
        value=""
        clears
        placeholder="5' 2&quot;"
        hint="Enter records it"
        commit={addFound}
      />
    {/key}
  </div>
</div>

<style>
  li {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(7.6rem, 1fr));
    gap: 0.5rem;
    align-items: start;
    padding: 0.6rem 0;
    border-bottom: 1px solid var(--rule);
  }
  li > :global(button) {
    margin-top: 1.6rem;
  }
</style>
