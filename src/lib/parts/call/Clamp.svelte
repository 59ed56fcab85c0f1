<script lang="ts">
  import { shutNeutrals } from '#core/records/neutrals.ts';
  import { validProof } from '#core/records/proof.ts';
  import type { StepOf } from '#core/procedures/step.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Neutrals from '../prove/Neutrals.svelte';

  let { step, by }: { step: StepOf<'clamp'>; by: string } = $props();
  const session = useSession();
  const proof = $derived(validProof(session.document, step.box, new Date().toISOString()));
  const shut = $derived(proof ? shutNeutrals(session.document, step.box, proof) : []);
  const place = $derived(`${step.box.name}, ${session.document.areas[step.box.areaId]?.name ?? ''}`);
</script>

{#if proof}<Neutrals box={step.box} {place} proved={proof.boxId} {shut} {by} />{/if}
