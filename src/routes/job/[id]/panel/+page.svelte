<script lang="ts">
  import { newSubpanel } from '#core/panel/add.ts';
  import { onMount } from 'svelte';
  import { panelsInOrder } from '#core/job/document.ts';
  import { panelCaution } from '#core/records/sources.ts';
  import { actions } from '$lib/actions.svelte.ts';
  import { address } from '$lib/address.svelte.ts';
  import { applyFix } from '$lib/fixes.ts';
  import Act from '$lib/parts/Act.svelte';
  import Bar from '$lib/parts/Bar.svelte';
  import Empty from '$lib/parts/Empty.svelte';
  import FindingsList from '$lib/parts/FindingsList.svelte';
  import Page from '$lib/parts/Page.svelte';
  import BreakerForm from '$lib/parts/panel/BreakerForm.svelte';
  import Directory from '$lib/parts/panel/Directory.svelte';
  import Legs from '$lib/parts/panel/Legs.svelte';
  import LoadView from '$lib/parts/panel/LoadView.svelte';
  import PanelForm from '$lib/parts/panel/PanelForm.svelte';
  import PriceBook from '$lib/parts/panel/PriceBook.svelte';
  import Spaces from '$lib/parts/panel/Spaces.svelte';
  import Tabs from '$lib/parts/Tabs.svelte';
  import { useSession } from '$lib/store/session.svelte.ts';

  const session = useSession();
  const document = $derived(session.document);
  const panels = $derived(panelsInOrder(document));

  const VIEWS = [
    { value: 'spaces', name: 'Spaces' },
    { value: 'load', name: 'Load' },
    { value: 'directory', name: 'Directory' },
    { value: 'prices', name: 'Price book' },
  ] as const;
  const view = $derived(address.oneOf('view', ['spaces', 'load', 'directory', 'prices']));
  const chosen = $derived(address.get('circuit'));
  const circuit = $derived(document.circuits[chosen ?? ''] ?? null);
  const panel = $derived(
    document.panels[address.get('panel') ?? circuit?.panelId ?? ''] ?? panels[0] ?? null,
  );
  const choosePanel = (id: string) => address.choose({ panel: id });
  const chooseCircuit = (id: string) => address.choose({ circuit: id });
  const here = $derived(panel ? new Set(session.view.circuitsIn(panel).map((c) => c.id)) : new Set<string>());
  const findings = $derived(
    session.findings?.filter(
      (f) => f.about.id === panel?.id || (f.about.table === 'circuits' && here.has(f.about.id)),
    ) ?? null,
  );

  async function addSubpanel() {
    const from = panel ?? panels[0];
    if (!from) return;
    const added = newSubpanel(document, from);
    if (!added.ok) session.problems = [{ path: 'feeder.space', message: added.message }];
    else if (await session.execute({ type: 'put', table: 'panels', rows: [added.value] }))
      choosePanel(added.value.id);
  }

  onMount(() =>
    actions.offer(() => [
      ...VIEWS.map((v) => ({
        id: `panel-${v.value}`,
        name: `Panel: ${v.name}`,
        hint: 'Panel',
        words: 'view',
        run: () => address.show({ view: v.value }),
      })),
      { id: 'add-subpanel', name: 'Add a subpanel', hint: 'Panel', words: 'feeder', run: addSubpanel },
    ]),
  );
</script>

<Page>
  <div class="bar sheet no-print">
    <Bar title="Panel">
      {#if panels.length > 1}
        <div class="row" role="group" aria-label="Which panel">
          {#each panels as p (p.id)}
            <Act pressed={p.id === panel?.id} onclick={() => choosePanel(p.id)}>{p.name}</Act>
          {/each}
        </div>
      {/if}
      <Act onclick={addSubpanel} disabled={!panel}>Add a subpanel</Act>
    </Bar>
  </div>
  {#if !panel}
    <div class="sheet">
      <Empty title="No panel yet."><p>Place one in Walk, under House and panel.</p></Empty>
    </div>
  {:else}
    <div class="no-print">
      <Tabs label="View of the panel" value={view} options={VIEWS} set={(v) => address.show({ view: v })} />
    </div>
    {#if view === 'spaces'}
      <div class="columns">
        <section>
          <Spaces
            {panel}
            {chosen}
            choose={(id) => (id === chosen ? choosePanel(panel.id) : chooseCircuit(id))}
          />
          <p class="quiet">
            Drag a breaker to another space, or Alt with the arrow keys; one dropped on another of its kind
            changes places with it.
          </p>
          <p class="caution">
            {panelCaution(session.document, panel)} The cover comes off only for qualified persons.
          </p>
        </section>
        <section class="side">
          {#if circuit && here.has(circuit.id)}<BreakerForm {circuit} />{/if}
          <Legs {panel} />
          <div class="sheet">
            <FindingsList
              {findings}
              apply={(fix) => applyFix(session, fix)}
              show={(f) => f.about.table === 'circuits' && chooseCircuit(f.about.id)}
            />
          </div>
          <PanelForm {panel} onremoved={() => address.choose({})} />
        </section>
      </div>
    {:else if view === 'load'}
      <LoadView {panel} />
    {:else if view === 'directory'}
      <Directory {panel} />
    {:else}
      <PriceBook />
    {/if}
  {/if}
</Page>

<style>
  .bar {
    padding: 0.5rem 1rem;
  }
  .columns {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(22rem, 26rem);
    gap: 0.75rem;
    align-items: start;
  }
  .side {
    display: grid;
    gap: 0.75rem;
    min-width: 0;
    grid-template-columns: minmax(0, 1fr);
  }
  section > .quiet {
    padding-top: 0.5rem;
  }
  @media (max-width: 900px) {
    .columns {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
