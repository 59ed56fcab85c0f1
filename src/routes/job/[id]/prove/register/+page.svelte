<script lang="ts">
  import { runOf } from '#core/circuits/run.ts';
  import { failuresOf, groundingAt, notesOf, registerOf, REPLACE_YEARS } from '#core/records/deviceTests.ts';
  import { address } from '$lib/address.svelte.ts';
  import { download, fileName } from '$lib/files.ts';
  import Act from '$lib/parts/Act.svelte';
  import Bar from '$lib/parts/Bar.svelte';
  import Empty from '$lib/parts/Empty.svelte';
  import Field from '$lib/parts/Field.svelte';
  import Page from '$lib/parts/Page.svelte';
  import DeviceForm from '$lib/parts/prove/DeviceForm.svelte';
  import { lastPerson, localTime, signed, today } from '$lib/readings.ts';
  import { useSession } from '$lib/store/session.svelte.ts';

  const session = useSession();
  const register = $derived(registerOf(session.document, (c) => runOf(session.view, c), today()));
  const open = $derived(address.get('device'));
  const show = (device: string | null) => address.show({ device });
  let by = $state(lastPerson());
  const due = $derived(register.filter((d) => d.state !== 'in order').length);

  async function exportCalendar() {
    const { calendarOf } = await import('#core/formats/calendar.ts');
    download(
      fileName(session.document.job, '-devices.ics'),
      'text/calendar',
      calendarOf(session.document, register, new Date().toISOString()),
    );
  }
  const SIGN = {
    'in order': '✓',
    'never tested': '?',
    'test due': '!',
    replace: '!',
    defective: '✕',
  } as const;
</script>

<Page kind="sheet">
  <div class="sheet pad stack">
    <Bar title="Device register" beside="{register.length} devices, {due} to see to">
      <Act href="/job/{session.jobId}/prove">Back to Prove</Act>
      <Act disabled={register.length === 0} onclick={exportCalendar}>Export calendar</Act>
    </Bar>
    <p class="quiet">
      Ground-fault and arc-fault devices with what each takes down. Test monthly by the device’s own button; {REPLACE_YEARS}
      years is a usual age to replace one at. The calendar carries a monthly test and the day to replace.
    </p>
    {#if register.length === 0}
      <Empty title="No GFCI or AFCI in this job yet."
        ><p>Fit one in Layout, or choose a breaker with protection in Runs.</p></Empty
      >
    {:else}
      <ul>
        {#each register as d (d.key)}
          {@const [last] = d.tests}
          <li class={d.state.replace(' ', '-')}>
            <button
              type="button"
              class="line"
              aria-expanded={open === d.key}
              onclick={() => show(open === d.key ? null : d.key)}
            >
              <span class="sign" aria-hidden="true">{SIGN[d.state]}</span>
              <span class="what">
                <strong
                  >{d.kind.toUpperCase()} {d.box ? d.box.name : `breaker, space ${d.circuit.space}`}</strong
                >
                <span class="quiet">{d.circuit.name}</span>
              </span>
              <span
                >{d.protects.length === 0 ? 'itself alone' : d.protects.map((p) => p.name).join(', ')}</span
              >
              <span>{last ? localTime(last.at) : 'no test'}</span>
              <span>{d.installed ? `put in ${d.installed}` : 'age unknown'}</span>
              <strong class="word">{d.state}</strong>
            </button>
            {#if open === d.key}
              <div class="detail">
                {#if d.nextTest}<p>
                    Next test {d.nextTest}{d.replaceBy ? `; replace by ${d.replaceBy}` : ''}.
                  </p>{/if}
                {#each d.tests as t (t.id)}
                  <p class="quiet">
                    {localTime(t.at)}, {t.by}: {[
                      failuresOf(t, groundingAt(d.circuit, d.box)).join('; ') || 'passed',
                      ...notesOf(t, groundingAt(d.circuit, d.box)),
                    ].join('; ')}{t.note ? ` · ${t.note}` : ''}
                  </p>
                {/each}
                <Field
                  label="Done by"
                  value={by}
                  placeholder="Your name"
                  commit={(name) => {
                    by = signed(name);
                    return by === '' ? 'expected a name' : null;
                  }}
                />
                <DeviceForm device={d} {by} onrecorded={() => show(null)} />
              </div>
            {/if}
          </li>
        {/each}
      </ul>
    {/if}
  </div>
</Page>

<style>
  li {
    border-left: 6px solid var(--edge);
    border-bottom: 1px solid var(--rule);
  }
  .line {
    display: grid;
    grid-template-columns: 2rem minmax(12rem, 1.2fr) 2fr 1fr 1fr 8rem;
    gap: 0.6rem;
    align-items: center;
    width: 100%;
    min-height: 52px;
    text-align: left;
    padding: 0.3rem 0.5rem;
  }
  .what {
    display: grid;
  }
  .sign {
    font-size: 1.4rem;
    font-weight: 800;
    text-align: center;
  }
  .detail {
    display: grid;
    gap: 0.7rem;
    padding: 0.6rem 1rem 1.2rem 3rem;
    max-width: 40rem;
  }
  .detail :global(.caution) {
    border-left: 6px solid var(--warn);
    background: var(--panel);
    padding: 0.5rem 0.75rem;
  }
  .in-order {
    border-left-color: var(--good);
  }
  .in-order .sign,
  .in-order .word {
    color: var(--good);
  }
  .never-tested {
    border-left-color: var(--unknown);
  }
  .never-tested .sign,
  .never-tested .word {
    color: var(--unknown);
  }
  .test-due,
  .replace {
    border-left-color: var(--warn);
  }
  .test-due .word,
  .replace .word {
    color: var(--warn);
  }
  .defective {
    border-left-color: var(--bad);
  }
  .defective .sign,
  .defective .word {
    color: var(--bad);
  }
  @media (max-width: 760px) {
    .line {
      grid-template-columns: 2rem 1fr auto;
    }
    .line > span:nth-child(n + 3) {
      grid-column: 2 / -1;
    }
    .word {
      grid-column: 3;
      grid-row: 1;
    }
    .detail {
      padding-left: 0.75rem;
    }
  }
</style>
