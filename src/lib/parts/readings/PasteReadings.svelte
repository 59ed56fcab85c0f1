<script lang="ts">
  import { lastPerson } from '$lib/readings.ts';
  import Act from '../Act.svelte';

  /** Takes the lines pasted; true when they are on record and the field may be emptied. */
  let { take }: { take: (lines: string) => Promise<boolean> } = $props();
  let pasted = $state('');

  async function add() {
    if (await take(pasted)) pasted = '';
  }
</script>

<details>
  <summary>Paste readings</summary>
  <p class="quiet">
    A line an outlet: name, hot–neutral, hot–ground, neutral–ground, and amps if a load was on. Commas,
    semicolons or tabs. They are as-found readings by {lastPerson() || 'the person named in Prove'}.
  </p>
  <textarea rows="4" aria-label="Readings to paste" placeholder="S1, 119.8, 119.7, 0.1" bind:value={pasted}
  ></textarea>
  <Act disabled={pasted.trim() === ''} onclick={add}>Add these readings</Act>
</details>

<style>
  textarea {
    width: 100%;
    border: 1px solid var(--edge);
    background: var(--sheet);
    padding: 0.4rem 0.6rem;
    font-family: var(--font-mono);
  }
</style>
