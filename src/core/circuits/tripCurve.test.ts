import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { STANDARD_BREAKERS } from '#core/tables/conductors.ts';
import { chain, house, outlet, room } from '#core/job/testing.ts';
import { buildRun } from './run.ts';
import { currentsOf, tripTime } from './tripCurve.ts';

test('calibration points: holds its rating, 135 % within the hour, 200 % within minutes, a short at once', () => {
  for (const rating of STANDARD_BREAKERS) {
    assert.equal(tripTime(rating, rating).least, Infinity);
    assert.equal(tripTime(rating, rating).most, Infinity);
    assert.ok(tripTime(rating, 1.35 * rating).most <= 3600);
    const minutes = rating <= 30 ? 2 : rating <= 50 ? 4 : 6;
    assert.ok(Math.abs(tripTime(rating, 2 * rating).most - 60 * minutes) < 1e-9);
    assert.ok(tripTime(rating, 10 * rating).most < 0.05);
  }
});

test('the band never turns back: more current never takes longer, and the quick edge is below the slow one', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...STANDARD_BREAKERS),
      fc.double({ min: 0.1, max: 30, noNaN: true }),
      fc.double({ min: 0, max: 10, noNaN: true }),
      (rating, multiple, more) => {
        const a = tripTime(rating, multiple * rating);
        const b = tripTime(rating, (multiple + more) * rating);
        // A logarithm is right to its last digit only.
        const atMost = (t: number): number => t * (1 + 1e-12);
        assert.ok(a.least <= a.most && b.least <= atMost(a.least) && b.most <= atMost(a.most));
      },
    ),
    { numRuns: 1000 },
  );
});

test('shorts at the far end, by hand', () => {
  const area = room([144, 120, 144, 120]);
  const box = outlet('A', 1, 60);
  const circuit = chain([box]);
  circuit.stops[0]!.measured = 1200;
  const run = buildRun(house({ area, boxes: [box], circuits: [circuit] }), circuit);
  const currents = Object.fromEntries(currentsOf(run, 75).map((c) => [c.name, c.amps]));
  // 100 ft of 12 AWG copper: 0.193 Ω each way, 0.03 Ω ahead: 120 ÷ 0.416 = 288 A; the ground is 12 AWG too.
  assert.ok(Math.abs(currents['short, hot to hot or neutral, at A']! - 120 / 0.416) < 0.01);
  assert.ok(Math.abs(currents['short, hot to ground, at A']! - 120 / 0.416) < 0.01);
  assert.equal(currents['planned load'], 1.5);
  assert.equal(currents['80 % of the breaker'], 16);
});
