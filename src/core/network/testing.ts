/** Random circuits, faults and the independent solver for tests and measurements. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { plannedBoxes } from '#core/boxes/planned.ts';
import { buildRun, type Run } from '#core/circuits/run.ts';
import { spiceNetlist, spiceNode } from '#core/formats/spice.ts';
import type { Circuit } from '#core/job/schema.ts';
import { chain, house, outlet, receptacle, room } from '#core/job/testing.ts';
import { randomFrom } from '#core/planner/search/random.ts';
import type { Fault } from './faults.ts';
import { MAINS_HERTZ, type Complex, type Network } from './network.ts';
import type { House, HousePanel, Taken } from './supply.ts';
import type { Conductor, HouseStudy, Use, Wiring } from './wiring.ts';

/** Whether a fault leaves something hanging by a leak. */
export const parts = ({ kind }: Fault): boolean =>
  kind !== 'resistance' && kind !== 'short' && kind !== 'swap';

/** Boxes in a row, spliced and fed through by turns. */
export function plainRun(count: number): Run {
  const boxes = Array.from({ length: count }, (_, i) => outlet(`R${i + 1}`, i % 4, 20));
  const plain = chain(boxes);
  const circuit: Circuit = {
    ...plain,
    stops: plain.stops.map((stop, i) => ({ ...stop, splice: i % 2 ? 'pigtail' : 'feed-through' })),
  };
  return buildRun(house({ area: room([400, 300, 400, 300]), boxes, circuits: [circuit] }), circuit);
}

/** A circuit of so many boxes, branching and mixed as it comes. */
export function randomRun(count: number, seed: number): Run {
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

export function randomUse(run: Run, seed: number): Use {
  const random = randomFrom(seed + 1);
  const amps = new Map(
    run.stops.flatMap((_, i) => (random() < 0.4 ? [[i, 0.2 + 6 * random()] as const] : [])),
  );
  return { amps, open: new Set<number>() };
}

/** A house of so many circuits on the service and, from three on, a subpanel; loads and strays as they come. */
export function randomHouse(circuits: number, seed: number): { house: House; studies: HouseStudy[] } {
  const random = randomFrom(seed);
  const amps = () => (random() < 0.5 ? Math.round(20 * random()) : 0);
  const others = (): Taken => ({ A: amps(), B: amps(), across: amps() });
  const service: HousePanel = {
    name: 'Service',
    from: null,
    feeder: null,
    bonded: true,
    electrode: 25,
    others: others(),
  };
  const sub: HousePanel = {
    name: 'Shed',
    from: 'Service',
    feeder: { leg: 0.05 + 0.1 * random(), neutral: 0.1, ground: random() < 0.8 ? 0.1 : null },
    bonded: false,
    electrode: random() < 0.5 ? 40 : null,
    others: others(),
  };
  const house: House = {
    service: { A: 0.01, B: 0.012, neutral: 0.011, earth: 2 },
    panels: [service, sub],
  };
  const studies = Array.from({ length: circuits }, (_, k): HouseStudy => {
    const run = randomRun(3 + Math.floor(5 * random()), seed + k);
    return {
      run,
      boxes: plannedBoxes(run),
      use: randomUse(run, seed + k),
      panel: k % 3 === 2 ? 'Shed' : 'Service',
      leg: random() < 0.5 ? 'A' : 'B',
    };
  });
  return { house, studies };
}

export function randomFault(wiring: Wiring, random: () => number, opens: boolean): Fault {
  const spots = wiring.spots.filter((s) => s.stop >= 0 && s.part === 'terminal');
  const { stop } = spots[Math.floor(random() * spots.length)]!;
  const at = wiring.spots.filter((s) => s.stop === stop && s.part !== 'load');
  const spot = at[Math.floor(random() * at.length)]!;
  const here = [...new Set(at.filter((s) => s.part === 'terminal').map((s) => s.conductor))];
  const first = here[Math.floor(random() * here.length)]!;
  const others = here.filter((c) => c !== first);
  const conductors: [Conductor, Conductor] = [first, others[Math.floor(random() * others.length)]!];
  const kind = random();
  if (opens && kind < 0.3) return { kind: 'open', ...spot };
  if (opens && kind < 0.5) {
    const rare: Fault[] = [
      { kind: 'false-ground', stop },
      { kind: 'other-hot', stop, leg: random() < 0.5 ? 'same' : 'other' },
      { kind: 'other-neutral', stop },
      ...(at.some((s) => s.part === 'contact')
        ? [{ kind: 'reversed', stop, age: random() < 0.5 ? 'since-2006' : 'before-2006' } as const]
        : []),
      ...(wiring.panel.breaker.red === null ? [] : [{ kind: 'same-leg' } as const]),
    ];
    return rare[Math.floor(random() * rare.length)]!;
  }
  if (kind < 0.7) return { kind: 'resistance', ...spot, ohms: 0.1 + 20 * random() };
  if (kind < 0.85) return { kind: 'short', stop, conductors, ohms: 0.05 + random() };
  return { kind: 'swap', stop, conductors };
}

/** Solves networks with ngspice, one process for all of them. */
export function spice(networks: readonly Network[]): Complex[][] {
  const folder = mkdtempSync(join(tmpdir(), 'hekto-spice-'));
  const file = (k: number, kind: string) => join(folder, `${k}.${kind}`);
  try {
    const script = networks.flatMap((network, k) => {
      writeFileSync(file(k, 'cir'), spiceNetlist(network, MAINS_HERTZ, `network ${k}`));
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
