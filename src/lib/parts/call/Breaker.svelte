<script lang="ts">
  import type { Answer, StepOf } from '#core/procedures/step.ts';
  import Act from '../Act.svelte';
  import Check from '../Check.svelte';
  import Field from '../Field.svelte';

  interface Props {
    step: StepOf<'breaker'>;
    earlier: Answer | null;
    answer: (values: Partial<Answer>) => unknown;
  }
  let { step, earlier, answer }: Props = $props();
  // One step on screen at a time: the form is made anew for each.
  // svelte-ignore state_referenced_locally
  let space = $state(earlier?.note ?? '');
  let two = $state(false);
  const USUAL = [15, 20] as const;
  const LARGE = [25, 30, 40, 50, 60] as const;
  const take = (rating: number) => answer({ picks: two ? ['2'] : ['1'], value: rating, note: space });
</script>

<Field
  big
  label="Space of its breaker"
  value={space}
  inputmode="text"
  placeholder="7"
  hint="as the panel counts; 12a for half of a tandem"
  commit={(text) => {
    space = text.trim();
    return null;
  }}
/>
<p><strong>Amperes on its handle</strong> · {step.box.name}</p>
<div class="keys">
  {#each USUAL as rating (rating)}<Act kind="main" big onclick={() => take(rating)}>{rating} A</Act>{/each}
</div>
<div class="keys small">
  {#each LARGE as rating (rating)}<Act big onclick={() => take(rating)}>{rating} A</Act>{/each}
</div>
<Check big label="Two poles: one handle over two spaces" checked={two} set={(v) => (two = v)} />
{#if step.key === 'breaker'}<Act big onclick={() => answer({ picks: ['find'] })}>Nobody knows: find it</Act
  >{/if}

<style>
  .keys {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.5rem;
  }
  .small {
    grid-template-columns: repeat(5, 1fr);
  }
  .keys :global(button) {
    min-height: 60px;
    font-size: 1.4rem;
    padding-inline: 0;
  }
  .small :global(button) {
    min-height: 48px;
    font-size: 1rem;
  }
</style>
