<script lang="ts">
  import Field from '../Field.svelte';

  /** Words of a step beside its answer; they go along with it. */
  let { label, note = $bindable() }: { label: string; note: string } = $props();
</script>

<Field
  {label}
  value={note}
  commit={(text) => {
    note = text;
    return null;
  }}
/>
