<script lang="ts">
  import { actualWiring, plannedBoxes } from '#core/boxes/planned.ts';
  import type { Picture } from '#core/boxes/picture.ts';
  import { runOf } from '#core/circuits/run.ts';
  import type { Answer, StepOf } from '#core/procedures/step.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import { pictureAside } from '../../workers/picture.ts';
  import WiringPicture from '../boxes/WiringPicture.svelte';
  import Exits from './Exits.svelte';

  interface Props {
    step: StepOf<'do'>;
    answer: (values: Partial<Answer>) => unknown;
  }
  let { step, answer }: Props = $props();
  const session = useSession();
  const wiring = $derived.by(() => {
    const box = step.picture;
    const circuit = box && session.view.circuitOf(box.id);
    if (!circuit) return null;
    const run = runOf(session.view, circuit);
    const planned = plannedBoxes(run)[run.stops.findIndex((s) => s.box.id === box.id)];
    return planned ? actualWiring(box, planned) : null;
  });
  let picture = $state.raw<Picture | null>(null);
  let selected = $state<string | null>(null);
  $effect(() => {
    if (!wiring) return;
    let stale = false;
    void pictureAside(wiring, {}).then((made) => {
      if (!stale) picture = made;
    });
    return () => {
      stale = true;
    };
  });
</script>

<ol>
  {#each step.lines as line, i (i)}
    <li>
      <p>{line.text}</p>
      {#if line.because}<p class="quiet">{line.because}</p>{/if}
      {#if line.section}<span class="section">{line.section}</span>{/if}
    </li>
  {/each}
</ol>
{#if picture && step.picture}
  <details open>
    <summary>Wiring of {step.picture.name}</summary>
    <WiringPicture
      {picture}
      title="Wiring of {step.picture.name}"
      {selected}
      moved={new Set()}
      onselect={(end) => (selected = end)}
    />
  </details>
{/if}
<Exits exits={[{ value: 'done', name: step.done ?? 'Done' }]} take={() => answer({ picks: ['done'] })} />

<style>
  ol {
    display: grid;
    counter-reset: line;
  }
  li {
    position: relative;
    padding: 0.55rem 0 0.55rem 2.4rem;
    border-bottom: 1px solid var(--rule);
    counter-increment: line;
    font-size: 1.1rem;
    font-weight: 600;
    line-height: 1.3;
  }
  li::before {
    content: counter(line);
    position: absolute;
    left: 0;
    font-weight: 800;
    font-size: 1.2rem;
    color: var(--accent);
  }
  .quiet {
    font-weight: 400;
    font-size: 0.95rem;
  }
</style>
