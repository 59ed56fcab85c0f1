<script lang="ts">
  import type { Answer } from '#core/procedures/step.ts';
  import Field from '../Field.svelte';

  /** A reading or a test that cannot be made: left out, and why stands on record. */
  let { what, answer }: { what: string; answer: (values: Partial<Answer>) => unknown } = $props();
</script>

<details>
  <summary>Cannot be {what}</summary>
  <Field
    label="Why not"
    value=""
    clears
    hint="Enter leaves it out, on record"
    commit={(note) => {
      if (note.trim() === '') return 'expected why it is left out';
      answer({ picks: ['skip'], note });
      return null;
    }}
  />
</details>
