<script lang="ts">
  import { panelCaution } from '#core/records/sources.ts';
  import { PANEL_SIGNS, type Panel, type PanelFound } from '#core/job/schema.ts';
  import { MAIN_OPTIONS } from '../../names.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';
  import Field from '../Field.svelte';
  import Signs from '../Signs.svelte';
  import Pictures from '../Pictures.svelte';
  import Counter from './Counter.svelte';

  let { panel }: { panel: Panel } = $props();

  const session = useSession();
  const NOTHING: PanelFound = {
    protection: 'breakers',
    signs: [],
    fillersMissing: 0,
    doubledLugs: 0,
    breakers: [],
  };
  const found = $derived(panel.found ?? NOTHING);
  const record = (values: Partial<PanelFound>) =>
    session.attempt({ type: 'put', table: 'panels', rows: [{ ...panel, found: { ...found, ...values } }] });
  const PROTECTIONS = [
    { value: 'breakers', name: 'Breakers' },
    { value: 'fuses', name: 'Fuses' },
    { value: 'pull-outs', name: 'Pull-outs' },
  ] as const;

  /** `8, 15, bedrooms`; `1, 40/2, range` for two poles. */
  async function addBreaker(text: string): Promise<string | null> {
    const [spaceText = '', ratingText = '', ...label] = text.split(',').map((t) => t.trim());
    const space = Number(spaceText);
    if (!Number.isInteger(space) || space < 1 || space > panel.spaces)
      return `space: expected 1 to ${panel.spaces}, found “${spaceText.slice(0, 20)}”`;
    const [amps = '', poles = '1'] = ratingText.split('/');
    const rating = Number(amps.replace(/a$/i, ''));
    if (!(rating >= 5 && rating <= 400))
      return `rating: expected amperes, found “${ratingText.slice(0, 20)}”`;
    if (poles !== '1' && poles !== '2') return 'poles: expected 1 or 2 after the slash';
    const breaker = { space, rating, poles: Number(poles), label: label.join(', ').slice(0, 80) };
    return record({
      breakers: [...found.breakers.filter((b) => b.space !== space), breaker].sort(
        (a, b) => a.space - b.space,
      ),
    });
  }
</script>

<div class="stack">
  <p class="caution">
    {panelCaution(session.document, panel)} The cover comes off only for qualified persons, with empty spaces filled
    first.
  </p>
  <div class="grid-form" style:--field="9rem">
    <Choice
      label="One main opens all that feeds it"
      value={panel.oneMain}
      options={MAIN_OPTIONS}
      set={(oneMain) => session.attempt({ type: 'put', table: 'panels', rows: [{ ...panel, oneMain }] })}
    />
    <Choice
      label="Protected by"
      value={found.protection}
      options={PROTECTIONS}
      set={(protection) => record({ protection })}
    />
  </div>
  <div class="row">
    <Counter
      label="Fillers missing"
      value={found.fillersMissing}
      max={84}
      set={(fillersMissing) => record({ fillersMissing })}
    />
    <Counter
      label="Doubled lugs"
      value={found.doubledLugs}
      max={84}
      set={(doubledLugs) => record({ doubledLugs })}
    />
  </div>
  <Signs label="Condition" options={PANEL_SIGNS} chosen={found.signs} set={(signs) => record({ signs })} />
  <ul>
    {#each found.breakers as b (b.space)}
      <li>
        <span
          ><strong>{b.space}</strong>
          {b.rating} A{b.poles === 2 ? ', two poles' : ''}
          <span class="quiet">{b.label || 'no label'}</span></span
        >
        <Act
          kind="danger"
          label="Remove the record of space {b.space}"
          onclick={() => record({ breakers: found.breakers.filter((o) => o.space !== b.space) })}>✕</Act
        >
      </li>
    {/each}
  </ul>
  <Field
    label="Found in a space: space, amperes, what its directory says"
    value=""
    clears
    placeholder="8, 15, bedrooms"
    hint="Enter records it; 40/2 is two poles"
    commit={addBreaker}
  />
  <Pictures about={{ table: 'panels', id: panel.id }} name={panel.name} />
</div>

<style>
  li {
    display: flex;
    justify-content: space-between;
    align-items: center;
    padding: 0.25rem 0;
    border-bottom: 1px solid var(--rule);
  }
</style>
