/** What opens, why and when: cases worked by hand, and that it always comes to rest. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { plannedBoxes } from '#core/boxes/planned.ts';
import { buildRun, type Run } from '#core/circuits/run.ts';
import { tripTime } from '#core/circuits/tripCurve.ts';
import { breakerOf } from '#core/job/document.ts';
import type { Circuit, Device } from '#core/job/schema.ts';
import { chain, house, outlet, receptacle, room } from '#core/job/testing.ts';
import { withFaults, type Fault } from '#core/network/faults.ts';
import { MAINS_HERTZ } from '#core/network/network.ts';
import type { Use } from '#core/network/places.ts';
import type { House } from '#core/network/supply.ts';
import { randomFault, randomRun, randomUse } from '#core/network/testing.ts';
import { houseWiring, spotKey, wiringOf, type Wiring } from '#core/network/wiring.ts';
import { randomFrom } from '#core/planner/search/random.ts';
import { settle, type Asked } from './settle.ts';

const R1 = 0;
const R2 = 1;
const R3 = 2;

function runWith(devices: Record<number, Partial<Device>>, circuit: Partial<Circuit> = {}): Run {
  const boxes = [0, 1, 2].map((k) => outlet(`R${k + 1}`, k, 20, { device: receptacle(devices[k] ?? {}) }));
  const plain = chain(boxes, circuit);
  const stops = plain.stops.map((s, k) => ({ ...s, measured: 600, from: k === 0 ? null : boxes[k - 1]!.id }));
  const made = { ...plain, stops };
  return buildRun(house({ area: room([400, 300, 400, 300]), boxes, circuits: [made] }), made);
}
const on = (amps: Record<number, number>, values: Partial<Use> = {}): Use => ({
  amps: new Map(Object.entries(amps).map(([k, a]) => [Number(k), a])),
  open: new Set(),
  ...values,
});
const slow: Asked = { seconds: 3 * 3600, edge: 'slow' };
const quick: Asked = { seconds: 3 * 3600, edge: 'quick' };
const said = (wiring: Wiring, asked: Asked = slow) =>
  settle(wiring, asked).openings.map((o) => [o.stop, o.why]);
const GFCI = { [R1]: { kind: 'gfci' as const } };
const near = (value: number, expected: number, share: number, what: string) =>
  assert.ok(Math.abs(value - expected) <= share * expected, `${what}: ${value}, expected ${expected}`);

test('sound circuits hold: with a GFCI, with loads, at either edge', () => {
  for (const asked of [slow, quick]) {
    assert.deepEqual(said(wiringOf(runWith(GFCI), on({ [R3]: 12 })), asked), []);
    const multiwire = runWith({}, { breaker: breakerOf(20, 'dual', 2) });
    assert.deepEqual(said(wiringOf(multiwire, on({ [R1]: 8 })), asked), []);
  }
});

test('a leak of 12 kΩ behind a GFCI is 10 mA and opens it within 2.7 s; one of 24 kΩ may, one of 40 kΩ does not', () => {
  const leak = (ohms: number): Fault => ({ kind: 'short', stop: R3, conductors: ['black', 'ground'], ohms });
  const wiring = wiringOf(runWith(GFCI), on({}));
  const [opening] = settle(withFaults(wiring, [leak(12e3)]), slow).openings;
  assert.deepEqual([opening!.stop, opening!.why], [R1, 'difference']);
  near(opening!.amps, 0.01, 0.01, 'amperes');
  near(opening!.at, (20 / 10) ** 1.43, 0.02, 'seconds');
  assert.deepEqual(said(withFaults(wiring, [leak(24e3)]), slow), [], '5 mA at the slow edge');
  assert.deepEqual(
    said(withFaults(wiring, [leak(24e3)]), quick),
    [[R1, 'difference']],
    '5 mA at the quick edge',
  );
  assert.deepEqual(said(withFaults(wiring, [leak(40e3)]), quick), [], '3 mA');
});

test('a GFCI opens on neutral joined to ground behind it with nothing on, and what hangs on it is dead then', () => {
  const joined: Fault = { kind: 'short', stop: R3, conductors: ['neutral', 'ground'], ohms: 0.05 };
  const wiring = withFaults(wiringOf(runWith(GFCI), on({})), [joined]);
  const { openings, voltages } = settle(wiring, slow);
  assert.deepEqual(
    openings.map((o) => [o.stop, o.why]),
    [[R1, 'grounded neutral']],
  );
  const { hot, neutral } = wiring.terminals[R3]!;
  assert.ok(voltages.between(hot, neutral) < 1);
  // The face of the device itself is dead as well.
  const face = wiring.terminals[R1]!;
  assert.ok(voltages.between(face.hot, face.neutral) < 1);
});

test('without power a GFCI does nothing: its neutral is lost before it, and the leak stays', () => {
  const wiring = withFaults(wiringOf(runWith(GFCI), on({})), [
    { kind: 'open', stop: R1, conductor: 'neutral', part: 'start' },
    { kind: 'short', stop: R3, conductors: ['black', 'ground'], ohms: 1000 },
  ]);
  assert.deepEqual(said(wiring), []);
});

test('reversed: one made since 2006 leaves its face dead and does not close, an older one feeds its face whatever it does', () => {
  const lineToLoad = (old: boolean): Wiring => {
    const run = runWith(GFCI);
    const boxes = plannedBoxes(run);
    const use = on({}, old ? { old: new Set([R1]) } : {});
    const wiring = wiringOf(run, use, boxes);
    // By its two pairs of clamps: each end of one side on the other.
    const places = boxes[R1]!.places.filter((p) => p.at?.match(/\.(line|load)-/));
    const swap = (at: string) =>
      at.includes('.line-') ? at.replace('line', 'load') : at.replace('load', 'line');
    return withFaults(
      wiring,
      places.map(({ end, at }): Fault => ({ kind: 'landing', stop: R1, end, place: swap(at!) })),
    );
  };
  const volts = ({ wiring, voltages }: ReturnType<typeof settle>, stop: number) =>
    voltages.between(wiring.terminals[stop]!.hot, wiring.terminals[stop]!.neutral);
  const since = settle(lineToLoad(false), slow);
  assert.deepEqual(
    since.openings.map((o) => [o.stop, o.why]),
    [[R1, 'fed on LOAD']],
  );
  assert.ok(volts(since, R1) < 5 && volts(since, R3) < 5);
  const older = settle(lineToLoad(true), slow);
  assert.deepEqual(older.openings, []);
  assert.ok(volts(older, R1) > 115 && volts(older, R3) > 115);
  // A leak behind it opens its contacts: what is downstream goes dead, its own face does not.
  const leaking = settle(
    withFaults(lineToLoad(true), [{ kind: 'short', stop: R3, conductors: ['black', 'ground'], ohms: 6000 }]),
    slow,
  );
  assert.deepEqual(
    leaking.openings.map((o) => o.why),
    ['difference'],
  );
  assert.ok(volts(leaking, R1) > 115 && volts(leaking, R3) < 5);
});

test('one outgoing wire on LINE and one on LOAD: it holds until something downstream draws', () => {
  const run = runWith(GFCI);
  const boxes = plannedBoxes(run);
  const onLoad = boxes[R1]!.places.find((p) => p.at === 'device.load-hot')!;
  const split: Fault = { kind: 'landing', stop: R1, end: onLoad.end, place: 'device.line-hot' };
  const at = (amps: Record<number, number>) => withFaults(wiringOf(run, on(amps), boxes), [split]);
  assert.deepEqual(said(at({})), []);
  assert.deepEqual(said(at({ [R1]: 5 })), [], 'what is plugged into its own face comes back by it');
  const [opening] = settle(at({ [R3]: 5 }), slow).openings;
  assert.deepEqual([opening!.stop, opening!.why], [R1, 'difference']);
  near(opening!.amps, 5, 0.05, 'all of the load is missing');
});

test('a breaker in time: 30 A on 20 A opens between the edges of its curve, a short at once, and 20 A holds', () => {
  const run = runWith({});
  const at = (amps: number, asked: Asked) => settle(wiringOf(run, on({ [R1]: amps })), asked).openings;
  const wiring = wiringOf(run, on({ [R1]: 32 }));
  const [slowly] = settle(wiring, slow).openings;
  const [quickly] = settle(wiring, quick).openings;
  assert.equal(slowly!.why, 'overcurrent');
  const band = tripTime(20, slowly!.amps);
  near(slowly!.at, band.most, 1e-6, 'slow edge');
  near(quickly!.at, band.least, 1e-6, 'quick edge');
  assert.deepEqual(at(20, slow), []);
  const short = (stop: number): Fault => ({
    kind: 'short',
    stop,
    conductors: ['black', 'neutral'],
    ohms: 0.01,
  });
  const opens = (stop: number) => settle(withFaults(wiringOf(run, on({})), [short(stop)]), slow).openings[0]!;
  // 120 V by 0.026 Ω and 2 × 0.1 Ω of cable is 500 A; by 6 × 0.1 Ω 190 A, which a slow magnet lets the bimetal do.
  assert.deepEqual([opens(R1).why, opens(R1).at], ['short', 0.03]);
  assert.deepEqual([opens(R3).why, opens(R3).at < 6], ['overcurrent', true]);
  assert.equal(settle(withFaults(wiringOf(run, on({})), [short(R3)]), quick).openings[0]!.why, 'short');
  // A worn one that holds 70 % of what it should opens on 20 A after a while.
  const worn = at(20, { ...slow, holds: new Map([[-1, 0.7]]) });
  assert.equal(worn[0]!.why, 'overcurrent');
  assert.ok(worn[0]!.at > 60, `${worn[0]!.at} s`);
});

test('two poles that are not common-trip open one by one, tied ones together', () => {
  const poles = (tie: Circuit['breaker']['tie']) => {
    const run = runWith({}, { breaker: { ...breakerOf(20, 'none', 2), tie } });
    const short: Fault = { kind: 'short', stop: R3, conductors: ['black', 'neutral'], ohms: 0.01 };
    return settle(withFaults(wiringOf(run, on({})), [short]), slow);
  };
  assert.equal(poles('handle-tie').openings[0]!.pole, 'black');
  assert.equal(poles('common-trip').openings[0]!.pole, null);
  const red = (s: ReturnType<typeof settle>) =>
    s.voltages.between(s.wiring.panel.breaker.red!, s.wiring.panel.neutral);
  assert.ok(red(poles('handle-tie')) > 100);
  assert.ok(red(poles('common-trip')) < 5);
});

test('a joint of 0.5 Ω that opens at 30 W: after τ ln(P/(P − 30)) under 10 A, again and again, and never under 5 A', () => {
  const run = runWith({});
  const poor: Fault = { kind: 'resistance', stop: R2, conductor: 'neutral', part: 'end', ohms: 0.5 };
  const at = (amps: number, seconds: number) => {
    const wiring = withFaults(wiringOf(run, on({ [R3]: amps })), [poor]);
    const { branch } = wiring.spotAt.get(spotKey({ stop: R2, conductor: 'neutral', part: 'end' }))!;
    return settle(wiring, { ...slow, seconds, warm: [{ branch, watts: 30, tau: 120 }] });
  };
  const first = at(10, 600);
  const drawn = first.openings[0]!.amps;
  const power = drawn ** 2 * 0.5;
  near(first.openings[0]!.at, 120 * Math.log(power / (power - 30)), 1e-6, 'first opening');
  // It cools to 60 % in τ ln(1/0.6) = 61 s, and closes.
  near(first.openings[1]!.at - first.openings[0]!.at, 120 * Math.log(1 / 0.6), 1e-6, 'closes');
  assert.equal(first.openings[1]!.why, 'warm joint closes');
  assert.equal(first.cycles, true);
  assert.deepEqual(at(5, 3600).openings, []);
  assert.ok(at(10, 1e9).openings.length <= 400, 'it ends');
});

test('constant power draws more where the voltage sags, and stops below half of its volts', () => {
  const run = runWith({});
  const constant = on({}, { loads: [{ stop: R3, amps: 10, constantPower: true }] });
  const volts = (use: Use, faults: Fault[] = []) => {
    const { wiring, voltages } = settle(withFaults(wiringOf(run, use), faults), slow);
    const { hot, neutral } = wiring.terminals[R3]!;
    return voltages.between(hot, neutral);
  };
  const poor: Fault = { kind: 'resistance', stop: R2, conductor: 'black', part: 'end', ohms: 2 };
  // V (120 − V)/R = 1200 W with R = 2 Ω and what the cable and the source have.
  const ohms = 2 + 0.026 + 6 * run.stops[0]!.segment.ohms + 0.008;
  const expected = (120 + Math.sqrt(120 ** 2 - 4 * ohms * 1200)) / 2;
  near(volts(constant, [poor]), expected, 0.002, 'volts');
  const far: Fault = { ...poor, ohms: 30 };
  near(volts(constant, [far]), 120, 0.01, 'it has stopped');
});

test('a GFCI breaker opens on a borrowed neutral, on a shared one with one pole sensed, and on one left on the bar', () => {
  const own = runWith({}, { breaker: breakerOf(20, 'gfci') });
  const other = runWith({});
  const supply: House = {
    service: { A: 0.01, B: 0.01, neutral: 0.01, earth: 5 },
    panels: [
      {
        name: 'Panel',
        from: null,
        feeder: null,
        bonded: true,
        electrode: 25,
        others: { A: 0, B: 0, across: 0 },
      },
    ],
  };
  const both = (faults: Fault[], amps: { own?: number; other?: number }) =>
    said(
      withFaults(
        houseWiring(
          supply,
          [
            {
              run: own,
              boxes: plannedBoxes(own),
              use: on(amps.own ? { [R2]: amps.own } : {}),
              panel: 'Panel',
              leg: 'A',
            },
            {
              run: other,
              boxes: plannedBoxes(other),
              use: on(amps.other ? { [R2]: amps.other } : {}),
              panel: 'Panel',
              leg: 'B',
            },
          ],
          MAINS_HERTZ,
        ),
        faults,
      ),
    );
  assert.deepEqual(both([], { own: 5, other: 5 }), []);
  // The other circuit’s box 2 returns by this one’s neutral.
  const borrowed: Fault = { kind: 'borrowed-neutral', stop: 3 + R2, other: R2 };
  assert.deepEqual(both([borrowed], { own: 5 }), []);
  assert.deepEqual(both([borrowed], { other: 5 }), [[-1, 'difference']]);
  // This one’s box 2 returns by the other’s neutral.
  assert.deepEqual(both([{ kind: 'borrowed-neutral', stop: R2, other: 3 + R2 }], { own: 5 }), [
    [-1, 'difference'],
  ]);
  const shared = runWith({}, { breaker: breakerOf(20, 'gfci', 2) });
  const stops = shared.stops.map((s, k) =>
    k === R2 ? { ...s, stop: { ...s.stop, hot: 'red' as const } } : s,
  );
  const halved = { ...shared, stops };
  const pole = (faults: Fault[]) => said(withFaults(wiringOf(halved, on({ [R2]: 5 })), faults));
  assert.deepEqual(pole([]), []);
  assert.deepEqual(pole([{ kind: 'single-pole-sensor' }]), [[-1, 'difference']]);
  const barred = withFaults(wiringOf(own, on({ [R2]: 5 })), [{ kind: 'beside-breaker' }]);
  assert.deepEqual(said(barred), [[-1, 'difference']]);
});

test('it always comes to rest: random circuits, loads, faults and warm joints', () => {
  for (let seed = 0; seed < 30; seed++) {
    const random = randomFrom(500 + seed);
    const run = randomRun(4 + Math.floor(8 * random()), seed);
    const sound = wiringOf(run, randomUse(run, seed));
    const faulty = withFaults(sound, [randomFault(sound, random, true)]);
    const { branch } = sound.spots.find((s) => s.part === 'end' || s.part === 'terminal')!;
    const { openings } = settle(faulty, {
      seconds: 1e6,
      edge: seed % 2 ? 'quick' : 'slow',
      warm: [{ branch, watts: 1e-3, tau: 50 }],
    });
    const devices = openings.filter((o) => o.stop !== null);
    const names = devices.map((o) => `${o.stop} ${o.pole}`);
    assert.equal(new Set(names).size, names.length, 'nothing opens twice');
    for (const [k, o] of openings.entries()) assert.ok(k === 0 || o.at >= openings[k - 1]!.at);
  }
});
