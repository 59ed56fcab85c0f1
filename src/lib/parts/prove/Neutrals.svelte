<!-- The neutrals of a proved box that may not be parted yet: each is clamped, with a load on all that may share it. -->
<script lang="ts">
  import { newId } from '#core/job/document.ts';
  import type { Box, Observation } from '#core/job/schema.ts';
  import { mayShare, panelsOf, type ShutNeutral } from '#core/records/neutrals.ts';
  import { circuitsIn } from '#core/records/points.ts';
  import { isOff } from '#core/records/proof.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import NumberField from '../NumberField.svelte';

  interface Props {
    box: Box;
    place: string;
    /** Outlet of the proof that stands. */
    proved: string;
    shut: readonly ShutNeutral[];
    by: string;
  }
  let { box, place, proved, shut, by }: Props = $props();
  const session = useSession();
  let said = $state('');
  const others = $derived(
    mayShare(session.document, box).filter((c) => !isOff(session.document, c, new Date().toISOString())),
  );
  const panels = $derived(panelsOf(session.document, box));
  const names = $derived(others.map((c) => c.name));

  /** Puts the current in a neutral on record. @param loaded with a load on all that may share it */
  async function clamp({ point }: ShutNeutral, value: number, loaded: boolean): Promise<string | null> {
    if (by.trim() === '') return 'Who clamps it: expected a name';
    const row: Observation = {
      id: newId('observation'),
      boxId: proved,
      place,
      at: new Date().toISOString(),
      by,
      node: point.key,
      nodeName: point.name,
      to: null,
      toName: '',
      quantity: 'amps',
      value,
      instrument: 'clamp meter',
      link: '',
      on: loaded ? [...panels.map((p) => p.id), ...others.map((c) => c.id)].slice(0, 120) : [],
      off: circuitsIn(session.document, box).map((c) => c.id),
    };
    return session.attempt({ type: 'put', table: 'observations', rows: [row] });
  }
</script>

{#each shut as s (s.point.key)}
  <div class="clamp">
    <p><strong>The {s.point.name} stays joined.</strong> {s.why}.</p>
    <p class="quiet">
      First a load on each other circuit of {panels.map((p) => p.name).join(' and ')}{names.length > 0
        ? `: ${names.slice(0, 5).join(', ')}${names.length > 5 ? ` and ${names.length - 5} more` : ''}`
        : ''}; or its breaker off. Then clamp each white that meets there; the largest counts. Right after a
      white is parted, each end is read to the reference, and capped.
    </p>
    <Act kind="main" big onclick={async () => (said = (await clamp(s, 0, true)) ?? '')}
      >0.00 A, with a load on all of them</Act
    >
    <NumberField
      optional
      label="or amps shown"
      unit="A"
      min={0}
      max={400}
      value={null}
      set={(v) => (v === null ? null : clamp(s, v, false))}
    />
  </div>
{/each}
{#if said}<p class="wrong" role="alert">{said}</p>{/if}

<style>
  .clamp {
    display: grid;
    gap: 0.5rem;
    border-left: 6px solid var(--warn);
    background: var(--panel);
    padding: 0.5rem 0.75rem;
  }
  .clamp :global(button) {
    min-height: 56px;
  }
</style>
