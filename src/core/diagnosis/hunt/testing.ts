/**
 * Houses with something the matter, for tests and measurements of the hunt. They are netlists for ngspice, written from the
 * drawing alone: cables, joints, loads and faults are laid here once more and share nothing with the network, the causes or
 * the likelihoods. Loads and the source change between two readings, as they do.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import process from 'node:process';
import { buildRun, type Run } from '#core/circuits/run.ts';
import type { Circuit, JobDocument } from '#core/job/schema.ts';
import { chain, house, outlet, receptacle, room } from '#core/job/testing.ts';
import { randomFrom } from '#core/planner/search/random.ts';
import { isTurnedOff } from './asking.ts';
import type { Evidence, Finding } from './evidence.ts';
import { Hunt } from './hunt.ts';
import type { CauseKind } from './kinds.ts';
import { measureKey, USUAL_SITUATION, type Measure, type Situation } from './measures.ts';
import { nextOf } from './next.ts';
import type { Priors } from './priors.ts';
import type { Ground } from './predictions.ts';

type Wire = 'h' | 'n' | 'g';
const NAMES = { h: 'hot', n: 'neutral', g: 'ground' } as const;

/** What is the matter, in the terms of this file. */
export type Trouble =
  /** A joint of a conductor: of the cable that arrives, of the one that starts toward the box, in the cable, on the device. */
  | { what: 'joint'; box: number; wire: Wire; where: 'in' | 'start' | 'middle' | 'device'; ohms: number }
  | { what: 'touch'; box: number; wires: readonly [Wire, Wire]; ohms: number; where: 'box' | 'cable' }
  | { what: 'swapped'; box: number; wires: readonly [Wire, Wire] }
  | { what: 'false-ground'; box: number }
  | { what: 'tripped'; box: number }
  | { what: 'breaker'; ohms: number }
  | { what: 'service-neutral'; ohms: number }
  | { what: 'lost-leg' }
  | { what: 'lifted-neutral' }
  | { what: 'overload' }
  | { what: 'appliance' }
  | { what: 'nothing' }
  /** Not in any catalogue: a winding in one of the conductors, whatever is on. */
  | { what: 'odd'; box: number; how: 'hot' | 'neutral' | 'ground' };

/** A house that is measured. */
export interface Truth {
  ground: Ground;
  /** By box as drawn: the box that feeds it in truth; −1 the panel. */
  feeders: readonly number[];
  troubles: readonly Trouble[];
  random: () => number;
  /** What belongs to the house and stays. */
  house: { legs: readonly [number, number]; earth: number; stray: number; stretch: readonly number[] };
}

const OHMS_PER_INCH = { '14': 2.52 / 12000, '12': 1.59 / 12000, '10': 1 / 12000 } as Readonly<
  Record<string, number>
>;
const GOOD = 0.002;
const BREAKER = 0.004;
const APART = 1e10;
/** Ohms of what is not there until it is altered. */
const ABSENT = 1e13;

export const PLAIN_HOUSE: Ground['house'] = {
  service: { A: 0.01, B: 0.01, neutral: 0.01, earth: 2 },
  panels: [
    {
      name: 'Service',
      from: null,
      feeder: null,
      bonded: true,
      electrode: 25,
      others: { A: 0, B: 0, across: 0 },
    },
  ],
};

/** A plain chain of receptacles, joined by tails and through the device by turns; a GFCI at one of them, or none. */
export function chainGround(count: number, rating: 15 | 20 = 15, gfci = -1): Ground {
  const boxes = Array.from({ length: count }, (_, i) => ({
    ...outlet(`R${i + 1}`, i % 4, 20),
    ...(i === gfci ? { device: receptacle({ kind: 'gfci' }) } : {}),
  }));
  const plain = chain(boxes);
  const circuit: Circuit = {
    ...plain,
    gauge: rating === 15 ? '14' : '12',
    breaker: { ...plain.breaker, rating },
    stops: plain.stops.map((stop, i) => ({
      ...stop,
      measured: i === 0 ? 420 : 150,
      side: 'load' as const,
      splice: i % 2 === 0 ? ('pigtail' as const) : ('feed-through' as const),
    })),
  };
  const document = house({ area: room([400, 300, 400, 300]), boxes, circuits: [circuit] });
  return { document, run: buildRun(document, circuit), house: PLAIN_HOUSE, panel: 'Service', leg: 'A' };
}

/** A circuit of so many receptacles, mostly a chain, some with a GFCI in it. */
export function huntGround(count: number, seed: number): Ground {
  const random = randomFrom(seed);
  const gfci = random() < 0.4 ? Math.floor(random() * Math.min(count, 3)) : -1;
  const boxes = Array.from({ length: count }, (_, i) => ({
    ...outlet(`R${i + 1}`, i % 4, 20),
    ...(i === gfci ? { device: receptacle({ kind: 'gfci' }) } : {}),
  }));
  const plain = chain(boxes);
  const circuit: Circuit = {
    ...plain,
    gauge: random() < 0.5 ? '14' : '12',
    breaker: { ...plain.breaker, rating: random() < 0.5 ? 15 : 20 },
    stops: plain.stops.map((stop, i) => ({
      ...stop,
      from: i === 0 ? null : boxes[Math.max(0, i - 1 - (random() < 0.25 ? 1 : 0))]!.id,
      measured: 60 + Math.floor(random() * 300),
      side: 'load' as const,
      splice: random() < 0.5 ? ('pigtail' as const) : ('feed-through' as const),
    })),
  };
  const document: JobDocument = house({ area: room([400, 300, 400, 300]), boxes, circuits: [circuit] });
  const run: Run = buildRun(document, circuit);
  return { document, run, house: PLAIN_HOUSE, panel: 'Service', leg: 'A' };
}

