/** Every instrument at every kind of place, on circuits worked by hand. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { plannedBoxes } from '#core/boxes/planned.ts';
import { buildRun, type Run } from '#core/circuits/run.ts';
import { MEASURING, type Device, type Measuring } from '#core/job/schema.ts';
import { chain, house, outlet, receptacle, room } from '#core/job/testing.ts';
import { withFaults, type Fault } from '#core/network/faults.ts';
import { wiringOf, type Wiring } from '#core/network/wiring.ts';
import { look, type Look, type Showing } from './look.ts';

/** Three boxes, 50 ft of 12 AWG before each: 0.1 Ω a conductor and segment. */
function runWith(devices: Record<number, Partial<Device>> = {}): Run {
  const boxes = [0, 1, 2].map((k) => outlet(`R${k + 1}`, k, 20, { device: receptacle(devices[k] ?? {}) }));
  const plain = chain(boxes, {});
  const stops = plain.stops.map((s, k) => ({ ...s, measured: 600, from: k === 0 ? null : boxes[k - 1]!.id }));
  const made = { ...plain, stops };
  return buildRun(house({ area: room([400, 300, 400, 300]), boxes, circuits: [made] }), made);
}
const PLAIN: Omit<Look, 'instrument' | 'node'> = {
  stop: 2,
  to: null,
  inputOhms: null,
  loadAmps: 0,
  gain: null,
  testVolts: null,
  testMilliamps: null,
  sender: null,
};
const wired = (run: Run, faults: Fault[] = [], dead = false): Wiring =>
  withFaults(wiringOf(run, { amps: new Map(), open: new Set(), dead }, plannedBoxes(run)), faults);
const at = (wiring: Wiring, instrument: Measuring, node: string, values: Partial<Look> = {}): Showing =>
  look(wiring, { ...PLAIN, instrument, node, ...values });
const near = (value: number | null, expected: number, what: string, share = 0.03) =>
  assert.ok(
    value !== null && Math.abs(value - expected) <= Math.max(share * expected, 0.05),
    `${what}: ${value}, expected ${expected}`,
  );
const open = (conductor: 'black' | 'neutral' | 'ground', stop = 1): Fault => ({
  kind: 'open',
  stop,
  conductor,
  part: 'start',
});

test('volts at a face, at screws, splices and separated ends, at either impedance', () => {
  const sound = wired(runWith());
  for (const [node, to, volts] of [
    ['face.top.hot', 'face.top.neutral', 120],
    ['device.brass-1', 'device.green', 120],
    ['splice-hot', 'splice-neutral', 120],
    ['splice-neutral', 'splice-ground', 0],
    ['panel.hot', 'panel.neutral', 120],
  ] as const) {
    const stop = node.startsWith('splice') ? 1 : 2;
    near(at(sound, 'low-impedance meter', node, { to, stop }).value, volts, `${node} to ${to}`);
  }
  // A white that hangs loose: 18 V from ground and 102 V from black, on 10 MΩ and not on 3 kΩ.
  const loose = wired(runWith(), [open('neutral', 2)]);
  const high = at(loose, 'high-impedance meter', 'device.silver-1', { to: 'device.green' }).value!;
  assert.ok(high > 10 && high < 30, `${high} V`);
  near(at(loose, 'low-impedance meter', 'device.silver-1', { to: 'device.green' }).value, 0, 'loaded');
  // The same by taking its end off the screw: nothing there is fed, and the end itself is live.
  const end: Fault = { kind: 'landing', stop: 2, end: 'feed.black', place: null };
  const apart = wired(runWith(), [end]);
  near(at(apart, 'low-impedance meter', 'feed.black', { to: 'device.green' }).value, 120, 'the end');
  near(at(apart, 'low-impedance meter', 'device.brass-1', { to: 'device.green' }).value, 0, 'the screw');
  assert.throws(() => at(sound, 'low-impedance meter', 'device.blue', { to: 'box' }), /no “device.blue”/);
});

