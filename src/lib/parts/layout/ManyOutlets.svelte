<script lang="ts">
  import type { Box } from '#core/job/schema.ts';
  import { alignAcross, alignHeights, spreadEvenly } from '#core/layout/arrangeBoxes.ts';
  import { STATUS_OPTIONS } from '../../names.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';
  import LengthField from '../LengthField.svelte';

  let { boxes, onremove }: { boxes: readonly Box[]; onremove: () => void } = $props();

  const session = useSession();
  const first = $derived(boxes[0]!);
  const put = (label: string, next: Box[]) =>
    session.attempt({
      type: 'batch',
      label: `${label} ${boxes.length} outlets`,
      commands: [{ type: 'put', table: 'boxes', rows: next }],
    });
  const areaOf = (box: Box) => session.document.areas[box.areaId];
  const same = <T,>(of: (b: Box) => T): T | null =>
    boxes.every((b) => of(b) === of(first)) ? of(first) : null;
</script>

<div class="sheet pad stack">
  <h2>{boxes.length} outlets</h2>
  <p class="quiet">{boxes.map((b) => b.name).join(', ')}</p>
  <div class="grid-form" style:--field="9rem">
    <LengthField
      label="Height of all"
      optional
      inches={same((b) => b.height)}
      options={{ bare: 'inches', max: 480 }}
      set={(height) =>
        height === null
          ? null
          : put(
              'Set height of',
              boxes.map((b) => ({ ...b, height })),
            )}
    />
    <Choice
      label="Work"
      value={same((b) => b.status) ?? first.status}
      options={STATUS_OPTIONS}
      set={(status) =>
        put(
          'Mark',
          boxes.map((b) => ({ ...b, status })),
        )}
    />
  </div>
  <div class="row">
    <Act onclick={() => put('Level', alignHeights(boxes))}>Level with {first.name}</Act>
    <Act onclick={() => put('Line up', alignAcross(areaOf, boxes))}>Line up across with {first.name}</Act>
    <Act onclick={() => put('Spread', spreadEvenly(boxes))} disabled={boxes.length < 3}>Spread evenly</Act>
    <Act kind="danger" onclick={onremove}>Remove {boxes.length}</Act>
  </div>
</div>

<style>
</style>
