/** A receptacle replaced in few taps, a proof that is voided in between, an apprentice, two phones, a call that becomes a house. */
import assert from 'node:assert/strict';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test } from 'node:test';
import type { Box, Circuit, Flip, Reading } from '#core/job/schema.ts';
import { DESK, PHONE, useApp } from './support/app.ts';
import { button, css, field, fill, Key, openBrowser, press, sees, setSize } from './support/browser.ts';
import { answer, moved, shown, type Shown } from './support/call.ts';

const app = useApp();
const jobOf = async (): Promise<string> => new URL(await app.driver.getCurrentUrl()).pathname.split('/')[2]!;
async function start(tile: string): Promise<Shown> {
  await app.size(...PHONE);
  await app.go('/');
  await app.script('localStorage.setItem("hekto-by", "M. Alder")');
  await app.script(`
    window.taps = [];
    window.typed = [];
    // What is seen to before a breaker goes off is of the proof, as its acts are.
    const kind = () => {
      const { kind, step } = document.querySelector('[data-step]')?.dataset ?? { kind: 'start' };
      return step?.startsWith('before-off') ? 'dead' : kind;
    };
    const apart = ['dead', 'clamp', 'power', 'read', 'test'];
    document.addEventListener('click', (e) => {
      if (e.target.closest('button, a') && !apart.includes(kind())) window.taps.push(e.target.closest('button, a').innerText);
    }, true);
    document.addEventListener('change', (e) => {
      if (e.target.matches('input') && !apart.includes(kind()))
        window.typed.push(document.querySelector('label[for="' + e.target.id + '"]')?.innerText.trim());
    }, true);`);
  if (
    (await app.script<number>(
      `return [...document.querySelectorAll('.tiles button')].filter((b) => b.innerText.trim() === arguments[0]).length`,
      tile,
    )) === 0
  )
    await press(app.driver, 'All ');
  await press(app.driver, tile);
  await sees(app.driver, /Any of these, now/);
  return shown(app.driver);
}
/** Goes on by the first keys until a step is shown. */
async function until(at: Shown, key: (s: Shown) => boolean, plan = {}): Promise<Shown> {
  let now = at;
  for (let k = 0; !key(now); k++) {
    assert.ok(k < 120, `never came there: ${now.title}`);
    await answer(app.driver, now, plan);
    now = await moved(app.driver, now);
  }
  return now;
}
/** A reading by the pad of the phone. */
async function read(volts: readonly string[]): Promise<void> {
  for (const v of volts) {
    for (const digit of v) await press(app.driver, digit);
    await press(app.driver, 'Next');
  }
  await press(app.driver, 'Log');
}

test('a receptacle is replaced in ten taps beside proof and tests, and nothing is typed twice', async () => {
  const plan = { room: 'Hallway', choose: { inside: 'Copper ground' } };
  let at = await start('Outlet worn, cracked or scorched');
  at = await until(at, (s) => s.kind === 'where', plan);
  await fill(app.driver, 'Where in the room', 'by the stairs');
  await until(at, (s) => s.kind === 'over', plan);
  const taps = await app.script<string[]>('return window.taps');
  const typed = await app.script<string[]>('return window.typed');
  assert.ok(taps.length <= 10, `${taps.length} taps: ${taps.join(' | ')}`);
  assert.equal(new Set(typed).size, typed.length, typed.join(' | '));
  const [box] = await app.rowsHere<Box>('boxes');
  assert.equal(box!.status, 'replace');
  assert.equal(box!.device.tamperResistant, true);
});

test('power in between voids the proof: the box is proved anew before the hands go back; an apprentice is countersigned', async () => {
  const at = await start('Outlet worn, cracked or scorched');
  await sees(app.driver, /M\. Alder works as/);
  await app.script(`
    const select = [...document.querySelectorAll('select')].at(-1);
    select.value = 'apprentice';
    select.dispatchEvent(new Event('change', { bubbles: true }));`);
  await until(at, (s) => s.key === 'inside', { room: 'Hallway' });
  const call = await app.driver.getCurrentUrl();
  const [circuit] = await app.rowsHere<Circuit>('circuits');
  await app.go(`/job/${await jobOf()}/prove?circuit=${circuit!.id}`);
  await press(app.driver, 'Boxes closed: power is back on');
  await app.driver.wait(async () => (await app.rowsHere('energizings')).length === 1, 10000);
  await app.go(new URL(call).pathname);
  await sees(app.driver, /Prove H\d dead[\s\S]*Power came back/);
  assert.equal((await shown(app.driver)).kind, 'dead');
  await sees(app.driver, /records by M\. Alder, apprentice[\s\S]*not countersigned/);
  await press(app.driver, 'Countersign');
  await sees(app.driver, /expected somebody else than who did the work/);
  assert.deepEqual(await app.rowsHere('countersigns'), []);
});

