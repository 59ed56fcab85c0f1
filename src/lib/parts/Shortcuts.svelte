<script lang="ts">
  import { Modal } from 'flowbite-svelte';
  import { SHORTCUTS } from '../keys.ts';

  let { open = $bindable(false) }: { open: boolean } = $props();
  const places = [...new Set(SHORTCUTS.map((s) => s.where))];
</script>

<Modal bind:open title="Keys" size="md" class="bg-(--sheet) text-(--ink)">
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
</Modal>

<style>
  .grid {
    display: grid;
    gap: 1rem;
  }
  dl > div {
    display: grid;
    grid-template-columns: 9rem 1fr;
    padding: 0.2rem 0;
  }
</style>
