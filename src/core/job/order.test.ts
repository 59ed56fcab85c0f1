/**
 * The order of the record against who really had seen what: some devices with clocks that lie, which write and take in what the
 * others wrote in any order, beside a plain history of who knew what.
 */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { NO_RULES, run } from './commands.ts';
import { PLAIN_READING, rows } from './document.ts';
import { headsOf, inOrder, isForked, order, type Recorded } from './order.ts';
import type { JobDocument, Reading } from './schema.ts';
import { house, outlet } from './testing.ts';
import { unite } from './unite.ts';

const START = house({ boxes: [outlet('A', 1, 20)] });
const DEVICES = ['device-a', 'device-b', 'device-c'] as const;

const reading = (id: string, at: string): Reading => ({
  ...PLAIN_READING,
  id,
  boxId: 'box-a',
  place: 'A',
  at,
  by: 'M. Alder',
  stage: 'as-found',
  instrument: 'meter',
  hotNeutral: 120,
});

type Act = { device: number; do: 'write'; clock: number } | { device: number; do: 'take'; from: number };
const ACTS: fc.Arbitrary<Act[]> = fc.array(
  fc.oneof(
    fc.record({
      device: fc.nat(2),
      do: fc.constant('write' as const),
      clock: fc.integer({ min: -3600, max: 3600 }),
    }),
    fc.record({ device: fc.nat(2), do: fc.constant('take' as const), from: fc.nat(2) }),
  ),
  { maxLength: 24 },
);

/** Each device’s copy after the acts, and for every row what its device knew as it wrote it. */
function played(acts: readonly Act[]): { copies: JobDocument[]; knew: Map<string, ReadonlySet<string>> } {
  const copies: JobDocument[] = DEVICES.map(() => START);
  const knew = new Map<string, ReadonlySet<string>>();
  acts.forEach((act, k) => {
    const own = copies[act.device]!;
    if (act.do === 'take') {
      copies[act.device] = unite(own, copies[act.from]!);
      return;
    }
    const now = new Date(Date.UTC(2026, 4, 6, 12) + 1000 * act.clock).toISOString();
    const id = `reading-${k}`;
    knew.set(id, new Set(Object.keys(own.readings)));
    const command = { type: 'put' as const, table: 'readings' as const, rows: [reading(id, now)] };
    copies[act.device] = run(own, command, NO_RULES, { device: DEVICES[act.device]!, now }).document;
  });
  return { copies, knew };
}

test('before, after and not known are what each device had seen, whatever its clock says', () => {
  fc.assert(
    fc.property(ACTS, (acts) => {
      const { copies, knew } = played(acts);
      const all = copies.reduce(unite);
      for (const a of rows(all.readings))
        for (const b of rows(all.readings)) {
          if (a === b) continue;
          const told = knew.get(b.id)!.has(a.id) ? 'before' : knew.get(a.id)!.has(b.id) ? 'after' : 'unknown';
          assert.equal(order(all, a, b), told, `${a.id} and ${b.id}`);
          if (told === 'before') assert.ok(inOrder(a, b) < 0, 'no list contradicts it');
        }
      for (const device of DEVICES) assert.equal(isForked(all, device), false);
    }),
    { numRuns: 300 },
  );
});

test('copies unite by identity: whichever comes first, in whatever groups, and however often', () => {
  const record = ({ readings, takings }: JobDocument) => ({ readings, takings });
  fc.assert(
    fc.property(ACTS, (acts) => {
      const [a, b, c] = played(acts).copies as [JobDocument, JobDocument, JobDocument];
      assert.deepEqual(record(unite(a, b)), record(unite(b, a)));
      assert.deepEqual(record(unite(unite(a, b), c)), record(unite(a, unite(b, c))));
      assert.deepEqual(record(unite(a, a)), record(a));
      assert.deepEqual(record(unite(unite(a, b), b)), record(unite(a, b)));
    }),
    { numRuns: 200 },
  );
});

const put = (document: JobDocument, id: string, device: string, least?: number) =>
  run(document, { type: 'put', table: 'readings', rows: [reading(id, '2026-05-06T12:00:00Z')] }, NO_RULES, {
    device,
    now: '2026-05-06T12:00:00Z',
    ...(least === undefined ? {} : { least }),
  }).document;

test('two copies of one device that wrote apart have no order, and nobody takes the one for the other', () => {
  const common = put(START, 'reading-1', 'device-a');
  const [one, other] = [put(common, 'reading-2', 'device-a'), put(common, 'reading-3', 'device-a')];
  const all = unite(one, other);
  assert.equal(isForked(one, 'device-a'), false);
  assert.equal(isForked(all, 'device-a'), true);
  const { readings } = all;
  assert.equal(order(all, readings['reading-2']!, readings['reading-3']!), 'unknown');
  assert.equal(order(all, readings['reading-1']!, readings['reading-2']!), 'unknown');
});

test('a number is never given twice, not even over a file that has fewer rows', () => {
  assert.equal(put(START, 'reading-1', 'device-a', 7).readings['reading-1']!.stamp!.n, 8);
  const after = put(put(START, 'reading-1', 'device-a'), 'reading-2', 'device-a', 1);
  assert.equal(after.readings['reading-2']!.stamp!.n, 2);
  assert.deepEqual([...headsOf(after)], [['device-a', 2]]);
});

test('rows made by hand go by their times, and have no order beside one that was written', () => {
  const bare = (id: string, at: string): Recorded => ({ id, at });
  const [early, late] = [bare('a', '2026-05-06T12:00:00Z'), bare('b', '2026-05-06T12:00:00.5Z')];
  assert.equal(order(START, early, late), 'before');
  assert.equal(order(START, late, early), 'after');
  assert.equal(order(START, early, bare('c', early.at)), 'unknown');
  const written: Recorded = { ...late, stamp: { device: 'device-a', n: 1, clock: 1 } };
  assert.equal(order(START, early, written), 'unknown');
  assert.ok(inOrder(written, early) < 0, 'what was written is listed first');
});
