/** Procedures walked on a phone, one in three in a sample: a wrong turn taken back, a reload in the middle, a refusal, and the record on the sheet. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Entry, Proof } from '#core/job/schema.ts';
import { PROCEDURES } from '#core/procedures/index.ts';
import { oneIn } from './support/sample.ts';
import { TILES } from '#core/procedures/tiles.ts';
import { PHONE, useApp } from './support/app.ts';
import { press, sees, until, By } from './support/browser.ts';
import { answer, moved, shown, type Plan, type Shown } from './support/call.ts';

const app = useApp();
/** What a person answers in each, so that it leads to the hands and to its end. */
const PLANS: Readonly<Record<string, Plan>> = {
  'first-box': { notes: { 'Other outlets': 'by the door, hall' } },
  'gfci-room': { notes: { 'Other outlets': 'by the door' } },
  'panel-capacity': { figures: { Main: '100', Bus: '125', 'Floor area': '1600' } },
  'house-check': { choose: { 'more 1': 'Next', 'more 2': 'Back where' } },
};

async function start(procedure: string): Promise<Shown> {
  const tile = TILES.find((t) => t.procedure === procedure)!;
  // From the call before it is a tap to the list, as a person goes on; the first one opens the page.
  const home = await app.driver.findElements(By.css('header a[href="/"]'));
  if (home.length > 0) await app.script('arguments[0].click()', home[0]);
  else await app.go('/');
  await sees(app.driver, /Open a file/);
  await app.script('localStorage.setItem("hekto-by", "M. Alder")');
  if (tile.more) await press(app.driver, 'All ');
  await press(app.driver, tile.name);
  await sees(app.driver, /Any of these, now/);
  return shown(app.driver);
}

/** Reads of what is live stop a proof. */
async function refused(at: Shown): Promise<void> {
  const field = await app.driver.wait(until.elementLocated(By.css('.act input')), 5000);
  await app.script(
    `arguments[0].value = '120';
     arguments[0].dispatchEvent(new Event('input', { bubbles: true }));
     arguments[0].dispatchEvent(new Event('change', { bubbles: true }));`,
    field,
  );
  await sees(app.driver, /120 V is not dead/, '.act');
  await press(app.driver, 'Take the last back');
  await app.driver.wait(async () => (await shown(app.driver)).act === at.act, 5000);
}

for (const { id, title } of oneIn(3, PROCEDURES))
  test(`${title}, on a phone`, async () => {
    await app.size(...PHONE);
    const plan = PLANS[id] ?? {};
    let at = await start(id);
    let turned = false;
    let reloaded = false;
    let stopped = false;
    for (let k = 0; at.kind !== 'over'; k++) {
      assert.ok(k < 220, `${id} never ends: ${at.title}`);
      if (at.kind === 'dead' && !stopped && / to /.test(at.act) && !/switched off|known live/.test(at.act)) {
        await refused(at);
        stopped = true;
      }
      const before = at;
      await answer(app.driver, at, plan);
      at = await moved(app.driver, at);
      if (!turned && k >= 2 && at.answers > before.answers && at.kind !== 'over') {
        // The wrong turn: back, and what was answered is still there to be answered again.
        await press(app.driver, 'Back');
        at = await moved(app.driver, at);
        assert.equal(at.answers, before.answers, `${id}: back takes one answer back`);
        turned = true;
      }
      if (!reloaded && k >= 6) {
        const { key } = at;
        await app.driver.navigate().refresh();
        await sees(app.driver, /\S/, '[data-step] h1');
        await app.driver.wait(
          async () => (await shown(app.driver)).key === key,
          10000,
          `reload left “${at.title}”`,
        );
        at = await shown(app.driver);
        reloaded = true;
      }
    }
    assert.ok(turned, 'a wrong turn was taken');
    const proofs = await app.rowsHere<Proof>('proofs');
    assert.ok(proofs.length === 0 || stopped, 'a live reading was refused');
    const entries = (await app.rowsHere<Entry>('entries')).filter((e) => e.strikes === null);
    assert.ok(entries.some((e) => e.step === 'record'));
    // The record is on the sheet.
    await press(app.driver, 'See the sheet');
    await sees(app.driver, new RegExp(`Calls[\\s\\S]*${title.replace('?', '\\?')}`), 'main');
  });
