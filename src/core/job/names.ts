/** Names of outlets, such as S5: letters and a number, each once in a job whatever its case. */
import type { Box, JobDocument } from './schema.ts';

const collator = new Intl.Collator('en', { numeric: true });
/** For lists that people read: S2 comes before S10. */
export const byName = (a: { name: string }, b: { name: string }): number => collator.compare(a.name, b.name);

/** By which two names are the same. */
export const nameKey = (name: string): string => name.trim().toLowerCase();

export const namesIn = (document: JobDocument): Set<string> =>
  new Set(Object.values(document.boxes).map((b) => nameKey(b.name)));

/** The letters that a name is numbered on from. */
export const lettersOf = (name: string): string => /^\D*/.exec(name)![0].trim() || 'R';

/**
 * The first of `S1`, `S2` … that is not taken.
 * @param taken keys of names
 */
export function freeName(letters: string, taken: ReadonlySet<string>): string {
  for (let n = 1; ; n++) if (!taken.has(nameKey(`${letters}${n}`))) return `${letters}${n}`;
}

/** New outlets with names of their own: one whose name is taken is numbered on. */
export function withOwnNames(document: JobDocument, added: readonly Box[]): readonly Box[] {
  if (added.every((b) => document.boxes[b.id])) return added;
  const taken = namesIn(document);
  return added.map((box) => {
    if (document.boxes[box.id]) return box;
    const name = taken.has(nameKey(box.name)) ? freeName(lettersOf(box.name), taken) : box.name;
    taken.add(nameKey(name));
    return name === box.name ? box : { ...box, name };
  });
}
