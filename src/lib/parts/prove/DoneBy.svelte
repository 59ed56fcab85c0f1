<script lang="ts">
  import Field from '../Field.svelte';

  let { by, sign }: { by: string; sign: (name: string) => string | null } = $props();
  let changing = $state(false);
</script>

<!-- Whose name goes on record: asked once, then shown. -->
{#if by === '' || changing}
  <Field
    label="Done by"
    value={by}
    commit={(name) => {
      changing = false;
      return sign(name);
    }}
    placeholder="Your name"
  />
{:else}
  <p>
    Done by <strong>{by}</strong>
    <button type="button" onclick={() => (changing = true)}>change</button>
  </p>
{/if}

<style>
  p {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.4rem;
  }
  button {
    min-height: 44px;
    padding: 0 0.5rem;
    text-decoration: underline;
    text-underline-offset: 3px;
  }
</style>
