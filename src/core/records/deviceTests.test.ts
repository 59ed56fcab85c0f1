import assert from 'node:assert/strict';
import { test } from 'node:test';
import { buildRun } from '#core/circuits/run.ts';
import { calendarOf } from '#core/formats/calendar.ts';
import type { Circuit, DeviceTest, JobDocument } from '#core/job/schema.ts';
import { chain, house, outlet, receptacle, room } from '#core/job/testing.ts';
import {
  addMonths,
  DEAD_VOLTS,
  devicesOn,
  failuresOf,
  groundingAt,
  notesOf,
  protectedBy,
  registerOf,
} from './deviceTests.ts';

/** A GFCI second of four; the fourth leaves from its line side. */
const boxes = ['R1', 'R2', 'R3', 'R4'].map((name, i) =>
  outlet(name, 0, 20 + 40 * i, i === 1 ? { device: receptacle({ kind: 'gfci' }) } : {}),
);
const plain = chain(boxes);
const circuit = {
  ...plain,
  stops: plain.stops.map((s, i) => (i === 3 ? { ...s, from: 'box-r2', side: 'line' as const } : s)),
};
const document = house({ area: room([400, 300, 400, 300]), boxes, circuits: [circuit] });
const run = buildRun(document, circuit);
const TEST: DeviceTest = {
  id: 'test-1',
  circuitId: circuit.id,
  boxId: 'box-r2',
  place: 'R2, Room',
  at: '2026-10-31T09:00:00Z',
  by: 'M. Alder',
  kind: 'gfci',
  tripped: true,
  voltsAfterTest: 0.3,
  downstream: [{ boxId: 'box-r3', dead: true }],
  reset: true,
  voltsAfterReset: 120.1,
  tester: { milliamps: 8, seconds: 0.03 },
  indicator: 'good',
  installed: '2016-12-01',
  note: '',
};
const withTests = (...tests: DeviceTest[]): JobDocument => ({
  ...document,
  deviceTests: Object.fromEntries(tests.map((t) => [t.id, t])),
});
const stateOn = (today: string, ...tests: DeviceTest[]) =>
  registerOf(withTests(...tests), () => run, today).find((d) => d.box?.name === 'R2')!;

test('months are added within the month', () => {
  assert.equal(addMonths('2026-01-31', 1), '2026-02-28');
  assert.equal(addMonths('2024-01-31', 1), '2024-02-29');
  assert.equal(addMonths('2026-12-15', 1), '2027-01-15');
  assert.equal(addMonths('2016-02-29', 120), '2026-02-28');
});

test('what goes dark with a device is what its load side feeds', () => {
  assert.deepEqual(
    protectedBy(run, boxes[1]!).map((p) => p.name),
    ['R3'],
  );
  assert.deepEqual(
    protectedBy(run, null).map((p) => p.name),
    ['R1', 'R2', 'R3', 'R4'],
  );
});

test('the register knows age, next test and replacement', () => {
  assert.equal(stateOn('2026-11-25').state, 'never tested');
  const tested = stateOn('2026-11-25', TEST);
  assert.equal(tested.nextTest, '2026-11-30');
  assert.equal(tested.replaceBy, '2026-12-01');
  assert.equal(tested.state, 'in order');
  assert.equal(stateOn('2026-11-30', TEST).state, 'test due');
  assert.equal(stateOn('2026-12-01', TEST).state, 'replace');
  // The breaker is registered too: the chain hangs on an AFCI one.
  assert.deepEqual(
    registerOf(document, () => run, '2026-11-25').map((d) => [d.box?.name ?? 'breaker', d.kind]),
    [
      ['breaker', 'afci'],
      ['R2', 'gfci'],
    ],
  );
});

const FAILURES: [string, Partial<DeviceTest>, RegExp][] = [
  ['no trip', { tripped: false }, /did not trip by its own button/],
  ['volts after it tripped', { voltsAfterTest: 119 }, /119 V still there/],
  ['downstream live', { downstream: [{ boxId: 'box-r3', dead: false }] }, /1 of 1 downstream stayed live/],
  ['no reset', { reset: false }, /does not reset/],
  ['no trip at 8 mA', { tester: { milliamps: 8, seconds: null } }, /did not trip at 8 mA/],
  ['a bad indicator', { indicator: 'fault' }, /indicator/],
];
for (const [what, values, message] of FAILURES) {
  test(`a device is defective by ${what}`, () => {
    assert.match(failuresOf({ ...TEST, ...values }, 'grounded').join(), message);
    assert.equal(stateOn('2026-11-25', { ...TEST, ...values }).state, 'defective');
  });
}
test('a device that holds at 4 mA is sound', () => {
  assert.deepEqual(failuresOf({ ...TEST, tester: { milliamps: 4, seconds: null } }, 'grounded'), []);
  const held = { ...TEST, tester: { milliamps: 6, seconds: null } };
  assert.equal(failuresOf(held, 'grounded').length, 1);
  assert.deepEqual(failuresOf(held, 'none'), [], 'a tester trips nothing without a ground');
  assert.match(notesOf(held, 'none').join(), /only its own button counts, 406\.4\(D\)\(2\)/);
  assert.match(notesOf(held, 'unknown').join(), /not on record/);
  assert.deepEqual(notesOf(held, 'grounded'), []);
});

