/**
 * Wiring conditions against instruments. The figures were worked out by hand from Ohm’s and Kirchhoff’s laws on this
 * circuit: 120 V behind 0.026 Ω (service, bus, breaker), three boxes in a row, 0.1 Ω a conductor and segment, 1 mΩ a
 * joint. At the third box the hot measures 0.333 Ω, the neutral and the ground 0.307 Ω each; with 10 A of load (12 Ω)
 * there flow 120/12.64 = 9.49 A. A segment is 50 ft of flat cable, 22 pF a foot from each insulated conductor to the ground
 * between them and 4 pF across. A ground that hangs loose along it has 1.1 nF, 2.41 MΩ, to either neighbor: 60 V behind
 * 1.21 MΩ, 59.6 V on a meter of 10 MΩ and 0.1 V on one of 3 kΩ. A white has 1.1 nF to the ground and 0.2 nF to the black:
 * 18.5 V from ground and 101.5 V from black behind 2.04 MΩ, 18.1 and 99.5 V on the meter.
 */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { buildRun, type Run } from '#core/circuits/run.ts';
import type { Circuit, Device } from '#core/job/schema.ts';
import { chain, house, outlet, receptacle, room } from '#core/job/testing.ts';
import { withFaults, type Fault } from '#core/network/faults.ts';
import { wiringOf, type Conductor, type Use } from '#core/network/wiring.ts';
import { analyze, type Analysis } from './analyzer.ts';
import { readLamps, readTwoPole } from './lamps.ts';
import { clampCable, clampConductor, LOW_OHMS, readOhms, readVolts } from './meter.ts';
import { penSounds } from './pen.ts';
import { breakerButtonTrips, breakerLoad, ownButton, testerTrip } from './protection.ts';
import { groundedNeutralTrips, isReversed, type Trip } from '#core/protection/sensors.ts';
import { receive, toneVoltages, withTone } from './tone.ts';

interface Setup {
  faults?: Fault[];
  /** Amperes at nominal voltage by box. */
  on?: Record<number, number>;
  open?: number[];
  dead?: boolean;
  /** Devices by box. */
  devices?: Record<number, Partial<Device>>;
  circuit?: Partial<Circuit>;
  /** Hots that the boxes take. */
  hots?: ('black' | 'red')[];
  boxes?: number;
  /** Box where the instruments are; the third otherwise. */
  at?: number;
}

const [R1, R2, R3] = [0, 1, 2];

function runOf({ devices = {}, circuit = {}, hots = [], boxes = 3 }: Setup): Run {
  const outlets = Array.from({ length: boxes }, (_, i) =>
    outlet(`R${i + 1}`, 0, 20 + 40 * i, {
      device: receptacle(devices[i]),
      grounding: circuit.cable === 'old two-wire' ? 'none' : 'grounded',
      ...(devices[i]?.kind === 'switch' ? { controls: [`box-r${i + 2}`] } : {}),
    }),
  );
  const plain = chain(outlets, circuit);
  const stops = plain.stops.map((stop, i) => ({ ...stop, hot: hots[i] ?? 'black' }));
  const built = { ...plain, stops };
  const run = buildRun(house({ area: room([400, 300, 400, 300]), boxes: outlets, circuits: [built] }), built);
  const segments = run.stops.map((s) => ({ ...s, segment: { ...s.segment, length: 600, ohms: 0.1 } }));
  return { ...run, stops: segments };
}

type Ohms = number | 'over' | 'live';
interface Display {
  /** Hot–neutral, hot–ground, neutral–ground: 1 lit. */
  lamps: string;
  /** Volts in the same order on 10 MΩ; and on 3 kΩ, when that shows something else. */
  high: [number, number, number];
  low?: [number, number, number];
  /** Highest step of the two-pole tester, hot–neutral. */
  step: number;
  /** The pen at hot, neutral and ground: 1 sounds. */
  pen: string;
  /** Amperes in the hot that arrives, and around the cable. */
  clamp: [number, number];
  /** Breaker off: ohms hot–neutral and neutral–ground. */
  ohms: [Ohms, Ohms];
  /** The analyzer’s drop at 15 A, percent, and what it says of the ground; null when it cannot work. */
  analyzer: [number, Analysis['ground']] | null;
  /** A ground-fault breaker when a tester at the box sends 8 mA from hot to ground. */
  tester: Trip;
  /** Amperes through the breaker of 20 A, and what it does. */
  breaker: [number, 'holds' | 'slow' | 'instant'];
  /** Breaker off, loads as they are: tone sent into the hot, heard at the same conductor of the first box. */
  tone: 'strong' | 'weak';
}

