/** Kinds of fault that cross boxes and circuits: each is put in, has a name of the trade, and shows what it does. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { plannedBoxes } from '#core/boxes/planned.ts';
import { buildRun, type Run } from '#core/circuits/run.ts';
import { breakerOf } from '#core/job/document.ts';
import type { Circuit, Device } from '#core/job/schema.ts';
import { chain, house, outlet, receptacle, room } from '#core/job/testing.ts';
import { faultName } from '#core/network/faultWords.ts';
import { useFor, withFaults, type Fault } from '#core/network/faults.ts';
import { EARTH, MAINS_HERTZ } from '#core/network/network.ts';
import type { Use } from '#core/network/places.ts';
import type { House, Taken } from '#core/network/supply.ts';
import { houseWiring, type Wiring } from '#core/network/wiring.ts';
import { settle, type Settled } from './settle.ts';

/** Three boxes of 50 ft of 12 AWG each. */
function runWith(devices: Record<number, Partial<Device>> = {}, circuit: Partial<Circuit> = {}): Run {
  const boxes = [0, 1, 2].map((k) => outlet(`R${k + 1}`, k, 20, { device: receptacle(devices[k] ?? {}) }));
  const plain = chain(boxes, circuit);
  const stops = plain.stops.map((s, k) => ({ ...s, measured: 600, from: k === 0 ? null : boxes[k - 1]!.id }));
  const made = { ...plain, stops };
  return buildRun(house({ area: room([400, 300, 400, 300]), boxes, circuits: [made] }), made);
}
const NOTHING: Taken = { A: 0, B: 0, across: 0 };
const houseWith = (others: Partial<Taken>, shed: Partial<Taken> = {}): House => ({
  service: { A: 0.01, B: 0.01, neutral: 0.01, earth: 5 },
  panels: [
    {
      name: 'Panel',
      from: null,
      feeder: null,
      bonded: true,
      electrode: 25,
      others: { ...NOTHING, ...others },
    },
    {
      name: 'Shed',
      from: 'Panel',
      feeder: { leg: 0.1, neutral: 0.1, ground: 0.1 },
      bonded: false,
      electrode: null,
      others: { ...NOTHING, ...shed },
    },
  ],
});

interface Case {
  what: string;
  faults: Fault[];
  named: RegExp;
  run?: Run;
  other?: Run;
  /** Amperes by box of the circuit, and of the other one from 3 on. */
  on?: Record<number, number>;
  taken?: Partial<Taken>;
  shed?: Partial<Taken>;
  inShed?: boolean;
  otherLeg?: 'A';
  /** Its own breaker is off. */
  dead?: boolean;
  check(at: At): void;
}
interface At {
  settled: Settled;
  volts(stop: number, pair?: 'hot-neutral' | 'hot-ground' | 'neutral-ground' | 'ground-earth'): number;
  opened: [number | null, string][];
}
const near = (found: number, expected: number, within = 1.5) =>
  assert.ok(Math.abs(found - expected) <= within, `${found}, expected ${expected}`);
const GFCI = { 0: { kind: 'gfci' as const } };
const SHARED = { breaker: breakerOf(20, 'none', 2) };
/** The second box on the red. */
const shared = (circuit: Partial<Circuit> = SHARED): Run => {
  const run = runWith({}, circuit);
  return {
    ...run,
    stops: run.stops.map((s, k) => (k === 1 ? { ...s, stop: { ...s.stop, hot: 'red' } } : s)),
  };
};
const halfHot = runWith({ 1: { switched: 'half', tabs: 'hot-broken' } });

