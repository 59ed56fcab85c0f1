<script lang="ts">
  import type { Mark } from './drawing.ts';

  /** The box with its device, drawn around 0,0 in 36 px. */
  let { mark }: { mark: Mark } = $props();
</script>

{#if mark === 'light' || mark === 'alarm'}
  <circle class="body" r="18" />
{:else if mark === 'wired'}
  <path class="body" d="M0 -21L21 0L0 21L-21 0Z" />
{:else}
  <rect class="body" x="-18" y="-18" width="36" height="36" rx="4" />
{/if}
{#if mark === 'gfci'}
  <path class="mark" d="M-9 0h18M0 -9v18" />
{:else if mark === 'afci'}
  <path class="mark" d="M3 -10l-7 10h8l-7 10" />
{:else if mark === 'switch'}
  <path class="mark" d="M-8 8L6 -8M-8 8h-3M6 8h5" />
{:else if mark === 'light'}
  <path class="mark" d="M-8 -8l16 16M8 -8l-16 16" />
{:else if mark === 'alarm'}
  <circle class="mark" r="6" />
{:else if mark === 'two-hundred-forty'}
  <path class="mark" d="M-9 -5h8M1 -5h8M0 3v8" />
{:else if mark === 'wired'}
  <path class="mark" d="M-7 0h14" />
{:else}
  <path class="mark" d="M-5 -8v16M5 -8v16" />
{/if}