const between = (random: () => number, low: number, high: number): number => low + (high - low) * random();
const pick = <T>(random: () => number, of: readonly T[]): T => of[Math.floor(random() * of.length)]!;

/** A trouble as often as such are met, of those that a circuit can have. */
export function randomTrouble(ground: Ground, random: () => number): Trouble {
  const { stops } = ground.run;
  const box = Math.floor(random() * stops.length);
  const gfcis = stops.flatMap((s, i) => (s.box.device.kind === 'gfci' ? [i] : []));
  const kind = random();
  // Where conductors go through the device there is no joint of its own behind it.
  const feeders = stops.map((s) => s.feeder);
  const behind = isThrough({ ground, feeders }, box) ? ('in' as const) : ('device' as const);
  if (kind < 0.26)
    return {
      what: 'joint',
      box,
      wire: pick(random, ['h', 'n', 'h', 'n', 'g']),
      where: pick(random, ['in', 'start', 'in', behind]),
      ohms: APART,
    };
  if (kind < 0.44)
    return {
      what: 'joint',
      box,
      wire: pick(random, ['h', 'n']),
      where: pick(random, ['in', 'start']),
      ohms: Math.exp(between(random, Math.log(0.5), Math.log(8))),
    };
  if (kind < 0.5)
    return { what: 'joint', box, wire: pick(random, ['h', 'n', 'g']), where: 'middle', ohms: APART };
  if (kind < 0.6)
    return {
      what: 'touch',
      box,
      wires: pick(random, [
        ['h', 'n'],
        ['h', 'g'],
      ] as const),
      ohms: 0.02,
      where: pick(random, ['box', 'box', 'cable']),
    };
  if (kind < 0.68) return { what: 'swapped', box, wires: ['h', 'n'] };
  if (kind < 0.76) return { what: 'false-ground', box };
  if (kind < 0.81)
    return gfcis.length > 0
      ? { what: 'tripped', box: pick(random, gfcis) }
      : { what: 'breaker', ohms: APART };
  if (kind < 0.88)
    return { what: 'service-neutral', ohms: random() < 0.7 ? APART : between(random, 0.3, 1.5) };
  if (kind < 0.91) return { what: 'lost-leg' };
  if (kind < 0.94) return { what: 'lifted-neutral' };
  if (kind < 0.97) return { what: 'appliance' };
  return { what: 'overload' };
}

/** Two boxes of the drawing change places in truth, or one hangs on another one. */
export function otherOrder(ground: Ground, random: () => number): number[] {
  const feeders = ground.run.stops.map((s) => s.feeder);
  const at = 1 + Math.floor(random() * (feeders.length - 1));
  const above = feeders[at]!;
  if (above < 0) return feeders;
  // The box is fed before the one that is drawn before it.
  return feeders.map((f, i) => (i === at ? feeders[above]! : i === above ? at : f === at ? above : f));
}

export function makeTruth(
  ground: Ground,
  troubles: readonly Trouble[],
  seed: number,
  feeders: readonly number[] = ground.run.stops.map((s) => s.feeder),
): Truth {
  const random = randomFrom(seed);
  return {
    ground,
    feeders,
    troubles,
    random,
    house: {
      legs: [between(random, 117, 123), between(random, 117, 123)],
      earth: between(random, 12, 60),
      stray: between(random, 0.5, 1.8),
      stretch: ground.run.stops.map(() => between(random, 0.92, 1.1)),
    },
  };
}

/** What stands on the circuit while something is done. */
interface State {
  /** Amperes by box. */
  amps: readonly number[];
  others: readonly [number, number];
  drift: number;
  breaker: boolean;
  /** Devices that are open. */
  open: ReadonlySet<number>;
  /** Branches of a meter, a body, a test load. */
  added: readonly string[];
  /** A box whose cables that go on hang loose at their starts. */
  parted?: number;
}

function momentOf({ random, ground, troubles }: Truth, unplugged = false): State {
  const rating = ground.run.circuit.breaker.rating;
  let left = 0.75 * rating;
  const amps = ground.run.stops.map(() => {
    if (unplugged || random() < 0.55) return 0;
    const takes = random() < 0.6 ? between(random, 0.05, 0.6) : between(random, 0.6, 6);
    if (takes > left) return 0;
    left -= takes;
    return takes;
  });
  if (!unplugged && troubles.some((t) => t.what === 'overload')) amps[0] = 1.35 * rating;
  return {
    amps,
    others: [between(random, 0, 25), between(random, 0, 25)],
    drift: between(random, 0.99, 1.01),
    breaker: true,
    open: new Set(),
    added: [],
  };
}

