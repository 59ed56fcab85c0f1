import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { editsBetween, GoneError, withEdits } from './edits.ts';

interface Row {
  name: string;
  device: { kind: string; rating: number };
  walls: { id: string; length: number }[];
  signs: string[];
}
const ROW: fc.Arbitrary<Row> = fc.record({
  name: fc.constantFrom('a', 'b', 'c'),
  device: fc.record({ kind: fc.constantFrom('x', 'y'), rating: fc.nat(3) }),
  walls: fc.uniqueArray(fc.record({ id: fc.constantFrom('w1', 'w2', 'w3', 'w4'), length: fc.nat(9) }), {
    selector: (w) => w.id,
    maxLength: 4,
  }),
  signs: fc.array(fc.constantFrom('p', 'q'), { maxLength: 3 }),
});

test('the edits between two rows make the one of the other, and nothing of the same', () => {
  fc.assert(
    fc.property(ROW, ROW, (a, b) => {
      // Rows are plain objects; those made here may have no prototype.
      assert.deepEqual(structuredClone(withEdits(a, editsBetween(a, b))), structuredClone(b));
      assert.deepEqual(editsBetween(a, structuredClone(a)), []);
    }),
    { numRuns: 2000 },
  );
});

test('edits of different fields go together, whichever comes first', () => {
  fc.assert(
    fc.property(ROW, fc.nat(3), fc.nat(9), fc.nat(9), (row, rating, one, two) => {
      const start: Row = {
        ...row,
        walls: [
          { id: 'w1', length: 50 },
          { id: 'w2', length: 60 },
        ],
      };
      const mine = editsBetween(start, {
        ...start,
        device: { ...start.device, rating: 10 + rating },
        walls: [{ id: 'w1', length: one }, start.walls[1]!],
      });
      const theirs = editsBetween(start, {
        ...start,
        name: 'z',
        walls: [start.walls[0]!, { id: 'w2', length: two }, { id: 'w9', length: 1 }],
      });
      const both = withEdits(withEdits(start, mine), theirs);
      assert.deepEqual(withEdits(withEdits(start, theirs), mine), both);
      assert.deepEqual(
        both.walls.map((w) => [w.id, w.length]),
        [
          ['w1', one],
          ['w2', two],
          ['w9', 1],
        ],
      );
      assert.deepEqual([both.name, both.device.rating], ['z', 10 + rating]);
    }),
  );
});

test('an edit of what was removed meanwhile says so', () => {
  const start = { walls: [{ id: 'w1', length: 5 }] };
  const edit = editsBetween(start, { walls: [{ id: 'w1', length: 6 }] });
  assert.throws(() => withEdits({ walls: [] as typeof start.walls }, edit), GoneError);
});
