import { proxy, wrap } from 'comlink';
import type { JobDocument } from '#core/job/schema.ts';
import type { PlannerSettings } from '#core/planner/settings.ts';
import type { Draft, PlannerWorker } from './planner.worker.ts';

/**
 * Plans in a worker of its own.
 * @returns ends the planning; what was told last stands
 */
export function startPlanning(
  document: JobDocument,
  settings: PlannerSettings,
  tell: (draft: Draft) => void,
  fail: (error: unknown) => void,
): () => void {
  const worker = new Worker(new URL('./planner.worker.ts', import.meta.url), { type: 'module' });
  worker.onerror = (event) => fail(new Error(event.message || 'the planner did not start'));
  const SEED = 1;
  wrap<PlannerWorker>(worker)
    .plan(document, settings, SEED, proxy(tell))
    .catch(fail)
    .finally(() => worker.terminate());
  return () => worker.terminate();
}
