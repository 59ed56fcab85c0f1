<script lang="ts">
  import { contentsOf, roomOf } from '#core/boxes/contents.ts';
  import { fillOf, fits, smallestBox } from '#core/boxes/fill.ts';
  import type { Box } from '#core/job/schema.ts';
  import { USUAL_BOXES } from '#core/tables/boxes.ts';
  import { round } from '#core/units/quantity.ts';
  import { SEEN_OPTIONS } from '../../names.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Choice from '../Choice.svelte';
  import NumberField from '../NumberField.svelte';
  import Working from '../Working.svelte';

  /** The box itself: its room, and what its contents take of it. */
  let { box }: { box: Box } = $props();
  const session = useSession();
  const put = (values: Partial<Box['enclosure']>) =>
    session.attempt({
      type: 'put',
      table: 'boxes',
      rows: [{ ...box, enclosure: { ...box.enclosure, ...values } }],
    });
  const room = $derived(roomOf(box));
  const contents = $derived(contentsOf(session.view, box));
  const fill = $derived(contents.ok ? fillOf(contents.value, session.view.edition) : null);
  const smallest = $derived(
    fill && (['nonmetallic', 'metal'] as const).flatMap((m) => smallestBox(fill, m) ?? []),
  );
  const steps = $derived(fill?.lines.map(({ what, working, section }) => ({ what, working, section })) ?? []);
  const usual = USUAL_BOXES.map((b, i) => ({ value: i, name: `${b.volume} in³, ${b.material} ${b.name}` }));
  const chosen = $derived(USUAL_BOXES.findIndex((b) => b.volume === box.enclosure.volume));
</script>

<details>
  <summary
    >Room in the box{#if fill}: {round(fill.volume, 2)} in³{room === null
        ? ' to hold'
        : ` of ${round(room, 2)}, ${fits(fill, room) ? `${round(room - fill.volume, 2)} spare` : 'too full'}`}{/if}</summary
  >
  <div class="grid-form" style:--field="9.5rem">
    <NumberField
      label="Marked room"
      unit="in³"
      optional
      value={box.enclosure.volume}
      min={1}
      max={400}
      hint={box.found?.boxVolume ? `as found ${box.found.boxVolume}` : 'empty: not read'}
      set={(volume) => put({ volume })}
    />
    <Choice
      label="Or a usual box"
      value={chosen}
      options={[{ value: -1, name: 'choose' }, ...usual]}
      set={(i) => i >= 0 && put({ volume: USUAL_BOXES[i]!.volume })}
    />
    <Choice
      label="Clamps inside"
      value={box.enclosure.clamps}
      options={SEEN_OPTIONS}
      set={(clamps) => put({ clamps })}
    />
  </div>
  {#if !contents.ok}
    <p class="quiet">Its fill is not judged: {contents.message}.</p>
  {:else}
    <Working {steps} />
    {#if smallest && smallest.length > 0}
      <p class="quiet small">
        Smallest usual: {smallest.map((b) => `${b.material} ${b.name}, ${b.volume} in³`).join('; ')}.
      </p>
    {/if}
  {/if}
</details>

<style>
  details {
    border-top: 1px solid var(--rule);
    padding-top: 0.4rem;
  }
</style>
