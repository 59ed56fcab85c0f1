<script lang="ts">
  import { boundsOf, boundsOfPoints } from '#core/job/outline.ts';
  import type { DxfDrawing, RoomsFromDxf } from '#core/formats/dxf.ts';
  import { outlinePath } from '../plan/shapes.ts';
  import { InvalidError } from '#core/job/validate.ts';
  import { formatLength, parseLength } from '#core/units/length.ts';
  import { download, fileName, readText } from '../../files.ts';
  import { readApart } from '../../workers/reader.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import PickFile from '../PickFile.svelte';
  import Field from '../Field.svelte';
  import Check from '../Check.svelte';

  let { levelId }: { levelId: string } = $props();

  const session = useSession();
  let drawing = $state.raw<DxfDrawing | null>(null);
  let name = $state('');
  let picked = $state.raw<readonly string[]>([]);
  /** The longest line of the drawing, as the person knows it, inches. */
  let known = $state<number | null>(null);
  let found = $state.raw<RoomsFromDxf | null>(null);
  let said = $state('');
  let problems = $state.raw<string[]>([]);

  const levelName = $derived(session.document.levels[levelId]?.name ?? '');

  async function attempt(work: () => Promise<string>) {
    said = '';
    problems = [];
    try {
      said = await work();
    } catch (error) {
      problems =
        error instanceof InvalidError
          ? error.problems.map((p) => `${p.path}: ${p.message}`)
          : [String(error)];
    }
  }

  /** Stops the reading of a plan that takes long. */
  let reading = $state.raw<AbortController | null>(null);
  const dxf = () => import('#core/formats/dxf.ts');
  const csv = () => import('#core/formats/outletsCsv.ts');

  const openDxf = (file: File) =>
    attempt(async () => {
      reading = new AbortController();
      try {
        drawing = await readApart('dxf', await readText(file), reading.signal);
      } finally {
        reading = null;
      }
      name = file.name;
      known = null;
      found = null;
      picked = drawing.layers
        .filter((l) => /wall|room/i.test(l.name) && !/name|text/i.test(l.name))
        .map((l) => l.name);
      if (picked.length === 0) picked = drawing.layers.slice(0, 1).map((l) => l.name);
      return '';
    });

  $effect(() => {
    const now = drawing;
    const layers = picked;
    // Without a known length a drawing unit is taken to be an inch.
    const scale = now && now.longest > 0 && known !== null ? known / now.longest : 1;
    if (!now) return;
    void dxf().then(({ roomsFromDxf }) => {
      if (drawing === now) found = roomsFromDxf(now, layers, scale, levelId);
    });
  });

  const bringIn = () =>
    attempt(async () => {
      const rooms = found?.rooms ?? [];
      const done = await session.execute({
        type: 'batch',
        label: `Bring in ${rooms.length} ${rooms.length === 1 ? 'room' : 'rooms'}`,
        commands: [{ type: 'put', table: 'areas', rows: rooms }],
      });
      if (!done) return '';
      drawing = null;
      found = null;
      return `${rooms.length} ${rooms.length === 1 ? 'room' : 'rooms'} brought in on ${levelName}. Say what each is; doors and fixtures come next.`;
    });

  const saveDxf = () =>
    attempt(async () => {
      const { levelToDxf } = await dxf();
      const end = `-${levelName.toLowerCase().replace(/[^a-z0-9]+/g, '-')}.dxf`;
      download(fileName(session.document.job, end), 'image/vnd.dxf', levelToDxf(session.document, levelId));
      return `${levelName} saved as DXF.`;
    });
  const saveCsv = () =>
    attempt(async () => {
      const { outletsToCsv } = await csv();
      download(fileName(session.document.job, '-outlets.csv'), 'text/csv', outletsToCsv(session.document));
      return 'Outlets saved as CSV.';
    });
  const openCsv = (file: File) =>
    attempt(async () => {
      const { outletsFromCsv } = await csv();
      const boxes = outletsFromCsv(await readText(file), session.document);
      const news = boxes.filter((b) => !session.document.boxes[b.id]).length;
      const done = await session.execute({
        type: 'batch',
        label: `Bring in ${boxes.length} outlets`,
        commands: [{ type: 'put', table: 'boxes', rows: boxes }],
      });
      return done
        ? `${boxes.length} outlets read: ${news} new, ${boxes.length - news} as the file has them.`
        : '';
    });

  const preview = $derived.by(() => {
    const rooms = found?.rooms ?? [];
    if (rooms.length === 0) return null;
    const b = boundsOfPoints(
      rooms.flatMap((r) => {
        const { left, top, right, bottom } = boundsOf(r);
        return [
          { x: left, y: top },
          { x: right, y: bottom },
        ];
      }),
    );
    return { rooms, box: `${b.left - 12} ${b.top - 12} ${b.right - b.left + 24} ${b.bottom - b.top + 24}` };
  });
