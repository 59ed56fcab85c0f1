<script lang="ts">
  import { newId } from '#core/job/document.ts';
  import type { Box, Tick } from '#core/job/schema.ts';
  import type { GatedStep } from '#core/records/gates.ts';
  import { localTime } from '../../readings.ts';
  import { useSession } from '../../store/session.svelte.ts';

  interface Props {
    box: Box;
    place: string;
    by: string;
    steps: readonly GatedStep[];
    ticks: ReadonlyMap<string, Tick>;
    /** A step is looked at: its ends light up in the picture. */
    onlook?: (ends: readonly string[]) => void;
  }
  let { box, place, by, steps, ticks, onlook }: Props = $props();

  const session = useSession();
  let said = $state('');
  const next = $derived(steps.find((s) => !ticks.has(s.key)));

  async function tick(step: GatedStep, done: boolean) {
    if (by.trim() === '') {
      said = 'Who does it: expected a name, above';
      return;
    }
    const row: Tick = {
      id: newId('tick'),
      boxId: box.id,
      place,
      step: step.key,
      at: new Date().toISOString(),
      by,
      done,
    };
    said = (await session.attempt({ type: 'put', table: 'ticks', rows: [row] })) ?? '';
  }
</script>

{#if said}<p class="wrong" role="alert">{said}</p>{/if}
<ol class="steps">
  {#each steps as step (step.key)}
    {@const done = ticks.get(step.key)}
    <li class:done class:next={step === next} class:closed={step.shut !== null}>
      <button
        type="button"
        role="checkbox"
        aria-checked={done !== undefined}
        aria-label={step.text}
        disabled={step.shut !== null}
        onclick={() => tick(step, !done)}
      >
        <span aria-hidden="true">{done ? '✓' : ''}</span>
      </button>
      <div>
        <p>
          {#if step.shut !== null}<span class="tag">Shut</span>{/if}{step.text}
          {#if onlook && (step.lands ?? []).length > 0}
            <button type="button" class="look" onclick={() => onlook(step.lands ?? [])}>show</button>
          {/if}
        </p>
        <p class="quiet">
          {#if done}{localTime(done.at)}, {done.by}
          {:else}{step.shut === null
              ? step.because
              : `Parts a neutral: open it above first. ${step.shut}`}{/if}
        </p>
      </div>
    </li>
  {/each}
</ol>

<style>
  .steps {
    display: grid;
    gap: 0.35rem;
  }
  li {
    display: grid;
    grid-template-columns: 48px 1fr;
    gap: 0.6rem;
    align-items: start;
    padding: 0.3rem 0.3rem 0.3rem 0;
    font-size: 1.05rem;
  }
  .next {
    background: var(--panel);
    border-left: 6px solid var(--accent);
    padding-left: 0.3rem;
  }
  .look {
    min-height: 32px;
    padding: 0 0.4rem;
    font-weight: 650;
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  button[role='checkbox'] {
    width: 48px;
    height: 48px;
    border: 2px solid var(--edge);
    border-radius: 4px;
    background: var(--sheet);
    font-size: 1.6rem;
    font-weight: 800;
    line-height: 1;
  }
  button[aria-checked='true'] {
    background: var(--good);
    border-color: var(--good);
    color: var(--sheet);
  }
  button:disabled {
    border-style: dashed;
  }
  .done p:first-child {
    color: var(--quiet);
  }
  .quiet {
    font-size: 0.92rem;
  }
  .closed {
    color: var(--quiet);
  }
  .tag {
    border: 1px solid var(--warn);
    color: var(--warn);
    font-size: 0.85rem;
    font-weight: 700;
    padding: 0 0.35rem;
    margin-right: 0.4rem;
  }
</style>