/** Conductors go on through the screws of the device. */
const isThrough = ({ ground, feeders }: Pick<Truth, 'ground' | 'feeders'>, i: number): boolean => {
  const { box, joining } = ground.run.stops[i]!;
  return (
    joining === 'feed-through' && box.device.kind !== 'gfci' && feeders.filter((f) => f === i).length < 2
  );
};

/** The house as a netlist. */
function netlist(truth: Truth, state: State): string {
  const { ground, feeders, troubles, house: own } = truth;
  const { stops, circuit } = ground.run;
  const lines: string[] = ['* a house'];
  let count = 0;
  const r = (a: string, b: string, ohms: number) => lines.push(`r${++count} ${a} ${b} ${ohms}`);
  const c = (a: string, b: string, farads: number) => lines.push(`c${++count} ${a} ${b} ${farads}`);
  const find = <W extends Trouble['what']>(what: W) =>
    troubles.find((t) => t.what === what) as (Trouble & { what: W }) | undefined;
  const jointAt = (box: number, wire: Wire, where: 'in' | 'start' | 'middle' | 'device'): number =>
    troubles.reduce(
      (ohms, t) =>
        t.what === 'joint' && t.box === box && t.wire === wire && t.where === where ? t.ohms : ohms,
      where === 'middle' ? 0 : GOOD,
    );
  // Transformer, service, panel.
  lines.push(`va ua uc ac ${own.legs[0] * state.drift}`, `vb uc ub ac ${own.legs[1] * state.drift}`);
  r('uc', '0', 3);
  r('ua', 'pa0', 0.03);
  r('pa0', 'pa', find('lost-leg') ? APART : GOOD);
  r('ub', 'pb', 0.03);
  r('uc', 'pn', 0.02 + (find('service-neutral')?.ohms ?? 0));
  r('pn', 'pg', GOOD);
  r('pg', '0', own.earth);
  const [a, b] = state.others;
  if (a > 0) r('pa', 'pn', 120 / a);
  if (b > 0) r('pb', 'pn', 120 / b);
  // What is across both legs keeps a lost one half alive.
  r('pa', 'pb', 400);
  r('pa', 'bh', state.breaker ? BREAKER + (find('breaker')?.ohms ?? 0) : APART);
  r('pn', 'bn', find('lifted-neutral') ? APART : GOOD);
  r('pg', 'bg', GOOD);
  for (const wire of ['h', 'n', 'g'] as const) r(`b${wire}`, '0', 1e11);
  stops.forEach(({ box, segment, stop }, i) => {
    const device = box.device.kind === 'gfci';
    // Two cables fit on a device’s screws; a third is spliced with tails.
    const through = isThrough(truth, i);
    const from = feeders[i]!;
    const fed = stops[from];
    const perInch = OHMS_PER_INCH[stop.gauge ?? circuit.gauge] ?? OHMS_PER_INCH['12']!;
    const ohms = Math.max(1e-4, perInch * segment.length * own.stretch[i]!);
    const odd = troubles.find((t): t is Trouble & { what: 'odd' } => t.what === 'odd' && t.box === i);
    const oddly = odd && ({ hot: 'h', neutral: 'n', ground: 'g' } as const)[odd.how];
    const swapped = troubles.find(
      (t): t is Trouble & { what: 'swapped' } => t.what === 'swapped' && t.box === i,
    );
    const landed = (wire: Wire): Wire =>
      swapped?.wires.includes(wire) ? swapped.wires.find((w) => w !== wire)! : wire;
    const falsely = troubles.some((t) => t.what === 'false-ground' && t.box === i);
    const opened = state.open.has(i) || troubles.some((t) => t.what === 'tripped' && t.box === i);
    for (const wire of ['h', 'n', 'g'] as const) {
      const start =
        from === state.parted
          ? `p${wire}${i}`
          : from < 0
            ? `b${wire}`
            : wire !== 'g' && fed!.box.device.kind === 'gfci'
              ? `l${wire}${from}`
              : isThrough(truth, from) && wire !== 'g'
                ? `d${wire}${from}`
                : `s${wire}${from}`;
      if (from === state.parted) r(start, '0', 1e11);
      r(start, `a${wire}${i}`, jointAt(i, wire, 'start'));
      r(`a${wire}${i}`, `m${wire}${i}`, ohms / 2 + jointAt(i, wire, 'middle'));
      const middle = oddly === wire ? `o${i}` : `e${wire}${i}`;
      r(`m${wire}${i}`, middle, ohms / 2);
      const splice = through && wire !== 'g' ? `d${landed(wire)}${i}` : `s${wire}${i}`;
      r(`e${wire}${i}`, splice, jointAt(i, wire, 'in'));
      if (!through || wire === 'g')
        r(splice, `d${landed(wire)}${i}`, wire === 'g' && falsely ? APART : jointAt(i, wire, 'device'));
      r(`d${wire}${i}`, '0', 1e11);
      r(`e${wire}${i}`, '0', 1e11);
      r(`a${wire}${i}`, '0', 1e11);
    }
    if (odd)
      lines.push(
        `v${++count} e${oddly}${i} o${i} ac ${state.drift === 0 ? 0 : 45} ${odd.how === 'hot' ? 0 : 90}`,
      );
    if (falsely) r(`dn${i}`, `dg${i}`, GOOD);
    if (device)
      for (const wire of ['h', 'n'] as const) {
        r(`d${wire}${i}`, `l${wire}${i}`, opened ? APART : 0.004);
        r(`l${wire}${i}`, '0', 1e11);
      }
    for (const [x, y] of [
      ['h', 'n'],
      ['h', 'g'],
      ['n', 'g'],
    ] as const)
      for (const end of ['a', 'e']) {
        const pf = 1.1e-12 * segment.length * own.stray * (x === 'h' && y === 'n' ? 0.5 : 1);
        c(`${end}${x}${i}`, `${end}${y}${i}`, pf);
      }
    const slot = slotsOf(ground.run, i);
    if (state.amps[i]! > 0) r(slot.h, slot.n, 120 / state.amps[i]!);
    for (const t of troubles)
      if (t.what === 'touch' && t.box === i) {
        const [x, y] = t.wires;
        r(
          t.where === 'cable' ? `m${x}${i}` : `s${x}${i}`,
          t.where === 'cable' ? `m${y}${i}` : `s${y}${i}`,
          t.ohms,
        );
        if (t.where === 'box')
          for (const w of t.wires) if (through && w !== 'g') r(`s${w}${i}`, `d${w}${i}`, GOOD);
      }
    if (through) for (const w of ['h', 'n'] as const) r(`s${w}${i}`, '0', 1e11);
  });
  lines.push(...state.added);
  return lines.join('\n');
}

