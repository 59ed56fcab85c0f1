<script lang="ts">
  import type { Area, Conditions } from '#core/job/schema.ts';
  import { isOutside } from '#core/tables/areas.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Choice from '../Choice.svelte';
  import LengthField from '../LengthField.svelte';
  import NumberField from '../NumberField.svelte';
  import Check from '../Check.svelte';

  let { area }: { area: Area } = $props();

  const session = useSession();
  const c = $derived(area.conditions);
  const dwelling = $derived(session.document.job.dwelling);
  const set = (values: Partial<Conditions>) =>
    session.attempt({ type: 'put', table: 'areas', rows: [{ ...area, conditions: { ...c, ...values } }] });
  const outside = $derived(isOutside(area));
  const apart = $derived(area.kind === 'garage' || area.kind === 'accessory' || area.kind === 'boathouse');
  const FACES = [
    { value: 'none', name: 'Not said' },
    { value: 'front', name: 'Front' },
    { value: 'back', name: 'Back' },
    { value: 'side', name: 'Side' },
  ] as const;
</script>

<div class="grid-form" style:--field="10rem">
  <LengthField
    label="Ceiling"
    inches={area.ceilingHeight}
    options={{ min: 48, max: 480 }}
    set={(ceilingHeight) =>
      session.attempt({ type: 'put', table: 'areas', rows: [{ ...area, ceilingHeight: ceilingHeight! }] })}
  />
  {#if area.kind === 'garage'}
    <NumberField label="Vehicle bays" value={c.bays} min={0} max={12} set={(bays) => set({ bays: bays! })} />
  {/if}
  {#if area.kind === 'stairs'}
    <NumberField
      label="Risers"
      value={c.risers}
      min={0}
      max={60}
      set={(risers) => set({ risers: risers! })}
    />
  {/if}
  {#if outside}
    <Choice label="Side of the house" value={c.faces} options={FACES} set={(faces) => set({ faces })} />
  {/if}
  {#if outside || apart || area.kind === 'crawl-space'}
    <NumberField
      label="Surface above grade"
      unit="in"
      optional
      hint="empty: as its level"
      value={c.aboveGrade}
      min={-600}
      max={1200}
      set={(aboveGrade) => set({ aboveGrade })}
    />
  {/if}
  {#if area.kind === 'deck'}
    <LengthField
      label="Gap to the house"
      optional
      inches={c.houseGap}
      options={{ bare: 'inches', max: 1200 }}
      hint="empty: none"
      set={(houseGap) => set({ houseGap })}
    />
  {/if}
</div>
<div class="flags">
  {#if outside}
    <Check label="Under a roof" checked={c.roofed} set={(roofed) => set({ roofed })} />
  {/if}
  {#if area.kind === 'deck'}
    <Check
      label="Reached from inside"
      checked={c.reachedFromInside}
      set={(reachedFromInside) => set({ reachedFromInside })}
    />
  {/if}
  {#if outside}
    <Check
      label="The dwelling’s own door is here"
      checked={c.ownEntrance}
      set={(ownEntrance) => set({ ownEntrance })}
    />
  {/if}
  {#if apart}
    <Check label="Apart from the house" checked={c.detached} set={(detached) => set({ detached })} />
    <Check label="Has electric power" checked={c.powered} set={(powered) => set({ powered })} />
  {/if}
  {#if area.kind === 'accessory'}
    <Check label="To be lived in" checked={c.habitable} set={(habitable) => set({ habitable })} />
  {/if}
  {#if area.kind === 'garage' && dwelling === 'multifamily'}
    <Check
      label="Attached to the unit"
      checked={c.attachedToUnit}
      set={(attachedToUnit) => set({ attachedToUnit })}
    />
  {/if}
  {#if !outside && area.kind !== 'kitchen'}
    <Check
      label="Food or drink is prepared here, with a sink"
      checked={c.foodPreparation}
      set={(foodPreparation) => set({ foodPreparation })}
    />
  {/if}
</div>

<style>
  .flags {
    display: flex;
    flex-wrap: wrap;
    gap: 0 1.25rem;
  }
</style>
