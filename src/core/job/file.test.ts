import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';
import Ajv from 'ajv/dist/2020.js';
import type { JobDocument } from './schema.ts';
import { studioJob } from '../../../demo/studio.ts';
import { DEFAULT_SETTINGS } from './document.ts';
import { jobFileJsonSchema } from '#core/formats/jsonSchema.ts';
import { parseFile, serialize, toFile } from './file.ts';
import { VERSION } from './migrations.ts';
import { allStamped, IN_MEMORY } from './order.ts';
import { InvalidError } from './validate.ts';

/** As it goes out: every row of the record has its stamp. */
const demo = allStamped(studioJob(), IN_MEMORY);
const text = serialize(demo);
type Raw = Record<string, unknown>;
const changed = (change: (file: Record<string, Raw[]> & { job: Raw; version: unknown }) => void): string => {
  const file = JSON.parse(text);
  change(file);
  return JSON.stringify(file);
};

test('a job written and read again is the same', () => assert.deepEqual(parseFile(text), demo));

/** A job as the second version wrote it. */
const old = readFileSync(new URL('../../../tests/files/job-version-2.json', import.meta.url), 'utf8');

test('a version 2 file is brought up to date: counters become fixtures, nothing is lost', () => {
  const raw = JSON.parse(old);
  const read = parseFile(old);
  assert.deepEqual(
    Object.values(read.fixtures).map(({ kind, wallId, offset, width, depth }) => [
      kind,
      wallId,
      offset,
      width,
      depth,
    ]),
    [['counter', 'wall-studio-w1', 144, 120, 24]],
  );
  assert.equal(Object.keys(read.openings).length, raw.openings.length - 1);
  for (const box of raw.boxes) {
    const now = read.boxes[box.id]!;
    assert.deepEqual(
      [now.offset, now.height, now.status, now.note],
      [box.offset, box.height, box.status, box.note],
    );
    assert.equal(now.device.kind, box.device.kind);
  }
  for (const table of ['readings', 'proofs', 'energizings'] as const)
    assert.equal(Object.keys(read[table]).length, raw[table].length);
  assert.deepEqual(parseFile(serialize(read)), read);
});

test('a version 4 file is brought up to date: its readings are of whole outlets, power came back for use', () => {
  const text = readFileSync(new URL('../../../tests/files/job-version-4.json', import.meta.url), 'utf8');
  const before = JSON.parse(text) as Record<string, { id: string }[]>;
  const document = parseFile(text);
  assert.equal(Object.keys(document.readings).length, before.readings!.length);
  const reading = before.readings!.find((r) => r.id === 'reading-b2a')!;
  assert.deepEqual(document.readings['reading-b2a'], {
    ...reading,
    hotHot: null,
    groundOhms: null,
    groundReference: null,
    half: 'both',
    openBox: false,
    from: null,
    meter: 'unknown',
    stamp: document.readings['reading-b2a']!.stamp,
  });
  assert.equal(document.energizings['energizing-s1']!.purpose, 'use');
  assert.deepEqual(document.job.settings.limits, DEFAULT_SETTINGS.limits);
  assert.deepEqual(document.job.settings.tester, DEFAULT_SETTINGS.tester);
  assert.deepEqual(document.deviceTests, {});
});

test('a version 5 file is brought up to date: its feeder meets no heat and nothing beside it', () => {
  const text = readFileSync(new URL('../../../tests/files/job-version-5.json', import.meta.url), 'utf8');
  const before = JSON.parse(text) as Record<string, { id: string; feeder: object | null }[]>;
  const { panels } = parseFile(text);
  const shed = before.panels!.find((p) => p.id === 'panel-shed')!;
  assert.deepEqual(panels['panel-shed']!.feeder, {
    ...shed.feeder,
    status: 'existing',
    ambient: 30,
    bundled: 2,
  });
  assert.equal(panels['panel-a']!.feeder, null);
});

