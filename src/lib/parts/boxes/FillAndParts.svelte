<script lang="ts">
  import { contentsOf, roomOf } from '#core/boxes/contents.ts';
  import { connectorRange } from '#core/boxes/connectors.ts';
  import { DEVICES } from '#core/boxes/devices.ts';
  import { fillOf, fits, smallestBox } from '#core/boxes/fill.ts';
  import { membersOf, spliceName } from '#core/boxes/wiring.ts';
  import type { Box, BoxWiring } from '#core/job/schema.ts';
  import { round } from '#core/units/quantity.ts';
  import { plural } from '#core/units/words.ts';
  import { useSession } from '../../store/session.svelte.ts';

  let { box, wiring }: { box: Box; wiring: BoxWiring } = $props();
  const session = useSession();
  const contents = $derived(contentsOf(session.view, box));
  const fill = $derived(contents.ok ? fillOf(contents.value, session.view.edition) : null);
  const room = $derived(roomOf(box));
  const metal = $derived(box.found?.boxMaterial === 'metal');
  const smallest = $derived(fill && smallestBox(fill, metal ? 'metal' : 'nonmetallic'));
  const device = $derived(wiring.yokes[0] ? DEVICES[wiring.yokes[0].kind] : null);
</script>

<div class="both">
  <section aria-label="Fill">
    <h2>Fill, 314.16 of {session.view.edition}</h2>
    {#if !contents.ok}
      <p class="unknown">? Not judged: {contents.message}.</p>
    {:else if fill}
      <table>
        <tbody>
          {#each fill.lines as line (line.what)}
            <tr>
              <th scope="row">{line.what}</th>
              <td>{line.working}</td>
              <td class="quiet">{line.section}</td>
            </tr>
          {/each}
        </tbody>
        <tfoot>
          <tr>
            <th scope="row">Used</th>
            <td><strong>{round(fill.volume, 2)} in³</strong></td>
            <td></td>
          </tr>
          <tr>
            <th scope="row">The box has</th>
            <td>{room === null ? 'not read' : `${room} in³`}</td>
            <td>
              {#if room !== null}
                {#if fits(fill, room)}<span class="good">✓ {round(room - fill.volume, 2)} in³ to spare</span>
                {:else}<span class="wrong">! {round(fill.volume - room, 2)} in³ too much</span>{/if}
              {/if}
            </td>
          </tr>
        </tfoot>
      </table>
      <p>
        {#if smallest}Smallest usual {metal ? 'metal' : 'nonmetallic'} box that takes it: {smallest.name},
          {smallest.volume} in³.{:else}No usual box takes it: use a larger enclosure or fewer cables.{/if}
      </p>
      {#if device?.bulky}
        <p class="quiet">
          This device is deep. The count does not know that: a box one size up leaves room to fold behind it.
        </p>
      {/if}
    {/if}
  </section>
  <section aria-label="Parts">
    <h2>Parts</h2>
    <ul>
      {#if device}<li>{device.name}</li>{/if}
      {#each wiring.splices as s (s.id)}
        <li>
          {s.connector === 'unknown' ? 'Connector not on record' : s.connector}, {spliceName(s.id)}: {plural(
            membersOf(wiring, s.id).length,
            'conductor',
          )}{connectorRange(s.connector) ? `; takes ${connectorRange(s.connector)}` : ''}
        </li>
      {/each}
      {#if wiring.tails.length > 0}<li>{plural(wiring.tails.length, 'tail')}, 6 in. or longer</li>{/if}
      {#if device && device.gangs > 0}<li>Plate, {plural(device.gangs, 'gang')}</li>
      {:else if !device}<li>Blank cover, reachable</li>{/if}
    </ul>
    <p class="quiet">
      Connector classes stand for what the usual makes have in common. The table on the bag decides: read it
      for this very combination.
    </p>
  </section>
</div>

<style>
  .both {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(22rem, 100%), 1fr));
    gap: 1rem 2.5rem;
    align-items: start;
  }
  section {
    display: grid;
    gap: 0.5rem;
  }
  table {
    border-collapse: collapse;
    width: 100%;
  }
  th,
  td {
    text-align: left;
    font-weight: 500;
    padding: 0.25rem 0.5rem 0.25rem 0;
    border-bottom: 1px solid var(--rule);
    vertical-align: top;
  }
  li {
    padding: 0.15rem 0;
  }
</style>
