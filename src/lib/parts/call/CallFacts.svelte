<script lang="ts">
  import { ROLES, type Call, type Role } from '#core/job/schema.ts';
  import { newId } from '#core/job/document.ts';
  import { roleOf, ROLE_WORDS } from '#core/records/people.ts';
  import type { Calling } from '../../calling.svelte.ts';
  import { localTime } from '../../readings.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';
  import Field from '../Field.svelte';
  import Countersigns from './Countersigns.svelte';

  /** What is known of a call beside its steps; all of it optional. */
  let { call, calling }: { call: Call; calling: Calling } = $props();
  const session = useSession();
  const entries = $derived([...(calling.context?.log.entries ?? [])].reverse());
  const now = new Date().toISOString();
  const person = $derived(roleOf(session.document, calling.by, now));
  const setRole = (role: Role | '') =>
    role !== '' &&
    calling.by !== '' &&
    session.attempt({
      type: 'put',
      table: 'people',
      rows: [
        {
          id: newId('person'),
          at: new Date().toISOString(),
          name: calling.by,
          role,
          license: person?.license ?? '',
        },
      ],
    });
</script>

{#if calling.by !== ''}
  <Choice
    label="{calling.by} works as"
    value={person?.role ?? ''}
    options={[
      ...(person ? [] : [{ value: '' as const, name: 'Not said' }]),
      ...ROLES.map((value) => ({ value, name: ROLE_WORDS[value] })),
    ]}
    set={setRole}
  />
{/if}
<details>
  <summary>Where, and what was said</summary>
  <div class="stack">
    <Field
      label="Address"
      value={session.document.job.address}
      hint="if you want it on the sheet"
      commit={(text) => session.attempt({ type: 'edit-job', values: { address: text.trim().slice(0, 160) } })}
    />
    <Field
      label="In the customer’s words"
      value={call.words}
      commit={(text) =>
        session.attempt({
          type: 'put',
          table: 'calls',
          rows: [{ ...call, words: text.trim().slice(0, 160) }],
        })}
    />
  </div>
</details>
<details>
  <summary>Answers so far ({entries.length})</summary>
  <ol>
    {#each entries as e (e.id)}
      <li><strong>{e.title}</strong> {e.said} <span class="quiet">{localTime(e.at)}, {e.by}</span></li>
    {/each}
  </ol>
</details>
{#if session.document.job.entry === 'call'}
  <Act onclick={() => session.attempt({ type: 'edit-job', values: { entry: 'project' } })}
    >Keep it as a project: it is to be planned</Act
  >
{/if}
<Countersigns by={calling.by} />

<style>
  li {
    padding: 0.35rem 0;
    border-bottom: 1px solid var(--rule);
  }
</style>
