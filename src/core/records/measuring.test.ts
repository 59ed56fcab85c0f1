/** When a measurement may go on record, what keeps the power off, and the way out and back as CSV. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { studioJob } from '../../../demo/studio.ts';
import { measurementsFromCsv, measurementsToCsv } from '#core/formats/measurementsCsv.ts';
import { plainCsv } from '#core/formats/testing.ts';
import { PLAIN_MEASUREMENT } from '#core/job/document.ts';
import { parseFile, serialize } from '#core/job/file.ts';
import { InvalidError } from '#core/job/validate.ts';
import {
  MEASURING,
  type Energizing,
  type JobDocument,
  type Measurement,
  type Temporary,
} from '#core/job/schema.ts';
import { runGuarded } from './gates.ts';
import { powerCommand, waitsFor } from './open.ts';
import { toClear } from './measuring.ts';
import { INSTRUMENT_FACTS } from './instruments.ts';
import { provedToday } from './testing.ts';

const NOW = () => new Date().toISOString();
const measurement = (values: Partial<Measurement> = {}): Measurement => ({
  id: 'measurement-1',
  boxId: 'box-s2',
  circuitId: 'circuit-studio',
  place: 'S2, Studio',
  at: NOW(),
  by: 'M. Alder',
  instrument: 'low-impedance meter',
  node: 'face.top.hot',
  nodeName: 'hot slot, top',
  to: 'face.top.neutral',
  toName: 'neutral slot, top',
  ...PLAIN_MEASUREMENT,
  inputOhms: 3000,
  shows: 'value',
  value: 119.6,
  note: '',
  ...values,
});
const put = (document: JobDocument, row: Measurement): JobDocument =>
  runGuarded(document, { type: 'put', table: 'measurements', rows: [row] }).document;
const temporary = (values: Partial<Temporary> = {}): Temporary => ({
  id: 'temporary-1',
  boxId: 'box-s2',
  place: 'S2, Studio',
  at: NOW(),
  by: 'M. Alder',
  kind: 'tie',
  ends: ['feed.black', 'feed.white'],
  names: 'black and white of the feed',
  undoes: null,
  ...values,
});
const mark = (document: JobDocument, row: Temporary): JobDocument =>
  runGuarded(document, { type: 'put', table: 'temporaries', rows: [row] }).document;
const power = (document: JobDocument, purpose: Energizing['purpose']): JobDocument => {
  const circuit = document.circuits['circuit-studio']!;
  // A moment after what was put down just now.
  const signed = { by: 'M. Alder', at: new Date(Date.now() + 1000).toISOString() };
  const own = waitsFor(document, circuit, { ...signed, purpose });
  return runGuarded(document, powerCommand(document, circuit, purpose, signed, own)).document;
};
const refused = (work: () => unknown, message: RegExp) =>
  assert.throws(work, (error) => error instanceof InvalidError && message.test(error.message));

const job = studioJob();
const dead = provedToday(job, 'box-s2');
const ohms = { instrument: 'ohmmeter', value: 0.4 } as const;
const inside = { node: 'splice-hot', to: 'splice-neutral' } as const;
const toTake = toClear(job, job.circuits['circuit-studio']!).map((c) => c.key);
const insulation = { instrument: 'insulation tester', testVolts: 500, value: 900 } as const;

const ALLOWED: [string, JobDocument, Partial<Measurement>][] = [
  ['volts at a face with power on', job, {}],
  [
    'lamps',
    job,
    {
      instrument: 'three-lamp tester',
      node: 'face.top',
      to: null,
      shows: 'lamps',
      value: null,
      lamps: ['lit', 'dim', 'dark'],
    },
  ],
  ['ohms at the face of a proved box', dead, ohms],
  ['volts inside a proved box', dead, { ...inside, value: 0 }],
  ['insulation with all of it off', dead, { ...insulation, cleared: toTake }],
  [
    'tone with gain and sender',
    dead,
    {
      instrument: 'tone receiver',
      node: 'feed.black',
      to: null,
      gain: 4,
      sender: 'S1: black to ground',
      value: 6,
    },
  ],
  ['practice in any state', job, { ...ohms, simulated: true }],
];
for (const [what, document, values] of ALLOWED)
  test(`a measurement goes on record: ${what}`, () => {
    const row = measurement(values);
    const after = put(document, row);
    const { stamp } = after.measurements[row.id]!;
    assert.ok(stamp);
    assert.deepEqual(
      parseFile(serialize(after)).measurements,
      { [row.id]: { ...row, stamp } },
      'the file carries it',
    );
  });

const REFUSED: [string, JobDocument, Partial<Measurement>, RegExp][] = [
  ['ohms with the power on', job, ohms, /not on record as off/],
  ['a probe inside a box that is not proved', job, inside, /prove it dead, or put the power on record/],
  ['one probe', job, { to: null }, /takes two places/],
  ['both probes in one place', job, { to: 'face.top.hot' }, /two different places/],
  ['a figure that is none', job, { value: null }, /expected a figure in V/],
  ['a meter that sounds', job, { shows: 'sounds', value: null }, /does not show “sounds”/],
  [
    'tone without a gain',
    dead,
    { instrument: 'tone receiver', node: 'feed.black', to: null, sender: 'S1', value: 3 },
    /expected the gain/,
  ],
  [
    'tone without a sender',
    dead,
    { instrument: 'tone receiver', node: 'feed.black', to: null, gain: 3, value: 3 },
    /where the transmitter is/,
  ],
  [
    'insulation without its volts',
    dead,
    { ...insulation, testVolts: null, cleared: toTake },
    /the volts of the test/,
  ],
  [
    'insulation with things on',
    dead,
    insulation,
    /these come off: everything plugged in, .*GFCI receptacle at S1.*surge device/,
  ],
  [
    'insulation with one thing on',
    dead,
    { ...insulation, cleared: toTake.slice(1) },
    /these come off: everything plugged in$/,
  ],
];
for (const [what, document, values, message] of REFUSED)
  test(`a measurement is refused: ${what}`, () => refused(() => put(document, measurement(values)), message));

test('a tie keeps the power off, separated ends keep it from use, until each is undone, once', () => {
  refused(() => mark(job, temporary()), /proof of dead|Power/);
  refused(() => mark(dead, temporary({ ends: ['feed.black'] })), /two ends to tie/);
  const tied = mark(dead, temporary());
  refused(() => power(tied, 'measurement'), /still tied: black and white/);
  refused(() => power(tied, 'use'), /still tied/);
  const undone = mark(tied, temporary({ id: 'temporary-2', undoes: 'temporary-1' }));
  refused(() => mark(undone, temporary({ id: 'temporary-3', undoes: 'temporary-1' })), /one that stands/);
  power(undone, 'use');
  const apart = mark(dead, temporary({ kind: 'separated', ends: ['feed.black'] }));
  power(apart, 'measurement');
  refused(() => power(apart, 'use'), /still apart/);
});

test('measurements go out as CSV and come back the same, whatever is in their words; a second parser reads the cells', () => {
  const text = fc.string({ maxLength: 24 }).filter((t) => !/[\r\n]/.test(t));
  const rows = MEASURING.map((instrument, k): Measurement => {
    const { held, asks, shows, unit } = INSTRUMENT_FACTS[instrument];
    const figure = unit !== null;
    return measurement({
      id: `measurement-${k}`,
      instrument,
      node: held === 'face' ? 'face.top' : 'feed.black',
      to: held === 'pair' ? 'feed.white' : null,
      gain: asks.includes('gain') ? 5 : null,
      testVolts: asks.includes('volts') ? 250 : null,
      testMilliamps: asks.includes('milliamps') ? 6 : null,
      sender: asks.includes('sender') ? 'S1: black to ground' : '',
      shows: figure ? 'value' : shows[0]!,
      value: figure ? 1.5 : null,
      lamps: shows[0] === 'lamps' ? ['lit', 'dim', 'dark'] : null,
      seconds: shows.includes('trips') ? 0.03 : null,
      cleared: asks.includes('clear') ? toTake : [],
      temporaries: ['temporary-1'],
      simulated: k % 2 === 0,
    });
  });
  const byId = (list: readonly Measurement[]) => Object.fromEntries(list.map((m) => [m.id, m]));
  const all = { ...dead, measurements: byId(rows) };
  assert.deepEqual(byId(measurementsFromCsv(measurementsToCsv(all), dead)), all.measurements);
  assert.deepEqual(measurementsFromCsv(measurementsToCsv(all), all), []);
  fc.assert(
    fc.property(text, text, (note, nodeName) => {
      const row = measurement({ note, nodeName });
      const csv = measurementsToCsv({ ...job, measurements: { [row.id]: row } });
      const [head, cells] = plainCsv(csv);
      const shown = cells![head!.indexOf('note')]!;
      assert.ok((shown === note || shown === `'${note}`) && !/^[=+\-@]/.test(shown));
      assert.deepEqual(measurementsFromCsv(csv, job), [row]);
    }),
  );
  const csv = measurementsToCsv({ ...job, measurements: byId([measurement()]) });
  for (const [from, to, message] of [
    ['119.6', 'high', /line 2\.value: expected a number, found “high”/],
    [',no,', ',perhaps,', /line 2\.simulated: expected yes or no/],
    ['low-impedance meter', 'divining rod', /line 2\.instrument: expected one of/],
    ['box-s2', 'box-none', /line 2\.shows: expected an outlet of this job/],
  ] as const)
    refused(() => measurementsFromCsv(csv.replace(from, to), job), message);
});

test('a version 10 file is brought up to date: it has no measurements and nothing tied', async () => {
  const { readFileSync } = await import('node:fs');
  const text = readFileSync(new URL('../../../tests/files/job-version-10.json', import.meta.url), 'utf8');
  const after = parseFile(text);
  assert.deepEqual([after.measurements, after.temporaries], [{}, {}]);
  assert.ok(Object.keys(after.observations).length > 0);
});
