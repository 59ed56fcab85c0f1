/** Trim on a phone: the kitchen box by box, a wrong landing caught before power, one wiring in every view of it. */
import assert from 'node:assert/strict';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { test } from 'node:test';
import { XMLParser } from 'fast-xml-parser';
import { tamarackJob } from '../demo/tamarack.ts';
import { plannedBoxes } from '#core/boxes/planned.ts';
import { stepsFor } from '#core/boxes/steps.ts';
import { endsOf, membersOf } from '#core/boxes/wiring.ts';
import { buildRun } from '#core/circuits/run.ts';
import type { Box, Tick } from '#core/job/schema.ts';
import { differences } from '#core/boxes/wiring.ts';
import { clamped, draftFor, recorded, walk, withProof } from '#core/records/testing.ts';
import { DESK, JOB, PHONE, useApp } from './support/app.ts';
import { powerBack } from './support/proof.ts';
import { By, button, css, press, sees, tapOn } from './support/browser.ts';

const app = useApp();
const CIRCUIT = 'circuit-kitchen-1';

const stored = async <T>(table: string): Promise<T[]> =>
  (await app.rows<{ table: string; value: T }>('entities'))
    .filter((e) => e.table === table)
    .map((e) => e.value);

/** The demo house with every box of the kitchen circuit proved dead a moment ago, its neutrals clamped. */
function provedKitchen() {
  const job = tamarackJob();
  const at = new Date(Date.now() - 60_000).toISOString();
  return job.circuits[CIRCUIT]!.stops.reduce((document, { boxId }, k) => {
    const box = document.boxes[boxId]!;
    // The first was live before its breaker was locked; the others are dead under that lock.
    const locked = { basis: 'same-lock-out', reference: 'lead', referenceName: 'lead from K1' } as const;
    const draft = draftFor(document, box, k === 0 ? {} : locked);
    const seen = walk(document, box, draft);
    const last = seen.pop()!;
    const made = recorded(document, box, draft, [...seen, ...clamped(document, box), last], {
      id: `proof-${boxId}`,
      at,
    });
    assert.deepEqual(made.gaps, [], box.name);
    return withProof(document, made);
  }, job);
}
/** Puts an end somewhere by the list in its row of the table. */
const put = async (end: string, place: string): Promise<void> => {
  const select = await css(app.driver, `[data-end="${end}"] select`);
  await (await select.findElement(By.xpath(`./option[normalize-space(.) = "${place}"]`))).click();
};
const kitchen = () => {
  const job = tamarackJob();
  return buildRun(job, job.circuits[CIRCUIT]!);
};

test('the kitchen is trimmed box by box on a phone: every step ticked, then the tests with power on', async () => {
  await app.bring(provedKitchen());
  await app.size(...PHONE);
  const run = kitchen();
  try {
    await app.go(`${JOB}/trim?circuit=${CIRCUIT}`);
    await sees(app.driver, /0 of 6 boxes trimmed/);
    await tapOn(app.driver, await css(app.driver, '.list button.next'));
    for (const stop of run.stops) {
      await sees(app.driver, new RegExp(`^${stop.box.name}$`), '.box-name');
      const inside = stepsFor(run, stop).filter((s) => !s.afterPower);
      await sees(app.driver, /Treat a dead wire as live/);
      for (const step of inside) {
        const box = `.steps [role=checkbox][aria-label="${step.text.replaceAll('"', '\\"')}"]`;
        await tapOn(app.driver, await css(app.driver, box));
        await css(app.driver, `${box}[aria-checked=true]`);
      }
      await sees(app.driver, /✓ Every step is ticked/);
      if (stop !== run.stops.at(-1)) await tapOn(app.driver, await button(app.driver, 'Next box'));
    }
    // Reload in the middle: nothing is lost.
    await app.driver.navigate().refresh();
    await sees(app.driver, /✓ Every step is ticked/);
    await powerBack(app.driver, 'Boxes closed, power is back on');
    await sees(app.driver, /Tests, with the power on/);
    const [test] = await app.driver.findElements(By.css('.steps [role=checkbox]'));
    await tapOn(app.driver, test!);
    await sees(app.driver, /M\. Alder/, '.steps');
  } finally {
    await app.size(...DESK);
  }
  const ticks = await stored<Tick>('ticks');
  const inside = run.stops.flatMap((s) => stepsFor(run, s).filter((step) => !step.afterPower));
  assert.equal(ticks.length, inside.length + 1);
  assert.ok(ticks.every((t) => t.done && t.by === 'M. Alder'));
});

