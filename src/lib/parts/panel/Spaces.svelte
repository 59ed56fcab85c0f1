<script lang="ts">
  import { runOf } from '#core/circuits/run.ts';
  import { tick } from 'svelte';
  import type { Circuit, Panel } from '#core/job/schema.ts';
  import { legAmps } from '#core/panel/balance.ts';
  import { moveBreaker } from '#core/panel/moves.ts';
  import { idOf, isClash, nameOf, rowOf, spacesIn, type Occupant, type Space } from '#core/panel/spaces.ts';
  import { round } from '#core/units/quantity.ts';
  import { breakerWords } from '../../names.ts';
  import { useSession } from '../../store/session.svelte.ts';

  /** The panel as it hangs on the wall: odd spaces left, even right, the bus between them. */
  interface Props {
    panel: Panel;
    chosen: string | null;
    choose: (id: string) => void;
  }
  let { panel, chosen, choose }: Props = $props();

  const session = useSession();
  const document = $derived(session.document);
  const spaces = $derived(spacesIn(document, panel));
  const rowCount = $derived(Math.ceil(panel.spaces / 2));
  let refusal = $state('');
  let drag = $state<{ id: string; x: number; y: number; dx: number; dy: number } | null>(null);

  /** A breaker over two spaces is drawn once, where nothing else stands in either. */
  const isTall = (space: Space | undefined): boolean => {
    const below = space && spaces[space.space + 1];
    return Boolean(
      space?.occupants.length === 1 &&
      below?.occupants.length === 1 &&
      idOf(space.occupants[0]!) === idOf(below.occupants[0]!),
    );
  };
  const isCovered = (space: Space): boolean => isTall(spaces[space.space - 3]);
  const circuitOf = (o: Occupant): Circuit | null => ('circuit' in o ? o.circuit : null);
  const ampsOf = (o: Occupant): string => {
    const circuit = circuitOf(o);
    if (!circuit) return '';
    const { A, B } = legAmps(runOf(session.view, circuit));
    return circuit.breaker.poles === 2 && round(A, 1) !== round(B, 1)
      ? `${round(A, 1)} + ${round(B, 1)} A`
      : `${round(Math.max(A, B), 1)} A`;
  };

  async function move(circuit: Circuit, space: number) {
    const step = moveBreaker(document, panel, circuit, space);
    refusal = step.ok ? '' : `${circuit.name} cannot go to space ${space}: ${step.message}.`;
    if (!step.ok || !(await session.execute(step.value))) return;
    // The breaker keeps the focus wherever it went.
    await tick();
    window.document.querySelector<HTMLElement>(`[data-breaker="${CSS.escape(circuit.name)}"]`)?.focus();
  }

  function key(event: KeyboardEvent, o: Occupant) {
    const circuit = circuitOf(o);
    if (!circuit || !event.altKey) return;
    const { space } = circuit;
    const to = {
      ArrowUp: space - 2,
      ArrowDown: space + 2,
      ArrowLeft: space % 2 === 0 ? space - 1 : null,
      ArrowRight: space % 2 === 1 ? space + 1 : null,
    }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    if (to !== null && to >= 1) void move(circuit, to);
  }

  function letGo(event: PointerEvent, o: Occupant) {
    const moved = drag;
    drag = null;
    const circuit = circuitOf(o);
    if (!moved || !circuit || Math.hypot(moved.dx, moved.dy) < 8) return;
    const space = window.document
      .elementsFromPoint(event.clientX, event.clientY)
      .map((e) => e.closest<HTMLElement>('[data-space]'))
      .find((e) => e && e.dataset.holds !== circuit.id)?.dataset.space;
    if (space) void move(circuit, Number(space));
  }
</script>