/** Where a plug finds hot, neutral and ground. */
function slotsOf(run: Run, i: number): Record<Wire, string> {
  const gfci = run.stops[i]!.box.device.kind === 'gfci';
  return { h: `${gfci ? 'l' : 'd'}h${i}`, n: `${gfci ? 'l' : 'd'}n${i}`, g: `dg${i}` };
}

interface Complex {
  re: number;
  im: number;
}
/** Where netlists are written, made when the first one is. */
let folder: string | null = null;
function folderOfRuns(): string {
  if (folder === null) {
    const made = mkdtempSync(join(tmpdir(), 'hekto-house-'));
    process.on('exit', () => rmSync(made, { recursive: true, force: true }));
    folder = made;
  }
  return folder;
}

/** Volts of nodes in one process, once for each list of what is altered before it. */
function solveEach(
  truth: Truth,
  state: State,
  nodes: readonly string[],
  alters: readonly (readonly string[])[],
  hertz = 60,
): Map<string, Complex>[] {
  const path = folderOfRuns();
  const list = nodes.filter((n) => n !== '0');
  const outs = alters.map((_, k) => join(path, `out${k}`));
  writeFileSync(
    join(path, 'house.cir'),
    [
      netlist(truth, state),
      `.ac lin 1 ${hertz} ${hertz}`,
      '.control',
      'set numdgt=10',
      'set wr_singlescale',
      ...alters.flatMap((altered, k) => [
        ...altered.map((a) => `alter ${a}`),
        'run',
        `wrdata ${outs[k]!} ${list.map((n) => `v(${n})`).join(' ')}`,
      ]),
      'quit',
      '.endc',
      '.end',
      '',
    ].join('\n'),
  );
  execFileSync('ngspice', ['-b', join(path, 'house.cir')], { stdio: 'ignore' });
  return outs.map((out) => {
    const values = readFileSync(out, 'utf8').trim().split(/\s+/).map(Number).slice(1);
    const volts = new Map(list.map((n, k) => [n, { re: values[2 * k]!, im: values[2 * k + 1]! }]));
    return volts.set('0', { re: 0, im: 0 });
  });
}

/** Volts of nodes in one state. */
const solve = (truth: Truth, state: State, nodes: readonly string[], hertz = 60): Map<string, Complex> =>
  solveEach(truth, state, nodes, [[]], hertz)[0]!;

/** Volts across each of some resistors while it alone is there; what is altered for one stays so for those after it. */
function acrossEach(
  truth: Truth,
  state: State,
  across: readonly { a: string; b: string; ohms: number; alter?: string }[],
): number[] {
  const added = [...state.added, ...across.map(({ a, b }, k) => `rx${k} ${a} ${b} ${ABSENT}`)];
  const nodes = [...new Set(across.flatMap(({ a, b }) => [a, b]))];
  const alters = across.map(({ ohms, alter }, k) => [
    ...(alter === undefined ? [] : [alter]),
    ...(k > 0 ? [`rx${k - 1} = ${ABSENT}`] : []),
    `rx${k} = ${ohms}`,
  ]);
  return solveEach(truth, { ...state, added }, nodes, alters).map((volts, k) =>
    apart(volts, across[k]!.a, across[k]!.b),
  );
}

