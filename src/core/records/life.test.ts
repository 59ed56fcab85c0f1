/** What each kind of row shows of a box that was proved dead: both sides of every threshold, and whose circuit it is of. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { PLAIN_MEASUREMENT, PLAIN_READING } from '#core/job/document.ts';
import { chain, outlet } from '#core/job/testing.ts';
import type {
  DeviceTest,
  Entry,
  Flip,
  JobDocument,
  Measurement,
  Observation,
  Parting,
  Reading,
} from '#core/job/schema.ts';
import { signsOfLife } from './life.ts';
import { job, LATER, NOON, proved, R1 } from './proofTesting.ts';
import { validProof, whyUnproved } from './proof.ts';

const FAR = outlet('F1', 3, 20);
/** R1 proved at noon; R2 on the same circuit, F1 on another one. */
const start = (): JobDocument => {
  const made = job({ boxes: [{}, {}], others: [chain([FAR], { id: 'circuit-2', space: 3 })] });
  const boxes = { ...made.boxes, [FAR.id]: { ...FAR, areaId: made.boxes['box-r1']!.areaId } };
  const call = { id: 'call-1', procedure: 'hunt', words: '', opened: NOON, by: 'M. Alder' };
  const calls = { 'call-1': { ...call, boxId: 'box-r2', circuitId: 'circuit-1', fixtureId: null } };
  return proved({ ...made, boxes, calls });
};
const START = start();

const signed = { at: LATER, by: 'M. Alder', place: '' };
const reading = (values: Partial<Reading>): Partial<JobDocument> => ({
  readings: {
    'reading-1': {
      ...PLAIN_READING,
      ...signed,
      ...{ id: 'reading-1', boxId: 'box-r2', stage: 'as-found', instrument: 'meter' },
      ...values,
    },
  },
});
const observation = (values: Partial<Observation>): Partial<JobDocument> => ({
  observations: {
    ...START.observations,
    'observation-x': {
      ...signed,
      ...{ id: 'observation-x', boxId: 'box-r2', node: 'circuit-1.box-r2.hot', nodeName: 'black' },
      ...{ to: 'reference', toName: 'ground', quantity: 'volts', value: 120, instrument: 'two-pole tester' },
      ...{ link: '', on: [], off: [] },
      ...values,
    },
  },
});
const measurement = (values: Partial<Measurement>): Partial<JobDocument> => ({
  measurements: {
    'measurement-1': {
      ...PLAIN_MEASUREMENT,
      ...signed,
      ...{ id: 'measurement-1', boxId: 'box-r2', circuitId: 'circuit-1', instrument: 'high-impedance meter' },
      ...{ node: 'face.top.hot', nodeName: 'hot slot', to: 'face.top.neutral', toName: 'neutral slot' },
      ...{ inputOhms: 1e7, shows: 'value', value: 120, note: '' },
      ...values,
    },
  },
});
const deviceTest = (values: Partial<DeviceTest>): Partial<JobDocument> => ({
  deviceTests: {
    'test-1': {
      ...signed,
      ...{ id: 'test-1', circuitId: 'circuit-1', boxId: null, kind: 'gfci', tripped: false },
      ...{ voltsAfterTest: null, downstream: [], reset: true, voltsAfterReset: null, tester: null },
      ...{ indicator: 'none', installed: null, note: '' },
      ...values,
    },
  },
});
const flip = (values: Partial<Flip>): Partial<JobDocument> => ({
  flips: {
    'flip-1': {
      ...{ id: 'flip-1', at: LATER, by: 'M. Alder', panelId: 'panel-1', means: 'eyes' },
      ...{ off: ['9'], outlets: [], strikes: null },
      ...values,
    },
  },
});
const parting = (values: Partial<Parting>): Partial<JobDocument> => ({
  partings: {
    'parting-1': {
      ...{ id: 'parting-1', at: LATER, by: 'M. Alder', circuitId: 'circuit-1', boxId: 'box-r2', cables: 2 },
      ...{ feed: null, dead: [], live: [], strikes: null },
      ...values,
    },
  },
});
const entry = (values: Partial<Entry>): Partial<JobDocument> => ({
  entries: {
    'entry-1': {
      ...{ id: 'entry-1', callId: 'call-1', step: 'find 1', at: LATER, by: 'M. Alder', title: '', said: '' },
      ...{ touches: [], picks: [], value: null, figures: [], note: '', strikes: null },
      ...values,
    },
  },
});
const figures = (step: string, values: Record<string, number>): Partial<JobDocument> =>
  entry({ step, figures: Object.entries(values).map(([name, value]) => ({ name, value })) });

