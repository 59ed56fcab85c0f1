<script lang="ts">
  import type { Circuit } from '#core/job/schema.ts';
  import { breakerOptions, PROTECTION_OPTIONS } from '../names.ts';
  import { useSession } from '../store/session.svelte.ts';
  import Choice from './Choice.svelte';
  import Field from './Field.svelte';
  import NumberField from './NumberField.svelte';

  /** What every form of a circuit begins with: its line of the directory, its space, its breaker. */
  let { circuit, hint }: { circuit: Circuit; hint?: string } = $props();

  const session = useSession();
  const put = (values: Partial<Circuit>) =>
    session.attempt({ type: 'put', table: 'circuits', rows: [{ ...circuit, ...values }] });
  const putBreaker = (values: Partial<Circuit['breaker']>) =>
    put({ breaker: { ...circuit.breaker, ...values } });
</script>

<Field
  label="Name, as on the directory"
  value={circuit.name}
  {hint}
  commit={(name) => put({ name: name.trim() })}
/>
<NumberField
  label="Panel space"
  value={circuit.space}
  min={1}
  max={84}
  set={(space) => put({ space: space! })}
/>
<Choice
  label="Breaker"
  value={circuit.breaker.rating}
  options={breakerOptions(circuit.breaker.rating)}
  set={(rating) => putBreaker({ rating })}
/>
<Choice
  label="Breaker kind"
  value={circuit.breaker.protection}
  options={PROTECTION_OPTIONS}
  set={(protection) => putBreaker({ protection })}
/>
