<script lang="ts">
  import { TILES, type Tile } from '#core/procedures/tiles.ts';
  import { search } from '$lib/palette.ts';

  /** A call begins with what is the matter; the place may wait. */
  interface Props {
    start: (tile: Tile, address: string) => unknown;
    /** In a job that is open: its place is known. */
    here?: boolean;
  }
  let { start, here = false }: Props = $props();
  let asked = $state('');
  let address = $state('');
  let whole = $state(false);
  const found = $derived(
    asked.trim() === ''
      ? TILES.filter((t) => whole || !t.more)
      : search(
          TILES.map((t) => ({ id: t.name, name: t.name, hint: '', words: t.words, run: () => null })),
          asked,
        ).flatMap((hit) => TILES.find((t) => t.name === hit.id) ?? []),
  );
</script>

<section class="sheet call">
  <h2>{here ? 'Something else here?' : 'Service call: what is the matter?'}</h2>
  <div class="fields">
    <input aria-label="Search" placeholder="Search: tripping, dryer, dim …" bind:value={asked} />
    {#if !here}<input
        aria-label="Where, if you like"
        placeholder="Where, if you like"
        maxlength="160"
        bind:value={address}
      />{/if}
  </div>
  <div class="tiles">
    {#each found as tile (tile.name)}
      <button type="button" onclick={() => start(tile, address)}>{tile.name}</button>
    {:else}
      <p class="quiet">Nothing by that name. Other words, or start a project below.</p>
    {/each}
    {#if asked.trim() === '' && !whole}
      <button type="button" class="more" onclick={() => (whole = true)}>All {TILES.length} …</button>
    {/if}
  </div>
  {#if !here}<a class="quiet" href="/listen">Listen: this phone stands at the outlet</a>{/if}
</section>

<style>
  .call {
    display: grid;
    gap: 0.7rem;
    padding: 0.8rem 1rem 1rem;
    border-top-color: var(--copper);
  }
  h2 {
    font-size: 1.35rem;
  }
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(9rem, 1fr));
    gap: 0.5rem;
  }
  input {
    min-width: 0;
    min-height: 48px;
    border: 1px solid var(--edge);
    background: var(--sheet);
    padding: 0.3rem 0.6rem;
    font-size: 1.05rem;
  }
  .tiles {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(9.5rem, 1fr));
    gap: 0.5rem;
  }
  button {
    min-height: 62px;
    padding: 0.4rem 0.7rem;
    border: 2px solid var(--edge);
    border-left: 7px solid var(--copper);
    background: var(--sheet);
    text-align: left;
    font-size: 1.05rem;
    font-weight: 700;
    line-height: 1.15;
  }
  a {
    min-height: 44px;
    align-content: center;
    text-decoration: underline;
  }
  .more {
    border-left-width: 2px;
    border-style: dashed;
  }
  button:hover {
    background: var(--panel);
  }
</style>