/** What is put on record after the proof, and whether it still holds. */
const CASES: [string, Partial<JobDocument>, boolean][] = [
  ['1 V at another outlet of the circuit', reading({ hotNeutral: 1 }), true],
  ['1.1 V there', reading({ hotNeutral: 1.1 }), false],
  ['hot to ground', reading({ hotGround: 2 }), false],
  ['neutral to ground', reading({ neutralGround: 2 }), false],
  ['hot to hot', reading({ hotHot: 2 }), false],
  ['its ground to a reference', reading({ groundReference: 2 }), false],
  ['no lamp', reading({ lamps: [false, false, false] }), true],
  ['a lamp', reading({ lamps: [false, false, true] }), false],
  ['a load that runs', reading({ loadAmps: 0.01 }), false],
  ['nothing at all', reading({}), true],
  ['120 V on another circuit', reading({ boxId: FAR.id, hotNeutral: 120 }), true],
  ['120 V in the box itself', reading({ boxId: 'box-r1', hotNeutral: 120 }), false],
  ['120 V at an outlet that is gone', reading({ boxId: 'box-gone', hotNeutral: 120 }), true],

  ['a conductor of the circuit at 1 V', observation({ value: 1 }), true],
  ['one at 1.1 V', observation({ value: 1.1 }), false],
  ['one of another circuit', observation({ node: 'circuit-2.box-r2.hot' }), true],
  [
    'one of another circuit, in the box',
    observation({ node: 'circuit-2.box-r2.hot', boxId: 'box-r1' }),
    false,
  ],
  ['a slot of another outlet', observation({ node: 'face.hot' }), false],
  ['the known source', observation({ node: 'known-source', on: ['circuit-1'] }), true],
  ['live, nobody says what is on', observation({ node: 'live' }), true],
  ['live, switched on', observation({ node: 'live', on: ['circuit-1'] }), false],
  ['live, another one on', observation({ node: 'live', on: ['circuit-2'] }), true],
  ['something not there', observation({ quantity: 'absent', boxId: 'box-r1' }), true],
  ['0.01 A in a hot', observation({ quantity: 'amps', value: 0.01 }), false],
  ['less', observation({ quantity: 'amps', value: 0.009 }), true],
  [
    'a current in a neutral, which has its own gate',
    observation({ quantity: 'amps', value: 2, node: 'circuit-1.box-r1.neutral', boxId: 'box-r1' }),
    true,
  ],

  ['1 V by a meter', measurement({ value: 1 }), true],
  ['1.1 V by a meter', measurement({ value: 1.1 }), false],
  ['practice', measurement({ simulated: true }), true],
  ['at the bus', measurement({ to: 'panel.bus' }), true],
  ['at the breaker’s terminal', measurement({ node: 'panel.hot', to: 'panel.neutral' }), false],
  ['by a meter elsewhere', measurement({ boxId: FAR.id, circuitId: 'circuit-2' }), true],
  ['a pen that sounds', measurement({ instrument: 'voltage pen', shows: 'sounds', value: null }), false],
  ['a silent pen', measurement({ instrument: 'voltage pen', shows: 'nothing', value: null }), true],
  [
    'a dim lamp',
    measurement({
      instrument: 'three-lamp tester',
      shows: 'lamps',
      lamps: ['dark', 'dim', 'dark'],
      value: null,
    }),
    false,
  ],
  [
    'dark lamps',
    measurement({
      instrument: 'three-lamp tester',
      shows: 'lamps',
      lamps: ['dark', 'dark', 'dark'],
      value: null,
    }),
    true,
  ],
  ['an ohmmeter that refuses', measurement({ instrument: 'ohmmeter', shows: 'live', value: null }), false],
  ['ohms', measurement({ instrument: 'ohmmeter', value: 300 }), true],
  ['a button that trips', measurement({ instrument: 'own button', shows: 'trips', value: null }), false],
  ['one that holds', measurement({ instrument: 'own button', shows: 'holds', value: null }), true],
  [
    'a clamp at the breaker',
    measurement({ instrument: 'clamp meter', node: 'panel.hot', to: null, value: 0.01 }),
    false,
  ],
  [
    'a clamp that shows less',
    measurement({ instrument: 'clamp meter', node: 'panel.hot', to: null, value: 0.009 }),
    true,
  ],
  [
    'a clamp that shows nothing',
    measurement({ instrument: 'clamp meter', node: 'panel.hot', to: null, shows: 'nothing', value: null }),
    true,
  ],
  [
    'a clamp on a neutral',
    measurement({ instrument: 'clamp meter', node: 'feed.white', to: null, value: 3 }),
    true,
  ],
  ['a drop under load', measurement({ instrument: 'loading analyzer', value: 3 }), false],
  ['no drop', measurement({ instrument: 'loading analyzer', shows: 'nothing', value: null }), true],
  ['a load that runs beside it', measurement({ value: 0, loadAmps: 0.01 }), false],

  ['a test that does nothing', deviceTest({}), true],
  ['a test that trips', deviceTest({ tripped: true }), false],
  ['one of another circuit', deviceTest({ tripped: true, circuitId: 'circuit-2' }), true],
  ['volts after it', deviceTest({ voltsAfterTest: 1.1 }), false],
  ['1 V after it', deviceTest({ voltsAfterTest: 1 }), true],
  ['volts after reset', deviceTest({ voltsAfterReset: 1.1 }), false],
  ['something that stayed live', deviceTest({ downstream: [{ boxId: 'box-r2', dead: false }] }), false],
  ['all dark', deviceTest({ downstream: [{ boxId: 'box-r2', dead: true }] }), true],
  ['a tester that tripped it', deviceTest({ tester: { milliamps: 6, seconds: 0.03 } }), false],
  ['a tester that did not', deviceTest({ tester: { milliamps: 6, seconds: null } }), true],

  ['another breaker flipped', flip({}), true],
  ['this breaker flipped', flip({ off: ['1'] }), false],
  ['this one among others', flip({ off: ['9', '1'] }), false],
  ['in another panel', flip({ off: ['1'], panelId: 'panel-2' }), true],
  ['still live after a flip', flip({ outlets: [{ boxId: 'box-r2', dead: false }] }), false],
  ['dead with a flip', flip({ outlets: [{ boxId: 'box-r1', dead: true }] }), false],
  ['an outlet elsewhere', flip({ outlets: [{ boxId: FAR.id, dead: false }] }), true],
  ['a box opened with the power on', parting({}), false],
  ['on another circuit', parting({ circuitId: 'circuit-2', boxId: FAR.id }), true],

  ['it works', entry({ step: 'seen box-r2 seen-1', picks: ['works'] }), false],
  ['live with its breaker off', entry({ step: 'seen box-r2 seen-1', picks: ['live-off'] }), false],
  ['a shock', entry({ step: 'seen box-r2 seen-1', picks: ['shock'] }), false],
  ['dead', entry({ step: 'seen box-r2 seen-1', picks: ['dead'] }), true],
  ['a light that works', entry({ step: 'state box-r2', picks: ['dim'] }), false],
  ['works elsewhere', entry({ step: `seen ${FAR.id} seen-1`, picks: ['works'] }), true],
  ['a strike of it', entry({ step: 'seen box-r2 seen-1', picks: ['works'], strikes: 'entry-0' }), true],
  ['volts of an answer', figures('find 1', { hn: 1.1 }), false],
  ['1 V of an answer', figures('find 1', { hn: 1 }), true],
  ['amperes at its breaker', figures('find 1', { amps: 0.01 }), false],
  ['less than a clamp shows', figures('find 1', { amps: 0.009 }), true],
  ['legs of the panel', figures('find 1', { a: 120, b: 121, amps: 10 }), true],
  ['a nameplate', figures('plate', { watts: 4500, volts: 240 }), true],
  ['a figure that is none', figures('count', { cables: 3 }), true],
];
for (const [what, added, holds] of CASES)
  test(`a proof ${holds ? 'holds beside' : 'ends with'}: ${what}`, () => {
    const document = { ...START, ...added };
    assert.equal(validProof(document, R1(document), LATER) !== null, holds);
    // A strike of the row brings nothing back, and what was on record before the first lock ends nothing.
    if (!holds)
      assert.match(whyUnproved(document, R1(document), LATER), /^Since the first lock something was live/);
  });

