/** Proof of dead on a phone, act by act: a box with a red and a second circuit, a dead outlet, new work; and its gates. */
import assert from 'node:assert/strict';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { test } from 'node:test';
import { studioJob } from '../demo/studio.ts';
import { readingsToCsv } from '#core/formats/readingsCsv.ts';
import { breakerOf, PLAIN_READING, stopAt } from '#core/job/document.ts';
import type { Circuit, Closing, JobDocument, Observation, Proof, Reading } from '#core/job/schema.ts';
import { draftFor, recorded, walk, withProof } from '#core/records/testing.ts';
import { DESK, JOB, PHONE, useApp } from './support/app.ts';
import { By, button, choose, css, fill, press, sees, tapOn } from './support/browser.ts';
import { tap, tapThrough } from './support/proof.ts';

const app = useApp();

const stored = async <T>(table: string): Promise<T[]> =>
  (await app.rows<{ table: string; value: T }>('entities'))
    .filter((e) => e.table === table)
    .map((e) => e.value);

/** The studio with one of its circuits changed, and a hall circuit beside it. */
function jobWith(id: string, values: Partial<Circuit>): JobDocument {
  const job = studioJob();
  const hall: Circuit = {
    ...job.circuits['circuit-bedroom']!,
    id: 'circuit-hall',
    name: 'Hall lights',
    space: 7,
    cable: 'NM-B',
    stops: [stopAt('box-h1', null)],
  };
  const h1 = { ...job.boxes['box-b3']!, id: 'box-h1', name: 'H1', offset: job.boxes['box-b3']!.offset + 30 };
  return {
    ...job,
    job: { ...job.job, otherSources: { asked: false, kinds: [] } },
    boxes: { ...job.boxes, [h1.id]: h1 },
    circuits: { ...job.circuits, [id]: { ...job.circuits[id]!, ...values }, 'circuit-hall': hall },
  };
}

/** Opens the proof of a box on a phone. */
async function proofOf(job: JobDocument, circuit: string, boxes = 0): Promise<void> {
  await app.bring(job);
  await app.size(...PHONE);
  await app.go(`${JOB}/prove?circuit=${circuit}`);
  for (let i = 0; i < boxes; i++) await press(app.driver, 'Next box');
  await press(app.driver, 'Prove dead');
}
test('a box with a red and a second circuit: each conductor is an act, a live red stops it, a reload loses nothing', async () => {
  const twoPoles = { breaker: breakerOf(20, 'none', 2), neutral: true };
  await proofOf(jobWith('circuit-studio', twoPoles), 'circuit-studio', 1);
  try {
    await press(app.driver, 'Another circuit in this box?');
    await choose(app.driver, 'Circuit', '7 · Hall lights', 2);
    await tap(app.driver, /generator, inverter/, 'None of these, asked and looked');
    await tap(app.driver, /What shows that the breaker did it/, 'It was live here, then I switched it off');
    await tap(app.driver, /What every conductor is read to/, 'The ground in this box');
    await tap(app.driver, /known live source/, '120 V lit');
    await tap(app.driver, /Before it is switched off/, '120 V lit');
    await sees(app.driver, /Goes dark[\s\S]*Studio: S1, S2/, '.act');
    await tap(app.driver, /Breaker .*Studio receptacles/, 'Done');
    await tap(app.driver, /Breaker 7 \(Hall lights\)/, 'Done');
    await tap(app.driver, /At the face, top hot to neutral/, 'All 7 read dead');
    await tap(app.driver, /Studio receptacles: black .* to Studio receptacles: ground/, 'Dead');
    // The other pole is on.
    await sees(app.driver, /Studio receptacles: red .* to Studio receptacles: ground/, '.act');
    await fill(app.driver, 'or volts shown, 1 or less is dead', '120');
    await sees(app.driver, /120 V is not dead/, '.act');
    await app.go(`${JOB}/prove?circuit=circuit-studio`);
    await press(app.driver, 'Next box');
    await press(app.driver, 'Prove dead');
    await sees(app.driver, /red[\s\S]*120 V is not dead/, '.act');
    await press(app.driver, 'Dead');
    const rest = await tapThrough(app.driver);
    for (const words of [
      /Hall lights: black, passing through to Studio receptacles: ground/,
      /Hall lights: ground, passing through to/,
      /black .* to Studio receptacles: red/,
      /red .* to Hall lights: black, passing through/,
      /Any other conductor/,
    ])
      assert.ok(
        rest.some((w) => words.test(w)),
        `${words} in ${rest.join(' | ')}`,
      );
    await press(app.driver, 'Record: S2 is dead');
    await sees(app.driver, /✓ Proved dead/, '.card');
    // The neutral is shared: it stays joined until it is clamped.
    await sees(app.driver, /white .*stays joined[\s\S]*Clamp it/, '.card');
    await sees(app.driver, /Shut/, '.card ol');
    await fill(app.driver, 'or amps shown', '0.4');
    await sees(app.driver, /0\.4 A flows in it: another circuit uses it/, '.card');
    for (;;) {
      const keys = await app.driver.findElements({ css: '.shut button' });
      if (keys.length === 0) break;
      await tapOn(app.driver, keys[0]!);
      await app.driver.wait(
        async () => (await app.driver.findElements({ css: '.shut button' })).length < keys.length,
        5000,
      );
    }
    // Power on the circuit that only passes through ends it.
    const [proof] = (await stored<Proof>('proofs')).filter((p) => p.boxId === 'box-s2');
    assert.deepEqual(proof!.lockedOut.sort(), ['circuit-hall', 'circuit-studio']);
    assert.equal(
      (await stored<Observation>('observations')).filter((o) => o.value === 120 && o.off.length > 0).length,
      1,
    );
    await app.go(`${JOB}/prove?circuit=circuit-hall`);
    await press(app.driver, 'Boxes closed: power is back on');
    await sees(app.driver, /Power is on; earlier proofs are void/);
    await app.go(`${JOB}/prove?circuit=circuit-studio`);
    await press(app.driver, 'Next box');
    await press(app.driver, 'In the box');
    await sees(app.driver, /Locked\.[\s\S]*Power came back on Hall lights since/, '.card');
  } finally {
    await app.size(...DESK);
  }
});

