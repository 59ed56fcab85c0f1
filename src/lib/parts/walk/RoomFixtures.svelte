<script lang="ts">
  import { newFixture } from '#core/plan/add.ts';
  import { FIXTURES } from '#core/tables/fixtures.ts';
  import { isIsland } from '#core/tables/fixtures.ts';
  import { MAX_WALL, type Area, type Fixture, type FixtureKind } from '#core/job/schema.ts';
  import { formatLength, parseLength } from '#core/units/length.ts';
  import { CONNECTION_OPTIONS, DISCONNECT_OPTIONS, FIXTURE_OPTIONS, STATUS_OPTIONS } from '../../names.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';
  import Field from '../Field.svelte';
  import LengthField from '../LengthField.svelte';
  import NameplateFields from '../NameplateFields.svelte';
  import Check from '../Check.svelte';

  let {
    area,
    chosenId,
    choose,
  }: { area: Area; chosenId: string | null; choose: (id: string | null) => void } = $props();

  const session = useSession();
  const fixtures = $derived(session.view.fixturesIn(area));
  const chosen = $derived(fixtures.find((f) => f.id === chosenId));
  const wallOptions = $derived(
    area.walls.map((w, i) => ({ value: w.id, name: `Wall ${i + 1} (${formatLength(w.length)})` })),
  );
  const wallNumber = (wallId: string) => area.walls.findIndex((w) => w.id === wallId) + 1;
  const put = (f: Fixture, values: Partial<Fixture>) =>
    session.attempt({ type: 'put', table: 'fixtures', rows: [{ ...f, ...values }] });

  let kind = $state<FixtureKind>('counter');
  let wall = $state('');
  const wallId = $derived(wallOptions.some((w) => w.value === wall) ? wall : (wallOptions[0]?.value ?? ''));

  /** `4' 2", 60`: its center from the wall's start, then its width where it is not the usual one. */
  async function add(text: string): Promise<string | null> {
    const [centerText = '', widthText] = text.split(',');
    const center = parseLength(centerText, { max: MAX_WALL });
    if (!center.ok) return `center: ${center.message}`;
    const width =
      widthText === undefined ? null : parseLength(widthText, { bare: 'inches', min: 1, max: MAX_WALL });
    if (width && !width.ok) return `width: ${width.message}`;
    const fixture = newFixture(
      session.view,
      area,
      kind,
      wallId,
      center.value,
      width?.ok ? width.value : null,
    );
    const problem = await session.attempt({ type: 'put', table: 'fixtures', rows: [fixture] });
    if (problem === null) choose(fixture.id);
    return problem;
  }
</script>

<div class="stack">
  <h3>Counters, fixtures, appliances</h3>
  {#if fixtures.length > 0}
    <div class="chips">
      {#each fixtures as f (f.id)}
        <Act pressed={f.id === chosenId} onclick={() => choose(f.id === chosenId ? null : f.id)}>{f.name}</Act
        >
      {/each}
    </div>
  {/if}
  {#if chosen}
    {@const f = chosen}
    <div class="one">
      <p class="quiet">
        {FIXTURES[f.kind].label}{f.wallId === null
          ? ', not on the plan'
          : ` on wall ${wallNumber(f.wallId)}`}. Drag it on the plan, or type where it stands.
      </p>
      <div class="grid-form" style:--field="8rem">
        <Field label="Name" value={f.name} commit={(name) => put(f, { name: name.trim() })} />
        <Choice
          label="Along"
          value={f.wallId ?? ''}
          options={wallOptions}
          set={(w) => put(f, { wallId: w })}
        />
        <LengthField
          label="Center from wall start"
          inches={f.offset}
          options={{ max: MAX_WALL }}
          set={(offset) => put(f, { offset: offset! })}
        />
        <LengthField
          label="Width along wall"
          inches={f.width}
          options={{ bare: 'inches', min: 1, max: MAX_WALL }}
          set={(width) => put(f, { width: width! })}
        />
        <LengthField
          label="Depth"
          inches={f.depth}
          options={{ bare: 'inches', min: 1, max: MAX_WALL }}
          set={(depth) => put(f, { depth: depth! })}
        />
        <LengthField
          label="Clear of the wall"
          inches={f.fromWall}
          options={{ bare: 'inches', max: MAX_WALL }}
          set={(fromWall) => put(f, { fromWall: fromWall! })}
        />
        <LengthField
          label="Top above floor"
          inches={f.height}
          options={{ bare: 'inches', max: 480 }}
          set={(height) => put(f, { height: height! })}
        />
        <Choice label="Work" value={f.status} options={STATUS_OPTIONS} set={(status) => put(f, { status })} />
        <Choice
          label="Connection"
          value={f.connection}
          options={CONNECTION_OPTIONS}
          set={(connection) => put(f, { connection })}
        />
        {#if isIsland(f)}
          <LengthField
            label="Overhang"
            inches={f.overhang}
            options={{ bare: 'inches', max: 120 }}
            set={(overhang) => put(f, { overhang: overhang! })}
          />
        {/if}
        {#if f.connection === 'hardwired'}
          <Choice
            label="Disconnect"
            value={f.disconnect}
            options={DISCONNECT_OPTIONS}
            set={(disconnect) => put(f, { disconnect })}
          />
        {/if}
        {#if f.connection !== 'none'}
          <NameplateFields fixture={f} />
        {/if}
      </div>
      <div class="flags">
        <Check label="Fastened in place" checked={f.fastened} set={(fastened) => put(f, { fastened })} />
        {#if f.kind === 'sink' || f.kind === 'range' || f.kind === 'cooktop'}
          <Check label="Across a corner" checked={f.corner} set={(corner) => put(f, { corner })} />
        {/if}
        {#if isIsland(f)}
          <Check
            label="Provision for a later receptacle"
            checked={f.futureProvision}
            set={(futureProvision) => put(f, { futureProvision })}
          />
        {/if}
      </div>
      <Act
        kind="danger"
        onclick={() => {
          choose(null);
          void session.execute({ type: 'remove', table: 'fixtures', ids: [f.id] });
        }}>Remove {f.name}</Act
      >
    </div>
  {/if}
  <div class="grid-form" style:--field="10rem">
    <Choice label="Add a" value={kind} options={FIXTURE_OPTIONS} set={(k) => (kind = k)} />
    <Choice label="On" value={wallId} options={wallOptions} set={(w) => (wall = w)} />
    {#key area.id}
      <Field
        label="Its center from wall start, width"
        value=""
        clears
        placeholder="6', {FIXTURES[kind].size[0]}"
        hint="Enter adds it; without a width, {FIXTURES[kind].size[0]} in"
        commit={add}
      />
    {/key}
  </div>
</div>

<style>
  .chips,
  .flags {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem 1rem;
  }
  .chips {
    gap: 0.4rem;
  }
  .one {
    display: grid;
    gap: 0.5rem;
    justify-items: start;
    padding: 0.6rem 0.75rem;
    background: var(--panel);
    border-left: 5px solid var(--copper);
  }
  .one :global(.grid-form) {
    width: 100%;
  }
</style>
