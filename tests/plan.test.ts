/** Planning circuits in the browser: from outlets to runs, stopped, put in place, and taken back. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { DESK, JOB, PHONE, useApp } from './support/app.ts';
import { button, choose, css, fill, press, sees, Key } from './support/browser.ts';

/** Longest a plan of the demo house may take on a slow machine, ms. */
const PLANNING = 90000;

const app = useApp();
type Circuit = { table: string; id: string; value: { name: string; stops: { boxId: string }[] } };
const circuits = async () =>
  (await app.rows<Circuit>('entities')).filter((e) => e.table === 'circuits').map((e) => e.value);
const shape = async () =>
  (await circuits())
    .map((c) => `${c.name}: ${c.stops.map((s) => s.boxId).join(' ')}`)
    .sort()
    .join('\n');

test('the demo house is planned, compared, put in place, and taken back in one step', async () => {
  await app.freshDemo();
  await app.go(`${JOB}/runs`);
  const before = await shape();
  await press(app.driver, 'Plan circuits');
  await sees(app.driver, /65 outlets into circuits from Panel A/);
  await press(app.driver, 'Keep circuits as they are');
  await sees(app.driver, /West bedroom: exists[\s\S]*Studio receptacles: on record as proved/);
  await press(app.driver, 'Work out a plan');
  await sees(app.driver, /groups proven best, done/, 'body', PLANNING);
  await sees(app.driver, /Circuits\s+16\s+17[\s\S]*Cable\s+13\d\d ft\s+1\d\d\d ft/);
  await press(app.driver, 'Put this plan in place');
  await sees(app.driver, /Kitchen receptacles/, '.runs');
  const after = await circuits();
  const wired = after.flatMap((c) => c.stops.map((s) => s.boxId));
  assert.equal(new Set(wired).size, wired.length);
  const boxes = (await app.rows<Circuit>('entities')).filter((e) => e.table === 'boxes');
  assert.equal(wired.length, boxes.length, 'an outlet was left off');
  await app.driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
  await app.driver.wait(
    async () => (await shape()) === before,
    15000,
    'undo did not bring the circuits back',
  );
});

test('a long plan is stopped with the best so far; a locked circuit stays; an edit makes a plan stale', async () => {
  await app.freshDemo();
  await app.go(`${JOB}/runs`);
  await press(app.driver, 'Plan circuits');
  await press(app.driver, 'Keep circuits as they are');
  await (await css(app.driver, '[aria-label="Plan circuits"] details input[type=checkbox]')).click();
  await choose(app.driver, 'GFCI, where asked for', 'Receptacle at the first box');
  await press(app.driver, 'Work out a plan');
  await sees(app.driver, /so far/);
  await press(app.driver, 'Stop and keep the best');
  await sees(app.driver, /stopped|done/, '[aria-label="Plan circuits"]');
  const list = await sees(app.driver, /boxes/, '[aria-label="Plan circuits"] ul');
  assert.doesNotMatch(list, /Kitchen counter, sink side/);
  await fill(app.driver, 'Panel space', '39');
  await sees(app.driver, /has changed since this was planned/);
  await press(app.driver, 'Work it out again');
  await sees(app.driver, /so far/);
  await press(app.driver, 'Stop and keep the best');
  await app.size(...PHONE);
  await press(app.driver, 'Put this plan in place');
  await sees(app.driver, /Kitchen counter, sink side/, '.runs');
  await app.size(...DESK);
});

test('a job whose circuits all stay has nothing to plan', async () => {
  await app.freshStudio();
  await app.go(`${JOB}/runs`);
  await press(app.driver, 'Plan circuits');
  await sees(app.driver, /\b0 outlets into circuits/);
  assert.equal(await (await button(app.driver, 'Work out a plan')).isEnabled(), false);
  await press(app.driver, 'Close');
  await button(app.driver, 'Plan circuits');
});
