import { wrap, type Remote } from 'comlink';
import type { Picture } from '#core/boxes/picture.ts';
import type { BoxWiring } from '#core/job/schema.ts';
import type { PictureWorker } from './picture.worker.ts';

let remote: Remote<PictureWorker> | null = null;

function start(failed: (error: Error) => void): Remote<PictureWorker> {
  const worker = new Worker(new URL('./picture.worker.ts', import.meta.url), { type: 'module' });
  worker.onerror = (event) => {
    remote = null;
    failed(new Error(event.message || 'the worker for pictures did not start'));
  };
  return wrap<PictureWorker>(worker);
}

/** Lays out the picture of a box in a worker that is kept for the next one. */
export const pictureAside = (wiring: BoxWiring, names: Readonly<Record<string, string>>): Promise<Picture> =>
  new Promise((resolve, reject) => {
    remote ??= start(reject);
    remote.layOut(wiring, names).then(resolve, reject);
  });
