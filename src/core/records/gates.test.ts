import assert from 'node:assert/strict';
import { test } from 'node:test';
import { studioJob } from '../../../demo/studio.ts';
import { readingsFromCsv, readingsToCsv } from '#core/formats/readingsCsv.ts';
import { PLAIN_READING } from '#core/job/document.ts';
import { InvalidError } from '#core/job/validate.ts';
import { plannedBoxes } from '#core/boxes/planned.ts';
import { moved } from '#core/boxes/wiring.ts';
import { buildRun } from '#core/circuits/run.ts';
import type { BoxWiring, Energizing, JobDocument, Reading, RecordedWiring } from '#core/job/schema.ts';
import { View } from '#core/view/view.ts';
import { runGuarded } from './gates.ts';
import { powerCommand, waitsFor } from './open.ts';
import { judgeIn } from '#core/diagnosis/setting.ts';
import { draftFor, provedToday, recorded, walk } from './testing.ts';

const reading = (boxId: string, values: Partial<Reading> = {}): Reading => ({
  ...PLAIN_READING,
  id: 'reading-new',
  boxId,
  place: boxId,
  at: '2026-05-07T09:00:00Z',
  by: 'M. Alder',
  stage: 'as-left',
  instrument: 'meter',
  hotNeutral: 119.8,
  ...values,
});
const put = (document: JobDocument, row: Reading) =>
  runGuarded(document, { type: 'put', table: 'readings', rows: [row] }).document;
const energized = (circuitId: string, at: string, purpose: Energizing['purpose']): JobDocument => {
  const row: Energizing = { id: `energizing-${purpose}`, circuitId, at, by: 'M. Alder', purpose };
  return runGuarded(studioJob(), { type: 'put', table: 'energizings', rows: [row] }).document;
};

const REFUSED: [string, JobDocument, Reading, RegExp][] = [
  ['as left, power never on record', studioJob(), reading('box-b1'), /need the power put back on record/],
  [
    'as left, before the power came back',
    studioJob(),
    reading('box-s1', { at: '2026-05-06T14:00:00Z' }),
    /need the power put back on record|on record as dead/,
  ],
  [
    'as left, on for a measurement',
    energized('circuit-studio', '2026-05-07T08:00:00Z', 'measurement'),
    reading('box-s1'),
    /Power is on for a measurement/,
  ],
  [
    'as left, with the lock off',
    energized('circuit-studio', '2026-05-07T08:00:00Z', 'lock-removed'),
    reading('box-s1'),
    /need the power put back on record/,
  ],
  ['at an open box, power on for use', studioJob(), reading('box-s1', { openBox: true }), /open box/],
];
for (const [what, document, row, message] of REFUSED)
  test(`a reading is refused: ${what}`, () =>
    assert.throws(
      () => put(document, row),
      (error) => error instanceof InvalidError && message.test(error.message),
    ));

test('as-left readings go on record once power is; as-found ones always do', () => {
  assert.ok(put(studioJob(), reading('box-s1')).readings['reading-new']);
  assert.ok(put(studioJob(), reading('box-b1', { stage: 'as-found' })).readings['reading-new']);
  const measuring = energized('circuit-studio', '2026-05-07T08:00:00Z', 'measurement');
  const open = reading('box-s1', { stage: 'as-found', openBox: true });
  assert.ok(put(measuring, open).readings['reading-new']);
});

test('a CSV does not walk around the gate: the line is named, and nothing of the file is taken', () => {
  const job = studioJob();
  const forged = { ...job, readings: { ...job.readings, 'reading-new': reading('box-b1') } };
  assert.throws(
    () => readingsFromCsv(readingsToCsv(forged), job),
    /line 7\.stage[\s\S]*power put back on record/,
  );
  assert.deepEqual(
    readingsFromCsv(readingsToCsv(job), job),
    [],
    'what is on record already is left as it is',
  );
});

test('an answer goes on record with its edits, or neither does', () => {
  const job = studioJob();
  const both = {
    type: 'batch',
    label: 'Both',
    commands: [
      { type: 'edit-job', values: { name: 'Other' } },
      { type: 'put', table: 'readings', rows: [reading('box-s1')] },
    ],
  } as const;
  const { document, changes } = runGuarded(job, both as never);
  assert.equal(document.job.name, 'Other');
  assert.deepEqual(
    changes.map((c) => c.table),
    ['job', 'readings', 'alterations'],
  );
  const shut = { ...both, commands: [both.commands[0], { ...both.commands[1], rows: [reading('box-b1')] }] };
  assert.throws(() => runGuarded(job, shut as never), /As-left readings need the power/);
});

test('a reading of a circuit on record as off is judged so, and as on once power is back', () => {
  const job = provedToday(studioJob(), 'box-s1');
  const at = new Date().toISOString();
  const zero = reading('box-s2', { stage: 'as-found', at, hotNeutral: 0, hotGround: 0, neutralGround: 0 });
  assert.match(judgeIn(new View(job), zero).headline, /with the breaker on record as off/);
  const live = reading('box-s2', { stage: 'as-found', at, hotNeutral: 119 });
  assert.match(judgeIn(new View(job), live).headline, /^Live, with the breaker on record as off/);
  assert.doesNotMatch(judgeIn(new View(studioJob()), live).headline, /on record as off/);
});

test('a box done so that it is dangerous keeps its power off until it is mended under a proof, whatever it is called', () => {
  const now = new Date().toISOString();
  const clock = { device: 'device-a', now };
  const start = studioJob();
  const circuit = start.circuits['circuit-studio']!;
  const run = buildRun(start, circuit);
  const at = run.stops.findIndex((s) => s.box.id === 'box-s2');
  const planned = plannedBoxes(run)[at]!;
  const shorted = moved(planned, 'tail-hot-brass-1.b', 'device.silver-2');
  const wired = (wiring: BoxWiring | null, stage: RecordedWiring['stage']) => (d: JobDocument) =>
    runGuarded(
      d,
      {
        type: 'put',
        table: 'boxes',
        rows: [{ ...d.boxes['box-s2']!, wiring: wiring && { stage, at: now, by: 'M. Alder', wiring } }],
      },
      clock,
    ).document;
  const power = (d: JobDocument) => {
    const signed = { by: 'M. Alder', at: now };
    const own = waitsFor(d, circuit, { by: signed.by, purpose: 'use' });
    return runGuarded(d, powerCommand(d, circuit, 'use', signed, own), clock);
  };
  const done = wired(shorted, 'as-done')(start);
  assert.throws(() => power(done), /S2 is on record as done so that it is dangerous/);
  // Another name for it, or none, changes no wire.
  for (const called of [wired(shorted, 'as-found')(done), wired(null, 'as-found')(done)])
    assert.throws(() => power(called), /S2 is on record as done so that it is dangerous/);
  assert.throws(() => wired(planned, 'as-done')(done), /mended under a proof of dead/);
  const box = done.boxes['box-s2']!;
  const draft = draftFor(done, box);
  const made = recorded(done, box, draft, walk(done, box, draft), { id: 'proof-new', at: now });
  const commands = [
    { type: 'put' as const, table: 'observations' as const, rows: made.observations },
    { type: 'put' as const, table: 'proofs' as const, rows: [made.proof] },
  ];
  const proved = runGuarded(done, { type: 'batch', label: 'Proof', commands }, clock).document;
  const mended = wired(planned, 'as-done')(proved);
  assert.ok(power(mended));
});
