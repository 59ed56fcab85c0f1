<script lang="ts">
  import { outlineOf, pointOnWall, type Point } from '#core/job/outline.ts';
  import type { Area, Box } from '#core/job/schema.ts';
  import { formatLength } from '#core/units/length.ts';
  import { inward, SIGN_OFF_WALL, wallOf } from './shapes.ts';

  interface Props {
    area: Area;
    box: Box;
    chosen: boolean;
    /** The only one chosen: its place is written beside it. */
    alone: boolean;
    movable: boolean;
    tone?: string;
    /** Where its name stands from the middle of the sign, pixels; null where there is no room for it. */
    name: Point | null;
    /** A fault was mended here. */
    mended?: boolean;
    /** Drawn once more on top of everything, for the eye alone. */
    over?: boolean;
    onpress?: (event: PointerEvent) => void;
    onfocus?: () => void;
    onkey?: (event: KeyboardEvent) => void;
  }
  let {
    area,
    box,
    chosen,
    alone,
    movable,
    tone = '',
    name,
    mended = false,
    over = false,
    onpress,
    onfocus,
    onkey,
  }: Props = $props();

  const outline = $derived(outlineOf(area));
  const wall = $derived(wallOf(outline, box.wallId));
  const foot = $derived(wall && pointOnWall(outline, wall, box.offset, box.fromWall));
  const into = $derived(wall ? inward(outline, wall) : { x: 0, y: 1 });
  /** A box on a wall is drawn off it; one out in the room where it is. */
  const off = $derived(box.fromWall > 0 ? 0 : SIGN_OFF_WALL);
  /** A place in the sign, turned with the wall. Worked out here: a transform for each sign slows panning. */
  const turned = $derived.by(() => {
    const angle = ((wall?.heading ?? 0) * Math.PI) / 180;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    return (x: number, y: number) => `${x * c - y * s} ${x * s + y * c}`;
  });
  const label = $derived(
    `${box.name}, ${area.name}, wall ${area.walls.findIndex((w) => w.id === box.wallId) + 1} at ${formatLength(box.offset)}${mended ? ', a fault was mended here' : ''}`,
  );
  const kind = $derived(box.device.kind);
</script>

{#if wall && foot}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <g
    class="box {box.status} {kind} {tone}"
    class:chosen
    class:movable
    class:over
    role={over ? undefined : 'button'}
    tabindex={over ? undefined : 0}
    aria-hidden={over ? true : undefined}
    aria-label={over ? undefined : label}
    aria-pressed={over ? undefined : chosen}
    data-box={over ? undefined : box.name}
    data-own-drag={movable ? '' : undefined}
    style="transform: translate({foot.x}px, {foot.y}px) scale(calc(var(--u) * var(--sign))) translate({into.x *
      off}px, {into.y * off}px)"
    onpointerdown={onpress}
    {onfocus}
    onkeydown={onkey}
  >
    {#if off > 0}<path class="stem" d="M0 0L{into.x * -off} {into.y * -off}" />{/if}
    <circle class="target" r="16" />
    {#if tone}<circle class="ring" r="14" />{/if}
    {#if kind === 'switch'}
      <path class="body" d="M-8 -8h16v16h-16z" />
      <path class="mark" d="M-5 4L5 -4" />
    {:else if kind === 'hardwired'}
      <path class="body" d="M-9 -9h18v18h-18z" />
      <circle class="dot" r="3.2" />
    {:else if kind === 'smoke-alarm'}
      <path class="body" d="M0 -11L10 8H-10z" />
      <circle class="dot" cy="2" r="2.2" />
    {:else if kind === 'light'}
      <circle class="body" r="9" />
      <path class="mark" d="M-6 -6L6 6M6 -6L-6 6" />
    {:else}
      <circle class="body" r="10" />
      {#if kind === 'gfci'}
        <path class="mark" d="M{turned(-5, 0)}L{turned(5, 0)}M{turned(0, -5)}L{turned(0, 5)}" />
      {:else if kind === 'outlet-afci'}
        <path class="mark" d="M{turned(-6, 3)}L{turned(-2, -3)}L{turned(2, 3)}L{turned(6, -3)}" />
      {:else if kind === 'single'}
        <path class="mark" d="M{turned(0, -5)}L{turned(0, 5)}" />
      {:else}
        <path
          class="mark"
          class:dashed={kind === 'two-slot'}
          d="M{turned(-3, -5)}L{turned(-3, 5)}M{turned(3, -5)}L{turned(3, 5)}"
        />
      {/if}
      {#if box.device.switched !== 'none'}
        <path class="half" d="M{turned(0, -10)}A10 10 0 0 1 {turned(0, 10)}z" />
      {/if}
    {/if}
    {#if mended}<path class="mended" d="M7 -15l7 0l-4 5h5l-9 10l2 -8h-4z" />{/if}
    {#if name}<text class="box-name" x={name.x} y={name.y} dy="4">{box.name}</text>{/if}
    {#if alone}
      <text class="place" x={into.x * 44} y={into.y * 44} dy="6"
        >{formatLength(box.offset)} · {formatLength(wall.length - box.offset)} to corner</text
      >
    {/if}
  </g>
{/if}
