import { test } from 'node:test';
import { writeFileSync, mkdirSync } from 'node:fs';
import { TILES } from '#core/procedures/tiles.ts';
import { DESK, JOB, PHONE, useApp } from './support/app.ts';
import { press, sees } from './support/browser.ts';
import { answer, moved, shown } from './support/call.ts';
const app = useApp();
mkdirSync('/tmp/shots', { recursive: true });
const shot = async (name: string) => {
  await app.driver.sleep(500);
  writeFileSync(`/tmp/shots/${name}.png`, await app.driver.takeScreenshot(), 'base64');
};
test('late', async () => {
  await app.size(...PHONE);
  const tile = TILES.find((t) => t.procedure === 'trips-late')!;
  await app.go('/');
  await app.script('localStorage.setItem("hekto-by", "M. Alder")');
  if (tile.more) await press(app.driver, 'All ');
  await press(app.driver, tile.name);
  await sees(app.driver, /Any of these, now/);
  let at = await shown(app.driver);
  for (let k = 0; k < 60 && at.key !== 'verdict'; k++) {
    await answer(app.driver, at, { figures: { 'On its hot': '18', Minutes: '10' } });
    at = await moved(app.driver, at);
  }
  await app.driver.sleep(800);
  await shot('late');
});
test('hunt', async () => {
  await app.freshDemo();
  await app.size(...PHONE);
  await app.go(`${JOB}/hunt?circuit=circuit-bedroom`);
  await sees(app.driver, /Start the hunt/);
  await press(app.driver, 'Start the hunt');
  await sees(app.driver, /\S/, '[data-step] h1');
  let at = await shown(app.driver);
  for (let k = 0; k < 120 && at.key !== 'fault'; k++) {
    if (at.key.startsWith('find') && at.kind === 'measure') await shot('find');
    await answer(
      app.driver,
      at,
      at.key.startsWith('find') && at.kind === 'measure'
        ? {
            figures: { 'Hot to neutral': '0', 'Hot to ground': '120', 'Neutral to ground': '119' },
            choose: {},
          }
        : {},
    );
    at = await moved(app.driver, at);
  }
  await shot('fault');
  console.log(at.title, at.key);
  await app.script(
    `const label=[...document.querySelectorAll('[data-step] label')].find((l)=>l.innerText.trim().startsWith('Parts'));const i=document.getElementById(label.getAttribute('for'));i.value='two lever connectors';i.dispatchEvent(new Event('input',{bubbles:true}));i.dispatchEvent(new Event('change',{bubbles:true}));`,
  );
  await press(app.driver, 'Go on');
  await app.driver.sleep(1500);
  await shot('over');
  await app.go(`${JOB}/hunt`);
  await sees(app.driver, /Faults on record/);
  await app.size(...DESK);
  await shot('hunt-desk');
  await app.go(`${JOB}/layout`);
  await sees(app.driver, /out of reach/);
  await app.driver.sleep(1500);
  await shot('layout');
});
