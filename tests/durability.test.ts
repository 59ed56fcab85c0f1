/** What is stored stays: reloads, undo across them, other tabs, a full disk, no server. */
import assert from 'node:assert/strict';
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { test } from 'node:test';
import { studioJob } from '../demo/studio.ts';
import { serialize } from '#core/job/file.ts';
import { JOB, useApp } from './support/app.ts';
import { button, css, field, fill, Key, keys, press, sees } from './support/browser.ts';

const app = useApp();

test('a reload in the middle keeps what was done; undo and redo reach across it', async () => {
  await app.freshStudio();
  await keys(app.driver, 'p');
  await sees(app.driver, /Placed 6/);
  await press(app.driver, '2017');
  await button(app.driver, 'Undo: Change edition');
  await app.driver.navigate().refresh();
  await sees(app.driver, /NEC 2017/);
  await press(app.driver, 'Undo: Change edition');
  await sees(app.driver, /NEC 2020/);
  await press(app.driver, 'Undo: Place 6 missing outlets');
  await css(app.driver, '.plan .open');
  await app.driver.navigate().refresh();
  await press(app.driver, 'Redo: Place 6 missing outlets');
  await button(app.driver, 'Redo: Change edition');
  assert.equal((await app.rows<{ table: string }>('entities')).filter((e) => e.table === 'boxes').length, 13);
});

