<script lang="ts">
  import { AREA_FACTS } from '#core/tables/areas.ts';
  import type { Report } from '#core/handover/report.ts';
  import { rows } from '#core/job/document.ts';
  import { byName } from '#core/job/names.ts';
  import type { View } from '#core/view/view.ts';

  let { report, view }: { report: Report; view: View } = $props();

  /** Rooms by level, with their kind where the name does not say it. */
  const floors = $derived(
    rows(view.document.levels)
      .sort((a, b) => b.elevation - a.elevation)
      .map((level) => ({
        level,
        names: [...view.areasOn(level.id)].sort(byName).map((a) => {
          const kind = AREA_FACTS[a.kind].label.toLowerCase();
          const said = kind.split(/[ ,]+/).some((w) => w.length > 3 && a.name.toLowerCase().includes(w));
          return said ? a.name : `${a.name} (${kind})`;
        }),
      }))
      .filter((f) => f.names.length > 0),
  );
</script>

<header>
  <div>
    <p class="kicker">Record of wiring</p>
    <p class="title">{report.job.name}</p>
    <p>{report.job.address}</p>
  </div>
  <dl>
    <div>
      <dt>Judged by</dt>
      <dd>
        NEC {report.job.edition}; {report.amendments.length === 0
          ? 'no local amendments entered'
          : `local amendments: ${report.amendments.join('; ')}`}
      </dd>
    </div>
    <div>
      <dt>Dwelling</dt>
      <dd>{report.job.dwelling.replace('-', ' ')}</dd>
    </div>
  </dl>
</header>
<dl class="rooms">
  {#each floors as { level, names } (level.id)}
    <div>
      <dt>{level.name}</dt>
      <dd>{names.join(', ')}</dd>
    </div>
  {/each}
</dl>

<style>
  header {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 1rem 2rem;
    border-bottom: 4px solid var(--copper);
    padding-bottom: 1rem;
  }
  .kicker {
    color: var(--quiet);
    font-weight: 600;
  }
  .title {
    font-size: 1.9rem;
    font-weight: 800;
    line-height: 1.1;
    overflow-wrap: anywhere;
  }
  header dl > div {
    display: grid;
    grid-template-columns: 6rem minmax(0, 20rem);
  }
  .rooms > div {
    display: grid;
    grid-template-columns: 8rem minmax(0, 1fr);
    padding: 0.3rem 0;
  }
  dt {
    color: var(--quiet);
  }
</style>
