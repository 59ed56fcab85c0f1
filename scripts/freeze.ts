/**
 * `npm run freeze`: a file and a store of the present version, as this build writes them, with rows in every table. They are
 * what migrations of later versions are held against, and are never written again. `npm run freeze -- large` writes one of as
 * many readings as a job may have as well.
 */
import 'fake-indexeddb/auto';
import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import Dexie from 'dexie';
import { studioJob } from '../demo/studio.ts';
import { parseFile, parseFileValue, toFile, type JobFile } from '#core/job/file.ts';
import { VERSION } from '#core/job/migrations.ts';
import { isAppendOnly, TABLE_NAMES, type JobDocument } from '#core/job/schema.ts';
import { randomFrom } from '#core/planner/search/random.ts';
import { PROCEDURES } from '#core/procedures/index.ts';
import { someAnswer, Walker } from '#core/procedures/testing.ts';
import { runGuarded } from '#core/records/gates.ts';
import { commit, loadJob, redo, storeJob, undo } from '../src/lib/store/jobs.ts';
import { db } from '../src/lib/store/db.ts';

const FOLDER = 'tests/frozen';
/** Rows that every table has at least. */
const LEAST = 20;
const MANY = 100_000;
const BY = 'M. Alder';

type Row = Record<string, unknown> & { id: string };
type Raw = Record<string, unknown>;
const rowsOf = (file: Raw, table: string): Row[] => (file[table] as Row[] | undefined) ?? [];

/** A job with every id and every outlet’s name its own. */
function renamed(file: Raw, mark: string): Raw {
  const ids = TABLE_NAMES.flatMap((t) => rowsOf(file, t).map((r) => r.id)).sort(
    (a, b) => b.length - a.length,
  );
  const pattern = new RegExp(`(?<![A-Za-z0-9-])(?:${ids.join('|')})(?![A-Za-z0-9-])`, 'g');
  const text = JSON.stringify({ ...file, job: null }).replace(pattern, (id) => `${id}-${mark}`);
  const made = JSON.parse(text) as Raw;
  for (const box of rowsOf(made, 'boxes')) box.name = `${String(box.name)} ${mark}`;
  return { ...made, job: file.job };
}

/** What wrote the record: two devices by turns. */
const DEVICES = ['device-frz1', 'device-frz2'];

/** A job whose record is in one order, by its times, as two devices wrote it. */
function stamped(file: Raw): Raw {
  const all = TABLE_NAMES.filter(isAppendOnly).flatMap((t) => rowsOf(file, t));
  all.sort((a, b) => Date.parse(String(a.at)) - Date.parse(String(b.at)) || (a.id < b.id ? -1 : 1));
  const stamps = new Map(
    all.map((row, k) => [row.id, { device: DEVICES[k % 2], n: 1 + (k >> 1), clock: 1 + k }]),
  );
  const withStamp = (row: Row): Row => ({
    ...row,
    stamp: stamps.get(row.id),
    ...('had' in row ? { had: null } : {}),
  });
  return {
    ...file,
    ...Object.fromEntries(TABLE_NAMES.filter(isAppendOnly).map((t) => [t, rowsOf(file, t).map(withStamp)])),
  };
}

/** Jobs as one. */
const united = (files: readonly Raw[]): Raw => ({
  ...files[0],
  ...Object.fromEntries(TABLE_NAMES.map((t) => [t, files.flatMap((f) => rowsOf(f, t))])),
});

