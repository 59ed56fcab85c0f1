/** What is looked at, in the browser: look items on the lists, what was seen at panels and outlets, the room in a box. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { DESK, JOB, PHONE, useApp } from './support/app.ts';
import { choose, fill, press, sees, setSize } from './support/browser.ts';

const app = useApp();
type Row = { table: string; id: string; value: Record<string, unknown> };
const stored = async (table: string) =>
  (await app.rows<Row>('entities')).filter((e) => e.table === table).map((e) => e.value);
const openSummary = (start: string) =>
  app.script(
    `const s = [...document.querySelectorAll('summary')].find((e) => e.innerText.startsWith(arguments[0])); s.parentElement.open = true; s.scrollIntoView();`,
    start,
  );

test('a look goes on record with who and when; a later one stands and the earlier is kept; a reload loses none', async () => {
  await app.freshDemo();
  await setSize(app.driver, ...PHONE);
  await app.go(`${JOB}/layout/lists?list=rooms`);
  await sees(app.driver, /Looked at[\s\S]*Not judged here[\s\S]*Article 680/);
  await app.script(`localStorage.removeItem('hekto-by')`);
  await app.go(`${JOB}/layout/lists?list=rooms`);
  await sees(app.driver, /Looked at/);
  await press(app.driver, 'In order: Receptacles grip a plug');
  await sees(app.driver, /by: expected the name of who looked/);
  await fill(app.driver, 'Who looks', 'R. Sedge');
  await press(app.driver, 'Not: Receptacles grip a plug');
  await sees(app.driver, /not in order, the whole job: R\. Sedge/);
  await press(app.driver, 'In order: Receptacles grip a plug');
  await sees(app.driver, /in order, the whole job: R\. Sedge[\s\S]*1 earlier/);
  await app.go(`${JOB}/layout/lists?list=rooms`);
  await sees(app.driver, /in order, the whole job: R\. Sedge[\s\S]*1 earlier/);
  assert.equal((await stored('looks')).length, 2);
  await setSize(app.driver, ...DESK);
  await app.go(`${JOB}/hand-over`);
  await sees(app.driver, /Looked at[\s\S]*Receptacles grip a plug[\s\S]*Not judged here/);
});

test('what is seen at the panel is judged at once, by edition', async () => {
  await app.freshDemo();
  await app.go(`${JOB}/panel`);
  await sees(app.driver, /Price book/);
  await openSummary('Place, service');
  await choose(app.driver, 'Panel is', 'Replace');
  await choose(app.driver, 'Surge protection', 'No');
  await sees(app.driver, /Panel A has no surge protective device of type 1 or 2/);
  await fill(app.driver, 'Clear in front', '30');
  await sees(app.driver, /Panel A: 2' 6" clear; 3' deep in front of it is asked for/);
});

test('the room in a box follows its cables, and a box too small is written up', async () => {
  await app.freshDemo();
  await app.go(`${JOB}/layout?box=box-s1`);
  await sees(app.driver, /Room in the box: 18 in³ to hold/);
  await openSummary('Room in the box');
  await sees(app.driver, /4 conductors of 12 AWG that end or are spliced\s+4 × 2\.25 = 9 in³/);
  await fill(app.driver, 'Marked room', '16');
  await sees(app.driver, /Room in the box: 18 in³ of 16, too full/);
  await sees(app.driver, /S1: 18 in³ of 16; a box of 18 in³ takes it/);
  await choose(app.driver, 'Clamps inside', 'No');
  await sees(app.driver, /Room in the box: 15\.75 in³ of 16, 0\.25 spare/);
});