const apart = (volts: ReadonlyMap<string, Complex>, a: string, b: string): number => {
  const [x, y] = [volts.get(a)!, volts.get(b)!];
  return Math.hypot(x.re - y.re, x.im - y.im);
};

/** What opens in a state: the breaker at once or later, devices by what they miss. */
function opened(
  truth: Truth,
  state: State,
): { breaker: 'holds' | 'trips at once' | 'trips later'; open: Set<number> } {
  const { run } = truth.ground;
  const { rating } = run.circuit.breaker;
  const open = new Set(state.open);
  const gfcis = run.stops.flatMap((s, i) => (s.box.device.kind === 'gfci' ? [i] : []));
  const nodes = ['pa', 'bh', ...gfcis.flatMap((i) => [`dh${i}`, `lh${i}`, `dn${i}`, `ln${i}`])];
  for (let round = 0; round < 3; round++) {
    const volts = solve(truth, { ...state, open }, nodes);
    const missing = gfcis.filter((i) => {
      if (open.has(i)) return false;
      const sum = ['h', 'n'].reduce(
        (s, w) => {
          const [a, b] = [volts.get(`d${w}${i}`)!, volts.get(`l${w}${i}`)!];
          return { re: s.re + (a.re - b.re) / 0.004, im: s.im + (a.im - b.im) / 0.004 };
        },
        { re: 0, im: 0 },
      );
      return Math.hypot(sum.re, sum.im) > 0.006 && apart(volts, `dh${i}`, `dn${i}`) > 60;
    });
    if (missing.length === 0) {
      const amps = throughBreaker(truth, volts);
      const breaker = amps > 5 * rating ? 'trips at once' : amps > 1.2 * rating ? 'trips later' : 'holds';
      return { breaker, open };
    }
    open.add(missing.at(-1)!);
  }
  return { breaker: 'holds', open };
}

/** Amperes through the breaker; none through one that does not pass. */
const throughBreaker = ({ troubles }: Truth, volts: ReadonlyMap<string, Complex>): number =>
  troubles.some((t) => t.what === 'breaker') ? 0 : apart(volts, 'pa', 'bh') / BREAKER;

/** A state after what opens by itself has opened. */
function rested(truth: Truth, state: State): State {
  const { breaker, open } = opened(truth, state);
  // What lets go after minutes is read before.
  return { ...state, open, breaker: breaker !== 'trips at once' && state.breaker };
}

/** A meter’s figure: its class, its last digit. */
const shown = ({ random }: Truth, volts: number): number =>
  Math.round(10 * Math.max(0, volts * (1 + 0.006 * (random() - 0.5)) + 0.25 * (random() - 0.5))) / 10;

function readSlots(truth: Truth, box: number, amps: number, meterOhms: number): Finding {
  const slot = slotsOf(truth.ground.run, box);
  const moment = rested(truth, momentOf(truth));
  const pair = { a: slot.h, b: slot.n, ohms: meterOhms };
  const load = amps > 0 ? `rload = ${120 / amps}` : `rload = ${ABSENT}`;
  const [free, hotNeutral, hotGround, neutralGround] = acrossEach(
    truth,
    { ...moment, added: [`rload ${slot.h} ${slot.n} ${ABSENT}`] },
    [
      pair,
      { ...pair, alter: load },
      { a: slot.h, b: slot.g, ohms: meterOhms },
      { a: slot.n, b: slot.g, ohms: meterOhms },
    ],
  ).map((volts) => shown(truth, volts)) as [number, number, number, number];
  return {
    kind: 'volts',
    stop: box,
    volts: {
      hotNeutral,
      hotGround,
      neutralGround,
      hotHot: null,
    },
    reference: null,
    amps,
    free: amps > 0 ? free : null,
    meterOhms,
  };
}

/** Causes that a good look and tug finds in a box, or at the panel for −1. */
function foundIn({ troubles, feeders }: Truth, box: number): CauseKind[] {
  return troubles.flatMap((t): CauseKind[] => {
    switch (t.what) {
      case 'joint': {
        if (t.where === 'middle') return [];
        const at = t.where === 'start' ? feeders[t.box]! : t.box;
        return at === box ? [`${t.ohms >= APART ? 'open' : 'poor'}-${NAMES[t.wire]}`] : [];
      }
      case 'touch':
        return t.where === 'box' && t.box === box
          ? [t.wires.includes('g') ? (t.wires.includes('h') ? 'ground-fault' : 'neutral-ground') : 'short']
          : [];
      case 'swapped':
        return t.box === box
          ? ['reversed', ...(isDeadlyPair(troubles, box) ? (['false-ground-reversed'] as const) : [])]
          : [];
      case 'false-ground':
        return t.box === box ? ['false-ground'] : [];
      case 'breaker':
        return box < 0 ? ['dead-breaker'] : [];
      case 'lifted-neutral':
        return box < 0 ? ['lifted-neutral'] : [];
      default:
        return [];
    }
  });
}

/** Reversed and falsely grounded at one box is one matter to whoever mends it. */
const isDeadlyPair = (troubles: readonly Trouble[], box: number): boolean =>
  (['swapped', 'false-ground'] as const).every((what) =>
    troubles.some((t) => t.what === what && t.box === box),
  );

