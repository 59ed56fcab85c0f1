/** Two copies of one job: what either put on record is on record in both; what is edited stays each copy’s own. */
import { applyChanges, type Change } from './document.ts';
import { RECORD_TABLES, type Recorded } from './order.ts';
import type { Entity, JobDocument } from './schema.ts';

/** Rows of the record that another copy has and this one has not. */
export function missingIn(document: JobDocument, other: JobDocument): Change[] {
  return RECORD_TABLES.flatMap((table) => {
    const own: Readonly<Record<string, Recorded>> = document[table];
    const theirs: Readonly<Record<string, Recorded>> = other[table];
    return Object.values(theirs).flatMap((row): Change[] => {
      const there = own[row.id];
      if (there && text(there) >= text(row)) return [];
      return [{ table, id: row.id, before: (there as Entity | undefined) ?? null, after: row as Entity }];
    });
  });
}

/**
 * A row by its content, whatever order its fields have: one id with two contents was tampered with, and whichever copy takes in
 * the other, both come to hold the same one.
 */
const text = (value: unknown): string =>
  JSON.stringify(value, (_key, of: unknown) =>
    typeof of === 'object' && of !== null && !Array.isArray(of)
      ? Object.fromEntries(Object.entries(of).sort(([a], [b]) => (a < b ? -1 : 1)))
      : of,
  );

/** A copy with all that either put on record: by identity, whichever comes first and however often. */
export const unite = (document: JobDocument, other: JobDocument): JobDocument =>
  applyChanges(document, missingIn(document, other));
