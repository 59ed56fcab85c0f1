/** The house before a circuit, by hand. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { breakerOf } from '#core/job/document.ts';
import { chain, FEEDER, house, outlet, PANEL, receptacle, room } from '#core/job/testing.ts';
import { View } from '#core/view/view.ts';
import { buildRun } from '#core/circuits/run.ts';
import { plannedBoxes } from '#core/boxes/planned.ts';
import { EARTH, MAINS_HERTZ } from './network.ts';
import { withFaults, type Fault } from './faults.ts';
import { Factors } from './solve.ts';
import { houseOf, studyOf } from './house.ts';
import type { House, HousePanel, Taken } from './supply.ts';
import { houseWiring, PERSON_OHMS, type Use } from './wiring.ts';

const NOTHING: Taken = { A: 0, B: 0, across: 0 };
const SERVICE: HousePanel = {
  name: 'Panel A',
  from: null,
  feeder: null,
  bonded: true,
  electrode: 25,
  others: NOTHING,
};
const HOUSE: House = { service: { A: 0.01, B: 0.01, neutral: 0.01, earth: 5 }, panels: [SERVICE] };
const taking = (others: Partial<Taken>): House => ({
  ...HOUSE,
  panels: [{ ...SERVICE, others: { ...NOTHING, ...others } }],
});

/** One outlet at the end of a foot of cable. */
const box = outlet('R1', 0, 20, { device: receptacle() });
const near = (() => {
  const plain = chain([box]);
  const circuit = { ...plain, stops: plain.stops.map((s) => ({ ...s, measured: 12 })) };
  return buildRun(house({ area: room([400, 300, 400, 300]), boxes: [box], circuits: [circuit] }), circuit);
})();
const readAt = (of: House, faults: readonly Fault[] = [], use: Partial<Use> = {}) => {
  const study = {
    run: near,
    boxes: plannedBoxes(near),
    use: { amps: new Map(), open: new Set<number>(), ...use },
    panel: of.panels.at(-1)!.name,
    leg: 'A' as const,
  };
  const wiring = houseWiring(of, [study], MAINS_HERTZ);
  const faulty = withFaults(wiring, faults);
  const voltages = new Factors(faulty, MAINS_HERTZ).voltages();
  const { hot, neutral, ground } = wiring.terminals[0]!;
  return {
    hotNeutral: voltages.between(hot, neutral),
    hotGround: voltages.between(hot, ground),
    neutralGround: voltages.between(neutral, ground),
    groundEarth: voltages.between(ground, EARTH),
    other: voltages.between(wiring.panel.bus.red, wiring.panel.neutral),
    voltages,
    wiring: faulty,
  };
};
const near1 = (value: number, expected: number, what: string, within = 0.6) =>
  assert.ok(Math.abs(value - expected) < within, `${what}: ${value.toFixed(2)}, expected ${expected}`);

test('a sound house reads as a sound panel does', () => {
  const read = readAt(taking({ A: 10, B: 5, across: 20 }));
  near1(read.hotNeutral, 119.5, 'hot to neutral', 1);
  near1(read.neutralGround, 0, 'neutral to ground');
});

test('a lost service neutral divides 240 V as the loads of the legs have it', () => {
  // 12 Ω on this leg, 24 Ω on the other, 25 + 5 Ω through the earth: (120 − N)/12 + (−120 − N)/24 = N/30, N = 31.6 V.
  const read = readAt(taking({ A: 10, B: 5 }), [{ kind: 'service-neutral', ohms: null }]);
  near1(read.hotNeutral, 120 - 31.58, 'this leg');
  near1(read.other, 120 + 31.58, 'the other leg');
  // The ground stays with the neutral: frames stand at what the electrode carries, 31.58 × 25/30.
  near1(read.neutralGround, 0, 'neutral to ground');
  near1(read.groundEarth, (31.58 * 25) / 30, 'frames to earth');
});

test('a poor service neutral of 1 Ω sags one leg and raises the other', () => {
  // 12 Ω and 24 Ω, 1 Ω in the neutral and 30 Ω of earth beside it: 5 = N (1/12 + 1/24 + 1/1.01 + 1/30), N = 4.35 V.
  const read = readAt(taking({ A: 10, B: 5 }), [{ kind: 'service-neutral', ohms: 1.01 }]);
  near1(120 - read.hotNeutral, 4.35 + 0.3, 'sag', 0.3);
  near1(read.other - 120, 4.35 - 0.15, 'rise', 0.3);
});

test('a lost leg is dead, and fed back through what hangs across both', () => {
  const dead = readAt(HOUSE, [{ kind: 'service-leg', leg: 'own' }]);
  near1(dead.hotNeutral, 0, 'without loads');
  // 12 Ω across from the living leg, 24 Ω here: 120 × 24/36 = 80 V.
  const back = readAt(taking({ A: 5, across: 20 }), [{ kind: 'service-leg', leg: 'own' }]);
  near1(back.hotNeutral, 80, 'through the water heater');
});

