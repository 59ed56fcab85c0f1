<script lang="ts">
  import { newId, rows } from '../../../../core/job/document.ts';
  import { crossingWalls, isClosed, outlineOf } from '../../../../core/job/outline.ts';
  import {
    DWELLINGS,
    MAX_WALL,
    MIN_WALL,
    type Area,
    type Box,
    type Opening,
    type OpeningKind,
    type Wall,
  } from '../../../../core/job/schema.ts';
  import { describeTurn, parseWall } from '../../../../core/job/wallEntry.ts';
  import { formatInches, formatLength, parseLength } from '../../../../core/units/length.ts';
  import Act from '$lib/parts/Act.svelte';
  import Choice from '$lib/parts/Choice.svelte';
  import Field from '$lib/parts/Field.svelte';
  import LengthField from '$lib/parts/LengthField.svelte';
  import LevelTabs from '$lib/parts/LevelTabs.svelte';
  import NumberField from '$lib/parts/NumberField.svelte';
  import PlanDrawing from '$lib/parts/PlanDrawing.svelte';
  import {
    AREA_OPTIONS,
    DEVICE_OPTIONS,
    GROUNDING_OPTIONS,
    HINGE_OPTIONS,
    LOCATION_OPTIONS,
    OPENING_NAMES,
    OPENING_OPTIONS,
    RATING_OPTIONS,
    STATUS_OPTIONS,
  } from '$lib/names.ts';
  import { firstLevel } from '$lib/levels.ts';
  import { nextBoxName } from '$lib/outlets.ts';
  import { useSession } from '$lib/store/session.svelte.ts';

  const session = useSession();
  const document = $derived(session.document);
  const areas = $derived(rows(document.areas));

  let chosenId = $state<string | null>(null);
  const area = $derived(
    (chosenId !== null && document.areas[chosenId]) ||
      areas.find((a) => a.levelId === (levelChosen ?? firstLevel(document))) ||
      null,
  );
  let levelChosen = $state<string | null>(null);
  const levelId = $derived(levelChosen ?? area?.levelId ?? firstLevel(document));

  const outline = $derived(area && outlineOf(area));
  const openings = $derived(area ? session.view.openingsIn(area) : []);
  const boxes = $derived(area ? session.view.boxesIn(area) : []);
  const wallOptions = $derived(
    area?.walls.map((w, i) => ({ value: w.id, name: `Wall ${i + 1} (${formatLength(w.length)})` })) ?? [],
  );
  const wallNumber = (wallId: string) => (area?.walls.findIndex((w) => w.id === wallId) ?? -1) + 1;

  const putArea = (next: Area) => session.attempt({ type: 'put', table: 'areas', rows: [next] });
  const change = (values: Partial<Area>) => (area ? putArea({ ...area, ...values }) : Promise.resolve(null));
  const changeWall = (wall: Wall, values: Partial<Wall>) =>
    change({ walls: area!.walls.map((w) => (w.id === wall.id ? { ...w, ...values } : w)) });
  const putOpening = (next: Opening) => session.attempt({ type: 'put', table: 'openings', rows: [next] });
  const putBox = (next: Box) => session.attempt({ type: 'put', table: 'boxes', rows: [next] });

  async function addRoom() {
    const onLevel = areas.filter((a) => a.levelId === levelId);
    const x = Math.max(
      0,
      ...onLevel.flatMap((a) => outlineOf(a).walls.map((w) => Math.max(w.from.x, w.to.x) + 36)),
    );
    const room: Area = {
      id: newId('area'),
      levelId,
      name: `Room ${areas.length + 1}`,
      kind: 'bedroom',
      x,
      y: 0,
      heading: 0,
      location: 'dry',
      walls: [],
    };
    await session.execute({ type: 'put', table: 'areas', rows: [room] });
    chosenId = room.id;
  }

  async function addWall(text: string): Promise<string | null> {
    const parsed = parseWall(text);
    if (!parsed.ok) return parsed.message;
    return change({ walls: [...area!.walls, { id: newId('wall'), ...parsed.value }] });
  }

  /** Adds the wall that leads straight back to the first corner. */
  async function closeWithWall() {
    if (!area || !outline) return;
    const { east, south, distance } = outline.closing;
    const last = outline.walls.at(-1);
    if (!last) return;
    const heading = (Math.atan2(south, east) * 180) / Math.PI;
    const turnTo = (from: number, to: number) => ((((to - from + 180) % 360) + 360) % 360) - 180;
    const walls = area.walls.map((w) =>
      w.id === last.id ? { ...w, turn: turnTo(last.heading, heading) } : w,
    );
    await change({
      walls: [...walls, { id: newId('wall'), length: distance, turn: turnTo(heading, area.heading) }],
    });
  }

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
      areaId: area!.id,
      wallId: openingWallId,
      kind: openingKind,
      offset: offset.value,
      width: width.value,
      hinge: openingKind === 'door' ? 'start' : 'none',
    });
  }

  let foundWall = $state('');
  const foundWallId = $derived(
    wallOptions.some((w) => w.value === foundWall) ? foundWall : (wallOptions[0]?.value ?? ''),
  );

  async function addFound(text: string): Promise<string | null> {
    const offset = parseLength(text, { max: MAX_WALL });
    if (!offset.ok) return offset.message;
    return putBox({
      id: newId('box'),
      name: nextBoxName(document, area!),
      areaId: area!.id,
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

  async function addLevel() {
    const id = newId('level');
    const top = Math.max(...rows(document.levels).map((l) => l.elevation));
    await session.execute({
      type: 'put',
      table: 'levels',
      rows: [{ id, name: `Level ${rows(document.levels).length + 1}`, elevation: top + 102 }],
    });
    levelChosen = id;
  }
  const level = $derived(document.levels[levelId]);
  const panel = $derived(rows(document.panels)[0]);
</script>

<main>
  <section class="entry">
    <div class="sheet block">
      <div class="head">
        <h1>Rooms</h1>
        <LevelTabs
          {document}
          {levelId}
          choose={(id) => {
            levelChosen = id;
            chosenId = areas.find((a) => a.levelId === id)?.id ?? null;
          }}
        />
        <Act onclick={addLevel}>Add level</Act>
      </div>
      <div class="rooms">
        {#each areas.filter((a) => a.levelId === levelId) as a (a.id)}
          <Act pressed={a.id === area?.id} onclick={() => (chosenId = a.id)}>{a.name}</Act>
        {/each}
        <Act kind="main" onclick={addRoom}>Add room</Act>
      </div>
    </div>

    {#if area && outline && area.levelId === levelId}
      <div class="sheet block stack">
        <h2>{area.name}</h2>
        <div class="grid">
          <Field label="Name" value={area.name} commit={(name) => change({ name: name.trim() })} />
          <Choice label="Kind" value={area.kind} options={AREA_OPTIONS} set={(kind) => change({ kind })} />
          <Choice
            label="Location"
            value={area.location}
            options={LOCATION_OPTIONS}
            set={(location) => change({ location })}
          />
        </div>
        <h3>Walls, walked in order</h3>
        <p class="quiet small">
          A length, then the turn at its end: <code>12' 6 1/2"</code>, <code>12-6 L</code>,
          <code>150in R45</code>. No turn means right 90°. Walls are numbered on the plan.
        </p>
        <ol class="walls">
          {#each area.walls as wall, i (wall.id)}
            <li>
              <span class="number">{i + 1}</span>
              <LengthField
                label="Wall {i + 1}"
                inches={wall.length}
                options={{ min: MIN_WALL, max: MAX_WALL }}
                set={(length) => changeWall(wall, { length: length! })}
              />
              <NumberField
                label="Turn"
                unit={describeTurn(wall.turn).toLowerCase()}
                value={wall.turn}
                min={-180}
                max={180}
                set={(turn) => changeWall(wall, { turn: turn! })}
              />
              <Act
                kind="danger"
                label="Remove wall {i + 1}"
                onclick={() =>
                  session.execute({
                    type: 'batch',
                    label: `Remove wall ${i + 1}`,
                    commands: [
                      {
                        type: 'remove',
                        table: 'openings',
                        ids: openings.filter((o) => o.wallId === wall.id).map((o) => o.id),
                      },
                      {
                        type: 'remove',
                        table: 'boxes',
                        ids: boxes.filter((b) => b.wallId === wall.id).map((b) => b.id),
                      },
                      {
                        type: 'put',
                        table: 'areas',
                        rows: [{ ...area, walls: area.walls.filter((w) => w.id !== wall.id) }],
                      },
                    ],
                  })}>✕</Act
              >
            </li>
          {/each}
        </ol>
        {#key area.id}
          <Field
            label="Next wall"
            value=""
            clears
            placeholder="12' 6 1/2&quot;"
            commit={addWall}
            hint="Enter adds it"
          />
        {/key}
        <div class="closing" role="status">
          {#if outline.walls.length === 0}
            <p>Start at any corner and walk with the wall on your left.</p>
          {:else if crossingWalls(outline)}
            {@const [a, b] = crossingWalls(outline)!}
            <p class="bad">Walls {a + 1} and {b + 1} cross. Check their lengths and turns.</p>
          {:else if isClosed(outline)}
            <p class="good">
              ✓ Closes within {formatInches(outline.closing.distance)} · {Math.round(outline.floor / 144)} ft² of
              floor
            </p>
          {:else}
            <p class="open">
              Not closed: {formatLength(outline.closing.distance)} to go ({formatInches(
                Math.abs(outline.closing.east),
              )}
              {outline.closing.east >= 0 ? 'east' : 'west'}, {formatInches(Math.abs(outline.closing.south))}
              {outline.closing.south >= 0 ? 'south' : 'north'}). A closing error of 2" or less is taken as
              closed.
            </p>
            {#if outline.walls.length >= 2}<Act onclick={closeWithWall}>Close it with one more wall</Act>{/if}
          {/if}
        </div>
      </div>

      {#if area.walls.length > 0}
        <div class="sheet block stack">
          <h2>Doors, glass, fireplaces, cabinets</h2>
          <ul class="things">
            {#each openings as o (o.id)}
              <li>
                <p><strong>{OPENING_NAMES[o.kind]}</strong> on wall {wallNumber(o.wallId)}</p>
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
          <div class="grid">
            <Choice
              label="Kind"
              value={openingKind}
              options={OPENING_OPTIONS}
              set={(k) => (openingKind = k)}
            />
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

        <div class="sheet block stack">
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
          <div class="grid">
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
      {/if}

      <details class="sheet block">
        <summary>Where {area.name} stands in the house</summary>
        <div class="grid">
          <LengthField
            label="First corner, east of plan zero"
            inches={area.x}
            set={(x) => change({ x: x! })}
          />
          <LengthField
            label="First corner, south of plan zero"
            inches={area.y}
            set={(y) => change({ y: y! })}
          />
          <NumberField
            label="First wall runs"
            unit="° from east, clockwise"
            value={area.heading}
            min={-360}
            max={360}
            set={(heading) => change({ heading: heading! })}
          />
        </div>
        <div class="row">
          <Act
            kind="danger"
            onclick={() => session.execute({ type: 'remove', table: 'areas', ids: [area.id] })}
            >Remove {area.name}</Act
          >
        </div>
      </details>
    {/if}

    <details class="sheet block">
      <summary>House, level and panel</summary>
      <div class="grid">
        <Field
          label="Job name"
          value={document.job.name}
          commit={(name) => session.attempt({ type: 'edit-job', values: { name: name.trim() } })}
        />
        <Field
          label="Address"
          value={document.job.address}
          commit={(address) => session.attempt({ type: 'edit-job', values: { address } })}
        />
        <Choice
          label="Dwelling"
          value={document.job.dwelling}
          options={DWELLINGS.map((d) => ({ value: d, name: d.replace('-', ' ') }))}
          set={(dwelling) => session.execute({ type: 'edit-job', values: { dwelling } })}
        />
        {#if level}
          <Field
            label="Level name"
            value={level.name}
            commit={(name) =>
              session.attempt({ type: 'put', table: 'levels', rows: [{ ...level, name: name.trim() }] })}
          />
          <NumberField
            label="Floor height"
            unit="in, from grade"
            value={level.elevation}
            min={-600}
            max={1200}
            set={(elevation) =>
              session.attempt({ type: 'put', table: 'levels', rows: [{ ...level, elevation: elevation! }] })}
          />
        {/if}
        {#if panel}
          <Field
            label="Panel name"
            value={panel.name}
            commit={(name) =>
              session.attempt({ type: 'put', table: 'panels', rows: [{ ...panel, name: name.trim() }] })}
          />
          <Choice
            label="Panel on"
            value={panel.levelId}
            options={rows(document.levels).map((l) => ({ value: l.id, name: l.name }))}
            set={(id) => session.execute({ type: 'put', table: 'panels', rows: [{ ...panel, levelId: id }] })}
          />
          <LengthField
            label="Panel, east"
            inches={panel.x}
            options={{ max: 24000 }}
            set={(x) => session.attempt({ type: 'put', table: 'panels', rows: [{ ...panel, x: x! }] })}
          />
          <LengthField
            label="Panel, south"
            inches={panel.y}
            options={{ max: 24000 }}
            set={(y) => session.attempt({ type: 'put', table: 'panels', rows: [{ ...panel, y: y! }] })}
          />
          <NumberField
            label="Main"
            unit="A"
            value={panel.mainRating}
            min={30}
            max={400}
            set={(mainRating) =>
              session.attempt({
                type: 'put',
                table: 'panels',
                rows: [{ ...panel, mainRating: mainRating! }],
              })}
          />
          <NumberField
            label="Spaces"
            value={panel.spaces}
            min={2}
            max={84}
            set={(spaces) =>
              session.attempt({ type: 'put', table: 'panels', rows: [{ ...panel, spaces: spaces! }] })}
          />
        {/if}
      </div>
    </details>
  </section>

  <section class="plan sheet" aria-label="Plan">
    {#if areas.some((a) => a.levelId === levelId && a.walls.length > 0)}
      <PlanDrawing
        view={session.view}
        {levelId}
        coverage={false}
        selected={area ? { kind: 'area', id: area.id } : null}
        onselect={(s) => s?.kind === 'area' && (chosenId = s.id)}
      />
    {:else}
      <div class="empty">
        <p><strong>No walls on this level yet.</strong></p>
        <p>Add a room, then type its walls as you walk them. The plan draws itself here.</p>
      </div>
    {/if}
  </section>
</main>

<style>
  main {
    display: grid;
    grid-template-columns: minmax(24rem, 34rem) 1fr;
    gap: 0.75rem;
    padding: 0.75rem;
    flex: 1;
    align-items: start;
  }
  .entry {
    display: grid;
    gap: 0.75rem;
    min-width: 0;
  }
  .block {
    padding: 0.75rem 1rem 1rem;
  }
  .head,
  .rooms,
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    align-items: center;
  }
  .rooms,
  .row {
    margin-top: 0.6rem;
  }
  .grid {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
    gap: 0.6rem;
    align-items: start;
  }
  .small {
    font-size: 0.9rem;
  }
  .walls li {
    display: grid;
    grid-template-columns: 1.6rem 1fr 1fr auto;
    gap: 0.6rem;
    align-items: start;
    padding: 0.3rem 0;
  }
  .walls :global(.unit) {
    font-size: 0.85em;
  }
  .walls li :global(button),
  .things li > :global(button) {
    margin-top: 1.6rem;
  }
  .number {
    font-weight: 750;
    padding-top: 1.75rem;
  }
  .things li {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(7.6rem, 1fr));
    gap: 0.5rem;
    align-items: start;
    padding: 0.6rem 0;
    border-bottom: 1px solid var(--rule);
  }
  .things li > p {
    align-self: center;
  }
  .closing {
    padding: 0.5rem 0.75rem;
    border-left: 5px solid var(--edge);
    background: var(--panel);
    display: grid;
    gap: 0.5rem;
    justify-items: start;
  }
  .good {
    color: var(--good);
    font-weight: 700;
  }
  .bad {
    color: var(--bad);
    font-weight: 700;
  }
  .open {
    color: var(--unknown);
    font-weight: 600;
  }
  .plan {
    position: sticky;
    top: 0.75rem;
    height: calc(100dvh - 6rem);
  }
  .empty {
    display: grid;
    place-content: center;
    height: 100%;
    text-align: center;
    padding: 2rem;
  }
  summary {
    font-weight: 700;
    min-height: 36px;
    cursor: pointer;
  }
  @media (max-width: 900px) {
    main {
      grid-template-columns: minmax(0, 1fr);
      padding: 0.5rem;
    }
    .plan {
      position: static;
      height: 60vh;
      order: -1;
    }
  }
</style>
