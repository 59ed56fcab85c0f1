<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { Snippet } from 'svelte';

  interface Props {
    children: Snippet;
    onclick?: (event: MouseEvent) => unknown;
    kind?: 'main' | 'plain' | 'danger';
    big?: boolean;
    disabled?: boolean;
    label?: string;
    pressed?: boolean;
    href?: string;
    type?: 'button' | 'submit';
  }
  let {
    children,
    onclick,
    kind = 'plain',
    big = false,
    disabled = false,
    label,
    pressed,
    href,
    type = 'button',
  }: Props = $props();

  const LOOK = {
    main: 'bg-(--accent) text-(--accent-ink) border-(--accent) hover:bg-(--accent) hover:brightness-110',
    plain: 'bg-(--sheet) text-(--ink) border-(--edge) hover:bg-(--panel)',
    danger: 'bg-(--sheet) text-(--bad) border-(--bad) hover:bg-(--panel)',
  };
</script>

<Button
  {onclick}
  {disabled}
  {href}
  {type}
  aria-label={label}
  aria-pressed={pressed}
  class="gap-1.5 border font-semibold shadow-none focus:ring-0 {LOOK[kind]} {big
    ? 'min-h-12 px-4 text-lg'
    : 'min-h-9 px-3 py-1 text-sm'} {pressed ? 'outline-2 outline-(--ink)' : ''}"
>
  {@render children()}
</Button>
