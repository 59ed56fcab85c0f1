/**
 * Changes of what a gate reads. An edit may be taken back, and with it what it made of the record: so that no undo brings a
 * proof of dead back, each such change goes on record itself.
 */
import type { Change } from '#core/job/document.ts';
import { rows } from '#core/job/document.ts';
import { order, type Recorded } from '#core/job/order.ts';
import type { Alteration, JobDocument, Proof } from '#core/job/schema.ts';

/** Fields that gates read; what is under one of them counts as it. */
const GATED = {
  job: ['otherSources'],
  boxes: [
    ...['areaId', 'wallId', 'offset', 'height', 'fromWall', 'status', 'device', 'cables', 'found'],
    ...['wiring', 'through'],
  ],
  circuits: [
    ...['panelId', 'space', 'half', 'otherSpace', 'breaker', 'neutral', 'cable', 'ordered', 'status', 'stops'],
  ],
  panels: ['feeder', 'oneMain'],
} as const satisfies Partial<Record<Change['table'], readonly string[]>>;
type Gated = keyof typeof GATED;
const isGated = (table: Change['table']): table is Gated => Object.hasOwn(GATED, table);

/** Fields that say which breaker a conductor hangs on: whatever else is on record, a proof under it ends with them. */
const WHICH_BREAKER = new Set(['panelId', 'space', 'half', 'otherSpace', 'breaker', 'through', 'feeder']);

const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);

/** What of a breaker says which handle opens what; its rating and protection do not. */
const handle = (value: unknown): unknown => {
  const { poles, tie } = value as { poles: unknown; tie: unknown };
  return { poles, tie };
};

/** The fields of a change that gates read; none where it is no change of them. */
function fieldsOf({ table, before, after }: Change): string[] {
  if (!isGated(table)) return [];
  const fields: readonly string[] = GATED[table];
  // A row that is new says nothing different of what is there; one that goes takes all with it.
  if (before === null) return [];
  if (after === null) return [...fields];
  const [old, now] = [before, after] as unknown as [Record<string, unknown>, Record<string, unknown>];
  return fields.filter((f) =>
    f === 'breaker' ? !same(handle(old[f]), handle(now[f])) : !same(old[f], now[f]),
  );
}

/**
 * What goes on record with edits, and the proofs that they end.
 * @param stands whether a proof holds in a document
 */
export function alterationsOf(
  before: JobDocument,
  after: JobDocument,
  edits: readonly Change[],
  stands: (document: JobDocument, proof: Proof) => boolean,
): Omit<Alteration, 'id' | 'at'>[] {
  const changed = edits.flatMap((edit) => {
    const fields = fieldsOf(edit);
    return fields.length > 0 ? [{ table: edit.table as Gated, row: edit.id, fields }] : [];
  });
  if (changed.length === 0) return [];
  const ended = rows(before.proofs)
    .filter((p) => stands(before, p) && !stands(after, p))
    .map((p) => p.id);
  return changed.map((c, k) => ({ ...c, ended: k === 0 ? ended : [] }));
}

/** What a proof speaks of, by the tables of which gates read fields. */
export type Concerned = Readonly<Record<Gated, ReadonlySet<string>>>;

/**
 * The name of what was changed so that a proof ended, or null. Which breaker feeds a box ends it from its first lock on; of
 * other fields those do that left it with a gap, and those of which nobody knows whether they came first.
 */
export function alterationSince(
  document: JobDocument,
  proof: Proof,
  start: Recorded,
  concerned: Concerned,
): string | null {
  const ends = (a: Alteration): boolean => {
    if (a.ended.includes(proof.id)) return true;
    if (!concerned[a.table].has(a.row)) return false;
    const came = order(document, a, start);
    return came === 'unknown' || (came === 'after' && a.fields.some((f) => WHICH_BREAKER.has(f)));
  };
  const found = rows(document.alterations).find(ends);
  if (!found) return null;
  const row = found.table === 'job' ? document.job : document[found.table][found.row];
  return row?.name ?? 'what is no longer in the job';
}
