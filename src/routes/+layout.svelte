<script lang="ts">
  import '../app.css';
  import { onMount, type Snippet } from 'svelte';
  import { tinykeys } from 'tinykeys';
  import { goto } from '$app/navigation';
  import { actions } from '$lib/actions.svelte.ts';
  import { isTyping } from '$lib/keys.ts';
  import { light, LIGHTS } from '$lib/light.svelte.ts';

  let { children }: { children: Snippet } = $props();
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
    return () => {
      release();
      keys();
      window.removeEventListener('hekto-palette', show);
    };
  });
</script>

<svelte:head><title>Hekto</title></svelte:head>
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