<div class="can" style:--rows={rowCount}>
  {#each { length: rowCount }, row (row)}
    <div class="bus {row % 2 === 0 ? 'a' : 'b'}" style:grid-row={row + 1} aria-hidden="true">
      {row % 2 === 0 ? 'A' : 'B'}
    </div>
  {/each}
  {#each spaces as space (space.space)}
    {#if !isCovered(space)}
      {@const tall = isTall(space)}
      <div
        class="cell"
        class:clash={isClash(space)}
        style:grid-row="{rowOf(space.space) + 1} / span {tall ? 2 : 1}"
        style:grid-column={space.space % 2 === 1 ? 1 : 3}
        data-space={space.space}
        data-holds={space.occupants.length === 1 ? idOf(space.occupants[0]!) : ''}
      >
        {#each space.occupants as o (idOf(o))}
          {@const circuit = circuitOf(o)}
          {@const moved = drag?.id === idOf(o) ? drag : null}
          <button
            type="button"
            class="breaker"
            class:tall
            class:held={moved}
            class:existing={circuit?.status === 'existing'}
            aria-pressed={chosen === idOf(o)}
            data-breaker={nameOf(o)}
            style:transform={moved ? `translate(${moved.dx}px, ${moved.dy}px)` : ''}
            onclick={() => choose(idOf(o))}
            onkeydown={(e) => key(e, o)}
            onpointerdown={(e) => {
              if (!circuit) return;
              drag = { id: idOf(o), x: e.clientX, y: e.clientY, dx: 0, dy: 0 };
              e.currentTarget.setPointerCapture(e.pointerId);
            }}
            onpointermove={(e) => {
              if (drag?.id === idOf(o)) drag = { ...drag, dx: e.clientX - drag.x, dy: e.clientY - drag.y };
            }}
            onpointerup={(e) => letGo(e, o)}
            onpointercancel={() => (drag = null)}
          >
            <span class="number"
              >{space.space}{#if tall}<br />{space.space + 2}{/if}</span
            >
            <span class="name">{'feeds' in o ? `To ${o.feeds.name}` : nameOf(o)}</span>
            <span class="rating"
              >{circuit ? circuit.breaker.rating : 'feeds' in o ? o.feeds.feeder?.rating : ''} A{circuit &&
              breakerWords(circuit)
                ? ` ${breakerWords(circuit)}`
                : ''}</span
            >
            <span class="amps">{ampsOf(o)}</span>
          </button>
        {:else}
          <span class="empty">
            <span class="number">{space.space}</span> free: filler{panel.tandemSpaces.includes(space.space)
              ? ', tandem allowed'
              : ''}
          </span>
        {/each}
      </div>
    {/if}
  {/each}
</div>
<p class="refusal" role="alert">{refusal}</p>

<style>
  .can {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 34px minmax(0, 1fr);
    grid-auto-rows: minmax(46px, auto);
    gap: 3px 0;
    padding: 10px;
    background: var(--cover);
    border-radius: 4px;
  }
  .bus {
    grid-column: 2;
    display: grid;
    place-items: center;
    font-weight: 750;
    color: #17222a;
  }
  .bus.a {
    background: var(--copper);
  }
  .bus.b {
    background: #cdd4d6;
  }
  .cell {
    display: flex;
    flex-direction: column;
    gap: 2px;
    min-width: 0;
  }
  .cell.clash {
    outline: 3px solid var(--bad);
  }
  .breaker,
  .empty {
    flex: 1;
    display: grid;
    grid-template-columns: 1.9rem minmax(0, 1fr) auto auto;
    gap: 0 0.6rem;
    align-items: center;
    padding: 2px 0.7rem 2px 0.5rem;
    text-align: left;
    min-height: 46px;
  }
  .breaker {
    background: var(--sheet);
    border: 2px solid var(--edge);
    cursor: grab;
    touch-action: pan-y;
  }
  .breaker.existing {
    border-style: dashed;
  }
  .breaker.held {
    cursor: grabbing;
    position: relative;
    z-index: 2;
    pointer-events: none;
  }
  .breaker[aria-pressed='true'] {
    border-color: var(--accent);
    box-shadow: inset 6px 0 0 var(--accent);
  }
  .empty {
    display: flex;
    color: var(--cover-quiet);
    border: 1px dashed var(--cover-quiet);
    font-size: 0.9rem;
  }
  .number {
    font-family: var(--font-mono);
    font-size: 0.95rem;
    color: var(--quiet);
  }
  .empty .number {
    color: var(--cover-ink);
  }
  .name {
    font-weight: 650;
    overflow: hidden;
    display: -webkit-box;
    -webkit-line-clamp: 2;
    line-clamp: 2;
    -webkit-box-orient: vertical;
    line-height: 1.15;
  }
  .rating {
    font-weight: 700;
    white-space: nowrap;
  }
  .amps {
    color: var(--quiet);
    font-size: 0.92rem;
    white-space: nowrap;
    min-width: 3.2rem;
    text-align: right;
  }
  .refusal:empty {
    display: none;
  }
  .refusal {
    color: var(--bad);
    font-weight: 600;
    padding-top: 0.5rem;
  }
  @media (max-width: 760px) {
    .can {
      padding: 6px;
      grid-template-columns: minmax(0, 1fr) 20px minmax(0, 1fr);
    }
    .breaker {
      grid-template-columns: auto minmax(0, 1fr);
      padding: 2px 0.3rem;
      align-content: center;
    }
    .breaker .name {
      grid-column: 1 / -1;
      grid-row: 2;
      font-size: 0.95rem;
    }
    .rating {
      text-align: right;
      font-size: 0.92rem;
      white-space: normal;
    }
    .amps {
      display: none;
    }
  }
</style>