test('a dead outlet with an open ground: its ground is refused, a lead from a proven one does the work', async () => {
  await proofOf(jobWith('circuit-bedroom', { cable: 'NM-B' }), 'circuit-bedroom', 1);
  try {
    await sees(app.driver, /generator, inverter/, '.act');
    await tapOn(app.driver, await app.driver.findElement(By.xpath(`//label[contains(., "Battery")]//input`)));
    await press(app.driver, 'These are here');
    await tap(app.driver, /What shows that the breaker did it/, 'The outlet was dead before');
    await tap(app.driver, /What every conductor is read to/, 'The ground in this box');
    await tap(app.driver, /shows that this breaker feeds it/, 'Something else of this run');
    await tap(app.driver, /known live source/, '120 V lit');
    await sees(app.driver, /A conductor that is live in this box to the/, '.act');
    await fill(app.driver, 'or volts shown', '3');
    await sees(app.driver, /3 V: expected 100 to 140 V\. This is no good reference: bring a lead/, '.act');
    await press(app.driver, 'All 2');
    await press(app.driver, 'What every conductor is read to, done');
    await press(app.driver, 'A lead from a proven ground');
    await fill(app.driver, 'Lead from', 'the ground bar of Panel A');
    const rest = await tapThrough(app.driver);
    assert.ok(
      rest.some((w) => /The battery off and locked/.test(w)),
      rest.join(' | '),
    );
    assert.ok(
      rest.some((w) => /ground splice to lead from the ground bar of Panel A/.test(w)),
      rest.join(' | '),
    );
    await press(app.driver, 'Record: B2 is dead');
    await sees(app.driver, /✓ Proved dead/, '.card');
    await app.go(`${JOB}/hand-over`);
    await sees(
      app.driver,
      /the outlet was dead before; something else of its run went dead with the breaker; two-pole tester proved at 120 V/,
      'article',
    );
  } finally {
    await app.size(...DESK);
  }
});