/** Keys of the repairs that the troubles ask for, as the hunt names places and kinds. */
export function repairsOf({ troubles, feeders }: Truth): string[] {
  return troubles.flatMap((t): string[] => {
    const both = 'box' in t && isDeadlyPair(troubles, t.box);
    switch (t.what) {
      case 'joint': {
        const kind = `${t.ohms >= APART ? 'open' : 'poor'}-${NAMES[t.wire]}`;
        if (t.where === 'middle') return [`cable ${t.box} ${kind}`];
        const at = t.where === 'start' ? feeders[t.box]! : t.box;
        return [at < 0 ? `panel ${kind}` : `box ${at} ${kind}`];
      }
      case 'touch': {
        const kind = t.wires.includes('g') ? 'ground-fault' : 'short';
        return [`${t.where} ${t.box} ${kind}`];
      }
      case 'swapped':
        return [`box ${t.box} ${both ? 'false-ground-reversed' : 'reversed'}`];
      case 'false-ground':
        return both ? [] : [`box ${t.box} false-ground`];
      case 'tripped':
        return [`box ${t.box} tripped`];
      case 'breaker':
        return ['panel dead-breaker'];
      case 'service-neutral':
        return ['service service-neutral'];
      case 'lost-leg':
        return ['service lost-leg'];
      case 'lifted-neutral':
        return ['panel lifted-neutral'];
      case 'overload':
        return ['plugged overload'];
      case 'appliance':
        return ['plugged appliance'];
      default:
        return [];
    }
  });
}

/** What the customer says, or the round with a tester found. */
export function complaintOf(truth: Truth): Finding[] {
  const { troubles, ground, random } = truth;
  const moment = momentOf(truth);
  const { breaker, open } = opened(truth, moment);
  if (breaker !== 'holds')
    return [
      {
        kind: 'breaker',
        does: breaker,
        unplugged: false,
        minutes: breaker === 'trips later' ? 10 : null,
        amps: null,
      },
    ];
  const [device] = [...open];
  if (device !== undefined) return [{ kind: 'device', stop: device, does: 'resets and trips' }];
  if (troubles.some((t) => t.what === 'service-neutral') && random() < 0.7)
    return [{ kind: 'elsewhere', does: 'some dim, some bright' }];
  if (troubles.some((t) => t.what === 'appliance')) {
    const stop = Math.floor(random() * ground.run.stops.length);
    return [{ kind: 'works', stop, does: 'dead' }];
  }
  const state = rested(truth, moment);
  const loaded = acrossEach(
    truth,
    state,
    ground.run.stops.map((_, i) => ({ a: slotsOf(ground.run, i).h, b: slotsOf(ground.run, i).n, ohms: 12 })),
  );
  const dead = loaded.flatMap((v, i) => (v < 40 ? [i] : []));
  if (dead.length > 0) return [{ kind: 'works', stop: pick(random, dead), does: 'dead' }];
  const dim = loaded.flatMap((v, i) => (v < 98 ? [i] : []));
  if (dim.length > 0)
    return [{ kind: 'works', stop: pick(random, dim), does: random() < 0.5 ? 'dim' : 'comes and goes' }];
  // Nothing that a customer notices: a round with a meter and a load found it.
  const where =
    troubles.find((t): t is Trouble & { box: number } => 'box' in t)?.box ??
    Math.floor(random() * loaded.length);
  return [readSlots(truth, where, 10, 3000)];
}

/** Ohms between two nodes of the dead circuit, all unplugged. @param parted a box whose cables that go on hang loose */
function deadOhms(truth: Truth, a: string, b: string, parted?: number): number {
  const idle = { ...momentOf(truth, true), breaker: false, others: [0, 0] as const, drift: 0 };
  const volts = solve(
    { ...truth, house: { ...truth.house, legs: [0, 0] } },
    {
      ...idle,
      added: [`imeter 0 ${a} ac 1`, `imeter2 ${b} 0 ac 1`],
      ...(parted === undefined ? {} : { parted }),
    },
    [a, b],
    0.001,
  );
  return apart(volts, a, b);
}

/** Ohms between conductors that touch, at most; and what a load leaves of the volts where nothing is amiss before it, at least. */
const TOUCHING = 50;
const HOLDS = 0.9;

/**
 * A box with what goes on from it parted: ohms into each cable of it and into the one that comes; where nothing touches, the
 * power on again and the box itself read under a load.
 */