/** Sound as a file: loud but for some spans, one channel of 16 bits. */
function wav(seconds: number, silent: readonly (readonly [number, number])[]): string {
  const rate = 48000;
  const data = Buffer.alloc(44 + 2 * rate * seconds);
  data.write('RIFF', 0);
  data.writeUInt32LE(data.length - 8, 4);
  data.write('WAVEfmt ', 8);
  data.writeUInt32LE(16, 16);
  data.writeUInt16LE(1, 20);
  data.writeUInt16LE(1, 22);
  data.writeUInt32LE(rate, 24);
  data.writeUInt32LE(2 * rate, 28);
  data.writeUInt16LE(2, 32);
  data.writeUInt16LE(16, 34);
  data.write('data', 36);
  data.writeUInt32LE(2 * rate * seconds, 40);
  for (let i = 0; i < rate * seconds; i++) {
    const t = i / rate;
    const quiet = silent.some(([from, to]) => t >= from && t < to);
    const hum = Math.sin(2 * Math.PI * 180 * t) + 0.6 * Math.sin(2 * Math.PI * 1270 * t);
    data.writeInt16LE(Math.round((quiet ? 60 : 9000) * hum), 44 + 2 * i);
  }
  const path = join(mkdtempSync(join(tmpdir(), 'hekto-sound-')), 'outlet.wav');
  writeFileSync(path, data);
  return path;
}

async function twoPhones(): Promise<void> {
  // A false stop, then the silence of a breaker that is off.
  const sound = wav(60, [
    [6, 7.4],
    [19, 23.5],
  ]);
  const other = await openBrowser(undefined, [
    '--use-fake-device-for-media-stream',
    '--use-fake-ui-for-media-stream',
    `--use-file-for-fake-audio-capture=${sound}%noloop`,
    '--autoplay-policy=no-user-gesture-required',
  ]);
  try {
    await setSize(other.driver, ...PHONE);
    await other.driver.get(`${app.server.origin}/listen`);
    // Its clock is minutes off.
    await other.driver.executeScript('const real = Date.now; Date.now = () => real() + 7 * 60000;');
    const at = await start('Which breaker?');
    const plan = { choose: { means: 'Two phones' }, figures: { Spaces: '6' } };
    await until(at, (s) => s.kind === 'phones', plan);
    await press(other.driver, 'Let it hear');
    await sees(other.driver, /both phones in your hands/);
    await press(other.driver, 'Start');
    await press(app.driver, 'Start');
    const heard = (words: RegExp) => sees(other.driver, words, 'main', 90_000);
    const flip = async (space: string): Promise<void> => {
      await press(app.driver, `${space} is off`);
      await button(app.driver, `${space} is on again`);
      await press(app.driver, `${space} is on again`);
    };
    // The pause of the sound belongs to no flip.
    await heard(/silent now/);
    await heard(/1 stop heard/);
    await flip('1');
    await flip('2');
    await heard(/silent now/);
    await press(app.driver, '3 is off');
    await heard(/2 stops heard/);
    await press(app.driver, '3 is on again');
    await flip('4');
    const code = await (await css(other.driver, '.code')).getText();
    const input = await field(app.driver, 'Code on the other phone');
    await input.sendKeys('WRONG', Key.TAB);
    await sees(app.driver, /one of its letters is wrong/);
    await input.sendKeys(Key.chord(Key.CONTROL, 'a'), code.toLowerCase(), Key.TAB);
    await sees(app.driver, /Breaker 3 it is/);
    const flips = await app.rowsHere<Flip>('flips');
    assert.deepEqual(flips.map((f) => [f.off[0], f.outlets[0]!.dead, f.means]).sort(), [
      ['1', false, 'two-phones'],
      ['2', false, 'two-phones'],
      ['3', true, 'two-phones'],
      ['4', false, 'two-phones'],
    ]);
  } finally {
    await other.close();
  }
}

test('two phones with no network between them: one hears the outlet fall silent, the other flips; a false stop is none', async () => {
  try {
    await twoPhones();
  } catch {
    // What is matched by time is missed by a machine that stands still for seconds: once more.
    await twoPhones();
  }
});

test('a call becomes a house: what was found in words is drawn later and keeps its readings and answers', async () => {
  let at = await start('Outlet worn, cracked or scorched');
  at = await until(at, (s) => s.kind === 'read', { room: 'Bedroom' });
  await read(['121', '121', '0', '0']);
  at = await moved(app.driver, at);
  const job = await jobOf();
  const [box] = await app.rowsHere<Box>('boxes');
  await app.size(...DESK);
  await press(app.driver, 'Project');
  await sees(app.driver, /Bedroom/);
  await app.go(`/job/${job}/walk?box=${box!.id}&part=walls`);
  for (const wall of ["12'", "10'", "12'", "10'"]) {
    const input = await field(app.driver, 'Next wall');
    await input.sendKeys(wall, Key.ENTER);
  }
  await sees(app.driver, /Closes within/);
  await press(app.driver, 'Outlets');
  const input = await field(app.driver, 'Put it on the plan, from wall start');
  await input.sendKeys("3'", Key.ENTER);
  await app.driver.wait(async () => (await app.rowsHere<Box>('boxes'))[0]!.wallId !== null, 10000);
  assert.equal((await app.rowsHere<Reading>('readings')).length, 1);
  await press(app.driver, 'Call');
  await app.driver.wait(async () => (await shown(app.driver)).key === at.key, 10000);
});
