import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { judgeLegs, type LegsRead, type LegsSay } from './legs.ts';

const read = (a: number, b: number, ab: number | null, more: Partial<LegsRead> = {}): LegsRead => ({
  a,
  b,
  ab,
  amps: null,
  loaded: null,
  pipe: null,
  ...more,
});

/** What was read at a panel or an outlet, and what it is; each threshold from both sides. */
const CASES: [string, LegsRead, LegsSay, danger: boolean][] = [
  ['a leg fed back from the other', read(78, 120, 42), 'lost-leg', true],
  ['nothing on either', read(0, 0, 0), 'not-shown', false],
  ['a dead leg', read(0, 120, 120), 'lost-leg', true],
  ['a floating neutral on a quiet house', read(78, 42, 120), 'neutral', true],
  ['7.5 V apart at 12 A', read(116.1, 123.6, 239.7, { amps: { a: 12, b: 0 } }), 'neutral', true],
  ['6.2 V apart, 7.5 A on the pipe', read(116.8, 123, 239.8, { pipe: 7.5 }), 'neutral', true],
  ['6.2 V apart at 7.5 A', read(116.8, 123, 239.8, { amps: { a: 7.5, b: 0 } }), 'neutral', true],
  ['4 V apart at 12 A: 0.33 Ω', read(118, 122, 240, { amps: { a: 12, b: 0 } }), 'even', false],
  ['4.4 V apart at 12 A: 0.37 Ω', read(117.8, 122.2, 240, { amps: { a: 12, b: 0 } }), 'neutral', true],
  ['8 V apart, load not known', read(116, 124, 240), 'not-shown', false],
  ['8.2 V apart, load not known', read(115.9, 124.1, 240), 'neutral', true],
  ['even, and nobody loaded it', read(120, 120.4, 240), 'not-shown', false],
  ['even, 4 A more on one', read(120, 120.4, 240, { amps: { a: 4, b: 0 } }), 'not-shown', false],
  [
    'a heater on one, the other stays',
    read(120, 120.4, 240, { loaded: { a: 118.9, b: 120.4, amps: 10 } }),
    'even',
    false,
  ],
  [
    'a heater on one, the other rises by 1.2 V: 0.12 Ω',
    read(120, 120, 240, { loaded: { a: 118, b: 121.2, amps: 10 } }),
    'even',
    false,
  ],
  [
    'a heater on one, the other rises by 2 V: 0.2 Ω',
    read(120, 120, 240, { loaded: { a: 117, b: 122, amps: 10 } }),
    'neutral',
    true,
  ],
  ['104 V and 128 V', read(104, 128, null), 'neutral', true],
  ['both low', read(105, 106, 211), 'low', false],
  ['readings of three moments', read(120, 118, 228), 'not-shown', false],
  ['even, yet 4 A go home over the pipe', read(120, 120.5, 240.5, { pipe: 4 }), 'not-shown', false],
  [
    'an outlet at the end of 100 ft of 12 AWG, 12.5 A on one hot: length and amperes explain it',
    read(115.7, 122.9, 238.6, { amps: { a: 12.5, b: 0 }, path: { hot: 0.193, neutral: 0.193 } }),
    'even',
    false,
  ],
  [
    'the same outlet, with 0.5 Ω in the neutral before it',
    read(109.4, 129.2, 238.6, { amps: { a: 12.5, b: 0 }, path: { hot: 0.193, neutral: 0.193 } }),
    'neutral',
    true,
  ],
];
for (const [name, legs, say, danger] of CASES)
  test(`legs: ${name}`, () => {
    const verdict = judgeLegs(legs);
    assert.deepEqual([verdict.say, verdict.danger], [say, danger], verdict.lines.join(' '));
    assert.ok(!/one circuit/.test(verdict.title) || say === 'even');
  });

test('a service whose ohms are known: sound ones never alarm, failing ones always do', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.01, max: 0.08, noNaN: true }),
      fc.double({ min: 0.6, max: 20, noNaN: true }),
      fc.double({ min: 8, max: 16, noNaN: true }),
      fc.double({ min: 114, max: 126, noNaN: true }),
      fc.boolean(),
      (leg, bad, amps, source, onA) => {
        const at = (neutral: number): LegsRead => {
          const [near, far] = [source - amps * (leg + neutral), source + amps * neutral];
          const [a, b] = onA ? [near, far] : [far, near];
          return read(a, b, a + b, { amps: onA ? { a: amps, b: 0 } : { a: 0, b: amps } });
        };
        assert.equal(judgeLegs(at(leg)).danger, false);
        assert.equal(judgeLegs(at(bad)).danger, true);
      },
    ),
  );
});