const CASES: Case[] = [
  {
    what: 'open service neutral',
    faults: [{ kind: 'service-neutral', ohms: null }],
    named: /^Service neutral lost$/,
    taken: { A: 10, B: 5 },
    // 12 and 24 Ω, 30 Ω of earth: N at 31.6 V.
    check: ({ volts }) => near(volts(0), 120 - 31.6),
  },
  {
    what: 'open feeder neutral',
    faults: [{ kind: 'feeder-neutral', panel: 'Shed', ohms: null }],
    named: /^Feeder neutral to Shed lost$/,
    shed: { A: 10, B: 5 },
    inShed: true,
    // 240 V across 12 and 24 Ω.
    check({ volts }) {
      near(volts(0), 80);
      near(volts(0, 'neutral-ground'), 40);
    },
  },
  {
    what: 'missing bond',
    faults: [{ kind: 'no-bond' }],
    named: /^Main bonding jumper missing/,
    check: ({ volts, opened }) => {
      near(volts(0), 120);
      assert.deepEqual(opened, []);
    },
  },
  {
    what: 'doubled bond',
    faults: [{ kind: 'second-bond', panel: 'Shed' }],
    named: /^Neutral and ground joined a second time, at Shed$/,
    inShed: true,
    on: { 0: 12 },
    // Half of 11.6 A goes home by the ground of the feeder.
    check: ({ volts }) => near(volts(0, 'ground-earth'), 0.6, 0.2),
  },
  {
    what: 'missing main bond with a hot on a frame',
    faults: [{ kind: 'no-bond' }, { kind: 'short', stop: 2, conductors: ['black', 'ground'], ohms: 0.01 }],
    named: /^Main bonding jumper missing.* Hot and ground touch in R3$/,
    // 120 V by 30 Ω of earth is 4 A: no breaker sees it, and every ground stands at 100 V.
    check({ volts, opened }) {
      near(volts(0, 'ground-earth'), 100, 2);
      assert.deepEqual(opened, []);
    },
  },
  {
    what: 'shared neutral open with a load on the other hot',
    faults: [{ kind: 'open', stop: 0, conductor: 'neutral', part: 'start' }],
    named: /^Open neutral at where the cable to R1 starts$/,
    run: shared(),
    on: { 0: 10, 1: 5 },
    // 240 V across 12 and 24 Ω.
    check: ({ volts }) => near(volts(0), 80, 2),
  },
  {
    what: 'lifted neutral with a load on it',
    faults: [{ kind: 'lifted-neutral' }],
    named: /^Neutral of Kitchen off its bar$/,
    on: { 2: 10 },
    check({ volts }) {
      near(volts(0), 0);
      near(volts(0, 'neutral-ground'), 120);
    },
  },
  {
    what: 'borrowed neutral, carried by the other circuit',
    faults: [
      { kind: 'borrowed-neutral', stop: 1, other: 4 },
      { kind: 'lifted-neutral', circuit: 1 },
    ],
    named: /^Borrowed neutral: R2 returns by the neutral of P2/,
    on: { 1: 10 },
    // Its own circuit off or on, the other one’s neutral has 120 V on it once it is off the bar.
    check: ({ volts }) => near(volts(3, 'neutral-ground'), 120),
  },
  {
    what: 'back-feed through a 240 V appliance',
    faults: [{ kind: 'service-leg', leg: 'own' }],
    named: /^Service leg of this circuit lost$/,
    taken: { A: 5, across: 20 },
    // 12 Ω across from the other leg into 24 Ω.
    check: ({ volts }) => near(volts(0), 80),
  },
  {
    what: 'single-pole GFCI on a shared neutral',
    faults: [{ kind: 'single-pole-sensor' }],
    named: /^Single-pole GFCI or AFCI breaker on Kitchen, whose neutral is shared$/,
    run: shared({ breaker: breakerOf(20, 'gfci', 2) }),
    on: { 1: 3 },
    check: ({ opened }) => assert.deepEqual(opened, [[-1, 'difference']]),
  },
  {
    what: 'crossed neutral and ground in a cable',
    faults: [{ kind: 'crossed', stop: 1, conductors: ['neutral', 'ground'] }],
    named: /^Neutral and ground crossed in the cable to R2$/,
    run: runWith(GFCI),
    on: { 2: 5 },
    // What R3 draws goes home by the ground.
    check: ({ opened }) =>
      assert.ok(opened.some(([stop, why]) => stop === 0 && /difference|grounded/.test(why))),
  },
  {
    what: 'one outgoing wire on LINE and one on LOAD',
    faults: [
      {
        kind: 'landing',
        stop: 0,
        end: plannedBoxes(runWith(GFCI))[0]!.places.find((p) => p.at === 'device.load-hot')!.end,
        place: 'device.line-hot',
      },
    ],
    named: /landed on device\.line-hot in R1$/,
    run: runWith(GFCI),
    on: { 2: 5 },
    check: ({ opened }) => assert.deepEqual(opened, [[0, 'difference']]),
  },
  {
    what: 'hidden junction with a poor joint',
    faults: [{ kind: 'hidden-junction', stop: 1, conductor: 'neutral', ohms: 2 }],
    named: /^Hidden junction before R2: the neutral is a poor joint, 2 Ω$/,
    on: { 2: 10 },
    // 12 + 0.64 + 2 Ω: 8.2 A, and 16.4 V in the joint beside 2.5 V of the cable.
    check: ({ volts }) => near(volts(2, 'neutral-ground'), 8.2 * 2.3, 1),
  },
  {
    what: 'cable damage: hot and ground touch',
    faults: [{ kind: 'cable-leak', stop: 1, conductors: ['black', 'ground'], ohms: 0.02 }],
    named: /^Cable damage before R2: hot and ground touch$/,
    check: ({ opened, volts }) => {
      assert.deepEqual(
        opened.map(([stop]) => stop),
        [-1],
      );
      near(volts(0), 0);
    },
  },
  {
    what: 'tab left on a half that should be switched',
    faults: [{ kind: 'tab-left', stop: 1, side: 'hot' }],
    named: /^Hot tab left on at R2$/,
    run: halfHot,
    check({ settled }) {
      const { wiring, voltages } = settled;
      const [top, bottom] = wiring.terminals[1]!.faces;
      near(voltages.between(top!.hot!, top!.neutral!), 120);
      near(voltages.between(bottom!.hot!, bottom!.neutral!), 120);
    },
  },
  {
    what: 'tab broken off that should be kept',
    faults: [{ kind: 'tab-broken', stop: 1, side: 'hot' }],
    named: /^Hot tab broken off at R2$/,
    check({ settled }) {
      const { wiring, voltages } = settled;
      const [top, bottom] = wiring.terminals[1]!.faces;
      const both = [top!, bottom!].map((f) => voltages.between(f.hot!, f.neutral!) > 100);
      assert.deepEqual(both.sort(), [false, true], 'one half is dead');
    },
  },
  {
    what: 'two circuits tied, on one leg',
    faults: [{ kind: 'tied', stop: 1, conductor: 'black', other: 4, otherConductor: 'black', ohms: 0.01 }],
    named: /^Two circuits tied: hot at R2 to hot at P2$/,
    otherLeg: 'A',
    dead: true,
    // With its own breaker off it is live by the other one.
    check: ({ volts }) => near(volts(0), 120),
  },
  {
    what: 'two circuits tied, on both legs',
    faults: [{ kind: 'tied', stop: 1, conductor: 'black', other: 4, otherConductor: 'black', ohms: 0.01 }],
    named: /^Two circuits tied/,
    // 240 V by 8 × 0.1 Ω and what the breakers have: one of the two opens, and the other feeds both.
    check({ opened, volts }) {
      assert.equal(opened.length, 1);
      near(volts(0), 120);
    },
  },
  {
    what: 'wrong leg: both hots of a shared neutral on one leg',
    faults: [{ kind: 'same-leg' }],
    named: /^Both hots of Kitchen on one leg/,
    run: shared(),
    on: { 0: 10, 1: 10 },
    // The neutral carries 19 A by 0.1 Ω, not nothing.
    check: ({ volts }) => near(volts(0, 'neutral-ground'), 1.95, 0.2),
  },
];

