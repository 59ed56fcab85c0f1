import { wrap, type Remote } from 'comlink';
import type { JobDocument } from '#core/job/schema.ts';
import type { HousePlan } from '#core/layout/placeMissing.ts';
import type { PlacementWorker } from './placement.worker.ts';

let remote: Remote<PlacementWorker> | null = null;

function start(failed: (error: Error) => void): Remote<PlacementWorker> {
  const worker = new Worker(new URL('./placement.worker.ts', import.meta.url), { type: 'module' });
  worker.onerror = (event) => {
    remote = null;
    failed(new Error(event.message || 'the worker for placing did not start'));
  };
  return wrap<PlacementWorker>(worker);
}

/** Works out, in a worker that is kept for the next time, what the given rooms lack and where it goes. */
export const placeAside = (
  document: JobDocument,
  areaIds: readonly string[],
  alternatives: boolean,
): Promise<HousePlan> =>
  new Promise((resolve, reject) => {
    remote ??= start(reject);
    remote.place(document, areaIds, alternatives).then(resolve, reject);
  });