/** A second, small reader of RFC 5545: unfolds lines and takes name and value. */
function plainEvents(text: string): Record<string, string>[] {
  const lines = text.replace(/\r\n[ \t]/g, '').split('\r\n');
  const events: Record<string, string>[] = [];
  for (const line of lines) {
    if (line === 'BEGIN:VEVENT') events.push({});
    const [name, ...value] = line.split(':');
    if (events.length > 0) events.at(-1)![name!.split(';')[0]!] ??= value.join(':');
  }
  return events;
}

test('the calendar has a monthly test and a replacement of each device', () => {
  const job = withTests(TEST);
  const text = calendarOf(
    job,
    registerOf(job, () => run, '2026-11-25'),
    '2026-11-25T15:04:05Z',
  );
  assert.ok(
    text.endsWith('END:VCALENDAR\r\n') &&
      text.split('\r\n').every((l) => new TextEncoder().encode(l).length <= 75),
  );
  const events = plainEvents(text);
  assert.deepEqual(
    events.map((e) => [e.SUMMARY, e.DTSTART, e.RRULE ?? '']),
    [
      // Never tested: from today.
      ['Test AFCI breaker\\, space 1\\, Circuit 1', '20261125', 'FREQ=MONTHLY'],
      ['Test GFCI R2', '20261130', 'FREQ=MONTHLY'],
      ['Replace GFCI R2', '20261201', ''],
    ],
  );
  assert.equal(events[0]!.DTSTAMP, '20261125T150405Z');
  assert.equal(new Set(events.map((e) => e.UID)).size, 3);
});

test('a device that trips leaves little enough on its load side, to the tenth of a volt', () => {
  const left = (voltsAfterTest: number) => failuresOf({ ...TEST, voltsAfterTest }, 'grounded');
  assert.deepEqual(left(DEAD_VOLTS), []);
  assert.deepEqual(left(DEAD_VOLTS + 0.1), [`${DEAD_VOLTS + 0.1} V still there after it tripped`]);
  // One that did not trip has its own failure; what is left there says nothing more.
  assert.deepEqual(failuresOf({ ...TEST, tripped: false, voltsAfterTest: 120 }, 'grounded'), [
    'did not trip by its own button',
  ]);
});

test('a breaker has a line for each protection that it gives', () => {
  const kinds = (protection: Circuit['breaker']['protection']) =>
    devicesOn(
      document,
      { ...run, circuit: { ...circuit, breaker: { ...circuit.breaker, protection } } },
      '2026-11-25',
    )
      .filter((d) => d.box === null)
      .map((d) => d.kind);
  assert.deepEqual(kinds('none'), []);
  assert.deepEqual(kinds('gfci'), ['gfci']);
  assert.deepEqual(kinds('afci'), ['afci']);
  assert.deepEqual(kinds('dual'), ['gfci', 'afci']);
});

test('the ground that a tester needs is that of the box, or of the cable where the device is the breaker', () => {
  assert.equal(groundingAt(circuit, { ...boxes[0]!, grounding: 'none' }), 'none');
  assert.equal(groundingAt({ ...circuit, cable: 'old two-wire' }, null), 'none');
  assert.equal(groundingAt({ ...circuit, cable: 'NM-B' }, null), 'grounded');
});

test('the line side of the first device of a run stays live too', () => {
  const first = boxes.map((b, i) => (i === 0 ? { ...b, device: receptacle({ kind: 'gfci' }) } : b));
  const lined = {
    ...plain,
    stops: plain.stops.map((s, i) => (i === 1 ? { ...s, side: 'line' as const } : s)),
  };
  const made = buildRun(house({ area: room([400, 300, 400, 300]), boxes: first, circuits: [lined] }), lined);
  assert.deepEqual(protectedBy(made, first[0]!), []);
  assert.equal(protectedBy(made, null).length, 4);
});

test('tests of another circuit’s breaker, and of the other kind, are not those of this one', () => {
  const others = [
    { ...TEST, id: 'test-2', boxId: null, circuitId: 'circuit-other', kind: 'afci' as const },
    { ...TEST, id: 'test-3', boxId: null, circuitId: circuit.id, kind: 'gfci' as const },
    { ...TEST, id: 'test-4', boxId: null, circuitId: circuit.id, kind: 'afci' as const },
  ];
  const [breaker, receptacleDevice] = devicesOn(withTests(...others, TEST), run, '2026-11-25');
  assert.deepEqual(
    breaker!.tests.map((t) => t.id),
    ['test-4'],
  );
  assert.deepEqual(
    receptacleDevice!.tests.map((t) => t.id),
    ['test-1'],
  );
  assert.notEqual(breaker!.key, receptacleDevice!.key);
});
