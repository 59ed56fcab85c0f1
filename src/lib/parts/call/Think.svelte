<script lang="ts">
  import type { Answer, StepOf } from '#core/procedures/step.ts';
  import { useHunting } from '../../hunting.svelte.ts';
  import Act from '../Act.svelte';

  interface Props {
    step: StepOf<'think'>;
    answer: (values: Partial<Answer>) => Promise<string | null>;
  }
  let { step, answer }: Props = $props();
  const hunting = useHunting();
  let stopped = $state(false);

  /** What is advised goes on record by itself: the next card is the measurement. */
  $effect(() => {
    if (stopped) return;
    void hunting.ask();
    const { advised } = hunting;
    if (advised && hunting.current) void answer({ picks: [advised.order], note: advised.note });
  });
  function stop() {
    stopped = true;
    hunting.stop();
  }
  function goOn() {
    hunting.stop();
    stopped = false;
    void hunting.ask();
  }
</script>

{#if hunting.problem}
  <p class="wrong" role="alert">It could not be worked out: {hunting.problem}</p>
  <Act big kind="main" onclick={goOn}>Try again</Act>
{:else if stopped}
  <p>Stopped. What was seen is kept.</p>
  <Act big kind="main" onclick={goOn}>Go on</Act>
{:else}
  <p role="status">Weighing every cause on {step.circuit.name}…</p>
  <div class="line" aria-hidden="true"><span></span></div>
  <Act onclick={stop}>Stop</Act>
{/if}

<style>
  .line {
    height: 8px;
    overflow: hidden;
    border: 2px solid var(--ink);
  }
  .line span {
    display: block;
    width: 30%;
    height: 100%;
    background: var(--copper);
    animation: along 1.1s linear infinite alternate;
  }
  @keyframes along {
    to {
      transform: translateX(233%);
    }
  }
  @media (prefers-reduced-motion: reduce) {
    .line span {
      width: 100%;
      animation: none;
    }
  }
</style>
