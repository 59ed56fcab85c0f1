<!--
  Power back, or the lock off: each box and panel that somebody holds open on the circuit is named first, with who holds it.
  What is one's own is closed with the same touch; what is another's, that person closes.
-->
<script lang="ts">
  import { nameKey } from '#core/job/names.ts';
  import type { Circuit, Energizing } from '#core/job/schema.ts';
  import { closingCommand, leftFor, powerCommand, waitsFor, type Held } from '#core/records/open.ts';
  import { localTime } from '../../readings.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Check from '../Check.svelte';

  interface Props {
    circuit: Circuit;
    by: string;
    purpose: Energizing['purpose'];
    /** What is said to be done. */
    label: string;
    kind?: 'main' | 'danger';
    disabled?: boolean;
    /** Who else holds something open is named here; else beside another of these. */
    named?: boolean;
    done?: (purpose: Energizing['purpose']) => void;
  }
  let { circuit, by, purpose, label, kind, disabled = false, named = true, done }: Props = $props();

  const session = useSession();
  let said = $state('');
  let busy = $state(false);
  const keyOf = ({ of, since, by: who }: Held) => `${of.in} ${of.id} ${who} ${since}`;
  const waits = $derived(waitsFor(session.document, circuit, { purpose, by }));
  const own = $derived(waits.filter((h) => nameKey(h.by) === nameKey(by)));
  const others = $derived(waits.filter((h) => nameKey(h.by) !== nameKey(by)));
  const ticked = $state<Record<string, boolean>>({});
  const left = $derived(leftFor(purpose));
  const words = (h: Held) =>
    left === 'clear'
      ? `Hands out of ${h.name}, its ends apart and capped`
      : h.of.in === 'panel'
        ? `${h.name}: cover on`
        : `${h.name} closed, tools out`;
  const one = $derived(own.length === 1 ? own[0]! : null);
  const all = $derived(one !== null || own.every((h) => ticked[keyOf(h)]));

  async function put() {
    if (by.trim() === '') {
      said = 'Who does it: expected a name';
      return;
    }
    busy = true;
    const at = new Date().toISOString();
    said = (await session.attempt(powerCommand(session.document, circuit, purpose, { by, at }, own))) ?? '';
    busy = false;
    if (said === '') done?.(purpose);
  }
  async function closes(h: Held) {
    const at = new Date().toISOString();
    said = (await session.attempt(closingCommand(session.document, h.of, left, { by: h.by, at }))) ?? '';
  }
</script>

{#each named ? others : [] as h (keyOf(h))}
  <div class="held">
    <p><strong>{h.by} holds {h.name} open</strong> since {localTime(h.since)}. Power waits for {h.by}.</p>
    <Act big onclick={() => closes(h)}>{h.by} is here and says: {words(h)}</Act>
  </div>
{/each}
{#if own.length > 1}
  <div class="own" role="group" aria-label="What you hold open">
    {#each own as h (keyOf(h))}
      <Check big label={words(h)} checked={ticked[keyOf(h)] ?? false} set={(on) => (ticked[keyOf(h)] = on)} />
    {/each}
  </div>
{/if}
{#if said}<p class="wrong" role="alert">{said}</p>{/if}
<Act {kind} big disabled={disabled || busy || !all || others.length > 0} onclick={put}
  >{one ? `${label}: ${words(one)}` : label}</Act
>

<style>
  .own {
    display: grid;
    gap: 0.4rem;
  }
  .held {
    display: grid;
    gap: 0.4rem;
    border-left: 6px solid var(--bad);
    background: var(--panel);
    padding: 0.5rem 0.75rem;
  }
</style>
