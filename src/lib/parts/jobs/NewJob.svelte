<script lang="ts">
  import { EDITIONS, type Edition } from '#core/job/schema/words.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';

  let { start }: { start: (name: string, edition: Edition) => unknown } = $props();
  let name = $state('');
  let problem = $state('');
  let edition = $state<Edition>('2023');

  function submit(event: SubmitEvent) {
    event.preventDefault();
    problem = name.trim() === '' ? 'expected a name, such as the street and number' : '';
    if (problem === '') start(name.trim(), edition);
  }
</script>

<section class="sheet">
  <h2>New project</h2>
  <form onsubmit={submit} novalidate>
    <label for="new-name">What do you call it?</label>
    <input
      id="new-name"
      bind:value={name}
      maxlength="80"
      placeholder="Street and number"
      aria-invalid={problem !== ''}
      aria-describedby={problem ? 'new-name-say' : undefined}
    />
    {#if problem}<p id="new-name-say" class="wrong">{problem}</p>{/if}
    <Choice
      label="Which edition is adopted there?"
      value={edition}
      options={EDITIONS.map((e) => ({ value: e, name: `NEC ${e}` }))}
      set={(e) => (edition = e)}
    />
    <Act kind="main" type="submit" big>Start the job</Act>
  </form>
</section>

<style>
  form {
    display: grid;
    gap: 0.6rem;
  }
  label {
    font-weight: 600;
    font-size: 0.875rem;
  }
  input {
    border: 1px solid var(--edge);
    background: var(--sheet);
    padding: 0.4rem 0.5rem;
  }
</style>
