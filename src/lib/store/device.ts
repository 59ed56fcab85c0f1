/** What this browser signs its rows with, so that what it wrote and what another did are told apart. */
import { newId } from '#core/job/document.ts';
import { isForked } from '#core/job/order.ts';
import type { JobDocument } from '#core/job/schema.ts';

const KEY = 'hekto-device';
let known: string | null = null;

function kept(): string | null {
  try {
    return localStorage.getItem(KEY);
  } catch {
    return null;
  }
}

/** This browser’s own name; another one where its storage was cleared. */
export function thisDevice(): string {
  known = kept() ?? known;
  return known ?? renew();
}

function renew(): string {
  known = newId('device');
  try {
    localStorage.setItem(KEY, known);
  } catch {
    // Without storage the name lasts as long as the page.
  }
  return known;
}

/** A copy of this profile wrote under the same name: from now on this one has its own. */
export function apartFromCopies(document: JobDocument): void {
  if (isForked(document, thisDevice())) renew();
}
