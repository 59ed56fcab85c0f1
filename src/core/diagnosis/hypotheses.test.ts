/** Every hypothesis of random houses can be put in, has a name, and reads the same by low rank as factored on its own. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { faultName } from '#core/network/faultWords.ts';
import { withFaults } from '#core/network/faults.ts';
import { EARTH, MAINS_HERTZ } from '#core/network/network.ts';
import { Predictor, type Probe } from '#core/network/predict.ts';
import { randomHouse } from '#core/network/testing.ts';
import { houseWiring } from '#core/network/wiring.ts';
import { hypothesesOf } from './hypotheses.ts';

const NAMES = { box: (stop: number) => `B${stop}`, circuit: (k: number) => `C${k}` };

test('hypotheses of houses: put in, named apart, and predicted as they solve', () => {
  const kinds = new Set<string>();
  for (let seed = 1; seed <= 6; seed++) {
    const { house, studies } = randomHouse(2, 300 + seed);
    const wiring = houseWiring(house, studies, MAINS_HERTZ);
    const faults = hypothesesOf(wiring);
    const named = faults.map((f) => faultName(f, NAMES));
    assert.ok(
      named.every((n) => n.length > 8 && !/undefined|NaN/.test(n)),
      named.find((n) => /undefined|NaN/.test(n)),
    );
    const twice = named.filter((n, k) => named.indexOf(n) !== k);
    assert.deepEqual(twice, [], `house ${seed}`);
    const probes = wiring.terminals.flatMap(({ hot, neutral, ground }): Probe[] => [
      { a: hot, b: neutral, ohms: 1e7 },
      { a: ground, b: EARTH, ohms: 1000 },
    ]);
    const predictor = new Predictor(wiring, faults, probes, MAINS_HERTZ, 1);
    const low = new Float64Array(probes.length);
    const own = new Float64Array(probes.length);
    for (const [k, fault] of faults.entries()) {
      kinds.add(fault.kind);
      // One in five is held against a factorization of its own.
      if (k % 5 !== seed % 5) continue;
      assert.ok(predictor.with(k, low));
      new Predictor(withFaults(wiring, [fault]), [], probes, MAINS_HERTZ, 1).readings(own);
      for (const [p, volts] of low.entries())
        assert.ok(Math.abs(volts - own[p]!) < 1e-3, `${named[k]}: ${volts} and ${own[p]} at ${p}`);
    }
  }
  for (const kind of [
    'crossed',
    'cable-leak',
    'hidden-junction',
    'landing',
    'lifted-neutral',
    'wrong-bar',
    'service-neutral',
    'feeder-neutral',
    'no-bond',
    'second-bond',
    'tied',
    'borrowed-neutral',
    'crossed-breakers',
  ])
    assert.ok(kinds.has(kind), kind);
});