test('a version 3 file is brought up to date: breakers, neutrals and nameplates say what they always meant', () => {
  const read = (name: string) =>
    readFileSync(new URL(`../../../tests/files/${name}`, import.meta.url), 'utf8');
  const file = read('job-version-3.json');
  const before = JSON.parse(file) as Record<string, { id: string }[]>;
  const document = parseFile(file);
  for (const table of ['boxes', 'circuits', 'fixtures', 'panels', 'readings', 'proofs'] as const)
    assert.equal(Object.keys(document[table]).length, before[table]!.length, table);
  const { circuits, fixtures, panels } = document;
  const poles = (id: string) => [
    circuits[id]!.breaker.poles,
    circuits[id]!.breaker.tie,
    circuits[id]!.neutral,
  ];
  // A kiln and a water heater take two hots alone; a range receptacle has a neutral.
  assert.deepEqual(poles('circuit-kiln'), [2, 'common-trip', false]);
  assert.deepEqual(poles('circuit-heater'), [2, 'common-trip', false]);
  assert.deepEqual(poles('circuit-range'), [2, 'common-trip', true]);
  assert.deepEqual(poles('circuit-bedroom'), [1, 'none', true]);
  assert.equal(fixtures['fixture-kiln']!.nameplate!.continuous, true);
  assert.equal(fixtures['fixture-range']!.nameplate!.continuous, false);
  assert.equal(panels['panel-a']!.busRating, 100);
  assert.equal(panels['panel-a']!.bonded, true);
  const { stops } = before.circuits!.find((c) => c.id === 'circuit-bedroom') as unknown as {
    stops: object[];
  };
  assert.deepEqual(circuits['circuit-bedroom']!.stops[1], {
    ...stops[1],
    side: 'load',
    splice: 'pigtail',
    cable: null,
    hot: 'black',
    whiteMarked: 'unknown',
  });
});

test('a version 1 file is brought up to date', () => {
  const { boxes, energizings, job, ...rest } = JSON.parse(old);
  const { edition, ...oldJob } = job;
  assert.ok(energizings.length > 0);
  const older = {
    ...rest,
    version: 1,
    edition,
    job: oldJob,
    receptacles: boxes.map(({ height, fromWall, ...box }: Raw) => {
      assert.equal(fromWall, 0);
      return { ...box, heightFeet: (height as number) / 12 };
    }),
  };
  const read = parseFile(JSON.stringify(older));
  assert.deepEqual(read.boxes, parseFile(old).boxes);
  assert.equal(read.job.edition, '2020');
  assert.deepEqual(read.energizings, {});
});

