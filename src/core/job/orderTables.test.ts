/** What is counted of the tables of the record against the plain rows, however a table came to be; and both sides of each order. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import {
  allStamped,
  countOfRows,
  follows,
  headsOf,
  inOrder,
  isForked,
  isSurelyBefore,
  order,
  rowsAbove,
  rowsSince,
  Stamper,
  surelyBefore,
  type Recorded,
} from './order.ts';
import { PLAIN_READING } from './document.ts';
import type { JobDocument, Proof, Reading, Stamp } from './schema.ts';
import { house, outlet } from './testing.ts';
import { missingIn, unite } from './unite.ts';

const START = house({ boxes: [outlet('A', 1, 20)] });
const [A, B, C] = ['device-a', 'device-b', 'device-c'] as const;
const AT = '2026-05-06T12:00:00Z';

const stamped = (device: string, n: number, clock = n): Stamp => ({ device, n, clock });
const row = (id: string, stamp?: Stamp, at = AT): Reading => ({
  ...PLAIN_READING,
  ...{ id, boxId: 'box-a', place: 'A', at, by: 'M. Alder', stage: 'as-found', instrument: 'meter' },
  ...(stamp ? { stamp } : {}),
});
const table = (list: readonly Reading[]): JobDocument['readings'] =>
  Object.fromEntries(list.map((r) => [r.id, r]));
const withReadings = (list: readonly Reading[], more: Partial<JobDocument> = {}): JobDocument => ({
  ...START,
  ...more,
  readings: table(list),
});
const taking = (device: string, n: number, heads: Readonly<Record<string, number>>) => ({
  id: `taking-${device}-${n}`,
  at: AT,
  stamp: stamped(device, n),
  heads: Object.entries(heads).map(([d, at]) => ({ device: d, n: at })),
});
const takings = (...list: readonly ReturnType<typeof taking>[]): JobDocument['takings'] =>
  Object.fromEntries(list.map((t) => [t.id, t]));

/** Rows in a table one after the other, some of them on a branch that another table takes no part in. */
const GROWN = fc.array(
  fc.record({
    device: fc.constantFrom(A, B, null),
    n: fc.integer({ min: 1, max: 6 }),
    clock: fc.integer({ min: 1, max: 9 }),
    /** How many rows back it grows from; what came between stays with the other branch. */
    back: fc.nat(2),
  }),
  { maxLength: 14 },
);

test('counts, heads and what is above a number are those of the plain rows, also where two tables grew from one', () => {
  fc.assert(
    fc.property(GROWN, fc.nat(6), fc.nat(6), (grown, floorA, floorB) => {
      const tables: JobDocument['readings'][] = [{}];
      grown.forEach(({ device, n, clock, back }, k) => {
        const from = tables.at(-1 - Math.min(back, tables.length - 1))!;
        const added = row(`reading-${k}`, device === null ? undefined : stamped(device, n, clock));
        const next = { ...from, [added.id]: added };
        follows(next, from, [added]);
        tables.push(next);
      });
      const floor = (device: string) => (device === A ? floorA : floorB);
      for (const grownTable of tables) {
        const all = Object.values(grownTable);
        assert.equal(countOfRows(grownTable), all.length);
        const ids = (list: readonly Recorded[]) => list.map((r) => r.id).sort();
        const above = all.filter((r) => !r.stamp || r.stamp.n > floor(r.stamp.device));
        assert.deepEqual(ids(rowsAbove(grownTable, floor)), ids(above));
        const document: JobDocument = { ...START, readings: grownTable };
        const of = (device: string) => all.flatMap((r) => (r.stamp?.device === device ? [r.stamp.n] : []));
        for (const device of [A, B]) {
          assert.equal(headsOf(document).get(device) ?? 0, Math.max(0, ...of(device)));
          assert.equal(isForked(document, device), of(device).length > Math.max(0, ...of(device)));
        }
        const clocks = all.flatMap((r) => r.stamp?.clock ?? []);
        const next = new Stamper(document, { device: C, now: AT }).next();
        assert.deepEqual(next, stamped(C, 1, Math.max(0, ...clocks) + 1));
        // The same table counted from nothing.
        const anew = { ...grownTable };
        assert.equal(countOfRows(anew), all.length);
        assert.deepEqual(ids(rowsAbove(anew, floor)), ids(above));
      }
    }),
    { numRuns: 400 },
  );
});

