<script lang="ts">
  import { roomsBeyond, openingsIn } from '#core/plan/joined.ts';
  import { edgesOf, newId } from '#core/job/document.ts';
  import { MAX_WALL, type Area, type Opening, type OpeningKind } from '#core/job/schema.ts';
  import { formatLength, parseLength } from '#core/units/length.ts';
  import { HINGE_OPTIONS, OPENING_NAMES, OPENING_OPTIONS } from '../../names.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';
  import Field from '../Field.svelte';
  import LengthField from '../LengthField.svelte';

  let { area }: { area: Area } = $props();

  const session = useSession();
  const openings = $derived(session.view.ownOpeningsIn(area));
  const wallOptions = $derived(
    area.walls.map((w, i) => ({ value: w.id, name: `Wall ${i + 1} (${formatLength(w.length)})` })),
  );
  const wallNumber = (wallId: string) => area.walls.findIndex((w) => w.id === wallId) + 1;
  /** Where a door leads, when a room stands on its other side. */
  const beyond = (o: Opening): string => {
    const rooms = roomsBeyond(session.view, area, o);
    return rooms.length > 0 ? `, to ${rooms.map((r) => r.name).join(', ')}` : '';
  };
  const images = $derived(
    openingsIn(session.view, area).filter((o) => !openings.some((own) => own.id === o.id)),
  );
  const putOpening = (next: Opening) => session.attempt({ type: 'put', table: 'openings', rows: [next] });

  let openingKind = $state<OpeningKind>('door');
  let openingWall = $state('');
  const openingWallId = $derived(
    wallOptions.some((w) => w.value === openingWall) ? openingWall : (wallOptions[0]?.value ?? ''),
  );

  /** `3' 32` or `3-0, 32in`: how far along the wall, then how wide. */
  async function addOpening(text: string): Promise<string | null> {
    const [offsetText = '', widthText] = text.split(/[,;]/);
    const offset = parseLength(offsetText, { max: MAX_WALL });
    if (!offset.ok) return `distance: ${offset.message}`;
    if (widthText === undefined) return "width: expected a comma, then the width, as in 3', 32in";
    const width = parseLength(widthText, { bare: 'inches', min: 1, max: MAX_WALL });
    if (!width.ok) return `width: ${width.message}`;
    return putOpening({
      id: newId('opening'),
      areaId: area.id,
      wallId: openingWallId,
      kind: openingKind,
      offset: offset.value,
      width: width.value,
      hinge: openingKind === 'door' ? 'start' : 'none',
      ...edgesOf(openingKind, area.ceilingHeight),
    });
  }
</script>

<div class="stack">
  <h3>Doors, glass, fireplaces, cabinets</h3>
  <ul class="things">
    {#each openings as o (o.id)}
      <li>
        <p>
          <strong>{OPENING_NAMES[o.kind]}</strong> on wall {wallNumber(o.wallId)}{beyond(o)}
        </p>
        <LengthField
          label="From wall start"
          inches={o.offset}
          options={{ max: MAX_WALL }}
          set={(offset) => putOpening({ ...o, offset: offset! })}
        />
        <LengthField
          label="Width"
          inches={o.width}
          options={{ bare: 'inches', min: 1, max: MAX_WALL }}
          set={(width) => putOpening({ ...o, width: width! })}
        />
        {#if o.kind === 'window' || o.kind === 'blocked'}
          <LengthField
            label="Lower edge"
            inches={o.bottom}
            options={{ bare: 'inches', max: 480 }}
            set={(bottom) => putOpening({ ...o, bottom: bottom! })}
          />
          <LengthField
            label="Upper edge"
            inches={o.top}
            options={{ bare: 'inches', max: 480 }}
            set={(top) => putOpening({ ...o, top: top! })}
          />
        {/if}
        {#if o.kind === 'door'}
          <Choice
            label="Swings in, hung on"
            value={o.hinge}
            options={HINGE_OPTIONS}
            set={(hinge) => putOpening({ ...o, hinge })}
          />
        {/if}
        <Act
          kind="danger"
          label="Remove {OPENING_NAMES[o.kind]} on wall {wallNumber(o.wallId)}"
          onclick={() => session.execute({ type: 'remove', table: 'openings', ids: [o.id] })}>✕</Act
        >
      </li>
    {/each}
  </ul>
  {#if images.length > 0}
    <p class="quiet">
      From the other side: {images
        .map(
          (o) =>
            `${OPENING_NAMES[o.kind].toLowerCase()} on wall ${wallNumber(o.wallId)} at ${formatLength(o.offset)}`,
        )
        .join('; ')}.
    </p>
  {/if}
  <div class="grid-form" style:--field="11rem">
    <Choice label="Kind" value={openingKind} options={OPENING_OPTIONS} set={(k) => (openingKind = k)} />
    <Choice label="On" value={openingWallId} options={wallOptions} set={(w) => (openingWall = w)} />
    {#key area.id}
      <Field
        label="From wall start, width"
        value=""
        clears
        placeholder="3' 4&quot;, 32"
        hint="Enter adds it"
        commit={addOpening}
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
  li > p {
    align-self: center;
  }
</style>
