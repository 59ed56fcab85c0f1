<script lang="ts">
  import { runOf } from '#core/circuits/run.ts';
  import type { Answer, StepOf } from '#core/procedures/step.ts';
  import { devicesOn } from '#core/records/deviceTests.ts';
  import { today } from '../../readings.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import DeviceForm from '../prove/DeviceForm.svelte';
  import LeaveOut from './LeaveOut.svelte';

  interface Props {
    step: StepOf<'test'>;
    by: string;
    answer: (values: Partial<Answer>) => unknown;
  }
  let { step, by, answer }: Props = $props();
  const session = useSession();
  const device = $derived(
    devicesOn(session.document, runOf(session.view, step.circuit), today()).find(
      (d) => d.kind === step.device && (d.box?.id ?? null) === (step.box?.id ?? null),
    ),
  );
</script>

{#if device}<DeviceForm {device} {by} />{:else}<p>No such device is on record here.</p>{/if}
<LeaveOut what="tested" {answer} />
