/** Prove as it is done: box by box on a phone, by instrument, with the link failing, and the record in and out. */
import assert from 'node:assert/strict';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { test } from 'node:test';
import { studioJob } from '../demo/studio.ts';
import { provedToday } from '#core/records/testing.ts';
import { readingsToCsv } from '#core/formats/readingsCsv.ts';
import { serialize } from '#core/job/file.ts';
import { PLAIN_READING, rows } from '#core/job/document.ts';
import type { Reading } from '#core/job/schema.ts';
import { DESK, JOB, PHONE, useApp } from './support/app.ts';
import { By, button, choose, css, fill, press, sees, tapOn } from './support/browser.ts';
import { startServer } from './support/server.ts';

const app = useApp();

/** Types a number on the thumb pad into the field that is lit, and lights the next. */
async function thumb(number: string): Promise<void> {
  for (const key of number) await tapOn(app.driver, await css(app.driver, `.keys [aria-label="${key}"]`));
  await tapOn(app.driver, await css(app.driver, '.keys .wide'));
}
const stored = async <T>(table: string): Promise<T[]> =>
  (await app.rows<{ table: string; value: T }>('entities'))
    .filter((e) => e.table === table)
    .map((e) => e.value);

test('the studio circuit is proved by thumb: every half, the GFCI with what it takes down, the breaker', async () => {
  await app.freshStudio();
  await app.size(...PHONE);
  try {
    await app.go(`${JOB}/prove?circuit=circuit-studio`);
    // Power is on record; S1 was read whole.
    await sees(app.driver, /3 of 11 done\s+Next: S1: GFCI test/);
    await press(app.driver, 'S1: GFCI test');
    await press(app.driver, 'All of them dark');
    await sees(app.driver, /As ticked it is defective: did not trip by its own button; does not reset/);
    for (const box of await app.driver.findElements(By.css('.card .check input')))
      if (!(await box.isSelected())) await tapOn(app.driver, box);
    await sees(app.driver, /As ticked, it passes/);
    await press(app.driver, 'Record the test');
    for (const [name, volts] of [
      ['S2', '119.6'],
      ['S3', '119.5'],
      ['S4', '119.4'],
    ] as const) {
      for (const half of ['top', 'bottom']) {
        await sees(app.driver, new RegExp(`Next: ${name}: read the ${half}`));
        await press(app.driver, `${name}: read the ${half}`);
        await sees(app.driver, /expect 120\.0 ± 3\.6/);
        await thumb(volts);
        await thumb(volts);
        await thumb('0.1');
        await sees(app.driver, /✓ Reads correct/, '.verdict');
        await press(app.driver, `Log at ${name}`);
      }
    }
    await sees(app.driver, /Next: AFCI test, breaker/);
    await press(app.driver, 'AFCI test, breaker');
    for (const box of await app.driver.findElements(By.css('.card .check input')))
      await tapOn(app.driver, box);
    await press(app.driver, 'Record the test');
    await sees(app.driver, /✓ Proved: all 11 steps are on record/);
  } finally {
    await app.size(...DESK);
  }
  const readings = (await stored<Reading>('readings')).filter((r) => r.boxId === 'box-s3');
  assert.deepEqual(readings.map((r) => [r.half, r.stage, r.hotNeutral]).sort(), [
    ['bottom', 'as-left', 119.5],
    ['top', 'as-left', 119.5],
  ]);
  await app.go(`${JOB}/prove/register`);
  await sees(app.driver, /GFCI S1[\s\S]*?in order/);
  await press(app.driver, 'Export calendar');
  const calendar = join(app.downloads, '14-tamarack-court-devices.ics');
  await app.driver.wait(() => readdirSync(app.downloads).includes('14-tamarack-court-devices.ics'), 10000);
  assert.match(readFileSync(calendar, 'utf8'), /SUMMARY:Test GFCI S1[\s\S]*RRULE:FREQ=MONTHLY/);
});