/** What nobody does on the studio’s own record: one row or more of each table that it leaves empty. */
function filled(file: Raw, k: number): Raw {
  const at = (minute: number) =>
    `2026-05-${String(10 + (k % 15)).padStart(2, '0')}T10:${String(minute).padStart(2, '0')}:00Z`;
  const [box, other] = rowsOf(file, 'boxes') as [Row, Row];
  const [circuit] = rowsOf(file, 'circuits') as [Row];
  const place = `${String(box.name)}, Pottery studio`;
  const signed = (id: string, minute: number) => ({ id: `${id}-f`, at: at(minute), by: BY });
  const rows: Record<string, Row[]> = {
    amendments: [
      {
        id: 'amendment-f',
        rule: 'wall-spacing',
        action: (['note', 'off', 'tighten'] as const)[k % 3],
        limit: k % 3 === 2 ? 10 : null,
        reference: `Larkmoor 12.${k}`,
        note: 'as the inspector said',
      },
    ],
    pictures: [
      {
        id: 'picture-f',
        about: { table: 'boxes', id: box.id },
        at: at(1),
        caption: `As found ${k}`,
        width: 800,
        height: 600,
      },
    ],
    deviceTests: [
      {
        ...signed('test', 2),
        circuitId: circuit.id,
        boxId: k % 2 ? null : box.id,
        place,
        kind: k % 2 ? 'afci' : 'gfci',
        tripped: true,
        voltsAfterTest: 0,
        downstream: [{ boxId: other.id, dead: k % 3 > 0 }],
        reset: true,
        voltsAfterReset: 120.5,
        tester: k % 4 ? null : { milliamps: 6, seconds: 0.03 },
        indicator: (['none', 'good', 'fault'] as const)[k % 3],
        installed: k % 2 ? '2021-03-04' : null,
        note: '',
      },
    ],
    looks: [
      {
        ...signed('look', 3),
        item: 'boxes-flush',
        about: { table: 'boxes', id: box.id },
        place,
        result: (['in-order', 'not-in-order', 'not-seen'] as const)[k % 3],
        note: '',
      },
    ],
    ticks: [
      { ...signed('tick', 4), boxId: box.id, place, step: 'sort', done: true },
      { ...signed('tick-back', 5), boxId: box.id, place, step: 'sort', done: false },
    ],
    temporaries: [
      {
        ...signed('temporary', 6),
        boxId: box.id,
        place,
        kind: k % 2 ? 'tie' : 'separated',
        ends: ['cable-1.black', 'cable-1.white'],
        names: 'black and white',
        undoes: null,
      },
      ...(k % 3
        ? [
            {
              ...signed('temporary-back', 9),
              boxId: box.id,
              place,
              kind: k % 2 ? 'tie' : 'separated',
              ends: ['cable-1.black', 'cable-1.white'],
              names: 'black and white',
              undoes: 'temporary-f',
            },
          ]
        : []),
    ],
    measurements: [
      {
        ...signed('measurement', 7),
        boxId: box.id,
        circuitId: circuit.id,
        place,
        instrument: 'high-impedance meter',
        node: 'slot hot',
        nodeName: 'hot slot',
        to: 'slot neutral',
        toName: 'neutral slot',
        stands: 'joined',
        inputOhms: 1e7,
        loadAmps: k % 4,
        gain: null,
        testVolts: null,
        testMilliamps: null,
        shows: 'value',
        value: 119.5 + k / 10,
        lamps: null,
        seconds: null,
        cleared: [],
        temporaries: k % 2 ? ['temporary-f'] : [],
        sender: '',
        simulated: k % 5 === 0,
        note: '',
        corrects: null,
      },
    ],
    people: [
      {
        id: 'person-f',
        at: at(0),
        name: k % 2 ? BY : `Helper ${k}`,
        role: (['licensed', 'apprentice', 'owner'] as const)[k % 3],
        license: k % 3 ? '' : 'L-1001',
      },
    ],
    countersigns: [{ ...signed('countersign', 8), of: `Helper ${k}`, through: at(7), note: '' }],
    flips: [
      {
        ...signed('flip', 10),
        panelId: rowsOf(file, 'panels')[0]!.id,
        means: 'helper',
        off: ['1', '2', '12a'],
        outlets: [
          { boxId: box.id, dead: true },
          { boxId: other.id, dead: false },
        ],
        strikes: null,
      },
    ],
    partings: [
      {
        ...signed('parting', 11),
        circuitId: circuit.id,
        boxId: box.id,
        cables: 2,
        feed: k % 3 === 0 ? null : 1 + (k % 2),
        dead: [other.id],
        live: [],
        strikes: null,
      },
    ],
    // On every other copy power comes back after the proof.
    energizings:
      k % 2
        ? [
            {
              ...signed('energizing', 40),
              at: '2026-06-01T10:00:00Z',
              circuitId: circuit.id,
              purpose: (['use', 'measurement', 'lock-removed'] as const)[k % 3],
            },
          ]
        : [],
    faults: [
      {
        ...signed('fault', 12),
        callId: null,
        circuitId: circuit.id,
        boxId: k % 3 ? box.id : null,
        place: k % 3 ? 'box' : 'panel',
        cause: 'open-neutral',
        found: 'Open neutral in it',
        evidence: 'Dead, then alive',
        fix: 'Remade',
        parts: '2 connectors',
        before: [],
        after: [],
        voids: rowsOf(file, 'readings')
          .slice(0, 1)
          .map((r) => r.id),
        retest: k % 2 ? 'held' : 'not yet',
        minutes: k % 2 ? 20 : null,
        age: 12,
        makeUp: 'duplex, feed-through, copper',
        strikes: null,
      },
    ],
    alterations: [
      {
        id: 'alteration-f',
        at: at(13),
        table: 'boxes',
        row: box.id,
        fields: k % 2 ? ['note'] : ['wiring', 'device'],
        ended: rowsOf(file, 'proofs')
          .slice(0, k % 2)
          .map((p) => p.id),
        danger: k % 3 ? null : '',
      },
    ],
    takings: [{ id: 'taking-f', at: at(14), heads: [{ device: DEVICES[k % 2]!, n: 1 + k }] }],
  };
  return {
    ...file,
    ...Object.fromEntries(TABLE_NAMES.map((t) => [t, [...rowsOf(file, t), ...(rows[t] ?? [])]])),
  };
}

