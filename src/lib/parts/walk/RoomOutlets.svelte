<script lang="ts">
  import { byName } from '#core/job/names.ts';
  import { MAX_WALL, type Area, type Box } from '#core/job/schema.ts';
  import { newBox, nextBoxName } from '#core/layout/placement.ts';
  import { formatLength, parseLength } from '#core/units/length.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';
  import Field from '../Field.svelte';
  import FoundForm from './FoundForm.svelte';

  let {
    area,
    chosenId,
    choose,
  }: { area: Area; chosenId: string | null; choose: (id: string | null) => void } = $props();

  const session = useSession();
  const document = $derived(session.document);
  const boxes = $derived([...session.view.boxesIn(area)].sort(byName));
  const index = $derived(boxes.findIndex((b) => b.id === chosenId));
  const box = $derived(boxes[index]);
  const wallOptions = $derived(
    area.walls.map((w, i) => ({ value: w.id, name: `Wall ${i + 1} (${formatLength(w.length)})` })),
  );

  let card = $state<HTMLElement>();
  /** In the house one box at a time fills the screen. */
  $effect(() => {
    if (box && card && window.innerWidth < 900) card.scrollIntoView({ block: 'start' });
  });

  let foundWall = $state('');
  const foundWallId = $derived(
    wallOptions.some((w) => w.value === foundWall) ? foundWall : (wallOptions[0]?.value ?? ''),
  );

  /** An offset along the wall that is chosen. */
  function offsetIn(text: string) {
    return parseLength(text, { max: MAX_WALL });
  }

  async function addFound(text: string): Promise<string | null> {
    const offset = offsetIn(text);
    return offset.ok ? add({ wallId: foundWallId, offset: offset.value }) : offset.message;
  }
  const addInWords = async (text: string): Promise<string | null> =>
    text.trim() === ''
      ? 'expected where it is, such as left of the bed'
      : add({ wallId: null, offset: 0, spot: text.trim().slice(0, 80) });

  /** Puts one that is known in words on the plan; the words stay. */
  async function place(text: string): Promise<string | null> {
    const offset = offsetIn(text);
    if (!offset.ok) return offset.message;
    return session.attempt({ type: 'move-box', id: box!.id, wallId: foundWallId, offset: offset.value });
  }

  async function add({
    spot = '',
    ...at
  }: Pick<Box, 'wallId' | 'offset'> & { spot?: string }): Promise<string | null> {
    const plain = newBox(area, nextBoxName(document, area), {
      ...at,
      fromWall: 0,
      height: document.job.settings.receptacleHeight,
    });
    const added = {
      ...plain,
      spot,
      status: 'existing' as const,
      grounding: 'unknown' as const,
      device: { ...plain.device, tamperResistant: false, weatherResistant: false },
    };
    const problem = await session.attempt({ type: 'put', table: 'boxes', rows: [added] });
    if (problem === null) choose(added.id);
    return problem;
  }
  const next = (step: number) => choose(boxes[(index + step + boxes.length) % boxes.length]?.id ?? null);
</script>

<div class="stack">
  <h3>Outlets, as found</h3>
  {#if boxes.length > 0}
    <div class="chips">
      {#each boxes as b (b.id)}
        <button
          type="button"
          class="chip"
          aria-pressed={b.id === chosenId}
          onclick={() => choose(b.id === chosenId ? null : b.id)}
          >{b.name}<span class="quiet">{b.found ? ' ✓' : ''}</span></button
        >
      {/each}
    </div>
  {/if}
  {#if box}
    <div class="one" bind:this={card}>
      <div class="head">
        <h3>{box.name}</h3>
        <span class="quiet">{index + 1} of {boxes.length} in {area.name}</span>
      </div>
      {#if box.wallId === null || box.spot !== ''}
        <Field
          label="Where it is"
          value={box.spot}
          commit={(spot) =>
            session.attempt({
              type: 'put',
              table: 'boxes',
              rows: [{ ...box, spot: spot.trim().slice(0, 80) }],
            })}
        />
      {/if}
      {#if box.wallId === null}
        {#if wallOptions.length > 0}
          <div class="grid-form" style:--field="11rem">
            <Choice label="Its wall" value={foundWallId} options={wallOptions} set={(w) => (foundWall = w)} />
            <Field
              label="Put it on the plan, from wall start"
              value=""
              clears
              placeholder="5' 2&quot;"
              hint="Enter places it"
              commit={place}
            />
          </div>
        {:else}
          <p class="quiet">Not on the plan: the room is not drawn. What needs its place is not judged.</p>
        {/if}
      {/if}
      {#key box.id}<FoundForm {box} {area} />{/key}
      <Act
        kind="danger"
        onclick={() => {
          choose(null);
          void session.execute({ type: 'remove', table: 'boxes', ids: [box.id] });
        }}>Remove {box.name}</Act
      >
      <div class="next">
        <Act big onclick={() => next(-1)}>Before</Act>
        <Act kind="main" big onclick={() => next(1)}>Next outlet</Act>
      </div>
    </div>
  {/if}
  <div class="grid-form" style:--field="11rem">
    {#key area.id}
      <Field
        label="Existing outlet, in words"
        value=""
        clears
        placeholder="left of the bed"
        hint="Enter records it, with no place on the plan"
        commit={addInWords}
      />
    {/key}
    {#if wallOptions.length > 0}
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
    {/if}
  </div>
</div>

<style>
  .chips {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem;
  }
  .chip {
    min-width: 44px;
    min-height: 44px;
    padding: 0 0.7rem;
    border: 1px solid var(--edge);
    border-radius: 3px;
    font-weight: 700;
    background: var(--sheet);
  }
  .chip[aria-pressed='true'] {
    background: var(--ink);
    color: var(--sheet);
  }
  .chip[aria-pressed='true'] .quiet {
    color: var(--sheet);
  }
  .one {
    display: grid;
    gap: 0.6rem;
    padding: 0.6rem 0.75rem;
    background: var(--panel);
    border-left: 5px solid var(--copper);
  }
  .head {
    display: flex;
    gap: 0.75rem;
    align-items: baseline;
  }
  .head h3 {
    font-size: 1.5rem;
  }
  .next {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    justify-content: flex-end;
    position: sticky;
    bottom: 0;
    padding: 0.5rem 0;
    background: var(--panel);
  }
</style>