test('testers: the step that lights, three lamps with their dim, the pen with its false call', () => {
  const sound = wired(runWith());
  assert.equal(at(sound, 'two-pole tester', 'face.top.hot', { to: 'face.top.neutral' }).value, 120);
  assert.equal(at(sound, 'two-pole tester', 'face.top.neutral', { to: 'face.top.ground' }).shows, 'nothing');
  assert.deepEqual(at(sound, 'three-lamp tester', 'face.top').lamps, ['lit', 'lit', 'dark']);
  // 100 kΩ in the neutral beside 100 kΩ lamps: the first has 120 × 100/(100 + 100 ∥ …) of the volts, and is dim.
  const poor: Fault = { kind: 'resistance', stop: 2, conductor: 'neutral', part: 'end', ohms: 1e5 };
  assert.deepEqual(at(wired(runWith(), [poor]), 'three-lamp tester', 'face.top').lamps, [
    'dim',
    'lit',
    'dim',
  ]);
  assert.equal(at(sound, 'voltage pen', 'face.top.hot').shows, 'sounds');
  assert.equal(at(sound, 'voltage pen', 'face.top.neutral').shows, 'nothing');
  // A ground that hangs loose stands at half the volts and makes it sound.
  assert.equal(at(wired(runWith(), [open('ground', 2)]), 'voltage pen', 'face.top.ground').shows, 'sounds');
});

test('clamp: one conductor, the whole cable, the breaker', () => {
  const sound = wired(runWith());
  near(at(sound, 'clamp meter', 'feed.black', { loadAmps: 10 }).value, 9.5, 'the hot');
  near(at(sound, 'clamp meter', 'feed.white', { loadAmps: 10 }).value, 9.5, 'the white');
  near(at(sound, 'clamp meter', 'cable.feed', { loadAmps: 10 }).value, 0, 'all of it');
  near(at(sound, 'clamp meter', 'panel.hot', { loadAmps: 10 }).value, 9.5, 'the breaker');
  // Neutral and ground joined here: half of what returns goes by the ground.
  const joined: Fault = { kind: 'short', stop: 2, conductors: ['neutral', 'ground'], ohms: 0.001 };
  const both = wired(runWith(), [joined]);
  near(at(both, 'clamp meter', 'feed.white', { loadAmps: 10 }).value, 4.75, 'half of it', 0.05);
  near(at(both, 'clamp meter', 'cable.feed', { loadAmps: 10 }).value, 0, 'the ground is of the cable');
});

test('ohms and insulation on a dead circuit, a loop by a tie at the far end, and no answer on a live one', () => {
  const run = runWith();
  assert.equal(at(wired(run), 'ohmmeter', 'face.top.hot', { to: 'face.top.neutral' }).shows, 'live');
  const dead = wired(run, [], true);
  assert.equal(at(dead, 'ohmmeter', 'face.top.hot', { to: 'face.top.neutral' }).shows, 'over');
  // Home by the neutral and back by the ground through the bond: 6 × 0.1 Ω.
  near(at(dead, 'ohmmeter', 'face.top.neutral', { to: 'face.top.ground' }).value, 0.61, 'through the bond');
  const tied = wired(run, [{ kind: 'short', stop: 2, conductors: ['black', 'neutral'], ohms: 0.02 }], true);
  // From the first box by two segments out and two back.
  near(
    at(tied, 'ohmmeter', 'face.top.hot', { to: 'face.top.neutral', stop: 0 }).value,
    0.02 + 4 * 0.1,
    'the loop',
    0.06,
  );
  const leak: Fault = { kind: 'cable-leak', stop: 1, conductors: ['black', 'ground'], ohms: 4e5 };
  const leaking = wired(run, [leak], true);
  near(
    at(leaking, 'insulation tester', 'face.top.hot', { to: 'face.top.ground', testVolts: 500 }).value,
    0.4,
    'megohms',
  );
  const healthy = at(dead, 'insulation tester', 'face.top.hot', { to: 'face.top.ground', testVolts: 500 });
  assert.ok(healthy.shows === 'over' || healthy.value! > 50);
});

