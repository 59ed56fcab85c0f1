<script lang="ts">
  import Field from './Field.svelte';

  interface Props {
    label: string;
    value: number | null;
    set: (value: number | null) => string | null | Promise<string | null>;
    min: number;
    max: number;
    unit?: string;
    hint?: string;
    optional?: boolean;
    big?: boolean;
  }
  let { label, value, set, min, max, unit = '', hint, optional = false, big = false }: Props = $props();
</script>

<Field
  {label}
  {hint}
  {unit}
  {big}
  inputmode="decimal"
  value={value === null ? '' : String(value)}
  commit={(text) => {
    const plain = text.trim().replace(',', '.');
    if (optional && plain === '') return set(null);
    const number = Number(plain);
    if (plain === '' || !Number.isFinite(number)) return `expected a number from ${min} to ${max}`;
    if (number < min || number > max)
      return `${number} is out of range; expected ${min} to ${max}${unit ? ` ${unit}` : ''}`;
    return set(number);
  }}
/>
