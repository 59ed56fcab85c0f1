import { goto } from '$app/navigation';
import { storeJob } from './store/jobs.ts';
import { hasJob } from './store/list.ts';

/** Opens the demo job, stored first when it is not here; what was changed in it stays. */
export async function openDemoJob(): Promise<void> {
  const { tamarackJob } = await import('../../demo/tamarack.ts');
  const demo = tamarackJob();
  if (!(await hasJob(demo.job.id))) await storeJob(demo);
  await goto(`/job/${demo.job.id}/layout`);
}