const SOUND: Display = {
  lamps: '110',
  high: [120, 120, 0],
  step: 120,
  pen: '100',
  clamp: [0, 0],
  ohms: ['over', 0.615],
  analyzer: [7.41, 'sound'],
  tester: 'trips',
  breaker: [0, 'holds'],
  tone: 'strong',
};
const DARK: Display = {
  ...SOUND,
  lamps: '000',
  high: [0, 0, 0],
  step: 0,
  pen: '000',
  analyzer: null,
  tester: 'holds',
};
const LOADED: Display = {
  ...SOUND,
  high: [113.9, 116.8, 2.92],
  clamp: [9.49, 0],
  ohms: [12, 0.615],
  breaker: [9.49, 'holds'],
  tone: 'weak',
};

const open = (
  stop: number,
  conductor: Conductor,
  part: 'start' | 'terminal' | 'supply' = 'start',
): Fault => ({
  kind: 'open',
  stop,
  conductor,
  part,
});
const poor = (conductor: Conductor, ohms: number): Fault => ({
  kind: 'resistance',
  stop: R3,
  conductor,
  part: 'end',
  ohms,
});
const swap = (a: Conductor, b: Conductor): Fault => ({ kind: 'swap', stop: R3, conductors: [a, b] });
const touch = (a: Conductor, b: Conductor, ohms: number): Fault => ({
  kind: 'short',
  stop: R3,
  conductors: [a, b],
  ohms,
});
const falseGround: Fault = { kind: 'false-ground', stop: R3 };
const at10 = { [R3]: 10 };
const twoPoles = { poles: 2 as const, rating: 20 as const, protection: 'none' as const };
const multiwire = { breaker: { ...chain([]).breaker, ...twoPoles } };
const gfci = { [R1]: { kind: 'gfci' as const } };