function partedAt(truth: Truth, stop: number): Finding {
  const { feeders, ground } = truth;
  const touches = (at: (wire: Wire) => string) =>
    (['n', 'g'] as const).some((wire) => deadOhms(truth, at('h'), at(wire), stop) < TOUCHING);
  // By the drawing: a cable that is not in it has no name.
  const beyond = (ways: readonly number[]): Finding => {
    const [way] = ways;
    const named = ways.length === 1 && ground.run.stops[way!]!.feeder === stop;
    return { kind: 'parted', stop, amiss: 'beyond', toward: named ? way! : null };
  };
  const before: Finding = { kind: 'parted', stop, amiss: 'before', toward: null };
  const ways = feeders.flatMap((f, i) => (f === stop ? [i] : []));
  const shorted = ways.filter((i) => touches((wire) => `p${wire}${i}`));
  if (shorted.length > 0) return beyond(shorted.slice(0, 1));
  if (touches((wire) => `e${wire}${stop}`)) return before;
  const slot = slotsOf(ground.run, stop);
  const state = { ...rested(truth, momentOf(truth)), parted: stop, added: [`rload ${slot.h} ${slot.n} 12`] };
  const volts = solve(truth, state, [slot.h, slot.n, slot.g]);
  const { drift } = state;
  const fed = (to: string) => apart(volts, slot.h, to) > HOLDS * truth.house.legs[0] * drift;
  return fed(slot.n) && fed(slot.g) ? beyond(ways) : before;
}

/** Does a measure in the house, as it would be done. */
export function perform(truth: Truth, measure: Measure): Finding {
  const { troubles, ground, random } = truth;
  const { run } = ground;
  switch (measure.kind) {
    case 'volts':
      return readSlots(truth, measure.stop, measure.amps, 3000);
    case 'reference': {
      const finding = readSlots(truth, measure.stop, 0, 3000) as Finding & { kind: 'volts' };
      const slot = slotsOf(run, measure.stop);
      const state = { ...rested(truth, momentOf(truth)), added: [`rmeter ${slot.g} pg 3000`] };
      return {
        ...finding,
        reference: shown(truth, apart(solve(truth, state, [slot.g, 'pg']), slot.g, 'pg')),
      };
    }
    case 'works': {
      const slot = slotsOf(run, measure.stop);
      const state = { ...rested(truth, momentOf(truth)), added: [`rload ${slot.h} ${slot.n} 12`] };
      const volts = apart(solve(truth, state, [slot.h, slot.n]), slot.h, slot.n);
      return {
        kind: 'works',
        stop: measure.stop,
        does: volts > 133 ? 'bright' : volts > 97 ? 'works' : volts < 40 ? 'dead' : 'dim',
      };
    }
    case 'state': {
      const { breaker, open } = opened(truth, momentOf(truth));
      const { stop } = measure;
      const off =
        stop < 0
          ? breaker !== 'holds'
          : open.has(stop) || troubles.some((t) => t.what === 'tripped' && t.box === stop);
      return { kind: 'state', stop, on: !off };
    }
    case 'breaker':
      return {
        kind: 'breaker',
        does: opened(truth, momentOf(truth, true)).breaker,
        unplugged: true,
        minutes: null,
        amps: null,
      };
    case 'device': {
      const { stop } = measure;
      // Pressed: what had tripped for no standing reason is closed now.
      const reset: Truth = {
        ...truth,
        troubles: troubles.filter((t) => !(t.what === 'tripped' && t.box === stop)),
      };
      const { open, breaker } = opened(reset, momentOf(truth, true));
      const state = { ...momentOf(truth, true), breaker: breaker === 'holds' };
      const fed = apart(
        solve(reset, { ...state, open: new Set([...open].filter((i) => i !== stop)) }, [
          `dh${stop}`,
          `dn${stop}`,
        ]),
        `dh${stop}`,
        `dn${stop}`,
      );
      return {
        kind: 'device',
        stop,
        does: fed < 60 ? 'does not reset' : open.has(stop) ? 'resets and trips' : 'resets',
      };
    }
    case 'ohms': {
      const slot = slotsOf(run, measure.stop);
      const [a, b] = {
        hotNeutral: [slot.h, slot.n],
        hotGround: [slot.h, slot.g],
        neutralGround: [slot.n, slot.g],
      }[measure.pair] as [string, string];
      const ohms = deadOhms(truth, a, b);
      return {
        kind: 'ohms',
        stop: measure.stop,
        pair: measure.pair,
        ohms: ohms > 4e7 ? Infinity : Math.round(100 * (ohms + 0.2 * random())) / 100,
      };
    }
    case 'open':
      return { kind: 'opened', stop: measure.stop, found: foundIn(truth, measure.stop) };
    case 'part':
      return partedAt(truth, measure.stop);
    case 'legs': {
      const moment = momentOf(truth);
      const load = [`rload pa pn ${ABSENT}`];
      const [free, busy] = solveEach(
        truth,
        { ...moment, added: load },
        ['pa', 'pb', 'pn'],
        [[], ['rload = 12']],
      ).map((volts) => (['pa', 'pb'] as const).map((leg) => shown(truth, apart(volts, leg, 'pn')))) as [
        number[],
        [number, number],
      ];
      return { kind: 'legs', a: free[0]!, b: free[1]!, loaded: busy };
    }
    case 'appliance':
      return { kind: 'appliance', fails: troubles.some((t) => t.what === 'appliance') };
    case 'elsewhere': {
      if (troubles.some((t) => t.what === 'lost-leg')) return { kind: 'elsewhere', does: 'some dead' };
      const open = troubles.find((t) => t.what === 'service-neutral');
      return { kind: 'elsewhere', does: open && random() < 0.85 ? 'some dim, some bright' : 'fine' };
    }
    case 'amps': {
      // Until it lets go after minutes.
      const volts = solve(truth, rested(truth, momentOf(truth)), ['pa', 'bh']);
      return { kind: 'amps', amps: Math.round(10 * throughBreaker(truth, volts)) / 10 };
    }
  }
}

