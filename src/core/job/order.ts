/**
 * In which order things went on record: by what each device had written and taken in by then, never by a clock. Clocks of two
 * phones differ by minutes, and one may be set back; which device had seen what the other wrote cannot be mistaken.
 */
import { byTime } from '#core/units/time.ts';
import { isAppendOnly, TABLE_NAMES, type AppendOnly, type JobDocument, type Stamp } from './schema.ts';

/** A row of the record, as far as its order goes. */
export interface Recorded {
  id: string;
  at: string;
  stamp?: Stamp | undefined;
}

/** `unknown`: neither device had seen what the other wrote. */
export type Order = 'before' | 'after' | 'unknown';

/** Who writes, and when by its own clock (UTC). */
export interface Clock {
  device: string;
  now: string;
  /** The highest number that this device is known to have given. */
  least?: number;
}

/** Who writes where nobody says who: a document in memory alone. */
export const IN_MEMORY = 'device-memory';

export const RECORD_TABLES: readonly AppendOnly[] = TABLE_NAMES.filter(isAppendOnly);
type Table = Readonly<Record<string, Recorded>>;

/**
 * What one table holds of a device: its rows by their numbers. Tables that follow each other share the array, each with as many
 * of its rows as it had.
 */
interface Written {
  rows: Recorded[];
  count: number;
}
interface Summary {
  devices: ReadonlyMap<string, Written>;
  /** Highest logical clock. */
  clock: number;
  /** Rows without a stamp. */
  bare: readonly Recorded[];
}

const summaries = new WeakMap<object, Summary>();

const numberOf = (row: Recorded | undefined): number => row?.stamp?.n ?? 0;
const highestOf = ({ rows, count }: Written): number => numberOf(rows[count - 1]);

function withRows(before: Summary, added: readonly Recorded[]): Summary {
  const devices = new Map(before.devices);
  const bare = added.filter((row) => !row.stamp);
  let { clock } = before;
  for (const row of added) {
    const { stamp } = row;
    if (!stamp) continue;
    clock = Math.max(clock, stamp.clock);
    const known = devices.get(stamp.device) ?? { rows: [], count: 0 };
    devices.set(stamp.device, withRow(known, row));
  }
  return { devices, clock, bare: bare.length > 0 ? [...before.bare, ...bare] : before.bare };
}

/** One row more; at the end of the shared array where it is the newest, else in an array of its own. */
function withRow(known: Written, row: Recorded): Written {
  if (known.count === known.rows.length && numberOf(row) >= highestOf(known)) {
    known.rows.push(row);
    return { rows: known.rows, count: known.count + 1 };
  }
  const own = known.rows.slice(0, known.count);
  const at = own.findLastIndex((r) => numberOf(r) <= numberOf(row)) + 1;
  own.splice(at, 0, row);
  return { rows: own, count: own.length };
}

function summaryOf(table: Table): Summary {
  const known = summaries.get(table);
  if (known) return known;
  const sorted = Object.values(table).sort((a, b) => numberOf(a) - numberOf(b));
  const made = withRows({ devices: new Map(), clock: 0, bare: [] }, sorted);
  summaries.set(table, made);
  return made;
}

/** Says that a table is another one with rows added: what was counted of that one is not counted anew. */
export function follows(table: Table, before: Table, added: readonly Recorded[]): void {
  summaries.set(table, withRows(summaryOf(before), added));
}

/** How many rows a table of the record has. */
export function countOfRows(table: Table): number {
  const { devices, bare } = summaryOf(table);
  return [...devices.values()].reduce((sum, { count }) => sum + count, bare.length);
}

/**
 * Rows of a table above a number of each device, and those that have none.
 * @param floor of a device
 */
export function rowsAbove<T extends Recorded>(
  table: Readonly<Record<string, T>>,
  floor: (device: string) => number,
): T[] {
  const { devices, bare } = summaryOf(table);
  const found: Recorded[] = [...bare];
  for (const [device, { rows, count }] of devices) {
    const least = floor(device);
    for (let k = count - 1; k >= 0 && numberOf(rows[k]) > least; k--) found.push(rows[k]!);
  }
  return found as T[];
}

interface Head {
  n: number;
  count: number;
}
const written = new WeakMap<JobDocument, ReadonlyMap<string, Head>>();

/** How far each device has written, in the whole document. */
function writtenIn(document: JobDocument): ReadonlyMap<string, Head> {
  const known = written.get(document);
  if (known) return known;
  const all = new Map<string, Head>();
  for (const table of RECORD_TABLES)
    for (const [device, own] of summaryOf(document[table]).devices) {
      const so = all.get(device) ?? { n: 0, count: 0 };
      all.set(device, { n: Math.max(so.n, highestOf(own)), count: so.count + own.count });
    }
  written.set(document, all);
  return all;
}

/** The highest number of each device. */
export const headsOf = (document: JobDocument): ReadonlyMap<string, number> =>
  new Map([...writtenIn(document)].map(([device, { n }]) => [device, n]));

/** More rows than numbers: two copies of one device wrote apart, and neither knows of the other. */
export const isForked = (document: JobDocument, device: string): boolean => {
  const of = writtenIn(document).get(device);
  return of !== undefined && of.count > of.n;
};

/** Heads that a device had taken in, from one of its numbers on; in their order. */
type Takings = ReadonlyMap<string, readonly { n: number; heads: ReadonlyMap<string, number> }[]>;
const takingsIn = new WeakMap<object, Takings>();

