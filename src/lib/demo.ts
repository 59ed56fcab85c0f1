import { goto } from '$app/navigation';
import { hasJob, storeJob } from './store/jobs.ts';

/** Opens the demo job, stored first when it is not here; what was changed in it stays. */
export async function openDemoJob(): Promise<void> {
  const { studioJob } = await import('../../demo/studio.ts');
  const demo = studioJob();
  if (!(await hasJob(demo.job.id))) await storeJob(demo);
  await goto(`/job/${demo.job.id}/layout`);
}