test('new work: no number from before; a home run that is not landed is named on the sheet', async () => {
  // What had power is landed, whatever somebody saw.
  const job = jobWith('circuit-studio', {});
  await proofOf(job, 'circuit-studio', 2);
  await tap(app.driver, /generator, inverter/, 'None of these, asked and looked');
  await tap(app.driver, /What shows that the breaker did it/, 'Its home run is not landed');
  await fill(app.driver, 'Seen not landed by', 'R. Hale');
  await sees(app.driver, /had power by what is on record: its home run is landed/, '.act');
  const bare = { readings: {}, observations: {}, proofs: {}, energizings: {} };
  await proofOf({ ...job, ...bare }, 'circuit-studio', 2);
  try {
    await tap(app.driver, /generator, inverter/, 'None of these, asked and looked');
    await tap(app.driver, /What shows that the breaker did it/, 'Its home run is not landed');
    await fill(app.driver, 'Seen not landed by', 'R. Hale');
    await sees(app.driver, /What every conductor is read to/, '.act');
    await fill(app.driver, 'Lead from', 'temporary power');
    const rest = await tapThrough(app.driver);
    assert.ok(
      rest.every((w) => !/Breaker/.test(w)),
      'no breaker to lock',
    );
    assert.ok(
      rest.some((w) => /black .* to lead from temporary power/.test(w)),
      rest.join(' | '),
    );
    await press(app.driver, 'Record: S3 is dead');
    await sees(app.driver, /Opened because the home run is not landed, seen by R\. Hale/, '.card');
    await app.go(`${JOB}/hand-over`);
    await sees(app.driver, /Opened by override[\s\S]*home run not landed, seen by R\. Hale/, 'article');
  } finally {
    await app.size(...DESK);
  }
});

test('a CSV with readings as left, of a circuit whose power is not on record, is refused by its line', async () => {
  const job = studioJob();
  const forged: Reading = {
    ...PLAIN_READING,
    id: 'reading-forged',
    boxId: 'box-b1',
    place: 'B1',
    at: '2026-05-07T10:00:00Z',
    by: 'M. Alder',
    stage: 'as-left',
    instrument: 'meter',
    hotNeutral: 120,
  };
  const path = join(app.folder, 'forged.csv');
  writeFileSync(path, readingsToCsv({ ...job, readings: { [forged.id]: forged } }));
  await app.bring(job);
  await app.go(`${JOB}/prove/readings`);
  await sees(app.driver, /5 of 5 shown/);
  await (await css(app.driver, 'input[aria-label="Readings CSV"]')).sendKeys(path);
  await sees(app.driver, /line 2\.stage[\s\S]*power put back on record/);
  assert.equal((await stored<Reading>('readings')).length, 5);
  await app.go(`${JOB}/prove?circuit=circuit-bedroom`);
  await press(app.driver, 'As left');
  await fill(app.driver, 'Hot–neutral', '120');
  await press(app.driver, 'Log at B1');
  await sees(app.driver, /need the power put back on record/);
  assert.ok(await button(app.driver, 'Log at B1'));
});

/** The studio with a box that another person proved dead a moment ago, and holds open. */
function heldByAnother(): JobDocument {
  const job = studioJob();
  const box = job.boxes['box-s2']!;
  const draft = draftFor(job, box, { by: 'R. Osei' });
  const at = new Date(Date.now() - 60_000).toISOString();
  return withProof(job, recorded(job, box, draft, walk(job, box, draft), { id: 'proof-osei', at }));
}

test('power waits for the box that another person holds open, in both tabs, until that person closes it', async () => {
  await app.bring(heldByAnother());
  await app.size(...PHONE);
  const { driver } = app;
  try {
    await app.go(`${JOB}/prove?circuit=circuit-studio&box=box-s2&tab=work`);
    await sees(driver, /R\. Osei holds S2 open since[\s\S]*Power waits for R\. Osei/);
    const first = await driver.getWindowHandle();
    const disabled = async (words: string) =>
      (await (await button(driver, words)).getAttribute('disabled')) !== null;
    assert.ok(await disabled('Power is back on Studio receptacles'));
    assert.ok(await disabled('The lock is off, breaker still off'));
    await driver.switchTo().newWindow('tab');
    await app.size(...PHONE);
    await app.go(`${JOB}/prove?circuit=circuit-studio&box=box-s2&tab=work`);
    await sees(driver, /R\. Osei holds S2 open/);
    await press(driver, 'R. Osei is here and says: S2 closed, tools out');
    await driver.wait(async () => !(await disabled('Power is back on Studio receptacles')), 5000);
    await driver.close();
    await driver.switchTo().window(first);
    await driver.wait(async () => !(await disabled('Power is back on Studio receptacles')), 5000);
    assert.equal((await stored<Closing>('closings')).map((c) => c.by).join(), 'R. Osei');
    await press(driver, 'Power is back on Studio receptacles');
    await sees(driver, /Power is on; earlier proofs are void/);
  } finally {
    await app.size(...DESK);
  }
});
