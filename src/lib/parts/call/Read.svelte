<script lang="ts">
  import type { Answer, StepOf } from '#core/procedures/step.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Field from '../Field.svelte';
  import ReadingForm from '../prove/ReadingForm.svelte';

  interface Props {
    step: StepOf<'read'>;
    by: string;
    answer: (values: Partial<Answer>) => unknown;
  }
  let { step, by, answer }: Props = $props();
  const session = useSession();
  const circuit = $derived(session.view.circuitOf(step.box.id) ?? null);
  const areaName = $derived(session.document.areas[step.box.areaId]?.name ?? '');
  // One step on screen at a time: the form is made anew for each.
  // svelte-ignore state_referenced_locally
  let stage = $state(step.stage);
  // svelte-ignore state_referenced_locally
  let half = $state(step.half);
</script>

<ReadingForm box={step.box} {areaName} {circuit} {by} bind:stage bind:half fixed />
<details>
  <summary>Cannot be read</summary>
  <Field
    label="Why not"
    value=""
    clears
    hint="Enter leaves it out, on record"
    commit={(note) => {
      if (note.trim() === '') return 'expected why it is left out';
      answer({ picks: ['skip'], note });
      return null;
    }}
  />
</details>