test('text that was refused stays in its field with what is expected; nothing else is lost', async () => {
  await app.freshStudio();
  await app.go(`${JOB}/walk`);
  const refusals: [string, string, RegExp][] = [
    ['Wall 1', '-4', /“-4” is below zero/],
    ['Wall 1', '900', /900' is too long; expected 200' or less/],
    ['Wall 1', 'about twelve', /“about twelve” is not a length/],
    ['Wall 1', '12-14', /inches below 12 after the feet/],
    ['Wall 1', '5', /wedging bench at 12' is past the end of its wall.*; S2 at 18' 9 7\/8" is past the end/],
    ['Name', ' ', /expected at least 1 character/],
  ];
  for (const [label, text, message] of refusals) {
    await fill(app.driver, label, text);
    await sees(app.driver, message);
    assert.equal(await (await field(app.driver, label)).getAttribute('value'), text);
  }
  await press(app.driver, 'Doors');
  await (await field(app.driver, 'From wall start, width')).sendKeys(`3', 400`, Key.ENTER);
  await sees(app.driver, /the door, 33' 4" wide, is wider than its wall/);
  await press(app.driver, 'Walls');
  await fill(app.driver, 'Wall 1', '24-6');
  await fill(app.driver, 'Wall 2', '18-4');
  await sees(app.driver, /Not closed: 4" to go/);
  await app.driver.navigate().refresh();
  await sees(app.driver, /Not closed: 4" to go/);
  await app.go(`${JOB}/layout`);
  await sees(app.driver, /Not judged[\s\S]*Studio does not close/);
});

test('a second tab follows live, and both undo one history', async () => {
  await app.freshStudio();
  const first = await app.driver.getWindowHandle();
  await app.driver.switchTo().newWindow('tab');
  const second = await app.driver.getWindowHandle();
  try {
    await app.go(`${JOB}/layout`);
    await sees(app.driver, /out of reach/);
    await app.driver.switchTo().window(first);
    await keys(app.driver, 'p');
    await sees(app.driver, /Placed 6/);
    await app.driver.switchTo().window(second);
    await css(app.driver, '[data-box=S10]');
    await press(app.driver, 'Undo: Place 6 missing outlets');
    await app.driver.switchTo().window(first);
    await app.driver.wait(
      async () => (await app.driver.findElements({ css: '[data-box=S10]' })).length === 0,
      8000,
      'the first tab did not follow',
    );
  } finally {
    await app.driver.switchTo().window(second);
    await app.driver.close();
    await app.driver.switchTo().window(first);
  }
});

test('a job deleted in another tab is said so, and can be put back from memory', async () => {
  await app.freshStudio();
  const first = await app.driver.getWindowHandle();
  await app.driver.switchTo().newWindow('tab');
  try {
    await app.go('/');
    await press(app.driver, 'Delete 14 Tamarack Court');
    await sees(app.driver, /No jobs yet/);
    const second = await app.driver.getWindowHandle();
    await app.driver.switchTo().window(first);
    await sees(app.driver, /This job was deleted in another tab/);
    await press(app.driver, 'Put it back');
    await sees(app.driver, /out of reach/);
    await app.driver.switchTo().window(second);
    await sees(app.driver, /14 Tamarack Court/, '.list');
  } finally {
    await app.driver.close();
    await app.driver.switchTo().window(first);
  }
});

test('an edit that was on its way when the job was deleted elsewhere is put back with the rest', async () => {
  await app.freshStudio();
  // Written past the application, so that this tab learns of it only by its own edit.
  await app.driver.executeAsyncScript(`
    const done = arguments[0];
    const open = indexedDB.open('hekto');
    open.onsuccess = () => {
      const jobs = open.result.transaction('jobs', 'readwrite').objectStore('jobs');
      jobs.getAll().onsuccess = (e) => jobs.put({ ...e.target.result[0], deletedAt: Date.now() });
      jobs.transaction.oncomplete = () => { open.result.close(); done(); };
    };`);
  await press(app.driver, '2017');
  await sees(app.driver, /This job was deleted in another tab/);
  await press(app.driver, 'Put it back');
  await sees(app.driver, /out of reach/);
  await app.driver.navigate().refresh();
  await sees(app.driver, /NEC 2017/);
});

test('a job that a file takes the place of in another tab is kept apart, offered as a file, and opened anew', async () => {
  await app.freshStudio();
  const first = await app.driver.getWindowHandle();
  const path = join(app.folder, 'other.json');
  const other = studioJob();
  writeFileSync(path, serialize({ ...other, job: { ...other.job, name: 'Tamarack, second survey' } }));
  await app.driver.switchTo().newWindow('tab');
  try {
    await app.go('/');
    await (await css(app.driver, 'input[aria-label="Job file"]')).sendKeys(path);
    await press(app.driver, 'Replace');
    await sees(app.driver, /Tamarack, second survey/);
    const second = await app.driver.getWindowHandle();
    await app.driver.switchTo().window(first);
    await sees(app.driver, /A file took this job’s place/);
    await press(app.driver, 'Save my copy as a file');
    await app.driver.wait(
      () => readdirSync(app.downloads).some((f) => f.startsWith('14-tamarack-court') && f.endsWith('.json')),
      10000,
    );
    // The next test looks for an export of its own.
    for (const f of readdirSync(app.downloads)) rmSync(join(app.downloads, f));
    await press(app.driver, 'Show the job as it is now');
    await sees(app.driver, /Tamarack, second survey/);
    await app.driver.switchTo().window(second);
  } finally {
    await app.driver.close();
    await app.driver.switchTo().window(first);
  }
});

test('delete can be undone; an unknown address says what it is', async () => {
  await app.freshStudio();
  await app.go('/');
  await press(app.driver, 'Delete 14 Tamarack Court');
  await sees(app.driver, /No jobs yet/);
  await press(app.driver, 'Undo');
  await sees(app.driver, /14 Tamarack Court, Larkmoor/, '.list');
  await app.go('/job/job-nowhere/layout');
  await sees(app.driver, /This job is not on this device/);
});

test('a full disk is said at once, the change stays on screen, and the export carries it', async () => {
  await app.freshStudio();
  await app.script(`
    window.__put = IDBObjectStore.prototype.put;
    window.__add = IDBObjectStore.prototype.add;
    const full = () => { throw new DOMException('full', 'QuotaExceededError'); };
    IDBObjectStore.prototype.put = full; IDBObjectStore.prototype.add = full;`);
  await press(app.driver, '2017');
  await sees(app.driver, /This device’s storage is full/);
  await sees(app.driver, /NEC 2017/);
  await press(app.driver, 'Export the job');
  await app.driver.wait(
    () => readdirSync(app.downloads).some((f) => f.endsWith('.json')),
    10000,
    'no export',
  );
  const [file] = readdirSync(app.downloads).filter((f) => f.endsWith('.json'));
  assert.equal(JSON.parse(readFileSync(join(app.downloads, file!), 'utf8')).job.edition, '2017');
  // Another tab, which has room, stores something meanwhile: neither loses what the other did.
  const first = await app.driver.getWindowHandle();
  await app.driver.switchTo().newWindow('tab');
  try {
    await app.go(`${JOB}/walk`);
    await fill(app.driver, 'Name', 'From the other tab');
    await sees(app.driver, /From the other tab/);
  } finally {
    await app.driver.close();
    await app.driver.switchTo().window(first);
  }
  await app.script(
    'IDBObjectStore.prototype.put = window.__put; IDBObjectStore.prototype.add = window.__add;',
  );
  await app.script('arguments[0].focus()', await css(app.driver, '[data-box=S4]'));
  await keys(app.driver, Key.ARROW_RIGHT);
  await app.driver.wait(
    async () => !/storage is full/.test(await app.script<string>('return document.body.innerText')),
    8000,
    'still full',
  );
  await app.driver.navigate().refresh();
  await sees(app.driver, /NEC 2017/);
  await sees(app.driver, /From the other tab/);
});

test('user text never becomes markup', async () => {
  await app.freshStudio();
  await app.go(`${JOB}/walk`);
  const nasty = '<img src=x onerror="window.__hit=1">';
  await fill(app.driver, 'Name', nasty);
  await sees(app.driver, /<img src=x/);
  for (const phase of ['layout', 'runs', 'prove', 'hand-over']) {
    await app.go(`${JOB}/${phase}`);
    await sees(app.driver, /<img src=x/);
  }
  assert.equal(await app.script('return window.__hit ?? null'), null);
});

test('after the first load the server may be gone: reload works and an edit is kept', async () => {
  await app.freshStudio();
  await app.driver.executeAsyncScript(`
    const done = arguments[0];
    navigator.serviceWorker.ready.then(async () => { while (!navigator.serviceWorker.controller) await new Promise((r) => setTimeout(r, 50)); done(); });`);
  await app.server.stop();
  await app.driver.navigate().refresh();
  await sees(app.driver, /out of reach/);
  await keys(app.driver, 'p');
  await sees(app.driver, /Placed 6/);
  await app.driver.navigate().refresh();
  await css(app.driver, '[data-box=S10]');
  for (const phase of ['walk', 'runs', 'prove', 'hand-over']) {
    await app.go(`${JOB}/${phase}`);
    await sees(app.driver, /Studio|Panel A/);
  }
});