/** A call of a procedure, walked with random answers; every third one is left half done. */
function called(id: string, seed: number): Raw {
  const random = randomFrom(seed);
  const pick = (n: number) => Math.floor(random() * n);
  const walker = new Walker(id, Date.parse('2026-05-20T14:00:00Z') + seed * 3600_000);
  const most = seed % 3 === 0 ? 6 + pick(10) : 160;
  for (let k = 0; k < most && walker.step; k++) {
    const { step } = walker;
    if (step.kind === 'dead') walker.prove(step.box.id);
    else if (step.kind === 'clamp') walker.clamp(step.box.id);
    else if (step.kind === 'power') walker.energize(step.circuit.id, step.purpose);
    else if (step.kind === 'phones') walker.answer({ picks: ['by-hand'] });
    else if (step.key === 'panel-dead')
      walker.answer({
        figures: ['before', 'a-n', 'b-n', 'a-b', 'a-g', 'b-g', 'after'].map((name) => ({
          name,
          value: name === 'before' || name === 'after' ? 120 : 0,
        })),
      });
    else for (let tries = 0; tries < 40 && walker.answer(someAnswer(step, pick)) !== null; tries++);
  }
  return toFile(walker.document);
}

/** A job on a level of another one: there may be so many levels, and no more. */
function onLevel(file: Raw, level: string): Raw {
  const [own] = rowsOf(file, 'levels') as [Row];
  return { ...(JSON.parse(JSON.stringify(file).replaceAll(own.id, level)) as Raw), levels: [] };
}

/** @throws where this build does not read what it wrote */
function whole(file: Raw): JobFile {
  const made = toFile(parseFileValue(file));
  for (const table of TABLE_NAMES)
    if (rowsOf(made, table).length < LEAST)
      throw new Error(`${table} has ${rowsOf(made, table).length} rows of ${LEAST}`);
  return made;
}