test('what was on record before the first lock ends no proof', () => {
  for (const [, added] of CASES) {
    const early = Object.fromEntries(
      Object.entries(added).map(([table, list]) => [
        table,
        Object.fromEntries(
          Object.entries(list as Record<string, { at: string }>).map(([id, row]) => [
            id,
            row.at === LATER ? { ...row, at: '2026-05-06T16:00:00Z' } : row,
          ]),
        ),
      ]),
    );
    const document: JobDocument = { ...START, ...early };
    assert.ok(validProof(document, R1(document), LATER));
  }
});

test('a sign says what showed it and where', () => {
  const words = (added: Partial<JobDocument>) =>
    [
      ...signsOfLife({ ...START, ...added }, (table) =>
        Object.values(table).filter((row) => row.at === LATER),
      ),
    ].map((s) => s.words);
  assert.deepEqual(words(reading({ hotNeutral: 119, hotGround: 121 })), ['R2: 121 V']);
  assert.deepEqual(words(reading({ lamps: [true, false, false] })), ['R2: a lamp lit']);
  assert.deepEqual(words(reading({ boxId: 'box-gone', loadAmps: 2 })), ['An outlet that is gone: 2 A']);
  assert.deepEqual(words(flip({ off: ['1'] })), ['At the panel: breaker 1 was flipped']);
  assert.deepEqual(words(observation({})), ['R2: 120 V at black']);
  assert.deepEqual(words(figures('find 1', { amps: 2 })), ['R2: 2 A']);
});

test('half of a tandem is flipped by its own name, or with the whole of its space', () => {
  const ends = (half: 'a' | 'b' | 'whole', off: string): boolean => {
    const document = { ...proved(job({ circuit: { half } })), ...flip({ off: [off] }) };
    return validProof(document, R1(document), LATER) === null;
  };
  assert.deepEqual(
    (['a', 'b', 'whole'] as const).map((half) => ['1', '1a', '1b', '2a'].map((off) => ends(half, off))),
    [
      [true, true, false, false],
      [true, false, true, false],
      [true, true, true, false],
    ],
  );
});

test('figures are of what the call is about: its outlet, or its circuit where there is none', () => {
  const ends = (boxId: string | null, circuitId: string | null): boolean => {
    const calls = { 'call-1': { ...START.calls['call-1']!, boxId, circuitId } };
    const document = { ...START, ...figures('find 1', { hn: 120 }), calls };
    return validProof(document, R1(document), LATER) === null;
  };
  assert.equal(ends('box-r2', null), true);
  assert.equal(ends(null, 'circuit-1'), true);
  assert.equal(ends(null, null), false);
  assert.equal(ends(FAR.id, 'circuit-2'), false);
});
