import { goto } from '$app/navigation';
import { storeJob } from './store/jobs.ts';
import { hasJob, noteStanding } from './store/list.ts';

/** Opens the demo job, stored first when it is not here; what was changed in it stays. */
export async function openDemoJob(): Promise<void> {
  const [{ tamarackJob }, { demoCalls }] = await Promise.all([
    import('../../demo/tamarack.ts'),
    import('../../demo/calls.ts'),
  ]);
  const demo = tamarackJob();
  for (const { document, title, next } of demoCalls(Date.now())) {
    if (await hasJob(document.job.id)) continue;
    await storeJob(document);
    await noteStanding(document.job.id, { title, next, open: true });
  }
  if (!(await hasJob(demo.job.id))) await storeJob(demo);
  await goto(`/job/${demo.job.id}/layout`);
}
