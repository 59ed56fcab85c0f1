/** Files that must be refused: a clear message that names the field, and nothing changed. */
import assert from 'node:assert/strict';
import { mkdtempSync, openSync, rmSync, ftruncateSync, closeSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';
import { studioJob } from '../demo/studio.ts';
import { serialize } from '#core/job/file.ts';
import { VERSION } from '#core/job/migrations.ts';
import { JOB, useApp } from './support/app.ts';
import { css, sees } from './support/browser.ts';

const app = useApp();
const folder = mkdtempSync(join(tmpdir(), 'hekto-files-'));
after(() => rmSync(folder, { recursive: true, force: true }));

const text = serialize(studioJob());
type Row = Record<string, unknown>;
const edited = (change: (job: Record<string, Row[]>) => void): string => {
  const job = JSON.parse(text);
  change(job);
  return JSON.stringify(job);
};

const BAD: [string, string, RegExp][] = [
  ['truncated', text.slice(0, 2000), /file\s+is not complete JSON at character 2000/],
  [
    'later version',
    text.replace(`"version": ${VERSION}`, `"version": ${VERSION + 1}`),
    /version\s+is 1?\d, made by a later Hekto/,
  ],
  ['not a job', '{"rooms": []}', /schema\s+expected “hekto-job”/],
  [
    'proto keys',
    text.replace('"areas": [', '"__proto__": {"polluted": 1}, "areas": ['),
    /__proto__\s+is a key/,
  ],
  ['duplicate ids', edited((j) => j.boxes!.push(j.boxes![0]!)), /boxes\[7\]\.id: “box-b1” is there twice/],
  ['no breaker', edited((j) => delete j.circuits![0]!.breaker), /circuits\[0\]\.breaker/],
  [
    'absurd length',
    edited((j) => ((j.areas![0]!.walls as Row[])[0]!.length = 1e9)),
    /areas\[0\]\.walls\[0\]\.length\s+expected 2400 or less/,
  ],
  [
    'negative length',
    edited((j) => ((j.areas![0]!.walls as Row[])[0]!.length = -5)),
    /walls\[0\]\.length\s+expected 1 or more, found -5/,
  ],
  [
    'wide opening',
    edited((j) => (j.openings![0]!.width = 500)),
    /openings\[opening-bedroom\]\.width\s+the door, 41' 8" wide, is wider than its wall/,
  ],
  [
    'high voltage',
    edited((j) => (j.readings![0]!.hotNeutral = 10000)),
    /readings\[0\]\.hotNeutral\s+expected 300 or less/,
  ],
];

for (const [name, content, message] of BAD) {
  test(`a job file with ${name} is refused`, async () => {
    const path = join(folder, `${name.replaceAll(' ', '-')}.json`);
    writeFileSync(path, content);
    await app.go('/');
    await (await css(app.driver, 'input[aria-label="Job file"]')).sendKeys(path);
    await sees(app.driver, /Not done; nothing was changed/);
    await sees(app.driver, message, '[role=alert]');
    assert.deepEqual(await app.rows('jobs'), []);
    assert.equal(await app.script('return ({}).polluted ?? null'), null);
  });
}

test('a 200 MB file is refused before it is read', async () => {
  const path = join(folder, 'huge.json');
  const handle = openSync(path, 'w');
  ftruncateSync(handle, 200 * 1024 * 1024);
  closeSync(handle);
  await app.go('/');
  await (await css(app.driver, 'input[aria-label="Job file"]')).sendKeys(path);
  await sees(app.driver, /file\s+is 200 MB; expected 48 MB or less/, '[role=alert]');
});

test('a room that does not close or crosses itself is taken in and not judged', async () => {
  const path = join(folder, 'open.json');
  writeFileSync(
    path,
    edited((j) => {
      (j.areas![0]!.walls as Row[])[0]!.length = 170;
      (j.areas![1]!.walls as Row[])[1]!.turn = -90;
    }),
  );
  await app.go('/');
  await (await css(app.driver, 'input[aria-label="Job file"]')).sendKeys(path);
  await sees(app.driver, /Walls/);
  await app.go(`${JOB}/layout`);
  await sees(app.driver, /West bedroom does not close/);
  await sees(app.driver, /Studio does not close|walls \d+ and \d+ of Studio cross/);
});

test('a readings CSV with wrong columns is refused, naming them', async () => {
  await app.freshDemo();
  const path = join(folder, 'wrong.csv');
  writeFileSync(path, 'where,volts\nS1,120\n');
  await app.go(`${JOB}/hand-over`);
  const before = (await app.rows('entities')).length;
  await (await css(app.driver, 'input[aria-label="Readings CSV"]')).sendKeys(path);
  await sees(app.driver, /Not imported; nothing was changed[\s\S]*column “id” is missing/);
  assert.equal((await app.rows('entities')).length, before);
});
