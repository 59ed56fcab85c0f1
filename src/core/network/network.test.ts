import assert from 'node:assert/strict';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test } from 'node:test';
import fc from 'fast-check';
import { buildRun, dropAt, type Run } from '../circuits/run.ts';
import { spiceNetlist, spiceNode } from '../formats/spice.ts';
import type { Circuit } from '../job/schema.ts';
import { chain, house, outlet, receptacle, room } from '../job/testing.ts';
import { randomFrom } from '../planner/random.ts';
import { withFaults, type Fault } from './faults.ts';
import { EARTH, type Complex, type Network } from './network.ts';
import { Factors } from './solve.ts';
import { wiringOf, type Conductor, type Wiring } from './wiring.ts';

const HERTZ = 60;

/** A circuit of so many boxes, branching and mixed as it comes. */
function randomRun(count: number, seed: number): Run {
  const random = randomFrom(seed);
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
  const boxes = Array.from({ length: count }, (_, i) => ({
    ...outlet(`R${i + 1}`, i % 4, 20),
    ...(random() < 0.15 ? { device: receptacle({ kind: 'gfci' }) } : {}),
  }));
  const multiwire = random() < 0.3;
  const plain = chain(boxes);
  const circuit: Circuit = {
    ...plain,
    breaker: { ...plain.breaker, poles: multiwire ? 2 : 1 },
    gauge: pick(['14', '12'] as const),
    stops: plain.stops.map((stop, i) => ({
      ...stop,
      from: i === 0 ? null : boxes[Math.max(0, i - 1 - Math.floor(random() * 3))]!.id,
      measured: 30 + Math.floor(random() * 400),
      side: pick(['load', 'line'] as const),
      splice: pick(['pigtail', 'feed-through'] as const),
      hot: multiwire ? pick(['black', 'red'] as const) : ('black' as const),
    })),
  };
  return buildRun(house({ area: room([400, 300, 400, 300]), boxes, circuits: [circuit] }), circuit);
}

function randomUse(run: Run, seed: number) {
  const random = randomFrom(seed + 1);
  const amps = new Map(
    run.stops.flatMap((_, i) => (random() < 0.4 ? [[i, 0.2 + 6 * random()] as const] : [])),
  );
  return { amps, open: new Set<number>() };
}

function randomFault(wiring: Wiring, random: () => number, opens: boolean): Fault {
  const spots = wiring.spots.filter((s) => s.stop >= 0 && s.part === 'terminal');
  const { stop } = spots[Math.floor(random() * spots.length)]!;
  const at = wiring.spots.filter((s) => s.stop === stop && s.part !== 'load');
  const spot = at[Math.floor(random() * at.length)]!;
  const here = [...new Set(at.filter((s) => s.part === 'terminal').map((s) => s.conductor))];
  const first = here[Math.floor(random() * here.length)]!;
  const others = here.filter((c) => c !== first);
  const conductors: [Conductor, Conductor] = [first, others[Math.floor(random() * others.length)]!];
  const kind = random();
  if (opens && kind < 0.5) return { kind: 'open', ...spot };
  if (kind < 0.7) return { kind: 'resistance', ...spot, ohms: 0.1 + 20 * random() };
  if (kind < 0.85) return { kind: 'short', stop, conductors, ohms: 0.05 + random() };
  return { kind: 'swap', stop, conductors };
}

/** Solves networks with ngspice, one process for all of them. */
function spice(networks: readonly Network[]): Complex[][] {
  const folder = mkdtempSync(join(tmpdir(), 'hekto-spice-'));
  const file = (k: number, kind: string) => join(folder, `${k}.${kind}`);
  try {
    const script = networks.flatMap((network, k) => {
      writeFileSync(file(k, 'cir'), spiceNetlist(network, HERTZ, `network ${k}`));
      const nodes = network.nodes.map((_, i) => `v(${spiceNode(i)})`).join(' ');
      return [`source ${file(k, 'cir')}`, 'run', `wrdata ${file(k, 'out')} ${nodes}`, 'remcirc'];
    });
    const control = ['* all', '.control', 'set numdgt=16', 'set wr_singlescale', ...script, 'quit', '.endc'];
    writeFileSync(join(folder, 'all.cir'), [...control, '.end', ''].join('\n'));
    execFileSync('ngspice', ['-b', join(folder, 'all.cir')], { stdio: 'ignore' });
    return networks.map((network, k) => {
      const values = readFileSync(file(k, 'out'), 'utf8').trim().split(/\s+/).map(Number).slice(1);
      return network.nodes.map((_, i) => ({ re: values[2 * i]!, im: values[2 * i + 1]! }));
    });
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

test('voltages agree with ngspice on random circuits with loads and faults', () => {
  const cases = Array.from({ length: 66 }, (_, k) => {
    const seed = k + 1;
    const random = randomFrom(1000 + seed);
    const run = randomRun(8 + Math.floor(random() * 23), seed);
    const sound = wiringOf(run, randomUse(run, seed));
    // None, one or two, with opens among them in every other circuit.
    const faults = Array.from({ length: seed % 3 }, () => randomFault(sound, random, seed % 2 === 0));
    return { wiring: withFaults(sound, faults), opens: faults.some((f) => f.kind === 'open') };
  });
  assert.ok(cases.filter((c) => c.opens).length >= 8);
  const expected = spice(cases.map((c) => c.wiring));
  for (const [k, { wiring, opens }] of cases.entries()) {
    const voltages = new Factors(wiring, HERTZ).voltages();
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
  const voltages = new Factors(wiring, HERTZ).voltages();
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
    const voltages = new Factors(withFaults(sound, faults), HERTZ).voltages();
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
});

test('currents into every node sum to nothing', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 20 }), fc.nat(1e6), (count, seed) => {
      const run = randomRun(count, seed);
      const wiring = wiringOf(run, randomUse(run, seed));
      const voltages = new Factors(wiring, HERTZ).voltages();
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
    { numRuns: 60 },
  );
});

test('a branch to a node that is not there is refused, and so is a fault where nothing is', () => {
  const branch = { from: 0, to: 7, conductance: 1, capacitance: 0 };
  assert.throws(
    () => new Factors({ nodes: ['a'], branches: [branch], sources: [] }, HERTZ),
    /joins nodes 0 and 7/,
  );
  const wiring = wiringOf(randomRun(2, 3));
  const fault: Fault = { kind: 'open', stop: 9, conductor: 'black', part: 'cable' };
  assert.throws(() => withFaults(wiring, [fault]), /Stop 10 has no cable/);
});
