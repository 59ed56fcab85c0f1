import assert from 'node:assert/strict';
import { test } from 'node:test';
import { randomFrom } from '#core/planner/search/random.ts';
import { withFaults, type Fault } from './faults.ts';
import { everyFault } from '#core/diagnosis/hypotheses.ts';
import { MAINS_HERTZ, type Network } from './network.ts';
import { Predictor, type Probe } from './predict.ts';
import { Factors } from './solve.ts';
import { parts, randomFault, randomRun, randomUse, spice } from './testing.ts';
import { wiringOf, type Wiring } from './wiring.ts';

/** Meters between the slots of a few boxes, stiff and light. */
function probesOf({ terminals }: Wiring, seed: number): Probe[] {
  const random = randomFrom(seed);
  return Array.from({ length: 4 }, () => terminals[Math.floor(random() * terminals.length)]!).flatMap(
    ({ hot, neutral, ground }): Probe[] => [
      { a: hot, b: neutral, ohms: 1e7 },
      { a: hot, b: ground, ohms: 3000 },
      { a: neutral, b: ground, ohms: 1e7 },
    ],
  );
}

/** The network with one meter connected. */
const withMeter = (network: Network, { a, b, ohms }: Probe): Network => ({
  ...network,
  branches: [...network.branches, { from: a, to: b, conductance: 1 / ohms, capacitance: 0 }],
});

/** The slow way: every meter and every fault in a network of its own. */
const read = (network: Network, probe: Probe): number =>
  new Factors(withMeter(network, probe), MAINS_HERTZ).voltages().between(probe.a, probe.b);

test('every single fault and pairs of them read as in networks of their own', () => {
  for (let seed = 1; seed <= 4; seed++) {
    const random = randomFrom(seed);
    const run = randomRun(4 + Math.floor(random() * 20), seed);
    const wiring = wiringOf(run, randomUse(run, seed));
    const probes = probesOf(wiring, seed);
    const faults = everyFault(wiring);
    const predictor = new Predictor(wiring, faults, probes, MAINS_HERTZ, 2);
    const alone = new Predictor(wiring, faults, probes, MAINS_HERTZ, 1);
    const found = new Float64Array(probes.length);
    const check = (said: readonly Fault[]) => {
      const network = withFaults(wiring, said);
      const most = said.some(parts) ? 1e-3 : 1e-6;
      for (const [p, probe] of probes.entries()) {
        const expected = read(network, probe);
        assert.ok(
          Math.abs(found[p]! - expected) < most,
          `seed ${seed}, probe ${p}, ${JSON.stringify(said)}: ${found[p]} V, expected ${expected} V`,
        );
      }
    };
    predictor.readings(found);
    check([]);
    for (let k = 0; k < 24; k++) {
      const at = Math.floor(random() * faults.length);
      predictor.without();
      assert.ok(predictor.with(at, found));
      check([faults[at]!]);
      assert.ok(alone.with(at, found));
      check([faults[at]!]);
    }
    alone.given(0);
    alone.readings(found);
    check([faults[0]!]);
    assert.throws(() => alone.with(1, found), /one fault at a time/);
    for (let k = 0; k < 40; k++) {
      const [a, b] = [Math.floor(random() * faults.length), Math.floor(random() * faults.length)];
      predictor.given(a);
      predictor.readings(found);
      check([faults[a]!]);
      if (predictor.with(b, found)) check([faults[a]!, faults[b]!]);
      else assert.equal(near(faults[a]!, faults[b]!), true, JSON.stringify([faults[a], faults[b]]));
    }
  }
});

/** Two faults that may touch the same joints, or of which one hangs on what the other has parted. */
const near = (a: Fault, b: Fault): boolean =>
  !('stop' in a && 'stop' in b) || a.stop === b.stop || parts(a) || parts(b);

test('predictions agree with ngspice', () => {
  const cases = Array.from({ length: 14 }, (_, k) => {
    const seed = 500 + k;
    const random = randomFrom(seed);
    const run = randomRun(8 + Math.floor(random() * 23), seed);
    const wiring = wiringOf(run, randomUse(run, seed));
    const faults = [randomFault(wiring, random, true), randomFault(wiring, random, true)];
    const [probe] = probesOf(wiring, seed) as [Probe];
    const predictor = new Predictor(wiring, faults, [probe], MAINS_HERTZ, 2);
    const found = new Float64Array(1);
    predictor.given(0);
    const told = predictor.with(1, found);
    return { network: withMeter(withFaults(wiring, faults), probe), probe, told, volts: found[0]!, faults };
  });
  const told = cases.filter((c) => c.told);
  assert.ok(told.length > 10);
  const expected = spice(told.map((c) => c.network));
  for (const [k, { probe, volts, faults }] of told.entries()) {
    const [a, b] = [expected[k]![probe.a]!, expected[k]![probe.b]!];
    const there = Math.hypot(a.re - b.re, a.im - b.im);
    assert.ok(Math.abs(volts - there) < 1e-3, `${JSON.stringify(faults)}: ${volts} V, ngspice ${there} V`);
  }
});
