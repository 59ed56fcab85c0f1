<script lang="ts" module>
  /** Takes what was typed; answers with what is wrong, or null when it was taken. */
  export type Commit = (text: string) => string | null | Promise<string | null>;
</script>

<script lang="ts">
  import Helper from 'flowbite-svelte/Helper.svelte';
  import Input from 'flowbite-svelte/Input.svelte';
  import Label from 'flowbite-svelte/Label.svelte';

  interface Props {
    label: string;
    value: string;
    commit: Commit;
    hint?: string;
    unit?: string;
    big?: boolean;
    inputmode?: 'text' | 'decimal' | 'numeric';
    placeholder?: string;
    /** Empties the field once its text was taken: for adding one after another. */
    clears?: boolean;
  }
  let {
    label,
    value,
    commit,
    hint = '',
    unit = '',
    big = false,
    inputmode = 'text',
    placeholder,
    clears = false,
  }: Props = $props();

  const id = $props.id();
  /** What is typed but not taken; kept with its problem until it is put right. */
  let draft = $state<string | null>(null);
  let problem = $state('');

  const typed = (event: Event) => (event.target as HTMLInputElement).value;

  async function take(text: string) {
    if (text === value && !clears) {
      draft = null;
      problem = '';
      return;
    }
    draft = text;
    problem = (await commit(text)) ?? '';
    if (problem === '') draft = null;
  }

  /** Ends when everything added before was taken: each is added to what the one before left. */
  let taken: Promise<unknown> = Promise.resolve();
  /** Leaving the field does not offer again what was refused: it may mean something else by then. */
  let refusedText = '';
  /** Empty at once, so that the next one can be typed while this one is stored; back here if it was refused. */
  function add(text: string) {
    draft = null;
    taken = taken.then(async () => {
      const refused = (await commit(text)) ?? '';
      problem = refused;
      refusedText = refused === '' ? '' : text;
      if (refused !== '') draft ??= text;
    });
  }
</script>

<div class="field" class:big>
  <Label for={id} class="mb-1 block text-sm font-semibold text-(--ink)">
    {label}{#if unit}<span class="unit">&nbsp;{unit}</span>{/if}
  </Label>
  <Input
    {id}
    {inputmode}
    {placeholder}
    value={draft ?? value}
    aria-invalid={problem !== ''}
    aria-describedby={problem || hint ? `${id}-say` : undefined}
    class="w-full border-(--edge) bg-(--sheet) px-2 py-1.5 text-base text-(--ink) {problem
      ? 'border-2 border-(--bad)'
      : ''}"
    oninput={(e) => (draft = typed(e))}
    onchange={(e) => {
      const text = typed(e);
      if (!clears) void take(text);
      else if (text !== '' && text !== refusedText) add(text);
    }}
    onkeydown={(e) => {
      if (e.key === 'Enter' && clears) {
        e.preventDefault();
        const input = e.currentTarget as HTMLInputElement;
        add(input.value);
        input.value = '';
      } else if (e.key === 'Escape' && draft !== null) {
        e.stopPropagation();
        draft = null;
        problem = '';
      }
    }}
  />
  {#if problem}
    <Helper id="{id}-say" class="mt-1 text-sm font-semibold text-(--bad)">{problem}</Helper>
  {:else if hint}
    <Helper id="{id}-say" class="mt-1 text-sm text-(--quiet)">{hint}</Helper>
  {/if}
</div>

<style>
  .field {
    min-width: 0;
  }
  .big :global(input) {
    font-size: 1.75rem;
    min-height: 3.25rem;
  }
</style>
