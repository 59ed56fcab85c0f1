<script lang="ts">
  import type { Snippet } from 'svelte';
  import Act from './Act.svelte';

  /** A button that asks for a file; the same file may be picked again. */
  interface Props {
    /** What the hidden field is called. */
    label: string;
    accept: string;
    take: (file: File) => unknown;
    children: Snippet;
  }
  let { label, accept, take, children }: Props = $props();
  let input = $state<HTMLInputElement>();
</script>

<Act onclick={() => input?.click()}>{@render children()}</Act>
<input
  bind:this={input}
  type="file"
  {accept}
  class="sr-only"
  tabindex="-1"
  aria-label={label}
  onchange={(e) => {
    const [file] = e.currentTarget.files ?? [];
    e.currentTarget.value = '';
    if (file) take(file);
  }}
/>