for (const {
  what,
  faults,
  named,
  run = runWith(),
  other = runWith(),
  on = {},
  taken,
  shed,
  inShed,
  otherLeg,
  dead = false,
  check,
} of CASES)
  test(`${what}: put in, named, shown`, () => {
    const use = (from: number): Use => ({
      amps: new Map(
        Object.entries(on).flatMap(([stop, amps]) => {
          const at = Number(stop) - from;
          return at >= 0 && at < 3 ? [[at, amps] as const] : [];
        }),
      ),
      open: new Set(),
    });
    const panel = inShed ? 'Shed' : 'Panel';
    const wiring: Wiring = houseWiring(
      houseWith(taken ?? {}, shed),
      [
        { run, boxes: plannedBoxes(run), use: { ...useFor(use(0), faults), dead }, panel, leg: 'A' },
        { run: other, boxes: plannedBoxes(other), use: use(3), panel: 'Panel', leg: otherLeg ?? 'B' },
      ],
      MAINS_HERTZ,
    );
    const names = {
      box: (stop: number) => (stop < 3 ? `R${stop + 1}` : `P${stop - 2}`),
      circuit: (index: number) => ['Kitchen', 'Porch'][index]!,
    };
    assert.match(faults.map((f) => faultName(f, names)).join(' '), named);
    const settled = settle(withFaults(wiring, faults), { seconds: 60, edge: 'slow' });
    check({
      settled,
      opened: settled.openings.map((o) => [o.stop, o.why]),
      volts(stop, pair = 'hot-neutral') {
        const { hot, neutral, ground } = wiring.terminals[stop]!;
        const [a, b] = {
          'hot-neutral': [hot, neutral],
          'hot-ground': [hot, ground],
          'neutral-ground': [neutral, ground],
          'ground-earth': [ground, EARTH],
        }[pair] as [number, number];
        return settled.voltages.between(a, b);
      },
    });
  });
