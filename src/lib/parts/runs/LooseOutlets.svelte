<script lang="ts">
  import type { Box, Circuit } from '#core/job/schema.ts';
  import { useSession } from '$lib/store/session.svelte.ts';
  import Act from '../Act.svelte';

  interface Props {
    loose: readonly Box[];
    circuit: Circuit | null;
    append: (boxId: string, to: Circuit) => unknown;
    appendAll: (to: Circuit) => unknown;
  }
  let { loose, circuit, append, appendAll }: Props = $props();
  const session = useSession();
</script>

<div class="sheet pad stack">
  <h2>On no circuit yet</h2>
  <div class="row">
    {#each loose as b (b.id)}
      <Act
        disabled={!circuit}
        onclick={() => circuit && append(b.id, circuit)}
        label="Put {b.name} on {circuit?.name ?? 'a circuit'}"
      >
        {b.name} <span class="quiet">{session.document.areas[b.areaId]?.name ?? ''}</span>
      </Act>
    {/each}
    {#if circuit}<Act kind="main" onclick={() => appendAll(circuit)}
        >Put all {loose.length} on {circuit.name}</Act
      >{/if}
  </div>
  <p class="quiet small">
    A tap puts the outlet at the end of {circuit ? `“${circuit.name}”` : 'a circuit, once there is one'}.
  </p>
</div>
