<script lang="ts">
  import { carriesFan, onAluminum } from '#core/boxes/seen.ts';
  import { labelsFor } from '#core/code/decisions.ts';
  import type { Box } from '#core/job/schema.ts';
  import { isReceptacle } from '#core/plan/wallSpaces.ts';
  import { LUMINAIRE_OPTIONS, SEEN_OPTIONS, VOLTS_OPTIONS } from '../../names.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Check from '../Check.svelte';
  import Choice from '../Choice.svelte';

  /** What somebody saw at an outlet who looked: only what its rules ask of this kind of outlet. */
  let { box }: { box: Box } = $props();
  const session = useSession();
  const { kind } = $derived(box.device);
  const put = (values: Partial<Box>) =>
    session.attempt({ type: 'put', table: 'boxes', rows: [{ ...box, ...values }] });
  const look = (values: Partial<Box['seen']>) => put({ seen: { ...box.seen, ...values } });
  const putDevice = (values: Partial<Box['device']>) => put({ device: { ...box.device, ...values } });

  const fan = $derived(carriesFan(box));
  const aluminum = $derived(onAluminum(session.view, box));
  const labels = $derived(labelsFor(session.view, box));
  const asks = $derived(kind === 'light' || kind === 'switch' || fan || aluminum || labels.length > 0);
</script>

{#if asks}
  <details>
    <summary>Looked at</summary>
    <div class="grid-form" style:--field="9.5rem">
      {#if kind === 'light'}
        <Choice
          label="Luminaire"
          value={box.seen.luminaire}
          options={LUMINAIRE_OPTIONS}
          set={(luminaire) => look({ luminaire })}
        />
      {/if}
      {#if fan}
        <Choice
          label="Box listed for a fan"
          value={box.seen.fanBox}
          options={SEEN_OPTIONS}
          set={(fanBox) => look({ fanBox })}
        />
      {/if}
      {#if kind === 'switch'}
        <Choice
          label="Neutral in the box"
          value={box.seen.switchNeutral}
          options={SEEN_OPTIONS}
          set={(switchNeutral) => look({ switchNeutral })}
        />
        <Choice
          label="Switch for"
          value={box.device.volts}
          options={VOLTS_OPTIONS}
          set={(volts) => putDevice({ volts })}
        />
      {/if}
      {#if aluminum && (kind === 'switch' || isReceptacle(box))}
        <Choice
          label="Marked CO/ALR"
          value={box.seen.aluminumRated}
          options={SEEN_OPTIONS}
          set={(aluminumRated) => look({ aluminumRated })}
        />
      {/if}
      {#if labels.length > 0}
        <Choice
          label="Labels on it"
          value={box.seen.labels}
          options={SEEN_OPTIONS}
          set={(on) => look({ labels: on })}
        />
      {/if}
    </div>
    {#if labels.length > 0}<p class="quiet small">
        It needs {labels.map((l) => `“${l}”`).join(' and ')}.
      </p>{/if}
    {#if kind === 'light' || kind === 'switch'}
      <Check
        label="By an automatic device"
        checked={box.device.automatic}
        set={(automatic) => putDevice({ automatic })}
      />
    {/if}
  </details>
{/if}

<style>
  details {
    border-top: 1px solid var(--rule);
    padding-top: 0.4rem;
  }
</style>
