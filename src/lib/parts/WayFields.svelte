<script lang="ts">
  import type { Circuit } from '#core/job/schema.ts';
  import NumberField from './NumberField.svelte';

  type Way = Pick<Circuit, 'ambient' | 'bundled'>;
  let { way, put }: { way: Way; put: (values: Partial<Way>) => Promise<string | null> | null } = $props();
</script>

<!-- What conductors meet on their way: heat and others beside them. -->
<NumberField
  label="Heat on the way"
  unit="°C"
  value={way.ambient}
  min={-40}
  max={85}
  hint="at its hottest; an attic in summer: 50 to 60"
  set={(ambient) => put({ ambient: ambient! })}
/>
<NumberField
  label="Conductors bundled"
  value={way.bundled}
  min={1}
  max={100}
  hint="current-carrying, its own two included"
  set={(bundled) => put({ bundled: bundled! })}
/>
