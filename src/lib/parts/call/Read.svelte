<script lang="ts">
  import type { Answer, StepOf } from '#core/procedures/step.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import ReadingForm from '../prove/ReadingForm.svelte';
  import LeaveOut from './LeaveOut.svelte';

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
<LeaveOut what="read" {answer} />
