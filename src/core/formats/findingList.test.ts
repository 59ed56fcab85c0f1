/** Findings as JSON: each kind as the hunt takes it, and what is refused, by the name of its field. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Finding } from '#core/diagnosis/hunt/evidence.ts';
import { InvalidError } from '#core/job/validate.ts';
import { findingListOf } from './findingList.ts';

const BOXES = ['R1', 'R2', 'R3'];
const read = (...findings: unknown[]) => findingListOf({ findings }, 'in', BOXES);
const NO_VOLTS = { hotNeutral: null, hotGround: null, neutralGround: null, hotHot: null };

const TAKEN: readonly (readonly [Record<string, unknown>, Finding])[] = [
  [
    { kind: 'volts', at: 'R2', hotNeutral: 112, amps: 10, free: 121 },
    {
      ...{ kind: 'volts', stop: 1, volts: { ...NO_VOLTS, hotNeutral: 112 }, reference: null },
      ...{ amps: 10, free: 121, meterOhms: 3000 },
    },
  ],
  [
    { kind: 'volts', at: 'R1', reference: 0.3, meterOhms: 1e7 },
    { kind: 'volts', stop: 0, volts: NO_VOLTS, reference: 0.3, amps: 0, free: null, meterOhms: 1e7 },
  ],
  [
    { kind: 'lamps', at: 'R1', lamps: [true, false, true] },
    { kind: 'lamps', stop: 0, lamps: [true, false, true] },
  ],
  [
    { kind: 'works', at: 'R3', does: 'bright' },
    { kind: 'works', stop: 2, does: 'bright' },
  ],
  [
    { kind: 'breaker', does: 'trips later', minutes: 9 },
    { kind: 'breaker', does: 'trips later', unplugged: false, minutes: 9, amps: null },
  ],
  [
    { kind: 'device', at: 'R2', does: 'its button does nothing' },
    { kind: 'device', stop: 1, does: 'its button does nothing' },
  ],
  [
    { kind: 'ohms', at: 'R2', pair: 'hotNeutral', ohms: null },
    { kind: 'ohms', stop: 1, pair: 'hotNeutral', ohms: Infinity },
  ],
  [
    { kind: 'insulation', at: 'R2', pair: 'hotGround', megohms: 0.2 },
    { kind: 'insulation', stop: 1, pair: 'hotGround', megohms: 0.2 },
  ],
  [
    { kind: 'state', at: 'panel', on: false },
    { kind: 'state', stop: -1, on: false },
  ],
  [
    { kind: 'live', at: 'R1', live: true },
    { kind: 'live', stop: 0, live: true },
  ],
  [
    { kind: 'counted', at: 'R1', cables: 3 },
    { kind: 'counted', stop: 0, cables: 3 },
  ],
  [
    { kind: 'opened', at: 'panel', found: ['lifted-neutral'] },
    { kind: 'opened', stop: -1, found: ['lifted-neutral'] },
  ],
  [
    { kind: 'parted', at: 'R1', amiss: 'beyond', toward: 'R3' },
    { kind: 'parted', stop: 0, amiss: 'beyond', toward: 2 },
  ],
  [
    { kind: 'parted', at: 'R1', amiss: 'before' },
    { kind: 'parted', stop: 0, amiss: 'before', toward: null },
  ],
  [
    { kind: 'legs', a: 116.1, b: 123.6, ab: 239.7, ampsA: 12 },
    {
      kind: 'legs',
      a: 116.1,
      b: 123.6,
      loaded: null,
      beside: { ab: 239.7, amps: { a: 12, b: 0 }, loadAmps: null, pipe: null },
    },
  ],
  [
    { kind: 'sign', at: 'R1', sign: 'smoke' },
    { kind: 'sign', stop: 0, sign: 'smoke' },
  ],
  [
    { kind: 'cleared', cause: 'cable R2 open-hot' },
    { kind: 'cleared', place: { at: 'cable', stop: 1 }, cause: 'open-hot' },
  ],
  [
    { kind: 'legs', a: 120, b: 119, loadedA: 118 },
    { kind: 'legs', a: 120, b: 119, loaded: null },
  ],
  [
    { kind: 'work', at: 'R2' },
    { kind: 'work', stop: 1 },
  ],
  [{ kind: 'work' }, { kind: 'work', stop: null }],
  [
    { kind: 'tone', from: 'R1', to: 'R3', conductor: 'hot', heard: false },
    { kind: 'tone', from: 0, to: 2, conductor: 'hot', heard: false },
  ],
];
test('every finding is taken as it is meant', () => {
  for (const [row, finding] of TAKEN)
    assert.deepEqual(read(row).evidence[0]!.finding, finding, JSON.stringify(row));
});

test('what was mended parts what was found before from what was found after', () => {
  const { evidence, mended } = read(
    { kind: 'shock', at: 'R1' },
    { kind: 'mended', cause: 'box R2 open-neutral' },
    { kind: 'shock', at: 'R1' },
    { kind: 'mended', cause: 'panel breaker-off' },
  );
  assert.deepEqual(mended, ['box 1 open-neutral', 'panel breaker-off']);
  assert.deepEqual(
    evidence.map((e) => e.after),
    [0, 1],
  );
});

const REFUSED: readonly (readonly [Record<string, unknown>, RegExp])[] = [
  [{ kind: 'volts', at: 'R9', hotNeutral: 1 }, /^in\.findings\[0\]\.at: “R9” is not one of R1, R2, R3/],
  [{ kind: 'volts', at: 'R1', hotNeutral: 'live' }, /findings\[0\]\.hotNeutral: expected/],
  [{ kind: 'volts', at: 'R1', free: -1 }, /findings\[0\]\.free: expected 0 or more/],
  [{ kind: 'volts', at: 'R1', wattage: 5 }, /findings\[0\]/],
  [{ kind: 'state', at: 'R1' }, /findings\[0\]\.on: expected/],
  [{ kind: 'counted', at: 'R1', cables: 0 }, /findings\[0\]\.cables: expected 1 or more/],
  [{ kind: 'live', at: 'panel', live: true }, /findings\[0\]\.at: “panel” is not one of/],
  [{ kind: 'parted', at: 'R1', amiss: 'beyond', toward: 'R7' }, /findings\[0\]\.toward: “R7”/],
  [{ kind: 'opened', at: 'R1', found: ['mice'] }, /findings\[0\]\.found/],
  [{ kind: 'mended', cause: 'box R8 open-hot' }, /findings\[0\]\.cause: expected a cause such as/],
  [{ kind: 'seen' }, /findings\[0\]\.kind/],
];
for (const [row, says] of REFUSED)
  test(`refused, by the name of the field: ${JSON.stringify(row)}`, () => {
    assert.throws(
      () => read(row),
      (e) => e instanceof InvalidError && says.test(e.message),
    );
  });