const CONDITIONS: [name: string, setup: Setup, display: Display][] = [
  ['sound, nothing on', {}, SOUND],
  ['sound, 10 A on', { on: at10 }, LOADED],
  ['breaker off', { dead: true }, DARK],
  [
    'open ground at the device',
    { faults: [open(R3, 'ground', 'terminal')] },
    // The slot has 10 GΩ to earth: 120 × 10/10010.
    {
      ...SOUND,
      lamps: '100',
      high: [120, 0.12, 0],
      low: [120, 0, 0],
      ohms: ['over', 'over'],
      analyzer: [7.41, 'none'],
      tester: 'holds',
    },
  ],
  [
    'open ground upstream',
    { faults: [open(R3, 'ground')] },
    {
      ...SOUND,
      lamps: '100',
      high: [120, 59.6, 59.6],
      low: [120, 0.15, 0.15],
      pen: '101',
      ohms: ['over', 'over'],
      analyzer: [7.41, 'none'],
      tester: 'holds',
    },
  ],
  [
    'open ground of all boxes',
    { faults: [open(R1, 'ground')] },
    // Three segments loose together: 0.40 MΩ behind 60 V.
    {
      ...SOUND,
      lamps: '100',
      high: [120, 59.9, 59.9],
      low: [120, 0.45, 0.45],
      pen: '101',
      ohms: ['over', 'over'],
      analyzer: [7.41, 'none'],
      tester: 'holds',
    },
  ],
  ['poor ground, 50 Ω', { faults: [poor('ground', 50)] }, { ...SOUND, ohms: ['over', 50.6] }],
  [
    'open neutral upstream, nothing on',
    { faults: [open(R3, 'neutral')] },
    {
      ...SOUND,
      lamps: '010',
      high: [99.5, 120, 18.1],
      low: [0.15, 120, 0.03],
      step: 0,
      pen: '100',
      ohms: ['over', 'over'],
      analyzer: null,
    },
  ],
  [
    'open neutral upstream, load on here',
    { faults: [open(R3, 'neutral')], on: at10 },
    {
      ...SOUND,
      lamps: '011',
      high: [0, 120, 120],
      step: 0,
      pen: '110',
      ohms: [12, 'over'],
      analyzer: null,
      tone: 'strong',
    },
  ],
  [
    'open neutral of all boxes, load on elsewhere',
    { faults: [open(R1, 'neutral')], on: { [R1]: 10 } },
    {
      ...SOUND,
      lamps: '011',
      high: [0, 120, 120],
      step: 0,
      pen: '110',
      ohms: [12.4, 'over'],
      analyzer: null,
      tone: 'strong',
    },
  ],
  ['open hot upstream', { faults: [open(R3, 'black')] }, { ...DARK, ohms: ['over', 0.615], tone: 'weak' }],
  ['open hot at the first box', { faults: [open(R1, 'black')] }, DARK],
  [
    'hot and neutral reversed',
    { faults: [swap('black', 'neutral')] },
    {
      ...SOUND,
      lamps: '101',
      high: [120, 0, 120],
      pen: '010',
      ohms: ['over', 'over'],
      analyzer: [7.41, 'reversed'],
      tester: 'holds',
      tone: 'weak',
    },
  ],
  [
    'hot and ground reversed, nothing on',
    { faults: [swap('black', 'ground')] },
    {
      ...SOUND,
      lamps: '011',
      high: [0, 120, 120],
      step: 0,
      pen: '001',
      ohms: [0.615, 'over'],
      analyzer: null,
      tone: 'weak',
    },
  ],
  [
    'hot and ground reversed, load on',
    { faults: [swap('black', 'ground')], on: at10 },
    // The load lies between neutral and ground: nothing drives it.
    {
      ...SOUND,
      lamps: '011',
      high: [0, 120, 120],
      step: 0,
      pen: '001',
      ohms: [0.585, 'over'],
      analyzer: null,
      tone: 'weak',
    },
  ],
  [
    'neutral and ground reversed, nothing on',
    { faults: [swap('neutral', 'ground')] },
    // The tester’s current comes back by the neutral.
    { ...SOUND, tester: 'holds' },
  ],
  [
    'neutral and ground reversed, load on',
    { faults: [swap('neutral', 'ground')], on: at10 },
    // The load comes back by the ground: a ground-fault breaker sees all of it.
    LOADED,
  ],
  [
    'false ground, nothing on',
    { faults: [falseGround] },
    { ...SOUND, ohms: ['over', 0.001], analyzer: [7.41, 'false'], tester: 'holds' },
  ],
  [
    'false ground, load on',
    { faults: [falseGround], on: at10 },
    { ...LOADED, high: [113.9, 113.9, 0], ohms: [12, 0.001], analyzer: [7.41, 'false'], tester: 'holds' },
  ],
  [
    'false ground with hot and neutral reversed',
    { faults: [falseGround, swap('black', 'neutral')] },
    // It reads correct, and every frame is at 120 V.
    { ...SOUND, pen: '011', ohms: ['over', 0.001], analyzer: [7.41, 'false'], tester: 'holds', tone: 'weak' },
  ],
  [
    'false ground and open neutral, load on',
    { faults: [falseGround, open(R3, 'neutral')], on: at10 },
    { ...DARK, pen: '111', ohms: [12, 0.001], tone: 'strong' },
  ],
  [
    'two hots on one leg',
    { faults: [{ kind: 'other-hot', stop: R3, leg: 'same' }] },
    {
      ...SOUND,
      lamps: '011',
      high: [0, 120, 120],
      step: 0,
      pen: '110',
      ohms: ['live', 'live'],
      analyzer: null,
    },
  ],
  [
    'two hots on both legs',
    { faults: [{ kind: 'other-hot', stop: R3, leg: 'other' }] },
    // 240 V behind 0.333 + 0.121 Ω; 15 A is 16 Ω: 2.76 %.
    {
      ...SOUND,
      lamps: '111',
      high: [240, 120, 120],
      step: 240,
      pen: '110',
      ohms: ['live', 'live'],
      analyzer: [2.76, 'sound'],
    },
  ],
  [
    'loose neutral of 2 Ω, nothing on',
    { faults: [poor('neutral', 2)] },
    // Loop 2.64 Ω; 8/10.64.
    { ...SOUND, ohms: ['over', 2.61], analyzer: [24.8, 'sound'] },
  ],
  [
    'loose neutral of 2 Ω, load on',
    { faults: [poor('neutral', 2)], on: at10 },
    {
      ...LOADED,
      high: [98.4, 117.3, 18.9],
      step: 50,
      clamp: [8.2, 0],
      ohms: [12, 2.61],
      analyzer: [24.8, 'sound'],
      breaker: [8.2, 'holds'],
    },
  ],
  [
    'loose hot of 2 Ω, load on',
    { faults: [poor('black', 2)], on: at10 },
    {
      ...LOADED,
      high: [98.4, 100.9, 2.52],
      step: 50,
      clamp: [8.2, 0],
      ohms: [12, 0.615],
      analyzer: [24.8, 'sound'],
      breaker: [8.2, 'holds'],
    },
  ],
  [
    'hot touches neutral',
    { faults: [touch('black', 'neutral', 0.05)] },
    // 120/0.688 = 174 A, 8.7 times the rating: between the quickest and the slowest magnet.
    {
      ...DARK,
      high: [8.7, 62.1, 53.4],
      step: 0,
      pen: '110',
      clamp: [174.4, 0],
      ohms: [0.05, 0.615],
      breaker: [174.4, 'instant'],
      tone: 'weak',
      tester: 'may trip',
    },
  ],
  [
    'hot touches ground',
    { faults: [touch('black', 'ground', 0.05)] },
    {
      ...DARK,
      high: [62.2, 8.7, 53.5],
      step: 50,
      pen: '101',
      clamp: [174.2, 0],
      ohms: [0.665, 0.615],
      breaker: [174.2, 'instant'],
      tone: 'weak',
      tester: 'trips',
    },
  ],
  [
    'hot leaks 5 mA to ground',
    { faults: [touch('black', 'ground', 24000)] },
    { ...SOUND, ohms: [24000, 0.615] },
  ],
  [
    'neutral touches ground, load on',
    { faults: [touch('neutral', 'ground', 0.05)], on: at10 },
    {
      ...LOADED,
      high: [115.2, 115.4, 0.231],
      clamp: [9.6, 0],
      ohms: [12, 0.045],
      analyzer: [5.87, 'false'],
      breaker: [9.6, 'holds'],
    },
  ],
  [
    'neutral goes home by another circuit, load on',
    { faults: [{ kind: 'other-neutral', stop: R2 }], on: at10 },
    { ...LOADED, high: [114, 116.8, 2.88], clamp: [9.5, 0], ohms: [12, 0.611], breaker: [9.5, 'holds'] },
  ],
  ['GFCI at the first box, sound', { devices: gfci }, { ...SOUND, ohms: ['over', 0.62] }],
  [
    'GFCI at the first box has tripped',
    { devices: gfci, open: [R1] },
    { ...DARK, ohms: ['over', 'over'], tone: 'weak' },
  ],
  [
    'GFCI since 2006 with line and load reversed: what is on its line terminals is dead',
    { devices: gfci, faults: [{ kind: 'reversed', stop: R1, age: 'since-2006' }] },
    { ...DARK, ohms: ['over', 'over'] },
  ],
  [
    'GFCI since 2006 with line and load reversed: its own face is denied power',
    { devices: gfci, faults: [{ kind: 'reversed', stop: R1, age: 'since-2006' }], at: R1 },
    { ...DARK, ohms: ['over', 'over'] },
  ],
  [
    'GFCI before 2006 with line and load reversed',
    { devices: gfci, faults: [{ kind: 'reversed', stop: R1, age: 'before-2006' }] },
    { ...SOUND, ohms: ['over', 0.62] },
  ],
  [
    'GFCI before 2006 reversed and tripped: its face stays live',
    { devices: gfci, faults: [{ kind: 'reversed', stop: R1, age: 'before-2006' }], open: [R1], at: R1 },
    // One segment: 0.127 + 0.102 Ω to the face; 8 Ω of load: 2.8 %. Its line terminals are cut off.
    { ...SOUND, ohms: ['over', 0.207], analyzer: [2.8, 'sound'], tone: 'weak' },
  ],
  [
    'multiwire, open shared neutral: 24 Ω and 12 Ω in series over 240 V',
    {
      circuit: multiwire,
      hots: ['black', 'black', 'red'],
      faults: [open(R1, 'neutral')],
      on: { [R2]: 5, [R3]: 10 },
    },
    // 240/36.5 = 6.57 A; this half gets 12 Ω of it, and its neutral stands 41 V from ground.
    {
      ...SOUND,
      lamps: '010',
      high: [78.9, 117.8, 39],
      step: 50,
      pen: '100',
      clamp: [6.57, 0],
      ohms: [12, 'over'],
      analyzer: null,
      breaker: [6.57, 'holds'],
      tone: 'strong',
    },
  ],
  [
    'multiwire with both hots on one leg, 10 A on each',
    {
      circuit: multiwire,
      hots: ['black', 'black', 'red'],
      faults: [{ kind: 'same-leg' }],
      on: { [R2]: 10, [R3]: 10 },
    },
    // 9.48 and 9.33 A add up in the shared neutral.
    { ...LOADED, high: [111.9, 116.7, 4.8], clamp: [9.33, 0], ohms: [12, 0.615], breaker: [9.48, 'holds'] },
  ],
  ['lost leg', { faults: [open(-1, 'black', 'supply')] }, DARK],
  [
    'switch off upstream',
    { devices: { [R1]: { kind: 'switch' } }, open: [R1], boxes: 2, at: R2, on: { [R2]: 1 } },
    { ...DARK, ohms: [120, 0.411], tone: 'weak' },
  ],
  [
    'switched neutral, switch off',
    {
      devices: { [R1]: { kind: 'switch' } },
      open: [R1],
      boxes: 2,
      at: R2,
      on: { [R2]: 1 },
      faults: [{ kind: 'switched-neutral', stop: R1 }],
    },
    // On 3 kΩ the lamp’s 120 Ω stands in series.
    {
      ...DARK,
      lamps: '011',
      high: [0, 120, 120],
      low: [0, 120, 115.4],
      pen: '110',
      ohms: [120, 'over'],
      tester: 'trips',
      tone: 'strong',
    },
  ],
  [
    'overload, 25 A on',
    { on: { [R2]: 15, [R3]: 10 } },
    // 8.00 and 12.2 Ω behind 0.434 Ω: 110.1 V at the second box, 13.76 and 9.02 A.
    {
      ...LOADED,
      high: [108.3, 113.8, 5.58],
      clamp: [9.02, 0],
      ohms: [4.87, 0.615],
      analyzer: [7.53, 'sound'],
      breaker: [22.8, 'slow'],
    },
  ],
  [
    'old two-wire, no ground',
    { circuit: { cable: 'old two-wire' } },
    {
      ...SOUND,
      lamps: '100',
      high: [120, 0.12, 0],
      low: [120, 0, 0],
      ohms: ['over', 'over'],
      analyzer: [7.41, 'none'],
      tester: 'holds',
    },
  ],
  [
    'old two-wire with a false ground',
    { circuit: { cable: 'old two-wire' }, faults: [falseGround] },
    { ...SOUND, ohms: ['over', 0.001], analyzer: [7.41, 'false'], tester: 'holds' },
  ],
];

