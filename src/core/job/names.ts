/** Names of outlets: letters and a number, each once in a job. */
import { rows } from './document.ts';
import type { JobDocument } from './schema.ts';

export const namesIn = (document: JobDocument): Set<string> =>
  new Set(rows(document.boxes).map((b) => b.name));

/** The first of `S1`, `S2` … that is not taken. */
export function freeName(letters: string, taken: ReadonlySet<string>): string {
  for (let n = 1; ; n++) if (!taken.has(`${letters}${n}`)) return `${letters}${n}`;
}
