<script lang="ts">
  import type { Energized } from '#core/effects/energized.ts';
  import type { FaceVolts } from '#core/effects/shown.ts';

  let { energized }: { energized: Energized } = $props();

  const PAIRS = [
    ['hotNeutral', 'H–N'],
    ['hotGround', 'H–G'],
    ['neutralGround', 'N–G'],
    ['hotHot', 'H–H'],
  ] as const;
  const shown = $derived(
    PAIRS.filter(([pair]) => [...energized.volts, ...energized.planned].some((f) => f[pair] !== null)),
  );
  const plannedOf = (face: string): FaceVolts | undefined => energized.planned.find((f) => f.face === face);
</script>

<section class="effects" aria-label="With power on">
  <h2>With power on, so wired</h2>
  {#if energized.effects.length === 0}
    <p class="good">✓ As planned at every contact, for every position of its switches.</p>
  {:else}
    <ul>
      {#each energized.effects as e (e.text)}
        <li class={e.level}>
          <strong>{e.level === 'danger' ? '!! Danger' : '! Wrong'}</strong>
          {e.text}
        </li>
      {/each}
    </ul>
  {/if}
  {#if shown.length > 0}
    <table>
      <thead>
        <tr
          ><td></td>{#each shown as [pair, name] (pair)}<th>{name}</th>{/each}</tr
        >
      </thead>
      <tbody>
        {#each energized.volts as f (f.face)}
          <tr>
            <th>{f.face}</th>
            {#each shown as [pair] (pair)}
              {@const planned = plannedOf(f.face)?.[pair] ?? null}
              {@const off = f[pair] !== null && planned !== null && Math.abs(f[pair] - planned) > 5}
              <td class:off>{f[pair] === null ? '–' : `${Math.round(f[pair])} V`}</td>
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="quiet">
      Worked out on this circuit’s network with a meter that loads (3 kΩ), switches where the load is on. What
      is red is not as planned.
    </p>
  {/if}
</section>

<style>
  .effects {
    display: grid;
    gap: 0.5rem;
  }
  li {
    padding: 0.45rem 0.6rem;
    border-left: 6px solid var(--warn);
    background: var(--panel);
    margin-bottom: 0.3rem;
  }
  li.danger {
    border-color: var(--bad);
  }
  li.danger strong {
    color: var(--bad);
  }
  table {
    border-collapse: collapse;
  }
  th,
  td {
    padding: 0.2rem 0.8rem 0.2rem 0;
    text-align: left;
    border-bottom: 1px solid var(--rule);
  }
  .off {
    color: var(--bad);
    font-weight: 750;
  }
</style>
