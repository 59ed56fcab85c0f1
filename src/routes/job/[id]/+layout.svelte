<script lang="ts">
  import { onMount, type Snippet } from 'svelte';
  import { page } from '$app/state';
  import { actions } from '$lib/actions.svelte.ts';
  import { rememberPlace } from '$lib/lastPlace.ts';
  import JobAlerts from '$lib/parts/job/JobAlerts.svelte';
  import JobHeader from '$lib/parts/job/JobHeader.svelte';
  import JobState from '$lib/parts/job/JobState.svelte';
  import { PHASES } from '$lib/phases.ts';
  import { JobSession, provideSession } from '$lib/store/session.svelte.ts';
  import { jobActions, listenForKeys } from './jobActions.ts';

  let { children }: { children: Snippet } = $props();

  const jobId = $derived(page.params.id ?? '');
  const session = $derived(new JobSession(jobId));
  provideSession(() => session);

  $effect(() => {
    const opened = session;
    void opened.open();
    return () => opened.close();
  });

  $effect(() => rememberPlace(jobId, page.url.pathname + page.url.search));

  const phase = $derived(page.url.pathname.split('/')[3] ?? 'walk');
  const phaseName = $derived(PHASES.find((p) => p.path === phase)?.name ?? (phase === 'call' ? 'Call' : ''));

  onMount(() => {
    const release = actions.offer(() => jobActions(session));
    const keys = listenForKeys(() => session);
    return () => {
      release();
      keys();
    };
  });
</script>

<svelte:head>
  <title>{phaseName} · {session.status === 'ready' ? session.document.job.name : 'Job'} · Hekto</title>
</svelte:head>

<svelte:window
  onbeforeunload={(e) => {
    if (session.unsaved || session.storageFull) e.preventDefault();
  }}
/>

{#key jobId}
  <div>
    <JobHeader {phase} />
    <JobAlerts />
    <JobState>{@render children()}</JobState>
  </div>
{/key}

<style>
  div {
    display: flex;
    flex-direction: column;
    min-height: 100dvh;
  }
</style>
