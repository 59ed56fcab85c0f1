<script lang="ts" generics="T extends string | number">
  import Label from 'flowbite-svelte/Label.svelte';
  import Select from 'flowbite-svelte/Select.svelte';

  interface Props {
    label: string;
    value: T;
    options: readonly { value: T; name: string }[];
    set: (value: T) => unknown;
  }
  let { label, value, options, set }: Props = $props();
  const id = $props.id();
  const asText = $derived(options.map((o) => ({ value: String(o.value), name: o.name })));
</script>

<div class="min-w-0">
  <Label for={id} class="mb-1 block text-sm font-semibold text-(--ink)">{label}</Label>
  <Select
    {id}
    value={String(value)}
    items={asText}
    placeholder=""
    classes={{ select: 'border-(--edge) bg-(--sheet) py-1.5 ps-2 pe-8 text-base text-(--ink)' }}
    onchange={(e) => {
      const chosen = options.find((o) => String(o.value) === e.currentTarget.value);
      if (chosen) set(chosen.value);
    }}
  />
</div>