/** Of what touches, whichever two are named: the same hands part it at the same place. */
const byRepair = (key: string): string => key.replace(/ (?:short|ground-fault)$/, ' touch');

/** The house after something was mended. */
const mend = (truth: Truth, key: string): Truth => ({
  ...truth,
  troubles: truth.troubles.filter((t) => {
    if (key.endsWith('false-ground-reversed') && (t.what === 'swapped' || t.what === 'false-ground'))
      return false;
    return !repairsOf({ ...truth, troubles: [t] })
      .map(byRepair)
      .includes(byRepair(key));
  }),
});

/** How a hunt went. */
export interface Played {
  /** Keys that were mended, in order; right where all troubles are. */
  mended: string[];
  right: boolean;
  none: boolean;
  steps: { said: string; cost: number }[];
  minutes: number;
  boxes: number;
  bits: number;
}

export interface PlayOptions {
  priors?: Priors;
  situation?: Situation;
  most?: number;
  /** What is said first; else what such a house would show. */
  complaint?: readonly Finding[];
  trace?: (line: string) => void;
}

/** Volts at the slots on a meter of low impedance, with so many amperes put on. */
export const voltsFound = (stop: number, hn: number, hg: number, ng: number, amps = 0): Finding => ({
  kind: 'volts',
  stop,
  volts: { hotNeutral: hn, hotGround: hg, neutralGround: ng, hotHot: null },
  reference: null,
  amps,
  free: null,
  meterOhms: 3000,
});

/** Follows the advice from the complaint to the end. */
export function play(
  start: Truth,
  {
    priors,
    situation = USUAL_SITUATION,
    most = 30 * Math.max(1, start.troubles.length),
    trace = () => {},
    complaint,
  }: PlayOptions = {},
): Played {
  let truth = start;
  const hunt = new Hunt(start.ground, priors);
  const evidence: Evidence[] = [];
  const mended: string[] = [];
  const steps: Played['steps'] = [];
  let declined = new Set<string>();
  const note = (finding: Finding) =>
    evidence.push({ id: `e${evidence.length}`, after: mended.length, finding });
  for (const finding of complaint ?? complaintOf(truth)) {
    note(finding);
    trace(`  complaint ${JSON.stringify(finding)}`);
  }
  let bits = -1;
  for (let k = 0; k < most; k++) {
    const diagnosis = hunt.diagnose(evidence, mended);
    if (bits < 0) bits = diagnosis.entropy;
    const next = nextOf(hunt, diagnosis, evidence, mended, { ...situation, declined });
    trace(
      `    ${diagnosis.suspects
        .slice(0, 4)
        .map((s) => `${s.key}${s.differs ? '*' : ''} ${s.share.toFixed(2)}`)
        .join(' | ')} none ${diagnosis.none.toFixed(2)} ${diagnosis.contradictions.map((c) => c.id).join()}`,
    );
    if (next.do === 'done' || next.do === 'stop') {
      const none = next.do === 'stop' && next.why === 'none fits';
      return summary(none);
    }
    if (next.do === 'repair') {
      const [at, where] = next.key.split(' ');
      const right = repairsOf(truth).map(byRepair).includes(byRepair(next.key));
      trace(`  repair ${next.key} ${right}`);
      steps.push({ said: `repair ${next.key}`, cost: 0 });
      // A hand that opens a box to mend it sees whether it is there.
      if (!right && (at === 'box' || at === 'panel')) {
        const stop = at === 'panel' ? -1 : Number(where);
        note(perform(truth, { kind: isTurnedOff(next.key) ? 'state' : 'open', stop }));
        continue;
      }
      mended.push(next.key);
      if (!right && at !== 'cable') return summary(false);
      truth = mend(truth, next.key);
      if (truth.troubles.length === 0 && mended.length >= start.troubles.length) return summary(false);
      declined = new Set();
      continue;
    }
    const { measure, cost } = next.advice;
    const finding = perform(truth, measure);
    trace(`  ${measureKey(measure)} -> ${JSON.stringify(finding)}`);
    steps.push({ said: measureKey(measure), cost });
    note(finding);
  }
  return summary(false);

  function summary(none: boolean): Played {
    const wanted = new Set(repairsOf(start).map(byRepair));
    const done = new Set(mended.map(byRepair));
    return {
      mended,
      right: [...wanted].every((w) => done.has(w)) && [...done].every((m) => wanted.has(m)),
      none,
      steps,
      minutes: steps.reduce((s, x) => s + x.cost, 0),
      boxes: new Set(steps.flatMap((x) => /^(?:open|part) (-?\d+)/.exec(x.said)?.[1] ?? [])).size,
      bits,
    };
  }
}