function takingsOf({ takings }: JobDocument): Takings {
  const known = takingsIn.get(takings);
  if (known) return known;
  const made = new Map<string, { n: number; heads: ReadonlyMap<string, number> }[]>();
  for (const { stamp, heads } of Object.values(takings)) {
    if (!stamp) continue;
    const own = made.get(stamp.device) ?? [];
    own.push({ n: stamp.n, heads: new Map(heads.map((h) => [h.device, h.n])) });
    made.set(stamp.device, own);
  }
  for (const own of made.values()) own.sort((a, b) => a.n - b.n);
  takingsIn.set(takings, made);
  return made;
}

/** Up to which number of another device one had taken in when it wrote its own. */
const hadTakenIn = (document: JobDocument, { device, n }: Stamp, other: string): number =>
  takingsOf(document)
    .get(device)
    ?.findLast((t) => t.n < n)
    ?.heads.get(other) ?? 0;

/**
 * The order of two rows of the record. Rows that were never stamped, as in a document made by hand, go by their times; one of
 * them beside a stamped one has no order.
 */
export function order(document: JobDocument, a: Recorded, b: Recorded): Order {
  if (!a.stamp && !b.stamp) {
    const apart = byTime(a.at, b.at);
    return apart < 0 ? 'before' : apart > 0 ? 'after' : 'unknown';
  }
  if (!a.stamp || !b.stamp) return 'unknown';
  const [x, y] = [a.stamp, b.stamp];
  if (isForked(document, x.device) || isForked(document, y.device)) return 'unknown';
  if (x.device === y.device) return x.n < y.n ? 'before' : x.n > y.n ? 'after' : 'unknown';
  if (hadTakenIn(document, y, x.device) >= x.n) return 'before';
  return hadTakenIn(document, x, y.device) >= y.n ? 'after' : 'unknown';
}

/** Up to which number of each device all is surely on record before a row: what is above may be, or is not. */
export function surelyBefore(document: JobDocument, { stamp }: Recorded): (device: string) => number {
  return (device) => {
    if (!stamp || isForked(document, device) || isForked(document, stamp.device)) return 0;
    return device === stamp.device ? stamp.n - 1 : hadTakenIn(document, stamp, device);
  };
}

/** Rows of a table that are not surely on record before a row, itself left out. */
export function rowsSince<T extends Recorded>(
  document: JobDocument,
  table: Readonly<Record<string, T>>,
  start: Recorded,
): T[] {
  const above = rowsAbove(table, surelyBefore(document, start));
  return above.filter((row) => row.id !== start.id && !isSurelyBefore(document, row, start));
}

/** Whether one row is surely on record before another. */
export const isSurelyBefore = (document: JobDocument, a: Recorded, b: Recorded): boolean =>
  order(document, a, b) === 'before';

/**
 * An order for lists, which contradicts none that is known: logical clock, then device and number. Rows that were never
 * stamped go by time and come last beside stamped ones.
 */
export function inOrder(a: Recorded, b: Recorded): number {
  if (!a.stamp || !b.stamp)
    return Number(!a.stamp) - Number(!b.stamp) || byTime(a.at, b.at) || compare(a.id, b.id);
  return a.stamp.clock - b.stamp.clock || compare(a.stamp.device, b.stamp.device) || a.stamp.n - b.stamp.n;
}
const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

/** Gives out the numbers of a device in a document, each with what it had taken in. */
export class Stamper {
  private n: number;
  private clock: number;

  constructor(
    private readonly document: JobDocument,
    private readonly by: Clock,
  ) {
    this.n = Math.max(headsOf(document).get(by.device) ?? 0, by.least ?? 0);
    this.clock = Math.max(0, ...RECORD_TABLES.map((t) => summaryOf(document[t]).clock));
  }

  next(): Stamp {
    return { device: this.by.device, n: ++this.n, clock: ++this.clock };
  }

  /** What this device has taken in of others and not put down yet; null where that is nothing. */
  taking(): JobDocument['takings'][string] | null {
    const { device, now } = this.by;
    const known = takingsOf(this.document).get(device)?.at(-1)?.heads;
    const heads = [...headsOf(this.document)].filter(([d]) => d !== device);
    if (heads.every(([d, n]) => (known?.get(d) ?? 0) >= n)) return null;
    const stamp = this.next();
    return {
      id: `taking-${device.replace(/^device-/, '')}-${stamp.n}`,
      at: now,
      stamp,
      heads: heads.sort(([a], [b]) => compare(a, b)).map(([d, n]) => ({ device: d, n })),
    };
  }
}

/** Of rows that came in at one time: what is read stands before what rests on it. */
const RANK: Readonly<Partial<Record<AppendOnly, number>>> = { observations: -1, proofs: 1, energizings: 2 };

/**
 * A document in which every row of the record has a stamp: those that have none get them by their times, as of one device that
 * wrote them by itself.
 */
export function allStamped(document: JobDocument, device: string): JobDocument {
  if (RECORD_TABLES.every((t) => summaryOf(document[t]).bare.length === 0)) return document;
  const stamper = new Stamper(document, { device, now: '' });
  const bare = RECORD_TABLES.flatMap((table) =>
    Object.values<Recorded>(document[table]).flatMap((row) => (row.stamp ? [] : [{ table, row }])),
  ).sort(
    (a, b) =>
      byTime(a.row.at, b.row.at) || (RANK[a.table] ?? 0) - (RANK[b.table] ?? 0) || compare(a.table, b.table),
  );
  const next: Record<string, unknown> = { ...document };
  const copies = new Map(
    bare.map(({ table }) => [table, { ...document[table] } as Record<string, Recorded>]),
  );
  for (const [table, copy] of copies) next[table] = copy;
  for (const { table, row } of bare) copies.get(table)![row.id] = { ...row, stamp: stamper.next() };
  return next as unknown as JobDocument;
}
