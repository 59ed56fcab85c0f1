/** The end of a lock-out on record: power back, or the lock off. */
import { newId } from '#core/job/document.ts';
import type { Energizing } from '#core/job/schema.ts';
import type { JobSession } from './store/session.svelte.ts';

/** @returns why it was not put on record, or an empty text */
export async function energize(
  session: JobSession,
  circuitId: string,
  by: string,
  purpose: Energizing['purpose'],
): Promise<string> {
  if (by.trim() === '') return 'Who does it: expected a name';
  const row: Energizing = {
    id: newId('energizing'),
    circuitId,
    at: new Date().toISOString(),
    by,
    purpose,
  };
  return (await session.attempt({ type: 'put', table: 'energizings', rows: [row] })) ?? '';
}
