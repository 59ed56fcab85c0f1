<script lang="ts">
  import Modal from 'flowbite-svelte/Modal.svelte';
  import { actions } from '../actions.svelte.ts';
  import { search, type PaletteItem } from '../palette.ts';

  let { open = $bindable(false) }: { open: boolean } = $props();

  let text = $state('');
  let active = $state(0);
  const found = $derived(open ? search(actions.all(), text) : []);

  $effect(() => {
    if (open) {
      text = '';
      active = 0;
    }
  });

  function choose(item: PaletteItem | undefined) {
    if (!item) return;
    open = false;
    item.run();
  }

  function keydown(event: KeyboardEvent) {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      const step = event.key === 'ArrowDown' ? 1 : -1;
      active = (active + step + found.length) % Math.max(found.length, 1);
    } else if (event.key === 'Enter') {
      event.preventDefault();
      choose(found[active]);
    }
  }
</script>

<Modal bind:open title="Find" size="sm" placement="top-center" class="palette bg-(--sheet) text-(--ink)">
  <!-- svelte-ignore a11y_autofocus -->
  <input
    autofocus
    bind:value={text}
    oninput={() => (active = 0)}
    onkeydown={keydown}
    class="w-full border-2 border-(--edge) bg-(--sheet) px-3 py-2 text-lg text-(--ink)"
    placeholder="A room, an outlet, an action"
    role="combobox"
    aria-label="Find a room, an outlet or an action"
    aria-expanded="true"
    aria-controls="palette-found"
    aria-activedescendant={found[active] && `found-${found[active]?.id}`}
  />
  <ul id="palette-found" role="listbox" aria-label="Found">
    {#each found as item, i (item.id)}
      <!-- svelte-ignore a11y_click_events_have_key_events -->
      <li
        id="found-{item.id}"
        role="option"
        aria-selected={i === active}
        class:active={i === active}
        onclick={() => choose(item)}
      >
        <span>{item.name}</span><span class="quiet">{item.hint}</span>
      </li>
    {:else}
      <li class="quiet none" role="option" aria-selected="false">
        Nothing by that name. Try a room, an outlet such as S2, or a word such as export.
      </li>
    {/each}
  </ul>
</Modal>

<style>
  li {
    display: flex;
    justify-content: space-between;
    gap: 1rem;
    padding: 0.5rem 0.75rem;
    cursor: pointer;
    border-left: 4px solid transparent;
  }
  li.active {
    background: var(--panel);
    border-left-color: var(--accent);
  }
  li.none {
    cursor: default;
  }
</style>
