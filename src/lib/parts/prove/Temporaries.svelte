<script lang="ts">
  import { actualBoxes } from '#core/boxes/planned.ts';
  import { probePlaces } from '#core/boxes/probes.ts';
  import type { Run } from '#core/circuits/run.ts';
  import { TEMPORARIES, type Temporary } from '#core/job/schema.ts';
  import { Measuring } from '../../measuring.svelte.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Check from '../Check.svelte';
  import Choice from '../Choice.svelte';

  /** What is tied or parted for a measurement; power stays shut until each is undone. */
  interface Props {
    measure: Measuring;
    run: Run;
    stop: number;
  }
  let { measure, run, stop }: Props = $props();

  const session = useSession();
  const here = $derived(run.stops[stop]!);
  const ends = $derived(
    probePlaces(actualBoxes(run)[stop]!, (id) => session.document.boxes[id]?.name ?? id).filter(
      (p) => p.kind === 'end',
    ),
  );
  let kind = $state<Temporary['kind']>('separated');
  let chosen = $state<string[]>([]);
  let said = $state('');
  const WORDS = { tie: 'Tie together', separated: 'Take apart and spread' } as const;
  const STANDS = { tie: 'Tied', separated: 'Apart' } as const;

  async function put() {
    const picked = ends.filter((e) => chosen.includes(e.key));
    said = await measure.mark({
      kind,
      ends: picked.map((e) => e.key),
      names: picked.map((e) => e.name).join(', '),
      undoes: null,
      boxId: here.box.id,
      place: `${here.box.name}, ${here.area.name}`,
    });
    if (said === '') chosen = [];
  }
  const undo = async ({ id, kind, ends, names, boxId, place }: Temporary) => {
    said = await measure.mark({ kind, ends, names, boxId, place, undoes: id });
  };
</script>

{#each measure.temporaries as t (t.id)}
  <div class="stands">
    <p><strong>{STANDS[t.kind]}, {t.place}:</strong> {t.names}</p>
    <Act big onclick={() => undo(t)}>Undone</Act>
  </div>
{/each}
{#if measure.temporaries.length > 0}
  <p class="quiet">Power does not come back to use until each of these is on record as undone.</p>
{/if}
{#if said}<p class="wrong" role="alert">{said}</p>{/if}
<details>
  <summary>Tie or part conductors for a measurement</summary>
  <p class="caution">Dead and proved dead, every time. A tie is a short: it is off before the power is on.</p>
  <Choice
    label="What is done"
    value={kind}
    options={TEMPORARIES.map((t) => ({ value: t, name: WORDS[t] }))}
    set={(k) => (kind = k)}
  />
  <div class="ends">
    {#each ends as end (end.key)}
      <Check
        big
        label={end.name}
        checked={chosen.includes(end.key)}
        set={(is) => (chosen = is ? [...chosen, end.key] : chosen.filter((k) => k !== end.key))}
      />
    {/each}
  </div>
  <Act big disabled={chosen.length < (kind === 'tie' ? 2 : 1)} onclick={put}>Put it on record</Act>
</details>

<style>
  .stands {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0.5rem;
    align-items: center;
    border-left: 6px solid var(--warn);
    background: var(--panel);
    padding: 0.4rem 0.75rem;
  }
  .ends {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
    gap: 0.2rem 0.6rem;
  }
  summary {
    min-height: 2.4rem;
    font-weight: 650;
  }
</style>
