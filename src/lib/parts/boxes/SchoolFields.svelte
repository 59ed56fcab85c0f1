<script lang="ts">
  import type { School } from '#core/job/schema.ts';
  import Check from '../Check.svelte';
  import Choice from '../Choice.svelte';

  let { school, set }: { school: School; set: (school: School) => unknown } = $props();
  const put = (values: Partial<School>) => set({ ...school, ...values });
</script>

<div class="grid-form" style:--field="12rem">
  <Choice
    label="What goes on"
    value={school.joining}
    options={[
      { value: 'pigtail', name: 'Spliced, a tail to the device' },
      { value: 'feed-through', name: 'Through the device’s screws' },
    ]}
    set={(joining) => put({ joining })}
  />
  <Choice
    label="Connectors"
    value={school.connector}
    options={[
      { value: 'twist-on', name: 'Twist-on' },
      { value: 'lever', name: 'Lever' },
    ]}
    set={(connector) => put({ connector })}
  />
  <Choice
    label="Landing"
    value={school.landing}
    options={[
      { value: 'ground-neutral-hot', name: 'Ground, neutral, hot' },
      { value: 'hot-neutral-ground', name: 'Hot, neutral, ground' },
    ]}
    set={(landing) => put({ landing })}
  />
  <Choice
    label="Ground slot"
    value={school.groundSlot}
    options={[
      { value: 'down', name: 'Down' },
      { value: 'up', name: 'Up' },
    ]}
    set={(groundSlot) => put({ groundSlot })}
  />
  <Choice
    label="Metal box"
    value={school.bond}
    options={[
      { value: 'tail', name: 'Tail to its ground screw' },
      { value: 'clip', name: 'Listed ground clip' },
    ]}
    set={(bond) => put({ bond })}
  />
  <Check label="Tape around the device" checked={school.tape} set={(tape) => put({ tape })} />
</div>
<p class="quiet">
  Schools differ, and the code allows both sides of each, with two exceptions that Hekto keeps: grounds are
  always spliced, and the neutral of a multiwire circuit never hangs on a device (300.13(B)).
</p>
