<script lang="ts">
  import type { StepOf } from '#core/procedures/step.ts';
  import { energize } from '../../energizing.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Exits from './Exits.svelte';

  let { step, by }: { step: StepOf<'power'>; by: string } = $props();
  const session = useSession();
  let said = $state('');
</script>

{#if said}<p class="wrong" role="alert">{said}</p>{/if}
<Exits
  exits={[{ value: 'on', name: step.purpose === 'use' ? 'Power is on' : 'Power is on, nobody at the box' }]}
  take={async () => (said = await energize(session, step.circuit.id, by, step.purpose))}
/>
