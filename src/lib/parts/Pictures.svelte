<script lang="ts">
  import { byTime } from '#core/units/time.ts';
  import { rows } from '#core/job/document.ts';
  import type { Picture } from '#core/job/schema.ts';
  import { localTime } from '../readings.ts';
  import { addPicture, loadPicture } from '../store/pictures.ts';
  import { useSession } from '../store/session.svelte.ts';
  import Act from './Act.svelte';

  interface Props {
    about: Picture['about'];
    name: string;
    big?: boolean;
  }
  let { about, name, big = false }: Props = $props();

  const session = useSession();
  const pictures = $derived(
    rows(session.document.pictures)
      .filter((p) => p.about.table === about.table && p.about.id === about.id)
      .sort((a, b) => byTime(a.at, b.at)),
  );
  let input = $state<HTMLInputElement>();
  let problem = $state('');
  let busy = $state(false);

  async function take(files: FileList | null) {
    busy = true;
    problem = '';
    for (const file of files ?? []) problem = (await addPicture(session, about, file)) ?? problem;
    busy = false;
  }

  /** Shows a stored picture; the address is let go with the element. */
  function stored(image: HTMLImageElement, id: string) {
    let url = '';
    void loadPicture(session.jobId, id).then((blob) => {
      if (!blob) {
        image.alt = 'This picture is on the device it was taken with';
        return;
      }
      url = URL.createObjectURL(blob);
      image.src = url;
    });
    return { destroy: () => url && URL.revokeObjectURL(url) };
  }
</script>

<div class="pictures">
  {#each pictures as p (p.id)}
    <figure>
      <img use:stored={p.id} alt="{name}, {localTime(p.at)}" width={p.width} height={p.height} />
      <figcaption>
        <span>{localTime(p.at)}</span>
        <Act
          kind="danger"
          label="Remove the picture of {name} of {localTime(p.at)}"
          onclick={() => session.execute({ type: 'remove', table: 'pictures', ids: [p.id] })}>✕</Act
        >
      </figcaption>
    </figure>
  {/each}
  <input
    bind:this={input}
    type="file"
    accept="image/*"
    capture="environment"
    class="sr-only"
    aria-label="Picture of {name}"
    onchange={(e) => {
      const { files } = e.currentTarget;
      void take(files).then(() => input && (input.value = ''));
    }}
  />
  <Act {big} onclick={() => input?.click()} disabled={busy}>{busy ? 'Taking it in…' : 'Take a picture'}</Act>
</div>
{#if problem}<p class="wrong" role="alert">{problem}</p>{/if}

<style>
  .pictures {
    display: flex;
    flex-wrap: wrap;
    gap: 0.6rem;
    align-items: center;
  }
  img {
    width: auto;
    height: 6.5rem;
    max-width: 12rem;
    object-fit: cover;
    background: var(--panel);
    border: 1px solid var(--edge);
  }
  figcaption {
    display: flex;
    gap: 0.4rem;
    align-items: center;
    justify-content: space-between;
    font-size: 0.85rem;
  }
</style>