const BAD: [string, string, RegExp][] = [
  ['truncated JSON', text.slice(0, 500), /file: is not complete JSON/],
  ['empty text', '', /file: is not complete JSON/],
  ['a list', '[]', /file: expected a job file/],
  ['another kind of JSON', '{"a":1}', /schema: expected “hekto-job”/],
  [
    'a later version',
    changed((f) => (f.version = VERSION + 1)),
    new RegExp(`version: is ${VERSION + 1}, made by a later Hekto`),
  ],
  ['a version that is text', changed((f) => (f.version = '2')), /version: expected a whole number/],
  [
    '__proto__ keys',
    text.replace('"address"', '"__proto__": {"x": 1}, "address"'),
    /job\.__proto__: is a key/,
  ],
  [
    'constructor keys',
    text.replace('"address"', '"constructor": 1, "address"'),
    /job\.constructor: is a key/,
  ],
  ['deep nesting', `{"a":${'['.repeat(50)}${']'.repeat(50)}}`, /nested deeper than any job file/],
  ['duplicate ids', changed((f) => f.boxes!.push(f.boxes![0]!)), /boxes\[7\]\.id: “box-b1” is there twice/],
  ['a missing table', changed((f) => delete (f as Raw).circuits), /circuits: expected a value, found none/],
  [
    'an unknown field',
    changed((f) => (f.job.color = 'red')),
    /job: has a field that does not belong here: color/,
  ],
  [
    'voltage above 300',
    changed((f) => (f.readings![0]!.hotNeutral = 480)),
    /readings\[0\]\.hotNeutral: expected 300 or less/,
  ],
  ['voltage below 0', changed((f) => (f.readings![0]!.hotNeutral = -1)), /hotNeutral: expected 0 or more/],
  ['a circuit without breaker', changed((f) => delete f.circuits![0]!.breaker), /circuits\[0\]\.breaker/],
  [
    'a number as text',
    changed((f) => (f.boxes![0]!.offset = '12')),
    /boxes\[0\]\.offset: expected a number, found “12”/,
  ],
  [
    'an opening wider than its wall',
    changed((f) => (f.openings![0]!.width = 160)),
    /openings\[opening-bedroom\]\.width: the door, 13' 4" wide, is wider than its wall/,
  ],
  [
    'an outlet in no room',
    changed((f) => (f.boxes![0]!.areaId = 'area-none')),
    /boxes\[box-b1\]\.areaId: expected the id of a room/,
  ],
  [
    'a stop fed from nowhere',
    changed((f) => ((f.circuits![0]!.stops as Raw[])[1]!.from = 'box-s4')),
    /stops\[1\]\.from: expected null/,
  ],
  [
    'an outlet that serves nothing on record',
    changed((f) => (f.boxes![0]!.serves = 'fixture-none')),
    /boxes\[box-b1\]\.serves: expected the id of a fixture/,
  ],
  [
    'a switch that controls itself',
    changed((f) => (f.boxes![0]!.controls = ['box-b1'])),
    /boxes\[box-b1\]\.controls: expected ids of other outlets/,
  ],
  [
    'a fixture past the end of its wall',
    changed((f) => (f.fixtures![0]!.offset = 900)),
    /fixtures\[fixture-bench\]\.offset: wedging bench at 75' is past the end/,
  ],
  [
    'an opening upside down',
    changed((f) => (f.openings![0]!.top = 0)),
    /openings\[opening-bedroom\]\.top: expected more than 0"/,
  ],
  [
    'an amendment without its reference',
    changed((f) =>
      f.amendments!.push({
        id: 'amendment-1',
        rule: 'gfci',
        action: 'off',
        limit: null,
        reference: '',
        note: '',
      }),
    ),
    /amendments\[0\]\.reference: expected at least 1 characters/,
  ],
  [
    'a permit day that is no day',
    changed((f) => (f.job.permitDate = '2026-13-40')),
    /job\.permitDate: expected a day such as/,
  ],
  [
    'a moment on no calendar',
    changed((f) => (f.readings![0]!.at = '2026-04-31T12:00:00Z')),
    /readings\[0\]\.at: expected a UTC time/,
  ],
  [
    'an hour that no clock has',
    changed((f) => (f.readings![0]!.at = '2026-04-30T25:00:00Z')),
    /readings\[0\]\.at: expected a UTC time/,
  ],
  ['a bad time', changed((f) => (f.readings![0]!.at = 'yesterday')), /at: expected a UTC time/],
];
for (const [what, bad, message] of BAD) {
  test(`refuses ${what}, naming the field`, () => {
    assert.throws(
      () => parseFile(bad),
      (e: unknown) => e instanceof InvalidError && message.test(e.message),
    );
  });
}

test('a file above the limit is refused before it is parsed', () => {
  assert.throws(() => parseFile(' '.repeat(49 * 1024 * 1024)), /larger than 48 MB/);
});

test('no key of a refused file reaches Object.prototype', () => {
  assert.throws(() => parseFile('{"__proto__": {"polluted": true}}'));
  assert.equal(({} as Raw).polluted, undefined);
});

test('the published JSON Schema accepts and refuses with the Yup schemas', () => {
  const validate = new Ajv({ strict: false }).compile(jobFileJsonSchema());
  assert.equal(validate(toFile(demo)), true, JSON.stringify(validate.errors));
  const schemaLevel = BAD.filter(([what]) => /missing|unknown|voltage|breaker|number|time/.test(what));
  assert.ok(schemaLevel.length >= 6);
  for (const [what, bad] of schemaLevel) assert.equal(validate(JSON.parse(bad)), false, what);
});