</script>

<div class="stack">
  <div class="row">
    <PickFile label="DXF plan" accept=".dxf" take={openDxf}>Rooms from a DXF plan</PickFile>
    {#if reading}<Act onclick={() => reading?.abort()}>Stop reading</Act>{/if}
    <Act onclick={saveDxf}>Save {levelName} as DXF</Act>
    <PickFile label="Outlets CSV" accept=".csv,text/csv" take={openCsv}>Outlets from CSV</PickFile>
    <Act onclick={saveCsv}>Save outlets as CSV</Act>
  </div>
  {#if said}<p role="status" class="said">{said}</p>{/if}
  {#if problems.length > 0}
    <div role="alert" class="wrong">
      <p>Nothing was changed.</p>
      {#each problems as p (p)}<p>{p}</p>{/each}
    </div>
  {/if}
  {#if drawing}
    <div class="dxf">
      <h3>{name}</h3>
      <fieldset>
        <legend>Layers the walls are on</legend>
        {#each drawing.layers as layer (layer.name)}
          <Check
            label={layer.name}
            hint="{layer.lines.length} lines, {layer.rings.length} outlines"
            checked={picked.includes(layer.name)}
            set={(on) => (picked = on ? [...picked, layer.name] : picked.filter((l) => l !== layer.name))}
          />
        {/each}
      </fieldset>
      <Field
        label="The longest line in the drawing is really"
        unit="ft-in"
        value={known === null ? '' : formatLength(known)}
        placeholder={formatLength(drawing.longest)}
        hint="Empty: one drawing unit is an inch"
        commit={(text) => {
          if (text.trim() === '') {
            known = null;
            return null;
          }
          const length = parseLength(text, { min: 1, max: 24000 });
          if (!length.ok) return length.message;
          known = length.value;
          return null;
        }}
      />
      {#if drawing.leftOut.length > 0}<p class="quiet">Not read: {drawing.leftOut.join(', ')}.</p>{/if}
      {#if found}
        <p>
          <strong>{found.rooms.length}</strong>
          {found.rooms.length === 1 ? 'room' : 'rooms'} found{found.rooms.length > 0 ? ': ' : '.'}
          {found.rooms
            .map((r) => r.name)
            .slice(0, 12)
            .join(', ')}{found.rooms.length > 12 ? ' …' : ''}
        </p>
        {#each found.problems.slice(0, 8) as p (p)}<p class="unknown">? {p}</p>{/each}
      {/if}
      {#if preview}
        <svg viewBox={preview.box} role="img" aria-label="The rooms found">
          {#each preview.rooms as r (r.id)}<path d={outlinePath(r)} />{/each}
        </svg>
      {/if}
      <div class="row">
        <Act kind="main" disabled={!found || found.rooms.length === 0} onclick={bringIn}
          >Bring in {found?.rooms.length ?? 0} {found?.rooms.length === 1 ? 'room' : 'rooms'}</Act
        >
        <Act onclick={() => (drawing = null)}>Leave it</Act>
      </div>
    </div>
  {/if}
</div>

<style>
  .dxf {
    display: grid;
    gap: 0.6rem;
    padding: 0.6rem 0.75rem;
    background: var(--panel);
    border-left: 5px solid var(--copper);
  }
  fieldset {
    border: 1px solid var(--rule);
    padding: 0.25rem 0.75rem;
    max-height: 14rem;
    overflow: auto;
  }
  legend {
    font-weight: 700;
    padding: 0 0.3rem;
  }
  svg {
    width: 100%;
    max-height: 14rem;
    background: var(--sheet);
  }
  path {
    fill: color-mix(in srgb, var(--copper) 14%, var(--sheet));
    stroke: var(--ink);
    stroke-width: 2;
    vector-effect: non-scaling-stroke;
  }
  .said {
    color: var(--good);
    font-weight: 700;
  }
  .wrong {
    color: var(--bad);
    font-weight: 600;
    border-left: 6px solid var(--bad);
    padding-left: 0.75rem;
  }
  .unknown {
    color: var(--unknown);
    font-weight: 600;
  }
</style>
