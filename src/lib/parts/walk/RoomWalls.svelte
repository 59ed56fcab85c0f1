<script lang="ts">
  import { newId } from '#core/job/document.ts';
  import { crossingWalls, isClosed, outlineOf } from '#core/job/outline.ts';
  import { MAX_WALL, MIN_WALL, type Area, type Wall } from '#core/job/schema.ts';
  import { describeTurn, parseWall } from '#core/job/wallEntry.ts';
  import { formatInches, formatLength } from '#core/units/length.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Field from '../Field.svelte';
  import LengthField from '../LengthField.svelte';
  import NumberField from '../NumberField.svelte';

  let { area }: { area: Area } = $props();

  const session = useSession();
  const outline = $derived(outlineOf(area));
  const openings = $derived(session.view.ownOpeningsIn(area));
  const boxes = $derived(session.view.boxesIn(area));
  const fixtures = $derived(session.view.fixturesIn(area));

  const change = (values: Partial<Area>) =>
    session.attempt({ type: 'put', table: 'areas', rows: [{ ...area, ...values }] });
  const changeWall = (wall: Wall, values: Partial<Wall>) =>
    change({ walls: area.walls.map((w) => (w.id === wall.id ? { ...w, ...values } : w)) });

  async function addWall(text: string): Promise<string | null> {
    const parsed = parseWall(text);
    if (!parsed.ok) return parsed.message;
    return change({ walls: [...area.walls, { id: newId('wall'), ...parsed.value }] });
  }

  /** Adds the wall that leads straight back to the first corner. */
  async function closeWithWall() {
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
</script>

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
                table: 'fixtures',
                ids: fixtures.filter((f) => f.wallId === wall.id).map((f) => f.id),
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
      ✓ Closes within {formatInches(outline.closing.distance)} · {Math.round(outline.floor / 144)} ft² of floor
    </p>
  {:else}
    <p class="open">
      Not closed: {formatLength(outline.closing.distance)} to go ({formatInches(
        Math.abs(outline.closing.east),
      )}
      {outline.closing.east >= 0 ? 'east' : 'west'}, {formatInches(Math.abs(outline.closing.south))}
      {outline.closing.south >= 0 ? 'south' : 'north'}). A closing error of 2" or less is taken as closed.
    </p>
    {#if outline.walls.length >= 2}<Act onclick={closeWithWall}>Close it with one more wall</Act>{/if}
  {/if}
</div>

<style>
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
  .walls li > :global(button) {
    margin-top: 1.6rem;
  }
  .number {
    font-weight: 750;
    padding-top: 1.75rem;
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
</style>