test('a version 6 file is brought up to date: old proofs and overrides stay on record and open nothing', () => {
  const text = readFileSync(new URL('../../../tests/files/job-version-6.json', import.meta.url), 'utf8');
  const before = JSON.parse(text) as { proofs: Record<string, Record<string, number>>[] };
  const { proofs, observations, job, panels, boxes } = parseFile(text);
  const proof = proofs['proof-s1']!;
  assert.deepEqual([proof.basis, proof.lockedOut], ['earlier-proof', ['circuit-studio']]);
  const seen = proof.observations.map((id) => observations[id]!);
  assert.deepEqual(
    seen.map((o) => [o.node, o.to, o.value]),
    [
      ['live', 'neutral', 120.4],
      ['known-source', 'known-source', 120.3],
      ['face.hot', 'face.neutral', 0],
      ['face.hot', 'face.ground', before.proofs[0]!.face!.hotGround],
      ['face.neutral', 'face.ground', 0],
      ['screws.hot', 'screws.neutral', 0],
      ['screws.hot', 'screws.ground', 0],
      ['screws.neutral', 'screws.ground', 0],
      ['known-source', 'known-source', 120.3],
    ],
  );
  assert.deepEqual(
    [proofs['proof-override-b2']!.basis, proofs['proof-override-b2']!.reason],
    ['earlier-override', 'Service cut by the utility, meter pulled'],
  );
  assert.deepEqual(job.otherSources, { asked: false, kinds: [] });
  assert.ok(Object.values(panels).every((p) => p.oneMain === 'unknown'));
  assert.ok(Object.values(boxes).every((b) => b.through.length === 0));
});

test('a version 8 file is brought up to date: its words as the trade spells them, nothing looked at yet, nothing lost', () => {
  const text = readFileSync(new URL('../../../tests/files/job-version-8.json', import.meta.url), 'utf8');
  const before = JSON.parse(text) as Record<string, Raw[]>;
  const after = parseFile(text);
  for (const table of ['areas', 'fixtures', 'boxes', 'circuits', 'panels', 'readings', 'proofs'] as const)
    assert.equal(Object.keys(after[table]).length, before[table]!.length, table);
  assert.ok(Object.values(after.circuits).some((c) => c.material === 'aluminum'));
  assert.ok(Object.values(after.panels).some((p) => p.feeder?.material === 'aluminum'));
  const found = Object.values(after.boxes).flatMap((b) => b.found ?? []);
  assert.ok(found.some((f) => f.signs.includes('aluminum')));
  const recorded = Object.values(after.boxes).flatMap((b) => b.wiring?.wiring.cables ?? []);
  assert.deepEqual(
    recorded.flatMap((cable) => cable.conductors).find((c) => c.function === 'traveler-1'),
    { id: 'gray', color: 'gray', function: 'traveler-1', gauge: null, material: 'aluminum', mark: null },
  );
  assert.ok(Object.values(after.fixtures).some((f) => f.connection === 'hardwired'));
  assert.ok(Object.values(after.boxes).some((b) => b.device.kind === 'hardwired'));
  assert.ok(Object.values(after.boxes).every((b) => b.seen.luminaire === 'unknown' && b.alsoServes === null));
  assert.ok(
    Object.values(after.panels).every((p) => p.status === 'existing' && p.service.electrodes === null),
  );
  assert.deepEqual(after.looks, {});
  assert.doesNotMatch(serialize(after), /aluminium|"colour"|traveller|hard-wired|disposer/);
});

test('a version 9 file is brought up to date: what was found in its boxes is wiring, nothing lost', () => {
  const text = readFileSync(new URL('../../../tests/files/job-version-9.json', import.meta.url), 'utf8');
  const before = JSON.parse(text) as {
    boxes: {
      id: string;
      found: { cables: number; conductors: { color: string }[]; splices: number } | null;
    }[];
  };
  const after = parseFile(text);
  const opened = before.boxes.filter((b) => b.found !== null);
  assert.ok(opened.length >= 3);
  for (const { id, found } of opened) {
    const { wiring, found: rest } = after.boxes[id]!;
    assert.equal(wiring!.stage, 'as-found');
    assert.equal(wiring!.wiring.cables.length, found!.cables);
    assert.equal(wiring!.wiring.splices.length, found!.splices);
    assert.deepEqual(
      wiring!.wiring.cables.flatMap((c) => c.conductors.map((k) => k.color)),
      found!.conductors.map((c) => c.color),
    );
    assert.ok(rest!.signs.length > 0);
  }
  assert.ok(Object.values(after.boxes).every((b) => b.device.build === 'usual' && b.school === null));
  assert.deepEqual(after.job.settings.school.joining, 'pigtail');
  assert.deepEqual(after.ticks, {});
});

