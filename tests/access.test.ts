/** axe finds nothing on any view in any light, at the desk and on a phone. */
import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { test } from 'node:test';
import { oneIn } from './support/sample.ts';
import { DESK, JOB, PHONE, useApp } from './support/app.ts';
import { press, sees, Key } from './support/browser.ts';

const app = useApp();
const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface Violation {
  id: string;
  help: string;
  nodes: { html: string; failureSummary: string }[];
}

const EVERYTHING = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];

async function violations(rules: readonly string[] = EVERYTHING): Promise<string[]> {
  await app.script(axe);
  const found = await app.driver.executeAsyncScript<Violation[]>(
    `const [rules, done] = arguments;
     axe.run(document, { runOnly: rules, resultTypes: ['violations'] }).then((r) => done(r.violations));`,
    rules,
  );
  return found.map(
    (v) =>
      `${v.id}: ${v.help}: ${v.nodes
        .slice(0, 3)
        .map((n) => `${n.html.slice(0, 160)} (${n.failureSummary.slice(0, 200)})`)
        .join(' | ')}`,
  );
}

const VIEWS: [string, string, RegExp][] = [
  ['jobs', '/', /Projects on this device/],
  ['a step of a call', '/job/job-sedge-lane/call', /What to do about the ground/],
  ['the phone at the outlet', '/listen', /Let it hear/],
  ['bench', '/bench', /Breaker and conductor/],
  ['walk', `${JOB}/walk`, /Closes within/],
  ['layout', `${JOB}/layout?box=box-s2`, /Follow a cord to water/],
  ['inspection lists', `${JOB}/layout/lists`, /to mend/],
  ['runs', `${JOB}/runs`, /Equipment ground/],
  ['panel spaces', `${JOB}/panel`, /planning load/],
  ['panel load', `${JOB}/panel?view=load`, /Load of the dwelling/],
  ['panel directory', `${JOB}/panel?view=directory`, /408\.4/],
  ['price book', `${JOB}/panel?view=prices`, /Price book/],
  ['trim', `${JOB}/trim?circuit=circuit-lights`, /boxes trimmed/],
  ['in the box', `${JOB}/trim?box=box-e3&tab=done`, /With power on, so wired/],
  ['prove', `${JOB}/prove?circuit=circuit-bedroom`, /On record/],
  ['all readings', `${JOB}/prove/readings`, /5 of 5 shown/],
  ['device register', `${JOB}/prove/register`, /devices/],
  ['hand over', `${JOB}/hand-over`, /Open findings/],
  ['a job that is not there', '/job/job-nowhere/walk', /not on this device/],
];

/** Every light has one palette for both sizes: by day both are looked at, in the others one. */
const LOOKS = [
  ['day', DESK],
  ['attic', PHONE],
  ['day', PHONE],
  ['sun', DESK],
] as const;

for (const [k, [name, path, words]] of VIEWS.entries())
  test(`${name}: axe finds nothing in any light`, async () => {
    if (name === 'jobs') await app.freshDemo();
    await app.go(path);
    // In a sample each view is looked at in two ways, at both sizes: by turns at the desk by day, or on a phone by day.
    const turn = LOOKS.slice(2 * (k % 2)).slice(0, 2);
    for (const [light, [width, height]] of oneIn(1 + LOOKS.length, LOOKS, (look) => turn.includes(look))) {
      await app.size(width, height);
      await app.script(`document.documentElement.dataset.light = arguments[0]`, light);
      await sees(app.driver, words);
      // The same page in other light has other colors, and nothing else.
      assert.deepEqual(await violations(light === 'day' ? EVERYTHING : ['color-contrast']), []);
      const wide = await app.script<number>('return document.documentElement.scrollWidth - innerWidth');
      assert.ok(wide <= 0, `${wide} px wider than the screen, by ${light}`);
    }
    await app.size(...DESK);
  });

test('palette and key list: axe finds nothing', async () => {
  await app.freshDemo();
  await app.driver.actions().keyDown(Key.CONTROL).sendKeys('k').keyUp(Key.CONTROL).perform();
  await sees(app.driver, /All jobs/);
  assert.deepEqual(await violations(), []);
  await app.driver.navigate().refresh();
  await sees(app.driver, /out of reach/);
  await app.driver.actions().keyDown(Key.SHIFT).sendKeys('?').keyUp(Key.SHIFT).perform();
  await sees(app.driver, /Next light/);
  assert.deepEqual(await violations(), []);
});

test('prove dead, steps in the box, a device test, the pad and a live meter: axe finds nothing', async () => {
  await app.freshDemo();
  await app.go(`${JOB}/prove?circuit=circuit-studio`);
  for (const [width, height] of [DESK, PHONE]) {
    await app.size(width, height);
    for (const tab of ['Prove dead', 'In the box', 'GFCI test', 'Readings']) {
      await press(app.driver, tab);
      assert.deepEqual(await violations(), []);
    }
    await press(app.driver, 'Measure');
    await press(app.driver, 'Insulation');
    await sees(app.driver, /these come off|Off the circuit first/);
    assert.deepEqual(await violations(), []);
    await press(app.driver, 'Readings');
  }
  await app.size(...DESK);
  await press(app.driver, 'Instrument');
  await press(app.driver, 'Connect the practice meter');
  await sees(app.driver, /live/, '.values');
  assert.deepEqual(await violations(), []);
  await press(app.driver, 'Limits and tester');
  assert.deepEqual(await violations(), []);
});
