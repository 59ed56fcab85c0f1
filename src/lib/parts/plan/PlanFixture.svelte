<script lang="ts">
  import { isWater, isIsland } from '#core/tables/fixtures.ts';
  import type { Area, Fixture } from '#core/job/schema.ts';
  import { footprint } from '#core/plan/footprint.ts';
  import { path } from './shapes.ts';

  interface Props {
    area: Area;
    fixture: Fixture;
    chosen: boolean;
    movable: boolean;
    label: string;
    onpress: (event: PointerEvent) => void;
    onfocus: () => void;
    onkey: (event: KeyboardEvent) => void;
  }
  let { area, fixture, chosen, movable, label, onpress, onfocus, onkey }: Props = $props();

  const corners = $derived(footprint(area, fixture));
  const middle = $derived(
    corners && {
      x: corners.reduce((s, p) => s + p.x, 0) / 4,
      y: corners.reduce((s, p) => s + p.y, 0) / 4,
    },
  );
  /** A bowl, a tub or a shower drawn a little inside its rim. */
  const bowl = $derived(
    corners && middle && isWater(fixture)
      ? corners.map((p) => ({ x: middle.x + (p.x - middle.x) * 0.78, y: middle.y + (p.y - middle.y) * 0.78 }))
      : null,
  );
  const low = $derived(fixture.kind === 'counter' || isIsland(fixture));
</script>

{#if corners && middle}
  <g
    class="fixture {fixture.kind}"
    class:chosen
    class:low
    class:water={isWater(fixture)}
    class:movable
    role="button"
    tabindex="0"
    aria-label={label}
    aria-pressed={chosen}
    data-fixture={fixture.id}
    data-own-drag={movable ? '' : undefined}
    onpointerdown={onpress}
    {onfocus}
    onkeydown={onkey}
  >
    <path class="shape" d="{path(corners)}Z" />
    {#if bowl}<path class="bowl" d="{path(bowl)}Z" />{/if}
    {#if fixture.kind === 'range' || fixture.kind === 'cooktop'}
      <path class="bowl" d="{path([corners[0]!, corners[2]!])}{path([corners[1]!, corners[3]!])}" />
    {/if}
    {#if chosen || fixture.kind !== 'counter'}
      <g style="transform: translate({middle.x}px, {middle.y}px) scale(var(--u))">
        <text class="fixture-name" dy="21">{fixture.name}</text>
      </g>
    {/if}
  </g>
{/if}
