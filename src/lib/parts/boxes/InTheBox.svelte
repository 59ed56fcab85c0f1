<script lang="ts">
  import { useSession } from '../../store/session.svelte.ts';

  /** The way to the wiring of a box, from wherever the box appears. */
  let { boxId }: { boxId: string } = $props();
  const session = useSession();
</script>

<p><a href="/job/{session.jobId}/trim?box={boxId}">Wiring, steps and fill of this box ›</a></p>

<style>
  a {
    display: inline-grid;
    align-content: center;
    min-height: 44px;
    font-weight: 650;
    text-decoration: underline;
    text-underline-offset: 3px;
  }
</style>
