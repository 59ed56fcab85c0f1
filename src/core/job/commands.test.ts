import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import type { Command } from './commands.ts';
import { applyChanges, inverse, newJob, PLAIN_READING } from './document.ts';
import { problemsIn } from './integrity.ts';
import type { Reading } from './schema.ts';
import { chain, house, opening, outlet, room, run } from './testing.ts';
import { InvalidError } from './validate.ts';

const A = outlet('A', 1, 20);
const B = outlet('B', 1, 80);
const C = outlet('C', 2, 40);
const D = outlet('D', 3, 40);
const wired = house({
  boxes: [A, B, C, D],
  circuits: [chain([A, B, C]), chain([D], { id: 'circuit-2', space: 2, name: 'Circuit 2' })],
});

const order = (document: typeof wired, id = 'circuit-1') =>
  document.circuits[id]!.stops.map((s) => `${s.from ?? 'panel'}>${s.boxId}`.replaceAll('box-', '')).join(' ');

const MOVES: [string, string, string | null, string | null, string, string][] = [
  ['to the front', 'box-c', 'circuit-1', null, 'panel>c c>a a>b', 'panel>d'],
  ['to the end', 'box-a', 'circuit-1', 'box-c', 'panel>b b>c c>a', 'panel>d'],
  ['to another circuit', 'box-b', 'circuit-2', 'box-d', 'panel>a a>c', 'panel>d d>b'],
  ['to the front of another', 'box-a', 'circuit-2', null, 'panel>b b>c', 'panel>a a>d'],
  ['off its circuit', 'box-a', null, null, 'panel>b b>c', 'panel>d'],
];
for (const [what, boxId, circuitId, after, first, second] of MOVES) {
  test(`moves a stop ${what}`, () => {
    const { document } = run(wired, { type: 'move-stop', boxId, circuitId, after });
    assert.equal(order(document), first);
    assert.equal(order(document, 'circuit-2'), second);
  });
}

test('removing the first stop of a branching run leaves one home run', () => {
  const branching = chain([A, B, C]);
  branching.stops[2]!.from = 'box-a';
  const { document } = run(house({ boxes: [A, B, C], circuits: [branching] }), {
    type: 'remove',
    table: 'boxes',
    ids: ['box-a'],
  });
  assert.equal(order(document), 'panel>b b>c');
});

test('moving an outlet drops the measured lengths that no longer exist', () => {
  const circuit = chain([A, B, C]);
  circuit.stops[2]!.measured = 200;
  const { document } = run(house({ boxes: [A, B, C], circuits: [circuit] }), {
    type: 'move-stop',
    boxId: 'box-b',
    circuitId: 'circuit-1',
    after: 'box-c',
  });
  assert.deepEqual(
    document.circuits['circuit-1']!.stops.map((s) => s.measured),
    [null, null, null],
  );
});

test('any sequence of moves keeps the job whole, and undoes exactly', () => {
  const boxIds = ['box-a', 'box-b', 'box-c', 'box-d'];
  const move = fc.record({
    boxId: fc.constantFrom(...boxIds),
    circuitId: fc.constantFrom('circuit-1', 'circuit-2', null),
    after: fc.constantFrom(...boxIds, null),
  });
  fc.assert(
    fc.property(fc.array(move, { maxLength: 12 }), (moves) => {
      let document = wired;
      for (const m of moves) {
        try {
          const outcome = run(document, { type: 'move-stop', ...m });
          assert.deepEqual(applyChanges(outcome.document, inverse(outcome.changes)), document);
          document = outcome.document;
        } catch (error) {
          assert.ok(error instanceof InvalidError, String(error));
        }
        assert.deepEqual(problemsIn(document), []);
      }
    }),
  );
});

const at = (values: object) =>
  ({ type: 'put', table: 'openings', rows: [{ ...opening(1, 0, 36), ...values }] }) as Command;
