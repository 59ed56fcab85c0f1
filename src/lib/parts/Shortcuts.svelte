<script lang="ts">
  import Modal from 'flowbite-svelte/Modal.svelte';
  import { SHORTCUTS } from '../keys.ts';
  import Act from './Act.svelte';

  let { open = $bindable(false) }: { open: boolean } = $props();
  const places = [...new Set(SHORTCUTS.map((s) => s.where))];
</script>

<Modal bind:open title="Keys" size="lg" class="bg-(--sheet) text-(--ink)">
  <div class="grid">
    {#each places as where (where)}
      <section>
        <h2>{where}</h2>
        <dl>
          {#each SHORTCUTS.filter((s) => s.where === where) as shortcut (shortcut.keys)}
            <div>
              <dt><kbd>{shortcut.keys}</kbd></dt>
              <dd>{shortcut.what}</dd>
            </div>
          {/each}
        </dl>
      </section>
    {/each}
  </div>
  <Act onclick={() => (open = false)}>Close</Act>
</Modal>

<style>
  .grid {
    columns: 2 20rem;
    column-gap: 1.5rem;
  }
  section {
    break-inside: avoid;
    padding-bottom: 0.75rem;
  }
  dl > div {
    display: grid;
    grid-template-columns: 7.5rem 1fr;
    padding: 0.2rem 0;
  }
</style>
