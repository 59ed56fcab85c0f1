import { runOf } from '#core/circuits/run.ts';
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { tamarackJob } from '../../../demo/tamarack.ts';
import { studioJob } from '../../../demo/studio.ts';
import { Checker } from '#core/code/checker.ts';
import { run } from '#core/job/testing.ts';
import type { JobDocument } from '#core/job/schema.ts';
import { reportOf } from './report.ts';
import { cablesAt, stepsFor } from '#core/boxes/steps.ts';

const report = (document: JobDocument) => {
  const checker = new Checker(document);
  return reportOf(checker.view, checker.findings(), '2026-11-25', '2026-11-25T12:00:00Z');
};

test('the sheet carries circuits, open findings, judged readings and cautions', () => {
  const sheet = report(studioJob());
  assert.deepEqual(
    sheet.circuits.map((c) => [c.circuit.name, c.state]),
    [
      ['Studio receptacles', 'energized'],
      ['West bedroom', 'unproved'],
    ],
  );
  assert.ok(sheet.findings.every((f) => f.level !== 'satisfied'));
  assert.deepEqual(
    sheet.readings.map((r) => [r.reading.id, r.past, r.verdict.grade]),
    [
      ['reading-b1a', null, 'bad'],
      ['reading-b2a', null, 'bad'],
      ['reading-b3a', 'corrected', 'bad'],
      ['reading-b3b', null, 'bad'],
      ['reading-s1a', null, 'good'],
    ],
  );
  assert.match(
    sheet.cautions.join(' '),
    /B1, West bedroom; B2, West bedroom; B3, West bedroom are not those of sound wiring/,
  );
  assert.match(sheet.cautions.at(-1)!, /authority having jurisdiction/);
});

test('a GFCI at the first two-wire box brings its labels and the explanation for an inspector', () => {
  const job = studioJob();
  const b1 = job.boxes['box-b1']!;
  const fitted = {
    ...b1,
    status: 'replace' as const,
    device: { ...b1.device, kind: 'gfci' as const, tamperResistant: true },
  };
  const sheet = report(run(job, { type: 'put', table: 'boxes', rows: [fitted] }).document);
  assert.deepEqual(
    sheet.outlets.filter((o) => o.circuit === 'West bedroom').map((o) => [o.box.name, o.labels]),
    [
      ['B1', ['No Equipment Ground']],
      ['B2', ['GFCI Protected', 'No Equipment Ground']],
      ['B3', ['GFCI Protected', 'No Equipment Ground']],
    ],
  );
  assert.match(sheet.cautions[0]!, /B1, B2, B3 have no equipment ground.*406\.4\(D\)\(2\).*own test button/);
});

test('steps follow the topology: cables counted, line and load named, ground first', () => {
  const { view } = new Checker(studioJob());
  const studio = runOf(view, view.document.circuits['circuit-studio']!);
  assert.deepEqual(
    studio.stops.map((s) => cablesAt(studio, s)),
    [2, 2, 2, 1],
  );
  const first = stepsFor(studio, studio.stops[0]!).map((s) => s.text);
  assert.match(first[0]!, /the plan has 2, the feed and on to S2/);
  const order = ['all grounds', 'feed on LINE', 'White of the feed to the LINE white'].map((word) =>
    first.findIndex((t) => t.includes(word)),
  );
  assert.deepEqual(
    order,
    [...order].sort((a, b) => a - b),
  );
  assert.ok(order.every((i) => i >= 0));
  const bedroom = runOf(view, view.document.circuits['circuit-bedroom']!);
  assert.ok(
    stepsFor(bedroom, bedroom.stops[1]!).some((s) => /nothing may join it to the neutral/.test(s.text)),
  );
});

test('the sheet says what is on record of boxes that are not as planned, and what it does', () => {
  const { wirings } = report(tamarackJob());
  assert.deepEqual(
    wirings.map((w) => [w.box.name, w.recorded.stage, w.says.slice(0, 36)]),
    [
      ['B1', 'as-found', 'not simulated: its cables are not ma'],
      ['B2', 'as-found', 'not simulated: its cables are not ma'],
      ['B3', 'as-found', 'not simulated: its cables are not ma'],
      ['E3', 'as-found', 'E3: hot and neutral are reversed. Wh'],
    ],
  );
});

test('the sheet names the local amendments it was judged under', () => {
  const amended = {
    id: 'amendment-1',
    rule: 'outdoor-outlets',
    action: 'off' as const,
    limit: null,
    reference: 'Ordinance 14-3',
    note: '',
  };
  assert.deepEqual(report(studioJob()).amendments, []);
  assert.deepEqual(report({ ...studioJob(), amendments: { 'amendment-1': amended } }).amendments, [
    'GFCI for outdoor equipment without a plug, switched off (Ordinance 14-3)',
  ]);
});
