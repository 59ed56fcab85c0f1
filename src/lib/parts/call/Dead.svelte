<script lang="ts">
  import { runOf } from '#core/circuits/run.ts';
  import type { StepOf } from '#core/procedures/step.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import ProofForm from '../prove/ProofForm.svelte';

  let { step, by }: { step: StepOf<'dead'>; by: string } = $props();
  const session = useSession();
  const circuit = $derived(session.view.circuitOf(step.box.id));
  const stop = $derived(circuit && runOf(session.view, circuit).stops.find((s) => s.box.id === step.box.id));
</script>

{#if stop}<ProofForm {stop} {by} proof={null} onproved={() => {}} />{/if}
