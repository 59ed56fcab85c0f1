<script lang="ts">
  import { formatLength, parseLength, type LengthOptions } from '#core/units/length.ts';
  import Field from './Field.svelte';

  interface Props {
    label: string;
    /** Inches; null is empty. */
    inches: number | null;
    set: (inches: number | null) => string | null | Promise<string | null>;
    options?: LengthOptions;
    hint?: string;
    /** Whether the field may be emptied. */
    optional?: boolean;
  }
  let { label, inches, set, options = {}, hint, optional = false }: Props = $props();
</script>

<Field
  {label}
  {hint}
  unit={options.bare === 'inches' ? 'in' : 'ft-in'}
  value={inches === null ? '' : formatLength(inches)}
  commit={(text) => {
    if (optional && text.trim() === '') return set(null);
    const parsed = parseLength(text, options);
    return parsed.ok ? set(parsed.value) : parsed.message;
  }}
/>
