<script lang="ts">
  import type { Area } from '#core/job/schema.ts';
  import { useSession } from '$lib/store/session.svelte.ts';
  import Act from '../Act.svelte';
  import LengthField from '../LengthField.svelte';
  import NumberField from '../NumberField.svelte';

  interface Props {
    area: Area;
    change: (values: Partial<Area>) => Promise<string | null>;
    copy: (area: Area, mirror: boolean) => unknown;
  }
  let { area, change, copy }: Props = $props();
  const session = useSession();
</script>

<div class="grid-form" style:--field="11rem">
  <LengthField label="First corner, east of plan zero" inches={area.x} set={(x) => change({ x: x! })} />
  <LengthField label="First corner, south of plan zero" inches={area.y} set={(y) => change({ y: y! })} />
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
  <Act onclick={() => copy(area, false)}>Copy {area.name}</Act>
  <Act onclick={() => copy(area, true)}>Mirror {area.name}</Act>
  <Act kind="danger" onclick={() => session.execute({ type: 'remove', table: 'areas', ids: [area.id] })}
    >Remove {area.name}</Act
  >
</div>

<style>
  .row {
    margin-top: 0.6rem;
  }
</style>