const seed = toFile(studioJob()) as Raw;
const file = whole(
  stamped(
    united([
      ...Array.from({ length: LEAST }, (_, k) => renamed(filled(seed, k), `c${k}`)),
      ...PROCEDURES.map(({ id }, k) => onLevel(renamed(called(id, k), `p${k}`), 'level-lower-c0')),
    ]),
  ),
);

/** The same job with as many readings as it may have, in few letters: it has to stay within what is read. */
const large = (): Raw => {
  const boxes = rowsOf(seed, 'boxes').map((b) => b.id);
  const plain = rowsOf(seed, 'readings')[0]!;
  return {
    ...seed,
    readings: Array.from({ length: MANY }, (_, k) => ({
      ...plain,
      id: `r-${k.toString(36)}`,
      stamp: { device: 'device-many', n: k + 1, clock: k + 1 },
      boxId: boxes[k % boxes.length],
      place: '',
      by: 'A',
      at: new Date(Date.parse('2026-01-01T00:00:00Z') + k * 60_000).toISOString().replace('.000Z', 'Z'),
      instrument: '',
      hotNeutral: 115 + (k % 100) / 10,
      hotGround: 115 + (k % 90) / 10,
      neutralGround: (k % 30) / 10,
      loadAmps: k % 13,
      note: '',
    })),
  };
};

/** The database after the job was stored, edited, undone, made again, and read at. */
async function stored(document: JobDocument): Promise<Raw> {
  const id = document.job.id;
  await storeJob(document, 'incarnation-frozen');
  let state = await loadJob(id);
  const boxes = Object.values(document.boxes).filter((b) => b.wallId !== null);
  for (let k = 0; k < LEAST; k++) {
    const { [boxes[k]!.id]: box } = state.document.boxes;
    const row = { ...box!, note: `Edited ${k}` };
    state = await commit(id, state, (d) => runGuarded(d, { type: 'put', table: 'boxes', rows: [row] }));
    if (k % 4 === 1) state = await undo(id, state);
    if (k % 8 === 1) state = await redo(id, state);
  }
  const reading = { ...Object.values(document.readings)[0]!, id: 'reading-frozen' };
  await commit(id, state, (d) => runGuarded(d, { type: 'put', table: 'readings', rows: [reading] }));
  for (const picture of Object.values(document.pictures))
    await db.pictures.put({ jobId: id, id: picture.id, blob: new Blob([`picture ${picture.id}`]) });
  const tables = Object.fromEntries(
    await Promise.all(db.tables.map(async (t) => [t.name, await t.toArray()] as const)),
  );
  const blobs = (tables.pictures as { blob: Blob }[]).map(async (p) => ({ ...p, blob: await p.blob.text() }));
  return {
    database: { name: db.name, version: db.verno },
    stores: Object.fromEntries(db.tables.map((t) => [t.name, schemaOf(t.schema)])),
    tables: { ...tables, pictures: await Promise.all(blobs) },
  };
}
const schemaOf = ({ primKey, indexes }: Dexie['tables'][number]['schema']): string =>
  [primKey.src, ...indexes.map((i) => i.src)].join(', ');

function write(name: string, value: unknown): void {
  const path = `${FOLDER}/${name}.json.gz`;
  if (existsSync(path)) throw new Error(`${path} is there: what is frozen is not written again`);
  writeFileSync(path, gzipSync(JSON.stringify(value), { level: 9 }));
  console.log(path);
}
mkdirSync(FOLDER, { recursive: true });
write(`version-${VERSION}-file`, file);
if (process.argv.includes('large')) {
  const many = large();
  // It is read as any file is, within the bytes that one may have.
  parseFile(JSON.stringify(many));
  write(`version-${VERSION}-large`, many);
}
write(`version-${VERSION}-store`, await stored(parseFileValue(file)));