/** Within 2 %, or a tenth of the unit. */
const close = (found: number, expected: number, name: string) =>
  assert.ok(
    Math.abs(found - expected) <= Math.max(0.1, 0.02 * Math.abs(expected)),
    `${name}: ${found}, expected ${expected}`,
  );

for (const [name, setup, display] of CONDITIONS) {
  test(`instruments on: ${name}`, () => {
    const run = runOf(setup);
    const use: Use = {
      amps: new Map(Object.entries(setup.on ?? {}).map(([k, v]) => [Number(k), v])),
      open: new Set(setup.open ?? []),
      dead: setup.dead ?? false,
    };
    const live = withFaults(wiringOf(run, use), setup.faults ?? []);
    const dead = withFaults(wiringOf(run, { ...use, dead: true }), setup.faults ?? []);
    const stop = setup.at ?? R3;
    const slots = live.terminals[stop]!;
    const { hot, neutral, ground } = slots;
    const pairs = [
      ['hot–neutral', hot, neutral],
      ['hot–ground', hot, ground],
      ['neutral–ground', neutral, ground],
    ] as const;
    const conductor = setup.hots?.[stop] ?? 'black';

    assert.equal(readLamps(live, slots).map(Number).join(''), display.lamps, 'lamps');
    pairs.forEach(([pair, a, b], k) => {
      close(readVolts(live, a, b), display.high[k]!, `${pair} at high impedance`);
      close(readVolts(live, a, b, LOW_OHMS), (display.low ?? display.high)[k]!, `${pair} at low impedance`);
    });
    assert.equal(readTwoPole(live, hot, neutral), display.step, 'two-pole tester');
    assert.equal([hot, neutral, ground].map((n) => Number(penSounds(live, n))).join(''), display.pen, 'pen');
    assert.equal(penSounds(live, hot, true), false, 'pen behind grounded metal');
    close(clampConductor(live, stop, conductor), display.clamp[0], 'clamp on the hot');
    close(clampCable(live, stop), display.clamp[1], 'clamp around the cable');
    for (const [k, [a, b]] of [
      [hot, neutral],
      [neutral, ground],
    ].entries()) {
      const reading = readOhms(dead, a!, b!);
      const expected = display.ohms[k]!;
      if (typeof expected === 'string') assert.equal(reading.shows, expected, `ohms of pair ${k}`);
      else if (reading.shows === 'ohms') close(reading.ohms, expected, `ohms of pair ${k}`);
      else assert.fail(`ohms of pair ${k}: ${reading.shows}, expected ${expected}`);
    }
    const analysis = analyze(live, slots);
    if (display.analyzer && analysis) {
      close(analysis.drop[15], display.analyzer[0], 'drop at 15 A');
      assert.equal(analysis.ground, display.analyzer[1], 'the analyzer on the ground');
    } else assert.equal(analysis, display.analyzer);
    assert.equal(testerTrip(live, stop, { at: 'breaker' }).trip, display.tester, 'ground-fault breaker');
    assert.equal(breakerButtonTrips(live), name !== 'lost leg', 'button of the breaker');
    const { amps, trip } = breakerLoad(live, 20);
    close(amps, display.breaker[0], 'breaker');
    const opens = trip.least < 0.1 ? 'instant' : trip.least < Infinity ? 'slow' : 'holds';
    assert.equal(opens, display.breaker[1], 'what the breaker does');
    const tone = withTone(dead, hot, dead.panel.ground);
    const bars = receive(tone, toneVoltages(tone), { stop: R1, conductor, where: 'box', gain: 1 });
    assert.equal(bars >= 6 ? 'strong' : 'weak', display.tone, `tone of ${bars} bars`);
  });
}

