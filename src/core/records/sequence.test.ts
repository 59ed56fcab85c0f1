import assert from 'node:assert/strict';
import { test } from 'node:test';
import { buildRun } from '#core/circuits/run.ts';
import { breakerOf, PLAIN_READING } from '#core/job/document.ts';
import type { JobDocument, Reading } from '#core/job/schema.ts';
import { chain, house, outlet, receptacle, room } from '#core/job/testing.ts';
import {
  beforeAndAfter,
  besideNeighbor,
  heatBeside,
  pairOf,
  remarksOnPair,
} from '#core/diagnosis/besides.ts';
import { sequenceOf } from './sequence.ts';
import { judge, type Setting } from '#core/diagnosis/verdict.ts';

const area = room([400, 300, 400, 300]);
const boxes = [
  outlet('R1', 0, 20, { device: receptacle({ kind: 'gfci' }) }),
  outlet('R2', 0, 60),
  outlet('R3', 0, 100, { device: receptacle({ kind: 'single' }) }),
];
const circuit = chain(boxes, { breaker: breakerOf(20, 'afci') });
const document = house({ area, boxes, circuits: [circuit] });
const run = buildRun(document, circuit);

let count = 0;
const reading = (box: string, values: Partial<Reading> = {}): Reading => ({
  ...PLAIN_READING,
  id: `reading-${++count}`,
  boxId: `box-${box.toLowerCase()}`,
  place: box,
  at: `2026-05-06T10:${String(count).padStart(2, '0')}:00Z`,
  by: 'M. Alder',
  stage: 'as-left',
  instrument: 'meter',
  hotNeutral: 120,
  hotGround: 120,
  neutralGround: 0,
  ...values,
});
const byId = <T extends { id: string }>(list: T[]) => Object.fromEntries(list.map((r) => [r.id, r]));
const words = (d: JobDocument, done: boolean) =>
  sequenceOf(d, run)
    .filter((t) => t.done === done)
    .map((t) => `${t.stop < 0 ? 'panel' : run.stops[t.stop]!.box.name} ${t.title}`);

test('the sequence walks the run: power, both halves of a duplex, devices, and the breaker at the end', () => {
  assert.deepEqual(words(document, false), [
    'panel Power on',
    'R1 Read the top',
    'R1 Read the bottom',
    'R1 GFCI test',
    'R2 Read the top',
    'R2 Read the bottom',
    'R3 Read',
    'panel AFCI test',
  ]);
  assert.match(sequenceOf(document, run)[3]!.what, /R2, R3 must go dark.*Leave it reset/);
});

test('a step is done by its own record, and power that comes back again asks for new readings', () => {
  const energizing = (id: string, at: string) => ({
    id,
    circuitId: circuit.id,
    at,
    by: 'M. Alder',
    purpose: 'use' as const,
  });
  const one = {
    ...document,
    energizings: byId([energizing('energizing-1', '2026-05-06T09:00:00Z')]),
    readings: byId([reading('R1', { half: 'top' }), reading('R2'), reading('R3', { stage: 'as-found' })]),
  };
  assert.deepEqual(words(one, true), [
    'panel Power on',
    'R1 Read the top',
    'R2 Read the top',
    'R2 Read the bottom',
  ]);
  const again = {
    ...one,
    energizings: { ...one.energizings, ...byId([energizing('energizing-2', '2026-05-07T09:00:00Z')]) },
  };
  assert.deepEqual(words(again, true), ['panel Power on']);
});

test('a 240 V outlet asks for one reading and a load test with measured amps', () => {
  const box = outlet('K1', 0, 20, { device: receptacle({ kind: 'single', volts: '250', rating: 50 }) });
  const kiln = chain([box], { breaker: breakerOf(50, 'none', 2), neutral: false, gauge: '6' });
  const there = house({ area, boxes: [box], circuits: [kiln] });
  const tasks = sequenceOf(there, buildRun(there, kiln));
  assert.deepEqual(
    tasks.map((t) => t.title),
    ['Power on', 'Read', 'Load test'],
  );
});

test('what is wired in asks for a load test alone, and a light for nothing', () => {
  const list = [
    outlet('W1', 0, 20, { device: receptacle({ kind: 'hardwired', volts: '250', rating: 30 }) }),
    outlet('L1', 0, 60, { device: receptacle({ kind: 'light' }) }),
  ];
  const heater = chain(list, { breaker: breakerOf(25, 'none', 2), neutral: false, gauge: '10' });
  const there = house({ area, boxes: list, circuits: [heater] });
  assert.deepEqual(
    sequenceOf(there, buildRun(there, heater)).map((t) => t.title),
    ['Power on', 'Load test'],
  );
});

