/** The address is what is chosen: Back, a reload and a link bring the same room, circuit, box and tab. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { JOB, useApp } from './support/app.ts';
import { choose, css, Key, press, sees } from './support/browser.ts';

const app = useApp();

const search = async (): Promise<URLSearchParams> => new URL(await app.driver.getCurrentUrl()).searchParams;
async function find(text: string): Promise<void> {
  const ask = () => app.driver.actions().keyDown(Key.CONTROL).sendKeys('k').keyUp(Key.CONTROL).perform();
  await ask();
  // A page that has just been drawn may not listen yet.
  const there = await app.driver
    .wait(() => app.script<boolean>('return document.querySelector("[role=combobox]") !== null'), 3000)
    .catch(() => false);
  if (!there) await ask();
  await (await css(app.driver, '[role=combobox]')).sendKeys(text, Key.ENTER);
}

test('in Layout an outlet chosen is in the address: Back, a reload and Runs show it', async () => {
  await app.freshStudio();
  const name = (n: string) => sees(app.driver, new RegExp(`^${n}$|${n},`, 'm'), '.right');
  await (await css(app.driver, '[data-box=S2]')).click();
  await name('S2');
  const first = (await search()).get('box');
  await (await css(app.driver, '[data-box=S1]')).click();
  await name('S1');
  assert.notEqual((await search()).get('box'), first);
  await app.driver.navigate().back();
  await name('S2');
  assert.equal((await search()).get('box'), first);
  await app.driver.navigate().refresh();
  await name('S2');
  await press(app.driver, 'Compare editions');
  assert.equal((await search()).get('tab'), 'editions');
  await press(app.driver, 'Runs');
  await sees(app.driver, /S2/, '.side');
  assert.equal((await search()).get('box'), first);
});

test('in Prove the box and the tab are in the address, and Back goes to the box before', async () => {
  await app.freshStudio();
  await app.go(`${JOB}/prove`);
  const at = (n: number) => sees(app.driver, new RegExp(`box ${n} of`), '.which');
  await at(1);
  await press(app.driver, 'Next box');
  await at(2);
  await press(app.driver, 'Prove dead');
  await sees(app.driver, /Treat it as live/, '.card');
  await app.driver.navigate().refresh();
  await at(2);
  await sees(app.driver, /Treat it as live/, '.card');
  await app.driver.navigate().back();
  await app.driver.navigate().back();
  await at(1);
});

test('the palette shows a thing on the page it is called from, if that can', async () => {
  await app.freshStudio();
  await app.go(`${JOB}/prove`);
  await sees(app.driver, /box 1 of/);
  await find('S3');
  await sees(app.driver, /^S3$/m, '.which .box-name');
  assert.match(await app.driver.getCurrentUrl(), /\/prove\?/);
  await find('Bedroom');
  await sees(app.driver, /Place in West bedroom/);
  assert.match(await app.driver.getCurrentUrl(), /\/layout\?area=/);
  await app.go(`${JOB}/walk?view=house`);
  await sees(app.driver, /Dwelling/);
  await find('Bedroom');
  await sees(app.driver, /Part of|Walls/);
  assert.match(await app.driver.getCurrentUrl(), /\/walk\?/);
  assert.equal((await search()).get('view'), null);
});

test('the part of a room, the view of a panel and the list are in the address', async () => {
  await app.freshStudio();
  await app.go(`${JOB}/walk`);
  await press(app.driver, 'Fixtures');
  assert.equal((await search()).get('part'), 'fixtures');
  await app.driver.navigate().refresh();
  await sees(app.driver, /wedging bench/);
  await app.go(`${JOB}/panel`);
  await press(app.driver, 'Directory');
  await app.driver.navigate().refresh();
  await sees(app.driver, /Directory/, '[aria-pressed=true]');
  await app.go(`${JOB}/layout/lists`);
  const before = await sees(app.driver, /./, 'h2');
  await press(app.driver, 'Kitchen');
  await app.driver.wait(async () => (await sees(app.driver, /./, 'h2')) !== before);
  assert.notEqual((await search()).get('list'), null);
});

test('an address with things that are not in the job shows the first of each', async () => {
  await app.freshStudio();
  for (const page of ['walk', 'layout', 'runs', 'panel', 'prove']) {
    await app.go(`${JOB}/${page}?box=none&area=none&circuit=none&level=none&panel=none&tab=none&part=none`);
    await sees(app.driver, /Studio/);
    assert.doesNotMatch(await sees(app.driver, /Studio/), /Internal Error|undefined|NaN/);
  }
});

test('a circuit chosen in Prove is the one shown in Panel and Runs', async () => {
  await app.freshStudio();
  await app.go(`${JOB}/prove`);
  await choose(app.driver, 'Circuit', '8');
  const id = (await search()).get('circuit');
  assert.notEqual(id, null);
  await press(app.driver, 'Runs');
  await css(app.driver, `.chosen [data-circuit="${id}"], [data-circuit="${id}"]`);
  assert.equal((await search()).get('circuit'), id);
});
