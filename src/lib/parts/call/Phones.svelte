<script lang="ts">
  import { candidatesFor, panelOf } from '#core/procedures/parts/breaker.ts';
  import type { Answer, StepOf } from '#core/procedures/step.ts';
  import { matchPhones, spansOf, type Stamp } from '#core/procedures/twoPhones.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Field from '../Field.svelte';
  import Scan from './Scan.svelte';

  interface Props {
    step: StepOf<'phones'>;
    answer: (values: Partial<Answer>) => unknown;
  }
  let { step, answer }: Props = $props();
  const session = useSession();
  /** Off for as long at least, so that it is heard, seconds. */
  const LEAST_OFF = 3;

  interface Kept {
    start: number | null;
    stamps: Stamp[];
    off: { space: string; at: number } | null;
    left: string[];
  }
  const FRESH: Kept = { start: null, stamps: [], off: null, left: [] };
  // One step on screen at a time: what was stamped is of this call and outlet.
  // svelte-ignore state_referenced_locally
  const key = `hekto-sweep-${session.jobId}-${step.watch.id}`;
  function kept(): Kept {
    try {
      const found = JSON.parse(localStorage.getItem(key) ?? 'null') as Kept | null;
      if (found && Array.isArray(found.stamps)) return found;
    } catch {
      // What cannot be read is begun again.
    }
    return FRESH;
  }
  let sweep = $state.raw<Kept>(kept());
  const keep = (values: Partial<Kept>) => {
    sweep = { ...sweep, ...values };
    localStorage.setItem(key, JSON.stringify(sweep));
  };
  let now = $state(Date.now());
  $effect(() => {
    const timer = setInterval(() => (now = Date.now()), 250);
    return () => clearInterval(timer);
  });
  const spaces = $derived(
    candidatesFor(session.document, panelOf(session.document), step.watch).map((c) => c.space),
  );
  const swept = $derived(new Set(sweep.stamps.map((s) => s.space)));
  const next = $derived(spaces.find((s) => !swept.has(s) && !sweep.left.includes(s)) ?? null);
  const seconds = () => (Date.now() - sweep.start!) / 1000;
  const wait = $derived(sweep.off ? Math.ceil(LEAST_OFF - (now - sweep.start!) / 1000 + sweep.off.at) : 0);
  let said = $state('');

  function take(code: string): string | null {
    const heard = spansOf(code);
    if (!heard) return 'expected the code as it stands on the other phone; one of its letters is wrong';
    const { spaces: found, unexplained } = matchPhones(sweep.stamps, heard);
    const also = unexplained > 0 ? ` ${unexplained} stops were no flip.` : '';
    if (found.length === 0) {
      said = `No flip agrees with what was heard.${also} Its breaker was not among them, or the starts were apart.`;
      return null;
    }
    if (found.length > 1) {
      said = `More than one agrees: ${found.join(', ')}. Turn each off alone and look.`;
      return null;
    }
    localStorage.removeItem(key);
    answer({ picks: ['matched'], note: `${sweep.stamps.map((s) => s.space).join(' ')}; ${found[0]}` });
    return null;
  }
</script>

{#if sweep.start === null}
  <ol>
    <li>
      On the other phone: Jobs, then “Listen”. Something loud in {step.watch.name}, the phone beside it.
    </li>
    <li>Both phones in your hands: Start on both at the same moment.</li>
    <li>Here then each breaker by itself: off, three seconds, on.</li>
  </ol>
  <Act big kind="main" onclick={() => keep({ ...FRESH, start: Date.now() })}>Start</Act>
  <Act onclick={() => answer({ picks: ['by-hand'] })}>Without the other phone</Act>
{:else}
  {#if sweep.off}
    {@const { off } = sweep}
    <p class="large">Breaker {off.space} is off</p>
    <Act
      big
      kind="main"
      disabled={wait > 0}
      onclick={() =>
        keep({
          off: null,
          stamps: [...sweep.stamps, { space: off.space, from: off.at, to: seconds() }],
        })}>{wait > 0 ? `Wait ${wait} s` : `${off.space} is on again`}</Act
    >
  {:else if next !== null}
    <p class="large">Breaker {next}</p>
    <Act big kind="main" onclick={() => keep({ off: { space: next, at: seconds() } })}>{next} is off</Act>
    <Act onclick={() => keep({ left: [...sweep.left, next] })}>Empty, or it stays on</Act>
  {:else}
    <p class="large">All {sweep.stamps.length} flipped</p>
  {/if}
  <p class="quiet">{sweep.stamps.length} flipped, {spaces.length - sweep.stamps.length} to go</p>
  {#if sweep.stamps.length > 0 && !sweep.off}
    <Field label="Code on the other phone" value="" big placeholder="4F2K-…" commit={take} />
    <Scan take={(code) => void take(code)} />
  {/if}
  {#if said}<p class="wrong" role="alert">{said}</p>{/if}
  <Act onclick={() => keep(FRESH)}>Start again</Act>
{/if}

<style>
  ol {
    list-style: decimal;
    padding-left: 1.4rem;
  }
  li {
    padding: 0.35rem 0;
    font-size: 1.08rem;
  }
  .large {
    font-size: 2rem;
    font-weight: 800;
  }
</style>
