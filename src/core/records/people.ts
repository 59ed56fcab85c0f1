/** Who works and as what, and whose work somebody licensed has to look over. */
import { isAfter, isBefore } from '#core/units/time.ts';
import type { Guard } from '#core/job/commands.ts';
import { rows, type Change } from '#core/job/document.ts';
import { nameKey } from '#core/job/names.ts';
import type { Problem } from '#core/job/integrity.ts';
import type {
  Countersign,
  Energizing,
  Entry,
  JobDocument,
  Person,
  Role,
  TableName,
  Tick,
} from '#core/job/schema.ts';

/** Tables whose rows are somebody’s work. */
const WORK = [
  ...(['readings', 'observations', 'proofs', 'energizings', 'deviceTests', 'ticks'] as const),
  ...(['measurements', 'temporaries', 'looks', 'entries', 'flips', 'partings'] as const),
] satisfies TableName[];

const sameName = (a: string, b: string): boolean => nameKey(a) === nameKey(b);

/** As what somebody worked at a moment; null where that is not on record. @param at UTC time */
export function roleOf({ people }: JobDocument, name: string, at: string): Person | null {
  return rows(people)
    .filter((p) => sameName(p.name, name) && !isAfter(p.at, at))
    .reduce<Person | null>((last, p) => (last === null || isAfter(p.at, last.at) ? p : last), null);
}

export const ROLE_WORDS: Record<Role, string> = {
  licensed: 'licensed electrician',
  apprentice: 'apprentice',
  owner: 'owner, where local law lets them',
};

/** A name as it stands under a record: with what the person worked as then. */
export function signature(document: JobDocument, name: string, at: string): string {
  const person = roleOf(document, name, at);
  if (!person) return name;
  return `${name}, ${ROLE_WORDS[person.role]}${person.license ? ` (${person.license})` : ''}`;
}

/** Work of an apprentice that nobody licensed has looked over. */
interface Unsigned {
  of: string;
  count: number;
  /** UTC time of the last of it. */
  through: string;
}

/** What apprentices did since they were last countersigned, by name. */
export function uncountersigned(document: JobDocument): Unsigned[] {
  const found = new Map<string, Unsigned>();
  for (const table of WORK)
    for (const { by, at } of rows<{ by: string; at: string }>(document[table])) {
      if (roleOf(document, by, at)?.role !== 'apprentice') continue;
      const signed = rows(document.countersigns).some((c) => sameName(c.of, by) && !isBefore(c.through, at));
      if (signed) continue;
      const key = nameKey(by);
      const known = found.get(key) ?? { of: by, count: 0, through: at };
      found.set(key, {
        of: known.of,
        count: known.count + 1,
        through: isAfter(at, known.through) ? at : known.through,
      });
    }
  return [...found.values()];
}

/** Work that local law may leave to the licensed: hands in boxes and panels, and power put back. */
const handsIn = ({ table, before, after }: Change): { id: string; by: string; at: string } | null => {
  if (before !== null || after === null) return null;
  const row = after as unknown as { id: string; by: string; at: string } & Partial<Entry & Tick & Energizing>;
  switch (table) {
    case 'proofs':
    case 'temporaries':
      return row;
    case 'ticks':
      return row.done ? row : null;
    case 'energizings':
      return row.purpose === 'lock-removed' ? null : row;
    case 'entries':
      return row.strikes === null && row.touches!.length > 0 ? row : null;
    default:
      return null;
  }
};

/** Where local law lets only somebody licensed open boxes and panels, nobody else is on record as having done so. */
export const licenseGuard: Guard = (_before, after, changes) =>
  after.job.settings.hunt.licensedOnly
    ? changes.flatMap((change): Problem[] => {
        const row = handsIn(change);
        return row === null || roleOf(after, row.by, row.at)?.role === 'licensed'
          ? []
          : [
              {
                path: `${change.table}[${row.id}].by`,
                message: `only a licensed person may do this by local law, as this job is set; ${row.by} is not on record as one`,
              },
            ];
      })
    : [];

/** Only somebody licensed signs for an apprentice, and nobody for themselves. */
export const countersignGuard: Guard = (_before, after, changes: readonly Change[]) =>
  changes.flatMap(({ table, before, after: row }): Problem[] => {
    if (table !== 'countersigns' || before !== null) return [];
    const { id, of, by, at } = row as Countersign;
    const path = `countersigns[${id}].by`;
    if (sameName(of, by)) return [{ path, message: 'expected somebody else than who did the work' }];
    return roleOf(after, by, at)?.role === 'licensed'
      ? []
      : [{ path, message: `expected a licensed person; ${by} is not on record as one` }];
  });
