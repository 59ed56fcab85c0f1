<script lang="ts">
  import type { FaultRecord } from '#core/job/schema.ts';
  import { utc } from '../../readings.ts';
  import Act from '../Act.svelte';

  interface Props {
    faults: readonly { fault: FaultRecord; box: string; job?: string }[];
    /** Takes a record back; without it they are only read. */
    strike?: (fault: FaultRecord) => unknown;
  }
  /** Faults as they were found and mended. */
  let { faults, strike }: Props = $props();
  /** The record that is asked about. */
  let asked = $state('');
</script>

{#if faults.length === 0}
  <p class="quiet">None on record.</p>
{:else}
  <ul>
    {#each faults as { fault, box, job } (fault.id)}
      <li>
        <strong>{fault.found}</strong>
        <p>
          {fault.fix}{#if fault.parts}
            Parts: {fault.parts}.{/if}
        </p>
        <p>
          {fault.retest === 'held'
            ? 'Tested under its load'
            : 'Not tested under its load yet'}{#if fault.minutes !== null}
            for {fault.minutes} min{/if}{#if fault.voids.length > 0}; {fault.voids.length} earlier reading{fault
              .voids.length > 1
              ? 's no longer hold'
              : ' no longer holds'}{/if}.
        </p>
        <details>
          <summary>What showed it</summary>
          <ol>
            {#each fault.evidence.split('\n') as line, i (i)}<li>{line}</li>{/each}
          </ol>
        </details>
        <p class="quiet">
          {#if job}{job},
          {/if}{box || fault.place}, {utc(fault.at)} UTC, {fault.by}{#if fault.age !== null}; device {fault.age}
            years{/if}{#if fault.makeUp};
            {fault.makeUp}{/if}
        </p>
        {#if strike}
          {#if asked === fault.id}
            <p>It stays on record as struck, and what it voided holds again.</p>
            <div class="row">
              <Act kind="danger" onclick={() => strike(fault)}>Strike it</Act>
              <Act onclick={() => (asked = '')}>Keep it</Act>
            </div>
          {:else}
            <Act label="Strike: {fault.found}" onclick={() => (asked = fault.id)}>Strike</Act>
          {/if}
        {/if}
      </li>
    {/each}
  </ul>
{/if}

<style>
  ul > li {
    padding: 0.4rem 0;
    border-bottom: 1px solid var(--rule);
  }
</style>
