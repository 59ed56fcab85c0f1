/**
 * Changes of what a gate reads. An edit may be taken back, and with it what it made of the record: so that no undo brings a
 * proof of dead back, each such change goes on record itself.
 */
import type { Change } from '#core/job/document.ts';
import { rows } from '#core/job/document.ts';
import { inOrder, type Order, type Recorded } from '#core/job/order.ts';
import type { Alteration, JobDocument, Proof } from '#core/job/schema.ts';

/** In place of fields: the row is gone. */
const REMOVED = 'removed';

/** Fields that gates read. */
const GATED = {
  job: ['otherSources'],
  boxes: [
    ...['areaId', 'wallId', 'offset', 'height', 'fromWall', 'status', 'device', 'cables', 'found'],
    ...['wiring', 'through', 'through.less'],
  ],
  circuits: [
    ...['panelId', 'space', 'half', 'otherSpace', 'breaker.handle', 'neutral', 'cable', 'ordered', 'status'],
    ...['stops', 'stops.less'],
  ],
  panels: ['feeder', 'oneMain'],
} as const satisfies Partial<Record<Change['table'], readonly string[]>>;
type Gated = keyof typeof GATED;
const isGated = (table: Alteration['table'], field: string): boolean => {
  const fields: readonly string[] | undefined = (GATED as Partial<Record<string, readonly string[]>>)[table];
  return fields !== undefined && (field === REMOVED || fields.includes(field));
};

/** Fields that say which breaker a conductor hangs on: whatever else is on record, a proof under it ends with them. */
const WHICH_BREAKER = new Set([
  ...['panelId', 'space', 'half', 'otherSpace', 'breaker.handle', 'through.less', 'stops.less', 'feeder'],
  REMOVED,
]);

const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);

/** What of a breaker says which handle opens what; its rating and protection do not. */
const handle = (breaker: unknown): unknown => {
  const { poles, tie } = breaker as { poles: unknown; tie: unknown };
  return { poles, tie };
};

/** The fields that an edit changed; none where the row is new. */
function fieldsOf({ table, before, after }: Change): string[] {
  if (before === null) return [];
  if (after === null) return [REMOVED];
  const [old, now] = [before, after] as unknown as [Record<string, unknown>, Record<string, unknown>];
  const fields = Object.keys(now).filter((f) => !same(old[f], now[f]));
  if (table === 'circuits' && !same(handle(old.breaker), handle(now.breaker))) fields.push('breaker.handle');
  if (table === 'boxes' && isLess(old.through as string[], now.through as string[]))
    fields.push('through.less');
  if (table === 'circuits' && isLess(outlets(old.stops), outlets(now.stops))) fields.push('stops.less');
  return fields;
}

/** Whether what was live on a circuit, or passed through a box, is said not to be of it. */
const isLess = (before: readonly string[], after: readonly string[]): boolean =>
  before.some((id) => !after.includes(id));
const outlets = (stops: unknown): string[] => (stops as { boxId: string }[]).map((s) => s.boxId);

/** So many proofs at most may hold at one time: those of a day. */
const NEWEST = 100;

/**
 * What goes on record with edits, and the proofs that they end.
 * @param stands whether a proof held in a document, on its own day
 * @param dangerOf what is dangerous in a box as it was done; empty where nothing is, null where it was not done
 */
export function alterationsOf(
  before: JobDocument,
  after: JobDocument,
  edits: readonly Change[],
  stands: (document: JobDocument, proof: Proof) => boolean,
  dangerOf: (document: JobDocument, boxId: string) => string | null,
): Omit<Alteration, 'id' | 'at'>[] {
  const changed = edits.flatMap((edit) => {
    const fields = fieldsOf(edit);
    return fields.length > 0 ? [{ table: edit.table as Alteration['table'], row: edit.id, fields }] : [];
  });
  const gated = changed.some(({ table, fields }) => fields.some((f) => isGated(table, f)));
  const ended = gated
    ? rows(before.proofs)
        .sort(inOrder)
        .slice(-NEWEST)
        .filter((p) => stands(before, p) && !stands(after, p))
        .map((p) => p.id)
    : [];
  return changed.map((c, k) => ({
    ...c,
    ended: k === 0 ? ended : [],
    danger:
      c.table === 'boxes' && (c.fields.includes('wiring') || c.fields.includes(REMOVED))
        ? (dangerOf(after, c.row) ?? dangerOf(before, c.row))
        : null,
  }));
}

/** Why power stays off a box whose wiring was dangerous as it was done, and of which nothing else was done since. */
export const standingDanger = (document: JobDocument, boxId: string): string | null =>
  rows(document.alterations)
    .filter((a) => a.table === 'boxes' && a.row === boxId && a.danger !== null)
    .sort(inOrder)
    .at(-1)?.danger || null;

/** What went on record beside the first lock of a proof. */
export interface BesideStart {
  came(row: Recorded): Order;
  /** Rows of a table that did not surely come before it. */
  since<T extends Recorded>(table: Readonly<Record<string, T>>): T[];
}

/** What a proof speaks of, by the tables of which gates read fields. */
type Concerned = Readonly<Record<Gated, ReadonlySet<string>>>;

/**
 * The name of what was changed so that a proof ended, or null. Which breaker feeds a box ends it from its first lock on; of
 * other fields those do that left it with a gap, and those of which nobody knows whether they came first.
 */
export function alterationSince(
  document: JobDocument,
  proof: Proof,
  { came, since }: BesideStart,
  concerned: Concerned,
): string | null {
  const ends = (a: Alteration): boolean => {
    if (a.ended.includes(proof.id)) return true;
    const { table, row, fields } = a;
    if (!fields.some((f) => isGated(table, f)) || !concerned[table as Gated].has(row)) return false;
    const when = came(a);
    return when === 'unknown' || (when === 'after' && fields.some((f) => WHICH_BREAKER.has(f)));
  };
  const found = since(document.alterations).find(ends);
  if (!found) return null;
  const row = found.table === 'job' ? document.job : document[found.table][found.row];
  return row && 'name' in row ? row.name : 'what is no longer in the job';
}