test('what an instrument draws opens what it would open', () => {
  const run = runWith({ 0: { kind: 'gfci' } });
  const sound = wired(run);
  const tester = at(sound, 'plug-in GFCI tester', 'face.top', { testMilliamps: 8 });
  assert.equal(tester.shows, 'trips');
  near(tester.seconds, (20 / 8) ** 1.43, 'seconds');
  assert.equal(at(sound, 'plug-in GFCI tester', 'face.top', { testMilliamps: 3 }).shows, 'holds');
  assert.equal(at(wired(run, [open('ground', 0)]), 'plug-in GFCI tester', 'face.top').shows, 'holds');
  assert.equal(at(sound, 'own button', 'face.face', { stop: 0 }).shows, 'trips');
  const analyzer = at(sound, 'loading analyzer', 'face.top');
  assert.deepEqual(
    analyzer.opened.map((o) => [o.stop, o.why]),
    [[0, 'difference']],
  );
  // 15 A by 0.64 Ω of 8 Ω.
  near(analyzer.value, 7.4, 'drop', 0.05);
  // A load of 45 A on a 20 A breaker for five seconds holds at its slow edge; a short does not.
  const short: Fault = { kind: 'short', stop: 0, conductors: ['black', 'neutral'], ohms: 0.01 };
  const dark = at(wired(runWith(), [short]), 'low-impedance meter', 'face.top.hot', {
    to: 'face.top.neutral',
  });
  near(dark.value, 0, 'after the breaker');
  assert.equal(dark.opened[0]!.why, 'short');
});

test('tone: strong at its conductor, weaker beyond a break; the breaker finder answers where the hot is whole', () => {
  const dead = wired(runWith(), [], true);
  const sender = { stop: 0, node: 'panel.hot', to: 'panel.ground' };
  const bars = (wiring: Wiring, node: string, gain = 1) =>
    at(wiring, 'tone receiver', node, { sender, gain }).value ?? 0;
  assert.ok(bars(dead, 'feed.black') >= 7);
  assert.ok(bars(dead, 'feed.black') > bars(dead, 'feed.white'));
  assert.ok(bars(dead, 'feed.white', 9) > bars(dead, 'feed.white', 1), 'gain makes neighbors answer too');
  const broken = wired(runWith(), [open('black', 1)], true);
  assert.ok(bars(broken, 'feed.black') < bars(dead, 'feed.black'));
  assert.equal(at(wired(runWith()), 'breaker finder', 'face.top').shows, 'value');
  assert.equal(at(wired(runWith(), [open('black', 0)]), 'breaker finder', 'face.top').shows, 'nothing');
  assert.throws(() => at(dead, 'tone receiver', 'feed.black', { gain: 1 }), /where the transmitter is/);
});

test('each instrument is one that was looked through', () => {
  const run = runWith({ 2: { kind: 'gfci' } });
  const held: Record<string, Partial<Look>> = {
    pair: { node: 'face.face.hot', to: 'face.face.neutral' },
    face: { node: 'face.face' },
    one: { node: 'feed.black', sender: { stop: 0, node: 'panel.hot', to: 'panel.ground' }, gain: 3 },
  };
  for (const instrument of MEASURING) {
    const pair = /meter$|ohm|insulation|two-pole/.test(instrument) && instrument !== 'clamp meter';
    const one = ['voltage pen', 'tone receiver', 'clamp meter'].includes(instrument);
    const { node, ...values } = held[pair ? 'pair' : one ? 'one' : 'face']!;
    assert.ok(at(wired(run), instrument, node!, values).shows, instrument);
  }
});
