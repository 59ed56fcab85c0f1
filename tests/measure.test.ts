/** Every instrument through the interface on a phone: for practice, on a dead circuit, with ties that keep the power off. */
import assert from 'node:assert/strict';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { test } from 'node:test';
import { studioJob } from '../demo/studio.ts';
import { measurementsToCsv } from '#core/formats/measurementsCsv.ts';
import { MEASURING, type Measurement, type Temporary } from '#core/job/schema.ts';
import { INSTRUMENT_FACTS } from '#core/records/instruments.ts';
import { provedToday } from '#core/records/testing.ts';
import { JOB, PHONE, useApp } from './support/app.ts';
import { By, button, choose, fill, press, sees, tapOn } from './support/browser.ts';

const app = useApp();
const BOX = `${JOB}/prove?circuit=circuit-studio&box=box-s2&tab=measure`;

const stored = async <T>(table: string): Promise<T[]> =>
  (await app.rows<{ table: string; value: T }>('entities'))
    .filter((e) => e.table === table)
    .map((e) => e.value);
const tickAll = async (): Promise<void> => {
  for (const box of await app.driver.findElements(By.css('fieldset input[type=checkbox]')))
    if (!(await box.isSelected())) await tapOn(app.driver, box);
};
const logged = async (count: number): Promise<void> => {
  await app.driver.wait(
    async () => (await stored('measurements')).length === count,
    10000,
    `measurement ${count}`,
  );
};

test('each instrument reads the practice circuit and is logged with what it was', async () => {
  await app.bring(studioJob());
  await app.size(...PHONE);
  await app.go(BOX);
  for (const [k, instrument] of MEASURING.entries()) {
    await press(app.driver, INSTRUMENT_FACTS[instrument].name);
    if (k === 0) {
      await press(app.driver, 'Practice');
      await choose(app.driver, 'What is wrong', 'nothing');
    }
    await press(app.driver, 'Read the practice circuit');
    await tickAll();
    await press(app.driver, 'Log ');
    await logged(k + 1);
    await press(app.driver, 'Another instrument');
  }
  const rows = await stored<Measurement>('measurements');
  assert.deepEqual([...new Set(rows.map((m) => m.instrument))].sort(), [...MEASURING].sort());
  assert.ok(rows.every((m) => m.simulated && m.by === 'M. Alder' && m.boxId === 'box-s2'));
  const of = (instrument: string) => rows.find((m) => m.instrument === instrument)!;
  assert.ok(Math.abs(of('low-impedance meter').value! - 120) < 3);
  assert.deepEqual(of('three-lamp tester').lamps, ['lit', 'lit', 'dark']);
  assert.equal(of('plug-in GFCI tester').shows, 'trips');
  assert.ok(of('tone receiver').gain! > 0 && of('tone receiver').sender !== '');
  assert.ok(of('insulation tester').cleared.length > 1);
  // A hidden fault is told when it is asked for.
  await press(app.driver, 'Voltage pen');
  await choose(app.driver, 'What is wrong', 'hidden fault 3');
  await press(app.driver, 'Say what is wrong');
  await sees(
    app.driver,
    /(Open|Poor|touch|reversed|Leak|False|A hot|neutral|Hidden|crossed|Cable|landed|breaker)/,
  );
  // After a reload all of it is there, and the sheet of measurements has them as CSV.
  await app.go(`${JOB}/prove/readings`);
  await sees(app.driver, /All measurements/);
  const exports = await app.driver.findElements(By.xpath('//button[normalize-space(.)="Export CSV"]'));
  await tapOn(app.driver, exports[1]!);
  await app.driver.wait(
    () => readdirSync(app.downloads).some((f) => f.endsWith('-measurements.csv')),
    10000,
    'no CSV',
  );
  const file = readdirSync(app.downloads).find((f) => f.endsWith('-measurements.csv'))!;
  const job = studioJob();
  const measurements = Object.fromEntries(rows.map((m) => [m.id, m]));
  assert.equal(readFileSync(join(app.downloads, file), 'utf8'), measurementsToCsv({ ...job, measurements }));
});

test('on a real circuit the state is asked for: ohms and insulation under a proof, a tie keeps the power off', async () => {
  await app.bring(studioJob());
  await app.go(BOX);
  await press(app.driver, 'Ohms');
  await fill(app.driver, 'It shows', '0.42');
  await sees(app.driver, /Not yet: Studio receptacles is not on record as off/);
  assert.equal(await (await button(app.driver, 'Log 0.42')).isEnabled(), false);

  await app.bring(provedToday(studioJob(), 'box-s2'));
  await app.go(BOX);
  await press(app.driver, 'Ohms');
  await fill(app.driver, 'It shows', '0.42');
  await press(app.driver, 'Log 0.42');
  await sees(app.driver, /Measured here[\s\S]*0\.42 Ω/);
  await press(app.driver, 'Another instrument');
  await press(app.driver, 'Insulation');
  await fill(app.driver, 'It shows', '550');
  await sees(app.driver, /Not yet: before an insulation test these come off: everything plugged in/);
  await tickAll();
  await press(app.driver, 'Log 550');
  await sees(app.driver, /550 MΩ[\s\S]*500 V test/);

  await press(app.driver, 'Tie or part conductors');
  await choose(app.driver, 'What is done', 'Tie together');
  const ends = await app.driver.findElements(By.css('.ends input'));
  await tapOn(app.driver, ends[0]!);
  await tapOn(app.driver, ends[1]!);
  await press(app.driver, 'Put it on record');
  await sees(app.driver, /Tied, S2, Studio/);
  await app.go(`${JOB}/prove?circuit=circuit-studio&box=box-s2&tab=work`);
  await press(app.driver, 'Power is back on');
  await sees(app.driver, /still tied: .*Undo it and put that on record first/);
  // Reloaded, it still stands; once undone the power may come back.
  await app.go(BOX);
  await press(app.driver, 'Undone');
  await app.driver.wait(async () => (await stored<Temporary>('temporaries')).length === 2, 10000);
  await app.go(`${JOB}/prove?circuit=circuit-studio&box=box-s2&tab=work`);
  await press(app.driver, 'Power is back on');
  await sees(app.driver, /Power is on; earlier proofs are void/);
  const rows = await stored<Measurement>('measurements');
  assert.deepEqual(
    rows.sort((a, b) => a.at.localeCompare(b.at)).map((m) => [m.instrument, m.value, m.simulated]),
    [
      ['ohmmeter', 0.42, false],
      ['insulation tester', 550, false],
    ],
  );
});