test('without a proof of dead no step is given out, and none can be ticked', async () => {
  await app.freshDemo();
  await app.size(...PHONE);
  try {
    await app.go(`${JOB}/trim?box=box-k3`);
    await sees(app.driver, /Locked\. The steps inside K3 open once this box is proved dead/);
    assert.equal((await app.driver.findElements(By.css('.steps'))).length, 0);
    // The next action is within the first screen of the phone.
    const act = await button(app.driver, 'Prove K3 dead');
    const { y, height } = await act.getRect();
    assert.ok(y + height < 700, `at ${y}`);
    await tapOn(app.driver, act);
    await sees(app.driver, /Prove dead/);
  } finally {
    await app.size(...DESK);
  }
});

test('a wrong landing is caught before power: said at once, held back at the breaker, mended', async () => {
  await app.bring(provedKitchen());
  await app.size(...PHONE);
  try {
    await app.go(`${JOB}/trim?box=box-k12&tab=done`);
    await sees(app.driver, /✓ As planned at every contact/);
    await app.go(`${JOB}/trim?box=box-k2&tab=done`);
    await sees(app.driver, /✓ As planned at every contact/);
    // By keys: the tail of the hot is taken up, and put on the silver screw.
    const row = (id: string) => css(app.driver, `.wiring [data-row="${id}"]`);
    await put('tail-hot-brass-1.b', 'silver screw, bottom');
    await sees(app.driver, /!! Danger A hot meets a neutral.*breaker opens at once/);
    await put('tail-hot-brass-1.b', 'brass screw, top');
    await sees(app.driver, /✓ As planned at every contact/);
    // By touch: conductor, then terminal.
    await tapOn(app.driver, await css(app.driver, '[data-end="tail-neutral-silver-1.b"] button'));
    await tapOn(app.driver, await row('device.brass-2'));
    await sees(app.driver, /!! Danger A hot meets/);
    await sees(app.driver, /Kept on record as done by M\. Alder/);
    await app.go(`${JOB}/prove?circuit=${CIRCUIT}&box=box-k2&tab=work`);
    await powerBack(app.driver, 'Power is back on Kitchen counter, sink side');
    await sees(app.driver, /K2 is on record as done so that it is dangerous: A hot meets.*Mend it first/);
    assert.deepEqual(
      (await stored<{ circuitId: string }>('energizings')).filter((e) => e.circuitId === CIRCUIT),
      [],
    );
    await app.go(`${JOB}/trim?box=box-k2&tab=done`);
    await press(app.driver, 'Mended: as planned again');
    await sees(app.driver, /✓ As planned at every contact/);
    await app.go(`${JOB}/prove?circuit=${CIRCUIT}&box=box-k2&tab=work`);
    await powerBack(app.driver, 'Power is back on Kitchen counter, sink side');
    await sees(app.driver, /Power is on; earlier proofs are void/);
  } finally {
    await app.size(...DESK);
  }
  const [box] = (await stored<Box>('boxes')).filter((b) => b.id === 'box-k2');
  // Who mended it, and that it is as planned, is on record.
  assert.deepEqual([box!.wiring?.stage, box!.wiring?.by], ['as-done', 'M. Alder']);
  const stop = kitchen().stops.findIndex((s) => s.box.id === 'box-k2');
  assert.deepEqual(differences(plannedBoxes(kitchen())[stop]!, box!.wiring!.wiring), []);
});

test('an end is dragged to another terminal, and what was recorded outlives a reload and another tab', async () => {
  await app.freshDemo();
  await app.go(`${JOB}/trim?box=box-k12&tab=done`);
  await sees(app.driver, /✓ As planned/);
  const from = await css(app.driver, '.wiring [data-row="device.black"]');
  const to = await css(app.driver, '.wiring .splice [data-row="splice-neutral"]');
  await app.driver.actions().move({ origin: from }).press().move({ origin: to }).release().perform();
  await sees(app.driver, /K12 .*dead|!! Danger|! Wrong/);
  await sees(app.driver, /Kept on record as found/);
  await app.driver.navigate().refresh();
  await sees(app.driver, /Kept on record as found/);
  await app.go(`${JOB}/trim?box=box-k12`);
  await sees(app.driver, /Recorded as found, otherwise than planned/);
  await press(app.driver, 'See what it does');
  await press(app.driver, 'Mended: as planned again');
  await sees(app.driver, /✓ As planned/);
});

