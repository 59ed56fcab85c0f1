<script lang="ts">
  import type { Problem } from '#core/job/integrity.ts';
  import { PRICE_ITEMS, type PriceItem } from '#core/job/schema.ts';
  import { InvalidError } from '#core/job/validate.ts';
  import { MADE_UP_PRICES, priceBookOf } from '#core/panel/prices.ts';
  import { download, fileName, readText } from '../../files.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import PickFile from '../PickFile.svelte';
  import NumberField from '../NumberField.svelte';

  /** What the planner reckons with. Prices ship made up; the shop's own go over them. */
  const session = useSession();
  const job = $derived(session.document.job);
  const book = $derived(priceBookOf(job));
  const own = $derived(new Set(job.prices.map((p) => p.item)));

  let problems = $state.raw<Problem[]>([]);
  let said = $state('');

  const put = (prices: typeof job.prices) => session.attempt({ type: 'edit-job', values: { prices } });
  const without = (item: PriceItem) => job.prices.filter((p) => p.item !== item);

  async function read(file: File) {
    problems = [];
    said = '';
    try {
      const { pricesFromCsv } = await import('#core/formats/pricesCsv.ts');
      const prices = pricesFromCsv(await readText(file));
      const named = new Set(prices.map((p) => p.item));
      const refused = await put([...job.prices.filter((p) => !named.has(p.item)), ...prices]);
      said = refused ?? `${prices.length} prices taken over.`;
    } catch (error) {
      problems = error instanceof InvalidError ? error.problems : [{ path: 'file', message: String(error) }];
    }
  }
  async function write() {
    const { pricesToCsv } = await import('#core/formats/pricesCsv.ts');
    download(fileName(job, '-prices.csv'), 'text/csv', pricesToCsv(book));
  }
  const NAMES: Partial<Record<PriceItem, string>> = {
    breaker: 'Breaker, one pole',
    'breaker-afci': 'Breaker, AFCI',
    'breaker-gfci': 'Breaker, GFCI',
    'breaker-dual': 'Breaker, AFCI + GFCI',
    'breaker-two-pole': 'Breaker, two poles',
    'breaker-two-pole-gfci': 'Breaker, two poles, GFCI',
    'gfci-receptacle': 'GFCI receptacle, beyond a plain one',
    'room-change': 'A run that enters another room',
  };
  const nameOf = (item: PriceItem): string => {
    const [, gauge, conductors] = item.split('-');
    return NAMES[item] ?? `Cable ${gauge}-${conductors} with ground`;
  };
</script>

<section class="sheet pad stack">
  <div class="head">
    <div>
      <h2>Price book</h2>
      <p class="quiet">
        {own.size === 0
          ? 'All prices here are made up.'
          : `${own.size} of ${PRICE_ITEMS.length} are the shop’s own; the rest are made up.`}
        Planning circuits goes by them.
      </p>
    </div>
    <div class="acts">
      <Act onclick={write}>Export CSV</Act>
      <PickFile label="Price book CSV" accept=".csv,text/csv" take={read}>Import CSV</PickFile>
      {#if own.size > 0}<Act kind="danger" onclick={() => put([])}>Back to made-up prices</Act>{/if}
    </div>
  </div>
  {#if said}<p role="status">{said}</p>{/if}
  {#if problems.length > 0}
    <div role="alert" class="bad">
      <p>Nothing was taken over:</p>
      <ul>
        {#each problems as p (p.path + p.message)}<li>{p.path}: {p.message}</li>{/each}
      </ul>
    </div>
  {/if}
  <div class="grid-form" style:--field="15rem">
    {#each PRICE_ITEMS as item (item)}
      <NumberField
        label={nameOf(item)}
        unit={item.startsWith('cable') ? '$ a foot' : '$'}
        value={book[item] / 100}
        min={0}
        max={100000}
        hint={own.has(item) ? `own price; made up: ${(MADE_UP_PRICES[item] / 100).toFixed(2)}` : ''}
        set={(dollars) => put([...without(item), { item, cents: Math.round(dollars! * 100) }])}
      />
    {/each}
  </div>
</section>

<style>
  .head {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem 1rem;
    justify-content: space-between;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    align-items: start;
  }
  .bad {
    color: var(--bad);
    font-weight: 600;
  }
</style>
