/** Planning circuits in the browser: from outlets to runs, stopped, put in place, and taken back. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { tamarackJob } from '../demo/tamarack.ts';
import type { Box, JobDocument } from '#core/job/schema.ts';
import { DESK, JOB, PHONE, useApp } from './support/app.ts';
import { button, By, choose, css, fill, press, sees, Key } from './support/browser.ts';

/** Longest a plan of the demo house may take on a slow machine, ms. */
const PLANNING = 90000;

const app = useApp();
type Circuit = {
  jobId: string;
  table: string;
  id: string;
  value: { name: string; stops: { boxId: string }[] };
};
/** Rows of the house: the demo has calls in other houses beside it. */
const rowsIn = async (table: string) =>
  (await app.rows<Circuit>('entities')).filter((e) => e.table === table && e.jobId === 'job-tamarack');
const circuits = async () => (await rowsIn('circuits')).map((e) => e.value);
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
  await sees(app.driver, /\d\d outlets into circuits from Panel A/);
  await press(app.driver, 'Keep circuits as they are');
  await sees(app.driver, /West bedroom: exists[\s\S]*Studio receptacles: on record as proved/);
  await press(app.driver, 'Work out a plan');
  await sees(app.driver, /groups proven best, done/, 'body', PLANNING);
  await sees(app.driver, /Circuits\s+\d\d\s+\d\d[\s\S]*Cable\s+1\d\d\d ft\s+1\d\d\d ft/);
  await press(app.driver, 'Put this plan in place');
  await sees(app.driver, /Kitchen receptacles/, '.runs');
  const after = await circuits();
  const wired = after.flatMap((c) => c.stops.map((s) => s.boxId));
  assert.equal(new Set(wired).size, wired.length);
  const boxes = await rowsIn('boxes');
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

test('a new outlet joins an existing circuit where that is wanted, and the plan tells what comes with it', async () => {
  const demo = tamarackJob();
  const existing = Object.values(demo.circuits).filter((c) => c.status === 'existing');
  const wired = new Set(existing.flatMap((c) => c.stops.map((s) => s.boxId)));
  const old = Object.values(demo.boxes).filter((b) => wired.has(b.id));
  const bedroom = demo.circuits['circuit-bedroom']!;
  const model = demo.boxes['box-b1']!;
  const added: Box = {
    ...model,
    id: 'box-b9',
    name: 'B9',
    status: 'new',
    offset: model.offset + 24,
    device: demo.boxes['box-l4']!.device,
  };
  const job: JobDocument = {
    ...demo,
    boxes: Object.fromEntries(
      [...old.map((b): Box => ({ ...b, grounding: 'grounded' })), added].map((b) => [b.id, b]),
    ),
    circuits: Object.fromEntries(
      existing.map((c) => [c.id, c === bedroom ? { ...c, cable: 'NM-B' as const } : c]),
    ),
    readings: {},
    proofs: {},
    energizings: {},
    deviceTests: {},
    observations: {},
    pictures: {},
  };
  await app.bring(job);
  await app.go(`${JOB}/runs`);
  await press(app.driver, 'Plan circuits');
  await sees(app.driver, /1 outlet into circuits/);
  const extend = 'Extend existing circuits';
  await (await app.driver.findElement(By.xpath(`//label[contains(., "${extend}")]//input`))).click();
  await press(app.driver, 'Keep circuits as they are');
  await sees(app.driver, /East bedroom: exists; not extended, its cable has no ground/);
  await press(app.driver, 'Work out a plan');
  await sees(app.driver, /groups proven best, done/, 'body', PLANNING);
  await sees(app.driver, /Existing circuits extended\s+0\s+1/);
  await sees(
    app.driver,
    /West bedroom\s+15 A, 14 AWG AFCI[\s\S]*1 box added from B1; its breaker is changed/,
  );
  await press(app.driver, 'Put this plan in place');
  await app.driver.wait(
    async () => (await circuits()).some((c) => c.stops.some((s) => s.boxId === 'box-b9')),
    15000,
    'the outlet was not wired',
  );
  assert.equal((await circuits()).length, existing.length);
});
