/** The panel in the browser: a house planned to a clean panel, breakers moved, load, directory, prices, subpanels. */
import assert from 'node:assert/strict';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { test } from 'node:test';
import { DESK, JOB, PHONE, useApp } from './support/app.ts';
import { button, css, field, fill, press, sees, Key } from './support/browser.ts';

/** Longest a plan of the demo house may take on a slow machine, ms. */
const PLANNING = 90000;

const app = useApp();
type Row = { table: string; id: string; value: { name: string; space: number } };
const circuit = async (id: string) =>
  (await app.rows<Row>('entities')).find((e) => e.table === 'circuits' && e.id === id)!.value;
const until = (what: string, holds: () => Promise<boolean>) => app.driver.wait(holds, 15000, what);
const open = async (query = '') => {
  await app.go(`${JOB}/panel${query}`);
  await sees(app.driver, /Price book/);
};

test('from outlets to a clean panel: planned, upgraded, mended, and nothing is left to mend', async () => {
  await app.freshDemo();
  await app.go(`${JOB}/runs`);
  await press(app.driver, 'Plan circuits');
  await press(app.driver, 'Work out a plan');
  await sees(app.driver, /groups proven best, done/, 'body', PLANNING);
  await press(app.driver, 'Put this plan in place');
  await open();
  await sees(app.driver, /108\.5 A by the existing method; the main breaker is of 100 A/, '.findings');
  await fill(app.driver, 'Bus rating', '125');
  await fill(app.driver, 'Main breaker', '125');
  await press(app.driver, 'Record the openings as closed');
  await press(app.driver, 'Record them as joined to tails');
  await press(app.driver, 'Install an AFCI breaker');
  await sees(app.driver, /\b0 violations/, '.findings');
  await sees(app.driver, /As even as moving breakers can make it|A apart: move/);
  // Every circuit stands in a space of its own, and the legs of what was planned are near one another.
  const legs = await app.script<number[]>(
    `return [...document.querySelectorAll('[data-leg]')].map((e) => parseFloat(e.innerText))`,
  );
  assert.ok(Math.abs(legs[0]! - legs[1]!) < 15, legs.join(' and '));
  assert.equal(await app.script('return document.querySelectorAll(".cell.clash").length'), 0);
});

test('a breaker is moved by keys and by drag, changes places, is refused where it cannot stand; legs follow', async () => {
  await app.freshDemo();
  await open();
  const leg = () => app.script<string>(`return document.querySelector('[data-leg=A]').innerText`);
  const before = await leg();
  await app.script(`document.querySelector('[data-breaker="Furnace"]').focus()`);
  const alt = (key: string) => app.driver.actions().keyDown(Key.ALT).sendKeys(key).keyUp(Key.ALT).perform();
  await alt(Key.ARROW_LEFT);
  await until('not swapped', async () => (await circuit('circuit-furnace')).space === 13);
  assert.equal((await circuit('circuit-boiler')).space, 14);
  await alt(Key.ARROW_DOWN);
  await sees(app.driver, /Furnace cannot go to space 15: Water heater stands there/);
  const center = (selector: string) =>
    app.script<{ x: number; y: number }>(
      `const e = document.querySelector(arguments[0]); e.scrollIntoView({ block: 'center' });
       const r = e.getBoundingClientRect(); return { x: Math.round(r.x + r.width / 2), y: Math.round(r.y + r.height / 2) };`,
      selector,
    );
  // Space 33 is free.
  const to = await center('[data-space="33"]');
  await app.script('scrollBy(0, -100)');
  const there = await app.script<{ x: number; y: number }>(
    `const r = document.querySelector('[data-space="33"]').getBoundingClientRect(); return { x: Math.round(r.x + 60), y: Math.round(r.y + 20) };`,
  );
  assert.ok(to.y > 0);
  const from = await app.script<{ x: number; y: number }>(
    `const r = document.querySelector('[data-breaker="Lights, lower level"]').getBoundingClientRect(); return { x: Math.round(r.x + 60), y: Math.round(r.y + 20) };`,
  );
  await app.driver
    .actions()
    .move(from)
    .press()
    .move({ x: from.x + 9, y: from.y + 9, duration: 100 })
    .move({ ...there, duration: 200 })
    .release()
    .perform();
  await until('not dragged', async () => (await circuit('circuit-lights-lower')).space === 33);
  await app.driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
  await until('not undone', async () => (await circuit('circuit-lights-lower')).space === 23);
  await press(app.driver, '1.5 A apart: move 1');
  await until('legs did not follow', async () => (await leg()) !== before);
  await sees(app.driver, /As even as moving breakers can make it/);
});