test('one device: by its numbers; another: by what was taken in before it wrote, to the very number', () => {
  const [a2, a3, b2] = [row('a2', stamped(A, 2)), row('a3', stamped(A, 3)), row('b2', stamped(B, 2))];
  const a1 = row('a1', stamped(A, 1));
  const document = withReadings([a1, a2, a3, b2], { takings: takings(taking(B, 1, { [A]: 2 })) });
  assert.equal(order(document, a2, a3), 'before');
  assert.equal(order(document, a3, a2), 'after');
  assert.equal(order(document, a2, a2), 'unknown');
  assert.equal(order(document, a2, b2), 'before');
  assert.equal(order(document, b2, a2), 'after');
  assert.equal(order(document, a3, b2), 'unknown');
  assert.equal(order(document, b2, a3), 'unknown');
  assert.deepEqual([isSurelyBefore(document, a2, b2), isSurelyBefore(document, a3, b2)], [true, false]);
  // What it took in as its second is behind nothing that it wrote as its second.
  const late = withReadings([a1, a2, a3, b2], { takings: takings(taking(B, 2, { [A]: 2 })) });
  assert.equal(order(late, a2, b2), 'unknown');

  const before = surelyBefore(document, b2);
  assert.deepEqual([before(A), before(B), before(C)], [2, 1, 0]);
  assert.equal(surelyBefore(document, row('bare'))(A), 0);
  const since = (start: Recorded) =>
    rowsSince(document, document.readings, start)
      .map((r) => r.id)
      .sort();
  assert.deepEqual(since(b2), ['a3']);
  assert.deepEqual(since(a2), ['a3', 'b2']);
  assert.deepEqual(since(row('bare')), ['a1', 'a2', 'a3', 'b2']);
});

test('where one device was copied nothing is surely before it, nor before what another wrote of it', () => {
  const twice = [row('a', stamped(A, 1)), row('b', stamped(A, 1)), row('c', stamped(B, 2))];
  const document = withReadings(twice, { takings: takings(taking(B, 1, { [A]: 1 })) });
  const [a, , c] = twice;
  assert.deepEqual(
    [isForked(document, A), order(document, a!, c!), order(document, c!, a!)],
    [true, 'unknown', 'unknown'],
  );
  assert.equal(surelyBefore(document, c!)(A), 0);
  assert.equal(surelyBefore(document, a!)(B), 0);
  assert.equal(surelyBefore(document, a!)(A), 0);
});

test('rows without a stamp go by their time, to the part of a second, and are of no moment beside others', () => {
  const [early, late] = [row('x', undefined, AT), row('y', undefined, '2026-05-06T12:00:00.001Z')];
  assert.deepEqual([order(START, early, late), order(START, late, early)], ['before', 'after']);
  assert.equal(order(START, early, row('z')), 'unknown');
});

test('lists go by logical clock, then device, then number; what has no stamp comes last, by time and then by name', () => {
  const list: Reading[] = [
    row('a', stamped(B, 1, 1)),
    row('b', stamped(A, 2, 2)),
    row('c', stamped(B, 2, 2)),
    row('d', stamped(B, 3, 2)),
    row('e'),
    row('f'),
    row('g', undefined, '2026-05-06T12:00:00.5Z'),
  ];
  list.forEach((a, i) =>
    list.forEach((b, j) => assert.equal(Math.sign(inOrder(a, b)), Math.sign(i - j), `${a.id} ${b.id}`)),
  );
});

