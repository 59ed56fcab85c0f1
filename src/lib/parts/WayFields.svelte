<script lang="ts">
  import type { Circuit } from '#core/job/schema.ts';
  import { celsius, fahrenheit, round } from '#core/units/quantity.ts';
  import NumberField from './NumberField.svelte';

  type Way = Pick<Circuit, 'ambient' | 'bundled'>;
  let { way, put }: { way: Way; put: (values: Partial<Way>) => Promise<string | null> | null } = $props();
</script>

<!-- What conductors meet on their way: heat and others beside them. -->
<NumberField
  label="Heat on the way"
  unit="°F"
  value={Math.round(fahrenheit(way.ambient))}
  min={-40}
  max={185}
  hint="{round(way.ambient, 1)} °C; at its hottest: an attic in summer, 120 to 140 °F"
  set={(degrees) => put({ ambient: round(celsius(degrees!), 1) })}
/>
<NumberField
  label="Conductors bundled"
  value={way.bundled}
  min={1}
  max={100}
  hint="current-carrying, its own two included"
  set={(bundled) => put({ bundled: bundled! })}
/>
