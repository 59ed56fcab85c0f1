/** Pictures of a job: shrunk in a worker, kept beside the document in the browser's database. */
import { wrap, type Remote } from 'comlink';
import { newId } from '#core/job/document.ts';
import type { Picture } from '#core/job/schema.ts';
import type { PicturesWorker } from '../workers/shrink.worker.ts';
import { db, writing } from './db.ts';
import type { JobSession } from './session.svelte.ts';

/** Largest picture taken in, bytes. */
const MAX_PICTURE = 40 * 1024 * 1024;

let worker: Remote<PicturesWorker> | null = null;
const shrinker = (): Remote<PicturesWorker> =>
  (worker ??= wrap<PicturesWorker>(
    new Worker(new URL('../workers/shrink.worker.ts', import.meta.url), { type: 'module' }),
  ));

export const loadPicture = async (jobId: string, id: string): Promise<Blob | null> =>
  (await db.pictures.get([jobId, id]))?.blob ?? null;

/** Takes in a picture of something. Answers with what is wrong, or null. */
export async function addPicture(
  session: JobSession,
  about: Picture['about'],
  file: File,
): Promise<string | null> {
  if (file.size > MAX_PICTURE) return `${file.name} is larger than 40 MB; expected a picture`;
  let shrunk;
  try {
    shrunk = await shrinker().shrink(file);
  } catch {
    return `${file.name} cannot be read as a picture; expected JPEG, PNG or WebP`;
  }
  const picture: Picture = {
    id: newId('picture'),
    about,
    at: new Date().toISOString(),
    caption: '',
    width: shrunk.width,
    height: shrunk.height,
  };
  // The picture before its row: a row without its picture would be a promise not kept.
  try {
    const row = { jobId: session.jobId, id: picture.id, blob: shrunk.blob };
    await writing([db.pictures], () => db.pictures.put(row));
  } catch (error) {
    return `not stored: ${String(error)}`;
  }
  return session.attempt({ type: 'put', table: 'pictures', rows: [picture] });
}