const REFUSED: [string, Command, RegExp][] = [
  [
    'an opening wider than its wall',
    at({ width: 200 }),
    /width: the door, 16' 8" wide, is wider than its wall; expected 12' or less/,
  ],
  [
    'an opening past the end',
    at({ offset: 120 }),
    /offset: the door runs past the end of its wall; expected an offset of 9' or less/,
  ],
  ['an opening on no wall', at({ wallId: 'wall-9' }), /wallId: expected the id of a wall of Room/],
  ['a negative length', at({ offset: -4 }), /offset: expected 0 or more, found -4/],
  [
    'an absurd wall',
    { type: 'put', table: 'areas', rows: [room([99999, 10, 99999, 10])] },
    /walls\[0\].length: expected 2400 or less/,
  ],
  [
    'NaN',
    { type: 'put', table: 'areas', rows: [room([NaN, 10, 9, 10])] },
    /walls\[0\].length: expected a number/,
  ],
  [
    'an outlet past its wall',
    { type: 'move-box', id: 'box-a', wallId: 'wall-2', offset: 130 },
    /offset: A at 10' 10" is past the end/,
  ],
  [
    'a circuit without breaker',
    {
      type: 'put',
      table: 'circuits',
      rows: [{ ...chain([]), id: 'circuit-9', breaker: undefined as never }],
    },
    /breaker.*expected a value/,
  ],
  [
    'a taken space',
    { type: 'put', table: 'circuits', rows: [{ ...chain([]), id: 'circuit-9' }] },
    /space 1 is taken by “Circuit 1”/,
  ],
  [
    'an outlet on two circuits',
    { type: 'put', table: 'circuits', rows: [chain([A], { id: 'circuit-9', space: 9 })] },
    /A is on “Circuit 1” too/,
  ],
  [
    'an outlet after itself',
    { type: 'move-stop', boxId: 'box-a', circuitId: 'circuit-1', after: 'box-a' },
    /expected another outlet/,
  ],
  ['a blank name', { type: 'edit-job', values: { name: '' } }, /job.name: expected at least 1 character/],
  [
    'an id out of Object',
    { type: 'put', table: 'levels', rows: [{ id: 'constructor', name: 'x', elevation: 0 }] },
    /expected an id such as/,
  ],
];
for (const [what, command, message] of REFUSED) {
  test(`refuses ${what}, and changes nothing`, () => {
    const before = structuredClone(wired);
    assert.throws(
      () => run(wired, command),
      (e: unknown) => e instanceof InvalidError && message.test(e.message),
    );
    assert.deepEqual(wired, before);
  });
}

test('a wall cannot be made shorter than what stands on it', () => {
  const document = house({ openings: [opening(1, 90, 36)] });
  const shorter = room([100, 120, 100, 120]);
  assert.throws(
    () => run(document, { type: 'put', table: 'areas', rows: [shorter] }),
    /openings\[opening-1-90\]\.offset/,
  );
});

test('records are added to, never changed or removed', () => {
  const reading: Reading = {
    id: 'reading-1',
    boxId: 'box-a',
    place: 'A',
    at: '2026-05-04T10:00:00Z',
    by: 'M. Alder',
    stage: 'as-found',
    instrument: 'meter',
    ...PLAIN_READING,
    hotNeutral: 120,
  };
  const { document } = run(wired, { type: 'put', table: 'readings', rows: [reading] });
  assert.throws(
    () => run(document, { type: 'put', table: 'readings', rows: [{ ...reading, hotNeutral: 119 }] }),
    /never changed/,
  );
  assert.throws(
    () => run(document, { type: 'remove', table: 'readings' as never, ids: ['reading-1'] }),
    /never removed/,
  );
  assert.throws(
    () =>
      run(document, {
        type: 'put',
        table: 'readings',
        rows: [{ ...reading, id: 'reading-2', hotNeutral: 301 }],
      }),
    /hotNeutral: expected 300 or less, found 301/,
  );
  const gone = run(document, { type: 'remove', table: 'areas', ids: ['area-1'] }).document;
  assert.deepEqual(Object.keys(gone.boxes), []);
  assert.equal(gone.circuits['circuit-1']!.stops.length, 0);
  assert.equal(gone.readings['reading-1']!.place, 'A');
});

test('undo labels say what is taken back', () => {
  const label = (command: Command) => run(wired, command).label;
  assert.equal(label({ type: 'move-box', id: 'box-a', wallId: 'wall-1', offset: 30 }), 'Move A');
  assert.equal(label({ type: 'remove', table: 'boxes', ids: ['box-a', 'box-b'] }), 'Remove 2 outlets');
  assert.equal(label({ type: 'edit-job', values: { edition: '2023' } }), 'Change edition');
  assert.equal(
    label({ type: 'move-stop', boxId: 'box-a', circuitId: 'circuit-2', after: null }),
    'Put A on Circuit 2',
  );
});

test('a new job is whole', () => assert.deepEqual(problemsIn(newJob('New', '2023')), []));

test('a box put on as a branch leaves what its feeder fed where it was', () => {
  const { document } = run(wired, {
    type: 'move-stop',
    boxId: 'box-d',
    circuitId: 'circuit-1',
    after: 'box-a',
    branch: true,
  });
  assert.equal(order(document), 'panel>a a>b b>c a>d');
});

test('an outlet is fed from another one together with all that hangs on it', () => {
  const feed = (boxId: string, from: string, document = wired) =>
    run(document, { type: 'feed-stop', boxId, from }).document;
  assert.equal(order(feed('box-c', 'box-a')), 'panel>a a>b a>c');
  const branched = feed('box-c', 'box-a');
  const longer = run(branched, { type: 'move-stop', boxId: 'box-d', circuitId: 'circuit-1', after: 'box-b' });
  assert.equal(order(longer.document), 'panel>a a>b b>d a>c');
  assert.equal(order(feed('box-b', 'box-c', longer.document)), 'panel>a a>c c>b b>d');
  const refused = (boxId: string, from: string) =>
    assert.throws(() => feed(boxId, from, longer.document), InvalidError, `${boxId} from ${from}`);
  refused('box-a', 'box-b');
  refused('box-b', 'box-d');
  refused('box-b', 'box-b');
  refused('box-b', 'box-none');
  refused('box-none', 'box-a');
});
