<script lang="ts">
  import '../app.css';
  import { onMount, type Snippet } from 'svelte';
  import { tinykeys } from 'tinykeys';
  import { goto } from '$app/navigation';
  import { actions } from '$lib/actions.svelte.ts';
  import { isTyping } from '$lib/keys.ts';
  import { light, LIGHTS } from '$lib/light.svelte.ts';
  import Act from '$lib/parts/Act.svelte';
  import { whenOutdated } from '$lib/store/db.ts';

  let { children }: { children: Snippet } = $props();
  /** A newer build has the store: nothing is written from here. */
  let outdated = $state(false);
  let palette = $state(false);
  let shortcuts = $state(false);
  let paletteAsked = $state(false);
  let shortcutsAsked = $state(false);
  $effect(() => {
    if (palette) paletteAsked = true;
    if (shortcuts) shortcutsAsked = true;
  });

  onMount(() => {
    const release = actions.offer(() => [
      { id: 'jobs', name: 'All jobs', hint: 'Go to', words: 'home start open list', run: () => goto('/') },
      { id: 'keys', name: 'Keys', hint: 'Help', words: 'shortcuts keyboard', run: () => (shortcuts = true) },
      ...LIGHTS.map((choice) => ({
        id: `light-${choice}`,
        name: `Light: ${choice}`,
        hint: 'Screen',
        words: 'theme contrast bright dark night',
        run: () => light.choose(choice),
      })),
    ]);
    const keys = tinykeys(window, {
      '$mod+k': (e) => {
        e.preventDefault();
        palette = true;
      },
      'Shift+?': (e) => {
        if (!isTyping(e)) shortcuts = true;
      },
      'Alt+l': (e) => {
        e.preventDefault();
        light.next();
      },
    });
    const show = () => (palette = true);
    window.addEventListener('hekto-palette', show);
    const known = whenOutdated(() => (outdated = true));
    return () => {
      known();
      release();
      keys();
      window.removeEventListener('hekto-palette', show);
    };
  });
</script>

<svelte:head><title>Hekto</title></svelte:head>
{#if outdated}
  <div class="outdated" role="alert">
    <p><strong>A newer Hekto is here.</strong> Nothing typed in this tab is stored any more: reload it.</p>
    <Act kind="main" onclick={() => location.reload()}>Reload</Act>
  </div>
{/if}
{@render children()}
{#if palette}<!-- Loaded once they are first asked for. -->
  {#if paletteAsked}
    {#await import('$lib/parts/Palette.svelte') then { default: Palette }}<Palette
        bind:open={palette}
      />{/await}
  {/if}{/if}
{#if shortcuts}{#if shortcutsAsked}
    {#await import('$lib/parts/Shortcuts.svelte') then { default: Shortcuts }}<Shortcuts
        bind:open={shortcuts}
      />{/await}
  {/if}{/if}

<style>
  .outdated {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem 1rem;
    align-items: center;
    justify-content: space-between;
    padding: 0.6rem 1rem;
    background: var(--sheet);
    border-left: 8px solid var(--bad);
    border-bottom: 1px solid var(--edge);
  }
</style>