test('a device’s own button trips it with power and needs no ground; a tester needs one', () => {
  const at = (setup: Setup) => {
    const run = runOf({ devices: gfci, ...setup });
    const use = {
      amps: new Map<number, number>(),
      open: new Set(setup.open ?? []),
      dead: setup.dead ?? false,
    };
    return withFaults(wiringOf(run, use), setup.faults ?? []);
  };
  const sensor = { at: 'box', stop: R1 } as const;
  // 8 mA past the sensor: (20/8)^1.43 = 3.7 s at most.
  const sound = ownButton(at({}), R1);
  assert.equal(sound.trip, 'trips');
  close(sound.seconds, 3.7, 'seconds');
  assert.equal(testerTrip(at({}), R3, sensor).trip, 'trips');
  const ungrounded = at({ circuit: { cable: 'old two-wire' } });
  assert.equal(ownButton(ungrounded, R1).trip, 'trips');
  assert.equal(testerTrip(ungrounded, R3, sensor).trip, 'holds');
  assert.deepEqual(ownButton(at({ dead: true }), R1), {
    amps: 0,
    trip: 'holds',
    seconds: Infinity,
    powered: false,
  });
  assert.equal(isReversed(at({}), R1), false);
  assert.equal(isReversed(at({ faults: [{ kind: 'reversed', stop: R1, age: 'before-2006' }] }), R1), true);
  // A tester upstream of the device, and at 4 mA or less, does nothing.
  assert.equal(testerTrip(at({}), R3, sensor, 0.0039).trip, 'holds');
  assert.equal(testerTrip(at({}), R3, sensor, 0.005).trip, 'may trip');
});

