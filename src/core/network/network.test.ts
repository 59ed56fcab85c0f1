import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { dropAt } from '#core/circuits/run.ts';
import { randomFrom } from '#core/planner/search/random.ts';
import { withFaults, type Fault } from './faults.ts';
import { EARTH, MAINS_HERTZ } from './network.ts';
import { Factors } from './solve.ts';
import { parts, randomFault, randomRun, randomUse, spice } from './testing.ts';
import { wiringOf, type Conductor } from './wiring.ts';

test('voltages agree with ngspice on random circuits with loads and faults', () => {
  const cases = Array.from({ length: 66 }, (_, k) => {
    const seed = k + 1;
    const random = randomFrom(1000 + seed);
    const run = randomRun(8 + Math.floor(random() * 23), seed);
    const sound = wiringOf(run, randomUse(run, seed));
    // None, one or two, with opens among them in every other circuit.
    const faults = Array.from({ length: seed % 3 }, () => randomFault(sound, random, seed % 2 === 0));
    return { wiring: withFaults(sound, faults), opens: faults.some(parts) };
  });
  assert.ok(cases.filter((c) => c.opens).length >= 8);
  const expected = spice(cases.map((c) => c.wiring));
  for (const [k, { wiring, opens }] of cases.entries()) {
    const voltages = new Factors(wiring, MAINS_HERTZ).voltages();
    for (const [node, there] of expected[k]!.entries()) {
      const here = voltages.at(node);
      const apart = Math.hypot(here.re - there.re, here.im - there.im);
      // Both round where a node at 120 V leaks a billionth of what its joints carry: relative to the source.
      const most = opens ? 1e-3 : 1e-9 * 120;
      assert.ok(apart < most, `circuit ${k}, ${wiring.nodes[node]}: ${apart} V apart`);
    }
  }
});

test('a ladder by hand: the voltage at each box is what its segments leave', () => {
  const run = randomRun(6, 5);
  const far = run.stops.length - 1;
  const wiring = wiringOf(run, { amps: new Map([[far, 12]]), open: new Set() });
  const voltages = new Factors(wiring, MAINS_HERTZ).voltages();
  const { hot, neutral, ground } = wiring.terminals[far]!;
  const path: number[] = [];
  for (let i = far; i >= 0; i = run.stops[i]!.feeder) path.unshift(i);
  assert.ok(Math.abs(voltages.between(hot, neutral) - voltages.between(hot, ground)) > 0.1);
  // 12 A at 120 V is 10 ohms; the cable is the run’s own, the rest is source, breaker, joints and contacts.
  const cable = 2 * path.reduce((t, i) => t + run.stops[i]!.segment.ohms, 0);
  const seen = voltages.between(hot, neutral);
  const alone = (120 * 10) / (10 + cable);
  assert.ok(seen < alone && seen > alone - 1.5, `${seen} V of ${alone}`);
  assert.ok(Math.abs(dropAt(run.stops[far]!, seen / 10) - (cable * seen) / 10) < 1e-9);
});

test('what is open reads as practice has it', () => {
  const run = randomRun(5, 11);
  assert.equal(run.circuit.breaker.poles, 1);
  const sound = wiringOf(run);
  const at = (faults: Fault[], stop: number): number[] => {
    const voltages = new Factors(withFaults(sound, faults), MAINS_HERTZ).voltages();
    const { hot, neutral, ground } = sound.terminals[stop]!;
    return [
      voltages.between(hot, neutral),
      voltages.between(hot, ground),
      voltages.between(neutral, ground),
    ].map((v) => Math.round(v));
  };
  const terminal = (conductor: Conductor): Fault => ({ kind: 'open', stop: 2, conductor, part: 'terminal' });
  assert.deepEqual(at([], 2), [120, 120, 0]);
  assert.deepEqual(at([terminal('black')], 2), [0, 0, 0]);
  assert.deepEqual(at([{ kind: 'swap', stop: 2, conductors: ['black', 'neutral'] }], 2), [120, 0, 120]);
  assert.deepEqual(at([{ kind: 'swap', stop: 2, conductors: ['black', 'ground'] }], 2), [0, 120, 120]);
  // Crossed inside the cable it is reversed from there on; the box before is as it was.
  const crossed: Fault = { kind: 'crossed', stop: 3, conductors: ['black', 'neutral'] };
  const before = run.stops[3]!.feeder;
  assert.deepEqual(at([crossed], 3), [120, 0, 120]);
  if (before >= 0) assert.deepEqual(at([crossed], before), [120, 120, 0]);
});

test('currents into every node sum to nothing', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 20 }), fc.nat(1e6), (count, seed) => {
      const run = randomRun(count, seed);
      const wiring = wiringOf(run, randomUse(run, seed));
      const voltages = new Factors(wiring, MAINS_HERTZ).voltages();
      const sums = wiring.nodes.map(() => 0);
      const flow = (from: number, to: number, amps: number) => {
        if (to !== EARTH) sums[to]! += amps;
        if (from !== EARTH) sums[from]! -= amps;
      };
      for (const { from, to, conductance } of wiring.branches)
        flow(from, to, (voltages.at(from).re - voltages.at(to).re) * conductance);
      for (const { from, to, volts, ohms } of wiring.sources)
        flow(from, to, (volts + voltages.at(from).re - voltages.at(to).re) / ohms);
      // In phase alone: the currents of capacitors are square to it, and their drops some billionths.
      for (const [node, amps] of sums.entries())
        assert.ok(Math.abs(amps) < 1e-6, `${wiring.nodes[node]}: ${amps} A`);
    }),
    { numRuns: 30 },
  );
});

test('a branch to a node that is not there is refused, and so is a fault where nothing is', () => {
  const branch = { from: 0, to: 7, conductance: 1, capacitance: 0 };
  assert.throws(
    () => new Factors({ nodes: ['a'], branches: [branch], sources: [] }, MAINS_HERTZ),
    /joins nodes 0 and 7/,
  );
  const wiring = wiringOf(randomRun(2, 3));
  const fault: Fault = { kind: 'open', stop: 9, conductor: 'black', part: 'cable' };
  assert.throws(() => withFaults(wiring, [fault]), /Stop 10 has no cable/);
});
