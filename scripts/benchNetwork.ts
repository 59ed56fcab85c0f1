/** Predictions for a circuit of thirty boxes under every fault and every two, beside ngspice on the same. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { plannedBoxes } from '#core/boxes/planned.ts';
import { spiceNetlist, spiceNode } from '#core/formats/spice.ts';
import { editsOf } from '#core/network/faults.ts';
import { everyFault } from '#core/diagnosis/hypotheses.ts';
import { MAINS_HERTZ } from '#core/network/network.ts';
import { Predictor, type Probe } from '#core/network/predict.ts';
import { presentedBy } from '#core/network/present.ts';
import type { House } from '#core/network/supply.ts';
import { plainRun, randomHouse } from '#core/network/testing.ts';
import { houseWiring, wiringOf, type Wiring } from '#core/network/wiring.ts';

const BOXES = 30;
/** Boxes that were measured: three voltages at each, with the meter’s own current. */
const MEASURED = [0, 5, 10, 16, 22, 29];
const METER_OHMS = 1e7;

export interface NetworkFigures {
  nodes: number;
  faults: number;
  pairs: number;
  /** Pairs left out: two faults of one branch. */
  left: number;
  probes: number;
  /** Milliseconds for all single faults and for all pairs, tables and factorization included. */
  single: number;
  pair: number;
  /** Milliseconds that ngspice takes for one fault. */
  spice: number;
}

export function measureNetwork(
  time: (work: () => unknown, rounds?: number, warm?: number) => number,
): NetworkFigures {
  const run = plainRun(BOXES);
  const wiring = wiringOf(run, {
    amps: new Map([
      [5, 3],
      [20, 6],
    ]),
    open: new Set(),
  });
  const faults = everyFault(wiring);
  const probes = MEASURED.flatMap((stop): Probe[] => {
    const { hot, neutral, ground } = wiring.terminals[stop]!;
    return [
      [hot, neutral],
      [hot, ground],
      [neutral, ground],
    ].map(([a, b]) => ({ a: a!, b: b!, ohms: METER_OHMS }));
  });
  const into = new Float64Array(probes.length);
  const singles = () => {
    const predictor = new Predictor(wiring, faults, probes, MAINS_HERTZ, 1);
    faults.forEach((_, k) => predictor.with(k, into));
  };
  for (let round = 0; round < 100; round++) singles();
  // By turns: the machine wavers, and both with it.
  const [single, spice] = Array.from({ length: 5 }, () => [
    time(singles, 60, 0),
    alterAndSolve(wiring, probes),
  ])
    .sort(([a, b], [c, d]) => b! / a! - d! / c!)
    .at(2)! as [number, number];
  let left = 0;
  const pair = time(
    () => {
      left = 0;
      const predictor = new Predictor(wiring, faults, probes, MAINS_HERTZ, 2);
      for (let a = 0; a < faults.length; a++) {
        predictor.given(a);
        for (let b = a + 1; b < faults.length; b++) if (!predictor.with(b, into)) left++;
      }
    },
    3,
    1,
  );
  return {
    nodes: wiring.nodes.length,
    faults: faults.length,
    pairs: (faults.length * (faults.length - 1)) / 2,
    left,
    probes: probes.length,
    single,
    pair,
    spice,
  };
}

export interface HouseFigures {
  nodes: number;
  /** Milliseconds for all single faults of the circuit alone, and of the same circuit in a house of twenty. */
  alone: number;
  inHouse: number;
  /** Milliseconds to fold the other nineteen, once for a house. */
  folding: number;
}

/** The circuit of thirty boxes alone, and as one of twenty with the others folded. */
export function measureHouse(
  time: (work: () => unknown, rounds?: number, warm?: number) => number,
): HouseFigures {
  const run = plainRun(BOXES);
  const boxes = plannedBoxes(run);
  const { house, studies } = randomHouse(19, 1);
  const fold = (): House => ({
    ...house,
    panels: house.panels.map((panel) => ({
      ...panel,
      presented: studies.filter((s) => s.panel === panel.name).map((s) => presentedBy(s, s.leg, MAINS_HERTZ)),
    })),
  });
  const folded = fold();
  const use = { amps: new Map([[5, 3]]), open: new Set<number>() };
  const singles = (lay: () => Wiring) => () => {
    const wiring = lay();
    const faults = everyFault(wiring);
    const { hot, neutral } = wiring.terminals[BOXES - 1]!;
    const predictor = new Predictor(
      wiring,
      faults,
      [{ a: hot, b: neutral, ohms: METER_OHMS }],
      MAINS_HERTZ,
      1,
    );
    const into = new Float64Array(1);
    faults.forEach((_, k) => predictor.with(k, into));
  };
  const inside = () => houseWiring(folded, [{ run, boxes, use, panel: 'Service', leg: 'A' }], MAINS_HERTZ);
  const [alone, inHouse] = Array.from({ length: 5 }, () => [
    time(
      singles(() => wiringOf(run, use, boxes)),
      20,
      5,
    ),
    time(singles(inside), 20, 5),
  ])
    .sort(([a, b], [c, d]) => b! / a! - d! / c!)
    .at(2)! as [number, number];
  return { nodes: inside().nodes.length, alone, inHouse, folding: time(fold, 3, 1) };
}

/**
 * Milliseconds that ngspice takes to alter one resistor, solve at one frequency with only the probes’ nodes saved, and
 * alter it back; what it takes to start and read the netlist is taken off.
 */
function alterAndSolve(wiring: Wiring, probes: readonly Probe[]): number {
  const folder = mkdtempSync(join(tmpdir(), 'hekto-bench-'));
  const opens = everyFault(wiring).flatMap((fault) => {
    const [edit] = editsOf(wiring, fault);
    return fault.kind === 'open' && edit?.kind === 'conduct' ? [edit] : [];
  });
  const took = (count: number): number => {
    const saved = [...new Set(probes.flatMap(({ a, b }) => [a, b]))].map((n) => `v(${spiceNode(n)})`);
    const loop = Array.from({ length: count }, (_, k) => opens[k % opens.length]!).flatMap((edit) => [
      `alter R${edit.branch} = ${1 / edit.conductance}`,
      `ac lin 1 ${MAINS_HERTZ} ${MAINS_HERTZ}`,
      `alter R${edit.branch} = ${1 / wiring.branches[edit.branch]!.conductance}`,
      'destroy all',
    ]);
    writeFileSync(join(folder, 'circuit.cir'), spiceNetlist(wiring, MAINS_HERTZ, 'bench'));
    const control = [`source ${join(folder, 'circuit.cir')}`, `save ${saved.join(' ')}`, ...loop, 'quit'];
    writeFileSync(
      join(folder, 'loop.cir'),
      ['* loop', '.control', ...control, '.endc', '.end', ''].join('\n'),
    );
    const start = performance.now();
    execFileSync('ngspice', ['-b', join(folder, 'loop.cir')], { stdio: 'ignore' });
    return performance.now() - start;
  };
  try {
    const few = Math.min(took(1), took(1));
    const rounds = 300;
    return (took(rounds) - few) / (rounds - 1);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