test('the load by each method, line by line; what if; a nameplate that is missing', async () => {
  await app.freshDemo();
  await open('?view=load');
  await sees(app.driver, /108\.5 A\s+of 100 A[\s\S]*Too much for it/);
  await press(app.driver, 'Standard');
  await sees(app.driver, /Neutral:/);
  await sees(app.driver, /164 A\s+of 100 A/);
  await press(app.driver, 'Existing house');
  const slide = (name: string, value: number) =>
    app.script(
      `const label = [...document.querySelectorAll('label')].find((l) => l.innerText.startsWith(arguments[0]));
       const input = label.querySelector('input'); input.value = arguments[1]; input.dispatchEvent(new Event('input', { bubbles: true }));`,
      name,
      value,
    );
  // 9,600 VA of kiln less, at 40 %: 26,041 − 3,840 = 22,201 VA, 92.5 A.
  await slide('kiln', 0);
  await sees(app.driver, /Then: 92\.5 A of 100 A/);
  await sees(app.driver, /Room for an EV charger\s+[1-9]/);
  await press(app.driver, 'As on record');
  await sees(app.driver, /As on record: 108\.5 A/);
  await fill(app.driver, 'Floor area, outside dimensions', '2400');
  // 616 ft² more: 1,848 VA at 40 % is 3.1 A.
  await sees(app.driver, /111\.6 A\s+of 100 A/);
  await fill(app.driver, 'Floor area, outside dimensions', '20');
  await sees(app.driver, /expected 100 to 20000/);
});

test('a name on the directory is the circuit’s name; twins and numbers are named as faults', async () => {
  await app.freshDemo();
  await open('?view=directory');
  await fill(app.driver, 'Space 3', 'Circuit 3');
  await sees(app.driver, /“Circuit 3” does not say what it feeds/);
  await press(app.driver, 'Name it “Dishwasher”');
  await until('not renamed', async () => (await circuit('circuit-dishwasher')).name === 'Dishwasher');
  await fill(app.driver, 'Space 3', 'Laundry');
  await sees(app.driver, /stands at spaces 3 and 9/);
  await app.size(...PHONE);
  await fill(app.driver, 'Space 3', 'Dishwasher under the sink counter');
  await app.go(`${JOB}/runs`);
  await sees(app.driver, /Dishwasher under the sink counter/);
  await app.size(...DESK);
});

test('the price book goes out and comes back; a bad file is named and changes nothing', async () => {
  await app.freshDemo();
  await open('?view=prices');
  await sees(app.driver, /All prices here are made up/);
  await press(app.driver, 'Export CSV');
  const files = () => readdirSync(app.downloads).filter((f) => f.endsWith('prices.csv'));
  await app.driver.wait(() => files().length === 1, 10000, 'no CSV');
  const text = readFileSync(join(app.downloads, files()[0]!), 'utf8');
  const path = join(app.folder, 'prices.csv');
  const read = async (content: string) => {
    writeFileSync(path, content);
    await (await css(app.driver, 'input[aria-label="Price book CSV"]')).sendKeys(path);
  };
  await read(text.replace('breaker-afci,each,46.00', 'breaker-afci,each,cheap'));
  await sees(app.driver, /Nothing was taken over:\s+line 13\.dollars: expected an amount/);
  await sees(app.driver, /All prices here are made up/);
  await read('item,unit,dollars\nbreaker-afci,each,39.50\n');
  await sees(app.driver, /1 prices taken over[\s\S]*|1 of 18 are the shop’s own/);
  assert.equal(await (await field(app.driver, 'Breaker, AFCI')).getAttribute('value'), '39.5');
  await press(app.driver, 'Back to made-up prices');
  await sees(app.driver, /All prices here are made up/);
});

test('a subpanel: added, undersized, mended, bonded by mistake, and removed', async () => {
  await app.freshDemo();
  await open();
  await press(app.driver, 'Add a subpanel');
  await sees(app.driver, /Panel C[\s\S]*Fed from/);
  await app.script(
    `const s = [...document.querySelectorAll('label')].find((l) => l.innerText === 'Conductor'); const e = document.getElementById(s.htmlFor); e.value = '10'; e.dispatchEvent(new Event('change', { bubbles: true }));`,
  );
  await sees(app.driver, /60 A on 10 AWG copper; at most 30 A/, '.findings');
  await press(app.driver, 'Run 6 AWG');
  await sees(app.driver, /\b0 violations/, '.findings');
  await app.script(
    `[...document.querySelectorAll('label')].find((l) => l.innerText.startsWith('Neutral joined')).click()`,
  );
  await sees(app.driver, /joined again in a subpanel/, '.findings');
  await press(app.driver, 'Take the bonding screw out');
  await sees(app.driver, /\b0 violations/, '.findings');
  await press(app.driver, 'Remove Panel C and its circuits');
  await sees(app.driver, /Legs, planning load/);
  await button(app.driver, 'Undo: Remove Panel C');
});

test('an empty job has a panel with nothing in it, and no load to speak of', async () => {
  await app.go('/');
  await (await css(app.driver, '#new-name')).sendKeys('3 Alder Lane');
  await press(app.driver, 'Start the job');
  await app.driver.wait(async () => /\/walk/.test(await app.driver.getCurrentUrl()), 15000);
  const job = /\/job\/[^/]+/.exec(await app.driver.getCurrentUrl())![0];
  await app.go(`${job}/panel`);
  await sees(app.driver, /free: filler/);
  await sees(app.driver, /\b0 violations/, '.findings');
  await app.go(`${job}/panel?view=load`);
  await sees(app.driver, /of 100 A/);
});
