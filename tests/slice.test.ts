/** The whole slice, from typed walls to the printed sheet, by keyboard and by mouse. */
import assert from 'node:assert/strict';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { test } from 'node:test';
import { studioJob } from '../demo/studio.ts';
import { parseFile, serialize } from '#core/job/file.ts';
import { runGuarded } from '#core/records/gates.ts';
import { DESK, JOB, PHONE, useApp } from './support/app.ts';
import { By, button, choose, css, field, fill, Key, keys, press, sees } from './support/browser.ts';
import { tap, tapThrough } from './support/proof.ts';

const app = useApp();

const reached = (words: RegExp) => sees(app.driver, words);
const wallsTyped = async (...walls: string[]) => {
  for (const wall of walls) {
    const next = await field(app.driver, 'Next wall');
    await next.sendKeys(wall, Key.ENTER);
    await app.driver.wait(
      async () => (await next.getAttribute('value')) === '',
      15000,
      `“${wall}” was not taken`,
    );
  }
};

test('a job from nothing: two questions, an L-shaped room by typing, one key to place, a circuit, a reading, a sheet', async () => {
  await app.freshStudio();
  await app.go('/');
  await (await css(app.driver, '#new-name')).sendKeys('9 Fern Row');
  await choose(app.driver, 'Which edition', 'NEC 2023');
  await press(app.driver, 'Start the job');
  await reached(/No walls on this level yet/);

  await press(app.driver, 'Add room');
  await fill(app.driver, 'Name', 'Den');
  await choose(app.driver, 'Kind', 'Den or study');
  await wallsTyped('20', `14'`, '8-0', '4-6 L', '12');
  await reached(/Not closed: 9' 6" to go/);
  await wallsTyped('9-6');
  await reached(/Closes within 0" · 226 ft² of floor/);

  await press(app.driver, 'Doors');
  await choose(app.driver, 'On', 'Wall 6');
  await (await field(app.driver, 'From wall start, width')).sendKeys(`2', 32`, Key.ENTER);
  await reached(/Door on wall 6/);

  await keys(app.driver, Key.ESCAPE);
  await app.script('document.activeElement.blur()');
  await app.driver.actions().keyDown(Key.ALT).sendKeys('2').keyUp(Key.ALT).perform();
  await reached(/out of reach/);
  await keys(app.driver, 'p');
  const placed = await reached(/Placed \d+/);
  const count = Number(/Placed (\d+)/.exec(placed)![1]);
  // 66 ft of floor line, a 32 in. door: 760 in. of wall need six at 12 ft each.
  assert.equal(count, 6);
  assert.doesNotMatch(
    await app.script<string>('return document.querySelector(".findings").innerText'),
    /210\.52\(A\)/,
  );

  await app.driver.actions().keyDown(Key.ALT).sendKeys('3').keyUp(Key.ALT).perform();
  await reached(/No circuits yet/);
  await press(app.driver, 'Add circuit');
  await press(app.driver, 'Put all 6 on Spare 1');
  await reached(/AFCI/);
  const run = await css(app.driver, '.run svg');
  assert.match((await run.getAttribute('aria-label'))!, /6 boxes/);
  await reached(/0 violations/);

  await app.driver.actions().keyDown(Key.ALT).sendKeys('6').keyUp(Key.ALT).perform();
  await press(app.driver, 'change');
  await fill(app.driver, 'Done by', 'K. Rowan');
  await press(app.driver, 'hot–neutral');
  await press(app.driver, 'hot–ground');
  await fill(app.driver, 'Hot–neutral', '119.6');
  await fill(app.driver, 'Hot–ground', '119.5');
  await fill(app.driver, 'Neutral–ground', '0.1');
  await reached(/✓ Reads correct[\s\S]*cannot see a false ground/);
  await press(app.driver, 'Log at D1');
  await reached(/As found: lamps ● ● ○/);

  await app.driver.actions().keyDown(Key.ALT).sendKeys('8').keyUp(Key.ALT).perform();
  const sheet = await sees(app.driver, /K\. Rowan/, 'article');
  assert.match(sheet, /9 Fern Row[\s\S]*NEC 2023[\s\S]*Den receptacles[\s\S]*D1, Den[\s\S]*119\.6 V/);
});

test('arrow keys move an outlet by an inch and by a foot, findings follow, undo says what and takes it back', async () => {
  await app.freshStudio();
  const outlet = await css(app.driver, '[data-box=S4]');
  await app.script('arguments[0].focus()', outlet);
  assert.match((await outlet.getAttribute('aria-label'))!, /wall 3 at 8' 1 7\/8"/);
  const worst = () =>
    app.script<string>(
      `for (const d of document.querySelectorAll('.findings details')) d.open = true;
       return document.querySelector('.findings').innerText`,
    );
  const before = await worst();
  await keys(app.driver, Key.ARROW_RIGHT);
  await app.driver.actions().keyDown(Key.SHIFT).sendKeys(Key.ARROW_RIGHT).keyUp(Key.SHIFT).perform();
  await app.driver.wait(async () => /9' 2 7\/8"/.test((await outlet.getAttribute('aria-label'))!), 15000);
  await app.driver.wait(async () => (await worst()) !== before, 15000, 'findings did not follow');
  await button(app.driver, 'Undo: Move S4');
  await app.driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
  await app.driver.wait(async () => /8' 1 7\/8"/.test((await outlet.getAttribute('aria-label'))!), 15000);
  await button(app.driver, 'Redo: Move S4');
  await app.driver.wait(async () => (await worst()) === before, 15000, 'findings did not come back');
});

test('an outlet is dragged along the wall and around the corner with the mouse', async () => {
  await app.freshStudio();
  const outlet = await css(app.driver, '[data-box=S3]');
  const corner = await app.script<{ x: number; y: number }>(
    `const r = document.querySelector('[data-box=S3] .body').getBoundingClientRect(); return { x: r.x + r.width / 2, y: r.y + r.height / 2 };`,
  );
  await app.driver
    .actions()
    .move({ x: Math.round(corner.x), y: Math.round(corner.y) })
    .press()
    .move({ x: Math.round(corner.x - 40), y: Math.round(corner.y), duration: 100 })
    .move({ x: Math.round(corner.x - 110), y: Math.round(corner.y + 60), duration: 200 })
    .release()
    .perform();
  await button(app.driver, 'Undo: Move S3');
  assert.match((await outlet.getAttribute('aria-label'))!, /wall 6/);
  const stored = await app.rows<{ id: string; value: { wallId: string } }>('entities');
  assert.equal(stored.find((e) => e.id === 'box-s3')!.value.wallId, 'wall-studio-w6');
});

test('the edition switch changes what is asked for', async () => {
  await app.freshStudio();
  await app.script('arguments[0].focus()', await css(app.driver, '[data-box=S3]'));
  await sees(app.driver, /GFCI\s*✓ by GFCI receptacle at S1/);
  await press(app.driver, '2017');
  await sees(app.driver, /is not in the list of 2017/);
  await press(app.driver, '2023');
  await sees(app.driver, /every receptacle in a finished basement room \(2023\)/);
});

test('a fix is applied with one press and undone with one', async () => {
  await app.freshStudio();
  await sees(app.driver, /3 in West bedroom · Receptacle without an equipment ground\s+B1, B2, B3/);
  await press(app.driver, 'All 3: install a GFCI receptacle');
  await app.driver.wait(
    async () =>
      !/Receptacle without an equipment ground/.test(
        await app.script<string>('return document.querySelector(".findings").innerText'),
      ),
    15000,
    'they are still listed',
  );
  await press(app.driver, 'Undo: Install a GFCI receptacle at B1');
  await sees(app.driver, /3 in West bedroom · Receptacle without an equipment ground/);
});

const stopOrder = () =>
  app.script<string>(
    `return [...document.querySelectorAll('[data-circuit=circuit-studio] [data-stop]')].map((s) => s.dataset.stop).join(' ')`,
  );

test('stops are reordered and moved between circuits by keyboard and by drag', async () => {
  await app.freshStudio();
  await app.go(`${JOB}/runs`);
  await sees(app.driver, /Equipment ground/);
  await app.script('document.querySelector("[data-stop=S2]").focus()');
  await app.driver.actions().keyDown(Key.ALT).sendKeys(Key.ARROW_RIGHT).keyUp(Key.ALT).perform();
  await app.driver.wait(async () => (await stopOrder()) === 'S1 S3 S2 S4', 15000);
  // The first box carries the GFCI: put second, the one before it is no longer protected.
  await app.driver.wait(
    async () => (await app.script<string | null>('return document.activeElement.dataset.stop')) === 'S2',
    15000,
  );
  await app.script('document.querySelector("[data-stop=S1]").focus()');
  await app.driver.actions().keyDown(Key.ALT).sendKeys(Key.ARROW_RIGHT).keyUp(Key.ALT).perform();
  await app.driver.wait(async () => (await stopOrder()) === 'S3 S1 S2 S4', 15000);
  await sees(app.driver, /S3 needs GFCI protection/);
  await app.driver.wait(
    async () => (await app.script<string | null>('return document.activeElement.dataset.stop')) === 'S1',
    15000,
  );
  await app.driver.actions().keyDown(Key.ALT).sendKeys(Key.ARROW_DOWN).keyUp(Key.ALT).perform();
  await app.driver.wait(async () => (await stopOrder()) === 'S3 S2 S4', 15000);

  const center = (selector: string) =>
    app.script<{ x: number; y: number }>(
      `const e = document.querySelector(arguments[0]); e.scrollIntoView({ block: 'center' });
       const r = e.getBoundingClientRect(); return { x: Math.round(r.x + r.width / 2), y: Math.round(r.y + r.height / 2) };`,
      selector,
    );
  await app.script('scrollTo(0, 0)');
  const from = await center('[data-stop=S4] .body');
  await app.driver
    .actions()
    .move(from)
    .press()
    .move({ x: from.x - 60, y: from.y, duration: 100 })
    .move({ x: 145, y: from.y, duration: 200 })
    .release()
    .perform();
  await app.driver.wait(async () => (await stopOrder()) === 'S4 S3 S2', 15000, await stopOrder());
  await button(app.driver, 'Undo: Put S4 on Studio receptacles');
});

test('a measured length takes the place of the planned one, and drop follows', async () => {
  await app.freshStudio();
  await app.go(`${JOB}/runs`);
  await (await css(app.driver, '[data-stop=S1]')).click();
  const before = await sees(app.driver, /Drop at S4, 16 A there\s+5\.6 V · 4\.6 %/);
  assert.match(before, /by plan 20' 8 1\/8": 1\.5 \+ 12\.2 ft through framing \+ 7\.0 ft/);
  await fill(app.driver, 'Cable from the panel, measured', '10');
  // 89.99 ft less 20.68, and 10 ft: 79.31 ft × 1.93 Ω/1000 × 2 × 16 A = 4.90 V.
  await sees(app.driver, /Drop at S4, 16 A there\s+4\.9 V · 4\.1 %/);
  await press(app.driver, 'Show the working');
  await sees(app.driver, /12 AWG copper, 60 °C column: 20 A ≥ 16 A/);
});

test('phone: steps in a box stay locked until it is proved dead; power back voids it; a reading is corrected', async () => {
  await app.freshStudio();
  await app.size(...PHONE);
  try {
    await app.go(`${JOB}/prove?circuit=circuit-bedroom`);
    await press(app.driver, 'In the box');
    await sees(app.driver, /Locked\. The steps inside B1 open once this box is proved dead/);
    await press(app.driver, 'Prove B1 dead');
    await tap(app.driver, /What shows that the breaker did it/, 'It was live here');
    // Old two-wire cable has no ground to read to.
    await sees(app.driver, /A neutral is none/, '.act');
    await press(app.driver, 'A lead from a proven ground');
    await fill(app.driver, 'Lead from', 'ground bar of Panel A');
    await tap(app.driver, /known live source/, '120 V lit');
    await tap(app.driver, /Before it is switched off/, '120 V lit');
    await tap(app.driver, /Breaker 8/, 'Done');
    await tap(app.driver, /At the face, top hot to neutral/, 'Dead');
    // What one hand goes through shares a card.
    await tap(app.driver, /At the face, top hot to ground/, 'All 6 read dead');
    await sees(app.driver, /black splice to lead from ground bar of Panel A/i, '.act');
    // A tester taken up on the way reads the known source first.
    await press(app.driver, 'Meter, high Z');
    await sees(app.driver, /known live source/, '.act');
    await fill(app.driver, 'or volts shown', '121');
    await sees(app.driver, /black splice/i, '.act');
    await fill(app.driver, 'or volts shown', '48');
    await sees(app.driver, /48 V is not dead.*ghost: read it again, to the same reference/, '.act');
    await press(app.driver, 'Two-pole tester');
    await press(app.driver, 'Dead');
    await tapThrough(app.driver);
    await press(app.driver, 'Record: B1 is dead');
    await press(app.driver, 'In the box');
    await sees(app.driver, /the plan has 2, the feed and on to B2/);
    await press(app.driver, 'Power is back on West bedroom');
    // What comes next is put forward first.
    await sees(app.driver, /Log at B1/);
    await press(app.driver, 'In the box');
    await sees(app.driver, /Power came back on West bedroom since/);

    await press(app.driver, 'Readings');
    await press(app.driver, 'Next box');
    await sees(
      app.driver,
      /False \(bootleg\) ground with hot and neutral reversed or .*false \(bootleg\) ground/,
    );
    await press(app.driver, 'Use the keyboard instead');
    await press(app.driver, 'Correct');
    await fill(app.driver, 'Neutral–ground', '400');
    await sees(app.driver, /400 is out of range; expected 0 to 300 V/);
    await fill(app.driver, 'Neutral–ground', '0.9');
    await press(app.driver, 'Log the correction');
    await sees(app.driver, /corrected below/);
    assert.equal((await app.driver.findElements(By.css('.history s'))).length, 1);
    const stored = await app.rows<{ id: string; value: { neutralGround: number } }>('entities');
    assert.equal(
      stored.find((e) => e.id === 'reading-b2a')!.value.neutralGround,
      0,
      'the first reading is kept',
    );
  } finally {
    await app.size(...DESK);
  }
});

test('the palette finds by trade words and acts; ? lists the keys', async () => {
  await app.freshStudio();
  await app.driver.actions().keyDown(Key.CONTROL).sendKeys('k').keyUp(Key.CONTROL).perform();
  await (await css(app.driver, '[role=combobox]')).sendKeys('plug');
  await sees(app.driver, /Place all that is missing/, '#palette-found');
  await (await css(app.driver, '[role=combobox]')).sendKeys(Key.chord(Key.CONTROL, 'a'), 'attic', Key.ENTER);
  await app.driver.wait(
    async () => (await app.script('return document.documentElement.dataset.light')) === 'attic',
    15000,
  );
  await app.script('document.activeElement.blur()');
  await app.driver.actions().keyDown(Key.SHIFT).sendKeys('?').keyUp(Key.SHIFT).perform();
  await sees(app.driver, /Move the chosen outlets an inch along the wall/);
});

test('the sheet prints to PDF with job, circuits, findings, readings, labels and cautions', async () => {
  await app.freshStudio();
  await press(app.driver, 'All 3: install a GFCI receptacle');
  await app.go(`${JOB}/hand-over`);
  await sees(app.driver, /210\.52\(A\)/, 'article');
  const { data } = (await app.driver.sendAndGetDevToolsCommand('Page.printToPDF', {
    printBackground: true,
    preferCSSPageSize: true,
  })) as unknown as { data: string };
  const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const pdf = await getDocument({ data: new Uint8Array(Buffer.from(data, 'base64')), verbosity: 0 }).promise;
  let text = '';
  for (let page = 1; page <= pdf.numPages; page++) {
    const { items } = await (await pdf.getPage(page)).getTextContent();
    text += items.map((i) => ('str' in i ? i.str : '')).join(' ');
  }
  const plain = text.replace(/\s+/g, ' ');
  for (const words of [
    '14 Tamarack Court',
    'NEC 2020',
    'Studio receptacles',
    'S1 → S2 → S3 → S4',
    '210.52(A)',
    '118.9 V',
    'corrected',
    'GFCI Protected',
    'own test button',
    'authority having jurisdiction',
  ]) {
    assert.ok(plain.includes(words), `“${words}” is not in the PDF: ${plain.slice(0, 600)}`);
  }
  assert.ok(!plain.includes('Export job file'), 'buttons are printed');
  assert.ok(pdf.numPages <= 4, `${pdf.numPages} pages`);
});

test('job file and readings go out and come back', async () => {
  await app.freshStudio();
  await app.go(`${JOB}/hand-over`);
  await press(app.driver, 'Export job file');
  await press(app.driver, 'Export readings CSV');
  await app.driver.wait(
    () => readdirSync(app.downloads).filter((f) => !f.endsWith('.crdownload')).length >= 2,
    10000,
    'no downloads',
  );
  const job = join(app.downloads, '14-tamarack-court.json');
  assert.equal(readFileSync(job, 'utf8'), serialize(studioJob()));
  await (
    await app.driver.findElement(By.css('input[aria-label="Readings CSV"]'))
  ).sendKeys(join(app.downloads, '14-tamarack-court-readings.csv'));
  await sees(app.driver, /All of them are on record already/);
  // What somebody else measured comes in, and nothing here is lost.
  const common = parseFile(readFileSync(job, 'utf8'));
  const reading = { ...Object.values(common.readings)[0]!, id: 'reading-theirs', by: 'J. Birch' };
  const clock = { device: 'device-theirs', now: new Date().toISOString() };
  const put = { type: 'put' as const, table: 'readings' as const, rows: [reading] };
  const theirs = join(app.folder, 'theirs.json');
  writeFileSync(theirs, serialize(runGuarded(common, put, clock).document));
  await app.go('/');
  await (await css(app.driver, 'input[aria-label="Job file"]')).sendKeys(theirs);
  await press(app.driver, 'Bring in what was measured');
  await sees(app.driver, /Closes within/);
  await app.go(`${JOB}/prove/readings`);
  await sees(app.driver, /J\. Birch/);
  await app.go('/');
  await (await css(app.driver, 'input[aria-label="Job file"]')).sendKeys(job);
  await press(app.driver, 'Keep both');
  await sees(app.driver, /14 Tamarack Court \(copy\)/);
});
