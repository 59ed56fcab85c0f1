/** What this browser signs its rows with, so that what it wrote and what another did are told apart. */
import { newId } from '#core/job/document.ts';
import { isForked } from '#core/job/order.ts';
import type { JobDocument } from '#core/job/schema.ts';
import { keep, kept } from './kept.ts';

const KEY = 'hekto-device';

/** This browser’s own name; another one where its storage was cleared. */
export const thisDevice = (): string => kept(KEY) ?? renew();

function renew(): string {
  const name = newId('device');
  keep(KEY, name);
  return name;
}

/** A copy of this profile wrote under the same name: from now on this one has its own. */
export function apartFromCopies(document: JobDocument): void {
  if (isForked(document, thisDevice())) renew();
}