test('a jumper from white to ground is put down as it was found, and says what it does', async () => {
  await app.freshDemo();
  await app.go(`${JOB}/trim?box=box-k4&tab=done`);
  await sees(app.driver, /✓ As planned/);
  await press(app.driver, 'Add a jumper');
  await put('jumper-1.a', 'silver screw, bottom');
  await put('jumper-1.b', 'green screw');
  await sees(app.driver, /!! Danger Neutral current flows in the grounds/);
  await press(app.driver, 'Take jumper 1 out');
  await sees(app.driver, /✓ As planned/);
});

test('picture, table, steps and the exported SVG say the same of a box', async () => {
  await app.freshDemo();
  const job = tamarackJob();
  for (const [boxId, circuitId] of [
    ['box-k1', CIRCUIT],
    ['box-y18', 'circuit-lights'],
    ['box-l2', 'circuit-living'],
  ] as const) {
    const run = buildRun(job, job.circuits[circuitId]!);
    const at = run.stops.findIndex((s) => s.box.id === boxId);
    const wiring = plannedBoxes(run)[at]!;
    await app.go(`${JOB}/trim?box=${boxId}&tab=picture`);
    await sees(app.driver, /\w/, '.wiring');
    const shown = await app.script<string[]>(
      `return [...document.querySelectorAll('tbody tr')].map((r) => r.dataset.end)`,
    );
    const hands = endsOf(wiring).filter((e) => e.kind !== 'tail' || e.id.endsWith('.b'));
    assert.deepEqual(shown.sort(), hands.map((e) => e.id).sort());
    // Tapping a conductor lights its line and what it lands on.
    const [first] = wiring.places.filter((p) => p.at?.startsWith('device.'));
    await tapOn(app.driver, await css(app.driver, `[data-end="${first!.end}"] button`));
    const lit = await app.script<string[]>(
      `return [...document.querySelectorAll('.wiring .row.on')].map((r) => r.dataset.row)`,
    );
    assert.ok(lit.includes(first!.at!), `${boxId}: ${first!.at} is not lit`);
    await press(app.driver, 'Export SVG');
    const file = join(app.downloads, `14-tamarack-court-${boxId.slice(4)}.svg`);
    await app.driver.wait(() => existsSync(file), 10000, 'no SVG came');
    const text = readFileSync(file, 'utf8');
    new XMLParser().parse(text);
    for (const { id } of wiring.splices)
      for (const member of membersOf(wiring, id))
        assert.ok(text.includes(`data-line="${member.replace(/\.[ab]$/, '')}"`), `${boxId}: ${member}`);
    const landed = stepsFor(run, run.stops[at]!).flatMap((s) => s.lands ?? []);
    assert.deepEqual(
      [...landed].sort(),
      endsOf(wiring)
        .map((e) => e.id)
        .sort(),
    );
  }
});

test('a box on no circuit says so, and takes what was found in it', async () => {
  const job = tamarackJob();
  const living = job.circuits['circuit-living']!;
  const stops = living.stops.filter((s) => s.boxId !== 'box-f2');
  await app.bring({ ...job, circuits: { ...job.circuits, 'circuit-living': { ...living, stops } } });
  await app.go(`${JOB}/trim?box=box-f2`);
  await sees(app.driver, /F2 is on no circuit, so nothing is planned in it/);
  await press(app.driver, 'Cables in the box: one more');
  await press(app.driver, 'Two-wire and ground');
  await press(app.driver, 'Splices: one more');
  await put('cable-1.black', '1 splice');
  const [box] = (await stored<Box>('boxes')).filter((b) => b.id === 'box-f2');
  assert.deepEqual(box!.wiring!.wiring.places, [{ end: 'cable-1.black', at: 'splice-1' }]);
});
