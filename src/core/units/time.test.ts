import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { byTime, isAfter, isBefore } from './time.ts';

test('moments of every form come in the order of time', () => {
  const inOrder = [
    '',
    '2026-05-04T14:29:59.999Z',
    '2026-05-04T14:30:00Z',
    '2026-05-04T14:30:00.05Z',
    '2026-05-04T14:30:00.5Z',
    '2026-05-04T14:30:00.501Z',
    '2026-05-04T14:30:01Z',
    '9999-12-31T23:59:59Z',
  ];
  inOrder.forEach((a, i) =>
    inOrder.forEach((b, j) => {
      assert.equal(Math.sign(byTime(a, b)), Math.sign(i - j), `${a} and ${b}`);
      assert.equal(isBefore(a, b), i < j);
      assert.equal(isAfter(a, b), i > j);
    }),
  );
});

test('the order is that of the clock, however many digits of a second are written', () => {
  const moment = fc
    .tuple(fc.integer({ min: 0, max: 4e12 }), fc.constantFrom(0, 1, 2, 3))
    .map(([ms, digits]) => {
      const at = Math.floor(ms / 10 ** (3 - digits)) * 10 ** (3 - digits);
      const text = new Date(at).toISOString();
      return { at, text: digits === 0 ? text.replace(/\.\d+Z/, 'Z') : `${text.slice(0, 20 + digits)}Z` };
    });
  fc.assert(
    fc.property(moment, moment, (a, b) => Math.sign(byTime(a.text, b.text)) === Math.sign(a.at - b.at)),
    { numRuns: 500, seed: 4 },
  );
});
