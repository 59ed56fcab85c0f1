/** A document with what stands where in it, kept up to date change by change; look-ups over it are declared by `lookup`. */
import { isServiced } from '#core/tables/fixtures.ts';
import { changesBetween, rowsById, type Change } from '#core/job/document.ts';
import {
  TABLE_NAMES,
  type Amendment,
  type Area,
  type Box,
  type Circuit,
  type Edition,
  type Fixture,
  type JobDocument,
  type Opening,
  type Panel,
  type Rows,
  type TableName,
} from '#core/job/schema.ts';
import { lookup, lookupOfAll, Memos } from './lookup.ts';
import { RowIndex, type InRoom } from './rowIndex.ts';
import { changes, changesDevice, justChanges, roomsOf, touchedBy, type Touched } from './touched.ts';

const NO_BOXES: readonly Box[] = [];
const present = <T>(value: T | undefined): value is T => value !== undefined;

/** Rows of a table that stand in a room; the same list until one of them changes. */
function inRoom<T extends InRoom>(table: T) {
  type Row = JobDocument[T][string];
  return lookup(
    (touched) =>
      touched.changes
        .filter((c) => c.table === table)
        .flatMap((c) => [c.before, c.after].flatMap((row) => (row ? [(row as Row).areaId] : []))),
    ({ document, index }, area: Area): Row[] => {
      const byId = document[table] as Readonly<Record<string, Row>>;
      return [...index.byArea[table].of(area.id)]
        .sort()
        .map((id) => byId[id])
        .filter(present);
    },
  );
}
/** All rows of a table by id, whatever order the document has them in. */
function inOrder<T extends TableName>(table: T) {
  return lookupOfAll(
    (touched) => changes(touched, table),
    ({ document }) => rowsById(document[table] as Readonly<Record<string, Rows[T]>>),
  );
}
const allRows = Object.fromEntries(TABLE_NAMES.map((table) => [table, inOrder(table)])) as unknown as {
  readonly [T in TableName]: (view: View) => readonly Rows[T][];
};

const boxesIn = inRoom('boxes');
const fixturesIn = inRoom('fixtures');
const openingsIn = inRoom('openings');
const areasOn = lookup(
  (touched) => (changes(touched, 'areas') ? 'all' : []),
  ({ document, index }, levelId: string): Area[] =>
    [...index.areasByLevel.of(levelId)]
      .sort()
      .map((id) => document.areas[id])
      .filter(present),
);
const serviced = lookupOfAll(
  (touched) => changes(touched, 'fixtures'),
  (view): Fixture[] => view.rows('fixtures').filter(isServiced),
);
const anyLight = lookupOfAll(
  (touched) => changesDevice(touched, 'light'),
  (view): boolean => view.rows('boxes').some((b) => b.device.kind === 'light'),
);
/** Switches by what they control. */
const switches = lookupOfAll(
  (touched) => changesDevice(touched, 'switch'),
  (view): ReadonlyMap<string, readonly Box[]> => {
    const found = new Map<string, Box[]>();
    for (const s of view.rows('boxes')) {
      if (s.device.kind !== 'switch' || s.status === 'remove') continue;
      for (const id of s.controls) found.set(id, [...(found.get(id) ?? []), s]);
    }
    return found;
  },
);
const amendmentsOf = lookup(
  () => [],
  (view, rule: string): Amendment[] => view.rows('amendments').filter((a) => a.rule === rule),
);

export class View {
  document: JobDocument;
  readonly index: RowIndex;
  readonly memos: Memos;

  constructor(document: JobDocument, from: Pick<View, 'index' | 'memos'> | null = null) {
    this.document = document;
    this.index = from?.index ?? new RowIndex(document);
    this.memos = from?.memos ?? new Memos();
  }

  /** A view of a later document. It takes over this view's look-ups, so this one is not to be used any more. */
  follow(document: JobDocument): View {
    const next = new View(this.document, this);
    next.apply(document, changesBetween(this.document, document));
    return next;
  }

  /** Makes the changes and returns what they touch. */
  apply(document: JobDocument, list: readonly Change[]): Touched {
    // Before and after: what a room leaves behind is looked at again, as is what it comes to.
    const rooms = new Set<string>();
    const lit = this.hasLights;
    for (const change of list) roomsOf(this, change, rooms);
    this.document = document;
    for (const change of list) this.index.change(change);
    // What rests on the changes alone first: what is touched is asked of it.
    this.memos.drop(justChanges(list));
    for (const change of list) roomsOf(this, change, rooms);
    const touched = touchedBy(this, list, rooms, lit);
    this.memos.drop(touched);
    return touched;
  }

  get edition(): Edition {
    return this.document.job.edition;
  }
  /** All rows of a table, by id. */
  rows<T extends TableName>(table: T): readonly Rows[T][] {
    return allRows[table](this);
  }
  boxesIn(area: Area): Box[] {
    return boxesIn(this, area);
  }
  fixturesIn(area: Area): Fixture[] {
    return fixturesIn(this, area);
  }
  /** Doors, glass and built-ins on record in this room. */
  ownOpeningsIn(area: Area): Opening[] {
    return openingsIn(this, area);
  }
  areasOn(levelId: string): Area[] {
    return areasOn(this, levelId);
  }
  circuitOf(boxId: string): Circuit | null {
    const id = this.index.circuitByBox.get(boxId);
    return (id !== undefined && this.document.circuits[id]) || null;
  }
  /** Circuits of a panel by their spaces. */
  circuitsIn(panel: Panel): Circuit[] {
    return [...this.index.circuitsByPanel.of(panel.id)]
      .map((id) => this.document.circuits[id])
      .filter(present)
      .sort((a, b) => a.space - b.space || a.id.localeCompare(b.id));
  }
  boxesServing(fixtureId: string): Box[] {
    return this.rows('boxes').filter(
      (b) => (b.serves === fixtureId || b.alsoServes === fixtureId) && b.status !== 'remove',
    );
  }
  /** Heating and cooling equipment that somebody comes to service. */
  serviced(): Fixture[] {
    return serviced(this);
  }
  /** Whether any light is on record: without one nothing is said of lighting. */
  get hasLights(): boolean {
    return anyLight(this);
  }
  /** Wall switches that control an outlet. */
  switchesOf(box: Box): readonly Box[] {
    return switches(this).get(box.id) ?? NO_BOXES;
  }
  amendmentsOf(rule: string): Amendment[] {
    return amendmentsOf(this, rule);
  }
  /** A rule's limit as a local amendment tightens it. */
  limit(rule: string, limit: number, tighter: 'less' | 'more' = 'less'): number {
    const amendments = this.amendmentsOf(rule);
    if (amendments.length === 0) return limit;
    return amendments
      .flatMap((a) => (a.action === 'tighten' && a.limit !== null ? [a.limit] : []))
      .reduce((l, a) => (tighter === 'less' ? Math.min(l, a) : Math.max(l, a)), limit);
  }
}
