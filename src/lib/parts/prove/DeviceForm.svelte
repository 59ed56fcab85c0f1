<script lang="ts">
  import { newId } from '#core/job/document.ts';
  import { DAY, type Box, type Circuit, type DeviceTest } from '#core/job/schema.ts';
  import { failuresOf, groundingAt, notesOf, type RegisteredDevice } from '#core/records/deviceTests.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Check from '../Check.svelte';
  import Choice from '../Choice.svelte';
  import Field from '../Field.svelte';
  import NumberField from '../NumberField.svelte';

  /** One test of a ground-fault or arc-fault device: by its own button, with everything it should take down. */
  interface Props {
    device: RegisteredDevice;
    by: string;
    onrecorded?: () => void;
  }
  let { device, by, onrecorded }: Props = $props();

  const session = useSession();
  type Draft = Pick<
    DeviceTest,
    'tripped' | 'voltsAfterTest' | 'voltsAfterReset' | 'reset' | 'tester' | 'indicator' | 'note'
  >;
  const BLANK: Draft = {
    tripped: false,
    voltsAfterTest: null,
    voltsAfterReset: null,
    reset: false,
    tester: null,
    indicator: 'none',
    note: '',
  };
  let draft = $state.raw<Draft>(BLANK);
  let dead = $state<Record<string, boolean>>({});
  let installed = $state<string | null>(null);
  let said = $state('');
  const set = (values: Partial<Draft>) => {
    draft = { ...draft, ...values };
    return null;
  };
  const downstream = $derived(device.protects.map(({ boxId }) => ({ boxId, dead: dead[boxId] ?? false })));
  const where = (box: Box | null, circuit: Circuit) =>
    box
      ? `${box.name}, ${session.document.areas[box.areaId]?.name ?? ''}`
      : `Breaker, space ${circuit.space}`;
  const test = $derived<DeviceTest>({
    ...draft,
    id: 'test-draft',
    circuitId: device.circuit.id,
    boxId: device.box?.id ?? null,
    place: where(device.box, device.circuit),
    at: '2000-01-01T00:00:00Z',
    by,
    kind: device.kind,
    downstream: draft.tripped ? downstream : [],
    installed: installed ?? device.installed,
  });
  const grounding = $derived(groundingAt(device.circuit, device.box));
  const failures = $derived(failuresOf(test, grounding));
  const notes = $derived(notesOf(test, grounding));

  async function record() {
    if (by.trim() === '') {
      said = 'Who tests: expected a name';
      return;
    }
    const row: DeviceTest = { ...test, id: newId('test'), at: new Date().toISOString() };
    said = (await session.attempt({ type: 'put', table: 'deviceTests', rows: [row] })) ?? '';
    if (said !== '') return;
    draft = BLANK;
    dead = {};
    onrecorded?.();
  }
</script>

<p class="caution">
  Tell people what goes dark. Press the device’s own button: it needs power and no ground. A plug-in tester
  alone proves nothing on an ungrounded box.
</p>
<ol>
  <li>
    <Check
      big
      label="1 · Test pressed: it tripped"
      checked={draft.tripped}
      set={(tripped) => set({ tripped })}
    />
  </li>
  <li>
    <NumberField
      optional
      big
      label="2 · Hot–neutral after the test"
      unit="V"
      min={0}
      max={300}
      value={draft.voltsAfterTest}
      hint="expect 0"
      set={(voltsAfterTest) => set({ voltsAfterTest })}
    />
  </li>
  {#if device.protects.length > 0}
    <li>
      <p><strong>3 · Every outlet downstream went dark</strong></p>
      <div class="downstream">
        {#each device.protects as { boxId, name } (boxId)}
          <Check
            big
            label="{name} dark"
            checked={dead[boxId] ?? false}
            set={(dark) => (dead = { ...dead, [boxId]: dark })}
          />
        {/each}
      </div>
      <Act onclick={() => (dead = Object.fromEntries(device.protects.map((p) => [p.boxId, true])))}
        >All of them dark</Act
      >
    </li>
  {/if}
  <li>
    <Check
      big
      label="{device.protects.length > 0 ? 4 : 3} · Reset again, and left so"
      checked={draft.reset}
      set={(reset) => set({ reset })}
    />
    <NumberField
      optional
      big
      label="Hot–neutral after reset"
      unit="V"
      min={0}
      max={300}
      value={draft.voltsAfterReset}
      set={(voltsAfterReset) => set({ voltsAfterReset })}
    />
  </li>
</ol>
<details>
  <summary>Tester, indicator, age</summary>
  <div class="more">
    {#if device.kind === 'gfci'}
      <NumberField
        optional
        label="Tester sent"
        unit="mA"
        min={1}
        max={100}
        value={draft.tester?.milliamps ?? null}
        set={(milliamps) =>
          set({ tester: milliamps === null ? null : { milliamps, seconds: draft.tester?.seconds ?? null } })}
      />
      <NumberField
        optional
        label="Tripped after"
        unit="s"
        min={0}
        max={60}
        hint="empty: it did not"
        value={draft.tester?.seconds ?? null}
        set={(seconds) =>
          draft.tester ? set({ tester: { ...draft.tester, seconds } }) : 'say first what the tester sent'}
      />
    {/if}
    <Choice
      label="Indicator"
      value={draft.indicator}
      options={[
        { value: 'none', name: 'has none' },
        { value: 'good', name: 'shows good' },
        { value: 'fault', name: 'shows a fault' },
      ]}
      set={(indicator) => set({ indicator })}
    />
    <Field
      label="Put in on"
      hint="such as 2019-06-01; ten years is a usual age to replace one at"
      value={installed ?? device.installed ?? ''}
      commit={(text) => {
        if (text !== '' && !DAY.test(text)) return 'expected a day such as 2019-06-01';
        installed = text === '' ? null : text;
        return null;
      }}
    />
    <Field
      label="Note"
      value={draft.note}
      commit={(note) => (note.length > 400 ? 'expected at most 400 characters' : set({ note }))}
    />
  </div>
</details>
<p class={failures.length > 0 ? 'wrong' : 'good'} role="status">
  {failures.length === 0 ? '✓ As ticked, it passes.' : `As ticked it is defective: ${failures.join('; ')}.`}
</p>
{#each notes as note (note)}<p class="quiet">{note}.</p>{/each}
{#if said}<p class="wrong" role="alert">{said}</p>{/if}
<Act kind="main" big onclick={record}>Record the test</Act>

<style>
  ol {
    display: grid;
    gap: 0.8rem;
  }
  .downstream {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(8rem, 1fr));
  }
  .more {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.6rem;
    padding-top: 0.4rem;
  }
  summary {
    min-height: 2.4rem;
    font-weight: 650;
  }
  .good {
    color: var(--good);
    font-weight: 700;
  }
</style>
