/** Ranges over unknown loads against every combination of them. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { randomFrom } from '#core/planner/search/random.ts';
import { withFaults } from './faults.ts';
import { MAINS_HERTZ } from './network.ts';
import { Predictor } from './predict.ts';
import { rangeOf } from './ranges.ts';
import { randomFault, randomRun } from './testing.ts';
import { wiringOf } from './wiring.ts';

test('the range over six unknown loads holds every combination of them, sound and with a fault', () => {
  for (let seed = 0; seed < 20; seed++) {
    const random = randomFrom(80 + seed);
    const run = randomRun(8, seed);
    const amps = new Map([0, 1, 3, 4, 6, 7].map((stop) => [stop, 1 + 6 * random()] as const));
    const sound = wiringOf(run, { amps, open: new Set() });
    const wiring = seed % 2 ? withFaults(sound, [randomFault(sound, random, false)]) : sound;
    const { hot, neutral, ground } = wiring.terminals[2]!;
    const [a, b] = seed % 3 ? [hot, neutral] : [neutral, ground];
    const probe = { a: a!, b: b!, ohms: 1e7 };
    const loads = wiring.loads.map((l) => l.branch);
    const { least, most } = rangeOf(wiring, probe, loads);
    const all: number[] = [];
    for (let on = 0; on < 2 ** loads.length; on++) {
      const branches = wiring.branches.map((branch, k) => {
        const at = loads.indexOf(k);
        return at >= 0 && !(on & (1 << at)) ? { ...branch, conductance: 0 } : branch;
      });
      const volts = new Float64Array(1);
      new Predictor({ ...wiring, branches }, [], [probe], MAINS_HERTZ, 1).readings(volts);
      all.push(volts[0]!);
    }
    const within = 0.02 * (Math.max(...all) - Math.min(...all)) + 1e-6;
    assert.ok(least <= Math.min(...all) + within, `${seed}: ${least} above ${Math.min(...all)}`);
    assert.ok(most >= Math.max(...all) - within, `${seed}: ${most} below ${Math.max(...all)}`);
    assert.ok(most <= Math.max(...all) + within, 'no wider than they are');
    assert.ok(least === 0 || least >= Math.min(...all) - within, 'no wider than they are');
  }
});
