<script lang="ts">
  import { ALL_RULES } from '#core/code/rules/index.ts';
  import { newId, rows } from '#core/job/document.ts';
  import type { Amendment } from '#core/job/schema.ts';
  import { formatLength, parseLength } from '#core/units/length.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';
  import Field from '../Field.svelte';

  const session = useSession();
  const amendments = $derived(rows(session.document.amendments));
  const ruleOf = (id: string) => ALL_RULES.find((r) => r.id === id);
  const RULE_OPTIONS = ALL_RULES.map((r) => ({ value: r.id, name: r.title })).sort((a, b) =>
    a.name.localeCompare(b.name),
  );

  let rule = $state('wall-spacing');
  let action = $state<Amendment['action']>('note');
  const chosen = $derived(ruleOf(rule));
  const actions = $derived([
    { value: 'note' as const, name: 'Add a note' },
    { value: 'off' as const, name: 'Switch the rule off' },
    ...(chosen?.limit ? [{ value: 'tighten' as const, name: 'Tighten its limit' }] : []),
  ]);
  const doing = $derived(actions.some((a) => a.value === action) ? action : 'note');

  /** `Ordinance 14-3; a note`, and for a tighter limit `Ordinance 14-3; 4'`. */
  async function add(text: string): Promise<string | null> {
    const [reference = '', ...rest] = text.split(';').map((t) => t.trim());
    if (reference === '') return 'expected where the amendment stands, such as “Ordinance 14-3”';
    const said = rest.join('; ');
    let limit: number | null = null;
    if (doing === 'tighten' && chosen?.limit) {
      const parsed = parseLength(said, { bare: 'inches' });
      if (!parsed.ok) return `limit: ${parsed.message}`;
      const tighter =
        chosen.limit.tighter === 'less'
          ? parsed.value < chosen.limit.value
          : parsed.value > chosen.limit.value;
      if (!tighter)
        return `limit: ${formatLength(parsed.value)} is not tighter than the code’s ${formatLength(chosen.limit.value)}`;
      limit = parsed.value;
    }
    return session.attempt({
      type: 'put',
      table: 'amendments',
      rows: [
        {
          id: newId('amendment'),
          rule,
          action: doing,
          limit,
          reference,
          note: doing === 'tighten' ? '' : said,
        },
      ],
    });
  }
  const describe = (a: Amendment): string => {
    const title = ruleOf(a.rule)?.title ?? a.rule;
    if (a.action === 'off') return `${title}: not asked for here`;
    if (a.action === 'tighten') return `${title}: ${formatLength(a.limit ?? 0)}`;
    return title;
  };
</script>

<div class="stack">
  <p class="quiet">
    What the place you work in has changed about the code. Findings say so, in your words. A limit can be
    tightened, never loosened.
  </p>
  <ul>
    {#each amendments as a (a.id)}
      <li>
        <span
          ><strong>{describe(a)}</strong>
          <span class="quiet">{a.reference}{a.note ? `: ${a.note}` : ''}</span></span
        >
        <Act
          kind="danger"
          label="Remove the amendment {a.reference}"
          onclick={() => session.execute({ type: 'remove', table: 'amendments', ids: [a.id] })}>✕</Act
        >
      </li>
    {:else}
      <li class="quiet">None on record.</li>
    {/each}
  </ul>
  <div class="grid-form" style:--field="12rem">
    <Choice label="Rule" value={rule} options={RULE_OPTIONS} set={(r) => (rule = r)} />
    <Choice label="What it does" value={doing} options={actions} set={(a) => (action = a)} />
    <Field
      label={doing === 'tighten' ? 'Where it stands; the limit' : 'Where it stands; a note'}
      value=""
      clears
      placeholder={doing === 'tighten' ? "Ordinance 14-3; 5'" : 'Ordinance 14-3; ask first'}
      hint={chosen?.limit && doing === 'tighten'
        ? `${chosen.limit.of}: the code says ${formatLength(chosen.limit.value)}`
        : 'Enter adds it'}
      commit={add}
    />
  </div>
</div>

<style>
  li {
    display: flex;
    gap: 0.75rem;
    align-items: center;
    justify-content: space-between;
    padding: 0.4rem 0;
    border-bottom: 1px solid var(--rule);
  }
</style>