test('without a main bond a short to ground opens nothing: frames stand at a share of 120 V', () => {
  const short: Fault = { kind: 'short', stop: 0, conductors: ['black', 'ground'], ohms: 0.001 };
  const sound = readAt(HOUSE, [short]);
  const bondless = readAt(HOUSE, [{ kind: 'no-bond' }, short]);
  // Home through 25 + 5 Ω of earth: 4 A, and 100 V on every frame.
  near1(bondless.groundEarth, 100, 'frames', 1.5);
  assert.ok(sound.groundEarth < 62, 'with the bond the breaker sees more than its magnet needs');
  const touched = bondless.voltages.between(bondless.wiring.terminals[0]!.ground, EARTH) / PERSON_OHMS;
  assert.ok(touched > 0.09);
});

const FED: HousePanel = {
  name: 'Shed',
  from: 'Panel A',
  feeder: { leg: 0.1, neutral: 0.1, ground: 0.1 },
  bonded: false,
  electrode: null,
  others: NOTHING,
};
const behind = (panel: Partial<HousePanel>): House => ({ ...HOUSE, panels: [SERVICE, { ...FED, ...panel }] });

test('bonded twice, half of the neutral current goes home by the ground of the feeder', () => {
  const use = { amps: new Map([[0, 12]]) };
  const sound = readAt(behind({}), [], use);
  // 12 A by 0.1 Ω of neutral: 1.2 V between neutral and ground.
  near1(sound.neutralGround, 1.2, 'sound', 0.15);
  const twice = readAt(behind({}), [{ kind: 'second-bond', panel: 'Shed' }], use);
  near1(twice.neutralGround, 0, 'bonded twice', 0.1);
  near1(twice.groundEarth, 0.6, 'half of it on the ground', 0.2);
});

test('a lost feeder neutral divides the legs behind it alone', () => {
  const fault: Fault = { kind: 'feeder-neutral', panel: 'Shed', ohms: null };
  const read = readAt(behind({ others: { A: 10, B: 5, across: 0 } }), [fault]);
  // The shed’s neutral floats between 12 and 24 Ω: 240 × 12/36 = 80 V here, 160 V there; its grounds stay at nothing.
  near1(read.hotNeutral, 80, 'this leg');
  near1(read.other, 160, 'the other', 1.5);
  near1(read.neutralGround, 40, 'neutral to ground');
  near1(read.groundEarth, 0, 'frames');
  assert.throws(() => readAt(HOUSE, [fault]), /“Shed” has no feeder neutral/);
});

test('the house of a job: panels up to the service, and what the other circuits take on each leg', () => {
  const boxes = ['R1', 'R2', 'R3', 'W1'].map((name, i) =>
    outlet(name, i % 4, 20, name === 'W1' ? { device: receptacle({ kind: 'hardwired', volts: '250' }) } : {}),
  );
  const sub = { ...PANEL, id: 'panel-2', name: 'Sub', feeder: FEEDER, bonded: false, electrode: false };
  const on = (id: string, at: number, space: number, values = {}) => ({
    ...chain([boxes[at]!], { space, ...values }),
    id: `circuit-${id}`,
  });
  const studied = on('a', 0, 1, { panelId: 'panel-2' });
  const document = house({
    boxes,
    panels: [PANEL, sub],
    circuits: [
      studied,
      on('b', 1, 3, { panelId: 'panel-2' }),
      on('c', 2, 2),
      on('d', 3, 9, { breaker: breakerOf(30, 'none', 2), neutral: false }),
    ],
  });
  const view = new View(document);
  const made = houseOf(view, [studied], 'planned');
  assert.deepEqual(
    made.panels.map((p) => [p.name, p.from, p.bonded, p.presented!.length]),
    [
      ['Panel A', null, true, 2],
      ['Sub', 'Panel A', false, 1],
    ],
  );
  // 180 VA a receptacle is 1.5 A, at the end of its cable: space 3 is the other leg than space 1, space 2 the same.
  const drawn = (panel: number, a: 'A' | 'B'): number =>
    made.panels[panel]!.presented!.reduce((sum, { between }) => {
      const row = { neutral: 0, A: 2, B: 3 };
      return sum + (between.find((y) => y.a === row.neutral && y.b === row[a])?.re ?? 0) * 120;
    }, 0);
  near1(drawn(1, 'B'), 1.5, 'the other leg of the subpanel', 0.02);
  near1(drawn(1, 'A'), 0, 'this leg of it', 1e-6);
  near1(drawn(0, 'A'), 1.5, 'the service', 0.02);
  assert.deepEqual(
    houseOf(view, [studied], 'off').panels.map((p) => p.presented),
    [[], []],
  );
  assert.equal(studyOf(view, studied, { amps: new Map(), open: new Set() }).panel, 'Sub');
});
