/** Which measurements of instruments a hunt goes by. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { PLAIN_MEASUREMENT } from '#core/job/document.ts';
import type { Measurement } from '#core/job/schema.ts';
import { findingsOf } from './measurements.ts';

const BASE: Measurement = {
  ...PLAIN_MEASUREMENT,
  id: 'measurement-1',
  boxId: 'box-1',
  circuitId: 'circuit-1',
  place: 'S1, Studio',
  at: '2026-06-04T14:00:00Z',
  by: 'A. Tester',
  instrument: 'ohmmeter',
  node: 'face.hot',
  nodeName: 'hot slot',
  to: 'face.ground',
  toName: 'ground slot',
  inputOhms: null,
  shows: 'value',
  value: 2,
  note: '',
};
const volts = (values: object) => ({
  hotNeutral: null,
  hotGround: null,
  neutralGround: null,
  hotHot: null,
  ...values,
});

const CASES: readonly [string, Partial<Measurement>, unknown[]][] = [
  ['ohms', {}, [{ kind: 'ohms', stop: 4, pair: 'hotGround', ohms: 2 }]],
  [
    'ohms over',
    { shows: 'over', value: null },
    [{ kind: 'ohms', stop: 4, pair: 'hotGround', ohms: Infinity }],
  ],
  ['ohms on live', { shows: 'live', value: null }, []],
  [
    'insulation in megohms',
    { instrument: 'insulation tester', value: 4e5, to: 'face.bottom.neutral' },
    [{ kind: 'insulation', stop: 4, pair: 'hotNeutral', megohms: 0.4 }],
  ],
  [
    'volts of one pair with a load on',
    {
      instrument: 'low-impedance meter',
      node: 'face.top.neutral',
      value: 3.4,
      loadAmps: 10,
      inputOhms: 4000,
    },
    [
      {
        kind: 'volts',
        stop: 4,
        volts: volts({ neutralGround: 3.4 }),
        reference: null,
        amps: 10,
        free: null,
        meterOhms: 4000,
      },
    ],
  ],
  [
    'lamps: dim is not lit',
    { instrument: 'three-lamp tester', value: null, shows: 'lamps', lamps: ['lit', 'dim', 'dark'] },
    [{ kind: 'lamps', stop: 4, lamps: [true, false, false] }],
  ],
  [
    'clamp at the breaker',
    { instrument: 'clamp meter', node: 'panel.hot', to: null, value: 11 },
    [{ kind: 'amps', amps: 11 }],
  ],
  ['clamp on a cable elsewhere', { instrument: 'clamp meter', node: 'cable.feed', to: null, value: 11 }, []],
  ['between an end and a slot', { node: 'circuit-1.box-1.hot.feed' }, []],
  ['from the practice circuit', { simulated: true }, []],
];
for (const [name, values, expected] of CASES)
  test(name, () => assert.deepEqual(findingsOf({ ...BASE, ...values }, 4), expected));