test('a class A device opens on neutral joined to ground behind it, loaded or not, and not where no ground is', () => {
  const joined: Fault = { kind: 'short', stop: R3, conductors: ['neutral', 'ground'], ohms: 0.05 };
  const far: Fault = { ...joined, ohms: 10 };
  const trips = (setup: Setup, sensor: Parameters<typeof groundedNeutralTrips>[1]) => {
    const line = runOf(setup);
    const amps = new Map(Object.entries(setup.on ?? {}).map(([k, v]) => [Number(k), v]));
    const wiring = wiringOf(line, { amps, open: new Set() });
    return groundedNeutralTrips(withFaults(wiring, setup.faults ?? []), sensor);
  };
  const devices = { [R1]: { kind: 'gfci' as const } };
  const box = { at: 'box', stop: R1 } as const;
  const breaker = { at: 'breaker' } as const;
  assert.equal(trips({ devices }, box), false);
  assert.equal(trips({ devices, faults: [joined] }, box), true);
  assert.equal(trips({ devices, faults: [joined], on: { [R3]: 10 } }, box), true);
  assert.equal(trips({ devices, faults: [far] }, box), false, 'too far apart to be found');
  assert.equal(trips({ faults: [joined] }, breaker), true);
  // A jumper at a box whose own ground goes nowhere is joined to no ground.
  assert.equal(trips({ devices, faults: [{ kind: 'false-ground', stop: R3 }] }, box), false);
});