test('a version 11 file is brought up to date: what was drawn is known whole and in order', () => {
  const text = readFileSync(new URL('../../../tests/files/job-version-11.json', import.meta.url), 'utf8');
  const after = parseFile(text);
  assert.ok(Object.values(after.boxes).every((b) => b.spot === '' && b.wallId !== null));
  assert.ok(Object.values(after.circuits).every((c) => c.complete === 'yes' && c.ordered === 'yes'));
});

test('a version 12 file is brought up to date: what it held was a project, looked at whole', () => {
  const text = readFileSync(new URL('../../../tests/files/job-version-12.json', import.meta.url), 'utf8');
  const after = parseFile(text);
  assert.equal(after.job.entry, 'project');
  assert.ok(Object.values(after.boxes).every((b) => b.cables === null));
  assert.ok(Object.values(after.circuits).every((c) => c.seen === 'yes' && c.mayBeFirst.length === 0));
  assert.ok(Object.values(after.panels).every((p) => p.known === 'yes'));
  assert.deepEqual([after.calls, after.entries, after.flips, after.people], [{}, {}, {}, {}]);
});

test('a version 13 file is brought up to date: no faults on record, the usual weights', () => {
  const text = readFileSync(new URL('../../../tests/files/job-version-13.json', import.meta.url), 'utf8');
  const after = parseFile(text);
  assert.deepEqual(after.faults, {});
  assert.deepEqual(after.job.settings.hunt, DEFAULT_SETTINGS.hunt);
  assert.ok(Object.keys(after.calls).length >= 0 && Object.keys(after.readings).length > 0);
});

test('what is not on the plan goes out and comes back: a room without walls, an outlet in words, a circuit known in part', () => {
  const before = demo;
  const area = { ...before.areas['area-bedroom']!, walls: [] };
  const inRoom = Object.values(before.boxes).filter((b) => b.areaId === area.id);
  const document: JobDocument = {
    ...before,
    areas: { ...before.areas, [area.id]: area },
    openings: Object.fromEntries(Object.entries(before.openings).filter(([, o]) => o.areaId !== area.id)),
    fixtures: Object.fromEntries(
      Object.entries(before.fixtures).map(([id, f]) => [
        id,
        f.areaId === area.id ? { ...f, wallId: null } : f,
      ]),
    ),
    boxes: {
      ...before.boxes,
      ...Object.fromEntries(inRoom.map((b) => [b.id, { ...b, wallId: null, spot: 'left of the bed' }])),
    },
    circuits: {
      ...before.circuits,
      'circuit-bedroom': { ...before.circuits['circuit-bedroom']!, complete: 'unknown', ordered: 'no' },
    },
  };
  assert.ok(inRoom.length > 0);
  assert.deepEqual(parseFile(serialize(document)), document);
  const wrong = { ...document, boxes: { ...document.boxes, 'box-b1': before.boxes['box-b1']! } };
  assert.throws(() => parseFile(serialize(wrong)), /boxes\[box-b1\]\.wallId: expected the id of a wall/);
});

test('rows that are none are refused by their place, in old versions too', () => {
  for (const version of [2, 3, 4, 5, 6, 7, 8, 9, 10, 11]) {
    const url = new URL(`../../../tests/files/job-version-${version}.json`, import.meta.url);
    const file = JSON.parse(readFileSync(url, 'utf8'));
    const at = file.boxes.push(null) - 1;
    assert.throws(() => parseFile(JSON.stringify(file)), new RegExp(`boxes\\[${at}\\]: expected a row`));
    file.boxes[at] = 7;
    assert.throws(() => parseFile(JSON.stringify(file)), InvalidError);
    const hollow = { ...file, boxes: [{ ...file.boxes[0], device: null }], job: null };
    assert.throws(() => parseFile(JSON.stringify(hollow)), InvalidError);
  }
});