test('a device puts down what it has taken in once, each time that there is more', () => {
  const document = withReadings([row('a', stamped(A, 4))]);
  const taken = new Stamper(document, { device: B, now: AT }).taking()!;
  assert.deepEqual(taken.heads, [{ device: A, n: 4 }]);
  assert.deepEqual(taken.stamp, stamped(B, 1, 5));
  const known = { ...document, takings: { [taken.id]: taken } };
  assert.equal(new Stamper(known, { device: B, now: AT }).taking(), null);
  const more: JobDocument = { ...known, readings: table([row('a', stamped(A, 4)), row('b', stamped(A, 5))]) };
  const second = new Stamper(more, { device: B, now: AT }).taking()!;
  assert.deepEqual(second.heads, [{ device: A, n: 5 }]);
  const after: JobDocument = { ...more, takings: { ...more.takings, [second.id]: second } };
  assert.equal(new Stamper(after, { device: B, now: AT }).taking(), null);
  // One that nobody wrote says nothing.
  const { stamp: _, ...unwritten } = taken;
  const said: JobDocument = { ...document, takings: { [taken.id]: unwritten } };
  assert.deepEqual(new Stamper(said, { device: B, now: AT }).taking()?.heads, [{ device: A, n: 4 }]);
  // Its own rows are none that it takes in; of several devices they stand by name.
  assert.equal(new Stamper(document, { device: A, now: AT }).taking(), null);
  const both = withReadings([row('b', stamped(B, 1)), row('a', stamped(A, 1))]);
  assert.deepEqual(
    new Stamper(both, { device: C, now: AT }).taking()?.heads.map((h) => h.device),
    [A, B],
  );
});

test('rows that never had a stamp get theirs by time; of one moment, what is read, the proof, then the power', () => {
  const proof = { id: 'proof-1', at: AT } as Proof;
  const document: JobDocument = {
    ...withReadings([row('reading-late', undefined, '2026-05-06T12:01:00Z'), row('reading-1')]),
    entries: { 'entry-1': { id: 'entry-1', at: AT } as JobDocument['entries'][string] },
    ticks: { 'tick-1': { id: 'tick-1', at: AT } as JobDocument['ticks'][string] },
    energizings: { 'energizing-1': { id: 'energizing-1', at: AT } as JobDocument['energizings'][string] },
    proofs: { 'proof-1': proof },
    observations: { 'observation-1': { id: 'observation-1', at: AT } as JobDocument['observations'][string] },
  };
  const all = allStamped(document, A);
  const n = (of: Readonly<Record<string, Recorded>>, id: string) => of[id]!.stamp!.n;
  assert.deepEqual(
    [
      n(all.observations, 'observation-1'),
      n(all.entries, 'entry-1'),
      n(all.readings, 'reading-1'),
      n(all.ticks, 'tick-1'),
      n(all.proofs, 'proof-1'),
      n(all.energizings, 'energizing-1'),
      n(all.readings, 'reading-late'),
    ],
    [1, 2, 3, 4, 5, 6, 7],
  );
  assert.equal(document.proofs['proof-1']!.stamp, undefined, 'what it was made from is as it was');
  // Where all have one nothing is made anew; one that has none beside them gets the next.
  assert.equal(allStamped(all, A), all);
  const more = allStamped({ ...all, readings: { ...all.readings, x: row('x') } }, A);
  assert.deepEqual([n(more.readings, 'x'), n(more.proofs, 'proof-1')], [8, 5]);
});

test('one id with two contents: both copies come to hold the same one, in whatever order its fields stand', () => {
  const one = withReadings([{ ...row('a', stamped(A, 1)), hotNeutral: 120 }]);
  const other = withReadings([{ ...row('a', stamped(A, 1)), hotNeutral: 0 }]);
  assert.deepEqual(unite(one, other).readings, unite(other, one).readings);
  assert.equal(missingIn(one, other).length + missingIn(other, one).length, 1);
  const turned = withReadings(
    Object.values(one.readings).map(
      (r) => Object.fromEntries(Object.entries(r).reverse()) as unknown as Reading,
    ),
  );
  assert.deepEqual([missingIn(one, turned), missingIn(turned, one)], [[], []]);
  assert.deepEqual(missingIn(one, START), []);
  // A list is told from one in another order.
  const lamps = (...list: boolean[]) =>
    withReadings([{ ...row('a', stamped(A, 1)), lamps: list } as unknown as Reading]);
  const [x, y] = [lamps(true, false), lamps(false, true)];
  assert.equal(missingIn(x, y).length + missingIn(y, x).length, 1);
});
