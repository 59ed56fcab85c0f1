import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { fewest, type Line } from './fewest.ts';
import { tries } from '../../../tests/support/sample.ts';

/** Every half inch is tried: some stop must reach the first open cell, and each that does is tried in turn. */
function leastNumber({ length, loop, reach, existing, forbidden }: Line, most: number): number {
  const cells = Array.from({ length: length * 2 }, (_, i) => i / 2 + 0.25);
  const reaches = (p: number, cell: number) => {
    const d = Math.abs(p - cell);
    return Math.min(d, loop ? length - d : d) <= reach;
  };
  const sites = Array.from({ length: length * 2 + 1 }, (_, i) => i / 2).filter(
    (p) =>
      !forbidden.some((f) =>
        [-length, 0, length].some((c) => (c === 0 || loop) && p > f.from + c && p < f.to + c),
      ),
  );
  const enough = (rest: number[], left: number): boolean => {
    if (rest.length === 0) return true;
    if (left === 0) return false;
    return sites.some(
      (s) =>
        reaches(s, rest[0]!) &&
        enough(
          rest.filter((c) => !reaches(s, c)),
          left - 1,
        ),
    );
  };
  const open = cells.filter((c) => !existing.some((g) => reaches(g, c)));
  for (let n = 0; n <= most; n++) if (enough(open, n)) return n;
  return Infinity;
}

const line = fc
  .record({
    length: fc.integer({ min: 6, max: 60 }),
    loop: fc.boolean(),
    reach: fc.constantFrom(8, 10, 12),
    existing: fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: 2 }),
    forbidden: fc.array(
      fc.record({
        from: fc.double({ min: 0, max: 1, noNaN: true }),
        width: fc.integer({ min: 1, max: 9 }),
      }),
      { maxLength: 3 },
    ),
  })
  .map((l): Line => ({
    ...l,
    existing: l.existing.map((e) => Math.floor(e * (l.length - 0.5))),
    forbidden: l.forbidden.map(({ from, width }) => ({
      from: Math.round(from * l.length) - 2,
      to: Math.round(from * l.length) - 2 + width,
    })),
    penalty: () => 0,
  }));

test('the number of stops equals the brute-force minimum on lines and circles with blocked stretches', () => {
  let impossible = 0;
  fc.assert(
    fc.property(line, (l) => {
      const least = leastNumber(l, 4);
      const found = fewest(l);
      if (least === Infinity && !found) {
        impossible++;
        return;
      }
      if (least === Infinity && found) {
        assert.ok(found.path.length > 4, 'brute force looked no further than four');
        return;
      }
      assert.equal(found?.path.length ?? -1, least);
    }),
    { numRuns: tries(400, 1500) },
  );
  assert.ok(impossible < 600);
});

test('of covers of one size the one with the least penalty is taken', () => {
  const found = fewest({
    length: 100,
    loop: false,
    reach: 60,
    existing: [],
    forbidden: [],
    penalty: (at) => (at === 47 ? 0 : 1000),
  });
  assert.deepEqual(found?.path, [47]);
});

test('a line that no free place covers has no cover', () =>
  assert.equal(
    fewest({
      length: 100,
      loop: false,
      reach: 20,
      existing: [],
      forbidden: [{ from: 0, to: 45 }],
      penalty: () => 0,
    }),
    null,
  ));