test('a reading is judged as it is typed, beside its neighbor, and a pair makes a resistance', async () => {
  await app.freshStudio();
  await app.go(`${JOB}/prove?circuit=circuit-bedroom`);
  await press(app.driver, 'Next box');
  await fill(app.driver, 'Hot–neutral', '0.5');
  await fill(app.driver, 'Hot–ground', '118');
  await fill(app.driver, 'Neutral–ground', '118');
  await sees(app.driver, /Hot and ground reversed or open neutral/, '.verdict');
  await sees(app.driver, /Anything metal plugged in here may be live/, '.verdict');
  await press(app.driver, 'Next box');
  await fill(app.driver, 'Hot–neutral', '118.9');
  await fill(app.driver, 'Neutral–ground', '0.2');
  await press(app.driver, 'Log at B3');
  // 118.9 less 104.9 V with 10 A more.
  await sees(app.driver, /1\.40 Ω out and back, 11\.8 % sag/);
  await sees(app.driver, /A joint of about (0\.9|1\.0)\d? Ω is on the way/);
});

test('measuring live at an open box is a state of its own: as-found readings only, and the steps are shut', async () => {
  await app.freshStudio();
  await app.bring(provedToday(studioJob(), 'box-s1'));
  await app.go(`${JOB}/prove?circuit=circuit-studio`);
  await press(app.driver, 'In the box');
  await sees(app.driver, /✓ Proved dead .* by M\. Alder/);
  await sees(app.driver, /Count the cables/);
  await press(app.driver, 'Energized measurement at the open box');
  const live = await button(app.driver, 'Power on to measure');
  assert.equal(await live.isEnabled(), false);
  for (const box of await app.driver.findElements(By.css('.card .check input'))) await tapOn(app.driver, box);
  await press(app.driver, 'Power on to measure');
  await sees(app.driver, /Live to measure at an open box; not for work/);
  await sees(app.driver, /Energized measurement: the box is open and live/);
  await fill(app.driver, 'Hot–neutral', '120.1');
  await press(app.driver, 'As left');
  await press(app.driver, 'Log at S1');
  await sees(app.driver, /prove it dead and put the power back for use first/);
  await press(app.driver, 'As found');
  await press(app.driver, 'Log at S1');
  await sees(app.driver, /box open, energized measurement/);
  await press(app.driver, 'In the box');
  await sees(app.driver, /Power is on to measure: lock out and prove it dead again/);
});

test('readings go out as CSV and come back whole; lines are pasted, and wrong ones named', async () => {
  await app.freshStudio();
  await app.go(`${JOB}/prove/readings`);
  await sees(app.driver, /5 of 5 shown/);
  await press(app.driver, 'Export CSV');
  const file = join(app.downloads, '14-tamarack-court-readings.csv');
  await app.driver.wait(() => readdirSync(app.downloads).includes('14-tamarack-court-readings.csv'), 10000);
  assert.equal(readFileSync(file, 'utf8'), readingsToCsv(studioJob()));

  const bare = join(app.folder, 'bare.json');
  writeFileSync(bare, serialize({ ...studioJob(), readings: {} }));
  await app.go('/');
  await (await css(app.driver, 'input[aria-label="Job file"]')).sendKeys(bare);
  await press(app.driver, 'Replace');
  await sees(app.driver, /Closes within/);
  await app.go(`${JOB}/prove/readings`);
  await sees(app.driver, /No readings yet/);
  await (await css(app.driver, 'input[aria-label="Readings CSV"]')).sendKeys(file);
  await sees(app.driver, /5 readings added/);
  // Where they stand in the record is this browser’s own.
  const back = Object.fromEntries(
    (await stored<Reading>('readings')).map(({ stamp, ...r }) => [r.id, stamp ? r : stamp]),
  );
  assert.deepEqual(back, studioJob().readings);

  await press(app.driver, 'Paste readings');
  const paste = await css(app.driver, 'textarea');
  await paste.sendKeys('S2, 119.8, 119.7, 0.1\nS9, 120\nS3, high');
  await press(app.driver, 'Add these readings');
  await sees(app.driver, /line 2\s+“S9” is no outlet of this job/);
  await sees(app.driver, /line 3\s+expected a number from 0 to 300, found “high”/);
  assert.match((await paste.getAttribute('value'))!, /S9, 120/, 'what was typed is kept');
  await paste.clear();
  await paste.sendKeys('S2, 119.8, 119.7, 0.1\nS3; 104; 114; 10; 10');
  await press(app.driver, 'Add these readings');
  await sees(app.driver, /2 readings added/);
  await sees(app.driver, /7 of 7 shown/);
});