/** 0.333 and 0.307 Ω by hand in the instruments’ circuit; here 0.2 Ω a conductor and segment. */
const heavy = {
  ...run,
  stops: run.stops.map((s, i) => ({
    ...s,
    segment: { ...s.segment, ohms: 0.2 },
    pathOhms: 0.2 * (i + 1),
  })),
};
const setting: Setting = { run: heavy, stop: 1, grounding: 'grounded', settings: document.job.settings };

test('two readings make a resistance: 120 V, and 108 V with 10 A, are 1.2 Ω', () => {
  const pair = pairOf(
    [reading('R2'), reading('R2', { hotNeutral: 108, hotGround: 115.8, neutralGround: 7.8, loadAmps: 10 })],
    setting,
  )!;
  assert.ok(Math.abs(pair.loopOhms! - 1.2) < 1e-9);
  assert.ok(Math.abs(pair.hotOhms! - 0.42) < 1e-9);
  assert.ok(Math.abs(pair.neutralOhms! - 0.78) < 1e-9);
  assert.ok(Math.abs(pair.percent! - 10) < 1e-9);
  // Two segments out and back are 0.8 Ω; joints, contacts, breaker and source are some hundredths more.
  assert.ok(pair.plannedLoop > 0.8 && pair.plannedLoop < 0.88, `${pair.plannedLoop}`);
  const remarks = remarksOnPair(pair, document.job.settings.limits, 16).map((r) => r.title);
  assert.deepEqual(remarks, ['more resistance than the cable has', 'the neutral is worse than its fellow']);
});

test('readings of another half or stage, or with as much load, make no pair', () => {
  const loaded = reading('R2', { hotNeutral: 110, loadAmps: 10, half: 'top' });
  assert.equal(pairOf([reading('R2'), loaded], setting), null);
  assert.equal(pairOf([reading('R2', { stage: 'as-found', half: 'top' }), loaded], setting), null);
  assert.equal(pairOf([reading('R2', { half: 'top', loadAmps: 10 }), loaded], setting), null);
});

test('before and after are the last of each stage', () => {
  const list = [
    reading('R2', { stage: 'as-found', hotNeutral: 104 }),
    reading('R2', { stage: 'as-found', hotNeutral: 105 }),
    reading('R2', { hotNeutral: 119 }),
  ];
  const both = beforeAndAfter(list)!;
  assert.deepEqual([both.before.hotNeutral, both.after.hotNeutral], [105, 119]);
  assert.equal(beforeAndAfter(list.slice(0, 2)), null);
});

test('a fault begins after the last box that reads right', () => {
  const at = (stop: number, values: Partial<Reading>) => {
    const r = reading(`R${stop + 1}`, values);
    return { reading: r, verdict: judge(r, { ...setting, stop }) };
  };
  const open = { hotNeutral: 59, hotGround: 120, neutralGround: 58 };
  const sound = [at(0, {}), at(1, {}), at(2, open)];
  assert.match(besideNeighbor(heavy, sound, 2)!, /R2 reads as it should: this begins between R2 and R3/);
  assert.equal(besideNeighbor(heavy, sound, 1), null);
  assert.match(besideNeighbor(heavy, [at(0, {}), at(1, open), at(2, open)], 2)!, /R2 reads the same/);
  assert.match(
    besideNeighbor(heavy, [null, null, at(2, open)], 2)!,
    /R2, the box before, has no reading yet/,
  );
});

test('a contact that falls by 4 V more than its neighbor under one load is told by its watts, cable taken off', () => {
  const at = (stop: number, values: Partial<Reading>) => ({ reading: reading(`R${stop + 1}`, values) });
  // 0.2 Ω a conductor and segment: at R2 and R3, one segment on, 11 A take 4.4 V more.
  const neighbors = [
    null,
    at(1, { hotNeutral: 112, loadAmps: 11 }),
    at(2, { hotNeutral: 103.6, loadAmps: 11 }),
  ];
  const remark = heatBeside(heavy, neighbors, 2, 16)!;
  // 4 V over 11 A are 0.364 Ω: 93 W at 16 A.
  assert.match(remark.text, /^4 V lower under 11 A than R2 is under 11 A.*0\.36 Ω here: 93 W/);
  assert.equal(remark.level, 'danger');
  assert.equal(heatBeside(heavy, neighbors, 1, 16), null);
  const like = [null, at(1, { hotNeutral: 112, loadAmps: 11 }), at(2, { hotNeutral: 106, loadAmps: 11 })];
  assert.equal(heatBeside(heavy, like, 2, 16), null);
  assert.equal(heatBeside(heavy, [null, null, neighbors[2]!], 2, 16), null);
  const free = [null, at(1, { hotNeutral: 119, loadAmps: 0 }), at(2, { hotNeutral: 103.6, loadAmps: 11 })];
  assert.equal(heatBeside(heavy, free, 2, 16), null);
});
