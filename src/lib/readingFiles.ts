/** Readings as CSV in and out of the browser; the format loads when it is first wanted. */
import type { JobDocument, Reading } from '#core/job/schema.ts';
import { InvalidError } from '#core/job/validate.ts';
import { download, fileName } from './files.ts';
import type { JobSession } from './store/session.svelte.ts';

export async function exportReadings(document: JobDocument): Promise<void> {
  const { readingsToCsv } = await import('#core/formats/readingsCsv.ts');
  download(fileName(document.job, '-readings.csv'), 'text/csv', readingsToCsv(document));
}

/** Puts readings on record. @returns what to say of them. @throws InvalidError when they are refused */
export async function bringReadings(session: JobSession, readings: Reading[]): Promise<string> {
  if (readings.length === 0) return 'All of them are on record already.';
  const refused = await session.attempt({ type: 'put', table: 'readings', rows: readings });
  if (refused !== null) throw new InvalidError([{ path: 'readings', message: refused }]);
  return `${readings.length} readings added.`;
}