test('two thousand readings: few rows are drawn, the last is reached, sorting and filters work on all', async () => {
  await app.freshStudio();
  const job = studioJob();
  const boxes = rows(job.boxes);
  const many = Object.fromEntries(
    Array.from({ length: 2000 }, (_, i): [string, Reading] => {
      const box = boxes[i % boxes.length]!;
      const id = `reading-m${i}`;
      return [
        id,
        {
          ...PLAIN_READING,
          id,
          boxId: box.id,
          place: `${box.name}, number ${i}`,
          at: new Date(Date.UTC(2026, 4, 6, 8, 0, i)).toISOString(),
          by: 'M. Alder',
          stage: i % 2 ? 'as-left' : 'as-found',
          instrument: 'meter',
          hotNeutral: i === 777 ? 104.2 : 118 + (i % 30) / 10,
          hotGround: 119,
          neutralGround: 0.1,
          loadAmps: i % 7 === 0 ? 8 : 0,
        },
      ];
    }),
  );
  const path = join(app.folder, 'many.json');
  writeFileSync(path, serialize({ ...job, readings: many }));
  await app.go('/');
  await (await css(app.driver, 'input[aria-label="Job file"]')).sendKeys(path);
  await press(app.driver, 'Replace');
  await sees(app.driver, /Closes within/);
  await app.go(`${JOB}/prove/readings`);
  await sees(app.driver, /2000 of 2000 shown/);
  await sees(app.driver, /number 1999/);
  const drawn = () => app.script<number>('return document.querySelectorAll("tr.row").length');
  assert.ok((await drawn()) < 64, `${await drawn()} rows drawn`);
  await app.script('const s = document.querySelector(".scroll"); s.scrollTop = s.scrollHeight;');
  await sees(app.driver, /, number 0\t/, '.row');
  assert.ok((await drawn()) < 64);
  await press(app.driver, 'H–N');
  await app.script('document.querySelector(".scroll").scrollTop = 0');
  await sees(app.driver, /^\S.*number 777/m, '.row');
  const firstRow = await app.script<string>('return document.querySelector("tr.row").innerText');
  assert.match(firstRow, /number 777[\s\S]*104\.2/);
  await (await css(app.driver, 'input[type=search]')).sendKeys('number 19');
  await sees(app.driver, /111 of 2000 shown/);
});

test('the practice meter shows live volts and logs with one tap; garbage and slowness are never readings', async () => {
  await app.freshStudio();
  await app.go(`${JOB}/prove?circuit=circuit-studio`);
  await press(app.driver, 'Next box');
  const connect = async (line: string) => {
    await choose(app.driver, 'Practice: the line', line);
    await press(app.driver, 'Connect the practice meter');
  };
  await press(app.driver, 'Instrument');
  await connect('a clean line');
  await sees(app.driver, /Hot–neutral\s+120\sV[\s\S]*live/, '.values');
  await press(app.driver, 'Log what it shows');
  await sees(app.driver, /As found: hot–neutral 120 V; hot–ground 120 V; neutral–ground 0 V/);
  const [logged] = (await stored<Reading>('readings')).filter((r) => r.boxId === 'box-s2');
  assert.equal(logged!.instrument, 'HEKTO SIMULATED METER');
  await press(app.driver, 'Disconnect');

  for (const [line, words] of [
    ['garbage', /Not connected: \*IDN\? answered “/],
    ['slow answers', /Not connected: no answer to \*IDN\? within 1\.5 s/],
    ['a cut line', /Not connected: /],
  ] as const) {
    await connect(line);
    await sees(app.driver, words);
  }
  assert.equal((await stored<Reading>('readings')).filter((r) => r.boxId === 'box-s2').length, 1);
});

test('when the link is lost the values are struck, nothing is logged, and it connects again', async () => {
  await app.freshStudio();
  await app.go(`${JOB}/prove?circuit=circuit-studio`);
  await press(app.driver, 'Instrument');
  await press(app.driver, 'Connect the practice meter');
  await sees(app.driver, /live/, '.values');
  const { port } = new URL(app.server.origin);
  await app.server.stop();
  await sees(app.driver, /Connection lost: .*Nothing was logged by itself/);
  assert.equal((await stored<Reading>('readings')).length, 5);
  app.server = await startServer(Number(port));
  await press(app.driver, 'Connect the practice meter');
  await sees(app.driver, /live/, '.values');
});
