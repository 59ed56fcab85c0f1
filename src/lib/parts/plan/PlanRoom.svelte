<script lang="ts">
  import { countersCovered, wallCoverage } from '#core/plan/coverage.ts';
  import { openingsIn } from '#core/plan/joined.ts';
  import { crossingWalls, outlineOf, pointOnWall } from '#core/job/outline.ts';
  import type { Area } from '#core/job/schema.ts';
  import type { View } from '#core/view/view.ts';
  import { hasWallRule } from '#core/tables/areas.ts';
  import { openingFootprint } from '#core/plan/footprint.ts';
  import { onWalls, type SpaceCoverage, type WallSpan } from '#core/plan/wallSpaces.ts';
  import { formatLength } from '#core/units/length.ts';
  import { doorArc, inward, outlinePath, path, readingAngle, spanPath, wallOf } from './shapes.ts';

  interface Props {
    view: View;
    area: Area;
    chosen: boolean;
    coverage: boolean;
    marked: readonly WallSpan[];
    /** Writes wall numbers and lengths. */
    dimensions: boolean;
    /** Writes how long the stretches out of reach are. */
    measured: boolean;
    tone?: string;
    onpress?: (event: PointerEvent) => void;
  }
  let { view, area, chosen, coverage, marked, dimensions, measured, tone = '', onpress }: Props = $props();

  const outline = $derived(outlineOf(area));
  const openings = $derived(openingsIn(view, area));
  const covered = $derived(coverage && hasWallRule(area) ? wallCoverage(view, area) : null);
  const counterCoverage = $derived(coverage ? countersCovered(view, area) : null);
  /** Painting reach on walls that cross would show nonsense. */
  const sound = $derived(coverage && !crossingWalls(outline));

  function stretches(spaces: readonly SpaceCoverage[] | null): { reached: WallSpan[]; open: WallSpan[] } {
    const reached: WallSpan[] = [];
    const open: WallSpan[] = [];
    for (const { space, required, uncovered } of spaces ?? []) {
      if (!required) continue;
      let at = 0;
      for (const gap of [...uncovered, { from: space.length, to: space.length }]) {
        reached.push(...onWalls(outline, space, { from: at, to: gap.from }));
        open.push(...onWalls(outline, space, gap));
        at = gap.to;
      }
    }
    return { reached, open };
  }
  const walls = $derived(stretches(sound ? covered : null));
  const counters = $derived(stretches(sound ? counterCoverage : null));

  /** How far into the room the reach is painted: along the wall, and in front of a counter, inches. */
  const AT_WALL = 3.5;
  const AT_COUNTER = 27;
</script>

<g class="area {area.kind} {tone}" class:chosen data-area={area.id}>
  <path class="floor" d={outlinePath(area)} onpointerdown={onpress} role="presentation" />
  {#if tone}<path class="tone" d={outlinePath(area)} />{/if}
  <path class="wall" d={outlinePath(area)} />
  {#if outline.walls.length > 0 && outline.closing.distance > 0.01}
    <path class="gap" d={path([outline.walls.at(-1)!.to, outline.walls[0]!.from])} />
  {/if}
  {#each openings as opening (opening.id)}
    {@const wall = wallOf(outline, opening.wallId)}
    {#if wall}
      {@const from = pointOnWall(outline, wall, opening.offset)}
      {@const to = pointOnWall(outline, wall, opening.offset + opening.width)}
      {@const built = openingFootprint(area, opening)}
      {#if built}
        <path class="built {opening.kind}" d="{path(built)}Z" />
      {:else if opening.kind === 'railing' || opening.kind === 'bar-counter' || opening.kind === 'blocked'}
        <path class={opening.kind} d={path([from, to])} />
      {:else}
        <path class="hole" d={path([from, to])} />
        {#if opening.kind !== 'door' && opening.kind !== 'opening'}
          <path class="glass {opening.kind}" d={path([from, to])} />
        {/if}
        <path class="swing" d={doorArc(area, opening)} />
      {/if}
    {/if}
  {/each}
  {#each walls.reached as span (`${span.wallId}${span.from}`)}
    <path class="reached" d={spanPath(area, span, AT_WALL)} />
  {/each}
  {#each counters.reached as span (`${span.wallId}${span.from}`)}
    <path class="reached counter-line" d={spanPath(area, span, AT_COUNTER)} />
  {/each}
  {#each [...walls.open.map( (s) => ({ ...s, out: AT_WALL }) ), ...counters.open.map( (s) => ({ ...s, out: AT_COUNTER }) )] as span (`${span.out}${span.wallId}${span.from}`)}
    {@const wall = wallOf(outline, span.wallId)}
    <path class="open" d={spanPath(area, span, span.out)} />
    {#if wall && measured && span.to - span.from > 20}
      {@const p = pointOnWall(outline, wall, (span.from + span.to) / 2)}
      {@const n = inward(outline, wall)}
      <g style="transform: translate({p.x}px, {p.y}px) scale(var(--u))">
        <text
          class="open-label"
          style="transform: translate({n.x * 24}px, {n.y * 24}px) rotate({readingAngle(wall)}deg)"
          dy="4">{formatLength(span.to - span.from)}{span.to - span.from > 110 ? ' out of reach' : ''}</text
        >
      </g>
    {/if}
  {/each}
  {#each marked as span (`${span.wallId}${span.from}`)}
    <path class="marked" d={spanPath(area, span, 0)} />
  {/each}
  {#if dimensions}
    {#each outline.walls as wall, i (wall.id)}
      {@const p = pointOnWall(outline, wall, wall.length / 2)}
      {@const n = inward(outline, wall)}
      <g style="transform: translate({p.x}px, {p.y}px) scale(var(--u))">
        <text
          class="dimension"
          class:short={wall.length < 60}
          style="transform: translate({n.x * -13}px, {n.y * -13}px) rotate({readingAngle(wall)}deg)"
          dy="4"><tspan class="number">{i + 1}</tspan>&#160; {formatLength(wall.length)}</text
        >
      </g>
    {/each}
  {/if}
</g>
